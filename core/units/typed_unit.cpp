#include "typed_unit.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <vector>

namespace vernal {
namespace typed_units { // quantity.cpp has some of these names
namespace {

// inside = shown * scale + offset
struct Spelled {
    std::vector<const char*> names; // lower case, without spaces, points and hyphens
    double scale;
    double offset = 0;
};

constexpr double foot = 0.3048, inch = foot / 12, gallon = 3.785411784e-3, litre = 1e-3, minute = 60, hour = 3600, day = 86400;
constexpr double psi = 6894.757, btu = 1055.05585262, mile = 1609.344, pound = 0.45359237;

const std::vector<Spelled> lengths{{{"m", "meter", "meters", "metre", "metres"}, 1}, {{"cm", "centimeter", "centimeters", "centimetre", "centimetres"}, 0.01}, {{"mm", "millimeter", "millimeters", "millimetre", "millimetres"}, 1e-3},
    {{"um", "µm", "μm", "micron", "microns"}, 1e-6}, {{"ft", "foot", "feet", "'", "′"}, foot}, {{"in", "inch", "inches", "\"", "″", "''"}, inch}, {{"yd", "yard", "yards"}, 3 * foot}};
const std::vector<Spelled> areas{{{"m2", "m²", "m^2", "sqm", "squaremeter", "squaremeters", "squaremetre", "squaremetres"}, 1}, {{"cm2", "cm²", "sqcm"}, 1e-4},
    {{"ft2", "ft²", "ft^2", "sqft", "squarefoot", "squarefeet"}, foot* foot}, {{"in2", "in²", "sqin", "squareinch", "squareinches"}, inch* inch}};
const std::vector<Spelled> volumes{{{"l", "liter", "liters", "litre", "litres"}, litre}, {{"ml", "milliliter", "milliliters", "millilitre", "millilitres", "cc"}, 1e-6}, {{"m3", "m³", "m^3", "cum", "cubicmeter", "cubicmeters", "cubicmetre", "cubicmetres"}, 1},
    {{"gal", "gals", "gallon", "gallons", "usgal", "usgallons", "usgallon"}, gallon}, {{"qt", "quart", "quarts"}, gallon / 4}, {{"pt", "pint", "pints"}, gallon / 8}, {{"ft3", "ft³", "ft^3", "cuft", "cubicfoot", "cubicfeet"}, foot* foot* foot}};
const std::vector<Spelled> flows{{{"l/min", "lpm", "litersperminute", "litresperminute", "literperminute", "litreperminute", "liters/min", "litres/min", "l/minute", "litersaminute", "litresaminute"}, litre / minute}, {{"l/h", "lph", "litersperhour", "litresperhour", "l/hr"}, litre / hour}, {{"l/s", "literspersecond", "litrespersecond"}, litre},
    {{"m3/h", "m³/h", "cubicmetersperhour", "cubicmetresperhour"}, 1 / hour}, {{"gal/min", "gpm", "gallonsperminute", "gallonperminute", "gallons/min", "gallonsaminute", "gal/minute"}, gallon / minute}, {{"gal/h", "gph", "gallonsperhour"}, gallon / hour}, {{"cfm", "ft3/min", "ft³/min"}, foot* foot* foot / minute}};
const std::vector<Spelled> temperatures{{{"°c", "c", "degc", "degreesc", "degreec", "celsius", "degcelsius", "degreescelsius", "degreecelsius", "centigrade", "degreescentigrade"}, 1}, {{"°f", "f", "degf", "degreesf", "degreef", "fahrenheit", "degreesfahrenheit", "degreefahrenheit", "degfahrenheit"}, 1 / 1.8, -32 / 1.8}};
const std::vector<Spelled> differences{{{"k", "kelvin", "kelvins", "°c", "c", "degc", "degreesc", "celsius", "degreescelsius"}, 1}, {{"°f", "f", "degf", "degreesf", "fahrenheit", "degreesfahrenheit", "°r"}, 1 / 1.8}};
const std::vector<Spelled> powers{{{"w", "watt", "watts"}, 1}, {{"kw", "kilowatt", "kilowatts"}, 1e3}, {{"mw", "milliwatt", "milliwatts"}, 1e-3}, {{"btu/h", "btuh", "btu/hr", "btuperhour", "btusperhour"}, btu / hour}};
const std::vector<Spelled> energies{{{"kwh", "kilowatthour", "kilowatthours"}, 3.6e6}, {{"wh", "watthour", "watthours"}, 3600}, {{"mwh", "megawatthour", "megawatthours"}, 3.6e9}, {{"kj"}, 1e3}, {{"mj", "megajoule", "megajoules"}, 1e6}, {{"gj"}, 1e9}, {{"btu", "btus"}, btu}, {{"kbtu", "kbtus", "thousandbtu"}, 1e3 * btu}, {{"mmbtu", "millionbtu"}, 1e6 * btu}};
const std::vector<Spelled> durations{{{"s", "sec", "secs", "second", "seconds"}, 1}, {{"min", "mins", "minute", "minutes"}, minute}, {{"h", "hr", "hrs", "hour", "hours"}, hour}, {{"d", "day", "days"}, day}, {{"week", "weeks", "wk", "wks"}, 7 * day}};
const std::vector<Spelled> angles{{{"°", "deg", "degs", "degree", "degrees"}, 1}};
const std::vector<Spelled> irradiances{{{"w/m2", "w/m²", "w/m^2", "w/sqm", "wattspersquaremeter", "wattspersquaremetre", "wattsasquaremeter", "wattsasquaremetre", "wattspersqm", "watts/m2", "watts/m²"}, 1}, {{"kw/m2", "kw/m²"}, 1e3}};
const std::vector<Spelled> resistances{{{"ohm", "ohms", "Ω", "Ω"}, 1}, {{"k", "kohm", "kohms", "kΩ", "kΩ", "kiloohm", "kiloohms", "kilohm", "kilohms"}, 1e3}, {{"megohm", "megohms", "megaohm", "megaohms"}, 1e6}};
const std::vector<Spelled> voltages{{{"v", "volt", "volts", "vdc", "vac", "voltsdc", "voltsac"}, 1}, {{"mv", "millivolt", "millivolts"}, 1e-3}};
const std::vector<Spelled> currents{{{"a", "amp", "amps", "ampere", "amperes"}, 1}, {{"ma", "milliamp", "milliamps", "milliampere", "milliamperes"}, 1e-3}};
const std::vector<Spelled> charges{{{"ah", "amphour", "amphours", "amperehour", "amperehours"}, 1}};
const std::vector<Spelled> pressures{{{"bar", "bars"}, 1e5}, {{"mbar", "millibar", "millibars", "hpa"}, 100}, {{"kpa", "kilopascal", "kilopascals"}, 1e3}, {{"mpa"}, 1e6}, {{"pa", "pascal", "pascals"}, 1}, {{"psi", "psig", "lb", "lbs", "pounds", "pound", "poundspersquareinch"}, psi},
    {{"mh2o", "mofwater", "mwater", "metersofwater", "metresofwater", "mofhead", "metersofhead", "metresofhead"}, 9806.65}, {{"fth2o", "ftofwater", "ftofhead", "feetofhead", "feetofwater", "fthead"}, 9806.65 * foot}};
const std::vector<Spelled> speeds{{{"m/s", "meterspersecond", "metrespersecond", "mps"}, 1}, {{"km/h", "kmh", "kph"}, 1 / 3.6}, {{"ft/s", "fps", "feetpersecond"}, foot}, {{"mph", "milesperhour"}, mile / hour}};
const std::vector<Spelled> ratios{{{"%", "percent", "pct"}, 0.01}};
const std::vector<Spelled> sections{{{"mm2", "mm²", "mm^2", "sqmm", "squaremillimeters", "squaremillimetres"}, 1e-6}};
const std::vector<Spelled> masses{{{"g", "gram", "grams", "gramme", "grammes"}, 1e-3}, {{"kg", "kilo", "kilos", "kilogram", "kilograms"}, 1}, {{"lb", "lbs", "pound", "pounds"}, pound}, {{"oz", "ounce", "ounces"}, pound / 16}};

const std::vector<Spelled>* spellings(Quantity q)
{
    switch (q) {
    case Quantity::length:
    case Quantity::bore:
    case Quantity::altitude:
    case Quantity::roughness: return &lengths;
    case Quantity::area: return &areas;
    case Quantity::volume:
    case Quantity::large_volume:
    case Quantity::space: return &volumes;
    case Quantity::flow: return &flows;
    case Quantity::temperature: return &temperatures;
    case Quantity::difference:
    case Quantity::small_difference: return &differences;
    case Quantity::power:
    case Quantity::heat_rate:
    case Quantity::small_power: return &powers;
    case Quantity::electricity:
    case Quantity::energy: return &energies;
    case Quantity::duration:
    case Quantity::minutes:
    case Quantity::hours:
    case Quantity::days: return &durations;
    case Quantity::angle: return &angles;
    case Quantity::irradiance: return &irradiances;
    case Quantity::resistance: return &resistances;
    case Quantity::voltage:
    case Quantity::signal_voltage: return &voltages;
    case Quantity::current: return &currents;
    case Quantity::charge: return &charges;
    case Quantity::pressure:
    case Quantity::pressure_drop: return &pressures;
    case Quantity::speed: return &speeds;
    case Quantity::ratio:
    case Quantity::fine_ratio: return &ratios;
    case Quantity::wire: return &sections;
    case Quantity::grams: return &masses;
    default: return nullptr;
    }
}

// Seconds in what a quantity of time is kept in.
double inside_s(Quantity q) { return q == Quantity::hours ? hour : q == Quantity::days ? day
                                                                                       : 1; }

bool is_time(Quantity q) { return q == Quantity::duration || q == Quantity::minutes || q == Quantity::hours || q == Quantity::days; }

std::string squeezed(const std::string& unit)
{
    std::string out;
    for (std::size_t i = 0; i < unit.size(); ++i) {
        const char c = unit[i];
        if (c == ' ' || c == '-' || (c == '.' && (i + 1 == unit.size() || unit[i + 1] < '0' || unit[i + 1] > '9')))
            continue;
        out += static_cast<char>(c >= 'A' && c <= 'Z' ? c - 'A' + 'a' : c);
    }
    return out;
}

bool is_digit(char c) { return c >= '0' && c <= '9'; }

// Digits alone, as a fraction has them.
std::optional<TypedNumber> whole(std::string_view text)
{
    std::size_t n = 0;
    while (n < text.size() && n < 6 && is_digit(text[n]))
        ++n;
    if (n == 0)
        return {};
    return TypedNumber{std::stod(std::string(text.substr(0, n))), n};
}

// "3/4"
std::optional<TypedNumber> fraction(std::string_view text)
{
    const auto over = whole(text);
    if (!over || over->size >= text.size() || text[over->size] != '/')
        return {};
    const auto under = whole(text.substr(over->size + 1));
    if (!under || under->value == 0)
        return {};
    return TypedNumber{over->value / under->value, over->size + 1 + under->size};
}

} // namespace
} // namespace typed_units

using namespace typed_units;

std::optional<TypedNumber> typed_number(std::string_view text)
{
    std::size_t sign = 0;
    const bool less = !text.empty() && text[0] == '-';
    if (less || (!text.empty() && text[0] == '+'))
        sign = 1;
    const std::string_view rest = text.substr(sign);
    const auto found = [&](double value, std::size_t size) { return TypedNumber{less ? -value : value, sign + size}; };
    if (const auto f = fraction(rest))
        return found(f->value, f->size);
    if (const auto n = whole(rest); n && n->size + 1 < rest.size() && (rest[n->size] == ' ' || rest[n->size] == '-'))
        if (const auto f = fraction(rest.substr(n->size + 1)); f && f->value < 1)
            return found(n->value + f->value, n->size + 1 + f->size);
    double value = 0;
    const auto [end, ec] = std::from_chars(rest.data(), rest.data() + rest.size(), value);
    if (ec != std::errc() || !std::isfinite(value) || (sign == 1 && value < 0))
        return {};
    return found(value, static_cast<std::size_t>(end - rest.data()));
}

std::optional<double> inside_of_spelled(double shown, const std::string& unit, Quantity q, const Units& u)
{
    const std::string typed = squeezed(unit);
    if (q == Quantity::temperature || q == Quantity::difference || q == Quantity::small_difference)
        if (typed == "deg" || typed == "degs" || typed == "degree" || typed == "degrees" || typed == "°")
            return from_display(shown, q, u);
    if (q == Quantity::wire && (typed == "gauge" || typed == "ga" || typed == "awg"))
        return from_display(shown, q, Units::us());
    const std::vector<Spelled>* all = spellings(q);
    if (!all || typed.empty())
        return {};
    for (const Spelled& s : *all)
        for (const char* name : s.names)
            if (typed == name)
                return is_time(q) ? shown * s.scale / inside_s(q) : shown * s.scale + s.offset;
    return {};
}

std::optional<double> inside_of_clocked(const std::string& text, Quantity q)
{
    if (!is_time(q) || q == Quantity::days)
        return {};
    std::array<double, 3> part{};
    std::size_t n = 0, at = 0;
    for (;;) {
        const auto p = whole(std::string_view(text).substr(at));
        if (!p || n == part.size() || (n > 0 && (p->size != 2 || p->value >= 60)))
            return {};
        part[n++] = p->value;
        at += p->size;
        if (at == text.size())
            break;
        if (text[at++] != ':')
            return {};
    }
    if (n < 2)
        return {};
    const double seconds = n == 3 ? part[0] * hour + part[1] * minute + part[2] : q == Quantity::hours ? part[0] * hour + part[1] * minute
                                                                                                       : part[0] * minute + part[1];
    return seconds / inside_s(q);
}

} // namespace vernal
