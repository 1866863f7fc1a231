// The ten commonest acts by real keys and clicks, no more steps than docs/ten-acts.md
// says: a step is one click, one shortcut or one typed entry. And the walk with Tab
// over every control of every station.
#include "app/bench/bench_station.h"
#include "app/loop/loop_view.h"
#include "app/probes/probe_points_page.h"
#include "app/run/run_station.h"
#include "app/shell/palette.h"
#include "app/visits/visits_station.h"
#include "core/job/field_path.h"
#include "fixture.h"

#include <QAccessible>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QTabBar>

#include <set>

using namespace vernal;

class TenActsTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init()
    {
        open_demo();
        steps = 0;
        window->activateWindow();
        (void)QTest::qWaitForWindowActive(window.get());
    }
    void cleanup() { window.reset(); }
    void change_a_difference();
    void see_why_the_pump_stopped();
    void celsius_to_fahrenheit();
    void try_a_remedy_and_undo_it();
    void which_curve_is_this_probe();
    void wire_for_a_run();
    void a_new_loop_from_nothing_to_a_day();
    void import_a_log();
    void compare_two_variants();
    void print_the_card();
    void the_document_says_the_same_steps();
    void tab_reaches_every_control_in_reading_order_data();
    void tab_reaches_every_control_in_reading_order();

private:
    int steps = 0;
    void shortcut(Qt::Key key, Qt::KeyboardModifiers with = {})
    {
        ++steps;
        QWidget* to = QApplication::focusWidget() ? QApplication::focusWidget() : window.get();
        QTest::keyClick(to, key, with);
        laid_out();
    }
    // Into what has the focus, taken with Enter.
    void entry(const QString& text)
    {
        ++steps;
        QWidget* to = QApplication::focusWidget();
        QVERIFY(to);
        QTest::keyClicks(to, text);
        QTest::keyClick(to, Qt::Key_Return);
        laid_out();
    }
    void click_on(QWidget* w)
    {
        ++steps;
        QVERIFY(w && w->isVisible());
        QTest::mouseClick(w, Qt::LeftButton);
        laid_out();
    }
    void find_or_do(const QString& words)
    {
        shortcut(Qt::Key_K, Qt::ControlModifier);
        auto* palette = find<Palette>("palette");
        QVERIFY(palette);
        auto* field = palette->findChild<QLineEdit*>();
        ++steps;
        QTest::keyClicks(field, words);
        QTest::keyClick(field, Qt::Key_Return);
        laid_out();
    }
    int said(const QString& act)
    {
        QFile f(QStringLiteral(VERNAL_DEMO "/../../docs/ten-acts.md"));
        if (!f.open(QIODevice::ReadOnly))
            return -1;
        for (const QString& line : QString::fromUtf8(f.readAll()).split('\n'))
            if (const QStringList cells = line.split('|'); cells.size() > 4 && cells[1].trimmed() == act)
                return cells[4].trimmed().toInt();
        return -1;
    }
    void as_said(const char* act) { QCOMPARE(steps, said(QString::fromUtf8(act))); }
};

void TenActsTest::change_a_difference()
{
    window->show_station(0); // from anywhere
    find_or_do("start 9.5");
    QCOMPARE(difference().on.in_kelvin(), 9.5);
    as_said("change a difference");
}

void TenActsTest::see_why_the_pump_stopped()
{
    shortcut(Qt::Key_5, Qt::ControlModifier);
    shortcut(Qt::Key_T, Qt::ControlModifier);
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_A, Qt::ControlModifier);
    entry("15:04");
    QVERIFY(std::fabs(window->session().cursor_s() - (15 * 3600 + 4 * 60)) < 60);
    const QString why = find<QLabel>("runWhy")->text();
    QVERIFY2(why.contains("P1 runs") || why.contains("P1 rests"), qPrintable(why));
    as_said("see why the pump stopped at 15:04");
}

void TenActsTest::celsius_to_fahrenheit()
{
    shortcut(Qt::Key_U, Qt::ControlModifier);
    QVERIFY(window->session().units().fahrenheit);
    as_said("°C to °F");
}

