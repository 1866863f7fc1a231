#include "chain.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double coldest_c = -120, hottest_c = 420, grid_k = 0.5; // tips a loop can have
constexpr std::size_t scale_points = 2001;

template <class F>
EvenCurve sampled(double first, double step, std::size_t points, F f)
{
    std::vector<double> y(points);
    for (std::size_t i = 0; i < points; ++i)
        y[i] = f(first + step * static_cast<double>(i));
    return EvenCurve(first, step, std::move(y));
}

// Nothing between the tip and the figure.
bool reads_the_tip(const ChainSpec& s)
{
    const bool off_curve = s.sensor.tolerance.kind != ToleranceKind::none && s.sensor.share != 0;
    const bool wired = is_resistance(s.curve) && (lead_ohm(s.lead) > 0 || s.lead.leak_ohm > 0);
    return !off_curve && !wired && s.stage.kind == StageKind::exact && s.correction_k == 0 && (s.condition.kind == ConditionKind::sound || s.condition.kind == ConditionKind::swapped) &&
           s.curve == s.unit_curve;
}

} // namespace

EvenCurve::EvenCurve(double first, double step, std::vector<double> y) : first_(first), step_(step), y_(std::move(y)), slope_(y_.size(), 0.0)
{
    for (std::size_t i = 1; i + 1 < y_.size(); ++i) {
        const double a = y_[i] - y_[i - 1], b = y_[i + 1] - y_[i];
        slope_[i] = a * b > 0 ? 2 * a * b / (a + b) : 0.0;
    }
    slope_.front() = y_[1] - y_[0];
    slope_.back() = y_.back() - y_[y_.size() - 2];
}

double EvenCurve::at(double x) const
{
    const double place = (x - first_) / step_;
    if (!(place > 0))
        return y_.front();
    const auto i = static_cast<std::size_t>(place);
    if (i + 1 >= y_.size())
        return y_.back();
    const double s = place - static_cast<double>(i), r = 1 - s;
    return y_[i] * (1 + 2 * s) * r * r + slope_[i] * s * r * r + y_[i + 1] * s * s * (3 - 2 * s) + slope_[i + 1] * s * s * (s - 1);
}

ReadingChain::ReadingChain(ChainSpec spec, For use) : spec_(std::move(spec)), plain_(reads_the_tip(spec_)), prepared_(use == For::run)
{
    if (plain_)
        return;
    const Condition& c = spec_.condition;
    constant_ = c.kind == ConditionKind::stuck || c.kind == ConditionKind::open || c.kind == ConditionKind::shorted;
    if (spec_.stage.kind == StageKind::pull_up)
        by_count_.assign(std::size_t{1} << spec_.stage.bits, NAN);
    if (constant_) {
        const double end = of_terminal(terminal_signal(0));
        constant_seen_ = c.kind == ConditionKind::stuck ? Seen{c.stuck_c, true} : judged(spec_.stage.kind == StageKind::pull_up ? of_count(end) : end + spec_.correction_k);
        return;
    }
    if (!prepared_)
        return;
    const auto points = static_cast<std::size_t>((hottest_c - coldest_c) / grid_k) + 1;
    map_ = sampled(coldest_c, grid_k, points, [this](double t) { return of_terminal(terminal_signal(t)); });
}

double ReadingChain::element_signal(double tip_c) const
{
    double t = tip_c;
    if (spec_.sensor.dissipation_w_k > 0 && is_resistance(spec_.curve)) {
        const double ohm = signal_beyond(spec_.curve, tip_c);
        t += probe_power_w(spec_.stage, ohm, ohm) / spec_.sensor.dissipation_w_k;
    }
    t += spec_.sensor.share * tolerance_k(spec_.curve, spec_.sensor.tolerance, t);
    const double signal = signal_beyond(spec_.curve, t);
    return spec_.condition.kind == ConditionKind::drifted ? signal * (1 + spec_.condition.drift_share) : signal;
}

double ReadingChain::terminal_signal(double tip_c) const
{
    const bool open = spec_.condition.kind == ConditionKind::open, shorted = spec_.condition.kind == ConditionKind::shorted;
    if (!is_resistance(spec_.curve))
        return open || shorted ? 0.0 : element_signal(tip_c);
    return seen_ohm(spec_.lead, open ? INFINITY : shorted ? 0.0
                                                          : element_signal(tip_c));
}

