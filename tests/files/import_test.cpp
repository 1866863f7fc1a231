// Logs as loggers, spreadsheets and people leave them.
#include "files/any_log.h"
#include "files/csv_trace.h"
#include "files/import/log_reader.h"
#include "files/log_cells.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <ctime>

using namespace vernal;

namespace {

struct Read {
    LogLayout layout;
    ImportedLog log;
    const std::vector<double>& operator[](const char* column) const
    {
        static const std::vector<double> none;
        const TraceColumn* c = log.trace.find(column);
        return c ? c->values : none;
    }
};

const std::vector<LogTarget>& targets()
{
    static const std::vector<LogTarget> t = log_targets(new_job("glycol-coil").variants.front());
    return t;
}

Place in_oslo()
{
    Place p;
    p.latitude_deg = 60;
    p.longitude_deg = 11;
    p.utc_offset_h = 1;
    p.zone = "Europe/Oslo";
    return p;
}

Read read_as(const std::string& text, LogLayout layout)
{
    Read r{std::move(layout), {}};
    auto log = read_log(text, "log.csv", r.layout, targets(), in_oslo());
    EXPECT_TRUE(log) << (log ? "" : log.error().text());
    if (log)
        r.log = std::move(*log);
    return r;
}

Read guessed(const std::string& text, bool us = false)
{
    bool converted = false;
    const std::string utf8 = as_utf8(text, converted);
    return read_as(utf8, guess_layout(utf8, targets(), us));
}

} // namespace

TEST(Import, commas_and_iso_times)
{
    const Read r = guessed("Timestamp,Collector temp (C),Tank bottom,Pump\n2026-05-07 08:00:00,41.5,30.0,0\n2026-05-07 08:00:30,42.5,30.1,1\n");
    EXPECT_EQ(r["collector"], (std::vector<double>{41.5, 42.5}));
    EXPECT_EQ(r["tank_bottom"], (std::vector<double>{30.0, 30.1}));
    EXPECT_EQ(r["P1"], (std::vector<double>{0, 1}));
    EXPECT_EQ(r.log.trace.time_s, (std::vector<double>{0, 30}));
    EXPECT_EQ(r.log.trace.start, "2026-05-07T08:00:00");
    EXPECT_TRUE(r.log.troubles.empty());
}

TEST(Import, semicolons_decimal_commas_days_first_and_lines_before_the_header)
{
    const Read r = guessed("Logger 12\nexported by hand\n\nDate;Time;Roof;Store top [\xb0"
                           "C];relay\n13.05.2026;23:59:30;41,5;30,0;on\n14.05.2026;00:00:00;42,25;30,1;off\n14.05.2026;00:00:30;---;30,2;off\n");
    EXPECT_EQ(r.layout.delimiter, ';');
    EXPECT_TRUE(r.layout.decimal_comma);
    EXPECT_EQ(r.layout.header_line, 4);
    EXPECT_EQ(r.layout.form, TimeForm::day_first);
    EXPECT_EQ(r["collector"][1], 42.25);
    EXPECT_TRUE(std::isnan(r["collector"][2]));
    EXPECT_EQ(r["tank_top"][0], 30.0);
    EXPECT_EQ(r["P1"], (std::vector<double>{1, 0, 0}));
    EXPECT_EQ(r.log.trace.time_s, (std::vector<double>{0, 30, 60}));
}

TEST(Import, month_first_by_its_content_and_by_the_units_of_the_person)
{
    EXPECT_EQ(guessed("time,collector\n05/13/2026 8:00 PM,40\n05/14/2026 8:00 AM,41\n").layout.form, TimeForm::month_first);
    EXPECT_EQ(guessed("time,collector\n13/05/2026 20:00,40\n14/05/2026 08:00,41\n").layout.form, TimeForm::day_first);
    const char* both = "time,collector\n05/06/2026 8:00,40\n05/06/2026 8:01,41\n";
    EXPECT_EQ(guessed(both).layout.form, TimeForm::day_first);
    EXPECT_EQ(guessed(both, true).layout.form, TimeForm::month_first);
    // Only one of the orders lets time go on from day to day.
    EXPECT_EQ(guessed("time,collector\n01/06/2026 8:00,40\n02/06/2026 8:00,41\n03/06/2026 8:00,41\n", true).layout.form, TimeForm::day_first);
    EXPECT_EQ(guessed("time,collector\n05/13/2026 8:00 PM,40\n05/14/2026 12:30 AM,41\n").log.trace.time_s[1], 4.5 * 3600);
}

