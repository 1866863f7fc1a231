// The picture of the logic: store temperature across, collector minus store up
// (or the collector itself), shaded by what the engine does there. Lines of the
// rules can be dragged; the day's path runs through it.
#pragma once

#include "app/shell/session.h"
#include "app/widgets/picture.h"
#include "map_geometry.h"
#include "map_label.h"
#include "map_third.h"

#include <QWidget>

#include <optional>

namespace vernal {

class OperatingMap : public QWidget, public Picture {
    Q_OBJECT
public:
    explicit OperatingMap(Session& session, QWidget* parent = nullptr);
    void set_plain_axes(bool plain);
    QString picture_name() const override { return QStringLiteral("map"); }
    QSizeF picture_size() const override { return size(); }
    void paint_picture(QPainter& p) override { render(&p); }
    void set_output(std::size_t output);
    std::size_t output() const; // shown; the first where the unit has no such
    using Third = MapThird;
    std::vector<Third> thirds() const; // those a rule of the unit looks at
    QString third_name(const Third& t) const;
    const std::optional<Third>& third() const { return third_; }
    void set_third(std::optional<Third> third); // none: all as at the cursor
    void set_third_share(double share);         // 0…1 of its range
    QString third_text() const;                 // its value
    MapGeometry geometry() const;
    // Where a line can be grabbed, widget coordinates; for tests and the keyboard.
    std::optional<QPointF> handle(std::size_t rule, const std::string& field) const;

protected:
    void paintEvent(QPaintEvent* e) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;
    void mouseReleaseEvent(QMouseEvent* e) override;
    void resizeEvent(QResizeEvent* e) override;

private:
    const Variant& variant() const { return session_.document().variant(); }
    std::vector<MapLine> lines() const { return map_lines(variant(), output()); }
    void drag_to(const QPointF& pos);
    void move(const MapLine& line, double to, int sitting);
    void refresh();      // labels and picture
    void place_labels(); // beside the lines' ends
    bool to_switch_at(const QPointF& pos);

    Session& session_;
    bool plain_ = false;
    std::size_t output_ = 0;
    std::optional<MapLine> dragged_;
    std::vector<MapLabel*> labels_;
    int top_px_ = 8, right_px_ = 92; // beside the map, for labels
    std::optional<Third> third_;
    double third_share_ = 0.5;
};

} // namespace vernal
