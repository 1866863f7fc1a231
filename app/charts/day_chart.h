// The day as curves and lanes: the strip, and the Run station's large one.
#pragma once

#include "app/shell/session.h"
#include "app/widgets/picture.h"

#include <qcustomplot.h>

namespace vernal {

class DayChart : public QCustomPlot, public Picture {
    Q_OBJECT
public:
    DayChart(Session& session, bool zoom, QWidget* parent = nullptr);
    void restyle(); // after a change of theme
    void show_lanes_only(bool only);
    int lanes_height() const; // with the hours below
    QString picture_name() const override { return QStringLiteral("day"); }
    QSizeF picture_size() const override { return size(); }
    void paint_picture(QPainter& p) override;

signals:
    void shown(quint64 id); // an outcome has been painted

protected:
    void mouseMoveEvent(QMouseEvent* e) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseReleaseEvent(QMouseEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    void paintEvent(QPaintEvent* e) override;
    void showEvent(QShowEvent* e) override;
    void resizeEvent(QResizeEvent* e) override;

private:
    static constexpr int left_px = 52, axis_px = 22;
    static constexpr int sample_px = 18; // of a curve beside its name
    // A curve's name at its end, with a piece of its line.
    struct End {
        QString name;
        QPen pen;
        double value; // where the curve ends
    };
    struct Hours {
        double from = 0, to = 86400, step = 10800; // s of the clock
    };
    struct Signal {
        QString name;
        QColor colour;
        Qt::PenStyle style;
        double width;
    };
    void show_outcome(QCustomPlot::RefreshPriority when = QCustomPlot::rpQueuedReplot);
    Hours hours() const;
    void tick();
    void paint_ends(QPainter& p) const;
    void paint_lane_scales(QPainter& p) const;
    QString hour_text(double clock_s) const;
    void paint_hours(QPainter& p) const;
    void paint_cursor(QPainter& p) const;
    void paint_tags(QPainter& p) const;
    int right_px() const;
    int lane_px() const;
    void draw_line(QCPGraph& graph, const QVector<double>& t, const QVector<double>& y) const;
    void draw_temperatures(const Outcome& o);
    void draw_sun(const Outcome& o);
    void draw_lanes(const Outcome& o);
    void add_lane(const QVector<double>& t, const QVector<double>& on, const QColor& colour);
    void style_axis(QCPAxis* axis) const;
    Signal signal_of(const Probe& p) const;
    void cursor_to(const QPoint& pos);
    // A fault on the day, as it lies over the curves.
    struct Tape {
        std::size_t fault;
        double from_s, to_s;
        QRectF box;
        std::size_t row = 0;
    };
    // One that the mouse holds.
    struct Held {
        std::size_t fault;
        double from_s, to_s, taken_s;
        enum class Part : std::uint8_t { begin,
            end,
            whole } part;
    };
    double pixel_of(double time_s) const;
    double time_at(double x) const; // kept within what was run
    std::vector<Tape> tapes() const;
    void paint_marks(QPainter& p) const;
    void paint_above(QPainter& p) const;
    bool take_tape(const QPoint& at);
    void drag_tape(const QPoint& at);
    void drop_tape();
    void tell_of_tape(const QPoint& at);
    Session& session_;
    bool zoom_;
    QCPAxisRect* lanes_ = nullptr;
    std::vector<End> ends_;
    std::vector<std::pair<int, QString>> lane_scales_; // of an instrument's lane the most it comes to
    bool lanes_only_ = false;
    std::optional<Held> held_;
    std::optional<double> marks_from_s_; // a stretch is being marked
    int lane_count_ = 1;
    quint64 painted_ = 0, pending_ = 0;
    double shown_s_ = 0; // length of what is shown
};

} // namespace vernal
