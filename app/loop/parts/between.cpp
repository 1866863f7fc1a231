// What lies between the stores and the arrays.
#include "scene.h"

#include <algorithm>
#include <tuple>

namespace vernal {
namespace {

void name_beside(const PartScene& s, const QRectF& box, int align, const QString& name) { s.say(box, align | Qt::AlignVCenter, name, theme().second_ink, {13, false, true}); }

void place_exchanger(Layout& l) { l.at(Part::exchanger) = QRectF(520, 266, 50, 150); }
void make_room_for_exchanger(Layout& l)
{
    l.move(Part::tank, QRectF(250, 232, 140, 214));
    l.move(Part::pump_2, QRectF(455 - 28, 408 - 28, 56, 56));
}
void connect_exchanger(Layout& l)
{
    using Show = SheetPipe::Show;
    const QRectF& x = l.at(Part::exchanger);
    const QRectF& tank = l.at(Part::tank);
    const QPointF pump_2 = l.at(Part::pump_2).center();
    const double hot = x.top() + 18, cold = x.bottom() - 16, left = l.at(Part::pump).center().x();
    l.to_store = {{QPointF(590, l.array_outlet(Part::collector).y()), QPointF(590, hot), QPointF(x.right(), hot)}};
    l.from_store = {{QPointF(x.right(), cold), QPointF(590, cold), QPointF(590, 464), QPointF(left, 464)}};
    l.pipe(Segment::exchanger_cold, {{QPointF(tank.right(), pump_2.y()), pump_2, QPointF(x.left() - 20, pump_2.y()), QPointF(x.left() - 20, cold), QPointF(x.left(), cold)}}, 1, Show::first);
    l.pipe(Segment::exchanger_cold, {{QPointF(x.left(), hot), QPointF(x.left() - 34, hot), QPointF(x.left() - 34, tank.top() + 28), QPointF(tank.right(), tank.top() + 28)}}, 1, Show::last);
}

void shorten_return(Layout& l) { l.at(Part::back).setHeight(150); }

void place_reservoir(Layout& l) { l.at(Part::reservoir) = QRectF(524, 208, 96, 60); }
void connect_reservoir(Layout& l)
{
    const QRectF& r = l.at(Part::reservoir);
    l.to_store = {{QPointF(590, l.array_outlet(Part::collector).y()), QPointF(590, r.top())}};
    l.pipe(Segment::reservoir, {{QPointF(590, r.bottom()), QPointF(590, l.inlet.y()), l.inlet}}, 0, SheetPipe::Show::first);
}

void place_valve(Layout& l) { l.at(Part::valve) = QRectF(590 - 20, 196 - 20, 40, 40); }
void connect_valve(Layout& l) { l.to_store = {{QPointF(590, l.array_outlet(Part::collector).y()), l.at(Part::valve).center()}}; }

void place_cooler(Layout& l) { l.at(Part::cooler) = QRectF(560, 300, 104, 84); }
void connect_cooler(Layout& l)
{
    using Show = SheetPipe::Show;
    const QRectF& r = l.at(Part::cooler);
    const QPointF valve = l.at(Part::valve).center();
    const double under = l.at(Part::pump).center().x() + 44;
    l.pipe(Segment::coil, {{valve, QPointF(500, valve.y()), QPointF(500, l.inlet.y()), l.inlet}}, 0, Show::first);
    l.pipe(Segment::cooler, {{valve, QPointF(valve.x(), r.top())}}, 1, Show::first);
    l.pipe(Segment::cooler, {{QPointF(valve.x(), r.bottom()), QPointF(valve.x(), 464), QPointF(under, 464), QPointF(under, l.outlet.y())}}, 1, Show::last);
}

// A measure from the resting water, in the reservoir or the open tank, up to the
// top of the array.
void connect_drain_back(Layout& l)
{
    const auto reservoir = l.sheet.place.find(Part::reservoir);
    const double level = reservoir == l.sheet.place.end() ? l.at(l.store).top() + 20 : reservoir->second.center().y();
    l.at(Part::drain_back) = QRectF(664, 52, 32, level - 52);
}

void place_rock_bed(Layout& l) { l.at(Part::rock_bed) = QRectF(548, 206, 84, 74); }

void paint_exchanger(const PartScene& s)
{
    const QRectF r = s.at(Part::exchanger);
    s.p.setPen(QPen(theme().second_ink, 3));
    s.p.setBrush(theme().desk);
    s.p.drawRoundedRect(r, 6, 6);
    const auto half = [&](const QRectF& side, std::vector<double> temps, bool upward) {
        if (!upward)
            std::reverse(temps.begin(), temps.end());
        QPainterPath path;
        path.addRect(side.adjusted(3, 4, -3, -4));
        s.layers(side, path, temps);
    };
    half(QRectF(r.left(), r.top(), r.width() / 2, r.height()), s.now.of(Segment::exchanger_cold), true);
    half(QRectF(r.center().x(), r.top(), r.width() / 2, r.height()), s.now.of(Segment::exchanger_hot), false);
}

void paint_reservoir(const PartScene& s)
{
    const QRectF r = s.at(Part::reservoir);
    QPainterPath path;
    path.addRoundedRect(r, 14, 14);
    s.p.setPen(QPen(theme().second_ink, 3));
    s.p.setBrush(theme().desk);
    s.p.drawPath(path);
    s.layers(r.adjusted(0, 20, 0, 0), path, s.now.of(Segment::reservoir));
    s.p.setBrush(Qt::NoBrush);
    s.p.drawPath(path);
}
void label_reservoir(const PartScene& s) { name_beside(s, QRectF(428, 240, 88, 18), Qt::AlignRight, QObject::tr("reservoir")); }

void paint_cooler(const PartScene& s)
{
    const QRectF r = s.at(Part::cooler);
    s.p.setPen(QPen(theme().second_ink, 3));
    s.p.setBrush(theme().desk);
    s.p.drawRoundedRect(r, 6, 6);
    const auto& temps = s.now.of(Segment::cooler);
    for (int i = 0; i < 6; ++i) {
        s.p.setPen(QPen(temperature_colour(temps.empty() ? NAN : temps[static_cast<std::size_t>(i) * temps.size() / 6]), 6));
        s.p.drawLine(QPointF(r.left() + 10, r.top() + 12 + i * 12), QPointF(r.right() - 10, r.top() + 12 + i * 12));
    }
}
void label_cooler(const PartScene& s) { name_beside(s, QRectF(606, 388, 60, 18), Qt::AlignLeft, QObject::tr("cooler")); }

void paint_drain_back(const PartScene& s)
{
    const QRectF r = s.at(Part::drain_back);
    const double x = r.right() - 8;
    s.p.setPen(QPen(theme().second_ink, 1.2));
    s.p.drawLine(QPointF(x, r.top()), QPointF(x, r.bottom()));
    for (const auto& [y, way] : {std::pair{r.top(), 1.0}, {r.bottom(), -1.0}}) {
        s.p.drawLine(QPointF(x - 12, y), QPointF(x + 6, y));
        s.p.drawPolyline(QPolygonF{{QPointF(x - 4, y + 9 * way), QPointF(x, y), QPointF(x + 4, y + 9 * way)}});
    }
    s.say(QRectF(r.right() - 104, r.top() - 24, 104, 20), Qt::AlignRight | Qt::AlignBottom, QObject::tr("lift %1").arg(s.words(s.loop().drain_back.lift_m, Quantity::length)), theme().second_ink, {});
}

void paint_valve(const PartScene& s)
{
    const QPointF c = s.at(Part::valve).center();
    const bool turned = s.now.runs(1);
    s.p.setPen(QPen(theme().second_ink, 2.5));
    for (const auto& [dx, dy, open] : {std::tuple{0.0, -1.0, true}, {-1.0, 0.0, !turned}, {0.0, 1.0, turned}}) {
        s.p.setBrush(s.now.known && open ? theme().accent : theme().card);
        s.p.drawPolygon(QPolygonF{{c, c + QPointF(17 * dx + 10 * dy, 17 * dy + 10 * dx), c + QPointF(17 * dx - 10 * dy, 17 * dy - 10 * dx)}});
    }
}

void paint_rock_bed(const PartScene& s)
{
    const Theme& t = theme();
    const QRectF r = s.at(Part::rock_bed);
    const bool there = s.loop().rock_bed.volume_m3 > 0;
    const auto& temps = s.now.of(Segment::rock_bed);
    s.p.setPen(QPen(t.second_ink, there ? 2.5 : 1.2, there ? Qt::SolidLine : Qt::DashLine));
    s.p.setBrush(there ? QBrush(t.card) : QBrush(Qt::NoBrush));
    s.p.drawRect(r);
    if (!there)
        name_beside(s, QRectF(r.left(), r.bottom() + 4, r.width(), 18), Qt::AlignHCenter, QObject::tr("no rock bed"));
    for (int row = 0; there && row < 5; ++row)
        for (int k = 0; k < 6; ++k) {
            s.p.setBrush(temperature_colour(temps.empty() ? NAN : temps[static_cast<std::size_t>(row) * temps.size() / 5]));
            s.p.setPen(Qt::NoPen);
            s.p.drawEllipse(QPointF(r.left() + 9 + k * 13 + (row % 2) * 4, r.top() + 9 + row * 14), 6, 6);
        }
}

} // namespace

std::vector<PartDrawing> drawings_between()
{
    return {
        {Part::exchanger, place_exchanger, make_room_for_exchanger, connect_exchanger, paint_exchanger},
        {Part::reservoir, place_reservoir, shorten_return, connect_reservoir, paint_reservoir, label_reservoir},
        {Part::cooler, place_cooler, nullptr, connect_cooler, paint_cooler, label_cooler},
        {Part::drain_back, nullptr, nullptr, connect_drain_back, paint_drain_back},
        {Part::valve, place_valve, shorten_return, connect_valve, paint_valve},
        {Part::rock_bed, place_rock_bed, nullptr, nullptr, paint_rock_bed, nullptr, false},
    };
}

} // namespace vernal
