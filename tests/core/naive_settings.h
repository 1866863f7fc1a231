// Settings of the naive statement: which rules work, what they read and drive.
#pragma once

#include "core/rules/engine.h"
#include "core/rules/rule_set.h"

#include <cmath>
#include <functional>

namespace vernal::naive {

using Ms = long long;
constexpr Ms ages = 1'000'000'000'000'000;
inline Ms ms(double seconds) { return std::llround(seconds * 1000); }
inline long milli(double v) { return std::lround(v * 1000); }

// What the rules of a unit are set to, before anything runs.
class Settings {
protected:
    Settings(const RuleSet& set, std::vector<std::string> probes) : set_(set), probes_(std::move(probes))
    {
        for (std::size_t r = 0; r < set.rules.size(); ++r) {
            works_.push_back(find_works(r));
            uses_.push_back(find_uses(r));
            outputs_of_.push_back(find_outputs(r));
        }
    }

    template <class R>
    const R* as(std::size_t r) const { return std::get_if<R>(&set_.rules[r].body); }

    int probe(const std::string& key) const
    {
        for (std::size_t i = 0; i < probes_.size(); ++i)
            if (probes_[i] == key)
                return static_cast<int>(i);
        return -1;
    }

    int output(const std::string& key) const
    {
        for (std::size_t i = 0; i < set_.outputs.size(); ++i)
            if (set_.outputs[i].key == key)
                return static_cast<int>(i);
        return -1;
    }

    const std::vector<std::string>& uses(std::size_t r) const { return uses_[r]; }

    bool works(std::size_t r) const { return works_[r]; }

    std::vector<std::string> find_uses(std::size_t r) const
    {
        Rule rule = set_.rules[r];
        std::vector<std::string> out;
        if (as<Heating>(r)) {
            bool any = false;
            for (const HeatWindow& w : as<Heating>(r)->windows)
                any = any || w.from_h != w.to_h;
            if (!any)
                return out;
        }
        for (const KeyOf& k : keys_of(rule))
            if (k.of == KeyOf::Of::probe && !k.key->empty() && std::string(k.field) != "only_store")
                out.push_back(*k.key);
        if (as<LowVoltage>(r))
            out.emplace_back("supply");
        return out;
    }

    const std::vector<int>& outputs_of(std::size_t r) const { return outputs_of_[r]; }

    std::vector<int> find_outputs(std::size_t r) const
    {
        std::vector<int> out{output(set_.rules[r].output)};
        if (const auto* s = as<SecondStore>(r))
            out.push_back(output(s->valve));
        if (const auto* d = as<DrainDown>(r); d && !d->pump.empty())
            out.push_back(output(d->pump));
        return out;
    }

    bool find_works(std::size_t r) const
    {
        Rule rule = set_.rules[r];
        if (!rule.enabled)
            return false;
        for (const KeyOf& k : keys_of(rule))
            if (!(k.key->empty() && k.may_be_empty) && (k.of == KeyOf::Of::probe ? probe(*k.key) : output(*k.key)) < 0)
                return false;
        if (const auto d = difference_of(set_, rule))
            return milli(d->off.in_kelvin()) < milli(d->on.in_kelvin());
        if (const auto* f = as<FixedDifference>(r))
            return f->off < f->on;
        if (const auto* n = as<NightCooling>(r))
            return n->until < n->from && n->colder.in_kelvin() > 0;
        if (const auto* v = as<LowVoltage>(r))
            return milli(v->reconnect_v) > milli(v->cut_v); // in millivolts, as the unit compares
        if (const auto* h = as<Heating>(r)) {
            for (const HeatWindow& w : h->windows)
                if (w.from_h != w.to_h && !(w.on < w.off))
                    return false;
            return true;
        }
        if (const auto* t = as<Thermostat>(r))
            return t->on != t->off;
        if (const auto* tap = as<TapCirculation>(r))
            return tap->off > tap->on && (tap->store.empty() || tap->hysteresis.in_kelvin() > 0);
        if (const auto* f = as<Follow>(r))
            return f->leader != rule.output;
        if (const SpeedRange* g = range_of(r); g && share(g->top) < share(g->floor))
            return false;
        if (sets_speed(r)) { // one per output: the first
            for (std::size_t i = 0; i < r; ++i)
                if (sets_speed(i) && set_.rules[i].output == rule.output && find_works(i))
                    return false;
            return true;
        }
        if (const auto l = limit_of(rule))
            return l->hysteresis.in_kelvin() > 0;
        return true;
    }

    const SpeedRange* range_of(std::size_t r) const
    {
        const auto* d = as<SpeedByDifference>(r);
        const auto* rise = as<SpeedToRise>(r);
        const auto* t = as<SpeedToTemperature>(r);
        return d ? &d->range : rise ? &rise->range
                           : t      ? &t->range
                                    : nullptr;
    }

    bool sets_speed(std::size_t r) const { return as<SpeedByDifference>(r) || as<SpeedToRise>(r) || as<SpeedToTemperature>(r); }

    static long share(double x) { return std::lround(x * 1000); }

    RuleSet set_;
    std::vector<std::string> probes_;
    std::vector<bool> works_;
    std::vector<std::vector<std::string>> uses_;
    std::vector<std::vector<int>> outputs_of_;
};

} // namespace vernal::naive
