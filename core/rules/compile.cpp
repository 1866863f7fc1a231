// Rules as a person sets them, put into conditions and clauses.
#include "engine_parts.h"
#include "rule_set.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vernal {
namespace {

using parts::bit, parts::bit32;

// Estimates: wide enough for the noise of a probe, narrow enough for the purpose.
constexpr double reach_k = 1.0;     // one heating on demand asks anew this far below its target
constexpr double heat_low_k = 1.0;  // disinfection holds its probe between these above the target,
constexpr double heat_high_k = 3.0; // so that it surely stays above
constexpr double look_back_k = 2.0; // hysteresis of "the sun is likely"

Millis millis(double s) { return static_cast<Millis>(std::llround(s * 1000.0)); }
std::int32_t per_mille(double share) { return static_cast<std::int32_t>(std::lround(share * 1000.0)); }

// Why a rule is out of action.
struct Refused {
    std::string why;
};

class Compiler {
public:
    Compiler(const RuleSet& set, const std::vector<std::string>& probes) : set_(set), probes_(probes)
    {
        Program& p = out_.program;
        p.sample_ms = std::max<Millis>(1, millis(set.sample_s));
        p.fault_return_ms = std::max<Millis>(0, millis(set.fault_return_s));
        p.power_wait_ms = std::max<Millis>(0, millis(set.power_wait_s));
        p.probes = std::min(probes.size(), max_probes);
        p.outputs = std::min(set.outputs.size(), max_outputs);
        for (std::size_t o = 0; o < p.outputs; ++o) {
            OutputTimers& t = p.timers[o];
            t.on_timeout_ms = std::max<Millis>(0, millis(set.outputs[o].on_timeout_s));
            t.bypass = set.outputs[o].bypass;
            t.auto_after_power = set.outputs[o].auto_after_power;
        }
    }

    Compiled go()
    {
        // What others look at comes first: limits of one store, then what collects
        // by itself, then what gives way to that, then what follows any of them.
        const auto comes = [](const Rule& r) {
            if (const auto* l = std::get_if<StoreLimit>(&r.body))
                return l->only_store.empty() ? 1 : 0;
            return std::holds_alternative<SecondStore>(r.body) ? 2 : std::holds_alternative<RunTimes>(r.body) ? 3
                                                                                                              : 1;
        };
        for (int pass = 0; pass < 4; ++pass)
            for (std::size_t i = 0; i < set_.rules.size(); ++i)
                if (set_.rules[i].enabled && comes(set_.rules[i]) == pass)
                    try_rule(i);
        finish();
        return std::move(out_);
    }

private:
    Program& program() { return out_.program; }

    void try_rule(std::size_t i)
    {
        rule_ = static_cast<std::int16_t>(i);
        const Compiled before = out_;
        const int bits = next_bit_;
        try {
            output_ = output(set_.rules[i].output);
            std::visit([&](const auto& body) { add(body); }, set_.rules[i].body);
        } catch (const Refused& r) {
            out_ = before;
            next_bit_ = bits;
            out_.out_of_action.push_back({i, r.why});
        }
    }

    std::size_t output(const std::string& key) const
    {
        for (std::size_t i = 0; i < out_.program.outputs; ++i)
            if (set_.outputs[i].key == key)
                return i;
        throw Refused{"there is no output “" + key + "”"};
    }
    std::uint8_t probe(const std::string& key) const
    {
        const auto it = std::find(probes_.begin(), probes_.end(), key);
        if (it == probes_.end() || it - probes_.begin() >= static_cast<std::ptrdiff_t>(max_probes))
            throw Refused{"there is no probe “" + key + "”"};
        return static_cast<std::uint8_t>(it - probes_.begin());
    }

