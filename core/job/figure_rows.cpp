#include "figure_rows.h"

namespace vernal {
namespace {

using F = const Figures&;
using U = const Units&;

std::string times(int n) { return n > 0 ? std::to_string(n) : std::string(); }
std::string minutes(double s, U u) { return s > 0 ? to_text(s, Quantity::minutes, u) : std::string(); }
std::string if_known(double v, Quantity q, U u) { return std::isfinite(v) ? to_text(v, q, u) : std::string(); }
std::string if_any(double v, Quantity q, U u) { return v != 0 ? to_text(v, q, u) : std::string(); }
std::string at_place(double s, const std::string& where) { return std::isfinite(s) ? clock_text(s) + ", " + where : std::string(); }
bool closed(F f) { return std::isfinite(f.end_pressure_pa); }
bool battery(F f) { return std::isfinite(f.power.charge); }
constexpr double fluid_kg_m3 = 1000.0; // what ran out, told in litres

} // namespace

const std::vector<FigureRow>& figure_rows()
{
    static const std::vector<FigureRow> table{
        {"heat to store", [](F f, U u) { return to_text(f.heat.to_store, Quantity::energy, u); }},
        {"pump energy", [](F f, U u) { return to_text(f.pump_energy_j, Quantity::energy, u); }},
        {"heat per pump kWh", [](F f, U u) { return to_text(f.heat_per_pump(), Quantity::number, u); }},
        {"solar fraction", [](F f, U u) { return to_text(f.solar_fraction(), Quantity::ratio, u); }},
        {"element", [](F f, U u) { return if_any(f.heat.backup(), Quantity::energy, u); }},
        {"missing at the tap", [](F f, U u) { return f.short_j > 0 ? to_text(f.short_j, Quantity::energy, u) : std::string(); }},
        {"starts", [](F f, U) { return std::to_string(f.starts()); }},
        {"first start", [](F f, U) { return clock_text(f.pumps.empty() ? NAN : f.pumps[0].first_start_s); }},
        {"run time", [](F f, U u) { return to_text(f.pumps.empty() ? NAN : f.pumps[0].run_time_s, Quantity::minutes, u); }},
        {"shortest run", [](F f, U u) { return to_text(f.pumps.empty() ? NAN : f.pumps[0].shortest_run_s, Quantity::duration, u); }},
        {"median run", [](F f, U u) { return to_text(f.pumps.empty() ? NAN : f.pumps[0].median_run_s, Quantity::duration, u); }},
        {"starts of the second", [](F f, U) { return f.pumps.size() > 1 ? std::to_string(f.pumps[1].starts) : std::string(); }},
        {"run time of the second", [](F f, U u) { return f.pumps.size() > 1 ? to_text(f.pumps[1].run_time_s, Quantity::minutes, u) : std::string(); }},
        {"highest collector", [](F f, U u) { return to_text(f.highest_collector_c, Quantity::temperature, u); }},
        {"highest store", [](F f, U u) { return to_text(f.highest_store_c, Quantity::temperature, u); }},
        {"time above limits", [](F f, U u) { return to_text(f.above_limit_s, Quantity::minutes, u); }},
        {"frost in wet pipe", [](F f, U u) { return to_text(f.freezing_s, Quantity::minutes, u); }},
        {"freezes first", [](F f, U) { return at_place(f.first_freeze_s, f.first_freeze_at); }},
        {"bursting frost", [](F f, U u) { return minutes(f.burst_s, u); }},
        {"lost by thermosiphon", [](F f, U u) { return f.hydraulics.reverse_s > 0 ? to_text(f.night_loss_j, Quantity::energy, u) : std::string(); }},
        {"heat to the cooler", [](F f, U u) { return if_any(f.heat.loss(Loss::cooler), Quantity::energy, u); }},
        {"highest pressure", [](F f, U u) { return closed(f) ? to_text(f.vessel.highest_pa, Quantity::pressure, u) : std::string(); }},
        {"pressure, cold again", [](F f, U u) { return if_known(f.end_pressure_pa, Quantity::pressure, u); }},
        {"steam in the collector", [](F f, U u) { return minutes(f.vessel.steam_s, u); }},
        {"out of the relief valve", [](F f, U u) { return f.vessel.lost_kg > 0 ? to_text(f.vessel.lost_kg / fluid_kg_m3, Quantity::volume, u) : std::string(); }},
        {"fills of the array", [](F f, U) { return times(f.hydraulics.fills); }},
        {"fills with steam", [](F f, U) { return times(f.hydraulics.steam_fills); }},
        {"lifting, no siphon", [](F f, U u) { return minutes(f.hydraulics.lifting_s, u); }},
        {"dry run", [](F f, U u) { return minutes(f.hydraulics.dry_run_s, u); }},
        {"locked by air", [](F f, U u) { return minutes(f.hydraulics.air_locked_s, u); }},
        {"draws steam", [](F f, U u) { return minutes(f.hydraulics.cavitating_s, u); }},
        {"against a shut line", [](F f, U u) { return minutes(f.hydraulics.dead_head_s, u); }},
        {"water lost by the vent", [](F f, U u) { return f.hydraulics.vapour_kg > 0 ? to_text(f.hydraulics.vapour_kg, Quantity::grams, u) : std::string(); }},
        {"low-voltage trips", [](F f, U) { return battery(f) ? std::to_string(f.power.trips) : std::string(); }},
        {"of them at a start", [](F f, U) { return times(f.power.start_trips); }},
        {"lowest battery", [](F f, U u) { return battery(f) ? to_text(f.power.lowest_v, Quantity::voltage, u) : std::string(); }},
        {"battery at the end", [](F f, U u) { return if_known(f.power.charge, Quantity::ratio, u); }},
    };
    return table;
}

} // namespace vernal
