// The rig, drawn: media above, the unit with its readings below them, each probe a wire from
// its terminal into what it should feel. A wire's end is dragged; with keys a probe is chosen
// by Left and Right and sent by its medium's digit.
#pragma once

#include "bench_model.h"

#include "app/widgets/picture.h"

#include <QWidget>

namespace vernal {

class RigView : public QWidget, public Picture {
    Q_OBJECT
public:
    RigView(Session& session, BenchModel& model, QWidget* parent = nullptr);
    std::size_t chosen() const { return chosen_; }
    void send(std::size_t probe, Medium medium); // a resistor: of what it reads now
    QPointF end_of(std::size_t probe) const;     // of its wire, where it is taken
    QPointF middle_of(Medium m) const;
    QSize sizeHint() const override { return {520, 420}; }
    QString picture_name() const override { return QStringLiteral("rig"); }
    QSizeF picture_size() const override { return size(); }
    void paint_picture(QPainter& p) override;

protected:
    void paintEvent(QPaintEvent* e) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;
    void mouseReleaseEvent(QMouseEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    bool event(QEvent* e) override;

private:
    bool low() const { return height() < 400; }
    QRectF unit_box() const;
    QPointF terminal(std::size_t probe) const;
    QRectF output_at(std::size_t output) const;
    QRectF place_of(Medium m) const;
    QColor colour_of(std::size_t probe) const;
    void paint_medium(QPainter& p, Medium m) const;
    void paint_wire(QPainter& p, std::size_t probe) const;
    QString volts_at(const Variant& v, std::size_t probe, double ohm) const;
    void paint_unit(QPainter& p) const;
    void paint_output(QPainter& p, std::size_t output) const;
    void next_mode(std::size_t output);
    Session& session_;
    BenchModel& model_;
    std::size_t chosen_ = 0;
    std::optional<QPointF> dragged_; // where the chosen wire's end is held
};

} // namespace vernal
