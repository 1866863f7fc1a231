#include "rule_set.h"

namespace vernal {

// In the order of RuleBody.
const std::vector<RuleKind>& rule_kinds()
{
    static const std::vector<RuleKind> table{
        {"differential", "Difference", "Collect", "Runs the pump while the collector can give heat to the store.",
            "Start {output} when the {source} is {on_k} above the {store}; stop at {off_k}.", "Start only once that has stood for {confirm_s}; average the readings over {average_s}.", Priority::collect},
        {"store_limit", "Store limit", "Protect", "Keeps the store below what its lining, its relief valve and the people drawing from it bear.",
            "Stop {output} when the {probe} reaches {limit_c}; allow again {hysteresis_k} below that.", "The hottest water may be {allowance_k} above the probe. Stop only what loads the {only_store}.", Priority::limit},
        {"cut_out", "Collector cut-out", "Protect", "Keeps the pump off while the collector is so hot that starting would send steam or shock into the loop.",
            "Hold {output} off when the {probe} reaches {limit_c}; allow again {hysteresis_k} below that.", "", Priority::cut_out},
        {"run_times", "Run and rest times", "Comfort", "Spares the pump short runs; it never delays a protection.",
            "Once started keep {output} on for {min_run_s}; once stopped keep it off for {min_off_s}.", "Run on for {run_on_s} after no demand any more.", Priority::min_off},
        {"divert", "Divert", "Protect", "Sends the heat elsewhere, to a second store, a cooler or the house, before it can do harm.",
            "Switch {output} on when the {probe} reaches {limit_c}; off {hysteresis_k} below that.", "", Priority::dump},
        {"linked_difference", "Difference by one knob", "Collect", "One knob moves start and stop together; the pair at each mark is stated at the probes.",
            "Start {output} when the {source} is above the {store} by the pair of knob mark {mark}.", "Start only once that has stood for {confirm_s}; average the readings over {average_s}.", Priority::collect},
        {"fixed_difference", "Difference to a fixed value", "Collect", "A fixed value stands in for the store probe, as a fixed resistor does in air heating.",
            "Start {output} when the {source} is {on_k} above a fixed {reference_c}; stop at {off_k}.", "", Priority::collect},
        {"second_store", "Second store", "Collect", "Loads another store while the first can take nothing, and gives way to it.",
            "While the first store takes nothing, run {output} and {valve} when the {source} is {on_k} above the {store}; stop at {off_k}.", "Every {look_every_s} rest for {look_for_s} to see whether the first takes heat again.", Priority::collect},
        {"speed_by_difference", "Speed by difference", "Collect", "Runs faster the more the collector has to give.",
            "Run {output} one step of {step} faster for each {per_k} that the {source} is more than {above_k} above the {store}.", "Between {floor} and {top} of full speed, rounded to {grain}, by {drive}.", Priority::collect},
        {"speed_to_rise", "Speed to a rise", "Collect", "Holds the rise across the collector by the pump's speed.",
            "Let the speed of {output} hold the {source} {rise_k} above the {store}, within {within_k}.", "A step of {step} every {every_s}, between {floor} and {top} of full speed, rounded to {grain}, by {drive}.", Priority::collect},
        {"speed_to_temperature", "Speed to a temperature", "Collect", "Holds the collector at a temperature by the pump's speed: water that is warm enough at once.",
            "Let the speed of {output} hold the {probe} at {target_c}, within {within_k}.", "A step of {step} every {every_s}, between {floor} and {top} of full speed, rounded to {grain}, by {drive}.", Priority::collect},
        {"mixing_limit", "Mixing limit", "Protect", "Keeps water that is too hot from a slab: it cracks, and plastic pipe and floor finish suffer.",
            "Stop {output} when the {probe} reaches {limit_c}; allow again {hysteresis_k} below that.", "", Priority::limit},
        {"series_thermostat", "Thermostat in series", "Comfort", "The room is warm enough: the blower rests.",
            "Stop {output} when the {probe} reaches {limit_c}; allow again {hysteresis_k} below that.", "", Priority::limit},
        {"collector_minimum", "Collector minimum", "Comfort", "No run for lukewarm water.",
            "Hold {output} off while the {probe} is at {limit_c} or below; allow again {hysteresis_k} above that.", "", Priority::limit},
        {"freeze", "Freeze recirculation", "Freeze", "Sends warm water round before the pipe freezes. It fails with the power, and cools the store: only where frost is rare.",
            "Run {output} when the {probe} falls to {limit_c}; stop {hysteresis_k} above that.", "Watch the {second} too. Not once the {store} is down to {store_min_c}. In bursts of {burst_s} every {every_s}.", Priority::freeze},
        {"drain_down", "Drain-down", "Freeze", "The valve falls open and empties the loop before it freezes, also when the power fails.",
            "Hold {output} shut; let it fall open when the {probe} falls to {limit_c}; shut it again {hysteresis_k} above that.", "Meanwhile {pump} rests.", Priority::freeze},
        {"night_cooling", "Night cooling", "Protect", "Gives the store's heat back to the night sky when nobody draws it.",
            "Cool with {output} once the {store} is at {from_c}, down to {until_c}, while the {source} is {colder_k} colder, from {from_h} to {to_h}.", "Only while nobody is at home: {away_only}.", Priority::dump},
        {"drain_time", "Drain time", "Protect", "A pump that starts into a draining array meets air. Even ON waits.",
            "After a stop, and after power returns, hold {output} off for {drain_s} while the array drains.", "", Priority::hold},
        {"fill", "Filling", "Protect", "Full speed lifts the water to the top; water that enters a hot empty collector flashes to steam.",
            "Start {output} at {boost} of full speed for {boost_s}; never while the {probe} is at {lockout_c}.", "Allow a start again {hysteresis_k} below that.", Priority::limit},
        {"dry_run", "Dry-run guard", "Protect", "Water that comes round changes what a probe in the return reads; where nothing changes, the pump runs dry. Even ON is stopped.",
            "Stop {output} when the {probe} has not changed by {change_k} within {check_s} of a start; try again after {pause_s}.", "Give up after {retries} retries, until the switch is moved to OFF.", Priority::hold},
        {"low_voltage", "Low voltage", "Protect", "A battery that is drawn empty dies. Even ON is stopped.",
            "Cut {output} off when the supply stays at {cut_v} or below for {delay_s}; reconnect at {reconnect_v} after {reconnect_s}.", "", Priority::hold},
        {"look", "Look", "Collect", "In a tube manifold the probe learns little until fluid moves.",
            "While the sun is likely, from {from_h} to {to_h} and with the {probe} at {least_c}, run {output} for {run_s} every {every_s}.", "", Priority::collect},
        {"heating", "Backup heating", "Heat", "Warms the store when the sun has not.",
            "Heat with {output} by the {probe}: from {from_1_h} to {to_1_h} on at {on_1_c}, off at {off_1_c}.", "From {from_2_h} to {to_2_h} on at {on_2_c}, off at {off_2_c}; from {from_3_h} to {to_3_h} on at {on_3_c}, off at {off_3_c}. Not while {unless} runs.", Priority::heat},
        {"heat_once", "Heat once", "Heat", "One heating on demand, from a press of the button.",
            "When the button is pressed heat with {output} until the {probe} reaches {target_c}, once.", "In a simulated day it is pressed at {press_h}.", Priority::heat},
        {"disinfection", "Disinfection", "Heat", "Legionella grows in warm water. Heat it at the coldest stored point, as often and as long as local codes ask; and temper the taps, such water scalds.",
            "When the {probe} has not stood at {target_c} for {hold_s} within {every_days} days, heat with {output} until it has.", "It last did {last_days} days before the unit was switched on.", Priority::heat},
        {"thermostat", "Thermostat", "Heat", "Any output by any probe: on below and off above heats, the other way round cools.",
            "Switch {output} on when the {probe} comes to {on_c}, off at {off_c}, from {from_1_h} to {to_1_h}.", "Also from {from_2_h} to {to_2_h} and from {from_3_h} to {to_3_h}.", Priority::heat},
        {"timer", "Timer", "Heat", "Any output by the clock.",
            "Switch {output} on from {from_1_h} to {to_1_h}.", "Also from {from_2_h} to {to_2_h} and from {from_3_h} to {to_3_h}.", Priority::heat},
        {"exercise", "Exercise", "Heat", "A pump that stands for months seizes.",
            "When {output} has stood for {every_days} days run it for {run_s}.", "", Priority::heat},
        {"follow", "Follower", "Collect", "A valve that opens with a pump, a pump that waits for its valve, a second pump.",
            "Run {output} once {leader} has been on for {delay_s}; stop it {run_on_s} after {leader}.", "", Priority::collect},
    };
    return table;
}

const RuleKind& kind_of(const Rule& rule) { return rule_kinds()[rule.body.index()]; }

} // namespace vernal
