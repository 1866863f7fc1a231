#include "drill_look.h"

#include "bench_pair.h"
#include "core/plant/valve_board.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

std::string number(double x, int decimals, const char* unit)
{
    char b[48];
    std::snprintf(b, sizeof b, "%.*f %s", decimals, x, unit);
    return b;
}

void add(std::string& to, const std::string& what) { to += (to.empty() ? "" : "; ") + what; }

// Coarsely: how far from what it should be, in steps.
std::string step_of(double x, double should, double step)
{
    if (!std::isfinite(x))
        return "none";
    const double off = (x - should) / step;
    return off > 1 ? "high" : off < -1 ? "low"
                                       : "fits";
}

struct Looking {
    Rig& rig;
    const Variant& written;
    Units units;
    Evidence e;

    std::string temp(double c) const { return to_text(c, Quantity::temperature, units); }
    std::string difference(double k) const { return to_text(k, Quantity::difference, units); }
    std::string flow(double l_min) const { return to_text(l_min / 60000, Quantity::flow, units); }
    std::string pressure(double bar) const { return to_text(bar * 1e5, Quantity::pressure, units); }

    double real_c(std::size_t p) const { return rig.tip_c(p); }

    void display()
    {
        for (std::size_t p = 0; p < rig.probes(); ++p) {
            if (!reads_temperature(written.probes[p]))
                continue;
            const Reading r = rig.reading(p);
            add(e.text, written.probes[p].key + " " + (r.valid ? temp(r.mk / 1000.0) : "no reading"));
            e.sign += r.valid ? "r" : "-";
        }
        for (std::size_t o = 0; o < rig.outputs(); ++o) {
            const bool on = rig.decision(o).on;
            add(e.text, written.unit.outputs[o].key + (on ? " on" : " off"));
            const auto pair = bench_pair(written);
            bool wants = on; // by what it shows itself
            if (pair && o == pair->output && rig.reading(pair->source).valid && rig.reading(pair->store).valid) {
                const double d = (rig.reading(pair->source).mk - rig.reading(pair->store).mk) / 1000.0;
                wants = d > pair->on_k ? true : d < pair->off_k ? false
                                                                : on;
            }
            e.sign += on == wants ? "o" : on ? "O"
                                             : "x";
        }
    }

    void switches()
    {
        for (std::size_t o = 0; o < rig.outputs(); ++o) {
            const Mode m = rig.mode(o);
            add(e.text, written.unit.outputs[o].key + (m == Mode::automatic ? " AUTO" : m == Mode::on ? " ON"
                                                                                                      : " OFF") +
                            (rig.bypassed(o) ? ", bypass closed" : ""));
            e.sign += (m == Mode::automatic ? "a" : m == Mode::on ? "1"
                                                                  : "0") +
                      std::string(rig.bypassed(o) ? "b" : "");
        }
    }

    void settings()
    {
        const auto is = bench_pair(rig.variant()), should = bench_pair(written);
        const auto show = [&](const char* name, double a, double b, const char* unit) {
            const auto words = [&](double x) { return unit == std::string("K") ? difference(x) : unit == std::string("V") ? number(x, 1, "V")
                                                                                                                          : temp(x); };
            add(e.text, std::string(name) + " " + words(a) + ", written " + words(b));
            constexpr double same = 0.05;
            e.sign += std::fabs(a - b) < same ? "=" : a > b ? ">"
                                                            : "<";
        };
        if (is && should) {
            show("start", is->on_k, should->on_k, "K");
            show("stop", is->off_k, should->off_k, "K");
            if (is->limit_c && should->limit_c)
                show("limit", *is->limit_c, *should->limit_c, "°C");
            if (is->cut_out_c && should->cut_out_c)
                show("cut-out", *is->cut_out_c, *should->cut_out_c, "°C");
        }
        if (const auto a = bench_freeze(rig.variant()), b = bench_freeze(written); a && b)
            show("freeze", a->limit_c, b->limit_c, "°C");
        if (const auto a = bench_low(rig.variant()), b = bench_low(written); a && b)
            show("low voltage", a->cut_v, b->cut_v, "V");
        for (std::size_t p = 0; p < rig.probes(); ++p)
            if (const double k = rig.variant().probes[p].correction.in_kelvin() - written.probes[p].correction.in_kelvin(); std::fabs(k) > 0.05) {
                add(e.text, written.probes[p].key + " corrected by " + difference(k));
                e.sign += "c";
            }
        if (e.text.empty())
            e.text = "nothing to read out";
    }

