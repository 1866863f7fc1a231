#include "integrator.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vernal {
namespace {

// ROS3 in the form without products by the matrix: (I/(γh) − J) K_i =
// f(t + α_i h, y + Σ a_ij K_j) + Σ c_ij K_j/h + γ_i h ∂f/∂t; a_21 = a_31 = 1.
constexpr double gamma = 0.43586652150845899941601945119356;
constexpr double gamma_2 = 0.24291996454816804366592249683314, gamma_3 = 2.1851380027664058511513169485832;
constexpr double c_21 = -1.0156171083877702091975600115545, c_31 = 4.0759956452537699824805835358067, c_32 = 9.2076794298330791242156818474003;
constexpr double m_1 = 1.0, m_2 = 6.1697947043828245592553615689730, m_3 = -0.4277225654321857332623837380651;
constexpr double e_1 = 0.5, e_2 = -2.9079558716805469821718236208017, e_3 = 0.2235406989781156962736090927619;
// What a quantity that nothing depends on sums up to: weights of its value at
// each stage, m (I − γ c)⁻¹.
constexpr double w_3 = m_3, w_2 = m_2 + gamma * c_32 * w_3, w_1 = m_1 + gamma * (c_21 * w_2 + c_31 * w_3);
constexpr std::size_t cached_factors = 32;
// A front inside a pipe reaches nobody's probe before it has smoothed out.
constexpr double pipe_weight = 0.25;

// Of the amounts; four at once, as one would wait for the other.
double largest(const double* x, std::size_t n)
{
    constexpr std::size_t lanes = 4;
    std::array<double, lanes> most{};
    std::size_t i = 0;
    for (; i + lanes <= n; i += lanes)
        for (std::size_t l = 0; l < lanes; ++l)
            most[l] = std::max(most[l], std::fabs(x[i + l]));
    for (; i < n; ++i)
        most[0] = std::max(most[0], std::fabs(x[i]));
    return *std::max_element(most.begin(), most.end());
}

} // namespace

Integrator::Integrator(const Network& network, double cut_off_weight) : network_(network), flows_{{-1}, -1, 0, false, 0}, cache_(cached_factors)
{
    for (auto* v : {&f0_, &f1_, &drift_, &rhs_, &k1_, &k2_, &k3_, &middle_, &next_, &f_end_, &part_temps_})
        v->resize(network.size());
    weight_.assign(network.size(), 1.0);
    rest_weight_ = weight_;
    for (std::size_t i = 0; i < network.size(); ++i) {
        if (network.unread(i) && network.in_pipe(i))
            weight_[i] = pipe_weight;
        rest_weight_[i] = weight_[i] * (network.unread(i) ? cut_off_weight : 1.0);
    }
    trial_.next = &next_;
}

Integrator::Integrator(const Integrator& o) : network_(o.network_), flows_(o.flows_), clock_(o.clock_), weight_(o.weight_), rest_weight_(o.rest_weight_), k_(o.k_), f0_(o.f0_), cache_(o.cache_)
{
    for (auto* v : {&f1_, &drift_, &rhs_, &k1_, &k2_, &k3_, &middle_, &next_, &f_end_, &part_temps_})
        v->resize(network_.size());
    trial_.next = &next_;
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
    const SparsePattern& pattern = network_.linearise(flows_, k_, t.data(), air_c, matrix_);
    pattern.into_implicit(-gamma * h, network_.inverse_capacities(flows_.drained).data(), matrix_.data());
    oldest->lu.factor(pattern, matrix_.data());
    oldest->pattern = &pattern;
    oldest->h = h;
    oldest->flows = flows_;
    oldest->slopes = slopes;
    oldest->last_used = ++clock_;
    oldest->slopes_at.resize(network_.nonlinear_losses());
    network_.nonlinear_slopes(flows_, t.data(), air_c, oldest->slopes_at.data());
    return *oldest;
}

const Integrator::Trial& Integrator::attempt(const std::vector<double>& t, const Flows& flows, const Surroundings& a, const Surroundings& b, double h)
{
    const bool goes_on = closed_ && flows == flows_ && a == b_ && t == next_;
    if (!(flows == flows_)) {
        flows_ = flows;
        network_.assemble(flows, k_);
    }
    if (goes_on)
        f0_.swap(f_end_);
    closed_ = false;
    const Factors& f = factors(t, a.air_c, h);
    const std::size_t n = t.size();
    const Surroundings inside = Surroundings::between(a, b, gamma);
    // None of these overlap; said so, the loops below run several nodes at once.
    const double* __restrict t0 = t.data();
    double* __restrict f0 = f0_.data(), * __restrict f1 = f1_.data(), * __restrict drift = drift_.data(), * __restrict rhs = rhs_.data();
    double* __restrict k1 = k1_.data(), * __restrict k2 = k2_.data(), * __restrict k3 = k3_.data();
    const double* __restrict weight = this->weight().data();
    double* __restrict middle = middle_.data(), * __restrict next = next_.data();
    if (!goes_on)
        network_.rates(k_, flows, a, t0, f0);
    network_.drift(a, b, f.slopes_at.data(), flows, drift);
    for (std::size_t i = 0; i < n; ++i)
        rhs[i] = gamma * h * (f0[i] + gamma * drift[i]);
    f.lu.solve(*f.pattern, rhs, k1);
    for (std::size_t i = 0; i < n; ++i)
        middle[i] = t0[i] + k1[i];
    network_.rates(k_, flows, inside, middle, f1);
    for (std::size_t i = 0; i < n; ++i)
        rhs[i] = gamma * (h * (f1[i] + gamma_2 * drift[i]) + c_21 * k1[i]);
    f.lu.solve(*f.pattern, rhs, k2);
    for (std::size_t i = 0; i < n; ++i)
        rhs[i] = gamma * (h * (f1[i] + gamma_3 * drift[i]) + c_31 * k1[i] + c_32 * k2[i]);
    f.lu.solve(*f.pattern, rhs, k3);
    for (std::size_t i = 0; i < n; ++i) {
        next[i] = t0[i] + m_1 * k1[i] + m_2 * k2[i] + m_3 * k3[i];
        rhs[i] = weight[i] * (e_1 * k1[i] + e_2 * k2[i] + e_3 * k3[i]);
    }
    trial_.error_k = largest(rhs, n);
    t0_ = t.data();
    a_ = a;
    b_ = b;
    inside_ = inside;
    h_ = h;
    used_ = &f;
    return trial_;
}

