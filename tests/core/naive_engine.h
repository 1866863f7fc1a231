// A second, deliberately naive statement of docs/engine-semantics.md, sample by
// sample and rule by rule, for tests only. It shares no code with the engine but
// the settings it reads: every count is kept as "so long by now", nothing is
// skipped, nothing is remembered but what the text names.
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

// Sets at or above `set`, clears at or below `clear`; with waits, only once asked for that long.
struct Band {
    bool on = false;
    Ms asked_for = -1; // −1: does not ask
    void see(long value, long set, long clear, Ms set_wait, Ms clear_wait, Ms sample, bool fault)
    {
        if (fault) {
            on = false;
            asked_for = -1;
            return;
        }
        const bool wants = value <= clear ? false : value >= set ? true
                                                                 : on;
        if (wants == on) {
            asked_for = -1;
            return;
        }
        asked_for = asked_for < 0 ? 0 : asked_for + sample;
        if (asked_for >= (wants ? set_wait : clear_wait)) {
            on = wants;
            asked_for = -1;
        }
    }
};

struct Memory { // of one rule
    std::array<Band, 4> band;
    Ms counted = -1;                  // of what the rule counts; −1: not counting
    bool active = false;              // of what it cycles
    bool asked = false;               // at the last sample
    double source = NAN, store = NAN; // averages, in thousandths
    int failures = 0, phase = 0;      // of a dry-run guard: 0 idle, 1 watching, 2 proven, 3 waiting, 4 locked
    long at_start = 0;
    bool pressed = false;
    Ms speed_for = -ages; // when its speed last moved
    long speed = 0;
};

class Unit {
public:
    Unit(const RuleSet& set, std::vector<std::string> probes) : set_(set), probes_(std::move(probes)), memory_(set.rules.size())
    {
        running_.assign(set.outputs.size(), false);
        changed_for_.assign(set.outputs.size(), ages);
        stopped_for_.assign(set.outputs.size(), -ms(set.sample_s));
        on_for_.assign(set.outputs.size(), -1);
        spent_.assign(set.outputs.size(), false);
        for (std::size_t o = 0; o < set.outputs.size(); ++o)
            spent_[o] = set.outputs[o].auto_after_power;
        good_for_.assign(max_read, ages);
        up_for_ = -ms(set.sample_s);
        for (std::size_t r = 0; r < set.rules.size(); ++r) {
            works_.push_back(find_works(r));
            uses_.push_back(find_uses(r));
            outputs_of_.push_back(find_outputs(r));
        }
        for (std::size_t r = 0; r < set.rules.size(); ++r)
            if (const auto* d = std::get_if<Disinfection>(&set.rules[r].body); d && d->last_days > 0)
                memory_[r].counted = ms(d->last_days * 86400) - ms(set.sample_s);
    }

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
            if (works(r) && std::holds_alternative<RunTimes>(set_.rules[r].body))
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
    template <class R>
    const R* as(std::size_t r) const { return std::get_if<R>(&set_.rules[r].body); }

    int turn_of(std::size_t r) const { return as<StoreLimit>(r) ? 0 : as<SecondStore>(r) ? 2
                                                                  : as<RunTimes>(r)      ? 9
                                                                                         : 1; }

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
    long value(const std::string& key) const { return in_.readings[static_cast<std::size_t>(probe(key))].mk; }
    bool bad(const std::string& key) const { return good_for_[key == "supply" ? supply_channel : static_cast<std::size_t>(probe(key))] < ms(set_.fault_return_s); }

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

    template <class Window>
    bool inside(const Window& w) const
    {
        if (in_.clock_ms < 0 || w.from_h == w.to_h)
            return false;
        if (w.from_h == 0 && w.to_h >= 24 - 1.0 / 60 - 1e-9)
            return true;
        const Ms now = in_.clock_ms, from = ms(w.from_h * 3600), to = ms(w.to_h * 3600);
        return from < to ? now >= from && now < to : now >= from || now < to;
    }