    std::uint8_t spare_channel(MilliKelvin value)
    {
        if (program().channels() == max_channels)
            too_many();
        program().spare.push_back(value);
        return static_cast<std::uint8_t>(program().channels() - 1);
    }
    std::uint8_t averaged(std::uint8_t from, double over_s)
    {
        if (over_s <= 0)
            return from;
        const std::uint8_t to = spare_channel(0);
        program().averages.push_back({from, to, millis(over_s)});
        return to;
    }
    Bits reads(std::uint8_t channel)
    {
        for (const Average& a : program().averages)
            if (a.to == channel)
                return bit(a.from);
        return channel < max_read ? bit(channel) : 0;
    }
    [[noreturn]] static void too_many() { throw Refused{"there are more rules than a unit can hold"}; }

    std::uint8_t timer()
    {
        if (program().timers_used == max_timers)
            too_many();
        return program().timers_used++;
    }

    // Bit of a latch over plus less minus. Its readings count for the faults of the output.
    Bits latch(std::uint8_t plus, std::uint8_t minus, MilliKelvin set, MilliKelvin clear, const char* without_band)
    {
        if (clear >= set)
            throw Refused{without_band};
        Program& p = program();
        if (p.latches.size() == max_latches)
            too_many();
        p.latches.push_back({plus, minus, set, clear, rule_});
        p.latch_reads.push_back(reads(plus) | reads(minus));
        use(output_, p.latch_reads.back());
        return bit(p.latches.size() - 1);
    }
    static constexpr const char* no_hysteresis = "the hysteresis is not above zero";
    Bits high(const std::string& key, Temperature set, Temperature clear, const char* without_band = no_hysteresis)
    {
        return latch(probe(key), zero_channel, in_milli(set.in_celsius()), in_milli(clear.in_celsius()), without_band);
    }
    Bits low(std::uint8_t channel, double set, double clear, const char* without_band = no_hysteresis) { return latch(zero_channel, channel, -in_milli(set), -in_milli(clear), without_band); }
    Bits low(const std::string& key, Temperature set, Temperature clear, const char* without_band = no_hysteresis) { return low(probe(key), set.in_celsius(), clear.in_celsius(), without_band); }

    void use(std::size_t output, Bits channels)
    {
        const auto read = static_cast<std::uint32_t>(channels);
        program().used |= read;
        OutputTimers& t = program().timers[output];
        for (std::size_t c = 0; c < max_read; ++c)
            if ((read >> c & 1U) != 0)
                switch (on_fault(output, c)) {
                case OnFault::off: t.fault_off |= bit32(c); break;
                case OnFault::on: t.fault_on |= bit32(c); break;
                case OnFault::carry_on: break;
                }
    }
    OnFault on_fault(std::size_t output, std::size_t channel) const
    {
        if (channel < probes_.size())
            for (const FaultChoice& f : set_.outputs[output].faults)
                if (f.probe == probes_[channel])
                    return f.does;
        return OnFault::off;
    }

    void delay(Bits latch, double set_s, double clear_s)
    {
        if (set_s <= 0 && clear_s <= 0)
            return;
        std::uint8_t i = 0;
        while (bit(i) != latch)
            ++i;
        program().delayed |= bit32(i);
        program().delays.push_back({i, timer(), millis(std::max(0.0, set_s)), millis(std::max(0.0, clear_s))});
    }

    Gate& gate(Gate::Kind kind, Expr when = {})
    {
        if (next_bit_ == static_cast<int>(max_conditions))
            too_many();
        Gate c;
        c.kind = kind;
        c.bit = static_cast<std::uint8_t>(next_bit_++);
        c.when = when;
        c.rule = rule_;
        program().gates.push_back(c);
        return program().gates.back();
    }
    Bits term(const Expr& when)
    {
        const bool plain = when.any == 0 && when.none == 0 && (when.all & (when.all - 1)) == 0 && when.all != 0;
        return plain ? when.all : bit(gate(Gate::Kind::term, when).bit);
    }

