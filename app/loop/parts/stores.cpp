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
    s.layers(r, inside, temps, s.now.tank_layers);
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

void only_plate(const PartScene& s, const QPointF& centre)
{
    if (s.now.known)
        s.plate(centre, s.now.store);
}

void settle(Layout& l, Part part, double inlet_y, double outlet_y)
{
    l.store = part;
    const QRectF& r = l.at(part);
    l.inlet = {r.right(), inlet_y};
    l.outlet = {r.left(), outlet_y};
}

double usual_inlet(const QRectF& r) { return r.top() + 0.14 * r.height(); }
double usual_outlet(const QRectF& r) { return r.bottom() - 26; }

void place_tank(Layout& l) { l.at(Part::tank) = l.arrangement.has(Part::exchanger) ? QRectF(250, 232, 140, 214) : QRectF(300, 224, 150, 226); }
void connect_tank(Layout& l)
{
    const QRectF& r = l.at(Part::tank);
    settle(l, Part::tank, in_a_ring(Segment::coil, l.arrangement) ? r.center().y() : usual_inlet(r), usual_outlet(r));
    l.probe(ProbePlace::tank_bottom, r, 0.22);
    l.probe(ProbePlace::tank_middle, r, 0.5);
    l.probe(ProbePlace::tank_top, r, 0.85);
}

void place_second_tank(Layout& l) { l.at(Part::tank_2) = QRectF(416, 236, 124, 206); }
void make_room_for_second_tank(Layout& l) { l.move(Part::tank, QRectF(236, 236, 124, 206)); }
// From the valve round the first tank, and back under both: to the pump of the array,
// or of the exchanger.
void connect_second_tank(Layout& l)
{
    using Show = SheetPipe::Show;
    using S = Segment;
    const bool coil = in_a_ring(S::coil, l.arrangement), exchanger = l.arrangement.has(Part::exchanger);
    const QRectF& r = l.at(Part::tank_2);
    const QPointF valve = l.at(Part::valve).center();
    const double y = l.inlet.y(), foot = r.bottom() - 22;
    const auto branch = [&](S into, QPolygonF line) {
        coil ? l.pipe(into, std::move(line), Show::first) : exchanger ? l.pipe(S::exchanger_cold, std::move(line), Show::last)
                                                                      : l.branch(into, std::move(line));
        l.sheet.pipes.back().with = into;
    };
    branch(coil ? S::coil : S::tank_down, {{valve, QPointF(valve.x() - 30, valve.y()), QPointF(388, valve.y()), QPointF(388, y), l.inlet}});
    branch(coil ? S::coil_2 : S::tank_2_down, {{valve, QPointF(valve.x(), y), QPointF(r.right(), y)}});
    const auto back = [&](S from, QPolygonF line) { l.pipe(from, std::move(line), coil ? Show::last : Show::first); };
    if (exchanger) {
        const QPointF pump = l.at(Part::exchanger_pump).center();
        back(S::tank_2_down, {{QPointF(r.right(), pump.y()), pump}});
        back(S::tank_down, {{QPointF(l.at(Part::tank).right(), foot), QPointF(388, foot), QPointF(388, 452), QPointF(r.right() + 22, 452), QPointF(r.right() + 22, pump.y())}});
    } else {
        const double under = l.pump_at().x() + 44;
        back(coil ? S::coil_2 : S::tank_2_down, {{QPointF(r.left(), foot), QPointF(400, foot), QPointF(400, 464), QPointF(under, 464), QPointF(under, l.outlet.y())}});
    }
    l.probe(ProbePlace::tank_2_bottom, r, 0.22);
    l.probe(ProbePlace::tank_2_top, r, 0.85);
}

void place_pool(Layout& l) { l.at(Part::pool) = QRectF(240, 336, 310, 104); }
void connect_pool(Layout& l)
{
    const QRectF& r = l.at(Part::pool);
    settle(l, Part::pool, usual_inlet(r), usual_outlet(r));
    l.probe(ProbePlace::pool_water, r, l.arrangement.has(Part::motor) ? 0.3 : 0.62); // under what is written beside a DC pump
}

