// A real window over a copy of the demo job, with answers in place of dialogs.
#pragma once

#include "app/days/days_station.h"
#include "app/loop/loop_station.h"
#include "app/loop/loop_view.h"
#include "app/probes/probes_station.h"
#include "app/rules/operating_map.h"
#include "app/rules/rules_station.h"
#include "app/shell/main_window.h"
#include "app/shell/theme.h"
#include "files/job_file.h"

#include <QApplication>
#include <QFile>
#include <QLabel>
#include <QPrinter>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QSignalSpy>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTest>

namespace vernal {

class WindowFixture : public QObject {
    Q_OBJECT
protected:
    void open_demo()
    {
        window.reset(); // before the folder that it keeps its copies in
        folder = std::make_unique<QTemporaryDir>();
        job_path = folder->filePath("copy.vrelay");
        QVERIFY(save_job(*open_job(VERNAL_DEMO "/job.json"), job_path.toStdString()));
        told.clear();
        Dialogs s;
        s.open_file = [this](QWidget*) { return open_answer; };
        s.open_log = [this](QWidget*) { return log_answer; };
        s.open_logs = [this](QWidget*) { return log_answer.isEmpty() ? QStringList() : QStringList(log_answer); };
        s.save_file = [this](QWidget*, const QString&) { return save_answer; };
        s.save_as = [this](QWidget*, const QString&, const QString&) { return save_as_answer; };
        s.unsaved = [this](QWidget*) { return unsaved_answer; };
        s.changed = [this](QWidget*, const QString&) { return changed_answer; };
        s.printer = [this](QWidget*, QPrinter& printer) {
            printer.setOutputFileName(print_answer);
            return !print_answer.isEmpty();
        };
        s.tell = [this](QWidget*, const QString& t) { told = t; };
        window = std::make_unique<MainWindow>(s, MainWindow::Options{{}, folder->filePath("recovery"), false, folder->filePath("curves.json")});
        window->resize(1280, 800); // whatever the screen of this platform has
        window->show();
        QVERIFY(window->open(job_path));
        settle();
    }
    template <class T>
    T* find(const char* name) { return window->findChild<T*>(QString::fromLatin1(name)); }
    NumberEdit* number(const QString& name) { return window->findChild<NumberEdit*>(name); }
    QPushButton* button(const QString& text)
    {
        for (QPushButton* b : window->findChildren<QPushButton*>())
            if (b->isVisible() && b->text() == text)
                return b;
        return nullptr;
    }
    void click(const QString& text)
    {
        QPushButton* b = button(text);
        QVERIFY2(b, qPrintable(text));
        laid_out();
        for (QScrollArea* area : window->findChildren<QScrollArea*>())
            if (area->isAncestorOf(b))
                area->ensureWidgetVisible(b);
        QTest::mouseClick(b, Qt::LeftButton);
    }
    Document& document() { return window->session().document(); }
    const Job& job() { return document().job(); }
    // Waits until the newest edit has been run.
    void settle()
    {
        QVERIFY(QTest::qWaitFor([&] { return window->session().settled(); }, 20000));
    }
    // What was posted has been done: layouts, deletions, repaints.
    static void laid_out()
    {
        for (int turn = 0; turn < 5; ++turn) {
            QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
            QCoreApplication::sendPostedEvents();
            QCoreApplication::processEvents();
        }
    }
    // A fresh loop at its station, this part chosen.
    void at(const char* arrangement, Part part)
    {
        document().set_job(new_job(arrangement), {});
        settle();
        window->show_station(0);
        window->station<LoopStation>().view()->choose(part);
        laid_out();
    }
    int starts() { return window->session().outcome()->figures()->starts(); }
    static void type(NumberEdit* edit, const QString& text)
    {
        edit->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
    }
    const Differential& difference() { return std::get<Differential>(document().variant().unit.rules.back().body); }
    QString rule_field(const char* key) { return QStringLiteral("rule%1.%2").arg(document().variant().unit.rules.size() - 1).arg(QString::fromLatin1(key)); }

    std::unique_ptr<QTemporaryDir> folder;
    std::unique_ptr<MainWindow> window;
    QString job_path, open_answer, save_answer, log_answer, told;
    QString print_answer, save_as_answer;
    Dialogs::Unsaved unsaved_answer = Dialogs::Unsaved::drop;
    Dialogs::Changed changed_answer = Dialogs::Changed::keep_mine;
};

template <class Test>
int run_window_test(int argc, char** argv)
{
    QApplication app(argc, argv);
    load_fonts();
    apply_theme(app, false);
    Test test;
    return QTest::qExec(&test, argc, argv);
}

} // namespace vernal
