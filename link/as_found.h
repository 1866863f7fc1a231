// A unit on the wire beside a job: its settings as a variant, the differences in sentences, and
// what would be written for each. Its log as a trace.
#pragma once

#include "register_map.h"

#include "core/bench/procedure_run.h"
#include "core/job/trace.h"

namespace vernal {

// The setting of a variant that a register holds: "rule/3f2a/on_k", "rule/3f2a/enabled",
// "output/77e0/mode". Empty: it holds none, or the variant has no such rule or output.
std::string setting_path(const MapRegister& r, const Variant& v);

struct AsFound {
    Variant variant;               // the job's, set as the unit is
    std::vector<std::string> left; // what could not be taken over, in sentences
};
// image: as read; what has not been read stays as the job has it.
AsFound as_found(const RegisterMap& map, const WireImage& image, const Job& job, std::size_t variant);

// One register that is to hold another number, as it is shown before it is written.
struct WireWrite {
    std::size_t at = 0;               // index in the map's registers
    double from = NAN, to = NAN;      // raw; from NaN: not read
    std::vector<std::uint16_t> words; // to be written; of a coil 0 or 1
    std::string text;                 // "Difference, start, P1: 6.0 K → 8.0 K; holding register 101: 60 → 80"
};

struct WireDifference {
    std::string path;     // of the setting
    std::string sentence; // "Difference, start: the unit has 6.0 K, the job 8.0 K."
    // What would bring the unit to the job's; else why it cannot be written.
    std::optional<WireWrite> write;
    std::string why_not;
};
// Those that the unit can hold apart: a value it has no step for counts as set where it holds the nearest.
std::vector<WireDifference> wire_differences(const RegisterMap& map, const WireImage& image, const Job& job, std::size_t variant, const Units& units);

// The write that moves an output's switch. Error: the map has no switch for it that can be written.
Result<WireWrite> mode_write(const RegisterMap& map, const WireImage& image, const std::string& output, Mode mode);
// Of every switch that can be written and does not stand so already.
std::vector<WireWrite> all_to(const RegisterMap& map, const WireImage& image, Mode mode);

// As a procedure reads it.
UnitSeen seen_of(const RegisterMap& map, const WireImage& image, const Variant& v);

// The rows of the log that there are.
std::vector<WireBlock> log_blocks(const MapLog& log, int rows);
// Rows as read, the newest of them now; oldest first in the trace. Columns are named as a day's log is.
// now: local, "2026-05-07T14:30:00".
Trace log_trace(const RegisterMap& map, const WireImage& image, const Variant& v, int rows, const std::string& now);

} // namespace vernal
