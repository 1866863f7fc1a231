// Stretches marked on the strip, faults painted on them, logs edited; what is handed on.
#include "app/charts/day_chart.h"
#include "app/days/days_station.h"
#include "app/run/figure_sheet.h"
#include "app/shell/hand_on.h"
#include "app/widgets/time_edit.h"
#include "files/csv_trace.h"
#include "files/disk.h"
#include "fixture.h"

#include <QClipboard>
#include <QComboBox>
#include <QMenu>
#include <QMimeData>

#include <cmath>

using namespace vernal;

class FaultsWindowTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init()
    {
        open_demo();
        window->show_station(3);
        laid_out();
    }
    void a_stretch_is_marked_with_the_mouse_and_typed();
    void a_fault_is_painted_felt_and_undone();
    void a_tape_is_moved_and_its_end_is_drawn();
    void a_log_is_offered_only_what_a_log_can_have();
    void a_condition_becomes_a_painted_stretch();
    void a_log_is_cut_corrected_and_joined();
    void what_is_run_is_kept_as_a_log();
    void a_day_is_saved_as_csv();
    void pictures_are_saved_and_copied();
    void a_table_is_copied();

private:
    DayChart* strip() { return find<DayChart>("stripChart"); }
    int x_of(double hour)
    {
        const auto* axis = strip()->axisRect()->axis(QCPAxis::atBottom);
        return static_cast<int>(std::lround(axis->coordToPixel(hour * 3600 + window->session().outcome()->start_s())));
    }
    void drag(QPoint from, QPoint to, Qt::KeyboardModifiers keys = Qt::NoModifier)
    {
        QTest::mousePress(strip(), Qt::LeftButton, keys, from);
        QMouseEvent move(QEvent::MouseMove, to, strip()->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, keys);
        QApplication::sendEvent(strip(), &move);
        QTest::mouseRelease(strip(), Qt::LeftButton, keys, to);
        settle();
        laid_out();
    }
    void paint(const char* key)
    {
        auto* action = find<QMenu>("faults")->findChild<QAction*>(QString::fromLatin1(key));
        QVERIFY2(action, key);
        action->trigger();
        settle();
        laid_out();
    }
    void mark(double from_h, double to_h) { window->session().mark(Session::Marked{from_h * 3600, to_h * 3600}); }
    const std::vector<Fault>& faults() { return document().day().faults; }
    void choose_log()
    {
        document().choose_day(3);
        settle();
        laid_out();
        QVERIFY(document().day().kind == DayKind::recorded);
    }
    static double value(const Trace& t, double hour)
    {
        const auto row = std::lower_bound(t.time_s.begin(), t.time_s.end(), hour * 3600) - t.time_s.begin();
        return t.find("collector")->values[static_cast<std::size_t>(row)];
    }
    const Trace& log() { return *job().traces.at(document().day().trace); }
};

void FaultsWindowTest::a_stretch_is_marked_with_the_mouse_and_typed()
{
    drag({x_of(9), 20}, {x_of(12), 20}, Qt::ShiftModifier);
    QVERIFY(window->session().marked());
    QVERIFY(std::fabs(window->session().marked()->from_s - 9 * 3600) < 300);
    QVERIFY(std::fabs(window->session().marked()->to_s - 12 * 3600) < 300);
    auto* to = find<TimeEdit>("markedTo");
    to->setFocus();
    to->selectAll();
    QTest::keyClicks(to, "13:30");
    QTest::keyClick(to, Qt::Key_Return);
    QCOMPARE(window->session().marked()->to_s, 13.5 * 3600);
    QTest::mouseClick(find<QPushButton>("unmark"), Qt::LeftButton);
    QVERIFY(!window->session().marked());
}

