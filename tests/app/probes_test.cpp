// The Probes station by hand: pages, points, sums, conditions, the pocket chart.
#include "fixture.h"

#include "app/probes/probe_budget_page.h"
#include "app/probes/probes_station.h"
#include "files/curve_file.h"
#include "files/disk.h"

#include <QAction>
#include <QCheckBox>
#include <QComboBox>
#include <QListWidget>
#include <QMenu>
#include <QPlainTextEdit>
#include <QTimer>
#include <QToolButton>

#include <set>

using namespace vernal;

class ProbesTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init()
    {
        open_demo();
        window->show_station(1);
    }
    void cleanup() { window.reset(); }
    void points_are_fitted_and_the_suspect_is_named();
    void what_cannot_be_read_stays_and_says_why();
    void a_paste_of_a_million_rows_is_refused_and_stays();
    void the_closest_curve_is_used_and_undone();
    void a_fit_is_kept_among_ones_own_curves();
    void points_come_from_a_file_in_fahrenheit();
    void a_lead_moves_the_real_points_and_the_strip();
    void a_condition_shows_in_the_strip_and_in_the_findings();
    void a_sum_stores_a_correction();
    void the_input_stage_is_chosen_and_its_pull_up_found();
    void the_unit_may_read_by_another_curve();
    void a_knob_sets_the_rule();
    void straight_signals_are_converted_in_their_own_unit();
    void a_broken_curve_file_is_told_and_the_shipped_curves_stay();
    void the_pocket_chart_is_saved_and_printed();
    void probes_are_added_and_removed();
    void every_number_of_every_page_is_one_step_back();

private:
    const Probe& probe() { return document().variant().probes[0]; }
    void page(int p)
    {
        window->station<ProbesStation>().show_page(p);
        laid_out();
    }
    // Types points and waits until they were taken up.
    void points(const QString& text)
    {
        page(1);
        find<QPlainTextEdit>("pointsText")->setPlainText(text);
        auto* soon = find<QTimer>("pointsSoon");
        QVERIFY(QTest::qWaitFor([&] { return !soon->isActive(); }, 60000));
        laid_out();
    }
    QString trouble()
    {
        for (QLabel* l : window->findChildren<QLabel*>(QStringLiteral("bad")))
            if (l->property("of") == QStringLiteral("points"))
                return l->text();
        return {};
    }
    void choose(const char* box, int index)
    {
        auto* combo = find<QComboBox>(box);
        QVERIFY2(combo, box);
        combo->setCurrentIndex(index);
        emit combo->activated(index);
    }
    void open_sum(const char* key)
    {
        auto* head = find<QToolButton>(qPrintable(QStringLiteral("sum.%1.open").arg(QLatin1String(key))));
        QVERIFY2(head && head->isVisible(), key);
        head->click();
    }
};

void ProbesTest::points_are_fitted_and_the_suspect_is_named()
{
    points("70 °F 5.0k\n90 °F 3.3k\n110 °F 2.2k\n130 °F 1.4k");
    QCOMPARE(probe().points.size(), 4u);
    QVERIFY(find<QLabel>("fitVerdict")->text().contains("Measure point 4 again"));
    QVERIFY(!find<QLabel>("identifyAdvice")->text().isEmpty());
    click("Use this fit for the probe");
    QVERIFY(std::fabs(std::get<NtcBetaCurve>(probe().curve.law).beta_k - 3660) < 1);
    document().undo_stack().undo();
    QCOMPARE(curve_text(probe().curve), std::string("pt1000"));
    document().undo_stack().undo();
    QVERIFY(probe().points.empty());
    QVERIFY(find<QPlainTextEdit>("pointsText")->toPlainText().isEmpty());
}

void ProbesTest::what_cannot_be_read_stays_and_says_why()
{
    points("25, 10000\n50, 3602");
    for (const auto& [typed, says] : {std::pair{"25, 10000\n50, -3", "above zero"}, {"25 °C, 10000\n122 °F, 3602", "mixed"}, {"25, lots", "not a number"}}) {
        points(QString::fromUtf8(typed));
        QVERIFY2(trouble().contains(QLatin1String(says)), qPrintable(trouble()));
        QCOMPARE(find<QPlainTextEdit>("pointsText")->toPlainText(), QString::fromUtf8(typed));
        QCOMPARE(probe().points.size(), 2u);
    }
    points("25, 10000");
    QVERIFY(find<QLabel>("fitVerdict")->text().contains("too few points"));
    points("25, 10000\n25, 9990");
    QVERIFY(find<QLabel>("identifyAdvice")->text().contains("only 1 different temperature"));
}

void ProbesTest::a_paste_of_a_million_rows_is_refused_and_stays()
{
    QString rows;
    for (int i = 0; i < 1000000; ++i)
        rows += QStringLiteral("25, 10000\n");
    points(rows);
    QTRY_VERIFY_WITH_TIMEOUT(trouble().contains("more than 10000 points"), 20000);
    QVERIFY(find<QPlainTextEdit>("pointsText")->blockCount() > 1000000);
    QVERIFY(probe().points.empty());
}

