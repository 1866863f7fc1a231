#include "sample_csv.h"

#include "core/job/why.h"
#include "csv_trace.h"

#include <algorithm>

namespace vernal {
namespace {

// Column of a probe: its place, and its key behind it where a place has two.
std::string column_name(const Variant& v, std::size_t i)
{
    for (std::size_t k = 0; k < i; ++k)
        if (v.probes[k].place == v.probes[i].place)
            return std::string(place_key(v.probes[i].place)) + "_" + v.probes[i].key;
    return place_key(v.probes[i].place);
}

} // namespace

SampleCsv::SampleCsv(const Variant& variant) : variant_(variant)
{
    text_ = "time";
    for (std::size_t i = 0; i < variant.probes.size(); ++i)
        text_ += "," + column_name(variant, i) + " [°C]";
    text_ += ",air [°C],irradiance_plane [W/m²]";
    const Arrangement* a = find_arrangement(variant.loop.arrangement);
    pressure_ = a && a->has(Part::vessel);
    if (pressure_)
        text_ += ",pressure [bar]";
    for (const Output& o : variant.unit.outputs)
        text_ += "," + o.key;
    for (const Output& o : variant.unit.outputs)
        text_ += "," + o.key + "_decided_by";
    const Program program = compile(variant.unit, probe_keys(variant)).program;
    supply_ = (program.used >> supply_channel & 1U) != 0;
    if (supply_)
        text_ += ",supply [V]";
    for (std::size_t o = 0; o < program.outputs; ++o) {
        const bool slows = program.timers[o].boost_ms > 0 || std::any_of(program.speeds.begin(), program.speeds.end(), [o](const Speed& s) { return s.output == o; });
        if (slows) {
            speeds_.push_back(o);
            text_ += "," + variant.unit.outputs[o].key + "_speed [%]";
        }
    }
    text_ += "\r\n";
}

void SampleCsv::add(const SampleRow& row)
{
    text_ += exact_text(row.time_s);
    for (std::size_t i = 0; i < variant_.probes.size(); ++i)
        text_ += "," + (row.inputs.readings[i].valid ? exact_text(row.inputs.readings[i].mk / 1000.0) : "");
    text_ += "," + exact_text(row.air_c) + "," + exact_text(row.plane_w_m2);
    if (pressure_)
        text_ += "," + exact_text(row.pressure_pa * 1e-5);
    for (std::size_t o = 0; o < variant_.unit.outputs.size(); ++o)
        text_ += row.decisions[o].on ? ",1" : ",0";
    for (std::size_t o = 0; o < variant_.unit.outputs.size(); ++o)
        text_ += "," + decider_key(variant_.unit, row.decisions[o].priority, row.decisions[o].rule);
    if (supply_)
        text_ += "," + exact_text(row.inputs.readings[supply_channel].mk / 1000.0);
    for (std::size_t o : speeds_)
        text_ += "," + exact_text(row.decisions[o].on ? row.decisions[o].speed_pm / 10.0 : 0.0);
    text_ += "\r\n";
}

} // namespace vernal
