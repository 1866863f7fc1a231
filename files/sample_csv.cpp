#include "sample_csv.h"

#include "core/wording/why.h"
#include <algorithm>
#include <cmath>

namespace vernal {

SampleCsv::SampleCsv(const Variant& variant, Of of, CsvWriter::Sink sink) : variant_(variant), of_(of), csv_(std::move(sink))
{
    csv_.cell("time");
    for (std::size_t i = 0; i < variant.probes.size(); ++i)
        csv_.cell(log_column(variant, i) + " [" + unit_name(quantity_of(reads_at(variant.probes[i].place)), {}) + "]");
    csv_.cell("air [°C]").cell("irradiance_plane [W/m²]");
    const Arrangement& a = arrangement_of(variant.loop);
    pressure_ = a.has(Part::vessel);
    if (pressure_)
        csv_.cell("pressure [bar]");
    for (const Output& o : variant.unit.outputs)
        csv_.cell(o.key);
    for (const Output& o : variant.unit.outputs)
        csv_.cell(o.key + "_decided_by");
    for (const Output& o : variant.unit.outputs)
        csv_.cell(o.key + "_rule");
    csv_.cell("distrusted");
    if (of == Of::replay)
        csv_.cell("made_up");
    const Program program = compile(variant).program;
    supply_ = (program.used >> supply_channel & 1U) != 0;
    if (supply_)
        csv_.cell("supply [V]");
    for (std::size_t o = 0; o < program.outputs; ++o) {
        const bool slows = program.timers[o].boost_ms > 0 || std::any_of(program.speeds.begin(), program.speeds.end(), [o](const Speed& s) { return s.output == o; });
        if (slows) {
            speeds_.push_back(o);
            csv_.cell(variant.unit.outputs[o].key + "_speed [%]");
        }
    }
    csv_.end_row();
}

// Keys of probes, a space between two; the supply as such.
std::string SampleCsv::distrusted(ChannelBits faults) const
{
    std::string out;
    for (std::size_t c = 0; c < max_read; ++c)
        if ((faults >> c & 1U) != 0)
            out += (out.empty() ? "" : " ") + (c == supply_channel ? "supply" : variant_.probes[c].key);
    return out;
}

void SampleCsv::add(const SampleRow& row)
{
    csv_.number(row.time_s);
    for (std::size_t i = 0; i < variant_.probes.size(); ++i)
        row.inputs.readings[i].valid ? csv_.number(row.inputs.readings[i].mk / 1000.0) : csv_.cell(invalid_cell);
    csv_.number(row.air_c).number(row.plane_w_m2);
    if (pressure_)
        csv_.number(row.pressure_pa * 1e-5);
    for (std::size_t o = 0; o < variant_.unit.outputs.size(); ++o)
        csv_.cell(row.decisions[o].on ? "1" : "0");
    for (std::size_t o = 0; o < variant_.unit.outputs.size(); ++o)
        csv_.cell(decider_key(variant_.unit, row.decisions[o].priority, row.decisions[o].rule));
    for (std::size_t o = 0; o < variant_.unit.outputs.size(); ++o)
        csv_.cell(row.decisions[o].rule >= 0 ? variant_.unit.rules[static_cast<std::size_t>(row.decisions[o].rule)].id : "");
    csv_.cell(distrusted(row.faults));
    if (of_ == Of::replay)
        csv_.cell(row.made_up ? "1" : "0");
    if (supply_)
        csv_.number(row.inputs.readings[supply_channel].valid ? row.inputs.readings[supply_channel].mk / 1000.0 : NAN);
    for (std::size_t o : speeds_)
        csv_.number(row.decisions[o].on ? row.decisions[o].speed_pm / 10.0 : 0.0);
    csv_.end_row();
}

} // namespace vernal
