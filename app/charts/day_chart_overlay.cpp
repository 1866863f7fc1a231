// What lies above the curves and is painted without plotting them anew: their names,
// the hours, the cursor.
#include "day_chart.h"

#include "app/shell/theme.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr int name_px = 15; // of a curve's name

} // namespace

// Names stand at the height where their curves end, and give way to each other.
void DayChart::paint_ends(QPainter& p) const
{
    if (lanes_only_ || ends_.empty())
        return;
    std::vector<std::pair<double, const End*>> at;
    for (const End& e : ends_)
        at.emplace_back(axisRect()->axis(QCPAxis::atLeft)->coordToPixel(e.value), &e);
    std::sort(at.begin(), at.end());
    const double top = axisRect()->top() + 2, low = lanes_->bottom(); // beside the lanes there is room
    const double each = std::min<double>(name_px, (low - top) / static_cast<double>(at.size()));
    double next = top;
    for (auto& [y, end] : at)
        next = (y = std::max(y, next + each / 2)) + each / 2;
    double last = low;
    for (auto it = at.rbegin(); it != at.rend(); ++it)
        last = (it->first = std::min(it->first, last - each / 2)) - each / 2;
    p.setFont(text_font(12));
    const int x = axisRect()->right() + 4;
    for (const auto& [y, end] : at) {
        p.setRenderHint(QPainter::Antialiasing);
        p.setPen(end->pen);
        p.drawLine(QPointF(x, y), QPointF(x + sample_px - 5, y));
        p.setPen(theme().ink);
        p.drawText(QRectF(x + sample_px, y - 9, width() - x - sample_px, 18), Qt::AlignVCenter | Qt::AlignLeft, end->name);
    }
}

// At the right end of its lane, on a ground that lets the lane be seen.
void DayChart::paint_lane_scales(QPainter& p) const
{
    p.setFont(text_font(12));
    for (const auto& [lane, words] : lane_scales_) {
        const int w = p.fontMetrics().horizontalAdvance(words) + 8, h = std::min(lane_px() - 2, 16);
        const QRect box(lanes_->right() - w - 2, lanes_->top() + lane * lane_px() + (lane_px() - h) / 2, w, h);
        QColor ground = theme().card;
        ground.setAlpha(200);
        p.fillRect(box, ground);
        p.setPen(theme().ink);
        p.drawText(box, Qt::AlignCenter, words);
    }
}

// Midnight is the end of a single day, of several the beginning of the next.
QString DayChart::hour_text(double clock_s) const
{
    constexpr double day_s = 86400;
    if (clock_s < (session_.several_days() ? 0 : day_s) || std::fmod(clock_s, day_s) != 0)
        return qs(clock_text(clock_s));
    const auto& o = session_.outcome();
    const bool ends = !session_.several_days() || clock_s > o->start_s() + o->time_s(o->size() - 1) - 1;
    return ends ? QStringLiteral("24:00") : tr("day %1").arg(std::lround(clock_s / day_s) + 1);
}

// The hours, but where the cursor's own stands.
void DayChart::paint_hours(QPainter& p) const
{
    const Hours h = hours();
    const QCPAxis* axis = lanes_->axis(QCPAxis::atBottom);
    const double start = session_.outcome() ? session_.outcome()->start_s() : 0;
    const double now = axis->coordToPixel(session_.cursor_s() + start);
    p.setFont(text_font(12));
    p.setPen(theme().second_ink);
    for (double t = std::ceil(h.from / h.step) * h.step; t <= h.to + 1; t += h.step) {
        const double x = axis->coordToPixel(t);
        if (std::fabs(x - now) < (session_.several_days() ? 68 : 46))
            continue;
        p.drawText(QRectF(x - 30, lanes_->bottom() + 2, 60, axis_px - 3), Qt::AlignHCenter | Qt::AlignTop, hour_text(t));
    }
}

// The unit above the numbers, the sun's ground named.
void DayChart::paint_tags(QPainter& p) const
{
    if (lanes_only_)
        return;
    p.setFont(text_font(12));
    p.setPen(theme().second_ink);
    p.drawText(QRectF(0, axisRect()->top() - 4, left_px - 24, 16), Qt::AlignLeft | Qt::AlignVCenter, qs(unit_name(Quantity::temperature, session_.units())));
}

void DayChart::paint_cursor(QPainter& p) const
{
    const double at = session_.cursor_s() + (session_.outcome() ? session_.outcome()->start_s() : 0);
    const double x = axisRect()->axis(QCPAxis::atBottom)->coordToPixel(at);
    if (x < axisRect()->left() - 1 || x > axisRect()->right() + 1)
        return;
    const Theme& t = theme();
    p.setRenderHint(QPainter::Antialiasing, false);
    p.setPen(QPen(t.ink, t.line_px));
    p.drawLine(QPointF(x, axisRect()->top()), QPointF(x, lanes_->bottom() + 2));
    const double wide = session_.several_days() ? 88 : 44;
    const QRectF box(std::clamp(x - wide / 2, 0.0, width() - wide - 2), lanes_->bottom() + 2, wide, axis_px - 4);
    p.fillRect(box, t.ink);
    p.setPen(t.card);
    p.setFont(text_font(12, true));
    p.drawText(box, Qt::AlignCenter, session_.cursor_text());
}

} // namespace vernal
