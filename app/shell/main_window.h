// The window: rail, top line, stations, findings, strip. Stations build themselves.
#pragma once

#include "app/days/days_station.h"
#include "app/loop/loop_station.h"
#include "app/probes/probes_station.h"
#include "recovery.h"
#include "app/rules/rules_station.h"
#include "app/run/run_station.h"
#include "strip.h"

#include <QMainWindow>

class QStackedWidget;

class QPrinter;

namespace vernal {

// What asks the person; tests put their own answers here.
struct Dialogs {
    std::function<QString(QWidget*)> open_file; // a job; empty: none
    std::function<QString(QWidget*)> open_log;  // a CSV
    std::function<QString(QWidget*, const QString&)> save_file;
    enum class Unsaved { save,
        drop,
        cancel };
    std::function<Unsaved(QWidget*)> unsaved;
    std::function<void(QWidget*, const QString&)> tell; // an error nobody can overlook
    std::function<bool(QWidget*, QPrinter&)> printer;   // chooses and sets one; false: nothing is printed
    static Dialogs usual();
};

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

    Session& session() { return session_; }
    Strip& strip() { return *strip_; }
    DaysStation& days() { return *days_; }
    LoopStation& loop() { return *loop_; }
    ProbesStation& probes() { return *probes_; }
    RulesStation& rules() { return *rules_; }
    bool open(const QString& path);
    bool save();
    bool save_as();
    void show_station(int index); // 0 Loop … 4 Run
    void set_glare(bool glare);

protected:
    void closeEvent(QCloseEvent* e) override;
    void dragEnterEvent(QDragEnterEvent* e) override;
    void dropEvent(QDropEvent* e) override;

private:
    void make_actions();
    QWidget* make_rail();
    QWidget* make_work();
    QAction* action(const QString& name, const QKeySequence& key, std::function<void()> act);
    void show_start();
    void show_work();
    void mark_stations();
    void open_palette();
    bool may_leave();
    void recover(const LeftBehind& left);
    bool write(const QString& path);
    bool is_demo(const QString& path) const;
    void print_drawing();
    void print_chart();
    void save_chart();
    QWidget* make_probes();
    QWidget* make_rules();
    void remember(const QString& path);
    Dialogs dialogs_;
    Options options_;
    Session session_;
    Recovery recovery_;
    QStackedWidget *pages_, *stations_;
    QList<QPushButton*> rail_;
    QList<QLabel*> marks_;
    QList<QAction*> all_actions_;
    QAction *save_ = nullptr, *undo_ = nullptr, *redo_ = nullptr, *glare_ = nullptr;
    Strip* strip_ = nullptr;
    LoopStation* loop_ = nullptr;
    RulesStation* rules_ = nullptr;
    ProbesStation* probes_ = nullptr;
    DaysStation* days_ = nullptr;
    RunStation* run_ = nullptr;
};

} // namespace vernal
