#include "trouble.h"

#include "stated.h"

#include "core/weather/sun.h"
#include "core/weather/zone.h"

#include <algorithm>
#include <chrono>
#include <cmath>

namespace vernal {
namespace {

SunPosition sun_at(const AuditCase& c, std::size_t row)
{
    const std::chrono::sys_days day{std::chrono::days{c.log.day(row)}};
    const std::chrono::year_month_day d{day};
    const int y = static_cast<int>(d.year()), m = static_cast<int>(static_cast<unsigned>(d.month())), dd = static_cast<int>(static_cast<unsigned>(d.day()));
    return sun_position(c.job.site.place, days_since_j2000(y, m, dd, c.log.of_day_s(row) / 3600 - clock_ahead_h(c.job.site.place, y, m, dd)));
}

} // namespace

double AuditCase::sun_height_deg(std::size_t row) const { return log.log().has_date() ? 90 - sun_at(*this, row).zenith_deg : NAN; }

double AuditCase::sun_azimuth_deg(std::size_t row) const { return log.log().has_date() ? sun_at(*this, row).azimuth_deg : NAN; }

bool AuditCase::night(std::size_t row) const
{
    constexpr double well_down_deg = -4;
    const double height = sun_height_deg(row), h = log.of_day_s(row) / 3600;
    return std::isfinite(height) ? height < well_down_deg : h < 4 || h >= 22;
}

std::size_t AuditCase::probe_at(ProbePlace place) const
{
    for (std::size_t i = 0; i < v.probes.size(); ++i)
        if (v.probes[i].place == place && log.has_probe(i))
            return i;
    return v.probes.size();
}

std::size_t AuditCase::loop_pump() const
{
    const int o = arrangement_of(v.loop).output_of(Driver::pump);
    return o >= 0 && static_cast<std::size_t>(o) < v.unit.outputs.size() && log.has_output(static_cast<std::size_t>(o)) ? static_cast<std::size_t>(o) : v.unit.outputs.size();
}

namespace {

// Of an output with one pair the one that was found to be its own.
std::vector<DifferencePair> pairs_of(const AuditCase& c, const FoundSettings& f)
{
    auto out = difference_pairs(c.v, f.output);
    if (out.size() < 2)
        out = {{f.source, f.store, f.on_k ? f.on_k->value : out.empty() ? INFINITY
                                                                        : out.front().on_k}};
    return out;
}

} // namespace

double AuditCase::difference_k(const FoundSettings& f, std::size_t row) const
{
    double most = NAN;
    for (const DifferencePair& p : pairs_of(*this, f))
        most = std::fmax(most, log.reading(p.source, row) - log.reading(p.store, row));
    return most;
}

double AuditCase::above_start_k(const FoundSettings& f, std::size_t row) const
{
    double most = NAN;
    for (const DifferencePair& p : pairs_of(*this, f))
        most = std::fmax(most, log.reading(p.source, row) - log.reading(p.store, row) - p.on_k);
    return most;
}

bool AuditCase::rules_rest(std::size_t output, std::size_t row) const
{
    if (!replay)
        return false;
    std::size_t low = 0, high = replay->size(); // the last row of the replay not after this one
    while (high - low > 1) {
        const std::size_t middle = (low + high) / 2;
        (replay->time_s(middle) <= log.time_s(row) ? low : high) = middle;
    }
    return !replay->decision(low, output).on;
}

const std::vector<TroubleKind>& trouble_kinds()
{
    using namespace troubles;
    static const std::vector<TroubleKind> table{
        {"probe_lost", "A probe is lost", true, "probe_stuck", probe_lost},
        {"probes_swapped", "Two probes are swapped", true, "probe_offset", probes_swapped},
        {"no_rise", "It runs and nothing flows", true, "low_flow", no_rise},
        {"runs_at_night", "It runs at night", true, "stuck_on probe_drifts", runs_at_night},
        {"stuck_on", "It stays on", true, "runs_at_night", stuck_on},
        {"stuck_off", "It stays off", true, "no_rise", stuck_off},
        {"pressure_lost", "Pressure is lost", true, "lost_after_stagnation", pressure_lost},
        {"lost_after_stagnation", "Pressure is lost after stagnation", true, "pressure_lost", nullptr},
        {"chattering", "It chatters", true, "short_cycling", chattering},
        {"unit_mix_up", "°C and °F are mixed up", true, "", unit_mix_up},
        {"probe_stuck", "A reading stands still", true, "probe_lost", probe_stuck},
        {"probe_in_sun", "A probe reads the sun or the weather", false, "probe_offset", probe_in_sun},
        {"probe_bare", "A probe hangs bare", false, "runs_at_night low_flow no_rise probe_offset", probe_bare},
        {"probe_drifts", "A probe drifts", false, "probe_offset runs_at_night", probe_drifts},
        {"probe_offset", "A probe reads wrong", false, "probe_in_sun probes_swapped probe_drifts", probe_offset},
        {"heat_lost_backwards", "Heat is lost backwards at night", false, "probe_offset", heat_lost_backwards},
        {"low_flow", "Little flows", false, "no_rise", low_flow},
        {"short_cycling", "Short cycling", false, "chattering", short_cycling},
        {"clock_wrong", "The clock is wrong", false, "late_start", clock_wrong},
        {"late_start", "It starts late against the clear sky", false, "clock_wrong", late_start},
        {"stagnated", "The array stagnated", false, "no_rise stuck_off", stagnated},
        {"long_gaps", "The log has gaps", false, "", long_gaps},
        {"not_disinfected", "The store is not disinfected", false, "", not_disinfected},
        {"limit_reached", "A limit is reached", false, "", limit_reached},
    };
    return table;
}

const TroubleKind* find_trouble(const std::string& key)
{
    for (const TroubleKind& k : trouble_kinds())
        if (key == k.key)
            return &k;
    return nullptr;
}

std::vector<AuditTrouble> find_troubles(const AuditCase& c, std::stop_token stop)
{
    std::vector<AuditTrouble> out;
    for (const TroubleKind& k : trouble_kinds()) {
        if (stop.stop_requested())
            break;
        if (k.look)
            k.look(c, out);
    }
    for (AuditTrouble& t : out)
        t.serious = find_trouble(t.key)->serious && t.sure >= 0.5;
    std::stable_sort(out.begin(), out.end(), [](const AuditTrouble& a, const AuditTrouble& b) { return a.serious != b.serious ? a.serious : false; });
    return out;
}

std::vector<TroubleStretch> stretches_where(const LogView& log, double least_s, double join_s, const std::function<bool(std::size_t)>& holds)
{
    std::vector<TroubleStretch> raw;
    for (std::size_t row = 0; row < log.rows(); ++row) {
        if (!holds(row))
            continue;
        const double t = log.time_s(row), ends = t + std::min(log.usual_s(), row + 1 < log.rows() ? log.time_s(row + 1) - t : log.usual_s());
        if (!raw.empty() && t - raw.back().to_s <= join_s + 1e-6)
            raw.back().to_s = ends;
        else
            raw.push_back({t, ends});
    }
    raw.erase(std::remove_if(raw.begin(), raw.end(), [&](const TroubleStretch& s) { return s.to_s - s.from_s < least_s; }), raw.end());
    return raw;
}

double total_s(const std::vector<TroubleStretch>& s)
{
    double sum = 0;
    for (const TroubleStretch& x : s)
        sum += x.to_s - x.from_s;
    return sum;
}

AuditTrouble* report(std::vector<AuditTrouble>& out, const char* key, std::vector<TroubleStretch> evidence, double sure, std::string what, std::string reason, std::string test)
{
    if (evidence.empty())
        return nullptr;
    AuditTrouble t;
    t.key = key;
    t.what = std::move(what);
    t.reason = std::move(reason);
    t.test = std::move(test);
    t.from_s = evidence.front().from_s;
    t.to_s = evidence.back().to_s;
    t.sure = std::clamp(sure, 0.0, 0.99);
    t.evidence = std::move(evidence);
    out.push_back(std::move(t));
    return &out.back();
}

std::string probe_name(const Variant& v, std::size_t probe) { return v.probes[probe].name; }

} // namespace vernal
