// What leads from the tank to the taps: a heater after it, the circulation past them.
// It lies to the left of the loop, at x below 0 until the sheet makes room.
#include "scene.h"

namespace vernal {
namespace {

constexpr double riser_x = -85, back_x = -160, taps_y = 150;

double hot_y(const QRectF& tank) { return tank.top() + 10; }

void place_heater(Layout& l) { l.at(Part::heater) = QRectF(riser_x - 35, 296, 70, 136); }
void place_circulation(Layout& l) { l.at(Part::circulation) = QRectF(back_x - 26, 206, 52, 52); }

// From the tank, or the heater, past the taps and back into it.
void connect_circulation(Layout& l)
{
    const QRectF& tank = l.at(Part::tank);
    const QPointF pump = l.at(Part::circulation).center();
    QPolygonF out, back;
    if (l.arrangement.has(Part::heater)) {
        const QRectF& heater = l.at(Part::heater);
        out = {{QPointF(riser_x, heater.top()), QPointF(riser_x, taps_y)}};
        back = {{pump, QPointF(back_x, heater.bottom() - 20), QPointF(heater.left(), heater.bottom() - 20)}};
    } else {
        out = {{QPointF(tank.left(), hot_y(tank)), QPointF(riser_x, hot_y(tank)), QPointF(riser_x, taps_y)}};
        back = {{pump, QPointF(back_x, hot_y(tank) + 26), QPointF(tank.left(), hot_y(tank) + 26)}};
    }
    out << QPointF(back_x, taps_y) << pump;
    l.pipe(Segment::circulation, out);
    l.pipe(Segment::circulation, back, SheetPipe::Show::last);
    l.sheet.probes[ProbePlace::circulation_return] = {back_x, pump.y() - 50};
}

void coloured(const PartScene& s, const QPolygonF& line, double c)
{
    s.p.setBrush(Qt::NoBrush);
    s.p.setPen(QPen(theme().second_ink, 12, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    s.p.drawPolyline(line);
    s.p.setPen(QPen(temperature_colour(c), 8, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    s.p.drawPolyline(line);
}

void paint_tap(const PartScene& s, const QPointF& at)
{
    s.p.setPen(QPen(theme().ink, 3, Qt::SolidLine, Qt::FlatCap));
    s.p.setBrush(Qt::NoBrush);
    s.p.drawPolyline(QPolygonF{{at, at + QPointF(0, 12), at + QPointF(-10, 12), at + QPointF(-10, 20)}});
    s.p.drawLine(at + QPointF(-6, 5), at + QPointF(6, 5));
}

// Which way the valves lead stands in the line between tank and heater.
void paint_heater(const PartScene& s)
{
    const Theme& t = theme();
    const QRectF r = s.at(Part::heater), tank = s.at(Part::tank);
    const Heater& h = s.loop().heater;
    const double y = hot_y(tank), x = r.right() + 26, tank_c = s.now.tank.empty() ? NAN : s.now.tank.back();
    const auto& heated = s.now.of(Segment::heater);
    const double heater_c = heated.empty() ? NAN : heated.back();
    coloured(s, {{QPointF(tank.left(), y), QPointF(x, y), QPointF(x, r.top() + 20), QPointF(r.right(), r.top() + 20)}}, tank_c);
    if (!s.arrangement.has(Part::circulation))
        coloured(s, {{QPointF(r.center().x(), r.top()), QPointF(r.center().x(), taps_y)}}, heater_c);
    s.p.setPen(QPen(s.now.heater_w > 0 ? t.protect : t.second_ink, 3));
    s.p.setBrush(temperature_colour(heater_c));
    s.p.drawRoundedRect(r, h.kind == HeaterKind::storage ? 16 : 5, h.kind == HeaterKind::storage ? 16 : 5);
    if (h.way != HeaterWay::series) {
        const QPointF shut = h.way == HeaterWay::tank_only ? QPointF(r.right() + 13, r.top() + 20) : QPointF(x, y + 20);
        s.p.setPen(QPen(t.protect, 3));
        s.p.drawLine(shut + QPointF(-9, -9), shut + QPointF(9, 9));
        s.p.drawLine(shut + QPointF(-9, 9), shut + QPointF(9, -9));
    }
    if (s.now.known)
        s.plate(r.center(), heater_c);
}
void label_heater(const PartScene& s)
{
    const QRectF r = s.at(Part::heater);
    const Heater& h = s.loop().heater;
    const QString what = h.kind == HeaterKind::storage ? QObject::tr("heater %1").arg(s.words(h.volume_m3, Quantity::volume)) : QObject::tr("heater, through-flow");
    s.say(QRectF(r.left() - 70, r.bottom() + 6, r.width() + 140, 20), Qt::AlignHCenter | Qt::AlignTop, what, theme().ink, {13, true});
    if (!s.arrangement.has(Part::circulation)) {
        paint_tap(s, QPointF(r.center().x(), taps_y - 20));
        s.say(QRectF(r.center().x() - 70, taps_y - 44, 140, 20), Qt::AlignHCenter | Qt::AlignBottom, QObject::tr("taps"), theme().second_ink, {});
    }
}

void paint_circulation(const PartScene& s)
{
    const Theme& t = theme();
    const QPointF c = s.at(Part::circulation).center();
    const std::size_t output = s.arrangement.driven_by(Driver::circulation);
    const bool runs = s.now.runs(output);
    for (const double x : {back_x + 20, back_x + 48})
        paint_tap(s, QPointF(s.sheet.left + x, taps_y + 5));
    s.p.setPen(QPen(runs ? t.accent : t.second_ink, 3));
    s.p.setBrush(t.card);
    s.p.drawEllipse(c, 19, 19);
    s.p.setBrush(runs ? t.accent : t.card);
    s.p.drawPolygon(QPolygonF{{c + QPointF(0, 12), c + QPointF(9, -7), c + QPointF(-9, -7)}});
}
void label_circulation(const PartScene& s)
{
    const Theme& t = theme();
    const QPointF c = s.at(Part::circulation).center();
    const std::size_t output = s.arrangement.driven_by(Driver::circulation);
    const auto& outputs = s.variant.unit.outputs;
    const bool runs = s.now.runs(output);
    s.say(QRectF(s.sheet.left + back_x - 30, taps_y - 26, 120, 20), Qt::AlignHCenter | Qt::AlignBottom, QObject::tr("taps"), t.second_ink, {});
    s.say(QRectF(c.x() + 24, c.y() - 20, 40, 20), Qt::AlignLeft | Qt::AlignVCenter, output < outputs.size() ? qs(outputs[output].key) : QObject::tr("no output"), runs ? t.accent : t.second_ink, {14, true});
    if (s.now.known)
        s.say(QRectF(c.x() + 24, c.y(), 50, 20), Qt::AlignLeft | Qt::AlignVCenter, runs ? s.words(s.now.of(Segment::circulation).back(), Quantity::temperature) : QObject::tr("rests"), t.second_ink, {13, false, true});
}

// Where no pump stands: what goes round.
void label_natural(const PartScene& s)
{
    if (s.arrangement.pumped())
        return;
    const double flow = s.now.flow_of(Driver::nothing);
    s.say(QRectF(s.sheet.left + 14, 380, 122, 40), Qt::AlignRight | Qt::AlignVCenter, flow > 0 ? QObject::tr("by itself\n%1").arg(s.words(flow, Quantity::flow)) : QObject::tr("by itself"), theme().second_ink, {});
}

} // namespace

std::vector<PartDrawing> tap_drawings()
{
    return {
        {Part::heater, place_heater, nullptr, nullptr, paint_heater, label_heater},
        {Part::circulation, place_circulation, nullptr, connect_circulation, paint_circulation, label_circulation},
        {Part::supply, nullptr, nullptr, nullptr, nullptr, label_natural},
    };
}

} // namespace vernal
