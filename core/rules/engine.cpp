#include "engine.h"

#include <algorithm>

namespace vernal {
namespace {

constexpr std::uint32_t bit(std::size_t i) { return std::uint32_t{1} << i; }

Millis plus_saturated(Millis a, Millis b) { return std::min(a + b, for_ever); }

std::uint32_t fault_bits(const Program& p, const EngineState& s)
{
    std::uint32_t bits = 0;
    for (std::size_t i = 0; i < p.probes; ++i)
        if (s.valid_ms[i] < p.fault_return_ms)
            bits |= bit(i);
    return bits;
}

// valid_ms is −1 while invalid, 0 at the first valid sample, then counts up.
void update_probes(const Program& p, const Inputs& in, EngineState& s)
{
    for (std::size_t i = 0; i < p.probes; ++i) {
        Millis& v = s.valid_ms[i];
        v = !in.readings[i].valid ? -1 : v < 0 ? 0 : plus_saturated(v, p.sample_ms);
    }
}

MilliKelvin latch_value(const Latch& l, const Inputs& in)
{
    const MilliKelvin a = in.readings[static_cast<std::size_t>(l.plus)].mk;
    return l.minus < 0 ? a : a - in.readings[static_cast<std::size_t>(l.minus)].mk;
}

bool latch_faulted(const Latch& l, std::uint32_t faults)
{
    return (faults & bit(static_cast<std::size_t>(l.plus))) != 0 || (l.minus >= 0 && (faults & bit(static_cast<std::size_t>(l.minus))) != 0);
}

void update_latches(const Program& p, const Inputs& in, std::uint32_t faults, EngineState& s)
{
    for (std::size_t i = 0; i < p.latches.size(); ++i) {
        const Latch& l = p.latches[i];
        const MilliKelvin v = latch_value(l, in);
        if (latch_faulted(l, faults) || v <= l.clear_mk)
            s.latched &= ~bit(i);
        else if (v >= l.set_mk)
            s.latched |= bit(i);
    }
}

bool on_switch_holds(const OutputTimers& t, Millis on_ms) { return t.on_timeout_ms == 0 || on_ms < t.on_timeout_ms; }

struct Ask {
    const Program& p;
    const Inputs& in;
    const EngineState& s; // latches and probes already updated, timers advanced, running not yet
    std::uint32_t faults;
};

// The rule that owns the first latch set among the output's clauses in [from, to).
const Clause* speaking(const Ask& a, std::size_t output, Tier from, Tier to)
{
    for (const Clause& c : a.p.clauses)
        if (c.output == output && c.tier >= from && c.tier < to && (a.s.latched & bit(c.latch)) != 0)
            return &c;
    return nullptr;
}

// Asked from the highest rank to the lowest. `visit` gets each voice and says
// whether to go on. Comfort timers speak only where they change something:
// minimum off against a collecting rule, minimum run against silence.
template <class Visit>
void ask_all(const Ask& a, std::size_t o, Visit visit)
{
    const OutputTimers& t = a.p.timers[o];
    const bool running = (a.s.running & bit(o)) != 0;
    const Mode mode = a.in.modes[o];
    if (mode == Mode::off && !visit(Voice{Tier::off_switch, -1, false}))
        return;
    if (mode == Mode::on && on_switch_holds(t, a.s.on_switch_ms[o]) && !visit(Voice{Tier::on_switch, -1, true}))
        return;
    if ((a.faults & a.p.probes_used[o]) != 0 && !visit(Voice{Tier::fault, -1, t.safe_on}))
        return;
    for (const Clause& c : a.p.clauses)
        if (c.output == o && c.tier < Tier::min_off && (a.s.latched & bit(c.latch)) != 0 && !visit(Voice{c.tier, c.rule, !c.blocks()}))
            return;
    const bool asked = speaking(a, o, Tier::collect, Tier::nothing) != nullptr;
    if (!running && asked && a.s.since_change_ms[o] < t.min_off_ms && !visit(Voice{Tier::min_off, t.timer_rule, false}))
        return;
    if (running && !asked && a.s.since_change_ms[o] < t.min_run_ms && !visit(Voice{Tier::min_run, t.timer_rule, true}))
        return;
    for (const Clause& c : a.p.clauses)
        if (c.output == o && c.tier >= Tier::collect && (a.s.latched & bit(c.latch)) != 0 && !visit(Voice{c.tier, c.rule, true}))
            return;
    visit(Voice{Tier::nothing, -1, false});
}

Voice decide(const Ask& a, std::size_t o)
{
    Voice first;
    ask_all(a, o, [&](const Voice& v) {
        first = v;
        return false;
    });
    return first;
}

Margin kelvin(std::int64_t amount, std::int16_t rule) { return {MarginUnit::millikelvin, amount, rule}; }
Margin millis(std::int64_t amount, std::int16_t rule) { return {MarginUnit::milliseconds, amount, rule}; }

void take_nearer(Margin& best, const Margin& m)
{
    if (best.unit == MarginUnit::none || m.amount < best.amount)
        best = m;
}

// Distance to clear of a set latch, or to set of a clear one.
std::int64_t latch_margin(const Ask& a, const Clause& c)
{
    const Latch& l = a.p.latches[c.latch];
    const std::int64_t v = latch_value(l, a.in);
    return (a.s.latched & bit(c.latch)) != 0 ? v - l.clear_mk : l.set_mk - v;
}

// Nearest single change that stops a running output or starts a resting one.
Margin collect_margin(const Ask& a, std::size_t o, bool on)
{
    Margin best;
    for (const Clause& c : a.p.clauses) {
        if (c.output != o)
            continue;
        const bool set = (a.s.latched & bit(c.latch)) != 0;
        if (on ? (c.blocks() != set) : (!c.blocks() && !set))
            take_nearer(best, kelvin(latch_margin(a, c), c.rule));
    }
    return best;
}

Margin fault_margin(const Ask& a, std::size_t o)
{
    Millis left = 0;
    for (std::size_t i = 0; i < a.p.probes; ++i)
        if ((a.faults & a.p.probes_used[o] & bit(i)) != 0)
            left = std::max(left, a.s.valid_ms[i] < 0 ? for_ever : a.p.fault_return_ms - a.s.valid_ms[i]);
    return left == for_ever ? Margin{} : millis(left, -1);
}

Margin margin_of(const Ask& a, std::size_t o, const Voice& v)
{
    const OutputTimers& t = a.p.timers[o];
    switch (v.tier) {
    case Tier::off_switch:
        return {};
    case Tier::on_switch:
        return t.on_timeout_ms > 0 ? millis(t.on_timeout_ms - a.s.on_switch_ms[o], -1) : Margin{};
    case Tier::fault:
        return fault_margin(a, o);
    case Tier::min_off:
        return millis(t.min_off_ms - a.s.since_change_ms[o], v.rule);
    case Tier::min_run:
        return millis(t.min_run_ms - a.s.since_change_ms[o], v.rule);
    case Tier::collect:
    case Tier::heat:
        return collect_margin(a, o, true);
    case Tier::nothing:
        return collect_margin(a, o, false);
    default: {
        const Clause* c = speaking(a, o, v.tier, static_cast<Tier>(static_cast<int>(v.tier) + 1));
        return c ? kelvin(latch_margin(a, *c), c->rule) : Margin{};
    }
    }
}

// One sample. Timers first: they say how long the state has lasted at this sample.
void advance_timers(const Program& p, const Inputs& in, EngineState& s, Millis ms)
{
    for (std::size_t o = 0; o < p.outputs; ++o) {
        s.since_change_ms[o] = plus_saturated(s.since_change_ms[o], ms);
        Millis& on = s.on_switch_ms[o];
        on = in.modes[o] != Mode::on ? -1 : on < 0 ? 0 : plus_saturated(on, ms);
    }
}

template <Margins margins>
Decisions one_sample(const Program& p, const Inputs& in, EngineState& s)
{
    update_probes(p, in, s);
    const std::uint32_t faults = fault_bits(p, s);
    update_latches(p, in, faults, s);
    advance_timers(p, in, s, p.sample_ms);
    Decisions out;
    for (std::size_t o = 0; o < p.outputs; ++o) {
        const Ask ask{p, in, s, faults};
        const Voice v = decide(ask, o);
        out[o] = Decision{v.wants_on, v.tier, v.rule, margins == Margins::with ? margin_of(ask, o, v) : Margin{}};
        if (v.wants_on != ((s.running & bit(o)) != 0)) {
            s.running ^= bit(o);
            s.since_change_ms[o] = 0;
        }
    }
    return out;
}

// Samples until a timer at `now` reaches `at`; at least 1.
std::int64_t samples_until(Millis at, Millis now, Millis sample) { return std::max<std::int64_t>(1, (at - now + sample - 1) / sample); }

// Samples that pass before any timer can expire: the next expiry less one.
// invalid: probes whose readings stay invalid; they do not come back.
std::int64_t quiet_samples(const Program& p, const EngineState& s, const std::array<Mode, max_outputs>& modes, std::uint32_t invalid)
{
    std::int64_t n = for_ever;
    const auto before = [&](Millis at, Millis now) {
        if (now < at)
            n = std::min(n, samples_until(at, now, p.sample_ms) - 1);
    };
    // A count of −1 begins with 0 at the next sample.
    const auto not_begun = [&](Millis count) { return count < 0 ? -p.sample_ms : count; };
    for (std::size_t i = 0; i < p.probes; ++i)
        if ((invalid & bit(i)) == 0)
            before(p.fault_return_ms, not_begun(s.valid_ms[i]));
    for (std::size_t o = 0; o < p.outputs; ++o) {
        const OutputTimers& t = p.timers[o];
        before((s.running & bit(o)) != 0 ? t.min_run_ms : t.min_off_ms, s.since_change_ms[o]);
        if (modes[o] == Mode::on)
            before(t.on_timeout_ms, not_begun(s.on_switch_ms[o]));
    }
    return n;
}

// Nothing changes in these samples but the clocks.
void pass_quietly(const Program& p, const Inputs& in, EngineState& s, std::int64_t n)
{
    const Millis ms = n > for_ever / p.sample_ms ? for_ever : n * p.sample_ms;
    for (std::size_t i = 0; i < p.probes; ++i)
        if (in.readings[i].valid)
            s.valid_ms[i] = plus_saturated(s.valid_ms[i], ms);
    advance_timers(p, in, s, ms);
}

std::uint32_t invalid_bits(const Program& p, const Inputs& in)
{
    std::uint32_t out = 0;
    for (std::size_t i = 0; i < p.probes; ++i)
        out |= in.readings[i].valid ? 0U : bit(i);
    return out;
}

bool may_flip(const Latch& l, bool set, std::uint32_t faults, const ReadingBounds& b)
{
    if (latch_faulted(l, faults))
        return false;
    const auto a = static_cast<std::size_t>(l.plus);
    std::int64_t lo = b.low[a], hi = b.high[a];
    if (l.minus >= 0) {
        const auto m = static_cast<std::size_t>(l.minus);
        lo -= b.high[m];
        hi -= b.low[m];
    }
    return set ? lo <= l.clear_mk : hi >= l.set_mk;
}

} // namespace

EngineState power_up(const Program& program)
{
    EngineState s;
    s.valid_ms.fill(program.fault_return_ms);
    s.since_change_ms.fill(for_ever);
    s.on_switch_ms.fill(-1);
    return s;
}

Decisions step(const Program& program, const Inputs& in, EngineState& state, std::int64_t n, Margins margins)
{
    for (;;) {
        // An output that changes restarts its timers, so the quiet stretch is asked anew.
        const Decisions out = margins == Margins::with ? one_sample<Margins::with>(program, in, state) : one_sample<Margins::without>(program, in, state);
        if (--n <= 0)
            return out;
        const std::int64_t quiet = std::min(n - 1, quiet_samples(program, state, in.modes, invalid_bits(program, in)));
        if (quiet > 0) {
            pass_quietly(program, in, state, quiet);
            n -= quiet;
        }
    }
}

std::int64_t safe_skip(const Program& program, const EngineState& state, const std::array<Mode, max_outputs>& modes, const ReadingBounds& bounds)
{
    const std::uint32_t faults = fault_bits(program, state);
    for (std::size_t i = 0; i < program.probes; ++i)
        if ((state.valid_ms[i] < 0) != ((bounds.invalid & bit(i)) != 0))
            return 0;
    for (std::size_t i = 0; i < program.latches.size(); ++i)
        if (may_flip(program.latches[i], (state.latched & bit(i)) != 0, faults, bounds))
            return 0;
    return quiet_samples(program, state, modes, bounds.invalid);
}

std::vector<Voice> voices(const Program& program, const Inputs& in, const EngineState& after, std::size_t output)
{
    std::vector<Voice> out;
    const Ask ask{program, in, after, fault_bits(program, after)};
    ask_all(ask, output, [&](const Voice& v) {
        out.push_back(v);
        return true;
    });
    if (out.size() > 1)
        out.pop_back(); // "nothing asks" is said only when nothing else is
    return out;
}

bool faulted(const Program& program, const EngineState& state, std::size_t probe) { return state.valid_ms[probe] < program.fault_return_ms; }

} // namespace vernal
