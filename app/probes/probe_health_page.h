// What each trouble looks like, the tests on the spot, and what is wrong with this one.
#pragma once

#include "probe_page.h"

namespace vernal {

class ProbeHealthPage : public ProbePageView {
    Q_OBJECT
public:
    ProbeHealthPage(Session& session, const std::size_t& shown);

private:
    void refresh() override;
    QLabel *signs_, *condition_note_;
    QComboBox* condition_;
    std::vector<NumberEdit*> condition_rows_, correction_;
    QVBoxLayout* sums_;
};

} // namespace vernal
