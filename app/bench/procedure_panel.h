// The procedures with what each last said; of the one under way its steps with their
// verdicts, what is done now, what is waited for and what is asked.
#pragma once

#include "bench_model.h"

#include <QFrame>

class QCheckBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QStackedWidget;
class QVBoxLayout;

namespace vernal {

class ProcedurePanel : public QFrame {
    Q_OBJECT
public:
    ProcedurePanel(Session& session, BenchModel& model, QWidget* parent = nullptr);

private:
    QWidget* make_asked();
    QLayout* make_acts();
    void offer();
    void refresh();
    void make_steps();
    void show_list();
    void show_asked();
    QString words_for(const ProcedureRun& run, const Line& line) const;
    void open_own();
    void take_knob();
    const Procedure* chosen() const; // in the list, or the one under way
    Session& session_;
    BenchModel& model_;
    QListWidget* list_;
    QStackedWidget* pages_;
    QLabel *title_, *count_, *about_, *caution_, *now_, *verdict_, *asks_;
    QPushButton *begin_, *resume_, *leave_, *repeat_, *skip_, *own_, *take_, *yes_, *no_, *as_shown_, *knob_, *none_;
    QLineEdit *reason_, *typed_;
    QWidget* asked_;
    QCheckBox *by_hand_, *at_unit_;
    QString left_; // why the last one was left
    QVBoxLayout* steps_;
    std::vector<QLabel*> lines_; // a step each
    const Procedure* shown_ = nullptr;
    const Line* asking_ = nullptr;
};

} // namespace vernal
