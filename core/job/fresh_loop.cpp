// What the answers bring to a fresh loop. Figures are those a technician can start
// from (estimates), not anybody's measured plant.
#include "fresh_loop.h"

#include "core/plant/collector_kinds.h"
#include "core/plant/hydraulic_state.h"
#include "core/plant/hydraulics.h"
#include "core/plant/passing.h"
#include "core/plant/vessel.h"
#include "core/plant/wiring.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

using Body = decltype(Rule::body);
void add(Variant& v, const char* output, Body body) { v.unit.rules.push_back(Rule{output, true, std::move(body)}); }

Probe probe(const char* key, const char* name, ProbePlace place, double lag_s = 20)
{
    Probe p;
    p.key = key;
    p.name = name;
    p.place = place;
    p.lag_s = lag_s;
    p.sensor.tolerance.kind = ToleranceKind::class_b;
    return p;
}

Differential difference(const char* source, const char* store, double on_k, double off_k) { return {source, store, TempDiff::kelvin(on_k), TempDiff::kelvin(off_k)}; }
template <class Limit>
Limit limit(const char* probe, double limit_c, double hysteresis_k) { return {probe, Temperature::celsius(limit_c), TempDiff::kelvin(hysteresis_k)}; }

// What the answers bring, each a bit: values of the parts, probes, outputs, rules.
class FreshLoop {
    static constexpr double least_burst_s = 90; // estimate
    static constexpr double hidden_k = 20;      // that a tank's top is warmer than a probe at its bottom shows

public:
    FreshLoop(Variant& v, const LoopAnswers& answers, int probes) : v_(v), a_(answers), loop_(arrangement_of(answers)), probes_(probes), top_(warmest_probe()) { v.loop.answers = answers; }

    void fill()
    {
        parts();
        first_outputs();
        if (by_itself()) {
            without_pump();
            circulation();
            return;
        }
        protection();
        collecting();
        second_array();
        drain_valve();
        exchanger_pump();
        second_tank();
        cooler();
        freeze();
        bare_in_the_cold();
        circulation();
        element();
        pumps();
        take_up();
    }

private:
    bool is(Store s) const { return a_.store == s; }
    bool by_itself() const { return a_.power == PoweredBy::none; }
    bool cools() const { return loop_.has(Part::cooler); }
    bool in_tanks() const { return is(Store::tank) || is(Store::two_tanks); }

    const char* warmest_probe() const
    {
        if (by_itself())
            return "S1";
        return probes_ > 2 && in_tanks() ? "S3" : "S2";
    }

    void parts()
    {
        array();
        Loop& l = v_.loop;
        switch (a_.store) {
        case Store::tank: break;
        case Store::two_tanks: l.tank_2 = {0.5, 3.2, 16, 420, 0.5}; break;
        case Store::pool:
            l.supply = l.back = {20, 18, 0.042, 0.9};
            l.pump = {1.4e-3, 420};
            break;
        case Store::slab:
            l.pump = {2.2e-4, 45};
            l.supply.bore_m = l.back.bore_m = 0.02;
            break;
        case Store::room:
            l.supply = l.back = {4, 1, 0.2, 1.2};
            l.pump = {0.13, 85};
            break;
        }
        if (loop_.drains)
            l.pump.power_w = 75;
        if (a_.array == Array::trickle) {
            l.pump.flow_m3_s = std::max(l.pump.flow_m3_s, 1.4 * l.collector.wetted_at_m3_s); // dirt in the header takes its part; estimate
            l.drain_back.siphon = false;
        }
        if (by_itself()) { // one panel, its tank above it, short pipes
            l.collector.area_m2 = 2.5;
            l.tank.volume_m3 = 0.18;
            l.supply = {1.5, 1.5, 0.022, 0.25, 5};
            l.back = {1.5, 1.5, 0.022, 0.25, 5};
            l.collector.drop_pa = 150;
        }
        if (a_.power == PoweredBy::panel)
            l.pump.power_w = 14;
        if (a_.power == PoweredBy::battery)
            l.pump.power_w = 18, l.battery.reconnect_v = 13; // charged for a while, not just in the sun
        // Laid out side by side for the flow: a large array does not throttle it.
        l.collector.drop_flow_m3_s = l.pump.flow_m3_s;
        l.wiring.unit_feed = a_.power == PoweredBy::battery ? UnitFeed::battery : a_.power == PoweredBy::panel ? UnitFeed::panel
                                                                                                               : UnitFeed::mains;
        l.cooler.indoors = a_.excess == Excess::house;
    }

