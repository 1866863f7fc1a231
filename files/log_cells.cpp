#include "log_cells.h"

#include "core/plant/loop.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace vernal {
namespace {

constexpr double rankine = 5.0 / 9;
constexpr CellUnit units[]{
    {"°C", Quantity::temperature}, {"C", Quantity::temperature}, {"degC", Quantity::temperature}, {"deg C", Quantity::temperature},
    {"°F", Quantity::temperature, rankine, -32 * rankine}, {"F", Quantity::temperature, rankine, -32 * rankine}, {"degF", Quantity::temperature, rankine, -32 * rankine}, {"deg F", Quantity::temperature, rankine, -32 * rankine},
    {"0.1 °C", Quantity::temperature, 0.1}, {"0.01 °C", Quantity::temperature, 0.01}, {"0.1 °F", Quantity::temperature, 0.1 * rankine, -32 * rankine},
    {"K", Quantity::temperature, 1, -273.15},
    {"W/m²", Quantity::irradiance}, {"W/m2", Quantity::irradiance}, {"W/m^2", Quantity::irradiance}, {"kW/m²", Quantity::irradiance, 1000}, {"kW/m2", Quantity::irradiance, 1000},
    {"V", Quantity::number, 1, 0, "V"}, {"mV", Quantity::number, 0.001, 0, "V"}};
// Kept as they are: nothing here reads such columns.
constexpr const char* plain_units[]{"%", "A", "mA", "W", "kW", "Wh", "kWh", "J", "kJ", "MJ", "bar", "mbar", "Pa", "kPa", "psi", "L", "l", "L/min", "l/min", "L/h", "l/h", "m3", "m³", "m3/h", "m³/h", "gal", "gpm", "gal/min", "m", "mm", "m/s", "s", "min", "h", "Hz", "rpm", "ohm", "Ω", "kΩ", "kohm"};

} // namespace

std::string_view trimmed(std::string_view s)
{
    const std::size_t a = s.find_first_not_of(" \t"), b = s.find_last_not_of(" \t");
    return a == std::string_view::npos ? std::string_view() : s.substr(a, b - a + 1);
}

std::optional<CellUnit> cell_unit(std::string_view name)
{
    for (const CellUnit& u : units)
        if (name == u.name)
            return u;
    for (const char* plain : plain_units)
        if (name == plain)
            return CellUnit{plain, Quantity::number, 1, 0, plain};
    if (name == "1")
        return CellUnit{"1", Quantity::number};
    return {};
}

CellHeader header_parts(const std::string& text)
{
    for (const auto& [open, close] : {std::pair{'[', ']'}, {'(', ')'}}) {
        const std::size_t at = text.rfind(open);
        if (at == std::string::npos || text.back() != close)
            continue;
        const std::string unit(trimmed(std::string_view(text).substr(at + 1, text.size() - at - 2)));
        if (open == '[' || cell_unit(unit))
            return {std::string(trimmed(std::string_view(text).substr(0, at))), unit};
    }
    return {text, ""};
}

std::optional<Quantity> signal_quantity(const std::string& column)
{
    if (column == "air" || column == "temperature")
        return Quantity::temperature;
    if (const auto place = std::find(place_keys.begin(), place_keys.end(), column); place != place_keys.end())
        switch (reads_at(static_cast<ProbePlace>(place - place_keys.begin()))) {
        case Reads::temperature: return Quantity::temperature;
        case Reads::irradiance: return Quantity::irradiance;
        default: return {}; // by its unit, which the replay asks for
        }
    if (column == "irradiance" || column == "irradiance_plane")
        return Quantity::irradiance;
    if (column == "supply")
        return Quantity::number;
    return {};
}

bool holds_words(const std::string& column) { return column.ends_with("_decided_by") || column.ends_with("_rule") || column == "distrusted"; }

