#pragma once

#include "app/charts/day_chart.h"

class QTableWidget;

namespace vernal {

// The day at full size, Why at the cursor, and the figures per variant.
class RunStation : public QWidget {
    Q_OBJECT
public:
    explicit RunStation(Session& session, QWidget* parent = nullptr);
    DayChart* chart() { return chart_; }

private:
    void show_figures();
    void show_why();
    void show_disagreements(const Outcome& o);
    Session& session_;
    DayChart* chart_;
    QTableWidget* table_;
    QLabel* why_;
    QLabel* at_;
    QLabel* table_title_;
};

} // namespace vernal
