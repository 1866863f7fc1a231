// On which line of a JSON text something stands.
#pragma once

#include "core/units/result.h"

#include <cstddef>
#include <string>

namespace vernal {

// path: "settings[3].step", as the readers name it. Of a field that is not there the line of what
// should hold it; 1: the text is no JSON, or nothing of the path is there.
std::size_t json_line(const std::string& text, const std::string& path);

// An error at a path of the text, said with file, line and path; a slip of JSON itself says its own line.
Error placed_error(const Error& error, const std::string& text, const std::string& file);

} // namespace vernal
