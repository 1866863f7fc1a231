// Panel, motor and battery, joined by wire; the pump hangs on the motor.
#include "scene.h"

namespace vernal {
namespace {

void box(const PartScene& s, const QRectF& r, const QString& words)
{
    s.p.setPen(QPen(theme().second_ink, 1.5));
    s.p.setBrush(theme().card);
    s.p.drawRoundedRect(r, 5, 5);
    s.say(r, Qt::AlignCenter, words, theme().ink, {13, true});
}

void place_panel(Layout& l) { l.at(Part::panel) = QRectF(14, 300, 84, 44); }
void place_motor(Layout& l) { l.at(Part::motor) = QRectF(24, 364, 66, 34); }
void make_room_for_motor(Layout& l)
{
    l.sheet.pump_words[Part::pump] = Sheet::Side::right;
    l.sheet.cable = {};
}
void place_battery(Layout& l) { l.at(Part::battery) = QRectF(24, 424, 66, 40); }
// Beside the battery; where the supply comes up from below, beside that too.
void make_room_for_battery(Layout& l) { l.at(Part::wiring).moveTo(l.arrangement.has(Part::exchanger) ? QPointF(162, 433) : QPointF(100, 440)); }

void paint_panel(const PartScene& s)
{
    const Theme& t = theme();
    const QRectF panel = s.at(Part::panel), motor = s.at(Part::motor);
    s.p.setPen(QPen(t.second_ink, 1.6));
    s.p.drawLine(QPointF(panel.center().x(), panel.bottom()), QPointF(motor.center().x(), motor.top()));
    s.p.drawLine(QPointF(motor.right(), motor.center().y()), s.at(Part::pump).center() - QPointF(20, 14));
    s.p.setPen(QPen(t.second_ink, 1.5));
    s.p.setBrush(t.start_ground);
    s.p.drawPolygon(QPolygonF{{panel.topLeft() + QPointF(12, 0), panel.topRight(), panel.bottomRight() - QPointF(12, 0), panel.bottomLeft()}});
    for (int i = 1; i < 4; ++i)
        s.p.drawLine(panel.topLeft() + QPointF(12 + 18 * i, 0), panel.bottomLeft() + QPointF(18 * i, 0));
    s.p.drawLine(panel.topLeft() + QPointF(6, 22), panel.topRight() + QPointF(-6, 22));
    box(s, motor, s.now.known ? s.words(s.now.power_volt, Quantity::voltage) : QObject::tr("motor"));
}

void paint_battery(const PartScene& s)
{
    const QRectF motor = s.at(Part::motor), battery = s.at(Part::battery);
    s.p.setPen(QPen(theme().second_ink, 1.6));
    s.p.drawLine(QPointF(motor.center().x(), motor.bottom()), QPointF(battery.center().x(), battery.top()));
    box(s, battery, s.now.known ? s.words(s.now.charge, Quantity::ratio) : QObject::tr("battery"));
    for (double x : {battery.left() + 14, battery.right() - 22})
        s.p.fillRect(QRectF(x, battery.top() - 5, 8, 5), theme().second_ink);
}

} // namespace

std::vector<PartDrawing> power_drawings()
{
    return {{Part::panel, place_panel, nullptr, nullptr, paint_panel}, {Part::motor, place_motor, make_room_for_motor}, {Part::battery, place_battery, make_room_for_battery, nullptr, paint_battery}};
}

} // namespace vernal
