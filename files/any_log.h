// A log as the program writes it, or of any shape a layout can be told for.
#pragma once

#include "import/log_reader.h"

namespace vernal {

// Written by the program, by its header and its first times: a column `time` and one with
// the name of a place or of weather as docs/job-file.md has it, times that are seconds
// or ISO dates. Others are read as they look, whatever their first column is called.
bool is_own_log(std::string_view text);

struct AnyLog {
    Trace trace;
    std::size_t rows = 0, dropped = 0;                                    // of the file, and of these left out
    bool drops_many() const { return vernal::drops_many(rows, dropped); } // then the trace's first note says so
};

// `layout`: how it is read; null: as the program's own, else as it looks. What could not be
// read is in the trace's notes.
Result<AnyLog> read_any_log(const std::string& content, const std::string& file, const Variant& v, const Place& place, const LogLayout* layout = nullptr);

} // namespace vernal
