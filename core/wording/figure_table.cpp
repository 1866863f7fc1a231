#include "figure_table.h"

#include "core/units/in_units.h"
#include "core/units/instant_text.h"

#include <algorithm>
#include <array>

namespace vernal {
namespace {

using enum Quantity;
using enum Better;
using F = const Figures&;
using U = const Units&;

bool always(F) { return true; }
bool collects(F f) { return std::isfinite(f.collected_share()); }
bool never(F) { return false; } // for programs only
bool closed(F f) { return std::isfinite(f.end_pressure_pa); }
bool battery(F f) { return std::isfinite(f.power.charge); }
bool two_outputs(F f) { return f.pumps.size() > 1; }

template <double (*value)(F)>
bool above_zero(F f) { return value(f) > 0; }
template <double (*value)(F)>
bool any(F f) { return value(f) != 0; }

const PumpFigures& pump(F f, std::size_t i)
{
    static const PumpFigures none{NAN, 0, NAN, NAN, NAN, {}};
    return i < f.pumps.size() ? f.pumps[i] : none;
}

double element(F f) { return f.heat.backup(); }
double cooler(F f) { return f.heat.loss(Loss::cooler); }
double missing(F f) { return f.short_j; }
double burst(F f) { return f.burst_s; }
double steam(F f) { return f.vessel.steam_s; }
double relief(F f) { return f.vessel.lost_kg; }
double fills(F f) { return f.hydraulics.fills; }
double steam_fills(F f) { return f.hydraulics.steam_fills; }
double lifting(F f) { return f.hydraulics.lifting_s; }
double dry_run(F f) { return f.hydraulics.dry_run_s; }
double air_locked(F f) { return f.hydraulics.air_locked_s; }
double cavitating(F f) { return f.hydraulics.cavitating_s; }
double vent_loss(F f) { return f.hydraulics.vapour_kg; }
double against_steam(F f) { return f.hydraulics.steam_s; }
double dead_head(F f) { return f.hydraulics.dead_head_s; }
double start_trips(F f) { return f.power.start_trips; }
double stalled(F f) { return f.power.stalled_s; }
double not_taken(F f) { return f.power.offered_j - f.power.used_j; }
bool reversed(F f) { return f.hydraulics.reverse_s > 0; }
bool circulates(F f) { return f.circulation_s > 0; }
bool froze(F f) { return std::isfinite(f.first_freeze_s); }
std::string where_it_froze(F f, U u) { return instant_text(f.first_freeze_s) + ", " + in_units(f.first_freeze_at, u); }
std::string first_start(F f, U) { return instant_text(pump(f, 0).first_start_s); }
constexpr double fluid_kg_m3 = 1000.0; // what ran out, told in litres
std::string relieved(F f, U u) { return to_text(relief(f) / fluid_kg_m3, volume, u); }
double starts(F f) { return f.starts(); }

} // namespace

const std::vector<Figure>& figure_table()
{
    static const std::vector<Figure> table{
        {"heat_to_store_j", "heat to store", energy, more, [](F f) { return f.heat.to_store; }, always},
        {"possible_j", "", energy, more, [](F f) { return f.possible_j; }, never},
        {"collected_share", "collected of possible", ratio, more, [](F f) { return f.collected_share(); }, collects},
        {"absorbed_j", "", energy, more, [](F f) { return f.heat.absorbed; }, never},
        {"drawn_j", "", energy, more, [](F f) { return f.heat.drawn; }, never},
        {"pump_energy_j", "pump energy", electricity, less, [](F f) { return f.pump_energy_j; }, always},
        {"solar_fraction", "solar fraction", ratio, more, [](F f) { return f.solar_fraction(); }, always},
        {"heat_per_pump", "heat per pump energy", number, more, [](F f) { return f.heat_per_pump(); }, always},
        {"highest_collector_c", "highest collector", temperature, less, [](F f) { return f.highest_collector_c; }, always},
        {"highest_store_c", "highest store", temperature, neither, [](F f) { return f.highest_store_c; }, always},
        {"above_limit_s", "time above limits", minutes, less, [](F f) { return f.above_limit_s; }, always},
        {"freezing_s", "frost in wet pipe", minutes, less, [](F f) { return f.freezing_s; }, always},
        {"coldest_wet_c", "", temperature, more, [](F f) { return f.coldest_wet_c; }, never},
        {"cooler_j", "heat to the cooler", energy, less, cooler, any<cooler>},
        {"energy_residual_j", "", energy, less, [](F f) { return f.residual_j(); }, never},
        {"outputs/0/starts", "starts", count, less, starts, always},
        {"outputs/0/first_start_s", "first start", duration, neither, [](F f) { return pump(f, 0).first_start_s; }, always, first_start},
        {"outputs/0/run_time_s", "run time", minutes, neither, [](F f) { return pump(f, 0).run_time_s; }, always},
        {"outputs/0/shortest_run_s", "shortest run", duration, more, [](F f) { return pump(f, 0).shortest_run_s; }, always},
        {"outputs/0/median_run_s", "median run", duration, more, [](F f) { return pump(f, 0).median_run_s; }, always},
        {"outputs/1/starts", "starts of the second", count, less, [](F f) { return double(pump(f, 1).starts); }, two_outputs},
        {"outputs/1/run_time_s", "run time of the second", minutes, neither, [](F f) { return pump(f, 1).run_time_s; }, two_outputs},
        {"drain_back/fills", "fills of the array", count, less, fills, above_zero<fills>},
        {"drain_back/steam_fills", "fills with steam", count, less, steam_fills, above_zero<steam_fills>},
        {"drain_back/lifting_s", "lifting, no siphon", minutes, less, lifting, above_zero<lifting>},
        {"drain_back/dry_run_s", "dry run", minutes, less, dry_run, above_zero<dry_run>},
        {"drain_back/air_locked_s", "locked by air", minutes, less, air_locked, above_zero<air_locked>},
        {"drain_back/cavitating_s", "draws steam", minutes, less, cavitating, above_zero<cavitating>},
        {"drain_back/vent_loss_kg", "water lost by the vent", grams, less, vent_loss, above_zero<vent_loss>},
        {"against_steam_s", "against steam", minutes, less, against_steam, above_zero<against_steam>},
        {"dead_head_s", "against a shut line", minutes, less, dead_head, above_zero<dead_head>},
        {"element_j", "backup heat", energy, less, element, any<element>},
        {"missing_j", "missing at the tap", energy, less, missing, above_zero<missing>},
        {"circulation/lost_j", "lost by the circulation", energy, less, [](F f) { return f.heat.loss(Loss::circulation); }, circulates},
        {"circulation/warmest_c", "circulation comes back at", temperature, neither, [](F f) { return f.circulation_warmest_c; }, circulates},
        {"frost/first_s", "freezes first", duration, neither, [](F f) { return f.first_freeze_s; }, froze, where_it_froze},
        {"frost/place", "", number, neither, [](F) { return double(NAN); }, never, [](F f, U u) { return in_units(f.first_freeze_at, u); }, true},
        {"frost/burst_s", "bursting frost", minutes, less, burst, above_zero<burst>},
        {"frost/coldest_place", "", number, neither, [](F) { return double(NAN); }, never, [](F f, U) { return f.coldest_wet_at; }, true},
        {"thermosiphon/reverse_s", "", minutes, less, [](F f) { return f.hydraulics.reverse_s; }, never},
        {"thermosiphon/lost_j", "lost by thermosiphon", energy, less, [](F f) { return f.night_loss_j; }, reversed},
        {"vessel/highest_pa", "highest pressure", pressure, less, [](F f) { return f.vessel.highest_pa; }, closed},
        {"vessel/lowest_pa", "", pressure, more, [](F f) { return f.vessel.lowest_pa; }, never},
        {"vessel/cold_again_pa", "pressure, cold again", pressure, neither, [](F f) { return f.end_pressure_pa; }, closed},
        {"vessel/steam_s", "steam in the collector", minutes, less, steam, above_zero<steam>},
        {"vessel/relief_kg", "out of the relief valve", grams, less, relief, above_zero<relief>, relieved},
        {"battery/low_voltage_trips", "low-voltage trips", count, less, [](F f) { return double(f.power.trips); }, battery},
        {"battery/start_trips", "of them at a start", count, less, start_trips, above_zero<start_trips>},
        {"battery/cut_s", "", minutes, less, [](F f) { return f.power.cut_s; }, never},
        {"battery/lowest_v", "lowest battery", voltage, more, [](F f) { return f.power.lowest_v; }, battery},
        {"battery/highest_v", "highest battery", voltage, less, [](F f) { return f.power.highest_v; }, battery},
        {"battery/stalled_s", "asked for, not turning", minutes, less, stalled, above_zero<stalled>},
        {"battery/put_in_j", "", electricity, more, [](F f) { return f.power.put_in_j; }, never},
        {"battery/taken_j", "", electricity, less, [](F f) { return f.power.taken_j; }, never},
        {"panel/not_taken_j", "the panel had more", electricity, less, not_taken, any<not_taken>},
        {"battery/charge", "battery at the end", ratio, more, [](F f) { return f.power.charge; }, battery},
    };
    return table;
}

const std::vector<PumpFigure>& pump_figure_table()
{
    using P = const PumpFigures&;
    static const std::vector<PumpFigure> table{
        {"run_time_s", minutes, [](P p) { return p.run_time_s; }},
        {"starts", count, [](P p) { return double(p.starts); }},
        {"shortest_run_s", duration, [](P p) { return p.shortest_run_s; }},
        {"median_run_s", duration, [](P p) { return p.median_run_s; }},
        {"first_start_s", duration, [](P p) { return p.first_start_s; }},
    };
    return table;
}

const Figure* find_figure(const std::string& key)
{
    const auto& all = figure_table();
    const auto it = std::find_if(all.begin(), all.end(), [&](const Figure& f) { return key == f.key; });
    return it == all.end() ? nullptr : &*it;
}

const std::vector<const Figure*>& figure_rows()
{
    static const std::vector<const Figure*> rows = [] {
        std::vector<const Figure*> out;
        for (const char* key : {"heat_to_store_j", "collected_share", "pump_energy_j", "heat_per_pump", "solar_fraction", "element_j", "missing_j", "circulation/lost_j", "circulation/warmest_c",
                 "outputs/0/starts", "outputs/0/first_start_s", "outputs/0/run_time_s", "outputs/0/shortest_run_s", "outputs/0/median_run_s",
                 "outputs/1/starts", "outputs/1/run_time_s", "highest_collector_c", "highest_store_c", "above_limit_s", "freezing_s", "frost/first_s",
                 "frost/burst_s", "thermosiphon/lost_j", "cooler_j", "vessel/highest_pa", "vessel/cold_again_pa", "vessel/steam_s", "vessel/relief_kg",
                 "drain_back/fills", "drain_back/steam_fills", "drain_back/lifting_s", "drain_back/dry_run_s", "drain_back/air_locked_s", "drain_back/cavitating_s",
                 "dead_head_s", "against_steam_s", "drain_back/vent_loss_kg", "battery/low_voltage_trips", "battery/start_trips", "battery/stalled_s", "battery/lowest_v", "battery/highest_v", "battery/charge", "panel/not_taken_j"})
            out.push_back(find_figure(key));
        return out;
    }();
    return rows;
}

std::string figure_text(const Figure& figure, const Figures& f, const Units& u)
{
    if (!figure.applies(f))
        return "";
    return figure.words ? figure.words(f, u) : to_text(figure.value(f), figure.quantity, u);
}

} // namespace vernal
