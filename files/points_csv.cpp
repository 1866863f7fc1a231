#include "points_csv.h"

#include "core/units/ascii.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <optional>
#include <sstream>

namespace vernal {
namespace {

enum class Mark { none,
    celsius,
    fahrenheit,
    ohm,
    kilo_ohm,
    unknown };

struct Cell {
    std::optional<double> value;
    Mark unit = Mark::none;
};

// As a job keeps them (core/job/probe_fields.h).
constexpr double lowest_c = -200, highest_c = 850, least_ohm = 1e-6, most_ohm = 1e9;

struct Layout {
    std::size_t temp = 0, ohm = 1;
    Mark temp_unit = Mark::none, ohm_unit = Mark::none;
};

std::string unquoted(const std::string& s)
{
    const std::size_t a = s.find_first_not_of(" \t\r\"'"), b = s.find_last_not_of(" \t\r\"'");
    return a == std::string::npos ? "" : s.substr(a, b - a + 1);
}

void replace_all(std::string& s, const std::string& from, const std::string& to)
{
    for (std::size_t p = s.find(from); p != std::string::npos; p = s.find(from, p + to.size()))
        s.replace(p, from.size(), to);
}

// Degree signs, both omegas, true minus and hard blanks in plain letters.
std::string plain(std::string s)
{
    for (const auto& [from, to] : {std::pair{"°", ""}, {"º", ""}, {"\u03a9", "ohm"}, {"\u2126", "ohm"}, {"−", "-"}, {"\u00a0", " "}, {"\u202f", " "}, {"\ufeff", ""}})
        replace_all(s, from, to);
    return s;
}

Mark mark_of(const std::string& word)
{
    const std::string w = lower_ascii(unquoted(word));
    if (w.empty())
        return Mark::none;
    if (w == "c" || w == "celsius")
        return Mark::celsius;
    if (w == "f" || w == "fahrenheit")
        return Mark::fahrenheit;
    if (w == "ohm" || w == "ohms" || w == "r")
        return Mark::ohm;
    if (w == "k" || w == "kohm" || w == "kohms")
        return Mark::kilo_ohm;
    return Mark::unknown;
}

char separator(const std::string& line)
{
    for (char c : {';', '\t'})
        if (line.find(c) != std::string::npos)
            return c;
    return line.find(',') != std::string::npos ? ',' : ' ';
}

std::vector<std::string> cells(const std::string& line, char by)
{
    std::vector<std::string> out;
    std::istringstream in(line);
    for (std::string s; std::getline(in, s, by);)
        if (by != ' ' || !unquoted(s).empty())
            out.push_back(unquoted(s));
    if (by != ' ')
        return out;
    // Blanks also stand before a unit: "212 F 1.3851 k" is two cells.
    std::vector<std::string> joined;
    for (const std::string& s : out) {
        const bool unit = !joined.empty() && mark_of(s) != Mark::unknown && !std::isdigit(static_cast<unsigned char>(s[0]));
        unit ? void(joined.back() += s) : joined.push_back(s);
    }
    return joined;
}

Cell cell(std::string s, char by)
{
    if (by != ',')
        std::replace(s.begin(), s.end(), ',', '.');
    double v = 0;
    const char* begin = s.data() + (!s.empty() && s[0] == '+' ? 1 : 0);
    const auto [end, ec] = std::from_chars(begin, s.data() + s.size(), v);
    if (ec != std::errc())
        return {};
    return {v, mark_of(std::string(end, static_cast<const char*>(s.data() + s.size())))};
}

// The unit a heading names, by its words: "Temp (°F)", "temp_c", "R kΩ".
Mark heading_unit(const std::string& text)
{
    std::string w = lower_ascii(text);
    std::replace_if(
        w.begin(), w.end(), [](unsigned char c) { return !std::isalnum(c); }, ' ');
    std::istringstream words(w);
    Mark found = Mark::none;
    for (std::string word; words >> word;)
        if (const Mark m = mark_of(word); m != Mark::unknown && m != Mark::none && !(found != Mark::none && word == "r"))
            found = found == Mark::kilo_ohm && m == Mark::ohm ? found : m;
    return found;
}

bool is_ohm(Mark m) { return m == Mark::ohm || m == Mark::kilo_ohm; }
bool is_temp(Mark m) { return m == Mark::celsius || m == Mark::fahrenheit; }

class Points {
public:
    Points(std::string file, bool fahrenheit) : file_(std::move(file)), fahrenheit_(fahrenheit) {}

    std::optional<Error> line(std::size_t number, const std::string& raw)
    {
        const std::string text = plain(raw);
        if (unquoted(text).empty() || unquoted(text)[0] == '#')
            return {};
        const char by = separator(text);
        const auto parts = cells(text, by);
        const bool words = !parts.empty() && std::none_of(parts.begin(), parts.end(), [&](const std::string& s) { return cell(s, by).value.has_value(); });
        if (words && points_.empty() && !headed_)
            return heading(parts);
        if (points_.size() == most_points)
            return wrong(number, "there are more than " + std::to_string(most_points) + " points", "A probe's curve needs a handful; paste the lines you measured");
        return point(number, parts, by);
    }
    std::vector<CurvePoint> take() { return std::move(points_); }

private:
    Error wrong(std::size_t number, std::string what, std::string remedy = "") const { return {std::move(what), file_ + ", line " + std::to_string(number), std::move(remedy)}; }

