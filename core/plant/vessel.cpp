#include "vessel.h"

#include "hydraulics.h"

#include "core/units/root.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double filled_at_c = 15.0;
constexpr double vessel_c = 25.0;    // the fluid in the vessel stands apart and stays cool
constexpr double steam_over_k = 0.2; // from the first bubble to a node full of steam
constexpr int coldest_c = -50, hottest_c = 200;
constexpr double looks_every_s = 300.0, cool_c = 85.0;
constexpr double most_over_relief_pa = 20e5; // beyond it the valve has long opened
constexpr double usable_share = 0.9;         // of the relief pressure
constexpr double lacking_share = 0.05;       // of a loop whose gauge stands at nothing; estimate
constexpr double reserve_share = 0.005, least_reserve_m3 = 0.003;

} // namespace

Pressure::Pressure(const Network& network, const Loop& loop, double altitude_m)
    : network_(network), loop_(loop), present_(network.arrangement().has(Part::vessel)), air_pa_(atmosphere_pa(altitude_m))
{
    if (!present_)
        return;
    raised_k_ = network.arrangement().carrier == Carrier::glycol ? loop.vessel.boils_k : 0.0;
    for (int c = coldest_c; c <= hottest_c; ++c)
        density_.push_back(fluid_at(glycol_share(loop), c).density_kg_m3);
    for (std::size_t i = 0; i < network.size() && i < network.ring_m3().size(); ++i)
        if (network.ring_m3()[i] > 0) {
            nodes_.push_back(i);
            content_m3_ += network.ring_m3()[i];
        }
    const Vessel& v = loop.vessel;
    const double gas = v.volume_m3 * (v.precharge_pa + air_pa_) / (std::max(v.fill_pa, v.precharge_pa) + air_pa_);
    filled_kg_ = content_m3_ * density(filled_at_c) + (v.volume_m3 - gas) * density(vessel_c);
    refill();
}

void Pressure::refill()
{
    mass_kg_ = filled_kg_;
    missing_kg_ = 0;
    pa_ = loop_.vessel.fill_pa;
    steamed_ = {};
    figures_ = {};
}

double Pressure::density(double t_c) const
{
    const double at = std::clamp(t_c, static_cast<double>(coldest_c), hottest_c - 1.0) - coldest_c;
    const int i = static_cast<int>(at);
    const double* below = density_.data() + i;
    return below[0] + (below[1] - below[0]) * (at - i);
}

double Pressure::gas_pa(double water_m3) const
{
    const Vessel& v = loop_.vessel;
    if (water_m3 <= 0) // empty: its gas no longer holds the loop up, and air gets in
        return 0;
    return (v.precharge_pa + air_pa_) * v.volume_m3 / std::max(1e-6 * v.volume_m3, v.volume_m3 - water_m3) - air_pa_;
}

// Above the air's, where it would boil first: at the top.
double Pressure::top_pa(double pa) const
{
    const Arrangement& a = network_.arrangement();
    const double weight = density(60) * gravity_m_s2 * (a.pumped() ? loop_.check_valve.rise_m : -loop_.tank.above_m);
    return std::max(1000.0, pa + air_pa_ - weight);
}

double Pressure::boils_at_c(double pa) const { return boiling_c(top_pa(pa)) + raised_k_; }

double Pressure::fluid_kg(const std::vector<double>& t, double boils_c) const
{
    double sum = 0;
    const std::vector<double>& volume = network_.ring_m3();
    if (boils_c == INFINITY) {
        for (std::size_t i : nodes_)
            sum += density(t[i]) * volume[i];
        return sum;
    }
    for (std::size_t i : nodes_)
        sum += density(t[i]) * volume[i] * (1 - std::clamp((t[i] - boils_c) / steam_over_k, 0.0, 1.0));
    return sum;
}

void Pressure::pass(const std::vector<double>& t, double seconds)
{
    if (!present_)
        return;
    waited_s_ += seconds;
    double array_c = -INFINITY;
    for (Segment s : {Segment::collector, Segment::collector_2})
        if (const NodeRange r = network_.nodes_of(s); r.count > 0)
            array_c = std::max({array_c, t[r.first], t[r.last()]});
    if (waited_s_ >= looks_every_s || array_c > cool_c)
        settle(t, waited_s_);
}

