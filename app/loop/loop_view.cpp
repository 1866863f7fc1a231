#include "loop_live.h"

#include "app/shell/theme.h"

#include <QFileInfo>
#include <QMouseEvent>
#include <QPainter>
#include <QPdfWriter>
#include <QSvgGenerator>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

// Parts in the order in which a click finds them: the small ones first.
constexpr std::array click_order{Part::check_valve, Part::vessel, Part::wiring, Part::element, Part::rock_bed, Part::valve, Part::drain_back, Part::panel, Part::battery, Part::motor, Part::pump, Part::pump_2, Part::exchanger, Part::reservoir, Part::cooler, Part::tank, Part::tank_2, Part::pool, Part::slab, Part::room,
    Part::collector, Part::collector_2, Part::back, Part::back_2, Part::supply, Part::supply_2};

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

LoopView::Live LoopView::live() const
{
    Live l;
    const auto& o = session_.outcome();
    if (!o || o->is_replay() || o->coupled.records.empty() || !o->setup || o->variant.loop.arrangement != arrangement().key)
        return l;
    const std::size_t i = session_.cursor_index();
    const Record& r = o->coupled.records[i];
    const float* node = o->coupled.nodes.data() + i * o->coupled.node_count;
    const Network net(o->setup->loop, o->setup->probes);
    const auto some = [&](NodeRange range) { return std::vector<double>(node + range.first, node + range.first + range.count); };
    for (std::size_t s = 0; s < segments; ++s)
        l.along[s] = some(net.nodes_of(static_cast<Segment>(s)));
    l.known = true;
    l.running = r.state.running;
    l.tank = some(net.tank(0));
    l.tank_2 = some(net.tank(1));
    l.store = static_cast<double>(node[net.store_top()]);
    for (std::size_t k = 0; k < max_routes; ++k)
        l.flows[k] = r.flows.route_w_k[k] > 0;
    for (std::size_t k = 0; k < arrangement().routes.size(); ++k)
        if (l.flows[k])
            l.flow_m3_s[arrangement().routes[k].pump] = r.flows.route_w_k[k] / net.rate_w_k(k, 1.0);
    l.drained = r.flows.drained;
    l.power_volt = static_cast<double>(r.volt);
    l.charge = static_cast<double>(r.charge);
    l.pressure_pa = static_cast<double>(r.pressure_pa);
    l.element_w = r.flows.element_w;
    l.trouble = r.trouble;
    for (std::size_t k = 0; k < arrangement().routes.size(); ++k)
        if (r.flows.route_w_k[k] < 0)
            l.reverse_m3_s = -r.flows.route_w_k[k] / net.rate_w_k(k, 1.0);
    l.plane = static_cast<double>(r.plane_w_m2);
    l.air = static_cast<double>(r.air_c);
    return l;
}

const Arrangement& LoopView::arrangement() const { return *find_arrangement(session_.document().variant().loop.arrangement); }

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
    const double s = std::min(width() / sheet_w, height() / sheet_h);
    QTransform t;
    t.translate((width() - s * sheet_w) / 2, (height() - s * sheet_h) / 2);
    t.scale(s, s);
    return t;
}

void LoopView::point_at(std::size_t probe)
{
    pointed_ = probe;
    update();
}

void LoopView::paint_pointer(QPainter& p) const
{
    const auto& probes = session_.document().variant().probes;
    const Sheet sheet = sheet_of(arrangement());
    const auto at = *pointed_ < probes.size() ? sheet.probes.find(probes[*pointed_].place) : sheet.probes.end();
    if (at == sheet.probes.end())
        return;
    p.setPen(QPen(theme().accent, 3));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(at->second, 20, 20);
    // Names at a size that can be read however small the drawing is.
    p.setFont(text_font(std::max(13.0, 13.0 / frame().m11()), true));
    p.setPen(theme().accent);
    const QString name = qs(probes[*pointed_].key + " " + probes[*pointed_].name);
    const double wide = p.fontMetrics().horizontalAdvance(name) + 8;
    const double x = std::clamp(at->second.x() + (at->second.x() > sheet_w / 2 ? -wide - 24 : 26), 0.0, sheet_w - wide);
    const double high = p.fontMetrics().height();
    const QRectF box(x, std::max(0.0, at->second.y() - 12 - high), wide, high);
    p.fillRect(box, theme().card);
    p.drawText(box, Qt::AlignCenter, name);
}

