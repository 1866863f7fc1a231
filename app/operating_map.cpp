#include "operating_map.h"

#include "core/job/switching.h"
#include "form.h"
#include "theme.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double lowest_store_c = 0, highest_store_c = 100;
constexpr int cell_px = 7;
constexpr double grab_px = 14;

double distance_to_segment(const QPointF& p, const QPointF& a, const QPointF& b)
{
    const QPointF d = b - a, q = p - a;
    const double len2 = QPointF::dotProduct(d, d);
    const double t = len2 > 0 ? std::clamp(QPointF::dotProduct(q, d) / len2, 0.0, 1.0) : 0.0;
    const QPointF r = q - t * d;
    return std::hypot(r.x(), r.y());
}

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

constexpr double lowest_supply_v = 9, highest_supply_v = 16;
constexpr double lowest_third_c = -20, highest_third_c = 140;

// A line of a rule dragged to a value: of a linked pair the knob's mark follows,
// of a store limit its allowance stays.
void drag_rule(RuleSet& unit, std::size_t rule, const std::string& key, double to)
{
    Rule& r = unit.rules[rule];
    if (std::holds_alternative<LinkedDifference>(r.body)) {
        const auto d = *difference_of(unit, r);
        set_difference(unit, r, key == "on_k" ? TempDiff::kelvin(to) : d.on, key == "off_k" ? TempDiff::kelvin(to) : d.off);
        return;
    }
    const auto* limit = std::get_if<StoreLimit>(&r.body);
    const double add = limit && key == "limit_c" ? limit->allowance.in_kelvin() : 0.0;
    std::visit([&](auto& body) { set_number(body, key, to + add); }, r.body);
}

// A temperature that a rule compares a probe with: its field, and what is added
// to the field to make the temperature.
struct Threshold {
    const char* field;
    std::string probe;
    double at_c;
    bool sets;
    double offset = 0;
};

struct Thresholds {
    using Found = std::vector<Threshold>;
    Found operator()(const FixedDifference& d) const
    {
        const double reference = d.reference.in_celsius();
        return {{"on_k", d.source, reference + d.on.in_kelvin(), true, reference}, {"off_k", d.source, reference + d.off.in_kelvin(), false, reference}};
    }
    Found operator()(const NightCooling& n) const { return {{"from_c", n.store, n.from.in_celsius(), true}, {"until_c", n.store, n.until.in_celsius(), false}}; }
    Found operator()(const Look& l) const { return {{"least_c", l.probe, l.least.in_celsius(), true}}; }
    Found operator()(const HeatOnce& h) const { return {{"target_c", h.probe, h.target.in_celsius(), false}}; }
    Found operator()(const Disinfection& d) const { return {{"target_c", d.probe, d.target.in_celsius(), false}}; }
    Found operator()(const SpeedToTemperature& s) const { return {{"target_c", s.probe, s.target.in_celsius(), true}}; }
    Found operator()(const Thermostat& t) const { return {{"on_c", t.probe, t.on.in_celsius(), true}, {"off_c", t.probe, t.off.in_celsius(), false}}; }
    Found operator()(const Heating& h) const
    {
        Found out;
        for (std::size_t i = 0; i < h.windows.size(); ++i)
            if (const HeatWindow& w = h.windows[i]; w.from_h != w.to_h) {
                out.push_back({window_keys[i][2], h.probe, w.on.in_celsius(), true});
                out.push_back({window_keys[i][3], h.probe, w.off.in_celsius(), false});
            }
        return out;
    }
    template <class Other>
    Found operator()(const Other&) const { return {}; }
};

} // namespace

OperatingMap::OperatingMap(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    setObjectName("operatingMap");
    setAccessibleName(tr("Operating map: what the outputs do at each pair of temperatures"));
    setMouseTracking(true);
    setMinimumSize(300, 260);
    for (auto signal : {&Session::outcome_changed, &Session::cursor_changed, &Session::units_changed})
        connect(&session, signal, this, qOverload<>(&QWidget::update));
    connect(&session.document(), &Document::changed, this, qOverload<>(&QWidget::update));
}

void OperatingMap::set_plain_axes(bool plain)
{
    plain_ = plain;
    update();
}

void OperatingMap::set_output(std::size_t output)
{
    output_ = output;
    update();
}

