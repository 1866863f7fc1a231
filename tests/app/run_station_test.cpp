// The Run station in the real window: figures, the reason they differ, and where a
// log and the rules part.
#include "app/run/run_station.h"
#include "core/wording/figure_table.h"
#include "fixture.h"

#include <QHeaderView>
#include <QTableView>

using namespace vernal;

class RunStationTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init()
    {
        open_demo();
        document().choose_variant(1);
        window->show_station(4);
        settle();
        laid_out();
    }
    void cleanup() { window.reset(); }
    void the_better_of_two_figures_is_marked();
    void the_reason_names_the_setting_and_follows_an_edit();
    void a_log_shows_its_disagreements_and_they_move_the_cursor();
    void twenty_thousand_disagreements_are_there_at_once();
    void the_picture_takes_the_width();

private:
    QTableWidgetItem* item_of(const QString& figure, int column)
    {
        auto* t = find<QTableWidget>("figures");
        for (int r = 0; r < t->rowCount(); ++r)
            for (int c = 0; c < t->columnCount(); ++c)
                if (t->item(r, c) && t->item(r, c)->text() == figure)
                    return t->item(r, c + column);
        return nullptr;
    }
};

void RunStationTest::the_better_of_two_figures_is_marked()
{
    const Figures& mine = *window->session().outcome()->figures();
    const Figures& other = *window->session().verdict().baseline_figures;
    QVERIFY(mine.starts() < other.starts()); // proposed starts less often: the demo
    QVERIFY(item_of("starts", 1)->text().startsWith(QStringLiteral("✓")));
    QVERIFY(!item_of("starts", 2)->text().startsWith(QStringLiteral("✓")));
    // What is shown alike is not better.
    const bool more = mine.heat.to_store > other.heat.to_store, alike = to_text(mine.heat.to_store, Quantity::energy, {}) == to_text(other.heat.to_store, Quantity::energy, {});
    QCOMPARE(item_of("heat to store", more ? 1 : 2)->text().startsWith(QStringLiteral("✓")), !alike);
    QVERIFY(!item_of("first start", 1)->text().startsWith(QStringLiteral("✓"))); // neither is better
}

void RunStationTest::the_reason_names_the_setting_and_follows_an_edit()
{
    auto* line = find<QLabel>("difference");
    QVERIFY(QTest::qWaitFor([&] { return line->text().contains("Difference: Start"); }, 20000));
    QVERIFY2(line->text().contains("starts"), qPrintable(line->text()));
    const QString before = line->text();
    document().edit_variant("test", [&](Variant& v) { v.unit = job().variants[0].unit; });
    settle();
    QVERIFY(QTest::qWaitFor([&] { return line->text() != before && !line->text().contains("Difference: Start"); }, 20000));
}

void RunStationTest::a_log_shows_its_disagreements_and_they_move_the_cursor()
{
    for (std::size_t i = 0; i < job().days.size(); ++i)
        if (job().days[i].kind == DayKind::recorded)
            document().choose_day(i);
    settle();
    laid_out();
    const auto& replay = *window->session().outcome()->replay;
    auto* list = find<QTableView>("disagreements");
    QVERIFY(list->isVisible());
    QVERIFY(!find<QTableWidget>("figures")->isVisible());
    QCOMPARE(list->model()->rowCount(), static_cast<int>(replay.disagreements.size()));
    list->setFocus();
    QTest::keyClick(list, Qt::Key_Down);
    QTest::keyClick(list, Qt::Key_Down);
    const int row = list->currentIndex().row();
    QVERIFY(row > 0);
    QCOMPARE(window->session().cursor_s(), replay.disagreements[static_cast<std::size_t>(row)].from_s + replay.start_s());
    QVERIFY(list->model()->index(row, 2).data().toString().startsWith("The log's P1"));
}

void RunStationTest::twenty_thousand_disagreements_are_there_at_once()
{
    // A pump that runs every other minute beside a collector as cold as the store.
    auto trace = std::make_shared<Trace>();
    const std::size_t rows = 40000;
    std::vector<double> cold(rows, 20), pump(rows);
    for (std::size_t i = 0; i < rows; ++i) {
        trace->time_s.push_back(static_cast<double>(i) * 60);
        pump[i] = i % 2 ? 1 : 0;
    }
    for (const Probe& p : document().variant().probes)
        trace->columns.push_back({place_key(p.place), Quantity::temperature, cold});
    trace->columns.push_back({"P1", Quantity::number, pump});
    document().edit("test", [&](Job& j) {
        j.traces["long"] = trace;
        Day d = j.days[0];
        d.kind = DayKind::recorded;
        d.name = "long";
        d.trace = "long";
        j.days.push_back(d);
    });
    document().choose_day(job().days.size() - 1);
    settle();
    laid_out();
    auto* list = find<QTableView>("disagreements");
    QVERIFY2(list->model()->rowCount() > 19000, qPrintable(QString::number(list->model()->rowCount())));
    QElapsedTimer clock;
    clock.start();
    emit window->session().units_changed(); // all of it once more
    laid_out();
    QVERIFY2(clock.elapsed() < 1000, qPrintable(QString::number(clock.elapsed()))); // ten times what a person would notice
}

void RunStationTest::the_picture_takes_the_width()
{
    const auto& run = window->station<RunStation>();
    QVERIFY(window->station<RunStation>().chart()->width() > run.width() - 40);
}

int main(int argc, char** argv) { return run_window_test<RunStationTest>(argc, argv); }
#include "run_station_test.moc"
