// A second, deliberately naive statement of docs/engine-semantics.md, sample by
// sample and rule by rule, for tests only. It shares no code with the engine but
// the settings it reads: every count is kept as "so long by now", nothing is
// skipped, nothing is remembered but what the text names.
#pragma once

#include "naive_looks.h"

namespace vernal::naive {

class Unit : Looks {
public:
    Unit(const RuleSet& set, std::vector<std::string> probes, std::vector<Reads> reads = {}) : Looks(set, std::move(probes), std::move(reads)) {}

    struct Answer {
        bool on;
        Priority priority;
        int rule;
        long speed_pm;
    };

    std::vector<Answer> sample(const Inputs& in)
    {
        in_ = in;
        step_ = ms(set_.sample_s);
        up_for_ += step_;
        for (std::size_t p = 0; p < max_read; ++p)
            good_for_[p] = !in.readings[p].valid ? -1 : good_for_[p] < 0 ? 0
                                                                         : good_for_[p] + step_;
        for (std::size_t o = 0; o < running_.size(); ++o) {
            changed_for_[o] += step_;
            stopped_for_[o] += step_;
            if (in.modes[o] != Mode::on) {
                on_for_[o] = -1;
                spent_[o] = false;
            } else {
                on_for_[o] = on_for_[o] < 0 ? 0 : on_for_[o] + step_;
            }
        }
        asks_.assign(set_.rules.size(), false);
        // Those that look at others come after them.
        for (int turn = 0; turn < 3; ++turn)
            for (std::size_t r = 0; r < set_.rules.size(); ++r)
                if (works(r) && turn_of(r) == turn)
                    look(r);
        for (std::size_t r = 0; r < set_.rules.size(); ++r)
            if (works(r) && as<RunTimes>(r) && last_of<RunTimes>(static_cast<std::size_t>(output(set_.rules[r].output))) == static_cast<int>(r))
                look(r);
        std::vector<Answer> out;
        for (std::size_t o = 0; o < running_.size(); ++o) {
            Answer a = decide(o);
            if (a.on != running_[o]) {
                running_[o] = a.on;
                changed_for_[o] = 0;
                if (!a.on)
                    stopped_for_[o] = 0;
            }
            a.speed_pm = a.on ? speed(o, a.priority) : full_speed;
            out.push_back(a);
        }
        return out;
    }

private:
    int turn_of(std::size_t r) const { return as<StoreLimit>(r) ? 0 : as<SecondStore>(r) ? 2
                                                                  : as<RunTimes>(r)      ? 9
                                                                                         : 1; }

    OnFault fault(std::size_t o, const std::string& key) const
    {
        for (const FaultChoice& f : set_.outputs[o].faults)
            if (f.probe == key)
                return f.does;
        return OnFault::off;
    }
    bool faulty(std::size_t o, OnFault does) const
    {
        for (std::size_t r = 0; r < set_.rules.size(); ++r) {
            if (!works(r))
                continue;
            const auto& its = outputs_of(r);
            if (std::find(its.begin(), its.end(), static_cast<int>(o)) == its.end())
                continue;
            for (const std::string& key : uses(r))
                if (bad(key) && fault(o, key) == does)
                    return true;
        }
        return false;
    }

    // The first rule of the priority that makes a request for the output, and for what.
    struct Says {
        int rule = -1;
        bool on = false;
    };
    Says says(std::size_t o, Priority priority) const
    {
        for (std::size_t r = 0; r < set_.rules.size(); ++r) {
            if (!works(r))
                continue;
            const bool own = output(set_.rules[r].output) == static_cast<int>(o);
            if (const auto* d = as<DrainDown>(r); d && priority == Priority::freeze) {
                if (asks_[r] && (own || output(d->pump) == static_cast<int>(o)))
                    return {static_cast<int>(r), false};
                if (own && !any_drains(o))
                    return {static_cast<int>(r), true};
            }
            if (as<DrainTime>(r) && own && priority == Priority::hold && !running_[o] && stopped_for_[o] < ms(as<DrainTime>(r)->drain_s))
                return {static_cast<int>(r), false};
            if (as<DrainDown>(r) || priority != priority_of(r) || !own || !asks_[r])
                continue;
            if (as<Fill>(r) && running_[o])
                continue;
            if (const auto* l = as<StoreLimit>(r); l && !l->only_store.empty())
                continue;
            return {static_cast<int>(r), priority == Priority::freeze || priority == Priority::dump};
        }
        return {};
    }
    // Some drain-down rule wants this valve open.
    bool any_drains(std::size_t o) const
    {
        for (std::size_t r = 0; r < set_.rules.size(); ++r)
            if (works(r) && as<DrainDown>(r) && asks_[r] && output(set_.rules[r].output) == static_cast<int>(o))
                return true;
        return false;
    }
    Priority priority_of(std::size_t r) const { return as<RunTimes>(r) ? Priority::min_run : kind_of(set_.rules[r]).priority; }

