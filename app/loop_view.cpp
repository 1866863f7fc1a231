#include "loop_view.h"

#include "theme.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double drawing_w = 700, drawing_h = 480;

// The arrangement's fixed places on the 700 × 480 sheet.
const QPolygonF array{{QPointF(196, 92), QPointF(486, 44), QPointF(500, 138), QPointF(210, 186)}};
const QRectF tank_rect(300, 224, 150, 226);
const QPointF outlet(493, 58), inlet(206, 172), pump_centre(150, 402);
const QPolygonF return_line{{outlet, QPointF(590, 58), QPointF(590, 262)}};
const QPolygonF supply_line{{QPointF(150, 382), QPointF(150, 172), inlet}};

} // namespace

QColor temperature_colour(double c)
{
    if (!std::isfinite(c))
        return theme().air;
    const double f = std::clamp(c / 90.0, 0.0, 1.0);
    const QColor cool(0x4F, 0x7F, 0xA3), mid(0x9A, 0x93, 0x6E), hot(0xB8, 0x55, 0x1E);
    const auto mix = [](const QColor& a, const QColor& b, double s) {
        return QColor::fromRgbF(static_cast<float>(std::lerp(a.redF(), b.redF(), s)), static_cast<float>(std::lerp(a.greenF(), b.greenF(), s)), static_cast<float>(std::lerp(a.blueF(), b.blueF(), s)));
    };
    return f < 0.5 ? mix(cool, mid, f * 2) : mix(mid, hot, f * 2 - 1);
}

struct LoopView::Live {
    bool known = false, running = false;
    std::vector<double> collector, back, supply, tank, coil; // °C along the part; tank from the bottom
    std::vector<double> readings;
    double plane = 0, air = 0;
};

LoopView::Live LoopView::live() const
{
    Live l;
    const auto& o = session_.outcome();
    if (!o || o->is_replay() || o->coupled.records.empty() || !o->setup)
        return l;
    const std::size_t i = session_.cursor_index();
    const Record& r = o->coupled.records[i];
    const float* node = o->coupled.nodes.data() + i * o->coupled.node_count;
    const Network net(o->setup->loop, o->setup->probes);
    const auto some = [&](std::size_t first, std::size_t last) {
        std::vector<double> v;
        for (std::size_t k = first; k <= last; ++k)
            v.push_back(static_cast<double>(node[k]));
        return v;
    };
    l.known = true;
    l.running = (r.state.running & 1U) != 0;
    l.collector = some(net.node_of(ProbePlace::collector) + 1 - net.collector_nodes(), net.node_of(ProbePlace::collector));
    l.tank = some(net.tank_first(), net.tank_first() + net.tank_nodes() - 1);
    const std::size_t after_tank = net.tank_first() + net.tank_nodes();
    l.back = some(after_tank, net.node_of(ProbePlace::return_pipe));
    l.supply = some(net.node_of(ProbePlace::supply_pipe), net.probe_node(0) - 1);
    for (std::size_t p = 0; p < o->variant.probes.size(); ++p)
        l.readings.push_back(o->reading_c(i, p));
    l.plane = static_cast<double>(r.plane_w_m2);
    l.air = static_cast<double>(r.air_c);
    return l;
}

LoopView::LoopView(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    setObjectName("loopView");
    setAccessibleName(tr("Drawing of the loop"));
    setMinimumSize(420, 320);
    setMouseTracking(true);
    for (auto signal : {&Session::outcome_changed, &Session::cursor_changed, &Session::units_changed})
        connect(&session, signal, this, qOverload<>(&QWidget::update));
}

QTransform LoopView::frame() const
{
    const double s = std::min(width() / drawing_w, height() / drawing_h);
    QTransform t;
    t.translate((width() - s * drawing_w) / 2, (height() - s * drawing_h) / 2);
    t.scale(s, s);
    return t;
}

QRectF LoopView::part_area(Part part) const
{
    const auto sheet = [&] {
        switch (part) {
        case Part::collector: return array.boundingRect();
        case Part::tank: return tank_rect;
        case Part::pump: return QRectF(pump_centre.x() - 30, pump_centre.y() - 30, 60, 60);
        case Part::back: return QRectF(560, 40, 70, 230);
        case Part::supply: return QRectF(115, 160, 60, 205);
        }
        return QRectF();
    }();
    return frame().mapRect(sheet);
}

void LoopView::choose(Part part)
{
    part_ = part;
    update();
    emit chosen(part);
}

void LoopView::mousePressEvent(QMouseEvent* e)
{
    for (Part part : {Part::pump, Part::tank, Part::collector, Part::back, Part::supply})
        if (part_area(part).contains(e->position()))
            return choose(part);
}

void LoopView::mouseMoveEvent(QMouseEvent* e)
{
    bool over = false;
    for (Part part : {Part::pump, Part::tank, Part::collector, Part::back, Part::supply})
        over = over || part_area(part).contains(e->position());
    setCursor(over ? Qt::PointingHandCursor : Qt::ArrowCursor);
}

