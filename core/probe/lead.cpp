#include "lead.h"

#include <cmath>
#include <limits>

namespace vernal {

double lead_ohm(const Lead& lead)
{
    if (lead.length_m <= 0 || lead.three_wire)
        return 0;
    return 2 * lead.length_m * copper_ohm_m(lead.section_m2, lead.strands, lead.temp_c);
}

double seen_ohm(const Lead& lead, double probe_ohm)
{
    if (lead.leak_ohm <= 0)
        return probe_ohm + lead_ohm(lead);
    if (!std::isfinite(probe_ohm))
        return lead.leak_ohm + lead_ohm(lead);
    return probe_ohm * lead.leak_ohm / (probe_ohm + lead.leak_ohm) + lead_ohm(lead);
}

double lead_error_k(const ProbeCurve& curve, const Lead& lead, double temp_c)
{
    if (!is_resistance(curve) || (lead_ohm(lead) == 0 && lead.leak_ohm <= 0))
        return 0;
    return temperature_beyond(curve, seen_ohm(lead, signal_beyond(curve, temp_c))) - temp_c;
}

double longest_lead_m(const ProbeCurve& curve, const Lead& lead, double temp_c, double wanted_k)
{
    if (!is_resistance(curve) || lead.three_wire)
        return std::numeric_limits<double>::infinity();
    // A lead adds ohms: a falling curve then reads low, a rising one high.
    const double read_c = temp_c + (falls(curve) ? -wanted_k : wanted_k);
    const double room_ohm = signal_beyond(curve, read_c) - signal_beyond(curve, temp_c);
    return room_ohm / (2 * copper_ohm_m(lead.section_m2, lead.strands, lead.temp_c));
}

} // namespace vernal
