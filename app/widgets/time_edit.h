// An instant of what is run, shown and typed as the cursor's: "15:04", "day 3, 15:04".
#pragma once

#include "app/shell/session.h"

#include <QLineEdit>

namespace vernal {

class TimeEdit : public QLineEdit {
    Q_OBJECT
public:
    TimeEdit(Session& session, const QString& called, QWidget* parent = nullptr);
    void set_time(double time_s);

signals:
    void edited(double time_s);

private:
    void take();
    Session& session_;
    double time_s_ = 0;
};

} // namespace vernal
