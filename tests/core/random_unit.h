// Random units of every kind of rule, and random samples for them.
#pragma once

#include "core/rules/rule_set.h"

namespace vernal::random_unit {

inline const std::vector<std::string> probes{"S1", "S2", "S3"};
inline const std::vector<std::string> outputs{"P1", "P2", "V1"};

// pick(lo, hi): a whole number from lo up to, not including, hi.
template <class Pick>
RuleSet unit(Pick pick)
{
    const auto one_of = [&](const std::vector<std::string>& from) { return from[static_cast<std::size_t>(pick(0, static_cast<int>(from.size())))]; };
    const auto probe = [&] { return pick(0, 30) == 0 ? std::string("S9") : one_of(probes); };
    const auto maybe = [&](const std::string& key) { return pick(0, 2) == 0 ? std::string() : key; };
    const auto kelvin = [&](int lo, int hi) { return TempDiff::kelvin(pick(lo, hi)); };
    const auto celsius = [&](int lo, int hi) { return Temperature::celsius(pick(lo, hi)); };
    const auto s = [&](int hi) { return static_cast<double>(pick(0, hi)); };
    const auto hour = [&] { return 10 + pick(0, 40) * 0.1; };
    RuleSet set;
    for (const std::string& key : outputs) {
        Output o{key, ""};
        o.on_timeout_s = pick(0, 3) * 4;
        o.bypass = pick(0, 40) == 0;
        o.auto_after_power = pick(0, 4) == 0;
        if (pick(0, 3) == 0)
            o.faults = {{one_of(probes), static_cast<OnFault>(pick(0, 3))}, {one_of(probes), static_cast<OnFault>(pick(0, 3))}};
        set.outputs.push_back(o);
    }
    set.fault_return_s = pick(0, 5);
    set.sample_s = pick(1, 4);
    set.power_wait_s = pick(0, 3) == 0 ? s(20) : 0;
    set.knob = {0, 10, TempDiff::kelvin(2), TempDiff::kelvin(0), TempDiff::kelvin(9), TempDiff::kelvin(5), KnobLaw::even};
    const auto conditioning = [&] { return InputConditioning{pick(0, 3) == 0 ? s(15) : 0, pick(0, 4) == 0 ? s(60) : 0}; };
    const auto range = [&] {
        SpeedRange r{0.1 * pick(1, 6), 0.1 * pick(3, 11), 0.05 * pick(1, 5), pick(0, 2) ? 0.01 : 0.1, DriveKind::pwm};
        return r;
    };
    const auto windows = [&] { return std::array{ClockWindow{hour(), hour()}, pick(0, 3) ? ClockWindow{} : ClockWindow{hour(), hour()}, pick(0, 6) ? ClockWindow{} : ClockWindow{0, 23 + 59.0 / 60}}; };
    const int n = pick(0, 13);
    int guards = 0;
    for (int i = 0; i < n; ++i) {
        Rule r{pick(0, 40) == 0 ? "P9" : one_of(outputs), pick(0, 9) != 0, {}};
        const std::string a = probe(), b = probe(), other = one_of(outputs);
        const TempDiff h = kelvin(-1, 6);
        switch (pick(0, 32)) {
        case 0: r.body = Differential{a, b, kelvin(0, 10), kelvin(-2, 8), conditioning()}; break;
        case 1: r.body = StoreLimit{a, celsius(20, 45), h, kelvin(0, 4), pick(0, 2) ? "" : b}; break;
        case 2: r.body = CutOut{a, celsius(25, 50), h}; break;
        case 3: r.body = Divert{a, celsius(20, 50), h}; break;
        case 4: r.body = RunTimes{s(12), s(12), pick(0, 2) ? s(20) : 0}; break;
        case 5: r.body = LinkedDifference{a, b, s(11), conditioning()}; break;
        case 6: r.body = FixedDifference{a, celsius(20, 35), kelvin(0, 8), kelvin(-2, 6)}; break;
        case 7: r.body = SecondStore{other, a, b, kelvin(0, 10), kelvin(-2, 8), s(60), s(15)}; break;
        case 8: r.body = SpeedByDifference{a, b, kelvin(-2, 5), TempDiff::kelvin(0.5 * pick(1, 6)), range()}; break;
        case 9: r.body = SpeedToRise{a, b, kelvin(1, 8), kelvin(0, 3), s(12) + 1, range()}; break;
        case 10: r.body = SpeedToTemperature{a, celsius(20, 40), kelvin(0, 3), s(12) + 1, range()}; break;
        case 11: r.body = MixingLimit{a, celsius(25, 50), h}; break;
        case 12: r.body = SeriesThermostat{a, celsius(25, 50), h}; break;
        case 13: r.body = CollectorMinimum{a, celsius(10, 30), h}; break;
        case 14: r.body = Freeze{a, {}, celsius(10, 25), h, {}}; break;
        case 15: r.body = DrainDown{a, celsius(10, 20), h, maybe(other)}; break;
        case 16: r.body = NightCooling{a, b, celsius(25, 45), celsius(18, 40), kelvin(0, 8), hour(), hour(), pick(0, 2) == 0}; break;
        case 17: r.body = DrainTime{s(20)}; break;
        case 18: r.body = Fill{s(20), 0.1 * pick(3, 11), maybe(a), celsius(25, 50), h}; break;
        case 19:
            if (++guards <= 2)
                r.body = DryRun{a, kelvin(1, 6), s(30) + 1, s(40), s(4)};
            break;
        case 20: r.body = LowVoltage{11 + 0.1 * pick(0, 10), 11.3 + 0.1 * pick(0, 15), s(10), s(20)}; break;
        case 21: r.body = Look{a, celsius(15, 35), s(90) + 5, s(20) + 1, hour(), hour()}; break;
        case 22: {
            Heating x{a, {}, maybe(other)};
            for (HeatWindow& w : x.windows)
                w = {hour(), pick(0, 2) ? hour() : 0.0, celsius(15, 35), celsius(20, 45)};
            r.body = x;
            break;
        }
        case 23: r.body = HeatOnce{a, celsius(20, 45), 0}; break;
        case 24: r.body = Disinfection{a, celsius(20, 40), s(20), pick(1, 100) * 2e-4, pick(0, 2) ? 0 : pick(0, 100) * 1e-4}; break;
        case 25: r.body = Thermostat{a, celsius(15, 40), celsius(15, 40), windows()}; break;
        case 26: r.body = Timer{windows(), pick(0, 2) ? s(15) : 0, s(60), pick(0, 3) ? 1.0 : pick(1, 367), pick(0, 3) ? 366.0 : pick(1, 367)}; break;
        case 27: r.body = Exercise{pick(1, 60) * 1e-4, s(15) + 1}; break;
        case 28: r.body = Follow{other, s(15), s(15)}; break;
        case 29:
        case 30: r.body = TapCirculation{maybe(a), maybe(b), windows(), celsius(15, 40), celsius(18, 45), celsius(15, 40), h}; break;
        default: r.body = Differential{a, b, kelvin(2, 6), kelvin(-1, 3), {}};
        }
        if (auto* f = std::get_if<Freeze>(&r.body)) {
            f->second = maybe(b);
            f->store = maybe(a == "S3" ? "S2" : "S3");
            f->store_min = celsius(15, 25);
            f->burst_s = pick(0, 2) ? s(15) : 0;
            f->every_s = s(60);
        }
        set.rules.push_back(r);
    }
    sort_by_priority(set.rules);
    return set;
}

// The sample after `before`.
template <class Pick>
Inputs inputs(const RuleSet& set, const Inputs& before, Pick pick)
{
    Inputs in = before;
    for (std::size_t p = 0; p < probes.size(); ++p) {
        in.readings[p].mk = std::clamp(in.readings[p].mk + pick(-30, 31) * 100, 10000, 50000);
        in.readings[p].valid = pick(0, 60) != 0;
    }
    Reading& supply = in.readings[supply_channel];
    supply.mk = std::clamp(supply.mk + pick(-2, 3) * 100, 10500, 14000);
    supply.valid = pick(0, 100) != 0;
    if (pick(0, 25) == 0)
        in.modes[static_cast<std::size_t>(pick(0, 3))] = static_cast<Mode>(pick(0, 2) ? 1 : pick(0, 3));
    if (pick(0, 300) == 0)
        in.away = !in.away;
    in.pressed = pick(0, 200) == 0 ? ~0U : 0U;
    const auto sample_ms = static_cast<Millis>(set.sample_s * 1000);
    if (in.clock_ms < 0)
        in.clock_ms = pick(0, 20) ? -1 : 36'000'000;
    else
        in.move_clock(sample_ms);
    if (pick(0, 1000) == 0)
        in.clock_ms = pick(0, 2) ? -1 : pick(0, 86'400) * Millis{1000};
    if (pick(0, 1000) == 0)
        in.date = pick(0, 5) ? pick(14'000, 25'000) : no_date;
    if (pick(0, 500) == 0) // close before a midnight
        in.clock_ms = day_ms - 3 * sample_ms;
    return in;
}

inline Inputs first_inputs()
{
    Inputs in;
    in.clock_ms = 36'000'000;
    in.date = 20'000;
    in.readings[0].mk = 30000;
    in.readings[1].mk = 25000;
    in.readings[2].mk = 28000;
    in.readings[supply_channel].mk = 12500;
    return in;
}

} // namespace vernal::random_unit
