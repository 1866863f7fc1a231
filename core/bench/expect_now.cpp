#include "expect_now.h"

#include "core/plant/panel.h"
#include "core/plant/passing.h"
#include "core/plant/vessel.h"
#include "core/weather/horizon.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

// How far what is not measured may lie off; estimates.
constexpr double flow_open = 0.15, store_open_k = 3, power_open = 0.2, gauge_open_pa = 0.25e5, collector_open = 0.07;
constexpr double thin_open = 0.3, overcast_open = 0.5; // of the sun under such a sky

struct SunOf {
    std::vector<double> plane, effective, panel;
};

SunOf sun_of(const Job& job, const Variant& v, const NowGiven& g, Haze haze)
{
    SkySpec spec;
    spec.year = g.year;
    spec.month = g.month;
    spec.day = g.day;
    spec.clouds = g.clouds;
    spec.haze = haze;
    spec.air_min_c = spec.air_max_c = g.air_c;
    const SkyDay sky = generate(spec, job.site.place);
    const Collector& c = v.loop.collector;
    const PlaneDay plane = on_collector(sky, c.tilt_deg, c.azimuth_deg, c.iam_b0, c.iam_diffuse);
    return {plane.plane_w_m2, plane.effective_w_m2, on_collector(sky, v.loop.panel.tilt_deg, v.loop.panel.azimuth_deg, 0, 1).plane_w_m2};
}

// Of an array at rest when all is settled, over the air: η0 G = a1 Δ + a2 Δ².
double rest_over_air_k(const Collector& report, double g)
{
    const Collector c = in_still_air(report);
    const double q = c.eta0 * g;
    return c.a2_w_m2k2 > 0 ? (-c.a1_w_m2k + std::sqrt(c.a1_w_m2k * c.a1_w_m2k + 4 * c.a2_w_m2k2 * q)) / (2 * c.a2_w_m2k2) : q / c.a1_w_m2k;
}

double pump_speed(const Variant& v, double panel_w_m2, double air_c)
{
    if (arrangement_of(v.loop).answers.power != PoweredBy::panel)
        return 1;
    return drive(v.loop.panel, v.loop.motor, panel_w_m2, air_c, true).speed;
}

// Low, middle and high of what grows with the first and falls with the second.
Band band_of(double a, double b, double c) { return {std::min({a, b, c}), b, std::max({a, b, c})}; }

class Sum {
public:
    Sum(const Job& job, const Variant& v, const NowGiven& g, const BenchPair& pair) : job_(job), v_(v), g_(g), pair_(pair)
    {
        const auto step = [&](int by) { return static_cast<Haze>(std::clamp(static_cast<int>(g.haze) + by, 0, 3)); };
        middle_ = sun_of(job, v, g, g.haze);
        clearer_ = sun_of(job, v, g, step(-1));
        hazier_ = sun_of(job, v, g, step(1));
    }

    Expected make()
    {
        const double minute = std::clamp(g_.hour, 0.0, 24.0) * 60;
        const Band sun = sun_at(minute, &SunOf::plane), eff = sun_at(minute, &SunOf::effective), panel = sun_at(minute, &SunOf::panel);
        Expected out;
        out.sun_w_m2 = sun;
        const double flow = v_.loop.pump.flow_m3_s * v_.loop.pump.speed;
        const auto flow_at = [&](double g) { return flow * pump_speed(v_, g, g_.air_c); };
        out.flow_m3_s = {(1 - flow_open) * flow_at(panel.low), flow_at(panel.mid), (1 + flow_open) * flow_at(panel.high)};
        out.rise_k = rise(eff, out.flow_m3_s);
        const double carried = carried_w_k(v_.loop, 1.0);
        out.heat_w = {carried * out.flow_m3_s.mid * out.rise_k.low, carried * out.flow_m3_s.mid * out.rise_k.mid, carried * out.flow_m3_s.mid * out.rise_k.high};
        const double speed = pump_speed(v_, panel.mid, g_.air_c), power = v_.loop.pump.power_w * speed * speed * speed;
        out.power_w = {(1 - power_open) * power, power, (1 + power_open) * power};
        if (arrangement_of(v_.loop).answers.power == PoweredBy::panel) {
            const auto at = [&](double g) { return drive(v_.loop.panel, v_.loop.motor, g, g_.air_c, true); };
            out.volt = band_of(at(panel.low).volt, at(panel.mid).volt, at(panel.high).volt);
            out.current_a = band_of((1 - power_open) * at(panel.low).current_a, at(panel.mid).current_a, (1 + power_open) * at(panel.high).current_a);
        }
        const Band rest = rest_c(eff);
        decide(out, rest);
        constexpr double morning_min = 45; // in which a few starts and stops are usual
        if (out.state == NowState::runs) {
            Expected before = out;
            const Band eff_before = sun_at(std::max(0.0, minute - morning_min), &SunOf::effective);
            before.rise_k = rise(eff_before, out.flow_m3_s);
            decide(before, rest_c(eff_before));
            if (before.state != NowState::runs) {
                out.state = NowState::either;
                out.because = "its first hour: a few starts and stops are usual while cold water comes round";
            }
        }
        const Band running{g_.store_c - store_open_k + out.rise_k.low, g_.store_c + out.rise_k.mid, g_.store_c + store_open_k + out.rise_k.high};
        out.array_c = out.state == NowState::rests ? rest : out.state == NowState::runs ? running
                                                                                        : band_of(std::min(rest.low, running.low), running.mid, std::max(rest.high, running.high));
        out.gauge_pa = gauge(out);
        out.next_h = next(out.state, minute);
        return out;
    }

private:
    Band sun_at(double minute, std::vector<double> SunOf::*of) const
    {
        const auto at = [&](const SunOf& s) {
            const auto& x = s.*of;
            const auto i = static_cast<std::size_t>(std::clamp(minute, 0.0, static_cast<double>(minutes_per_day)));
            const std::size_t next = std::min<std::size_t>(i + 1, minutes_per_day);
            const double share = minute - static_cast<double>(i);
            return x[i] + std::clamp(share, 0.0, 1.0) * (x[next] - x[i]);
        };
        Band b = band_of(at(hazier_), at(middle_), at(clearer_));
        const double open = g_.clouds == Clouds::clear ? 0 : g_.clouds == Clouds::thin ? thin_open
                                                                                       : overcast_open;
        b.low = std::min(b.low, (1 - open) * b.mid);
        b.high = std::max(b.high, (1 + open) * b.mid);
        return b;
    }

