// The loop, drawn by the program from its arrangement, live at the cursor.
#pragma once

#include "session.h"

#include <QWidget>

namespace vernal {

enum class Part { collector, supply, back, tank, pump };

class LoopView : public QWidget {
    Q_OBJECT
public:
    explicit LoopView(Session& session, QWidget* parent = nullptr);
    void choose(Part part);
    QRectF part_area(Part part) const; // widget coordinates

signals:
    void chosen(vernal::Part part);

protected:
    void paintEvent(QPaintEvent* e) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;

private:
    struct Live; // temperatures and states at the cursor
    Live live() const;
    void paint_collector(QPainter& p, const Live& now) const;
    void paint_pipes(QPainter& p, const Live& now) const;
    void paint_tank(QPainter& p, const Live& now) const;
    void paint_pump(QPainter& p, const Live& now) const;
    void paint_probes(QPainter& p, const Live& now) const;
    QPointF place_of(ProbePlace place) const;
    QTransform frame() const; // from the drawing's 700 × 480 to the widget
    Session& session_;
    Part part_ = Part::collector;
};

QColor temperature_colour(double c); // cool slate to warm copper, muted

} // namespace vernal