namespace {

void put_utf8(std::string& out, std::uint32_t c)
{
    const auto byte = [&](std::uint32_t b) { out += static_cast<char>(b); };
    if (c < 0x80)
        return byte(c);
    if (c < 0x800)
        return byte(0xC0U | c >> 6U), byte(0x80U | (c & 0x3FU));
    if (c < 0x10000)
        return byte(0xE0U | c >> 12U), byte(0x80U | (c >> 6U & 0x3FU)), byte(0x80U | (c & 0x3FU));
    byte(0xF0U | c >> 18U), byte(0x80U | (c >> 12U & 0x3FU)), byte(0x80U | (c >> 6U & 0x3FU)), byte(0x80U | (c & 0x3FU));
}

// By its byte order mark; what is no character becomes U+FFFD.
std::string from_utf16(std::string_view text, bool big)
{
    const auto unit = [&](std::size_t i) { return static_cast<std::uint32_t>(static_cast<unsigned char>(text[i + (big ? 0 : 1)])) << 8U | static_cast<unsigned char>(text[i + (big ? 1 : 0)]); };
    std::string out;
    for (std::size_t i = 2; i + 1 < text.size(); i += 2) {
        const std::uint32_t c = unit(i);
        if (c >= 0xD800 && c < 0xDC00 && i + 3 < text.size() && unit(i + 2) >= 0xDC00 && unit(i + 2) < 0xE000) {
            put_utf8(out, 0x10000 + ((c - 0xD800) << 10U) + (unit(i + 2) - 0xDC00));
            i += 2;
        } else {
            put_utf8(out, c >= 0xD800 && c < 0xE000 ? 0xFFFD : c);
        }
    }
    return out;
}

} // namespace

std::string as_utf8(const std::string& given, bool& converted)
{
    converted = false;
    std::string text = given.starts_with("\xff\xfe") || given.starts_with("\xfe\xff") ? from_utf16(given, given.starts_with('\xfe')) : given;
    if (text.find('\n') == std::string::npos) // lines of an old machine
        std::replace(text.begin(), text.end(), '\r', '\n');
    const auto follows = [&](std::size_t i) { return i < text.size() && (static_cast<unsigned char>(text[i]) & 0xC0U) == 0x80; };
    for (std::size_t i = 0; i < text.size();) {
        const auto c = static_cast<unsigned char>(text[i]);
        const std::size_t more = c < 0x80 ? 0 : c >= 0xC2 && c < 0xE0 ? 1
                                            : c >= 0xE0 && c < 0xF0   ? 2
                                            : c >= 0xF0 && c < 0xF5   ? 3
                                                                      : 9;
        converted = more == 9;
        for (std::size_t k = 1; k <= more && !converted; ++k)
            converted = !follows(i + k);
        if (converted)
            break;
        i += more + 1;
    }
    if (!converted)
        return text;
    std::string out;
    for (const char byte : text) {
        const auto c = static_cast<unsigned char>(byte);
        if (c < 0x80) {
            out += byte;
        } else {
            out += static_cast<char>(0xC0U | c >> 6U);
            out += static_cast<char>(0x80U | (c & 0x3FU));
        }
    }
    return out;
}

std::optional<double> cell_number(std::string_view cell, bool decimal_comma)
{
    std::string_view s = trimmed(cell);
    std::array<char, 64> with_point{};
    if (decimal_comma && s.find(',') != std::string_view::npos) {
        if (s.size() > with_point.size())
            return std::nullopt;
        std::replace_copy(s.begin(), s.end(), with_point.begin(), ',', '.');
        s = {with_point.data(), s.size()};
    }
    if (s.size() > 1 && s.front() == '+' && s[1] != '-')
        s.remove_prefix(1);
    double v = 0;
    const auto [end, ec] = std::from_chars(s.data(), s.data() + s.size(), v);
    if (ec != std::errc() || end != s.data() + s.size() || !std::isfinite(v))
        return std::nullopt;
    return v;
}

std::optional<double> cell_switch(std::string_view cell)
{
    if (cell == "on" || cell == "ON" || cell == "true")
        return 1.0;
    if (cell == "off" || cell == "OFF" || cell == "false")
        return 0.0;
    return std::nullopt;
}

void note_lacks(Trace& trace, std::size_t duplicates, std::size_t empty)
{
    const double usual = trace.interval_s();
    std::size_t gaps = 0;
    for (std::size_t i = 1; i < trace.time_s.size(); ++i)
        gaps += trace.time_s[i] - trace.time_s[i - 1] >= 3.5 * usual;
    const auto note = [&](std::size_t n, const char* one, const char* more) {
        if (n > 0)
            trace.notes.push_back(n == 1 ? one : std::to_string(n) + more);
    };
    note(duplicates, "One row repeats a time; the last one was taken", " rows repeat a time; the last one was taken");
    note(empty, "One cell is empty", " cells are empty");
    note(gaps, "One gap lacks more than two rows; readings there count as missing from the third on", " gaps lack more than two rows; readings there count as missing from the third on");
}

} // namespace vernal