void FaultsWindowTest::a_fault_is_painted_felt_and_undone()
{
    const double before = window->session().outcome()->figures()->heat.to_store;
    mark(9, 15);
    paint("air_lock");
    QCOMPARE(faults().size(), 1U);
    QCOMPARE(faults()[0].from_h, 9.0);
    QVERIFY(window->session().outcome()->figures()->heat.to_store < 0.8 * before);
    paint("probe_stuck"); // at the cursor for an hour, beside the first
    QCOMPARE(faults().size(), 2U);
    type(number("fault1.stuck_c"), "61");
    settle();
    QCOMPARE(faults()[1].stuck_c, 61.0);
    while (!faults().empty())
        document().undo_stack().undo();
    settle();
    QCOMPARE(window->session().outcome()->figures()->heat.to_store, before);
}

void FaultsWindowTest::a_tape_is_moved_and_its_end_is_drawn()
{
    mark(9, 11);
    paint("snow");
    const int y = strip()->axisRect()->top() + 6;
    drag({x_of(10), y}, {x_of(12), y});
    QVERIFY2(std::fabs(faults()[0].from_h - 11) < 0.1, qPrintable(QString::number(faults()[0].from_h)));
    QVERIFY(std::fabs(faults()[0].to_h - 13) < 0.1);
    drag({x_of(13), y}, {x_of(15), y});
    QVERIFY(std::fabs(faults()[0].from_h - 11) < 0.1);
    QVERIFY(std::fabs(faults()[0].to_h - 15) < 0.1);
    document().undo_stack().undo();
    QVERIFY(std::fabs(faults()[0].to_h - 13) < 0.1);
}

void FaultsWindowTest::a_log_is_offered_only_what_a_log_can_have()
{
    choose_log();
    auto* menu = find<QMenu>("faults");
    QVERIFY(!menu->findChild<QAction*>("snow") && !menu->findChild<QAction*>("pump_dead"));
    QVERIFY(menu->findChild<QAction*>("clock_wrong"));
    const std::size_t before = window->session().outcome()->replay->disagreements.size();
    mark(10, 12);
    paint("probe_open");
    QVERIFY(std::isnan(window->session().outcome()->reading(window->session().outcome()->at(11 * 3600), 0)));
    QVERIFY(window->session().outcome()->replay->disagreements.size() != before);
    QVERIFY2(!std::isnan(value(log(), 11)), "the log itself stays");
}

void FaultsWindowTest::a_condition_becomes_a_painted_stretch()
{
    document().edit_variant(QStringLiteral("stuck"), [](Variant& v) {
        v.probes[0].condition.kind = ConditionKind::stuck;
        v.probes[0].condition.stuck_c = 55;
    });
    settle();
    mark(8, 9);
    window->show_station(1);
    laid_out();
    QPushButton* button = find<QPushButton>("forAWhile");
    QVERIFY(button);
    button->click();
    settle();
    QCOMPARE(document().variant().probes[0].condition.kind, ConditionKind::sound);
    QCOMPARE(faults().size(), 1U);
    QCOMPARE(faults()[0].kind, FaultKind::probe_stuck);
    QCOMPARE(faults()[0].stuck_c, 55.0);
    QCOMPARE(faults()[0].to_h, 9.0);
    document().undo_stack().undo();
    QCOMPARE(document().variant().probes[0].condition.kind, ConditionKind::stuck);
    QVERIFY(faults().empty());
}

void FaultsWindowTest::a_log_is_cut_corrected_and_joined()
{
    choose_log();
    const Trace whole = log();
    const std::string name = document().day().trace;
    mark(8, 16);
    type(number("editOffset"), "2");
    settle();
    QVERIFY(document().day().trace != name);
    QCOMPARE(value(log(), 12), value(whole, 12) + 2);
    QCOMPARE(value(log(), 4), value(whole, 4));
    mark(8, 16);
    QTest::mouseClick(find<QPushButton>("cutLog"), Qt::LeftButton);
    settle();
    laid_out();
    QVERIFY(log().time_s.front() >= 8 * 3600);
    QVERIFY(log().time_s.back() <= 16 * 3600);
    auto* join = find<QComboBox>("joinLog");
    const int i = join->findText(qs(name));
    QVERIFY(i > 0);
    join->setCurrentIndex(i);
    emit join->activated(i);
    settle();
    QCOMPARE(log().time_s.size(), whole.time_s.size());
    for (int k = 0; k < 3; ++k)
        document().undo_stack().undo();
    QCOMPARE(document().day().trace, name);
}

