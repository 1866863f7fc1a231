// The procedure under way: its steps with their verdicts, what is done now and what is waited for.
#pragma once

#include "bench_model.h"

#include <QFrame>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QVBoxLayout;

namespace vernal {

class ProcedurePanel : public QFrame {
    Q_OBJECT
public:
    ProcedurePanel(Session& session, BenchModel& model, QWidget* parent = nullptr);

private:
    void offer();
    void refresh();
    void make_steps();
    const Procedure* chosen() const;
    Session& session_;
    BenchModel& model_;
    QComboBox* which_;
    QLabel *count_, *about_, *caution_, *now_, *verdict_;
    QPushButton *begin_, *leave_, *skip_;
    QLineEdit* reason_;
    QVBoxLayout* steps_;
    std::vector<QLabel*> lines_; // a step each
    const Procedure* shown_ = nullptr;
};

} // namespace vernal
