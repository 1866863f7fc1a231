#include "network.h"

#include <algorithm>
#include <cmath>

namespace vernal {

void Network::assemble(const Flows& flows, std::vector<double>& k) const
{
    k.assign(pattern_.entries(), 0.0);
    const auto add = [&](int r, int c, double v) { k[pattern_.slot(r, c)] += v; };
    // Heat w·T_a goes from a to b.
    const auto carry = [&](int a, int b, double w) {
        add(a, a, -w);
        add(b, a, w);
    };
    const auto link = [&](int a, int b, double g) {
        carry(a, b, g);
        carry(b, a, g);
    };
    const auto is_tank = [&](int i) { return i >= static_cast<int>(tank0_) && i < static_cast<int>(tank0_ + tank_n_); };
    for (const Pair& p : links_)
        link(p.a, p.b, p.w);
    for (const Pair& p : coil_)
        link(p.a, p.b, p.w);
    for (std::size_t i = 0; i < ring_.size(); ++i) {
        const int a = ring_[i], b = ring_[(i + 1) % ring_.size()];
        if (is_tank(a) && is_tank(b))
            continue; // the net of loop and draw, below
        carry(a, b, flows.ring_w_k * (1 + dispersion_[i]));
        carry(b, a, flows.ring_w_k * dispersion_[i]);
    }
    const double up = flows.draw_w_k - (tank_in_ring_ ? flows.ring_w_k : 0.0);
    for (int i = static_cast<int>(tank0_); i + 1 < static_cast<int>(tank0_ + tank_n_); ++i)
        up > 0 ? carry(i, i + 1, up) : carry(i + 1, i, -up);
    const int top = static_cast<int>(tank0_ + tank_n_) - 1;
    add(top, top, -flows.draw_w_k);
    for (std::size_t i = 0; i < n_; ++i)
        add(static_cast<int>(i), static_cast<int>(i), -(pipe_air_[i] + pipe_room_[i] + tank_room_[i]));
    for (std::size_t i = collector0_; i < collector0_ + collector_n_; ++i)
        add(static_cast<int>(i), static_cast<int>(i), -a1_area_);
    for (const Pair& p : probe_rows_) {
        add(p.a, p.a, -1.0);
        add(p.a, p.b, p.w);
    }
}

void Network::rates(const std::vector<double>& k, const Flows& flows, const Surroundings& s, const double* t, double* dt) const
{
    const int* start = pattern_.row_start().data();
    const int* column = pattern_.columns().data();
    const double* value = k.data();
    for (std::size_t i = 0; i < n_; ++i) {
        double sum = to_air_[i] * s.air_c + to_room_[i] * room_c_;
        for (int e = start[i]; e < start[i + 1]; ++e)
            sum += value[e] * t[column[e]];
        dt[i] = sum;
    }
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
        dt[i] *= inverse_capacity_[i];
}

HeatFlows Network::heat_flows(const Flows& flows, const Surroundings& s, const double* t) const
{
    HeatFlows q;
    for (std::size_t i : pipe_nodes_)
        q.pipe_loss += pipe_air_[i] * (t[i] - s.air_c) + pipe_room_[i] * (t[i] - room_c_);
    for (std::size_t i = tank0_; i < tank0_ + tank_n_; ++i)
        q.tank_loss += tank_room_[i] * (t[i] - room_c_);
    q.absorbed = static_cast<double>(collector_n_) * gain_area_ * s.effective_w_m2;
    q.collector_loss = static_cast<double>(collector_n_) * sky_area_ * s.net_sky_w_m2;
    for (std::size_t i = collector0_; i < collector0_ + collector_n_; ++i) {
        const double d = t[i] - s.air_c;
        q.collector_loss += a1_area_ * d + a2_area_ * d * std::fabs(d);
    }
    q.drawn = flows.draw_w_k * (t[tank0_ + tank_n_ - 1] - flows.mains_c);
    q.to_store = to_store(flows, t);
    return q;
}

double Network::to_store(const Flows& flows, const double* t) const
{
    double sum = tank_in_ring_ ? flows.ring_w_k * (t[node_of(ProbePlace::return_pipe)] - t[tank0_]) : 0.0;
    for (const Pair& p : coil_)
        sum += p.w * (t[p.a] - t[p.b]);
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
        k[pattern_.slot(static_cast<int>(i), static_cast<int>(i))] -= 2 * a2_area_ * std::fabs(t[i] - air_c);
    for (int i = static_cast<int>(tank0_); i + 1 < static_cast<int>(tank0_ + tank_n_); ++i)
        if (t[i] > t[i + 1]) {
            k[pattern_.slot(i, i)] -= mix_w_k_;
            k[pattern_.slot(i, i + 1)] += mix_w_k_;
            k[pattern_.slot(i + 1, i)] += mix_w_k_;
            k[pattern_.slot(i + 1, i + 1)] -= mix_w_k_;
        }
}

std::uint64_t Network::slope_key(const double* t, double air_c) const
{
    std::uint64_t key = 0;
    for (std::size_t i = tank0_; i + 1 < tank0_ + tank_n_; ++i)
        key = key * 2 + (t[i] > t[i + 1] ? 1 : 0);
    const double far = std::fabs(t[collector0_ + collector_n_ / 2] - air_c);
    return key * 64 + static_cast<std::uint64_t>(std::min(63.0, far / 10.0));
}

HeatFlows Network::flow_slopes(const Flows& flows, const double* v, const double* collector_slopes) const
{
    HeatFlows q;
    for (std::size_t i : pipe_nodes_)
        q.pipe_loss += (pipe_air_[i] + pipe_room_[i]) * v[i];
    for (std::size_t i = tank0_; i < tank0_ + tank_n_; ++i)
        q.tank_loss += tank_room_[i] * v[i];
    for (std::size_t i = 0; i < collector_n_; ++i)
        q.collector_loss += (a1_area_ + collector_slopes[i]) * v[collector0_ + i];
    q.drawn = flows.draw_w_k * v[tank0_ + tank_n_ - 1];
    q.to_store = to_store(flows, v);
    return q;
}

double Network::stored_j(const double* t) const
{
    double sum = 0;
    for (std::size_t i = 0; i < probe0_; ++i)
        sum += capacity_[i] * t[i];
    return sum;
}

} // namespace vernal
