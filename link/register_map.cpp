#include "register_map.h"

#include "core/unit/sheet_value.h"
#include "core/units/exact_text.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <limits>
#include <set>

namespace vernal {
namespace {

constexpr double no_value = std::numeric_limits<double>::quiet_NaN();
constexpr int most_words = 125, most_bits = 2000; // in one request

struct RawRange {
    double low, high;
};

RawRange range_of(WordType t)
{
    switch (t) {
    case WordType::bit: return {0, 1};
    case WordType::int16: return {-32768, 32767};
    case WordType::uint16: return {0, 65535};
    case WordType::int32: return {-2147483648.0, 2147483647.0};
    case WordType::uint32: return {0, 4294967295.0};
    case WordType::float32: break;
    }
    constexpr double most = std::numeric_limits<float>::max();
    return {-most, most};
}

std::string entry(const char* list, std::size_t i) { return std::string(list) + "[" + std::to_string(i) + "]"; }

bool needs_key(RegisterIs is) { return is == RegisterIs::reading || is == RegisterIs::live || is == RegisterIs::speed || is == RegisterIs::watt || is == RegisterIs::mode; }

constexpr std::array read_quantities{Quantity::temperature, Quantity::irradiance, Quantity::flow, Quantity::pressure};

// What a rule's number is, else what is told of every register.
std::optional<JobProblem> rule_problem(const MapRegister& r, const std::string& at)
{
    if (!is_rule_kind(r.rule))
        return JobProblem{at + ".rule", "“" + r.rule + "” is no kind of rule", "A kind as in the job file, such as " + std::string(rule_kinds().front().key)};
    if (r.is == RegisterIs::in_use)
        return r.field.empty() ? std::nullopt : std::optional(JobProblem{at + ".field", "whether a rule is in use is no field of it", "Leave it out"});
    if (!rule_field(r.rule, r.field))
        return JobProblem{at + ".field", "“" + r.field + "” is no number of this rule", "A field as in the job file, such as on_k"};
    if ((r.low != 0 || r.high != 0) && !(r.low < r.high))
        return JobProblem{at + ".high", "its range is empty", "high stands above low"};
    return {};
}

std::optional<JobProblem> kind_problem(const MapRegister& r, const std::string& at)
{
    if (needs_key(r.is) == r.of.empty())
        return JobProblem{at + ".of", r.of.empty() ? "it does not say of which probe or output" : "it is of no probe or output", r.of.empty() ? "A key as in the job, such as S1 or P1" : "Leave it out"};
    if (of_rule(r.is))
        if (auto p = rule_problem(r, at))
            return p;
    if (!of_rule(r.is) && !(r.rule.empty() && r.field.empty()))
        return JobProblem{at + ".rule", "only a setting is of a rule", "Leave it out, or write \"is\": \"setting\""};
    if (r.is == RegisterIs::mode) {
        if (r.type == WordType::bit || r.type == WordType::float32)
            return JobProblem{at + ".type", "a bit or a fraction does not hold OFF, AUTO and ON", "A whole number, such as uint16"};
        if (r.off == r.automatic || r.on == r.automatic || r.off == r.on)
            return JobProblem{at + ".on", "two modes have the same number", "Numbers of their own for off, automatic and on"};
        for (const int code : {r.off, r.automatic, r.on})
            if (code > range_of(r.type).high)
                return JobProblem{at + ".on", std::to_string(code) + " does not fit into " + word_type_keys[static_cast<std::size_t>(r.type)], "A smaller number, or another type"};
        return {};
    }
    if (r.is == RegisterIs::live || r.is == RegisterIs::in_use)
        return {};
    if (!sheet_unit(r.unit, quantity_of(r)))
        return JobProblem{at + ".unit", "“" + r.unit + "” is no unit of it", "Such as " + (unit_name(quantity_of(r), {}).empty() ? std::string("none") : unit_name(quantity_of(r), {}))};
    return {};
}

// size: of what it stands in.
std::optional<JobProblem> place_problem(const MapRegister& r, const std::string& at, int size)
{
    if (of_bits(r.table) != (r.type == WordType::bit))
        return JobProblem{at + ".type", std::string("a ") + table_text(r.table) + " is no " + word_type_keys[static_cast<std::size_t>(r.type)], of_bits(r.table) ? "bit" : "int16, uint16, int32, uint32 or float32"};
    if (end_of(r) > size)
        return JobProblem{at + ".address", "it ends beyond " + std::to_string(size - 1), "Addresses are from 0, as on the wire"};
    if (r.scale == 0)
        return JobProblem{at + ".scale", "its scale is 0", "What one step of the register is worth, such as 0.1"};
    return {};
}

std::string meaning_of(const MapRegister& r) { return std::string(register_keys[static_cast<std::size_t>(r.is)]) + "/" + r.of + "/" + r.rule + "/" + std::to_string(r.nth) + "/" + r.field; }

std::optional<JobProblem> log_problem(const MapLog& l)
{
    if (l.rows == 0)
        return {};
    if (of_bits(l.table))
        return JobProblem{"log.table", "a log stands in words", "input or holding"};
    if (l.row_words < 1)
        return JobProblem{"log.row_words", "a row is empty", "How many words a row has"};
    if (l.address + l.rows * l.row_words > table_size)
        return JobProblem{"log.rows", "the rows end beyond " + std::to_string(table_size - 1), "Fewer rows, or a lower address"};
    for (const auto& [address, name] : {std::pair(l.count_address, "count_address"), std::pair(l.sequence_address, "sequence_address")})
        if (address >= l.address && address < l.address + l.rows * l.row_words)
            return JobProblem{std::string("log.") + name, "it stands within the rows", "An address of its own"};
    if (l.columns.empty())
        return JobProblem{"log.columns", "a row has no column", "One a reading or output"};
    std::set<std::string> seen;
    for (std::size_t i = 0; i < l.columns.size(); ++i) {
        const MapRegister& c = l.columns[i];
        const std::string at = "log." + entry("columns", i);
        if (c.is != RegisterIs::reading && c.is != RegisterIs::live && c.is != RegisterIs::supply)
            return JobProblem{at + ".is", "a column is a reading, the supply or an output", "reading, supply or live"};
        if (c.table != l.table)
            return JobProblem{at + ".table", "it stands in another table than the log", table_keys[static_cast<std::size_t>(l.table)]};
        if (auto p = kind_problem(c, at))
            return p;
        if (auto p = place_problem(c, at, l.row_words))
            return p;
        if (!seen.insert(meaning_of(c)).second)
            return JobProblem{at, "this column is there twice", "Remove one"};
    }
    return {};
}

} // namespace

const char* table_text(Table t)
{
    constexpr std::array texts{"coil", "discrete input", "input register", "holding register"};
    return texts[static_cast<std::size_t>(t)];
}

int words_of(WordType t) { return t >= WordType::int32 ? 2 : 1; }

bool writable(const MapRegister& r) { return can_write(r.table) && !r.read_only && (of_rule(r.is) || r.is == RegisterIs::mode); }

std::optional<JobProblem> map_problem(const RegisterMap& map)
{
    if (map.name.empty())
        return JobProblem{"name", "the map has no name", "What the unit is called"};
    std::set<std::string> seen;
    std::map<std::pair<Table, int>, std::size_t> taken;
    for (std::size_t i = 0; i < map.registers.size(); ++i) {
        const MapRegister& r = map.registers[i];
        const std::string at = entry("registers", i);
        if (auto p = kind_problem(r, at))
            return p;
        if (auto p = place_problem(r, at, table_size))
            return p;
        if (!seen.insert(meaning_of(r)).second)
            return JobProblem{at, "the same is there twice", "Remove one, or say which rule of its kind by nth"};
        for (int a = r.address; a < end_of(r); ++a)
            if (const auto [it, fresh] = taken.emplace(std::pair(r.table, a), i); !fresh)
                return JobProblem{at + ".address", std::string("another register stands there: ") + table_text(r.table) + " " + std::to_string(a) + " is that of " + entry("registers", it->second), "An address of its own"};
    }
    return log_problem(map.log);
}

std::optional<std::uint16_t> WireImage::at(Table t, int address) const
{
    const auto it = words_.find(key(t, address));
    return it == words_.end() ? std::nullopt : std::optional(it->second);
}

std::optional<double> WireImage::raw(const RegisterMap& map, const MapRegister& r) const
{
    std::vector<std::uint16_t> words;
    for (int a = r.address; a < end_of(r); ++a) {
        const auto w = at(r.table, a);
        if (!w)
            return {};
        words.push_back(*w);
    }
    const double raw = raw_of(r.type, words, map.low_word_first);
    return std::isfinite(raw) ? std::optional(raw) : std::nullopt;
}

double raw_of(WordType type, std::span<const std::uint16_t> words, bool low_word_first)
{
    if (words.size() < static_cast<std::size_t>(words_of(type)))
        return no_value;
    const std::uint16_t first = words[0];
    switch (type) {
    case WordType::bit: return first != 0;
    case WordType::int16: return static_cast<std::int16_t>(first);
    case WordType::uint16: return first;
    default: break;
    }
    const std::uint32_t both = low_word_first ? static_cast<std::uint32_t>(words[1]) << 16U | first : static_cast<std::uint32_t>(first) << 16U | words[1];
    return type == WordType::int32 ? static_cast<double>(static_cast<std::int32_t>(both)) : type == WordType::uint32 ? static_cast<double>(both)
                                                                                                                     : static_cast<double>(std::bit_cast<float>(both));
}

Result<std::vector<std::uint16_t>> words_for(WordType type, double raw, bool low_word_first)
{
    const RawRange range = range_of(type);
    if (!(raw >= range.low && raw <= range.high) || (type != WordType::float32 && raw != std::round(raw)))
        return Error{"no such number fits into " + std::string(word_type_keys[static_cast<std::size_t>(type)]), {}, {}};
    if (words_of(type) == 1)
        return std::vector{static_cast<std::uint16_t>(static_cast<std::int64_t>(raw))};
    const std::uint32_t both = type == WordType::float32 ? std::bit_cast<std::uint32_t>(static_cast<float>(raw)) : static_cast<std::uint32_t>(static_cast<std::int64_t>(raw));
    const auto high = static_cast<std::uint16_t>(both >> 16U), low = static_cast<std::uint16_t>(both);
    return low_word_first ? std::vector{low, high} : std::vector{high, low};
}

Quantity quantity_of(const MapRegister& r)
{
    switch (r.is) {
    case RegisterIs::reading:
        for (const Quantity q : read_quantities)
            if (sheet_unit(r.unit, q))
                return q;
        return Quantity::temperature;
    case RegisterIs::supply: return Quantity::voltage;
    case RegisterIs::speed: return Quantity::ratio;
    case RegisterIs::watt: return Quantity::power;
    case RegisterIs::setting:
        if (const auto f = rule_field(r.rule, r.field))
            return f->quantity;
        break;
    default: break;
    }
    return Quantity::number;
}

double value_of(const RegisterMap& map, const MapRegister& r, const WireImage& image, Quantity q)
{
    const auto raw = image.raw(map, r);
    const auto unit = sheet_unit(r.unit, q);
    if (!raw || !unit || (r.has_none && *raw == r.none))
        return no_value;
    return unit->from + unit->times * (r.offset + r.scale * *raw);
}

Result<double> raw_for(const MapRegister& r, double inside, Quantity q)
{
    const auto unit = sheet_unit(r.unit, q);
    if (!unit || !std::isfinite(inside))
        return Error{"there is no such value", r.name, {}};
    const double shown = (inside - unit->from) / unit->times, exact = (shown - r.offset) / r.scale;
    const double slack = 1e-9 * std::max({1.0, std::fabs(r.low), std::fabs(r.high)});
    if ((r.low != 0 || r.high != 0) && (shown < r.low - slack || shown > r.high + slack))
        return Error{"the unit goes from " + exact_text(r.low) + " to " + exact_text(r.high) + (r.unit.empty() ? "" : " " + r.unit), r.name, {}};
    const double raw = r.type == WordType::float32 ? static_cast<double>(static_cast<float>(exact)) : std::round(exact);
    const RawRange range = range_of(r.type);
    if (!(raw >= range.low && raw <= range.high) || (r.has_none && raw == r.none))
        return Error{"it does not fit into " + std::string(word_type_keys[static_cast<std::size_t>(r.type)]), r.name, {}};
    return raw;
}

std::optional<Mode> mode_of(const MapRegister& r, double raw)
{
    return raw == r.off ? std::optional(Mode::off) : raw == r.automatic ? std::optional(Mode::automatic)
                                                 : raw == r.on          ? std::optional(Mode::on)
                                                                        : std::nullopt;
}

int raw_mode(const MapRegister& r, Mode mode)
{
    return mode == Mode::off ? r.off : mode == Mode::on ? r.on
                                                        : r.automatic;
}

std::vector<WireBlock> blocks_of(const std::vector<MapRegister>& registers)
{
    std::vector<WireBlock> each;
    each.reserve(registers.size());
    for (const MapRegister& r : registers)
        each.push_back({r.table, r.address, words_of(r.type)});
    std::sort(each.begin(), each.end(), [](const WireBlock& a, const WireBlock& b) { return std::pair(a.table, a.address) < std::pair(b.table, b.address); });
    std::vector<WireBlock> out;
    for (const WireBlock& b : each) {
        const int most = of_bits(b.table) ? most_bits : most_words;
        if (!out.empty() && out.back().table == b.table && out.back().address + out.back().count == b.address && out.back().count + b.count <= most)
            out.back().count += b.count;
        else
            out.push_back(b);
    }
    return out;
}

namespace {

std::vector<WireBlock> blocks_where(const RegisterMap& map, bool settings)
{
    std::vector<MapRegister> chosen;
    std::copy_if(map.registers.begin(), map.registers.end(), std::back_inserter(chosen), [&](const MapRegister& r) { return of_rule(r.is) == settings; });
    return blocks_of(chosen);
}

} // namespace

std::vector<WireBlock> setting_blocks(const RegisterMap& map) { return blocks_where(map, true); }
std::vector<WireBlock> live_blocks(const RegisterMap& map) { return blocks_where(map, false); }

} // namespace vernal
