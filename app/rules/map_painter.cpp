#include "map_painter.h"

#include "core/audit/audit.h"

#include "app/shell/theme.h"
#include "core/plant/passing.h"
#include "core/sums/switching.h"

#include <QPainter>

#include <cmath>

namespace vernal {
namespace {

constexpr int cell_px = 7;
using Kind = MapLine::Kind;

// helped: on by a protection (freeze, overheat).
enum class Region { rests,
    runs,
    keeps,
    blocked,
    helped };

// What an output does where the latches before stood clear, and where they stood set.
Region region_of(const Decision& clear, const Decision& set)
{
    if (clear.on && set.on)
        return clear.priority < Priority::limit ? Region::helped : Region::runs;
    // The same for an output that another holds off: its latch keeps what it was.
    const bool held = set.priority != clear.priority && !clear.on && clear.priority == Priority::nothing && set.priority == Priority::collect;
    if (clear.on != set.on || held)
        return Region::keeps;
    return clear.priority < Priority::min_off ? Region::blocked : Region::rests;
}

// The unit without its timers: what its rules come to, not when.
Program timeless(const Variant& v)
{
    Program program = compile(v).program;
    for (OutputTimers& t : program.timers)
        t.min_run_ms = t.min_off_ms = 0;
    for (Gate& g : program.gates)
        if (g.kind == Gate::Kind::drain)
            g.on_ms = 0;
    program.power_wait_ms = 0;
    program.delays.clear();
    program.delayed = 0;
    return program;
}

QString minus_sign(double whole) { return QString::number(whole, 'f', 0).replace('-', QStringLiteral("−")); }

} // namespace

void MapPainter::paint()
{
    regions();
    axes();
    for (const MapLine& l : v_.lines)
        width(l);
    rise();
    path();
    for (const MapLine& l : v_.lines)
        if (l.kind != Kind::banner)
            line(l);
    found();
    legend();
}

// Over the job's lines, as bands as wide as their intervals, named at the left; and the
// unit's own switching points, which the log shows.
void MapPainter::found()
{
    const auto& audit = session_.audit();
    if (!audit || v_.geometry.plain)
        return;
    const Theme& t = theme();
    const QRectF a = v_.geometry.area;
    for (const FoundSettings& f : audit->found) {
        if (f.output != v_.output || f.source != v_.axes.source || f.store != v_.axes.store)
            continue;
        p_.save();
        p_.setClipRect(a);
        p_.setFont(text_font(12));
        for (const auto& [e, words] : {std::pair{f.on_k, QObject::tr("found: starts at %1")}, {f.off_k, QObject::tr("found: stops at %1")}}) {
            if (!e)
                continue;
            QColor band = t.caution;
            band.setAlpha(60);
            const double high = v_.geometry.y_at(e->high), low = v_.geometry.y_at(e->low), at = v_.geometry.y_at(e->value);
            p_.fillRect(QRectF(a.left(), high, a.width(), std::max(1.0, low - high)), band);
            p_.setPen(QPen(t.caution, 1.4, Qt::DotLine));
            p_.drawLine(QPointF(a.left(), at), QPointF(a.right(), at));
            const QString text = words.arg(vernal::text(e->value, Quantity::difference, session_.units()));
            const QRectF box(a.left() + 4, at - 17, p_.fontMetrics().horizontalAdvance(text) + 8, 16);
            QColor ground = t.card;
            ground.setAlpha(215);
            p_.fillRect(box, ground);
            p_.setPen(t.ink);
            p_.drawText(box, Qt::AlignCenter, text);
        }
        p_.setPen(QPen(t.caution, 1.4));
        for (const Switching& s : f.switchings) {
            p_.setBrush(s.on ? t.caution : t.card);
            const QPointF at = v_.geometry.at(s.store_c, s.store_c + s.difference_k);
            p_.drawPolygon(QPolygonF({at + QPointF(0, -4), at + QPointF(4, 0), at + QPointF(0, 4), at + QPointF(-4, 0)}));
        }
        p_.restore();
    }
}

QColor map_colour(const MapLine& l)
{
    switch (l.role) {
    case MapLine::Role::collects: return theme().accent;
    case MapLine::Role::protects: return theme().protect;
    case MapLine::Role::keeps: return theme().start;
    case MapLine::Role::other: break;
    }
    return theme().caution;
}

QString MapPainter::probe_name(std::size_t probe) const { return qs(v_.variant.probes[probe].name); }

// Asks the engine itself: once with every latch clear, once with every latch set.
void MapPainter::regions()
{
    const auto& o = session_.outcome();
    if (!o || o->size() == 0)
        return;
    const Program program = timeless(v_.variant);
    const Inputs at_cursor = o->inputs(std::min(session_.cursor_index(), o->size() - 1));
    Inputs in = at_cursor;
    in.modes.fill(Mode::automatic);
    in.pressed = 0;
    for (Reading& r : in.readings)
        r.valid = true;
    if (v_.third)
        v_.third->put(in, v_.third_share);
    const EngineState clear = power_up(program);
    EngineState set = clear;
    for (std::size_t i = 0; i < program.latches.size(); ++i)
        set.latched |= LatchBits{1} << i;
    const auto decision = [&](EngineState s) { return step(program, in, s)[v_.output]; };
    const QRectF a = v_.geometry.area;
    const QColor grounds[] = {theme().card, theme().accent_ground, theme().accent_ground, theme().protect_ground, theme().start_ground};
    for (double y = a.top(); y < a.bottom(); y += cell_px)
        for (double x = a.left(); x < a.right(); x += cell_px) {
            const QPointF mid(x + cell_px / 2.0, y + cell_px / 2.0);
            in.readings[v_.axes.store].mk = quantised(v_.geometry.store_at(mid.x()), 0);
            in.readings[v_.axes.source].mk = quantised(v_.geometry.source_at(mid), 0);
            const Region region = region_of(decision(clear), decision(set));
            const QRectF cell = QRectF(x, y, cell_px + 0.5, cell_px + 0.5).intersected(a);
            p_.fillRect(cell, grounds[static_cast<int>(region)]);
            if (region == Region::keeps)
                p_.fillRect(cell, QBrush(theme().accent.lighter(150), Qt::BDiagPattern));
        }
}

// Round figures in the shown unit.
void MapPainter::axes()
{
    p_.setFont(text_font(13));
    up();
    across();
    p_.setFont(text_font(13));
    const Units& u = session_.units();
    const QRectF a = v_.geometry.area;
    const QString store = probe_name(v_.axes.store), source = probe_name(v_.axes.source);
    p_.drawText(QRectF(a.left(), a.bottom() + 22, a.width(), 20), Qt::AlignCenter, QObject::tr("%1, %2").arg(store, qs(unit_name(Quantity::temperature, u))));
    p_.save();
    p_.translate(14, a.center().y());
    p_.rotate(-90);
    const QString up_text = v_.geometry.plain ? QObject::tr("%1, %2").arg(source, qs(unit_name(Quantity::temperature, u))) : QObject::tr("%1 above %2, %3").arg(source, store.toLower(), qs(unit_name(Quantity::difference, u)));
    p_.drawText(QRectF(-a.height() / 2, -10, a.height(), 20), Qt::AlignCenter, p_.fontMetrics().elidedText(up_text, Qt::ElideMiddle, static_cast<int>(a.height())));
    p_.restore();
}

void MapPainter::up()
{
    const Theme& t = theme();
    const Units& u = session_.units();
    const QRectF a = v_.geometry.area;
    const Quantity q = v_.geometry.plain ? Quantity::temperature : Quantity::difference;
    const double every = v_.geometry.plain || u.fahrenheit ? 20 : 10;
    for (double shown = std::ceil(to_display(v_.geometry.low_y(), q, u) / every) * every; from_display(shown, q, u) <= v_.geometry.high_y(); shown += every) {
        const double y = v_.geometry.y_at(from_display(shown, q, u));
        p_.setPen(QPen(shown == 0 ? t.second_ink : t.hairline, 1));
        p_.drawLine(QPointF(a.left(), y), QPointF(a.right(), y));
        p_.setPen(t.second_ink);
        p_.drawText(QRectF(0, y - 9, a.left() - 6, 18), Qt::AlignRight | Qt::AlignVCenter, minus_sign(shown));
    }
}

void MapPainter::across()
{
    const Theme& t = theme();
    const Units& u = session_.units();
    const QRectF a = v_.geometry.area;
    const double every = u.fahrenheit ? 40 : 20;
    for (double shown = std::ceil(to_display(MapGeometry::lowest_store_c, Quantity::temperature, u) / every) * every; from_display(shown, Quantity::temperature, u) <= MapGeometry::highest_store_c; shown += every) {
        const double store = from_display(shown, Quantity::temperature, u), x = v_.geometry.at(store, store).x();
        p_.setPen(QPen(t.hairline, 1));
        p_.drawLine(QPointF(x, a.top()), QPointF(x, a.bottom()));
        p_.setPen(t.second_ink);
        p_.drawText(QRectF(x - 30, a.bottom() + 3, 60, 18), Qt::AlignCenter, minus_sign(shown));
    }
}

// Around a set difference: where the unit really switches, by the error budget,
// over all store temperatures. Inner band: root of squares, outer: worst case.
void MapPainter::width(const MapLine& l)
{
    if (l.kind != Kind::level || l.role != MapLine::Role::collects)
        return;
    constexpr double every_c = 10;
    QPolygonF outer, inner;
    QList<QPointF> outer_back, inner_back;
    for (double store = MapGeometry::lowest_store_c; store <= MapGeometry::highest_store_c; store += every_c) {
        const auto points = real_points(v_.variant, l.rule, {store, 15});
        if (!points)
            return;
        const Budget& b = l.sets ? points->on : points->off;
        const auto at = [&](double above) { return v_.geometry.at(store, store + b.real_k() + above); };
        outer << at(b.worst_k);
        inner << at(b.rss_k);
        outer_back.prepend(at(-b.worst_k));
        inner_back.prepend(at(-b.rss_k));
    }
    p_.save();
    p_.setClipRect(v_.geometry.area);
    QColor fill = map_colour(l);
    fill.setAlpha(theme().glare ? 70 : 46);
    p_.setPen(Qt::NoPen);
    p_.setBrush(fill);
    p_.drawPolygon(outer + outer_back);
    p_.drawPolygon(inner + inner_back);
    p_.restore();
}

void MapPainter::line(const MapLine& l)
{
    const Theme& t = theme();
    const auto [from, to] = v_.geometry.ends(l);
    p_.save();
    p_.setClipRect(v_.geometry.area);
    p_.setPen(QPen(map_colour(l), l.sets ? t.line_px + 0.6 : t.line_px, l.sets ? Qt::SolidLine : Qt::DashLine));
    p_.drawLine(from, to);
    p_.restore();
}

void MapPainter::path()
{
    const auto& o = session_.outcome();
    const auto [source, store] = v_.axes;
    if (!o || o->size() == 0 || source >= o->variant.probes.size() || store >= o->variant.probes.size())
        return;
    const Theme& t = theme();
    p_.save();
    p_.setClipRect(v_.geometry.area);
    QPolygonF points;
    for (std::size_t i = 0; i < o->size(); ++i)
        if (const double x = o->reading(i, store), y = o->reading(i, source); std::isfinite(x) && std::isfinite(y))
            points.append(v_.geometry.at(x, y));
    p_.setPen(QPen(t.second_ink, t.glare ? 2 : 0)); // thousands of points: a hair line, drawn fast
    p_.drawPolyline(points);
    p_.setRenderHint(QPainter::Antialiasing);
    switches(*o);
    const std::size_t now = session_.cursor_index();
    p_.setPen(QPen(t.card, 2));
    p_.setBrush(t.collector);
    if (const double x = o->reading(now, store), y = o->reading(now, source); std::isfinite(x) && std::isfinite(y))
        p_.drawEllipse(v_.geometry.at(x, y), 7, 7);
    p_.restore();
}

// What the flow can warm by in the sun of the cursor: a stop above this line ends runs
// while the sun shines.
void MapPainter::rise()
{
    const auto& o = session_.outcome();
    if (!o || o->is_replay() || o->error || o->size() == 0 || o->variant.probes.size() <= v_.axes.source)
        return;
    const bool second = o->variant.probes[v_.axes.source].place == ProbePlace::collector_2;
    const Record& now = o->coupled.records[std::min(session_.cursor_index(), o->size() - 1)];
    const Loop& l = o->variant.loop;
    const Collector& collector = second ? l.collector_2 : l.collector;
    const double flow = second ? l.pump_2.flow_m3_s : l.pump.flow_m3_s;
    QPolygonF points;
    for (double store = MapGeometry::lowest_store_c; store <= MapGeometry::highest_store_c; store += 5)
        if (const double k = settled_rise_k(l, collector, flow, now.plane_w_m2, store, now.air_c); k > 0)
            points << v_.geometry.at(store, store + k);
    if (points.size() < 2)
        return;
    p_.save();
    p_.setClipRect(v_.geometry.area);
    p_.setRenderHint(QPainter::Antialiasing);
    p_.setPen(QPen(theme().second_ink, theme().line_px, Qt::DotLine));
    p_.drawPolyline(points);
    p_.restore();
    rise_at_ = now.plane_w_m2;
}

// Filled: starts, open: stops.
void MapPainter::switches(const Outcome& o)
{
    const Theme& t = theme();
    for (std::size_t i = 1; i < o.size(); ++i) {
        const bool was = o.decisions(i - 1)[v_.output].on, is = o.decisions(i)[v_.output].on;
        const double x = o.reading(i, v_.axes.store), y = o.reading(i, v_.axes.source);
        if (was == is || !std::isfinite(x) || !std::isfinite(y))
            continue;
        p_.setPen(QPen(t.accent, 1.6));
        p_.setBrush(is ? t.accent : t.card);
        p_.drawEllipse(v_.geometry.at(x, y), 4, 4);
    }
}

// Below the axis, so that nothing stands on a curve.
void MapPainter::legend()
{
    const Theme& t = theme();
    const QString key = qs(v_.variant.unit.outputs[v_.output].key);
    const bool latched = std::any_of(v_.lines.begin(), v_.lines.end(), [](const MapLine& l) { return l.kind == Kind::level && l.role == MapLine::Role::collects && !l.sets; });
    struct Item {
        QString text;
        QBrush ground, above;
        bool line = false;
    };
    std::vector<Item> items{{QObject::tr("%1 runs").arg(key), t.accent_ground, {}}, {QObject::tr("%1 rests").arg(key), t.card, {}}, {QObject::tr("held off"), t.protect_ground, {}}};
    if (latched) {
        items.insert(items.begin() + 1, {QObject::tr("keeps what it did"), t.accent_ground, QBrush(t.accent.lighter(150), Qt::BDiagPattern)});
        items.push_back({QObject::tr("where it may really switch"), t.accent_ground.darker(118), {}});
    }
    if (rise_at_ > 0)
        items.push_back({QObject::tr("what the flow warms by at %1").arg(text(rise_at_, Quantity::irradiance, session_.units())), {}, {}, true});
    p_.setFont(text_font(12));
    const QFontMetrics m = p_.fontMetrics();
    const double left = v_.geometry.area.left(), right = p_.window().right() - 2;
    double x = left, y = v_.geometry.area.bottom() + 46;
    for (const Item& item : items) {
        const int wide = m.horizontalAdvance(item.text) + 22;
        if (x > left && x + wide > right) {
            x = left;
            y += 18;
        }
        const QRectF box(x, y - 5, 14, 11);
        if (item.line) {
            p_.setPen(QPen(t.second_ink, t.line_px, Qt::DotLine));
            p_.drawLine(QPointF(x, y), QPointF(x + 14, y));
        } else {
            p_.fillRect(box, item.ground);
            p_.fillRect(box, item.above);
            p_.setPen(QPen(t.second_ink, 1));
            p_.setBrush(Qt::NoBrush);
            p_.drawRect(box);
        }
        p_.setPen(t.second_ink);
        p_.drawText(QRectF(x + 18, y - 9, wide, 18), Qt::AlignVCenter | Qt::AlignLeft, item.text);
        x += wide + 10;
    }
}

} // namespace vernal