QRectF LoopView::part_area(Part part) const
{
    const Sheet sheet = sheet_of(arrangement());
    const auto it = sheet.place.find(part);
    return it == sheet.place.end() ? QRectF() : frame().mapRect(it->second);
}

void LoopView::choose(Part part)
{
    part_ = part;
    update();
    emit chosen(part);
}

std::optional<Part> LoopView::part_at(const QPointF& at) const
{
    const Sheet sheet = sheet_of(arrangement());
    const QPointF on_sheet = frame().inverted().map(at);
    for (Part part : click_order)
        if (const auto it = sheet.place.find(part); it != sheet.place.end() && it->second.contains(on_sheet))
            return part;
    return std::nullopt;
}

void LoopView::mousePressEvent(QMouseEvent* e)
{
    if (const auto part = pointed_ ? std::nullopt : part_at(e->position()))
        choose(*part);
}

void LoopView::mouseMoveEvent(QMouseEvent* e) { setCursor(!pointed_ && part_at(e->position()) ? Qt::PointingHandCursor : Qt::ArrowCursor); }

void LoopView::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), theme().card);
    p.setTransform(frame());
    paint_sheet(p);
    if (pointed_)
        return paint_pointer(p);
    const QRectF chosen = part_area(part_);
    if (chosen.isEmpty())
        return;
    p.setPen(QPen(theme().accent, 1.6, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    p.drawRoundedRect(frame().inverted().mapRect(chosen).adjusted(-6, -6, 6, 6), 8, 8);
}

void LoopView::paint_sheet(QPainter& p) const
{
    const Live now = live();
    const Sheet sheet = sheet_of(arrangement());
    for (const SheetPipe& pipe : sheet.pipes)
        paint_pipe(p, pipe, now);
    paint_collectors(p, sheet, now);
    paint_stores(p, sheet, now);
    paint_between(p, sheet, now);
    if (!pointed_) // beside a probe's lead the drawing is small: no words that could not be read
        paint_protection(p, sheet, now);
    for (Part part : {Part::pump, Part::pump_2})
        if (arrangement().has(part))
            paint_pump(p, sheet.place.at(part).center(), part, now);
    if (!pointed_)
        paint_labels(p, sheet, now);
    paint_probes(p, sheet);
    if (now.known || pointed_)
        return;
    p.setPen(theme().second_ink);
    p.setFont(text_font(13));
    const bool replay = session_.outcome() && session_.outcome()->is_replay();
    p.drawText(QRectF(0, 456, sheet_w, 22), Qt::AlignCenter, replay ? tr("A log has no temperatures inside the parts: choose a generated day to see them.") : tr("…"));
}

void LoopView::paint_collectors(QPainter& p, const Sheet& sheet, const Live& now) const
{
    const Theme& t = theme();
    for (const auto& [part, array] : sheet.array) {
        p.setPen(QPen(t.second_ink, 1.5));
        p.setBrush(t.desk);
        p.drawPolygon(array);
        const auto& temps = now.of(part == Part::collector ? Segment::collector : Segment::collector_2);
        const std::size_t n = sheet.array.size() > 1 ? 6 : 9;
        for (std::size_t i = 0; i < n; ++i) {
            const double f = (static_cast<double>(i) + 0.5) / static_cast<double>(n);
            const QPointF top = array[0] + f * (array[1] - array[0]), bottom = array[3] + f * (array[2] - array[3]);
            const double c = temps.empty() ? NAN : temps[std::min(temps.size() - 1, static_cast<std::size_t>(f * static_cast<double>(temps.size())))];
            p.setPen(QPen(temperature_colour(c), now.drained ? 4 : 13, Qt::SolidLine, Qt::RoundCap));
            p.drawLine(top + 0.16 * (bottom - top), bottom - 0.16 * (bottom - top));
        }
    }
}

void LoopView::paint_pipe(QPainter& p, const SheetPipe& pipe, const Live& now) const
{
    const std::vector<double>& temps = now.of(pipe.shows);
    const QPolygonF& line = pipe.line;
    const bool flows = now.flows[pipe.route];
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(flows ? theme().ink : theme().second_ink, 12, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.drawPolyline(line);
    double whole = 0, walked = 0;
    for (int i = 1; i < line.size(); ++i)
        whole += QLineF(line[i - 1], line[i]).length();
    for (int i = 1; i < line.size(); ++i) {
        const double length = QLineF(line[i - 1], line[i]).length();
        const int pieces = std::max(1, static_cast<int>(length / 8));
        for (int k = 0; k < pieces; ++k) {
            const double f0 = static_cast<double>(k) / pieces, f1 = static_cast<double>(k + 1) / pieces;
            const double at = pipe.how == SheetPipe::Show::first ? 0.0 : pipe.how == SheetPipe::Show::last ? 1.0
                                                                                                           : (walked + (f0 + f1) / 2 * length) / whole;
            const double c = temps.empty() ? NAN : temps[std::min(temps.size() - 1, static_cast<std::size_t>(at * static_cast<double>(temps.size())))];
            p.setPen(QPen(temperature_colour(c), 8, Qt::SolidLine, Qt::RoundCap));
            p.drawLine(line[i - 1] + f0 * (line[i] - line[i - 1]), line[i - 1] + f1 * (line[i] - line[i - 1]));
        }
        walked += length;
    }
}

void LoopView::paint_pump(QPainter& p, const QPointF& c, Part part, const Live& now) const
{
    const Theme& t = theme();
    const Variant& v = session_.document().variant();
    const std::size_t output = part == Part::pump ? 0 : 1;
    const bool runs = now.runs(output);
    p.setPen(QPen(runs ? t.accent : t.second_ink, 3));
    p.setBrush(t.card);
    p.drawEllipse(c, 22, 22);
    p.setBrush(runs ? t.accent : t.card);
    p.drawPolygon(QPolygonF{{c + QPointF(0, -13), c + QPointF(11, 8), c + QPointF(-11, 8)}});
    if (pointed_)
        return;
    p.setPen(runs ? t.accent : t.second_ink);
    p.setFont(text_font(14, true));
    const QString key = output < v.unit.outputs.size() ? qs(v.unit.outputs[output].key) : tr("no output");
    const bool below = part == Part::pump_2, right = arrangement().has(Part::panel); // the motor stands on the left
    p.drawText(below ? QRectF(c.x() - 50, c.y() - 42, 100, 18) : right ? QRectF(c.x() + 30, c.y() - 30, 100, 18)
                                                                       : QRectF(c.x() - 130, c.y() - 22, 100, 20),
        below ? Qt::AlignCenter : right ? Qt::AlignLeft
                                        : Qt::AlignRight,
        key);
    p.setFont(text_font(13));
    p.setPen(t.second_ink);
    const QString how = !now.known ? QString() : !runs                                     ? tr("rests")
                                             : now.flow_m3_s[output] > 0                   ? text(now.flow_m3_s[output], Quantity::flow, session_.units())
                                             : now.trouble != Trouble::none && output == 0 ? tr(trouble_text(now.trouble))
                                                                                           : tr("on, no flow");
    p.drawText(below ? QRectF(c.x() - 60, c.y() + 24, 120, 20) : right ? QRectF(c.x() + 30, c.y() - 12, 110, 20)
                                                                       : QRectF(c.x() - 144, c.y() - 2, 114, 20),
        below ? Qt::AlignCenter : right ? Qt::AlignLeft
                                        : Qt::AlignRight,
        how);
}

void LoopView::paint_labels(QPainter& p, const Sheet& sheet, const Live& now) const
{
    const Theme& t = theme();
    const Loop& loop = session_.document().variant().loop;
    const Arrangement& a = arrangement();
    const auto value = [&](double x, Quantity q) { return text(x, q, session_.units()); };
    p.setPen(t.ink);
    p.setFont(text_font(14, true));
    const bool two = a.has(Part::collector_2);
    p.drawText(QPointF(14, 34), two ? tr("collectors %1 + %2").arg(value(loop.collector.area_m2, Quantity::area), value(loop.collector_2.area_m2, Quantity::area)) : tr("collector %1").arg(value(loop.collector.area_m2, Quantity::area)));
    const auto above = [&](Part part, const QString& s) {
        const QRectF r = sheet.place.at(part);
        p.drawText(QRectF(r.center().x() - 130, r.top() - 22, 260, 18), Qt::AlignCenter, s);
    };
    if (a.has(Part::tank))
        above(Part::tank, tr("tank %1").arg(value(loop.tank.volume_m3, Quantity::volume)));
    if (a.has(Part::tank_2))
        above(Part::tank_2, tr("second %1").arg(value(loop.tank_2.volume_m3, Quantity::volume)));
    if (a.has(Part::pool))
        above(Part::pool, loop.pool.covered ? tr("pool %1, covered").arg(value(loop.pool.volume_m3, Quantity::large_volume)) : tr("pool %1").arg(value(loop.pool.volume_m3, Quantity::large_volume)));
    if (a.has(Part::slab))
        above(Part::slab, tr("slab %1").arg(value(loop.slab.area_m2, Quantity::area)));
    if (a.has(Part::room))
        above(Part::room, tr("room %1").arg(value(loop.room.air_m3, Quantity::space)));
    p.setFont(text_font(13));
    p.setPen(t.second_ink);
    if (a.has(Part::cooler))
        p.drawText(QRectF(606, 388, 60, 18), Qt::AlignLeft, tr("cooler"));
    if (a.has(Part::reservoir))
        p.drawText(QRectF(428, 240, 88, 18), Qt::AlignRight, tr("reservoir"));
    if (!now.known)
        return;
    p.drawText(QPointF(14, 54), tr("%1 at the outlet").arg(value(now.of(Segment::collector).back(), Quantity::temperature)));
    p.drawText(QPointF(14, 73), tr("%1 on it").arg(value(now.plane, Quantity::irradiance)));
    p.drawText(QPointF(14, 92), tr("air %1").arg(value(now.air, Quantity::temperature)));
    if (a.drains)
        p.drawText(QPointF(14, 111), now.drained ? tr("array empty") : tr("array full"));
    if (!two)
        p.drawText(QRectF(604, 108, 96, 44), Qt::AlignLeft, tr("return\n%1").arg(value(now.of(Segment::return_pipe).back(), Quantity::temperature)));
    p.drawText(QRectF(22, 250, 114, 44), Qt::AlignRight, tr("supply\n%1").arg(value(now.of(Segment::supply_pipe).front(), Quantity::temperature)));
}

void LoopView::paint_probes(QPainter& p, const Sheet& sheet) const
{
    const Theme& t = theme();
    for (const Probe& probe : session_.document().variant().probes) {
        const auto it = sheet.probes.find(probe.place);
        if (it == sheet.probes.end())
            continue;
        const QPointF at = it->second;
        p.setPen(QPen(t.ink, 2));
        p.setBrush(t.card);
        p.drawPolygon(QPolygonF{{at + QPointF(0, -8), at + QPointF(8, 0), at + QPointF(0, 8), at + QPointF(-8, 0)}});
        if (pointed_)
            continue;
        p.setFont(text_font(13, true));
        const bool above = probe.place == ProbePlace::collector || probe.place == ProbePlace::collector_2;
        const bool on_pipe = probe.place == ProbePlace::slab_return || probe.place == ProbePlace::supply_pipe;
        p.drawText(on_pipe ? QRectF(at.x() - 20, at.y() - 28, 40, 18) : above ? QRectF(at.x() - 20, at.y() - 30, 40, 18)
                                                                              : QRectF(at.x() - 44, at.y() - 9, 30, 18),
            above || on_pipe ? Qt::AlignCenter : Qt::AlignRight, qs(probe.key));
    }
}

QImage LoopView::image(int width_px) const
{
    QImage out(width_px, static_cast<int>(width_px * sheet_h / sheet_w), QImage::Format_RGB32);
    out.fill(theme().card);
    paint_onto(out);
    return out;
}

bool LoopView::paint_onto(QPaintDevice& device) const
{
    QPainter p;
    if (!p.begin(&device))
        return false;
    p.setRenderHint(QPainter::Antialiasing);
    const double s = std::min(device.width() / sheet_w, device.height() / sheet_h);
    p.scale(s, s);
    paint_sheet(p);
    return p.end();
}

bool LoopView::write(const QString& path) const
{
    const QString ending = QFileInfo(path).suffix().toLower();
    if (ending == QLatin1String("png"))
        return image(2100).save(path);
    if (!QFileInfo(QFileInfo(path).path()).isWritable())
        return false;
    if (ending == QLatin1String("pdf")) {
        QPdfWriter pdf(path);
        pdf.setPageOrientation(QPageLayout::Landscape);
        return paint_onto(pdf);
    }
    if (ending != QLatin1String("svg"))
        return false;
    QSvgGenerator svg;
    svg.setFileName(path);
    svg.setSize(QSize(static_cast<int>(sheet_w), static_cast<int>(sheet_h)));
    svg.setViewBox(QRectF(0, 0, sheet_w, sheet_h));
    svg.setTitle(QString::fromUtf8(arrangement().title));
    return paint_onto(svg);
}

} // namespace vernal
