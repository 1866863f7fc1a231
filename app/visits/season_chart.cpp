#include "season_chart.h"

#include "app/shell/session.h"
#include "app/shell/theme.h"
#include "core/units/calendar.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

QColor colour_of(const std::string& key)
{
    const Theme& t = theme();
    return key == "pressure" || key == "flow" ? t.store_bottom : key == "starts" || key == "hours" || key == "battery" ? t.store_top
                                                                                                                       : t.collector;
}

QString number(double v) { return QString::number(v, 'f', std::fabs(v) < 10 ? 1 : 0); }

} // namespace

SeasonChart::SeasonChart(SeasonCourse course, QWidget* parent) : QWidget(parent), course_(std::move(course))
{
    setMinimumHeight(96);
    setAccessibleName(qs(course_.title));
    setAccessibleDescription(qs(course_.says));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void SeasonChart::paintEvent(QPaintEvent*)
{
    const auto& points = course_.points;
    if (points.empty())
        return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    const double left = 38, right = width() - 44.0, top = 8, bottom = height() - 20.0;
    double low = points[0].value, high = low;
    for (const SeasonPoint& x : points) {
        low = std::min(low, x.value);
        high = std::max(high, x.value);
    }
    const double room = std::max({0.15 * (high - low), 0.02 * std::fabs(high), 1e-6});
    low -= room;
    high += room;
    const double from = points.front().day, to = std::max(points.back().day, from + 1);
    const auto at = [&](const SeasonPoint& s) { return QPointF(left + (s.day - from) / (to - from) * (right - left), bottom - (s.value - low) / (high - low) * (bottom - top)); };
    if (std::isfinite(course_.usual_low)) {
        const double y1 = bottom - (std::min(course_.usual_high, high) - low) / (high - low) * (bottom - top), y2 = bottom - (std::max(course_.usual_low, low) - low) / (high - low) * (bottom - top);
        p.fillRect(QRectF(left, y1, right - left, std::max(3.0, y2 - y1)), t.accent_ground);
    }
    p.setFont(text_font(12));
    // Where years begin.
    const std::chrono::year_month_day first{Day1970{std::chrono::days(static_cast<long>(from))}};
    for (int y = static_cast<int>(first.year()) + 1;; ++y) {
        const double day = static_cast<double>(Day1970{std::chrono::year{y} / 1 / 1}.time_since_epoch().count());
        if (day > to)
            break;
        const double x = left + (day - from) / (to - from) * (right - left);
        p.setPen(QPen(t.hairline, 1, Qt::DotLine));
        p.drawLine(QPointF(x, top), QPointF(x, bottom));
        p.setPen(t.second_ink);
        if (x < right - 16)
            p.drawText(QRectF(x - 24, bottom + 2, 48, 16), Qt::AlignCenter, QString::number(y));
    }
    p.setPen(QPen(t.hairline, 1));
    p.drawLine(QPointF(left, bottom), QPointF(right, bottom));
    QPainterPath path(at(points.front()));
    for (const SeasonPoint& s : points)
        path.lineTo(at(s));
    p.setPen(QPen(colour_of(course_.key), t.line_px + 0.2));
    p.setBrush(Qt::NoBrush);
    p.drawPath(path);
    p.setBrush(colour_of(course_.key));
    for (const SeasonPoint& s : points)
        p.drawEllipse(at(s), 2.2, 2.2);
    p.setPen(t.second_ink);
    p.drawText(QRectF(0, top - 6, left - 5, 16), Qt::AlignRight | Qt::AlignVCenter, number(high - room));
    p.drawText(QRectF(0, bottom - 12, left - 5, 16), Qt::AlignRight | Qt::AlignVCenter, number(low + room));
    p.setPen(t.ink);
    p.setFont(text_font(13, true));
    p.drawText(QRectF(right + 5, at(points.back()).y() - 9, 40, 18), Qt::AlignLeft | Qt::AlignVCenter, number(points.back().value));
}

} // namespace vernal
