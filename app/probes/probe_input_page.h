// The unit's input stage: volts, counts, and what a bridge's voltage stands for.
#pragma once

#include "curve_box.h"
#include "probe_page.h"

namespace vernal {

class ProbeInputPage : public ProbePageView {
    Q_OBJECT
public:
    ProbeInputPage(Session& session, CurveShelf& shelf, const std::size_t& shown);

private:
    void refresh() override;
    void edit_input(const std::function<void(InputStage&)>& change);
    void show_what_counts(StageKind kind);
    void draw_counts();
    void draw_drift();
    void draw();
    QCustomPlot* plot_;
    QCPAxisRect* below_;
    QComboBox *kind_, *bits_;
    std::vector<NumberEdit*> rows_;
    QLabel *limits_, *other_error_;
    QCheckBox* other_;
    CurveBox* other_curve_;
    QVBoxLayout* sums_;
};

} // namespace vernal
