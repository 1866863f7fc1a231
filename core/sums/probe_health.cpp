#include "probe_health.h"
#include "core/setup/job_setup.h"

#include <cmath>

namespace vernal {
namespace {

constexpr double usual_room_c = 20, drift_shown = 0.1;

std::string with_unit(double v, const ProbeCurve& c)
{
    if (is_resistance(c))
        return to_text(v, Quantity::resistance, {});
    return to_text(v, Quantity::number, {}) + " " + signal_unit(c);
}

} // namespace

std::vector<FaultSign> fault_signs(const Variant& v, std::size_t probe, const Units& u)
{
    const Probe& p = v.probes[probe];
    const auto temp = [&](double c) { return to_text(c, Quantity::temperature, u); };
    const double good = signal_beyond(p.curve, usual_room_c), drifted = temperature_beyond(p.curve, good * (1 + drift_shown));
    const std::string at_room = with_unit(good, p.curve) + " at " + temp(usual_room_c);
    const bool ohms = is_resistance(p.curve), ntc = falls(p.curve);
    const DetectionLimits limits = detection_limits(v, probe);
    const std::string end_open = ntc ? "as if far below frost" : "as if far above boiling", end_short = ntc ? "as if far above boiling" : "as if far below frost";
    return {
        {ConditionKind::open, "Open", ohms ? "Endless (OL), not " + at_room : "0 " + std::string(signal_unit(p.curve)), "Gone within one sample, " + end_open + "; comes back when the lead is moved.", "Measure at the probe, then at the unit's end: the lead is between."},
        {ConditionKind::shorted, "Shorted", ohms ? "Below 5 Ω, not " + at_room : "0 " + std::string(signal_unit(p.curve)), "Gone within one sample, " + end_short + "; often after rain.", "Disconnect at the probe: if the lead still reads a few ohms, it is the lead."},
        {ConditionKind::sound, "Out of range", "Sound, but beyond " + with_unit(limits.at_low, p.curve) + " or " + with_unit(limits.at_high, p.curve) + " at the unit's end", "Gone above " + temp(limits.high_c) + " or below " + temp(limits.low_c) + " and back by itself: on the collector at noon without flow.", "Compare the hottest figure before the gap with what the array can stand at."},
        {ConditionKind::stuck, "Stuck", "The same ohms in the hand as in the air", "A straight line while every other probe moves; to the last digit.", "Hand-warm test: it must climb within a minute."},
        {ConditionKind::drifted, "Drifted", ohms ? "10 % high is " + with_unit(good * (1 + drift_shown), p.curve) + " at " + temp(usual_room_c) + ", read as " + temp(drifted) : "Off the transmitter's own figure", "At night all probes should draw together; this one stays apart by the same amount.", "Ice water is " + temp(0) + " and must read " + (signal_at(p.curve, Temperature::celsius(0)) ? with_unit(signal_beyond(p.curve, 0), p.curve) : std::string("its curve's figure")) + "."},
        {ConditionKind::in_sun, "In the sun", "Right when shaded", "Follows the sun and not the pump: jumps with each cloud, and no drop when cold fluid arrives.", "Shade it with your hand for a minute."},
        {ConditionKind::swapped, "Swapped", "Both right, on the wrong inputs", "The “collector” moves slowly and the “store” jumps with the sun; the pump runs by night.", "Warm one in the hand and see which figure climbs."},
    };
}

DetectionLimits detection_limits(const Variant& v, std::size_t probe)
{
    const ChainSpec s = chain_of(v, probe);
    const auto at = [&](double c) {
        const double x = signal_beyond(s.unit_curve, c);
        return std::isfinite(x) && (x > 0 || !is_resistance(s.unit_curve)) ? x : NAN;
    };
    return {v.input.low_c, v.input.high_c, at(v.input.low_c), at(v.input.high_c)};
}

Result<SideBySide> side_by_side(const Variant& v, std::size_t probe, double signal, std::size_t other, double other_signal, double meter_share)
{
    if (probe >= v.probes.size() || other >= v.probes.size() || probe == other)
        return Error{"choose another probe to lay beside this one", "", "The other one's number, from 1 as in the list"};
    const Probe &a = v.probes[probe], &b = v.probes[other];
    const auto ta = temperature_at(a.curve, signal), tb = temperature_at(b.curve, other_signal);
    if (!ta || !tb)
        return Error{(ta ? tb : ta).error().what, (ta ? b : a).name, (ta ? tb : ta).error().remedy};
    SideBySide s{ta->in_celsius(), tb->in_celsius(), 0, 0};
    s.apart_k = s.this_c - s.other_c;
    const auto meter_k = [&](const ProbeCurve& c, double t) { return std::fabs(temperature_beyond(c, signal_beyond(c, t) * (1 + meter_share)) - t); };
    s.allowed_k = tolerance_k(a.curve, a.sensor.tolerance, s.this_c) + tolerance_k(b.curve, b.sensor.tolerance, s.other_c) + meter_k(a.curve, s.this_c) + meter_k(b.curve, s.other_c);
    return s;
}

double warming_c(double lag_s, double from_c, double to_c, double after_s) { return to_c + (from_c - to_c) * std::exp(-after_s / lag_s); }

double reaches_after_s(double lag_s, double from_c, double to_c, double wanted_c)
{
    const double share = (wanted_c - to_c) / (from_c - to_c);
    if ((wanted_c - from_c) * (to_c - from_c) <= 0)
        return wanted_c == from_c ? 0.0 : INFINITY;
    return share > 0 ? -lag_s * std::log(share) : INFINITY;
}

} // namespace vernal