void TenActsTest::try_a_remedy_and_undo_it()
{
    document().edit_variant("test", [](Variant& v) { std::get<Differential>(v.unit.rules.back().body).off = TempDiff::kelvin(-1); });
    settle();
    laid_out();
    const Job before = job();
    shortcut(Qt::Key_F4);
    QVERIFY(QTest::qWaitFor([&] { return QApplication::focusWidget() && qobject_cast<QPushButton*>(QApplication::focusWidget()); }, 3000));
    shortcut(Qt::Key_Return); // tries it: the effect is shown
    QVERIFY(QTest::qWaitFor([&] { return button("Accept") != nullptr; }, 5000));
    QVERIFY(job() == before);
    shortcut(Qt::Key_Escape);
    QVERIFY(QTest::qWaitFor([&] { return button("Accept") == nullptr || !button("Accept")->isVisible(); }, 3000));
    QVERIFY(job() == before);
    as_said("try a remedy and undo it");
}

void TenActsTest::which_curve_is_this_probe()
{
    shortcut(Qt::Key_2, Qt::ControlModifier);
    auto* tabs = find<QTabBar>("probePages");
    ++steps;
    QTest::mouseClick(tabs, Qt::LeftButton, {}, tabs->tabRect(1).center());
    laid_out();
    auto* text = window->station<ProbesStation>().findChild<ProbePointsPage*>()->findChild<QPlainTextEdit*>();
    QVERIFY(text);
    if (!text->hasFocus())
        text->setFocus(); // the page begins there
    ++steps;
    for (const char* pair : {"0 32650", "25 10000", "50 3602"}) { // three points of a thermistor's table
        QTest::keyClicks(text, pair);
        QTest::keyClick(text, Qt::Key_Return);
    }
    const auto* matches = find<QListWidget>("matches");
    QVERIFY(QTest::qWaitFor([&] { return matches->count() > 0 && matches->item(0)->text().contains("NTC"); }, 5000));
    as_said("which curve is this probe");
}

void TenActsTest::wire_for_a_run()
{
    find_or_do("wire for a run");
    QVERIFY(QTest::qWaitFor([&] { return QApplication::focusWidget() && QApplication::focusWidget()->objectName().startsWith("sum."); }, 3000));
    const QString sum = QApplication::focusWidget()->objectName().section('.', 0, 1);
    entry("40");
    auto* formula = window->findChild<QLabel*>(sum + ".formula");
    QVERIFY(formula && formula->isVisible());
    QVERIFY2(formula->text().contains("40"), qPrintable(formula->text()));
    as_said("wire for a run");
}

void TenActsTest::a_new_loop_from_nothing_to_a_day()
{
    shortcut(Qt::Key_N, Qt::ControlModifier);
    QPushButton* tile = nullptr;
    for (QPushButton* b : window->findChildren<QPushButton*>())
        if (b->isVisible() && b->objectName() == QLatin1String("newLoop"))
            tile = tile ? tile : b;
    click_on(tile);
    settle();
    QVERIFY(window->session().outcome()->figures());
    QVERIFY(window->strip().isVisible());
    as_said("new loop from nothing to a day");
}

void TenActsTest::import_a_log()
{
    log_answer = QStringLiteral(VERNAL_DEMO "/traces/cheese-room-7-may.csv");
    shortcut(Qt::Key_I, Qt::ControlModifier);
    ++steps; // the file is chosen
    settle();
    QVERIFY(window->session().outcome()->is_replay());
    as_said("import a log");
}

void TenActsTest::compare_two_variants()
{
    shortcut(Qt::Key_5, Qt::ControlModifier);
    auto* table = find<QTableWidget>("figures");
    bool marked = false;
    for (int r = 0; r < table->rowCount(); ++r)
        for (int c = 0; c < table->columnCount(); ++c)
            marked = marked || (table->item(r, c) && table->item(r, c)->text().startsWith(QStringLiteral("✓")));
    QVERIFY(marked);
    as_said("compare two variants");
}

void TenActsTest::print_the_card()
{
    print_answer = folder->filePath("card.pdf");
    shortcut(Qt::Key_P, Qt::ControlModifier);
    ++steps; // the printer is chosen
    QVERIFY(QFileInfo(print_answer).size() > 1000);
    as_said("print the card");
}