    // Of the kind asked for, as large as the store wants it.
    void array()
    {
        double area_m2 = a_.array == Array::air ? 10 : is(Store::pool) ? 28
                                                   : is(Store::slab)   ? 14
                                                                       : 6;
        if (a_.array == Array::tubes)
            area_m2 *= 0.75;
        Collector& c = v_.loop.collector = collector_of(a_.array, area_m2);
        if (uncovered(a_.array) && is(Store::pool))
            c.tilt_deg = 20;
    }

    // A pump or valve of the loop, in the order of the loop's drivers.
    void first_outputs()
    {
        std::size_t pumps = 0, valves = 0;
        for (const Driver d : loop_.drivers) {
            const bool valve = d == Driver::valve || d == Driver::cooler_valve;
            const std::string key = valve ? "V" + std::to_string(++valves) : "P" + std::to_string(++pumps);
            const bool two = a_.fields == Fields::two;
            const char* name = d == Driver::pump             ? two ? "East pump" : "Loop pump"
                               : d == Driver::pump_2         ? "West pump"
                               : d == Driver::circulation    ? "Circulation pump"
                               : d == Driver::exchanger_pump ? "Tank pump"
                               : d == Driver::valve          ? "Valve to the second tank"
                                                             : "Valve to the cooler";
            v_.unit.outputs.push_back(Output{key, name, Mode::automatic, 0});
        }
    }
    const std::string& output(Driver d) const { return v_.unit.outputs[loop_.driven_by(d)].key; }

    // The pair, start over stop, K.
    std::pair<double, double> pair() const
    {
        if (is(Store::pool) && a_.transfer == Transfer::straight)
            return {3.6, 1.2};
        if (is(Store::room))
            return {12, 5};
        if (uncovered(a_.array)) // it warms what passes by little
            return {4.5, 1.2};
        if (a_.power == PoweredBy::battery)
            return {10, a_.fields == Fields::two || a_.array == Array::trickle ? 2 : 3}; // power saving: run when it pays; each of two has less sun, a film much flow
        return a_.power == PoweredBy::panel || a_.array == Array::tubes ? std::pair{10.0, 2.0} : std::pair{8.0, 2.0};
    }
    // An array that has emptied must not be filled while it boils water.
    double cut_out_c() const { return loop_.drains && composed() ? 95 : 125; }
    double cut_out_back_k() const { return loop_.drains && composed() ? 5 : 15; }
    // Where more stands between pump and probe than in the usual loops, a limit and a
    // cooler want more room, and looks fewer, or they switch all day.
    bool composed() const { return loop_.key.empty(); }
    double store_limit_c() const
    {
        switch (a_.store) {
        case Store::tank: return top_ == "S2" ? 85 : 70;                    // by the bottom it acts at what it hides below that
        case Store::two_tanks: return loop_.drains && composed() ? 75 : 85; // below the cut-out by what a collector is warmer
        case Store::pool: return 30;
        case Store::slab: return 45; // of the water that comes back: the slab is colder by what its pipes take to pass the heat on, and stays near 32
        case Store::room: return 22; // the room thermostat
        }
        return 70;
    }
    // How far a store at its limit must cool before it takes heat again, K; estimates. A pool loses
    // less than a kelvin in a night, a slab's return warms and cools within minutes.
    double limit_back_k() const
    {
        switch (a_.store) {
        case Store::tank:
        case Store::two_tanks: return 4;
        case Store::pool: return 0.5;
        case Store::slab: return 4;
        case Store::room: return 2;
        }
        return 4;
    }
    double rest_s() const
    {
        if (is(Store::room)) // its air warms and cools within minutes
            return 600;
        return loop_.drains ? 300 : 120;
    }
    RunTimes run_times(const Collector& c, const Pipe& supply, double flow_m3_s) const
    {
        // A start is kept on until what stood cold in the pipes has passed, and starts are kept apart;
        // a drain-back array wants time to drain. A longer rest over a slab makes more starts, not
        // fewer: what stands in the array gets hotter meanwhile, and its slug ends the next run.
        return {past_the_slug_s(c, supply, flow_m3_s), rest_s()};
    }

    // Calls f(pump's output, probe on the array) for each array that has its pump.
    template <class F>
    void each_array(F f) const
    {
        f(output(Driver::pump), std::string("S1"));
        if (a_.fields == Fields::two)
            f(output(Driver::pump_2), west_);
    }

    void add(const std::string& output, Body body) { vernal::add(v_, output.c_str(), std::move(body)); }
    std::string next_probe() const { return "S" + std::to_string(v_.probes.size() + 1); }

