// What follows from a unit's sheet for a job: where each wire goes, which keys set its rules, what
// cannot be set, what leaves the factory wrong, what lamps mean, what another unit would lose.
#pragma once

#include "unit_sheet.h"

#include "core/findings/findings.h"

namespace vernal {

// How an arrangement of the unit fits the loop.
struct SheetFit {
    int arrangement = -1;             // index; −1: none fits
    std::vector<std::string> missing; // of the closest one: what has no terminal in it
    bool fits() const { return arrangement >= 0; }
};
SheetFit fit_of(const UnitSheet& sheet, const Variant& v);

struct WiringLine {
    std::string terminal; // label
    std::string goes;     // "S1 Collector", "P1 Loop pump"; empty: nothing
    std::string note;     // of terminal and caution
    TerminalIs is = TerminalIs::probe;
};
// Every terminal in the sheet's order; then what finds none, with an empty terminal.
std::vector<WiringLine> wiring_list(const UnitSheet& sheet, const Variant& v);

enum class KeyIs : std::uint8_t { scale, // units of measure come first
    arrangement,
    exact,
    nearest, // the unit has no such value
    lacking, // no such rule, or its output does another thing already
    no_such_setting };
struct KeyLine {
    KeyIs is = KeyIs::exact;
    std::string at; // path of the setting or rule; empty: of the unit
    std::string name, path, keys;
    std::string wanted, set; // with units as the unit shows them; set empty: nothing can be
    std::string note;
};
// fahrenheit: of a unit that has either scale, which is taken.
std::vector<KeyLine> key_list(const UnitSheet& sheet, const Job& job, std::size_t variant, bool fahrenheit = false);

// The variant as it comes to stand on this unit: nearest values, rules that it lacks out of use.
Variant as_set(const UnitSheet& sheet, const Job& job, std::size_t variant, bool fahrenheit = false);

// A preset that would be wrong in this job, with what is found then and not without it.
struct WrongPreset {
    std::string name, value; // as the unit has them
    std::vector<Finding> found;
};
std::vector<WrongPreset> wrong_presets(const UnitSheet& sheet, const Job& job, std::size_t variant);

struct LampSeen {
    std::string lamp;
    LampPattern pattern = LampPattern::lit;
};
struct LampReading {
    std::string lamp, says, next; // next: what to test, of procedures of the bench and the meter
};
// Lamps that are not on the sheet as they are seen say that they are not.
std::vector<LampReading> read_lamps(const UnitSheet& sheet, const std::vector<LampSeen>& seen);

// A dead unit replaced by another: what the old one did for this job that the new one does not,
// or does otherwise.
struct ReplacedLine {
    std::string what, was, is; // is empty: lost
};
std::vector<ReplacedLine> replaced(const UnitSheet& from, const UnitSheet& to, const Job& job, std::size_t variant);

} // namespace vernal
