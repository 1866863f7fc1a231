// Drives the real window with real key and mouse events.
#include "fixture.h"

using namespace vernal;

class WindowTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init() { open_demo(); }
    void cleanup() { window.reset(); }
    void typed_threshold_changes_the_starts();
    void wrong_text_stays_and_says_why();
    void dragged_line_changes_sentence_strip_and_undoes();
    void save_reopen_compare();
    void imports_a_log_by_file();
    void units_switch_everywhere_and_differences_have_no_offset();
    void remedy_shows_its_effect_before_it_is_taken();
    void recovery_copy_is_offered_and_whole();
    void stations_by_keyboard();
    void loop_part_is_edited_in_place();
    void probe_converter_both_ways();
    void targets_stay_large_at_the_least_size();
};

void WindowTest::typed_threshold_changes_the_starts()
{
    window->show_station(2);
    const int before = starts();
    type(number(rule_field("on_k")), "3,9");
    settle();
    QCOMPARE(difference().on.in_kelvin(), 3.9);
    QVERIFY2(starts() > before, "a narrow band starts more often");
    QVERIFY(find<QLabel>("stripFigures")->text().contains(QStringLiteral("%1 starts").arg(starts())));
    QTest::keyClick(window.get(), Qt::Key_Z, Qt::ControlModifier);
    settle();
    QCOMPARE(starts(), before);
}

void WindowTest::wrong_text_stays_and_says_why()
{
    window->show_station(2);
    NumberEdit* edit = number(rule_field("on_k"));
    const TempDiff before = difference().on;
    type(edit, "warm");
    QCOMPARE(edit->text(), "warm");
    QVERIFY(edit->reason().contains("not a number"));
    QVERIFY(difference().on == before);
    type(edit, "900");
    QVERIFY(edit->reason().contains("must lie between"));
    QTest::keyClick(edit, Qt::Key_Escape);
    QVERIFY(edit->reason().isEmpty());
}

void WindowTest::dragged_line_changes_sentence_strip_and_undoes()
{
    window->show_station(2);
    auto* map = find<OperatingMap>("operatingMap");
    laid_out();
    const std::size_t rule = document().variant().unit.rules.size() - 1;
    const auto grip = map->handle(rule, "on_k");
    QVERIFY(grip.has_value());
    const double before = difference().on.in_kelvin();
    const int starts_before = starts();
    const QPoint from = grip->toPoint();
    QTest::mousePress(map, Qt::LeftButton, {}, from);
    for (int dy = 10; dy <= 60; dy += 10)
        QTest::mouseMove(map, from - QPoint(0, dy));
    QTest::mouseRelease(map, Qt::LeftButton, {}, from - QPoint(0, 60));
    settle();
    QVERIFY2(difference().on.in_kelvin() > before + 3, "dragged up");
    QCOMPARE(number(rule_field("on_k"))->value(), difference().on.in_kelvin());
    QVERIFY(starts() != starts_before);
    QCOMPARE(document().undo_stack().count(), 1); // one drag, one step
    document().undo_stack().undo();
    QCOMPARE(difference().on.in_kelvin(), before);
    settle();
    QCOMPARE(starts(), starts_before);
}

void WindowTest::save_reopen_compare()
{
    window->show_station(2);
    type(number(rule_field("off_k")), "2.7");
    QVERIFY(document().unsaved());
    QTest::keyClick(window.get(), Qt::Key_S, Qt::ControlModifier);
    QVERIFY(!document().unsaved());
    const Job before = job();
    QVERIFY(window->open(job_path));
    QVERIFY(job().variants == before.variants);
    QVERIFY(job().days == before.days);
    settle();
    QVERIFY2(window->session().verdict().baseline_figures.has_value(), "the strip compares with the other variant");
}

void WindowTest::imports_a_log_by_file()
{
    log_answer = QStringLiteral(VERNAL_DEMO "/traces/cheese-room-7-may.csv");
    const std::size_t days = job().days.size();
    window->show_station(3);
    QTest::mouseClick(find<QPushButton>("importLog"), Qt::LeftButton);
    QCOMPARE(job().days.size(), days + 1);
    settle();
    const auto o = window->session().outcome();
    QVERIFY(o->is_replay());
    QVERIFY(!o->replay->disagreements.empty());
    window->show_station(4);
    QCOMPARE(find<QTableView>("disagreements")->model()->rowCount(), static_cast<int>(o->replay->disagreements.size()));
    document().undo_stack().undo();
    QCOMPARE(job().days.size(), days);
}

void WindowTest::units_switch_everywhere_and_differences_have_no_offset()
{
    window->show_station(2);
    type(number(rule_field("on_k")), "8");
    window->session().set_units(Units::us());
    QCOMPARE(number(rule_field("on_k"))->text(), QStringLiteral("14.4 °F"));
    type(number(rule_field("on_k")), "18");
    QCOMPARE(difference().on.in_kelvin(), 10.0);
    window->station<LoopStation>().view()->choose(Part::tank);
    QVERIFY(number("loop.volume_m3")->text().endsWith("gal"));
    QVERIFY(number("loop.room_c")->text().endsWith(QStringLiteral("°F")));
    settle();
}

