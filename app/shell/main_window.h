// The window: first page or work, the actions, and what is dropped on it.
#pragma once

#include "job_files.h"
#include "work_view.h"

#include <QMainWindow>

class QStackedWidget;

namespace vernal {

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    struct Options {
        QString demo;            // first job file of the demo, others lie in folders beside its own; empty: none
        QString recovery_folder; // empty: the usual one
        bool remember = true;    // recent files and theme
        QString own_curves = {}; // a person's own curve file; empty: the usual one
    };
    MainWindow(Dialogs dialogs, const Options& options, QWidget* parent = nullptr);
    ~MainWindow() override;

    Session& session() { return session_; }
    Strip& strip() { return work_->strip(); }
    template <class S>
    S& station() { return *work_->findChild<S*>(); }
    bool open(const QString& path) { return took_typed() && files_->open(path); }
    bool save() { return took_typed() && files_->save(); }
    bool save_as() { return took_typed() && files_->save_as(); }
    void show_station(int index); // in stations()
    void show_start();            // the Jobs page
    void set_glare(bool glare);
    void show_findings(bool open = true) { work_->show_findings(open); }
    WorkView& work() { return *work_; }

protected:
    void closeEvent(QCloseEvent* e) override;
    void changeEvent(QEvent* e) override; // on focus: what another computer did to the file
    void dragEnterEvent(QDragEnterEvent* e) override;
    void dropEvent(QDropEvent* e) override;

private:
    bool took_typed(); // what was typed is taken; false: some cannot be, and it was told
    void make_actions();
    void make_undo_actions();
    void make_view_actions();
    QAction* action(const QString& name, const QKeySequence& key, std::function<void()> act);
    void new_job_of(const LoopAnswers& answers);
    void open_palette();
    void go_to(const std::string& path); // of a setting
    void go_to_sum(const std::string& key);
    void import_logs(const QStringList& paths);
    Dialogs dialogs_;
    Options options_;
    Session session_;
    JobFiles* files_;
    QStackedWidget* pages_ = nullptr;
    WorkView* work_ = nullptr;
    QList<QAction*> all_actions_;
    QAction *save_ = nullptr, *sheet_ = nullptr, *undo_ = nullptr, *redo_ = nullptr, *glare_ = nullptr;
};

} // namespace vernal