    void gauge()
    {
        const double cold = rig.cold_gauge_bar(), fill = written.loop.vessel.fill_pa / 1e5;
        constexpr double fits_bar = 0.15;
        e.text = pressure(rig.gauge_bar()) + ", which is " + pressure(cold) + " cold; filled to " + pressure(fill);
        e.sign = cold < fill - fits_bar ? "low" : "fits";
    }

    // With the pair's output on ON and on OFF, for a minute each; its switch is put back. ON comes
    // first, and is given the rest that the unit keeps between two runs.
    template <class F>
    void with_switch(F&& f)
    {
        const auto pair = bench_pair(written);
        const std::size_t o = pair ? pair->output : 0;
        const Mode was = rig.mode(o);
        constexpr double minute_s = 60;
        constexpr int longest_min = 10;
        for (const Mode m : {Mode::on, Mode::off}) {
            rig.set_mode(o, m);
            rig.advance(minute_s);
            for (int minute = 0; m == Mode::on && !rig.decision(o).on && minute < longest_min; ++minute)
                rig.advance(minute_s);
            add(e.text, written.unit.outputs[o].key + (m == Mode::on ? " on ON " : " on OFF ") + f(o, m == Mode::on));
        }
        rig.set_mode(o, was);
    }

    void listen()
    {
        with_switch([&](std::size_t o, bool on) {
            const bool hums = rig.live(o) && !rig.turns(o), turns = rig.turns(o) && rig.speed(o) > 0, quiet = rig.is_so(Fact::runs_quiet), all = rig.is_so(Fact::shaft_turns);
            e.sign += hums ? "h" : turns ? (on ? "t" : "T")
                                         : (on ? "S" : "s");
            e.sign += turns && !quiet ? "g" : "";
            e.sign += turns && !all ? "1" : "";
            return std::string(hums ? "hums and stands" : turns ? (quiet ? "turns" : "turns and gurgles")
                                                                : "is silent") +
                   (turns && !all ? ", the other pump stands" : "");
        });
    }

    void current()
    {
        with_switch([&](std::size_t o, bool on) {
            const double w = rig.watt(o), rated = rig.rated_w(o);
            e.sign += w <= 0 ? (on && rated > 0 ? "N" : "n") : on ? step_of(w, rated, 0.25 * std::max(rated, 1.0))
                                                                  : "W";
            return "takes " + number(w, 0, "W");
        });
    }

    void output_volts()
    {
        with_switch([&](std::size_t o, bool on) {
            const bool live = rig.live(o);
            e.sign += live == on ? "=" : live ? "L"
                                              : "D";
            return std::string(live ? "has voltage" : "has none");
        });
        if (rig.simulation().hydraulics().follows_sun()) {
            add(e.text, "supply " + number(rig.supply_v(), 1, "V"));
            constexpr double low_v = 11.0; // of a battery of 12 V that is nearly empty
            e.sign += rig.supply_v() < low_v ? "v" : "";
        }
    }

    void vessel()
    {
        const double gas = rig.vessel_gas_bar(), should = written.loop.vessel.precharge_pa / 1e5;
        e.text = "gas " + pressure(gas) + ", stated " + pressure(should);
        e.sign = gas < 0.8 * should ? "low" : "fits";
        if (!rig.is_so(Fact::relief_lets_out))
            add(e.text, "the relief valve lets nothing out"), e.sign += " stuck";
        else if (!rig.is_so(Fact::relief_holds))
            add(e.text, "the relief valve goes on dripping"), e.sign += " drips";
        else
            add(e.text, "the relief valve lets out and holds again");
    }

    void drain()
    {
        const auto pair = bench_pair(written);
        const std::size_t o = pair ? pair->output : 0;
        const Mode was = rig.mode(o);
        constexpr double longest_s = 1800, step_s = 10;
        rig.set_mode(o, Mode::on);
        for (double t = 0; t < longest_s && !rig.full(); t += step_s)
            rig.advance(step_s);
        const bool filled = rig.full();
        rig.set_mode(o, Mode::off);
        double took = 0;
        for (; took < longest_s && !rig.emptied(); took += step_s)
            rig.advance(step_s);
        rig.set_mode(o, was);
        const bool empties = rig.emptied();
        e.text = std::string(filled ? "it fills" : "it does not fill") + (empties ? ", and is empty after " + number(took, 0, "s") : ", and does not empty") + "; stated " + number(written.loop.drain_back.drain_s, 0, "s");
        e.sign = std::string(filled ? "fills" : "never") + (!empties ? " stays" : took > 1.5 * written.loop.drain_back.drain_s ? " slow"
                                                                                                                               : " drains");
    }

