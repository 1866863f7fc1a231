// Random actions on the real window, by a seed: clicks, typing, dragging, undo,
// units, arrangements, imports, saves, over all stations. No crash, no Qt warning, no
// stall of the window's own thread, and undone to the start the job is the first one,
// bit for bit. More of them: random_actions 5000 [seed [stall in s]].
#include "app/days/log_desk.h"
#include "fixture.h"

#include "files/disk.h"

#include <QAbstractButton>
#include <QAbstractItemView>
#include <QComboBox>
#include <QMenu>
#include <QPlainTextEdit>
#include <QPointer>
#include <QSlider>
#include <QTimer>

#include <ctime>
#include <random>

using namespace vernal;

namespace {

QStringList warnings;

void note(QtMsgType type, const QMessageLogContext&, const QString& text)
{
    // Of the offscreen platform, not of the program.
    if (text.contains(QLatin1String("propagateSizeHints")) || text.contains(QLatin1String("does not support")))
        return;
    if (type == QtWarningMsg || type == QtCriticalMsg)
        warnings << text;
}

double thread_s()
{
    timespec t{};
    ::clock_gettime(CLOCK_THREAD_CPUTIME_ID, &t);
    return static_cast<double>(t.tv_sec) + 1e-9 * static_cast<double>(t.tv_nsec);
}

} // namespace

class RandomActions : public WindowFixture {
    Q_OBJECT
public:
    int actions = 300;
    unsigned seed = 20261125;
#ifdef __SANITIZE_ADDRESS__
    double longest_stall_s = 3; // it looks for other faults and is many times as slow
#else
    double longest_stall_s = 0.3;
#endif

private slots:
    void go();

private:
    int pick(int n) { return static_cast<int>(random_() % static_cast<unsigned>(std::max(1, n))); }
    template <class T>
    T* some(const std::function<bool(T*)>& fits = {})
    {
        QList<T*> all;
        for (T* w : window->findChildren<T*>())
            if (w->isVisible() && w->isEnabled() && (!fits || fits(w)))
                all.append(w);
        return all.isEmpty() ? nullptr : all[pick(static_cast<int>(all.size()))];
    }
    void click_a_button();
    void type_something();
    void drag_somewhere();
    void choose_something();
    void press_a_key();
    void import_something();
    void act();
    void start_over() { first_ = job(); }
    std::mt19937 random_;
    Job first_;
    QString did_;
};

void RandomActions::click_a_button()
{
    auto* b = some<QAbstractButton>();
    if (!b)
        return;
    did_ = QStringLiteral("click %1 “%2”").arg(b->objectName(), b->text());
    QMenu* menu = nullptr;
    if (auto* push = qobject_cast<QPushButton*>(b))
        menu = push->menu();
    if (!menu)
        return QTest::mouseClick(b, Qt::LeftButton);
    while (menu && !menu->actions().isEmpty()) { // a menu would wait for an answer
        QAction* a = menu->actions()[pick(static_cast<int>(menu->actions().size()))];
        menu = a->menu();
        if (!menu)
            a->trigger();
    }
}

void RandomActions::type_something()
{
    static const QStringList texts{"7", "12.5", "-3", "70 °F", "4 K", "1e999", "nan", "", "12 parsecs", "0", "99999999", "06:30", "5,5", "S1", "P1", "collector", "x", "300 L", "1 Nov"};
    const QPointer<QLineEdit> edit = some<QLineEdit>(); // what it says may take it away
    if (!edit)
        return;
    const QString& text = texts[pick(static_cast<int>(texts.size()))];
    did_ = QStringLiteral("type “%2” into %1").arg(edit->objectName(), text);
    edit->setFocus();
    edit->selectAll();
    for (const QChar c : text)
        if (edit)
            QTest::keyClick(edit.data(), c.toLatin1() ? c.toLatin1() : 'K');
    if (const int end = pick(3); end > 0 && edit)
        QTest::keyClick(edit.data(), end == 1 ? Qt::Key_Return : Qt::Key_Tab);
}

void RandomActions::drag_somewhere()
{
    const QPointer<QWidget> w = some<QWidget>([](QWidget* x) { return x->width() > 120 && x->height() > 80 && !qobject_cast<QAbstractButton*>(x); });
    if (!w)
        return;
    did_ = QStringLiteral("drag on %1 %2").arg(QString::fromLatin1(w->metaObject()->className()), w->objectName());
    QPoint at(pick(w->width()), pick(w->height()));
    QTest::mousePress(w.data(), Qt::LeftButton, {}, at);
    for (int i = 0; i < 4; ++i) {
        at += QPoint(pick(60) - 30, pick(60) - 30);
        if (w)
            QTest::mouseMove(w.data(), at);
    }
    if (w)
        QTest::mouseRelease(w.data(), Qt::LeftButton, {}, at);
}

void RandomActions::choose_something()
{
    if (const QPointer<QComboBox> box = some<QComboBox>(); box && pick(3) > 0 && box->count() > 0) {
        const int i = pick(box->count());
        did_ = QStringLiteral("choose %2 of %1").arg(box->objectName()).arg(i);
        box->setCurrentIndex(i);
        if (box)
            emit box->activated(i);
        return;
    }
    if (auto* slider = some<QSlider>()) {
        did_ = QStringLiteral("slide %1").arg(slider->objectName());
        return slider->setValue(slider->minimum() + pick(slider->maximum() - slider->minimum() + 1));
    }
    if (auto* view = some<QAbstractItemView>(); view && view->model() && view->model()->rowCount() > 0) {
        did_ = QStringLiteral("row of %1").arg(view->objectName());
        view->setCurrentIndex(view->model()->index(pick(view->model()->rowCount()), 0));
    }
}

