#include "threads.h"

#include <algorithm>

namespace vernal {
namespace {

// Rules that say anything about the output in the program, by what they became there.
std::vector<bool> concerned(const RuleSet& unit, const Program& p, std::size_t output)
{
    std::vector<bool> out(unit.rules.size());
    const auto mark = [&](std::int16_t rule) {
        if (rule >= 0 && static_cast<std::size_t>(rule) < out.size())
            out[static_cast<std::size_t>(rule)] = true;
    };
    for (const Clause& c : p.clauses)
        if (c.output == output)
            mark(c.rule);
    for (const Speed& s : p.speeds)
        if (s.output == output)
            mark(s.rule);
    for (const Gate& g : p.gates)
        if (g.output == static_cast<int>(output))
            mark(g.rule);
    mark(p.timers[output].timer_rule);
    for (std::size_t i = 0; i < out.size(); ++i) {
        Rule copy = unit.rules[i];
        out[i] = out[i] || copy.output == unit.outputs[output].key;
        for (const KeyOf& k : keys_of(copy))
            if (k.of == KeyOf::Of::output && *k.key == unit.outputs[output].key)
                out[i] = true;
    }
    return out;
}

// The rule whose speed the output now has; −1: it runs full, or rests.
std::int16_t speed_rule(const Program& p, const EngineState& after, const Decision& d, std::size_t output)
{
    const OutputTimers& t = p.timers[output];
    if (!d.on || d.priority < Priority::min_off || after.now_ms - after.changed_at[output] < t.boost_ms)
        return -1;
    std::int16_t found = -1;
    const ChannelBits bad = faults(p, after);
    for (const Speed& s : p.speeds)
        if (s.output == output && (s.reads & bad) == 0)
            found = s.rule;
    return found;
}

} // namespace

std::vector<Knot> knots(const RuleSet& unit, const Program& p, const std::vector<OutOfAction>& idle, const Inputs& in, const EngineState& after, const Decision& d, std::size_t output)
{
    std::vector<Knot> out(unit.rules.size(), Knot::none);
    if (output >= unit.outputs.size())
        return out;
    const std::vector<bool> of_output = concerned(unit, p, output);
    for (std::size_t i = 0; i < out.size(); ++i)
        if (of_output[i])
            out[i] = !unit.rules[i].enabled || std::any_of(idle.begin(), idle.end(), [&](const OutOfAction& o) { return o.rule == i; }) ? Knot::out : Knot::silent;
    const auto raise = [&](std::int16_t rule, Knot to) {
        if (rule >= 0 && static_cast<std::size_t>(rule) < out.size())
            out[static_cast<std::size_t>(rule)] = std::max(out[static_cast<std::size_t>(rule)], to);
    };
    for (const Request& r : requests(p, in, after, output))
        raise(r.rule, Knot::asks);
    raise(speed_rule(p, after, d, output), Knot::speed);
    raise(d.rule, Knot::decides);
    return out;
}

const char* knot_text(Knot k)
{
    static constexpr const char* texts[] = {"", "out of action", "silent", "asks, and a higher one decides", "sets the speed", "decides"};
    return texts[static_cast<std::size_t>(k)];
}

const char* rank_name(Priority p)
{
    switch (p) {
    case Priority::hold: return "hold";
    case Priority::cut_out: return "cut-out";
    case Priority::freeze: return "freeze";
    case Priority::dump: return "dump";
    case Priority::limit: return "limit";
    case Priority::min_off:
    case Priority::min_run: return "times";
    case Priority::collect: return "collect";
    case Priority::heat: return "heat";
    default: return "";
    }
}

} // namespace vernal
