#include "network.h"

#include <algorithm>
#include <cmath>

namespace vernal {

HeatFlows& HeatFlows::operator+=(const HeatFlows& q)
{
    absorbed += q.absorbed;
    collector_loss += q.collector_loss;
    pipe_loss += q.pipe_loss;
    tank_loss += q.tank_loss;
    drawn += q.drawn;
    to_store += q.to_store;
    return *this;
}

HeatFlows HeatFlows::operator*(double f) const
{
    return {absorbed * f, collector_loss * f, pipe_loss * f, tank_loss * f, drawn * f, to_store * f};
}

void Network::Term::add_to(std::vector<double>& k, double factor) const
{
    for (std::size_t e = 0; e < slot.size(); ++e)
        k[slot[e]] += factor * weight[e];
}

void Network::Face::carry(std::vector<double>& k, double w) const
{
    k[from_from] -= w;
    k[to_from] += w;
}

void Network::assemble(const Flows& flows, std::vector<double>& k) const
{
    k = resting_k_;
    ring_k_.add_to(k, flows.ring_w_k);
    const double up = flows.draw_w_k - (tank_in_ring_ ? flows.ring_w_k : 0.0);
    for (const Face& f : up > 0 ? tank_up_ : tank_down_)
        f.carry(k, std::fabs(up));
    k[pattern_.diagonal(tank0_ + tank_n_ - 1)] -= flows.draw_w_k;
}

void Network::rates(const std::vector<double>& k, const Flows& flows, const Surroundings& s, const double* t, double* dt) const
{
    const double *__restrict to_air = to_air_.data(), *__restrict room = room_w_.data(), *__restrict inverse = inverse_capacity_.data();
    double* __restrict out = dt;
    for (std::size_t i = 0; i < n_; ++i)
        out[i] = to_air[i] * s.air_c + room[i];
    pattern_.add_product(k.data(), t, dt);
    const double gain = gain_area_ * s.effective_w_m2 - sky_area_ * s.net_sky_w_m2;
    for (std::size_t i = collector0_; i < collector0_ + collector_n_; ++i) {
        const double d = t[i] - s.air_c;
        dt[i] += gain - a2_area_ * d * std::fabs(d);
    }
    for (std::size_t i = tank0_; i + 1 < tank0_ + tank_n_; ++i) {
        const double mixing = mix_w_k_ * std::max(0.0, t[i] - t[i + 1]);
        dt[i] -= mixing;
        dt[i + 1] += mixing;
    }
    dt[tank0_] += flows.draw_w_k * flows.mains_c;
    for (std::size_t i = 0; i < n_; ++i)
        out[i] *= inverse[i];
}

void Network::drift(const Surroundings& a, const Surroundings& b, const double* slopes, double* out) const
{
    const double warmer = b.air_c - a.air_c;
    const double gain = gain_area_ * (b.effective_w_m2 - a.effective_w_m2) - sky_area_ * (b.net_sky_w_m2 - a.net_sky_w_m2);
    for (std::size_t i = 0; i < n_; ++i)
        out[i] = to_air_[i] * warmer * inverse_capacity_[i];
    for (std::size_t i = 0; i < collector_n_; ++i)
        out[collector0_ + i] += (gain + slopes[i] * warmer) * inverse_capacity_[collector0_ + i];
}

HeatFlows Network::heat_flows(const Flows& flows, const Surroundings& s, const double* t) const
{
    HeatFlows q = linear_flows(flows, t);
    q += fixed_flows(flows, s);
    q.collector_loss += bent_loss(s, t);
    return q;
}

HeatFlows Network::linear_flows(const Flows& flows, const double* t) const
{
    HeatFlows q;
    for (std::size_t i = 0; i < n_; ++i)
        q.pipe_loss += pipe_loss_[i] * t[i];
    for (std::size_t i = tank0_; i < tank0_ + tank_n_; ++i)
        q.tank_loss += tank_room_[i] * t[i];
    for (std::size_t i = collector0_; i < collector0_ + collector_n_; ++i)
        q.collector_loss += a1_area_ * t[i];
    q.drawn = flows.draw_w_k * t[tank0_ + tank_n_ - 1];
    q.to_store = tank_in_ring_ ? flows.ring_w_k * (t[node_of(ProbePlace::return_pipe)] - t[tank0_]) : 0.0;
    for (const Pair& p : coil_)
        q.to_store += p.w * (t[p.a] - t[p.b]);
    return q;
}

HeatFlows Network::fixed_flows(const Flows& flows, const Surroundings& s) const
{
    const auto nodes = static_cast<double>(collector_n_);
    HeatFlows q;
    q.absorbed = nodes * gain_area_ * s.effective_w_m2;
    q.collector_loss = nodes * (sky_area_ * s.net_sky_w_m2 - a1_area_ * s.air_c);
    q.pipe_loss = -(pipe_air_sum_ * s.air_c + pipe_room_sum_ * room_c_);
    q.tank_loss = -tank_room_sum_ * room_c_;
    q.drawn = -flows.draw_w_k * flows.mains_c;
    return q;
}

double Network::bent_loss(const Surroundings& s, const double* t) const
{
    double sum = 0;
    for (std::size_t i = collector0_; i < collector0_ + collector_n_; ++i) {
        const double d = t[i] - s.air_c;
        sum += a2_area_ * d * std::fabs(d);
    }
    return sum;
}

void Network::collector_slopes(const double* t, double air_c, double* out) const
{
    for (std::size_t i = 0; i < collector_n_; ++i)
        out[i] = 2 * a2_area_ * std::fabs(t[collector0_ + i] - air_c);
}

void Network::add_slopes(const double* t, double air_c, std::vector<double>& k) const
{
    for (std::size_t i = collector0_; i < collector0_ + collector_n_; ++i)
        k[pattern_.diagonal(i)] -= 2 * a2_area_ * std::fabs(t[i] - air_c);
    for (std::size_t i = 0; i + 1 < tank_n_; ++i)
        if (t[tank0_ + i] > t[tank0_ + i + 1]) {
            tank_up_[i].carry(k, mix_w_k_);
            tank_down_[i].carry(k, mix_w_k_);
        }
}

std::uint64_t Network::slope_key(const double* t, double air_c) const
{
    std::uint64_t key = 0;
    for (std::size_t i = tank0_; i + 1 < tank0_ + tank_n_; ++i)
        key = key * 2 + (t[i] > t[i + 1] ? 1 : 0);
    const double far = std::fabs(t[collector0_ + collector_n_ / 2] - air_c);
    return key * 64 + static_cast<std::uint64_t>(std::min(63.0, far / 20.0));
}

double Network::stored_j(const double* t) const
{
    double sum = 0;
    for (std::size_t i = 0; i < probe0_; ++i)
        sum += capacity_[i] * t[i];
    return sum;
}

} // namespace vernal
