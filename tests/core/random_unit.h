// Random units of every kind of rule, and random samples for them.
#pragma once

#include "core/rules/rule_set.h"

namespace vernal::random_unit {

// How much a unit may have.
struct Scale {
    std::vector<std::string> probes{"S1", "S2", "S3", "F1", "G1", "E1"}, outputs{"P1", "P2", "V1"};
    std::vector<Reads> reads{Reads::temperature, Reads::temperature, Reads::temperature, Reads::flow, Reads::pressure, Reads::irradiance};
    std::vector<std::string> that_read(Reads what) const
    {
        std::vector<std::string> out;
        for (std::size_t i = 0; i < probes.size(); ++i)
            if (reads[i] == what)
                out.push_back(probes[i]);
        return out;
    }
    int rules = 12;
};
// All that there is room for.
inline Scale full_scale()
{
    Scale s{{}, {}, {}, static_cast<int>(max_rules)};
    for (std::size_t i = 1; i <= max_probes; ++i)
        s.probes.push_back("S" + std::to_string(i));
    s.reads.assign(max_probes, Reads::temperature);
    s.reads[12] = Reads::irradiance;
    s.reads[13] = Reads::pressure;
    s.reads[15] = Reads::flow;
    for (std::size_t i = 1; i <= max_outputs; ++i)
        s.outputs.push_back("P" + std::to_string(i));
    return s;
}

// Draws parts of a unit. pick(lo, hi): a whole number from lo up to, not including, hi.
template <class Pick>
struct Draws {
    Pick& pick;
    const Scale& scale;
    int guards = 0;
    std::string one_of(const std::vector<std::string>& from) { return from[static_cast<std::size_t>(pick(0, static_cast<int>(from.size())))]; }
    std::string probe(Reads reads = Reads::temperature) { return pick(0, 30) == 0 ? std::string("S99") : one_of(pick(0, 30) == 0 ? scale.probes : scale.that_read(reads)); }
    std::string maybe(const std::string& key) { return pick(0, 2) == 0 ? std::string() : key; }
    TempDiff kelvin(int lo, int hi) { return TempDiff::kelvin(pick(lo, hi)); }
    Temperature celsius(int lo, int hi) { return Temperature::celsius(pick(lo, hi)); }
    double s(int hi) { return static_cast<double>(pick(0, hi)); }
    double hour() { return 10 + pick(0, 40) * 0.1; }
    InputConditioning conditioning() { return {pick(0, 3) == 0 ? s(15) : 0, pick(0, 4) == 0 ? s(60) : 0}; }
    SpeedRange range() { return {0.1 * pick(1, 6), 0.1 * pick(3, 11), 0.05 * pick(1, 5), pick(0, 2) ? 0.01 : 0.1, DriveKind::pwm}; }
    std::array<ClockWindow, 3> windows() { return {ClockWindow{hour(), hour()}, pick(0, 3) ? ClockWindow{} : ClockWindow{hour(), hour()}, pick(0, 6) ? ClockWindow{} : ClockWindow{0, 23 + 59.0 / 60}}; }

    Output output(const std::string& key)
    {
        Output o{key, ""};
        o.on_timeout_s = pick(0, 3) * 4;
        o.bypass = pick(0, 40) == 0;
        o.auto_after_power = pick(0, 4) == 0;
        if (pick(0, 2) == 0)
            for (const std::string& p : scale.probes)
                o.faults.push_back({p, pick(0, 2) ? OnFault::carry_on : static_cast<OnFault>(pick(0, 3))});
        return o;
    }

    Freeze freeze(const std::string& a, const std::string& b, TempDiff h)
    {
        Freeze f{a, maybe(b), celsius(10, 25), h, maybe(a == "S3" ? "S2" : "S3")};
        f.store_min = celsius(15, 25);
        f.burst_s = pick(0, 2) ? s(15) : 0;
        f.every_s = s(60);
        return f;
    }

    Heating heating(const std::string& a, const std::string& other)
    {
        Heating x{a, {}, maybe(other)};
        for (HeatWindow& w : x.windows)
            w = {hour(), pick(0, 2) ? hour() : 0.0, celsius(15, 35), celsius(20, 45)};
        return x;
    }