void place_slab(Layout& l) { l.at(Part::slab) = QRectF(236, 372, 320, 62); }
void connect_slab(Layout& l)
{
    const QRectF& r = l.at(Part::slab);
    settle(l, Part::slab, usual_inlet(r), r.center().y() + 12);
    l.sheet.probes[ProbePlace::slab_return] = l.outlet - QPointF(26, 0);
}

void place_room(Layout& l) { l.at(Part::room) = QRectF(250, 262, 250, 180); }
void connect_room(Layout& l)
{
    const QRectF& r = l.at(Part::room);
    settle(l, Part::room, r.top() + 66, usual_outlet(r));
    l.probe(ProbePlace::room_air, r, 0.6);
}

void paint_tank(const PartScene& s) { one_tank(s, Part::tank, s.loop().tank, s.now.tank, in_a_ring(Segment::coil, s.arrangement)); }
void label_tank(const PartScene& s) { s.above(Part::tank, QObject::tr("tank %1").arg(s.words(s.loop().tank.volume_m3, Quantity::volume))); }

void paint_second_tank(const PartScene& s) { one_tank(s, Part::tank_2, s.loop().tank_2, s.now.tank_2, in_a_ring(Segment::coil_2, s.arrangement)); }
void label_second_tank(const PartScene& s) { s.above(Part::tank_2, QObject::tr("second %1").arg(s.words(s.loop().tank_2.volume_m3, Quantity::volume))); }

void paint_pool(const PartScene& s)
{
    const QRectF r = s.at(Part::pool);
    QPainterPath basin(r.topLeft());
    basin.lineTo(r.left() + 16, r.bottom());
    basin.lineTo(r.right() - 16, r.bottom());
    basin.lineTo(r.topRight());
    outline(s);
    s.p.drawPath(basin);
    s.p.setPen(QPen(s.loop().pool.covered ? theme().ink : theme().card, s.loop().pool.covered ? 5 : 2));
    s.p.drawLine(QPointF(r.left() + 6, r.top() + 12), QPointF(r.right() - 6, r.top() + 12));
    only_plate(s, r.center());
}

void label_pool(const PartScene& s)
{
    const QString volume = s.words(s.loop().pool.volume_m3, Quantity::large_volume);
    s.above(Part::pool, s.loop().pool.covered ? QObject::tr("pool %1, covered").arg(volume) : QObject::tr("pool %1").arg(volume));
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
void label_slab(const PartScene& s) { s.above(Part::slab, QObject::tr("slab %1").arg(s.words(s.loop().slab.area_m2, Quantity::area))); }

void paint_room(const PartScene& s)
{
    const QRectF r = s.at(Part::room);
    outline(s);
    s.p.drawPolygon(QPolygonF{{QPointF(r.left(), r.top() + 44), QPointF(r.center().x(), r.top()), QPointF(r.right(), r.top() + 44), r.bottomRight(), r.bottomLeft()}});
    only_plate(s, r.center());
}
void label_room(const PartScene& s) { s.above(Part::room, QObject::tr("room %1").arg(s.words(s.loop().room.air_m3, Quantity::space))); }

} // namespace

std::vector<PartDrawing> store_drawings()
{
    return {
        {Part::tank, place_tank, nullptr, connect_tank, paint_tank, label_tank},
        {Part::tank_2, place_second_tank, make_room_for_second_tank, connect_second_tank, paint_second_tank, label_second_tank},
        {Part::pool, place_pool, nullptr, connect_pool, paint_pool, label_pool},
        {Part::slab, place_slab, nullptr, connect_slab, paint_slab, label_slab},
        {Part::room, place_room, nullptr, connect_room, paint_room, label_room},
    };
}

} // namespace vernal
