#pragma once

#include "app/charts/day_chart.h"

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace vernal {

class AuditSheet;
class DifferenceLine;
class DisagreementList;
class FigureSheet;

// The day over the whole width; below it the figures per variant, or where a log
// and the rules differ, and Why at the cursor.
class RunStation : public QWidget {
    Q_OBJECT
public:
    explicit RunStation(Session& session, QWidget* parent = nullptr);
    DayChart* chart() { return chart_; }

protected:
    void showEvent(QShowEvent* e) override;
    void resizeEvent(QResizeEvent* e) override;

private:
    QWidget* make_table();
    QWidget* make_why();
    void show_figures();
    void show_why();
    Session& session_;
    DayChart* chart_;
    QWidget* below_;
    QLabel* table_title_;
    FigureSheet* figures_;
    DifferenceLine* difference_;
    DisagreementList* disagreements_;
    AuditSheet* audit_;
    QPushButton* audits_; // the audit in place of the list
    QLabel *why_, *at_;
};

} // namespace vernal
