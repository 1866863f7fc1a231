#include "rule_compiler.h"

#include "engine_parts.h"
#include "rule_set.h"

#include <algorithm>
#include <cmath>

namespace vernal {

using parts::bit, parts::bit32;

namespace {

[[noreturn]] void too_many() { throw Refused{"there are more rules than a unit can hold"}; }

int pass_of(const Rule& r)
{
    return std::visit(
        [](const auto& body) {
            if constexpr (requires { body.pass(); })
                return body.pass();
            else
                return RuleCompiler::usual_pass;
        },
        r.body);
}

} // namespace

Millis RuleCompiler::millis(double s) { return static_cast<Millis>(std::llround(s * 1000.0)); }
std::int32_t RuleCompiler::per_mille(double share) { return static_cast<std::int32_t>(std::lround(share * 1000.0)); }
Millis RuleCompiler::of_day(double hours) { return std::clamp<Millis>(millis(hours * 3600), 0, day_ms); }

RuleCompiler::RuleCompiler(const RuleSet& set, const std::vector<std::string>& probes) : set_(set), probes_(probes)
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

const Knob& RuleCompiler::knob() const { return set_.knob; }

Compiled RuleCompiler::go()
{
    for (int pass = first_pass; pass <= last_pass; ++pass)
        for (std::size_t i = 0; i < set_.rules.size(); ++i)
            if (set_.rules[i].enabled && pass_of(set_.rules[i]) == pass)
                try_rule(i);
    finish();
    return std::move(out_);
}

void RuleCompiler::try_rule(std::size_t i)
{
    rule_ = static_cast<std::int16_t>(i);
    const Compiled before = out_;
    const int bits = next_bit_;
    try {
        output_ = output(set_.rules[i].output);
        std::visit([this](const auto& body) { body.compile(*this); }, set_.rules[i].body);
    } catch (const Refused& r) {
        out_ = before;
        next_bit_ = bits;
        out_.out_of_action.push_back({i, r.why});
    }
}

std::size_t RuleCompiler::output(const std::string& key) const
{
    for (std::size_t i = 0; i < out_.program.outputs; ++i)
        if (set_.outputs[i].key == key)
            return i;
    throw Refused{"there is no output “" + key + "”"};
}

std::uint8_t RuleCompiler::probe(const std::string& key) const
{
    const auto it = std::find(probes_.begin(), probes_.end(), key);
    if (it == probes_.end() || it - probes_.begin() >= static_cast<std::ptrdiff_t>(max_probes))
        throw Refused{"there is no probe “" + key + "”"};
    return static_cast<std::uint8_t>(it - probes_.begin());
}

std::uint8_t RuleCompiler::spare_channel(MilliKelvin value)
{
    if (program().channels() == max_channels)
        too_many();
    program().spare.push_back(value);
    return static_cast<std::uint8_t>(program().channels() - 1);
}

std::uint8_t RuleCompiler::averaged(std::uint8_t from, double over_s)
{
    if (over_s <= 0)
        return from;
    const std::uint8_t to = spare_channel(0);
    program().averages.push_back({from, to, millis(over_s)});
    return to;
}

Bits RuleCompiler::reads(std::uint8_t channel) const
{
    for (const Average& a : out_.program.averages)
        if (a.to == channel)
            return bit(a.from);
    return channel < max_read ? bit(channel) : 0;
}

std::uint8_t RuleCompiler::timer()
{
    if (program().timers_used == max_timers)
        too_many();
    return program().timers_used++;
}

Bits RuleCompiler::latch(std::uint8_t plus, std::uint8_t minus, const Edges& e)
{
    if (e.clear >= e.set)
        throw Refused{e.without_band};
    Program& p = program();
    if (p.latches.size() == max_latches)
        too_many();
    p.latches.push_back({plus, minus, e.set, e.clear, rule_});
    p.latch_reads.push_back(reads(plus) | reads(minus));
    out_.origins.push_back({rule_, e.set_field, e.clear_field});
    use(output_, p.latch_reads.back());
    return bit(p.latches.size() - 1);
}

Bits RuleCompiler::high(const std::string& key, Temperature set, Temperature clear, const Fields& names)
{
    return latch(probe(key), zero_channel, {in_milli(set.in_celsius()), in_milli(clear.in_celsius()), names.set, names.clear, names.without_band});
}

Bits RuleCompiler::low(std::uint8_t channel, double set, double clear, const Fields& names)
{
    return latch(zero_channel, channel, {-in_milli(set), -in_milli(clear), names.set, names.clear, names.without_band});
}

Bits RuleCompiler::low(const std::string& key, Temperature set, Temperature clear, const Fields& names)
{
    return low(probe(key), set.in_celsius(), clear.in_celsius(), names);
}

void RuleCompiler::use(std::size_t output, Bits channels)
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

OnFault RuleCompiler::on_fault(std::size_t output, std::size_t channel) const
{
    if (channel < probes_.size())
        for (const FaultChoice& f : set_.outputs[output].faults)
            if (f.probe == probes_[channel])
                return f.does;
    return OnFault::off;
}

void RuleCompiler::delay(Bits latch, double set_s, double clear_s)
{
    if (set_s <= 0 && clear_s <= 0)
        return;
    const auto i = static_cast<std::uint8_t>(std::countr_zero(latch));
    program().delayed |= bit32(i);
    program().delays.push_back({i, timer(), millis(std::max(0.0, set_s)), millis(std::max(0.0, clear_s))});
}

Gate& RuleCompiler::gate(Gate::Kind kind, Expr when)
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

Bits RuleCompiler::bursts(const Expr& when, double on_s, double every_s)
{
    Gate& g = gate(Gate::Kind::cycle, when);
    g.timer = timer();
    g.on_first = true;
    g.on_ms = millis(on_s);
    g.wait_ms = millis(every_s) - g.on_ms;
    return bit(g.bit);
}

Bits RuleCompiler::term(const Expr& when)
{
    const bool plain = when.any == 0 && when.none == 0 && std::has_single_bit(when.all);
    return plain ? when.all : bit(gate(Gate::Kind::term, when).bit);
}

// Equal ends are none, the whole day to its last minute is all of it.
void RuleCompiler::add_span(Gate& c, double from_h, double to_h)
{
    ClockSpan w{of_day(from_h), of_day(to_h)};
    if (w.from_ms == w.to_ms)
        return;
    if (w.from_ms == 0 && w.to_ms >= day_ms - 60000)
        w.to_ms = day_ms;
    c.spans[c.span_count++] = w;
}

Bits RuleCompiler::window(double from_h, double to_h) { return windows(std::array{ClockWindow{from_h, to_h}}); }

Bits RuleCompiler::season(double first_day, double last_day)
{
    const auto first = static_cast<std::int16_t>(std::lround(first_day)), last = static_cast<std::int16_t>(std::lround(last_day));
    if (first == 1 && last == 366)
        return 0;
    Gate& g = gate(Gate::Kind::season);
    g.first_day = first;
    g.last_day = last;
    return bit(g.bit);
}

void RuleCompiler::clause_for(std::size_t output, Priority priority, const Expr& when, bool wants_on, bool resting_only)
{
    if (program().clauses.size() == max_clauses)
        too_many();
    program().clauses.push_back({priority, static_cast<std::uint8_t>(output), wants_on, resting_only, when, rule_});
}

Expr RuleCompiler::difference(const DifferenceOf& d, const char* set_field, const char* clear_field)
{
    const std::uint8_t plus = averaged(probe(d.source), d.conditioning.average_s), minus = averaged(probe(d.store), d.conditioning.average_s);
    const Bits l = latch(plus, minus, {in_milli(d.on.in_kelvin()), in_milli(d.off.in_kelvin()), set_field, clear_field, no_band});
    delay(l, d.conditioning.confirm_s, 0);
    const auto limits = store_limits_.find({output_, d.store});
    return {0, l, limits == store_limits_.end() ? 0 : limits->second};
}

void RuleCompiler::limit_store(const std::string& store, Bits latch) { store_limits_[{output_, store}] |= latch; }

void RuleCompiler::speed(const Speed& s, const char* at_field)
{
    for (const Speed& other : program().speeds)
        if (other.output == output_)
            throw Refused{"another rule sets the speed already"};
    if (s.top_pm < s.floor_pm)
        throw Refused{"its maximum speed is below its minimum"};
    Speed x = s;
    x.output = static_cast<std::uint8_t>(output_);
    x.rule = rule_;
    program().speeds.push_back(x);
    out_.speed_fields.push_back(at_field);
    use(output_, reads(x.plus) | reads(x.minus));
}

void RuleCompiler::finish()
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

Compiled compile(const RuleSet& set, const std::vector<std::string>& probe_keys) { return RuleCompiler(set, probe_keys).go(); }

} // namespace vernal
