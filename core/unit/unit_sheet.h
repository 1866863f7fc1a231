// A unit as the technician describes it, in own words: terminals, arrangements, settings with
// their keys, lamps. docs/unit-sheets.md has its file.
#pragma once

#include "core/job/fields.h"
#include "core/job/job_check.h"

#include <array>
#include <string>
#include <vector>

namespace vernal {

enum class TerminalIs : std::uint8_t { probe,
    output,
    supply,
    panel,
    battery,
    earth,
    shield,
    contact };
inline constexpr std::array terminal_keys{"probe", "output", "supply", "panel", "battery", "earth", "shield", "contact"};

// Which pole an output switches.
enum class Pole : std::uint8_t { none, // it is no output
    live,
    neutral,
    both,
    plus,
    minus,
    dry }; // a contact without a feed of its own
inline constexpr std::array pole_keys{"none", "live", "neutral", "both", "plus", "minus", "dry"};

struct SheetTerminal {
    std::string label; // as printed at it, "5" or "5 6"
    TerminalIs is = TerminalIs::probe;
    Pole switches = Pole::none;
    std::string note;
    bool operator==(const SheetTerminal&) const = default;
};

// What a terminal is for in an arrangement: a place of a probe, "tank_bottom", or what an output
// drives, "pump".
struct SheetRole {
    std::string terminal, role;
    bool operator==(const SheetRole&) const = default;
};

struct SheetArrangement {
    std::string number, about; // as the unit counts them
    std::vector<SheetRole> roles;
    bool operator==(const SheetArrangement&) const = default;
};

// A setting of a rule's, or a rule that the unit has without one.
struct SheetSetting {
    std::string rule, field;            // "differential", "on_k"; field empty: the rule is there, nothing of it can be set
    int nth = 1;                        // of several rules of the kind
    std::string name, path, keys;       // as the unit has it, in own words
    std::string unit;                   // "K", "°F", "min"; of a number without one empty
    double low = 0, high = 0, step = 0; // in that unit; step 0: any
    bool has_preset = false;
    double preset = 0;
    bool operator==(const SheetSetting&) const = default;
};

// Rules that one output cannot have together.
struct SheetShared {
    std::string terminal, rules; // "thermostat, timer"
    bool operator==(const SheetShared&) const = default;
};

enum class LampPattern : std::uint8_t { dark,
    lit,
    slow,
    fast,
    twice };
inline constexpr std::array pattern_keys{"dark", "lit", "slow", "fast", "twice"};

// What the unit thinks when a lamp is so.
enum class LampSays : std::uint8_t { nothing,
    power,
    runs,
    probe_open,
    probe_shorted,
    limit,
    cut_out,
    low_voltage,
    freeze,
    forced };
inline constexpr std::array says_keys{"nothing", "power", "runs", "probe_open", "probe_shorted", "limit", "cut_out", "low_voltage", "freeze", "forced"};

struct SheetLamp {
    std::string lamp;
    LampPattern pattern = LampPattern::lit;
    LampSays says = LampSays::nothing;
    std::string words; // in own words
    bool operator==(const SheetLamp&) const = default;
};

enum class SheetScale : std::uint8_t { celsius,
    fahrenheit,
    either };
inline constexpr std::array scale_keys{"celsius", "fahrenheit", "either"};

struct UnitSheet {
    std::string name, about;
    SheetScale scale = SheetScale::celsius;
    std::string scale_path, scale_keys;             // where either is chosen
    std::string arrangement_path, arrangement_keys; // empty: the unit knows one arrangement only
    std::vector<SheetTerminal> terminals;
    std::vector<SheetArrangement> arrangements;
    std::vector<SheetSetting> settings;
    std::vector<SheetShared> shared;
    std::vector<SheetLamp> lamps;
    bool operator==(const UnitSheet&) const = default;
};

// What an output drives, as a sheet calls it.
inline constexpr std::array driver_roles{"pump", "pump_2", "exchanger_pump", "valve", "cooler_valve", "circulation", "element", "drain_valve", "check_valve", "other"};

// Names and places that contradict each other, or nothing that can be right: a terminal named twice, a role of a
// terminal that is not there, a rule nobody knows, a range upside down. where: "settings[3].step".
std::optional<JobProblem> sheet_problem(const UnitSheet& sheet);

template <class V, OneOf<SheetTerminal> T>
void fields(V& v, T& t)
{
    v.text("label", t.label);
    v.choice("is", terminal_keys, t.is);
    v.spare_choice("switches", pole_keys, t.switches);
    v.text("note", t.note);
}

template <class V, OneOf<SheetRole> T>
void fields(V& v, T& r)
{
    v.text("terminal", r.terminal);
    v.text("role", r.role);
}

template <class V, OneOf<SheetArrangement> T>
void fields(V& v, T& a)
{
    v.text("number", a.number);
    v.text("about", a.about);
    v.list("roles", a.roles);
}

template <class V, OneOf<SheetSetting> T>
void fields(V& v, T& s)
{
    v.text("rule", s.rule);
    v.text("field", s.field);
    v.integer("nth", 1, 64, s.nth);
    v.text("name", s.name);
    v.text("path", s.path);
    v.text("keys", s.keys);
    v.text("unit", s.unit);
    v.number({"low", "From", Quantity::number, -1e6, 1e6, ""}, s.low);
    v.number({"high", "to", Quantity::number, -1e6, 1e6, ""}, s.high);
    v.number({"step", "in steps of", Quantity::number, 0, 1e6, ""}, s.step);
    v.boolean({"has_preset", "Leaves the factory set", ""}, s.has_preset);
    v.number({"preset", "to", Quantity::number, -1e6, 1e6, ""}, s.preset);
}

template <class V, OneOf<SheetShared> T>
void fields(V& v, T& s)
{
    v.text("terminal", s.terminal);
    v.text("rules", s.rules);
}

template <class V, OneOf<SheetLamp> T>
void fields(V& v, T& l)
{
    v.text("lamp", l.lamp);
    v.choice("pattern", pattern_keys, l.pattern);
    v.choice("says", says_keys, l.says);
    v.text("words", l.words);
}

template <class V, OneOf<UnitSheet> T>
void fields(V& v, T& s)
{
    v.text("name", s.name);
    v.text("about", s.about);
    v.choice("scale", scale_keys, s.scale);
    v.text("scale_path", s.scale_path);
    v.text("scale_keys", s.scale_keys);
    v.text("arrangement_path", s.arrangement_path);
    v.text("arrangement_keys", s.arrangement_keys);
    v.list("terminals", s.terminals);
    v.list("arrangements", s.arrangements);
    v.list("settings", s.settings);
    v.spare_list("shared", s.shared);
    v.spare_list("lamps", s.lamps);
}

} // namespace vernal
