#include "horizon_picture.h"

#include "app/shell/theme.h"
#include "core/weather/zone.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double side_deg = 150, top_deg = 75; // shown
constexpr double near_px = 12;
constexpr int left_px = 30, bottom_px = 22, edge_px = 8;

} // namespace

HorizonPicture::HorizonPicture(QWidget* parent) : QWidget(parent)
{
    setObjectName("horizonPicture");
    setAccessibleName(tr("Horizon and the ways of the sun"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setMinimumHeight(sizeHint().height());
    setToolTip(tr("Click to set a point, drag it, Delete or right click to take it away"));
}

void HorizonPicture::show_line(const Place& place, const SkySpec& day, const std::vector<HorizonPoint>& line)
{
    place_ = place;
    day_ = day;
    if (line != line_ && !held_)
        chosen_.reset();
    line_ = line;
    update();
}

QRectF HorizonPicture::field() const { return QRectF(rect()).adjusted(left_px, edge_px, -edge_px, -bottom_px); }

QPointF HorizonPicture::at(double azimuth_deg, double height_deg) const
{
    const QRectF f = field();
    return {f.center().x() + std::remainder(azimuth_deg - middle_deg(), 360.0) / side_deg * f.width() / 2, f.bottom() - height_deg / top_deg * f.height()};
}

HorizonPoint HorizonPicture::under(const QPointF& pos) const
{
    const QRectF f = field();
    const double azimuth = std::clamp((pos.x() - f.center().x()) / f.width() * 2, -1.0, 1.0) * side_deg + middle_deg();
    return {std::round(std::remainder(azimuth, 360.0)), std::round(std::clamp((f.bottom() - pos.y()) / f.height(), 0.0, 1.0) * top_deg)};
}

std::optional<std::size_t> HorizonPicture::point_at(const QPointF& pos) const
{
    std::optional<std::size_t> best;
    double nearest = near_px;
    for (std::size_t i = 0; i < line_.size(); ++i)
        if (const double d = QLineF(at(line_[i].azimuth_deg, line_[i].height_deg), pos).length(); d < nearest) {
            nearest = d;
            best = i;
        }
    return best;
}

void HorizonPicture::remove(std::size_t point)
{
    line_.erase(line_.begin() + static_cast<std::ptrdiff_t>(point));
    chosen_.reset();
    emit changed(line_, false);
}

void HorizonPicture::mousePressEvent(QMouseEvent* e)
{
    const auto found = point_at(e->position());
    if (e->button() == Qt::RightButton && found)
        return remove(*found);
    if (e->button() != Qt::LeftButton)
        return;
    held_ = true;
    chosen_ = found;
    if (!found) {
        line_.push_back(under(e->position()));
        chosen_ = line_.size() - 1;
        emit changed(line_, true);
    }
    update();
}

void HorizonPicture::mouseMoveEvent(QMouseEvent* e)
{
    const HorizonPoint here = under(e->position());
    emit pointed(tr("azimuth %1°, height %2°").arg(here.azimuth_deg).arg(here.height_deg));
    if (!held_ || !chosen_ || *chosen_ >= line_.size() || line_[*chosen_] == here)
        return;
    line_[*chosen_] = here;
    emit changed(line_, true);
    update();
}

void HorizonPicture::mouseReleaseEvent(QMouseEvent* e)
{
    if (!held_ || e->button() != Qt::LeftButton)
        return;
    held_ = false;
    emit changed(line_, false);
}

void HorizonPicture::keyPressEvent(QKeyEvent* e)
{
    if ((e->key() == Qt::Key_Delete || e->key() == Qt::Key_Backspace) && chosen_ && *chosen_ < line_.size())
        return remove(*chosen_);
    QWidget::keyPressEvent(e);
}

void HorizonPicture::leaveEvent(QEvent*) { emit pointed({}); }

void HorizonPicture::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(field(), theme().card);
    p.save();
    p.setClipRect(field());
    paint_ground(p);
    paint_ways(p);
    p.restore();
    paint_axes(p);
    for (std::size_t i = 0; i < line_.size(); ++i) {
        p.setPen(QPen(theme().ink, 1.5));
        p.setBrush(chosen_ == i ? theme().accent : theme().card);
        p.drawEllipse(at(line_[i].azimuth_deg, line_[i].height_deg), 5, 5);
    }
    if (hasFocus()) {
        p.setPen(QPen(theme().accent, 1.5));
        p.setBrush(Qt::NoBrush);
        p.drawRect(field());
    }
}

void HorizonPicture::paint_ground(QPainter& p) const
{
    const QRectF f = field();
    QPolygonF ground{f.bottomLeft()};
    const int steps = static_cast<int>(f.width());
    for (int i = 0; i <= steps; ++i) {
        const double azimuth = middle_deg() + side_deg * (2.0 * i / steps - 1);
        ground.append({f.left() + i, at(0, horizon_at(line_, azimuth)).y()});
    }
    ground.append(f.bottomRight());
    p.setPen(QPen(theme().second_ink, 1.5));
    p.setBrush(theme().desk);
    p.drawPolygon(ground);
}

// The longest, the middle and the shortest day, and the chosen one with its hours.
void HorizonPicture::paint_ways(QPainter& p) const
{
    for (int month : {6, 9, 12})
        paint_way(p, {day_.year, month, 21}, QPen(theme().hairline.darker(115), 1.2, Qt::DashLine), false);
    paint_way(p, QDate(day_.year, day_.month, 1).addDays(day_.day - 1), QPen(theme().caution, 2), true);
}

void HorizonPicture::paint_way(QPainter& p, const QDate& date, const QPen& pen, bool hours) const
{
    const double midnight = days_since_j2000(date.year(), date.month(), date.day(), -clock_ahead_h(place_, date.year(), date.month(), date.day()));
    QPolygonF way;
    p.setFont(text_font(12));
    for (int minute = 0; minute <= minutes_per_day; minute += 5) {
        const SunPosition sun = sun_position(place_, midnight + minute / static_cast<double>(minutes_per_day));
        const double height = 90 - sun.zenith_deg;
        const QPointF here = at(sun.azimuth_deg, std::max(height, -2.0));
        const bool leaps = !way.isEmpty() && std::fabs(way.back().x() - here.x()) > field().width() / 2; // round the back
        if (height < -2 || leaps) {
            p.setPen(pen);
            p.drawPolyline(way);
            way.clear();
            continue;
        }
        way.append(here);
        if (hours && minute % 180 == 0 && height > 3) {
            p.setPen(theme().ink);
            const bool rises = here.x()<field().center().x() - 20, sinks = here.x()> field().center().x() + 20; // beside its way, outside
            const Qt::AlignmentFlag side = rises ? Qt::AlignRight : sinks ? Qt::AlignLeft
                                                                          : Qt::AlignHCenter;
            p.drawText(QRectF(here.x() + (rises ? -50 : sinks ? 8
                                                              : -24),
                           here.y() - (rises || sinks ? 12 : 22), 44, 16),
                static_cast<int>(side) | static_cast<int>(Qt::AlignVCenter), QStringLiteral("%1:00").arg(minute / 60));
            p.setBrush(theme().caution);
            p.setPen(Qt::NoPen);
            p.drawEllipse(here, 3, 3);
        }
    }
    p.setPen(pen);
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(way);
}

void HorizonPicture::paint_axes(QPainter& p) const
{
    const QRectF f = field();
    p.setFont(text_font(12));
    p.setPen(theme().second_ink);
    const bool north = place_.latitude_deg >= 0;
    const std::pair<double, QString> names[] = {{-90, tr("east")}, {north ? 0.0 : 180.0, north ? tr("south") : tr("north")}, {90, tr("west")}};
    for (const auto& [azimuth, name] : names) {
        const double x = at(azimuth, 0).x();
        p.drawLine(QPointF(x, f.bottom()), QPointF(x, f.bottom() + 4));
        p.drawText(QRectF(x - 40, f.bottom() + 4, 80, 17), Qt::AlignHCenter | Qt::AlignTop, name);
    }
    for (int height : {0, 30, 60}) {
        const double y = at(0, height).y();
        p.drawLine(QPointF(f.left() - 4, y), QPointF(f.left(), y));
        p.drawText(QRectF(0, y - 9, f.left() - 6, 18), Qt::AlignRight | Qt::AlignVCenter, QStringLiteral("%1°").arg(height));
    }
    p.drawRect(f);
}

} // namespace vernal
