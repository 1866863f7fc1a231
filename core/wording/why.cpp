#include "why.h"

#include "core/rules/gates/all.h"
#include "sentence.h"

#include <cmath>

namespace vernal {
namespace {

constexpr std::size_t most_margins = 3; // in one sentence

bool of_rule(std::int16_t rule, const RuleSet& unit) { return rule >= 0 && static_cast<std::size_t>(rule) < unit.rules.size(); }

// Margins, conditions and blocks of one output in words.
struct Words {
    const Variant& v;
    const Program& p;
    const Units& units;

    // The probe whose average this is; else the channel itself.
    std::size_t averaged(std::size_t c) const
    {
        for (const Average& a : p.averages)
            if (a.to == c)
                return a.from;
        return c;
    }
    Reads reads_of(std::size_t c) const { return averaged(c) < v.probes.size() ? reads_at(v.probes[averaged(c)].place) : Reads::temperature; }
    double inside(std::size_t c, double thousandths) const { return thousandths / 1000.0 * inside_per_reading(reads_of(c)); }
    // "the tank top"; names that are more than a word in capitals begin small.
    std::string channel(std::size_t c) const
    {
        c = averaged(c);
        if (c == supply_channel)
            return "the supply";
        if (c >= v.probes.size())
            return "the fixed value";
        return "the " + within_sentence(v.probes[c].name);
    }

