// The Loop station in the real window: sums, element, reserve, printing; and the
// days and first page that belong to it.
#include "app/charts/day_chart.h"
#include "app/loop/sheet.h"
#include "app/shell/jobs_page.h"
#include "app/widgets/form.h"
#include "core/plant/parts.h"
#include "core/sums/field_sums.h"
#include "faults.h"
#include "files/disk.h"
#include "fixture.h"

#include <QComboBox>
#include <QThreadPool>
#include <QToolButton>

#include <cmath>
#include <map>

using namespace vernal;

class LoopTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init() { open_demo(); }
    void cleanup() { window.reset(); }
    void every_sum_of_every_arrangement_opens_and_is_taken_in_one_step();
    void a_sum_follows_the_loop_and_the_units();
    void a_sum_without_answer_says_why_and_takes_nothing();
    void switches_of_a_part_are_one_step_back();
    void the_element_heats_in_its_windows();
    void reserve_is_worked_out_in_the_background();
    void a_log_has_no_reserve();
    void every_part_has_a_place_and_every_pipe_two_ends();
    void the_drawing_is_printed();
    void a_leaking_check_valve_is_found_and_mended();
    void another_kind_of_collector_is_one_step_and_the_report_folds();
    void mains_that_fail_show_on_the_strip();
    void draws_are_chosen_as_a_profile();
    void the_first_page_opens_each_loop_of_the_demo();

private:
    void open(const char* sum) { find<QToolButton>((std::string("sum.") + sum + ".open").c_str())->click(); }
};

void LoopTest::every_sum_of_every_arrangement_opens_and_is_taken_in_one_step()
{
    int seen = 0, written = 0;
    for (const Arrangement& a : presets()) {
        document().set_job(new_job(a.key), {});
        settle();
        window->show_station(0);
        for (Part part : a.parts) {
            window->station<LoopStation>().view()->choose(part);
            laid_out();
            for (const FieldSum* sum : sums_at(part, a)) {
                open(sum->key);
                auto* formula = find<QLabel>((std::string("sum.") + sum->key + ".formula").c_str());
                QVERIFY2(formula && !formula->text().isEmpty(), sum->key);
                ++seen;
                auto* box = find<QWidget>((std::string("sum.") + sum->key).c_str());
                auto* take = box->findChild<QPushButton*>();
                QCOMPARE(take != nullptr, sum->take != nullptr);
                if (!take || !take->isEnabled())
                    continue;
                const Loop before = document().variant().loop;
                take->click();
                if (document().variant().loop == before)
                    continue; // the part already had it
                ++written;
                document().undo_stack().undo();
                QVERIFY2(document().variant().loop == before, sum->key);
            }
        }
    }
    QVERIFY2(seen > 120 && written > 60, qPrintable(QStringLiteral("%1 %2").arg(seen).arg(written)));
    settle();
}

void LoopTest::a_sum_follows_the_loop_and_the_units()
{
    at("pv-battery", Part::wiring);
    open("wire");
    auto* formula = find<QLabel>("sum.wire.formula");
    const QString before = formula->text();
    type(number("sum.wire.cable_m"), "40");
    QVERIFY(formula->text() != before);
    const QString metric = formula->text();
    window->session().set_units(Units::us());
    QVERIFY(formula->text() != metric);
    QVERIFY2(formula->text().contains("AWG"), qPrintable(formula->text()));
    window->session().set_units({});
    QCOMPARE(formula->text(), metric);
    settle();
}

void LoopTest::a_sum_without_answer_says_why_and_takes_nothing()
{
    at("direct", Part::pump);
    open("working_point");
    QVERIFY(find<QLabel>("sum.working_point.formula")->text().contains("curve"));
    QVERIFY(!find<QWidget>("sum.working_point")->findChild<QPushButton*>()->isEnabled());
    type(number("loop.head_m"), "5");
    type(number("loop.free_flow_m3_s"), "30");
    QVERIFY(find<QWidget>("sum.working_point")->findChild<QPushButton*>()->isEnabled());
    const double before = document().variant().loop.pump.flow_m3_s;
    find<QWidget>("sum.working_point")->findChild<QPushButton*>()->click();
    QVERIFY(document().variant().loop.pump.flow_m3_s > before);
    settle();
}

