// Units with one knob that moves start and stop together.
#pragma once

#include "probe_page.h"

namespace vernal {

class ProbeKnobPage : public ProbePageView {
    Q_OBJECT
public:
    ProbeKnobPage(Session& session, const std::size_t& shown);

private:
    void refresh() override;
    void draw();
    QCustomPlot* plot_;
    std::vector<NumberEdit*> rows_;
    QComboBox* law_;
    QLabel* words_;
    QVBoxLayout* sums_;
};

} // namespace vernal