    // What a meter makes of each probe, beside what its curve says at the place's own temperature.
    void ohms()
    {
        for (std::size_t p = 0; p < rig.probes(); ++p) {
            if (!reads_temperature(written.probes[p]))
                continue;
            const double ohm = rig.signal_of_fault(p), c = std::isfinite(ohm) && ohm > 0 ? temperature_beyond(written.probes[p].curve, ohm) : NAN;
            add(e.text, written.probes[p].key + " " + (std::isinf(ohm) ? std::string("open") : number(ohm, 0, signal_unit(written.probes[p].curve))) + (std::isfinite(c) ? ", by its curve " + temp(c) : ""));
            constexpr double fits_k = 4;
            e.sign += std::isinf(ohm) ? "o" : step_of(c, real_c(p), fits_k).substr(0, 1);
        }
    }

    void thermometer()
    {
        for (std::size_t p = 0; p < rig.probes(); ++p) {
            if (!reads_temperature(written.probes[p]))
                continue;
            const Reading r = rig.reading(p);
            add(e.text, written.probes[p].key + "'s place has " + temp(real_c(p)) + ", the unit says " + (r.valid ? temp(r.mk / 1000.0) : std::string("nothing")));
            constexpr double fits_k = 4;
            e.sign += r.valid ? step_of(r.mk / 1000.0, real_c(p), fits_k).substr(0, 1) : "-";
        }
    }

    void bucket()
    {
        const auto pair = bench_pair(written);
        const std::size_t o = pair ? pair->output : 0;
        const Mode was = rig.mode(o);
        rig.set_mode(o, Mode::on);
        rig.advance(300);
        const double is = rig.flow_l_min(), should = rig.should_flow_l_min();
        rig.set_mode(o, was);
        e.text = "with the switch on ON " + flow(is) + ", stated " + flow(should);
        e.sign = is <= 0 ? "none" : is < 0.75 * should ? "little"
                                                       : "fits";
    }

    void refractometer()
    {
        const double is = glycol_share(rig.variant().loop), should = glycol_share(written.loop);
        e.text = number(100 * is, 0, "% glycol") + ", stated " + number(100 * should, 0, "%");
        e.sign = is < should - 0.05 ? "thin" : "fits";
    }

    void vent()
    {
        const bool air = rig.simulation().hydraulics().trouble() == Trouble::air_lock, open = arrangement_of(written.loop).has(Part::vessel) && !rig.is_so(Fact::vent_shut);
        e.text = open ? "it stands open already" : air ? "air comes, for a long time"
                                                       : "fluid comes at once";
        e.sign = open ? "open" : air ? "air"
                                     : "fluid";
    }

    void roof()
    {
        const double sun = rig.sun_w_m2(), clear = rig.clear_sun_w_m2();
        constexpr double shadow_below = 0.6;
        const bool shadow = clear > 200 && sun < shadow_below * clear;
        e.text = "on the array " + to_text(sun, Quantity::irradiance, units) + (shadow ? ", in the shade of something; beside it the sun shines" : "");
        e.sign = shadow ? "shade" : "";
        for (std::size_t p = 0; p < rig.probes(); ++p)
            if (rig.variant().probes[p].condition.kind == ConditionKind::in_sun) {
                add(e.text, written.probes[p].key + " lies bare in the sun");
                e.sign += "bare";
            }
        if (arrangement_of(written.loop).drains && rig.pitch() < least_pitch) {
            add(e.text, "the pipe does not fall");
            e.sign += "flat";
        }
        const double array = rig.array_c();
        add(e.text, "the array is at " + temp(array));
    }

