// The file of a register map (docs/register-maps.md), JSON.
#pragma once

#include "register_map.h"

namespace vernal {

// Errors name file, line, the field and what is expected there.
Result<RegisterMap> read_register_map(const std::string& text, const std::string& file);
// A register a line, without what is as usual; reads back equal.
std::string write_register_map(const RegisterMap& map);

// The maps among a job's attachments, in their order.
std::vector<RegisterMap> maps_of(const Job& job);
// "example-unit.map.json": as its attachment is called.
std::string map_file_name(const RegisterMap& map);

// A map of everything that a variant's unit reads, does and can be set to, with a log of `rows`.
// It is what the stand-in speaks where it is given none.
RegisterMap fresh_map(const Variant& v, int rows = 1440);

} // namespace vernal
