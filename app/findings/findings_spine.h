// The findings folded at the edge of the window: marks and counts. They open over the
// work, or stand beside it when pinned.
#pragma once

#include "findings_panel.h"

#include <QAbstractButton>

namespace vernal {

class FindingsSpine : public QAbstractButton {
    Q_OBJECT
public:
    explicit FindingsSpine(Session& session, QWidget* parent = nullptr);
    static constexpr int width_px = 30;
    QSize sizeHint() const override { return {width_px, 200}; }

protected:
    void paintEvent(QPaintEvent* e) override;

private:
    void count();
    std::array<int, 3> counts_{}; // by severity
};

} // namespace vernal
