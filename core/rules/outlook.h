// What had something to say about an output, and what would change it. For Why;
// not for hot loops. All are asked of the state after a decision.
#pragma once

#include "engine.h"
#include "unmet.h"

#include <optional>

namespace vernal {

// Everything that had something to say about one output, in order of priority; the
// first one decided.
struct Request {
    Priority priority = Priority::nothing;
    std::int16_t rule = -1;
    bool wants_on = false;
    bool operator==(const Request&) const = default;
};
std::vector<Request> requests(const Program& program, const Inputs& in, const EngineState& after, std::size_t output);

// One reading, or the difference of two, that would change the output by itself.
struct Margin {
    std::uint8_t plus = zero_channel, minus = zero_channel; // channels
    std::int64_t amount = 0;                                // > 0: still to go, in milli units of the channel
    bool rising = true;                                     // of plus less minus; a lower limit has no plus
    std::int16_t rule = -1;                                 // whose latch it is
    bool operator==(const Margin&) const = default;
};
// Nearest first. Empty: no single reading would change the output.
std::vector<Margin> margins(const Program& program, const Inputs& in, const EngineState& after, std::size_t output);

// Until the output changes by itself, all readings frozen; none within a day.
std::optional<Millis> until_change(const Program& program, const Inputs& in, const EngineState& after, std::size_t output);

// What a clause that wants the output on still misses: a reading, or a gate.
struct Missing {
    Margin margin; // of a reading
    int gate = -1; // index of the gate; −1: a reading
    Unmet unmet{}; // of the gate
    std::int16_t rule = -1;
    bool reading() const { return gate < 0; }
};
struct WhyNot {
    std::int16_t rule = -1;       // that would run it
    std::vector<Missing> missing; // empty: it asks already and is overruled
};
std::vector<WhyNot> why_not(const Program& program, const Inputs& in, const EngineState& after, std::size_t output);

} // namespace vernal
