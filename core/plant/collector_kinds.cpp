#include "collector_kinds.h"

#include <algorithm>

namespace vernal {

Collector collector_of(Array kind, double area_m2)
{
    Collector c;
    switch (kind) {
    case Array::selective: break;
    case Array::flat: c.eta0 = 0.75, c.a1_w_m2k = 5.5, c.a2_w_m2k2 = 0.012; break;
    case Array::tubes: c = {area_m2, 0.7, 1.3, 0.007, 0.02, 9500, 0.05, 0.95, 50, 0}; break;
    case Array::unglazed:
        c = {area_m2, 0.88, 11, 0, 0.8, 9000, 0.05, 0.95, 40, 0};
        c.wind_loss_j_m3k = 3.5;
        c.wind_gain_s_m = 0.03;
        break;
    case Array::hose:
        c = {area_m2, 0.82, 12, 0, 0.8, 55000, 0.05, 0.95, 40, 0}; // the water in it is most of its capacity
        c.wind_loss_j_m3k = 4;
        c.wind_gain_s_m = 0.03;
        c.content_m3 = 0.01 * area_m2;
        break;
    case Array::trickle:
        c = {area_m2, 0.7, 7, 0.02, 0.1, 6000, 0.1, 0.9, 45, 0};
        c.content_m3 = 0.0004 * area_m2;
        c.drop_pa = 500;
        c.wetted_at_m3_s = 1.6e-5 * area_m2;
        break;
    case Array::air: c = {area_m2, 0.62, 6, 0.01, 0.1, 9000, 0.12, 0.9, 60, 0}; break;
    }
    c.area_m2 = area_m2;
    return c;
}

Collector in_still_air(const Collector& report)
{
    Collector out = report;
    if (report.wind_from == WindFrom::three_m_s) {
        out.eta0 += report_wind_m_s * report.wind_gain_s_m;
        out.a1_w_m2k = std::max(0.1, report.a1_w_m2k - report_wind_m_s * report.wind_loss_j_m3k); // a finding tells of what would be less
        out.wind_from = WindFrom::still_air;
    }
    return out;
}

const char* collector_origin(Array kind)
{
    switch (kind) {
    case Array::flat: return "A painted absorber under one pane. Estimates between textbook loss coefficients and reports to ISO 9806.";
    case Array::selective: return "A selective absorber under one pane, as reports to ISO 9806 have it (estimates, from memory).";
    case Array::tubes: return "Evacuated tubes on their gross area, as reports to ISO 9806 have it (estimates, from memory).";
    case Array::unglazed: return "Unglazed panels, gain and loss by the wind of the day as ISO 9806 has it (estimates, from memory).";
    case Array::hose: return "Black hose laid side by side: estimates, near an unglazed panel's. Its length and bore give area and content, by the sum below.";
    case Array::trickle: return "An open absorber under one pane, its film of water half evaporating on hot days: losses above a flat plate's (estimates).";
    case Array::air: return "An air collector with one pane at its usual flow (estimates).";
    }
    return "";
}

} // namespace vernal
