#include "loop_view.h"

#include "parts/valves.h"

#include "app/findings/finding_mark.h"
#include "app/shell/theme.h"
#include "core/job/field_path.h"
#include "core/plant/parts.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace vernal {

// The network is built once an outcome, not at every repaint.
LoopLive LoopView::live() const
{
    const auto& o = session_.outcome();
    if (!o || o->is_replay() || o->coupled.records.empty() || !o->setup || o->variant.loop.answers != arrangement().answers)
        return {};
    if (!network_ || network_of_ != o->id) {
        network_ = std::make_shared<const Network>(o->setup->loop, o->setup->probes, Fineness{}, o->setup->altitude_m);
        network_of_ = o->id;
    }
    return live_at(*o, session_.cursor_index(), *network_, arrangement());
}

const Arrangement& LoopView::arrangement() const { return arrangement_of(session_.document().variant().loop); }

LoopView::LoopView(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    setObjectName("loopView");
    setAccessibleName(tr("Drawing of the loop"));
    setMinimumSize(420, 290);
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    for (auto signal : {&Session::outcome_changed, &Session::cursor_changed, &Session::units_changed})
        connect(&session, signal, this, qOverload<>(&QWidget::update));
    for (auto signal : {&Session::verdict_changed, &Session::outcome_changed})
        connect(&session, signal, this, &LoopView::mark_findings);
    tell_choice();
}

QTransform LoopView::frame() const
{
    const double wide = sheet_of(arrangement()).width;
    const double s = std::min(width() / wide, height() / sheet_h);
    QTransform t;
    t.translate((width() - s * wide) / 2, (height() - s * sheet_h) / 2);
    t.scale(s, s);
    return t;
}

