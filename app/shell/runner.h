// A day runner whose answers come in the window's thread. The latest edit wins; an
// older run gets a tenth of a second to finish, so that the strip moves while a line
// is dragged, and is cancelled then; its verdict is dropped.
#pragma once

#include "core/study/day_runner.h"

#include <QObject>

namespace vernal {

class Runner : public QObject {
    Q_OBJECT
public:
    explicit Runner(QObject* parent = nullptr);
    quint64 request(RunRequest r); // returns at once; the id that its outcome will have

signals:
    // Ids rise. Of the newest request finished and judged come; before them begun may.
    void begun(std::shared_ptr<const vernal::Outcome> outcome);
    void finished(std::shared_ptr<const vernal::Outcome> outcome);
    void judged(std::shared_ptr<const vernal::Verdict> verdict);

private:
    DayRunner runs_;
};

} // namespace vernal
