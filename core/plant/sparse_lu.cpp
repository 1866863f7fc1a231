#include "sparse_lu.h"

#include <algorithm>
#include <map>
#include <set>

namespace vernal {
namespace {

using Graph = std::vector<std::set<int>>;

std::size_t at(int i) { return static_cast<std::size_t>(i); }

// Greedy minimum degree on the symmetrised graph, which is left eliminated:
// each node keeps its neighbours that come later. Of equals the one that waits
// for the fewest others goes first: a chain is then taken every second node,
// and the processor works on many rows at once instead of waiting for one.
std::vector<int> minimum_degree(Graph& g)
{
    std::vector<int> order, level(g.size(), 0);
    std::vector<bool> done(g.size(), false);
    while (order.size() < g.size()) {
        std::size_t b = g.size();
        for (std::size_t i = 0; i < g.size(); ++i)
            if (!done[i] && (b == g.size() || std::pair(g[i].size(), level[i]) < std::pair(g[b].size(), level[b])))
                b = i;
        const int best = static_cast<int>(b);
        done[b] = true;
        order.push_back(best);
        for (int i : g[b]) {
            auto& near = g[at(i)];
            level[at(i)] = std::max(level[at(i)], level[b] + 1);
            near.insert(g[b].begin(), g[b].end());
            near.erase(i);
            near.erase(best);
        }
    }
    return order;
}

// Another order of the same elimination that takes rows of equal length one
// after the other as far as those they wait for allow.
std::vector<int> bring_together(const std::vector<int>& order, const Graph& later)
{
    const std::size_t n = order.size();
    std::vector<std::size_t> waits(n, 0), length(n, 0);
    for (const auto& l : later)
        for (int j : l)
            length[at(j)] = ++waits[at(j)];
    std::vector<int> out;
    std::map<std::size_t, std::vector<int>> ready; // by length
    for (int i : order)
        if (waits[at(i)] == 0)
            ready[0].push_back(i);
    while (!ready.empty()) {
        const auto most = std::max_element(ready.begin(), ready.end(), [](const auto& a, const auto& b) { return a.second.size() < b.second.size(); });
        const std::size_t now = most->first;
        for (std::size_t k = 0; k < ready[now].size(); ++k) {
            const int i = ready[now][k];
            out.push_back(i);
            for (int j : later[at(i)])
                if (--waits[at(j)] == 0)
                    ready[length[at(j)]].push_back(j);
        }
        ready.erase(now);
    }
    return out;
}

// One row of a triangular solve: what the row's entries take from those done.
template <std::size_t Length>
inline double row_sum(const double* f, const int* column, const double* w)
{
    double sum = 0;
    for (std::size_t e = 0; e < Length; ++e)
        sum += f[e] * w[column[e]];
    return sum;
}

inline double row_sum(std::size_t length, const double* f, const int* column, const double* w)
{
    double sum = 0;
    for (std::size_t e = 0; e < length; ++e)
        sum += f[e] * w[column[e]];
    return sum;
}

enum class Direction { forward,
    backward };

// Calls each(row, sum of the row) for the rows of a group; within a group a row
// may wait for its neighbour.
template <Direction D, class Sum, class Each>
inline void walk(std::size_t count, Sum sum, Each each)
{
    if constexpr (D == Direction::forward)
        for (std::size_t i = 0; i < count; ++i)
            each(i, sum(i));
    else
        for (std::size_t i = count; i-- > 0;)
            each(i, sum(i));
}

template <Direction D, class Each>
inline void walk_group(std::size_t length, std::size_t count, const double* f, const int* column, const double* w, Each each)
{
    const auto fixed = [&]<std::size_t Length>() { walk<D>(
                                                       count, [&](std::size_t i) { return row_sum<Length>(f + i * Length, column + i * Length, w); }, each); };
    switch (length) {
    case 0:
        return fixed.template operator()<0>();
    case 1:
        return fixed.template operator()<1>();
    case 2:
        return fixed.template operator()<2>();
    case 3:
        return fixed.template operator()<3>();
    case 4:
        return fixed.template operator()<4>();
    default:
        walk<D>(
            count, [&](std::size_t i) { return row_sum(length, f + i * length, column + i * length, w); }, each);
    }
}

} // namespace

SparsePattern::SparsePattern(std::size_t n, const std::vector<std::pair<int, int>>& entries) : n_(n), place_(n)
{
    std::vector<std::set<int>> off_diagonal(n);
    Graph graph(n);
    for (const auto& [r, c] : entries)
        if (r != c) {
            off_diagonal[at(r)].insert(c);
            graph[at(r)].insert(c);
            graph[at(c)].insert(r);
        }
    std::vector<std::vector<int>> rows(n), lower(n), upper(n);
    for (std::size_t i = 0; i < n; ++i)
        rows[i].assign(off_diagonal[i].begin(), off_diagonal[i].end());
    order_ = minimum_degree(graph);
    order_ = bring_together(order_, graph);
    for (std::size_t k = 0; k < n; ++k)
        place_[at(order_[k])] = static_cast<int>(k);
    for (std::size_t k = 0; k < n; ++k) {
        for (int later : graph[at(order_[k])])
            upper[k].push_back(place_[at(later)]);
        std::sort(upper[k].begin(), upper[k].end());
        for (int j : upper[k])
            lower[at(j)].push_back(static_cast<int>(k));
    }
    place_values(rows);
    place_factors(lower, upper);
}

void SparsePattern::place_values(const std::vector<std::vector<int>>& rows)
{
    slots_.assign(n_ * n_, 0);
    column_.assign(width * n_, 0);
    row_of_.assign(width * n_, 0);
    for (std::size_t i = 0; i < n_; ++i) {
        for (std::size_t e = 0; e < width; ++e)
            column_[width * i + e] = row_of_[width * i + e] = static_cast<int>(i);
        slots_[i * n_ + i] = diagonal(i);
        std::size_t next = diagonal(i) + 1;
        for (int c : rows[i]) {
            if (next < diagonal(i) + width) {
                column_[next] = c;
                slots_[i * n_ + at(c)] = next++;
                continue;
            }
            slots_[i * n_ + at(c)] = column_.size();
            column_.push_back(c);
            row_of_.push_back(static_cast<int>(i));
        }
    }
}

void SparsePattern::place_factors(const std::vector<std::vector<int>>& lower, const std::vector<std::vector<int>>& upper)
{
    std::vector<std::uint32_t> where(n_ * n_, 0); // of (place, place) in the factors
    const auto place_rows = [&](const std::vector<std::vector<int>>& rows, std::vector<Group>& groups) {
        for (std::size_t i = 0; i < n_; ++i) {
            if (groups.empty() || groups.back().length != rows[i].size())
                groups.push_back({i, i, factor_column_.size(), rows[i].size()});
            ++groups.back().last;
            for (int c : rows[i]) {
                where[i * n_ + at(c)] = static_cast<std::uint32_t>(factor_column_.size());
                factor_column_.push_back(c);
            }
        }
    };
    place_rows(lower, lower_groups_);
    diagonal_first_ = factor_column_.size();
    for (std::size_t i = 0; i < n_; ++i) {
        where[i * n_ + i] = static_cast<std::uint32_t>(factor_column_.size());
        factor_column_.push_back(static_cast<int>(i));
    }
    upper_first_ = factor_column_.size();
    place_rows(upper, upper_groups_);
    factor_entries_ = factor_column_.size();
    for (std::size_t s = 0; s < entries(); ++s) {
        const std::size_t r = at(place_[row_of(s)]), c = at(place_[at(column_[s])]);
        const bool unused = r == c && s != diagonal(row_of(s));
        factor_of_slot_.push_back(unused ? static_cast<std::uint32_t>(factor_entries_) : where[r * n_ + c]);
    }
    for (std::size_t k = 0; k < n_; ++k)
        for (int j : upper[k]) {
            eliminations_.push_back({static_cast<std::uint32_t>(k), where[at(j) * n_ + k], upper[k].empty() ? 0 : where[k * n_ + at(upper[k].front())],
                static_cast<std::uint32_t>(targets_.size()), static_cast<std::uint32_t>(upper[k].size())});
            for (int c : upper[k])
                targets_.push_back(where[at(j) * n_ + at(c)]);
        }
}

void SparsePattern::into_implicit(double factor, const double* scale, double* values) const
{
    for (std::size_t i = 0; i < n_; ++i) {
        const double times = factor * scale[i];
        double* row = values + width * i;
        row[0] = row[0] * times + 1.0;
        row[1] *= times;
        row[2] *= times;
    }
    for (std::size_t e = width * n_; e < entries(); ++e)
        values[e] *= factor * scale[row_of_[e]];
}

void SparsePattern::add_product(const double* values, const double* x, double* out) const
{
    const int* column = column_.data();
    for (std::size_t i = 0; i < n_; ++i) {
        const std::size_t e = width * i;
        out[i] += values[e] * x[i] + values[e + 1] * x[column[e + 1]] + values[e + 2] * x[column[e + 2]];
    }
    for (std::size_t e = width * n_; e < entries(); ++e)
        out[row_of_[e]] += values[e] * x[column[e]];
}

void SparseLu::factor(const SparsePattern& p, const double* values)
{
    factors_.assign(p.factor_entries_ + 1, 0.0); // the last takes the unused places
    work_.resize(p.size());
    double* f = factors_.data();
    for (std::size_t s = 0; s < p.entries(); ++s)
        f[p.factor_of_slot_[s]] = values[s];
    double* inverse = f + p.diagonal_first_;
    std::size_t inverted = 0;
    for (const SparsePattern::Elimination& e : p.eliminations_) {
        for (; inverted <= e.row; ++inverted)
            inverse[inverted] = 1.0 / inverse[inverted];
        const double factor = f[e.lower] * inverse[e.row];
        f[e.lower] = factor;
        const double* upper = f + e.upper;
        const std::uint32_t* target = p.targets_.data() + e.target;
        for (std::uint32_t i = 0; i < e.length; ++i)
            f[target[i]] -= factor * upper[i];
    }
    for (; inverted < p.size(); ++inverted)
        inverse[inverted] = 1.0 / inverse[inverted];
    for (const SparsePattern::Group& g : p.upper_groups_)
        for (std::size_t i = g.first; i < g.last; ++i)
            for (std::size_t e = 0; e < g.length; ++e)
                f[g.entry + (i - g.first) * g.length + e] *= inverse[i];
}

void SparseLu::solve(const SparsePattern& p, const double* b, double* x) const
{
    double* w = work_.data();
    const double* f = factors_.data();
    const double* inverse = f + p.diagonal_first_;
    const int *column = p.factor_column_.data(), *order = p.order_.data();
    for (const SparsePattern::Group& g : p.lower_groups_)
        walk_group<Direction::forward>(g.length, g.last - g.first, f + g.entry, column + g.entry, w, [&](std::size_t i, double sum) { w[g.first + i] = b[order[g.first + i]] - sum; });
    for (std::size_t k = p.upper_groups_.size(); k-- > 0;) {
        const SparsePattern::Group& g = p.upper_groups_[k];
        walk_group<Direction::backward>(g.length, g.last - g.first, f + g.entry, column + g.entry, w, [&](std::size_t i, double sum) {
            w[g.first + i] = w[g.first + i] * inverse[g.first + i] - sum;
            x[order[g.first + i]] = w[g.first + i];
        });
    }
}

} // namespace vernal
