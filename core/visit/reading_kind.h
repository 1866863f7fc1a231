// What is read on a visit: one entry a kind of reading.
#pragma once

#include "core/findings/findings.h"
#include "core/units/field.h"

namespace vernal {

struct ReadingKind {
    enum class Of : std::uint8_t { loop,
        probe,
        two_probes, // "S1 S2"
        output };
    const char* key;
    const char* label; // "flow"
    Quantity quantity; // of the value, inside
    double min, max;   // inclusive
    Of of = Of::loop;
    const char* said = ""; // how a dictated line begins; of a probe or output: its key, then this
    Loops loops = Loops::all;
    const char* how = ""; // how it is usually measured, as a hint
    bool with_temperature = false;
};
const std::vector<ReadingKind>& reading_kinds();
const ReadingKind* find_reading_kind(const std::string& key); // nullptr: unknown

// Those that this loop and unit have, with what they are read of: an entry a probe or output.
struct AskedReading {
    const ReadingKind* kind;
    std::string of;
    bool operator==(const AskedReading&) const = default;
};
std::vector<AskedReading> asked_readings(const Variant& v);
bool is_asked(const Variant& v, const VisitReading& r);

// "flow", "P1 Collector pump, run hours"
std::string reading_label(const ReadingKind& kind, const std::string& of, const Variant* v);
std::string reading_text(const VisitReading& r, const Units& units); // "1.80 bar at 24.0 °C"

// Metric, with the fewest digits that read back as the same number; "=" and the inside value where no such text does.
std::string exact_value_text(double inside, Quantity q);
Result<double> parse_exact(const std::string& text, Quantity q, const Units& units); // either form

} // namespace vernal
