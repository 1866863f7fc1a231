#include "quantity.h"

#include "copper.h"
#include "typed_unit.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstring>
#include <optional>
#include <utility>
#include <vector>

namespace vernal {
namespace {

// shown = inside * scale + offset
struct UnitForm {
    const char* name;
    double scale;
    double offset;
    int decimals;
    const char* typed; // spelling accepted besides name
};

constexpr double litre = 1e-3;
constexpr double us_gallon = 3.785411784e-3; // NIST SP 811, exact
constexpr double foot = 0.3048;              // NIST SP 811, exact
constexpr double psi = 6894.757;             // Pa, NIST SP 811
constexpr double btu = 1055.05585262;        // J, international table, NIST SP 811
constexpr double btu_per_hour = btu / 3600;  // W
constexpr double square_foot = foot * foot;
constexpr double fahrenheit_k = 1 / 1.8; // K per degree

struct Forms {
    Quantity q;
    const char* inside;
    UnitForm si;
    UnitForm other;
};

const std::array<Forms, 49> forms{{
    {Quantity::number, "", {"", 1, 0, 2, ""}, {"", 1, 0, 2, ""}},
    {Quantity::ratio, "", {"%", 100, 0, 0, "%"}, {"%", 100, 0, 0, "%"}},
    {Quantity::temperature, "°C", {"°C", 1, 0, 1, "C"}, {"°F", 1.8, 32, 1, "F"}},
    {Quantity::difference, "K", {"K", 1, 0, 1, "K"}, {"°F", 1.8, 0, 1, "F"}},
    {Quantity::length, "m", {"m", 1, 0, 1, "m"}, {"ft", 1 / foot, 0, 1, "ft"}},
    {Quantity::bore, "m", {"mm", 1000, 0, 1, "mm"}, {"in", 12 / foot, 0, 3, "in"}},
    {Quantity::area, "m2", {"m²", 1, 0, 1, "m2"}, {"ft²", 1 / (foot * foot), 0, 1, "ft2"}},
    {Quantity::volume, "m3", {"L", 1 / litre, 0, 0, "l"}, {"gal", 1 / us_gallon, 0, 1, "gal"}},
    {Quantity::flow, "m3/s", {"L/min", 60 / litre, 0, 1, "l/min"}, {"gal/min", 60 / us_gallon, 0, 2, "gpm"}},
    {Quantity::power, "W", {"W", 1, 0, 0, "w"}, {"W", 1, 0, 0, "w"}},
    {Quantity::conductance, "W/K", {"W/K", 1, 0, 1, "w/k"}, {"BTU/(h·°F)", fahrenheit_k / btu_per_hour, 0, 1, "btu/hf"}},
    {Quantity::energy, "J", {"kWh", 1 / 3.6e6, 0, 2, "kwh"}, {"kBTU", 1e-3 / btu, 0, 1, "kbtu"}},
    {Quantity::duration, "s", {"s", 1, 0, 0, "s"}, {"s", 1, 0, 0, "s"}},
    {Quantity::minutes, "s", {"min", 1 / 60.0, 0, 1, "min"}, {"min", 1 / 60.0, 0, 1, "min"}},
    {Quantity::hours, "h", {"h", 1, 0, 2, "h"}, {"h", 1, 0, 2, "h"}},
    {Quantity::angle, "deg", {"°", 1, 0, 1, "deg"}, {"°", 1, 0, 1, "deg"}},
    {Quantity::irradiance, "W/m2", {"W/m²", 1, 0, 0, "w/m2"}, {"BTU/(h·ft²)", square_foot / btu_per_hour, 0, 0, "btu/hft2"}},
    {Quantity::loss_linear, "W/m2K", {"W/m²K", 1, 0, 2, "w/m2k"}, {"BTU/(h·ft²·°F)", square_foot* fahrenheit_k / btu_per_hour, 0, 3, "btu/hft2f"}},
    {Quantity::loss_square, "W/m2K2", {"W/m²K²", 1, 0, 4, "w/m2k2"}, {"BTU/(h·ft²·°F²)", square_foot* fahrenheit_k* fahrenheit_k / btu_per_hour, 0, 5, "btu/hft2f2"}},
    {Quantity::area_capacity, "J/m2K", {"kJ/m²K", 1e-3, 0, 1, "kj/m2k"}, {"BTU/(ft²·°F)", square_foot* fahrenheit_k / btu, 0, 2, "btu/ft2f"}},
    {Quantity::line_loss, "W/mK", {"W/mK", 1, 0, 3, "w/mk"}, {"BTU/(h·ft·°F)", foot* fahrenheit_k / btu_per_hour, 0, 3, "btu/hftf"}},
    {Quantity::resistance, "ohm", {"Ω", 1, 0, 2, "ohm"}, {"Ω", 1, 0, 2, "ohm"}},
    {Quantity::altitude, "m", {"m", 1, 0, 0, "m"}, {"m", 1, 0, 0, "m"}},
    {Quantity::speed, "m/s", {"m/s", 1, 0, 1, "m/s"}, {"ft/s", 1 / foot, 0, 1, "ft/s"}},
    {Quantity::heat_capacity, "J/K", {"kJ/K", 1e-3, 0, 0, "kj/k"}, {"BTU/°F", fahrenheit_k / btu, 0, 1, "btu/f"}},
    {Quantity::large_volume, "m3", {"m³", 1, 0, 1, "m3"}, {"gal", 1 / us_gallon, 0, 0, "gal"}},
    {Quantity::space, "m3", {"m³", 1, 0, 0, "m3"}, {"ft³", 1 / (foot * foot * foot), 0, 0, "ft3"}},
    {Quantity::voltage, "V", {"V", 1, 0, 1, "v"}, {"V", 1, 0, 1, "v"}},
    {Quantity::current, "A", {"A", 1, 0, 2, "a"}, {"A", 1, 0, 2, "a"}},
    {Quantity::charge, "Ah", {"Ah", 1, 0, 0, "ah"}, {"Ah", 1, 0, 0, "ah"}},
    {Quantity::small_power, "W", {"W", 1, 0, 1, "w"}, {"W", 1, 0, 1, "w"}},
    {Quantity::pressure, "Pa", {"bar", 1e-5, 0, 2, "bar"}, {"psi", 1 / psi, 0, 1, "psi"}},
    {Quantity::pressure_drop, "Pa", {"kPa", 1e-3, 0, 1, "kpa"}, {"psi", 1 / psi, 0, 2, "psi"}},
    {Quantity::wire, "m2", {"mm²", 1e6, 0, 2, "mm2"}, {"AWG", 1, 0, 0, "awg"}},
    {Quantity::roughness, "m", {"µm", 1e6, 0, 1, "um"}, {"µm", 1e6, 0, 1, "um"}},
    {Quantity::grams, "kg", {"g", 1000, 0, 0, "g"}, {"oz", 35.27396, 0, 1, "oz"}},
    {Quantity::small_number, "", {"", 1, 0, 4, ""}, {"", 1, 0, 4, ""}},
    {Quantity::small_difference, "K", {"K", 1, 0, 2, "K"}, {"°F", 1.8, 0, 2, "F"}},
    {Quantity::signal_voltage, "V", {"V", 1, 0, 3, "v"}, {"V", 1, 0, 3, "v"}},
    {Quantity::dissipation, "W/K", {"mW/K", 1000, 0, 1, "mw/k"}, {"mW/K", 1000, 0, 1, "mw/k"}},
    {Quantity::fine_ratio, "", {"%", 100, 0, 1, "%"}, {"%", 100, 0, 1, "%"}},
    {Quantity::time_of_day, "h", {"", 1, 0, 0, "h"}, {"", 1, 0, 0, "h"}},
    {Quantity::days, "d", {"d", 1, 0, 1, "days"}, {"d", 1, 0, 1, "days"}},
    {Quantity::count, "", {"", 1, 0, 0, ""}, {"", 1, 0, 0, ""}},
    {Quantity::date, "", {"", 1, 0, 0, ""}, {"", 1, 0, 0, ""}},
    {Quantity::electricity, "J", {"kWh", 1 / 3.6e6, 0, 2, "kwh"}, {"kWh", 1 / 3.6e6, 0, 2, "kwh"}},
    {Quantity::heat_rate, "W", {"W", 1, 0, 0, "w"}, {"BTU/h", 1 / btu_per_hour, 0, 0, "btu/h"}},
    {Quantity::irradiation, "J/m2", {"kWh/m²", 1 / 3.6e6, 0, 2, "kwh/m2"}, {"kBTU/ft²", 1e-3 * square_foot / btu, 0, 2, "kbtu/ft2"}},
    {Quantity::area_content, "m3/m2", {"L/m²", 1 / litre, 0, 2, "l/m2"}, {"gal/ft²", square_foot / us_gallon, 0, 4, "gal/ft2"}},
}};

const Forms& forms_of(Quantity q) { return forms[static_cast<std::size_t>(q)]; }

bool uses_other(Quantity q, const Units& u)
{
    switch (q) {
    case Quantity::temperature:
    case Quantity::difference:
    case Quantity::small_difference: return u.fahrenheit;
    case Quantity::volume:
    case Quantity::large_volume:
    case Quantity::flow:
    case Quantity::area_content:
    case Quantity::grams: return u.us_gallons;
    case Quantity::pressure:
    case Quantity::pressure_drop: return u.psi;
    case Quantity::wire: return u.gauge;
    case Quantity::conductance:
    case Quantity::energy:
    case Quantity::heat_rate:
    case Quantity::irradiation:
    case Quantity::irradiance:
    case Quantity::loss_linear:
    case Quantity::loss_square:
    case Quantity::area_capacity:
    case Quantity::line_loss:
    case Quantity::heat_capacity: return u.btu;
    default: return u.feet;
    }
}

const UnitForm& form(Quantity q, const Units& u)
{
    const Forms& f = forms_of(q);
    return uses_other(q, u) ? f.other : f.si;
}

std::string folded(const std::string& s)
{
    std::string out;
    for (char c : s)
        if (c != ' ')
            out += static_cast<char>(c >= 'A' && c <= 'Z' ? c - 'A' + 'a' : c);
    return out;
}

bool names(const UnitForm& f, const std::string& typed)
{
    const std::string t = folded(typed);
    return t == folded(f.name) || t == folded(f.typed);
}

void replace_all(std::string& s, const std::string& from, const std::string& to)
{
    for (std::size_t p = s.find(from); p != std::string::npos; p = s.find(from, p + to.size()))
        s.replace(p, from.size(), to);
}

bool is_gauge(const UnitForm& f) { return std::strcmp(f.typed, "awg") == 0; }

bool is_energy(Quantity q) { return q == Quantity::energy || q == Quantity::electricity || q == Quantity::irradiation; }

// "12345" as "12 345", by narrow spaces that do not break.
void group(std::string& number)
{
    const std::size_t first = number.find_first_of("0123456789");
    for (std::size_t at = std::min(number.find('.'), number.size()); at > first + 3;)
        number.insert(at -= 3, "\u202f");
}

// Decimals of one value: a few litres are told to a tenth, since sums of small
// volumes would look wrong; many ohms without them.
int decimals_of(double shown, Quantity q, const Units& u)
{
    constexpr double few_litres = 20;
    const int usual = form(q, u).decimals;
    if (q == Quantity::volume && !u.us_gallons && std::fabs(shown) < few_litres && std::fabs(shown - std::round(shown)) > 0.05)
        return usual + 1;
    if (is_energy(q)) // three figures
        return std::fabs(shown) < 9.995 ? 2 : std::fabs(shown) < 99.95 ? 1
                                                                       : 0;
    if (q == Quantity::resistance)
        return std::fabs(shown) >= 10000 ? 0 : std::fabs(shown) >= 1000 ? 1
                                                                        : usual;
    return usual;
}

// Powers of ten a meter shows besides the plain ohm. Letters are folded: nobody
// measures a probe in milliohms.
constexpr std::pair<const char*, double> kilo_ohms[] = {{"k", 1e3}, {"kohm", 1e3}, {"k\u03a9", 1e3}, {"k\u2126", 1e3}, {"m\u03a9", 1e6}};

double shown_of(double inside, const UnitForm& f) { return is_gauge(f) ? awg_of(inside) : inside * f.scale + f.offset; }
// No wire has a gauge beyond these; sections of others run out of the numbers there are.
constexpr double least_gauge = -10, largest_gauge = 60;
double inside_of(double shown, const UnitForm& f) { return is_gauge(f) ? awg_section_m2(shown) : (shown - f.offset) / f.scale; }

double inside_of_typed(double shown, const UnitForm& f) { return is_gauge(f) && (shown < least_gauge || shown > largest_gauge) ? NAN : inside_of(shown, f); }

} // namespace

double to_display(double inside, Quantity q, const Units& u)
{
    return shown_of(inside, form(q, u));
}

double from_display(double shown, Quantity q, const Units& u)
{
    return inside_of(shown, form(q, u));
}

const char* inside_unit(Quantity q) { return forms_of(q).inside; }

std::string unit_name(Quantity q, const Units& u) { return form(q, u).name; }

int decimals(Quantity q, const Units& u) { return form(q, u).decimals; }

namespace {

namespace calendar = std::chrono;
constexpr calendar::year leap_year{2000};
constexpr std::array months{"Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"};

// "1 Nov" of a day of a leap year.
std::string date_text(double day)
{
    const calendar::year_month_day d{calendar::sys_days{leap_year / 1 / 1} + calendar::days{std::lround(std::clamp(day, 1.0, 366.0)) - 1}};
    return std::to_string(static_cast<unsigned>(d.day())) + " " + months[static_cast<unsigned>(d.month()) - 1];
}

// A day with its month behind it; three letters of the name and more will do.
Result<double> date_in(double day, const std::string& month, const std::string& text)
{
    const Error wrong{"“" + text + "” is not a date", "", "Type a date such as 1 Nov"};
    for (unsigned m = 0; m < months.size(); ++m)
        if (month.rfind(folded(months[m]), 0) == 0) {
            const auto d = leap_year / calendar::month{m + 1} / calendar::day{static_cast<unsigned>(std::clamp(day, 0.0, 99.0))};
            if (!d.ok() || day != std::floor(day))
                return wrong;
            return day_of_leap_year(static_cast<int>(m + 1), static_cast<int>(day));
        }
    return wrong;
}

// Takes the narrow spaces between the digits of a grouped number away.
void ungroup(std::string& s)
{
    const std::string narrow = "\u202f";
    const auto digit = [&s](std::size_t at) { return at < s.size() && s[at] >= '0' && s[at] <= '9'; };
    for (std::size_t at = s.find(narrow); at != std::string::npos; at = s.find(narrow, at + 1))
        if (const std::size_t behind = at + narrow.size(); at > 0 && digit(at - 1) && digit(behind) && digit(behind + 1) && digit(behind + 2) && !digit(behind + 3))
            s.erase(at, narrow.size());
}

// "am" and "pm": what is added to a time of the twelve-hour clock.
std::optional<double> half_of_day(const std::string& unit)
{
    std::string typed = folded(unit);
    std::erase(typed, '.');
    if (typed == "am" || typed == "a")
        return 0;
    if (typed == "pm" || typed == "p")
        return 12;
    return {};
}

// "5 ft 6 in", "1 h 20 min": `unit` holds the first unit and all behind it.
std::optional<double> in_two_units(double value, const std::string& unit, Quantity q, const Units& u)
{
    const std::size_t second = unit.find_first_of("0123456789", 1);
    const bool adds = q == Quantity::length || q == Quantity::bore || q == Quantity::duration || q == Quantity::minutes || q == Quantity::hours;
    if (!adds || value < 0 || second == std::string::npos)
        return {};
    const auto first = inside_of_spelled(value, unit.substr(0, second), q, u);
    const auto rest = parse(unit.substr(second), q, u);
    const bool has_unit = unit.find_first_not_of("0123456789./ ", second) != std::string::npos;
    if (!first || !rest || !has_unit || *rest < 0)
        return {};
    return *first + *rest;
}

} // namespace

int day_of_leap_year(int month, int day)
{
    const calendar::sys_days first = leap_year / 1 / 1, it = leap_year / month / day;
    return static_cast<int>((it - first).count()) + 1;
}

std::string to_text(double inside, Quantity q, const Units& u)
{
    if (!std::isfinite(inside))
        return "–";
    if (q == Quantity::time_of_day)
        return inside >= 24 ? "24:00" : clock_text(std::round(inside * 60) * 60);
    if (q == Quantity::date)
        return date_text(inside);
    char buffer[64];
    double shown = to_display(inside, q, u);
    const int digits = decimals_of(shown, q, u);
    const double half = 0.5 * std::pow(10.0, -digits);
    if (std::fabs(shown) < half)
        shown = 0; // no "−0.0"
    std::snprintf(buffer, sizeof buffer, "%.*f", digits, shown);
    std::string out = buffer;
    if (is_energy(q))
        group(out);
    replace_all(out, "-", "−");
    const std::string unit = unit_name(q, u);
    return unit.empty() ? out : unit == "°" ? out + unit
                                            : out + " " + unit;
}

Result<double> parse(const std::string& text, Quantity q, const Units& u)
{
    std::string s = text;
    replace_all(s, "−", "-");
    replace_all(s, ",", ".");
    ungroup(s);
    replace_all(s, "\u202f", " ");
    replace_all(s, "\u00a0", " ");
    const std::size_t first = std::min(s.find_first_not_of(" +"), s.size());
    if (const auto clocked = inside_of_clocked(s.substr(first), q))
        return *clocked;
    const auto number = typed_number(std::string_view(s).substr(first));
    if (!number)
        return Error{"“" + text + "” is not a number", "", "Type a number such as 8.0"};
    const bool parted = std::string_view(s).substr(first, number->size).find('/') != std::string_view::npos;
    if (parted && (q == Quantity::date || q == Quantity::time_of_day || q == Quantity::count))
        return Error{"“" + text + "” is not a number", "", "Type a number such as 8"};
    double value = number->value;
    std::string unit = s.substr(first + number->size);
    if (q == Quantity::time_of_day && !unit.empty() && unit[0] == ':') {
        int minutes = -1;
        const auto [rest, bad] = std::from_chars(unit.data() + 1, unit.data() + unit.size(), minutes);
        if (bad != std::errc() || minutes < 0 || minutes > 59 || value != std::floor(value))
            return Error{"“" + text + "” is not a time of day", "", "Type a time such as 04:30"};
        value += minutes / 60.0;
        unit.erase(0, static_cast<std::size_t>(rest - unit.data()));
    }
    if (q == Quantity::time_of_day)
        if (const auto half = half_of_day(unit)) {
            if (value < 1 || value >= 13)
                return Error{"“" + text + "” is not a time of day", "", "Type a time such as 4:30 pm or 16:30"};
            return std::fmod(value, 12) + *half;
        }
    if (q == Quantity::date && !folded(unit).empty())
        return date_in(value, folded(unit), text);
    // A number of any size is none in its unit where that takes it beyond all bounds.
    const auto taken = [&](double inside) -> Result<double> {
        if (!std::isfinite(inside))
            return Error{"“" + text + "” is beyond all bounds", "", "Type a number such as 8.0"};
        return inside;
    };
    if (folded(unit).empty())
        return taken(inside_of_typed(value, form(q, u)));
    const Forms& f = forms_of(q);
    for (const UnitForm* candidate : {&form(q, u), &f.si, &f.other})
        if (names(*candidate, unit))
            return taken(inside_of_typed(value, *candidate));
    if (q == Quantity::resistance)
        for (const auto& [name, scale] : kilo_ohms)
            if (folded(unit) == name)
                return taken(value * scale);
    if (const auto inside = inside_of_spelled(value, unit, q, u))
        return taken(*inside);
    if (const auto both = in_two_units(value, unit, q, u))
        return taken(*both);
    return Error{"“" + unit + "” is not a unit of this value", "", "Use " + unit_name(q, u) + " or leave the unit out"};
}

std::string clock_text(double seconds)
{
    if (!std::isfinite(seconds))
        return "–";
    const long minutes = std::lround(std::floor(seconds / 60.0));
    const long in_day = ((minutes % 1440) + 1440) % 1440;
    char buffer[16];
    std::snprintf(buffer, sizeof buffer, "%02ld:%02ld", in_day / 60, in_day % 60);
    return buffer;
}

} // namespace vernal