    // The loop pump with cut-out, limit on the warmest part of the store, the even-handed pair.
    void protection()
    {
        v_.probes = {probe("S1", a_.fields == Fields::two ? "East collector" : "Collector", ProbePlace::collector, 12)};
        v_.probes.push_back(probe("S2", place_names[static_cast<std::size_t>(loop_.places[1])], loop_.places[1]));
        if (top_ == "S3")
            v_.probes.push_back(probe("S3", "Tank top", ProbePlace::tank_top));
        if (a_.array == Array::tubes) {
            v_.probes[0].lag_s = 40;
            v_.probes[0].placement = 0.05;
        }
        add("P1", limit<CutOut>("S1", cut_out_c(), cut_out_back_k()));
        add("P1", store_limit());
    }
    StoreLimit store_limit() const
    {
        StoreLimit l = limit<StoreLimit>(top_.c_str(), store_limit_c(), limit_back_k());
        if (in_tanks() && top_ == "S2")
            l.allowance = TempDiff::kelvin(hidden_k);
        if (is(Store::two_tanks))
            l.only_store = "S2"; // each tank has its own difference and its own limit; the first comes first
        return l;
    }

    // Nothing is collected by a rule: the unit keeps the tank warm enough and clean.
    void without_pump()
    {
        v_.probes = {probe("S1", "Tank top", ProbePlace::tank_top)};
        if (probes_ > 1)
            v_.probes.push_back(probe("S2", "Tank bottom", ProbePlace::tank_bottom));
        if (a_.backup != Backup::element)
            return;
        Output element{"E1", "Element"};
        element.drives = Drives::element;
        v_.unit.outputs.push_back(element);
        v_.loop.element.set_c = 65; // over what disinfects
        v_.loop.element.height = 0.1;
        Heating heating;
        heating.probe = top_;
        add(element.key, heating);
        Disinfection clean;
        clean.probe = v_.probes.back().key;
        add(element.key, clean);
    }

    // By the clock, once the tank can keep its return warm; behind a heater that always can.
    // As a cooler it runs whatever the hour while the tank is about to be too warm.
    void circulation()
    {
        if (a_.circulation == Circulates::none)
            return;
        TapCirculation rule;
        if (a_.backup != Backup::heater_after) {
            rule.store = top_;
            rule.store_min = Temperature::celsius(60);
            rule.hysteresis = TempDiff::kelvin(4);
        }
        const std::string& pump = output(Driver::circulation);
        add(pump, rule);
        if (a_.excess == Excess::circulation)
            add(pump, limit<Divert>(top_.c_str(), store_limit_c() - (top_ == "S2" ? hidden_k + 5 : 5), 10));
    }

    void collecting()
    {
        const Loop& l = v_.loop;
        add("P1", run_times(l.collector, l.supply, l.pump.flow_m3_s));
        add("P1", difference("S1", "S2", pair().first, pair().second));
    }

    // A valve of its own that falls open and empties the array before it freezes.
    void drain_valve()
    {
        if (a_.empties != Empties::valve)
            return;
        const auto valves = std::count_if(loop_.drivers.begin(), loop_.drivers.end(), [](Driver d) { return d == Driver::valve || d == Driver::cooler_valve; });
        Output valve{"V" + std::to_string(valves + 1), "Drain-down valve"};
        valve.drives = Drives::drain_valve;
        v_.unit.outputs.push_back(valve);
        each_array([&](const std::string& pump, const std::string& source) {
            DrainDown drain;
            drain.probe = source;
            drain.pump = pump;
            drain.hysteresis = TempDiff::kelvin(a_.fields == Fields::two ? 30 : 20); // filled again only when the pump is about to start: water that stands in a cold pipe freezes
            add(valve.key, drain);
        });
    }

    // Starts with the loop pump: by the same rules where one pump and one store are all
    // there is, else by following.
    void exchanger_pump()
    {
        if (a_.transfer != Transfer::exchanger)
            return;
        v_.loop.exchanger_pump = {v_.loop.pump.flow_m3_s, is(Store::pool) ? 120.0 : 28.0};
        if (a_.exchanger_pumps == ExchangerPumps::one)
            return;
        const std::string own = output(Driver::exchanger_pump);
        if (a_.fields == Fields::two || is(Store::two_tanks) || cools() || loop_.drains || a_.carrier == Carrier::water) {
            for (const Driver leader : {Driver::pump, Driver::pump_2})
                if (loop_.output_of(leader) >= 0)
                    add(own, Follow{output(leader), 0, 120}); // what is warm in the exchanger is taken along
            return;
        }
        const Loop& l = v_.loop;
        add(own, store_limit());
        add(own, run_times(l.collector, l.supply, l.pump.flow_m3_s));
        add(own, difference("S1", "S2", pair().first, pair().second));
    }