    std::optional<Error> heading(const std::vector<std::string>& parts)
    {
        headed_ = true;
        for (std::size_t i = 0; i < parts.size(); ++i) {
            const Mark m = heading_unit(parts[i]);
            if (is_ohm(m)) {
                layout_.ohm = i;
                layout_.ohm_unit = m;
            } else if (is_temp(m)) {
                layout_.temp = i;
                layout_.temp_unit = m;
            }
        }
        if (layout_.temp == layout_.ohm) // only one was named: the other is the other
            (layout_.ohm_unit == Mark::none ? layout_.ohm : layout_.temp) = 1 - std::min<std::size_t>(layout_.temp, 1);
        return {};
    }

    std::optional<Error> point(std::size_t number, const std::vector<std::string>& parts, char by)
    {
        if (parts.size() <= std::max(layout_.temp, layout_.ohm))
            return wrong(number, "a temperature and a resistance are expected here", "Write 0, 1000");
        Cell t = cell(parts[layout_.temp], by), r = cell(parts[layout_.ohm], by);
        if (is_ohm(t.unit) && is_temp(r.unit))
            std::swap(t, r);
        for (const auto& [c, text] : {std::pair{t, parts[layout_.temp]}, {r, parts[layout_.ohm]}})
            if (!c.value || !std::isfinite(*c.value) || c.unit == Mark::unknown)
                return wrong(number, "“" + text + "” is not a number with a unit known here", "Units are °C, °F, Ω and kΩ");
        if (is_ohm(t.unit) || is_temp(r.unit))
            return wrong(number, "two values of the same kind", "A point is a temperature and a resistance");
        if (auto mixed = mix(number, t.unit, layout_.temp_unit, first_temp_, "temperature"))
            return mixed;
        if (auto mixed = mix(number, r.unit == Mark::kilo_ohm ? Mark::ohm : r.unit, layout_.ohm_unit == Mark::kilo_ohm ? Mark::ohm : layout_.ohm_unit, first_ohm_, "resistance"))
            return mixed;
        const Mark temp_unit = t.unit != Mark::none ? t.unit : layout_.temp_unit, ohm_unit = r.unit != Mark::none ? r.unit : layout_.ohm_unit;
        const bool f = temp_unit == Mark::fahrenheit || (temp_unit == Mark::none && fahrenheit_);
        const double ohm = *r.value * (ohm_unit == Mark::kilo_ohm ? 1000 : 1);
        if (!(ohm > 0))
            return wrong(number, "a resistance must be above zero", "A short reads near zero, and a lead put the wrong way round still reads above it");
        const double temp_c = f ? Temperature::fahrenheit(*t.value).in_celsius() : *t.value;
        if (!(temp_c >= lowest_c && temp_c <= highest_c))
            return wrong(number, "no probe is at " + parts[layout_.temp] + (parts[layout_.temp].find_first_not_of("0123456789.+-") == std::string::npos ? (f ? " °F" : " °C") : ""), "Temperatures lie between −200 and 850 °C");
        if (ohm < least_ohm || ohm > most_ohm)
            return wrong(number, "no probe has " + parts[layout_.ohm], "Resistances lie between 1 µΩ and 1 GΩ");
        points_.push_back({temp_c, ohm});
        return {};
    }

    // All values of a kind carry a unit behind them, the same one, or none does.
    std::optional<Error> mix(std::size_t number, Mark unit, Mark heading, std::optional<Mark>& first, const char* kind)
    {
        if (!first)
            first = unit;
        const bool against_heading = unit != Mark::none && heading != Mark::none && unit != heading;
        if (unit == *first && !against_heading)
            return {};
        return wrong(number, std::string("the units of the ") + kind + " are mixed here", against_heading ? "The heading names another one" : "Give every line its unit, the same one, or none");
    }

    std::string file_;
    bool fahrenheit_, headed_ = false;
    Layout layout_;
    std::optional<Mark> first_temp_, first_ohm_;
    std::vector<CurvePoint> points_;
};

} // namespace

Result<std::vector<CurvePoint>> read_points(const std::string& text, const std::string& file_name, bool fahrenheit)
{
    Points points(file_name, fahrenheit);
    std::istringstream in(text);
    std::size_t number = 0;
    for (std::string line; std::getline(in, line);)
        if (const auto error = points.line(++number, line))
            return *error;
    auto out = points.take();
    if (out.empty())
        return Error{"there are no points", file_name, "Write one a line, temperature first: 0, 1000"};
    return out;
}

} // namespace vernal
