// Drills: a call, acts that cost time, what they show, a diagnosis with its reasons, the debrief.
#pragma once

#include "app/shell/session.h"
#include "app/widgets/worker.h"
#include "core/bench/drill.h"

#include <QWidget>

class QComboBox;
class QGridLayout;
class QLabel;
class QListWidget;
class QPushButton;

namespace vernal {

class DrillPage : public QWidget {
    Q_OBJECT
public:
    explicit DrillPage(Session& session, QWidget* parent = nullptr);
    std::optional<Error> add_drill(const QString& file, const std::string& text); // kept with the job
    const DrillRun* run() const { return run_ ? &*run_ : nullptr; }
    int calls() const { return static_cast<int>(drills_.size()); }

protected:
    void showEvent(QShowEvent* e) override;

private:
    QWidget* make_calls();
    QWidget* make_acts();
    QWidget* make_diagnosis();
    void collect();
    void begin();
    void look(DrillAct act);
    void refresh();
    void diagnose();
    void tell(const Debrief& d);
    void open_own();
    Session& session_;
    std::vector<Drill> drills_;
    std::optional<Variant> of_; // of which they are
    std::optional<DrillRun> run_;
    std::vector<BenchFault> faults_;
    unsigned seed_ = 1;
    QGridLayout* grid_;
    QListWidget *calls_, *seen_;
    QLabel *story_, *clock_, *caution_, *debrief_;
    QComboBox* cause_;
    QPushButton *begin_, *say_;
    std::array<QPushButton*, drill_acts> acts_{};
    Worker worker_{*this}; // last: it ends before what it uses
};

} // namespace vernal
