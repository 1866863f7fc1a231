// The loop, drawn by the program from its arrangement, live at the cursor.
#pragma once

#include "app/widgets/picture.h"
#include "core/plant/valve_board.h"
#include "loop_live.h"

#include <QWidget>

#include <map>
#include <optional>

namespace vernal {

class FindingMark;
struct PartScene;

// Click a part, or walk over them with the arrow keys. What was found at a part or a
// probe is marked there.
class LoopView : public QWidget, public Picture {
    Q_OBJECT
public:
    explicit LoopView(Session& session, QWidget* parent = nullptr);
    void choose(Part part);
    // Shows where one probe sits instead of a chosen part; nothing is chosen by a click then.
    void point_at(std::size_t probe);
    // The hand valves and what flows in a state, instead of the temperatures at the cursor; none: these again.
    void show_board(std::optional<ServiceState> state);
    std::optional<ServiceState> board() const { return board_; }
    QRectF valve_area(HandValve valve) const; // widget coordinates; empty: it is not shown
    QSizeF sheet_size() const;
    QString picture_name() const override { return QStringLiteral("loop"); }
    QSizeF picture_size() const override { return sheet_size(); }
    void paint_picture(QPainter& p) override { paint_sheet(p); }
    QRectF part_area(Part part) const; // widget coordinates; empty: the arrangement has none
    // The drawing as it stands at the cursor, without what is chosen.
    QImage image(int width_px) const;
    bool paint_onto(QPaintDevice& device) const; // fills the page; false: it cannot be painted on
    void paint_sheet(QPainter& p) const;         // on the sheet's own points

signals:
    void chosen(vernal::Part part);
    void valve_clicked(vernal::HandValve valve);

protected:
    void paintEvent(QPaintEvent* e) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    void resizeEvent(QResizeEvent* e) override;
    void focusInEvent(QFocusEvent* e) override;
    void focusOutEvent(QFocusEvent* e) override;

private:
    LoopLive live() const;
    const Arrangement& arrangement() const;
    std::optional<Part> part_at(const QPointF& at) const;
    std::optional<HandValve> valve_at(const QPointF& at) const;
    void paint_probes(const PartScene& scene) const;
    void mark_findings();
    void place_mark(FindingMark& mark, const std::string& path) const;
    std::optional<Part> next_part(const QPointF& way) const; // from the chosen one
    void tell_choice();
    void paint_pointer(QPainter& p) const;
    QTransform frame() const; // from the sheet to the widget
    Session& session_;
    Part part_ = Part::collector;
    std::optional<std::size_t> pointed_;
    std::optional<ServiceState> board_;
    std::map<std::string, FindingMark*> marks_;      // by the path of part or probe
    mutable std::shared_ptr<const Network> network_; // of the outcome network_of_
    mutable quint64 network_of_ = 0;
};

} // namespace vernal