    void second_array()
    {
        if (a_.fields == Fields::one)
            return;
        Loop& l = v_.loop;
        l.collector.azimuth_deg = -70;
        l.collector_2 = l.collector;
        l.collector_2.azimuth_deg = 70;
        l.supply_2 = l.supply;
        l.back_2 = l.back;
        l.pump_2 = l.pump;
        l.vessel.volume_m3 = 0.025;
        west_ = next_probe();
        v_.probes.push_back(probe(west_.c_str(), "West collector", ProbePlace::collector_2, v_.probes[0].lag_s));
        v_.probes.back().placement = v_.probes[0].placement;
        const std::string own = output(Driver::pump_2);
        add(own, limit<CutOut>(west_.c_str(), cut_out_c(), cut_out_back_k()));
        add(own, store_limit());
        add(own, run_times(l.collector_2, l.supply_2, l.pump_2.flow_m3_s));
        add(own, difference(west_.c_str(), "S2", pair().first, pair().second));
    }

    void second_tank()
    {
        if (!is(Store::two_tanks))
            return;
        const std::string& bottom = second_ = next_probe();
        v_.probes.push_back(probe(bottom.c_str(), "Second tank bottom", ProbePlace::tank_2_bottom));
        StoreLimit second = limit<StoreLimit>(bottom.c_str(), store_limit_c(), limit_back_k());
        second.allowance = TempDiff::kelvin(hidden_k);
        second.only_store = bottom;
        each_array([&](const std::string& pump, const std::string& source) {
            add(pump, second);
            if (composed() && source == "S1")
                add(output(Driver::valve), RunTimes{past_the_slug_s(v_.loop.collector, v_.loop.supply, v_.loop.pump.flow_m3_s), 0});
            add(pump, SecondStore{output(Driver::valve), source, bottom, TempDiff::kelvin(composed() ? 10 : 8), TempDiff::kelvin(2), composed() ? 3600.0 : 1800.0, 120});
        });
    }

    // The pump runs for the cooler even when the tank is full.
    void cooler()
    {
        if (!cools())
            return;
        // All the array gives at 60 K above the air; a larger one cools in fits.
        constexpr double cooler_w_m2k = 10;
        if (composed())
            v_.loop.cooler.ua_w_k = cooler_w_m2k * v_.loop.collector.area_m2 * (a_.fields == Fields::two ? 2 : 1);
        // The fullest store sends on what still comes before its limit stops the pump.
        // Not of two tanks: the other one may still have room.
        const bool by_the_bottom = in_tanks() && top_ == "S2";
        if (composed() && !is(Store::two_tanks))
            add(output(Driver::cooler_valve), limit<Divert>(top_.c_str(), store_limit_c() - (by_the_bottom ? hidden_k + 3 : 3), 2));
        if (loop_.drains)
            return; // it empties instead
        each_array([&](const std::string& pump, const std::string& source) {
            add(pump, limit<Divert>(source.c_str(), 95, is(Store::two_tanks) ? 20 : 18));
            add(output(Driver::cooler_valve), limit<Divert>(source.c_str(), 95, is(Store::two_tanks) ? 20 : 18));
        });
    }

    // Without glass an array barely above freezing cools what runs back through it.
    void bare_in_the_cold()
    {
        if (!loop_.drains || !uncovered(a_.array))
            return;
        each_array([&](const std::string& pump, const std::string& source) { add(pump, limit<CollectorMinimum>(source.c_str(), 16, 3)); });
    }

    // Water that stays up there is kept from freezing with warm water: only where frost is rare.
    void freeze()
    {
        if (a_.carrier != Carrier::water || a_.empties != Empties::full || no_frost(a_))
            return;
        each_array([&](const std::string& pump, const std::string& source) {
            Freeze rule;
            rule.probe = source;
            rule.hysteresis = TempDiff::kelvin(20);                                                                             // the whole night, in bursts: running on would empty the store before the morning
            rule.burst_s = std::max(least_burst_s, past_the_slug_s(v_.loop.collector, v_.loop.supply, v_.loop.pump.flow_m3_s)); // until what is warm has passed
            rule.every_s = 900;
            rule.store_min = Temperature::celsius(6); // a large array on a small tank takes it near that by the morning
            rule.store = top_;
            add(pump, rule);
        });
    }

    bool on_dc() const { return a_.power == PoweredBy::panel || a_.power == PoweredBy::battery; }