    static Millis of_day(double hours) { return std::clamp<Millis>(millis(hours * 3600), 0, day_ms); }
    // Adds a span; equal ends are none, the whole day to its last minute is all of it.
    static void add_span(Gate& c, double from_h, double to_h)
    {
        ClockSpan w{of_day(from_h), of_day(to_h)};
        if (w.from_ms == w.to_ms)
            return;
        if (w.from_ms == 0 && w.to_ms >= day_ms - 60000)
            w.to_ms = day_ms;
        c.spans[c.span_count++] = w;
    }
    template <class Windows>
    Bits windows(const Windows& all)
    {
        Gate& c = gate(Gate::Kind::window);
        for (const auto& w : all)
            add_span(c, w.from_h, w.to_h);
        return bit(c.bit);
    }
    Bits window(double from_h, double to_h) { return windows(std::array{ClockWindow{from_h, to_h}}); }

    void clause(Priority priority, const Expr& when, bool wants_on, bool resting_only = false) { clause_for(output_, priority, when, wants_on, resting_only); }
    void clause_for(std::size_t output, Priority priority, const Expr& when, bool wants_on, bool resting_only = false)
    {
        if (program().clauses.size() == max_clauses)
            too_many();
        program().clauses.push_back({priority, static_cast<std::uint8_t>(output), wants_on, resting_only, when, rule_});
    }

    static constexpr const char* no_band = "it stops at or above the difference at which it starts";

    // Latch of a difference rule with what stops loading its store.
    Expr difference(const std::string& source, const std::string& store, TempDiff on, TempDiff off, const InputConditioning& conditioning)
    {
        const std::uint8_t plus = averaged(probe(source), conditioning.average_s), minus = averaged(probe(store), conditioning.average_s);
        const Bits l = latch(plus, minus, in_milli(on.in_kelvin()), in_milli(off.in_kelvin()), no_band);
        delay(l, conditioning.confirm_s, 0);
        const auto limits = store_limits_.find({output_, store});
        return {0, l, limits == store_limits_.end() ? 0 : limits->second};
    }

    void add(const Differential& d)
    {
        const Expr when = difference(d.source, d.store, d.on, d.off, d.conditioning);
        clause(Priority::collect, when, true);
        collectors_[output_].push_back(when);
    }
    void add(const LinkedDifference&) { add(*difference_of(set_, set_.rules[static_cast<std::size_t>(rule_)])); }
    void add(const FixedDifference& d)
    {
        const std::uint8_t reference = spare_channel(in_milli(d.reference.in_celsius()));
        const Expr when{0, latch(probe(d.source), reference, in_milli(d.on.in_kelvin()), in_milli(d.off.in_kelvin()), no_band), 0};
        clause(Priority::collect, when, true);
        collectors_[output_].push_back(when);
    }
    void add(const SecondStore& s)
    {
        const std::size_t valve = output(s.valve);
        Expr when = difference(s.source, s.store, s.on, s.off, {});
        use(valve, program().latch_reads.back());
        for (const Expr& first : collectors_[output_])
            when.none |= term(first);
        collectors_[output_].push_back(when);
        if (s.look_every_s > 0 && s.look_for_s > 0) {
            Gate& c = gate(Gate::Kind::cycle, when);
            c.timer = timer();
            c.wait_ms = millis(s.look_every_s);
            c.on_ms = millis(s.look_for_s);
            when.none |= bit(c.bit);
        }
        clause(Priority::collect, when, true);
        clause_for(valve, Priority::collect, when, true);
    }

