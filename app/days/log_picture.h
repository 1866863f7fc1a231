// A look at a log that is about to be taken in: its columns over time.
#pragma once

#include "core/job/trace.h"

#include <QWidget>

namespace vernal {

class LogPicture : public QWidget {
    Q_OBJECT
public:
    explicit LogPicture(QWidget* parent = nullptr);
    void show(const Trace& trace); // a look of at most some thousand rows
    void show_nothing();

protected:
    void paintEvent(QPaintEvent* e) override;

private:
    Trace trace_;
};

} // namespace vernal
