#include "log_view.h"

#include "core/units/constants.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double on_share = 0.25;                     // of what a column has when it is well on
constexpr double normal_of_mad = 1.4826;              // standard deviation of a normal scatter
constexpr double of_second_differences = 2.449489743; // √6

double quantile(std::vector<double> v, double share)
{
    if (v.empty())
        return 0;
    const auto at = static_cast<std::ptrdiff_t>(share * static_cast<double>(v.size() - 1));
    std::nth_element(v.begin(), v.begin() + at, v.end());
    return v[static_cast<std::size_t>(at)];
}

std::vector<signed char> switched(const TraceColumn& c)
{
    std::vector<double> positive;
    for (const double x : c.values)
        if (x > 0.005)
            positive.push_back(x);
    const double well_on = quantile(positive, 0.995), edge = std::max(0.005, on_share * well_on);
    std::vector<signed char> out;
    for (const double x : c.values)
        out.push_back(!std::isfinite(x) ? static_cast<signed char>(-1) : x > edge ? static_cast<signed char>(1)
                                                                                  : static_cast<signed char>(0));
    return out;
}

} // namespace

LogView::LogView(const Trace& log, const Variant& v) : log_(log), usual_s_(log.interval_s())
{
    for (std::size_t i = 0; i < v.probes.size(); ++i)
        probes_.push_back(log.find(log_column(v, i)));
    find_outputs(v);
    find_noise();
}

void LogView::find_outputs(const Variant& v)
{
    for (const Output& o : v.unit.outputs) {
        const TraceColumn* c = log_.find(o.key);
        outputs_.push_back(c ? switched(*c) : std::vector<signed char>());
    }
    const int pump = arrangement_of(v.loop).output_of(Driver::pump);
    if (pump >= 0 && static_cast<std::size_t>(pump) < outputs_.size() && outputs_[static_cast<std::size_t>(pump)].empty())
        if (const TraceColumn* c = flow())
            outputs_[static_cast<std::size_t>(pump)] = switched(*c);
}

// By second differences, which a slow course has nearly none of.
void LogView::find_noise()
{
    constexpr std::size_t most = 20000;
    for (const TraceColumn* c : probes_) {
        std::vector<double> bends;
        double step = std::numeric_limits<double>::infinity();
        std::size_t moves = 0;
        const std::size_t rows_there = c ? c->values.size() : 0, every = std::max<std::size_t>(1, rows_there / most);
        for (std::size_t i = 1; i + 1 < rows_there; i += every) {
            const double a = c->values[i - 1], b = c->values[i], d = c->values[i + 1];
            if (!std::isfinite(a) || !std::isfinite(b) || !std::isfinite(d))
                continue;
            bends.push_back(std::fabs(a - 2 * b + d));
            if (const double move = std::fabs(b - a); move > 1e-6) {
                step = std::min(step, move);
                ++moves;
            }
        }
        noise_k_.push_back(normal_of_mad * quantile(bends, 0.5) / of_second_differences);
        step_k_.push_back(moves > 0 && step > 0.004 ? step : 0.0);
    }
}

double LogView::of_day_s(std::size_t row) const { return std::fmod(std::fmod(time_s(row) + log_.clock_s(), day_s) + day_s, day_s); }

long LogView::day(std::size_t row) const
{
    const auto since = static_cast<long>(std::floor((time_s(row) + log_.clock_s()) / day_s));
    return log_.has_date() ? since + log_.date() : since;
}

} // namespace vernal