void ProbesTest::the_closest_curve_is_used_and_undone()
{
    points("0, 32650\n25, 10000\n60, 2490");
    auto* list = find<QListWidget>("matches");
    QVERIFY(list->count() > 3);
    QVERIFY(list->item(0)->text().contains("fits"));
    click("Use the chosen curve");
    QVERIFY(std::fabs(*signal_at(probe().curve, Temperature::celsius(25)) - 10000) < 50);
    QVERIFY(probe().sensor.tolerance.kind == ToleranceKind::percent);
    document().undo_stack().undo();
    QCOMPARE(curve_text(probe().curve), std::string("pt1000"));
}

void ProbesTest::a_fit_is_kept_among_ones_own_curves()
{
    points("0, 14000\n25, 4300\n60, 1150");
    click("Keep it among my curves");
    const auto own = all_curves(folder->filePath("curves.json").toStdString());
    QVERIFY(own);
    QCOMPARE(own->size(), shipped_curves().size() + 1);
    page(0);
    QVERIFY(find<QComboBox>("probeCurve")->findText(qs(own->back().name)) >= 0);
}

void ProbesTest::points_come_from_a_file_in_fahrenheit()
{
    window->session().set_units({true, false});
    log_answer = folder->filePath("points.csv");
    QVERIFY(write_file_atomically(log_answer.toStdString(), "77, 10000\n122, 3602\n"));
    page(1);
    click("From a file …");
    QTRY_COMPARE(probe().points.size(), 2u);
    QVERIFY(std::fabs(probe().points[1].temp_c - 50) < 1e-9);
    window->session().set_units({});
    QTRY_VERIFY(find<QPlainTextEdit>("pointsText")->toPlainText().startsWith("25, 10000"));
    QCOMPARE(probe().points.size(), 2u);
}

void ProbesTest::a_lead_moves_the_real_points_and_the_strip()
{
    page(5);
    const QString before = find<QLabel>("budgetWords")->text();
    const double first = window->session().outcome()->figures()->pumps[0].first_start_s;
    page(2);
    type(number("lead.length_m"), "150");
    settle();
    QVERIFY(find<QLabel>("leadErrors")->text().contains("17."));
    QVERIFY(window->session().outcome()->figures()->pumps[0].first_start_s < first);
    page(5);
    QVERIFY(find<QLabel>("budgetWords")->text() != before);
    page(2);
    find<QCheckBox>("lead.three_wire")->click();
    settle();
    QVERIFY(find<QLabel>("leadErrors")->text().contains("0.00"));
    open_sum("longest_lead");
    QVERIFY(find<QLabel>("sum.longest_lead.formula")->text().contains("no limit"));
}

void ProbesTest::a_condition_shows_in_the_strip_and_in_the_findings()
{
    page(4);
    QVERIFY(find<QLabel>("faultSigns")->text().contains("1077.9"));
    for (int kind : {1, 2, 3, 5}) {
        choose("condition", kind);
        settle();
        const auto& o = window->session().outcome();
        const bool invalid = kind < 3;
        QCOMPARE(o->inputs(o->size() / 2).readings[0].valid, !invalid);
        QVERIFY(!window->session().verdict().findings.empty());
        QVERIFY(std::string(window->session().verdict().findings.front().kind) == "probe_not_sound");
        if (invalid)
            QCOMPARE(starts(), 0);
    }
    QVERIFY(find<QListWidget>("probeList")->item(0)->text().startsWith(QStringLiteral("■")));
    while (document().undo_stack().canUndo())
        document().undo_stack().undo();
    settle();
    QVERIFY(starts() > 0);
}

void ProbesTest::a_sum_stores_a_correction()
{
    page(4);
    open_sum("ice");
    type(number("sum.ice.ohm"), "1003.9");
    QVERIFY(find<QLabel>("sum.ice.formula")->text().contains("1.00 K off"));
    click("Store as this probe's correction");
    QVERIFY(std::fabs(probe().correction.in_kelvin() + 1) < 0.005);
    settle();
    document().undo_stack().undo();
    QCOMPARE(probe().correction.in_kelvin(), 0.0);
}

void ProbesTest::the_input_stage_is_chosen_and_its_pull_up_found()
{
    page(3);
    QVERIFY(!number("input.pull_up_ohm")->isVisible());
    choose("stage", 1);
    settle();
    QVERIFY(number("input.pull_up_ohm")->isVisible());
    open_sum("pull_up");
    click("Use this pull-up");
    QVERIFY(document().variant().input.pull_up_ohm < 2000); // platinum: near its own ohms
    choose("bits", 6);
    QCOMPARE(document().variant().input.bits, 12);
    choose("stage", 2);
    settle();
    QVERIFY(number("input.scale_at_c")->isVisible());
    type(number("input.high_c"), "120");
    settle();
    QVERIFY(std::any_of(window->session().verdict().findings.begin(), window->session().verdict().findings.end(), [](const Finding& f) { return std::string(f.kind) == "limit_not_readable"; }));
}

