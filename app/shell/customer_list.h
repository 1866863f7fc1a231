// The jobs of a folder as the list of customers: searched, with what is due next; the folder is watched.
#pragma once

#include "app/widgets/worker.h"
#include "dialogs.h"
#include "files/job_folder.h"

#include <QWidget>

#include <memory>

class QFileSystemWatcher;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QTimer;

namespace vernal {

class CustomerList : public QWidget {
    Q_OBJECT
public:
    // remember: the folder, for the next time.
    CustomerList(const Dialogs& dialogs, bool remember, QWidget* parent = nullptr);
    void show_folder(const QString& folder);
    const std::vector<JobSummary>& jobs() const { return jobs_; }
    bool runs() const { return worker_.runs(); }

signals:
    void open_wanted(const QString& path);
    void listed(); // the folder has been read

private:
    void read();
    void take(Result<FolderRead> found);
    void show_rows();
    void write_calendar();
    const Dialogs& dialogs_;
    bool remember_;
    QString folder_;
    std::vector<JobSummary> jobs_;
    QLineEdit* find_;
    QListWidget* list_;
    QLabel* about_;
    QPushButton *choose_, *calendar_;
    QFileSystemWatcher* watcher_;
    QTimer* soon_;
    Worker worker_{*this}; // last
};

} // namespace vernal
