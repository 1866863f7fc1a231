#include "replay.h"

#include "core/rules/rule_set.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

namespace vernal {
namespace {

constexpr std::int64_t held_samples = LogGap::most_held;
constexpr std::size_t kept_every = 512;
constexpr MilliKelvin no_reading = std::numeric_limits<MilliKelvin>::min();

} // namespace

bool ReplayResult::made_up(std::size_t row) const { return std::binary_search(made_up_.begin(), made_up_.end(), row); }

// The trace's date goes with its clock; without a date its seconds are those of the day.
void ReplayResult::set_clock(Inputs& in, double time) const
{
    in.clock_ms = 0;
    in.date = date_;
    double ahead = 0;
    const double since_s = time_s_.empty() ? 0.0 : time - time_s_.front();
    for (const ReplaySetup::Clock& c : clocks_)
        ahead += since_s >= c.from_s && since_s < c.to_s ? c.ahead_s : 0.0;
    in.move_clock(std::llround((clock_s_ + time + ahead) * 1000.0));
}

Inputs ReplayResult::inputs(std::size_t row) const
{
    Inputs in;
    in.modes = modes_;
    in.away = away_;
    const MilliKelvin* of_row = &readings_[row * (program.probes + 1)];
    for (std::size_t p = 0; p <= program.probes; ++p)
        in.readings[p < program.probes ? p : supply_channel] = of_row[p] == no_reading ? Reading{0, false} : Reading{of_row[p], true};
    set_clock(in, time_s_[row]);
    return in;
}

double ReplayResult::reading(std::size_t row, std::size_t probe) const
{
    const MilliKelvin mk = readings_[row * (program.probes + 1) + probe];
    return mk == no_reading ? NAN : mk / 1000.0;
}

Decisions ReplayResult::decisions(std::size_t row) const
{
    Decisions out{};
    std::copy_n(decisions_.begin() + static_cast<std::ptrdiff_t>(row * program.outputs), program.outputs, out.begin());
    return out;
}

// Rounded, half up; rows closer than half the usual spacing are samples as well.
std::int64_t ReplayResult::intervals(double pause_s) const
{
    constexpr double rounding = 1e-9; // of times that are sums of tenths
    return interval_s > 0 ? std::max<std::int64_t>(1, static_cast<std::int64_t>(std::floor(pause_s / interval_s + 0.5 + rounding))) : 1;
}

Decisions ReplayResult::advance(std::size_t row, EngineState& state) const
{
    Inputs in = inputs(row);
    if (row == 0 || made_up(row - 1))
        return step(program, in, state);
    const bool gap = made_up(row);
    const std::int64_t held = gap ? held_samples : intervals(time_s_[row] - time_s_[row - 1]) - 1;
    if (held > 0) {
        Inputs still = inputs(row - 1);
        still.move_clock(held * program.sample_ms);
        step(program, still, state, held);
    }
    if (!gap)
        return step(program, in, state);
    const std::int64_t lacking = std::lower_bound(gaps.begin(), gaps.end(), time_s_[row], [](const LogGap& g, double t) { return g.to_s < t; })->lacking;
    in.move_clock((lacking - held_samples - 1) * program.sample_ms); // of the last of them
    return step(program, in, state, lacking - held_samples);
}

EngineState ReplayResult::state(std::size_t row) const
{
    const std::size_t known = (row + 1) / kept_every; // rows worked off in the state that is kept
    EngineState s = known == 0 ? first_ : kept_[known - 1];
    for (std::size_t i = known * kept_every; i <= row; ++i)
        advance(i, s);
    return s;
}

class Replayer {
public:
    Replayer(const ReplaySetup& setup, const Trace& trace) : setup_(setup), trace_(trace) {}

