#include "operating_map.h"

#include "app/shell/theme.h"
#include "map_painter.h"

#include <QMouseEvent>
#include <QPainter>

namespace vernal {

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

MapGeometry OperatingMap::geometry() const { return {QRectF(rect()).adjusted(58, 8, -18, -44), plain_}; }

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
    const MapView view{variant(), output(), g, *axes, lines(), third_, third_share_, dragged_};
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
        emit rule_touched(line->rule);
        update();
    }
}

void OperatingMap::mouseMoveEvent(QMouseEvent* e)
{
    if (dragged_)
        return drag_to(e->position());
    const auto all = lines();
    const MapLine* line = geometry().near(e->position(), all);
    setCursor(!line ? Qt::ArrowCursor : line->kind == MapLine::Kind::upright ? Qt::SplitHCursor
                                                                             : Qt::SplitVCursor);
}

// A place where the rule could not work is passed over: the line waits before it.
void OperatingMap::drag_to(const QPointF& pos)
{
    MapLine& l = *dragged_;
    Variant moved = variant();
    const double to = geometry().value_at(l.kind, pos);
    if (!move_line(moved, output(), l, to))
        return;
    l.value = to;
    session_.document().edit_variant(
        tr("Drag %1").arg(l.role != MapLine::Role::collects ? tr("limit") : l.sets ? tr("start")
                                                                                   : tr("stop")),
        [&](Variant& x) { x = std::move(moved); }, QStringLiteral("drag ") + qs(variant().unit.rules[l.rule].id + "/" + l.field));
    update();
}

void OperatingMap::mouseReleaseEvent(QMouseEvent*)
{
    dragged_.reset();
    update();
}

} // namespace vernal
