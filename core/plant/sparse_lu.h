// Product and LU factors of a small sparse matrix whose pattern is known
// beforehand. Everything that depends on the pattern alone (order, fill, who
// takes part in what) is found once; what remains runs over flat arrays with
// hardly a branch. No pivoting: for matrices I − γ h J of heat networks, whose
// diagonal dominates.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <utility>
#include <vector>

namespace vernal {

class SparsePattern {
public:
    // n unknowns; pairs (row, column) that may be non-zero, the diagonal included or not.
    SparsePattern(std::size_t n, const std::vector<std::pair<int, int>>& entries);
    std::size_t size() const { return n_; }
    // Length of the caller's value array. Slots that slot() never names stay 0.
    std::size_t entries() const { return row_of_.size(); }
    // Place of (row, column) in the value array; the pair must be in the pattern.
    std::size_t slot(int row, int column) const { return slots_[static_cast<std::size_t>(row) * size() + static_cast<std::size_t>(column)]; }
    std::size_t diagonal(std::size_t row) const { return row * width; }
    // Row and column of a place.
    std::size_t row_of(std::size_t slot) const { return static_cast<std::size_t>(row_of_[slot]); }
    std::size_t column_of(std::size_t slot) const { return static_cast<std::size_t>(column_[slot]); }
    // A becomes I + factor · diag(scale) · A.
    void into_implicit(double factor, const double* scale, double* values) const;
    // out += A x.
    void add_product(const double* values, const double* x, double* out) const;

private:
    friend class SparseLu;
    // Rows are stored three wide, the diagonal first, unused places 0; what a row
    // has beyond that follows behind all rows.
    static constexpr std::size_t width = 3;
    // Rows [first, last) in a solve that have the same number of entries.
    struct Group {
        std::size_t first, last, entry, length;
    };
    // Row j takes f = l·(1/u_kk) times row k's upper part; targets lie from `target` on.
    struct Elimination {
        std::uint32_t row, lower, upper, target, length;
    };
    void place_values(const std::vector<std::vector<int>>& rows);
    void place_factors(const std::vector<std::vector<int>>& lower, const std::vector<std::vector<int>>& upper);

    std::size_t n_;
    std::vector<int> column_, row_of_; // of the value array
    std::vector<std::size_t> slots_;   // row × n + column → place
    std::vector<int> order_, place_;   // elimination order and its inverse
    // Factors: lower rows, diagonal, upper rows, one after the other.
    std::size_t factor_entries_ = 0, diagonal_first_ = 0, upper_first_ = 0;
    std::vector<int> factor_column_;
    std::vector<std::uint32_t> factor_of_slot_;
    std::vector<Elimination> eliminations_;
    std::vector<std::uint32_t> targets_;
    std::vector<Group> lower_groups_, upper_groups_;
};

class SparseLu {
public:
    // values: one for each of the pattern's entries.
    void factor(const SparsePattern& pattern, const double* values);
    // x becomes the solution of A x = b; b and x may be the same array.
    void solve(const SparsePattern& pattern, const double* b, double* x) const;

private:
    std::vector<double> factors_; // the upper part scaled by the diagonal, which is inverted
    mutable std::vector<double> work_;
};

} // namespace vernal
