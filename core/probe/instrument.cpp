#include "instrument.h"

#include <algorithm>

namespace vernal {
namespace {

double full_scale(Reads reads, const Instrument& m)
{
    switch (reads) {
    case Reads::flow: return m.full_m3_s;
    case Reads::pressure: return m.full_pa;
    case Reads::irradiance: return m.full_w_m2;
    case Reads::temperature: break;
    }
    return 0;
}

} // namespace

InstrumentChain::InstrumentChain(Reads reads, const Instrument& m, const Condition& condition)
    : reads_(reads), gain_(1 + m.error_share), is_stuck_(condition.kind == ConditionKind::stuck), lost_(condition.kind == ConditionKind::open || condition.kind == ConditionKind::shorted)
{
    const double full = full_scale(reads, m) / inside_per_reading(reads);
    full_ = full > 0 ? full : INFINITY;
    stuck_ = m.stuck_share * full;
    least_ = reads == Reads::flow ? m.least_m3_s / inside_per_reading(reads) : 0;
}

Seen InstrumentChain::at(double there) const
{
    if (lost_)
        return {0, false};
    if (is_stuck_)
        return {stuck_, true};
    const double turned = reads_ == Reads::pressure ? there : there < least_ ? 0.0
                                                                             : std::max(0.0, there);
    return {std::min(full_, gain_ * turned), true};
}

} // namespace vernal
