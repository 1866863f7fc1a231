// Which register of a unit holds what: readings, outputs, modes, settings, its log. Addresses
// as on the wire, from 0; lists that begin with 40001 or 30001 say one more behind the first
// digit. docs/register-maps.md has its file.
#pragma once

#include "core/job/fields.h"
#include "core/job/job_check.h"

#include <array>
#include <cstdint>
#include <map>
#include <span>
#include <string>
#include <vector>

namespace vernal {

// The four tables of the Modbus data model (MODBUS Application Protocol Specification V1.1b3, 4.3).
enum class Table : std::uint8_t { coil,
    discrete,
    input,
    holding };
inline constexpr std::array table_keys{"coil", "discrete", "input", "holding"};
inline bool of_bits(Table t) { return t <= Table::discrete; }
inline bool can_write(Table t) { return t == Table::coil || t == Table::holding; }
const char* table_text(Table t); // "holding register"

enum class WordType : std::uint8_t { bit,
    int16,
    uint16,
    int32,
    uint32,
    float32 };
inline constexpr std::array word_type_keys{"bit", "int16", "uint16", "int32", "uint32", "float32"};

enum class RegisterIs : std::uint8_t { reading, // of the probe `of`, in its own quantity
    supply,                                     // V at the unit's terminals
    live,                                       // the output `of` is on
    speed,                                      // of what it drives, 0…1
    watt,                                       // that it takes
    mode,                                       // its switch: OFF, AUTO, ON
    setting,                                    // of a rule
    in_use };                                   // whether the rule is in use
inline constexpr std::array register_keys{"reading", "supply", "live", "speed", "watt", "mode", "setting", "in_use"};
inline bool of_rule(RegisterIs r) { return r >= RegisterIs::setting; }

struct MapRegister {
    RegisterIs is = RegisterIs::reading;
    std::string of;          // key of the probe or output
    std::string rule, field; // "differential", "on_k"
    int nth = 1;             // of several rules of the kind, in their order
    std::string name;        // in own words, as the unit's papers have it
    Table table = Table::input;
    int address = 0;
    WordType type = WordType::int16;
    double scale = 1, offset = 0; // shown = offset + scale × raw
    std::string unit;             // of what is shown: "°C", "K", "min"; of a number without one empty
    bool has_none = false;        // raw `none`: there is no reading
    double none = 0;
    double low = 0, high = 0;           // of a setting, as shown; both 0: as the rule's own range
    int off = 0, automatic = 1, on = 2; // raw, of a mode
    bool read_only = false;
    bool operator==(const MapRegister&) const = default;
};

// Rows of readings that the unit keeps: the newest first, each as long as the others.
struct MapLog {
    Table table = Table::input;
    int address = 0, rows = 0, row_words = 0; // rows 0: it keeps none
    int count_address = 0;                    // of the register that says how many rows there are, uint16
    int sequence_address = 0;                 // of the one that counts every row ever written, uint16, over and over
    double every_s = 60;
    std::vector<MapRegister> columns; // their address is within the row
    bool operator==(const MapLog&) const = default;
};

struct RegisterMap {
    std::string name, about;
    int station = 1;             // address of the unit, 1…247
    double wait_s = 1;           // so long an answer may take
    bool low_word_first = false; // of two words
    std::vector<MapRegister> registers;
    MapLog log;
    bool operator==(const RegisterMap&) const = default;
};

inline constexpr int table_size = 65536;
int words_of(WordType t); // 1 or 2; a bit is one of its table
inline int end_of(const MapRegister& r) { return r.address + words_of(r.type); }
bool writable(const MapRegister& r); // its table and its map allow it

// Nothing that can be right: two settings at one place, an address beyond the table, a type
// that its table has not, a rule nobody knows, a unit of another quantity. where: "registers[3].unit".
std::optional<JobProblem> map_problem(const RegisterMap& map);

// What stands in registers, by table and address. A bit is 0 or 1.
class WireImage {
public:
    void put(Table t, int address, std::uint16_t word) { words_[key(t, address)] = word; }
    std::optional<std::uint16_t> at(Table t, int address) const;
    // The raw number of a register; none: not read yet, or no number.
    std::optional<double> raw(const RegisterMap& map, const MapRegister& r) const;
    void clear() { words_.clear(); }

private:
    static int key(Table t, int address) { return static_cast<int>(t) * table_size + address; }
    std::map<int, std::uint16_t> words_;
};

// Raw number of words as they stand in the table, and back. Error: no such number in this type.
double raw_of(WordType type, std::span<const std::uint16_t> words, bool low_word_first);
Result<std::vector<std::uint16_t>> words_for(WordType type, double raw, bool low_word_first);

// Values inside: °C, K, V, s … NaN: there is no reading, or it has not been read. of: what it
// reads of a probe, where the job knows it.
double value_of(const RegisterMap& map, const MapRegister& r, const WireImage& image, Quantity q);
// The raw number that comes closest. Error: beyond what the map or the type allows.
Result<double> raw_for(const MapRegister& r, double inside, Quantity q);

std::optional<Mode> mode_of(const MapRegister& r, double raw);
int raw_mode(const MapRegister& r, Mode mode);

// Quantity of what a register holds; of a setting that of its field. Of a reading that the unit says.
Quantity quantity_of(const MapRegister& r);

// Registers side by side, read in one request: at most 125 words or 2000 bits
// (MODBUS Application Protocol Specification V1.1b3, 6.1 to 6.4).
struct WireBlock {
    Table table = Table::input;
    int address = 0, count = 0;
    bool operator==(const WireBlock&) const = default;
};
std::vector<WireBlock> blocks_of(const std::vector<MapRegister>& registers);
// Those of settings, which stand, or all others, which change.
std::vector<WireBlock> setting_blocks(const RegisterMap& map);
std::vector<WireBlock> live_blocks(const RegisterMap& map);

template <class V, OneOf<MapRegister> T>
void fields(V& v, T& r)
{
    v.choice("is", register_keys, r.is);
    v.text("of", r.of);
    v.text("rule", r.rule);
    v.text("field", r.field);
    v.integer("nth", 1, 64, r.nth);
    v.text("name", r.name);
    v.choice("table", table_keys, r.table);
    v.integer("address", 0, table_size - 1, r.address);
    v.choice("type", word_type_keys, r.type);
    v.number({"scale", "Scale", Quantity::number, -1e9, 1e9, ""}, r.scale);
    v.number({"offset", "Offset", Quantity::number, -1e9, 1e9, ""}, r.offset);
    v.text("unit", r.unit);
    v.boolean({"has_none", "Has a number for “no reading”", ""}, r.has_none);
    v.number({"none", "No reading", Quantity::number, -4294967296.0, 4294967296.0, ""}, r.none);
    v.number({"low", "From", Quantity::number, -1e9, 1e9, ""}, r.low);
    v.number({"high", "to", Quantity::number, -1e9, 1e9, ""}, r.high);
    v.integer("off", 0, 65535, r.off);
    v.integer("automatic", 0, 65535, r.automatic);
    v.integer("on", 0, 65535, r.on);
    v.boolean({"read_only", "Cannot be written", ""}, r.read_only);
}

template <class V, OneOf<MapLog> T>
void fields(V& v, T& l)
{
    v.choice("table", table_keys, l.table);
    v.integer("address", 0, table_size - 1, l.address);
    v.integer("rows", 0, table_size, l.rows);
    v.integer("row_words", 0, 1000, l.row_words);
    v.integer("count_address", 0, table_size - 1, l.count_address);
    v.integer("sequence_address", 0, table_size - 1, l.sequence_address);
    v.number({"every_s", "A row each", Quantity::duration, 1, 86400, ""}, l.every_s);
    v.list("columns", l.columns);
}

template <class V, OneOf<RegisterMap> T>
void fields(V& v, T& m)
{
    v.text("name", m.name);
    v.text("about", m.about);
    v.integer("station", 1, 247, m.station);
    v.number({"wait_s", "Waits for an answer", Quantity::duration, 0.05, 30, ""}, m.wait_s);
    v.boolean({"low_word_first", "Of two words the low one first", ""}, m.low_word_first);
    v.list("registers", m.registers);
    v.spare_object("log", m.log);
}

} // namespace vernal
