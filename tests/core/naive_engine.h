// A second, deliberately naive statement of docs/engine-semantics.md, sample by
// sample and rule by rule, for tests only. It shares no code with the engine but
// the settings it reads.
#pragma once

#include "core/rules/engine.h"
#include "core/rules/rule_set.h"

#include <cmath>

namespace vernal::naive {

class Unit {
public:
    Unit(const RuleSet& set, std::vector<std::string> probes) : set_(set), probes_(std::move(probes)), latched_(set.rules.size(), false), running_(set.outputs.size(), false)
    {
        since_change_s_.assign(set.outputs.size(), 1e12);
        on_for_s_.assign(set.outputs.size(), -1);
        good_for_s_.assign(probes_.size(), 1e12);
    }

    struct Answer {
        bool on;
        Tier tier;
        int rule;
    };

    std::vector<Answer> sample(const Inputs& in)
    {
        for (std::size_t p = 0; p < probes_.size(); ++p)
            good_for_s_[p] = !in.readings[p].valid ? -1 : good_for_s_[p] < 0 ? 0 : good_for_s_[p] + set_.sample_s;
        for (std::size_t r = 0; r < set_.rules.size(); ++r)
            if (works(r))
                latch(r, in);
        std::vector<Answer> out;
        for (std::size_t o = 0; o < set_.outputs.size(); ++o) {
            since_change_s_[o] += set_.sample_s;
            on_for_s_[o] = in.modes[o] != Mode::on ? -1 : on_for_s_[o] < 0 ? 0 : on_for_s_[o] + set_.sample_s;
            const Answer a = decide(o, in.modes[o]);
            if (a.on != running_[o]) {
                running_[o] = a.on;
                since_change_s_[o] = 0;
            }
            out.push_back(a);
        }
        return out;
    }

private:
    int probe(const std::string& key) const
    {
        for (std::size_t i = 0; i < probes_.size(); ++i)
            if (probes_[i] == key)
                return static_cast<int>(i);
        return -1;
    }
    bool bad(const std::string& key) const { return good_for_s_[static_cast<std::size_t>(probe(key))] < set_.fault_return_s - 1e-9; }

    bool works(std::size_t r) const
    {
        const Rule& rule = set_.rules[r];
        if (!rule.enabled)
            return false;
        if (const auto* d = std::get_if<Differential>(&rule.body))
            return d->off < d->on && probe(d->source) >= 0 && probe(d->store) >= 0;
        const auto l = limit_of(rule);
        return l && l->hysteresis.in_kelvin() > 0 && probe(l->probe) >= 0;
    }

    std::vector<std::string> uses(std::size_t r) const
    {
        const Rule& rule = set_.rules[r];
        if (const auto* d = std::get_if<Differential>(&rule.body))
            return {d->source, d->store};
        return {limit_of(rule)->probe};
    }

    void latch(std::size_t r, const Inputs& in)
    {
        for (const std::string& key : uses(r))
            if (bad(key)) {
                latched_[r] = false;
                return;
            }
        const auto mk = [&](const std::string& key) { return in.readings[static_cast<std::size_t>(probe(key))].mk; };
        const auto milli = [](double v) { return std::lround(v * 1000); };
        const Rule& rule = set_.rules[r];
        if (const auto* d = std::get_if<Differential>(&rule.body)) {
            const long difference = mk(d->source) - mk(d->store);
            if (difference >= milli(d->on.in_kelvin()))
                latched_[r] = true;
            if (difference <= milli(d->off.in_kelvin()))
                latched_[r] = false;
            return;
        }
        const LimitOf l = *limit_of(rule);
        if (mk(l.probe) >= milli(l.limit.in_celsius()))
            latched_[r] = true;
        if (mk(l.probe) <= milli((l.limit - l.hysteresis).in_celsius()))
            latched_[r] = false;
    }

    template <class R>
    int first_latched(std::size_t o) const
    {
        for (std::size_t r = 0; r < set_.rules.size(); ++r)
            if (works(r) && latched_[r] && set_.rules[r].output == set_.outputs[o].key && std::holds_alternative<R>(set_.rules[r].body))
                return static_cast<int>(r);
        return -1;
    }

    Answer decide(std::size_t o, Mode mode) const
    {
        const Output& out = set_.outputs[o];
        if (mode == Mode::off)
            return {false, Tier::off_switch, -1};
        if (mode == Mode::on && (out.on_timeout_s <= 0 || on_for_s_[o] < out.on_timeout_s - 1e-9))
            return {true, Tier::on_switch, -1};
        for (std::size_t r = 0; r < set_.rules.size(); ++r)
            if (works(r) && set_.rules[r].output == out.key)
                for (const std::string& key : uses(r))
                    if (bad(key))
                        return {false, Tier::fault, -1};
        if (const int r = first_latched<CutOut>(o); r >= 0)
            return {false, Tier::cut_out, r};
        if (const int r = first_latched<Divert>(o); r >= 0)
            return {true, Tier::dump, r};
        if (const int r = first_latched<StoreLimit>(o); r >= 0)
            return {false, Tier::limit, r};
        const int asks = first_latched<Differential>(o);
        int timers = -1;
        RunTimes times;
        for (std::size_t r = 0; r < set_.rules.size(); ++r)
            if (const auto* t = std::get_if<RunTimes>(&set_.rules[r].body); t && set_.rules[r].enabled && set_.rules[r].output == out.key) {
                times = *t;
                timers = static_cast<int>(r);
            }
        if (!running_[o] && asks >= 0 && since_change_s_[o] < times.min_off_s - 1e-9)
            return {false, Tier::min_off, timers};
        if (running_[o] && asks < 0 && since_change_s_[o] < times.min_run_s - 1e-9)
            return {true, Tier::min_run, timers};
        return asks >= 0 ? Answer{true, Tier::collect, asks} : Answer{false, Tier::nothing, -1};
    }

    RuleSet set_;
    std::vector<std::string> probes_;
    std::vector<bool> latched_, running_;
    std::vector<double> since_change_s_, on_for_s_, good_for_s_;
};

} // namespace vernal::naive
