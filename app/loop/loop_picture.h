// An arrangement's drawing as a small picture, without figures: to know it by.
#pragma once

#include "core/plant/loop.h"

#include <QPixmap>

namespace vernal {

// In the colours of theme(); as wide as asked, 24 high for 35 wide. ratio: device pixels a point.
QPixmap loop_picture(const Arrangement& arrangement, int width, double ratio);

} // namespace vernal