    Speed& speed(Speed::Kind kind, const SpeedRange& r)
    {
        Speed x;
        x.kind = kind;
        x.output = static_cast<std::uint8_t>(output_);
        x.step_pm = std::max(1, per_mille(r.step));
        x.resolution_pm = std::max(1, per_mille(r.resolution));
        x.floor_pm = per_mille(r.floor);
        x.top_pm = per_mille(r.top);
        x.bursts = r.drive == DriveKind::bursts;
        x.rule = rule_;
        for (const Speed& other : program().speeds)
            if (other.output == x.output)
                throw Refused{"another rule sets the speed already"};
        if (x.top_pm < x.floor_pm)
            throw Refused{"its maximum speed is below its least"};
        program().speeds.push_back(x);
        return program().speeds.back();
    }
    void over(Speed& x, const std::string& plus, const std::string& minus)
    {
        x.plus = probe(plus);
        x.minus = minus.empty() ? static_cast<std::uint8_t>(zero_channel) : probe(minus);
        use(output_, reads(x.plus) | reads(x.minus));
    }
    void add(const SpeedByDifference& s)
    {
        Speed& x = speed(Speed::Kind::difference, s.range);
        over(x, s.source, s.store);
        x.at_mk = in_milli(s.above.in_kelvin());
        x.per_mk = std::max(1, in_milli(s.per.in_kelvin()));
    }
    void add(const SpeedToRise& s)
    {
        Speed& x = speed(Speed::Kind::target, s.range);
        over(x, s.source, s.store);
        x.at_mk = in_milli(s.rise.in_kelvin());
        x.per_mk = in_milli(s.within.in_kelvin());
        x.every_ms = std::max<Millis>(1, millis(s.every_s));
    }
    void add(const SpeedToTemperature& s)
    {
        Speed& x = speed(Speed::Kind::target, s.range);
        over(x, s.probe, "");
        x.at_mk = in_milli(s.target.in_celsius());
        x.per_mk = in_milli(s.within.in_kelvin());
        x.every_ms = std::max<Millis>(1, millis(s.every_s));
    }

    void add(const StoreLimit& l)
    {
        const Temperature limit = l.limit - l.allowance;
        const Bits b = high(l.probe, limit, limit - l.hysteresis);
        program().limiting |= static_cast<std::uint32_t>(b);
        if (l.only_store.empty())
            return clause(Priority::limit, {0, b, 0}, false);
        probe(l.only_store);
        store_limits_[{output_, l.only_store}] |= b;
    }
    template <int L, int H>
    void add(const HighLimit<L, H>& l)
    {
        using Body = HighLimit<L, H>;
        if constexpr (std::is_same_v<Body, CollectorMinimum>) {
            clause(Priority::limit, {0, low(l.probe, l.limit, l.limit + l.hysteresis), 0}, false);
        } else {
            constexpr Priority priority = std::is_same_v<Body, CutOut> ? Priority::cut_out : std::is_same_v<Body, Divert> ? Priority::dump
                                                                                                              : Priority::limit;
            const Bits b = high(l.probe, l.limit, l.limit - l.hysteresis);
            program().limiting |= priority == Priority::dump ? 0U : static_cast<std::uint32_t>(b);
            clause(priority, {0, b, 0}, priority == Priority::dump);
        }
    }

    void add(const Freeze& f)
    {
        Expr when{low(f.probe, f.limit, f.limit + f.hysteresis), 0, 0};
        if (!f.second.empty())
            when.any |= low(f.second, f.limit, f.limit + f.hysteresis);
        if (!f.store.empty())
            when.none |= low(f.store, f.store_min, f.store_min + f.hysteresis);
        if (f.burst_s <= 0 || f.every_s <= f.burst_s)
            return clause(Priority::freeze, when, true);
        Gate& c = gate(Gate::Kind::cycle, when);
        c.timer = timer();
        c.on_first = true;
        c.on_ms = millis(f.burst_s);
        c.wait_ms = millis(f.every_s) - c.on_ms;
        clause(Priority::freeze, {0, bit(c.bit), 0}, true);
    }
    void add(const DrainDown& d)
    {
        const Bits frost = low(d.probe, d.limit, d.limit + d.hysteresis);
        clause(Priority::freeze, {0, frost, 0}, false);
        clause(Priority::collect, {}, true);
        if (d.pump.empty())
            return;
        const std::size_t pump = output(d.pump);
        use(pump, program().latch_reads.back());
        clause_for(pump, Priority::freeze, {0, frost, 0}, false);
    }
    void add(const NightCooling& n)
    {
        Bits all = high(n.store, n.from, n.until, "it ends at or above the temperature at which it begins");
        const MilliKelvin colder = in_milli(n.colder.in_kelvin());
        all |= latch(probe(n.store), probe(n.source), colder, colder / 2, "the collector need not be colder");
        all |= window(n.from_h, n.to_h);
        if (n.away_only)
            all |= bit(gate(Gate::Kind::away).bit);
        clause(Priority::dump, {0, all, 0}, true);
    }

