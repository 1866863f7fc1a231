#include "engine_parts.h"
#include "gates/all.h"

#include <algorithm>
#include <cstdlib>

namespace vernal {
namespace parts {
namespace {

constexpr std::int64_t average_unit = 1024;

} // namespace

void channel_values(const Program& p, const Inputs& in, const EngineState& s, Values& v)
{
    for (std::size_t i = 0; i < p.probes; ++i)
        v[i] = in.readings[i].mk;
    v[supply_channel] = in.readings[supply_channel].mk;
    v[zero_channel] = 0;
    for (std::size_t i = 0; i < p.spare.size(); ++i)
        v[first_spare_channel + i] = p.spare[i];
    for (std::size_t i = 0; i < p.averages.size(); ++i)
        v[p.averages[i].to] = static_cast<MilliKelvin>((s.average[i] + average_unit / 2) >> 10);
}

ChannelBits fault_bits(const Program& p, const EngineState& s)
{
    return p.used & ~s.trusted;
}

Bits conditions(const Program& p, const Inputs& in, const Values& v, EngineState& s)
{
    GateSample sample{in, v, {}, s};
    sample.bits.word[0] = s.latched;
    for (const Gate& g : p.gates)
        sample.bits.put(g.bit, with_kind(g.kind, [&](auto kind) { return kind.holds(g, sample); }));
    return sample.bits;
}

} // namespace parts

namespace {

using namespace parts;

// Readings that come back are valid for 0 at their first valid sample. True: some changed.
bool update_probes(const Program& p, const Inputs& in, EngineState& s)
{
    bool moved = false;
    for (ChannelBits left = p.used; left != 0; left &= left - 1) {
        const auto i = static_cast<std::size_t>(std::countr_zero(left));
        const std::uint32_t its = bit32(i);
        if (!in.readings[i].valid) {
            moved = moved || s.valid_since[i] != not_since;
            s.valid_since[i] = not_since;
            s.trusted &= ~its;
        } else if ((s.trusted & its) == 0) {
            if (s.valid_since[i] == not_since) {
                s.valid_since[i] = s.now_ms;
                moved = true;
            }
            if (s.now_ms - s.valid_since[i] >= p.fault_return_ms) {
                s.trusted |= its;
                moved = true;
            }
        }
    }
    return moved;
}

void update_averages(const Program& p, const Inputs& in, EngineState& s)
{
    for (std::size_t i = 0; i < p.averages.size(); ++i) {
        const Average& a = p.averages[i];
        const std::int64_t x = std::int64_t{in.readings[a.from].mk} * average_unit;
        std::int64_t& y = s.average[i];
        if (!in.readings[a.from].valid)
            y = not_since;
        else
            y = y == not_since ? x : y + (x - y) * p.sample_ms / (a.over_ms + p.sample_ms);
    }
}

void update_latches(const Program& p, const Values& v, ChannelBits faults, EngineState& s)
{
    LatchBits latched = s.latched;
    LatchBits one = 1;
    for (const Latch& l : p.latches) {
        const MilliKelvin x = v[l.plus] - v[l.minus];
        latched |= x >= l.set_mk ? one : 0;
        latched &= ~(x <= l.clear_mk ? one : 0);
        one <<= 1;
    }
    if (faults != 0)
        for (std::size_t i = 0; i < p.latches.size(); ++i)
            if ((p.latch_reads[i] & faults) != 0)
                latched &= ~bit64(i);
    // Nothing on its way, and nothing that would have to wait.
    if (s.pending == 0 && ((latched ^ s.latched) & p.delayed) == 0) {
        s.latched = latched;
        return;
    }
    for (const Delay& d : p.delays) {
        Millis& since = s.since[d.timer];
        const LatchBits its = bit64(d.latch);
        if (((latched ^ s.latched) & its) == 0 || (p.latch_reads[d.latch] & faults) != 0) {
            since = not_since;
            s.pending &= ~its;
            continue;
        }
        if (since == not_since)
            since = s.now_ms;
        s.pending |= its;
        if (s.now_ms - since >= ((latched & its) != 0 ? d.set_ms : d.clear_ms)) {
            since = not_since;
            s.pending &= ~its;
        } else {
            latched ^= its;
        }
    }
    s.latched = latched;
}

// As the output resolves it, within its range.
std::int32_t in_range(const Speed& x, std::int64_t pm)
{
    const auto held = static_cast<std::int32_t>(std::clamp<std::int64_t>(pm, x.floor_pm, x.top_pm));
    return std::max(x.floor_pm, held / x.resolution_pm * x.resolution_pm);
}

std::int32_t by_difference(const Speed& x, std::int64_t value_mk)
{
    const auto over = static_cast<std::int32_t>(value_mk - x.at_mk); // a 32-bit division is several times faster
    return in_range(x, over < 0 ? x.floor_pm : x.floor_pm + std::int64_t{over / x.per_mk} * x.step_pm);
}

// The state of a speed that seeks a target moves on: it is not rounded, or steps
// smaller than the output resolves would never add up.
std::int32_t seek(const Speed& x, MilliKelvin value, EngineState& s)
{
    std::int32_t& now = s.speed_pm[x.output];
    Millis& at = s.speed_at[x.output];
    if (now < 0) {
        now = x.floor_pm;
        at = s.now_ms;
    } else if (at == not_since) {
        at = s.now_ms;
    } else if (s.now_ms - at >= x.every_ms) {
        now = std::clamp(now + (value > x.at_mk + x.per_mk ? x.step_pm : value < x.at_mk - x.per_mk ? -x.step_pm
                                                                                                    : 0),
            x.floor_pm, x.top_pm);
        at = s.now_ms;
    }
    return in_range(x, now);
}

// Of an output that is on.
std::int32_t speed_of(const Program& p, const Values& v, ChannelBits faults, const Decision& d, std::size_t o, EngineState& s)
{
    std::int32_t speed = full_speed;
    for (const Speed& x : p.speeds) {
        if (x.output != o)
            continue;
        const bool blind = (x.reads & faults) != 0;
        if (blind || s.changed_at[o] == s.now_ms)
            s.speed_pm[o] = -1;
        if (blind || d.priority < Priority::min_off)
            s.speed_at[o] = not_since;
        else
            speed = x.kind == Speed::Kind::difference ? by_difference(x, v[x.plus] - v[x.minus]) : seek(x, v[x.plus] - v[x.minus], s);
    }
    const OutputTimers& t = p.timers[o];
    return s.now_ms - s.changed_at[o] < t.boost_ms ? t.boost_pm : speed;
}

Millis clock_after(Millis clock, Millis ms)
{
    const Millis next = clock + ms;
    return clock < 0 ? clock : next < day_ms ? next
                                             : next % day_ms;
}

// As one number: a comparison of arrays is a call.
bool same_modes(const std::array<Mode, max_outputs>& a, const std::array<Mode, max_outputs>& b)
{
    static_assert(sizeof a == sizeof(std::uint64_t));
    return std::bit_cast<std::uint64_t>(a) == std::bit_cast<std::uint64_t>(b);
}

bool flow_may_cease(const Gate& g, const EngineState& s) { return g.kind == Gate::Kind::flow_guard && s.guards[g.timer].phase == GuardState::Phase::proven; }

// A guard that looks at every reading.
bool watching(const Program& p, const EngineState& s)
{
    return p.guards > 0 && (std::any_of(s.guards.begin(), s.guards.end(), [](const GuardState& g) { return g.phase == GuardState::Phase::watching; }) ||
                               std::any_of(p.gates.begin(), p.gates.end(), [&](const Gate& g) { return flow_may_cease(g, s); }));
}

Decisions one_sample(const Program& p, const Inputs& in, EngineState& s)
{
    s.now_ms += p.sample_ms;
    const LatchBits latched = s.latched, pending = s.pending;
    const std::uint32_t before = s.running;
    const bool moved = update_probes(p, in, s);
    const ChannelBits faults = fault_bits(p, s);
    if (!p.averages.empty())
        update_averages(p, in, s);
    Values v;
    channel_values(p, in, s, v);
    update_latches(p, v, faults, s);
    const bool still = !moved && s.latched == latched && s.pending == pending && in.pressed == 0;
    DecisionCache& cache = s.cache;
    if (still && s.now_ms <= cache.until_ms && same_modes(in.modes, cache.modes) && in.away == cache.away && in.clock_ms == clock_after(cache.clock_ms, p.sample_ms) && in.date == cache.date) {
        cache.clock_ms = in.clock_ms;
        for (const Speed& x : p.speeds)
            if (running(s, x.output))
                cache.decisions[x.output].speed_pm = speed_of(p, v, faults, cache.decisions[x.output], x.output, s);
        return cache.decisions;
    }
    cache.until_ms = long_ago;
    const Bits held = s.conditions;
    s.conditions = conditions(p, in, v, s);
    for (std::size_t o = 0; o < p.outputs; ++o) {
        Millis& on = s.on_since[o];
        if (in.modes[o] != Mode::on)
            on = not_since;
        else if (on == not_since)
            on = s.now_ms;
    }
    Decisions out;
    const Ask ask{p, in, s, faults};
    for (std::size_t o = 0; o < p.outputs; ++o) {
        const Request request = decide(ask, o);
        Decision& d = out[o];
        d = {request.wants_on, request.priority, request.rule, 0};
        if (d.on != running(s, o)) {
            s.running ^= bit32(o);
            s.changed_at[o] = s.now_ms;
            if (!d.on)
                s.stopped_at[o] = s.now_ms;
        }
        if (d.on)
            d.speed_pm = speed_of(p, v, faults, d, o, s);
    }
    if (still && s.running == before && s.conditions == held && !watching(p, s)) {
        const std::int64_t quiet = quiet_samples(p, s, in);
        cache = {quiet >= for_ever ? for_ever : s.now_ms + quiet * p.sample_ms, in.modes, in.away, in.clock_ms, in.date, out};
    }
    return out;
}

struct Span {
    std::int64_t low, high;
};

// Of a channel while the readings keep within the bounds.
Span span_of(const Program& p, const EngineState& s, const ReadingBounds& b, std::size_t channel)
{
    if (channel < max_read)
        return {b.low[channel], b.high[channel]};
    if (channel == zero_channel)
        return {0, 0};
    for (std::size_t i = 0; i < p.averages.size(); ++i)
        if (const Average& a = p.averages[i]; a.to == channel) {
            const std::int64_t now = s.average[i] == not_since ? b.low[a.from] : (s.average[i] + average_unit / 2) >> 10;
            return {std::min<std::int64_t>(b.low[a.from], now), std::max<std::int64_t>(b.high[a.from], now)};
        }
    const MilliKelvin fixed = p.spare[channel - first_spare_channel];
    return {fixed, fixed};
}

Span span_of(const Program& p, const EngineState& s, const ReadingBounds& b, std::size_t plus, std::size_t minus)
{
    const Span x = span_of(p, s, b, plus), y = span_of(p, s, b, minus);
    return {x.low - y.high, x.high - y.low};
}

bool latches_keep(const Program& p, const EngineState& s, ChannelBits faults, const ReadingBounds& b)
{
    for (std::size_t i = 0; i < p.latches.size(); ++i) {
        const Latch& l = p.latches[i];
        if ((p.latch_reads[i] & faults) != 0)
            continue;
        const Span x = span_of(p, s, b, l.plus, l.minus);
        const bool set = (s.latched >> i & 1U) != 0;
        const bool may = set ? x.low <= l.clear_mk : x.high >= l.set_mk;
        const bool must = set ? x.high <= l.clear_mk : x.low >= l.set_mk;
        if (!may)
            continue;
        // Already on its way: the delay's end is a timer, as long as it surely goes on.
        const auto d = std::find_if(p.delays.begin(), p.delays.end(), [i](const Delay& y) { return y.latch == i; });
        if (d == p.delays.end() || s.since[d->timer] == not_since || !must)
            return false;
    }
    // One that was on its way and might cease to be.
    for (const Delay& d : p.delays) {
        const Latch& l = p.latches[d.latch];
        const Span x = span_of(p, s, b, l.plus, l.minus);
        const bool set = (s.latched >> d.latch & 1U) != 0;
        if (s.since[d.timer] != not_since && !(set ? x.high <= l.clear_mk : x.low >= l.set_mk))
            return false;
    }
    return true;
}

bool speeds_keep(const Program& p, const EngineState& s, ChannelBits faults, const ReadingBounds& b)
{
    for (const Speed& x : p.speeds)
        if (x.kind == Speed::Kind::difference && running(s, x.output) && (x.reads & faults) == 0) {
            const Span y = span_of(p, s, b, x.plus, x.minus);
            if (by_difference(x, y.low) != by_difference(x, y.high))
                return false;
        }
    return true;
}

} // namespace

void Inputs::move_clock(Millis by)
{
    if (clock_ms < 0)
        return;
    const Millis total = clock_ms + by, days = (total - (((total % day_ms) + day_ms) % day_ms)) / day_ms;
    clock_ms = total - days * day_ms;
    if (date != no_date)
        date += static_cast<std::int32_t>(days);
}

EngineState power_up(const Program& program)
{
    EngineState s;
    s.now_ms = -program.sample_ms;
    s.valid_since.fill(long_ago);
    s.trusted = (1U << max_read) - 1;
    s.changed_at.fill(long_ago);
    s.stopped_at.fill(0);
    for (std::size_t o = 0; o < max_outputs; ++o)
        s.on_since[o] = program.timers[o].auto_after_power ? long_ago : not_since;
    s.since.assign(program.timers_used, not_since);
    s.average.assign(program.averages.size(), not_since);
    s.speed_pm.fill(-1);
    s.speed_at.fill(not_since);
    for (const Gate& c : program.gates)
        if (c.kind == Gate::Kind::cycle && c.before_ms > 0)
            s.since[c.timer] = -c.before_ms;
    return s;
}

EngineState power_up(const Program& program, const EngineState& before, Millis lost_ms)
{
    EngineState s = power_up(program);
    for (const Gate& c : program.gates)
        if (c.kind == Gate::Kind::cycle && c.outlives_power && before.since[c.timer] != not_since)
            s.since[c.timer] = before.since[c.timer] - before.now_ms - lost_ms;
    return s;
}

Decisions step(const Program& program, const Inputs& in, EngineState& state, std::int64_t n)
{
    if (n <= 1)
        return one_sample(program, in, state);
    Inputs now = in;
    for (;;) {
        now.clock_ms = in.clock_ms;
        now.date = in.date;
        now.move_clock(-(n - 1) * program.sample_ms);
        const Decisions out = one_sample(program, now, state);
        if (--n <= 0)
            return out;
        // Between events nothing moves but the time; an output that changes makes new ones.
        if (!program.averages.empty())
            continue;
        const std::int64_t quiet = std::min(n - 1, quiet_samples(program, state, now));
        if (quiet > 0) {
            now.move_clock(quiet * program.sample_ms);
            state.cache.clock_ms = now.clock_ms;
            state.cache.date = now.date;
            state.now_ms += quiet * program.sample_ms;
            n -= quiet;
        }
    }
}

std::int64_t safe_skip(const Program& program, const EngineState& state, const Inputs& last, const ReadingBounds& bounds)
{
    for (std::size_t i = 0; i < max_read; ++i)
        if ((program.used >> i & 1U) != 0 && (state.valid_since[i] == not_since) != ((bounds.invalid >> i & 1U) != 0))
            return 0;
    const ChannelBits faults = fault_bits(program, state);
    if (!latches_keep(program, state, faults, bounds) || !speeds_keep(program, state, faults, bounds))
        return 0;
    std::int64_t quiet = quiet_samples(program, state, last);
    for (const Gate& g : program.gates)
        if (flow_may_cease(g, state)) // at the very next sample
            quiet = std::min(quiet, g.wait_ms / program.sample_ms);
    return quiet;
}

ChannelBits faults(const Program& program, const EngineState& state) { return fault_bits(program, state); }
bool faulted(const Program& program, const EngineState& state, std::size_t channel) { return (fault_bits(program, state) >> channel & 1U) != 0; }

} // namespace vernal
