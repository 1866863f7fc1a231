#include "effect.h"

namespace vernal {

QString effect_text(const Outcome& now, const Outcome& then, const Units& u)
{
    if (!now.figures() || !then.figures())
        return QObject::tr("The log stays as it is; the rules decide otherwise.");
    const Figures &a = *now.figures(), &b = *then.figures();
    return QObject::tr("Heat %1 → %2\nStarts %3 → %4\nPump %5 → %6")
        .arg(text(a.heat.to_store, Quantity::energy, u), text(b.heat.to_store, Quantity::energy, u))
        .arg(a.starts())
        .arg(b.starts())
        .arg(text(a.pump_energy_j, Quantity::electricity, u), text(b.pump_energy_j, Quantity::electricity, u));
}

} // namespace vernal
