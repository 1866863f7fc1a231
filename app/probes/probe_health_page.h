// What each trouble looks like, the tests on the spot, and what is wrong with this one.
#pragma once

#include "meter_bar.h"
#include "probe_page.h"

namespace vernal {

class ProbeHealthPage : public ProbePageView {
    Q_OBJECT
public:
    ProbeHealthPage(Session& session, const MeterBar& meter, const std::size_t& shown);

private:
    void refresh() override;
    QString signs() const;
    void paint_for_a_while();
    const MeterBar& meter_;
    FieldSheet* sheet_;
    QLabel *signs_, *condition_note_;
    QComboBox* condition_;
    std::vector<NumberEdit*> condition_rows_, correction_;
    QVBoxLayout* sums_;
    QPushButton* for_a_while_;
};

} // namespace vernal
