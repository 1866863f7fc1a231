// A log as an audit looks at it: readings by probe, outputs as on, off or not known.
#pragma once

#include "core/job/job.h"

#include <limits>

namespace vernal {

class LogView {
public:
    // A column of an output may hold 0 and 1, percent, amperes or watts: on is what lies above
    // a quarter of what it has when it is well on. An output without a column that drives the
    // loop's pump is told by the flow, where there is one. The log must outlive the view.
    LogView(const Trace& log, const Variant& v);

    const Trace& log() const { return log_; }
    std::size_t rows() const { return log_.time_s.size(); }
    double time_s(std::size_t row) const { return log_.time_s[row]; }
    double usual_s() const { return usual_s_; }
    bool after_gap(std::size_t row) const { return row == 0 || time_s(row) - time_s(row - 1) > 3.5 * usual_s_; }
    // Seconds of the clock's day, and days since 1970 (or since the log's first midnight).
    double of_day_s(std::size_t row) const;
    long day(std::size_t row) const;

    bool has_probe(std::size_t probe) const { return probes_[probe] != nullptr; }
    double reading(std::size_t probe, std::size_t row) const { return probes_[probe] ? probes_[probe]->values[row] : nan(); }
    bool has(const char* column) const { return log_.find(column) != nullptr; }
    double value(const TraceColumn* c, std::size_t row) const { return c ? c->values[row] : nan(); }

    bool has_output(std::size_t output) const { return !outputs_[output].empty(); }
    // 1, 0, or −1: not known.
    int output(std::size_t output, std::size_t row) const { return outputs_[output].empty() ? -1 : outputs_[output][row]; }

    // Scatter of a reading from row to row, K: of its noise and its steps.
    double noise_k(std::size_t probe) const { return noise_k_[probe]; }
    double step_k(std::size_t probe) const { return step_k_[probe]; } // what it is rounded to; 0: not told

private:
    static double nan() { return std::numeric_limits<double>::quiet_NaN(); }
    void find_outputs(const Variant& v);
    void find_noise();
    const Trace& log_;
    double usual_s_ = 0;
    std::vector<const TraceColumn*> probes_;
    std::vector<std::vector<signed char>> outputs_;
    std::vector<double> noise_k_, step_k_;
};

} // namespace vernal
