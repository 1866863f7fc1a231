#include "scene.h"

#include <algorithm>

namespace vernal {
namespace {

void one_tank(const PartScene& s, Part part, const Tank& tank, const std::vector<double>& temps, bool coil)
{
    const QRectF r = s.at(part);
    s.p.setPen(QPen(theme().second_ink, 5));
    s.p.setBrush(theme().desk);
    s.p.drawRoundedRect(r, 22, 22);
    QPainterPath inside;
    inside.addRoundedRect(r.adjusted(6, 6, -6, -6), 17, 17);
    s.layers(r, inside, temps);
    if (coil) {
        s.p.setPen(QPen(theme().card, 3));
        const double top = r.bottom() - 14 - tank.coil_top * (r.height() - 40);
        for (double y = r.bottom() - 26; y > top; y -= 17)
            s.p.drawLine(QPointF(r.left() + 16, y), QPointF(r.right() - 16, y - 8));
    }
    if (temps.empty())
        return;
    s.plate({r.center().x(), r.top() + 26}, temps.back());
    s.plate({r.center().x(), r.bottom() - 28}, temps.front());
}

// A store without layers: outlined, in its temperature.
void outline(const PartScene& s)
{
    s.p.setPen(QPen(theme().second_ink, 4));
    s.p.setBrush(temperature_colour(s.now.store));
}

// Its temperature, where there is no tank to show one.
void only_plate(const PartScene& s, const QPointF& centre)
{
    if (!s.arrangement.has(Part::tank) && s.now.known)
        s.plate(centre, s.now.store);
}

bool has_coil(const Arrangement& a)
{
    return std::any_of(a.routes.begin(), a.routes.end(), [](const Route& r) { return std::count(r.ring.begin(), r.ring.end(), Segment::coil) > 0; });
}

} // namespace

void paint_tank(const PartScene& s) { one_tank(s, Part::tank, s.loop.tank, s.now.tank, has_coil(s.arrangement)); }
void label_tank(const PartScene& s) { s.above(Part::tank, QObject::tr("tank %1").arg(s.words(s.loop.tank.volume_m3, Quantity::volume))); }

void paint_second_tank(const PartScene& s) { one_tank(s, Part::tank_2, s.loop.tank_2, s.now.tank_2, true); }
void label_second_tank(const PartScene& s) { s.above(Part::tank_2, QObject::tr("second %1").arg(s.words(s.loop.tank_2.volume_m3, Quantity::volume))); }

void paint_pool(const PartScene& s)
{
    const QRectF r = s.at(Part::pool);
    QPainterPath basin(r.topLeft());
    basin.lineTo(r.left() + 16, r.bottom());
    basin.lineTo(r.right() - 16, r.bottom());
    basin.lineTo(r.topRight());
    outline(s);
    s.p.drawPath(basin);
    s.p.setPen(QPen(s.loop.pool.covered ? theme().ink : theme().card, s.loop.pool.covered ? 5 : 2));
    s.p.drawLine(QPointF(r.left() + 6, r.top() + 12), QPointF(r.right() - 6, r.top() + 12));
    only_plate(s, r.center());
}

void label_pool(const PartScene& s)
{
    const QString volume = s.words(s.loop.pool.volume_m3, Quantity::large_volume);
    s.above(Part::pool, s.loop.pool.covered ? QObject::tr("pool %1, covered").arg(volume) : QObject::tr("pool %1").arg(volume));
}

void paint_slab(const PartScene& s)
{
    const QRectF r = s.at(Part::slab);
    outline(s);
    s.p.drawRect(r);
    s.p.setPen(QPen(theme().card, 3));
    for (double x = r.left() + 18; x < r.right() - 10; x += 30)
        s.p.drawEllipse(QPointF(x, r.center().y() + 12), 5, 5);
    only_plate(s, r.center() - QPointF(0, 12));
}
void label_slab(const PartScene& s) { s.above(Part::slab, QObject::tr("slab %1").arg(s.words(s.loop.slab.area_m2, Quantity::area))); }

void paint_room(const PartScene& s)
{
    const QRectF r = s.at(Part::room);
    outline(s);
    s.p.drawPolygon(QPolygonF{{QPointF(r.left(), r.top() + 44), QPointF(r.center().x(), r.top()), QPointF(r.right(), r.top() + 44), r.bottomRight(), r.bottomLeft()}});
    only_plate(s, r.center());
}
void label_room(const PartScene& s) { s.above(Part::room, QObject::tr("room %1").arg(s.words(s.loop.room.air_m3, Quantity::space))); }

} // namespace vernal