void LoopTest::switches_of_a_part_are_one_step_back()
{
    int clicked = 0;
    for (const Arrangement& a : presets()) {
        document().set_job(new_job(a.key), {});
        settle();
        window->show_station(0);
        for (Part part : a.parts) {
            window->station<LoopStation>().view()->choose(part);
            laid_out();
            for (QCheckBox* box : window->station<LoopStation>().findChildren<QCheckBox*>()) {
                if (!box->isVisible())
                    continue;
                const Variant before = document().variant();
                box->click();
                QVERIFY2(!(document().variant() == before), qPrintable(box->objectName()));
                document().undo_stack().undo();
                QVERIFY2(document().variant() == before, qPrintable(box->objectName()));
                ++clicked;
            }
        }
    }
    QVERIFY2(clicked > 30, qPrintable(QString::number(clicked)));
    settle();
}

void LoopTest::the_element_heats_in_its_windows()
{
    at("glycol-coil", Part::tank);
    find<QPushButton>("askLoop")->click();
    auto* backup = window->station<LoopStation>().findChild<QComboBox*>("answer.backup");
    backup->setCurrentIndex(1);
    emit backup->activated(1);
    QCOMPARE(document().variant().loop.answers.backup, Backup::element);
    QVERIFY(document().variant().loop.element.mode == ElementMode::windows);
    window->station<LoopStation>().view()->choose(Part::element);
    laid_out();
    auto* mode = find<QComboBox>("elementMode");
    QCOMPARE(mode->currentIndex(), 2);
    mode->setCurrentIndex(2);
    emit mode->activated(2);
    QVERIFY(document().variant().loop.element.mode == ElementMode::windows);
    type(number("loop.from_1_h"), "0");
    type(number("loop.to_1_h"), "24");
    type(number("loop.set_c"), "75");
    settle();
    QVERIFY(window->session().outcome()->figures()->heat.backup() > 3.6e5);
}

void LoopTest::reserve_is_worked_out_in_the_background()
{
    at("glycol-coil", Part::tank);
    find<QPushButton>("askReserve")->click();
    auto* answer = find<QLabel>("reserveAnswer");
    QVERIFY(QTest::qWaitFor([&] { return answer->text().contains("solar fraction"); }, 20000));
    QVERIFY(find<QPushButton>("askReserve")->isEnabled());
    // Asked for and left: nothing may happen to a box that is gone.
    find<QPushButton>("askReserve")->click();
    window->station<LoopStation>().view()->choose(Part::collector);
    QThreadPool::globalInstance()->waitForDone();
    laid_out();
}

void LoopTest::a_log_has_no_reserve()
{
    document().choose_day(3);
    QCOMPARE(document().day().kind == DayKind::recorded, true);
    window->show_station(0);
    window->station<LoopStation>().view()->choose(Part::tank);
    laid_out();
    find<QPushButton>("askReserve")->click();
    QVERIFY(find<QLabel>("reserveAnswer")->text().contains("log"));
}

namespace {
// Not a length of pipe, what sits on one, what sits in the tank, or a measure.
bool has_body(Part p)
{
    switch (p) {
    case Part::supply:
    case Part::back:
    case Part::supply_2:
    case Part::back_2:
    case Part::check_valve:
    case Part::element:
    case Part::drain_back: return false;
    default: return true;
    }
}
} // namespace

