#include "live_threads.h"

#include "app/rules/knot_paint.h"
#include "app/shell/session.h"
#include "app/shell/theme.h"

#include <QHelpEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr int row_px = 22, column_px = 22, head_px = 18;

} // namespace

LiveThreads::LiveThreads(QWidget* parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("liveThreads"));
    setAccessibleName(tr("Threads: which rule decides for each output"));
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
}

QSize LiveThreads::sizeHint() const { return {180, head_px + row_px * static_cast<int>(rows_.size()) + 4}; }

void LiveThreads::show_rig(const Rig& rig)
{
    const Simulation& s = rig.simulation();
    const RuleSet& unit = rig.variant().unit;
    std::vector<Row> rows;
    for (const Rule& r : unit.rules)
        rows.push_back({QString::fromUtf8(kind_of(r).title), std::vector<Knot>(unit.outputs.size(), Knot::none)});
    std::vector<Decision> decisions;
    QStringList keys;
    for (std::size_t o = 0; o < unit.outputs.size(); ++o) {
        decisions.push_back(rig.decision(o));
        keys << qs(unit.outputs[o].key);
        const auto all = knots(unit, s.program(), s.setup().out_of_action, s.inputs(), s.engine(), rig.decision(o), o);
        for (std::size_t r = 0; r < all.size() && r < rows.size(); ++r)
            rows[r].knots[o] = all[r];
    }
    std::erase_if(rows, [](const Row& r) { return std::all_of(r.knots.begin(), r.knots.end(), [](Knot k) { return k == Knot::none || k == Knot::out; }); });
    const bool taller = rows.size() != rows_.size();
    rows_ = std::move(rows);
    decisions_ = std::move(decisions);
    keys_ = keys;
    if (taller)
        updateGeometry();
    update();
}

QPointF LiveThreads::at(std::size_t row, std::size_t output) const { return {column_px * (static_cast<double>(output) + 0.5), head_px + row_px * (static_cast<double>(row) + 0.5)}; }

void LiveThreads::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    p.setFont(text_font(12, true));
    const int left = column_px * static_cast<int>(decisions_.size()) + 4, foot = head_px + row_px * static_cast<int>(rows_.size());
    for (std::size_t o = 0; o < decisions_.size(); ++o) {
        const QPointF top = at(0, o);
        p.setPen(t.ink);
        p.drawText(QRectF(column_px * static_cast<double>(o), 0, column_px, head_px), Qt::AlignCenter, keys_[static_cast<int>(o)]);
        double from = decisions_[o].rule < 0 && decisions_[o].priority != Priority::nothing ? head_px : foot; // a switch, a fault, the wait after power
        for (std::size_t r = 0; r < rows_.size(); ++r)
            if (rows_[r].knots[o] == Knot::decides)
                from = std::min(from, at(r, o).y());
        p.setPen(QPen(t.hairline, thin_thread_px));
        p.drawLine(QPointF(top.x(), head_px), QPointF(top.x(), from));
        p.setPen(QPen(thread_colour(decisions_[o]), from < foot ? thick_thread_px : thin_thread_px));
        p.drawLine(QPointF(top.x(), from), QPointF(top.x(), foot));
        for (std::size_t r = 0; r < rows_.size(); ++r)
            paint_knot(p, at(r, o), rows_[r].knots[o], decisions_[o].on);
    }
    for (std::size_t r = 0; r < rows_.size(); ++r) {
        const bool decides = std::find(rows_[r].knots.begin(), rows_[r].knots.end(), Knot::decides) != rows_[r].knots.end();
        const QRect line(left, head_px + row_px * static_cast<int>(r), width() - left, row_px);
        p.setFont(text_font(13, decides));
        p.setPen(decides ? t.ink : t.second_ink);
        p.drawText(line, Qt::AlignVCenter | Qt::AlignLeft, p.fontMetrics().elidedText(rows_[r].title, Qt::ElideRight, line.width()));
    }
}

bool LiveThreads::event(QEvent* e)
{
    if (e->type() == QEvent::ToolTip) {
        const QPoint pos = static_cast<QHelpEvent*>(e)->pos();
        const int r = (pos.y() - head_px) / row_px, o = pos.x() / column_px;
        if (pos.y() >= head_px && r < static_cast<int>(rows_.size()) && o < static_cast<int>(decisions_.size()) && rows_[static_cast<std::size_t>(r)].knots[static_cast<std::size_t>(o)] != Knot::none)
            QToolTip::showText(static_cast<QHelpEvent*>(e)->globalPos(), tr("%1 for %2: %3").arg(rows_[static_cast<std::size_t>(r)].title, keys_[o], QString::fromUtf8(knot_text(rows_[static_cast<std::size_t>(r)].knots[static_cast<std::size_t>(o)]))), this);
        else
            QToolTip::hideText();
        return true;
    }
    return QWidget::event(e);
}

} // namespace vernal
