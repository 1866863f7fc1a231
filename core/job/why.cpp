#include "why.h"

namespace vernal {
namespace {

bool of_rule(std::int16_t rule, const RuleSet& unit) { return rule >= 0 && static_cast<std::size_t>(rule) < unit.rules.size(); }

// What the margin's condition has to do.
std::string condition(const RuleSet& unit, const Decision& d, const Units& units)
{
    const Margin& m = d.margin;
    if (m.unit == MarginUnit::milliseconds)
        return "in " + to_text(static_cast<double>(m.amount) / 1000.0, Quantity::duration, units);
    const std::string amount = to_text(static_cast<double>(m.amount) / 1000.0, Quantity::difference, units);
    if (!of_rule(m.rule, unit))
        return "after " + amount + " more";
    const Rule& r = unit.rules[static_cast<std::size_t>(m.rule)];
    const bool difference = std::holds_alternative<Differential>(r.body);
    const bool asks = difference || std::holds_alternative<Divert>(r.body); // the others block
    const bool falling = asks ? d.on : !d.on;
    return std::string(difference ? "when the difference " : "when the limited probe ") + (falling ? "falls by " : "rises by ") + amount;
}

} // namespace

std::string decider_name(const RuleSet& unit, Tier tier, std::int16_t rule)
{
    if (of_rule(rule, unit) && tier != Tier::min_run && tier != Tier::min_off)
        return kind_of(unit.rules[static_cast<std::size_t>(rule)]).title;
    switch (tier) {
    case Tier::off_switch: return "the switch on OFF";
    case Tier::on_switch: return "the switch on ON";
    case Tier::fault: return "a probe fault";
    case Tier::min_off: return "the least rest";
    case Tier::min_run: return "the least run";
    default: return "nothing asks";
    }
}

std::string decider_key(const RuleSet& unit, Tier tier, std::int16_t rule)
{
    if (of_rule(rule, unit) && tier != Tier::min_run && tier != Tier::min_off)
        return kind_of(unit.rules[static_cast<std::size_t>(rule)]).key;
    switch (tier) {
    case Tier::off_switch: return "off_switch";
    case Tier::on_switch: return "on_switch";
    case Tier::fault: return "fault";
    case Tier::min_off: return "min_off";
    case Tier::min_run: return "min_run";
    default: return "nothing";
    }
}

WhyText why(const RuleSet& unit, const Program& program, const Inputs& in, const EngineState& after, const Decision& d, std::size_t output, const Units& units)
{
    WhyText w;
    const std::string key = unit.outputs[output].key;
    const std::string name = decider_name(unit, d.tier, d.rule);
    w.headline = key + (d.on ? " runs: " : " rests: ") + name + (d.tier == Tier::nothing ? "." : d.on ? " holds it on." : " holds it off.");
    if (d.margin.unit != MarginUnit::none) {
        const bool blocked = !d.on && d.tier != Tier::nothing;
        w.margin = std::string(d.on ? "Stops " : blocked ? "Free again " : "Starts ") + condition(unit, d, units) + ".";
    }
    const auto all = voices(program, in, after, output);
    for (std::size_t i = 1; i < all.size(); ++i)
        w.overruled.push_back(decider_name(unit, all[i].tier, all[i].rule) + (all[i].wants_on ? " asks for on" : " asks for off"));
    return w;
}

} // namespace vernal
