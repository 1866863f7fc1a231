// The file of a unit's sheet (docs/unit-sheets.md), JSON.
#pragma once

#include "core/unit/unit_sheet.h"

namespace vernal {

// Errors name file, line, the field and what is expected there.
Result<UnitSheet> read_unit_sheet(const std::string& text, const std::string& file);
std::string write_unit_sheet(const UnitSheet& sheet); // reads back equal

// Two that are made up, to show what a sheet can hold.
const std::vector<UnitSheet>& example_sheets();

// The sheets among a job's attachments, in their order.
std::vector<UnitSheet> sheets_of(const Job& job);
// "example-unit-north.unit.json": as its attachment is called.
std::string sheet_file_name(const UnitSheet& sheet);

} // namespace vernal