void RandomActions::press_a_key()
{
    static const QList<Qt::Key> keys{Qt::Key_Left, Qt::Key_Right, Qt::Key_Up, Qt::Key_Down, Qt::Key_Tab, Qt::Key_Space, Qt::Key_Delete, Qt::Key_Home, Qt::Key_PageDown, Qt::Key_Escape};
    QWidget* w = QApplication::focusWidget() ? QApplication::focusWidget() : window.get();
    const Qt::Key key = keys[pick(static_cast<int>(keys.size()))];
    did_ = QStringLiteral("key %1 on %2").arg(key).arg(w->objectName());
    QTest::keyClick(w, key, pick(6) == 0 ? Qt::ShiftModifier : Qt::NoModifier);
}

void RandomActions::import_something()
{
    static const QStringList logs{"time,collector [°C],tank_bottom [°C],tank_top [°C],P1\n0,20,20,30,0\n30,60,21,30,1\n900,61,22,31,1\n", "time,a\n5,1\n4,1\n", "", "time;air [°C]\n0;1,5\n60;2,5\n"};
    log_answer = folder->filePath(QStringLiteral("log%1.csv").arg(pick(3)));
    QVERIFY(write_file_atomically(log_answer.toStdString(), logs[pick(static_cast<int>(logs.size()))].toStdString()));
    did_ = QStringLiteral("import ") + log_answer;
    window->station<DaysStation>().logs().import_files({log_answer});
}

void RandomActions::act()
{
    switch (pick(13)) {
    case 0:
    case 1:
    case 2: return click_a_button();
    case 3:
    case 4: return type_something();
    case 5:
    case 6: return drag_somewhere();
    case 7:
    case 8: return choose_something();
    case 9: return press_a_key();
    case 10: {
        did_ = "undo or redo";
        return pick(3) > 0 ? document().undo_stack().undo() : document().undo_stack().redo();
    }
    case 11:
        if (pick(3) == 0)
            return import_something();
        did_ = "save";
        save_answer = folder->filePath(QStringLiteral("saved%1.%2").arg(pick(3)).arg(pick(2) ? "vrelay" : "json"));
        pick(2) ? window->save() : window->save_as();
        return;
    default: {
        const int station = pick(5);
        did_ = QStringLiteral("station %1").arg(station);
        if (pick(4) == 0) {
            Units u = window->session().units();
            bool Units::*const members[] = {&Units::fahrenheit, &Units::us_gallons, &Units::psi, &Units::feet, &Units::gauge, &Units::btu};
            bool& one = u.*members[pick(6)];
            one = !one;
            window->session().set_units(u);
        }
        window->show_station(station);
    }
    }
}

void RandomActions::go()
{
    open_demo();
    print_answer = folder->filePath("print.pdf");
    open_answer = job_path;
    unsaved_answer = Dialogs::Unsaved::drop;
    random_.seed(seed);
    start_over();
    // Whatever asks is answered by closing it, and a job that takes the place of another begins anew.
    QTimer closer;
    connect(&closer, &QTimer::timeout, this, [] {
        if (QWidget* asking = QApplication::activeModalWidget())
            asking->close();
        if (QWidget* popup = QApplication::activePopupWidget())
            popup->close();
    });
    closer.start(20);
    connect(&document(), &Document::path_changed, this, [this] {
        if (document().undo_stack().count() == 0)
            start_over();
    });
    qInstallMessageHandler(note);
    QStringList last;
    for (int i = 0; i < actions; ++i) {
        const double before = thread_s();
        did_.clear();
        act();
        QCoreApplication::sendPostedEvents();
        QCoreApplication::processEvents();
        const double took = thread_s() - before;
        laid_out(); // what was to be deleted is gone, as it is when a loop turns
        last << did_;
        if (!warnings.isEmpty() || took > longest_stall_s) {
            qInstallMessageHandler(nullptr);
            QFAIL(qPrintable(QStringLiteral("seed %1, action %2 (%3): %4 s, %5; before it %6").arg(seed).arg(i).arg(did_).arg(took).arg(warnings.join("; "), last.mid(std::max(0, static_cast<int>(last.size()) - 6)).join(" | "))));
        }
        if (i % 25 == 24)
            settle();
    }
    qInstallMessageHandler(nullptr);
    settle();
    while (document().undo_stack().canUndo())
        document().undo_stack().undo();
    QVERIFY(write_job_json(job()) == write_job_json(first_));
    QVERIFY(job() == first_);
    window.reset();
}

int main(int argc, char** argv)
{
    QApplication app(argc, argv);
    load_fonts();
    apply_theme(app, false);
    RandomActions test;
    if (argc > 1)
        test.actions = std::atoi(argv[1]);
    if (argc > 2)
        test.seed = static_cast<unsigned>(std::strtoul(argv[2], nullptr, 10));
    if (argc > 3)
        test.longest_stall_s = std::atof(argv[3]);
    return QTest::qExec(&test, QStringList{QString::fromLocal8Bit(argv[0])});
}
#include "random_actions.moc"