// What is wrong with a drawing, each fault in words.
namespace {
QStringList faults_of(const Arrangement& a)
{
    QStringList out;
    const Sheet sheet = sheet_of(a);
    const QRectF page(0, 0, sheet.width, sheet_h);
    const auto must = [&](bool fine, const QString& what) {
        if (!fine)
            out << what;
    };
    for (Part part : a.parts)
        must(sheet.place.count(part) == 1 && page.contains(sheet.place.at(part)), QStringLiteral("%1 has no place").arg(part_text(part).title));
    for (ProbePlace place : a.places)
        must(sheet.probes.count(place) == 1 && page.contains(sheet.probes.at(place)), QStringLiteral("no place for a probe: %1").arg(place_key(place)));
    for (const Route& route : a.routes)
        for (Segment segment : {Segment::supply_pipe, Segment::return_pipe, Segment::supply_2, Segment::return_2, Segment::cooler, Segment::exchanger_cold})
            if (std::count(route.ring.begin(), route.ring.end(), segment) > 0)
                must(std::any_of(sheet.pipes.begin(), sheet.pipes.end(), [&](const SheetPipe& p) { return p.shows == segment; }), QStringLiteral("no pipe for stretch %1").arg(static_cast<int>(segment)));
    // What has a body of its own lies apart.
    for (const auto& [one, first] : sheet.place)
        for (const auto& [other, second] : sheet.place)
            if (one < other && has_body(one) && has_body(other))
                must(!first.intersects(second), QStringLiteral("%1 lies over %2").arg(part_text(one).title, part_text(other).title));
    // An end lies at a part or on another pipe: nothing ends in the air.
    const auto held = [&](const QPointF& end, const SheetPipe& own) {
        const auto near = [&](const QRectF& r) { return r.adjusted(-8, -8, 8, 8).contains(end); };
        const bool at_part = std::any_of(sheet.place.begin(), sheet.place.end(), [&](const auto& p) { return p.first != Part::supply && p.first != Part::back && near(p.second); });
        return at_part || std::any_of(sheet.pipes.begin(), sheet.pipes.end(), [&](const SheetPipe& p) {
            for (int i = 1; &p != &own && i < p.line.size(); ++i)
                if (near(QRectF(p.line[i - 1], p.line[i]).normalized()))
                    return true;
            return false;
        });
    };
    for (const SheetPipe& pipe : sheet.pipes) {
        for (const QPointF& point : pipe.line)
            must(page.contains(point), QStringLiteral("a pipe leaves the sheet"));
        must(held(pipe.line.first(), pipe) && held(pipe.line.last(), pipe), QStringLiteral("a pipe of stretch %1 ends in the air").arg(static_cast<int>(pipe.shows)));
    }
    return out;
}
} // namespace

// Every drawing there is.
void LoopTest::every_part_has_a_place_and_every_pipe_two_ends()
{
    Faults faults;
    for (const LoopAnswers& answers : all_answers())
        for (const QString& fault : faults_of(arrangement_of(answers)))
            faults.try_emplace(fault, qs(answers_text(answers)));
    QVERIFY2(faults.empty(), qPrintable(told_of(faults)));
}

// Nobody needs a report to begin: what it says stands folded away until it is asked for.
void LoopTest::another_kind_of_collector_is_one_step_and_the_report_folds()
{
    document().set_job(new_job("glycol-coil"), {});
    settle();
    window->show_station(0);
    window->station<LoopStation>().view()->choose(Part::collector);
    laid_out();
    QVERIFY(number("loop.area_m2")->isVisible());
    QVERIFY(!number("loop.eta0")->isVisible());
    QVERIFY2(!number("loop.wind_loss_j_m3k"), "behind glass there is no wind");
    click("▸ From a test report");
    laid_out();
    QVERIFY(number("loop.eta0")->isVisible());
    auto* kind = find<QComboBox>("loop.array");
    QCOMPARE(kind->currentText(), QString("selective flat plates"));
    const double before = document().variant().loop.collector.a1_w_m2k;
    kind->setCurrentIndex(0);
    emit kind->activated(0);
    settle();
    laid_out();
    QVERIFY(document().variant().loop.answers.array == Array::flat);
    QVERIFY(document().variant().loop.collector.a1_w_m2k > before);
    QVERIFY2(number("loop.eta0")->isVisible(), "it stays open");
    document().undo_stack().undo();
    QCOMPARE(document().variant().loop.collector.a1_w_m2k, before);
}

