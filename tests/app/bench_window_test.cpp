// The bench: wires sent by hand and by key, a procedure that reads by itself.
#include "app/bench/at_loop_page.h"
#include "app/bench/bench_station.h"
#include "app/bench/drill_page.h"
#include "app/bench/far_view.h"
#include "app/bench/live_threads.h"
#include "app/bench/rig_view.h"
#include "app/bench/unit_page.h"
#include "app/widgets/number_edit.h"
#include "fixture.h"

#include <QListWidget>
#include <QPlainTextEdit>
#include <QTabBar>
#include <QTableWidget>

using namespace vernal;

class BenchWindowTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init()
    {
        open_demo();
        settle();
        window->show_station(station_index("bench"));
        laid_out();
        QVERIFY(QTest::qWaitFor([this] { return model().rig() != nullptr; }, 10000));
    }
    void a_wire_is_dragged_into_a_medium();
    void a_probe_is_sent_by_key_and_its_lead_broken();
    void a_switch_is_clicked_and_time_stands_while_nobody_looks();
    void a_procedure_reads_by_itself_to_its_verdict();
    void a_step_is_left_out_with_a_reason();
    void a_reading_is_typed();
    void hands_turn_supply_and_bypass_and_put_in_a_fault();
    void an_own_procedure_is_kept_with_the_job();
    void another_setting_is_another_unit();
    void a_unit_by_its_sheet();
    void at_the_loop_it_says_what_should_be_and_what_is_wrong();
    void one_huge_number_and_one_key();
    void a_drill_from_the_call_to_the_debrief();

private:
    BenchStation& station() { return *window->findChild<BenchStation*>(); }
    BenchModel& model() { return station().model(); }
    RigView& view() { return station().rig_view(); }
    void choose(const char* procedure)
    {
        auto* list = find<QListWidget>("procedure");
        for (int i = 0; i < list->count(); ++i)
            if (list->item(i)->data(Qt::UserRole).toString() == QLatin1String(procedure))
                return list->setCurrentRow(i);
        QFAIL(procedure);
    }
};

