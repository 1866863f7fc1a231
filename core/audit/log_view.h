// A log as an audit looks at it: readings by probe, outputs as on, off or not known.
#pragma once

#include "core/job/job.h"

#include <algorithm>
#include <cmath>
#include <initializer_list>
#include <limits>

namespace vernal {

struct TroubleStretch {
    double from_s = 0, to_s = 0; // of the log
};

class LogView {
public:
    // A column of an output may hold 0 and 1, percent, amperes or watts: on is what lies above
    // a quarter of what it has when it is well on. An output without a column that drives the
    // loop's pump is told by the flow, where there is one. The log must outlive the view.
    LogView(const Trace& log, const Variant& v);

    const Trace& log() const { return log_; }
    std::size_t rows() const { return log_.time_s.size(); }
    TroubleStretch whole() const { return {log_.time_s.front(), log_.time_s.back()}; } // of a log with rows
    double time_s(std::size_t row) const { return log_.time_s[row]; }
    double usual_s() const { return usual_s_; }
    bool after_gap(std::size_t row) const { return row == 0 || time_s(row) - time_s(row - 1) > 3.5 * usual_s_; }
    // Seconds of the clock's day, and days since 1970 (or since the log's first midnight).
    double of_day_s(std::size_t row) const;
    long day(std::size_t row) const;

    bool has_probe(std::size_t probe) const { return probes_[probe] != nullptr; }
    double reading(std::size_t probe, std::size_t row) const { return probes_[probe] ? probes_[probe]->values[row] : nan(); }
    // What some instrument read, under any of the names a run or a logger gives it; null: nothing.
    const TraceColumn* flow() const { return first_of({"flow_meter", "flow"}); }
    const TraceColumn* gauge() const { return first_of({"pressure_sensor", "pressure"}); }
    const TraceColumn* array_sun() const { return first_of({"irradiance_plane", "sun_sensor"}); }
    const TraceColumn* sun() const { return first_of({"irradiance_plane", "sun_sensor", "irradiance"}); }
    const TraceColumn* open_sun() const { return first_of({"irradiance", "irradiance_plane", "sun_sensor"}); } // what shades the array least

    bool has_output(std::size_t output) const { return !outputs_[output].empty(); }
    // 1, 0, or −1: not known.
    int output(std::size_t output, std::size_t row) const { return outputs_[output].empty() ? -1 : outputs_[output][row]; }

    // Scatter of a reading from row to row, K: of its noise and its steps.
    double noise_k(std::size_t probe) const { return noise_k_[probe]; }
    double step_k(std::size_t probe) const { return step_k_[probe]; } // what it is rounded to; 0: not told
    // Noise, of one that is rounded no less than what rounding makes of it.
    double scatter_k(std::size_t probe) const { return std::max(noise_k_[probe], step_k_[probe] / std::sqrt(12.0)); }

private:
    static double nan() { return std::numeric_limits<double>::quiet_NaN(); }
    const TraceColumn* first_of(std::initializer_list<const char*> names) const
    {
        for (const char* name : names)
            if (const TraceColumn* c = log_.find(name))
                return c;
        return nullptr;
    }
    void find_outputs(const Variant& v);
    void find_noise();
    const Trace& log_;
    double usual_s_ = 0;
    std::vector<const TraceColumn*> probes_;
    std::vector<std::vector<signed char>> outputs_;
    std::vector<double> noise_k_, step_k_;
};

} // namespace vernal