// Rows each ten minutes from a day to another, the date by this form of strftime.
std::string dated_log(int from_month, int from_day, int days, const char* form)
{
    std::string out = "when;Roof;Tank bottom;Pump\n";
    std::tm t{};
    t.tm_year = 126;
    t.tm_mon = from_month - 1;
    t.tm_mday = from_day;
    std::time_t at = timegm(&t);
    for (int row = 0; row < days * 144; ++row, at += 600) {
        std::tm now{};
        gmtime_r(&at, &now);
        char text[60];
        std::strftime(text, sizeof text, form, &now);
        out += std::string(text) + ";" + std::to_string(40 + row % 7) + ";30;" + std::to_string(row % 2) + "\n";
    }
    return out;
}

// The first thousand rows are of the 8th to the 14th, the last of the 8th again: only the
// days between say which number is the day.
TEST(Import, the_order_of_a_date_is_found_from_the_whole_file)
{
    for (const bool us : {false, true}) {
        const Read may = guessed(dated_log(5, 8, 32, "%d.%m.%Y %H:%M"), us);
        EXPECT_EQ(may.layout.form, TimeForm::day_first);
        EXPECT_EQ(may.log.trace.time_s.size(), 32U * 144);
        EXPECT_EQ(may.log.trace.time_s.back(), 32 * 86400.0 - 600);
        EXPECT_EQ(may.log.dropped, 0U);
        const Read four_months = guessed(dated_log(1, 2, 120, "%m/%d/%Y %H:%M"), us);
        EXPECT_EQ(four_months.layout.form, TimeForm::month_first);
        EXPECT_EQ(four_months.log.trace.time_s.size(), 120U * 144);
        const Read short_of_the_13th = guessed(dated_log(5, 1, 11, "%d/%m/%Y %H:%M"), us);
        EXPECT_EQ(short_of_the_13th.layout.form, TimeForm::day_first) << "one day after the other, no month";
        const Read points = guessed(dated_log(5, 8, 1, "%d.%m.%Y %H:%M"), us);
        EXPECT_EQ(points.layout.form, TimeForm::day_first) << "points say day first";
        const Read month_with_points = guessed(dated_log(5, 1, 11, "%m.%d.%Y %H:%M"), us);
        EXPECT_EQ(month_with_points.layout.form, TimeForm::month_first) << "day first would leap over a month each night";
        EXPECT_EQ(guessed(dated_log(5, 8, 2, "%Y-%m-%d %H:%M"), us).layout.form, TimeForm::year_first);
    }
}

TEST(Import, rows_that_are_left_out_are_said_first)
{
    const std::string text = dated_log(5, 8, 32, "%d.%m.%Y %H:%M");
    LogLayout layout = guess_layout(text, targets());
    layout.form = TimeForm::month_first; // 8.5. is the fifth of August, 13.5. no day
    const Read r = read_as(text, layout);
    EXPECT_GT(r.log.dropped, 2000U);
    ASSERT_FALSE(r.log.trace.notes.empty());
    EXPECT_NE(r.log.trace.notes.front().find(std::to_string(r.log.dropped) + " of 4608 rows were left out"), std::string::npos) << r.log.trace.notes.front();
    EXPECT_NE(r.log.trace.notes.front().find("order of day and month"), std::string::npos);
    // One spoilt row in two thousand is listed, and no more.
    std::string spoilt = dated_log(5, 8, 20, "%d.%m.%Y %H:%M");
    spoilt.replace(spoilt.find("12.05.2026 10:00"), 5, "xx.xx");
    const Read good = guessed(spoilt);
    EXPECT_EQ(good.log.dropped, 1U);
    EXPECT_EQ(good.log.troubles.size(), 1U);
    for (const std::string& note : good.log.trace.notes)
        EXPECT_EQ(note.find("left out"), std::string::npos) << note;
}