    Result<ReplayResult> run(const EngineState* first, const std::stop_token& stop)
    {
        if (trace_.time_s.empty())
            return Error{"the trace has no rows", "", "Import a log with at least one row of readings"};
        if (auto problem = find_columns())
            return *problem;
        const std::vector<std::size_t> rows = real_rows();
        if (rows.empty())
            return Error{"the trace has only made-up rows", "", "Import the log that it was made from"};
        begin(rows, first);
        for (std::size_t i = 0; i < rows.size() && !stop.stop_requested(); ++i)
            row(rows[i]);
        for (std::size_t o = 0; o < out_.program.outputs; ++o) {
            if (open_[o] != none)
                close(o, out_.time_s_.back());
            RunCounter::finish(out_.by_rules[o]);
            RunCounter::finish(out_.recorded[o]);
        }
        return std::move(out_);
    }

private:
    std::optional<Error> find_columns()
    {
        const ChannelBits used = setup_.program.used;
        const TraceColumn* supply = trace_.find("supply");
        if (!supply && (used >> supply_channel & 1U) != 0)
            return Error{"the trace has no column “supply”, which a rule reads", "", "Name the column of the unit's supply voltage so, or switch the Low voltage rule off"};
        for (std::size_t p = 0; p < setup_.program.probes; ++p) {
            probes_.push_back(column_of(p));
            per_cell_.push_back(1);
            if (probes_.back() && reads(p) != Reads::temperature) {
                const auto factor = readings_per(reads(p), probes_.back()->quantity, probes_.back()->unit);
                if (!factor)
                    return Error{"the trace's column “" + probes_.back()->name + "” is in " + probes_.back()->unit + ", which is not " + name_of(reads(p)), "", "State its unit in the header, as in “" + probes_.back()->name + " [" + unit_name(quantity_of(reads(p)), {}) + "]”"};
                per_cell_.back() = *factor;
            }
            if (!probes_.back() && (used >> p & 1U) != 0)
                return Error{"the trace has no column “" + setup_.probe_columns[p] + "”, which a rule reads", "", "Rename a column, or name the probe's place as the column is named"};
        }
        probes_.push_back(supply);
        for (std::size_t o = 0; o < setup_.program.outputs; ++o)
            outputs_.push_back(o < setup_.output_columns.size() ? trace_.find(setup_.output_columns[o]) : nullptr);
        return {};
    }

    Reads reads(std::size_t p) const { return p < setup_.reads.size() ? setup_.reads[p] : Reads::temperature; }

    // By the place's name; an instrument's also by what it reads, as a run and many loggers name it.
    const TraceColumn* column_of(std::size_t p) const
    {
        constexpr std::array<const char*, 4> also{nullptr, "flow", "pressure", "irradiance_plane"};
        const TraceColumn* named = trace_.find(setup_.probe_columns[p]);
        const char* other = also[static_cast<std::size_t>(reads(p))];
        return named || !other ? named : trace_.find(other);
    }

    std::vector<std::size_t> real_rows() const
    {
        const TraceColumn* made_up = trace_.find("made_up");
        std::vector<std::size_t> out;
        out.reserve(trace_.time_s.size());
        for (std::size_t i = 0; i < trace_.time_s.size(); ++i)
            if (!made_up || !(made_up->values[i] > 0.5))
                out.push_back(i);
        return out;
    }

    void begin(const std::vector<std::size_t>& rows, const EngineState* first)
    {
        out_.program = setup_.program;
        std::vector<double> times;
        times.reserve(rows.size());
        for (std::size_t i : rows)
            times.push_back(trace_.time_s[i]);
        out_.interval_s = usual_spacing_s(times);
        if (out_.interval_s > 0)
            out_.program.sample_ms = std::max<Millis>(1, std::llround(out_.interval_s * 1000.0));
        out_.clock_s_ = trace_.clock_s();
        out_.date_ = trace_.date();
        out_.clocks_ = setup_.clocks;
        out_.modes_ = setup_.modes;
        out_.away_ = setup_.away;
        power_up_ = first == nullptr;
        out_.first_ = state_ = first ? *first : power_up(out_.program);
        out_.by_rules.resize(out_.program.outputs);
        out_.recorded.resize(out_.program.outputs);
        out_.columns.resize(probes_.size() - 1);
        by_rules_.assign(out_.program.outputs, RunCounter());
        recorded_ = by_rules_;
        last_.assign(probes_.size(), {no_reading, 0});
        open_.fill(none);
    }

    void row(std::size_t of_trace)
    {
        const double time = trace_.time_s[of_trace];
        if (out_.size() > 0)
            pause(out_.time_s_.back(), time);
        ++samples_;
        for (std::size_t p = 0; p < probes_.size(); ++p)
            out_.readings_.push_back(reading(p, probes_[p] ? probes_[p]->values[of_trace] : NAN));
        decide(time);
        compare(of_trace, time);
    }

