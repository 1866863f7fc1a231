// What a unit read and did, the last ten minutes: of the bench's own or one on the wire.
#pragma once

#include "bench_sample.h"

#include "app/shell/session.h"

#include <QElapsedTimer>
#include <qcustomplot.h>

#include <deque>

namespace vernal {

class BenchRecorder : public QCustomPlot {
    Q_OBJECT
public:
    // rows outlive it. clock: what the time axis is called.
    BenchRecorder(Session& session, const std::deque<BenchSample>& rows, const QString& clock, QWidget* parent = nullptr);
    void set_unit(std::optional<Variant> unit); // whose probes and outputs the rows are of; none: nothing
    void set_now(double now_s);                 // draws anew, at most some times a second

private:
    void redraw();
    Session& session_;
    const std::deque<BenchSample>& rows_;
    QString clock_;
    std::optional<Variant> unit_;
    double now_s_ = 0;
    QList<QCPItemText*> names_; // of the outputs, beside their bars
    QElapsedTimer last_;
};

} // namespace vernal
