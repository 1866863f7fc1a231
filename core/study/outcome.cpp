#include "outcome.h"

#include "core/setup/possible.h"
#include "figures_only.h"

#include <cmath>

namespace vernal {

RunRequest::RunRequest() = default;
RunRequest::RunRequest(const RunRequest&) = default;
RunRequest::RunRequest(RunRequest&&) noexcept = default;
RunRequest& RunRequest::operator=(const RunRequest&) = default;
RunRequest& RunRequest::operator=(RunRequest&&) noexcept = default;
RunRequest::~RunRequest() = default;
bool RunRequest::operator==(const RunRequest&) const = default;

Outcome::Outcome() = default;
Outcome::Outcome(const Outcome&) = default;
Outcome::Outcome(Outcome&&) noexcept = default;
Outcome& Outcome::operator=(const Outcome&) = default;
Outcome& Outcome::operator=(Outcome&&) noexcept = default;
Outcome::~Outcome() = default;

Verdict::Verdict() = default;
Verdict::Verdict(const Verdict&) = default;
Verdict::Verdict(Verdict&&) noexcept = default;
Verdict& Verdict::operator=(const Verdict&) = default;
Verdict& Verdict::operator=(Verdict&&) noexcept = default;
Verdict::~Verdict() = default;

namespace {

// The weather of the last run, if it is the same again.
const Weather& kept_weather(const Job& job, const Variant& v, const Day& day, std::optional<CachedWeather>& kept)
{
    const Loop& loop = v.loop;
    if (!kept || !(kept->answers == loop.answers && kept->collector == loop.collector && kept->collector_2 == loop.collector_2 && kept->panel == loop.panel && kept->pipes_in_sun == pipes_in_sun(loop) && kept->day == day && kept->site == job.site && kept->traces == job.traces && kept->horizon == v.horizon))
        kept = CachedWeather{loop.answers, loop.collector, loop.collector_2, loop.panel, pipes_in_sun(loop), day, job.site, job.traces, v.horizon, weather_of(job, v, day)};
    return kept->weather;
}

std::vector<ProbePlace> places_of(const Variant& v)
{
    std::vector<ProbePlace> out;
    for (const Probe& p : v.probes)
        out.push_back(p.place);
    return out;
}

// from: it begins there, in place of being settled, if it still fits; else there is no result.
void run_coupled_into(Outcome& o, const Job& job, std::stop_token stop, RunCache& cache, const Beginning* from = nullptr)
{
    auto setup = coupled_setup(job, o.variant, o.day, &kept_weather(job, o.variant, o.day, cache.weather));
    if (!setup) {
        o.error = setup.error();
        return;
    }
    o.setup = std::move(*setup);
    o.program = o.setup->program;
    o.out_of_action = o.setup->out_of_action;
    CoupledOptions options;
    options.stop = stop;
    if (from) {
        o.settled = false;
        if (from->start_tank_c != o.setup->start_tank_c || from->temps_c.size() != Network(o.setup->loop, o.setup->probes, o.setup->fine, o.setup->altitude_m).size())
            return;
        o.setup->start_c = from->temps_c;
        o.setup->spin_up_days = 0;
    }
    o.coupled = run_coupled(*o.setup, options);
    if (o.settled && !o.coupled.cancelled)
        cache.begins = Beginning{o.variant.loop.answers, places_of(o.variant), o.day, job.site, job.traces, o.setup->start_tank_c, o.coupled.begins_c};
}

void run_replay_into(Outcome& o, const Job& job, std::stop_token stop)
{
    const auto trace = trace_of(job, o.variant, o.day);
    const auto setup = replay_setup(o.variant, &o.day);
    if (!trace || !setup) {
        o.error = setup ? Error{"the trace “" + o.day.trace + "” of this day is missing", "", "Import it again"} : setup.error();
        return;
    }
    auto result = run_replay(*setup, *trace, nullptr, stop);
    if (!result) {
        o.error = result.error();
        return;
    }
    o.out_of_action = setup->out_of_action;
    o.program = result->program;
    o.trace = trace;
    o.replay = std::move(*result);
}

} // namespace

double Outcome::reading(std::size_t i, std::size_t probe) const
{
    if (is_replay())
        return replay->reading(i, probe);
    const Reading& r = coupled.records[i].inputs.readings[probe];
    return r.valid ? r.mk / 1000.0 : NAN;
}

double Outcome::start_s() const
{
    return trace ? trace->clock_s() : 0.0;
}

double Outcome::faults_begin_s() const
{
    return is_replay() && size() > 0 ? time_s(0) : 0.0;
}

bool Outcome::switches_at(std::size_t i) const
{
    if (i == 0 || i >= size())
        return false;
    const Decisions was = decisions(i - 1), is = decisions(i);
    for (std::size_t k = 0; k < variant.unit.outputs.size(); ++k)
        if (was[k].on != is[k].on)
            return true;
    return false;
}

std::optional<double> Outcome::next_switch_s(double after) const
{
    for (std::size_t i = at(after); i < size(); ++i)
        if (time_s(i) > after && switches_at(i))
            return time_s(i);
    return {};
}

std::optional<double> Outcome::last_switch_s(double before) const
{
    for (std::size_t i = std::min(at(before) + 1, size()); i-- > 0;)
        if (time_s(i) < before && switches_at(i))
            return time_s(i);
    return {};
}

std::size_t Outcome::at(double t) const
{
    std::size_t lo = 0, hi = size();
    while (hi - lo > 1) {
        const std::size_t mid = (lo + hi) / 2;
        (time_s(mid) <= t ? lo : hi) = mid;
    }
    return lo;
}

Outcome make_outcome(const RunRequest& r, std::stop_token stop, RunCache& known)
{
    Outcome o;
    o.id = r.id;
    o.variant = r.job.variants[r.variant];
    o.day = r.job.days[r.day];
    if (o.day.kind == DayKind::recorded)
        run_replay_into(o, r.job, stop);
    else
        run_coupled_into(o, r.job, stop, known);
    return o;
}

std::optional<Outcome> begun_outcome(const RunRequest& r, std::stop_token stop, RunCache& known)
{
    const Variant& v = r.job.variants[r.variant];
    const Day& day = r.job.days[r.day];
    const std::optional<Beginning>& b = known.begins;
    if (!b || day.kind == DayKind::recorded || day.begins == Begins::cold || !(b->answers == v.loop.answers && b->places == places_of(v) && b->day == day && b->site == r.job.site && b->traces == r.job.traces))
        return {};
    Outcome o;
    o.id = r.id;
    o.variant = v;
    o.day = day;
    run_coupled_into(o, r.job, stop, known, &*b);
    return o.coupled.records.empty() ? std::nullopt : std::optional(std::move(o));
}

Verdict make_verdict(const RunRequest& r, const Outcome& o, std::stop_token stop, RunCache& known)
{
    Verdict out;
    out.id = o.id;
    std::optional<Figures> judged;
    if (o.figures()) {
        judged = *o.figures();
        const PossibleHeat p = possible_heat(o.variant, *o.setup, o.coupled.begins_c, stop);
        judged->possible_j = out.possible_j = p.to_store_j;
        judged->full_s = p.full_s;
    }
    out.findings = findings({r.job, o.variant, judged ? &*judged : nullptr, r.units, &o.day});
    if (!stop.stop_requested())
        place_findings(out.findings, r.job, r.variant);
    if (!o.figures() || r.baseline == r.variant)
        return out;
    const Variant& other = r.job.variants[r.baseline];
    std::optional<BaselineRun>& kept = known.run;
    if (!kept || !(kept->variant == other && kept->day == o.day && kept->site == r.job.site && kept->traces == r.job.traces)) {
        kept.reset();
        if (const auto figures = figures_only(r.job, other, o.day, stop); figures)
            kept = BaselineRun{other, o.day, r.job.site, r.job.traces, *figures};
    }
    if (kept)
        out.baseline_figures = kept->figures;
    out.baseline_name = other.name;
    return out;
}

} // namespace vernal
