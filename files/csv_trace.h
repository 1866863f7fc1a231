// Traces as CSV (RFC 4180).
#pragma once

#include "core/job/trace.h"

namespace vernal {

// Reads a log. Temperatures are °C unless the header says °F or K. The header names the columns, "time" first among equals, units in
// brackets: time,collector [°C],tank_bottom [°C],P1. Tolerated: comma, semicolon
// or tab; decimal comma; byte order mark; CRLF; °F; K; quoted cells; empty cells;
// duplicate times (the last wins, with a note); time in seconds or ISO 8601.
// Error: names file, line and column; time running backwards is one.
Result<Trace> read_trace_csv(const std::string& text, const std::string& file_name);

// Comma, point, seconds or ISO 8601 as read; numbers that read back exactly.
std::string write_trace_csv(const Trace& trace);

} // namespace vernal
