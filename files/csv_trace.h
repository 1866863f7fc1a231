// Traces as CSV (RFC 4180).
#pragma once

#include "core/job/trace.h"

namespace vernal {

// Reads a log. The header names the columns, units in brackets:
// time,collector [°C],tank_bottom [°C],P1. Places of probes and air are °C,
// irradiance is W/m², the supply V where the header does not say. Tolerated: comma,
// semicolon or tab; decimal comma; byte order mark; Latin 1; CRLF; °F; K; quoted
// cells; empty cells; duplicate times (the last wins, with a note); time in seconds
// or ISO 8601. Error: names file, line and column; time running backwards, two
// columns of one name and a unit that is not known are some.
Result<Trace> read_trace_csv(const std::string& text, const std::string& file_name);

// Comma, point, seconds or ISO 8601 as read; what was read reads back equal.
std::string write_trace_csv(const Trace& trace);

} // namespace vernal
