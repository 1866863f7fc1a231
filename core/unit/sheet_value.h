// A value of a rule as a unit's sheet or its register map states it.
#pragma once

#include "unit_sheet.h"

#include <optional>

namespace vernal {

// The field of a kind of rule; none: there is no such number.
std::optional<NumberField> rule_field(const std::string& kind, const std::string& field);
bool is_rule_kind(const std::string& kind);

// inside = from + times × value, by the sheet's unit. None: it is no unit of that quantity.
struct SheetUnit {
    double from = 0, times = 1;
};
std::optional<SheetUnit> sheet_unit(const std::string& unit, Quantity q);

// With as many decimals as its step has.
std::string sheet_text(const SheetSetting& s, double value);
// Nearest that can be set; of a limit the nearest on its safe side: a store or an array that gets no
// hotter than asked, frost that is met no later.
double nearest_of(const SheetSetting& s, double value);

// The same setting, its figures in the other scale of temperature; others as they are.
SheetSetting in_fahrenheit(const SheetSetting& s);

} // namespace vernal