std::vector<OperatingMap::Third> OperatingMap::thirds() const
{
    const Variant& v = session_.document().variant();
    const Program program = compile(v.unit, probe_keys(v)).program;
    std::vector<Third> out;
    if (std::any_of(program.gates.begin(), program.gates.end(), [](const Gate& g) { return g.kind == Gate::Kind::window; }))
        out.push_back({Third::hour, 0});
    if ((program.used >> supply_channel & 1U) != 0)
        out.push_back({Third::supply, 0});
    const auto pr = probes();
    for (std::size_t i = 0; pr && i < v.probes.size(); ++i)
        if (i != pr->source && i != pr->store && (program.used >> i & 1U) != 0)
            out.push_back({Third::probe, i});
    return out;
}

QString OperatingMap::third_name(const Third& t) const
{
    if (t.kind == Third::probe)
        return qs(session_.document().variant().probes[t.channel].name);
    return t.kind == Third::hour ? tr("Hour of the day") : tr("Supply voltage");
}

void OperatingMap::set_third(std::optional<Third> third)
{
    third_ = third;
    update();
}

void OperatingMap::set_third_share(double share)
{
    third_share_ = share;
    update();
}

double OperatingMap::third_value() const
{
    switch (third_->kind) {
    case Third::hour: return std::lerp(0.0, 24.0, third_share_);
    case Third::supply: return std::lerp(lowest_supply_v, highest_supply_v, third_share_);
    case Third::probe: break;
    }
    return std::lerp(lowest_third_c, highest_third_c, third_share_);
}

QString OperatingMap::third_text() const
{
    const Quantity q = third_->kind == Third::hour ? Quantity::time_of_day : third_->kind == Third::supply ? Quantity::voltage
                                                                                                           : Quantity::temperature;
    return text(third_value(), q, session_.units());
}

void OperatingMap::put_third(Inputs& in) const
{
    if (!third_)
        return;
    if (third_->kind == Third::hour)
        in.clock_ms = std::min<Millis>(std::llround(third_value() * 3'600'000.0), day_ms - 1);
    else if (third_->kind == Third::supply)
        in.readings[supply_channel].mk = in_milli(third_value());
    else if (third_->channel < max_probes)
        in.readings[third_->channel].mk = in_milli(third_value());
}

std::size_t OperatingMap::output() const { return output_ < session_.document().variant().unit.outputs.size() ? output_ : 0; }

// The collecting rule of the output says which two probes the axes are; an
// output that has none (a valve) is shown over those of the first that has.
std::optional<OperatingMap::Probes> OperatingMap::probes() const
{
    const Variant& v = session_.document().variant();
    const auto keys = probe_keys(v);
    std::optional<Probes> any;
    for (const Rule& r : v.unit.rules)
        if (const auto d = difference_of(v.unit, r)) {
            const auto s = std::find(keys.begin(), keys.end(), d->source), t = std::find(keys.begin(), keys.end(), d->store);
            if (s == keys.end() || t == keys.end())
                continue;
            const Probes found{static_cast<std::size_t>(s - keys.begin()), static_cast<std::size_t>(t - keys.begin())};
            if (r.output == v.unit.outputs[output()].key)
                return found;
            any = any.value_or(found);
        }
    return any;
}

QRectF OperatingMap::area() const { return QRectF(rect()).adjusted(58, 8, -18, -44); }

QPointF OperatingMap::at(double store_c, double collector_c) const
{
    const QRectF a = area();
    const double y = plain_ ? collector_c : collector_c - store_c;
    return {a.left() + (store_c - lowest_store_c) / (highest_store_c - lowest_store_c) * a.width(), a.bottom() - (y - low_y()) / (high_y() - low_y()) * a.height()};
}

double OperatingMap::store_at(double x) const { return lowest_store_c + (x - area().left()) / area().width() * (highest_store_c - lowest_store_c); }

double OperatingMap::collector_at(const QPointF& p) const
{
    const double y = low_y() + (area().bottom() - p.y()) / area().height() * (high_y() - low_y());
    return plain_ ? y : y + store_at(p.x());
}

void OperatingMap::add_limit_lines(std::vector<Line>& out, std::size_t rule, const LimitOf& limit, const QColor& colour, const Probes& p) const
{
    const auto keys = probe_keys(session_.document().variant());
    const Line::Kind kind = limit.probe == keys[p.store] ? Line::upright : limit.probe == keys[p.source] ? Line::slanted
                                                                                                         : Line::banner;
    const double at = limit.limit.in_celsius(), back = limit.hysteresis.in_kelvin();
    const bool filling = std::holds_alternative<Fill>(session_.document().variant().unit.rules[rule].body);
    out.push_back({rule, filling ? "lockout_c" : "limit_c", at, false, kind, true, colour});
    if (kind != Line::banner)
        out.push_back({rule, "hysteresis_k", limit.lower ? at + back : at - back, true, kind, false, colour});
}

