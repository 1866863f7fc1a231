#include "year_verb.h"

#include "chosen_variant.h"

#include "core/study/year.h"
#include "files/job_file.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <ostream>

namespace vernal {
namespace {

using Json = nlohmann::ordered_json;

Json or_null(double x) { return std::isfinite(x) ? Json(x == 0 ? 0.0 : x) : Json(nullptr); }

Json json_of(const YearMonth& m)
{
    return {{"month", m.month}, {"days", m.days}, {"heat_to_store_j", m.heat_j}, {"backup_j", m.backup_j}, {"needed_j", m.needed_j}, {"missing_j", m.short_j}, {"possible_j", or_null(m.possible_j)}, {"collected_share", or_null(m.collected_share())}, {"irradiation_j_m2", m.irradiation_j_m2}, {"solar_fraction", or_null(m.solar_share())}, {"pump_energy_j", m.pump_energy_j}, {"starts", m.starts}, {"highest_collector_c", or_null(m.hottest_collector_c)}, {"highest_store_c", or_null(m.hottest_store_c)}, {"coldest_air_c", or_null(m.coldest_air_c)}, {"above_limit_s", m.above_limit_s}, {"freezing_s", m.freezing_s}};
}

std::string date_text(const YearDay& d)
{
    std::array<char, 16> text{};
    std::snprintf(text.data(), text.size(), "%04d-%02d-%02d", d.year, d.month, d.day);
    return text.data();
}

std::string month_name(int month)
{
    static constexpr std::array names{"year", "Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"};
    return names[static_cast<std::size_t>(month)];
}

void print(std::ostream& out, const Year& year, const Units& u)
{
    const auto cell = [&](const std::string& text, int wide) {
        int letters = 0;
        for (char c : text)
            letters += (static_cast<unsigned char>(c) & 0xC0U) != 0x80;
        out << std::string(static_cast<std::size_t>(std::max(1, wide - letters)), ' ') << text;
    };
    const auto line = [&](const std::string& name, const std::vector<std::string>& cells) {
        out << name;
        for (const std::string& c : cells)
            cell(c, 13);
        out << "\n";
    };
    line("     ", {"heat", "backup", "sun's share", "pump", "starts", "collector", "store", "coldest air", "above limit", "frost", "collected of"});
    const auto row = [&](const YearMonth& m) {
        line(m.month == 0 ? "year " : month_name(m.month) + "  ", {to_text(m.heat_j, Quantity::energy, u), to_text(m.backup_j, Quantity::energy, u), std::isfinite(m.solar_share()) ? to_text(m.solar_share(), Quantity::ratio, u) : "–", to_text(m.pump_energy_j, Quantity::electricity, u), std::to_string(m.starts), to_text(m.hottest_collector_c, Quantity::temperature, u), to_text(m.hottest_store_c, Quantity::temperature, u), to_text(m.coldest_air_c, Quantity::temperature, u), to_text(m.above_limit_s / 3600, Quantity::hours, u), to_text(m.freezing_s / 3600, Quantity::hours, u), std::isfinite(m.collected_share()) ? to_text(m.collected_share(), Quantity::ratio, u) : "–"});
    };
    for (const YearMonth& m : year.months)
        row(m);
    row(year.whole);
    for (const WorthALook& w : worth_a_look(year))
        out << date_text(year.days[w.day]) << "  " << w.title << "\n";
}

} // namespace

CLI::App* YearVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("year", "A year's figures by month, and its days worth a look");
    c->add_option("job", job_, "job file, .vrelay or job.json")->required();
    c->add_option("--day", day_, "whose draws, cold water and weather file; else the first");
    c->add_option("--variant", variant_, "else the first");
    c->add_flag("--json", json_, "answer as JSON");
    return c;
}

Result<int> YearVerb::run(const Streams& s)
{
    const auto chosen = chosen_variant(job_, variant_);
    if (!chosen)
        return chosen.error();
    const Job& job = chosen->first;
    const Variant& v = job.variants[chosen->second];
    const Day* day = day_.empty() ? &job.days.front() : find_day(job, day_);
    if (!day)
        return Error{"there is no day “" + day_ + "”", job_, ""};
    const auto year = run_year(job, v, *day, [&](std::size_t done, std::size_t of) {
        if (done % 100 == 0)
            s.err << done << " of " << of << " days\n"
                  << std::flush;
    });
    if (!year)
        return year.error();
    if (!json_) {
        s.out << job.title << " · " << v.name << " · " << day->name << " · " << (year->measured ? "weather of " + day->trace : std::string("made-up weather")) << "\n";
        print(s.out, *year, s.units);
        return exit_fine;
    }
    Json months = Json::array(), look = Json::array();
    for (const YearMonth& m : year->months)
        months.push_back(json_of(m));
    for (const WorthALook& w : worth_a_look(*year))
        look.push_back({{"key", w.key}, {"date", date_text(year->days[w.day])}});
    s.out << Json{{"job", job.title}, {"variant", v.name}, {"day", day->name}, {"measured", year->measured}, {"months", months}, {"year", json_of(year->whole)}, {"worth_a_look", look}}.dump(2) << "\n";
    return exit_fine;
}

} // namespace vernal