TEST(Import, only_what_has_its_header_is_the_programs_own)
{
    const auto any = [](const std::string& text) { return read_any_log(text, "log.csv", new_job("glycol-coil").variants.front(), in_oslo()); };
    EXPECT_TRUE(is_own_log("time,collector [°C],P1\n0,40,0\n30,41,1\n"));
    EXPECT_TRUE(is_own_log("time,collector,P1\n2026-05-07T08:00:00,40,0\n"));
    EXPECT_FALSE(is_own_log("Date,Roof\n2026-05-07 08:00,40\n"));
    // Serial days, and seconds since 1970, under a name of our own.
    const auto serial = any("time,collector,tank_bottom\n46149.33333333,40,30\n46149.33368056,41,30\n46149.33402778,42,30\n");
    ASSERT_TRUE(serial) << serial.error().text();
    EXPECT_EQ(serial->trace.start, "2026-05-07T08:00:00");
    EXPECT_NEAR(serial->trace.time_s[1], 30, 0.1);
    const auto epoch = any("timestamp,collector,tank_bottom\n1778133600,40,30\n1778133630,41,30\n");
    ASSERT_TRUE(epoch);
    EXPECT_EQ(epoch->trace.start, "2026-05-07T08:00:00") << "6 h UTC is 8 h in Oslo in May";
    EXPECT_EQ(epoch->trace.time_s[1], 30);
    const auto by_probe = any("time,S1,S2,S3,P1\n0,41,30,55,0\n30,42,30,55,1\n");
    ASSERT_TRUE(by_probe) << by_probe.error().text();
    ASSERT_TRUE(by_probe->trace.find("collector"));
    EXPECT_EQ(by_probe->trace.find("collector")->values, (std::vector<double>{41, 42}));
    EXPECT_EQ(by_probe->trace.find("P1")->values, (std::vector<double>{0, 1}));
}

std::string utf16(const std::string& ascii, bool big)
{
    std::string out = big ? "\xfe\xff" : "\xff\xfe";
    for (const char c : ascii)
        out += big ? std::string{'\0', c} : std::string{c, '\0'};
    return out;
}

