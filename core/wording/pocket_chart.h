// Ohms against degrees for the job's probes, on one page.
#pragma once

#include "core/job/job.h"

namespace vernal {

struct PocketColumn {
    std::string title; // the probes that share a curve, "S1 Collector, S2 Tank bottom"
    std::string unit;  // "Ω", "mA", "V"
    ProbeCurve curve;
};

struct PocketRow {
    double temp_c = 0;
    std::vector<double> signal; // by column; NaN: outside the curve
};

struct PocketChart {
    std::vector<PocketColumn> columns;
    std::vector<PocketRow> rows; // every 5 °C and every 10 °F, by rising temperature
};

// From −30 to 130 °C and, where a probe sits on a collector, up to 200 °C.
PocketChart pocket_chart(const Variant& v);

// Signal with the digits a meter shows: four figures.
std::string signal_text(double signal);

// Comma-separated with a heading: temp_c, temp_f, one column per curve.
std::string pocket_csv(const PocketChart& chart);

} // namespace vernal
