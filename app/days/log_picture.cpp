#include "log_picture.h"

#include "app/shell/session.h"
#include "app/shell/theme.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double margin_left = 46, margin_right = 132, lane_px = 14, top_px = 8, foot_px = 20;

struct Line {
    const TraceColumn* column;
    QColor colour;
    Qt::PenStyle style;
};

Line line_of(const TraceColumn& c)
{
    if (c.name == "collector")
        return {&c, theme().collector, Qt::SolidLine};
    if (c.name == "tank_bottom")
        return {&c, theme().store_bottom, Qt::SolidLine};
    if (c.name == "tank_top")
        return {&c, theme().store_top, Qt::DashLine};
    if (c.name == "air")
        return {&c, theme().air, Qt::SolidLine};
    return {&c, theme().second_ink, Qt::DotLine};
}

bool is_lane(const TraceColumn& c)
{
    return c.quantity == Quantity::number && std::all_of(c.values.begin(), c.values.end(), [](double v) { return !std::isfinite(v) || v == 0 || v == 1; });
}

} // namespace

LogPicture::LogPicture(QWidget* parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("logPicture"));
    setMinimumHeight(90);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void LogPicture::show(const Trace& trace)
{
    trace_ = trace;
    QStringList names;
    for (const TraceColumn& c : trace_.columns)
        names << qs(c.name);
    setAccessibleName(tr("First rows of the log: %1").arg(names.join(QStringLiteral(", "))));
    update();
}

void LogPicture::show_nothing() { show({}); }

// Temperatures share one scale; every other column has one of its own, its name says so at its end.
void LogPicture::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.fillRect(rect(), theme().card);
    p.setPen(theme().hairline);
    p.drawRect(rect().adjusted(0, 0, -1, -1));
    if (trace_.time_s.size() < 2)
        return;
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(text_font(12));
    std::vector<Line> lines;
    std::vector<const TraceColumn*> lanes;
    double low = INFINITY, high = -INFINITY;
    for (const TraceColumn& c : trace_.columns) {
        if (is_lane(c)) {
            lanes.push_back(&c);
            continue;
        }
        lines.push_back(line_of(c));
        if (c.quantity == Quantity::temperature)
            for (const double v : c.values)
                if (std::isfinite(v)) {
                    low = std::min(low, v);
                    high = std::max(high, v);
                }
    }
    const double t0 = trace_.time_s.front(), t1 = trace_.time_s.back(), w = width() - margin_left - margin_right, h = height() - top_px - foot_px - lane_px * static_cast<double>(std::min<std::size_t>(lanes.size(), 4));
    const auto x_of = [&](double t) { return margin_left + w * (t - t0) / std::max(1e-9, t1 - t0); };
    struct Name {
        double y;
        QColor colour;
        QString text;
    };
    std::vector<Name> names;
    for (const Line& line : lines) {
        double lo = low, hi = high;
        if (line.column->quantity != Quantity::temperature) {
            lo = INFINITY, hi = -INFINITY;
            for (const double v : line.column->values)
                if (std::isfinite(v)) {
                    lo = std::min(lo, v);
                    hi = std::max(hi, v);
                }
        }
        if (!(hi >= lo))
            continue;
        const auto y_of = [&, span = std::max(1e-9, hi - lo)](double v) { return top_px + h * (1 - (v - lo) / span); };
        QPolygonF points;
        double last_y = top_px + h / 2;
        p.setPen(QPen(line.colour, 1.4, line.style));
        for (std::size_t i = 0; i <= line.column->values.size(); ++i) {
            const bool there = i < line.column->values.size() && std::isfinite(line.column->values[i]);
            if (there) {
                last_y = y_of(line.column->values[i]);
                points.append({x_of(trace_.time_s[i]), last_y});
            } else if (!points.isEmpty()) {
                p.drawPolyline(points);
                points.clear();
            }
        }
        names.push_back({last_y, line.colour == theme().air ? theme().second_ink : line.colour, qs(line.column->name)});
    }
    // Names stand at the ends of their lines, moved apart where those meet, upwards from the foot.
    constexpr double name_px = 14;
    std::stable_sort(names.begin(), names.end(), [](const Name& a, const Name& b) { return a.y > b.y; });
    double lowest = top_px + h - 7;
    for (const Name& name : names) {
        lowest = std::min(lowest, name.y);
        p.setPen(name.colour);
        p.drawText(QRectF(width() - margin_right + 6, lowest - 7, margin_right - 8, 15), Qt::AlignLeft | Qt::AlignVCenter, p.fontMetrics().elidedText(name.text, Qt::ElideRight, static_cast<int>(margin_right) - 8));
        lowest -= name_px;
    }
    if (std::isfinite(low)) {
        p.setPen(theme().second_ink);
        p.drawText(QRectF(2, top_px - 2, margin_left - 6, 15), Qt::AlignRight, QStringLiteral("%1 °C").arg(high, 0, 'f', 0));
        p.drawText(QRectF(2, top_px + h - 13, margin_left - 6, 15), Qt::AlignRight, QStringLiteral("%1").arg(low, 0, 'f', 0));
    }
    for (std::size_t k = 0; k < std::min<std::size_t>(lanes.size(), 4); ++k) {
        const double y = top_px + h + 2 + lane_px * static_cast<double>(k);
        p.setPen(theme().second_ink);
        p.drawText(QRectF(width() - margin_right + 6, y - 2, margin_right - 8, 15), Qt::AlignLeft | Qt::AlignVCenter, qs(lanes[k]->name));
        for (std::size_t i = 0; i + 1 < trace_.time_s.size(); ++i)
            if (lanes[k]->values[i] == 1)
                p.fillRect(QRectF(x_of(trace_.time_s[i]), y + 2, std::max(1.0, x_of(trace_.time_s[i + 1]) - x_of(trace_.time_s[i])), 8), theme().accent);
    }
    p.setPen(theme().second_ink);
    p.drawText(QRectF(margin_left, height() - 17, w, 15), Qt::AlignLeft, clock_text(trace_.clock_s() + t0).c_str());
    p.drawText(QRectF(margin_left, height() - 17, w, 15), Qt::AlignRight, clock_text(trace_.clock_s() + t1).c_str());
}

} // namespace vernal