    // Both ends in it; told by month and day, so that no year needs a day that it has not.
    bool in_season(double first, double last) const
    {
        if (first == 1 && last == 366)
            return true;
        if (in_.clock_ms < 0 || in_.date == no_date)
            return false;
        const int now = month_and_day(in_.date), from = month_and_day_of_leap_year(first), to = month_and_day_of_leap_year(last);
        return from <= to ? now >= from && now <= to : now >= from || now <= to;
    }
    static bool leap(int year) { return year % 4 == 0 && (year % 100 != 0 || year % 400 == 0); }
    static int walk(int days, bool long_february) // month × 100 + day; days after 1 Jan
    {
        int month = 0;
        for (int length : {31, long_february ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31}) {
            if (days < length)
                break;
            days -= length;
            ++month;
        }
        return (month + 1) * 100 + days + 1;
    }
    static int month_and_day_of_leap_year(double day) { return walk(static_cast<int>(std::lround(day)) - 1, true); }
    static int month_and_day(int days)
    {
        int year = 1970;
        for (; days >= (leap(year) ? 366 : 365); ++year)
            days -= leap(year) ? 366 : 365;
        return walk(days, leap(year));
    }

    bool any_bad(std::size_t r) const
    {
        for (const std::string& key : uses(r))
            if (bad(key))
                return true;
        return false;
    }
    void above(Band& b, const std::string& key, double set, double clear, double wait_s = 0) const { b.see(value(key), milli(set), milli(clear), ms(wait_s), 0, step_, bad(key)); }
    void below(Band& b, const std::string& key, double set, double clear) const { b.see(-value(key), -milli(set), -milli(clear), 0, 0, step_, bad(key)); }

    // Follows x; the first valid reading is taken whole. In 1024ths, without fractions.
    long averaged(double& y, const std::string& key, double over_s) const
    {
        const auto i = static_cast<std::size_t>(probe(key));
        if (over_s <= 0)
            return in_.readings[i].mk;
        if (!in_.readings[i].valid) {
            y = NAN;
            return 0;
        }
        const double x = in_.readings[i].mk * 1024.0;
        y = std::isnan(y) ? x : y + std::trunc((x - y) * static_cast<double>(step_) / static_cast<double>(ms(over_s) + step_));
        return static_cast<long>(std::floor((y + 512) / 1024));
    }

    // Loading this store by this output is stopped by a limit of its own.
    bool store_full(std::size_t r, const std::string& store)
    {
        bool full = false;
        for (std::size_t i = 0; i < set_.rules.size(); ++i)
            if (const auto* l = as<StoreLimit>(i); l && works(i) && l->only_store == store && set_.rules[i].output == set_.rules[r].output)
                full = full || memory_[i].band[0].on;
        return full;
    }

    // Rests `wait`, is active `on`, again and again while `open`. first: begins active.
    void cycle(Memory& m, bool open, Ms wait, Ms on, bool first) const
    {
        if (!open) {
            m.counted = -1;
            m.active = false;
            return;
        }
        m.counted = m.counted < 0 ? (first ? wait : 0) : m.counted + step_;
        if (m.counted >= wait + on)
            m.counted -= wait + on;
        m.active = m.counted >= wait;
    }

