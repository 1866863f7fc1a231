// Which known curve do measured points belong to?
#pragma once

#include "tolerance.h"

#include <cmath>

namespace vernal {

// An entry of the open curve file (docs/probes.md).
struct NamedCurve {
    std::string key;    // "ntc-10k-3950"
    std::string name;   // "NTC 10 kΩ, B 3950"
    std::string origin; // where its values come from
    ProbeCurve curve;
    Tolerance tolerance;        // usual for it
    double dissipation_w_k = 0; // 0: not stated
    bool operator==(const NamedCurve&) const = default;
};
using CurveBook = std::vector<NamedCurve>;

const NamedCurve* find_curve(const CurveBook& book, const std::string& key); // nullptr: unknown

// How well the points were measured.
struct Measured {
    double temp_k = 0.5;      // the thermometer, ± K
    double ohm_share = 0.005; // the meter, ± of the reading
};

struct Match {
    std::size_t curve = 0;       // index into the book
    double rms_k = 0;            // of what the curve makes of the ohms, less the thermometer
    std::vector<double> error_k; // by point; NaN: outside the curve
    bool possible = false;       // every point lies within tolerance, meter and thermometer
};

struct Identified {
    std::vector<Match> matches; // closest first; curves that cannot give such ohms last
    std::size_t alike = 0;      // of them, from the first on, that these points cannot tell apart; 0: none fits
    double ask_c = NAN;         // where to measure once more: there the alike ones differ most
    double ask_k = 0;           // by so much
    std::string advice;         // in a sentence
};

// At least two points at different temperatures.
Result<Identified> identify(const std::vector<CurvePoint>& points, const CurveBook& book, const Measured& measured = {});

} // namespace vernal
