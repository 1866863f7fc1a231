// What the unit read and did on the bench, the last minutes.
#pragma once

#include "bench_model.h"

#include <qcustomplot.h>

namespace vernal {

class BenchRecorder : public QCustomPlot {
    Q_OBJECT
public:
    BenchRecorder(Session& session, BenchModel& model, QWidget* parent = nullptr);

private:
    void remake();
    void redraw();
    Session& session_;
    BenchModel& model_;
    QList<QCPItemText*> names_; // of the outputs, beside their bars
    QElapsedTimer last_;
};

} // namespace vernal
