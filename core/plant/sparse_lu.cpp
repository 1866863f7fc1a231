#include "sparse_lu.h"

#include <algorithm>
#include <set>

namespace vernal {
namespace {

using Graph = std::vector<std::set<int>>;

// Greedy minimum degree on the symmetrised graph, which is left eliminated:
// each node keeps its neighbours that come later. Of equals the one that waits
// for the fewest others goes first: a chain is then taken every second node,
// and the processor works on many rows at once instead of waiting for one.
std::vector<int> minimum_degree(Graph& g)
{
    std::vector<int> order;
    std::vector<bool> done(g.size(), false);
    std::vector<int> level(g.size(), 0);
    while (order.size() < g.size()) {
        std::size_t b = g.size();
        for (std::size_t i = 0; i < g.size(); ++i)
            if (!done[i] && (b == g.size() || std::pair(g[i].size(), level[i]) < std::pair(g[b].size(), level[b])))
                b = i;
        const int best = static_cast<int>(b);
        done[b] = true;
        order.push_back(best);
        for (int i : g[b]) {
            auto& near = g[static_cast<std::size_t>(i)];
            level[static_cast<std::size_t>(i)] = std::max(level[static_cast<std::size_t>(i)], level[b] + 1);
            near.insert(g[b].begin(), g[b].end());
            near.erase(i);
            near.erase(best);
        }
    }
    return order;
}

} // namespace

SparsePattern::SparsePattern(std::size_t n, const std::vector<std::pair<int, int>>& entries) : place_(n)
{
    std::vector<std::set<int>> rows(n);
    Graph graph(n);
    for (std::size_t i = 0; i < n; ++i)
        rows[i].insert(static_cast<int>(i));
    for (const auto& [r, c] : entries) {
        rows[static_cast<std::size_t>(r)].insert(c);
        if (r != c) {
            graph[static_cast<std::size_t>(r)].insert(c);
            graph[static_cast<std::size_t>(c)].insert(r);
        }
    }
    row_start_.push_back(0);
    for (const auto& row : rows) {
        column_.insert(column_.end(), row.begin(), row.end());
        row_start_.push_back(static_cast<int>(column_.size()));
    }
    order_ = minimum_degree(graph);
    for (std::size_t k = 0; k < n; ++k)
        place_[static_cast<std::size_t>(order_[k])] = static_cast<int>(k);
    std::vector<std::vector<int>> lower(n), upper(n);
    for (std::size_t k = 0; k < n; ++k)
        for (int later : graph[static_cast<std::size_t>(order_[k])]) {
            const auto j = static_cast<std::size_t>(place_[static_cast<std::size_t>(later)]);
            upper[k].push_back(static_cast<int>(j));
            lower[j].push_back(static_cast<int>(k));
        }
    l_start_.push_back(0);
    u_start_.push_back(0);
    for (std::size_t k = 0; k < n; ++k) {
        std::sort(upper[k].begin(), upper[k].end());
        l_col_.insert(l_col_.end(), lower[k].begin(), lower[k].end()); // rising by construction
        u_col_.insert(u_col_.end(), upper[k].begin(), upper[k].end());
        l_start_.push_back(static_cast<int>(l_col_.size()));
        u_start_.push_back(static_cast<int>(u_col_.size()));
    }
    slots_.assign(n * n, -1);
    for (std::size_t r = 0; r < n; ++r)
        for (int e = row_start_[r]; e < row_start_[r + 1]; ++e)
            slots_[r * n + static_cast<std::size_t>(column_[static_cast<std::size_t>(e)])] = e;
}

void SparseLu::factor(const SparsePattern& p, const double* values)
{
    const std::size_t n = p.size();
    l_.resize(p.l_col_.size());
    u_.resize(p.u_col_.size());
    scaled_u_.resize(p.u_col_.size());
    inverse_diagonal_.resize(n);
    work_.assign(n, 0.0);
    for (std::size_t i = 0; i < n; ++i) {
        const auto row = static_cast<std::size_t>(p.order_[i]);
        for (int s = p.row_start_[row]; s < p.row_start_[row + 1]; ++s)
            work_[static_cast<std::size_t>(p.place_[static_cast<std::size_t>(p.column_[static_cast<std::size_t>(s)])])] = values[s];
        for (int s = p.l_start_[i]; s < p.l_start_[i + 1]; ++s) {
            const auto k = static_cast<std::size_t>(p.l_col_[static_cast<std::size_t>(s)]);
            const double f = work_[k] * inverse_diagonal_[k];
            work_[k] = 0.0;
            l_[static_cast<std::size_t>(s)] = f;
            for (int u = p.u_start_[k]; u < p.u_start_[k + 1]; ++u)
                work_[static_cast<std::size_t>(p.u_col_[static_cast<std::size_t>(u)])] -= f * u_[static_cast<std::size_t>(u)];
        }
        inverse_diagonal_[i] = 1.0 / work_[i];
        work_[i] = 0.0;
        for (int u = p.u_start_[i]; u < p.u_start_[i + 1]; ++u) {
            double& w = work_[static_cast<std::size_t>(p.u_col_[static_cast<std::size_t>(u)])];
            u_[static_cast<std::size_t>(u)] = w;
            w = 0.0;
        }
    }
    for (std::size_t k = 0; k < n; ++k) // upper rows scaled, so that solving needs no division
        for (int u = p.u_start_[k]; u < p.u_start_[k + 1]; ++u)
            scaled_u_[static_cast<std::size_t>(u)] = u_[static_cast<std::size_t>(u)] * inverse_diagonal_[k];
}

void SparseLu::solve(const SparsePattern& p, const double* b, double* x) const
{
    const std::size_t n = p.size();
    double* w = work_.data();
    const int *l_start = p.l_start_.data(), *l_col = p.l_col_.data(), *u_start = p.u_start_.data(), *u_col = p.u_col_.data(), *order = p.order_.data();
    const double *l = l_.data(), *u = scaled_u_.data(), *inverse = inverse_diagonal_.data();
    for (std::size_t i = 0; i < n; ++i) {
        double sum = b[order[i]];
        for (int s = l_start[i]; s < l_start[i + 1]; ++s)
            sum -= l[s] * w[l_col[s]];
        w[i] = sum;
    }
    for (std::size_t i = n; i-- > 0;) {
        double sum = w[i] * inverse[i];
        for (int s = u_start[i]; s < u_start[i + 1]; ++s)
            sum -= u[s] * w[u_col[s]];
        w[i] = sum;
        x[order[i]] = sum;
    }
}

} // namespace vernal
