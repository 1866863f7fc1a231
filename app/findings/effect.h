// What a change would do to the chosen day, in a few lines.
#pragma once

#include "app/shell/session.h"

namespace vernal {

QString effect_text(const Outcome& now, const Outcome& then, const Units& units);

} // namespace vernal
