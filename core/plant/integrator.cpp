#include "integrator.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

constexpr double gamma = 1.0 - 1.0 / std::numbers::sqrt2; // L-stable
constexpr std::size_t cached_factors = 16;

} // namespace

Integrator::Integrator(const Network& network) : network_(network), flows_{-1, -1, 0}, cache_(cached_factors)
{
    for (auto* v : {&f0_, &f1_, &k1_, &k2_, &middle_, &next_})
        v->resize(network.size());
    trial_.next = &next_;
    trial_.rate = &f0_;
}

const Integrator::Factors& Integrator::factors(const std::vector<double>& t, double air_c, double h)
{
    const std::uint64_t slopes = network_.slope_key(t.data(), air_c);
    Factors* oldest = &cache_.front();
    for (Factors& f : cache_) {
        if (f.h == h && f.flows == flows_ && f.slopes == slopes) {
            f.last_used = ++clock_;
            return f;
        }
        if (f.last_used < oldest->last_used)
            oldest = &f;
    }
    matrix_ = k_;
    network_.add_slopes(t.data(), air_c, matrix_);
    const auto& start = network_.pattern().row_start();
    const auto& column = network_.pattern().columns();
    for (std::size_t i = 0; i < network_.size(); ++i)
        for (int e = start[i]; e < start[i + 1]; ++e) {
            const auto s = static_cast<std::size_t>(e);
            matrix_[s] = (column[s] == static_cast<int>(i) ? 1.0 : 0.0) - gamma * h * network_.inverse_capacity(i) * matrix_[s];
        }
    oldest->lu.factor(network_.pattern(), matrix_.data());
    oldest->h = h;
    oldest->flows = flows_;
    oldest->slopes = slopes;
    oldest->last_used = ++clock_;
    oldest->collector_slopes.resize(network_.collector_nodes());
    network_.collector_slopes(t.data(), air_c, oldest->collector_slopes.data());
    return *oldest;
}

const Integrator::Trial& Integrator::attempt(const std::vector<double>& t, const Flows& flows, const Surroundings& a, const Surroundings& b, double h)
{
    if (!(flows == flows_)) {
        flows_ = flows;
        network_.assemble(flows, k_);
    }
    const Factors& f = factors(t, a.air_c, h);
    const std::size_t n = t.size();
    network_.rates(k_, flows, a, t.data(), f0_.data());
    f.lu.solve(network_.pattern(), f0_.data(), k1_.data());
    for (std::size_t i = 0; i < n; ++i)
        middle_[i] = t[i] + h * k1_[i];
    network_.rates(k_, flows, b, middle_.data(), f1_.data());
    for (std::size_t i = 0; i < n; ++i)
        f1_[i] -= 2 * k1_[i];
    f.lu.solve(network_.pattern(), f1_.data(), k2_.data());
    double error = 0;
    for (std::size_t i = 0; i < n; ++i) {
        const double sum = k1_[i] + k2_[i];
        next_[i] = t[i] + h * (k1_[i] + 0.5 * sum);
        error = std::max(error, std::fabs(0.5 * h * sum));
        k1_[i] = sum;
    }
    trial_.error_k = error;
    t0_ = t.data();
    a_ = a;
    b_ = b;
    h_ = h;
    used_ = &f;
    return trial_;
}

// The quadrature that ROS2 applies to a quantity that depends on the state:
// h/2 (q(t0) + q(t0 + h k1) + γ h ∇q·(k1 + k2)).
HeatFlows Integrator::heat() const
{
    const HeatFlows q0 = network_.heat_flows(flows_, a_, t0_);
    const HeatFlows q1 = network_.heat_flows(flows_, b_, middle_.data());
    const HeatFlows s = network_.flow_slopes(flows_, k1_.data(), used_->collector_slopes.data());
    const auto over = [&](double x0, double x1, double slope) { return 0.5 * h_ * (x0 + x1 + gamma * h_ * slope); };
    return {over(q0.absorbed, q1.absorbed, 0), over(q0.collector_loss, q1.collector_loss, s.collector_loss),
            over(q0.pipe_loss, q1.pipe_loss, s.pipe_loss), over(q0.tank_loss, q1.tank_loss, s.tank_loss),
            over(q0.drawn, q1.drawn, s.drawn), over(q0.to_store, q1.to_store, s.to_store)};
}

} // namespace vernal
