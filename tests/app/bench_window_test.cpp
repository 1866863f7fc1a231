// The bench: wires sent by hand and by key, a procedure that reads by itself.
#include "app/bench/bench_station.h"
#include "app/bench/rig_view.h"
#include "fixture.h"

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
    void another_setting_is_another_unit();

private:
    BenchStation& station() { return *window->findChild<BenchStation*>(); }
    BenchModel& model() { return station().model(); }
    RigView& view() { return station().rig_view(); }
};

void BenchWindowTest::a_wire_is_dragged_into_a_medium()
{
    const QPoint from = view().end_of(0).toPoint(), to = view().middle_of(Medium::ice_water).toPoint();
    QTest::mousePress(&view(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&view(), (from + to) / 2);
    QTest::mouseRelease(&view(), Qt::LeftButton, {}, to);
    QCOMPARE(model().rig()->medium(0), Medium::ice_water);
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
    auto* which = find<QComboBox>("procedure");
    which->setCurrentIndex(which->findText(QStringLiteral("Start, by warming slowly")));
    emit which->activated(which->currentIndex());
    QTest::mouseClick(find<QPushButton>("speed600"), Qt::LeftButton);
    QTest::mouseClick(find<QPushButton>("beginProcedure"), Qt::LeftButton);
    QVERIFY(QTest::qWaitFor([this] { return model().run() && model().run()->result().verdict() != StepVerdict::open; }, 60000));
    QCOMPARE(model().run()->result().verdict(), StepVerdict::passed);
    laid_out();
    QVERIFY(find<QLabel>("benchVerdict")->text().contains("Passed"));
    QVERIFY(find<QLabel>("benchCaptured")->text().contains("start"));
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

int main(int argc, char** argv) { return run_window_test<BenchWindowTest>(argc, argv); }
#include "bench_window_test.moc"
