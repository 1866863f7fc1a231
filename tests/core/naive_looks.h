// What the rules look at and ask for in the naive statement.
#pragma once

#include "core/rules/engine.h"
#include "naive_settings.h"

#include <array>
#include <cmath>

namespace vernal::naive {

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
    bool compares = false;
    long at_start = 0;
    bool pressed = false;
    bool begins = true; // of a speed that seeks a target: at its floor
    Ms speed_for = -1;  // since it last moved; −1: its clock stands
    long speed = 0;
};

// What each rule comes to at a sample.
class Looks : protected Settings {
protected:
    Looks(const RuleSet& set, std::vector<std::string> probes, std::vector<Reads> reads) : Settings(set, std::move(probes), std::move(reads)), memory_(set.rules.size())
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
        for (std::size_t r = 0; r < set.rules.size(); ++r)
            if (const auto* d = std::get_if<Disinfection>(&set.rules[r].body); d && d->last_days > 0)
                memory_[r].counted = ms(d->last_days * 86400) - ms(set.sample_s);
    }

    long value(const std::string& key) const { return in_.readings[static_cast<std::size_t>(probe(key))].mk; }
    bool bad(const std::string& key) const { return good_for_[key == "supply" ? supply_channel : static_cast<std::size_t>(probe(key))] < ms(set_.fault_return_s); }

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
        while (m.counted >= wait + on)
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
        if (look_guarding(r, m, o, elsewise) || look_heating(r, m, o, elsewise))
            return;
        if (const auto* follow = as<Follow>(r)) {
            const auto leader = static_cast<std::size_t>(output(follow->leader));
            if (running_[leader])
                asks_[r] = m.active = changed_for_[leader] >= ms(follow->delay_s);
            else
                asks_[r] = m.active && changed_for_[leader] < ms(follow->run_on_s);
        } else if (const auto* times = as<RunTimes>(r)) {
            run_on(m, *times, r, o);
        } else if (const auto l = limit_of(rule)) {
            const double at = l->limit.in_celsius(), back = l->hysteresis.in_kelvin();
            l->lower ? below(m.band[0], l->probe, at, at + back) : above(m.band[0], l->probe, at, at - back);
            asks_[r] = m.band[0].on;
        }
    }

    // Whether it is one of these kinds.
    bool look_guarding(std::size_t r, Memory& m, std::size_t o, bool)
    {
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
        } else if (const auto* flow = as<FlowGuard>(r)) {
            asks_[r] = held_off(m, *flow, o);
        } else if (const auto* sun = as<SunStart>(r)) {
            m.band[0].see(averaged(m.source, sun->sensor, sun->conditioning.average_s), milli(sun->on_w_m2), milli(sun->off_w_m2), ms(sun->conditioning.confirm_s), 0, step_, bad(sun->sensor));
            asks_[r] = m.band[0].on;
        } else if (const auto* v = as<LowVoltage>(r)) {
            m.band[0].see(-in_.readings[supply_channel].mk, -milli(v->cut_v), -milli(v->reconnect_v), ms(v->delay_s), ms(v->reconnect_s), step_, bad("supply"));
            asks_[r] = m.band[0].on;
        } else {
            return false;
        }
        return true;
    }

    // Whether it is one of these kinds.
    bool look_heating(std::size_t r, Memory& m, std::size_t, bool elsewise)
    {
        if (const auto* k = as<Look>(r)) {
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
        } else if (const auto* alarm = as<PressureAlarm>(r)) {
            const long low = thousandths_of_bar(alarm->low_pa), high = thousandths_of_bar(alarm->high_pa), band = thousandths_of_bar(alarm->band_pa);
            if (alarm->low_pa > 0)
                m.band[0].see(-value(alarm->sensor), -low, -(low + band), ms(alarm->delay_s), 0, step_, bad(alarm->sensor));
            if (alarm->high_pa > 0)
                m.band[1].see(value(alarm->sensor), high, high - band, ms(alarm->delay_s), 0, step_, bad(alarm->sensor));
            asks_[r] = m.band[0].on || m.band[1].on;
        } else if (const auto* e = as<Exercise>(r)) {
            cycle(m, !elsewise, ms(e->every_days * 86400), ms(e->run_s), false);
            asks_[r] = m.active;
        } else {
            return false;
        }
        return true;
    }

    // Whether a flow guard holds its output off: phase 3 for a pause, 4 until OFF.
    bool held_off(Memory& m, const FlowGuard& g, std::size_t o) const
    {
        if (in_.modes[o] == Mode::off) {
            m.phase = m.failures = 0;
            m.counted = -1;
        }
        if (m.phase == 4)
            return true;
        if (m.phase == 3) {
            m.counted += step_;
            if (m.counted < ms(g.pause_s))
                return true;
            m.phase = 0;
            m.counted = -1;
            return false;
        }
        const Reading& flow = in_.readings[static_cast<std::size_t>(probe(g.meter))];
        const bool flows = flow.valid && flow.mk >= thousandths_of_l_min(g.least_m3_s);
        if (!running_[o] || flows) {
            m.counted = -1;
            if (running_[o])
                m.failures = 0;
            return false;
        }
        m.counted = m.counted < 0 ? 0 : m.counted + step_;
        if (m.counted > 0 && m.counted >= ms(g.check_s)) {
            m.phase = ++m.failures > g.retries ? 4 : 3;
            m.counted = 0;
            return true;
        }
        return false;
    }

    void guard(Memory& m, const DryRun& g, std::size_t o) const
    {
        const long now = value(g.probe);
        const bool valid = in_.readings[static_cast<std::size_t>(probe(g.probe))].valid;
        if (in_.modes[o] == Mode::off)
            m.phase = m.failures = 0;
        if (m.phase == 0 && running_[o]) {
            m.phase = 1;
            m.counted = 0;
            m.compares = valid;
            m.at_start = now;
            return;
        }
        m.counted += step_;
        if (m.phase == 1) {
            if (!running_[o]) {
                m.phase = 0;
            } else if (valid && m.compares && std::labs(now - m.at_start) >= milli(g.change.in_kelvin())) {
                m.phase = 2;
                m.failures = 0;
            } else if (m.counted >= ms(g.check_s)) {
                m.phase = ++m.failures > g.retries ? 4 : 3;
                m.counted = 0;
            }
            if (valid && !m.compares) {
                m.compares = true;
                m.at_start = now;
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

    std::vector<Memory> memory_;
    std::vector<bool> running_, spent_, asks_;
    std::vector<Ms> changed_for_, stopped_for_, on_for_, good_for_;
    Inputs in_;
    Ms step_ = 1000, up_for_ = 0;
};

} // namespace vernal::naive
