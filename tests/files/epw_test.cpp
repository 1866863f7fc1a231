// Typical-weather files: a small one of our own, made to the published format.
#include "cli/program.h"
#include "core/setup/job_setup.h"
#include "files/disk.h"
#include "files/epw.h"
#include "files/job_file.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <chrono>
#include <cmath>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <numbers>
#include <numeric>
#include <sstream>

using namespace vernal;
namespace fs = std::filesystem;

namespace {

// Air warms by a kelvin an hour from −4 °C; the sun gives 500 W/m² of beam and 100 diffuse from nine to
// three; a sky of 300 W/m²; wind of 2 m/s by night and 4 by day.
std::string row(int year, int month, int day, int hour, const char* air = nullptr)
{
    const bool sun = hour > 9 && hour <= 15;
    char text[400];
    std::snprintf(text, sizeof text, "%d,%d,%d,%d,0,?9?9?9,%s,-5.0,60,95000,0,0,300,%d,%d,%d,0,0,0,0,180,%.1f,3,3,20,77777,9,999999999,15,0.1,0,88,0.2,0,1\n", year, month, day, hour, air ? air : std::to_string(hour - 5).c_str(), sun ? 400 : 0, sun ? 500 : 0, sun ? 100 : 0, hour > 6 && hour <= 18 ? 4.0 : 2.0);
    return text;
}

const std::string head = "LOCATION,Quillback Meadow,Upper Dale,XYZ,made up,999999,46.25,-8.5,-1.0,640.0\r\n"
                         "DESIGN CONDITIONS,0\nTYPICAL/EXTREME PERIODS,0\nGROUND TEMPERATURES,0\nHOLIDAYS/DAYLIGHT SAVINGS,No,0,0,0\nCOMMENTS 1,none\nCOMMENTS 2,\nDATA PERIODS,1,1,Data,Sunday, 1/ 1,12/31\n";

std::string two_days()
{
    std::string text = head;
    for (int day : {1, 2})
        for (int hour = 1; hour <= 24; ++hour)
            text += row(2014, 3, day, hour);
    return text;
}

TEST(Epw, takes_place_and_hours_as_published)
{
    const auto w = read_epw(two_days(), "dale.epw");
    ASSERT_TRUE(w) << w.error().text();
    EXPECT_EQ(w->name, "Quillback Meadow, Upper Dale, XYZ");
    EXPECT_EQ(w->place, (Place{46.25, -8.5, 640.0, -1.0, "", false}));
    EXPECT_EQ(w->trace.start, "2014-03-01T00:30:00");
    ASSERT_EQ(w->trace.time_s.size(), 48U);
    EXPECT_EQ(w->trace.time_s[11], 11 * 3600.0) << "the twelfth hour ends at noon, the first row stands at half past midnight";
    EXPECT_EQ(w->trace.find("air")->values[11], 6.5) << "between 6 °C at eleven and 7 at noon";
    EXPECT_EQ(w->trace.find("beam_normal")->values[8], 0) << "until nine";
    EXPECT_EQ(w->trace.find("beam_normal")->values[9], 500);
    EXPECT_EQ(w->trace.find("irradiance")->values[9], 400);
    EXPECT_EQ(w->trace.find("wind")->unit, "m/s");
    EXPECT_NEAR(w->trace.find("sky")->values[0], std::pow(300 / 5.670374419e-8, 0.25) - 273.15, 1e-9);
    EXPECT_TRUE(w->trace.notes.empty());
}

TEST(Epw, what_is_missing_is_empty_and_counted)
{
    std::string text = head;
    for (int hour = 1; hour <= 24; ++hour)
        text += row(2014, 3, 1, hour, hour == 5 || hour == 6 ? "99.9" : nullptr);
    const auto w = read_epw(text, "dale.epw");
    ASSERT_TRUE(w);
    EXPECT_TRUE(std::isnan(w->trace.find("air")->values[4]));
    EXPECT_EQ(w->trace.find("air")->values[6], 2) << "after a gap the hour's own end";
    ASSERT_EQ(w->trace.notes.size(), 1U);
    EXPECT_EQ(w->trace.notes[0], "air: 2 hours are missing");
}

TEST(Epw, months_of_several_years_are_a_typical_one)
{
    std::string text = head;
    for (int month : {1, 2})
        for (int hour = 1; hour <= 24; ++hour)
            text += row(month == 1 ? 2009 : 1996, month, month == 1 ? 31 : 1, hour);
    const auto w = read_epw(text, "dale.epw");
    ASSERT_TRUE(w) << w.error().text();
    EXPECT_EQ(w->trace.start, "2001-01-31T00:30:00");
    EXPECT_EQ(w->trace.time_s[24], 24 * 3600.0) << "the first of February follows";
    EXPECT_NE(w->trace.notes.front().find("2 years"), std::string::npos);
}

TEST(Epw, says_where_and_what_is_wrong)
{
    const auto fails = [](const std::string& text, const std::string& where) {
        const auto w = read_epw(text, "dale.epw");
        ASSERT_FALSE(w) << where;
        EXPECT_NE(w.error().text().find(where), std::string::npos) << w.error().text();
        EXPECT_NE(w.error().text().find("dale.epw"), std::string::npos);
    };
    fails("", "LOCATION");
    fails("time,collector\n1,2\n", "LOCATION");
    fails(head, "no rows");
    fails(head.substr(0, head.find("COMMENTS 2")), "header");
    fails(head + row(2014, 3, 1, 1, "warm"), "“warm”");
    fails(head + row(2014, 3, 1, 25), "hour");
    fails(head + row(2014, 3, 1, 5) + row(2014, 3, 1, 4), "time does not go on");
    fails(head + "2014,3,1,1,0,?9\n", "row ends");
    std::string north = head;
    north.replace(north.find("46.25"), 5, "96.25");
    fails(north + row(2014, 3, 1, 1), "latitude");
}

// Its day has its air, wind and sun; the sun's energy over the day is what the hours say.
TEST(Epw, gives_a_day_its_weather)
{
    Job job = new_job("glycol-coil");
    const auto w = read_epw(two_days(), "dale.epw");
    const std::size_t at = put_weather(job, *w, "dale.epw");
    ASSERT_EQ(at, 3U);
    EXPECT_EQ(job.site.name, "Quillback Meadow, Upper Dale, XYZ");
    EXPECT_EQ(job.site.place.latitude_deg, 46.25);
    Day& d = job.days[at];
    EXPECT_EQ(d.name, "dale");
    EXPECT_EQ(d.trace, "dale.csv");
    d.sky.month = 3;
    d.sky.day = 2;
    job.variants[0].loop.collector.tilt_deg = 0;
    job.variants[0].loop.collector.iam_b0 = 0;
    job.variants[0].loop.collector.iam_diffuse = 1;
    const auto f = weather_of(job, job.variants[0], d).days.front();
    EXPECT_NEAR(f->air_c[12 * 60], 7, 0.6);
    EXPECT_NEAR(f->wind_m_s, 3, 0.1);
    const SkyDay sun = generate(d.sky, job.site.place);
    double hours = 0, minutes = 0;
    for (std::size_t m = 0; m < 1440; ++m) {
        const std::size_t hour = m / 60;
        hours += hour >= 9 && hour < 15 ? 100 + 500 * std::max(0.0, std::cos(sun.sun[m].zenith_deg * M_PI / 180)) : 0.0;
        minutes += f->plane_w_m2[m];
    }
    EXPECT_NEAR(minutes, hours, 0.02 * hours);
}

// Hours of a cloudless diffuse sky G = 300 sin(pi (t - 6 h)/12 h), each the mean of its hour
// by the integral; on a level plane they must add up to the file's own day, hour by hour.
TEST(Epw, every_hour_keeps_its_energy)
{
    std::string text = head;
    std::vector<int> means;
    for (int hour = 1; hour <= 24; ++hour) {
        const double mean = hour <= 6 || hour > 18 ? 0 : 300 * 12 / std::numbers::pi * (std::cos((hour - 7) * std::numbers::pi / 12) - std::cos((hour - 6) * std::numbers::pi / 12));
        means.push_back(hour == 13 ? 40 : static_cast<int>(std::lround(mean))); // and one hour of cloud
        char row_text[300];
        std::snprintf(row_text, sizeof row_text, "2014,3,20,%d,0,?9?9?9,10,-5.0,60,95000,0,0,300,%d,0,%d,0,0,0,0,180,2.0,3,3,20,77777,9,999999999,15,0.1,0,88,0.2,0,1\n", hour, means.back(), means.back());
        text += row_text;
    }
    const auto w = read_epw(text, "hours.epw");
    ASSERT_TRUE(w) << w.error().text();
    Job job = new_job("glycol-coil");
    job.site.place = w->place;
    job.traces["hours"] = std::make_shared<Trace>(w->trace);
    Variant& v = job.variants[0];
    v.loop.collector.tilt_deg = 0;
    Day day = job.days[0];
    day.trace = "hours";
    day.sky.year = 2014, day.sky.month = 3, day.sky.day = 20;
    const auto weather = weather_of(job, v, day);
    const std::vector<double>& w_m2 = weather.days[0]->plane_w_m2;
    ASSERT_EQ(w_m2.size(), 1441U);
    for (std::size_t h = 0; h < 24; ++h) {
        double sum = 0;
        for (std::size_t m = 0; m < 60; ++m)
            sum += (w_m2[h * 60 + m] + w_m2[h * 60 + m + 1]) / 2;
        if (h >= 7 && h < 18) { // in the others the sun is up for a part
            EXPECT_NEAR(sum / 60, means[h], 0.002 * means[h]) << h;
        }
    }
}

TEST(Epw, goes_into_a_job_and_comes_back)
{
    const fs::path folder = fs::path(testing::TempDir()) / ("vernal-epw-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    const std::string job = (folder / "job.vrelay").string(), weather = (folder / "Dale.EPW").string();
    std::ofstream(weather) << two_days();
    std::ostringstream out, err;
    ASSERT_EQ(run_cli({"new", "--out", job}, {out, err}), exit_fine) << err.str();
    EXPECT_EQ(run_cli({"day", job, "--weather", weather, "--name", "Dale in March"}, {out, err}), exit_fine) << err.str();
    const auto opened = open_job(job);
    ASSERT_TRUE(opened) << opened.error().text();
    EXPECT_EQ(opened->days.back().name, "Dale in March");
    const auto w = read_epw(two_days(), "Dale.EPW");
    const auto& kept = *opened->traces.at("Dale.csv");
    EXPECT_EQ(kept.time_s, w->trace.time_s);
    ASSERT_EQ(kept.columns.size(), w->trace.columns.size());
    for (std::size_t i = 0; i < kept.columns.size(); ++i)
        EXPECT_EQ(kept.columns[i], w->trace.columns[i]) << kept.columns[i].name;
    EXPECT_EQ(run_cli({"day", job, "--weather", (folder / "none.epw").string()}, {out, err}), exit_bad_input);
    fs::remove_all(folder);
}

// Every day of the year has the same sun in it: that much the months say, in any of them.
TEST(Epw, a_year_goes_by_its_weather)
{
    const fs::path folder = fs::path(testing::TempDir()) / ("vernal-epw-year-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    const std::string job = (folder / "job.vrelay").string(), weather = (folder / "dale.epw").string();
    std::string text = head;
    for (int n = 0; n < 365; ++n) {
        const std::chrono::year_month_day date{std::chrono::sys_days{std::chrono::year{2011} / 1 / 1} + std::chrono::days{n}};
        for (int hour = 1; hour <= 24; ++hour)
            text += row(2011, static_cast<int>(static_cast<unsigned>(date.month())), static_cast<int>(static_cast<unsigned>(date.day())), hour);
    }
    std::ofstream(weather) << text;
    std::ostringstream out, err;
    ASSERT_EQ(run_cli({"new", "--preset", "glycol-coil", "--out", job}, {out, err}), exit_fine) << err.str();
    ASSERT_EQ(run_cli({"day", job, "--weather", weather}, {out, err}), exit_fine) << err.str();
    std::ostringstream told;
    ASSERT_EQ(run_cli({"year", job, "--day", "dale", "--json"}, {told, err}), exit_fine) << err.str();
    const auto year = nlohmann::json::parse(told.str());
    EXPECT_TRUE(year["measured"].get<bool>());
    ASSERT_EQ(year["months"].size(), 12U);
    double heat = 0;
    for (const auto& m : year["months"]) {
        EXPECT_NEAR(m["coldest_air_c"].get<double>(), -4, 0.6);
        EXPECT_GT(m["heat_to_store_j"].get<double>(), 0);
        heat += m["heat_to_store_j"].get<double>();
    }
    EXPECT_NEAR(year["year"]["heat_to_store_j"].get<double>(), heat, 1e-6 * heat);
    std::ostringstream words;
    EXPECT_EQ(run_cli({"year", job, "--day", "dale"}, {words, err}), exit_fine);
    EXPECT_NE(words.str().find("weather of dale.csv"), std::string::npos);
    EXPECT_EQ(run_cli({"year", job, "--day", "none"}, {out, err}), exit_bad_input);
    fs::remove_all(folder);
}

} // namespace