// Those on the two plotted probes; of another probe the third quantity tells.
void OperatingMap::add_thresholds(std::vector<Line>& out, std::size_t rule, const Probes& p) const
{
    const Variant& v = session_.document().variant();
    const auto keys = probe_keys(v);
    for (const Threshold& t : std::visit(Thresholds{}, v.unit.rules[rule].body))
        if (t.probe == keys[p.store] || t.probe == keys[p.source])
            out.push_back({rule, t.field, t.at_c, false, t.probe == keys[p.store] ? Line::upright : Line::slanted, t.sets, theme().caution, t.offset});
}

std::vector<OperatingMap::Line> OperatingMap::lines() const
{
    std::vector<Line> out;
    const auto p = probes();
    if (!p)
        return out;
    const Variant& v = session_.document().variant();
    for (std::size_t i = 0; i < v.unit.rules.size(); ++i) {
        const Rule& r = v.unit.rules[i];
        if (!r.enabled || r.output != v.unit.outputs[output()].key)
            continue;
        if (const auto d = difference_of(v.unit, r)) {
            const auto keys = probe_keys(v);
            if (d->source != keys[p->source] || d->store != keys[p->store])
                continue; // of another store: its lines would lie elsewhere
            out.push_back({i, "on_k", d->on.in_kelvin(), true, Line::level, true, theme().accent});
            out.push_back({i, "off_k", d->off.in_kelvin(), true, Line::level, false, theme().accent});
        } else if (const auto l = limit_of(r)) {
            add_limit_lines(out, i, *l, l->lower ? theme().start : theme().protect, *p);
        } else {
            add_thresholds(out, i, *p);
        }
    }
    return out;
}

// Asks the engine itself: once with every latch clear, once with every latch set.
void OperatingMap::paint_regions(QPainter& p) const
{
    const auto pr = probes();
    const auto& o = session_.outcome();
    if (!pr || !o || o->size() == 0)
        return;
    Program program = compile(session_.document().variant().unit, probe_keys(session_.document().variant())).program;
    for (OutputTimers& t : program.timers)
        t.min_run_ms = t.min_off_ms = t.drain_ms = 0;
    program.power_wait_ms = 0;
    program.delays.clear(); // what they come to, not when
    program.delayed = 0;
    Inputs in = o->inputs(std::min(session_.cursor_index(), o->size() - 1));
    in.modes.fill(Mode::automatic);
    in.pressed = 0;
    for (Reading& r : in.readings)
        r.valid = true;
    put_third(in);
    const auto outcome = [&](bool latched) {
        EngineState s = power_up(program);
        s.latched = latched ? static_cast<std::uint32_t>((std::uint64_t{1} << program.latches.size()) - 1) : 0U;
        return step(program, in, s)[output()];
    };
    const QRectF a = area();
    const QColor grounds[] = {theme().card, theme().accent_ground, theme().accent_ground, theme().protect_ground, theme().start_ground};
    for (double y = a.top(); y < a.bottom(); y += cell_px)
        for (double x = a.left(); x < a.right(); x += cell_px) {
            const QPointF mid(x + cell_px / 2.0, y + cell_px / 2.0);
            const double store = store_at(mid.x());
            in.readings[pr->store].mk = quantised(store, 0);
            in.readings[pr->source].mk = quantised(collector_at(mid), 0);
            // A probe in the tank's top is not colder than one at its bottom.
            for (std::size_t i = 0; i < o->variant.probes.size() && i < session_.document().variant().probes.size(); ++i)
                if (i != pr->store && i != pr->source && !(third_ && third_->kind == Third::probe && third_->channel == i) && session_.document().variant().probes[i].place == ProbePlace::tank_top)
                    in.readings[i].mk = std::max(o->inputs(session_.cursor_index()).readings[i].mk, 0);
            const Decision clear = outcome(false), set = outcome(true);
            const Region region = region_of(clear, set);
            const QRectF cell = QRectF(x, y, cell_px + 0.5, cell_px + 0.5).intersected(a);
            p.fillRect(cell, grounds[static_cast<int>(region)]);
            if (region == Region::keeps)
                p.fillRect(cell, QBrush(theme().accent.lighter(150), Qt::BDiagPattern));
        }
}

