#include "placing.h"

#include <array>
#include <utility>

namespace vernal {
namespace {

constexpr const char* roof = "Roof work: use a fall arrest, and cover the collector first: its pipe burns.";
constexpr const char* scald = "Hot water scalds: let the tank cool or wear gloves. Never loosen a pocket that stands in water under pressure.";
constexpr const char* pipe_hot = "The pipe can be hot enough to burn, with fluid under pressure behind it.";

// By place; estimates where a figure is named.
const auto guides = std::to_array<PlacingGuide>({
    {"In the collector's outlet, in its pocket or strapped to the metal of the outlet pipe within a hand's breadth of the absorber, with paste, under the insulation.", "On the frame, on the glass, a metre down the pipe, in the shade of a chimney or in moving air: it reads the weather and the pump starts late.", roof},
    {"In the lowest pocket, at the height of the outlet to the collector, or pressed to the bare tank wall under the insulation.", "At the top of the tank or beside the element: the pump never sees the cold water it should heat.", scald},
    {"In a pocket at half height, or pressed to the bare tank wall under the insulation.", "As the only probe of a limit: it understates the top by what the layers hide.", scald},
    {"In the highest pocket, or on the hot outlet within a hand's breadth of the tank, under the insulation.", "On the pipe behind a heat trap or a tempering valve: it reads a cold pipe while the tank boils.", scald},
    {"Strapped to bare metal of the pipe from the collector, with paste, under the insulation.", "Over insulation or on plastic pipe: late and low.", pipe_hot},
    {"Strapped to bare metal of the pipe to the collector, upstream of the pump, under the insulation.", "Beside the pump's motor: it reads the motor.", pipe_hot},
    {"As on the first array, on this array's own outlet.", "On the pipe where both arrays have joined: it reads the mixture.", roof},
    {"In the second tank's lowest pocket.", "On the pipe between the tanks.", scald},
    {"In the second tank's highest pocket.", "On the pipe between the tanks.", scald},
    {"In the pipe from the pool, before the filter and before the collector joins it, in a pocket, shaded.", "In the skimmer or in the sun on the deck: it reads the day, not the pool.", "Keep mains away from the water; pool wiring is for a licensed electrician where the law asks for one."},
    {"On the return from the slab, close to where it leaves the floor, under the insulation.", "On the supply to the slab: it reads what comes in, not what the floor has taken.", "Limit what enters the floor: hot fluid cracks screed and warps wood."},
    {"On an inner wall at breast height, out of the sun and of the warm air's way.", "On an outer wall or in the stream of the blower.", "Keep probe wires apart from the blower's mains."},
    {"On bare metal of the pipe by which the circulation comes back, a metre before the tank or heater, under the insulation.", "At the tank itself: it reads the tank while the pipe cools.", scald},
    {"In the return to the store, where it turns only when something comes round; a straight pipe before and behind it, as its sheet asks.", "Beside the pump of an array that empties: it turns while the water only rises.", pipe_hot},
    {"Beside the gauge and the expansion vessel, where no valve can part it from them.", "Behind a valve that somebody may shut, or close to the pump's outlet: it reads the pump.", "Let the pressure go before anything is screwed out: hot fluid sprays."},
    {"In the plane of the array and shaded when the array is; wipe it when the glass is wiped.", "Flat on the roof, or in the shade of a chimney that the array does not share.", roof},
});
static_assert(std::tuple_size_v<decltype(guides)> == probe_places);

struct Special {
    bool (*holds)(const Arrangement&);
    ProbePlace place;
    const char* text;
};
const std::array specials{
    Special{[](const Arrangement& a) { return a.answers.array == Array::tubes; }, ProbePlace::collector, "In the manifold's dry pocket at the outlet end, pushed in to its stop with paste. It reads little until fluid moves, and bears far more heat than on a flat plate: silicone cable."},
    Special{[](const Arrangement& a) { return a.answers.array == Array::trickle; }, ProbePlace::collector, "On the back of the absorber near its top, insulated from behind: it must be felt dry, and no drop may reach it."},
    Special{[](const Arrangement& a) { return a.drains && a.answers.array != Array::trickle; }, ProbePlace::collector, "On the outlet at the top of the array, where it warms without fluid: an empty array must still be felt."},
    Special{[](const Arrangement& a) { return a.has(Part::pool); }, ProbePlace::collector, "On the sun side: in the outlet of the array or on a piece of absorber beside it, with the same tilt."},
    Special{[](const Arrangement& a) { return a.carrier == Carrier::air; }, ProbePlace::collector, "In the outlet duct close to the collector, in the stream but not in the sun."},
    Special{[](const Arrangement& a) { return a.has(Part::slab); }, ProbePlace::collector, "On the pipe from the array, as close to the outlet as its cable bears."},
};

} // namespace

PlacingGuide placing_guide(const Arrangement& arrangement, ProbePlace place)
{
    PlacingGuide g = guides[static_cast<std::size_t>(place)];
    for (const Special& s : specials)
        if (s.place == place && s.holds(arrangement))
            g.where = s.text;
    return g;
}

const std::vector<const char*>& wiring_guide()
{
    static const std::vector<const char*> table{
        "Shielded pair of 0.5 mm² or thicker, in a duct of its own, a hand's breadth from mains.",
        "Join the shield at the unit's end only; insulate it at the probe.",
        "A resistance probe has no polarity. A transmitter for mA or V has.",
        "No bare copper outside the clamp. Tug at each wire after tightening.",
        "Joints outdoors under gel or in a box with the cable from below; a drip loop before the roof.",
        "Isolate the unit and prove it dead before opening its cover.",
    };
    return table;
}

} // namespace vernal
