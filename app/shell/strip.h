// The day strip: always there, always the newest run.
#pragma once

#include "app/charts/day_chart.h"

#include <QFrame>
#include <QLabel>

class QComboBox;
class QPushButton;

namespace vernal {

class CursorClock;

class Strip : public QFrame {
    Q_OBJECT
public:
    explicit Strip(Session& session, QWidget* parent = nullptr);
    DayChart* chart() { return chart_; }
    enum class Height { lanes,
        normal,
        tall };
    Height shown_height() const { return height_; }
    void show_height(Height h); // the buttons only: whoever lays it out does the rest
    int wanted_px(Height h) const;

signals:
    void height_wanted(vernal::Strip::Height h);

private:
    void show_days();
    void show_figures();
    Session& session_;
    QComboBox* day_;
    QLabel* figures_;
    QLabel* idle_; // rules out of action
    QLabel* against_;
    DayChart* chart_;
    CursorClock* clock_;
    Height height_ = Height::normal;
    QList<QPushButton*> heights_;
};

// "12.9 kWh to tank · 0.31 kWh pump · 30 starts · first 07:46"
QString figures_line(const Outcome& o, const Units& u);
// "against “as found”: +0.6 kWh, −11 starts"; empty without a comparison.
QString against_line(const Outcome& o, const Verdict& v, const Units& u);

} // namespace vernal
