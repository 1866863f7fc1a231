// What a unit on the wire has read and done since it was joined, the last ten minutes.
#pragma once

#include "wire_link.h"

#include "app/bench/bench_recorder.h"

#include <QElapsedTimer>

namespace vernal {

class WireRecorder : public QFrame {
    Q_OBJECT
public:
    WireRecorder(Session& session, WireLink& link, QWidget* parent = nullptr);

private:
    void record();
    Session& session_;
    WireLink& link_;
    std::deque<BenchSample> rows_;
    BenchRecorder* picture_;
    QElapsedTimer clock_;
    std::optional<Variant> of_; // whose probes and outputs the rows are of
};

} // namespace vernal
