#include "pocket_chart.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <set>

namespace vernal {
namespace {

constexpr int coldest_c = -30, hottest_c = 130, hottest_on_roof_c = 200;

std::vector<PocketColumn> columns(const Variant& v)
{
    std::vector<PocketColumn> out;
    for (const Probe& p : v.probes) {
        if (!reads_temperature(p))
            continue;
        const std::string name = p.key + " " + p.name;
        const auto same = std::find_if(out.begin(), out.end(), [&](const PocketColumn& c) { return c.curve == p.curve; });
        if (same == out.end())
            out.push_back({name, signal_unit(p.curve), p.curve});
        else
            same->title += ", " + name;
    }
    return out;
}

bool on_roof(const Variant& v)
{
    return std::any_of(v.probes.begin(), v.probes.end(), [](const Probe& p) { return p.place == ProbePlace::collector || p.place == ProbePlace::collector_2; });
}

// Kept in tenths of a °C, so that equal temperatures of both scales fall together.
std::set<long> temperatures(int top_c)
{
    std::set<long> tenths;
    for (int c = coldest_c; c <= top_c; c += 5)
        tenths.insert(10L * c);
    for (int f = -20; (f - 32) / 1.8 <= top_c; f += 10)
        tenths.insert(std::lround((f - 32) / 0.18));
    return tenths;
}

std::string quoted(const std::string& s) { return s.find(',') == std::string::npos ? s : "\"" + s + "\""; }

std::string rounded(double v, int decimals)
{
    char b[32];
    std::snprintf(b, sizeof b, "%.*f", decimals, v);
    return b;
}

} // namespace

PocketChart pocket_chart(const Variant& v)
{
    PocketChart chart{columns(v), {}};
    for (long tenths : temperatures(on_roof(v) ? hottest_on_roof_c : hottest_c)) {
        // Round °F are kept exactly, not to the tenth of a °C they are sorted by.
        const double c = static_cast<double>(tenths) / 10, f = std::round(c * 1.8 + 32);
        const bool whole_f = tenths % 50 != 0;
        PocketRow row{whole_f ? (f - 32) / 1.8 : c, {}};
        for (const PocketColumn& col : chart.columns) {
            const auto signal = signal_at(col.curve, Temperature::celsius(row.temp_c));
            row.signal.push_back(signal ? *signal : NAN);
        }
        if (std::any_of(row.signal.begin(), row.signal.end(), [](double s) { return !std::isnan(s); }))
            chart.rows.push_back(row);
    }
    return chart;
}

std::string signal_text(double signal)
{
    if (!std::isfinite(signal))
        return "–";
    const double size = std::fabs(signal);
    return rounded(size >= 10000 ? std::round(signal / 10) * 10 : signal, size >= 1000 ? 0 : size >= 100 ? 1
                                                                                         : size >= 10    ? 2
                                                                                                         : 3);
}

std::string pocket_csv(const PocketChart& chart)
{
    std::string out = "temp_c,temp_f";
    for (const PocketColumn& c : chart.columns)
        out += "," + quoted(c.title + " (" + c.unit + ")");
    out += "\n";
    for (const PocketRow& r : chart.rows) {
        out += rounded(r.temp_c, 2) + "," + rounded(Temperature::celsius(r.temp_c).in_fahrenheit(), 2);
        for (double s : r.signal)
            out += "," + (std::isnan(s) ? "" : rounded(s, 4));
        out += "\n";
    }
    return out;
}

} // namespace vernal
