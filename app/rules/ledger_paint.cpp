// How the ledger draws its lines, threads and knots.
#include "knot_paint.h"
#include "ledger.h"

#include "app/shell/theme.h"

#include <QHelpEvent>
#include <QPainter>
#include <QScrollArea>
#include <QToolTip>

#include <algorithm>

namespace vernal {
Knot Ledger::knot(const Row& row, std::size_t output) const
{
    Knot most = Knot::none;
    for (std::size_t rule : row.rules)
        if (output < knots_.size() && rule < knots_[output].size())
            most = std::max(most, knots_[output][rule]);
    return most;
}

QColor Ledger::colour_of(std::size_t output) const
{
    const auto& o = session_.outcome();
    if (!o || o->size() == 0 || output >= o->variant.unit.outputs.size())
        return theme().air;
    return thread_colour(o->decisions(session_.cursor_index())[output]);
}

// From the rule that decides the thread is thick; from the head, where no rule does.
void Ledger::paint_thread(QPainter& p, std::size_t output) const
{
    const double x = threads().centre(output);
    const auto& o = session_.outcome();
    const bool known = o && o->size() > 0 && output < o->variant.unit.outputs.size();
    const Decision d = known ? o->decisions(session_.cursor_index())[output] : Decision{};
    int from = sheet_->height();
    for (const Row& row : rows_)
        if (knot(row, output) == Knot::decides)
            from = std::min(from, row.at.center().y());
    if (known && d.rule < 0 && d.priority != Priority::nothing)
        from = 0; // a switch, a fault, the wait after power
    p.setPen(QPen(theme().hairline, thin_thread_px));
    p.drawLine(QPointF(x, 0), QPointF(x, from));
    p.setPen(QPen(colour_of(output), from < sheet_->height() ? thick_thread_px : thin_thread_px));
    p.drawLine(QPointF(x, from), QPointF(x, sheet_->height()));
    for (const Row& row : rows_)
        paint_knot(p, QPointF(x, row.at.center().y() + 0.5), knot(row, output), d.on);
}

void Ledger::paint_sheet()
{
    QPainter p(sheet_);
    const Theme& t = theme();
    const int edge = threads().left();
    p.setPen(t.hairline);
    for (const Rank& r : ranks_)
        p.drawLine(0, r.at.top(), sheet_->width(), r.at.top());
    p.drawLine(0, sheet_->height() - 1, sheet_->width(), sheet_->height() - 1);
    p.drawLine(rank_px - 2, 0, rank_px - 2, sheet_->height());
    p.setFont(text_font(13));
    for (const Row& row : rows_) {
        p.setPen(QPen(t.hairline, 1, Qt::DotLine));
        if (std::none_of(ranks_.begin(), ranks_.end(), [&](const Rank& r) { return r.at.top() == row.at.top(); }))
            p.drawLine(rank_px - 2, row.at.top(), edge, row.at.top());
        if (row.line)
            continue;
        p.setPen(t.second_ink);
        p.drawText(row.at.adjusted(18, 0, 0, 0), Qt::AlignVCenter, row.rules.size() == 1 ? tr("1 rule, folded") : tr("%1 rules, folded").arg(row.rules.size()));
    }
    p.setRenderHint(QPainter::Antialiasing);
    for (std::size_t k = 0; k < keys_.size(); ++k)
        paint_thread(p, k);
}

// At the foot of each thread what the output does.
void Ledger::paint_outcome(QPainter& p, const QRect& area) const
{
    const Theme& t = theme();
    const ThreadColumns columns = threads();
    const auto& o = session_.outcome();
    for (std::size_t k = 0; k < keys_.size(); ++k) {
        const bool known = o && o->size() > 0 && k < o->variant.unit.outputs.size();
        const Decision d = known ? o->decisions(session_.cursor_index())[k] : Decision{};
        const QRect box(columns.centre(k) - columns.each() / 2 + 1, area.top() + 6, columns.each() - 2, columns.each() > 30 ? 36 : 26);
        p.setPen(QPen(colour_of(k), known ? 3 : 1));
        p.drawLine(columns.centre(k), area.top(), columns.centre(k), box.top());
        p.setPen(QPen(d.on ? t.accent : t.hairline, 1));
        p.setBrush(d.on ? t.accent : t.card);
        p.drawRect(box);
        p.setPen(d.on ? t.card : t.second_ink);
        p.setFont(text_font(columns.each() > 40 ? 13 : 12, d.on));
        const bool slower = d.on && d.speed_pm < full_speed;
        const QString word = columns.each() > 40 ? (d.on ? tr("runs") : tr("rests")) : d.on ? tr("on")
                                                                                            : tr("off");
        p.drawText(box, Qt::AlignCenter, !known ? QStringLiteral("–") : slower && columns.each() > 40 ? word + QLatin1Char('\n') + text(d.speed_pm / 1000.0, Quantity::ratio, session_.units())
                                                                                                      : word);
    }
}

bool Ledger::eventFilter(QObject* watched, QEvent* e)
{
    if (e->type() == QEvent::Paint && watched == sheet_) {
        paint_sheet();
        return true;
    }
    if (e->type() == QEvent::Paint && watched == foot_) {
        QPainter p(foot_);
        paint_outcome(p, foot_->rect());
        return true;
    }
    if (e->type() == QEvent::Paint && watched == head_) {
        QPainter p(head_);
        p.setPen(theme().second_ink);
        p.setFont(text_font(13));
        p.drawText(head_->rect().adjusted(rank_px + 18, 0, 0, 0), Qt::AlignVCenter | Qt::AlignLeft, tr("the higher line wins"));
        return true;
    }
    if (e->type() == QEvent::ToolTip && watched == sheet_) {
        const auto* help = static_cast<QHelpEvent*>(e);
        const ThreadColumns columns = threads();
        const auto& rules = session_.document().variant().unit.rules;
        for (const Row& row : rows_)
            for (std::size_t k = 0; k < keys_.size(); ++k)
                if (std::abs(help->pos().x() - columns.centre(k)) <= columns.each() / 2 && help->pos().y() >= row.at.top() && help->pos().y() < row.at.bottom() && knot(row, k) != Knot::none && !row.rules.empty() && row.rules.front() < rules.size()) {
                    QToolTip::showText(help->globalPos(), tr("%1 for %2: %3").arg(QString::fromUtf8(kind_of(rules[row.rules.front()]).title), keys_[k]->text(), QString::fromUtf8(knot_text(knot(row, k)))), sheet_);
                    return true;
                }
        QToolTip::hideText();
        return true;
    }
    return QFrame::eventFilter(watched, e);
}

} // namespace vernal
