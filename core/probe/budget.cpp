#include "budget.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

BudgetLine& line(Budget& b, ErrorCause c) { return b.lines[static_cast<std::size_t>(c)]; }

struct OneProbe {
    double tolerance_k, lead_known_k, lead_k, self_heating_k, resolution_k, placement_k;
};

// kelvin per ohm at a temperature.
double kelvin_per_ohm(const ProbeCurve& c, double t)
{
    constexpr double h = 0.05;
    return 2 * h / std::fabs(signal_beyond(c, t + h) - signal_beyond(c, t - h));
}

OneProbe of(const BudgetProbe& p, const InputStage& stage, double unit_resolution_k, double fluid_c, double other_ohm)
{
    OneProbe e{};
    e.placement_k = p.placement * (p.surroundings_c - fluid_c);
    const double tip_c = fluid_c + e.placement_k;
    e.tolerance_k = tolerance_k(p.curve, p.sensor.tolerance, tip_c);
    e.lead_known_k = lead_error_k(p.curve, p.lead, tip_c);
    if (is_resistance(p.curve) && p.lead.three_wire)
        e.lead_k = three_wire_left * p.lead.length_m * copper_ohm_m(p.lead.section_m2, p.lead.strands, p.lead.temp_c) * kelvin_per_ohm(p.curve, tip_c);
    if (is_resistance(p.curve) && p.sensor.dissipation_w_k > 0)
        e.self_heating_k = probe_power_w(stage, signal_beyond(p.curve, tip_c), other_ohm) / p.sensor.dissipation_w_k;
    const double count_k = kelvin_per_count(stage, p.curve, tip_c);
    e.resolution_k = 0.5 * ((std::isfinite(count_k) ? count_k : 0.0) + unit_resolution_k);
    return e;
}

// A bridge stands for another difference at each store temperature than its
// scale says: what is read too great by that.
double bridge_drift_k(const BudgetAsk& a)
{
    if (a.stage.kind != StageKind::bridge || !is_resistance(a.source.curve))
        return 0;
    const ProbeCurve& c = a.source.curve;
    const double volt = bridge_volt(a.stage, signal_beyond(c, a.stage.scale_at_c + a.set_k), signal_beyond(c, a.stage.scale_at_c));
    const double real = bridge_difference_k(a.stage, c, volt, a.store_c);
    return std::isfinite(real) ? a.set_k - real : 0.0;
}

} // namespace

const char* cause_text(ErrorCause cause)
{
    static constexpr const char* texts[error_causes] = {"tolerance", "lead", "self-heating", "resolution", "placement", "mismatch", "bridge"};
    return texts[static_cast<std::size_t>(cause)];
}

Budget error_budget(const BudgetAsk& a)
{
    const double source_c = a.store_c + a.set_k;
    const double source_ohm = signal_beyond(a.source.curve, source_c), store_ohm = signal_beyond(a.store.curve, a.store_c);
    const OneProbe s = of(a.source, a.stage, a.resolution_k, source_c, store_ohm), t = of(a.store, a.stage, a.resolution_k, a.store_c, source_ohm);
    Budget b;
    b.set_k = a.set_k;
    line(b, ErrorCause::tolerance) = {0, 0, s.tolerance_k, t.tolerance_k};
    line(b, ErrorCause::lead) = {s.lead_known_k, t.lead_known_k, s.lead_k, t.lead_k};
    line(b, ErrorCause::self_heating) = {s.self_heating_k, t.self_heating_k};
    line(b, ErrorCause::resolution) = {0, 0, s.resolution_k, t.resolution_k};
    line(b, ErrorCause::placement) = {s.placement_k, t.placement_k};
    line(b, ErrorCause::mismatch).between_k = a.stage.mismatch_k;
    line(b, ErrorCause::bridge).between_known_k = bridge_drift_k(a);
    double squares = 0;
    for (const BudgetLine& l : b.lines) {
        b.known_k += l.known_k();
        b.worst_k += l.worst_k();
        squares += l.square_k2();
    }
    b.rss_k = std::sqrt(squares);
    return b;
}

} // namespace vernal