    void night()
    {
        const double now = std::fmod(rig.simulation().time_of_day_s(), 86400.0), until = 26 * 3600.0 - now;
        rig.advance(until > 0 ? until : until + 86400);
        const double warmer = rig.array_c() - rig.air_c_now();
        bool any = false;
        for (std::size_t o = 0; o < rig.outputs(); ++o)
            any = any || rig.turns(o);
        e.text = std::string(any ? "a pump runs at two in the morning" : "all rests at two in the morning") + ", the array is " + difference(std::fabs(warmer)) + (warmer >= 0 ? " warmer" : " colder") + " than the air";
        constexpr double warm_k = 4;
        e.sign = std::string(any ? "runs" : "rests") + (warmer > warm_k ? " warm" : "");
    }

    void taps()
    {
        const double c = rig.tap_c(), set = rig.tap_set_c();
        e.text = "hottest tap " + temp(c) + ", the valve is set to " + temp(set);
        e.sign = c > set + 3 ? "hot" : "fits";
    }
};

} // namespace

Evidence look_with(Rig& rig, const Variant& written, DrillAct act, const Units& units)
{
    rig.advance(60.0 * std::min(5, drill_act_text(act).minutes)); // what else it takes is on the way
    Looking l{rig, written, units, {act, {}, {}}};
    switch (act) {
    case DrillAct::display: l.display(); break;
    case DrillAct::switches: l.switches(); break;
    case DrillAct::settings: l.settings(); break;
    case DrillAct::gauge: l.gauge(); break;
    case DrillAct::listen: l.listen(); break;
    case DrillAct::current: l.current(); break;
    case DrillAct::output_volts: l.output_volts(); break;
    case DrillAct::ohms: l.ohms(); break;
    case DrillAct::thermometer: l.thermometer(); break;
    case DrillAct::bucket: l.bucket(); break;
    case DrillAct::refractometer: l.refractometer(); break;
    case DrillAct::vent: l.vent(); break;
    case DrillAct::roof: l.roof(); break;
    case DrillAct::night: l.night(); break;
    case DrillAct::taps: l.taps(); break;
    case DrillAct::vessel: l.vessel(); break;
    case DrillAct::drain: l.drain(); break;
    }
    return l.e;
}

bool has_act(const Variant& v, DrillAct act)
{
    const Arrangement& a = arrangement_of(v.loop);
    const bool fluid = a.pumped() && a.carrier != Carrier::air;
    switch (act) {
    case DrillAct::gauge:
    case DrillAct::vessel: return a.has(Part::vessel);
    case DrillAct::drain: return fluid && a.drains;
    case DrillAct::bucket: return fluid;
    case DrillAct::refractometer: return a.carrier == Carrier::glycol;
    case DrillAct::vent: {
        const auto valves = valves_of(v.loop);
        return fluid && std::find(valves.begin(), valves.end(), HandValve::air_vent) != valves.end();
    }
    case DrillAct::taps: return a.has(Part::tank);
    default: return true;
    }
}

const DrillActText& drill_act_text(DrillAct act)
{
    static constexpr const char* mains = "Isolate and prove dead before a cover comes off; mains is a licensed person's work.";
    static constexpr const char* roof = "Tied on, with someone below; not on wet or icy tiles. Parts at the array burn.";
    static constexpr std::array<DrillActText, drill_acts> all{{{"display", "Its display", "", 1},
        {"switches", "Switches, bypasses", "", 1},
        {"settings", "Its settings", "", 4},
        {"gauge", "The gauge", "", 1},
        {"listen", "Listen at pumps", "", 2},
        {"current", "Pumps' current", mains, 5},
        {"output-volts", "Outputs' volts", mains, 6},
        {"ohms", "Probes' ohms", "Probes only; isolate where they lie beside mains.", 10},
        {"thermometer", "2nd thermometer", roof, 25},
        {"bucket", "Flow by bucket", "Only with the loop cool enough to touch.", 20},
        {"refractometer", "Refractometer", "The loop is cold; goggles.", 8},
        {"vent", "A little vent", "Only cold: from a hot loop steam comes. Shut it again.", 12},
        {"roof", "Up on the roof", roof, 25},
        {"night", "Back at night", "", 90},
        {"taps", "Warmth at taps", "Scald: try it with a thermometer, not with the hand.", 5},
        {"vessel", "Vessel, relief", "Only cold. Never cap or shut off a relief valve; what comes out may be hot.", 40},
        {"drain", "Fill and drain", "", 12}}};
    return all[static_cast<std::size_t>(act)];
}

} // namespace vernal