void OperatingMap::paint_axes(QPainter& p) const
{
    const Theme& t = theme();
    const Units& u = session_.units();
    const QRectF a = area();
    p.setFont(number_font(13));
    // Round figures in the shown unit.
    const Quantity up = plain_ ? Quantity::temperature : Quantity::difference;
    const double y_step = plain_ || u.fahrenheit ? 20 : 10;
    for (double shown = std::ceil(to_display(low_y(), up, u) / y_step) * y_step; from_display(shown, up, u) <= high_y(); shown += y_step) {
        const double y = from_display(shown, up, u);
        const double py = a.bottom() - (y - low_y()) / (high_y() - low_y()) * a.height();
        p.setPen(QPen(shown == 0 ? t.second_ink : t.hairline, 1));
        p.drawLine(QPointF(a.left(), py), QPointF(a.right(), py));
        p.setPen(t.second_ink);
        p.drawText(QRectF(0, py - 9, a.left() - 6, 18), Qt::AlignRight | Qt::AlignVCenter, QString::number(shown, 'f', 0).replace('-', QStringLiteral("−")));
    }
    const double x_step = u.fahrenheit ? 40 : 20;
    for (double shown = std::ceil(to_display(lowest_store_c, Quantity::temperature, u) / x_step) * x_step; from_display(shown, Quantity::temperature, u) <= highest_store_c; shown += x_step) {
        const double x = from_display(shown, Quantity::temperature, u);
        const QPointF px = at(x, x);
        p.setPen(QPen(t.hairline, 1));
        p.drawLine(QPointF(px.x(), a.top()), QPointF(px.x(), a.bottom()));
        p.setPen(t.second_ink);
        p.drawText(QRectF(px.x() - 30, a.bottom() + 3, 60, 18), Qt::AlignCenter, QString::number(shown, 'f', 0));
    }
    p.setFont(text_font(13));
    const auto pr = probes();
    const Variant& v = session_.document().variant();
    const QString store = pr ? qs(v.probes[pr->store].name) : tr("store"), source = pr ? qs(v.probes[pr->source].name) : tr("collector");
    p.drawText(QRectF(a.left(), a.bottom() + 22, a.width(), 20), Qt::AlignCenter, tr("%1, %2").arg(store, qs(unit_name(Quantity::temperature, u))));
    p.save();
    p.translate(14, a.center().y());
    p.rotate(-90);
    p.drawText(QRectF(-a.height() / 2, -10, a.height(), 20), Qt::AlignCenter,
        plain_ ? tr("%1, %2").arg(source, qs(unit_name(Quantity::temperature, u))) : tr("%1 above %2, %3").arg(source, store.toLower(), qs(unit_name(Quantity::difference, u))));
    p.restore();
}

std::pair<QPointF, QPointF> OperatingMap::ends(const Line& line) const
{
    const double v = line.value;
    if (line.kind == Line::level)
        return {at(lowest_store_c, lowest_store_c + v), at(highest_store_c, highest_store_c + v)};
    if (line.kind == Line::slanted)
        return {at(lowest_store_c, v), at(highest_store_c, v)};
    const QRectF a = area();
    const double x = at(v, v).x();
    return {QPointF(x, a.bottom()), QPointF(x, a.top())};
}

// Around a set difference: where the unit really switches, by the error budget,
// over all store temperatures. Inner band: root of squares, outer: worst case.
void OperatingMap::paint_width(QPainter& p, const Line& line) const
{
    if (line.kind != Line::level)
        return;
    constexpr double every_c = 10;
    const Variant& v = session_.document().variant();
    QPolygonF outer, inner;
    QList<QPointF> outer_back, inner_back;
    for (double store = lowest_store_c; store <= highest_store_c; store += every_c) {
        const auto points = real_points(v, line.rule, {store, 15});
        if (!points)
            return;
        const Budget& b = line.key == "on_k" ? points->on : points->off;
        outer << at(store, store + b.real_k() + b.worst_k);
        inner << at(store, store + b.real_k() + b.rss_k);
        outer_back.prepend(at(store, store + b.real_k() - b.worst_k));
        inner_back.prepend(at(store, store + b.real_k() - b.rss_k));
    }
    p.save();
    p.setClipRect(area());
    QColor fill = line.colour;
    fill.setAlpha(theme().glare ? 70 : 46);
    p.setPen(Qt::NoPen);
    p.setBrush(fill);
    p.drawPolygon(outer + outer_back);
    p.drawPolygon(inner + inner_back);
    p.restore();
}

