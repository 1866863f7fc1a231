// What a person is to do, of a procedure whose unit is not on the rig.
#include "procedure_run.h"

#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

std::string list_of(const std::vector<std::string>& keys)
{
    std::string out;
    for (std::size_t i = 0; i < keys.size(); ++i)
        out += (i == 0 ? "" : i + 1 == keys.size() ? " and "
                                                   : ", ") +
               keys[i];
    return out;
}

std::string plain(double x)
{
    char b[32];
    std::snprintf(b, sizeof b, "%g", std::round(x * 100) / 100);
    return b;
}

std::string volts(double v) { return std::isfinite(v) ? to_text(v, Quantity::voltage, {}) : std::string("what is asked"); }

} // namespace

std::string ProcedureRun::act_text(const Line& l, const Units& units) const
{
    std::vector<std::string> probe_keys, output_keys;
    for (const std::size_t p : probes(l.which))
        probe_keys.push_back(written_.probes[p].key);
    for (const std::size_t o : outputs(l.which))
        output_keys.push_back(written_.unit.outputs[o].key);
    const std::string at = list_of(probe_keys), of = list_of(output_keys);
    const double to = level(l.level);
    const auto warm = [&](double c) { return to_text(c, Quantity::temperature, units); };
    switch (l.verb) {
    case Act::put: {
        constexpr std::array where{"back to where it belongs in the loop", "into the bench's air", "into a hand", "into ice water", "into the cup", "into the dry block", ""};
        if (l.medium == Medium::resistor) {
            const auto of_line = probes(l.which);
            const double ohm = of_line.empty() ? NAN : signal_beyond(written_.probes[of_line.front()].curve, to);
            return "In place of " + at + " a resistor" + (std::isfinite(ohm) ? " of " + to_text(ohm, Quantity::resistance, {}) : "") + ", as at " + warm(to) + ".";
        }
        return "Put " + at + " " + where[static_cast<std::size_t>(l.medium)] + ".";
    }
    case Act::block: return "Set the dry block to " + warm(to) + (l.rate_per_min > 0 ? ", slowly: " + to_text(l.rate_per_min, Quantity::small_difference, units) + " a minute." : ".");
    case Act::cup: return "Pour the cup anew, at " + warm(to) + ".";
    case Act::lead: {
        constexpr std::array how{"Join the lead of %s as it was.", "Open the lead of %s.", "Short the lead of %s.", "Wet the lead of %s."};
        std::string out = how[static_cast<std::size_t>(l.lead)];
        return out.replace(out.find("%s"), 2, at);
    }
    case Act::turn: return "Turn the switch of " + of + " to " + (l.mode == Mode::on ? "ON." : l.mode == Mode::off ? "OFF."
                                                                                                                   : "AUTO.");
    case Act::supply:
        if (l.as_it_stands)
            return "Give the unit its own supply again.";
        return (l.lower ? "Lower its supply by " : "Bring its supply to ") + volts(to) + (l.rate_per_min > 0 ? ", slowly: " + plain(l.rate_per_min) + " V a minute." : ".");
    case Act::knob: return "Turn the knob to mark " + plain(to) + ".";
    case Act::shade: return (l.taken_away ? "Take the board away from " : "Hold a board over ") + at + ".";
    default: return {};
    }
}

} // namespace vernal
