// Check valve, vessel with its gauge, element, breaker.
#include "scene.h"

#include <algorithm>

namespace vernal {
namespace {

void place_check_valve(Layout& l) { l.at(Part::check_valve) = QRectF(137, 320, 26, 30); }
void place_vessel(Layout& l) { l.at(Part::vessel) = QRectF(l.frame.lane + 32, 186, 32, 44); }
void connect_element(Layout& l)
{
    const QRectF& tank = l.at(Part::tank);
    l.at(Part::element) = QRectF(tank.right() - 46, tank.bottom() - 0.62 * tank.height() - 12, 54, 24);
}
void place_wiring(Layout& l)
{
    l.at(Part::wiring) = QRectF(20, 438, 72, 30);
    if (l.arrangement.pumped())
        l.sheet.cable = {QPointF(80, 438), QPointF(132, 415)};
}

void paint_check_valve(const PartScene& s)
{
    const Theme& t = theme();
    const QPointF c = s.at(Part::check_valve).center();
    const bool leaks = s.loop().check_valve.leak > 0, reverses = s.now.reverse_m3_s > 0;
    s.p.setPen(QPen(leaks ? t.protect : t.second_ink, 2));
    s.p.setBrush(t.card);
    s.p.drawPolygon(QPolygonF{{c + QPointF(-10, 9), c + QPointF(10, 9), c + QPointF(0, -6)}});
    if (leaks)
        s.p.setPen(QPen(t.protect, 2, Qt::DotLine));
    s.p.drawLine(c + QPointF(-11, -9), c + QPointF(11, -9));
    if (reverses)
        s.say(QRectF(c.x() + 16, c.y() - 20, 90, 40), Qt::AlignLeft | Qt::AlignVCenter, QObject::tr("backwards\n%1").arg(s.words(s.now.reverse_m3_s, Quantity::flow)), t.protect, {});
    else if (leaks)
        s.say(QRectF(c.x() + 16, c.y() - 10, 60, 20), Qt::AlignLeft | Qt::AlignVCenter, QObject::tr("leaks"), t.second_ink, {});
}

void connect_vessel(Layout& l)
{
    const QRectF r = l.at(Part::vessel);
    l.sheet.probes[ProbePlace::pressure_sensor] = {r.right(), r.bottom() - 8};
}

void paint_vessel(const PartScene& s)
{
    const Theme& t = theme();
    const QRectF r = s.at(Part::vessel);
    const bool on_left = s.in_loop(r.center().x()) < least_sheet_w / 2; // under the supply then
    s.p.setPen(QPen(t.second_ink, 2));
    on_left ? s.p.drawLine(QPointF(r.center().x(), r.top()), QPointF(r.center().x(), r.top() - 10)) : s.p.drawPolyline(QPolygonF{{QPointF(r.left() - 32, r.top() - 12), QPointF(r.center().x(), r.top() - 12), QPointF(r.center().x(), r.top())}});
    s.p.setBrush(t.card);
    s.p.drawRoundedRect(r, 13, 13);
    s.p.drawLine(QPointF(r.left(), r.center().y()), QPointF(r.right(), r.center().y()));
    const double pa = std::isfinite(s.now.pressure_pa) ? s.now.pressure_pa : s.loop().vessel.fill_pa;
    s.say(on_left ? QRectF(r.left() - 74, r.center().y() - 9, 68, 18) : QRectF(r.right() - 54, r.bottom() + 8, 90, 18), on_left ? Qt::AlignRight : Qt::AlignLeft, s.words(pa, Quantity::pressure), t.ink, {});
}

void paint_element(const PartScene& s)
{
    const Theme& t = theme();
    const QRectF r = s.at(Part::element);
    const bool offered = s.now.element_w > 0;
    const QColor colour = s.loop().element.mode == ElementMode::off ? t.second_ink : offered ? t.protect
                                                                                             : t.ink;
    s.p.setPen(QPen(colour, offered ? 3.5 : 2));
    s.p.setBrush(Qt::NoBrush);
    QPolygonF zigzag;
    for (int i = 0; i <= 5; ++i)
        zigzag << QPointF(r.right() - 8 - i * (r.width() - 8) / 5, r.center().y() + (i % 2 == 0 ? -5 : 5));
    s.p.drawPolyline(zigzag);
    s.p.fillRect(QRectF(r.right() - 8, r.center().y() - 10, 8, 20), colour);
}

void paint_wiring(const PartScene& s)
{
    const Theme& t = theme();
    const QRectF r = s.at(Part::wiring);
    s.p.setPen(QPen(t.second_ink, 1.5));
    if (!s.sheet.cable.isNull())
        s.p.drawLine(s.sheet.cable);
    s.p.setBrush(t.card);
    s.p.drawRoundedRect(r, 4, 4);
    s.say(r, Qt::AlignCenter, s.words(s.loop().wiring.breaker_a, Quantity::current), t.ink, {13, true});
    const auto vessel = s.sheet.place.find(Part::vessel);
    const bool crowded = s.arrangement.has(Part::exchanger) && s.arrangement.has(Part::battery);
    if (!crowded && (vessel == s.sheet.place.end() || s.in_loop(vessel->second.left()) > least_sheet_w / 2)) // else it hangs beside it
        s.say(QRectF(r.right() + 8, r.top(), 60, r.height()), Qt::AlignLeft | Qt::AlignVCenter, QObject::tr("breaker"), t.second_ink, {13, false, true});
}

// A valve that lets the array run out: on the supply over the pump, its drain beside
// it. Drawn where an output drives one; it is no part with settings of its own.
void paint_drain_valve(const PartScene& s)
{
    const Theme& t = theme();
    const auto& outputs = s.variant.unit.outputs;
    const auto it = std::find_if(outputs.begin(), outputs.end(), [](const Output& o) { return o.drives == Drives::drain_valve; });
    if (it == outputs.end())
        return;
    const bool open = s.now.known && !s.now.runs(static_cast<std::size_t>(it - outputs.begin())); // held shut while it is on
    const QPointF c = QPointF(s.at(Part::pump).center().x() + 46, 300);
    s.p.setPen(QPen(open ? t.start : t.second_ink, 2.5));
    s.p.drawLine(QPointF(c.x() - 46, c.y()), c - QPointF(14, 0));
    s.p.drawPolyline(QPolygonF{{c + QPointF(14, 0), c + QPointF(26, 0), c + QPointF(26, 18)}});
    if (open)
        for (double y : {24.0, 32.0})
            s.p.drawLine(c + QPointF(26, y), c + QPointF(26, y + 4));
    s.p.setBrush(open ? t.start : t.card);
    s.p.drawPolygon(QPolygonF{{c + QPointF(-14, -9), c + QPointF(14, 9), c + QPointF(14, -9), c + QPointF(-14, 9)}});
    s.say(QRectF(c.x() - 30, c.y() - 34, 110, 20), Qt::AlignLeft | Qt::AlignVCenter, open ? QObject::tr("%1 drains").arg(qs(it->key)) : qs(it->key), open ? t.start : t.second_ink, {13, true});
}

} // namespace

std::vector<PartDrawing> protection_drawings()
{
    return {
        {Part::check_valve, place_check_valve, nullptr, nullptr, paint_check_valve, nullptr, false},
        {Part::vessel, place_vessel, nullptr, connect_vessel, paint_vessel, nullptr, false},
        {Part::element, nullptr, nullptr, connect_element, paint_element, nullptr, false},
        {Part::wiring, place_wiring, nullptr, nullptr, paint_wiring, nullptr, false},
        {Part::pump, nullptr, nullptr, nullptr, paint_drain_valve, nullptr, false},
    };
}

} // namespace vernal