void OperatingMap::paint_line(QPainter& p, const Line& line, int banner_row) const
{
    const Theme& t = theme();
    const QRectF a = area();
    const Rule& rule = session_.document().variant().unit.rules[line.rule];
    if (line.kind == Line::banner) {
        const auto& o = session_.outcome();
        const auto keys = probe_keys(session_.document().variant());
        const std::string probe = limit_of(rule)->probe;
        const auto it = std::find(keys.begin(), keys.end(), probe);
        QString s = tr("%1: limit %2").arg(it == keys.end() ? qs(probe) : qs(session_.document().variant().probes[static_cast<std::size_t>(it - keys.begin())].name), text(line.value, Quantity::temperature, session_.units()));
        if (o && o->size() && it != keys.end())
            s += tr(", now %1").arg(text(o->reading_c(session_.cursor_index(), static_cast<std::size_t>(it - keys.begin())), Quantity::temperature, session_.units()));
        p.setFont(text_font(13));
        const QRectF box(a.right() - p.fontMetrics().horizontalAdvance(s) - 18, a.top() + 6 + 26 * banner_row, p.fontMetrics().horizontalAdvance(s) + 14, 22);
        p.setPen(QPen(line.colour, 1));
        p.setBrush(t.protect_ground);
        p.drawRect(box);
        p.setPen(t.protect);
        p.drawText(box, Qt::AlignCenter, s);
        return;
    }
    const auto [from, to] = ends(line);
    p.save();
    p.setClipRect(a);
    p.setPen(QPen(line.colour, line.solid ? t.line_px + 0.6 : t.line_px, line.solid ? Qt::SolidLine : Qt::DashLine));
    p.drawLine(from, to);
    p.restore();
    if (const auto h = handle(line.rule, line.key)) {
        p.setBrush(t.card);
        p.setPen(QPen(line.colour, 2));
        p.drawRect(QRectF(h->x() - 5, h->y() - 5, 10, 10));
    }
}

std::optional<QPointF> OperatingMap::handle(std::size_t rule, const std::string& key) const
{
    for (const Line& line : lines()) {
        if (line.rule != rule || line.key != key || line.kind == Line::banner)
            continue;
        const auto [from, to] = ends(line);
        const QRectF a = area();
        if (line.kind == Line::upright)
            return a.contains(from - QPointF(0, 1)) ? std::optional(QPointF(from.x(), a.top() + a.height() * 0.25)) : std::nullopt;
        for (double f : {0.72, 0.9, 0.5, 0.3, 0.98, 0.05})
            if (const QPointF p = from + f * (to - from); a.contains(p))
                return p;
    }
    return std::nullopt;
}

void OperatingMap::paint_path(QPainter& p) const
{
    const auto pr = probes();
    const auto& o = session_.outcome();
    if (!pr || !o || pr->source >= o->variant.probes.size() || pr->store >= o->variant.probes.size())
        return;
    const Theme& t = theme();
    p.save();
    p.setClipRect(area());
    p.setRenderHint(QPainter::Antialiasing);
    QPolygonF path;
    for (std::size_t i = 0; i < o->size(); ++i)
        if (const double x = o->reading_c(i, pr->store), y = o->reading_c(i, pr->source); std::isfinite(x) && std::isfinite(y))
            path.append(at(x, y));
    p.setRenderHint(QPainter::Antialiasing, false); // thousands of points: a hair line, drawn fast
    p.setPen(QPen(t.second_ink, t.glare ? 2 : 0));
    p.drawPolyline(path);
    p.setRenderHint(QPainter::Antialiasing);
    for (std::size_t i = 1; i < o->size(); ++i) {
        const bool was = o->decisions(i - 1)[output()].on, is = o->decisions(i)[output()].on;
        if (was == is)
            continue;
        p.setPen(QPen(t.accent, 1.6));
        p.setBrush(is ? t.accent : t.card); // filled: starts, open: stops
        p.drawEllipse(at(o->reading_c(i, pr->store), o->reading_c(i, pr->source)), 4, 4);
    }
    if (o->size() > 0) {
        const std::size_t i = session_.cursor_index();
        p.setPen(QPen(t.card, 2));
        p.setBrush(t.collector);
        p.drawEllipse(at(o->reading_c(i, pr->store), o->reading_c(i, pr->source)), 7, 7);
    }
    p.restore();
}

