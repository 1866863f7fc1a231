// A probe that reads no temperature: what it is, and what it reads on the day shown,
// with the points at which rules look.
#pragma once

#include "probe_page.h"

class QComboBox;
class QLineEdit;

namespace vernal {

class ProbeInstrumentPage : public ProbePageView {
    Q_OBJECT
public:
    ProbeInstrumentPage(Session& session, const std::size_t& shown);

protected:
    void refresh() override;

private:
    void draw();
    std::vector<double> looked_at() const; // readings at which a rule of the unit switches
    QCustomPlot* plot_;
    FieldSheet* sheet_;
    QLineEdit* name_;
    QComboBox *place_, *condition_;
    std::vector<NumberEdit*> rows_;
    QLabel* note_;
};

} // namespace vernal
