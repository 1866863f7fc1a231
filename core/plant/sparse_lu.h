// LU factors of a small sparse matrix whose pattern is known beforehand.
// The pattern is ordered and filled once; factoring and solving then touch
// nothing but flat arrays. No pivoting: for matrices I − γ h J of heat networks,
// whose diagonal dominates.
#pragma once

#include <cstddef>
#include <utility>
#include <vector>

namespace vernal {

class SparsePattern {
public:
    // n unknowns; pairs (row, column) that may be non-zero, the diagonal included or not.
    SparsePattern(std::size_t n, const std::vector<std::pair<int, int>>& entries);
    std::size_t size() const { return order_.size(); }
    std::size_t entries() const { return column_.size(); }
    // Place of (row, column) in the caller's value array; the pair must be in the pattern.
    std::size_t slot(int row, int column) const { return static_cast<std::size_t>(slots_[static_cast<std::size_t>(row) * size() + static_cast<std::size_t>(column)]); }
    // Rows as (first, last) ranges into columns(), for products.
    const std::vector<int>& row_start() const { return row_start_; }
    const std::vector<int>& columns() const { return column_; }

private:
    friend class SparseLu;
    std::vector<int> row_start_, column_;   // the caller's matrix
    std::vector<int> order_, place_;        // elimination order and its inverse
    std::vector<int> l_start_, l_col_, u_start_, u_col_; // factors, in elimination order, rows sorted
    std::vector<int> slots_;                // row × n + column → place, −1: not in the pattern
};

class SparseLu {
public:
    // values[k] belongs to the pattern's k-th entry.
    void factor(const SparsePattern& pattern, const double* values);
    // x becomes the solution of A x = b; b and x may be the same array.
    void solve(const SparsePattern& pattern, const double* b, double* x) const;

private:
    std::vector<double> l_, u_, scaled_u_, inverse_diagonal_;
    mutable std::vector<double> work_;
};

} // namespace vernal
