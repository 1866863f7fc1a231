// What lies between the stores and the arrays.
#include "scene.h"

#include <algorithm>
#include <tuple>

namespace vernal {
namespace {

void name_beside(const PartScene& s, const QRectF& box, int align, const QString& name) { s.say(box, align | Qt::AlignVCenter, name, theme().second_ink, {13, false, true}); }

double usual_top(const QRectF& store) { return store.top() + std::min(28.0, store.height() / 4); }

void place_exchanger(Layout& l) { l.at(Part::exchanger) = QRectF(l.frame.store_right + 130, 266, 50, 150); }

// The way of what was collected, from where the lane is down to `to`.
void down_the_lane(Layout& l, QPointF to)
{
    const double from = l.frame.lane_top > 0 ? l.frame.lane_top : l.array_outlet(Part::collector).y();
    l.to_store = {{QPointF(l.frame.lane, from), to}};
}

void connect_exchanger(Layout& l)
{
    using Show = SheetPipe::Show;
    using S = Segment;
    const QRectF& x = l.at(Part::exchanger);
    const QRectF& store = l.at(l.store);
    const QPointF pump = l.at(Part::exchanger_pump).center();
    const double hot = x.top() + 18, cold = x.bottom() - 16, left = l.pump_at().x(), beside = x.right() + 20;
    // The array's side takes the place of the store's inlet and outlet.
    if (!l.arrangement.has(Part::reservoir) && !l.arrangement.has(Part::cooler_valve)) {
        down_the_lane(l, {l.frame.lane, hot});
        l.to_store << QPointF(x.right(), hot);
    }
    l.from_store = {{QPointF(x.right(), cold), QPointF(beside, cold), QPointF(beside, 468), QPointF(left, 468)}};
    l.pipe(S::exchanger_cold, {{pump, QPointF(x.left() - 20, pump.y()), QPointF(x.left() - 20, cold), QPointF(x.left(), cold)}}, Show::first);
    if (l.arrangement.has(Part::valve)) { // over the second tank
        const QPointF valve = l.at(Part::valve).center();
        l.pipe(S::exchanger_cold, {{QPointF(x.left(), hot), QPointF(x.left() - 14, hot), QPointF(x.left() - 14, valve.y() - 32), QPointF(valve.x(), valve.y() - 32), valve}}, Show::last);
        return;
    }
    l.pipe(S::exchanger_cold, {{QPointF(store.right(), pump.y()), pump}}, Show::first);
    l.pipe(S::exchanger_cold, {{QPointF(x.left(), hot), QPointF(x.left() - 34, hot), QPointF(x.left() - 34, usual_top(store)), QPointF(store.right(), usual_top(store))}}, Show::last);
}

void shorten_return(Layout& l) { l.at(Part::back).setHeight(l.arrangement.has(Part::reservoir) && l.arrangement.has(Part::cooler) ? 84 : 150); }

// Where the heat goes once nothing stands in its way any more.
QPolygonF into_the_store(const Layout& l, const QPointF& from, double x)
{
    const auto exchanger = l.sheet.place.find(Part::exchanger);
    const QPointF to = exchanger == l.sheet.place.end() ? l.inlet : QPointF(exchanger->second.right(), exchanger->second.top() + 18);
    return {{from, QPointF(x, from.y()), QPointF(x, to.y()), to}};
}
// By the first of the routes to a store.
Segment first_store(const Layout& l) { return l.arrangement.routes.front().ring[l.arrangement.has(Part::reservoir) ? 3 : 2]; }

// A valve under it and a second array over it leave little height: it stands beside the array then.
bool beside_an_array(const Arrangement& a) { return a.has(Part::collector_2) && (a.has(Part::cooler) || a.has(Part::valve)); }

void place_reservoir(Layout& l)
{
    const bool valve_below = l.arrangement.has(Part::cooler) || l.arrangement.has(Part::valve), exchanger = l.arrangement.has(Part::exchanger);
    if (beside_an_array(l.arrangement))
        l.at(Part::reservoir) = QRectF(l.frame.lane - 14, 176, 84, 38);
    else
        l.at(Part::reservoir) = QRectF(l.frame.lane - 66, valve_below ? 134 : exchanger ? 196
                                                                                        : 208,
            96, 60);
}
void connect_reservoir(Layout& l)
{
    const QRectF& r = l.at(Part::reservoir);
    down_the_lane(l, {l.frame.lane, r.top()});
    const QPointF below(l.frame.lane, r.bottom());
    for (const Part valve : {Part::cooler_valve, Part::valve})
        if (const auto it = l.sheet.place.find(valve); it != l.sheet.place.end() && it->second.center().x() == l.frame.lane)
            return l.pipe(Segment::reservoir, {{below, it->second.center()}}, SheetPipe::Show::first);
    l.pipe(Segment::reservoir, into_the_store(l, below, l.frame.lane), SheetPipe::Show::first);
}

// Between two tanks: in the lane, beside the cooler's, or over the tanks behind an exchanger.
void place_valve(Layout& l)
{
    const QPointF c = l.arrangement.has(Part::exchanger) ? QPointF(l.frame.store_right + 62, 206)
                      : l.arrangement.has(Part::cooler)  ? QPointF(l.frame.lane - 90, l.frame.valve_y + 44)
                                                         : QPointF(l.frame.lane, l.frame.valve_y);
    l.at(Part::valve) = QRectF(c - QPointF(20, 20), QSizeF(40, 40));
}
void connect_valve(Layout& l)
{
    if (!l.arrangement.has(Part::exchanger) && !l.arrangement.has(Part::cooler) && !l.arrangement.has(Part::reservoir))
        down_the_lane(l, l.at(Part::valve).center());
}

void place_cooler_valve(Layout& l) { l.at(Part::cooler_valve) = QRectF(l.frame.lane - 20, l.frame.valve_y - 20, 40, 40); }
void place_cooler(Layout& l) { l.at(Part::cooler) = QRectF(l.frame.lane - 30, 300, 104, 84); }
void connect_cooler(Layout& l)
{
    using Show = SheetPipe::Show;
    const QRectF& r = l.at(Part::cooler);
    const QPointF valve = l.at(Part::cooler_valve).center();
    const bool exchanger = l.arrangement.has(Part::exchanger);
    const double under = l.pump_at().x() + 44, foot = exchanger ? 468 : 464;
    if (!l.arrangement.has(Part::reservoir))
        down_the_lane(l, valve);
    const auto tanks = l.sheet.place.find(Part::valve);
    l.branch(exchanger ? Segment::exchanger_hot : first_store(l), tanks != l.sheet.place.end() && !exchanger ? QPolygonF{{valve, QPointF(tanks->second.center().x(), valve.y()), tanks->second.center()}} : into_the_store(l, valve, l.frame.lane - 90));
    l.pipe(Segment::cooler, {{valve, QPointF(valve.x(), r.top())}}, Show::first);
    l.pipe(Segment::cooler, exchanger ? QPolygonF{{QPointF(valve.x(), r.bottom()), QPointF(valve.x(), foot), QPointF(l.pump_at().x(), foot)}} : QPolygonF{{QPointF(valve.x(), r.bottom()), QPointF(valve.x(), foot), QPointF(under, foot), QPointF(under, l.outlet.y())}}, Show::last);
}

// A measure from the resting water, in the reservoir or the open tank, up to the
// top of the array.
void connect_drain_back(Layout& l)
{
    const auto reservoir = l.sheet.place.find(Part::reservoir);
    const double level = reservoir == l.sheet.place.end() ? l.at(l.store).top() + 20 : reservoir->second.center().y();
    l.at(Part::drain_back) = QRectF(l.sheet.width - 36, 52, 32, level - 52);
}

void place_rock_bed(Layout& l) { l.at(Part::rock_bed) = QRectF(l.frame.lane - 42, 206, 84, 74); }

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
void label_reservoir(const PartScene& s)
{
    const QRectF r = s.at(Part::reservoir);
    const bool right = beside_an_array(s.arrangement);
    name_beside(s, right ? QRectF(r.right() + 6, r.top() + 10, 88, 18) : QRectF(r.left() - 96, r.top() + 32, 88, 18), right ? Qt::AlignLeft : Qt::AlignRight, QObject::tr("reservoir"));
}

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
void label_cooler(const PartScene& s) { name_beside(s, QRectF(s.at(Part::cooler).left() + 46, 388, 60, 18), Qt::AlignLeft, s.loop().cooler.indoors ? QObject::tr("house loop") : QObject::tr("cooler")); }

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

void three_ways(const PartScene& s, Part part, Driver driver)
{
    const QPointF c = s.at(part).center();
    const bool turned = s.now.runs(s.arrangement.driven_by(driver));
    s.p.setPen(QPen(theme().second_ink, 2.5));
    for (const auto& [dx, dy, open] : {std::tuple{0.0, -1.0, true}, {-1.0, 0.0, !turned}, {0.0, 1.0, turned}}) {
        s.p.setBrush(s.now.known && open ? theme().accent : theme().card);
        s.p.drawPolygon(QPolygonF{{c, c + QPointF(17 * dx + 10 * dy, 17 * dy + 10 * dx), c + QPointF(17 * dx - 10 * dy, 17 * dy - 10 * dx)}});
    }
}

void paint_valve(const PartScene& s) { three_ways(s, Part::valve, Driver::valve); }
void paint_cooler_valve(const PartScene& s) { three_ways(s, Part::cooler_valve, Driver::cooler_valve); }

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
        {Part::exchanger, place_exchanger, nullptr, connect_exchanger, paint_exchanger},
        {Part::reservoir, place_reservoir, shorten_return, connect_reservoir, paint_reservoir, label_reservoir},
        {Part::cooler, place_cooler, nullptr, connect_cooler, paint_cooler, label_cooler},
        {Part::drain_back, nullptr, nullptr, connect_drain_back, paint_drain_back},
        {Part::valve, place_valve, shorten_return, connect_valve, paint_valve},
        {Part::cooler_valve, place_cooler_valve, shorten_return, nullptr, paint_cooler_valve},
        {Part::rock_bed, place_rock_bed, nullptr, nullptr, paint_rock_bed, nullptr, false},
    };
}

} // namespace vernal
