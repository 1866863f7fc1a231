// Stores, what lies between them and the arrays, and what drives the pump.
#include "loop_live.h"

#include "app/shell/theme.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <tuple>

namespace vernal {
namespace {

// Layers from the bottom up inside a path.
void paint_layers(QPainter& p, const QRectF& r, const QPainterPath& inside, const std::vector<double>& temps)
{
    p.save();
    p.setClipPath(inside, Qt::IntersectClip);
    const double h = r.height() / static_cast<double>(std::max<std::size_t>(1, temps.size()));
    for (std::size_t i = 0; i < temps.size(); ++i)
        p.fillRect(QRectF(r.left(), r.bottom() - h * static_cast<double>(i + 1) - 0.5, r.width(), h + 1), temperature_colour(temps[i]));
    p.restore();
}

} // namespace

void LoopView::plate(QPainter& p, const QPointF& centre, double c) const
{
    if (pointed_)
        return;
    const QRectF box(centre.x() - 44, centre.y() - 12, 88, 24);
    p.setFont(number_font(15, true));
    p.setPen(Qt::NoPen);
    p.setBrush(theme().card);
    p.drawRoundedRect(box, 4, 4);
    p.setPen(theme().ink);
    p.drawText(box, Qt::AlignCenter, text(c, Quantity::temperature, session_.units()));
}

void LoopView::paint_tank(QPainter& p, const QRectF& r, const Tank& tank, const std::vector<double>& temps, bool coil) const
{
    p.setPen(QPen(theme().second_ink, 5));
    p.setBrush(theme().desk);
    p.drawRoundedRect(r, 22, 22);
    QPainterPath inside;
    inside.addRoundedRect(r.adjusted(6, 6, -6, -6), 17, 17);
    paint_layers(p, r, inside, temps);
    if (coil) {
        p.setPen(QPen(theme().card, 3));
        const double top = r.bottom() - 14 - tank.coil_top * (r.height() - 40);
        for (double y = r.bottom() - 26; y > top; y -= 17)
            p.drawLine(QPointF(r.left() + 16, y), QPointF(r.right() - 16, y - 8));
    }
    if (temps.empty())
        return;
    plate(p, {r.center().x(), r.top() + 26}, temps.back());
    plate(p, {r.center().x(), r.bottom() - 28}, temps.front());
}

void LoopView::paint_stores(QPainter& p, const Sheet& sheet, const Live& now) const
{
    const Theme& t = theme();
    const Loop& loop = session_.document().variant().loop;
    const Arrangement& a = arrangement();
    const auto rings = [&](Segment s) { return std::any_of(a.routes.begin(), a.routes.end(), [s](const Route& r) { return std::count(r.ring.begin(), r.ring.end(), s) > 0; }); };
    if (a.has(Part::tank))
        paint_tank(p, sheet.place.at(Part::tank), loop.tank, now.tank, rings(Segment::coil));
    if (a.has(Part::tank_2))
        paint_tank(p, sheet.place.at(Part::tank_2), loop.tank_2, now.tank_2, true);
    const QColor fill = temperature_colour(now.store);
    p.setPen(QPen(t.second_ink, 4));
    if (a.has(Part::pool)) {
        const QRectF r = sheet.place.at(Part::pool);
        QPainterPath basin(r.topLeft());
        basin.lineTo(r.left() + 16, r.bottom());
        basin.lineTo(r.right() - 16, r.bottom());
        basin.lineTo(r.topRight());
        p.setBrush(fill);
        p.drawPath(basin);
        p.setPen(QPen(loop.pool.covered ? t.ink : t.card, loop.pool.covered ? 5 : 2));
        p.drawLine(QPointF(r.left() + 6, r.top() + 12), QPointF(r.right() - 6, r.top() + 12));
    }
    if (a.has(Part::slab)) {
        const QRectF r = sheet.place.at(Part::slab);
        p.setBrush(fill);
        p.drawRect(r);
        p.setPen(QPen(t.card, 3));
        for (double x = r.left() + 18; x < r.right() - 10; x += 30)
            p.drawEllipse(QPointF(x, r.center().y() + 12), 5, 5);
    }
    if (a.has(Part::room)) {
        const QRectF r = sheet.place.at(Part::room);
        p.setBrush(fill);
        p.drawPolygon(QPolygonF{{QPointF(r.left(), r.top() + 44), QPointF(r.center().x(), r.top()), QPointF(r.right(), r.top() + 44), r.bottomRight(), r.bottomLeft()}});
    }
    if (!a.has(Part::tank) && now.known)
        plate(p, (a.has(Part::pool) ? sheet.place.at(Part::pool) : a.has(Part::slab) ? sheet.place.at(Part::slab)
                                                                                     : sheet.place.at(Part::room))
                         .center() -
                     QPointF(0, a.has(Part::slab) ? 12 : 0),
            now.store);
}

void LoopView::paint_between(QPainter& p, const Sheet& sheet, const Live& now) const
{
    const Theme& t = theme();
    const Arrangement& a = arrangement();
    p.setPen(QPen(t.second_ink, 3));
    if (a.has(Part::exchanger)) {
        const QRectF r = sheet.place.at(Part::exchanger);
        p.setBrush(t.desk);
        p.drawRoundedRect(r, 6, 6);
        const auto half = [&](const QRectF& side, std::vector<double> temps, bool upward) {
            if (!upward)
                std::reverse(temps.begin(), temps.end());
            QPainterPath path;
            path.addRect(side.adjusted(3, 4, -3, -4));
            paint_layers(p, side, path, temps);
        };
        half(QRectF(r.left(), r.top(), r.width() / 2, r.height()), now.of(Segment::exchanger_cold), true);
        half(QRectF(r.center().x(), r.top(), r.width() / 2, r.height()), now.of(Segment::exchanger_hot), false);
    }
    if (a.has(Part::reservoir)) {
        const QRectF r = sheet.place.at(Part::reservoir);
        QPainterPath path;
        path.addRoundedRect(r, 14, 14);
        p.setBrush(t.desk);
        p.drawPath(path);
        paint_layers(p, r.adjusted(0, 20, 0, 0), path, now.of(Segment::reservoir));
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(t.second_ink, 3));
        p.drawPath(path);
    }
    if (a.has(Part::cooler)) {
        const QRectF r = sheet.place.at(Part::cooler);
        p.setBrush(t.desk);
        p.drawRoundedRect(r, 6, 6);
        const auto& temps = now.of(Segment::cooler);
        for (int i = 0; i < 6; ++i) {
            p.setPen(QPen(temperature_colour(temps.empty() ? NAN : temps[static_cast<std::size_t>(i) * temps.size() / 6]), 6));
            p.drawLine(QPointF(r.left() + 10, r.top() + 12 + i * 12), QPointF(r.right() - 10, r.top() + 12 + i * 12));
        }
    }
    paint_power(p, sheet, now);
    if (a.has(Part::drain_back)) {
        const QRectF r = sheet.place.at(Part::drain_back);
        const double x = r.right() - 8;
        p.setPen(QPen(t.second_ink, 1.2));
        p.drawLine(QPointF(x, r.top()), QPointF(x, r.bottom()));
        for (const auto& [y, way] : {std::pair{r.top(), 1.0}, {r.bottom(), -1.0}}) {
            p.drawLine(QPointF(x - 12, y), QPointF(x + 6, y));
            p.drawPolyline(QPolygonF{{QPointF(x - 4, y + 9 * way), QPointF(x, y), QPointF(x + 4, y + 9 * way)}});
        }
        p.setFont(text_font(13));
        p.drawText(QRectF(r.right() - 104, r.bottom() + 4, 104, 18), Qt::AlignRight, tr("lift %1").arg(text(session_.document().variant().loop.drain_back.lift_m, Quantity::length, session_.units())));
    }
    if (a.has(Part::valve)) {
        const QPointF c = sheet.place.at(Part::valve).center();
        const bool turned = now.runs(1);
        p.setPen(QPen(t.second_ink, 2.5));
        p.setBrush(t.card);
        for (const auto& [dx, dy, open] : {std::tuple{0.0, -1.0, true}, {-1.0, 0.0, !turned}, {0.0, 1.0, turned}}) {
            p.setBrush(now.known && open ? t.accent : t.card);
            p.drawPolygon(QPolygonF{{c, c + QPointF(17 * dx + 10 * dy, 17 * dy + 10 * dx), c + QPointF(17 * dx - 10 * dy, 17 * dy - 10 * dx)}});
        }
    }
}

