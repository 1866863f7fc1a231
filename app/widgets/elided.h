// A label that gives way to what stands beside it: cut with an ellipsis, whole in its tool tip.
#pragma once

#include <QLabel>

namespace vernal {

class Elided : public QLabel {
    Q_OBJECT
public:
    using QLabel::QLabel;
    QSize minimumSizeHint() const override { return {fontMetrics().averageCharWidth() * 4, QLabel::minimumSizeHint().height()}; }

protected:
    void paintEvent(QPaintEvent* e) override;
};

} // namespace vernal
