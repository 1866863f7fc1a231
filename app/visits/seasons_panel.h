// Beside the page: the courses over the seasons and what is due.
#pragma once

#include "app/shell/session.h"
#include "app/widgets/worker.h"
#include "core/visit/due.h"
#include "core/visit/over_the_seasons.h"

#include <QWidget>

class QLabel;
class QLineEdit;
class QListWidget;
class QVBoxLayout;

namespace vernal {

class SeasonsPanel : public QWidget {
    Q_OBJECT
public:
    explicit SeasonsPanel(Session& session, QWidget* parent = nullptr);
    const std::vector<DueNow>& due() const { return due_; }

signals:
    void told(); // the courses stand there
    void calendar_wanted();
    void visit_wanted(const std::string& id);
    void done_wanted(const std::string& title, const std::string& due_id); // into the open visit

protected:
    void showEvent(QShowEvent* e) override;

private:
    void refresh();
    void show_seasons();
    void lay_out(const std::vector<SeasonCourse>& courses);
    void show_due();
    void show_due_line(int row);
    void take_due_line();
    void show_costs();
    Session& session_;
    bool glare_ = false; // theme of what is shown
    QVBoxLayout* seasons_;
    QListWidget* due_list_;
    QLabel *costs_, *nothing_due_, *due_said_;
    QLineEdit* due_line_;
    std::optional<DueItem> edited_due_; // whose line is shown
    std::vector<DueNow> due_;
    Logbook shown_;
    bool stale_ = true;
    Worker worker_{*this}; // last
};

} // namespace vernal
