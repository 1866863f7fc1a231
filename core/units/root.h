// Zeros of functions in one variable, by Boost.Math.
#pragma once

#include <boost/math/tools/toms748_solve.hpp>

#include <cmath>
#include <cstdint>

namespace vernal {

// Where a balance that falls from low to high becomes zero, within a few units of
// the last place; low where it is not above zero there, high where it still is
// (TOMS algorithm 748, Alefeld, Potra & Shi, ACM Trans. Math. Softw. 21 (1995) 327).
template <class F>
double falling_zero(double low, double high, F balance)
{
    const double at_low = balance(low), at_high = balance(high);
    if (!(at_low > 0) || std::isnan(at_high))
        return low;
    if (at_high >= 0)
        return high;
    constexpr int bits = 50;
    std::uintmax_t most = 100;
    return boost::math::tools::toms748_solve(balance, low, high, at_low, at_high, boost::math::tools::eps_tolerance<double>(bits), most).first;
}

// The same where it is likely within `near` of a guess: looked for there first.
template <class F>
double falling_zero_near(double guess, double near, double low, double high, F balance)
{
    const double from = guess - near, to = guess + near;
    return from > low && to < high && balance(from) > 0 && balance(to) < 0 ? falling_zero(from, to, balance) : falling_zero(low, high, balance);
}

} // namespace vernal
