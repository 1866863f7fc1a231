#include "step_control.h"

#include "setup.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double longest_step_s = 600.0;
constexpr double fine_share = 0.33; // hardly any heat in the ring, or differences of a few kelvin: a little error switches sooner

bool fine(const Loop& loop)
{
    const Arrangement& a = arrangement_of(loop);
    return a.carrier == Carrier::air || a.has(Part::pool);
}
constexpr std::array<int, 10> step_lengths{1, 2, 5, 10, 20, 30, 60, 120, 300, 600};

} // namespace

StepControl::StepControl(const CoupledSetup& s) : step_s_(s.step_s), sample_s_(static_cast<double>(s.program.sample_ms) / 1000.0), tolerance_k_(s.tolerance_k * (fine(s.loop) ? fine_share : 1.0))
{
    resting_tolerance_k_ = s.tolerance_k * resting_share;
    bool element_driven = false;
    for (std::size_t i = 0; i < s.program.outputs; ++i)
        element_driven = element_driven || s.drives[i] == Drives::element;
    for (const Gate& g : s.program.gates) {
        for (std::size_t i = 0; i < g.span_count; ++i)
            for (Millis edge : {g.spans[i].from_ms, g.spans[i].to_ms})
                fixed_edges_.push_back(static_cast<double>(edge) / 1000.0);
        if (g.kind == Gate::Kind::pressed)
            fixed_edges_.push_back(static_cast<double>(g.wait_ms) / 1000.0);
    }
    if (!element_driven && s.loop.element.mode == ElementMode::windows)
        for (const HeatingWindow& w : s.loop.element.windows)
            fixed_edges_.insert(fixed_edges_.end(), {w.start_h * 3600.0, w.end_h * 3600.0});
}

void StepControl::begin_day(const DayForcing& day)
{
    straight_until_ = straight_until(day);
    edges_ = fixed_edges_;
    for (const Draw& d : day.draws)
        edges_.insert(edges_.end(), {d.begins_s(), d.ends_s()});
    if (day.outage_end_s > day.outage_start_s)
        edges_.insert(edges_.end(), {day.outage_start_s, day.outage_end_s});
}

std::int64_t StepControl::allowed(double t, double until_s) const
{
    double until = std::min({straight_until_[static_cast<std::size_t>(std::min(t / 60.0, minutes_per_day - 1.0))], until_s, t + longest_step_s});
    for (double edge : edges_)
        if (edge > t)
            until = std::min(until, edge);
    const auto room = static_cast<std::int64_t>(std::max(1.0, std::floor((until - t) / sample_s_ + 1e-9)));
    const auto n = static_cast<std::int64_t>(std::max(1.0, std::min(fixed() ? step_s_ / sample_s_ : wish_, static_cast<double>(room))));
    // Up to a bend in one step even where that step's factors must be made.
    return fixed() || n == room ? n : usual_length(n);
}

double StepControl::error_tolerance_k(bool resting) const { return resting ? resting_tolerance_k_ : tolerance_k_; }

std::int64_t StepControl::shorter(std::int64_t n, double error_k, bool resting) const
{
    return std::min(usual_length(n - 1), usual_length(std::max<std::int64_t>(1, static_cast<std::int64_t>(static_cast<double>(n) * growth(error_k, resting)))));
}

double StepControl::growth(double error_k, bool resting) const { return std::clamp(0.9 * std::cbrt(error_tolerance_k(resting) / std::max(error_k, 1e-9)), 0.1, 6.0); }

std::int64_t StepControl::usual_length(std::int64_t n) { return *(std::upper_bound(step_lengths.begin(), step_lengths.end(), n) - 1); }

} // namespace vernal