void Pressure::settle(const std::vector<double>& t, double seconds)
{
    if (!present_)
        return;
    waited_s_ = 0;
    double hottest = -INFINITY;
    for (std::size_t i : nodes_)
        hottest = std::max(hottest, t[i]);
    const auto by_vessel = [&](double boils_c) { return gas_pa((mass_kg_ - fluid_kg(t, boils_c)) / density(vessel_c)); };
    const Vessel& v = loop_.vessel;
    pa_ = by_vessel(INFINITY);
    const bool steams = hottest > cool_c && saturation_pa(hottest - raised_k_) > top_pa(pa_); // above where it boils, without looking for it
    // The more pressure, the less steam, the less the vessel takes: one pressure fits.
    if (steams)
        pa_ = falling_zero(pa_, v.relief_pa + most_over_relief_pa, [&](double pa) { return by_vessel(boils_at_c(pa)) - pa; });
    if (pa_ > v.relief_pa) {
        const double inside = fluid_kg(t, steams ? boils_at_c(v.relief_pa) : INFINITY);
        const double gas = v.volume_m3 * (v.precharge_pa + air_pa_) / (v.relief_pa + air_pa_);
        const double held = inside + std::max(0.0, v.volume_m3 - gas) * density(vessel_c);
        figures_.lost_kg += std::max(0.0, mass_kg_ - held);
        mass_kg_ = std::min(mass_kg_, held);
        pa_ = v.relief_pa;
    }
    const std::array stretches{Segment::collector, Segment::collector_2};
    for (std::size_t a = 0; a < stretches.size(); ++a) {
        const NodeRange r = network_.nodes_of(stretches[a]);
        double array_c = -INFINITY;
        for (std::size_t i = r.first; i < r.first + r.count; ++i)
            array_c = std::max(array_c, t[i]);
        steamed_[a] = steams && array_c > boils_at_c(pa_) + (steamed_[a] ? 0.0 : steam_over_k);
    }
    figures_.steam_s += steams ? seconds : 0.0;
    figures_.highest_pa = std::max(figures_.highest_pa, pa_);
    figures_.lowest_pa = std::min(figures_.lowest_pa, pa_);
}

void Pressure::lose(double share)
{
    if (!present_)
        return;
    const auto in_vessel = [&](double kg) { return (kg - content_m3_ * density(filled_at_c)) / density(vessel_c); };
    const double filled_pa = gas_pa(in_vessel(filled_kg_)), wanted_pa = (1 - share) * filled_pa;
    double missing = 0;
    if (share > 0) { // the gas of the vessel at the pressure that is left, or none of the fluid in it
        const double gas = loop_.vessel.volume_m3 * (loop_.vessel.precharge_pa + air_pa_) / (wanted_pa + air_pa_);
        missing = filled_kg_ - content_m3_ * density(filled_at_c) - std::max(0.0, loop_.vessel.volume_m3 - gas) * density(vessel_c);
        // Below its precharge the vessel is empty and the loop itself lacks some: enough that it stays so while warm.
        const double short_of = std::clamp((loop_.vessel.precharge_pa - wanted_pa) / std::max(1.0, loop_.vessel.precharge_pa), 0.0, 1.0);
        missing += short_of * lacking_share * content_m3_ * density(filled_at_c);
    }
    mass_kg_ += missing_kg_ - missing;
    missing_kg_ = missing;
}

double Pressure::cold_pa() const { return gas_pa((mass_kg_ - content_m3_ * density(filled_at_c)) / density(vessel_c)); }

double ring_content_m3(const Loop& l)
{
    double sum = 0;
    const Network network(l, {});
    for (double v : network.ring_m3())
        sum += v;
    return sum;
}

double expansion(double x, double cold_c, double hot_c) { return fluid_at(x, cold_c).density_kg_m3 / fluid_at(x, hot_c).density_kg_m3 - 1; }

double vessel_for(const Loop& l, double hot_c)
{
    const double content = ring_content_m3(l), air = atmosphere_pa(0);
    const double steam = l.collector.content_m3 + (arrangement_of(l).has(Part::collector_2) ? l.collector_2.content_m3 : 0.0);
    const double takes = content * expansion(glycol_share(l), filled_at_c, hot_c) + steam + std::max(least_reserve_m3, reserve_share * content);
    const double low = l.vessel.precharge_pa + air, high = usable_share * l.vessel.relief_pa + air;
    return high > low ? takes * high / (high - low) : INFINITY;
}

} // namespace vernal