    template <class R>
    const R* last(std::size_t o, int& rule) const
    {
        const int found = last_of<R>(o);
        if (found < 0)
            return nullptr;
        rule = found;
        return as<R>(static_cast<std::size_t>(found));
    }
    template <class R>
    int last_of(std::size_t o) const
    {
        int found = -1;
        for (std::size_t r = 0; r < set_.rules.size(); ++r)
            if (works(r) && as<R>(r) && output(set_.rules[r].output) == static_cast<int>(o))
                found = static_cast<int>(r);
        return found;
    }

    Answer decide(std::size_t o) const
    {
        const Output& out = set_.outputs[o];
        const Mode mode = in_.modes[o];
        int rule = -1;
        if (out.bypass)
            return {true, Priority::bypass, -1, 0};
        if (mode == Mode::off)
            return {false, Priority::off_switch, -1, 0};
        if (up_for_ < ms(set_.power_wait_s))
            return {false, Priority::hold, -1, 0};
        if (const Says s = says(o, Priority::hold); s.rule >= 0)
            return {false, Priority::hold, s.rule, 0};
        if (mode == Mode::on && !spent_[o] && (out.on_timeout_s <= 0 || on_for_[o] < ms(out.on_timeout_s)))
            return {true, Priority::on_switch, -1, 0};
        if (faulty(o, OnFault::off))
            return {false, Priority::fault, -1, 0};
        if (faulty(o, OnFault::on))
            return {true, Priority::fault, -1, 0};
        for (Priority priority : {Priority::cut_out, Priority::freeze, Priority::dump, Priority::limit})
            if (const Says s = says(o, priority); s.rule >= 0)
                return {s.on, priority, s.rule, 0};
        const bool asks = asked(o);
        const RunTimes* times = last<RunTimes>(o, rule);
        if (times && !running_[o] && asks && changed_for_[o] < ms(times->min_off_s))
            return {false, Priority::min_off, rule, 0};
        if (times && running_[o] && !asks && changed_for_[o] < ms(times->min_run_s))
            return {true, Priority::min_run, rule, 0};
        if (const Says s = says(o, Priority::min_run); s.rule >= 0)
            return {true, Priority::min_run, s.rule, 0};
        for (Priority priority : {Priority::collect, Priority::heat})
            for (std::size_t r = 0; r < set_.rules.size(); ++r)
                if (works(r) && collects(r, o) && kind_of(set_.rules[r]).priority == priority)
                    return {true, priority, static_cast<int>(r), 0};
        return {false, Priority::nothing, -1, 0};
    }

    static long held(const SpeedRange& g, long pm)
    {
        const long least = share(g.floor), unit = std::max(1L, share(g.resolution));
        const long x = std::max(least, std::min(pm, share(g.top)));
        return std::max(least, x / unit * unit);
    }
    // Of an output that is on; called once a sample.
    long speed(std::size_t o, Priority priority)
    {
        long pm = full_speed;
        for (std::size_t r = 0; r < set_.rules.size(); ++r) {
            if (!works(r) || !sets_speed(r) || output(set_.rules[r].output) != static_cast<int>(o))
                continue;
            Memory& m = memory_[r];
            if (changed_for_[o] == 0 || any_bad(r))
                m.begins = true;
            if (priority < Priority::min_off)
                m.speed_for = -1;
            if (priority < Priority::min_off || any_bad(r))
                continue;
            if (const auto* s = as<SpeedByDifference>(r)) {
                const long over = value(s->source) - value(s->store) - milli(s->above.in_kelvin());
                pm = held(s->range, share(s->range.floor) + (over < 0 ? 0 : over / std::max(1L, milli(s->per.in_kelvin())) * share(s->range.step)));
            } else if (const auto* rise = as<SpeedToRise>(r)) {
                pm = seek(m, rise->range, value(rise->source) - value(rise->store) - milli(rise->rise.in_kelvin()), milli(rise->within.in_kelvin()), ms(rise->every_s));
            } else if (const auto* t = as<SpeedToTemperature>(r)) {
                pm = seek(m, t->range, value(t->probe) - milli(t->target.in_celsius()), milli(t->within.in_kelvin()), ms(t->every_s));
            }
        }
        int rule = -1;
        const auto* fill = last<Fill>(o, rule);
        return fill && changed_for_[o] < ms(fill->boost_s) ? share(fill->boost) : pm;
    }
    // Its sum is kept whole; what the output gets is rounded.
    long seek(Memory& m, const SpeedRange& g, long over, long within, Ms every)
    {
        m.speed_for = m.begins || m.speed_for < 0 ? 0 : m.speed_for + step_;
        if (m.begins) {
            m.speed = share(g.floor);
        } else if (m.speed_for >= every) {
            const long moves = over > within ? share(g.step) : over < -within ? -share(g.step)
                                                                              : 0;
            m.speed = std::max(share(g.floor), std::min(share(g.top), m.speed + moves));
            m.speed_for = 0;
        }
        m.begins = false;
        return held(g, m.speed);
    }
};

} // namespace vernal::naive
