// The probe's curve drawn with its tolerance, and the two-way converter.
#pragma once

#include "curve_box.h"
#include "probe_page.h"

namespace vernal {

class ProbeCurvePage : public ProbePageView {
    Q_OBJECT
public:
    ProbeCurvePage(Session& session, CurveShelf& shelf, const std::size_t& shown);

private:
    void refresh() override;
    QWidget* editor();
    QWidget* converter();
    void convert(bool from_signal);
    void draw();
    void show_tolerance();
    double signal() const;
    void set_signal(double value);
    CurveShelf& shelf_;
    FieldSheet* sheet_;
    QCustomPlot* plot_;
    QCPAxisRect* below_;
    QLineEdit* name_;
    QComboBox *place_, *tolerance_;
    CurveBox* curve_;
    QLabel *curve_error_, *origin_, *answer_;
    std::vector<NumberEdit*> tolerance_edits_, sensor_edits_;
    NumberEdit *ohm_, *plain_, *temp_;
};

} // namespace vernal