    void add(const RunTimes& r)
    {
        OutputTimers& t = program().timers[output_];
        t.min_run_ms = std::max<Millis>(0, millis(r.min_run_s));
        t.min_off_ms = std::max<Millis>(0, millis(r.min_off_s));
        t.timer_rule = rule_;
        if (r.run_on_s <= 0)
            return;
        Expr asks;
        const std::vector<Clause> all = program().clauses;
        for (const Clause& c : all)
            if (c.output == output_ && c.priority >= Priority::collect)
                asks.any |= term(c.when);
        if (asks.any == 0)
            return;
        Gate& c = gate(Gate::Kind::run_on, asks);
        c.output = static_cast<std::int8_t>(output_);
        c.timer = timer();
        c.on_ms = millis(r.run_on_s);
        clause(Priority::min_run, {0, bit(c.bit), 0}, true);
    }
    void add(const DrainTime& d)
    {
        OutputTimers& t = program().timers[output_];
        t.drain_ms = std::max<Millis>(0, millis(d.drain_s));
        t.drain_rule = rule_;
    }
    void add(const Fill& f)
    {
        OutputTimers& t = program().timers[output_];
        t.boost_ms = std::max<Millis>(0, millis(f.boost_s));
        t.boost_pm = per_mille(f.boost);
        if (!f.probe.empty())
            clause(Priority::limit, {0, high(f.probe, f.lockout, f.lockout - f.hysteresis), 0}, false, true);
    }
    void add(const DryRun& d)
    {
        if (program().guards == 2)
            throw Refused{"a unit holds two dry-run guards"};
        Gate& c = gate(Gate::Kind::guard);
        c.channel = probe(d.probe);
        c.output = static_cast<std::int8_t>(output_);
        c.timer = program().guards++;
        c.change_mk = in_milli(d.change.in_kelvin());
        c.wait_ms = millis(d.check_s);
        c.on_ms = millis(d.pause_s);
        c.retries = static_cast<std::uint8_t>(std::lround(std::clamp(d.retries, 0.0, 200.0)));
        const Bits b = bit(c.bit);
        use(output_, reads(c.channel));
        clause(Priority::hold, {0, b, 0}, false);
    }
    void add(const LowVoltage& l)
    {
        const Bits b = low(static_cast<std::uint8_t>(supply_channel), l.cut_v, l.reconnect_v, "it reconnects at or below the voltage at which it cuts");
        delay(b, l.delay_s, l.reconnect_s);
        clause(Priority::hold, {0, b, 0}, false);
    }