void WindowTest::remedy_shows_its_effect_before_it_is_taken()
{
    document().choose_variant(0);
    window->show_station(2);
    window->show_findings();
    settle();
    QPushButton* attempt = nullptr;
    QVERIFY(QTest::qWaitFor([&] {
        for (QPushButton* b : window->findChildren<QPushButton*>("act"))
            if (b->isVisible() && b->text().startsWith("Try: start"))
                attempt = b;
        return attempt != nullptr;
    },
        5000));
    const Job before = job();
    QTest::mouseClick(attempt, Qt::LeftButton);
    auto* effect = attempt->parentWidget()->findChild<QLabel*>("remedyEffect");
    QVERIFY(QTest::qWaitFor([&] { return effect->text().contains(QStringLiteral("Starts")); }, 10000));
    QVERIFY2(job() == before, "nothing is changed by trying");
    for (QPushButton* b : attempt->parentWidget()->findChildren<QPushButton*>("accept"))
        if (b->text() == "Accept")
            QTest::mouseClick(b, Qt::LeftButton);
    QVERIFY(job() != before);
    document().undo_stack().undo();
    QVERIFY(job() == before);
}

void WindowTest::recovery_copy_is_offered_and_whole()
{
    const QString where = folder->filePath("recovery");
    window->show_station(2);
    type(number(rule_field("on_k")), "11.1");
    const QString copy = where + QStringLiteral("/%1.vrelay").arg(QCoreApplication::applicationPid());
    QVERIFY2(QTest::qWaitFor([&] { return QFile::exists(copy); }, 2000), "at most two seconds behind");
    QVERIFY(Recovery::left_behind(where).isEmpty()); // this process still runs
    // A program that is gone: a process number nobody has.
    QVERIFY(QFile::copy(copy, where + "/999999999.vrelay"));
    QVERIFY(QFile::copy(where + QStringLiteral("/%1.path").arg(QCoreApplication::applicationPid()), where + "/999999999.path"));
    const auto left = Recovery::left_behind(where);
    QCOMPARE(left.size(), 1);
    QCOMPARE(left[0].original, job_path);
    const auto copied = open_job(left[0].copy.toStdString());
    QVERIFY(copied);
    QVERIFY(copied->variants == job().variants);
    window->save();
    QVERIFY(!QFile::exists(copy));
}

void WindowTest::stations_by_keyboard()
{
    for (int i = 0; i < 5; ++i) {
        QTest::keyClick(window.get(), static_cast<Qt::Key>(Qt::Key_1 + i), Qt::ControlModifier);
        QCOMPARE(window->strip().isVisible(), i != 4);
    }
}

void WindowTest::loop_part_is_edited_in_place()
{
    window->show_station(0);
    laid_out();
    LoopView* view = window->station<LoopStation>().view();
    QTest::mouseClick(view, Qt::LeftButton, {}, view->part_area(Part::pump).center().toPoint());
    NumberEdit* flow = number("loop.flow_m3_s");
    QVERIFY(flow);
    const double heat = window->session().outcome()->figures()->heat.to_store;
    type(flow, "3.1");
    QVERIFY(std::fabs(document().variant().loop.pump.flow_m3_s - 3.1e-3 / 60) < 1e-12);
    settle();
    QVERIFY(window->session().outcome()->figures()->heat.to_store != heat);
}

void WindowTest::probe_converter_both_ways()
{
    window->show_station(1);
    type(number("convertTemp"), "100");
    QVERIFY(std::fabs(number("convertOhm")->value() - 1385.055) < 1e-3); // IEC 60751
    type(number("convertOhm"), "1000");
    QVERIFY(std::fabs(number("convertTemp")->value()) < 1e-9);
    type(number("convertOhm"), "99999");
    QVERIFY(find<QLabel>("convertAnswer")->text().contains("outside this curve"));
}

void WindowTest::targets_stay_large_at_the_least_size()
{
    window->resize(1024, 700);
    for (int i = 0; i < 5; ++i) {
        window->show_station(i);
        laid_out();
        QCOMPARE(window->size(), QSize(1024, 700));
        for (QPushButton* b : window->findChildren<QPushButton*>()) {
            const QString look = b->property("look").toString();
            const bool in_text = b->objectName() == "word" || look == "rank" || look == "thread"; // the row about it is the target
            if (b->isVisible() && !b->text().isEmpty())
                QVERIFY2(b->height() >= 32 || in_text, qPrintable(b->text()));
        }
        for (LedgerLine* line : window->findChildren<LedgerLine*>())
            QVERIFY(!line->isVisible() || line->height() >= 32);
    }
}

int main(int argc, char** argv) { return run_window_test<WindowTest>(argc, argv); }
#include "window_test.moc"
