// Temperatures and differences of temperature are different types: 12 °F of
// difference is 6.7 K, while 12 °F on a thermometer is −11 °C. Mixing the two
// does not compile.
#pragma once

#include <compare>

namespace vernal {

// A difference of two temperatures. Unit inside: kelvin. Any sign.
class TempDiff {
public:
    constexpr TempDiff() = default;
    static constexpr TempDiff kelvin(double k) { return TempDiff(k); }
    static constexpr TempDiff fahrenheit(double f) { return TempDiff(f * 5.0 / 9.0); }
    constexpr double in_kelvin() const { return k_; }
    constexpr double in_fahrenheit() const { return k_ * 9.0 / 5.0; }
    constexpr auto operator<=>(const TempDiff&) const = default;
    constexpr TempDiff operator+(TempDiff o) const { return TempDiff(k_ + o.k_); }
    constexpr TempDiff operator-(TempDiff o) const { return TempDiff(k_ - o.k_); }
    constexpr TempDiff operator-() const { return TempDiff(-k_); }
    constexpr TempDiff operator*(double s) const { return TempDiff(k_ * s); }

private:
    explicit constexpr TempDiff(double k) : k_(k) {}
    double k_ = 0.0;
};

// A point on the temperature scale. Unit inside: degrees Celsius (ITS-90).
class Temperature {
public:
    constexpr Temperature() = default;
    static constexpr Temperature celsius(double c) { return Temperature(c); }
    static constexpr Temperature fahrenheit(double f) { return Temperature((f - 32.0) * 5.0 / 9.0); }
    static constexpr Temperature kelvin(double k) { return Temperature(k - 273.15); }
    constexpr double in_celsius() const { return c_; }
    constexpr double in_fahrenheit() const { return c_ * 9.0 / 5.0 + 32.0; }
    constexpr double in_kelvin() const { return c_ + 273.15; }
    constexpr auto operator<=>(const Temperature&) const = default;
    constexpr TempDiff operator-(Temperature o) const { return TempDiff::kelvin(c_ - o.c_); }
    constexpr Temperature operator+(TempDiff d) const { return Temperature(c_ + d.in_kelvin()); }
    constexpr Temperature operator-(TempDiff d) const { return Temperature(c_ - d.in_kelvin()); }

private:
    explicit constexpr Temperature(double c) : c_(c) {}
    double c_ = 0.0;
};

} // namespace vernal
