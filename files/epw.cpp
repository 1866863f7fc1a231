#include "epw.h"

#include "core/job/job_check.h"
#include "core/plant/fluid.h"
#include "csv/reader.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <cstdio>
#include <set>

namespace vernal {
namespace {

constexpr int header_lines = 8, typical_year = 2001;

// Cells of a row, from 0.
enum Cell : std::size_t { year = 0,
    month,
    day,
    hour,
    dry_bulb = 6,
    infrared = 12,
    global,
    beam,
    diffuse,
    wind = 21,
    least_cells };

struct Measure {
    std::size_t cell;
    double low, high; // beyond: missing, as the format marks it
};
constexpr Measure air_of{dry_bulb, -90, 80}, infrared_of{infrared, 1, 9998}, global_of{global, 0, 9998}, beam_of{beam, 0, 9998}, diffuse_of{diffuse, 0, 9998}, wind_of{wind, 0, 60};

class EpwReader {
public:
    EpwReader(const std::string& text, const std::string& file) : csv_(text, file) {}

    WeatherFile read()
    {
        location();
        for (int line = 2; line <= header_lines; ++line)
            if (!csv_.next())
                csv_.fail(csv_.line(), 0, "the header ends here", "A typical-weather file begins with eight lines of header");
        while (csv_.next())
            row();
        if (out_.trace.time_s.empty())
            csv_.fail(csv_.line(), 0, "there are no rows of weather", "Is the file whole?");
        finish();
        return std::move(out_);
    }

private:
    double number(std::size_t cell, const char* what)
    {
        const std::string& s = csv_.cells().size() > cell ? csv_.cells()[cell] : empty_;
        const std::size_t from = s.find_first_not_of(" +"), to = s.find_last_not_of(' ');
        double x = 0;
        if (from != std::string::npos) {
            const auto [end, error] = std::from_chars(s.data() + from, s.data() + to + 1, x);
            if (error == std::errc() && end == s.data() + to + 1 && std::isfinite(x))
                return x;
        }
        csv_.fail(csv_.line(), cell, std::string("“") + s + "” is no " + what, "A number is expected here");
    }
    double within(std::size_t cell, const char* what, double low, double high)
    {
        const double x = number(cell, what);
        if (x < low || x > high)
            csv_.fail(csv_.line(), cell, std::string("this ") + what + " is not possible");
        return x;
    }
    double measured(const Measure& m, const char* what)
    {
        const double x = number(m.cell, what);
        return x < m.low || x > m.high ? NAN : x;
    }

    void location()
    {
        if (!csv_.next() || csv_.cells().empty() || csv_.cells().front() != "LOCATION" || csv_.cells().size() < 10)
            csv_.fail(1, 0, "this is no typical-weather file", "Its first line begins with LOCATION and has ten entries");
        for (std::size_t i = 1; i <= 3; ++i)
            if (const std::string& part = csv_.cells()[i]; !part.empty() && part != "-")
                out_.name += (out_.name.empty() ? "" : ", ") + part;
        out_.place.latitude_deg = within(6, "latitude", -90, 90);
        out_.place.longitude_deg = within(7, "longitude", -180, 180);
        out_.place.utc_offset_h = within(8, "time zone", -12, 14);
        out_.place.altitude_m = within(9, "altitude", -450, 9000);
        out_.place.daylight_saving = false;
    }

