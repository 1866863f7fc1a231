#include "knot_paint.h"

#include "app/shell/theme.h"

#include <QPainter>

namespace vernal {

QColor thread_colour(const Decision& d)
{
    return d.on ? theme().accent : d.priority < Priority::min_off ? theme().protect
                                                                  : theme().second_ink;
}

void paint_knot(QPainter& p, const QPointF& c, Knot knot, bool on)
{
    const Theme& t = theme();
    const QColor colour = on ? t.accent : t.protect;
    switch (knot) {
    case Knot::none: return;
    case Knot::out:
        p.setPen(QPen(t.second_ink, 1.6));
        p.drawLine(c + QPointF(-3.5, -3.5), c + QPointF(3.5, 3.5));
        p.drawLine(c + QPointF(-3.5, 3.5), c + QPointF(3.5, -3.5));
        return;
    case Knot::silent:
        p.setPen(QPen(t.second_ink, 1.2));
        p.setBrush(t.card);
        p.drawEllipse(c, 3.2, 3.2);
        return;
    case Knot::asks:
        p.setPen(QPen(t.start, 2.4));
        p.setBrush(t.card);
        p.drawEllipse(c, 5, 5);
        return;
    case Knot::speed:
        p.setPen(QPen(t.accent, 2));
        p.setBrush(t.accent_ground);
        p.drawRect(QRectF(c.x() - 5.5, c.y() - 5.5, 11, 11));
        return;
    case Knot::decides:
        p.setPen(Qt::NoPen);
        p.setBrush(colour);
        p.drawEllipse(c, 8, 8);
        p.setPen(QPen(t.card, 2));
        if (on)
            p.drawPolyline(QPolygonF{c + QPointF(-3.6, 0.2), c + QPointF(-1, 3), c + QPointF(3.8, -2.8)});
        else
            p.drawLine(c + QPointF(-4, 0), c + QPointF(4, 0));
        return;
    }
}

} // namespace vernal