// One log in the shapes that programs and people give it; each reads as the first.
TEST(Import, shapes_that_people_have)
{
    const std::string plain = "when,Roof,Tank bottom,Pump\n07.05.2026 08:00:00,1041.5,30,1\n07.05.2026 08:00:30,42.25,-0.5,0\n";
    const auto same = [&](const char* called, const Read& r) {
        SCOPED_TRACE(called);
        EXPECT_EQ(r.log.trace.start, "2026-05-07T08:00:00");
        EXPECT_EQ(r.log.trace.time_s, (std::vector<double>{0, 30}));
        EXPECT_EQ(r["collector"], (std::vector<double>{1041.5, 42.25}));
        EXPECT_EQ(r["tank_bottom"], (std::vector<double>{30, -0.5}));
        EXPECT_EQ(r["P1"], (std::vector<double>{1, 0}));
        EXPECT_TRUE(r.log.troubles.empty());
    };
    same("plain", guessed(plain));
    same("UTF-16, little end first", guessed(utf16(plain, false)));
    same("UTF-16, big end first", guessed(utf16(plain, true)));
    std::string old = plain;
    std::replace(old.begin(), old.end(), '\n', '\r');
    same("carriage returns alone", guessed(old));
    same("a row of units", guessed("when,Roof,Tank bottom,Pump\n,[°C],°C,\n07.05.2026 08:00:00,1041.5,30,1\n07.05.2026 08:00:30,42.25,-0.5,0\n"));
    same("units in cells", guessed("when,Roof,Tank bottom,Pump\n07.05.2026 08:00:00,1041.5 °C,30 °C,1\n07.05.2026 08:00:30,42.25 °C,-0.5°C,0\n"));
    same("decimal commas in quotes", guessed("when,Roof,Tank bottom,Pump\n07.05.2026 08:00:00,\"1041,5\",\"30,0\",1\n07.05.2026 08:00:30,\"42,25\",\"-0,5\",0\n"));
    same("thousands by commas", guessed("when,Roof,Tank bottom,Pump\n07.05.2026 08:00:00,\"1,041.5\",30.0,1\n07.05.2026 08:00:30,42.25,-0.5,0\n"));
    same("thousands by points", guessed("when;Roof;Tank bottom;Pump\n07.05.2026 08:00:00;1.041,5;30,0;1\n07.05.2026 08:00:30;42,25;-0,5;0\n"));
    same("thousands by narrow blanks", guessed("when;Roof;Tank bottom;Pump\n07.05.2026 08:00:00;1\u202f041,5;30,0;1\n07.05.2026 08:00:30;42,25;-0,5;0\n"));
    same("clock with points", guessed("when,Roof,Tank bottom,Pump\n07.05.2026 08.00.00,1041.5,30,1\n07.05.2026 08.00.30,42.25,-0.5,0\n"));
    same("a weekday", guessed("when;Roof;Tank bottom;Pump\nThu, 07.05.2026 08:00:00;1041.5;30;1\nThu, 07.05.2026 08:00:30;42.25;-0.5;0\n"));
    same("before noon", guessed("when,Roof,Tank bottom,Pump\n07.05.2026 8:00:00 a.m.,1041.5,30,1\n07.05.2026 8:00:30 a.m.,42.25,-0.5,0\n"));
    for (const auto& [on, off] : {std::pair{"Ein", "Aus"}, {"Marche", "Arrêt"}, {"Encendido", "Apagado"}, {"Acceso", "Spento"}, {"Aan", "Uit"}, {"ON", "OFF"}})
        same(on, guessed(std::string("when,Roof,Tank bottom,Pump\n07.05.2026 08:00:00,1041.5,30,") + on + "\n07.05.2026 08:00:30,42.25,-0.5," + off + "\n"));
}

TEST(Import, a_unit_in_the_cell_is_that_cells)
{
    const Read r = guessed("when,Roof,Tank bottom,Pump\n2026-05-07 08:00,212 °F,30 C,100 %\n2026-05-07 08:01,50 °F,31 C,0 %\n");
    EXPECT_NEAR(r["collector"][0], 100, 1e-9);
    EXPECT_NEAR(r["collector"][1], 10, 1e-9);
    EXPECT_EQ(r["tank_bottom"], (std::vector<double>{30, 31}));
    EXPECT_EQ(r["P1"], (std::vector<double>{100, 0}));
    const Read row = guessed("when,Roof,Tank bottom\n,°F,°C\n2026-05-07 08:00,212,30\n2026-05-07 08:01,50,31\n");
    EXPECT_EQ(row.layout.header_line, 1);
    EXPECT_NEAR(row["collector"][0], 100, 1e-9);
    EXPECT_EQ(row["tank_bottom"], (std::vector<double>{30, 31}));
}

TEST(Import, fahrenheit_ohms_and_tenths)
{
    const Read r = guessed("seconds\tcollector_f\ttank bottom [ohm]\ttank_top\n0\t212\t1000\t305\n60\t32\t1385.06\t310\n");
    EXPECT_NEAR(r["collector"][0], 100, 1e-9);
    EXPECT_NEAR(r["collector"][1], 0, 1e-9);
    EXPECT_NEAR(r["tank_bottom"][0], 0, 0.01); // IEC 60751: 1000 Ω at 0 °C, 1385.06 at 100 °C
    EXPECT_NEAR(r["tank_bottom"][1], 100, 0.01);
    LogLayout tenths = r.layout;
    tenths.columns[3].unit = "0.1 °C";
    EXPECT_EQ(read_as("seconds\tcollector_f\ttank bottom [ohm]\ttank_top\n0\t212\t1000\t305\n60\t32\t1385.06\t310\n", tenths)["tank_top"], (std::vector<double>{30.5, 31.0}));
}

