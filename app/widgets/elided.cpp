#include "elided.h"

#include <QPainter>

namespace vernal {

void Elided::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setPen(palette().color(foregroundRole()));
    p.drawText(contentsRect(), static_cast<int>(Qt::AlignVCenter) | static_cast<int>(alignment() & Qt::AlignHorizontal_Mask), fontMetrics().elidedText(text(), Qt::ElideRight, contentsRect().width()));
}

} // namespace vernal
