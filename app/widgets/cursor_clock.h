// The cursor's time, the same control wherever it stands: typed, or stepped to the
// switching points before and after it.
#pragma once

#include "app/shell/session.h"

#include <QWidget>

class QLineEdit;

namespace vernal {

class CursorClock : public QWidget {
    Q_OBJECT
public:
    explicit CursorClock(Session& session, QWidget* parent = nullptr);
    void take_focus();

private:
    void show_time();
    void take_typed_time();
    Session& session_;
    QLineEdit* time_;
};

} // namespace vernal
