// How a probe's line looks, wherever it is drawn.
#pragma once

#include "core/plant/loop.h"

#include <QPen>

namespace vernal {

QPen probe_pen(ProbePlace place); // in the theme in use

} // namespace vernal
