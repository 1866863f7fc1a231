// Flow meters, pressure sensors and sun sensors, and the rules that look at them.
#include "shared.h"

namespace vernal {
namespace {

// --- the instruments -------------------------------------------------------------

template <class F>
Found each_instrument(const FindingContext& c, F f)
{
    Found out;
    for (std::size_t i = 0; i < c.variant.probes.size(); ++i)
        if (const Probe& p = c.variant.probes[i]; !reads_temperature(p)) {
            const std::size_t before = out.size();
            f(out, i, p);
            for (std::size_t k = before; k < out.size(); ++k)
                out[k].at = "probe/" + p.id;
        }
    return out;
}

template <class F>
Remedy change_instrument(const FindingContext& c, std::string label, std::size_t probe, F what)
{
    return {std::move(label), [of = ref_to(c.variant.probes, probe), what](Variant& v) {
                if (Probe* p = of.in(v.probes))
                    what(*p);
            }};
}

Found instrument_not_sound(const FindingContext& c)
{
    return each_instrument(c, [&](Found& out, std::size_t i, const Probe& p) {
        const ConditionKind kind = p.condition.kind;
        const bool lost = kind == ConditionKind::open || kind == ConditionKind::shorted;
        if (!lost && kind != ConditionKind::stuck)
            return;
        out.push_back({"", Severity::serious, named(p) + (lost ? " is lost" : " is stuck"), lost ? "Its lead is open or shorted: the outputs whose rules read it go to their safe state. Isolate the unit and prove it dead before opening its cover." : "It reads the same whatever happens: a jammed wheel, a shut cock before a gauge, a painted glass.",
            change_instrument(c, "Try: a sound one", i, [](Probe& x) { x.condition.kind = ConditionKind::sound; })});
    });
}

// It ends below, or begins above, what the loop brings it.
Found instrument_scale(const FindingContext& c)
{
    constexpr double full_sun_w_m2 = 1200; // clear sky between clouds that shine; estimate
    return each_instrument(c, [&](Found& out, std::size_t i, const Probe& p) {
        const Instrument& s = p.instrument;
        const double flow = loop(c).pump.flow_m3_s, relief = loop(c).vessel.relief_pa;
        const Quantity q = quantity_of(reads_at(p.place));
        const auto short_of = [&](double full, double met, auto set) {
            if (full > 0 && full < met)
                out.push_back({"", Severity::caution, named(p) + " ends at " + said(c, full, q), "It meets up to " + said(c, met, q) + " here, and reads no more than its scale: what lies above, no rule learns.", change_instrument(c, "Try: not stated", i, set)});
        };
        if (reads_at(p.place) == Reads::flow)
            short_of(s.full_m3_s, flow, [](Probe& x) { x.instrument.full_m3_s = 0; });
        if (reads_at(p.place) == Reads::pressure)
            short_of(s.full_pa, relief, [](Probe& x) { x.instrument.full_pa = 0; });
        if (reads_at(p.place) == Reads::irradiance)
            short_of(s.full_w_m2, full_sun_w_m2, [](Probe& x) { x.instrument.full_w_m2 = 0; });
        if (reads_at(p.place) == Reads::flow && s.least_m3_s >= flow)
            out.push_back({"", Severity::serious, named(p) + " never turns", "It needs " + said(c, s.least_m3_s, q) + ", and the pump moves " + said(c, flow, q) + ".", change_instrument(c, "Try: reads from nothing on", i, [](Probe& x) { x.instrument.least_m3_s = 0; })});
    });
}

// --- the rules -------------------------------------------------------------------

Found flow_guard_above_flow(const FindingContext& c)
{
    constexpr double wavers = 0.9, asked = 1.0 / 3; // of the flow: it may fall to so much, and what is asked for well below it; estimates
    return each<FlowGuard>(c, [&](Found& out, std::size_t i, const Rule& rule, const FlowGuard& g) {
        const double flows = loop(c).pump.flow_m3_s * least_speed(c, rule.output);
        if (g.least_m3_s < wavers * flows)
            return;
        const double better = std::round(asked * flows * 6e5) / 6e5; // tenths of L/min
        out.push_back({"", Severity::serious, "The flow guard stops a sound pump", "It asks for " + said(c, g.least_m3_s, Quantity::flow) + ", and at its lowest speed the pump moves about " + said(c, flows, Quantity::flow) + ".", change<FlowGuard>(c, "Try: " + said(c, better, Quantity::flow), i, [better](FlowGuard& r) { r.least_m3_s = better; })});
    });
}

Found alarm_never_right(const FindingContext& c)
{
    if (!arrangement(c).has(Part::vessel))
        return {};
    constexpr double below_pa = 0.5e5, least_pa = 0.1e5, of_relief = 0.9; // what a sound loop may fall and rise; estimates
    const double fill = loop(c).vessel.fill_pa, relief = loop(c).vessel.relief_pa;
    return each<PressureAlarm>(c, [&](Found& out, std::size_t i, const Rule&, const PressureAlarm& a) {
        if (a.low_pa >= fill) {
            const double better = std::max(least_pa, std::floor((fill - below_pa) / 1e4) * 1e4);
            out.push_back({"", Severity::caution, "The pressure alarm calls in a sound loop", "Cold the loop stands at " + said(c, fill, Quantity::pressure) + " and the alarm calls at " + said(c, a.low_pa, Quantity::pressure) + ".", change<PressureAlarm>(c, "Try: low at " + said(c, better, Quantity::pressure), i, [better](PressureAlarm& r) { r.low_pa = better; })});
        }
        if (a.high_pa >= relief) {
            const double better = std::floor(of_relief * relief / 1e4) * 1e4;
            out.push_back({"", Severity::caution, "The pressure alarm calls after the relief valve", "That opens at " + said(c, relief, Quantity::pressure) + ", the alarm calls at " + said(c, a.high_pa, Quantity::pressure) + ": by then fluid is lost. Never cap a relief valve.", change<PressureAlarm>(c, "Try: high at " + said(c, better, Quantity::pressure), i, [better](PressureAlarm& r) { r.high_pa = better; })});
        }
    });
}

// A lamp's rule at a pump: it would run because the pressure is gone.
Found alarm_drives_a_pump(const FindingContext& c)
{
    return each<PressureAlarm>(c, [&](Found& out, std::size_t i, const Rule& rule, const PressureAlarm&) {
        const auto& outputs = c.variant.unit.outputs;
        const auto it = std::find_if(outputs.begin(), outputs.end(), [&](const Output& o) { return o.key == rule.output; });
        if (it != outputs.end() && it->drives == Drives::loop)
            out.push_back({"", Severity::serious, "The pressure alarm switches " + rule.output + " on", "An alarm calls by a lamp or a horn. " + rule.output + " drives the loop: it would run because the loop has lost its fluid, or in one that is about to blow off.", switch_off(c, i)});
    });
}

// The sun at which what the collector takes in just covers what it loses at the store's
// temperature: η0 G = a1 Δ + a2 Δ² (ISO 9806).
double even_sun_w_m2(const Collector& report, double store_c, double air_c)
{
    const Collector k = in_still_air(report);
    const double over_k = std::max(0.0, store_c - air_c);
    return (k.a1_w_m2k * over_k + k.a2_w_m2k2 * over_k * over_k) / k.eta0;
}

Found sun_start_cools(const FindingContext& c)
{
    constexpr double air_c = 15, usual_limit_c = 60; // a mild day; a store without a limit; estimates
    double limit_c = usual_limit_c;
    for_each_rule<StoreLimit>(c, [&](std::size_t, const StoreLimit& l) { limit_c = l.limit.in_celsius(); });
    const double even = even_sun_w_m2(loop(c).collector, limit_c, air_c);
    return each<SunStart>(c, [&](Found& out, std::size_t i, const Rule&, const SunStart& s) {
        if (s.off_w_m2 >= even)
            return;
        const double off = std::ceil(even / 10) * 10, on = std::max(s.on_w_m2, off + 100);
        out.push_back({"", Severity::caution, "By a weak sun the pump cools the store", "With the store at " + temp(c, limit_c) + " and " + temp(c, air_c) + " outside the collector gains nothing below " + said(c, even, Quantity::irradiance) + ", and the pump runs down to " + said(c, s.off_w_m2, Quantity::irradiance) + ". A difference rule would know.",
            change<SunStart>(c, "Try: stop at " + said(c, off, Quantity::irradiance), i, [off, on](SunStart& r) {
                r.off_w_m2 = off;
                r.on_w_m2 = on;
            })});
    });
}

} // namespace

const FindingKinds& instrument_findings()
{
    static const FindingKinds table{
        {"instrument_not_sound", instrument_not_sound, Cause::probes},
        {"instrument_scale", instrument_scale, Cause::probes},
        {"flow_guard_above_flow", flow_guard_above_flow},
        {"alarm_drives_a_pump", alarm_drives_a_pump},
        {"alarm_never_right", alarm_never_right},
        {"sun_start_cools", sun_start_cools},
    };
    return table;
}

} // namespace vernal