void LoopTest::the_drawing_is_printed()
{
    window->show_station(0);
    print_answer.clear(); // called off
    find<QPushButton>("printDrawing")->click();
    QVERIFY2(told.isEmpty(), qPrintable(told));
    print_answer = folder->filePath("printed.pdf");
    find<QPushButton>("printDrawing")->click();
    QVERIFY2(told.isEmpty(), qPrintable(told));
    const auto page = read_file(print_answer.toStdString());
    QVERIFY(page && page->rfind("%PDF", 0) == 0 && page->size() > 2000);
}

void LoopTest::a_leaking_check_valve_is_found_and_mended()
{
    document().set_job(new_job("direct"), {});
    document().choose_day(2);
    window->show_station(0);
    window->show_findings();
    window->station<LoopStation>().view()->choose(Part::check_valve);
    laid_out();
    type(number("loop.leak"), "100");
    settle();
    const auto& found = window->session().verdict().findings;
    const auto it = std::find_if(found.begin(), found.end(), [](const Finding& f) { return std::string(f.kind) == "check_valve_leaks"; });
    QVERIFY(it != found.end());
    QVERIFY(window->session().outcome()->figures()->night_loss_j > 0);
    QVERIFY(QTest::qWaitFor([&] { return button("Try: a valve that holds") != nullptr; }, 3000));
    click("Try: a valve that holds");
    QVERIFY(QTest::qWaitFor([&] { return button("Accept") != nullptr; }, 5000));
    click("Accept");
    settle();
    QCOMPARE(document().variant().loop.check_valve.leak, 0.0);
    QCOMPARE(window->session().outcome()->figures()->night_loss_j, 0.0);
}

void LoopTest::mains_that_fail_show_on_the_strip()
{
    Job roomy = new_job("glycol-coil");
    roomy.variants[0].loop.tank.volume_m3 = 0.8; // the whole day's sun finds room
    document().set_job(roomy, {});
    window->show_station(3);
    settle();
    const double whole = window->session().outcome()->figures()->pumps[0].run_time_s;
    type(number("day.outage_start_h"), "10");
    type(number("day.outage_h"), "5");
    settle();
    QVERIFY(window->session().outcome()->figures()->pumps[0].run_time_s < whole - 3600);
}

void LoopTest::draws_are_chosen_as_a_profile()
{
    document().set_job(new_job("glycol-coil"), {});
    window->show_station(3);
    settle();
    auto* profile = find<QComboBox>("drawProfile");
    QCOMPARE(profile->currentText(), QString("as set below"));
    for (int i = 0; i < static_cast<int>(draw_profiles().size()); ++i) {
        profile = find<QComboBox>("drawProfile");
        profile->setCurrentIndex(i);
        emit profile->activated(i);
        QVERIFY(document().day().draws == draw_profiles()[static_cast<std::size_t>(i)].draws);
        settle();
        QCOMPARE(window->session().outcome()->figures()->heat.drawn > 0, !document().day().draws.empty());
        laid_out(); // the editor is laid out anew
    }
}

void LoopTest::the_first_page_opens_each_loop_of_the_demo()
{
    JobsPage page({}, {}, VERNAL_DEMO "/job.json");
    QSignalSpy wanted(&page, &JobsPage::open_wanted);
    int demos = 0;
    for (QPushButton* b : page.findChildren<QPushButton*>())
        if (b->property("demo").toBool()) {
            b->click();
            ++demos;
        }
    QCOMPARE(demos, 4);
    QCOMPARE(wanted.size(), 4);
    QVERIFY2(wanted[0][0].toString().contains("cheese-room"), "the one to begin with stands first");
    for (const auto& one : wanted) {
        QVERIFY(window->open(one[0].toString()));
        settle();
        QVERIFY(window->session().outcome()->figures() || window->session().outcome()->is_replay());
        QVERIFY(document().job().site.name == "Quillback Meadow Creamery");
    }
}

int main(int argc, char** argv) { return run_window_test<LoopTest>(argc, argv); }
#include "loop_test.moc"