    void row()
    {
        if (csv_.cells().size() < least_cells)
            csv_.fail(csv_.line(), csv_.cells().size(), "the row ends here", "A row of weather has " + std::to_string(least_cells) + " entries or more");
        const int y = static_cast<int>(within(year, "year", 1800, 2200)), m = static_cast<int>(within(month, "month", 1, 12)), d = static_cast<int>(within(day, "day", 1, 31));
        const double h = within(hour, "hour", 1, 24);
        if (m == 2 && d == 29)
            leap_ = true;
        years_.insert(y);
        if (out_.trace.time_s.empty()) {
            first_month_ = m;
            first_day_ = d;
        }
        const double at = 86400.0 * (day_of_year(leap_ ? 2000 : typical_year, m, d) - day_of_year(leap_ ? 2000 : typical_year, first_month_, first_day_)) + 3600.0 * (h - 0.5);
        if (!out_.trace.time_s.empty() && at <= out_.trace.time_s.back())
            csv_.fail(csv_.line(), month, "time does not go on here", "A row an hour, from January to December");
        out_.trace.time_s.push_back(at);
        air_.push_back(measured(air_of, "air temperature"));
        const double ir = measured(infrared_of, "infrared radiation of the sky");
        sky_.push_back(std::pow(ir / stefan_boltzmann, 0.25) - 273.15);
        global_.push_back(measured(global_of, "global radiation"));
        beam_.push_back(measured(beam_of, "direct normal radiation"));
        diffuse_.push_back(measured(diffuse_of, "diffuse radiation"));
        wind_.push_back(measured(wind_of, "wind speed"));
    }

    void finish()
    {
        Trace& t = out_.trace;
        const int usual = leap_ ? 2000 : typical_year;
        const bool as_long = day_of_year(*years_.begin(), 12, 31) == day_of_year(usual, 12, 31); // a leap year without its 29th of February has other dates
        const int y = years_.size() == 1 && as_long ? *years_.begin() : usual;
        const double first_s = t.time_s.front();
        for (double& at : t.time_s)
            at -= first_s;
        char start[32];
        std::snprintf(start, sizeof start, "%04d-%02d-%02dT%02d:30:00", y, first_month_, first_day_, static_cast<int>(first_s / 3600));
        t.start = start;
        std::vector<double> air = air_;
        for (std::size_t i = 1; i < air.size(); ++i)
            air[i] = std::isfinite(air_[i - 1]) ? (air_[i - 1] + air_[i]) / 2 : air_[i];
        t.columns = {{"air", Quantity::temperature, std::move(air)}, {"sky", Quantity::temperature, std::move(sky_)}, {"irradiance", Quantity::irradiance, std::move(global_)}, {"beam_normal", Quantity::irradiance, std::move(beam_)}, {"diffuse", Quantity::irradiance, std::move(diffuse_)}, {"wind", Quantity::number, std::move(wind_), "m/s"}};
        if (years_.size() > 1)
            t.notes.push_back("a typical year, put together from " + std::to_string(years_.size()) + " years");
        for (const TraceColumn& c : t.columns)
            if (const auto missing = std::count_if(c.values.begin(), c.values.end(), [](double x) { return !std::isfinite(x); }); missing > 0)
                t.notes.push_back(c.name + ": " + std::to_string(missing) + " hours are missing");
    }

    CsvReader csv_;
    WeatherFile out_;
    std::set<int> years_;
    bool leap_ = false;
    int first_month_ = 1, first_day_ = 1;
    std::vector<double> air_, sky_, global_, beam_, diffuse_, wind_;
    std::string empty_;
};

} // namespace

Result<WeatherFile> read_epw(const std::string& text, const std::string& file_name)
{
    try {
        return EpwReader(text, file_name).read();
    } catch (const BadCsv& bad) {
        return bad.error;
    }
}

bool is_epw(const std::string& file_name)
{
    std::string end = file_name.size() < 4 ? "" : file_name.substr(file_name.size() - 4);
    for (char& c : end)
        c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return end == ".epw";
}

std::size_t put_weather(Job& job, const WeatherFile& weather, const std::string& file_name, std::size_t like)
{
    const std::string stem = file_name.substr(0, file_name.size() - (is_epw(file_name) ? 4 : 0));
    std::string trace = stem + ".csv";
    for (int n = 2; job.traces.count(trace) != 0; ++n)
        trace = stem + "-" + std::to_string(n) + ".csv";
    job.traces[trace] = std::make_shared<const Trace>(weather.trace);
    job.site.place = weather.place;
    if (!weather.name.empty())
        job.site.name = weather.name;
    Day day = job.days[like];
    day.id.clear();
    day.kind = DayKind::generated;
    day.trace = trace;
    day.name = free_name(job.days, stem);
    job.days.push_back(std::move(day));
    return job.days.size() - 1;
}

} // namespace vernal
