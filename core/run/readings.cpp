#include "readings.h"

#include "core/rules/rule_set.h"

#include <algorithm>
#include <cmath>

namespace vernal {

Readings::Readings(const Sensors& sensors, std::size_t inputs, double resolution_k) : sensors_(sensors), inputs_(inputs), resolution_k_(resolution_k)
{
    for (const ReadingChain& c : sensors_.chains)
        need_sun_ = need_sun_ || c.spec().condition.kind == ConditionKind::in_sun;
    for (const InstrumentChain& t : sensors_.instruments)
        need_sun_ = need_sun_ || t.reads() == Reads::irradiance;
}

Seen Readings::own(const Tips& tips, double sun, std::size_t input) const
{
    if (const InstrumentChain* t = sensors_.instrument(input))
        return t->at(tips[input]);
    return sensors_.chains.empty() ? Seen{tips[input], true} : sensors_.chains[input].at(tips[sensors_.tip[input]], sun);
}

Seen Readings::seen(const Tips& tips, double sun, std::size_t input) const
{
    if (!by_bridge(input))
        return own(tips, sun, input);
    const auto& b = *sensors_.bridge;
    return b.chain.collector(b.chain.difference_k(tips[sensors_.tip[b.collector]], tips[sensors_.tip[b.store]], sun), own(tips, sun, b.store));
}

// The difference goes one way with each tip and with the sun: its ends are among
// the corners, whichever way the two curves run. Nothing: it breaks or mends in between.
std::optional<Readings::Span> Readings::bridge_span(const Tips& low, const Tips& high, double sun_low, double sun_high) const
{
    const auto& b = *sensors_.bridge;
    const std::size_t c = sensors_.tip[b.collector], s = sensors_.tip[b.store];
    double least = INFINITY, most = -INFINITY;
    int broken = 0;
    for (double collector : {b.chain.difference_k(low[c], low[s], sun_low), b.chain.difference_k(low[c], high[s], sun_low), b.chain.difference_k(high[c], low[s], sun_high), b.chain.difference_k(high[c], high[s], sun_high)}) {
        broken += std::isnan(collector) ? 1 : 0;
        least = std::min(least, collector);
        most = std::max(most, collector);
    }
    if (broken != 0 && broken != 4 && !b.chain.stuck())
        return {};
    Seen cold = own(low, sun_low, b.store), warm = own(high, sun_high, b.store);
    if (warm.temp_c < cold.temp_c) // read by a curve that runs the other way
        std::swap(cold, warm);
    const double none = broken != 0 ? NAN : 0.0;
    return Span{b.chain.collector(least + none, cold), b.chain.collector(most + none, warm)};
}

// The unit's resolution is of temperatures.
MilliKelvin Readings::whole(std::size_t input, double reading) const { return quantised(reading, sensors_.instrument(input) ? 0 : resolution_k_); }

void Readings::read(const Tips& tips, double sun, Inputs& in) const
{
    for (std::size_t i = 0; i < inputs_; ++i) {
        const Seen s = seen(tips, sun, i);
        in.readings[i] = s.valid ? Reading{whole(i, s.temp_c), true} : Reading{0, false};
    }
}

bool Readings::bound(const Tips& low, const Tips& high, double sun_low, double sun_high, ReadingBounds& out) const
{
    out.invalid = 0;
    for (std::size_t i = 0; i < inputs_; ++i) {
        const std::optional<Span> span = by_bridge(i) ? bridge_span(low, high, sun_low, sun_high) : Span{own(low, sun_low, i), own(high, sun_high, i)};
        if (!span || span->low.valid != span->high.valid)
            return false;
        // Invalid at both ends on different sides is valid in between.
        if (!span->low.valid && !sensors_.instrument(i) && (span->low.temp_c < sensors_.chains[i].spec().stage.low_c) != (span->high.temp_c < sensors_.chains[i].spec().stage.low_c))
            return false;
        const auto& [a, b] = *span;
        out.low[i] = a.valid ? whole(i, std::min(a.temp_c, b.temp_c)) : 0;
        out.high[i] = a.valid ? whole(i, std::max(a.temp_c, b.temp_c)) : 0;
        out.invalid |= a.valid ? 0U : 1U << i;
    }
    return true;
}

} // namespace vernal
