// What is the matter with a pump that does not do its work: from what is heard, seen, felt and
// measured at it.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace vernal {

// What can be looked at, each with its answers in their order.
enum class PumpLook : std::uint8_t { hum, // no, yes
    current,                              // none, less than usual, usual, more
    shaft,                                // turns, stands
    by_hand,                              // power off: free, stiff, stuck
    flow,                                 // none, little, as stated
    wet,                                  // the motor: dry, wet
    gland,                                // dry, drips
    inlet,                                // flooded, or under the water; lifts
    other };                              // of two: there is none or both stand, the other runs
inline constexpr std::size_t pump_looks = 9;
struct PumpLookText {
    const char *key, *ask;
    std::vector<const char*> answers;
};
const PumpLookText& pump_look_text(PumpLook look);

// By PumpLook; none: not looked at.
using PumpSeen = std::array<std::optional<int>, pump_looks>;

struct PumpCause {
    std::string title, what_to_do, caution;
    double sure = 0; // 0…1
};
struct PumpVerdict {
    std::vector<PumpCause> causes; // likeliest first, all of them
    std::optional<PumpLook> next;  // what would tell most, of what was not looked at; none: enough is known
};
// Bayes over a table of causes; how often each answer goes with each cause is an estimate.
PumpVerdict pump_verdict(const PumpSeen& seen, bool direct_current);

} // namespace vernal
