#include "loop_view.h"

#include "parts/scene.h"

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

// The network is built once an outcome, not at every repaint.
LoopLive LoopView::live() const
{
    const auto& o = session_.outcome();
    if (!o || o->is_replay() || o->coupled.records.empty() || !o->setup || o->variant.loop.arrangement != arrangement().key)
        return {};
    if (!network_ || network_of_ != o->id) {
        network_ = std::make_shared<const Network>(o->setup->loop, o->setup->probes);
        network_of_ = o->id;
    }
    return live_at(*o, session_.cursor_index(), *network_, arrangement());
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
    const LoopLive now = live();
    const Sheet sheet = sheet_of(arrangement());
    for (const SheetPipe& pipe : sheet.pipes)
        paint_pipe(p, pipe, now);
    paint_collectors(p, sheet, now);
    const PartScene scene{p, sheet, now, session_.document().variant().loop, arrangement(), session_.units(), pointed_.has_value()};
    for (const PartPainter& painter : part_painters())
        if (arrangement().has(painter.part) && (painter.when_small || !pointed_))
            painter.paint(scene);
    for (Part part : {Part::pump, Part::pump_2})
        if (arrangement().has(part))
            paint_pump(p, sheet.place.at(part).center(), part, now);
    if (!pointed_)
        paint_labels(scene);
    paint_probes(p, sheet);
    if (now.known || pointed_)
        return;
    p.setPen(theme().second_ink);
    p.setFont(text_font(13));
    const bool replay = session_.outcome() && session_.outcome()->is_replay();
    p.drawText(QRectF(0, 456, sheet_w, 22), Qt::AlignCenter, replay ? tr("A log has no temperatures inside the parts: choose a generated day to see them.") : tr("…"));
}

void LoopView::paint_collectors(QPainter& p, const Sheet& sheet, const LoopLive& now) const
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

void LoopView::paint_pipe(QPainter& p, const SheetPipe& pipe, const LoopLive& now) const
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

void LoopView::paint_pump(QPainter& p, const QPointF& c, Part part, const LoopLive& now) const
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

// The names of the parts, and what can be read at the arrays.
void LoopView::paint_labels(const PartScene& s) const
{
    const LoopLive& now = s.now;
    QPainter& p = s.p;
    p.setPen(theme().ink);
    p.setFont(text_font(14, true));
    const bool two = s.arrangement.has(Part::collector_2);
    const QString first = s.words(s.loop.collector.area_m2, Quantity::area);
    p.drawText(QPointF(14, 34), two ? tr("collectors %1 + %2").arg(first, s.words(s.loop.collector_2.area_m2, Quantity::area)) : tr("collector %1").arg(first));
    for (const PartPainter& painter : part_painters())
        if (painter.label && s.arrangement.has(painter.part))
            painter.label(s);
    p.setFont(text_font(13));
    p.setPen(theme().second_ink);
    if (!now.known)
        return;
    p.drawText(QPointF(14, 54), tr("%1 at the outlet").arg(s.words(now.of(Segment::collector).back(), Quantity::temperature)));
    p.drawText(QPointF(14, 73), tr("%1 on it").arg(s.words(now.plane, Quantity::irradiance)));
    p.drawText(QPointF(14, 92), tr("air %1").arg(s.words(now.air, Quantity::temperature)));
    if (s.arrangement.drains)
        p.drawText(QPointF(14, 111), now.drained ? tr("array empty") : tr("array full"));
    if (!two)
        p.drawText(QRectF(604, 108, 96, 44), Qt::AlignLeft, tr("return\n%1").arg(s.words(now.of(Segment::return_pipe).back(), Quantity::temperature)));
    p.drawText(QRectF(22, 250, 114, 44), Qt::AlignRight, tr("supply\n%1").arg(s.words(now.of(Segment::supply_pipe).front(), Quantity::temperature)));
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
