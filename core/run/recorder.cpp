#include "recorder.h"

#include <algorithm>

namespace vernal {
namespace {

constexpr double record_every_s = 20.0, most_every_s = 300.0;
constexpr std::size_t usual_records = 6000; // of a day

} // namespace

Recorder::Recorder(std::size_t node_count, std::size_t days) : every_s_(std::min(most_every_s, record_every_s * static_cast<double>(days)))
{
    records.reserve(usual_records);
    nodes.reserve(usual_records * node_count);
}

void Recorder::keep(const Simulation& s, bool always)
{
    if (!always && !records.empty() && s.now_s() - records.back().time_s < every_s_)
        return;
    Record r{s.now_s(), s.inputs(), s.engine(), s.decisions(), s.running(), 0, 0, s.hydraulics().flows(0, 0)};
    r.air_c = static_cast<float>(surroundings_at(s.day(), s.time_of_day_s()).air_c);
    r.plane_w_m2 = static_cast<float>(plane_at(s.day(), s.time_of_day_s()));
    r.volt = static_cast<float>(s.hydraulics().power().volt());
    r.charge = static_cast<float>(s.hydraulics().power().charge());
    r.pressure_pa = s.pressure_pa();
    r.trouble = s.hydraulics().trouble();
    r.flows.element_w = s.element_w_now();
    r.flows.heater_w = s.heater_w_now();
    records.push_back(r);
    for (double t : s.temperatures())
        nodes.push_back(static_cast<float>(t));
}

} // namespace vernal