void LoopView::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), theme().card);
    p.setTransform(frame());
    const Live now = live();
    paint_pipes(p, now);
    paint_collector(p, now);
    paint_tank(p, now);
    paint_pump(p, now);
    paint_probes(p, now);
    QPen chosen(theme().accent, 1.6, Qt::DashLine);
    p.setPen(chosen);
    p.setBrush(Qt::NoBrush);
    p.drawRoundedRect(frame().inverted().mapRect(part_area(part_)).adjusted(-7, -7, 7, 7), 8, 8);
    if (!now.known) {
        p.setPen(theme().second_ink);
        p.setFont(text_font(13));
        const bool replay = session_.outcome() && session_.outcome()->is_replay();
        p.drawText(QRectF(0, 452, drawing_w, 26), Qt::AlignCenter, replay ? tr("A log has no temperatures inside the parts: choose a generated day to see them.") : tr("…"));
    }
}

void LoopView::paint_collector(QPainter& p, const Live& now) const
{
    const Theme& t = theme();
    const Loop& loop = session_.document().variant().loop;
    p.setPen(QPen(t.second_ink, 1.5));
    p.setBrush(t.desk);
    p.drawPolygon(array);
    const std::size_t n = now.collector.empty() ? 8 : now.collector.size();
    for (std::size_t i = 0; i < n; ++i) {
        const double f = (static_cast<double>(i) + 0.5) / static_cast<double>(n);
        const QPointF top = array[0] + f * (array[1] - array[0]), bottom = array[3] + f * (array[2] - array[3]);
        const double c = now.collector.empty() ? NAN : now.collector[i];
        p.setPen(QPen(temperature_colour(c), 13, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(top + 0.16 * (bottom - top), bottom - 0.16 * (bottom - top));
    }
    p.setPen(t.ink);
    p.setFont(text_font(14, true));
    p.drawText(QPointF(20, 34), tr("collector %1").arg(text(loop.collector.area_m2, Quantity::area, session_.units())));
    p.setFont(text_font(13));
    p.setPen(t.second_ink);
    if (now.known) {
        p.drawText(QPointF(20, 54), tr("%1 at the outlet").arg(text(now.collector.back(), Quantity::temperature, session_.units())));
        p.drawText(QPointF(20, 73), tr("%1 on the glass").arg(text(now.plane, Quantity::irradiance, session_.units())));
        p.drawText(QPointF(20, 92), tr("air %1").arg(text(now.air, Quantity::temperature, session_.units())));
    }
}

void LoopView::paint_pipes(QPainter& p, const Live& now) const
{
    const bool coil = find_arrangement(session_.document().variant().loop.arrangement)->glycol;
    QPolygonF back = return_line;
    QPolygonF supply = supply_line;
    const double in_y = coil ? tank_rect.top() + 120 : tank_rect.top() + 30;
    back << QPointF(590, in_y) << QPointF(tank_rect.right(), in_y);
    const QPolygonF out{{QPointF(tank_rect.left(), tank_rect.bottom() - 26), QPointF(pump_centre.x(), tank_rect.bottom() - 26), pump_centre}};
    const auto draw = [&](const QPolygonF& line, const std::vector<double>& temps) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(theme().second_ink, 12, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        p.drawPolyline(line);
        double whole = 0;
        for (int i = 1; i < line.size(); ++i)
            whole += QLineF(line[i - 1], line[i]).length();
        double walked = 0;
        for (int i = 1; i < line.size(); ++i) {
            const double length = QLineF(line[i - 1], line[i]).length();
            const int pieces = std::max(1, static_cast<int>(length / 8));
            for (int k = 0; k < pieces; ++k) {
                const double f0 = static_cast<double>(k) / pieces, f1 = static_cast<double>(k + 1) / pieces;
                const double at = (walked + (f0 + f1) / 2 * length) / whole;
                const double c = temps.empty() ? NAN : temps[std::min(temps.size() - 1, static_cast<std::size_t>(at * static_cast<double>(temps.size())))];
                p.setPen(QPen(temperature_colour(c), 8, Qt::SolidLine, Qt::RoundCap));
                p.drawLine(line[i - 1] + f0 * (line[i] - line[i - 1]), line[i - 1] + f1 * (line[i] - line[i - 1]));
            }
            walked += length;
        }
    };
    draw(back, now.back);
    draw(out, now.supply.empty() ? now.supply : std::vector<double>{now.supply.front()});
    draw(supply, now.supply);
    p.setFont(text_font(13));
    p.setPen(theme().second_ink);
    if (now.known) {
        p.drawText(QRectF(604, 130, 96, 44), Qt::AlignLeft, tr("return\n%1").arg(text(now.back.back(), Quantity::temperature, session_.units())));
        p.drawText(QRectF(30, 250, 106, 44), Qt::AlignRight, tr("supply\n%1").arg(text(now.supply.front(), Quantity::temperature, session_.units())));
    }
}

void LoopView::paint_tank(QPainter& p, const Live& now) const
{
    const Theme& t = theme();
    const Loop& loop = session_.document().variant().loop;
    p.setPen(QPen(t.second_ink, 5));
    p.setBrush(t.desk);
    p.drawRoundedRect(tank_rect, 22, 22);
    QPainterPath inside;
    inside.addRoundedRect(tank_rect.adjusted(6, 6, -6, -6), 17, 17);
    p.save();
    p.setClipPath(inside);
    const std::size_t n = now.tank.size();
    for (std::size_t i = 0; i < n; ++i) {
        const double h = tank_rect.height() / static_cast<double>(n);
        p.fillRect(QRectF(tank_rect.left(), tank_rect.bottom() - h * static_cast<double>(i + 1) - 0.5, tank_rect.width(), h + 1), temperature_colour(now.tank[i]));
    }
    p.restore();
    if (find_arrangement(loop.arrangement)->glycol) {
        p.setPen(QPen(t.card, 3));
        const double top = tank_rect.bottom() - 14 - loop.tank.coil_top * (tank_rect.height() - 40);
        for (double y = tank_rect.bottom() - 26; y > top; y -= 17)
            p.drawLine(QPointF(tank_rect.left() + 16, y), QPointF(tank_rect.right() - 16, y - 8));
    }
    p.setPen(t.ink);
    p.setFont(text_font(14, true));
    p.drawText(QRectF(tank_rect.left() - 30, tank_rect.top() - 25, tank_rect.width() + 60, 20), Qt::AlignCenter, tr("tank %1").arg(text(loop.tank.volume_m3, Quantity::volume, session_.units())));
    if (now.known) {
        p.setFont(number_font(15, true));
        const auto plate = [&](double y, double c) {
            const QRectF box(tank_rect.center().x() - 46, y, 92, 24);
            p.setPen(Qt::NoPen);
            p.setBrush(t.card);
            p.drawRoundedRect(box, 4, 4);
            p.setPen(t.ink);
            p.drawText(box, Qt::AlignCenter, text(c, Quantity::temperature, session_.units()));
        };
        plate(tank_rect.top() + 14, now.tank.back());
        plate(tank_rect.bottom() - 40, now.tank.front());
    }
}

void LoopView::paint_pump(QPainter& p, const Live& now) const
{
    const Theme& t = theme();
    const Variant& v = session_.document().variant();
    p.setPen(QPen(now.running ? t.accent : t.second_ink, 3));
    p.setBrush(t.card);
    p.drawEllipse(pump_centre, 22, 22);
    p.setBrush(now.running ? t.accent : t.card);
    p.drawPolygon(QPolygonF{{pump_centre + QPointF(0, -13), pump_centre + QPointF(11, 8), pump_centre + QPointF(-11, 8)}});
    p.setPen(now.running ? t.accent : t.second_ink);
    p.setFont(text_font(14, true));
    p.drawText(QRectF(20, 380, 100, 20), Qt::AlignRight, qs(v.unit.outputs.front().key));
    p.setFont(text_font(13));
    p.setPen(t.second_ink);
    p.drawText(QRectF(6, 400, 114, 40), Qt::AlignRight, !now.known ? QString() : now.running ? tr("runs\n%1").arg(text(v.loop.pump.flow_m3_s, Quantity::flow, session_.units())) : tr("rests"));
}

QPointF LoopView::place_of(ProbePlace place) const
{
    switch (place) {
    case ProbePlace::collector: return outlet;
    case ProbePlace::tank_bottom: return {tank_rect.left(), tank_rect.bottom() - 52};
    case ProbePlace::tank_middle: return {tank_rect.left(), tank_rect.center().y()};
    case ProbePlace::tank_top: return {tank_rect.left(), tank_rect.top() + 34};
    case ProbePlace::return_pipe: return {590, 220};
    case ProbePlace::supply_pipe: return {pump_centre.x() + 60, tank_rect.bottom() - 26};
    }
    return {};
}

void LoopView::paint_probes(QPainter& p, const Live&) const
{
    const Theme& t = theme();
    for (const Probe& probe : session_.document().variant().probes) {
        const QPointF at = place_of(probe.place);
        p.setPen(QPen(t.ink, 2));
        p.setBrush(t.card);
        p.drawPolygon(QPolygonF{{at + QPointF(0, -8), at + QPointF(8, 0), at + QPointF(0, 8), at + QPointF(-8, 0)}});
        p.setFont(text_font(13, true));
        p.setPen(t.ink);
        const bool above = probe.place == ProbePlace::collector;
        p.drawText(above ? QRectF(at.x() - 20, at.y() - 30, 40, 18) : QRectF(at.x() - 44, at.y() - 9, 30, 18), above ? Qt::AlignCenter : Qt::AlignRight, qs(probe.key));
    }
}

} // namespace vernal
