// The hand valves of a loop, and how somebody set them for a state of its service.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>

namespace vernal {

enum class ServiceState : std::uint8_t { run,
    fill,
    flush,
    backup_only, // the sun's side is out of use
    drained,     // the collector's side is empty, for a repair
    winter };    // left over the cold months
inline constexpr std::size_t service_states = 6;
inline constexpr std::array<const char*, service_states> state_keys{"run", "fill", "flush", "backup_only", "drained", "winter"};

enum class HandValve : std::uint8_t { supply_isolating,
    return_isolating,
    fill_port,
    flush_port,
    air_vent,
    supply_isolating_2,
    return_isolating_2,
    fill_port_2,
    flush_port_2,
    air_vent_2,
    loop_valve, // between the ports of a closed loop
    vessel_valve,
    relief,
    level_cock,
    pool_bypass,
    water_supply, // of the exchanger's store side
    water_return,
    water_fill,
    water_flush,
    cold_inlet,
    tank_drain,
    tank_relief,
    tank_bypass,
    heater_inlet,
    heater_bypass };
inline constexpr std::size_t hand_valves = 25;
inline constexpr std::array<const char*, hand_valves> valve_keys{"supply_isolating", "return_isolating", "fill_port", "flush_port", "air_vent", "supply_isolating_2", "return_isolating_2", "fill_port_2", "flush_port_2", "air_vent_2", "loop_valve", "vessel_valve", "relief", "level_cock", "pool_bypass", "water_supply", "water_return", "water_fill", "water_flush", "cold_inlet", "tank_drain", "tank_relief", "tank_bypass", "heater_inlet", "heater_bypass"};

constexpr bool is_relief(HandValve v) { return v == HandValve::relief || v == HandValve::tank_relief; }

// As set by hand; what is not set stands as is usual in that state (valve_board.h).
enum class ValveSet : std::uint8_t { usual,
    open,
    shut };
// A relief valve is never shut off: it is seated, or, while filling, lifted and reseated.
enum class ReliefSet : std::uint8_t { usual,
    seated,
    lifted };
enum class Fitted : std::uint8_t { yes,
    no };

using ValveSets = std::array<ValveSet, hand_valves>;
// While a loop with a heater after its tank runs, how it leads through both is the heater's
// setting (HeaterWay): what is set here of these valves is passed over then.
constexpr bool is_of_heater(HandValve v) { return v == HandValve::cold_inlet || v == HandValve::tank_bypass || v == HandValve::heater_inlet || v == HandValve::heater_bypass; }
struct StateValves {
    ValveSets set{};
    bool operator==(const StateValves&) const = default;
};
struct FillValves {
    ValveSets set{};
    std::array<ReliefSet, hand_valves> relief{};
    bool operator==(const FillValves&) const = default;
};
struct FittedValves {
    std::array<Fitted, hand_valves> has{};
    bool operator==(const FittedValves&) const = default;
};

struct HandValves {
    StateValves run;
    FillValves fill;
    StateValves flush, backup_only, drained, winter;
    FittedValves fitted;
    const ValveSets& at(ServiceState s) const { return const_cast<HandValves*>(this)->at(s); }
    ValveSets& at(ServiceState s)
    {
        ValveSets* const all[]{&run.set, &fill.set, &flush.set, &backup_only.set, &drained.set, &winter.set};
        return *all[static_cast<std::size_t>(s)];
    }
    bool operator==(const HandValves&) const = default;
};

} // namespace vernal
