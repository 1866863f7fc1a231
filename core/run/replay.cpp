#include "replay.h"

#include "core/rules/rule_set.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double hold_intervals = 2.0;

struct Replay {
    const ReplaySetup& setup;
    const Trace& trace;
    std::vector<const TraceColumn*> probes, outputs;
    Program program;
    ReplayResult out;
    EngineState state;
    std::vector<RunCounter> by_rules, recorded;
    std::vector<double> last_value, last_time;
    const TraceColumn* supply = nullptr;
    MilliKelvin last_supply_mv = 0;

    // Without a date the trace's seconds are those of the day.
    // The trace's date goes with its clock; one without a date knows none.
    void set_clock(Inputs& in, double time) const
    {
        in.clock_ms = 0;
        in.date = trace.date();
        in.move_clock(std::llround((trace.clock_s() + time) * 1000.0));
    }

    void row(double time, double since_last, const Inputs& in)
    {
        // The engine counts in samples: a longer pause is so many samples, the
        // readings of the new row deciding at the last one.
        const auto samples = static_cast<std::int64_t>(std::llround(since_last * 1000.0 / static_cast<double>(program.sample_ms)));
        if (samples > 1) {
            Inputs still = out.rows.back().inputs;
            set_clock(still, time - static_cast<double>(program.sample_ms) / 1000.0);
            step(program, still, state, samples - 1);
        }
        const Decisions d = step(program, in, state);
        out.rows.push_back({time, in, state, d});
        for (std::size_t o = 0; o < program.outputs; ++o)
            by_rules[o].output(time, d[o].on, out.by_rules[o]);
    }

    Inputs readings(std::size_t i, double time)
    {
        Inputs in;
        in.modes = setup.modes;
        in.away = setup.away;
        set_clock(in, time);
        if (supply && std::isfinite(supply->values[i]))
            last_supply_mv = in_milli(supply->values[i]);
        in.readings[supply_channel] = {last_supply_mv, true};
        const double hold = hold_intervals * static_cast<double>(program.sample_ms) / 1000.0;
        for (std::size_t p = 0; p < probes.size(); ++p) {
            const double v = probes[p] ? probes[p]->values[i] : NAN;
            if (std::isfinite(v)) {
                last_value[p] = v;
                last_time[p] = v >= setup.low_c && v <= setup.high_c ? time : -INFINITY;
            }
            const bool valid = time - last_time[p] <= hold + 1e-9;
            in.readings[p] = {valid ? quantised(last_value[p], setup.resolution_k) : 0, valid};
        }
        return in;
    }

    // A gap longer than the hold: one row at its end of patience, readings invalid.
    void gap(double from, double to)
    {
        const double interval = static_cast<double>(program.sample_ms) / 1000.0;
        if (to - from <= hold_intervals * interval + 1e-9)
            return;
        Inputs in = out.rows.back().inputs;
        for (std::size_t p = 0; p < program.probes; ++p)
            in.readings[p].valid = false;
        set_clock(in, from + (hold_intervals + 1) * interval);
        pass((hold_intervals + 1) * interval);
        row(from + (hold_intervals + 1) * interval, (hold_intervals + 1) * interval, in);
    }

    void pass(double seconds)
    {
        for (std::size_t o = 0; o < program.outputs; ++o) {
            by_rules[o].passed(seconds, out.by_rules[o]);
            recorded[o].passed(seconds, out.recorded[o]);
        }
    }

    void compare(std::size_t i, double time)
    {
        for (std::size_t o = 0; o < program.outputs; ++o) {
            if (!outputs[o] || !std::isfinite(outputs[o]->values[i]))
                continue;
            const bool was_on = outputs[o]->values[i] > 0.005;
            recorded[o].output(time, was_on, out.recorded[o]);
            const Decision& d = out.rows.back().decisions[o];
            const bool open = std::any_of(out.disagreements.begin(), out.disagreements.end(), [&](const Disagreement& x) { return x.output == o && x.to_s < 0; });
            if (open && (was_on == d.on || open_one(o).recorded_on != was_on))
                close(o, time);
            if (was_on != d.on && !any_open(o))
                out.disagreements.push_back({time, -1, o, was_on, d.priority, d.rule});
        }
    }
    bool any_open(std::size_t o) const
    {
        return std::any_of(out.disagreements.begin(), out.disagreements.end(), [&](const Disagreement& x) { return x.output == o && x.to_s < 0; });
    }
    Disagreement& open_one(std::size_t o)
    {
        return *std::find_if(out.disagreements.begin(), out.disagreements.end(), [&](const Disagreement& x) { return x.output == o && x.to_s < 0; });
    }
    void close(std::size_t o, double time)
    {
        Disagreement& d = open_one(o);
        d.to_s = time;
        out.disagree_s += time - d.from_s;
    }
};

} // namespace

Result<ReplayResult> run_replay(const ReplaySetup& setup, const Trace& trace, const EngineState* first, std::stop_token stop)
{
    Replay r{setup, trace, {}, {}, setup.program, {}, {}, {}, {}, {}, {}, nullptr, 0};
    if (trace.time_s.empty())
        return Error{"the trace has no rows", "", "Import a log with at least one row of readings"};
    const std::uint32_t used = setup.program.used;
    r.supply = trace.find("supply");
    if (!r.supply && (used >> supply_channel & 1U) != 0)
        return Error{"the trace has no column “supply”, which a rule reads", "", "Name the column of the unit's supply voltage so, or switch the Low voltage rule off"};
    for (std::size_t p = 0; p < setup.program.probes; ++p) {
        r.probes.push_back(trace.find(setup.probe_columns[p]));
        if (!r.probes.back() && (used >> p & 1U) != 0)
            return Error{"the trace has no column “" + setup.probe_columns[p] + "”, which a rule reads", "", "Rename a column, or name the probe's place as the column is named"};
    }
    for (std::size_t o = 0; o < setup.program.outputs; ++o)
        r.outputs.push_back(o < setup.output_columns.size() ? trace.find(setup.output_columns[o]) : nullptr);
    if (const double interval = trace.interval_s(); interval > 0)
        r.program.sample_ms = std::max<Millis>(1, std::llround(interval * 1000.0));
    r.state = first ? *first : power_up(r.program);
    r.by_rules.assign(r.program.outputs, RunCounter());
    r.recorded = r.by_rules;
    r.out.by_rules.resize(r.program.outputs);
    r.out.recorded.resize(r.program.outputs);
    r.last_value.assign(r.probes.size(), 0);
    r.last_time.assign(r.probes.size(), -INFINITY);
    for (std::size_t i = 0; i < trace.time_s.size() && !stop.stop_requested(); ++i) {
        const double t = trace.time_s[i];
        if (i > 0)
            r.gap(trace.time_s[i - 1], t);
        const double before = i > 0 ? r.out.rows.back().time_s : t;
        r.pass(t - before);
        r.row(t, t - before, r.readings(i, t));
        r.compare(i, t);
    }
    for (std::size_t o = 0; o < r.program.outputs; ++o) {
        if (r.any_open(o))
            r.close(o, trace.time_s.back());
        RunCounter::finish(r.out.by_rules[o]);
        RunCounter::finish(r.out.recorded[o]);
    }
    return std::move(r.out);
}

} // namespace vernal
