#include "job_setup.h"

#include "fault_setup.h"

#include "core/plant/valve_board.h"
#include "core/weather/measured.h"

#include <algorithm>
#include <chrono>
#include <cmath>

namespace vernal {
namespace {

constexpr double cool_store_c = 18.0; // a room before the first day

// What the stores have when the day begins.
void begin_with(CoupledSetup& s, const Day& day)
{
    const Arrangement& a = arrangement_of(s.loop);
    s.start_tank_c = a.has(Part::pool) ? s.loop.pool.start_c : a.has(Part::slab) ? s.loop.slab.start_c
                                                           : a.has(Part::tank)   ? s.start_tank_c
                                                                                 : cool_store_c;
    s.draws_before = day.begins != Begins::holiday;
    if (day.begins != Begins::cold)
        return;
    s.spin_up_days = 0;
    if (a.has(Part::tank))
        s.start_tank_c = day.mains_c;
}

// Values of a column that has one, with their times; both empty otherwise.
MeasuredSeries series(const Trace& t, const char* column)
{
    MeasuredSeries s;
    if (const TraceColumn* c = t.find(column))
        for (std::size_t i = 0; i < t.time_s.size(); ++i)
            if (std::isfinite(c->values[i])) {
                s.time_s.push_back(t.time_s[i]);
                s.value.push_back(c->values[i]);
            }
    return s;
}

// Seconds after this day's midnight at which the trace's time 0 stands. A trace
// of many days gives the day of the same date; one that does not hold the date
// is laid over the day by its clock.
double start_of_trace_s(const Trace& t, const SkySpec& day)
{
    if (!t.has_date())
        return 0;
    const auto two = [&](std::size_t at) { return (t.start[at] - '0') * 10 + (t.start[at + 1] - '0'); };
    const double clock_s = t.clock_s();
    const int year = two(0) * 100 + two(2);
    const double later_s = 86400.0 * (day_of_year(year, day.month, day.day) - day_of_year(year, two(5), two(8)));
    const bool holds = later_s >= 0 && later_s < t.time_s.back() + clock_s;
    return clock_s - (holds ? later_s : 0.0);
}

} // namespace

namespace {

Result<Compiled> compiled_of(const Variant& v)
{
    if (v.unit.outputs.empty())
        return Error{"the unit has no output", v.name, "Add one"};
    if (const auto problem = capacity_problem(v.unit, probe_keys(v), probe_reads(v)))
        return Error{*problem, v.name, "Remove what is not needed"};
    return compile(v);
}

template <class Setup>
void set_modes(Setup& s, const Variant& v)
{
    for (std::size_t o = 0; o < v.unit.outputs.size(); ++o)
        s.modes[o] = v.unit.outputs[o].mode;
    s.resolution_k = v.unit.resolution_k;
    s.away = v.unit.away;
}

} // namespace

namespace {

ChainSpec on_input(const Variant& v, const Probe& tip, const Probe& input)
{
    ChainSpec s{tip.curve, input.read_by.other ? input.read_by.curve : input.curve, tip.sensor, tip.lead, v.input, input.correction.in_kelvin(), tip.condition};
    return s;
}

// By input: the probe on it. Two that are swapped change places; one alone, or
// three, stay where they are (a finding says so).
std::vector<std::size_t> wired(const std::vector<Probe>& probes)
{
    std::vector<std::size_t> out(probes.size()), swapped;
    for (std::size_t i = 0; i < probes.size(); ++i) {
        out[i] = i;
        if (probes[i].condition.kind == ConditionKind::swapped && reads_temperature(probes[i]))
            swapped.push_back(i);
    }
    if (swapped.size() == 2)
        std::swap(out[swapped[0]], out[swapped[1]]);
    return out;
}

// A bridge serves the first difference in use.
std::optional<std::pair<std::size_t, std::size_t>> bridged(const Variant& v)
{
    const auto keys = probe_keys(v);
    for (const Rule& r : v.unit.rules)
        if (const auto d = difference_of(v.unit, r); d && r.enabled) {
            const auto s = std::find(keys.begin(), keys.end(), d->source), t = std::find(keys.begin(), keys.end(), d->store);
            if (s != keys.end() && t != keys.end() && s != t && reads_temperature(v.probes[static_cast<std::size_t>(s - keys.begin())]) && reads_temperature(v.probes[static_cast<std::size_t>(t - keys.begin())]))
                return std::pair{static_cast<std::size_t>(s - keys.begin()), static_cast<std::size_t>(t - keys.begin())};
        }
    return {};
}

} // namespace

ChainSpec chain_of(const Variant& v, std::size_t probe) { return on_input(v, v.probes[probe], v.probes[probe]); }

Sensors sensors(const Variant& v)
{
    Sensors out;
    out.tip = wired(v.probes);
    bool plain = true;
    for (std::size_t i = 0; i < v.probes.size(); ++i) {
        out.chains.emplace_back(on_input(v, v.probes[out.tip[i]], v.probes[i]));
        const Reads reads = reads_at(v.probes[i].place);
        out.instruments.emplace_back(reads, v.probes[i].instrument, v.probes[i].condition);
        plain = plain && out.chains.back().plain() && out.tip[i] == i && reads == Reads::temperature;
    }
    const auto pair = v.input.kind == StageKind::bridge ? bridged(v) : std::nullopt;
    if (pair)
        out.bridge = Sensors::Pair{pair->first, pair->second, BridgeChain(out.chains[pair->first].spec(), out.chains[pair->second].spec())};
    const InputStage usual;
    if (plain && !pair && v.input.low_c <= usual.low_c && v.input.high_c >= usual.high_c)
        return {};
    return out;
}

namespace {

namespace calendar = std::chrono;

calendar::sys_days date_of(const SkySpec& sky)
{
    return calendar::sys_days{calendar::year{sky.year} / sky.month / calendar::day{1}} + calendar::days{sky.day - 1}; // 31 April is 1 May
}

// The nth of a day's days, from 0.
SkySpec sky_of(const SkySpec& first, int n)
{
    SkySpec sky = first;
    const calendar::year_month_day date{date_of(first) + calendar::days{n}};
    sky.year = static_cast<int>(date.year());
    sky.month = static_cast<int>(static_cast<unsigned>(date.month()));
    sky.day = static_cast<int>(static_cast<unsigned>(date.day()));
    sky.seed += static_cast<std::uint32_t>(n);
    if (n > 0)
        sky.snow_until_h = 0;
    return sky;
}

bool lies_in(int n, int from, int days) { return n + 1 >= from && n + 1 < from + days; }

std::vector<Draw> drawn_on(const Day& day, int n)
{
    if (lies_in(n, day.away_from, day.away_days))
        return {};
    std::vector<Draw> out = day.draws;
    if (lies_in(n, day.guests_from, day.guests_days))
        for (Draw& d : out)
            d.flow_m3_s *= day.guests_times;
    return out;
}

DayForcing forcing_of(const Job& job, const Variant& v, const Day& day, int n)
{
    const SkySpec spec = sky_of(day.sky, n);
    SkyDay sky = generate(spec, job.site.place);
    if (const auto it = job.traces.find(day.trace); it != job.traces.end()) {
        const double offset = start_of_trace_s(*it->second, spec);
        const auto of_day = [&](const char* column) {
            MeasuredSeries x = series(*it->second, column);
            for (double& t : x.time_s)
                t += offset;
            return x;
        };
        const MeasuredSeries air = of_day(it->second->find("air") ? "air" : "temperature"), sun = of_day("irradiance"), beam = of_day("beam_normal"), diffuse = of_day("diffuse");
        if (!air.empty())
            override_air(sky, air.time_s, air.value);
        if (!beam.empty() && !diffuse.empty())
            override_beam_and_diffuse(sky, beam, diffuse);
        else if (!sun.empty())
            override_global(sky, spec, sun);
        if (const MeasuredSeries cold = of_day("sky"); !cold.empty())
            override_sky(sky, cold);
        if (const MeasuredSeries wind = of_day("wind"); !wind.empty())
            override_wind(sky, wind);
    }
    DayForcing f = forcing(seen_from(sky, {v.horizon, day.shades}), v.loop);
    cover_with_snow(f, day, n);
    f.date = static_cast<std::int32_t>(date_of(spec).time_since_epoch().count());
    f.draws = drawn_on(day, n);
    f.mains_c = day.mains_c;
    f.target_c = day.draw_target_c;
    if (n == 0) {
        f.outage_start_s = day.outage_start_h * 3600;
        f.outage_end_s = std::min(24.0, day.outage_start_h + day.outage_h) * 3600;
    }
    return f;
}

} // namespace

Weather weather_of(const Job& job, const Variant& v, const Day& day)
{
    Weather out;
    for (int n = 0; n < std::max(1, day.length_days); ++n)
        out.days.push_back(std::make_shared<const DayForcing>(forcing_of(job, v, day, n)));
    const bool snowed = std::any_of(day.faults.begin(), day.faults.end(), [](const Fault& f) { return f.kind == FaultKind::snow; });
    if (out.days.front()->draws != day.draws || snowed) {
        Day unhurt = day;
        unhurt.faults.clear();
        DayForcing usual = snowed ? forcing_of(job, v, unhurt, 0) : *out.days.front();
        usual.draws = day.draws;
        out.before = std::make_shared<const DayForcing>(std::move(usual));
    }
    return out;
}

namespace {

constexpr double bare_tank_c = 95.0; // what a tank without any limit bears, below its relief valve's 99 °C; estimate

// Of each store the lowest limit that a rule states for a probe in it, be the rule in
// use or not.
std::vector<CoupledSetup::BornBy> store_limits(const Variant& v)
{
    std::vector<CoupledSetup::BornBy> out;
    const auto put = [&](ProbePlace place, double limit_c) {
        for (CoupledSetup::BornBy& b : out)
            if (b.place == place) {
                b.limit_c = std::min(b.limit_c, limit_c);
                return;
            }
        out.push_back({place, limit_c});
    };
    for (const Rule& r : v.unit.rules)
        if (const auto* l = std::get_if<StoreLimit>(&r.body))
            for (const Probe& p : v.probes)
                if (p.key == l->probe && in_store(p.place))
                    put(p.place, (l->limit - l->allowance).in_celsius());
    if (out.empty() && arrangement_of(v.loop).has(Part::tank))
        put(ProbePlace::tank_top, bare_tank_c);
    return out;
}

} // namespace

Result<CoupledSetup> coupled_setup(const Job& job, const Variant& v, const Day& day, const Weather* weather)
{
    if (const std::string reason = cannot_combine(v.loop.answers); !reason.empty())
        return Error{reason, v.name, "Answer otherwise at the Loop station"};
    auto compiled = compiled_of(v);
    if (!compiled)
        return compiled.error();
    CoupledSetup s;
    s.loop = v.loop;
    shut_lines(s.loop);
    s.altitude_m = job.site.place.altitude_m;
    begin_with(s, day);
    s.program = std::move(compiled->program);
    s.out_of_action = std::move(compiled->out_of_action);
    set_modes(s, v);
    const auto output_of = [&](const std::string& key) {
        return static_cast<std::size_t>(std::find_if(v.unit.outputs.begin(), v.unit.outputs.end(), [&](const Output& o) { return o.key == key; }) - v.unit.outputs.begin());
    };
    for (std::size_t o = 0; o < v.unit.outputs.size(); ++o)
        s.drives[o] = v.unit.outputs[o].drives;
    for (const Rule& r : v.unit.rules)
        if (const auto* f = std::get_if<Follow>(&r.body); f && r.enabled && f->delay_s <= 0)
            if (const std::size_t valve = output_of(r.output), leader = output_of(f->leader); valve < v.unit.outputs.size() && leader < v.unit.outputs.size() && s.drives[valve] == Drives::check_valve)
                s.opens_with[valve] |= 1U << leader;
    for (const Probe& p : v.probes)
        s.probes.push_back({p.place, p.lag_s, p.placement});
    s.store_limits = store_limits(v);
    s.sensors = sensors(v);
    s.faults = fault_plan(v, day);
    Weather own = weather ? *weather : weather_of(job, v, day);
    s.days = std::move(own.days);
    s.before = std::move(own.before);
    return s;
}

std::shared_ptr<const Trace> trace_of(const Job& job, const Variant& v, const Day& day)
{
    const auto it = job.traces.find(day.trace);
    if (it == job.traces.end() || day.faults.empty())
        return it == job.traces.end() ? nullptr : it->second;
    return std::make_shared<const Trace>(with_faults(*it->second, v, day));
}

namespace {

std::vector<ReplaySetup::Clock> clocks_of(const Day& day)
{
    std::vector<ReplaySetup::Clock> out;
    for (const Fault& f : day.faults)
        if (f.kind == FaultKind::clock_wrong)
            out.push_back({f.from_h * 3600, f.to_h * 3600, f.by_h * 3600});
    return out;
}

} // namespace

Result<ReplaySetup> replay_setup(const Variant& v, const Day* day)
{
    auto compiled = compiled_of(v);
    if (!compiled)
        return compiled.error();
    ReplaySetup s;
    s.program = std::move(compiled->program);
    s.out_of_action = std::move(compiled->out_of_action);
    set_modes(s, v);
    s.low_c = v.input.low_c;
    s.high_c = v.input.high_c;
    for (std::size_t i = 0; i < v.probes.size(); ++i)
        s.probe_columns.push_back(log_column(v, i));
    s.reads = probe_reads(v);
    for (const Output& o : v.unit.outputs)
        s.output_columns.push_back(o.key);
    if (day)
        s.clocks = clocks_of(*day);
    return s;
}

} // namespace vernal
