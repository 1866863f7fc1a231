// Pages of which one is seen, and only that one lays itself out. A stack that asks each hidden
// page how high its words would be at this width takes most of an edit's time.
#pragma once

#include <QStackedWidget>

namespace vernal {

class QuietStack : public QStackedWidget {
public:
    using QStackedWidget::QStackedWidget;
    bool hasHeightForWidth() const override { return false; }
    QSize sizeHint() const override { return minimumSizeHint(); }
    QSize minimumSizeHint() const override // of the largest page
    {
        QSize out;
        for (int i = 0; i < count(); ++i) {
            const QSize least = widget(i)->minimumSize(), hint = widget(i)->minimumSizeHint();
            out = out.expandedTo({least.width() > 0 ? least.width() : hint.width(), least.height() > 0 ? least.height() : hint.height()});
        }
        return out;
    }
};

} // namespace vernal