// Check valve, vessel with its gauge, element, breaker, rock bed.
void LoopView::paint_protection(QPainter& p, const Sheet& sheet, const Live& now) const
{
    const Theme& t = theme();
    const Arrangement& a = arrangement();
    const Loop& loop = session_.document().variant().loop;
    p.setFont(text_font(13));
    if (a.has(Part::check_valve)) {
        const QPointF c = sheet.place.at(Part::check_valve).center();
        const bool leaks = loop.check_valve.leak > 0;
        p.setPen(QPen(leaks ? t.protect : t.second_ink, 2));
        p.setBrush(t.card);
        p.drawPolygon(QPolygonF{{c + QPointF(-10, 9), c + QPointF(10, 9), c + QPointF(0, -6)}});
        if (leaks)
            p.setPen(QPen(t.protect, 2, Qt::DotLine));
        p.drawLine(c + QPointF(-11, -9), c + QPointF(11, -9));
        p.setPen(now.reverse_m3_s > 0 ? t.protect : t.second_ink);
        if (now.reverse_m3_s > 0)
            p.drawText(QRectF(c.x() + 16, c.y() - 20, 90, 40), Qt::AlignLeft | Qt::AlignVCenter, tr("backwards\n%1").arg(text(now.reverse_m3_s, Quantity::flow, session_.units())));
        else if (leaks)
            p.drawText(QRectF(c.x() + 16, c.y() - 10, 60, 20), Qt::AlignLeft | Qt::AlignVCenter, tr("leaks"));
    }
    if (a.has(Part::vessel)) {
        const QRectF r = sheet.place.at(Part::vessel);
        p.setPen(QPen(t.second_ink, 2));
        a.has(Part::collector_2) ? p.drawLine(QPointF(r.center().x(), r.top()), QPointF(r.center().x(), r.top() - 10)) : p.drawPolyline(QPolygonF{{QPointF(590, r.top() - 12), QPointF(r.center().x(), r.top() - 12), QPointF(r.center().x(), r.top())}});
        p.setBrush(t.card);
        p.drawRoundedRect(r, 13, 13);
        p.drawLine(QPointF(r.left(), r.center().y()), QPointF(r.right(), r.center().y()));
        p.setPen(t.ink);
        p.drawText(a.has(Part::collector_2) ? QRectF(r.left() - 74, r.center().y() - 9, 68, 18) : QRectF(r.right() - 54, r.bottom() + 8, 90, 18), a.has(Part::collector_2) ? Qt::AlignRight : Qt::AlignLeft, text(std::isfinite(now.pressure_pa) ? now.pressure_pa : loop.vessel.fill_pa, Quantity::pressure, session_.units()));
    }
    if (a.has(Part::element)) {
        const QRectF r = sheet.place.at(Part::element);
        const bool offered = now.element_w > 0;
        p.setPen(QPen(loop.element.mode == ElementMode::off ? t.second_ink : offered ? t.protect
                                                                                     : t.ink,
            offered ? 3.5 : 2));
        p.setBrush(Qt::NoBrush);
        QPolygonF zigzag;
        for (int i = 0; i <= 5; ++i)
            zigzag << QPointF(r.right() - 8 - i * (r.width() - 8) / 5, r.center().y() + (i % 2 == 0 ? -5 : 5));
        p.drawPolyline(zigzag);
        p.fillRect(QRectF(r.right() - 8, r.center().y() - 10, 8, 20), p.pen().color());
    }
    p.setPen(QPen(t.second_ink, 1.5));
    const QRectF w = sheet.place.at(Part::wiring);
    const QPointF pump = sheet.place.at(Part::pump).center();
    if (!a.has(Part::motor))
        p.drawLine(QPointF(w.right() - 12, w.top()), pump + QPointF(-18, 13));
    p.setBrush(t.card);
    p.drawRoundedRect(w, 4, 4);
    p.setPen(t.ink);
    p.setFont(number_font(13, true));
    p.drawText(w, Qt::AlignCenter, text(loop.wiring.breaker_a, Quantity::current, session_.units()));
    p.setPen(t.second_ink);
    p.setFont(text_font(13));
    p.drawText(QRectF(w.right() + 10, w.top(), 60, w.height()), Qt::AlignLeft | Qt::AlignVCenter, tr("breaker"));
    if (a.has(Part::rock_bed)) {
        const QRectF r = sheet.place.at(Part::rock_bed);
        const bool there = loop.rock_bed.volume_m3 > 0;
        const auto& temps = now.of(Segment::rock_bed);
        p.setPen(QPen(t.second_ink, there ? 2.5 : 1.2, there ? Qt::SolidLine : Qt::DashLine));
        p.setBrush(there ? QBrush(t.card) : QBrush(Qt::NoBrush));
        p.drawRect(r);
        p.setFont(text_font(13));
        if (!there) {
            p.setPen(t.second_ink);
            p.drawText(QRectF(r.left() - 106, r.center().y() - 9, 98, 18), Qt::AlignRight, tr("no rock bed"));
        }
        for (int row = 0; there && row < 5; ++row)
            for (int k = 0; k < 6; ++k) {
                p.setBrush(temperature_colour(temps.empty() ? NAN : temps[static_cast<std::size_t>(row) * temps.size() / 5]));
                p.setPen(Qt::NoPen);
                p.drawEllipse(QPointF(r.left() + 9 + k * 13 + (row % 2) * 4, r.top() + 9 + row * 14), 6, 6);
            }
    }
}

