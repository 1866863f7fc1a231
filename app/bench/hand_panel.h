// What hands do to the chosen probe's wire, and to the outputs' bypasses.
#pragma once

#include "bench_model.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QLabel;
class QHBoxLayout;

namespace vernal {

class NumberEdit;
class RigView;

class HandPanel : public QWidget {
    Q_OBJECT
public:
    HandPanel(Session& session, BenchModel& model, RigView& view, QWidget* parent = nullptr);

private:
    void lay_out_bypasses();
    void refresh();
    Session& session_;
    BenchModel& model_;
    RigView& view_;
    QLabel* which_;
    NumberEdit *ohm_, *diode_;
    QComboBox* lead_;
    QCheckBox *contact_, *shade_;
    QHBoxLayout* bypasses_;
    std::vector<QCheckBox*> bypass_; // an output each
};

} // namespace vernal
