// What the log of the chosen day shows of a real unit: its settings, what is wrong, and
// where that is seen. Worked out beside everything else.
#pragma once

#include "app/shell/session.h"
#include "app/widgets/worker.h"
#include "core/audit/audit.h"

#include <QWidget>

class QLabel;
class QListWidget;
class QPushButton;

namespace vernal {

class AuditSheet : public QWidget {
    Q_OBJECT
public:
    explicit AuditSheet(Session& session, QWidget* parent = nullptr);
    const Audit* audit() const { return audit_.get(); }
    bool runs() const { return worker_.runs(); }

signals:
    void finished();

protected:
    void showEvent(QShowEvent* e) override;

private:
    void run();
    void take(Result<Audit> audit);
    void show_lines();
    void choose(int row);
    void take_found();
    void list_costliest();
    std::string found_text(const FoundSettings& f) const;
    Session& session_;
    QListWidget* list_;
    QLabel* about_;
    QPushButton* take_;
    std::shared_ptr<const Audit> audit_;
    Variant of_;                       // that was audited
    std::shared_ptr<const Trace> log_; // likewise
    std::vector<std::size_t> trouble_; // by row of the list: a trouble, a line of settings at their number, a disagreement beyond it
    Worker worker_{*this};             // last
};

} // namespace vernal
