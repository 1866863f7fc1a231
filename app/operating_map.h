// The picture of the logic: store temperature across, collector minus store up
// (or the collector itself), shaded by what the engine does there. Lines of the
// rules can be dragged; the day's path runs through it.
#pragma once

#include "session.h"

#include <QWidget>

#include <optional>

namespace vernal {

class OperatingMap : public QWidget {
    Q_OBJECT
public:
    explicit OperatingMap(Session& session, QWidget* parent = nullptr);
    void set_plain_axes(bool plain);
    void set_output(std::size_t output);
    std::size_t output() const; // shown; the first where the unit has no such
    // A quantity on neither axis that decides too: the hour, the supply, another probe.
    struct Third {
        enum Kind { hour,
            supply,
            probe } kind = hour;
        std::size_t channel = 0; // of a probe
        bool operator==(const Third&) const = default;
    };
    std::vector<Third> thirds() const; // those a rule of the shown output looks at, and every other probe
    QString third_name(const Third& t) const;
    const std::optional<Third>& third() const { return third_; }
    void set_third(std::optional<Third> third); // none: all as at the cursor
    void set_third_share(double share);         // 0…1 of its range
    QString third_text() const;                 // its value
    // Where a line can be grabbed, widget coordinates; for tests and the keyboard.
    std::optional<QPointF> handle(std::size_t rule, const std::string& key) const;

signals:
    void rule_touched(std::size_t rule);

protected:
    void paintEvent(QPaintEvent* e) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;
    void mouseReleaseEvent(QMouseEvent* e) override;

private:
    // A draggable threshold.
    struct Line {
        std::size_t rule;
        std::string key; // field of the rule
        double value;    // °C or K, inside
        bool difference; // a value of K
        enum Kind { level,
            upright,
            slanted,
            banner } kind;
        bool solid; // a set point is solid, a release point dashed
        QColor colour;
        double offset = 0; // value less the field's own figure
    };
    struct Probes {
        std::size_t source = 0, store = 0;
    };
    std::optional<Probes> probes() const;
    std::vector<Line> lines() const;
    void add_limit_lines(std::vector<Line>& out, std::size_t rule, const LimitOf& limit, const QColor& colour, const Probes& p) const;
    void add_thresholds(std::vector<Line>& out, std::size_t rule, const Probes& p) const;
    double low_y() const { return plain_ ? -20 : -12; }
    double high_y() const { return plain_ ? 140 : 40; }
    QPointF at(double store_c, double collector_c) const;
    double store_at(double x) const;
    double collector_at(const QPointF& p) const;
    QRectF area() const;
    void paint_regions(QPainter& p) const;
    void paint_axes(QPainter& p) const;
    void paint_width(QPainter& p, const Line& line) const;
    void paint_line(QPainter& p, const Line& line, int banner_row) const;
    void paint_path(QPainter& p) const;
    void paint_labels(QPainter& p) const;
    std::pair<QPointF, QPointF> ends(const Line& line) const;
    const Line* near(const QPointF& pos, const std::vector<Line>& all) const;
    void drag_to(const QPointF& pos);

    Session& session_;
    bool plain_ = false;
    std::size_t output_ = 0;
    std::optional<Line> dragged_;
    double third_value() const; // h, V or °C
    void put_third(Inputs& in) const;
    std::optional<Third> third_;
    double third_share_ = 0.5;
};

} // namespace vernal
