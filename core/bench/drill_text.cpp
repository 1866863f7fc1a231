// The text of a drill, and the words customers have for what is wrong.
#include "drill.h"
#include "procedure_line.h"

#include "core/units/exact_text.h"

#include <cmath>
#include <sstream>

namespace vernal {
namespace {

using namespace procedure_text;

struct Words {
    const char* key;
    std::array<const char*, 2> says; // of two who call about the same
};

constexpr std::array<Words, 14> words{{{"probe_open", {"A red light is on and the pump has not run since the storm.", "It shows dashes where the roof's temperature used to be."}},
    {"probe_shorted", {"Since they drilled for the new cable the pump does nothing.", "The display says something nonsensical for the roof."}},
    {"probe_stuck", {"It has shown the same number for days, whatever the weather.", "The pump runs at night now, or not at all; I cannot make it out."}},
    {"probes_swapped", {"Since the other firm was here it only runs when it rains.", "It runs all night and rests all day."}},
    {"relay_stuck_on", {"The pump never stops, not even at night, and the water is cold in the morning.", "I hear it day and night."}},
    {"relay_stuck_off", {"The little lamp for the pump is lit, but I hear nothing.", "It says it is running. The water is cold."}},
    {"pump_dead", {"It hums and gets hot, and no warm water comes.", "There is a hum in the cellar and a smell."}},
    {"air_lock", {"After they filled it up it gurgles and does not get warm.", "It runs all day and the tank stays cold."}},
    {"line_shut", {"Since the plumber was here the roof boils over.", "It runs, the roof is hot, the tank is not."}},
    {"strainer_clogged", {"It takes longer each month.", "It used to be hot by noon. Now it is evening."}},
    {"switch_left_on", {"It has been running since the last service.", "In the morning the tank is colder than in the evening."}},
    {"shadow", {"It used to start at nine. Now it is afternoon.", "In the morning nothing happens, whatever the sun does."}},
    {"check_valve_leaks", {"In the evening it is hot, in the morning it is not, and nobody showered.", "The roof is warm at night."}},
    {"pressure_lost", {"The needle has gone down again.", "It bangs, and the gauge is nearly at nothing."}}}};
constexpr std::array<const char*, 2> others{"There is not as much hot water as there was.", "It does not do what it did last year."};

} // namespace

Result<Drill> read_drill(const std::string& text, const std::string& file)
{
    Drill out;
    std::size_t at = 0;
    try {
        std::istringstream in(text);
        std::string raw, *into = &out.story;
        int fences = 0;
        while (std::getline(in, raw)) {
            ++at;
            const std::string s = trimmed(raw);
            if (fences < 2) {
                if (s == "---") {
                    ++fences;
                } else if (fences == 0) {
                    throw Bad{"the front part is missing", "a line “---”, then name, title, fault, hour and looks, then “---”"};
                } else if (!s.empty()) {
                    const auto [key, value] = parted(s, ":");
                    if (key == "name" && is_name(value))
                        out.name = value;
                    else if (key == "title" && !value.empty())
                        out.title = value;
                    else if (key == "fault" && !value.empty() && value.find_first_not_of("abcdefghijklmnopqrstuvwxyz_") == std::string::npos)
                        out.fault = value;
                    else if (key == "hour" || key == "looks") {
                        const double x = number_in(value, "");
                        const bool hour = key == "hour";
                        if (x < (hour ? 0 : 1) || x > (hour ? 23 : 50) || (!hour && x != std::floor(x)))
                            throw Bad{"“" + value + "” is not possible", hour ? "0 to 23" : "a whole number from 1 to 50"};
                        hour ? void(out.hour = x) : void(out.looks = static_cast<int>(x));
                    } else
                        throw Bad{"“" + s + "” is not of the front part", "name: small letters, digits and -; title:; fault: a key; hour:; looks:"};
                }
            } else if (s == "## Afterwards") {
                into = &out.afterwards;
            } else if (s.starts_with("#")) {
                throw Bad{"a drill has one heading", "## Afterwards"};
            } else if (!s.empty()) {
                *into += (into->empty() ? "" : " ") + s;
            }
        }
        if (fences < 2 || out.name.empty() || out.title.empty() || out.fault.empty())
            throw Bad{"the front part has no name, no title or no fault", "name:, title: and fault: between two lines “---”"};
        if (out.story.empty())
            throw Bad{"there is no story", "the customer's words after the front part"};
        return out;
    } catch (const Bad& b) {
        return Error{b.what, file + ", line " + std::to_string(at), "Expected: " + b.expected};
    }
}

std::string write_drill(const Drill& d)
{
    return "---\nname: " + d.name + "\ntitle: " + d.title + "\nfault: " + d.fault + "\nhour: " + exact_text(d.hour) + "\nlooks: " + std::to_string(d.looks) + "\n---\n" + d.story + "\n" + (d.afterwards.empty() ? "" : "\n## Afterwards\n" + d.afterwards + "\n");
}

std::vector<Drill> drills_for(const Variant& v, unsigned seed)
{
    std::vector<Drill> out;
    unsigned x = seed * 2654435761U + 12345U; // the same on every machine
    for (const BenchFault& f : bench_faults(v)) {
        x = x * 1664525U + 1013904223U;
        Drill d;
        d.name = "drill-" + std::to_string(out.size() + 1);
        d.title = "Call " + std::to_string(out.size() + 1); // says nothing of what it is
        d.fault = f.key;
        d.hour = 10 + (x >> 28U) % 4;
        d.story = others[(x >> 20U) % 2];
        for (const Words& w : words)
            if (f.key == w.key)
                d.story = w.says[(x >> 20U) % 2];
        out.push_back(std::move(d));
    }
    // In an order that says nothing either.
    for (std::size_t i = out.size(); i > 1; --i) {
        x = x * 1664525U + 1013904223U;
        const std::size_t j = (x >> 16U) % i;
        std::swap(out[i - 1].fault, out[j].fault);
        std::swap(out[i - 1].story, out[j].story);
        std::swap(out[i - 1].hour, out[j].hour);
    }
    return out;
}

} // namespace vernal
