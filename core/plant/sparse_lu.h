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
    std::size_t slot(int row, int column) const;
    // Rows as (first, last) ranges into columns(), for products.
    const std::vector<int>& row_start() const { return row_start_; }
    const std::vector<int>& columns() const { return column_; }

private:
    friend class SparseLu;
    std::vector<int> row_start_, column_;   // the caller's matrix
    std::vector<int> order_, place_;        // elimination order and its inverse
    std::vector<int> l_start_, l_col_, u_start_, u_col_; // factors, in elimination order, rows sorted
    struct Term {
        int to, from; // w[to] −= factor × w[from]
    };
    std::vector<Term> forward_, backward_;  // the two sweeps of a solution, flat
    std::vector<int> forward_factor_;       // of each forward term, its place in the lower factor
};

class SparseLu {
public:
    // values[k] belongs to the pattern's k-th entry.
    void factor(const SparsePattern& pattern, const double* values);
    // x becomes the solution of A x = b; b and x may be the same array.
    void solve(const SparsePattern& pattern, const double* b, double* x) const;

private:
    static void sweep(const SparsePattern::Term* term, const double* factor, std::size_t n, double* w);
    std::vector<double> l_, u_, inverse_diagonal_;
    std::vector<double> forward_, backward_; // the factors in the order of the sweeps
    mutable std::vector<double> work_;
};

} // namespace vernal