    void add(const Look& l)
    {
        const Bits sunny = high(l.probe, l.least, l.least - TempDiff::kelvin(look_back_k));
        const Bits day = window(l.from_h, l.to_h);
        Gate& c = gate(Gate::Kind::cycle, {0, sunny | day, 0});
        c.output = static_cast<std::int8_t>(output_);
        c.timer = timer();
        c.wait_ms = millis(l.every_s);
        c.on_ms = millis(l.run_s);
        clause(Priority::collect, {0, bit(c.bit), 0}, true);
    }
    void add(const Heating& h)
    {
        Bits sun = 0;
        if (!h.unless.empty()) {
            const std::size_t leader = output(h.unless);
            Gate& c = gate(Gate::Kind::follow);
            c.output = static_cast<std::int8_t>(leader);
            sun = bit(c.bit);
        }
        bool any = false;
        for (const HeatWindow& w : h.windows) {
            if (of_day(w.from_h) == of_day(w.to_h))
                continue;
            any = true;
            const Bits cold = low(h.probe, w.on, w.off, "a window switches on at or above the temperature at which it switches off");
            clause(Priority::heat, {0, cold | window(w.from_h, w.to_h), sun}, true);
        }
        if (!any)
            probe(h.probe);
    }
    void add(const HeatOnce& h)
    {
        const Bits reached = high(h.probe, h.target, h.target - TempDiff::kelvin(reach_k));
        Gate& c = gate(Gate::Kind::pressed, {0, reached, 0});
        c.timer = timer();
        c.wait_ms = of_day(h.press_h) % day_ms;
        clause(Priority::heat, {0, bit(c.bit), 0}, true);
    }
    void add(const Disinfection& d)
    {
        const Bits done = high(d.probe, d.target, d.target - TempDiff::kelvin(reach_k));
        delay(done, d.hold_s, 0);
        const Bits cool = low(d.probe, d.target + TempDiff::kelvin(heat_low_k), d.target + TempDiff::kelvin(heat_high_k));
        Gate& c = gate(Gate::Kind::cycle, {0, 0, done});
        c.timer = timer();
        c.wait_ms = millis(d.every_days * 86400);
        c.on_ms = for_ever / 2;
        c.before_ms = millis(d.last_days * 86400);
        clause(Priority::heat, {0, bit(c.bit) | cool, 0}, true);
    }
    void add(const Thermostat& t)
    {
        const Bits l = t.on < t.off ? low(t.probe, t.on, t.off) : high(t.probe, t.on, t.off, "it switches on and off at the same temperature");
        clause(Priority::heat, {0, l | windows(t.windows), 0}, true);
    }
    void add(const Timer& t) { clause(Priority::heat, {0, windows(t.windows), 0}, true); }
    void add(const Exercise& e)
    {
        Gate& c = gate(Gate::Kind::cycle);
        c.output = static_cast<std::int8_t>(output_);
        c.timer = timer();
        c.wait_ms = millis(e.every_days * 86400);
        c.on_ms = millis(e.run_s);
        clause(Priority::heat, {0, bit(c.bit), 0}, true);
    }
    void add(const Follow& f)
    {
        const std::size_t leader = output(f.leader);
        if (leader == output_)
            throw Refused{"it would follow itself"};
        Gate& c = gate(Gate::Kind::follow);
        c.output = static_cast<std::int8_t>(leader);
        c.wait_ms = millis(f.delay_s);
        c.on_ms = millis(f.run_on_s);
        clause(Priority::collect, {0, bit(c.bit), 0}, true);
    }

    void finish()
    {
        Program& p = program();
        std::stable_sort(p.clauses.begin(), p.clauses.end(), [](const Clause& x, const Clause& y) { return std::tuple(x.output, x.priority, x.rule) < std::tuple(y.output, y.priority, y.rule); });
        for (std::size_t i = 0; i < p.clauses.size(); ++i) {
            const Clause& c = p.clauses[i];
            Program::Groups& g = p.groups[c.output];
            (c.priority == Priority::hold ? g.hold : c.priority < Priority::min_off ? g.protect
                                         : c.priority < Priority::collect   ? g.run_on
                                                                    : g.collect) |= bit(i);
            g.resting_only |= c.resting_only ? bit(i) : 0;
        }
        std::stable_sort(out_.out_of_action.begin(), out_.out_of_action.end(), [](const OutOfAction& a, const OutOfAction& b) { return a.rule < b.rule; });
    }

    const RuleSet& set_;
    const std::vector<std::string>& probes_;
    Compiled out_;
    int next_bit_ = static_cast<int>(max_latches);
    std::int16_t rule_ = -1;
    std::size_t output_ = 0;
    std::map<std::pair<std::size_t, std::string>, Bits> store_limits_;
    std::array<std::vector<Expr>, max_outputs> collectors_;
};

} // namespace

Compiled compile(const RuleSet& set, const std::vector<std::string>& probe_keys) { return Compiler(set, probe_keys).go(); }

} // namespace vernal
