// The kinds of rules as a person sets them. Temperatures, differences in kelvin,
// times in seconds where a name ends in _s, hours of the day in _h. Texts are
// keys of probes or outputs; where a comment says so they may be empty.
#pragma once

#include "core/units/temperature.h"

#include <array>
#include <cstdint>
#include <string>

namespace vernal {

// How a difference rule takes its readings.
struct InputConditioning {
    double confirm_s = 0; // starts once the difference has stood so long
    double average_s = 0; // time constant of the readings it looks at
    bool operator==(const InputConditioning&) const = default;
};

// Start when source is `on` above store; stop at `off`. off < on.
struct Differential {
    std::string source, store;
    TempDiff on = TempDiff::kelvin(8), off = TempDiff::kelvin(4);
    InputConditioning conditioning{};
    bool operator==(const Differential&) const = default;
};

// The pair that the unit's one knob gives at this mark.
struct LinkedDifference {
    std::string source, store;
    double mark = 5;
    InputConditioning conditioning{};
    bool operator==(const LinkedDifference&) const = default;
};

// Against a fixed value in place of a store probe.
struct FixedDifference {
    std::string source;
    Temperature reference = Temperature::celsius(22);
    TempDiff on = TempDiff::kelvin(10), off = TempDiff::kelvin(4);
    bool operator==(const FixedDifference&) const = default;
};

// A second store behind a valve, loaded while no difference rule of the same
// output without a valve asks; it stands back now and then to look whether one would.
struct SecondStore {
    std::string valve; // output
    std::string source, store;
    TempDiff on = TempDiff::kelvin(8), off = TempDiff::kelvin(4);
    double look_every_s = 1800, look_for_s = 120; // either 0: no looks
    bool operator==(const SecondStore&) const = default;
};

// pwm: the pump turns slower. bursts: it gets full power for a share of the time.
enum class DriveKind : std::uint8_t { pwm,
    bursts };

// Shares of full speed.
struct SpeedRange {
    double floor = 0.3, top = 1.0, step = 0.1, resolution = 0.01;
    DriveKind drive = DriveKind::pwm;
    bool operator==(const SpeedRange&) const = default;
};

// One step faster for every `per` that the difference is above `above`.
struct SpeedByDifference {
    std::string source, store;
    TempDiff above = TempDiff::kelvin(8), per = TempDiff::kelvin(2);
    SpeedRange range{};
    bool operator==(const SpeedByDifference&) const = default;
};

// One step up or down every so often while further than `within` from the rise.
struct SpeedToRise {
    std::string source, store;
    TempDiff rise = TempDiff::kelvin(10), within = TempDiff::kelvin(1);
    double every_s = 15;
    SpeedRange range{};
    bool operator==(const SpeedToRise&) const = default;
};

struct SpeedToTemperature {
    std::string probe;
    Temperature target = Temperature::celsius(65);
    TempDiff within = TempDiff::kelvin(1);
    double every_s = 15;
    SpeedRange range{};
    bool operator==(const SpeedToTemperature&) const = default;
};

// Block at limit, release at limit − hysteresis. hysteresis > 0.
// The parameters are the values a new one begins with, °C and K.
template <int LimitC, int HysteresisK>
struct HighLimit {
    std::string probe;
    Temperature limit = Temperature::celsius(LimitC);
    TempDiff hysteresis = TempDiff::kelvin(HysteresisK);
    bool operator==(const HighLimit&) const = default;
};
using CutOut = HighLimit<125, 15>;
// The other way round: switches on at the limit, off below it. A diverting
// valve, an emergency cooler and the pump that must run for it.
using Divert = HighLimit<90, 8>;
using MixingLimit = HighLimit<45, 4>;      // of what goes to a slab
using SeriesThermostat = HighLimit<21, 1>; // of the room that air is blown to
// Block at limit and below, release at limit + hysteresis.
using CollectorMinimum = HighLimit<25, 3>;

struct StoreLimit {
    std::string probe;
    Temperature limit = Temperature::celsius(70);
    TempDiff hysteresis = TempDiff::kelvin(4);
    TempDiff allowance{};     // the hottest water is so much hotter than the probe: acts that much sooner
    std::string only_store{}; // stops only what loads this store; empty: the output
    bool operator==(const StoreLimit&) const = default;
};

// Warm water of the store goes round while the probe is near freezing.
struct Freeze {
    std::string probe, second; // either; second may be empty
    Temperature limit = Temperature::celsius(4);
    TempDiff hysteresis = TempDiff::kelvin(3);
    std::string store;                               // may be empty: never asked
    Temperature store_min = Temperature::celsius(8); // not below this
    double burst_s = 0, every_s = 900;               // burst_s 0: all the time
    bool operator==(const Freeze&) const = default;
};

// A valve that is held shut and falls open, emptying the loop.
struct DrainDown {
    std::string probe;
    Temperature limit = Temperature::celsius(4);
    TempDiff hysteresis = TempDiff::kelvin(4);
    std::string pump; // output that rests meanwhile; may be empty
    bool operator==(const DrainDown&) const = default;
};

struct NightCooling {
    std::string store, source;
    Temperature from = Temperature::celsius(65), until = Temperature::celsius(50);
    TempDiff colder = TempDiff::kelvin(10); // the collector, at least; half of it ends the cooling
    double from_h = 22, to_h = 6;
    bool away_only = true;
    bool operator==(const NightCooling&) const = default;
};

// Comfort timers; they never delay a protection. 0: none.
struct RunTimes {
    double min_run_s = 0;
    double min_off_s = 0;
    double run_on_s = 0; // after no demand any more
    bool operator==(const RunTimes&) const = default;
};

// Even ON does not start the pump while the array drains.
struct DrainTime {
    double drain_s = 180;
    bool operator==(const DrainTime&) const = default;
};

struct Fill {
    double boost_s = 120, boost = 1.0; // share of full speed
    std::string probe;
    Temperature lockout = Temperature::celsius(95); // no start above it
    TempDiff hysteresis = TempDiff::kelvin(10);
    bool operator==(const Fill&) const = default;
};

// Water that comes round changes what a probe in the return reads.
struct DryRun {
    std::string probe;
    TempDiff change = TempDiff::kelvin(2);
    double check_s = 240, pause_s = 900;
    double retries = 3;
    bool operator==(const DryRun&) const = default;
};

struct LowVoltage {
    double cut_v = 11.5, reconnect_v = 12.6;
    double delay_s = 5, reconnect_s = 60;
    bool operator==(const LowVoltage&) const = default;
};

struct Look {
    std::string probe;
    Temperature least = Temperature::celsius(25);
    double every_s = 1800, run_s = 30;
    double from_h = 8, to_h = 18;
    bool operator==(const Look&) const = default;
};

// Hours of the day; equal: none; end before start: over midnight.
struct ClockWindow {
    double from_h = 0, to_h = 0;
    bool operator==(const ClockWindow&) const = default;
};

struct HeatWindow {
    double from_h = 0, to_h = 0;
    Temperature on = Temperature::celsius(45), off = Temperature::celsius(50);
    bool operator==(const HeatWindow&) const = default;
};

struct Heating {
    std::string probe;
    std::array<HeatWindow, 3> windows{HeatWindow{4, 8}, {}, {}};
    std::string unless; // not while this output runs; may be empty
    bool operator==(const Heating&) const = default;
};

// From a press of the button until the target is reached, once.
struct HeatOnce {
    std::string probe;
    Temperature target = Temperature::celsius(55);
    double press_h = 0; // where a day is simulated: hour at which the button is pressed
    bool operator==(const HeatOnce&) const = default;
};

struct Disinfection {
    std::string probe; // at the coldest stored point
    Temperature target = Temperature::celsius(60);
    double hold_s = 1800;
    double every_days = 7, last_days = 0; // last reached so many days before power-up
    bool operator==(const Disinfection&) const = default;
};

// on < off heats, on > off cools.
struct Thermostat {
    std::string probe;
    Temperature on = Temperature::celsius(40), off = Temperature::celsius(45);
    std::array<ClockWindow, 3> windows{ClockWindow{0, 23 + 59.0 / 60}, {}, {}};
    bool operator==(const Thermostat&) const = default;
};

struct Timer {
    std::array<ClockWindow, 3> windows{ClockWindow{6, 8}, {}, {}};
    bool operator==(const Timer&) const = default;
};

struct Exercise {
    double every_days = 7, run_s = 20;
    bool operator==(const Exercise&) const = default;
};

struct Follow {
    std::string leader; // output
    double delay_s = 0, run_on_s = 0;
    bool operator==(const Follow&) const = default;
};

} // namespace vernal