TEST(Import, spreadsheet_serials_and_unix_times)
{
    // 46149.333… is 2026-05-07 08:00 in a spreadsheet that counts from 1899-12-30.
    const Read serial = guessed("Date,collector\n46149.3333333333,40\n46149.3336805556,41\n");
    EXPECT_EQ(serial.layout.form, TimeForm::serial_days);
    EXPECT_EQ(serial.log.trace.start, "2026-05-07T08:00:00");
    EXPECT_NEAR(serial.log.trace.time_s[1], 30, 0.01);
    // 1778140800 is 2026-05-07 08:00 UTC, 10:00 on a wall in Oslo.
    const Read since_1970 = guessed("ts,collector\n1778140800,40\n1778140860,41\n");
    EXPECT_EQ(since_1970.layout.form, TimeForm::unix_s);
    EXPECT_EQ(since_1970.log.trace.start, "2026-05-07T10:00:00");
    EXPECT_EQ(since_1970.log.trace.time_s[1], 60);
}

TEST(Import, times_that_say_their_zone_and_a_clock_in_utc)
{
    EXPECT_EQ(guessed("time,collector\n2026-07-01T08:00:00Z,40\n").log.trace.start, "2026-07-01T10:00:00");
    EXPECT_EQ(guessed("time,collector\n2026-10-25T02:59:30+02:00,40\n2026-10-25T02:00:00+01:00,41\n").log.trace.time_s[1], 30);
    const std::string text = "time,collector\n2026-07-01 08:00,40\n";
    LogLayout l = guess_layout(text, targets());
    l.clock = LogClock::utc;
    EXPECT_EQ(read_as(text, l).log.trace.start, "2026-07-01T10:00:00");
    l.clock = LogClock::standard;
    EXPECT_EQ(read_as(text, l).log.trace.start, "2026-07-01T09:00:00");
}

TEST(Import, the_hour_that_comes_twice_and_the_one_that_is_missing)
{
    const Read autumn = guessed("time,collector\n2026-10-25 02:00,1\n2026-10-25 02:30,2\n2026-10-25 02:00,3\n2026-10-25 02:30,4\n2026-10-25 03:00,5\n");
    EXPECT_EQ(autumn.log.trace.time_s, (std::vector<double>{0, 1800, 3600, 5400, 7200}));
    EXPECT_TRUE(autumn.log.troubles.empty());
    const Read spring = guessed("time,collector\n2026-03-29 01:30,1\n2026-03-29 01:40,2\n2026-03-29 01:50,3\n2026-03-29 03:00,4\n2026-03-29 03:10,5\n");
    EXPECT_EQ(spring.log.trace.time_s, (std::vector<double>{0, 600, 1200, 1800, 2400}));
    // The same on a day without a change of clocks is a gap.
    EXPECT_EQ(guessed("time,collector\n2026-03-28 01:30,1\n2026-03-28 01:40,2\n2026-03-28 01:50,3\n2026-03-28 03:00,4\n").log.trace.time_s.back(), 5400);
}

TEST(Import, newest_first_midnight_without_a_date_and_time_that_runs_backwards)
{
    const Read down = guessed("time,collector\n2026-05-07 08:02,3\n2026-05-07 08:01,2\n2026-05-07 08:00,1\n");
    EXPECT_EQ(down["collector"], (std::vector<double>{1, 2, 3}));
    const Read midnight = guessed("clock,collector\n23:59:00,1\n23:59:30,2\n00:00:00,3\n");
    EXPECT_EQ(midnight.log.trace.time_s, (std::vector<double>{86340, 86370, 86400}));
    EXPECT_TRUE(midnight.log.trace.start.empty());
    const Read back = guessed("time,collector\n2026-05-07 08:00,1\n2026-05-07 08:01,2\n2026-05-01 08:00,9\n2026-05-01 08:01,9\n2026-05-07 08:02,3\n2026-05-07 08:03,4\n");
    EXPECT_EQ(back["collector"], (std::vector<double>{1, 2, 3, 4}));
    ASSERT_EQ(back.log.troubles.size(), 1U);
    EXPECT_EQ(back.log.troubles[0].line, 4U);
    EXPECT_EQ(back.log.troubles[0].to_line, 5U);
    const Read far = guessed("time,collector\n2026-05-07 08:00,1\n2036-05-07 08:01,2\n2026-05-07 08:02,3\n2026-05-07 08:03,4\n");
    EXPECT_EQ(far["collector"], (std::vector<double>{1, 3, 4}));
}

