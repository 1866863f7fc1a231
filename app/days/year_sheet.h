// A year of the chosen variant by months, run beside everything else, and its days worth a look.
#pragma once

#include "app/shell/session.h"
#include "app/widgets/worker.h"
#include "core/study/year.h"

#include <QWidget>

#include <memory>

class QHBoxLayout;
class QLabel;
class QProgressBar;
class QPushButton;
class QTableWidget;

namespace vernal {

class YearSheet : public QWidget {
    Q_OBJECT
public:
    explicit YearSheet(Session& session, QWidget* parent = nullptr);
    bool runs() const { return worker_.runs(); }

signals:
    void finished();

protected:
    void showEvent(QShowEvent* e) override;

private:
    struct Asked { // what a result belongs to
        Job job;
        std::size_t variant = 0, day = 0;
        bool operator==(const Asked&) const = default;
    };
    void run();
    void take(const Result<Year>& year);
    void refresh(); // of units, and whether it is of the job as it stands
    void fill();
    void list_days();
    void put_on_shelf(std::size_t day);
    Session& session_;
    QLabel *about_, *look_words_;
    QPushButton *run_, *stop_;
    QProgressBar* bar_;
    QTableWidget* table_;
    QHBoxLayout* look_;
    Asked asked_;
    std::shared_ptr<const Year> year_;
    Worker worker_{*this}; // last
};

} // namespace vernal
