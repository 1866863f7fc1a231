// What is wrong for a while: a fault painted on a stretch of a day or of a log.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <vector>

namespace vernal {

struct Condition;
struct Day;
struct Variant;

enum class FaultKind : std::uint8_t { probe_open,
    probe_shorted,
    probe_stuck,
    probe_drifts,
    probe_spikes,
    probes_swapped,
    probe_in_sun,
    probe_bare,     // strapped to its pipe without insulation
    probe_tip_lost, // slipped out of its well
    relay_stuck_on,
    relay_stuck_off, // or its fuse is out
    relay_chatters,
    pump_dead, // its relay lives
    air_lock,
    check_valve_leaks,
    line_shut, // by a hand valve
    strainer_clogged,
    pressure_lost,
    low_voltage,
    snow,
    clock_wrong };
inline constexpr std::array fault_keys{"probe_open", "probe_shorted", "probe_stuck", "probe_drifts", "probe_spikes", "probes_swapped", "probe_in_sun", "probe_bare", "probe_tip_lost", "relay_stuck_on", "relay_stuck_off", "relay_chatters", "pump_dead", "air_lock", "check_valve_leaks", "line_shut", "strainer_clogged", "pressure_lost", "low_voltage", "snow", "clock_wrong"};
inline constexpr std::size_t fault_kinds = fault_keys.size();

inline constexpr double longest_fault_h = 24.0 * 366 * 10; // of a log of years

struct Fault {
    FaultKind kind = FaultKind::probe_open;
    std::string of;                // key of the probe or output; empty where the kind asks for none
    std::string with;              // probes_swapped: the other one
    double from_h = 12, to_h = 13; // since the run's beginning: the first day's midnight, or a log's first row
    // One of these says how much, as FaultInfo::size says.
    double stuck_c = 40;
    double by_k = 10;
    double share = 0.5;
    double every_s = 10;
    double supply_v = 10;
    double by_h = 1;
    bool operator==(const Fault&) const = default;
};

// What a kind is about and how much of it is asked for.
struct FaultInfo {
    enum class Of : std::uint8_t { probe,
        output,
        pump, // an output that drives one
        loop };
    enum class Size : std::uint8_t { none,
        stuck_c,
        by_k,
        share,
        every_s,
        supply_v,
        by_h };
    FaultKind kind;
    const char* name; // "stuck"
    const char* about;
    Of of;
    Size size = Size::none;
    const char* size_says = ""; // "reads", "more at its end"
    double usual = 0;           // of that size, in its unit; estimates
    bool on_logs = false;
};
const FaultInfo& fault_info(FaultKind kind);

// Whether this loop, or this log, can have it.
bool can_have(FaultKind kind, const Variant& v, const Day& day);
// Keys of probes or outputs that it can be of, in the variant's order; empty: it asks for none.
std::vector<std::string> fault_subjects(FaultKind kind, const Variant& v);
// One with the kind's usual size, of the first subject.
Fault fresh_fault(FaultKind kind, const Variant& v, double from_h, double to_h);
// A probe's condition as faults of a stretch; none: it is sound, or swapped with no other.
std::vector<Fault> faults_of(const Condition& condition, const std::string& probe, const Variant& v, double from_h, double to_h);
// "S1 stuck", "pump P1 dead", "snow on the glass".
std::string fault_text(const Fault& fault, const Variant& v);

} // namespace vernal