double ReadingChain::of_terminal(double signal) const
{
    if (spec_.stage.kind != StageKind::pull_up)
        return signal > 0 || !is_resistance(spec_.curve) ? temperature_beyond(spec_.unit_curve, signal) : falls(spec_.unit_curve) ? INFINITY
                                                                                                                                  : -INFINITY;
    const double volt = is_resistance(spec_.curve) ? divider_volt(spec_.stage, signal) : signal;
    return volt / full_scale(spec_.stage, spec_.curve) * std::ldexp(1.0, spec_.stage.bits);
}

double ReadingChain::of_count(double count) const
{
    const double whole = std::clamp(std::round(count), 0.0, static_cast<double>(by_count_.size() - 1));
    float& known = by_count_[static_cast<std::size_t>(whole)];
    if (std::isnan(known)) {
        const double volt = whole / static_cast<double>(by_count_.size()) * full_scale(spec_.stage, spec_.curve);
        const double signal = is_resistance(spec_.curve) ? ohm_of_divider(spec_.stage, volt) : volt;
        const bool nothing = is_resistance(spec_.curve) && (!(signal > 0) || !std::isfinite(signal));
        const double t = nothing ? INFINITY : temperature_beyond(spec_.unit_curve, signal);
        known = static_cast<float>(std::isnan(t) ? INFINITY : t + spec_.correction_k);
    }
    return static_cast<double>(known);
}

// Limits are those of what the unit shows, the correction included.
Seen ReadingChain::judged(double temp_c) const { return {temp_c, temp_c >= spec_.stage.low_c && temp_c <= spec_.stage.high_c}; }

Seen ReadingChain::at(double tip_c, double sun_w_m2) const
{
    if (plain_)
        return judged(tip_c);
    if (constant_)
        return constant_seen_;
    const double tip = spec_.condition.kind == ConditionKind::in_sun ? tip_c + spec_.condition.sun_k * sun_w_m2 / 1000 : tip_c;
    const double y = prepared_ ? map_.at(tip) : of_terminal(terminal_signal(tip));
    return judged(spec_.stage.kind == StageKind::pull_up ? of_count(y) : y + spec_.correction_k);
}

BridgeChain::BridgeChain(ChainSpec collector, ChainSpec store) : collector_(std::move(collector), ReadingChain::For::look), store_(std::move(store), ReadingChain::For::look), stage_(collector_.spec().stage)
{
    const ProbeCurve& curve = collector_.spec().unit_curve;
    const double step = stage_.supply_v / static_cast<double>(scale_points - 1);
    double last = NAN;
    std::vector<double> y(scale_points);
    for (std::size_t i = 0; i < scale_points; ++i) {
        const double d = bridge_difference_k(stage_, curve, step * static_cast<double>(i), stage_.scale_at_c);
        last = std::isnan(d) ? last : d;
        y[i] = last;
    }
    const auto first = std::find_if(y.begin(), y.end(), [](double v) { return !std::isnan(v); });
    std::fill(y.begin(), first, first == y.end() ? 0.0 : *first);
    scale_ = EvenCurve(0, step, std::move(y));
}

double BridgeChain::difference_k(double collector_tip_c, double store_tip_c, double sun_w_m2) const
{
    const Condition& c = collector_.spec().condition;
    const double tip = c.kind == ConditionKind::in_sun ? collector_tip_c + c.sun_k * sun_w_m2 / 1000 : collector_tip_c;
    const double high = collector_.terminal_signal(tip), low = store_.terminal_signal(store_tip_c);
    if (!std::isfinite(high) || !std::isfinite(low) || high <= 0 || low <= 0)
        return NAN;
    const double lsb = stage_.supply_v / std::ldexp(1.0, stage_.bits);
    return scale_.at(std::round(bridge_volt(stage_, high, low) / lsb) * lsb);
}

Seen BridgeChain::collector(double difference_k, const Seen& store) const
{
    const ChainSpec& s = collector_.spec();
    if (stuck())
        return {s.condition.stuck_c, true};
    const double seen = store.temp_c + difference_k + s.correction_k;
    return {seen, store.valid && seen >= stage_.low_c && seen <= stage_.high_c};
}

} // namespace vernal
