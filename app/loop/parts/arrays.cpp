#include "scene.h"

#include <QPainterPath>

#include <algorithm>

namespace vernal {
namespace {

QPolygonF slanted(double x, double y, double w) { return {{QPointF(x, y + 0.16 * w), QPointF(x + w, y), QPointF(x + w + 14, y + 94), QPointF(x + 14, y + 94 + 0.16 * w)}}; }

void put(Layout& l, Part part, const QPolygonF& corners)
{
    l.sheet.array[part] = corners;
    l.at(part) = corners.boundingRect();
}

void place_first(Layout& l) { put(l, Part::collector, slanted(196, 44, 290)); }
void connect_first(Layout& l)
{
    const QPolygonF& array = l.sheet.array[Part::collector];
    l.sheet.probes[ProbePlace::collector] = l.array_outlet(Part::collector);
    l.sheet.probes[ProbePlace::sun_sensor] = array[0] + 0.3 * (array[3] - array[0]);
}

void place_second(Layout& l) { put(l, Part::collector_2, slanted(l.frame.plain_pair ? 420 : l.frame.lane - 204, 64, 170)); }

// Two arrays share the roof, and their pipes come down between and beside the tank.
void make_room_for_second(Layout& l)
{
    put(l, Part::collector, slanted(176, 64, 170));
    if (!l.frame.plain_pair)
        return l.move(Part::back, QRectF(356, 84, 50, 110));
    l.move(Part::tank, QRectF(280, 256, 150, 190));
    l.move(Part::back, QRectF(356, 84, 50, 130));
    l.move(Part::vessel, QRectF(230, 432, 32, 40));
}

void connect_second(Layout& l)
{
    using Show = SheetPipe::Show;
    const QPointF out = l.array_outlet(Part::collector_2), in = l.sheet.array[Part::collector_2][2] + QPointF(-4, -14);
    const QPointF pump = l.at(Part::pump_2).center(), inlet = l.inlet + QPointF(0, 22);
    l.sheet.probes[ProbePlace::collector_2] = out;
    if (!l.frame.plain_pair) {
        // Both returns meet in the lane; the second pump takes its fluid from where the first's comes back.
        const double lane = l.frame.lane, beside = l.pump_at().x() + 44;
        const bool exchanger = l.arrangement.has(Part::exchanger);
        const double foot = exchanger ? 468 : 464;
        const double over = l.arrangement.has(Part::reservoir) ? 158 : 172;
        QPolygonF from{{QPointF(beside, foot), QPointF(pump.x(), foot), pump}};
        if (!exchanger)
            from.prepend(QPointF(beside, l.outlet.y()));
        l.pipe(Segment::return_2, {{out, QPointF(lane, out.y()), QPointF(lane, l.frame.lane_top)}});
        l.pipe(Segment::supply_2, from, Show::first);
        l.pipe(Segment::supply_2, {{pump + QPointF(20, -10), QPointF(pump.x() + 38, pump.y() - 10), QPointF(pump.x() + 38, over), QPointF(in.x(), over), in}});
        return;
    }
    const double right = l.at(Part::tank).right(), first_y = l.array_outlet(Part::collector).y();
    l.to_store = {{QPointF(384, first_y), QPointF(384, 214), QPointF(492, 214), QPointF(492, l.inlet.y()), l.inlet}};
    l.pipe(Segment::return_2, {{out, QPointF(624, out.y()), QPointF(624, 194), QPointF(516, 194), QPointF(516, inlet.y()), inlet}});
    l.pipe(Segment::supply_2, {{QPointF(right, l.outlet.y()), QPointF(pump.x(), l.outlet.y()), pump}}, Show::first);
    l.pipe(Segment::supply_2, {{pump + QPointF(20, -10), QPointF(668, pump.y() - 10), QPointF(668, 212), QPointF(in.x() - 30, 212), QPointF(in.x() - 30, in.y())}});
}

// Water that runs down an open absorber, in bends.
QPainterPath rivulet(const QPointF& from, const QPointF& to)
{
    constexpr int bends = 4;
    constexpr double aside = 5;
    QPainterPath path(from);
    for (int i = 0; i < bends; ++i) {
        const QPointF end = from + (i + 1.0) / bends * (to - from), middle = from + (i + 0.5) / bends * (to - from);
        path.quadTo(middle + QPointF(i % 2 == 0 ? aside : -aside, 0), end);
    }
    return path;
}

void paint_array(const PartScene& s, Part part, Segment shows)
{
    const bool trickles = s.arrangement.answers.array == Array::trickle, empty = (s.now.drained >> (part == Part::collector_2 ? 1 : 0) & 1U) != 0;
    const QPolygonF& array = s.sheet.array.at(part);
    const auto& temps = s.now.of(shows);
    s.p.setPen(QPen(theme().second_ink, 1.5));
    s.p.setBrush(theme().desk);
    s.p.drawPolygon(array);
    const std::size_t tubes = s.sheet.array.size() > 1 ? 6 : 9;
    for (std::size_t i = 0; i < tubes; ++i) {
        const double f = (static_cast<double>(i) + 0.5) / static_cast<double>(tubes);
        const QPointF top = array[0] + f * (array[1] - array[0]), bottom = array[3] + f * (array[2] - array[3]);
        const double c = temps.empty() ? NAN : temps[std::min(temps.size() - 1, static_cast<std::size_t>(f * static_cast<double>(temps.size())))];
        const QPointF from = top + 0.16 * (bottom - top), to = bottom - 0.16 * (bottom - top);
        if (trickles) {
            s.p.setPen(QPen(temperature_colour(c), empty ? 1.5 : 3, Qt::SolidLine, Qt::RoundCap));
            s.p.drawPath(rivulet(from, to));
            continue;
        }
        s.p.setPen(QPen(temperature_colour(c), empty ? 4 : 13, Qt::SolidLine, Qt::RoundCap));
        s.p.drawLine(from, to);
    }
}

void paint_first(const PartScene& s) { paint_array(s, Part::collector, Segment::collector); }
void paint_second(const PartScene& s) { paint_array(s, Part::collector_2, Segment::collector_2); }

// Its area, and what can be read at it.
void label_first(const PartScene& s)
{
    const QString first = s.words(s.loop().collector.area_m2, Quantity::area);
    const bool two = s.sheet.array.size() > 1;
    const double line = std::max(19.0, 17.0 / s.scale);
    s.say(QRectF(14, 14, 300, line), Qt::AlignLeft | Qt::AlignTop, two ? QObject::tr("collectors %1 + %2").arg(first, s.words(s.loop().collector_2.area_m2, Quantity::area)) : QObject::tr("collector %1").arg(first), theme().ink, {14, true});
    if (!s.now.known)
        return;
    QStringList lines{QObject::tr("%1 at the outlet").arg(s.words(s.now.of(Segment::collector).back(), Quantity::temperature)), QObject::tr("%1 on it").arg(s.words(s.now.plane, Quantity::irradiance)), QObject::tr("air %1").arg(s.words(s.now.air, Quantity::temperature))};
    if (s.arrangement.drains)
        lines << (s.now.drained != 0 && s.now.drained != (two ? 3U : 1U) ? QObject::tr("one array empty") : s.now.drained                               ? (two ? QObject::tr("arrays empty") : QObject::tr("array empty"))
                                                                                                        : s.arrangement.answers.array == Array::trickle ? QObject::tr("%1 of it wet").arg(s.words(s.now.wet_share, Quantity::ratio))
                                                                                                        : two                                           ? QObject::tr("arrays full")
                                                                                                                                                        : QObject::tr("array full"));
    s.say(QRectF(14, 14 + line, 300, 4 * line), Qt::AlignLeft | Qt::AlignTop, lines.join(QLatin1Char('\n')), theme().second_ink, {13, false, true, false});
}

} // namespace

std::vector<PartDrawing> array_drawings()
{
    return {{Part::collector, place_first, nullptr, connect_first, paint_first, label_first}, {Part::collector_2, place_second, make_room_for_second, connect_second, paint_second}};
}

} // namespace vernal