    void look(std::size_t r)
    {
        const Rule& rule = set_.rules[r];
        Memory& m = memory_[r];
        const auto o = static_cast<std::size_t>(output(rule.output));
        const bool elsewise = running_[o] && !m.active; // it runs for other reasons
        if (const auto d = difference_of(set_, rule)) {
            const long a = averaged(m.source, d->source, d->conditioning.average_s), b = averaged(m.store, d->store, d->conditioning.average_s);
            m.band[0].see(a - b, milli(d->on.in_kelvin()), milli(d->off.in_kelvin()), ms(d->conditioning.confirm_s), 0, step_, any_bad(r));
            bool free = m.band[0].on && !store_full(r, d->store);
            if (const auto* s = as<SecondStore>(r)) {
                for (std::size_t i = 0; i < set_.rules.size(); ++i)
                    if (works(i) && set_.rules[i].output == rule.output && (as<Differential>(i) || as<LinkedDifference>(i) || as<FixedDifference>(i) || (i < r && as<SecondStore>(i))) && memory_[i].asked)
                        free = false;
                m.asked = free;
                if (s->look_every_s > 0 && s->look_for_s > 0) {
                    cycle(m, free, ms(s->look_every_s), ms(s->look_for_s), false);
                    free = free && !m.active;
                }
            } else {
                m.asked = free;
            }
            asks_[r] = free;
            return;
        }
        if (const auto* f = as<FixedDifference>(r)) {
            m.band[0].see(value(f->source) - milli(f->reference.in_celsius()), milli(f->on.in_kelvin()), milli(f->off.in_kelvin()), 0, 0, step_, bad(f->source));
            asks_[r] = m.asked = m.band[0].on;
        } else if (const auto* z = as<Freeze>(r)) {
            below(m.band[0], z->probe, z->limit.in_celsius(), (z->limit + z->hysteresis).in_celsius());
            bool frost = m.band[0].on;
            if (!z->second.empty()) {
                below(m.band[1], z->second, z->limit.in_celsius(), (z->limit + z->hysteresis).in_celsius());
                frost = frost || m.band[1].on;
            }
            if (!z->store.empty()) {
                below(m.band[2], z->store, z->store_min.in_celsius(), (z->store_min + z->hysteresis).in_celsius());
                frost = frost && !m.band[2].on;
            }
            if (z->burst_s > 0 && z->every_s > z->burst_s) {
                cycle(m, frost, ms(z->every_s) - ms(z->burst_s), ms(z->burst_s), true);
                frost = m.active;
            }
            asks_[r] = frost;
        } else if (const auto* n = as<NightCooling>(r)) {
            above(m.band[0], n->store, n->from.in_celsius(), n->until.in_celsius());
            const long colder = milli(n->colder.in_kelvin());
            m.band[1].see(value(n->store) - value(n->source), colder, colder / 2, 0, 0, step_, any_bad(r));
            asks_[r] = m.band[0].on && m.band[1].on && inside(ClockWindow{n->from_h, n->to_h}) && (!n->away_only || in_.away);
        } else if (const auto* g = as<DryRun>(r)) {
            guard(m, *g, o);
            asks_[r] = m.phase >= 3;
        } else if (const auto* v = as<LowVoltage>(r)) {
            m.band[0].see(-in_.readings[supply_channel].mk, -milli(v->cut_v), -milli(v->reconnect_v), ms(v->delay_s), ms(v->reconnect_s), step_, bad("supply"));
            asks_[r] = m.band[0].on;
        } else if (const auto* k = as<Look>(r)) {
            above(m.band[0], k->probe, k->least.in_celsius(), k->least.in_celsius() - 2);
            cycle(m, m.band[0].on && inside(ClockWindow{k->from_h, k->to_h}) && !elsewise, ms(k->every_s), ms(k->run_s), false);
            asks_[r] = m.active;
        } else if (const auto* h = as<Heating>(r)) {
            for (std::size_t i = 0; i < 3; ++i)
                if (const HeatWindow& w = h->windows[i]; w.from_h != w.to_h) {
                    below(m.band[i], h->probe, w.on.in_celsius(), w.off.in_celsius());
                    asks_[r] = asks_[r] || (m.band[i].on && inside(w));
                }
            if (!h->unless.empty() && running_[static_cast<std::size_t>(output(h->unless))])
                asks_[r] = false;
        } else if (const auto* once = as<HeatOnce>(r)) {
            above(m.band[0], once->probe, once->target.in_celsius(), once->target.in_celsius() - 1);
            m.pressed = (m.pressed || in_.pressed != 0) && !m.band[0].on;
            asks_[r] = m.pressed;
        } else if (const auto* d = as<Disinfection>(r)) {
            const double t = d->target.in_celsius();
            above(m.band[0], d->probe, t, t - 1, d->hold_s);
            below(m.band[1], d->probe, t + 1, t + 3);
            cycle(m, !m.band[0].on, ms(d->every_days * 86400), ages, false);
            asks_[r] = m.active && m.band[1].on;
        } else if (const auto* t = as<Thermostat>(r)) {
            t->on < t->off ? below(m.band[0], t->probe, t->on.in_celsius(), t->off.in_celsius()) : above(m.band[0], t->probe, t->on.in_celsius(), t->off.in_celsius());
            asks_[r] = m.band[0].on && (inside(t->windows[0]) || inside(t->windows[1]) || inside(t->windows[2]));
        } else if (const auto* c = as<Timer>(r)) {
            bool wanted = (inside(c->windows[0]) || inside(c->windows[1]) || inside(c->windows[2])) && in_season(c->first_day, c->last_day);
            if (c->for_s > 0 && c->every_s > c->for_s) {
                cycle(m, wanted, ms(c->every_s) - ms(c->for_s), ms(c->for_s), true);
                wanted = m.active;
            }
            asks_[r] = wanted;
        } else if (const auto* tap = as<TapCirculation>(r)) {
            bool wanted = inside(tap->windows[0]) || inside(tap->windows[1]) || inside(tap->windows[2]);
            if (!tap->back.empty()) {
                below(m.band[0], tap->back, tap->on.in_celsius(), tap->off.in_celsius());
                wanted = wanted && m.band[0].on;
            }
            if (!tap->store.empty()) {
                above(m.band[1], tap->store, tap->store_min.in_celsius(), (tap->store_min - tap->hysteresis).in_celsius());
                wanted = wanted && m.band[1].on;
            }
            asks_[r] = wanted;
        } else if (const auto* e = as<Exercise>(r)) {
            cycle(m, !elsewise, ms(e->every_days * 86400), ms(e->run_s), false);
            asks_[r] = m.active;
        } else if (const auto* follow = as<Follow>(r)) {
            const auto leader = static_cast<std::size_t>(output(follow->leader));
            asks_[r] = running_[leader] ? changed_for_[leader] >= ms(follow->delay_s) : changed_for_[leader] < ms(follow->run_on_s);
        } else if (const auto* times = as<RunTimes>(r)) {
            run_on(m, *times, r, o);
        } else if (const auto l = limit_of(rule)) {
            const double at = l->limit.in_celsius(), back = l->hysteresis.in_kelvin();
            l->lower ? below(m.band[0], l->probe, at, at + back) : above(m.band[0], l->probe, at, at - back);
            asks_[r] = m.band[0].on;
        }
    }

