#include "battery.h"

#include "core/units/root.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double cell_v = 2.1;         // of a full cell at rest, about: to count them
constexpr double reference_ah = 100.0; // the battery whose constants these are
constexpr double reference_c = 25.0;
constexpr double no_current_h = 0.005;                    // share of the capacity per hour over which the two branches are blended; a choice
constexpr double nearly_full = 0.01, nearly_empty = 1e-4; // where the powers of the charge are held
constexpr double charging_per_k = 0.025, discharging_per_k = 0.007;

} // namespace

double rest_voltage_v(const Battery& b, double charge) { return b.empty_v + (b.full_v - b.empty_v) * std::clamp(charge, 0.0, 1.0); }

double stored_j(const Battery& b, double charge) { return 3600.0 * b.capacity_ah * charge * (b.empty_v + (b.full_v - b.empty_v) * charge / 2); }

double charged_share(const Battery& b, double charge, double current_a)
{
    const double of_ten_hours = 10.0 * current_a / b.capacity_ah;
    return 1 - std::exp(20.73 / (of_ten_hours + 0.55) * (std::clamp(charge, 0.0, 1.0) - 1));
}

BatteryTerminals::BatteryTerminals(const Battery& b, double charge, double battery_c)
    : b_(b), charge_(charge), rest_v_(rest_voltage_v(b, charge)), cells_(std::max(1.0, std::round(b.full_v / cell_v)))
{
    // Half the distance of the branches at no current: the stated rest voltage lies between them.
    jump_v_ = ((2.0 + 0.16 * charge) - (2.085 - 0.12 * (1 - charge))) / 2;
    charging_v_ = 0.48 / std::pow(std::max(1 - charge, nearly_full), 1.2);
    discharging_v_ = 0.27 / std::pow(std::max(charge, nearly_empty), 1.5);
    charging_share_ = std::max(0.2, 1 - charging_per_k * (battery_c - reference_c));
    discharging_share_ = std::max(0.2, 1 - discharging_per_k * (battery_c - reference_c));
}

double BatteryTerminals::volt(double current_a) const
{
    const double a = std::fabs(current_a), per_h = a / b_.capacity_ah, reference_a = per_h * reference_ah;
    const double blended_v = jump_v_ * per_h / (per_h + no_current_h);
    if (current_a >= 0)
        return rest_v_ + cells_ * (blended_v + per_h * (6 / (1 + std::pow(reference_a, 0.86)) + charging_v_) * charging_share_) + a * b_.resistance_ohm;
    if (charge_ <= nearly_empty)
        return 0;
    return std::max(0.0, rest_v_ - cells_ * (blended_v + per_h * (4 / (1 + std::pow(reference_a, 1.3)) + discharging_v_) * discharging_share_) - a * b_.resistance_ohm);
}

double BatteryTerminals::possible_a(double at_v, double current_a) const
{
    return (at_v < rest_v_ && current_a > 0) || (charge_ <= nearly_empty && current_a < 0) ? 0.0 : current_a;
}

double BatteryTerminals::current_a(double at_v, double low_a, double high_a) const
{
    return falling_zero(low_a, high_a, [&](double a) { return at_v - volt(a); });
}

} // namespace vernal