TEST(Import, trouble_is_listed_by_line_and_good_rows_stay)
{
    const Read r = guessed("time,collector,tank_bottom\n0,40,30\n10,4o,30.1\nxx,41,30.2\n30,42\n40,43,30.4\n50,44,30.5\n60,45,30.6\n70,46,30.7\n80,46,30.7\n90,46,30.7\n100,46,30.7\n");
    EXPECT_EQ(r["collector"].size(), 10U);
    EXPECT_TRUE(std::isnan(r["collector"][1]));
    EXPECT_TRUE(std::isnan(r["tank_bottom"][2]));
    ASSERT_EQ(r.log.troubles.size(), 3U);
    EXPECT_EQ(r.log.troubles[0].line, 3U);
    EXPECT_NE(r.log.troubles[0].what.find("4o"), std::string::npos);
    EXPECT_EQ(r.log.troubles[1].line, 4U);
    EXPECT_EQ(r.log.troubles[2].line, 5U);
}

TEST(Import, what_cannot_be_is_said_before_a_row_is_read)
{
    const std::string text = "time,collector,tank\n0,40,30\n10,41,31\n";
    const auto said = [&](auto change) {
        LogLayout l = guess_layout(text, targets());
        change(l);
        const auto log = read_log(text, "x", l, targets(), in_oslo());
        return log ? std::string() : log.error().text();
    };
    EXPECT_NE(said([](LogLayout& l) { l.columns[0].role = LogRole::left_out; }).find("no column says when"), std::string::npos);
    EXPECT_NE(said([](LogLayout& l) { l.columns[2].name = "collector"; }).find("two columns"), std::string::npos);
    EXPECT_NE(said([](LogLayout& l) { l.columns[1].unit = "W/m²"; }).find("cannot be in W/m²"), std::string::npos);
    EXPECT_NE(said([](LogLayout& l) { l.columns[1].role = l.columns[2].role = LogRole::left_out; }).find("no column is taken"), std::string::npos);
    EXPECT_NE(said([](LogLayout& l) { l.columns[1].name = "air"; l.columns[1].unit = "Ω"; }).find("no curve"), std::string::npos);
}

TEST(Import, stops_when_told)
{
    std::string text = "time,collector\n";
    for (int i = 0; i < 100000; ++i)
        text += std::to_string(i) + ",40\n";
    std::stop_source stop;
    double reached = 0;
    const auto log = read_log(text, "x", guess_layout(text, targets()), targets(), in_oslo(), {[&](double p) { reached = p; stop.request_stop(); }, stop.get_token(), 0});
    ASSERT_TRUE(log);
    EXPECT_TRUE(log->stopped);
    EXPECT_GT(reached, 0.05);
    EXPECT_LT(reached, 0.6);
}

TEST(Import, what_was_read_is_written_and_reads_back_equal)
{
    const Read r = guessed("Date;Time;Roof;Flow (L/h);Pressure;room pump;odd [furlong]\n13.05.2026;23:59:30;41,5;120;1,8;on;7\n14.05.2026;00:00:00;42,25;0;1,9;off;8\n");
    const auto back = read_trace_csv(write_trace_csv(r.log.trace), "written");
    ASSERT_TRUE(back) << back.error().text();
    EXPECT_EQ(back->start, r.log.trace.start);
    EXPECT_EQ(back->time_s, r.log.trace.time_s);
    ASSERT_EQ(back->columns.size(), r.log.trace.columns.size());
    for (std::size_t i = 0; i < back->columns.size(); ++i) {
        EXPECT_EQ(back->columns[i].name, r.log.trace.columns[i].name);
        EXPECT_EQ(back->columns[i].unit, r.log.trace.columns[i].unit);
        EXPECT_EQ(back->columns[i].values, r.log.trace.columns[i].values);
    }
}

