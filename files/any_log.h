// A log as the program writes it, or of any shape a layout can be told for.
#pragma once

#include "import/log_reader.h"

namespace vernal {

// `layout`: how it is read; null: as the program's own, else as it looks. What could not be
// read is in the trace's notes.
Result<Trace> read_any_log(const std::string& content, const std::string& file, const Variant& v, const Place& place, const LogLayout* layout = nullptr);

} // namespace vernal
