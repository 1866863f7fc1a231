// The unit's terminals in a row, with what goes on each.
#pragma once

#include "app/shell/session.h"
#include "app/widgets/picture.h"
#include "core/unit/unit_lists.h"

#include <QWidget>

namespace vernal {

class TerminalStrip : public QWidget, public Picture {
    Q_OBJECT
public:
    explicit TerminalStrip(QWidget* parent = nullptr);
    void show_lines(std::vector<WiringLine> lines);
    QSize sizeHint() const override { return {520, 176}; }
    QString picture_name() const override { return QStringLiteral("wiring"); }
    QSizeF picture_size() const override { return size(); }
    void paint_picture(QPainter& p) override;

protected:
    void paintEvent(QPaintEvent* e) override;

private:
    std::vector<WiringLine> lines_;
};

} // namespace vernal
