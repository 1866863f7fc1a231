// Where the probe belongs on the loop, its lead, and what the lead does.
#pragma once

#include "app/loop/loop_view.h"
#include "probe_page.h"

namespace vernal {

class ProbeLeadPage : public ProbePageView {
    Q_OBJECT
public:
    ProbeLeadPage(Session& session, const std::size_t& shown);

private:
    void refresh() override;
    LoopView* view_;
    FieldSheet *lead_sheet_, *place_sheet_;
    QLabel *guide_, *errors_;
    QComboBox* strands_;
    std::vector<NumberEdit*> lead_, probe_;
    std::vector<QCheckBox*> switches_;
    QVBoxLayout* sums_;
};

} // namespace vernal
