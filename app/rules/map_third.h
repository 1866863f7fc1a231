// A quantity on neither axis of the operating map that decides too: the hour, the
// supply, another probe.
#pragma once

#include "core/rules/engine.h"
#include "core/wording/map_lines.h"

namespace vernal {

struct MapThird {
    enum Kind { hour,
        supply,
        probe } kind = hour;
    std::size_t channel = 0;          // of a probe
    Reads reads = Reads::temperature; // what it reads
    bool operator==(const MapThird&) const = default;

    double value(double share) const; // h, V, or what the probe reads in its inside unit, at this share of its range
    Quantity quantity() const;
    void put(Inputs& in, double share) const;
};

// Those a rule of the unit looks at, the axes left out.
std::vector<MapThird> map_thirds(const Variant& v, const std::optional<MapAxes>& axes);

} // namespace vernal
