// How an output that can turn slower does so; for the kinds that set a speed.
#pragma once

#include "shared.h"

namespace vernal {

// pwm: the pump turns slower. bursts: it gets full power for a share of the time.
enum class DriveKind : std::uint8_t { pwm,
    bursts };

// Shares of full speed.
struct SpeedRange {
    double floor = 0.35, top = 1.0, step = 0.1, resolution = 0.01;
    DriveKind drive = DriveKind::pwm;
    bool operator==(const SpeedRange&) const = default;
};

inline constexpr NumberField within_field{"within_k", "within", Quantity::difference, 0, 20, "Half a step's effect, or the speed hunts"};
inline constexpr NumberField every_field{"every_s", "A step every", Quantity::duration, 1, 3600, "As long as the water needs through the collector"};

template <class V, class T>
void range_fields(V& v, T& r)
{
    v.number({"step", "Step", Quantity::ratio, 0.01, 1, "2 to 25 % (estimate)"}, r.step);
    v.number({"floor", "Minimum speed", Quantity::ratio, 0.05, 1, "What still lifts to the top of the array: head goes with the square of the speed"}, r.floor);
    v.number({"top", "Maximum speed", Quantity::ratio, 0.05, 1, ""}, r.top);
    v.number({"resolution", "Output resolution", Quantity::fine_ratio, 0.001, 0.5, "What the output resolves: PWM 1 %, bursts 10 % (estimate)"}, r.resolution);
    static constexpr std::array drives{"pwm", "bursts"};
    v.choice("drive", drives, r.drive);
}

// The output and the probes of the difference in use; false: there is none.
inline bool take_over(const FreshContext& loop, std::string& output, std::string& source, std::string& store)
{
    if (!loop.difference)
        return false;
    output = loop.difference_output;
    source = loop.difference->source;
    store = loop.difference->store;
    return true;
}

// The speed's part that its range says; the rule adds what it follows.
inline Speed speed_in(const SpeedRange& r, Speed::Kind kind)
{
    Speed x;
    x.kind = kind;
    x.step_pm = std::max(1, RuleCompiler::per_mille(r.step));
    x.resolution_pm = std::max(1, RuleCompiler::per_mille(r.resolution));
    x.floor_pm = RuleCompiler::per_mille(r.floor);
    x.top_pm = RuleCompiler::per_mille(r.top);
    x.bursts = r.drive == DriveKind::bursts;
    return x;
}

// One step up or down every `every_s` while further than `within` from a value of plus less minus.
inline void compile_seeking(RuleCompiler& c, const SpeedRange& range, std::uint8_t plus, std::uint8_t minus, double target, TempDiff within, double every_s, const char* target_field = "")
{
    Speed x = speed_in(range, Speed::Kind::target);
    x.plus = plus;
    x.minus = minus;
    x.at_mk = in_milli(target);
    x.per_mk = in_milli(within.in_kelvin());
    x.every_ms = std::max<Millis>(1, RuleCompiler::millis(every_s));
    c.speed(x, target_field);
}

} // namespace vernal
