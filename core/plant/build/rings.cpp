#include "builder.h"

#include "core/plant/mixing.h"

#include <algorithm>

namespace vernal {

void NetworkBuilder::make_rings()
{
    const auto& routes = n_.arrangement_.routes;
    for (std::size_t r = 0; r < routes.size(); ++r) {
        Ring ring;
        for (Segment s : built(r)) {
            const Chain& c = chains_[at(s)];
            for (int node : c.nodes) {
                ring.node.push_back(node);
                ring.dispersion.push_back(c.dispersion);
            }
            ring.dispersion.back() = 0.0;
            for (std::size_t i = 1; c.tank >= 0 && i < c.nodes.size(); ++i) {
                const auto from = static_cast<std::size_t>(c.nodes[i - 1]), to = static_cast<std::size_t>(c.nodes[i]), first = n_.tanks_[at(c.tank)].nodes.first;
                n_.tanks_[at(c.tank)].downward[std::min(from, to) - first][r] = from > to ? 1.0 : -1.0;
            }
        }
        rings_.push_back(std::move(ring));
        deliver(r);
    }
}

// The stretches of a route that have nodes: an absent rock bed is passed over.
std::vector<Segment> NetworkBuilder::built(std::size_t r) const
{
    std::vector<Segment> way = n_.arrangement_.routes[r].ring;
    std::erase_if(way, [this](Segment s) { return chains_[at(s)].nodes.empty(); });
    return way;
}

void NetworkBuilder::deliver(std::size_t r)
{
    const std::vector<Segment> way = built(r);
    const auto nodes = [&](std::size_t i) -> const std::vector<int>& { return chains_[at(way[i % way.size()])].nodes; };
    for (std::size_t i = 0; i < way.size(); ++i)
        if (chains_[at(way[i])].delivers)
            n_.deliveries_.push_back({r, at(nodes(i + way.size() - 1).back()), at(nodes(i).back()), at(nodes(i + 1).front()), at(nodes(i).front())});
}

SparsePattern NetworkBuilder::make_pattern(std::size_t reach) const
{
    std::vector<std::pair<int, int>> e;
    const auto both = [&](int a, int b) {
        e.emplace_back(a, b);
        e.emplace_back(b, a);
    };
    for (const Ring& ring : rings_)
        for (std::size_t i = 0; i < ring.node.size(); ++i)
            both(ring.node[i], ring.node[(i + 1) % ring.node.size()]);
    if (n_.fed_heater_ >= 0)
        both(n_.fed_heater_, static_cast<int>(n_.tanks_.front().nodes.last()));
    for (const Network::TankNodes& t : n_.tanks_)
        for (std::size_t i = t.nodes.first; i < t.nodes.last(); ++i)
            for (std::size_t j = i + 1; j <= std::min(i + reach, t.nodes.last()); ++j)
                both(static_cast<int>(i), static_cast<int>(j));
    for (const std::vector<Network::Pair>* pairs : {&std::as_const(links_), &std::as_const(n_.store_links_)})
        for (const Network::Pair& p : *pairs)
            both(p.a, p.b);
    for (const Network::Wall& w : n_.walls_)
        for (const Network::Pair& p : w.pairs)
            both(p.a, p.b);
    for (const Network::Pair& p : n_.probe_rows_)
        e.emplace_back(p.a, p.b);
    return SparsePattern(n_.n_, e);
}

// Everything that can be summed before a flow is known.
void NetworkBuilder::add_up()
{
    std::vector<double>& k = n_.resting_k_;
    k.assign(n_.pattern_.entries(), 0.0);
    for (std::size_t i = 0; i < n_.n_; ++i) {
        n_.to_air_.push_back(air_[i] + probe_air_[i]);
        n_.room_w_.push_back(room_[i] * room_c_[i] + probe_room_[i] * l_.tank.room_c);
        k[n_.pattern_.diagonal(i)] -= air_[i] + room_[i];
    }
    n_.burst_c_ = n_.arrangement_.carrier == Carrier::glycol ? burst_c(l_.glycol_fraction) : n_.fluid_.freezing_c;
    for (Loss loss : {Loss::collector, Loss::pipe, Loss::store, Loss::cooler, Loss::circulation})
        add_loss(loss);
    for (const std::vector<Network::Pair>* pairs : {&std::as_const(links_), &std::as_const(n_.store_links_)})
        for (const Network::Pair& p : *pairs) {
            face(p.a, p.b).carry(k, p.w);
            face(p.b, p.a).carry(k, p.w);
        }
    for (const Network::Pair& p : n_.probe_rows_) {
        k[n_.pattern_.diagonal(at(p.a))] -= 1.0;
        k[n_.pattern_.slot(p.a, p.b)] += p.w;
    }
    find_walls();
    for (std::size_t r = 0; r < rings_.size(); ++r)
        add_route(r);
    for (Network::TankNodes& t : n_.tanks_)
        for (int i = static_cast<int>(t.nodes.first); i < static_cast<int>(t.nodes.last()); ++i) {
            t.up.push_back(face(i, i + 1));
            t.down.push_back(face(i + 1, i));
        }
}

// Which routes run past either side of each.
void NetworkBuilder::find_walls()
{
    for (Network::Wall& w : n_.walls_) {
        for (const Network::Pair& p : w.pairs) {
            w.out.push_back(face(p.a, p.b));
            w.in.push_back(face(p.b, p.a));
        }
        for (std::size_t r = 0; r < rings_.size(); ++r) {
            const auto past = [&](int node) { return std::find(rings_[r].node.begin(), rings_[r].node.end(), node) != rings_[r].node.end(); };
            w.inside.routes |= static_cast<std::uint32_t>(past(w.pairs.front().a)) << r;
            w.outside.routes |= static_cast<std::uint32_t>(past(w.pairs.front().b)) << r;
        }
    }
}

void NetworkBuilder::add_loss(Loss loss)
{
    Network::LossTerm term{loss, {}, {}, 0, 0};
    for (std::size_t i = 0; i < n_.n_; ++i)
        if (loss_[i] == loss && air_[i] + room_[i] > 0) {
            term.node.push_back(i);
            term.w_k.push_back(air_[i] + room_[i]);
            term.air_w_k += air_[i];
            term.room_w += room_[i] * room_c_[i];
        }
    if (!term.node.empty())
        n_.loss_terms_.push_back(std::move(term));
}

void NetworkBuilder::add_route(std::size_t r)
{
    n_.route_k_[r] = route_term(rings_[r], true);
    n_.route_back_k_[r] = route_term(rings_[r], false);
}

Network::Term NetworkBuilder::route_term(const Ring& ring, bool forwards) const
{
    std::vector<double> k(n_.pattern_.entries(), 0.0);
    const auto tank_of = [&](int node) {
        for (std::size_t t = 0; t < n_.tanks_.size(); ++t)
            if (at(node) >= n_.tanks_[t].nodes.first && at(node) <= n_.tanks_[t].nodes.last())
                return static_cast<int>(t);
        return -1;
    };
    for (std::size_t i = 0; i < ring.node.size(); ++i) {
        const int a = ring.node[i], b = ring.node[(i + 1) % ring.node.size()];
        if (tank_of(a) >= 0 && tank_of(a) == tank_of(b))
            continue; // the net of all that runs through, see Network::assemble()
        face(a, b).carry(k, ring.dispersion[i] + (forwards ? 1 : 0));
        face(b, a).carry(k, ring.dispersion[i] + (forwards ? 0 : 1));
    }
    Network::Term term;
    for (std::size_t s = 0; s < k.size(); ++s)
        if (k[s] != 0) {
            term.slot.push_back(s);
            term.weight.push_back(k[s]);
        }
    return term;
}

} // namespace vernal
