// The sun's ways over the sky of a place, and the line that stands before it.
#pragma once

#include "app/widgets/picture.h"
#include "core/weather/horizon.h"

#include <QDate>
#include <QWidget>

#include <optional>

namespace vernal {

// Azimuth runs from left to right about the noon sun, height upwards. A click sets a point, dragging moves
// one, Delete or a right click takes the chosen one away.
class HorizonPicture : public QWidget, public Picture {
    Q_OBJECT
public:
    explicit HorizonPicture(QWidget* parent = nullptr);
    QString picture_name() const override { return QStringLiteral("horizon"); }
    QSizeF picture_size() const override { return size(); }
    void paint_picture(QPainter& p) override { render(&p); }
    void show_line(const Place& place, const SkySpec& day, const std::vector<HorizonPoint>& line);
    QSize sizeHint() const override { return {340, 214}; }

signals:
    // moving: the pointer still holds it.
    void changed(const std::vector<HorizonPoint>& line, bool moving);
    void pointed(const QString& where); // azimuth and height under the pointer; empty: it has left

protected:
    void paintEvent(QPaintEvent* e) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;
    void mouseReleaseEvent(QMouseEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    void leaveEvent(QEvent* e) override;

private:
    QRectF field() const;
    QPointF at(double azimuth_deg, double height_deg) const;
    HorizonPoint under(const QPointF& pos) const; // in whole degrees
    double middle_deg() const { return place_.latitude_deg >= 0 ? 0 : 180; }
    std::optional<std::size_t> point_at(const QPointF& pos) const;
    void remove(std::size_t point);
    void paint_axes(QPainter& p) const;
    void paint_ways(QPainter& p) const;
    void paint_way(QPainter& p, const QDate& date, const QPen& pen, bool hours) const;
    void paint_ground(QPainter& p) const;

    Place place_;
    SkySpec day_;
    std::vector<HorizonPoint> line_;
    std::optional<std::size_t> chosen_;
    bool held_ = false;
};

} // namespace vernal