void LoopView::point_at(std::size_t probe)
{
    pointed_ = probe;
    setFocusPolicy(Qt::NoFocus);
    for (auto& [path, mark] : marks_)
        mark->hide();
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
    const double x = std::clamp(at->second.x() + (at->second.x() > sheet.width / 2 ? -wide - 24 : 26), 0.0, sheet.width - wide);
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

void LoopView::show_board(std::optional<ServiceState> state)
{
    board_ = state;
    mark_findings();
    update();
}

QSizeF LoopView::sheet_size() const { return {sheet_of(arrangement()).width, sheet_h}; }

QRectF LoopView::valve_area(HandValve valve) const
{
    if (board_)
        for (const SheetValve& v : valves_on(sheet_of(arrangement()), session_.document().variant().loop))
            if (v.valve == valve)
                return frame().mapRect(v.area());
    return {};
}

std::optional<HandValve> LoopView::valve_at(const QPointF& at) const
{
    if (board_)
        for (const SheetValve& v : valves_on(sheet_of(arrangement()), session_.document().variant().loop))
            if (frame().mapRect(v.area()).contains(at))
                return v.valve;
    return {};
}

void LoopView::choose(Part part)
{
    board_.reset();
    mark_findings();
    part_ = part;
    update();
    tell_choice();
    emit chosen(part);
}

void LoopView::tell_choice() { setAccessibleDescription(tr("Chosen: %1. Arrow keys choose another part.").arg(tr(part_text(part_).title))); }

// The nearest part that lies more this way than to its sides.
std::optional<Part> LoopView::next_part(const QPointF& way) const
{
    const Sheet sheet = sheet_of(arrangement());
    const auto from = sheet.place.find(part_);
    std::optional<Part> found;
    double least = 0;
    for (const auto& [part, place] : sheet.place) {
        const QPointF d = place.center() - (from == sheet.place.end() ? QPointF() : from->second.center());
        const double along = QPointF::dotProduct(d, way), aside = std::fabs(d.x() * way.y()) + std::fabs(d.y() * way.x());
        if (part == part_ || along <= 0 || aside > 2 * along)
            continue;
        if (const double far = along + 2 * aside; !found || far < least) {
            found = part;
            least = far;
        }
    }
    return found;
}

void LoopView::keyPressEvent(QKeyEvent* e)
{
    const std::map<int, QPointF> ways{{Qt::Key_Left, {-1, 0}}, {Qt::Key_Right, {1, 0}}, {Qt::Key_Up, {0, -1}}, {Qt::Key_Down, {0, 1}}};
    const auto way = ways.find(e->key());
    if (pointed_ || way == ways.end() || e->modifiers() != Qt::NoModifier)
        return QWidget::keyPressEvent(e);
    if (const auto part = next_part(way->second))
        choose(*part);
}

void LoopView::focusInEvent(QFocusEvent*) { update(); }
void LoopView::focusOutEvent(QFocusEvent*) { update(); }

void LoopView::resizeEvent(QResizeEvent*)
{
    for (auto& [path, mark] : marks_)
        place_mark(*mark, path);
}

// At a corner of a part, right under a probe.
void LoopView::place_mark(FindingMark& mark, const std::string& path) const
{
    const Sheet sheet = sheet_of(arrangement());
    QPointF at;
    for (const auto& [part, place] : sheet.place)
        if (part_path(part) == path)
            at = frame().map(sheet.array.count(part) ? sheet.array.at(part)[0] : place.topRight()); // a probe sits at an array's right
    for (const Probe& p : session_.document().variant().probes)
        if (const auto it = sheet.probes.find(p.place); "probe/" + p.id == path && it != sheet.probes.end())
            at = frame().map(it->second + QPointF(0, 20));
    constexpr int target_px = 32;
    mark.setGeometry(std::clamp(static_cast<int>(at.x()) - target_px / 2, 0, std::max(0, width() - target_px)), std::clamp(static_cast<int>(at.y()) - target_px / 2, 0, std::max(0, height() - target_px)), target_px, target_px);
}

// What is about the fluid stands at the pump, beside whose settings it is set.
void LoopView::mark_findings()
{
    if (pointed_)
        return;
    std::map<std::string, std::vector<Finding>> found;
    if (board_) {
        for (auto& [path, mark] : marks_)
            mark->show_findings({});
        return;
    }
    const Sheet sheet = sheet_of(arrangement());
    for (const Finding& f : session_.findings()) {
        for (Part part : arrangement().parts)
            if (const std::string path = part_path(part); !path.empty() && (is_at(f, path) || (part == Part::pump && f.at == "loop/glycol_fraction")))
                found[path].push_back(f);
        for (const Probe& p : session_.document().variant().probes)
            if (sheet.probes.count(p.place) && is_at(f, "probe/" + p.id)) // one without a place here is marked in the list
                found["probe/" + p.id].push_back(f);
    }
    for (auto& [path, mark] : marks_)
        if (found.find(path) == found.end())
            mark->show_findings({});
    for (const auto& [path, list] : found) {
        FindingMark*& mark = marks_[path];
        if (!mark) {
            mark = new FindingMark(session_, this);
            mark->setObjectName(QStringLiteral("partMark"));
        }
        place_mark(*mark, path);
        mark->show_findings(list);
    }
}

std::optional<Part> LoopView::part_at(const QPointF& at) const
{
    const Sheet sheet = sheet_of(arrangement());
    const QPointF on_sheet = frame().inverted().map(at);
    std::optional<Part> found; // of several over each other the smallest
    double least = 0;
    for (const auto& [part, place] : sheet.place)
        if (const double size = place.width() * place.height(); place.contains(on_sheet) && (!found || size < least)) {
            found = part;
            least = size;
        }
    return found;
}

void LoopView::mousePressEvent(QMouseEvent* e)
{
    if (const auto valve = valve_at(e->position())) {
        emit valve_clicked(*valve);
        return;
    }
    if (const auto part = pointed_ ? std::nullopt : part_at(e->position()))
        choose(*part);
}

void LoopView::mouseMoveEvent(QMouseEvent* e) { setCursor(!pointed_ && (valve_at(e->position()) || part_at(e->position())) ? Qt::PointingHandCursor : Qt::ArrowCursor); }

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
    if (chosen.isEmpty() || board_)
        return;
    p.setPen(QPen(theme().accent, hasFocus() ? 2.6 : 1.6, hasFocus() ? Qt::SolidLine : Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    p.drawRoundedRect(frame().inverted().mapRect(chosen).adjusted(-6, -6, 6, 6), 8, 8);
}

void LoopView::paint_sheet(QPainter& p) const
{
    const LoopLive now = board_ ? LoopLive{} : live();
    const Sheet sheet = sheet_of(arrangement());
    const PartScene scene{p, sheet, now, session_.document().variant(), arrangement(), session_.units(), pointed_.has_value(), p.transform().m11()};
    if (board_)
        return vernal::paint_board(scene, *board_);
    for (const SheetPipe& pipe : sheet.pipes)
        paint_pipe(scene, pipe);
    for (const PartDrawing& part : part_drawings())
        if (part.paint && arrangement().has(part.part) && (part.when_small || !pointed_))
            part.paint(scene);
    for (const PartDrawing& part : part_drawings())
        if (part.label && arrangement().has(part.part) && !pointed_)
            part.label(scene);
    paint_probes(scene);
    if (now.known || pointed_)
        return;
    p.setPen(theme().second_ink);
    p.setFont(text_font(13));
    const bool replay = session_.outcome() && session_.outcome()->is_replay();
    p.drawText(QRectF(0, 456, sheet.width, 22), Qt::AlignCenter, replay ? tr("A log has no temperatures inside the parts: choose a generated day to see them.") : tr("…"));
}

void LoopView::paint_probes(const PartScene& scene) const
{
    const Theme& t = theme();
    for (const Probe& probe : session_.document().variant().probes) {
        const auto it = scene.sheet.probes.find(probe.place);
        if (it == scene.sheet.probes.end())
            continue;
        const QPointF at = it->second;
        scene.p.setPen(QPen(t.ink, 2));
        scene.p.setBrush(t.card);
        if (reads_temperature(probe))
            scene.p.drawPolygon(QPolygonF{{at + QPointF(0, -8), at + QPointF(8, 0), at + QPointF(0, 8), at + QPointF(-8, 0)}});
        else
            scene.p.drawEllipse(at, 7, 7);
        const bool above = probe.place == ProbePlace::collector || probe.place == ProbePlace::collector_2 || probe.place == ProbePlace::slab_return || probe.place == ProbePlace::supply_pipe || (probe.place == ProbePlace::flow_meter && scene.sheet.lies_level(at));
        const bool behind = probe.place == ProbePlace::pressure_sensor; // between vessel and pipe there is no room
        const QRectF beside(at.x() - 44, at.y() - 10, 30, 20), over(at.x() - 20, at.y() - 31, 40, 20), right(at.x() + 12, at.y() - 10, 30, 20);
        const Qt::AlignmentFlag side = above ? Qt::AlignHCenter : behind ? Qt::AlignLeft
                                                                         : Qt::AlignRight;
        scene.say(above ? over : behind ? right
                                        : beside,
            static_cast<int>(Qt::AlignVCenter) | static_cast<int>(side), qs(probe.key), t.ink, {13, true});
    }
}

QImage LoopView::image(int width_px) const
{
    QImage out(width_px, static_cast<int>(width_px * sheet_h / sheet_of(arrangement()).width), QImage::Format_RGB32);
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
    const double s = std::min(device.width() / sheet_of(arrangement()).width, device.height() / sheet_h);
    p.scale(s, s);
    paint_sheet(p);
    return p.end();
}

} // namespace vernal
