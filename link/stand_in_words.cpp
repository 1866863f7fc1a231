// What is typed on the stand-in's standard input.
#include "stand_in_server.h"

#include "core/bench/bench_faults.h"
#include "core/units/exact_text.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <sstream>

namespace vernal {
namespace {

struct Word {
    const char* name;
    const char* use;
    Obeyed (*obey)(StandIn&, StandInServer&, const std::vector<std::string>&);
};

std::optional<double> number(const std::vector<std::string>& words, std::size_t at)
{
    double x = 0;
    if (at >= words.size())
        return {};
    const std::string& w = words[at];
    const auto [end, failed] = std::from_chars(w.data(), w.data() + w.size(), x);
    return failed == std::errc() && end == w.data() + w.size() && std::isfinite(x) ? std::optional(x) : std::nullopt;
}

Obeyed done(const Result<std::monostate>& r) { return {r ? "done" : r.error().text(), false, {}}; }

std::string rounded(double x)
{
    constexpr double tenths = 10;
    return exact_text(std::round(x * tenths) / tenths);
}

Obeyed show(StandIn& unit, StandInServer& server, const std::vector<std::string>&)
{
    Rig& rig = unit.rig();
    const auto& s = rig.simulation();
    std::string out = clock_text(s.time_of_day_s());
    for (std::size_t p = 0; p < rig.probes(); ++p)
        out += ", " + unit.variant().probes[p].key + " " + (rig.reading(p).valid ? rounded(rig.reading(p).mk / 1000.0) : "none");
    for (std::size_t o = 0; o < rig.outputs(); ++o)
        out += ", " + unit.variant().unit.outputs[o].key + (rig.live(o) ? " on" : " off");
    return {out + ", answers " + std::to_string(server.answered()) + ", " + manner_keys[static_cast<std::size_t>(server.manners().how)], false, {}};
}

Obeyed fault(StandIn& unit, StandInServer&, const std::vector<std::string>& words)
{
    if (words.size() == 2)
        return done(unit.put_fault(words[1]));
    std::string all = "none";
    for (const BenchFault& f : bench_faults(unit.variant()))
        all += "\n" + f.key + ": " + f.name;
    return {all, false, {}};
}

Obeyed set(StandIn& unit, StandInServer&, const std::vector<std::string>& words)
{
    constexpr std::size_t least = 3;
    if (words.size() < least)
        return {"set PATH VALUE, such as set output/P1/mode ON", false, {}};
    std::string value = words[2];
    for (std::size_t i = least; i < words.size(); ++i)
        value += " " + words[i];
    return done(unit.set(words[1], value));
}

Obeyed put(StandIn& unit, StandInServer&, const std::vector<std::string>& words)
{
    Rig& rig = unit.rig();
    for (std::size_t p = 0; words.size() >= 3 && p < rig.probes(); ++p) {
        const auto medium = std::find(medium_keys.begin(), medium_keys.end(), words[2]);
        if (unit.variant().probes[p].key != words[1] || medium == medium_keys.end())
            continue;
        const auto m = static_cast<Medium>(medium - medium_keys.begin());
        const auto x = number(words, 3);
        if (m == Medium::resistor && !(x && *x > 0))
            return {"of how many ohms? put " + words[1] + " resistor OHM", false, {}};
        if (m == Medium::block && x)
            rig.set_block(*x);
        if (m == Medium::cup && x)
            rig.pour(*x);
        m == Medium::resistor ? rig.put_resistor(p, *x) : rig.put(p, m);
        return {"done", false, {}};
    }
    std::string all;
    for (const char* k : medium_keys)
        all += " " + std::string(k);
    return {"put PROBE MEDIUM [°C or ohm], the medium one of" + all, false, {}};
}

Obeyed lead(StandIn& unit, StandInServer&, const std::vector<std::string>& words)
{
    for (std::size_t p = 0; words.size() == 3 && p < unit.rig().probes(); ++p)
        if (const auto l = std::find(lead_keys.begin(), lead_keys.end(), words[2]); unit.variant().probes[p].key == words[1] && l != lead_keys.end()) {
            unit.rig().set_lead(p, static_cast<LeadState>(l - lead_keys.begin()));
            return {"done", false, {}};
        }
    return {"lead PROBE sound|broken|shorted|wet", false, {}};
}

Obeyed supply(StandIn& unit, StandInServer&, const std::vector<std::string>& words)
{
    const auto v = number(words, 1);
    if (v ? *v < 0 : words.size() != 2 || words[1] != "as-it-stands")
        return {"supply VOLT|as-it-stands", false, {}};
    unit.rig().set_supply(v);
    return {"done", false, {}};
}

Obeyed power(StandIn& unit, StandInServer&, const std::vector<std::string>& words)
{
    if (words.size() != 2 || (words[1] != "on" && words[1] != "off"))
        return {"power on|off", false, {}};
    unit.rig().set_powered(words[1] == "on");
    return {"done", false, {}};
}

Obeyed speed(StandIn&, StandInServer&, const std::vector<std::string>& words)
{
    constexpr double most = 3600;
    const auto x = number(words, 1);
    return x && *x >= 0 && *x <= most ? Obeyed{"done", false, x} : Obeyed{"speed TIMES, 0 to 3600", false, {}};
}

Obeyed quit(StandIn&, StandInServer&, const std::vector<std::string>&) { return {"leaves", true, {}}; }

constexpr std::array known{
    Word{"show", "show: hour, readings, outputs, how it answers", show},
    Word{"fault", "fault [KEY]: puts it into the unit, which begins anew; without a key, which there are", fault},
    Word{"set", "set PATH VALUE: a setting, as somebody at its keys would", set},
    Word{"put", "put PROBE MEDIUM [°C or ohm]: where its tip is", put},
    Word{"lead", "lead PROBE sound|broken|shorted|wet", lead},
    Word{"supply", "supply VOLT|as-it-stands", supply},
    Word{"power", "power on|off", power},
    Word{"speed", "speed TIMES the clock", speed},
    Word{"quit", "quit", quit}};

Obeyed manner(StandInServer& server, Manner how, const std::vector<std::string>& words)
{
    Manners m{how, 0, 0};
    const bool takes_time = how == Manner::slow || how == Manner::lost;
    const std::string use = std::string(words[0]) + (takes_time ? " SECONDS" : "") + (how == Manner::lost ? "" : " [ANSWERS]");
    std::size_t at = 1;
    if (takes_time) {
        const auto s = number(words, at);
        constexpr double most_s = 3600;
        if (!(s ? *s >= 0 && *s <= most_s : how == Manner::lost && words.size() == 1))
            return {use, false, {}};
        m.seconds = s.value_or(0);
        ++at;
    }
    if (at < words.size()) {
        const auto n = number(words, at);
        if (!n || *n < 1 || *n > 1e6 || *n != std::round(*n))
            return {use, false, {}};
        m.count = static_cast<int>(*n);
    }
    server.set_manners(m);
    return {"done", false, {}};
}

} // namespace

Obeyed obey(StandIn& unit, StandInServer& server, const std::string& line)
{
    std::istringstream in(line);
    std::vector<std::string> words;
    for (std::string w; in >> w;)
        words.push_back(w);
    if (words.empty())
        return {};
    for (const Word& w : known)
        if (words[0] == w.name)
            return w.obey(unit, server, words);
    for (std::size_t i = 0; i < manner_keys.size(); ++i)
        if (words[0] == manner_keys[i])
            return manner(server, static_cast<Manner>(i), words);
    std::string all = words[0] == "help" ? "" : "“" + words[0] + "” is not known; there are:\n";
    for (const Word& w : known)
        all += std::string(w.use) + "\n";
    return {all + "well, slow SECONDS, garbled, cut-short, wrong-crc, flooding, reordered, busy [ANSWERS], lost [SECONDS]: how it answers", false, {}};
}

} // namespace vernal