    Band rise(const Band& eff, const Band& flow) const
    {
        const auto at = [&](double g, double f, double inlet_c) { return f > 0 ? settled_rise_k(v_.loop, v_.loop.collector, f, g, inlet_c, g_.air_c) : 0.0; };
        const double low = at(eff.low * (1 - collector_open), flow.high, g_.store_c + store_open_k), high = at(eff.high * (1 + collector_open), flow.low, g_.store_c - store_open_k);
        return {low, at(eff.mid, flow.mid, g_.store_c), high};
    }

    Band rest_c(const Band& eff) const
    {
        const Collector& c = v_.loop.collector;
        return {g_.air_c + rest_over_air_k(c, eff.low * (1 - collector_open)), g_.air_c + rest_over_air_k(c, eff.mid), g_.air_c + rest_over_air_k(c, eff.high * (1 + collector_open))};
    }

    void decide(Expected& out, const Band& rest) const
    {
        const bool store_full = pair_.limit_c && g_.store_c >= *pair_.limit_c;
        if (store_full) {
            out.state = NowState::rests;
            out.because = "the store is at its limit";
        } else if (out.flow_m3_s.high <= 0) {
            out.state = NowState::rests;
            out.because = "the panel does not turn the pump at this sun";
        } else if (rest.high - (g_.store_c - store_open_k) < pair_.on_k) {
            out.state = NowState::rests;
            out.because = "the array cannot get as far above the store as the start asks for";
        } else if (constexpr double clear_of_k = 1; out.rise_k.low > pair_.off_k + clear_of_k && rest.low - (g_.store_c + store_open_k) > pair_.on_k) {
            out.state = NowState::runs;
            if (constexpr double top_over_bottom_k = 10; pair_.limit_c && g_.store_c + top_over_bottom_k > *pair_.limit_c) // estimate
                out.state = NowState::either, out.because = "the store is near its limit: its top may be there";
        } else {
            out.because = "start and stop lie close to what this sun can give";
        }
    }

    std::optional<Band> gauge(const Expected& out) const
    {
        const Network network(v_.loop, {}, {}, job_.site.place.altitude_m);
        const auto at = [&](double array_c) {
            Pressure p(network, v_.loop, job_.site.place.altitude_m);
            std::vector<double> t(network.size(), g_.store_c);
            const auto fill = [&](Segment s, double c) {
                const NodeRange r = network.nodes_of(s);
                for (std::size_t i = r.first; i < r.first + r.count; ++i)
                    t[i] = c;
            };
            const bool runs = out.state != NowState::rests;
            for (const Segment s : {Segment::collector, Segment::collector_2})
                fill(s, runs ? (g_.store_c + array_c) / 2 : array_c);
            for (const Segment s : {Segment::return_pipe, Segment::return_2})
                fill(s, runs ? array_c : g_.air_c);
            p.settle(t, 0);
            return p.present() ? p.pa() : NAN;
        };
        const double mid = at(out.array_c.mid);
        if (!std::isfinite(mid))
            return {};
        return Band{std::min(at(out.array_c.low), mid) - gauge_open_pa, mid, std::max(at(out.array_c.high), mid) + gauge_open_pa};
    }

    // By each of the three suns; what does not come today is left out.
    std::optional<Band> next(NowState state, double from_minute) const
    {
        const auto first = [&](double sun_of_band) {
            for (double m = from_minute + 1; m < minutes_per_day; ++m) {
                const Band eff = sun_at(m, &SunOf::effective), panel = sun_at(m, &SunOf::panel);
                const auto pick = [&](const Band& b) { return sun_of_band < 0 ? b.low : sun_of_band > 0 ? b.high
                                                                                                        : b.mid; };
                const double flow = v_.loop.pump.flow_m3_s * v_.loop.pump.speed * pump_speed(v_, pick(panel), g_.air_c);
                const double rise = flow > 0 ? settled_rise_k(v_.loop, v_.loop.collector, flow, pick(eff), g_.store_c, g_.air_c) : 0.0;
                const double rest = g_.air_c + rest_over_air_k(v_.loop.collector, pick(eff));
                if (state == NowState::runs ? rise < pair_.off_k : (flow > 0 && rest - g_.store_c > pair_.on_k && rise > pair_.off_k))
                    return m / 60;
            }
            return static_cast<double>(NAN);
        };
        const double a = first(-1), b = first(0), c = first(1);
        if (!std::isfinite(b))
            return {};
        return band_of(std::isfinite(a) ? a : b, b, std::isfinite(c) ? c : b);
    }

    const Job& job_;
    const Variant& v_;
    const NowGiven& g_;
    const BenchPair& pair_;
    SunOf middle_, clearer_, hazier_;
};

} // namespace

std::optional<Expected> expect_now(const Job& job, const Variant& v, const NowGiven& given)
{
    const auto pair = bench_pair(v);
    if (!pair || !arrangement_of(v.loop).pumped())
        return {};
    return Sum(job, v, given, *pair).make();
}

} // namespace vernal