void FaultsWindowTest::what_is_run_is_kept_as_a_log()
{
    const std::size_t days = job().days.size();
    mark(9, 15);
    paint("relay_stuck_off");
    find<QPushButton>("keepLog")->click();
    QVERIFY(QTest::qWaitFor([&] { return job().days.size() == days + 1; }, 20000));
    settle();
    QVERIFY(document().day().kind == DayKind::recorded);
    QCOMPARE(log().time_s.size(), 2881U);
    QCOMPARE(log().interval_s(), 30.0);
    QVERIFY(log().has_date());
    QVERIFY(window->session().outcome()->is_replay());
}

void FaultsWindowTest::a_day_is_saved_as_csv()
{
    save_as_answer = folder->filePath("day.csv");
    find<QPushButton>("exportDay")->click();
    QVERIFY(QTest::qWaitFor([&] { return find<QLabel>("dayMessage")->text().contains("written"); }, 20000));
    const auto text = read_file(save_as_answer.toStdString());
    QVERIFY(text);
    const auto trace = read_trace_csv(*text, "day.csv");
    QVERIFY(trace && trace->find("collector") && trace->find("P1"));
    QCOMPARE(trace->interval_s(), 10.0);
}

void FaultsWindowTest::pictures_are_saved_and_copied()
{
    window->show_station(4);
    settle();
    laid_out();
    for (const char* ending : {"svg", "png", "pdf"}) {
        save_as_answer = folder->filePath(QStringLiteral("day.%1").arg(QString::fromLatin1(ending)));
        window->findChild<HandOn*>()->save_picture_of(&window->work());
        QVERIFY2(QFileInfo(save_as_answer).size() > 3000, ending);
    }
    QImage png(folder->filePath("day.png"));
    QVERIFY(png.width() > 1000);
    QFile svg(folder->filePath("day.svg"));
    QVERIFY(svg.open(QIODevice::ReadOnly));
    const QByteArray text = svg.readAll();
    QVERIFY2(text.contains("<polyline") || text.contains("<path"), "as vectors");
    QVERIFY(text.contains("Tank bottom"));
    save_as_answer = folder->filePath("day.bmp");
    told.clear();
    window->findChild<HandOn*>()->save_picture_of(&window->work());
    QVERIFY(told.contains(".svg"));
    QApplication::clipboard()->clear();
    auto* chart = find<DayChart>("runChart");
    chart->setFocus();
    QTest::keyClick(chart, Qt::Key_C, Qt::ControlModifier);
    QVERIFY(QApplication::clipboard()->mimeData()->hasImage());
}

void FaultsWindowTest::a_table_is_copied()
{
    window->show_station(4);
    settle();
    auto* table = window->findChild<FigureSheet*>();
    QVERIFY(table);
    table->setFocus();
    QTest::keyClick(table, Qt::Key_C, Qt::ControlModifier);
    const QString text = QApplication::clipboard()->text();
    QVERIFY(text.contains(QLatin1Char('\t')));
    QVERIFY(text.contains("kWh"));
    QVERIFY(QApplication::clipboard()->mimeData()->hasHtml());
    save_as_answer = folder->filePath("table.csv");
    window->findChild<HandOn*>()->save_table_of(&window->work());
    QVERIFY(QFileInfo(save_as_answer).size() > 100);
}

int main(int argc, char** argv) { return run_window_test<FaultsWindowTest>(argc, argv); }
#include "faults_window_test.moc"