void BenchWindowTest::a_wire_is_dragged_into_a_medium()
{
    const QPoint from = view().end_of(0).toPoint(), to = view().middle_of(Medium::ice_water).toPoint();
    QTest::mousePress(&view(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&view(), (from + to) / 2);
    QTest::mouseRelease(&view(), Qt::LeftButton, {}, to);
    QCOMPARE(model().rig()->medium(0), Medium::ice_water);
    QVERIFY(window->findChild<LiveThreads*>()->rows() >= 3); // the rules of its output
    model().set_speed(600);
    QVERIFY(QTest::qWaitFor([this] { return std::abs(model().rig()->reading(0).mk) < 800; }, 10000));
    QVERIFY(!model().recorded().empty());
}

void BenchWindowTest::a_probe_is_sent_by_key_and_its_lead_broken()
{
    view().setFocus();
    QTest::keyClick(&view(), Qt::Key_Right);
    QCOMPARE(view().chosen(), 1U);
    QTest::keyClick(&view(), Qt::Key_4);
    QCOMPARE(model().rig()->medium(1), Medium::cup);
    QTest::keyClick(&view(), Qt::Key_B);
    QCOMPARE(model().rig()->lead(1), LeadState::broken);
    QVERIFY(QTest::qWaitFor([this] { return !model().rig()->reading(1).valid; }, 10000));
}

void BenchWindowTest::a_switch_is_clicked_and_time_stands_while_nobody_looks()
{
    model().rig()->set_mode(0, Mode::off);
    QVERIFY(QTest::qWaitFor([this] { return !model().rig()->turns(0); }, 20000));
    const double began = model().rig()->now_s();
    model().set_speed(1);
    QVERIFY2(QTest::qWaitFor([&] { return model().rig()->now_s() > began + 1.5; }, 10000), "time goes on by the clock too");
    window->show_station(0);
    const double then = model().rig()->now_s();
    QTest::qWait(200);
    QCOMPARE(model().rig()->now_s(), then);
}

void BenchWindowTest::a_procedure_reads_by_itself_to_its_verdict()
{
    choose("start-by-warming");
    const std::size_t before = document().job().bench.size();
    QTest::mouseClick(find<QPushButton>("speed600"), Qt::LeftButton);
    QTest::mouseClick(find<QPushButton>("beginProcedure"), Qt::LeftButton);
    QVERIFY(QTest::qWaitFor([this] { return model().run() && model().run()->result().verdict() != StepVerdict::open; }, 60000));
    QCOMPARE(model().run()->result().verdict(), StepVerdict::passed);
    laid_out();
    QVERIFY(find<QLabel>("benchVerdict")->text().contains("Passed"));
    QVERIFY(find<QLabel>("benchCaptured")->text().contains("start"));
    QCOMPARE(document().job().bench.size(), before + 1);
    QCOMPARE(document().job().bench.back().procedure, std::string("start-by-warming"));
    QCOMPARE(document().job().bench.back().verdict, StepVerdict::passed);
    QTest::mouseClick(find<QPushButton>("leaveProcedure"), Qt::LeftButton);
    QVERIFY2(find<QListWidget>("procedure")->currentItem()->text().startsWith(QStringLiteral("✓")), "the list says what it said last");
    document().undo_stack().undo();
    QCOMPARE(document().job().bench.size(), before);
}

void BenchWindowTest::a_step_is_left_out_with_a_reason()
{
    QTest::mouseClick(find<QPushButton>("beginProcedure"), Qt::LeftButton);
    laid_out();
    QTest::mouseClick(find<QPushButton>("notPossible"), Qt::LeftButton);
    QCOMPARE(model().run()->step(), 0U);
    find<QLineEdit>("notPossibleReason")->setText(QStringLiteral("no ice"));
    QTest::mouseClick(find<QPushButton>("notPossible"), Qt::LeftButton);
    QCOMPARE(model().run()->result().steps[0].verdict, StepVerdict::not_possible);
    QCOMPARE(model().run()->result().steps[0].said, std::string("no ice"));
    QTest::mouseClick(find<QPushButton>("leaveProcedure"), Qt::LeftButton);
    QVERIFY(!model().run());
    laid_out();
    QTest::mouseClick(find<QPushButton>("resumeProcedure"), Qt::LeftButton);
    QVERIFY(model().run());
    QCOMPARE(model().run()->step(), 1U);
    QCOMPARE(model().run()->result().steps[0].said, std::string("no ice"));
    laid_out();
    QTest::mouseClick(find<QPushButton>("repeatStep"), Qt::LeftButton);
    QCOMPARE(model().run()->step(), 0U);
    QCOMPARE(model().run()->result().steps[0].verdict, StepVerdict::open);
}

void BenchWindowTest::a_reading_is_typed()
{
    choose("bucket");
    QTest::mouseClick(find<QCheckBox>("readByHand"), Qt::LeftButton);
    QTest::mouseClick(find<QPushButton>("speed600"), Qt::LeftButton);
    QTest::mouseClick(find<QPushButton>("beginProcedure"), Qt::LeftButton);
    QVERIFY(QTest::qWaitFor([this] { return model().run() && model().run()->asked(); }, 60000));
    laid_out();
    auto* typed = find<QLineEdit>("typedReading");
    QVERIFY(typed->isVisible());
    typed->setText(QStringLiteral("plenty"));
    QTest::keyClick(typed, Qt::Key_Return);
    QVERIFY(find<QLabel>("benchAsks")->text().contains("plenty"));
    typed->setText(QStringLiteral("50,0"));
    QTest::keyClick(typed, Qt::Key_Return);
    QCOMPARE(model().run()->result().steps[0].captured.at(0).mean(), 12.0);
}

void BenchWindowTest::hands_turn_supply_and_bypass_and_put_in_a_fault()
{
    auto* supply = find<NumberEdit>("rig.supply");
    type(supply, QStringLiteral("11.2"));
    QVERIFY(QTest::qWaitFor([this] { return std::abs(model().rig()->supply_v() - 11.2) < 1e-6; }, 10000));
    QTest::mouseClick(find<QPushButton>("rig.asItStands"), Qt::LeftButton);
    QVERIFY(!model().rig()->supply_by_hand());
    const QString key = qs(model().rig()->variant().unit.outputs[0].key);
    QTest::mouseClick(find<QCheckBox>(("rig.bypass." + key).toUtf8().constData()), Qt::LeftButton);
    QVERIFY(model().rig()->bypassed(0));
    auto* ohm = find<NumberEdit>("rig.ohm");
    type(ohm, QStringLiteral("1200"));
    QCOMPARE(model().rig()->medium(0), Medium::resistor);
    view().setFocus();
    QTest::keyClick(&view(), Qt::Key_C);
    QVERIFY(model().rig()->contact_open(0));
    auto* fault = find<QComboBox>("rig.fault");
    const int open = fault->findText(qs(model().faults()[0].name));
    QVERIFY(open > 0);
    fault->setCurrentIndex(open);
    emit fault->activated(open);
    QCOMPARE(model().fault(), open - 1);
    QVERIFY2(model().rig()->medium(0) == Medium::loop, "another unit lies there");
    const std::size_t before = document().job().bench.size();
    choose("hand-warm");
    model().set_speed(600);
    QTest::mouseClick(find<QPushButton>("beginProcedure"), Qt::LeftButton);
    QVERIFY(QTest::qWaitFor([this] { return model().run() && model().run()->step() >= model().run()->result().steps.size(); }, 60000));
    QCOMPARE(model().run()->result().verdict(), StepVerdict::failed);
    QVERIFY2(document().job().bench.size() == before, "with a fault put in it is practice");
}

void BenchWindowTest::an_own_procedure_is_kept_with_the_job()
{
    const auto broken = model().add_procedure(QStringLiteral("own.md"), "---\nname: own\ntitle: Own\n---\n## A\n- fly: high\n");
    QVERIFY(broken);
    QVERIFY(broken->text().find("line 6") != std::string::npos);
    QVERIFY(!model().add_procedure(QStringLiteral("own.md"), "---\nname: own\ntitle: My own test\nneeds: pair\n---\n## Look\n- ask: Is the lid on?\n"));
    QCOMPARE(document().job().attachments.back().name, std::string("own.md"));
    choose("own");
    QTest::mouseClick(find<QPushButton>("beginProcedure"), Qt::LeftButton);
    QVERIFY(QTest::qWaitFor([this] { return model().run() && model().run()->asked(); }, 10000));
    laid_out();
    QTest::mouseClick(find<QPushButton>("answerNo"), Qt::LeftButton);
    QCOMPARE(model().run()->result().verdict(), StepVerdict::failed);
}

void BenchWindowTest::another_setting_is_another_unit()
{
    model().rig()->put(0, Medium::hand);
    document().choose_day(1);
    settle();
    QCOMPARE(model().rig()->medium(0), Medium::hand);
    document().edit_variant(QStringLiteral("resolution"), [](Variant& v) { v.unit.resolution_k += 0.1; });
    settle();
    QCOMPARE(model().rig()->medium(0), Medium::loop);
}

void BenchWindowTest::a_unit_by_its_sheet()
{
    QTest::mouseClick(find<QPushButton>("benchUnit"), Qt::LeftButton);
    laid_out();
    auto* page = window->findChild<UnitPage*>();
    QVERIFY(page->isVisible());
    QCOMPARE(page->sheets(), 2);
    auto* wiring = find<QTableWidget>("wiringTable");
    QVERIFY(wiring->rowCount() > 5);
    auto* tabs = find<QTabBar>("unitPages");
    tabs->setCurrentIndex(1);
    auto* keys = find<QTableWidget>("keyTable");
    QCOMPARE(keys->item(0, 0)->text(), QStringLiteral("Units of measure"));
    QCOMPARE(keys->item(1, 0)->text(), QStringLiteral("Arrangement"));
    QTest::mouseClick(find<QPushButton>("keepSheet"), Qt::LeftButton);
    QCOMPARE(document().job().attachments.back().name, std::string("example-unit-north.unit.json"));
    QVERIFY(!find<QPushButton>("keepSheet")->isVisible());
    const std::size_t variants = document().job().variants.size(), was = document().variant_index();
    QTest::mouseClick(find<QPushButton>("asVariant"), Qt::LeftButton);
    QCOMPARE(document().job().variants.size(), variants + 1);
    QCOMPARE(document().variant().name, std::string("on Example unit north"));
    QCOMPARE(document().baseline_index(), was);
    tabs->setCurrentIndex(3);
    auto* red = find<QComboBox>("lamp.red");
    red->setCurrentIndex(3);
    emit red->activated(3);
    QVERIFY(find<QLabel>("lampWords")->text().contains("without ohms"));
    tabs->setCurrentIndex(5);
    auto* text = find<QPlainTextEdit>("sheetText");
    const QString whole = text->toPlainText();
    text->setPlainText(QString(whole).replace(QStringLiteral("\"differential\""), QStringLiteral("\"differentail\"")));
    QVERIFY(find<QLabel>("sheetTextSaid")->text().contains("line "));
    QVERIFY(!find<QPushButton>("takeSheetText")->isEnabled());
    text->setPlainText(QString(whole).replace(QStringLiteral("Example unit north"), QStringLiteral("Our unit")));
    QVERIFY(find<QPushButton>("takeSheetText")->isEnabled());
    QTest::mouseClick(find<QPushButton>("takeSheetText"), Qt::LeftButton);
    QCOMPARE(document().job().attachments.back().name, std::string("our-unit.unit.json"));
    QCOMPARE(qs(page->sheet()->name), QStringLiteral("Our unit"));
    tabs->setCurrentIndex(4);
    auto* old = find<QComboBox>("insteadOf");
    old->setCurrentIndex(old->findText(QStringLiteral("Example unit south")));
    emit old->activated(old->currentIndex());
    QVERIFY(find<QTableWidget>("replacedTable")->rowCount() > 0);
}

void BenchWindowTest::at_the_loop_it_says_what_should_be_and_what_is_wrong()
{
    QTest::mouseClick(find<QPushButton>("benchLoop"), Qt::LeftButton);
    laid_out();
    type(find<NumberEdit>("now.hour"), QStringLiteral("12:30"));
    type(find<NumberEdit>("now.store"), QStringLiteral("35"));
    auto* expected = find<QLabel>("expectedNow");
    QVERIFY2(expected->text().contains("sun on the array"), qPrintable(expected->text()));
    QVERIFY(find<QLabel>("balance")->text().contains("Type what was read"));
    auto* page = window->findChild<AtLoopPage*>();
    const auto e = expect_now(document().job(), document().variant(), page->given());
    QVERIFY(e.has_value());
    type(find<NumberEdit>("now.litres"), QStringLiteral("8"));
    type(find<NumberEdit>("now.seconds"), QString::number(0.008 / e->flow_m3_s.mid, 'f', 1));
    type(find<NumberEdit>("now.supply"), QStringLiteral("35"));
    type(find<NumberEdit>("now.return"), QString::number(35 + e->rise_k.mid, 'f', 1));
    QVERIFY2(find<QLabel>("balance")->text().contains("agrees"), qPrintable(find<QLabel>("balance")->text()));
    type(find<NumberEdit>("now.return"), QString::number(35 + 3 * e->rise_k.mid + 10, 'f', 1));
    QVERIFY2(find<QLabel>("balance")->text().contains("from the array"), qPrintable(find<QLabel>("balance")->text()));
    // What is empty stays so in other units, and stands in nobody's way.
    window->session().set_units(Units::us());
    QVERIFY(find<NumberEdit>("now.sun")->text().isEmpty());
    auto* gone = find<NumberEdit>("now.return");
    gone->setFocus();
    gone->selectAll();
    QTest::keyClick(gone, Qt::Key_Delete);
    QVERIFY(!page->read().return_c);
    const std::size_t day = document().day_index();
    document().choose_day(day == 0 ? 1 : 0);
    QVERIFY2(document().day_index() != day, "an empty field keeps nobody from another day");
    for (const auto& [name, answer] : {std::pair("pump.hum", 2), std::pair("pump.current", 4), std::pair("pump.shaft", 2), std::pair("pump.by_hand", 3)}) {
        auto* box = find<QComboBox>(name);
        box->setCurrentIndex(answer);
        emit box->activated(answer);
    }
    QVERIFY(find<QLabel>("pumpVerdict")->text().contains("seized"));
}

void BenchWindowTest::one_huge_number_and_one_key()
{
    station().show_far();
    auto* far = window->findChild<FarView*>();
    QVERIFY(far && far->isVisible());
    QVERIFY(far->watch().isEmpty());
    QTest::keyClick(far, Qt::Key_Space);
    QTest::qWait(120);
    QTest::keyClick(far, Qt::Key_Space);
    const QString stopped = far->watch();
    QVERIFY(stopped.startsWith(QStringLiteral("0:0")));
    QTest::qWait(120);
    QCOMPARE(far->watch(), stopped);
    const QString first = far->number();
    QTest::keyClick(far, Qt::Key_Right);
    QCOMPARE(far->quantity(), 1);
    QCOMPARE(far->number(), reading_text(model().rig()->variant().probes[0], model().rig()->reading(0).mk / 1000.0, window->session().units()));
    QTest::keyClick(far, Qt::Key_Escape);
    QVERIFY(!far->isVisible());
}

void BenchWindowTest::a_drill_from_the_call_to_the_debrief()
{
    QTest::mouseClick(find<QPushButton>("benchDrills"), Qt::LeftButton);
    laid_out();
    auto* page = window->findChild<DrillPage*>();
    QVERIFY(page->calls() >= 12);
    QVERIFY(page->add_drill(QStringLiteral("own.md"), "---\nname: own\ntitle: Own\nfault: no_such\n---\nCold.\n"));
    QVERIFY(!page->add_drill(QStringLiteral("own.md"), "---\nname: own\ntitle: My call\nfault: probe_open\nlooks: 3\n---\nIt is cold.\n\n## Afterwards\nThe lead was cut.\n"));
    auto* calls = find<QListWidget>("drillCalls");
    QCOMPARE(calls->item(0)->text(), QStringLiteral("My call"));
    QTest::mouseClick(find<QPushButton>("beginDrill"), Qt::LeftButton);
    QVERIFY(page->run());
    QVERIFY(find<QLabel>("drillStory")->text().contains("It is cold."));
    QTest::mouseClick(find<QPushButton>("act.display"), Qt::LeftButton);
    QTest::mouseClick(find<QPushButton>("act.ohms"), Qt::LeftButton);
    auto* seen = find<QListWidget>("drillSeen");
    QCOMPARE(seen->count(), 2);
    QVERIFY(seen->item(1)->text().contains("open"));
    seen->item(1)->setCheckState(Qt::Checked);
    QCOMPARE(page->run()->minutes(), 11);
    QTest::mouseClick(find<QPushButton>("act.switches"), Qt::LeftButton);
    QVERIFY(!find<QPushButton>("act.roof")->isEnabled());
    auto* cause = find<QComboBox>("drillCause");
    cause->setCurrentIndex(cause->findData(QStringLiteral("probe_open")));
    QTest::mouseClick(find<QPushButton>("sayDiagnosis"), Qt::LeftButton);
    auto* debrief = find<QLabel>("drillDebrief");
    QVERIFY(QTest::qWaitFor([&] { return debrief->text().contains("Right."); }, 60000));
    QVERIFY(debrief->text().contains("do tell"));
    QVERIFY(debrief->text().contains("The lead was cut."));
    QVERIFY(debrief->text().contains("shortest way"));
}

int main(int argc, char** argv) { return run_window_test<BenchWindowTest>(argc, argv); }
#include "bench_window_test.moc"
