#include "network.h"

#include "fluid.h"
#include "mixing.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <numeric>

namespace vernal {
namespace {

// Saturation pressure over water, kPa, and its slope: Magnus form with the
// coefficients of Alduchov & Eskridge, J. Appl. Meteor. 35 (1996) 601.
constexpr double kelvin_0c = 273.15;
constexpr double magnus_kpa = 0.61094, magnus_b = 17.625, magnus_c = 243.04;
double vapour_kpa(double t) { return magnus_kpa * std::exp(magnus_b * t / (t + magnus_c)); }
double vapour_slope(double t) { return vapour_kpa(t) * magnus_b * magnus_c / ((t + magnus_c) * (t + magnus_c)); }

} // namespace

Surroundings Surroundings::between(const Surroundings& a, const Surroundings& b, double share)
{
    const auto at = [&](double x, double y) { return x + share * (y - x); };
    Surroundings s{at(a.air_c, b.air_c), {}, at(a.net_sky_w_m2, b.net_sky_w_m2), at(a.pane_k, b.pane_k)};
    for (std::size_t p = 0; p < sun_planes; ++p)
        s.sun_w_m2[p] = at(a.sun_w_m2[p], b.sun_w_m2[p]);
    return s;
}

HeatFlows& HeatFlows::operator+=(const HeatFlows& q)
{
    absorbed += q.absorbed;
    drawn += q.drawn;
    to_store += q.to_store;
    for (std::size_t i = 0; i < losses; ++i)
        lost[i] += q.lost[i];
    return *this;
}

HeatFlows HeatFlows::operator*(double f) const
{
    HeatFlows q{absorbed * f, drawn * f, to_store * f, lost};
    for (double& l : q.lost)
        l *= f;
    return q;
}

const Fluid& Network::fluid_of(std::size_t route) const
{
    return arrangement_.routes[route].collects() ? fluid_ : second_fluid_;
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

double Network::Wall::share(const Flows& flows) const
{
    constexpr double still = 0.05; // of the usual flow: what natural convection does inside; estimate
    double resistance = 1 - inside.share - outside.share;
    for (const Film* f : {&inside, &outside})
        if (f->share > 0) {
            double rate = 0;
            for (std::size_t r = 0; r < max_routes; ++r)
                if ((f->routes >> r & 1U) != 0)
                    rate += std::fabs(flows.route_w_k[r]);
            resistance += f->share * std::pow(std::max(still, rate / f->usual_w_k), -0.8);
        }
    return 1 / resistance;
}

double Network::net_up(const TankNodes& tank, std::size_t face, const Flows& flows) const
{
    double up = tank.drawn && !tank.dip_swapped ? flows.draw_w_k : 0.0;
    for (std::size_t r = 0; r < max_routes; ++r)
        up -= tank.downward[face][r] * flows.route_w_k[r];
    return up;
}

// The cold water where it enters, and what comes from an array or an exchanger at the top.
double Network::stirred(const TankNodes& tank, std::size_t face, const Flows& flows) const
{
    double w = tank.drawn ? (tank.dip_swapped ? tank.top_jet : tank.bottom_jet)[face] * flows.draw_w_k : 0.0;
    if (tank.top_jet[face] > 0)
        for (std::size_t r = 0; r < max_routes; ++r)
            w += tank.top_jet[face] * std::max(0.0, tank.downward.back()[r] * flows.route_w_k[r]);
    return w;
}

void Network::assemble(const Flows& flows, std::vector<double>& k) const
{
    k = resting_k_;
    for (std::size_t r = 0; r < max_routes; ++r)
        if (flows.route_w_k[r] != 0)
            (flows.route_w_k[r] > 0 ? route_k_ : route_back_k_)[r].add_to(k, std::fabs(flows.route_w_k[r]));
    for (const Wall& wall : walls_) {
        const double share = wall.share(flows);
        for (std::size_t i = 0; i < wall.pairs.size(); ++i) {
            wall.out[i].carry(k, share * wall.pairs[i].w);
            wall.in[i].carry(k, share * wall.pairs[i].w);
        }
    }
    for (const TankNodes& tank : tanks_) {
        for (std::size_t i = 0; i + 1 < tank.nodes.count; ++i) {
            const double up = net_up(tank, i, flows);
            (up > 0 ? tank.up : tank.down)[i].carry(k, std::fabs(up));
            if (const double stir = stirred(tank, i, flows); stir > 0) {
                tank.up[i].carry(k, stir);
                tank.down[i].carry(k, stir);
            }
        }
        if (tank.drawn)
            k[pattern_.diagonal(tank.nodes.last())] -= flows.draw_w_k;
    }
    if (fed_heater_ >= 0 || past_tank_) {
        k[pattern_.diagonal(delivers_)] -= flows.draw_w_k;
        if (fed_heater_ >= 0)
            k[pattern_.slot(static_cast<int>(delivers_), static_cast<int>(tanks_.front().nodes.last()))] += flows.draw_w_k;
    }
}

namespace {

// No layer is warmer than the one above it, so none than any above: nothing mixes.
bool layered(const double* t, const NodeRange& nodes)
{
    bool good = true;
    for (std::size_t i = nodes.first; i < nodes.last(); ++i)
        good &= t[i] <= t[i + 1];
    return good;
}

} // namespace

void Network::rates(const std::vector<double>& k, const Flows& flows, const Surroundings& s, const double* t, double* dt) const
{
    const double* __restrict to_air = to_air_.data(), * __restrict room = room_w_.data(), * __restrict inverse = inverse_capacity_[flows.drained].data();
    double* __restrict out = dt;
    for (std::size_t i = 0; i < n_; ++i)
        out[i] = to_air[i] * s.air_c + room[i];
    pattern_.add_product(k.data(), t, dt);
    for (const Sun& sun : suns_)
        out[sun.node] += sun.gain_in(flows) * s.sun_w_m2[sun.plane] - sun.sky_w(s);
    for (const NonlinearLoss& b : nonlinear_losses_)
        out[b.node] -= b.at(flows, t[b.node], s.air_c);
    for (const TankNodes& tank : tanks_) {
        for (std::size_t i = layered(t, tank.nodes) ? tank.nodes.last() : tank.nodes.first; i < tank.nodes.last(); ++i)
            for (std::size_t j = i + 1; j <= std::min(i + mixing_reach, tank.nodes.last()); ++j)
                if (const double over = t[i] - t[j]; over > 0) {
                    const double w = tank.mix_w_k[i - tank.nodes.first][j - i - 1];
                    out[i] -= w * over;
                    out[j] += w * over;
                }
        if (tank.drawn)
            out[tank.dip_swapped ? tank.nodes.last() : tank.nodes.first] += flows.draw_w_k * flows.mains_c;
    }
    if (past_tank_)
        out[delivers_] += flows.draw_w_k * flows.mains_c;
    for (std::size_t i = 0; i < n_; ++i)
        out[i] *= inverse[i];
}

double Network::NonlinearLoss::at(const Flows& flows, double t_c, double air_c) const
{
    if (heats)
        return -(flows.*heats) * std::clamp(set_c - t_c, 0.0, 1.0);
    const double d = t_c - air_c;
    double w = square * d * std::fabs(d) + wind_j_mk * flows.wind_m_s * d;
    if (emits_m2 > 0)
        w += emits_m2 * stefan_boltzmann * (std::pow(t_c + kelvin_0c, 4) - std::pow(air_c + kelvin_0c, 4));
    if (vapour_w_kpa > 0)
        w += vapour_w_kpa * std::max(0.0, vapour_kpa(t_c) - humidity * vapour_kpa(air_c));
    return w;
}

Network::NonlinearSlopes Network::NonlinearLoss::slopes(const Flows& flows, double t_c, double air_c) const
{
    if (heats)
        return {t_c < set_c && t_c > set_c - 1 ? flows.*heats : 0.0, 0.0};
    NonlinearSlopes s;
    s.own = 2 * square * std::fabs(t_c - air_c) + wind_j_mk * flows.wind_m_s;
    s.air = -s.own;
    if (emits_m2 > 0) {
        s.own += 4 * emits_m2 * stefan_boltzmann * std::pow(t_c + kelvin_0c, 3);
        s.air -= 4 * emits_m2 * stefan_boltzmann * std::pow(air_c + kelvin_0c, 3);
    }
    if (vapour_w_kpa > 0 && vapour_kpa(t_c) > humidity * vapour_kpa(air_c)) {
        s.own += vapour_w_kpa * vapour_slope(t_c);
        s.air -= vapour_w_kpa * humidity * vapour_slope(air_c);
    }
    return s;
}

bool Network::windy() const
{
    return std::any_of(nonlinear_losses_.begin(), nonlinear_losses_.end(), [](const NonlinearLoss& b) { return b.wind_j_mk > 0; });
}

void Network::nonlinear_slopes(const Flows& flows, const double* t, double air_c, NonlinearSlopes* out) const
{
    for (std::size_t i = 0; i < nonlinear_losses_.size(); ++i)
        out[i] = nonlinear_losses_[i].slopes(flows, t[nonlinear_losses_[i].node], air_c);
}

bool Network::mixes_far(const double* t) const
{
    for (const TankNodes& tank : tanks_)
        for (std::size_t i = layered(t, tank.nodes) ? tank.nodes.last() : tank.nodes.first; i < tank.nodes.last(); ++i)
            for (std::size_t j = i + 2; j <= std::min(i + mixing_reach, tank.nodes.last()); ++j)
                if (t[i] > t[j])
                    return true;
    return false;
}

const SparsePattern& Network::linearise(const Flows& flows, const std::vector<double>& k, const double* t, double air_c, std::vector<double>& out) const
{
    const bool far = mixes_far(t);
    const SparsePattern& pattern = far ? mixing_pattern_ : pattern_;
    if (far) {
        out.assign(pattern.entries(), 0.0);
        for (std::size_t e = 0; e < k.size(); ++e)
            out[mixing_slot_[e]] += k[e]; // places without a name lie on a diagonal and are 0
    } else {
        out = k;
    }
    for (const NonlinearLoss& b : nonlinear_losses_)
        out[pattern.diagonal(b.node)] -= b.slopes(flows, t[b.node], air_c).own;
    for (const TankNodes& tank : tanks_)
        for (std::size_t i = layered(t, tank.nodes) ? tank.nodes.last() : tank.nodes.first; i < tank.nodes.last(); ++i)
            for (std::size_t j = i + 1; j <= std::min(i + mixing_reach, tank.nodes.last()); ++j)
                if (t[i] > t[j]) {
                    const int low = static_cast<int>(i), high = static_cast<int>(j);
                    const double w = tank.mix_w_k[i - tank.nodes.first][j - i - 1];
                    Face{pattern.diagonal(i), pattern.slot(high, low)}.carry(out, w);
                    Face{pattern.diagonal(j), pattern.slot(low, high)}.carry(out, w);
                }
    return pattern;
}

std::uint64_t Network::slope_key(const double* t, double air_c) const
{
    std::uint64_t key = 0;
    for (const TankNodes& tank : tanks_)
        for (std::size_t i = layered(t, tank.nodes) ? tank.nodes.last() : tank.nodes.first; i < tank.nodes.last(); ++i) {
            std::uint64_t colder = 0; // which of the layers above it
            for (std::size_t j = i + 1; j <= std::min(i + mixing_reach, tank.nodes.last()); ++j)
                colder = colder * 2 + (t[i] > t[j] ? 1 : 0);
            key = (key ^ colder) * 0x100000001b3ULL; // FNV-1a: two tanks have more pairs than a word has bits
        }
    for (Segment s : {Segment::collector, Segment::collector_2, Segment::pool})
        if (const NodeRange r = nodes_of(s); r.count > 0)
            key = key * 32 + static_cast<std::uint64_t>(std::min(31.0, std::fabs(t[r.first + r.count / 2] - air_c) / 20.0));
    for (const NonlinearLoss& b : nonlinear_losses_)
        if (b.heats)
            key = key * 2 + (t[b.node] < b.set_c && t[b.node] > b.set_c - 1 ? 1 : 0);
    return key;
}

void Network::drift(const Surroundings& a, const Surroundings& b, const NonlinearSlopes* slopes, const Flows& flows, double* out) const
{
    const std::vector<double>& inverse = inverse_capacity_[flows.drained];
    const double warmer = b.air_c - a.air_c;
    for (std::size_t i = 0; i < n_; ++i)
        out[i] = to_air_[i] * warmer * inverse[i];
    for (const Sun& sun : suns_)
        out[sun.node] += (sun.gain_in(flows) * (b.sun_w_m2[sun.plane] - a.sun_w_m2[sun.plane]) - (sun.sky_w(b) - sun.sky_w(a))) * inverse[sun.node];
    for (std::size_t i = 0; i < nonlinear_losses_.size(); ++i)
        out[nonlinear_losses_[i].node] -= slopes[i].air * warmer * inverse[nonlinear_losses_[i].node];
}

HeatFlows Network::heat_flows(const Flows& flows, const Surroundings& s, const double* t) const
{
    HeatFlows q = linear_flows(flows, t);
    q += fixed_flows(flows, s);
    q += nonlinear_flows(flows, s, t);
    return q;
}

HeatFlows Network::linear_flows(const Flows& flows, const double* t) const
{
    HeatFlows q;
    for (const LossTerm& l : loss_terms_) {
        double sum = 0;
        for (std::size_t i = 0; i < l.node.size(); ++i)
            sum += l.w_k[i] * t[l.node[i]];
        q.lost[static_cast<std::size_t>(l.loss)] += sum;
    }
    if (has_tank())
        q.drawn += flows.draw_w_k * t[delivers_];
    for (const Delivery& d : deliveries_)
        if (const double rate = flows.route_w_k[d.route]; rate != 0)
            q.to_store += rate > 0 ? rate * (t[d.in] - t[d.out]) : -rate * (t[d.in_back] - t[d.out_back]);
    for (const Pair& p : store_links_)
        q.to_store += p.w * (t[p.a] - t[p.b]);
    for (const Wall& wall : walls_)
        if (wall.to_store) {
            double sum = 0;
            for (const Pair& p : wall.pairs)
                sum += p.w * (t[static_cast<std::size_t>(p.a)] - t[static_cast<std::size_t>(p.b)]);
            q.to_store += wall.share(flows) * sum;
        }
    return q;
}

HeatFlows Network::fixed_flows(const Flows& flows, const Surroundings& s) const
{
    HeatFlows q;
    for (const Sun& sun : suns_) {
        q.absorbed += sun.gain_in(flows) * s.sun_w_m2[sun.plane];
        q.lost[static_cast<std::size_t>(sun.loss)] += sun.sky_w(s);
    }
    for (const LossTerm& l : loss_terms_)
        q.lost[static_cast<std::size_t>(l.loss)] -= l.air_w_k * s.air_c + l.room_w;
    if (has_tank())
        q.drawn = -flows.draw_w_k * flows.mains_c;
    return q;
}

HeatFlows Network::nonlinear_flows(const Flows& flows, const Surroundings& s, const double* t) const
{
    HeatFlows q;
    for (const NonlinearLoss& b : nonlinear_losses_)
        q.lost[static_cast<std::size_t>(b.loss)] += b.at(flows, t[b.node], s.air_c);
    return q;
}

const std::vector<double>& Network::tank_layers(std::size_t which) const
{
    static const std::vector<double> none;
    return which < tanks_.size() ? tanks_[which].layers.shares() : none;
}

bool Network::water_side(std::size_t node) const
{
    for (const Segment s : {Segment::exchanger_cold, Segment::circulation})
        if (const NodeRange r = nodes_of(s); r.count > 0 && node >= r.first && node <= r.last())
            return true;
    return false;
}

double Network::store_mean_c(const std::vector<double>& t) const
{
    double heat = 0, capacity = 0;
    for (std::size_t i = 0; i < n_; ++i)
        if (store_[i]) {
            heat += capacity_[0][i] * t[i];
            capacity += capacity_[0][i];
        }
    return capacity > 0 ? heat / capacity : 0.0;
}

void Network::set_stores(std::vector<double>& t, double store_c) const
{
    for (std::size_t i = 0; i < n_; ++i)
        if (store_[i])
            t[i] = store_c;
    for (const Pair& p : probe_rows_) // so that no probe remembers what was before
        if (store_[static_cast<std::size_t>(p.b)])
            t[static_cast<std::size_t>(p.a)] += p.w * (store_c - t[static_cast<std::size_t>(p.a)]);
}

double Network::comes_round_m3_s(const Flows& flows, std::size_t array) const
{
    double out = 0;
    for (std::size_t r = 0; r < arrangement().routes.size(); ++r)
        if (const Route& route = arrangement().routes[r]; route.collects() && (route.turns == Driver::pump_2) == (array == 1))
            out += std::max(0.0, flows.route_w_k[r]) / rate_w_k(r, 1.0);
    return out;
}

double Network::mean_c(std::initializer_list<Segment> stretches, const std::vector<double>& t) const
{
    double sum = 0, count = 0;
    for (Segment s : stretches) {
        const NodeRange r = nodes_of(s);
        for (std::size_t i = r.first; i < r.first + r.count; ++i)
            sum += t[i];
        count += static_cast<double>(r.count);
    }
    return count > 0 ? sum / count : 0.0;
}

std::string Network::place_text(std::size_t node) const
{
    struct Named {
        Segment stretch;
        const char* text;
        int pipe; // index of pipe_m_; −1: no pipe
        bool from_collector;
    };
    static constexpr std::array<Named, 10> table{{{Segment::collector, "collector", -1, false},
        {Segment::collector_2, "second collector", -1, false},
        {Segment::supply_pipe, "supply pipe", 0, false},
        {Segment::return_pipe, "return pipe", 1, true},
        {Segment::supply_2, "second supply pipe", 2, false},
        {Segment::return_2, "second return pipe", 3, true},
        {Segment::cooler, "cooler", -1, false},
        {Segment::exchanger_cold, "water side of the exchanger", -1, false},
        {Segment::exchanger_hot, "exchanger", -1, false},
        {Segment::circulation, "tap circulation", -1, false}}};
    for (const Named& n : table) {
        const NodeRange r = nodes_of(n.stretch);
        if (r.count == 0 || node < r.first || node > r.last())
            continue;
        const double along = (static_cast<double>(node - r.first) + 0.5) / static_cast<double>(r.count);
        if (n.pipe < 0)
            return std::string(n.text) + (r.count < 2 ? "" : along < 0.34 ? ", at its inlet"
                                                         : along > 0.66   ? ", at its outlet"
                                                                          : ", in its middle");
        char metres[24];
        std::snprintf(metres, sizeof metres, "%.1f m", pipe_m_[static_cast<std::size_t>(n.pipe)] * (n.from_collector ? along : 1 - along));
        return std::string(n.text) + ", " + metres + " from the collector";
    }
    return "loop";
}

std::vector<double> Network::start(double store_c, double air_c) const
{
    std::vector<double> t(n_, air_c);
    for (std::size_t i = 0; i < n_; ++i)
        if (store_[i])
            t[i] = store_c;
    for (const Pair& p : store_links_)
        t[static_cast<std::size_t>(p.a)] = store_c;
    for (const Wall& wall : walls_)
        if (wall.to_store)
            for (const Pair& p : wall.pairs)
                t[static_cast<std::size_t>(p.a)] = store_c;
    for (const Pair& p : probe_rows_)
        t[static_cast<std::size_t>(p.a)] = t[static_cast<std::size_t>(p.b)];
    return t;
}

void Network::drain(std::vector<double>& t, std::size_t array, unsigned drained) const
{
    double heat = capacity_[drained][drains_to_] * t[drains_to_];
    for (std::size_t i = 0; i < drains_.size(); ++i)
        if (static_cast<std::size_t>(array_of_[i]) == array)
            heat += drains_[i] * t[i];
    t[drains_to_] = heat * inverse_capacity_[drained | 1U << array][drains_to_];
}

void Network::fill(std::vector<double>& t, std::size_t array) const
{
    for (std::size_t i = 0; i < drains_.size(); ++i)
        if (drains_[i] > 0 && static_cast<std::size_t>(array_of_[i]) == array)
            t[i] = (capacity_[3][i] * t[i] + drains_[i] * t[drains_to_]) * inverse_capacity_[0][i];
}

double Network::let_out_j(const std::vector<double>& t) const
{
    double heat = 0;
    for (std::size_t i = 0; i < drains_.size(); ++i)
        heat += drains_[i] * t[i];
    return heat;
}

double Network::let_in_j(std::vector<double>& t, double mains_c) const
{
    const double water_j_k = std::accumulate(drains_.begin(), drains_.end(), 0.0);
    const std::size_t pool = node_of(arrangement_.places[1]);
    const NodeRange store = has_tank() ? tank(0) : NodeRange{pool, 1};
    double left = water_j_k, heat = 0;
    for (std::size_t i = store.first; i <= store.last() && left > 0; ++i) { // from the bottom up
        const double taken = i == store.last() ? left : std::min(left, capacity_[0][i]);
        heat += taken * t[i];
        t[i] += taken * (mains_c - t[i]) * inverse_capacity_[0][i];
        left -= taken;
    }
    for (std::size_t i = 0; i < drains_.size() && water_j_k > 0; ++i)
        t[i] = (capacity_[3][i] * t[i] + drains_[i] * heat / water_j_k) * inverse_capacity_[0][i];
    return water_j_k * mains_c;
}

double Network::stored_j(const double* t, unsigned drained) const
{
    double sum = 0;
    for (std::size_t i = 0; i < probe0_; ++i)
        sum += capacity_[drained][i] * t[i];
    return sum;
}

} // namespace vernal