    // Watts that move this flow through its ring and up its lift, cold, at what a small pump makes of them.
    double watts_needed(const Route& route, const Pump& pump) const
    {
        constexpr double cold_c = 10, efficiency = 0.25; // of motor and pump together; estimate
        const bool array = route.turns != Driver::exchanger_pump;
        const Fluid fluid = !array ? glycol_water(0) : a_.carrier == Carrier::air ? warm_air()
                                                                                  : fluid_at(glycol_share(v_.loop), cold_c);
        const double lifted_pa = array && loop_.drains ? fluid.density_kg_m3 * gravity_m_s2 * v_.loop.drain_back.lift_m : 0;
        return pump.flow_m3_s * (ring_drop_pa(v_.loop, route, fluid, pump.flow_m3_s) + lifted_pa) / efficiency;
    }

    // Pumps are as strong as their flow asks for; panel, battery and cable carry all that hang on them.
    void pumps()
    {
        if (by_itself())
            return;
        Loop& l = v_.loop;
        constexpr double of_label = 5; // watts are stated in fives
        double most_w = 0;
        std::size_t count = 0;
        for (const auto& [driver, pump] : {std::pair{Driver::pump, &l.pump}, {Driver::pump_2, &l.pump_2}, {Driver::exchanger_pump, &l.exchanger_pump}}) {
            double needed = 0;
            for (const Route& r : loop_.routes)
                if (r.turns == driver)
                    needed = std::max(needed, watts_needed(r, *pump));
            if (needed <= 0)
                continue;
            ++count;
            if (needed > pump->power_w)
                pump->power_w = of_label * std::ceil(needed / of_label);
            most_w = std::max(most_w, pump->power_w);
        }
        if (!on_dc())
            return;
        // Each further pump has a motor like the first's.
        const double stronger = std::max(1.0, most_w / (l.motor.volt_v * l.motor.current_a)), all = stronger * static_cast<double>(std::max<std::size_t>(1, count));
        double all_panels = all;
        l.motor.current_a *= stronger, l.motor.start_a *= stronger, l.motor.resistance_ohm /= stronger;
        if (a_.power == PoweredBy::panel && composed()) {
            // The pump must turn as soon as the array is warm, or that gets too hot to be filled: twice the panel,
            // its current raised for the start, lying between arrays that look east and west.
            constexpr double reserve = 2, flat_deg = 15; // estimates
            l.panel.booster = true;
            all_panels *= reserve;
            if (a_.fields == Fields::two)
                l.panel.tilt_deg = flat_deg;
        }
        l.panel.isc_a *= all_panels, l.panel.imp_a *= all_panels, l.panel.isc_a_k *= all_panels;
        l.battery.capacity_ah = 5 * std::ceil(l.battery.capacity_ah * all / 5);
        l.battery.resistance_ohm /= all;
        l.wiring.section_m2 *= all;
        // One output switches loop and exchanger pump together: by a relay.
        constexpr double warm_c = 40; // where the breaker sits
        l.wiring.output_a = std::ceil(l.wiring.output_a * stronger * (loop_.has(Part::exchanger_pump) && a_.exchanger_pumps == ExchangerPumps::one ? 2 : 1));
        if (const double fits = breaker_for(l, warm_c); fits > 0)
            l.wiring.breaker_a = fits;
    }

    // What drains and what boils away finds room.
    void take_up()
    {
        Loop& l = v_.loop;
        const auto round_up = [](double m3) { return std::ceil(m3 * 200) / 200; };
        if (loop_.has(Part::reservoir))
            l.reservoir.volume_m3 = std::max(l.reservoir.volume_m3, round_up(draining(l, 0).reservoir_m3));
        if (const double needed = loop_.has(Part::vessel) ? vessel_for(l, hot_loop_c) : 0; l.vessel.volume_m3 < 0.9 * needed)
            l.vessel.volume_m3 = round_up(needed);
    }

    void element()
    {
        if (a_.backup != Backup::element)
            return;
        constexpr double morning_h = 5, until_h = 7; // before the hours of use: estimate
        v_.loop.element.mode = ElementMode::windows;
        v_.loop.element.windows.front() = {morning_h, until_h};
    }

    Variant& v_;
    const LoopAnswers& a_;
    const Arrangement& loop_;
    int probes_;
    std::string top_, west_, second_; // probes: of what is warmest in the store, of the second array, of the second tank
};

} // namespace

bool no_frost(const LoopAnswers& a)
{
    return a.carrier == Carrier::water && a.empties == Empties::full && (a.power == PoweredBy::none || a.power == PoweredBy::panel || uncovered(a.array));
}

void fill_fresh(Variant& v, const LoopAnswers& answers, int probes) { FreshLoop(v, answers, probes).fill(); }

} // namespace vernal
