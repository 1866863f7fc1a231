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
    for (const Average& a : p.averages)
        v[a.to] = static_cast<MilliKelvin>((s.average[a.to] + average_unit / 2) >> 10);
}

std::uint32_t fault_bits(const Program& p, const EngineState& s)
{
    return p.used & ~s.trusted;
}

Bits conditions(const Program& p, const Inputs& in, const Values& v, EngineState& s)
{
    GateSample sample{in, v, s.latched, s};
    for (const Gate& g : p.gates)
        sample.bits |= with_kind(g.kind, [&](auto kind) { return kind.holds(g, sample); }) ? bit(g.bit) : 0;
    return sample.bits;
}

} // namespace parts

namespace {

using namespace parts;

// Readings that come back are valid for 0 at their first valid sample. True: some changed.
bool update_probes(const Program& p, const Inputs& in, EngineState& s)
{
    bool moved = false;
    for (std::uint32_t left = p.used; left != 0; left &= left - 1) {
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
    for (const Average& a : p.averages) {
        const std::int64_t x = std::int64_t{in.readings[a.from].mk} * average_unit;
        std::int64_t& y = s.average[a.to];
        if (!in.readings[a.from].valid)
            y = not_since;
        else
            y = y == not_since ? x : y + (x - y) * p.sample_ms / (a.over_ms + p.sample_ms);
    }
}

void update_latches(const Program& p, const Values& v, std::uint32_t faults, EngineState& s)
{
    std::uint32_t latched = s.latched;
    std::uint32_t one = 1;
    for (const Latch& l : p.latches) {
        const MilliKelvin x = v[l.plus] - v[l.minus];
        latched |= x >= l.set_mk ? one : 0U;
        latched &= ~(x <= l.clear_mk ? one : 0U);
        one <<= 1;
    }
    if (faults != 0)
        for (std::size_t i = 0; i < p.latches.size(); ++i)
            if ((p.latch_reads[i] & faults) != 0)
                latched &= ~bit32(i);
    // Nothing on its way, and nothing that would have to wait.
    if (s.pending == 0 && ((latched ^ s.latched) & p.delayed) == 0) {
        s.latched = latched;
        return;
    }
    for (const Delay& d : p.delays) {
        Millis& since = s.since[d.timer];
        const std::uint32_t its = bit32(d.latch);
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

// Of an output that is on; the state of a speed that seeks a target moves on.
std::int32_t speed_of(const Program& p, const Values& v, const Decision& d, std::size_t o, EngineState& s)
{
    std::int32_t speed = full_speed;
    if (d.priority >= Priority::min_off)
        for (const Speed& x : p.speeds) {
            if (x.output != o)
                continue;
            const MilliKelvin value = v[x.plus] - v[x.minus];
            if (x.kind == Speed::Kind::difference) {
                speed = by_difference(x, value);
                continue;
            }
            std::int32_t& now = s.speed_pm[o];
            if (s.changed_at[o] == s.now_ms) {
                now = x.floor_pm;
                s.speed_at[o] = s.now_ms;
            } else if (s.now_ms - s.speed_at[o] >= x.every_ms) {
                now = in_range(x, now + (value > x.at_mk + x.per_mk ? x.step_pm : value < x.at_mk - x.per_mk ? -x.step_pm
                                                                                                             : 0));
                s.speed_at[o] = s.now_ms;
            }
            speed = in_range(x, now);
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

// A guard that looks at every reading.
bool watching(const Program& p, const EngineState& s)
{
    return p.guards > 0 && std::any_of(s.guards.begin(), s.guards.end(), [](const GuardState& g) { return g.phase == GuardState::Phase::watching; });
}

Decisions one_sample(const Program& p, const Inputs& in, EngineState& s)
{
    s.now_ms += p.sample_ms;
    const std::uint32_t latched = s.latched, pending = s.pending, before = s.running;
    const bool moved = update_probes(p, in, s);
    const std::uint32_t faults = fault_bits(p, s);
    if (!p.averages.empty())
        update_averages(p, in, s);
    Values v;
    channel_values(p, in, s, v);
    update_latches(p, v, faults, s);
    const bool still = !moved && s.latched == latched && s.pending == pending && in.pressed == 0;
    DecisionCache& cache = s.cache;
    if (still && s.now_ms <= cache.until_ms && in.modes == cache.modes && in.away == cache.away && in.clock_ms == clock_after(cache.clock_ms, p.sample_ms) && in.date == cache.date) {
        cache.clock_ms = in.clock_ms;
        for (const Speed& x : p.speeds)
            if (running(s, x.output))
                cache.decisions[x.output].speed_pm = speed_of(p, v, cache.decisions[x.output], x.output, s);
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
    const Ask ask{p, in, s, faults, requesting(p, s.conditions)};
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
            d.speed_pm = speed_of(p, v, d, o, s);
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
    for (const Average& a : p.averages)
        if (a.to == channel) {
            const std::int64_t now = s.average[channel] == not_since ? b.low[a.from] : (s.average[channel] + average_unit / 2) >> 10;
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

bool latches_keep(const Program& p, const EngineState& s, std::uint32_t faults, const ReadingBounds& b)
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

bool speeds_keep(const Program& p, const EngineState& s, const ReadingBounds& b)
{
    for (const Speed& x : p.speeds)
        if (x.kind == Speed::Kind::difference && running(s, x.output)) {
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
    s.since.fill(not_since);
    s.average.fill(not_since);
    s.speed_at.fill(long_ago);
    for (const Gate& c : program.gates)
        if (c.kind == Gate::Kind::cycle && c.before_ms > 0)
            s.since[c.timer] = -c.before_ms;
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
    if (!latches_keep(program, state, fault_bits(program, state), bounds) || !speeds_keep(program, state, bounds))
        return 0;
    return quiet_samples(program, state, last);
}

bool faulted(const Program& program, const EngineState& state, std::size_t channel) { return (fault_bits(program, state) >> channel & 1U) != 0; }

} // namespace vernal
