#include "operating_map.h"

#include "app/shell/theme.h"
#include "map_painter.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <utility>

namespace vernal {

OperatingMap::OperatingMap(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    setObjectName("operatingMap");
    setAccessibleName(tr("Operating map: what the outputs do at each pair of temperatures"));
    setMouseTracking(true);
    setMinimumSize(300, 260);
    for (auto signal : {&Session::outcome_changed, &Session::cursor_changed, &Session::units_changed, &Session::audit_changed})
        connect(&session, signal, this, qOverload<>(&QWidget::update));
    connect(&session.document(), &Document::changed, this, &OperatingMap::refresh);
    connect(&session.document(), &Document::view_changed, this, &OperatingMap::refresh);
    refresh();
}

void OperatingMap::set_plain_axes(bool plain)
{
    plain_ = plain;
    place_labels();
}

void OperatingMap::set_output(std::size_t output)
{
    output_ = output;
    refresh();
}

// Labels are made anew only when other lines are there, so that one being typed in stays.
void OperatingMap::refresh()
{
    const auto now = lines();
    const bool same = std::equal(now.begin(), now.end(), labels_.begin(), labels_.end(), [](const MapLine& l, const MapLabel* label) { return l.rule == label->line().rule && l.field == label->line().field && l.kind == label->line().kind && l.sets == label->line().sets && l.probe == label->line().probe; });
    if (!same) {
        for (MapLabel* label : std::exchange(labels_, {})) {
            label->hide();
            label->deleteLater();
        }
        for (const MapLine& l : now) {
            auto* label = new MapLabel(session_, l, map_word(variant(), l), this);
            connect(label, &MapLabel::moved, this, [this, label](const MapLine& line, double to, int sitting) {
                if (std::find(labels_.begin(), labels_.end(), label) != labels_.end()) // one whose line is gone still speaks as it loses the focus
                    move(line, to, sitting);
            });
            connect(label, &MapLabel::grew, this, &OperatingMap::place_labels);
            labels_.push_back(label);
        }
    }
    for (std::size_t i = 0; i < now.size(); ++i)
        labels_[i]->show_line(now[i]);
    place_labels();
}

// Levels at the right, the others above the map; what would overlap gives way.
void OperatingMap::place_labels()
{
    constexpr int row_px = MapLabel::high_px + 2;
    constexpr std::size_t most_rows = 3;     // above the map; what has no room is dragged without its name
    const bool crowded = labels_.size() > 8; // release points give way
    std::vector<std::pair<double, MapLabel*>> right, above;
    for (int turn = 0; turn < 2; ++turn) { // the rows above decide where the map begins
        right.clear();
        above.clear();
        const MapGeometry g = geometry();
        for (MapLabel* label : labels_) {
            const MapLine& l = label->line();
            if (l.kind == MapLine::Kind::banner) {
                above.emplace_back(g.area.left(), label);
                continue;
            }
            const auto [from, to] = g.ends(l);
            if (const auto exit = g.exit_above(l); l.kind == MapLine::Kind::upright || exit)
                above.emplace_back(std::clamp(exit.value_or(from.x()), g.area.left(), g.area.right()), label);
            else
                right.emplace_back(std::clamp(to.y(), g.area.top(), g.area.bottom()), label);
        }
        std::sort(above.begin(), above.end());
        std::vector<double> ends; // of the rows
        for (auto& [x, label] : above) {
            const int wide = label->wide_px();
            const double left = std::clamp(x - wide / 2.0, 2.0, std::max(2.0, static_cast<double>(width() - wide - 2)));
            std::size_t row = 0;
            while (row < ends.size() && ends[row] > left)
                ++row;
            label->setVisible(row < most_rows && !(crowded && !label->line().sets));
            if (!label->isVisibleTo(this))
                continue;
            if (row == ends.size())
                ends.push_back(0);
            ends[row] = left + wide + 4;
            label->setGeometry(static_cast<int>(left), 2 + static_cast<int>(row) * row_px, wide, MapLabel::high_px);
        }
        top_px_ = 6 + static_cast<int>(ends.size()) * row_px;
        right_px_ = 12;
        for (const auto& [y, label] : right)
            right_px_ = std::max(right_px_, label->wide_px() + 6);
    }
    std::sort(right.begin(), right.end());
    const MapGeometry g = geometry();
    double next = g.area.top() - MapLabel::high_px / 2.0;
    for (auto& [y, label] : right)
        next = (y = std::max(y - MapLabel::high_px / 2.0, next)) + row_px;
    double last = g.area.bottom() + MapLabel::high_px;
    for (auto it = right.rbegin(); it != right.rend(); ++it)
        last = it->first = std::min(it->first, last - row_px);
    for (const auto& [y, label] : right) {
        label->setGeometry(static_cast<int>(g.area.right()) + 4, static_cast<int>(y), label->wide_px(), MapLabel::high_px);
        label->show();
    }
    update();
}

void OperatingMap::resizeEvent(QResizeEvent*) { place_labels(); }

std::size_t OperatingMap::output() const { return output_ < variant().unit.outputs.size() ? output_ : 0; }

std::vector<MapThird> OperatingMap::thirds() const { return map_thirds(variant(), map_axes(variant(), output())); }

QString OperatingMap::third_name(const Third& t) const
{
    if (t.kind == Third::probe)
        return qs(variant().probes[t.channel].name);
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

QString OperatingMap::third_text() const { return text(third_->value(third_share_), third_->quantity(), session_.units()); }

MapGeometry OperatingMap::geometry() const { return {QRectF(rect()).adjusted(52, top_px_, -right_px_, -76), plain_}; }

std::optional<QPointF> OperatingMap::handle(std::size_t rule, const std::string& field) const
{
    for (const MapLine& line : lines())
        if (line.rule == rule && line.field == field)
            return geometry().handle(line);
    return std::nullopt;
}

void OperatingMap::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    const MapGeometry g = geometry();
    p.fillRect(rect(), theme().desk);
    p.fillRect(g.area, theme().card);
    const auto axes = map_axes(variant(), output());
    if (!axes) {
        p.drawText(g.area, Qt::AlignCenter | Qt::TextWordWrap, tr("Add a Difference rule to see the map."));
        return;
    }
    const MapView view{variant(), output(), g, *axes, lines(), third_, third_share_};
    MapPainter(p, view, session_).paint();
    p.setPen(QPen(theme().hairline, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(g.area);
}

void OperatingMap::mousePressEvent(QMouseEvent* e)
{
    const auto all = lines();
    if (const MapLine* line = geometry().near(e->position(), all); line && e->button() == Qt::LeftButton) {
        dragged_ = *line;
        update();
    }
}

void OperatingMap::mouseMoveEvent(QMouseEvent* e)
{
    if (dragged_)
        return drag_to(e->position());
    if (to_switch_at(e->position()))
        return setCursor(Qt::PointingHandCursor);
    const auto all = lines();
    const MapLine* line = geometry().near(e->position(), all);
    setCursor(!line ? Qt::ArrowCursor : line->kind == MapLine::Kind::upright ? Qt::SplitHCursor
                                                                             : Qt::SplitVCursor);
}

// The pointer on a switching point of the day's path takes the cursor there.
bool OperatingMap::to_switch_at(const QPointF& pos)
{
    constexpr double near_px = 6;
    const auto& o = session_.outcome();
    const auto axes = map_axes(variant(), output());
    if (!o || !axes || o->size() == 0 || axes->source >= o->variant.probes.size() || axes->store >= o->variant.probes.size() || output() >= o->variant.unit.outputs.size())
        return false;
    const MapGeometry g = geometry();
    double best = near_px;
    std::optional<double> found;
    bool was = o->decisions(0)[output()].on;
    for (std::size_t i = 1; i < o->size(); ++i) {
        const bool is = o->decisions(i)[output()].on;
        if (was == is)
            continue;
        was = is;
        const QPointF d = g.at(o->reading(i, axes->store), o->reading(i, axes->source)) - pos;
        if (const double away = std::hypot(d.x(), d.y()); away < best) {
            best = away;
            found = o->time_s(i);
        }
    }
    if (found)
        session_.set_cursor(*found);
    return found.has_value();
}

// A place where the rule could not work is passed over: the line waits before it.
void OperatingMap::drag_to(const QPointF& pos) { move(*dragged_, geometry().value_at(dragged_->kind, pos), 0); }

void OperatingMap::move(const MapLine& l, double to, int sitting)
{
    Variant moved = variant();
    if (l.rule >= moved.unit.rules.size() || !move_line(moved, output(), l, to))
        return;
    const MapLine line = l; // the edit may make the label anew
    QString key = QStringLiteral("drag ") + qs(variant().unit.rules[line.rule].id + "/" + line.field);
    if (sitting != 0)
        key += lasting_merge(sitting);
    session_.document().edit_variant(
        tr("Drag %1").arg(line.role != MapLine::Role::collects ? tr("limit") : line.sets ? tr("start")
                                                                                         : tr("stop")),
        [&](Variant& x) { x = std::move(moved); }, key);
    if (dragged_)
        dragged_->value = to;
    update();
}

void OperatingMap::mouseReleaseEvent(QMouseEvent*)
{
    dragged_.reset();
    update();
}

} // namespace vernal