void Integrator::close()
{
    if (closed_)
        return;
    network_.rates(k_, flows_, b_, next_.data(), f_end_.data());
    closed_ = true;
}

double Integrator::inside(std::size_t node, double x) const
{
    const double whole = next_[node] - t0_[node], from = h_ * f0_[node], to = h_ * f_end_[node];
    return t0_[node] + x * (from + x * ((whole - from) + (1 - x) * (2 * whole - from - to)));
}

Integrator::Span Integrator::span(std::size_t node, double x) const
{
    const double begin = t0_[node], end = inside(node, x);
    Span out{std::min(begin, end), std::max(begin, end)};
    // Its derivative: from + 2 (3 whole − 2 from − to) x − 3 (2 whole − from − to) x².
    const double whole = next_[node] - begin, from = h_ * f0_[node], to = h_ * f_end_[node];
    const double square = -3 * (2 * whole - from - to), twice = 3 * whole - 2 * from - to;
    const double under = twice * twice - square * from;
    const auto meet = [&](double at) {
        if (at > 0 && at < x) {
            const double v = inside(node, at);
            out.low = std::min(out.low, v);
            out.high = std::max(out.high, v);
        }
    };
    if (under < 0)
        return out;
    const double q = -(twice + std::copysign(std::sqrt(under), twice)); // without cancellation
    if (square != 0)
        meet(q / square);
    if (q != 0)
        meet(from / q);
    return out;
}

const std::vector<double>& Integrator::weight() const
{
    const auto& routes = flows_.route_w_k;
    return std::all_of(routes.begin(), routes.end(), [](double w) { return w == 0; }) ? rest_weight_ : weight_;
}

const Integrator::Part& Integrator::part(double share)
{
    close();
    share_ = share;
    const double x = share, bent = x * x * (1 - x);
    double error = 0;
    const std::vector<double>& weights = weight();
    for (std::size_t i = 0; i < next_.size(); ++i) {
        const double whole = next_[i] - t0_[i], from = h_ * f0_[i], to = h_ * f_end_[i];
        part_temps_[i] = inside(i, x);
        error = std::max(error, weights[i] * std::fabs(bent * (2 * whole - from - to)));
    }
    part_.error_k = error;
    part_.temps = &part_temps_;
    return part_;
}

HeatFlows Integrator::flows_at(const Surroundings& s, const double* t) const
{
    HeatFlows q = network_.linear_flows(flows_, t);
    q += network_.fixed_flows(flows_, s);
    q += network_.nonlinear_flows(flows_, s, t);
    return q;
}

HeatFlows Integrator::heat_of_part()
{
    const double x = share_, bent = x * x * (1 - x);
    HeatFlows q = heat() * (x * x + 2 * bent);
    q += flows_at(a_, t0_) * (h_ * (x - x * x - bent));
    q += flows_at(b_, next_.data()) * (-h_ * bent);
    return q;
}

// The heat as one more row of the system: γh Σ w_i (q_i + ∇q·K_i + γ_i h ∂q/∂t).
HeatFlows Integrator::heat()
{
    for (std::size_t i = 0; i < f1_.size(); ++i) {
        rhs_[i] = w_1 * k1_[i] + w_2 * k2_[i] + w_3 * k3_[i];
        f1_[i] = w_1 * t0_[i] + (w_2 + w_3) * middle_[i] + rhs_[i];
    }
    constexpr double drifted = w_1 * gamma + w_2 * gamma_2 + w_3 * gamma_3;
    HeatFlows q = network_.linear_flows(flows_, f1_.data());
    q += network_.fixed_flows(flows_, a_) * (w_1 - drifted);
    q += network_.fixed_flows(flows_, inside_) * (w_2 + w_3);
    q += network_.fixed_flows(flows_, b_) * drifted;
    q += network_.nonlinear_flows(flows_, a_, t0_) * w_1;
    q += network_.nonlinear_flows(flows_, inside_, middle_.data()) * (w_2 + w_3);
    const double warmer = drifted * (b_.air_c - a_.air_c);
    for (std::size_t i = 0; i < network_.nonlinear_losses(); ++i) {
        const Network::NonlinearSlopes& s = used_->slopes_at[i];
        q.lost[static_cast<std::size_t>(network_.nonlinear_loss_kind(i))] += s.own * rhs_[network_.nonlinear_node(i)] + s.air * warmer;
    }
    return q * (gamma * h_);
}

} // namespace vernal
