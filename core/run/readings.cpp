#include "readings.h"

#include "core/rules/rule_set.h"

#include <algorithm>

namespace vernal {

Readings::Readings(const Sensors& sensors, std::size_t inputs, double resolution_k) : sensors_(sensors), inputs_(inputs), resolution_k_(resolution_k)
{
    for (const ReadingChain& c : sensors_.chains)
        need_sun_ = need_sun_ || c.spec().condition.kind == ConditionKind::in_sun;
}

// other_way: the tips that make a bridge read the least where `tips` make a
// probe read the least, that is the store's at its highest.
Seen Readings::seen(const std::array<double, max_probes>& tips, const std::array<double, max_probes>& other_way, double sun, std::size_t input) const
{
    if (sensors_.chains.empty())
        return {tips[input], true};
    const auto own = [&](std::size_t i) { return sensors_.chains[i].at(tips[sensors_.tip[i]], sun); };
    if (!sensors_.bridge || sensors_.bridge->collector != input)
        return own(input);
    const auto& b = *sensors_.bridge;
    return b.chain.collector(tips[sensors_.tip[b.collector]], other_way[sensors_.tip[b.store]], sun, own(b.store));
}

void Readings::read(const std::array<double, max_probes>& tips, double sun, Inputs& in) const
{
    for (std::size_t i = 0; i < inputs_; ++i) {
        const Seen s = seen(tips, tips, sun, i);
        in.readings[i] = s.valid ? Reading{quantised(s.temp_c, resolution_k_), true} : Reading{0, false};
    }
}

bool Readings::bound(const std::array<double, max_probes>& low, const std::array<double, max_probes>& high, double sun_low, double sun_high, ReadingBounds& out) const
{
    out.invalid = 0;
    for (std::size_t i = 0; i < inputs_; ++i) {
        const Seen a = seen(low, high, sun_low, i), b = seen(high, low, sun_high, i);
        if (a.valid != b.valid)
            return false;
        out.low[i] = a.valid ? quantised(std::min(a.temp_c, b.temp_c), resolution_k_) : 0;
        out.high[i] = a.valid ? quantised(std::max(a.temp_c, b.temp_c), resolution_k_) : 0;
        out.invalid |= a.valid ? 0U : 1U << i;
    }
    return true;
}

} // namespace vernal