TEST(Import, a_layout_is_written_and_reads_back_equal_and_is_known_by_its_header)
{
    const std::string a = "Date;Time;Roof;relay\n13.05.2026;23:59:30;41,5;on\n", b = "Date;Time;Roof;relay\n14.05.2026;23:59:30;40,5;mystery\n";
    const LogLayout one = guess_layout(a, targets()), two = guess_layout(b, targets());
    EXPECT_EQ(layout_key(one), layout_key(two));
    for (const LogLayout& l : {one, two}) {
        const auto back = read_layout(write_layout(l));
        ASSERT_TRUE(back) << back.error().text();
        EXPECT_TRUE(*back == l);
    }
    EXPECT_FALSE(read_layout("{}"));
    EXPECT_FALSE(read_layout("not json"));
    const auto spoilt = [&](const std::string& from, const std::string& to) {
        std::string json = write_layout(one);
        json.replace(json.find(from), from.size(), to);
        const auto read = read_layout(json);
        return read ? std::string() : read.error().text();
    };
    EXPECT_NE(spoilt("\"role\": \"value\"", "\"role\": \"valve\"").find("columns[2].role: this is no layout of a log: “valve”"), std::string::npos) << spoilt("\"role\": \"value\"", "\"role\": \"valve\"");
    EXPECT_NE(spoilt("\"first_line\": ", "\"first_line\": -").find("first_line: "), std::string::npos);
    EXPECT_NE(spoilt("\"decimal\"", "\"decimals\"").find("decimal: this is no layout of a log: it is missing"), std::string::npos);
}

TEST(Import, a_switch_in_words_of_its_own_is_a_switch_and_a_mode_is_left_out)
{
    const Read r = guessed("time,collector,pump,mode\n0,20,turns,summer and full of sun\n10,21,stands,winter\n20,22,turns,spring\n30,23,stands,autumn\n40,23,stands,night\n");
    EXPECT_EQ(r.layout.columns[2].name, "P1");
    EXPECT_EQ(r.layout.columns[3].role, LogRole::left_out);
    ASSERT_EQ(r.layout.words.size(), 2U);
    LogLayout said = r.layout;
    for (auto& [word, value] : said.words)
        value = word == "turns" ? 1 : 0;
    EXPECT_EQ(read_as("time,collector,pump,mode\n0,20,turns,x\n10,21,stands,y\n", said)["P1"], (std::vector<double>{1, 0}));
}

TEST(Import, moments)
{
    const auto second = [](const char* cell, TimeForm form) { const auto m = read_moment(cell, form); return m && m->day && m->second ? static_cast<double>(m->day->time_since_epoch().count()) * 86400 + *m->second : -1; };
    const double eight = 1778140800; // 2026-05-07 08:00
    for (const char* cell : {"2026-05-07T08:00", "2026-05-07 08:00:00", "20260507 080000", "20260507T0800", "7-May-2026 8:00", "7 May 2026, 8:00 AM", "May 7, 2026 8:00", "7.5.26 8:00", "07/05/2026_08:00", "2026/05/07 08:00:00.000", "6.5.2026 32:00"})
        if (std::string_view(cell).ends_with("32:00"))
            EXPECT_EQ(second(cell, TimeForm::day_first), -1) << cell;
        else
            EXPECT_EQ(second(cell, TimeForm::day_first), eight) << cell;
    EXPECT_EQ(second("5/7/2026 8:00", TimeForm::month_first), eight);
    EXPECT_EQ(second("26-05-07 08:00", TimeForm::year_first), eight);
    EXPECT_EQ(second("2026-05-06 24:00", TimeForm::year_first), eight - 8 * 3600);
    for (const char* wrong : {"", "7", "7.5", "31.2.2026 8:00", "2026-13-01 8:00", "2026-05-07 8:00 am pm", "2026-05-07x08:00", "12", "8:61", "25:00", "-1:00", "1899-01-01 00:00", "13:00 pm"})
        EXPECT_FALSE(read_moment(wrong, TimeForm::day_first)) << wrong;
    EXPECT_EQ(*read_moment("12:30 am", TimeForm::day_first)->second, 1800);
    EXPECT_EQ(*read_moment("12:30 PM", TimeForm::day_first)->second, 12.5 * 3600);
}