    // "the collector rises by 1.4 K against the tank bottom"
    std::string movement(const Margin& m, bool wished) const
    {
        const bool lower = m.plus == zero_channel; // looks at the reading with its sign turned
        const std::size_t what = lower ? m.minus : m.plus;
        const bool rising = m.rising != lower;
        const Reads reads = reads_of(what);
        const Quantity quantity = what == supply_channel ? Quantity::voltage : reads == Reads::temperature ? Quantity::difference
                                                                                                           : quantity_of(reads);
        const std::string amount = to_text(inside(what, static_cast<double>(m.amount)), quantity, units);
        std::string s = channel(what) + (rising ? (wished ? " rose by " : " rises by ") : (wished ? " fell by " : " falls by ")) + amount;
        if (!lower && m.minus != zero_channel)
            s += " against " + channel(m.minus);
        return s;
    }
    std::string lasting(Millis ms) const
    {
        const double s = static_cast<double>(ms) / 1000.0;
        const double hours = std::round(s / 360) / 10;
        return s < 120 ? to_text(s, Quantity::duration, units) : s < 7200 ? to_text(std::round(s / 60) * 60, Quantity::minutes, units)
                                                             : hours < 48 ? to_text(hours, Quantity::hours, units)
                                                                          : to_text(hours / 24, Quantity::days, units);
    }
    // "The collector reads 40.2 °C and is trusted again in 7 s. "
    std::string distrusted(const Inputs& in, const EngineState& after, std::size_t output) const
    {
        std::string s;
        const ChannelBits bad = faults(p, after) & (p.timers[output].fault_off | p.timers[output].fault_on);
        for (std::size_t c = 0; c < max_read; ++c) {
            if ((bad >> c & 1U) == 0)
                continue;
            std::string name = channel(c);
            name[0] = 'T';
            const Reading& r = in.readings[c];
            s += r.valid ? name + " reads " + to_text(inside(c, r.mk), c == supply_channel ? Quantity::voltage : quantity_of(reads_of(c)), units) + " and is trusted again in " + lasting(after.valid_since[c] + p.fault_return_ms - after.now_ms) + ". " : name + " has no valid reading. ";
        }
        return s;
    }
    std::string missing(const Missing& m) const
    {
        const std::string title = of_rule(m.rule, v.unit) ? kind_of(v.unit.rules[static_cast<std::size_t>(m.rule)]).title : "a rule";
        if (m.reading())
            return m.margin.amount > 0 ? movement(m.margin, true) : title + " had stood long enough";
        const Gate& g = p.gates[static_cast<std::size_t>(m.gate)];
        const GateWords names{title, g.output >= 0 ? v.unit.outputs[static_cast<std::size_t>(g.output)].key : "", [](Millis ms, const void* words) { return static_cast<const Words*>(words)->lasting(ms); }, this};
        return with_kind(g.kind, [&](auto kind) { return kind.words(g, m.unmet, names); });
    }
};

std::string joined(const std::vector<std::string>& parts, const char* last)
{
    std::string s;
    for (std::size_t i = 0; i < parts.size(); ++i)
        s += (i == 0 ? "" : i + 1 == parts.size() ? std::string(last)
                                                  : std::string(", ")) +
             parts[i];
    return s;
}

// What lets go of an output that a rule holds: its set latches.
std::string release(const Words& words, const Inputs& in, const EngineState& after, std::int16_t rule)
{
    for (std::size_t i = 0; i < words.p.latches.size(); ++i) {
        const Latch& l = words.p.latches[i];
        if (l.rule != rule || (after.latched >> i & 1U) == 0)
            continue;
        const auto value = [&](std::size_t c) -> std::int64_t { return c < max_read ? in.readings[c].mk : c >= first_spare_channel ? words.p.spare[c - first_spare_channel]
                                                                                                                                   : 0; };
        return "when " + words.movement({l.plus, l.minus, value(l.plus) - value(l.minus) - l.clear_mk, false, rule}, false);
    }
    return "";
}

} // namespace

std::string decider_name(const RuleSet& unit, Priority priority, std::int16_t rule)
{
    if (of_rule(rule, unit) && !(priority == Priority::min_run && std::holds_alternative<RunTimes>(unit.rules[static_cast<std::size_t>(rule)].body)) && priority != Priority::min_off)
        return kind_of(unit.rules[static_cast<std::size_t>(rule)]).title;
    switch (priority) {
    case Priority::bypass: return "the service bypass";
    case Priority::off_switch: return "the switch on OFF";
    case Priority::on_switch: return "the switch on ON";
    case Priority::hold: return "the wait after power returned";
    case Priority::fault: return "a probe fault";
    case Priority::min_off: return "the minimum off time";
    case Priority::min_run: return "the minimum run time";
    default: return "no demand";
    }
}

std::string decider_key(const RuleSet& unit, Priority priority, std::int16_t rule)
{
    if (of_rule(rule, unit) && priority != Priority::min_run && priority != Priority::min_off)
        return kind_of(unit.rules[static_cast<std::size_t>(rule)]).key;
    switch (priority) {
    case Priority::bypass: return "bypass";
    case Priority::off_switch: return "off_switch";
    case Priority::on_switch: return "on_switch";
    case Priority::hold: return "power_wait";
    case Priority::fault: return "fault";
    case Priority::min_off: return "min_off";
    case Priority::min_run: return "min_run";
    default: return "nothing";
    }
}

std::string rule_id(const RuleSet& unit, std::int16_t rule) { return of_rule(rule, unit) ? unit.rules[static_cast<std::size_t>(rule)].id : ""; }

std::string out_of_action_text(const RuleSet& unit, const OutOfAction& o) { return std::string(kind_of(unit.rules[o.rule]).title) + " for " + unit.rules[o.rule].output + ": " + o.reason; }

std::vector<std::string> replay_notes(const Variant& v, const ReplayResult& r)
{
    std::vector<std::string> out;
    const auto counted = [](std::int64_t n, const char* one, const char* many) { return std::to_string(n) + (n == 1 ? one : many); };
    out.push_back(r.interval_s > 0 ? "A row every " + to_text(r.interval_s, Quantity::duration, {}) + "; the unit samples as often here" : "A single row");
    std::int64_t held = 0, invalid = 0;
    for (const LogGap& g : r.gaps) {
        held += g.held();
        invalid += g.lacking - g.held();
    }
    if (!r.gaps.empty())
        out.push_back(counted(static_cast<std::int64_t>(r.gaps.size()), " gap", " gaps") + ": " + counted(held, " lacking sample", " lacking samples") + " held, " + std::to_string(invalid) + " taken as invalid");
    for (std::size_t p = 0; p < r.columns.size(); ++p)
        if (const ProbeColumnUse& c = r.columns[p]; c.held + c.invalid > 0)
            out.push_back(v.probes[p].key + " " + v.probes[p].name + ": held in " + counted(static_cast<std::int64_t>(c.held), " row", " rows") + ", without a valid reading in " + std::to_string(c.invalid));
    return out;
}

WhyText why(const Variant& variant, const Program& program, const Inputs& in, const EngineState& after, const Decision& d, std::size_t output, const Units& units)
{
    const RuleSet& unit = variant.unit;
    const Words words{variant, program, units};
    WhyText w;
    const std::string key = unit.outputs[output].key;
    const std::string name = decider_name(unit, d.priority, d.rule);
    const std::string speed = d.on && d.speed_pm < full_speed ? " at " + to_text(d.speed_pm / 1000.0, Quantity::ratio, units) + " of full speed" : "";
    w.headline = key + (d.on ? " runs" + speed + ": " : " rests: ") + name + (d.priority == Priority::nothing ? "." : d.on ? " holds it on."
                                                                                                                           : " holds it off.");

    if (d.priority == Priority::fault)
        w.margin = words.distrusted(in, after, output);
    std::vector<std::string> ways;
    for (const Margin& m : margins(program, in, after, output))
        if (m.amount > 0 && ways.size() < most_margins)
            ways.push_back("when " + words.movement(m, false));
    if (const auto left = until_change(program, in, after, output))
        ways.push_back("in " + words.lasting(*left) + " by itself");
    if (!ways.empty())
        w.margin += std::string(d.on ? "Stops " : "Starts ") + joined(ways, ", or ") + ".";
    else if (const std::string free = d.on || d.rule < 0 ? "" : release(words, in, after, d.rule); !free.empty())
        w.margin += "Free again " + free + ".";

    const auto all = requests(program, in, after, output);
    for (std::size_t i = 1; i < all.size(); ++i)
        w.overruled.push_back(decider_name(unit, all[i].priority, all[i].rule) + (all[i].wants_on ? " asks for on" : " asks for off"));
    if (d.on)
        return w;
    std::vector<std::string> blocks;
    for (const Request& v : all)
        if (!v.wants_on && v.priority != Priority::nothing)
            blocks.push_back(decider_name(unit, v.priority, v.rule) + " let go");
    for (const WhyNot& n : why_not(program, in, after, output)) {
        std::vector<std::string> needs = blocks;
        for (const Missing& m : n.missing)
            needs.push_back(words.missing(m));
        const std::string title = of_rule(n.rule, unit) ? kind_of(unit.rules[static_cast<std::size_t>(n.rule)]).title : "A rule";
        if (!needs.empty())
            w.why_not.push_back(title + " would run it if " + joined(needs, " and ") + ".");
    }
    return w;
}

} // namespace vernal
