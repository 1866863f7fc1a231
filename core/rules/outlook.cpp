#include "outlook.h"

#include "engine_parts.h"
#include "gates/all.h"

#include <algorithm>

namespace vernal {
namespace {

using namespace parts;

Request first_request(const Program& p, const Inputs& in, const EngineState& s, std::size_t output) { return decide({p, in, s, fault_bits(p, s)}, output); }

// What its value has to move by for a latch to change.
Margin margin_of(const Program& p, const Values& v, const EngineState& s, std::size_t latch)
{
    const Latch& l = p.latches[latch];
    const std::int64_t x = std::int64_t{v[l.plus]} - v[l.minus];
    const bool set = (s.latched >> latch & 1U) != 0;
    return {l.plus, l.minus, set ? x - l.clear_mk : l.set_mk - x, !set, l.rule};
}

struct Search {
    const Program& p;
    const Inputs& in;
    const EngineState& s;
    Values v;
    std::vector<Missing> out;

    void bit_missing(std::size_t b, bool must_end)
    {
        if (b < p.latches.size()) {
            out.push_back({margin_of(p, v, s, b), -1, {must_end}, p.latches[b].rule});
            return;
        }
        for (std::size_t i = 0; i < p.gates.size(); ++i)
            if (const Gate& g = p.gates[i]; g.bit == b) {
                const Unmet u = with_kind(g.kind, [&](auto kind) { return kind.unmet(g, {p, s, in}, must_end); });
                u.look_inside ? expression(g.when) : out.push_back({{}, static_cast<int>(i), u, g.rule});
            }
    }

    void expression(const Expr& e)
    {
        const Bits& b = s.conditions;
        for (std::size_t i = 0; i < max_conditions; ++i) {
            if (e.all.has(i) && !b.has(i))
                bit_missing(i, false);
            if (e.none.has(i) && b.has(i))
                bit_missing(i, true);
        }
        if (Expr{e.any, {}, {}}.holds(b))
            return;
        // Any one of them would do: the nearest reading is named, else the first.
        std::vector<Missing> best;
        for (std::size_t i = 0; i < max_conditions; ++i)
            if (e.any.has(i)) {
                Search one{p, in, s, v, {}};
                one.bit_missing(i, false);
                const bool nearer = best.empty() || (one.out.size() == 1 && best.size() == 1 && one.out[0].reading() && best[0].reading() && one.out[0].margin.amount < best[0].margin.amount);
                if (nearer)
                    best = one.out;
            }
        out.insert(out.end(), best.begin(), best.end());
    }
};

} // namespace

std::vector<Request> requests(const Program& program, const Inputs& in, const EngineState& after, std::size_t output)
{
    std::vector<Request> out;
    ask_all({program, in, after, fault_bits(program, after)}, output, [&](const Request& v) {
        out.push_back(v);
        return true;
    });
    if (out.size() > 1)
        out.pop_back(); // "no demand" is said only when nothing else is
    return out;
}

std::vector<Margin> margins(const Program& program, const Inputs& in, const EngineState& after, std::size_t output)
{
    std::vector<Margin> out;
    const bool now = first_request(program, in, after, output).wants_on;
    const ChannelBits faults = fault_bits(program, after);
    Values v;
    channel_values(program, in, after, v);
    for (std::size_t i = 0; i < program.latches.size(); ++i) {
        if ((program.latch_reads[i] & faults) != 0)
            continue;
        EngineState other = after;
        other.latched ^= bit64(i);
        other.conditions = conditions(program, in, v, other);
        if (first_request(program, in, other, output).wants_on != now)
            out.push_back(margin_of(program, v, after, i));
    }
    std::stable_sort(out.begin(), out.end(), [](const Margin& a, const Margin& b) { return a.amount < b.amount; });
    return out;
}

std::optional<Millis> until_change(const Program& program, const Inputs& in, const EngineState& after, std::size_t output)
{
    constexpr int few_events = 400, samples_ahead = 4000;
    const int most_events = program.averages.empty() ? few_events : samples_ahead;
    EngineState s = after;
    Inputs later = in;
    later.pressed = 0;
    const bool now = first_request(program, in, after, output).wants_on;
    for (int i = 0; i < most_events; ++i) {
        const std::int64_t quiet = program.averages.empty() ? quiet_samples(program, s, later) : 0; // an average goes on moving
        if (quiet >= for_ever || s.now_ms + (quiet + 1) * program.sample_ms - after.now_ms > day_ms)
            return {};
        later.move_clock((quiet + 1) * program.sample_ms);
        if (step(program, later, s, quiet + 1)[output].on != now)
            return s.now_ms - after.now_ms;
    }
    return {};
}

std::vector<WhyNot> why_not(const Program& program, const Inputs& in, const EngineState& after, std::size_t output)
{
    std::vector<WhyNot> out;
    for (const Clause& clause : program.clauses) {
        if (clause.output != output || !clause.wants_on || clause.priority < Priority::collect)
            continue;
        Search search{program, in, after, {}, {}};
        channel_values(program, in, after, search.v);
        search.expression(clause.when);
        out.push_back({clause.rule, search.out});
    }
    return out;
}

} // namespace vernal