// None over three, but a new loop and an import.
void TenActsTest::the_document_says_the_same_steps()
{
    const std::pair<const char*, int> acts[] = {{"change a difference", 3}, {"see why the pump stopped at 15:04", 3}, {"°C to °F", 3}, {"try a remedy and undo it", 3}, {"which curve is this probe", 3}, {"wire for a run", 3}, {"new loop from nothing to a day", 8}, {"import a log", 4}, {"compare two variants", 3}, {"print the card", 3}};
    for (const auto& [act, most] : acts) {
        const int n = said(QString::fromUtf8(act));
        QVERIFY2(n > 0 && n <= most, act);
    }
}

void TenActsTest::tab_reaches_every_control_in_reading_order_data()
{
    QTest::addColumn<int>("station");
    QTest::addColumn<int>("page");
    for (int i = 0; i < static_cast<int>(stations().size()); ++i)
        for (int page = 0; page < (i == 1 ? 7 : i == 2 ? 4
                                                       : 1);
             ++page)
            QTest::addRow("%s %d", stations()[static_cast<std::size_t>(i)].key, page) << i << page;
}

void TenActsTest::tab_reaches_every_control_in_reading_order()
{
    QFETCH(int, station);
    QFETCH(int, page);
    document().choose_variant(1);
    window->show_station(station);
    QWidget* room = nullptr;
    switch (station) {
    case 0: room = &window->station<LoopStation>(); break;
    case 1:
        room = &window->station<ProbesStation>();
        window->station<ProbesStation>().show_page(page);
        break;
    case 2:
        room = &window->station<RulesStation>();
        window->station<RulesStation>().show_page(page);
        break;
    case 3: room = &window->station<DaysStation>(); break;
    case 4: room = &window->station<RunStation>(); break;
    case 5: room = window->findChild<BenchStation*>(); break;
    default: room = &window->station<VisitsStation>();
    }
    settle();
    laid_out();
    std::set<QWidget*> wanted;
    for (QWidget* w : room->findChildren<QWidget*>()) {
        const bool takes = w->isVisible() && w->isEnabled() && (w->focusPolicy() & Qt::TabFocus) != 0 && !w->focusProxy();
        const bool inner = qobject_cast<QScrollBar*>(w) || (w->parentWidget() && (w->parentWidget()->inherits("QAbstractSpinBox") || w->parentWidget()->inherits("QComboBox")));
        if (takes && !inner)
            wanted.insert(w);
    }
    QVERIFY(wanted.size() > 3);
    for (QWidget* w : wanted) {
        const auto* face = QAccessible::queryAccessibleInterface(w);
        const QString name = face ? face->text(QAccessible::Name) : w->accessibleName();
        QVERIFY2(!name.trimmed().isEmpty() || qobject_cast<QScrollArea*>(w), qPrintable(QStringLiteral("%1 %2 has no accessible name").arg(QString::fromLatin1(w->metaObject()->className()), w->objectName())));
    }
    // All the way round.
    (*wanted.begin())->setFocus(Qt::TabFocusReason);
    QList<QWidget*> walked;
    std::set<QWidget*> seen;
    for (int i = 0; i < 600 && QApplication::focusWidget(); ++i) {
        QWidget* now = QApplication::focusWidget();
        if (!seen.insert(now).second && (walked.isEmpty() || walked.last() != now)) // a date has three places
            break;
        if (walked.isEmpty() || walked.last() != now)
            walked.append(now);
        QTest::keyClick(now, Qt::Key_Tab);
    }
    for (QWidget* w : wanted)
        QVERIFY2(seen.count(w) == 1, qPrintable(QStringLiteral("Tab does not reach %1 %2 of %3").arg(QString::fromLatin1(w->metaObject()->className()), w->objectName(), w->parentWidget()->objectName())));
    // Within what belongs together: down, or to the right.
    for (qsizetype i = 1; i < walked.size(); ++i) {
        QWidget *a = walked[i - 1], *b = walked[i];
        if (a->parentWidget() != b->parentWidget() || !wanted.count(a) || !wanted.count(b))
            continue;
        const QPoint pa = a->mapTo(window.get(), QPoint()), pb = b->mapTo(window.get(), QPoint());
        QVERIFY2(pb.y() > pa.y() - a->height() / 2 || pb.x() > pa.x() + a->width() / 2, qPrintable(QStringLiteral("%1 before %2").arg(a->objectName(), b->objectName())));
    }
}

int main(int argc, char** argv) { return run_window_test<TenActsTest>(argc, argv); }
#include "ten_acts_test.moc"
