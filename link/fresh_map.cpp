#include "map_file.h"

#include "core/job/field_lists.h"
#include "core/unit/sheet_value.h"

#include <cmath>

namespace vernal {
namespace {

constexpr double no_reading = -32768;
constexpr int first_mode = 0, first_setting = 100, first_in_use = 100, first_row = 1000;

// As fine as any reading is resolved, in a word.
MapRegister reading_of(const Probe& p)
{
    MapRegister r;
    r.of = p.key;
    r.name = p.key;
    const Quantity q = reads_temperature(p) ? Quantity::temperature : quantity_of(reads_at(p.place));
    r.unit = unit_name(q, {});
    r.scale = q == Quantity::irradiance ? 1 : q == Quantity::temperature ? 0.1
                                                                         : 0.01;
    r.has_none = true;
    r.none = no_reading;
    return r;
}

MapRegister of_output(RegisterIs is, const Output& o, Table table, WordType type)
{
    MapRegister r;
    r.is = is;
    r.of = o.key;
    r.name = o.key;
    r.table = table;
    r.type = type;
    return r;
}

// Two decimals of what is shown in a word or two; of what has no usual size a fraction.
MapRegister setting_of(const Rule& rule, int nth, const NumberField& f)
{
    MapRegister r;
    r.is = RegisterIs::setting;
    r.rule = kind_of(rule).key;
    r.nth = nth;
    r.field = f.key;
    r.name = std::string(kind_of(rule).title) + ": " + f.label;
    r.table = Table::holding;
    const bool time = f.quantity == Quantity::duration || f.quantity == Quantity::minutes;
    r.unit = time ? "s" : unit_name(f.quantity, {});
    const auto unit = sheet_unit(r.unit, f.quantity);
    if (!unit)
        return r;
    r.low = (f.min - unit->from) / unit->times;
    r.high = (f.max - unit->from) / unit->times;
    constexpr double cent = 0.01, most_word = 32767, most_long = 2147483647;
    r.scale = f.quantity == Quantity::number || f.quantity == Quantity::small_number ? 1 : cent;
    const double most = std::max(std::fabs(r.low), std::fabs(r.high)) / cent;
    r.type = r.scale == 1 || most > most_long ? WordType::float32 : most > most_word ? WordType::int32
                                                                                     : WordType::int16;
    if (r.type == WordType::float32)
        r.scale = 1;
    return r;
}

} // namespace

RegisterMap fresh_map(const Variant& v, int rows)
{
    RegisterMap map;
    map.name = "Whole unit";
    map.about = "All that the unit reads, does and can be set to.";
    int input = 0;
    const auto put = [&](MapRegister r, int& at) {
        r.address = at;
        at = end_of(r);
        map.registers.push_back(std::move(r));
    };
    for (const Probe& p : v.probes)
        put(reading_of(p), input);
    MapRegister supply;
    supply.is = RegisterIs::supply;
    supply.name = "Supply";
    supply.type = WordType::uint16;
    supply.scale = 0.01;
    supply.unit = "V";
    put(supply, input);
    int bit = 0, mode = first_mode;
    for (const Output& o : v.unit.outputs) {
        MapRegister speed = of_output(RegisterIs::speed, o, Table::input, WordType::uint16), watt = of_output(RegisterIs::watt, o, Table::input, WordType::uint16);
        speed.unit = "%";
        speed.scale = 0.1;
        watt.unit = "W";
        put(of_output(RegisterIs::live, o, Table::discrete, WordType::bit), bit);
        put(speed, input);
        put(watt, input);
        put(of_output(RegisterIs::mode, o, Table::holding, WordType::uint16), mode);
    }
    int setting = first_setting, in_use = first_in_use;
    std::map<std::string, int> count;
    for (const Rule& rule : v.unit.rules) {
        const int nth = ++count[kind_of(rule).key];
        MapRegister used;
        used.is = RegisterIs::in_use;
        used.rule = kind_of(rule).key;
        used.nth = nth;
        used.name = std::string(kind_of(rule).title) + " in use";
        used.table = Table::coil;
        used.type = WordType::bit;
        put(used, in_use);
        std::visit([&](const auto& body) {
            for (const auto& [field, value] : number_fields(body))
                if (MapRegister r = setting_of(rule, nth, field); sheet_unit(r.unit, field.quantity))
                    put(std::move(r), setting);
        },
            rule.body);
    }
    int word = 0;
    MapLog& log = map.log;
    for (const MapRegister& r : map.registers)
        if (r.is == RegisterIs::reading || r.is == RegisterIs::supply || r.is == RegisterIs::live) {
            MapRegister column = r;
            column.table = Table::input;
            column.type = r.type == WordType::bit ? WordType::uint16 : r.type;
            column.address = word;
            word = end_of(column);
            log.columns.push_back(std::move(column));
        }
    log.row_words = word;
    log.address = first_row;
    log.rows = std::min(rows, (table_size - first_row) / word);
    log.count_address = first_row - 2;
    log.sequence_address = first_row - 1;
    return map;
}

} // namespace vernal
