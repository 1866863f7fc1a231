// The day strip: always there, always the newest run.
#pragma once

#include "app/charts/day_chart.h"

#include <QFrame>
#include <QLabel>

class QComboBox;

namespace vernal {

class Strip : public QFrame {
    Q_OBJECT
public:
    explicit Strip(Session& session, QWidget* parent = nullptr);
    DayChart* chart() { return chart_; }

private:
    void show_days();
    void show_figures();
    Session& session_;
    QComboBox* day_;
    QLabel* figures_;
    QLabel* idle_; // rules out of action
    QLabel* against_;
    DayChart* chart_;
};

// "12.9 kWh to tank · 0.31 kWh pump · 30 starts · first 07:46"
QString figures_line(const Outcome& o, const Units& u);
// "against “as found”: +0.6 kWh, −11 starts"; empty without a comparison.
QString against_line(const Outcome& o, const Verdict& v);

} // namespace vernal