    void guard(Memory& m, const DryRun& g, std::size_t o) const
    {
        const long now = value(g.probe);
        if (in_.modes[o] == Mode::off)
            m.phase = m.failures = 0;
        if (m.phase == 0 && running_[o]) {
            m.phase = 1;
            m.counted = 0;
            m.at_start = now;
            return;
        }
        m.counted += step_;
        if (m.phase == 1) {
            if (!running_[o]) {
                m.phase = 0;
            } else if (std::labs(now - m.at_start) >= milli(g.change.in_kelvin())) {
                m.phase = 2;
                m.failures = 0;
            } else if (m.counted >= ms(g.check_s)) {
                m.phase = ++m.failures > g.retries ? 4 : 3;
                m.counted = 0;
            }
        } else if (m.phase == 2 && !running_[o]) {
            m.phase = 0;
        } else if (m.phase == 3 && m.counted >= ms(g.pause_s)) {
            m.phase = 0;
        }
    }

    // Whether any rule that collects or heats asks for the output.
    bool asked(std::size_t o) const
    {
        for (std::size_t r = 0; r < set_.rules.size(); ++r)
            if (works(r) && collects(r, o))
                return true;
        return false;
    }
    bool collects(std::size_t r, std::size_t o) const
    {
        const Priority t = kind_of(set_.rules[r]).priority;
        if (as<DrainDown>(r))
            return output(set_.rules[r].output) == static_cast<int>(o); // holds its valve shut
        if (t < Priority::collect || sets_speed(r))
            return false;
        const auto& its = outputs_of(r);
        return asks_[r] && std::find(its.begin(), its.end(), static_cast<int>(o)) != its.end();
    }

