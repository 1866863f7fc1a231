#include "day_picture.h"

#include "app/shell/theme.h"
#include "core/setup/job_setup.h"

#include <QDate>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr int above_px = 8; // of a picture, free
constexpr QSize picture_size = day_picture_size;

void paint_curve(QPainter& p, const std::vector<double>& v, double lo, double hi, const QColor& colour, bool fill)
{
    if (v.size() < 2)
        return;
    constexpr std::size_t most_points = 4000; // of a picture this small
    const std::size_t every = v.size() / most_points + 1;
    QPolygonF line;
    for (std::size_t i = 0; i < v.size(); i += every)
        if (std::isfinite(v[i]))
            line.append(QPointF(static_cast<double>(i) / static_cast<double>(v.size() - 1) * picture_size.width(), picture_size.height() - 2 - (v[i] - lo) / std::max(1e-9, hi - lo) * (picture_size.height() - above_px - 6)));
    if (fill) {
        line.prepend(QPointF(0, picture_size.height()));
        line.append(QPointF(picture_size.width(), picture_size.height()));
        p.setPen(Qt::NoPen);
        p.setBrush(colour);
        p.drawPolygon(line);
    } else {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(colour, 1.4));
        p.drawPolyline(line);
    }
}

} // namespace

QIcon day_picture(const Job& job, const Day& day)
{
    QPixmap map(picture_size);
    map.fill(Qt::transparent);
    QPainter p(&map);
    p.fillRect(QRect(QPoint(0, above_px), picture_size), theme().surface);
    p.setRenderHint(QPainter::Antialiasing);
    const auto icon = [&] { // a chosen day is not tinted
        p.end();
        QIcon out(map);
        out.addPixmap(map, QIcon::Selected);
        return out;
    };
    if (day.kind == DayKind::recorded) {
        if (const auto it = job.traces.find(day.trace); it != job.traces.end())
            for (const TraceColumn& c : it->second->columns)
                if (c.quantity == Quantity::temperature)
                    paint_curve(p, c.values, 0, 90, c.name == "collector" ? theme().collector : theme().store_bottom, false);
        return icon();
    }
    std::vector<double> sun, air;
    if (job.traces.count(day.trace) != 0) { // its weather is a file's
        Day first = day;
        first.length_days = 1;
        const auto weather = weather_of(job, job.variants.front(), first).days.front();
        paint_curve(p, weather->plane_w_m2, 0, 1100, theme().sun, true);
        paint_curve(p, weather->air_c, -20, 40, theme().second_ink, false);
        return icon();
    }
    const SkyDay sky = generate(day.sky, job.site.place);
    for (std::size_t m = 0; m < sky.air_c.size(); m += 8) {
        sun.push_back(on_plane({sky.beam_normal_w_m2[m], sky.diffuse_horizontal_w_m2[m]}, sky.sun[m], 40, 0).beam_w_m2 + sky.diffuse_horizontal_w_m2[m]);
        air.push_back(sky.air_c[m]);
    }
    paint_curve(p, sun, 0, 1100, theme().sun, true);
    paint_curve(p, air, -20, 40, theme().second_ink, false);
    return icon();
}

QStringList sky_names()
{
    return {QObject::tr("clear"), QObject::tr("racing clouds"), QObject::tr("broken clouds"), QObject::tr("overcast"), QObject::tr("thin high haze"), QObject::tr("fog, then clear"), QObject::tr("thunderstorm")};
}

QString day_line(const Day& d, const Units& u)
{
    if (d.kind == DayKind::recorded)
        return QObject::tr("recorded, %1").arg(qs(d.trace));
    const QString date = QDate(d.sky.year, d.sky.month, d.sky.day).toString(QStringLiteral("d MMM"));
    if (!d.trace.empty())
        return QObject::tr("%1, weather of %2").arg(date, qs(d.trace));
    return QObject::tr("%1, %2\n%3 … %4").arg(d.length_days > 1 ? QObject::tr("%1 days from %2").arg(d.length_days).arg(date) : date, sky_names().at(static_cast<int>(d.sky.clouds)), text(d.sky.air_min_c, Quantity::temperature, u), text(d.sky.air_max_c, Quantity::temperature, u));
}

} // namespace vernal