// Panel, motor and battery, joined by wire; the pump hangs on the motor.
void LoopView::paint_power(QPainter& p, const Sheet& sheet, const Live& now) const
{
    const Theme& t = theme();
    const Arrangement& a = arrangement();
    if (!a.has(Part::panel))
        return;
    const QRectF panel = sheet.place.at(Part::panel), motor = sheet.place.at(Part::motor);
    const QPointF pump = sheet.place.at(Part::pump).center();
    p.setPen(QPen(t.second_ink, 1.6));
    p.drawLine(QPointF(panel.center().x(), panel.bottom()), QPointF(motor.center().x(), motor.top()));
    p.drawLine(QPointF(motor.right(), motor.center().y()), pump - QPointF(20, 14));
    p.setPen(QPen(t.second_ink, 1.5));
    p.setBrush(t.start_ground);
    p.drawPolygon(QPolygonF{{panel.topLeft() + QPointF(12, 0), panel.topRight(), panel.bottomRight() - QPointF(12, 0), panel.bottomLeft()}});
    for (int i = 1; i < 4; ++i)
        p.drawLine(panel.topLeft() + QPointF(12 + 18 * i, 0), panel.bottomLeft() + QPointF(18 * i, 0));
    p.drawLine(panel.topLeft() + QPointF(6, 22), panel.topRight() + QPointF(-6, 22));
    const auto box = [&](const QRectF& r, const QString& s) {
        p.setPen(QPen(t.second_ink, 1.5));
        p.setBrush(t.card);
        p.drawRoundedRect(r, 5, 5);
        p.setPen(t.ink);
        p.setFont(number_font(13, true));
        p.drawText(r, Qt::AlignCenter, s);
    };
    box(motor, now.known ? text(now.power_volt, Quantity::voltage, session_.units()) : tr("motor"));
    if (!a.has(Part::battery))
        return;
    const QRectF battery = sheet.place.at(Part::battery);
    p.setPen(QPen(t.second_ink, 1.6));
    p.drawLine(QPointF(motor.center().x(), motor.bottom()), QPointF(battery.center().x(), battery.top()));
    box(battery, now.known ? text(now.charge, Quantity::ratio, session_.units()) : tr("battery"));
    for (double x : {battery.left() + 14, battery.right() - 22})
        p.fillRect(QRectF(x, battery.top() - 5, 8, 5), t.second_ink);
}

} // namespace vernal