    void run_on(Memory& m, const RunTimes& times, std::size_t r, std::size_t o)
    {
        if (times.run_on_s <= 0)
            return;
        const bool now = asked(o);
        if (now || !running_[o]) {
            m.counted = -1;
            m.asked = now;
            return;
        }
        if (m.asked)
            m.counted = 0;
        else if (m.counted >= 0)
            m.counted += step_;
        m.asked = false;
        asks_[r] = m.counted >= 0 && m.counted < ms(times.run_on_s);
    }

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
            if (const auto* d = as<DrainDown>(r); d && priority == Priority::freeze && asks_[r] && (own || output(d->pump) == static_cast<int>(o)))
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
    Priority priority_of(std::size_t r) const { return as<RunTimes>(r) ? Priority::min_run : kind_of(set_.rules[r]).priority; }

    template <class R>
    const R* last(std::size_t o, int& rule) const
    {
        const R* found = nullptr;
        for (std::size_t r = 0; r < set_.rules.size(); ++r)
            if (works(r) && as<R>(r) && output(set_.rules[r].output) == static_cast<int>(o)) {
                found = as<R>(r);
                rule = static_cast<int>(r);
            }
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
        if (const auto* d = last<DrainTime>(o, rule); d && !running_[o] && stopped_for_[o] < ms(d->drain_s))
            return {false, Priority::hold, rule, 0};
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
                if (works(r) && collects(r, o) && (as<DrainDown>(r) ? Priority::collect : kind_of(set_.rules[r]).priority) == priority)
                    return {true, priority, static_cast<int>(r), 0};
        return {false, Priority::nothing, -1, 0};
    }

    static long share(double x) { return std::lround(x * 1000); }
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
        for (std::size_t r = 0; r < set_.rules.size() && priority >= Priority::min_off; ++r) {
            if (!works(r) || output(set_.rules[r].output) != static_cast<int>(o))
                continue;
            if (const auto* s = as<SpeedByDifference>(r)) {
                const long over = value(s->source) - value(s->store) - milli(s->above.in_kelvin());
                pm = held(s->range, share(s->range.floor) + (over < 0 ? 0 : over / std::max(1L, milli(s->per.in_kelvin())) * share(s->range.step)));
            } else if (const auto* rise = as<SpeedToRise>(r)) {
                pm = seek(memory_[r], rise->range, o, value(rise->source) - value(rise->store) - milli(rise->rise.in_kelvin()), milli(rise->within.in_kelvin()), ms(rise->every_s));
            } else if (const auto* t = as<SpeedToTemperature>(r)) {
                pm = seek(memory_[r], t->range, o, value(t->probe) - milli(t->target.in_celsius()), milli(t->within.in_kelvin()), ms(t->every_s));
            }
        }
        int rule = -1;
        const auto* fill = last<Fill>(o, rule);
        return fill && changed_for_[o] < ms(fill->boost_s) ? share(fill->boost) : pm;
    }
    long seek(Memory& m, const SpeedRange& g, std::size_t o, long over, long within, Ms every)
    {
        if (changed_for_[o] == 0) {
            m.speed = share(g.floor);
            m.speed_for = up_for_;
        } else if (up_for_ - m.speed_for >= every) {
            m.speed = held(g, m.speed + (over > within ? share(g.step) : over < -within ? -share(g.step)
                                                                                        : 0));
            m.speed_for = up_for_;
        }
        return held(g, m.speed);
    }

    RuleSet set_;
    std::vector<std::string> probes_;
    std::vector<Memory> memory_;
    std::vector<bool> running_, spent_, asks_, works_;
    std::vector<std::vector<std::string>> uses_;
    std::vector<std::vector<int>> outputs_of_;
    std::vector<Ms> changed_for_, stopped_for_, on_for_, good_for_;
    Inputs in_;
    Ms step_ = 1000, up_for_ = 0;
};

} // namespace vernal::naive
