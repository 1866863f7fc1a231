// The valve board in the real window: room for each valve, turning one, what is found, print.
#include "app/loop/parts/valves.h"
#include "app/loop/sheet.h"
#include "faults.h"
#include "files/disk.h"
#include "fixture.h"

#include <QComboBox>

using namespace vernal;

class ValvesTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init() { open_demo(); }
    void cleanup() { window.reset(); }
    void every_valve_has_room_on_every_drawing();
    void the_valve_board_turns_valves_and_is_printed();
};

// Of every third set of answers.
void ValvesTest::every_valve_has_room_on_every_drawing()
{
    Faults faults;
    std::size_t n = 0;
    for (const LoopAnswers& answers : all_answers()) {
        if (n++ % 3 != 0)
            continue;
        Loop loop;
        loop.answers = answers;
        const Sheet sheet = sheet_of(arrangement_of(answers));
        const auto valves = valves_on(sheet, loop);
        if (valves.size() != valves_of(loop).size())
            faults.try_emplace(QStringLiteral("a valve is missing"), qs(answers_text(answers)));
        for (const SheetValve& v : valves) {
            const QString name = QString::fromLatin1(valve_keys[static_cast<std::size_t>(v.valve)]);
            if (!QRectF(0, 0, sheet.width, sheet_h).contains(v.area()))
                faults.try_emplace(name + " leaves the sheet", qs(answers_text(answers)));
            for (const SheetValve& other : valves)
                if (other.valve != v.valve && other.area().intersects(v.area()))
                    faults.try_emplace(name + " lies over " + QString::fromLatin1(valve_keys[static_cast<std::size_t>(other.valve)]), qs(answers_text(answers)));
            for (const auto& [place, at] : sheet.probes)
                if (v.area().contains(at))
                    faults.try_emplace(name + " lies over a probe", qs(answers_text(answers)));
        }
    }
    QVERIFY2(faults.empty(), qPrintable(told_of(faults)));
}

void ValvesTest::the_valve_board_turns_valves_and_is_printed()
{
    document().set_job(new_job("glycol-coil"), {});
    settle();
    window->show_station(0);
    LoopView* view = window->station<LoopStation>().view();
    find<QPushButton>("valveBoard")->click();
    laid_out();
    QVERIFY(view->board() == ServiceState::run);
    QVERIFY(find<QLabel>("valveFlow")->text().contains("collector"));
    // A click on the drawing turns a valve; wrong, it is found, and a relief valve does not turn.
    const auto click_on = [&](HandValve v) { QTest::mouseClick(view, Qt::LeftButton, {}, view->valve_area(v).center().toPoint()); };
    const Loop before = document().variant().loop;
    click_on(HandValve::relief);
    QVERIFY(document().variant().loop.valves.at(ServiceState::run) == before.valves.at(ServiceState::run));
    click_on(HandValve::return_isolating);
    settle();
    QVERIFY(stands(document().variant().loop, HandValve::return_isolating, ServiceState::run) == ValveStands::shut);
    QVERIFY(view->board().has_value());
    QVERIFY(find<QLabel>("valveFlow")->text().contains("cold water"));
    const auto& found = window->session().verdict().findings;
    QVERIFY(std::any_of(found.begin(), found.end(), [](const Finding& f) { return std::string(f.kind) == "run_is_cut"; }));
    const Figures& none = *window->session().outcome()->figures();
    QVERIFY2(none.heat.to_store < 0.02 * none.heat.absorbed, "nothing moves");
    document().undo_stack().undo();
    while (document().undo_stack().canUndo())
        document().undo_stack().undo();
    QVERIFY(document().variant().loop == before);
    // Another state, and what is not fitted.
    auto* states = find<QComboBox>("valveState");
    states->setCurrentIndex(1);
    emit states->activated(1);
    laid_out();
    QVERIFY(view->board() == ServiceState::fill);
    auto* vent = find<QComboBox>("valve.air_vent");
    vent->setCurrentIndex(2);
    emit vent->activated(2);
    QVERIFY(document().variant().loop.valves.fitted.has[static_cast<std::size_t>(HandValve::air_vent)] == Fitted::no);
    QVERIFY(view->valve_area(HandValve::air_vent).isEmpty());
    print_answer = folder->filePath("board.pdf");
    find<QPushButton>("printDrawing")->click();
    QVERIFY2(told.isEmpty(), qPrintable(told));
    const auto page = read_file(print_answer.toStdString());
    QVERIFY(page && page->rfind("%PDF", 0) == 0 && page->size() > 2000);
    // A part that is clicked leaves the board.
    view->choose(Part::tank);
    laid_out();
    QVERIFY(!view->board());
    QVERIFY(number("loop.volume_m3")->isVisible());
}

int main(int argc, char** argv) { return run_window_test<ValvesTest>(argc, argv); }
#include "valves_test.moc"
