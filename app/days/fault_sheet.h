// Faults painted on the chosen day, and the marked stretch they are painted on.
#pragma once

#include "app/shell/session.h"

#include <QWidget>

class QLabel;
class QMenu;
class QPushButton;
class QVBoxLayout;

namespace vernal {

class TimeEdit;

class FaultSheet : public QWidget {
    Q_OBJECT
public:
    explicit FaultSheet(Session& session, QWidget* parent = nullptr);
    void refresh();

private:
    void show_mark();
    void fill_menu();
    void paint(FaultKind kind);
    void add_fault_row(std::size_t i);
    void change(std::size_t i, const std::function<void(Fault&)>& how);
    Session& session_;
    TimeEdit *from_, *to_;
    QLabel* words_;
    QPushButton* unmark_;
    QMenu* menu_;
    QVBoxLayout* rows_;
    std::vector<Fault> shown_;
    QString shape_;
    std::vector<std::function<void()>> refreshers_;
};

// The stretch that is marked, or an hour from the cursor on, hours of the run.
std::pair<double, double> stretch_to_paint(const Session& session);

} // namespace vernal
