// Instruments by hand: added at the Probes station, read on the day, chosen by rules.
#include "fixture.h"

#include "app/charts/day_chart.h"
#include "app/probes/probes_station.h"

#include <QComboBox>
#include <QListWidget>
#include <QMenu>
#include <QTabBar>

using namespace vernal;

class InstrumentsTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init()
    {
        open_demo();
        window->show_station(1);
    }
    void cleanup() { window.reset(); }
    void what_the_loop_has_a_place_for_is_offered_and_added();
    void its_page_replaces_the_thermometers_and_goes_again();
    void its_numbers_are_one_step_back();
    void a_rule_is_offered_only_what_it_can_read();
    void the_strip_has_a_lane_for_it();
    void a_rule_without_one_is_out_of_action_and_says_where_to_add_it();

private:
    void add(const QString& name)
    {
        QMenu* menu = find<QPushButton>("addInstrument")->menu();
        emit menu->aboutToShow();
        for (QAction* a : menu->actions())
            if (a->text() == name)
                return a->trigger();
        QFAIL(qPrintable(name));
    }
    const Probe& last() { return document().variant().probes.back(); }
    void add_rule(RuleBody body, const char* output = "P1")
    {
        document().edit_variant(QStringLiteral("a rule"), [&](Variant& v) {
            v.unit.rules.insert(v.unit.rules.begin(), Rule{output, true, body});
            sort_by_priority(v.unit.rules);
        });
    }
};

void InstrumentsTest::what_the_loop_has_a_place_for_is_offered_and_added()
{
    const Job before = job();
    for (const QString& name : {QStringLiteral("Flow meter"), QStringLiteral("Pressure sensor"), QStringLiteral("Sun sensor")}) {
        add(name);
        QCOMPARE(qs(last().name), name);
        QCOMPARE(find<QListWidget>("probeList")->currentRow(), static_cast<int>(document().variant().probes.size()) - 1);
    }
    settle();
    QCOMPARE(window->session().outcome()->variant.probes.size(), document().variant().probes.size());
    while (document().undo_stack().canUndo())
        document().undo_stack().undo();
    QVERIFY(job() == before);
    document().set_job(new_job("air"), {});
    QMenu* menu = find<QPushButton>("addInstrument")->menu();
    emit menu->aboutToShow();
    QCOMPARE(menu->actions().size(), 1); // neither flow nor pressure where air runs
}

void InstrumentsTest::its_page_replaces_the_thermometers_and_goes_again()
{
    auto* tabs = find<QTabBar>("probePages");
    QVERIFY(tabs->isVisible());
    add(QStringLiteral("Flow meter"));
    laid_out();
    QVERIFY(!tabs->isVisible());
    QVERIFY(find<QWidget>("instrumentPlot")->isVisible());
    QVERIFY(number("instrument.full_m3_s")->isVisible());
    QVERIFY(!number("instrument.full_pa")->isVisible());
    QVERIFY(!number("instrument.stuck_share")->isVisible());
    find<QComboBox>("instrumentCondition")->setCurrentIndex(3);
    emit find<QComboBox>("instrumentCondition")->activated(3);
    QCOMPARE(last().condition.kind, ConditionKind::stuck);
    QVERIFY(number("instrument.stuck_share")->isVisible());
    window->station<ProbesStation>().show_page(4); // what a finding or a search asks for
    laid_out();
    QVERIFY(find<QWidget>("instrumentPlot")->isVisible());
    auto* place = find<QComboBox>("instrumentPlace");
    const int pipe = place->findData(static_cast<int>(ProbePlace::return_pipe));
    place->setCurrentIndex(pipe);
    emit place->activated(pipe);
    laid_out();
    QVERIFY(tabs->isVisible());
    QVERIFY(!find<QWidget>("instrumentPlot")->isVisible());
}

void InstrumentsTest::its_numbers_are_one_step_back()
{
    add(QStringLiteral("Pressure sensor"));
    laid_out();
    const Job before = job();
    type(number("instrument.full_pa"), QStringLiteral("6 bar"));
    QCOMPARE(last().instrument.full_pa, 6e5);
    type(number("instrument.error_share"), QStringLiteral("2"));
    QCOMPARE(last().instrument.error_share, 0.02);
    document().undo_stack().undo();
    document().undo_stack().undo();
    QVERIFY(job() == before);
}

void InstrumentsTest::a_rule_is_offered_only_what_it_can_read()
{
    add(QStringLiteral("Flow meter"));
    add(QStringLiteral("Sun sensor"));
    const std::string flow = document().variant().probes[3].key, sun = last().key;
    add_rule(FlowGuard{flow});
    window->show_station(2);
    settle();
    std::size_t words = 0;
    for (QPushButton* b : window->findChildren<QPushButton*>("word")) {
        if (!b->menu() || b->property("output").toBool() || !b->property("field").toString().startsWith(QLatin1String("rule")))
            continue;
        ++words;
        QStringList keys;
        for (const QAction* a : b->menu()->actions())
            keys << a->text().section(' ', 0, 0);
        const bool guard = b->property("field").toString().endsWith(QLatin1String(".meter"));
        QCOMPARE(keys.contains(qs(flow)), guard);
        QVERIFY(!keys.contains(qs(sun)));
        QCOMPARE(keys.contains(QStringLiteral("S1")), !guard);
    }
    QVERIFY(words > 3);
}

void InstrumentsTest::the_strip_has_a_lane_for_it()
{
    settle();
    auto* chart = window->findChild<DayChart*>();
    QVERIFY(chart);
    const int before = chart->lanes_height();
    add(QStringLiteral("Flow meter"));
    settle();
    laid_out();
    QVERIFY(QTest::qWaitFor([&] { return chart->lanes_height() > before; }, 5000));
}

void InstrumentsTest::a_rule_without_one_is_out_of_action_and_says_where_to_add_it()
{
    add_rule(SunStart{});
    settle();
    const auto& found = window->session().verdict().findings;
    QVERIFY(std::any_of(found.begin(), found.end(), [](const Finding& f) { return std::string(f.kind) == "rule_out_of_action" && f.reason.find("add an instrument at the Probes station") != std::string::npos; }));
}

int main(int argc, char** argv) { return run_window_test<InstrumentsTest>(argc, argv); }

#include "instruments_test.moc"
