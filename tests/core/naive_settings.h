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
    Settings(const RuleSet& set, std::vector<std::string> probes, std::vector<Reads> reads) : set_(set), probes_(std::move(probes)), reads_(std::move(reads))
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
        for (const KeyOf& k : keys_of(rule))
            if (k.of == KeyOf::Of::probe && !k.key->empty() && !fits(k.role, static_cast<std::size_t>(probe(*k.key))))
                return false;
        if (const auto* g = as<FlowGuard>(r))
            return thousandths_of_l_min(g->least_m3_s) > 0;
        if (const auto* a = as<PressureAlarm>(r))
            return (a->low_pa > 0 || a->high_pa > 0) && !(a->low_pa > 0 && a->high_pa > 0 && a->high_pa <= a->low_pa) && thousandths_of_bar(a->band_pa) > 0;
        if (const auto* s = as<SunStart>(r))
            return milli(s->off_w_m2) < milli(s->on_w_m2);
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

    static long thousandths_of_l_min(double m3_s) { return std::lround(m3_s * 60e6); } // a thousandth of a litre a minute
    static long thousandths_of_bar(double pa) { return std::lround(pa / 100); }

    // Whether a probe reads what a rule wants of one in this role.
    bool fits(ProbeRole role, std::size_t probe) const
    {
        const Reads does = probe < reads_.size() ? reads_[probe] : Reads::temperature;
        switch (does) {
        case Reads::flow: return role == ProbeRole::flow;
        case Reads::pressure: return role == ProbeRole::pressure;
        case Reads::irradiance: return role == ProbeRole::sun;
        case Reads::temperature: break;
        }
        return role != ProbeRole::flow && role != ProbeRole::pressure && role != ProbeRole::sun;
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
    std::vector<Reads> reads_; // of the first of them; the others read a temperature
    std::vector<bool> works_;
    std::vector<std::vector<std::string>> uses_;
    std::vector<std::vector<int>> outputs_of_;
};

} // namespace vernal::naive
