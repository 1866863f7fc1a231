// The figures of the variants in one table, the better one of each marked.
#pragma once

#include "app/shell/session.h"

#include <QTableWidget>

namespace vernal {

class FigureSheet : public QTableWidget {
    Q_OBJECT
public:
    explicit FigureSheet(Session& session, QWidget* parent = nullptr);
    void refresh();

protected:
    void resizeEvent(QResizeEvent* e) override;

private:
    Session& session_;
    int blocks_ = 2; // side by side
};

} // namespace vernal
