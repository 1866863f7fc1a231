#include "odd_reading.h"

#include "core/plant/panel.h"
#include "core/plant/passing.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <functional>

namespace vernal {
namespace {

// Standard deviations of what is read or stated; estimates, a bucket's and a strapped probe's among them.
constexpr double bucket_share = 0.04, stated_flow_share = 0.12, pipe_k = 0.8, store_k = 2.5, area_share = 0.02, told_area_share = 0.02, meter_share = 0.06, collector_share = 0.06, current_share = 0.12, gauge_sd_pa = 0.12e5;

enum Unknown { sun,
    flow,
    inlet,
    outlet,
    area,
    unknowns };
using State = Eigen::Matrix<double, unknowns, 1>; // ln G, ln V', °C, °C, ln A

struct Observation {
    std::string name;                             // empty: not read by a person, never named
    std::function<double(const State&)> residual; // over its standard deviation
    double read = 0;
    std::function<double(const State&)> fits = {};
};

struct Fit {
    State x;
    double chi2 = 0;
};

Fit fit(const std::vector<Observation>& all, std::size_t without, State x)
{
    constexpr int most = 40;
    constexpr double step = 1e-5, still = 1e-9;
    double chi2 = 0;
    for (int i = 0; i < most; ++i) {
        Eigen::Matrix<double, unknowns, unknowns> normal = Eigen::Matrix<double, unknowns, unknowns>::Identity() * 1e-9;
        State right = State::Zero();
        chi2 = 0;
        for (std::size_t o = 0; o < all.size(); ++o) {
            if (o == without)
                continue;
            const double r = all[o].residual(x);
            State slope;
            for (int k = 0; k < unknowns; ++k) {
                State y = x;
                y[k] += step;
                slope[k] = (all[o].residual(y) - r) / step;
            }
            normal += slope * slope.transpose();
            right -= slope * r;
            chi2 += r * r;
        }
        const State by = normal.ldlt().solve(right);
        x += by;
        if (by.norm() < still)
            break;
    }
    return {x, chi2};
}

// Upper percent point of χ² by Wilson and Hilferty, Proc. Natl. Acad. Sci. 17 (1931) 684.
double chi2_at_99(int freedom)
{
    constexpr double z = 2.3263;
    const double n = freedom, t = 1 - 2 / (9 * n) + z * std::sqrt(2 / (9 * n));
    return n * t * t * t;
}

} // namespace

Balance balance(const Job& job, const Variant& v, const NowGiven& now, const HourRead& read)
{
    Balance out;
    const auto expected = expect_now(job, v, now);
    if (!expected || expected->sun_w_m2.mid <= 0)
        return out;
    const Loop& loop = v.loop;
    const Collector c = in_still_air(loop.collector);
    const double g_now = expected->sun_w_m2.mid, sun_share = std::max(0.05, (expected->sun_w_m2.high - expected->sun_w_m2.low) / (2 * g_now));
    const double carried = carried_w_k(loop, 1.0);
    double stated_flow = loop.pump.flow_m3_s * loop.pump.speed;
    const bool direct = arrangement_of(loop).answers.power != PoweredBy::mains;
    if (direct && read.volt)
        stated_flow *= drive_at(loop.motor, *read.volt, true).speed;
    else
        stated_flow = expected->flow_m3_s.mid;
    std::vector<Observation> all;
    const auto add = [&](const char* name, double value, std::function<double(const State&)> residual, std::function<double(const State&)> fits = {}) { all.push_back({name, std::move(residual), value, std::move(fits)}); };
    const auto share = [](int of, double value, double sd) { return [=](const State& x) { return (x[of] - std::log(value)) / sd; }; };
    const auto kelvin = [](int of, double value, double sd) { return [=](const State& x) { return (x[of] - value) / sd; }; };
    const auto as_share = [](int of) { return [=](const State& x) { return std::exp(x[of]); }; };
    const auto as_kelvin = [](int of) { return [=](const State& x) { return x[of]; }; };
    add("sun by hour and sky", g_now, share(sun, g_now, sun_share), as_share(sun));
    if (stated_flow > 0)
        add("flow stated for the pump", stated_flow, share(flow, stated_flow, stated_flow_share), as_share(flow));
    add("store's temperature", now.store_c, kelvin(inlet, now.store_c, store_k), as_kelvin(inlet));
    add("area as stated", c.area_m2, share(area, c.area_m2, told_area_share), as_share(area));
    if (read.sun_w_m2 && *read.sun_w_m2 > 0)
        add("sun by instrument", *read.sun_w_m2, share(sun, *read.sun_w_m2, meter_share), as_share(sun));
    if (read.flow_m3_s && *read.flow_m3_s > 0)
        add("flow by bucket", *read.flow_m3_s, share(flow, *read.flow_m3_s, bucket_share), as_share(flow));
    if (read.supply_c)
        add("temperature to the array", *read.supply_c, kelvin(inlet, *read.supply_c, pipe_k), as_kelvin(inlet));
    if (read.return_c)
        add("temperature from the array", *read.return_c, kelvin(outlet, *read.return_c, pipe_k), as_kelvin(outlet));
    if (read.area_m2 && *read.area_m2 > 0)
        add("area as read", *read.area_m2, share(area, *read.area_m2, area_share), as_share(area));
    // ISO 9806 as a flux, the loss at the mean of inlet and outlet; G counts as the expectation's rise has it.
    const double optical = expected->rise_k.mid > 0 && expected->flow_m3_s.mid > 0 ? [&] {
        const double rise = expected->rise_k.mid, over = now.store_c + rise / 2 - now.air_c;
        return (carried * expected->flow_m3_s.mid * rise / c.area_m2 + c.a1_w_m2k * over + c.a2_w_m2k2 * over * std::fabs(over)) / g_now;
    }()
                                                                                   : c.eta0;
    add("efficiency of the collector, as stated", 0, [=](const State& x) {
        const double over = (x[inlet] + x[outlet]) / 2 - now.air_c, area_m2 = std::exp(x[area]);
        const double gained = area_m2 * (optical * std::exp(x[sun]) - c.a1_w_m2k * over - c.a2_w_m2k2 * over * std::fabs(over));
        const double taken = carried * std::exp(x[flow]) * (x[outlet] - x[inlet]);
        return (gained - taken) / (collector_share * area_m2 * optical * g_now);
    });
    if (read.current_a && expected->current_a && expected->current_a->mid > 0) {
        const double should = read.volt ? drive_at(loop.motor, *read.volt, true).current_a : expected->current_a->mid;
        if (should > 0)
            add(
                "current of the pump", *read.current_a, [r = std::log(std::max(1e-6, *read.current_a) / should) / current_share](const State&) { return r; }, [should](const State&) { return should; });
    }
    if (read.gauge_pa && expected->gauge_pa)
        add(
            "gauge", *read.gauge_pa, [r = (*read.gauge_pa - expected->gauge_pa->mid) / gauge_sd_pa](const State&) { return r; }, [should = expected->gauge_pa->mid](const State&) { return should; });
    out.left = static_cast<int>(all.size()) - unknowns;
    if (out.left < 1)
        return out;
    out.enough = true;
    State x;
    x << std::log(g_now), std::log(std::max(1e-6, read.flow_m3_s.value_or(stated_flow))), read.supply_c.value_or(now.store_c), read.return_c.value_or(now.store_c + expected->rise_k.mid), std::log(c.area_m2);
    const Fit whole = fit(all, all.size(), x);
    out.chi2 = whole.chi2;
    out.agrees = whole.chi2 <= chi2_at_99(out.left);
    if (out.agrees)
        return out;
    std::vector<Fit> without;
    for (std::size_t o = 0; o < all.size(); ++o)
        without.push_back(fit(all, o, x));
    const double least = std::min_element(without.begin(), without.end(), [](const Fit& a, const Fit& b) { return a.chi2 < b.chi2; })->chi2;
    out.one = out.left < 2 || least <= chi2_at_99(out.left - 1);
    double sum = 0;
    for (std::size_t o = 0; o < all.size(); ++o) {
        const double likely = std::exp(-(without[o].chi2 - least) / 2);
        sum += likely;
        out.odd.push_back({all[o].name, all[o].read, all[o].fits ? all[o].fits(without[o].x) : NAN, likely});
    }
    for (OddReading& odd : out.odd)
        odd.sure = sum > 0 ? odd.sure / sum : 0;
    std::stable_sort(out.odd.begin(), out.odd.end(), [](const OddReading& a, const OddReading& b) { return a.sure > b.sure; });
    return out;
}

} // namespace vernal