void ProbesTest::the_unit_may_read_by_another_curve()
{
    page(3);
    find<QCheckBox>("readByOther")->click();
    QVERIFY(probe().read_by.other);
    auto* box = find<QComboBox>("readByCurve");
    box->setCurrentText("ntc:r25=2000,beta=3500");
    emit box->lineEdit()->editingFinished();
    settle();
    QVERIFY(std::holds_alternative<NtcBetaCurve>(probe().read_by.curve.law));
    QVERIFY(std::any_of(window->session().verdict().findings.begin(), window->session().verdict().findings.end(), [](const Finding& f) { return std::string(f.kind) == "read_by_other_curve"; }));
}

void ProbesTest::a_knob_sets_the_rule()
{
    page(6);
    type(number("knob.on_last_k"), "20");
    open_sum("knob_at");
    type(number("sum.knob_at.mark"), "5");
    click("Set the rule to this pair");
    QCOMPARE(difference().on.in_kelvin(), 11.5);
    QCOMPARE(difference().off.in_kelvin(), 4.5);
    type(number("knob.last"), "0");
    QVERIFY(document().variant().unit.knob.first != document().variant().unit.knob.last);
    QVERIFY(find<QLabel>("knobWords")->text().contains("mark"));
}

void ProbesTest::straight_signals_are_converted_in_their_own_unit()
{
    page(0);
    auto* curve = find<QComboBox>("probeCurve");
    curve->setCurrentText("line:mA=4..20,c=0..100");
    emit curve->lineEdit()->editingFinished();
    QVERIFY(!number("convertOhm")->isVisible());
    type(number("convertSignal"), "12");
    QCOMPARE(number("convertTemp")->value(), 50.0);
    type(number("convertTemp"), "300");
    QVERIFY(find<QLabel>("convertAnswer")->text().contains("outside"));
}

void ProbesTest::a_broken_curve_file_is_told_and_the_shipped_curves_stay()
{
    const QString own = folder->filePath("curves.json");
    QVERIFY(write_file_atomically(own.toStdString(), "{ broken"));
    CurveShelf shelf(own);
    QVERIFY(shelf.trouble().contains("line 1"));
    QCOMPARE(shelf.book().size(), shipped_curves().size());
    QVERIFY(!shelf.keep({"a", "a", "", *parse_curve("pt100"), {}, 0}).isEmpty());
}

void ProbesTest::the_pocket_chart_is_saved_and_printed()
{
    const auto trigger = [&](int which) { find<QPushButton>("pocketChart")->menu()->actions()[which]->trigger(); };
    for (const char* name : {"chart.csv", "chart.pdf"}) {
        save_answer = folder->filePath(QLatin1String(name));
        trigger(1);
        QVERIFY2(QFile(save_answer).size() > 500, name);
        QVERIFY(told.isEmpty());
    }
    QVERIFY(read_file(folder->filePath("chart.csv").toStdString())->find("100.00,212.00,1385.0") != std::string::npos);
    print_answer = folder->filePath("print.pdf");
    trigger(0);
    QVERIFY(QFile(print_answer).size() > 500);
    for (const QString& wrong : {folder->filePath("chart.doc"), QStringLiteral("/nowhere/at/all/chart.pdf"), QStringLiteral("/nowhere/at/all/chart.csv")}) {
        told.clear();
        save_answer = wrong;
        trigger(1);
        QVERIFY2(!told.isEmpty(), qPrintable(wrong));
    }
}

void ProbesTest::probes_are_added_and_removed()
{
    const Job before = job();
    while (button("Add a probe")->isEnabled())
        click("Add a probe");
    QCOMPARE(document().variant().probes.size(), max_probes);
    std::set<std::string> keys;
    for (const Probe& p : document().variant().probes)
        keys.insert(p.key);
    QCOMPARE(keys.size(), max_probes);
    for (int p = 0; p < 7; ++p) // the last one shown on every page
        page(p);
    click("Remove this one");
    QCOMPARE(document().variant().probes.size(), max_probes - 1);
    while (document().undo_stack().canUndo())
        document().undo_stack().undo();
    QVERIFY(job() == before);
}

// Whatever number is edited on whatever page: the job changes, and one step brings all back.
void ProbesTest::every_number_of_every_page_is_one_step_back()
{
    choose("stage", 1);
    document().undo_stack().clear();
    const Job before = job();
    int edited = 0;
    for (int p = 0; p < 7; ++p) {
        page(p);
        for (NumberEdit* e : window->station<ProbesStation>().findChildren<NumberEdit*>()) {
            const QString name = e->objectName();
            if (!e->isVisible() || name.startsWith("sum.") || name.startsWith("convert") || name.startsWith("budget."))
                continue;
            e->setFocus();
            QTest::keyClick(e, Qt::Key_Up);
            QVERIFY2(!(job() == before), qPrintable(name));
            document().undo_stack().undo();
            QVERIFY2(job() == before, qPrintable(name));
            ++edited;
        }
    }
    QVERIFY(edited > 20);
}

int main(int argc, char** argv) { return run_window_test<ProbesTest>(argc, argv); }
#include "probes_test.moc"
