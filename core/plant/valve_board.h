// How the hand valves of a loop stand in each state of its service, and what then flows where.
#pragma once

#include "loop.h"

#include <optional>

namespace vernal {

enum class ValveStands : std::uint8_t { open,
    shut,
    seated,   // a relief valve
    lifted }; // and let fall back, while filling
inline bool lets_through(ValveStands s) { return s == ValveStands::open || s == ValveStands::lifted; }
const char* stands_text(ValveStands s); // "open", "shut", "seated", "lifted, then seated"

struct ValveText {
    const char* title; // "Supply isolating valve"
    const char* about; // what it is for
};
const ValveText& valve_text(HandValve v);
const char* state_title(ServiceState s); // "Run"
// What is done in this state, and what can hurt in it; of this loop.
std::string state_about(const Arrangement& a, ServiceState s);
std::string state_caution(const Arrangement& a, ServiceState s);

// Those that loops of these answers have, in their order on the board. Air has none.
std::vector<HandValve> valves_of(const Arrangement& a);
// Of these, without those that are not fitted.
std::vector<HandValve> valves_of(const Loop& loop);
// As is usual in loops of these answers. way: of the heater after the tank.
ValveStands usual_stands(const Arrangement& a, HandValve v, ServiceState s, HeaterWay way = HeaterWay::series);
// As it stands in this loop: as set by hand, else as is usual.
ValveStands stands(const Loop& loop, HandValve v, ServiceState s);
bool set_by_hand(const Loop& loop, HandValve v, ServiceState s);
// Where it can be set at all, the positions it can have. A relief valve only while filling.
std::vector<ValveStands> can_stand(HandValve v, ServiceState s);
// One of can_stand(); a position that is the usual one is not kept.
void set_stands(Loop& loop, HandValve v, ServiceState s, ValveStands to);

// A stretch of the ways fluid can take, between two places, through at most one valve.
struct FlowWay {
    std::optional<HandValve> valve;
    std::optional<Segment> shows; // on the drawing
    std::string name;             // "supply", "coil"; empty: not worth a word
    bool against = false;         // passed the other way than while the loop runs
};
// What flows in a state: each way from where it enters to where it leaves, in the order of the flow.
struct StateFlow {
    std::vector<std::vector<FlowWay>> ways;
    bool runs(Segment s) const;
    bool against(Segment s) const; // the first way that runs through it does so backwards
    bool through(HandValve v) const;
    std::vector<std::string> words() const; // "fill port → supply → collector → … → flush port"
};
StateFlow flow_in(const Loop& loop, ServiceState s);

// An array that holds fluid and is shut off on both sides: nothing takes up what expands.
bool shut_in(const Loop& loop, bool second, ServiceState s);
// Open at its foot, so that it stands empty.
bool emptied(const Loop& loop, bool second, ServiceState s);

// Shuts the lines of the pumps that work against a shut valve while the loop runs.
void shut_lines(Loop& loop);

} // namespace vernal