    // At most two guards count, dry-run and flow guards together.
    decltype(Rule::body) kind()
    {
        const std::string a = probe(), b = probe(), other = one_of(scale.outputs);
        const TempDiff h = kelvin(-1, 6);
        decltype(Rule::body) body = Differential{a, b, kelvin(2, 6), kelvin(-1, 3), {}};
        switch (pick(0, 43)) {
        case 0: body = Differential{a, b, kelvin(0, 10), kelvin(-2, 8), conditioning()}; break;
        case 1: body = StoreLimit{a, celsius(20, 45), h, kelvin(0, 4), pick(0, 2) ? "" : b}; break;
        case 2: body = CutOut{a, celsius(25, 50), h}; break;
        case 3: body = Divert{a, celsius(20, 50), h}; break;
        case 4:
        case 32: body = RunTimes{s(12), s(12), pick(0, 2) ? s(20) : 0}; break;
        case 5: body = LinkedDifference{a, b, s(11), conditioning()}; break;
        case 6: body = FixedDifference{a, celsius(20, 35), kelvin(0, 8), kelvin(-2, 6)}; break;
        case 7: body = SecondStore{other, a, b, kelvin(0, 10), kelvin(-2, 8), s(60), s(15)}; break;
        case 8: body = SpeedByDifference{a, b, kelvin(-2, 5), TempDiff::kelvin(0.5 * pick(1, 6)), range()}; break;
        case 9: body = SpeedToRise{a, b, kelvin(1, 8), kelvin(0, 3), s(12) + 1, range()}; break;
        case 10: body = SpeedToTemperature{a, celsius(20, 40), kelvin(0, 3), s(12) + 1, range()}; break;
        case 11: body = MixingLimit{a, celsius(25, 50), h}; break;
        case 12: body = SeriesThermostat{a, celsius(25, 50), h}; break;
        case 13: body = CollectorMinimum{a, celsius(10, 30), h}; break;
        case 14: body = freeze(a, b, h); break;
        case 15:
        case 33: body = DrainDown{a, celsius(10, 20), h, maybe(other)}; break;
        case 16: body = NightCooling{a, b, celsius(25, 45), celsius(18, 40), kelvin(0, 8), hour(), hour(), pick(0, 2) == 0}; break;
        case 17:
        case 34: body = DrainTime{s(20)}; break;
        case 18: body = Fill{s(20), 0.1 * pick(3, 11), maybe(a), celsius(25, 50), h}; break;
        case 19:
            if (++guards <= 2)
                body = DryRun{a, kelvin(1, 6), s(30) + 1, s(40), s(4)};
            break;
        case 20: body = LowVoltage{11 + 0.1 * pick(0, 10), 11.3 + 0.1 * pick(0, 15), s(10), s(20)}; break;
        case 21: body = Look{a, celsius(15, 35), s(90) + 5, s(20) + 1, hour(), hour()}; break;
        case 22: body = heating(a, other); break;
        case 23: body = HeatOnce{a, celsius(20, 45), 0}; break;
        case 24: body = Disinfection{a, celsius(20, 40), s(20), pick(1, 100) * 2e-4, pick(0, 2) ? 0 : pick(0, 100) * 1e-4}; break;
        case 25: body = Thermostat{a, celsius(15, 40), celsius(15, 40), windows()}; break;
        case 26: body = Timer{windows(), pick(0, 2) ? s(15) : 0, s(60), pick(0, 3) ? 1.0 : pick(1, 367), pick(0, 3) ? 366.0 : pick(1, 367)}; break;
        case 27: body = Exercise{pick(1, 60) * 1e-4, s(15) + 1}; break;
        case 28:
        case 35: body = Follow{other, s(15), s(15)}; break;
        case 29:
        case 30: body = TapCirculation{maybe(a), maybe(b), windows(), celsius(15, 40), celsius(18, 45), celsius(15, 40), h}; break;
        case 38:
            if (++guards <= 2)
                body = FlowGuard{probe(Reads::flow), (pick(0, 30) == 0 ? 0 : pick(12, 40)) * 1e-3 / 60, s(30) + 1, s(40), s(4)};
            break;
        case 39:
        case 40: body = PressureAlarm{probe(Reads::pressure), pick(0, 3) == 0 ? 0 : pick(12, 30) * 1e5, pick(0, 3) == 0 ? 0 : pick(25, 50) * 1e5, pick(0, 6) * 1e5, s(20)}; break;
        case 41:
        case 42: body = SunStart{probe(Reads::irradiance), static_cast<double>(pick(20, 45)), static_cast<double>(pick(12, 40)), conditioning()}; break;
        default: break;
        }
        return body;
    }
};

template <class Pick>
RuleSet unit(Pick pick, const Scale& scale = {})
{
    Draws<Pick> draw{pick, scale};
    RuleSet set;
    for (const std::string& key : scale.outputs)
        set.outputs.push_back(draw.output(key));
    set.fault_return_s = pick(0, 5);
    set.sample_s = pick(1, 4);
    set.power_wait_s = pick(0, 3) == 0 ? draw.s(20) : 0;
    set.knob = {0, 10, TempDiff::kelvin(2), TempDiff::kelvin(0), TempDiff::kelvin(9), TempDiff::kelvin(5), KnobLaw::even};
    const int n = pick(0, scale.rules + 1);
    for (int i = 0; i < n; ++i) {
        Rule r{pick(0, 40) == 0 ? "P99" : draw.one_of(scale.outputs), pick(0, 9) != 0, {}};
        r.body = draw.kind();
        set.rules.push_back(r);
    }
    sort_by_priority(set.rules);
    return set;
}

// The sample after `before`.
template <class Pick>
Inputs inputs(const RuleSet& set, const Inputs& before, Pick pick, const Scale& scale = {})
{
    Inputs in = before;
    for (std::size_t p = 0; p < scale.probes.size(); ++p) {
        in.readings[p].mk = std::clamp(in.readings[p].mk + pick(-30, 31) * 100, 10000, 50000);
        in.readings[p].valid = pick(0, in.readings[p].valid ? 60 : 3) != 0; // a lost one stays lost for a while
    }
    Reading& supply = in.readings[supply_channel];
    supply.mk = std::clamp(supply.mk + pick(-2, 3) * 100, 10500, 14000);
    supply.valid = pick(0, 100) != 0;
    if (pick(0, 25) == 0)
        in.modes[static_cast<std::size_t>(pick(0, static_cast<int>(scale.outputs.size())))] = static_cast<Mode>(pick(0, 2) ? 1 : pick(0, 3));
    if (pick(0, 300) == 0)
        in.away = !in.away;
    in.pressed = pick(0, 200) == 0 ? ~std::uint64_t{0} : 0;
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
