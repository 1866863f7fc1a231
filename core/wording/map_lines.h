// The lines of the operating map: where the latches of an output's rules turn,
// over the temperature of the store and of the source. They come from the compiled
// program; no kind of rule is known here.
#pragma once

#include "core/job/job.h"

#include <optional>

namespace vernal {

// The two probes over which an output is shown.
struct MapAxes {
    std::size_t source = 0, store = 0;
};
// Those of the collecting rule of the output; one that has none (a valve) is
// shown over those of the first that has. Nothing: no rule compares two probes.
std::optional<MapAxes> map_axes(const Variant& v, std::size_t output);

struct MapLine {
    enum class Kind : std::uint8_t { level, // source so many kelvin above the store
        upright,                            // store at
        slanted,                            // source at
        banner };                           // a limit of a probe on neither axis
    enum class Role : std::uint8_t { collects,
        protects, // a limit above
        keeps,    // a limit below
        other };
    std::size_t rule = 0; // index in the variant
    std::string field;    // of the rule, moves the line
    Kind kind = Kind::level;
    Role role = Role::other;
    double value = 0;      // K of level, else °C
    bool sets = true;      // a set point; else a release point
    std::size_t probe = 0; // of upright, slanted and banner
};

std::vector<MapLine> map_lines(const Variant& v, std::size_t output);

// Puts the line where it is wanted, or as near as its field can move it. A place
// that would put the rule out of action is refused: false, and nothing changes.
bool move_line(Variant& v, std::size_t output, const MapLine& line, double to);

} // namespace vernal
