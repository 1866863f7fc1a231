// Beside tank and element: how long the heat lasts without sun, and what the
// element changes; worked out when asked for, in the background.
#pragma once

#include "app/shell/session.h"
#include "core/study/reserve.h"

#include <QWidget>

class QLabel;
class QPushButton;

namespace vernal {

class ReserveBox : public QWidget {
    Q_OBJECT
public:
    explicit ReserveBox(Session& session, QWidget* parent = nullptr);

    struct Answer {
        std::optional<Reserve> reserve;
        std::vector<BackupCase> cases;
        std::string problem;
    };

private:
    void ask();
    void show(const Answer& answer);
    Session& session_;
    QPushButton* ask_;
    QLabel* answer_;
};

} // namespace vernal
