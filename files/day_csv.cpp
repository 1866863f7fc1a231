#include "day_csv.h"

#include "core/setup/job_setup.h"
#include "csv_trace.h"
#include "sample_csv.h"

#include <cmath>
#include <cstdio>

namespace vernal {

Result<std::string> day_csv(const Job& job, const Variant& v, const Day& day, double every_s, std::stop_token stop)
{
    if (day.kind == DayKind::recorded) {
        const auto trace = trace_of(job, v, day);
        if (!trace)
            return Error{"the trace “" + day.trace + "” of this day is missing", day.name, "Import it again"};
        return write_trace_csv(*trace);
    }
    auto setup = coupled_setup(job, v, day);
    if (!setup)
        return setup.error();
    std::string out;
    SampleCsv csv(v, SampleCsv::Of::run, [&](std::string_view piece) { out += piece; });
    CoupledOptions options;
    options.keep_records = false;
    options.stop = stop;
    double next = 0;
    options.each_sample = [&](const SampleRow& row) {
        if (row.time_s + 1e-6 < next)
            return;
        csv.add(row);
        next = (std::floor(row.time_s / every_s + 1e-9) + 1) * every_s;
    };
    const bool cancelled = run_coupled(*setup, options).cancelled;
    csv.finish();
    if (cancelled)
        return Error{"stopped; nothing was written", day.name, ""};
    return out;
}

Result<Trace> day_log(const Job& job, const Variant& v, const Day& day, double every_s, std::stop_token stop)
{
    const auto csv = day_csv(job, v, day, every_s, stop);
    if (!csv)
        return csv.error();
    auto trace = read_trace_csv(*csv, day.name);
    if (!trace || day.kind == DayKind::recorded)
        return trace;
    char start[32];
    std::snprintf(start, sizeof start, "%04d-%02d-%02dT00:00:00", day.sky.year, day.sky.month, day.sky.day);
    trace->start = start;
    trace->notes.clear();
    return trace;
}

} // namespace vernal
