#include "copper.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

constexpr double iacs_ohm_m = 1.7241e-8, per_k = 0.00393; // annealed copper at 20 °C, IEC 60028

struct Wire {
    double mm2, ohm_km;
};
using Table = std::array<Wire, 11>;
// IEC 60228, plain copper: table 1 and 2 (classes 1, 2), table 3 (class 5), maximum at 20 °C.
constexpr Table class_2{{{0.5, 36.0}, {0.75, 24.5}, {1, 18.1}, {1.5, 12.1}, {2.5, 7.41}, {4, 4.61}, {6, 3.08}, {10, 1.83}, {16, 1.15}, {25, 0.727}, {35, 0.524}}};
constexpr Table class_5{{{0.5, 39.0}, {0.75, 26.0}, {1, 19.5}, {1.5, 13.3}, {2.5, 7.98}, {4, 4.95}, {6, 3.30}, {10, 1.91}, {16, 1.21}, {25, 0.780}, {35, 0.554}}};

double from_table(const Table& table, double section_m2)
{
    const double mm2 = section_m2 * 1e6;
    const auto above = std::find_if(table.begin(), table.end(), [mm2](const Wire& w) { return w.mm2 >= mm2; });
    const Wire& b = above == table.end() ? table.back() : *above;
    const Wire& a = above == table.begin() || above == table.end() ? b : *(above - 1);
    const double share = a.mm2 == b.mm2 ? 0.0 : (mm2 - a.mm2) / (b.mm2 - a.mm2);
    return std::lerp(a.ohm_km * a.mm2, b.ohm_km * b.mm2, share) / mm2 / 1000.0;
}

} // namespace

double copper_ohm_m(double section_m2, Strands strands, double temp_c)
{
    const double at_20 = strands == Strands::drawn ? iacs_ohm_m / section_m2 : from_table(strands == Strands::solid ? class_2 : class_5, section_m2);
    return at_20 * (1 + per_k * (temp_c - 20));
}

double awg_of(double section_m2) { return 36 - 39 * std::log(std::sqrt(section_m2 * 4 / std::numbers::pi) / 0.127e-3) / std::log(92.0); }

double awg_section_m2(double n)
{
    const double d = 0.127e-3 * std::pow(92.0, (36 - n) / 39);
    return std::numbers::pi / 4 * d * d;
}

} // namespace vernal