    void pause(double from, double to)
    {
        const std::int64_t lacking = out_.intervals(to - from) - 1;
        samples_ += lacking;
        if (lacking <= 0)
            return;
        out_.gaps.push_back({from, to, lacking});
        if (lacking <= held_samples)
            return;
        out_.gaps.back().made_up = static_cast<std::ptrdiff_t>(out_.size());
        out_.made_up_.push_back(out_.size());
        out_.readings_.insert(out_.readings_.end(), probes_.size(), no_reading);
        decide(from + static_cast<double>(held_samples + 1) * out_.interval_s);
    }

    // An empty cell is a lacking sample of its column. The supply comes after the probes.
    MilliKelvin reading(std::size_t p, double value)
    {
        Last& last = last_[p];
        if (value == stated_invalid)
            last = {no_reading, samples_};
        else if (std::isfinite(value))
            last = {p + 1 == probes_.size() ? in_milli(value) : reads(p) != Reads::temperature                ? in_milli(value * per_cell_[p])
                                                            : value >= setup_.low_c && value <= setup_.high_c ? quantised(value, setup_.resolution_k)
                                                                                                              : no_reading,
                samples_};
        const bool holds = last.mk != no_reading && samples_ - last.sample <= held_samples;
        if (p < out_.columns.size()) {
            out_.columns[p].held += holds && last.sample != samples_;
            out_.columns[p].invalid += !holds;
        }
        return holds ? last.mk : no_reading;
    }

    void decide(double time)
    {
        if (out_.size() > 0)
            for (std::size_t o = 0; o < out_.program.outputs; ++o) {
                by_rules_[o].passed(time - out_.time_s_.back(), out_.by_rules[o]);
                recorded_[o].passed(time - out_.time_s_.back(), out_.recorded[o]);
            }
        out_.time_s_.push_back(time);
        const Decisions d = out_.advance(out_.size() - 1, state_);
        out_.faults_.push_back(faults(out_.program, state_));
        for (std::size_t o = 0; o < out_.program.outputs; ++o) {
            out_.decisions_.push_back(d[o]);
            by_rules_[o].output(time, d[o].on, out_.by_rules[o]);
        }
        if (out_.size() % kept_every == 0)
            out_.kept_.push_back(state_);
    }

    void compare(std::size_t of_trace, double time)
    {
        for (std::size_t o = 0; o < out_.program.outputs; ++o) {
            if (!outputs_[o] || !std::isfinite(outputs_[o]->values[of_trace]))
                continue;
            const bool was_on = outputs_[o]->values[of_trace] > 0.005;
            recorded_[o].output(time, was_on, out_.recorded[o]);
            const Decision& d = out_.decision(out_.size() - 1, o);
            if (open_[o] != none && (was_on == d.on || out_.disagreements[open_[o]].recorded_on != was_on))
                close(o, time);
            if (was_on != d.on && open_[o] == none) {
                open_[o] = out_.disagreements.size();
                out_.disagreements.push_back({time, -1, o, was_on, d.priority, d.rule, power_up_ && of_trace == 0});
            }
        }
    }
    void close(std::size_t o, double time)
    {
        Disagreement& d = out_.disagreements[open_[o]];
        d.to_s = time;
        out_.disagree_s += time - d.from_s;
        open_[o] = none;
    }

    static constexpr std::size_t none = static_cast<std::size_t>(-1);
    struct Last {
        MilliKelvin mk = no_reading;
        std::int64_t sample = 0;
    };

    const ReplaySetup& setup_;
    const Trace& trace_;
    std::vector<const TraceColumn*> probes_, outputs_; // of the probes and, last, the supply
    std::vector<double> per_cell_;                     // per probe: a cell's 1 as a reading
    ReplayResult out_;
    EngineState state_;
    bool power_up_ = true; // nothing is known of before the log
    std::vector<RunCounter> by_rules_, recorded_;
    std::vector<Last> last_;                      // per probe
    std::int64_t samples_ = 0;                    // so far, lacking ones with them
    std::array<std::size_t, max_outputs> open_{}; // per output: the disagreement that goes on
};

Result<ReplayResult> run_replay(const ReplaySetup& setup, const Trace& trace, const EngineState* first, std::stop_token stop)
{
    return Replayer(setup, trace).run(first, stop);
}

} // namespace vernal
