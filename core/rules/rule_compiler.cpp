#include "rule_compiler.h"

#include "engine_parts.h"
#include "rule_set.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <tuple>

namespace vernal {

Compiled::Compiled() = default;
Compiled::Compiled(const Compiled&) = default;
Compiled::Compiled(Compiled&&) noexcept = default;
Compiled& Compiled::operator=(const Compiled&) = default;
Compiled& Compiled::operator=(Compiled&&) noexcept = default;
Compiled::~Compiled() = default;

using parts::bit32, parts::bit64;

namespace {

[[noreturn]] void too_many(std::size_t most, const char* what) { throw Refused{"a unit has room for " + std::to_string(most) + " " + what, true}; }

// Bits from max_latches on come down to `latches`.
Bits moved_up(const Bits& b, std::size_t latches)
{
    Bits out;
    out.word[0] = b.word[0];
    for (std::size_t i = max_latches; i < max_conditions; ++i)
        if (b.has(i))
            out.put(i - max_latches + latches);
    return out;
}

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

RuleCompiler::RuleCompiler(const RuleSet& set, const std::vector<std::string>& probes, const std::vector<Reads>& reads) : set_(set), probes_(probes), reads_(reads)
{
    Program& p = program();
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
    return std::move(draft_.out);
}

void RuleCompiler::try_rule(std::size_t i)
{
    rule_ = static_cast<std::int16_t>(i);
    const Draft before = draft_;
    try {
        if (i >= max_rules)
            too_many(max_rules, "rules");
        output_ = output(set_.rules[i].output);
        std::visit([this](const auto& body) { body.compile(*this); }, set_.rules[i].body);
    } catch (const Refused& r) {
        draft_ = before;
        draft_.out.out_of_action.push_back({i, r.why, r.no_room});
    }
}

std::size_t RuleCompiler::output(const std::string& key) const
{
    for (std::size_t i = 0; i < draft_.out.program.outputs; ++i)
        if (set_.outputs[i].key == key)
            return i;
    throw Refused{"there is no output “" + key + "”"};
}

std::uint8_t RuleCompiler::probe(const std::string& key, Reads reads) const
{
    const auto it = std::find(probes_.begin(), probes_.end(), key);
    if (key.empty() && reads != Reads::temperature)
        throw Refused{std::string("it names no probe that reads ") + name_of(reads) + ": add an instrument at the Probes station"};
    if (it == probes_.end() || it - probes_.begin() >= static_cast<std::ptrdiff_t>(max_probes))
        throw Refused{"there is no probe “" + key + "”"};
    const auto at = static_cast<std::size_t>(it - probes_.begin());
    const Reads does = at < reads_.size() ? reads_[at] : Reads::temperature;
    if (does != reads)
        throw Refused{key + " reads " + name_of(does) + ", not " + name_of(reads)};
    return static_cast<std::uint8_t>(it - probes_.begin());
}

std::uint8_t RuleCompiler::spare_channel(MilliKelvin value)
{
    if (program().channels() == max_channels)
        too_many(max_channels, "readings, averages and fixed values");
    program().spare.push_back(value);
    return static_cast<std::uint8_t>(program().channels() - 1);
}

std::uint8_t RuleCompiler::averaged(std::uint8_t from, double over_s)
{
    if (over_s <= 0)
        return from;
    for (const Average& a : program().averages)
        if (a.from == from && a.over_ms == millis(over_s))
            return a.to;
    const std::uint8_t to = spare_channel(0);
    program().averages.push_back({from, to, millis(over_s)});
    return to;
}

ChannelBits RuleCompiler::reads(std::uint8_t channel) const
{
    for (const Average& a : draft_.out.program.averages)
        if (a.to == channel)
            return bit32(a.from);
    return channel < max_read ? bit32(channel) : 0;
}

std::uint8_t RuleCompiler::timer()
{
    if (program().timers_used == max_timers)
        too_many(max_timers, "timers");
    return program().timers_used++;
}

std::uint8_t RuleCompiler::button() { return program().buttons++; } // at most one a rule

Bits RuleCompiler::latch(std::uint8_t plus, std::uint8_t minus, const Edges& e)
{
    if (e.clear >= e.set)
        throw Refused{e.without_band};
    Program& p = program();
    if (p.latches.size() == max_latches)
        too_many(max_latches, "conditions on readings");
    p.latches.push_back({plus, minus, e.set, e.clear, rule_});
    p.latch_reads.push_back(reads(plus) | reads(minus));
    draft_.out.origins.push_back({rule_, e.set_field, e.clear_field});
    use(output_, p.latch_reads.back());
    Bits out;
    out.put(p.latches.size() - 1);
    return out;
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

void RuleCompiler::use(std::size_t output, ChannelBits read)
{
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

void RuleCompiler::delay(const Bits& latch, double set_s, double clear_s)
{
    if (set_s <= 0 && clear_s <= 0)
        return;
    const auto i = static_cast<std::uint8_t>(std::countr_zero(latch.word[0]));
    program().delayed |= bit64(i);
    program().delays.push_back({i, timer(), millis(std::max(0.0, set_s)), millis(std::max(0.0, clear_s))});
}

Gate& RuleCompiler::gate(Gate::Kind kind, Expr when)
{
    const std::size_t bit = max_latches + program().gates.size();
    if (bit == max_conditions)
        too_many(max_conditions, "conditions");
    Gate c;
    c.kind = kind;
    c.bit = static_cast<std::uint16_t>(bit);
    c.when = when;
    c.rule = rule_;
    program().gates.push_back(c);
    return program().gates.back();
}

Gate& RuleCompiler::guard(Gate::Kind kind, std::uint8_t channel, double check_s, double pause_s, double retries)
{
    if (program().guards == max_guards)
        throw Refused{"a unit holds two guards against running dry"};
    Gate& g = gate(kind);
    g.channel = channel;
    g.output = static_cast<std::int8_t>(output_);
    g.timer = program().guards++;
    g.wait_ms = millis(check_s);
    g.on_ms = millis(pause_s);
    g.retries = static_cast<std::uint8_t>(std::lround(std::clamp(retries, 0.0, 200.0)));
    use(output_, reads(channel));
    clause(Priority::hold, all_of(bit_of(g)), false);
    return program().gates.back();
}

Bits RuleCompiler::bursts(const Expr& when, double on_s, double every_s)
{
    Gate& g = gate(Gate::Kind::cycle, when);
    g.timer = timer();
    g.on_first = true;
    g.on_ms = millis(on_s);
    g.wait_ms = millis(every_s) - g.on_ms;
    return bit_of(g);
}

Bits RuleCompiler::bit_of(const Gate& gate)
{
    Bits out;
    out.put(gate.bit);
    return out;
}

Bits RuleCompiler::term(const Expr& when)
{
    const auto count = [](const Bits& b) { return std::accumulate(b.word.begin(), b.word.end(), 0, [](int n, std::uint64_t w) { return n + std::popcount(w); }); };
    if (!when.any.any() && !when.none.any() && count(when.all) == 1)
        return when.all;
    for (const Gate& g : program().gates)
        if (g.kind == Gate::Kind::term && g.when == when)
            return bit_of(g);
    return bit_of(gate(Gate::Kind::term, when));
}

void RuleCompiler::hold_unless(const Bits& frost)
{
    Draft::Held& held = draft_.held[output_];
    held.unless |= frost;
    if (held.first < 0)
        held.first = rule_;
}

bool RuleCompiler::overridden() const
{
    const Rule& own = set_.rules[static_cast<std::size_t>(rule_)];
    return std::any_of(set_.rules.begin() + rule_ + 1, set_.rules.end(), [&](const Rule& r) { return r.enabled && r.output == own.output && r.body.index() == own.body.index(); });
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
        return {};
    Gate& g = gate(Gate::Kind::season);
    g.first_day = first;
    g.last_day = last;
    return bit_of(g);
}

void RuleCompiler::clause_for(std::size_t output, Priority priority, const Expr& when, bool wants_on, bool resting_only)
{
    // One is kept for what holds a drain-down valve.
    if (std::count_if(program().clauses.begin(), program().clauses.end(), [&](const Clause& c) { return c.output == output; }) + 1 == static_cast<std::ptrdiff_t>(max_clauses))
        too_many(max_clauses, "requests for one output");
    program().clauses.push_back({priority, static_cast<std::uint8_t>(output), wants_on, resting_only, when, rule_});
}

Expr RuleCompiler::difference(const DifferenceOf& d, const char* set_field, const char* clear_field)
{
    const std::uint8_t plus = averaged(probe(d.source), d.conditioning.average_s), minus = averaged(probe(d.store), d.conditioning.average_s);
    const Bits l = latch(plus, minus, {in_milli(d.on.in_kelvin()), in_milli(d.off.in_kelvin()), set_field, clear_field, no_band});
    delay(l, d.conditioning.confirm_s, 0);
    const auto limits = draft_.store_limits.find({output_, d.store});
    return all_of(l, limits == draft_.store_limits.end() ? Bits{} : limits->second);
}

void RuleCompiler::limit_store(const std::string& store, const Bits& latch) { draft_.store_limits[{output_, store}] |= latch; }

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
    program().speeds.back().reads = reads(x.plus) | reads(x.minus);
    draft_.out.speed_fields.push_back(at_field);
    use(output_, program().speeds.back().reads);
}

void RuleCompiler::finish()
{
    Program& p = program();
    for (const auto& [output, held] : draft_.held)
        p.clauses.push_back({Priority::freeze, static_cast<std::uint8_t>(output), true, false, {{}, {}, held.unless}, held.first});
    const std::size_t latches = p.latches.size(), words = (latches + p.gates.size() + 63) / 64;
    const auto settle = [&](Expr& e) { e = {moved_up(e.any, latches), moved_up(e.all, latches), moved_up(e.none, latches), words}; };
    for (Gate& g : p.gates) {
        g.bit = static_cast<std::uint16_t>(g.bit - max_latches + latches);
        settle(g.when);
    }
    for (Clause& c : p.clauses)
        settle(c.when);
    std::stable_sort(p.clauses.begin(), p.clauses.end(), [](const Clause& x, const Clause& y) { return std::tuple(x.output, x.priority, x.rule) < std::tuple(y.output, y.priority, y.rule); });
    for (std::size_t i = 0; i < p.clauses.size(); ++i) {
        const Clause& c = p.clauses[i];
        Program::Groups& g = p.groups[c.output];
        if (g.count++ == 0)
            g.first = i;
        g.words = (g.count + 63) / 64;
        const auto put = [at = i - g.first](Program::Groups::Set& set) { set[at / 64] |= std::uint64_t{1} << at % 64; };
        put(c.priority == Priority::hold ? g.hold : c.priority < Priority::min_off ? g.protect
                                                : c.priority < Priority::collect   ? g.run_on
                                                                                   : g.collect);
        if (c.resting_only)
            put(g.resting_only);
    }
    if (words <= 1)
        for (const Clause& c : p.clauses)
            p.short_clauses.push_back({c.when.any.word[0], c.when.all.word[0], c.when.none.word[0]});
    std::stable_sort(draft_.out.out_of_action.begin(), draft_.out.out_of_action.end(), [](const OutOfAction& a, const OutOfAction& b) { return a.rule < b.rule; });
}

Compiled compile(const RuleSet& set, const std::vector<std::string>& probe_keys, const std::vector<Reads>& reads) { return RuleCompiler(set, probe_keys, reads).go(); }

} // namespace vernal