void OperatingMap::paint_labels(QPainter& p) const
{
    const QRectF a = area();
    const QString key = qs(session_.document().variant().unit.outputs[output()].key);
    p.setFont(text_font(14, true));
    p.setPen(theme().accent);
    p.drawText(a.adjusted(10, 8, 0, 0), Qt::AlignLeft | Qt::AlignTop, tr("%1 runs").arg(key));
    p.setPen(theme().second_ink);
    p.drawText(a.adjusted(0, 0, -10, -8), Qt::AlignRight | Qt::AlignBottom, tr("%1 rests").arg(key));
    for (const Line& line : lines())
        if (line.key == "off_k" && line.kind == Line::level) {
            p.setFont(text_font(13));
            p.drawText(QPointF(a.left() + 10, at(lowest_store_c, lowest_store_c + line.value).y() + 16), plain_ ? QString() : tr("hatched: keeps doing what it did"));
            p.drawText(QPointF(a.left() + 10, a.bottom() - 12), tr("shaded: where it may really switch"));
        }
    if (dragged_) {
        p.setFont(number_font(14, true));
        const QString s = text(dragged_->value, dragged_->kind == Line::level || dragged_->key == "hysteresis_k" ? Quantity::difference : Quantity::temperature, session_.units());
        const QPointF h = handle(dragged_->rule, dragged_->key).value_or(a.center());
        const QRectF box(h.x() - 44, h.y() - 36, 88, 24);
        p.setPen(Qt::NoPen);
        p.setBrush(theme().ink);
        p.drawRoundedRect(box, 4, 4);
        p.setPen(theme().card);
        p.drawText(box, Qt::AlignCenter, s);
    }
}

void OperatingMap::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.fillRect(rect(), theme().desk);
    p.fillRect(area(), theme().card);
    if (!probes()) {
        p.drawText(area(), Qt::AlignCenter | Qt::TextWordWrap, tr("Add a Difference rule to see the map."));
        return;
    }
    paint_regions(p);
    paint_axes(p);
    const auto all = lines();
    for (const Line& line : all)
        paint_width(p, line);
    paint_path(p);
    int row = 0;
    for (const Line& line : all)
        paint_line(p, line, line.kind == Line::banner ? row++ : 0);
    paint_labels(p);
    p.setPen(QPen(theme().hairline, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(area());
}

const OperatingMap::Line* OperatingMap::near(const QPointF& pos, const std::vector<Line>& all) const
{
    const Line* best = nullptr;
    double nearest = grab_px;
    for (const Line& line : all) {
        if (line.kind == Line::banner)
            continue;
        const auto [from, to] = ends(line);
        if (const double d = distance_to_segment(pos, from, to); d < nearest) {
            nearest = d;
            best = &line;
        }
    }
    return best;
}

void OperatingMap::mousePressEvent(QMouseEvent* e)
{
    const auto all = lines();
    if (const Line* line = near(e->position(), all); line && e->button() == Qt::LeftButton) {
        dragged_ = *line;
        emit rule_touched(line->rule);
        update();
    }
}

void OperatingMap::mouseMoveEvent(QMouseEvent* e)
{
    if (dragged_)
        return drag_to(e->position());
    const auto all = lines();
    const Line* line = near(e->position(), all);
    setCursor(!line ? Qt::ArrowCursor : line->kind == Line::upright ? Qt::SplitHCursor
                                                                    : Qt::SplitVCursor);
}

void OperatingMap::drag_to(const QPointF& pos)
{
    Line& l = *dragged_;
    const double store = store_at(pos.x()), collector = collector_at(pos);
    double v = l.kind == Line::level ? collector - store : l.kind == Line::upright ? store
                                                                                   : collector;
    v = std::round(v * 10) / 10;
    if (l.key == "hysteresis_k") { // the release line: the limit less the hysteresis
        const auto limit = limit_of(session_.document().variant().unit.rules[l.rule]);
        v = std::max(0.1, limit->lower ? v - limit->limit.in_celsius() : limit->limit.in_celsius() - v);
    }
    l.value = l.key == "hysteresis_k" ? l.value : v;
    session_.document().edit_variant(
        tr("Drag %1").arg(l.key == "on_k" ? tr("start") : l.key == "off_k" ? tr("stop")
                                                                           : tr("limit")),
        [&](Variant& x) { drag_rule(x.unit, l.rule, l.key, v - l.offset); },
        QStringLiteral("drag%1%2").arg(l.rule).arg(qs(l.key)));
    update();
}

void OperatingMap::mouseReleaseEvent(QMouseEvent*)
{
    dragged_.reset();
    update();
}

} // namespace vernal
