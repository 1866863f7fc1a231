// The edges of each station: what is added, removed, dropped, refused, and that
// every edit can be taken back.
#include "fixture.h"

#include "app/charts/day_chart.h"
#include "app/shell/jobs_page.h"
#include "app/shell/palette.h"
#include "core/plant/hydraulic_state.h"
#include "core/plant/parts.h"
#include "files/disk.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDateEdit>
#include <QDropEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QMimeData>

using namespace vernal;

class StationsTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init() { open_demo(); }
    void cleanup() { window.reset(); }
    void days_are_copied_edited_removed_and_restored();
    void a_day_keeps_one_at_least();
    void draws_are_added_and_removed();
    void a_probe_is_renamed_moved_and_given_a_curve();
    void a_wrong_curve_says_why();
    void every_number_of_every_part_is_one_step_back();
    void bucket_and_watch_sets_the_flow();
    void every_part_of_every_arrangement_opens();
    void another_arrangement_brings_its_rules_and_one_undo_takes_them_back();
    void the_drawing_is_written_as_svg_png_and_pdf();
    void what_drains_sizes_the_reservoir();
    void rules_of_several_outputs_can_be_given_to_another();
    void figures_show_what_the_arrangement_has();
    void whatever_meets_the_sun_is_run_anew();
};

void StationsTest::days_are_copied_edited_removed_and_restored()
{
    window->show_station(3);
    const Job before = job();
    click("Copy this day");
    QCOMPARE(job().days.size(), before.days.size() + 1);
    auto* clouds = find<QComboBox>("dayClouds");
    clouds->setCurrentIndex(3);
    emit clouds->activated(3);
    QCOMPARE(document().day().sky.clouds, Clouds::overcast);
    find<QDateEdit>("dayDate")->setDate(QDate(2026, 12, 21));
    QCOMPARE(document().day().sky.month, 12);
    settle();
    click("Others");
    settle();
    click("Remove");
    QCOMPARE(job().days.size(), before.days.size());
    while (document().undo_stack().canUndo())
        document().undo_stack().undo();
    QVERIFY(job() == before);
}

void StationsTest::a_day_keeps_one_at_least()
{
    window->show_station(3);
    for (std::size_t i = job().days.size(); i-- > 0;)
        if (QPushButton* b = button("Remove"); b && b->isEnabled())
            QTest::mouseClick(b, Qt::LeftButton);
    QCOMPARE(job().days.size(), std::size_t{1});
    settle();
}

void StationsTest::draws_are_added_and_removed()
{
    window->show_station(3);
    const auto before = document().day().draws;
    click("Add a draw");
    QCOMPARE(document().day().draws.size(), before.size() + 1);
    const QString name = QStringLiteral("draw%1.start_h").arg(before.size());
    type(number(name), "25");
    QVERIFY(!number(name)->reason().isEmpty()); // a day has 24 hours
    type(number(name), "13.5");
    QCOMPARE(document().day().draws.back().start_h, 13.5);
    settle();
    const auto remove = [&]() -> QPushButton* {
        for (QPushButton* b : window->findChildren<QPushButton*>(QStringLiteral("remove_draw")))
            if (b->isVisible())
                return b;
        return nullptr;
    };
    QVERIFY(remove());
    while (QPushButton* b = remove()) {
        QTest::mouseClick(b, Qt::LeftButton);
        laid_out(); // the editor is made anew
    }
    QVERIFY(document().day().draws.empty());
    settle();
    QCOMPARE(window->session().outcome()->figures()->heat.drawn, 0.0);
}

void StationsTest::a_probe_is_renamed_moved_and_given_a_curve()
{
    window->show_station(1);
    const Job before = job();
    auto* name = find<QLineEdit>("words");
    QVERIFY(name);
    auto* curve = find<QComboBox>("probeCurve");
    curve->setCurrentText("ntc:r25=20000,beta=3950");
    emit curve->lineEdit()->editingFinished();
    const auto ohm = signal_at(document().variant().probes[0].curve, Temperature::celsius(25));
    QVERIFY(ohm && std::fabs(*ohm - 20000) < 1e-6);
    type(number("probe.lag_s"), "45");
    QCOMPARE(document().variant().probes[0].lag_s, 45.0);
    settle();
    while (document().undo_stack().canUndo())
        document().undo_stack().undo();
    QVERIFY(job() == before);
}

void StationsTest::a_wrong_curve_says_why()
{
    window->show_station(1);
    const Job before = job();
    auto* curve = find<QComboBox>("probeCurve");
    for (const char* wrong : {"pt", "ntc:beta=3950", "ntc:r25=-5,beta=3950", "table:1,2,3", ""}) {
        curve->setCurrentText(wrong);
        emit curve->lineEdit()->editingFinished();
        QVERIFY2(!find<QLabel>("probeCurveError")->text().isEmpty(), wrong);
        QVERIFY(job() == before);
    }
}

// Whatever number of whatever part is edited: the job changes, the run follows, one undo brings all back.
void StationsTest::every_number_of_every_part_is_one_step_back()
{
    window->show_station(0);
    const Job before = job();
    int edited = 0;
    for (Part part : arrangement_of(document().variant().loop).parts) {
        window->station<LoopStation>().view()->choose(part);
        laid_out();
        QStringList names;
        for (NumberEdit* e : window->station<LoopStation>().findChildren<NumberEdit*>())
            if (e->objectName().startsWith("loop.") && e->isVisible())
                names.append(e->objectName());
        for (const QString& name : names) {
            NumberEdit* e = number(name);
            const double was = e->value();
            type(e, QString::number(was == 0 ? 0.1 : was * 1.01) + " ");
            QVERIFY2(e->reason().isEmpty() || e->value() == was, qPrintable(name));
            if (job() == before)
                continue; // typed in the unit shown, 1 % may round to the same
            ++edited;
            document().undo_stack().undo();
            QVERIFY2(job() == before, qPrintable(name));
        }
    }
    QVERIFY2(edited >= 12, qPrintable(QString::number(edited)));
    settle();
}

void StationsTest::bucket_and_watch_sets_the_flow()
{
    window->show_station(0);
    window->station<LoopStation>().view()->choose(Part::pump);
    laid_out();
    QTest::mouseClick(find<QToolButton>("sum.flow.open"), Qt::LeftButton);
    type(number("sum.flow.volume_m3"), "10");
    type(number("sum.flow.time_s"), "120");
    click("Take this flow");
    QVERIFY(std::fabs(document().variant().loop.pump.flow_m3_s - 10e-3 / 120) < 1e-12);
    settle();
}

void StationsTest::every_part_of_every_arrangement_opens()
{
    window->show_station(0);
    for (const Arrangement& a : presets()) {
        document().set_job(new_job(a.key), {});
        settle();
        laid_out();
        LoopView* view = window->station<LoopStation>().view();
        for (Part part : a.parts) {
            const QRectF area = view->part_area(part);
            QVERIFY2(!area.isEmpty() && QRectF(view->rect()).contains(area), qPrintable(QStringLiteral("%1 %2").arg(qs(a.key), part_text(part).title)));
            QSignalSpy spy(view, &LoopView::chosen);
            QTest::mouseClick(view, Qt::LeftButton, {}, (part == Part::tank || part == Part::room ? area.center() : part == Part::back ? area.topRight() + QPointF(-6, 30)
                                                                                                                                       : area.center())
                                                            .toPoint());
            QCOMPARE(spy.size(), 1);
            view->choose(part);
            laid_out();
            int numbers = 0;
            for (NumberEdit* e : window->station<LoopStation>().findChildren<NumberEdit*>())
                numbers += e->objectName().startsWith("loop.") && e->isVisible() ? 1 : 0;
            QVERIFY2(part == Part::valve || part == Part::cooler_valve || numbers >= 2, part_text(part).title);
        }
    }
}

void StationsTest::another_arrangement_brings_its_rules_and_one_undo_takes_them_back()
{
    window->show_station(0);
    const Job before = job();
    auto* box = find<QComboBox>("arrangement");
    for (const char* key : {"dump", "pool", "air", "two-arrays"}) {
        box->setCurrentIndex(box->findData(QString::fromLatin1(key)));
        emit box->activated(box->currentIndex());
        QCOMPARE(arrangement_of(document().variant().loop).key, std::string(key));
        settle();
        QVERIFY2(window->session().outcome()->figures(), key);
        for (const Finding& f : window->session().verdict().findings)
            QVERIFY2(f.severity != Severity::serious || std::string(f.kind) == "freezes_today", (key + (": " + f.title)).c_str());
    }
    QCOMPARE(document().variant().name, before.variants[document().variant_index()].name);
    for (int i = 0; i < 4; ++i)
        document().undo_stack().undo();
    QVERIFY(job() == before);
    // What both loops have stays as it was measured.
    box->setCurrentIndex(box->findData("two-stores"));
    emit box->activated(box->currentIndex());
    QVERIFY(document().variant().loop.collector == before.variants[document().variant_index()].loop.collector);
}

void StationsTest::the_drawing_is_written_as_svg_png_and_pdf()
{
    window->show_station(0);
    for (const char* name : {"loop.svg", "loop.png", "loop.pdf"}) {
        save_as_answer = folder->filePath(name);
        QTest::mouseClick(find<QPushButton>("saveDrawing"), Qt::LeftButton);
        QVERIFY2(told.isEmpty(), qPrintable(told));
        const auto written = read_file(save_as_answer.toStdString());
        QVERIFY(written && written->size() > 2000);
        QVERIFY2(name != std::string("loop.svg") || written->find("tank") != std::string::npos, "words stay words");
    }
    save_as_answer = folder->filePath("loop.odd");
    QTest::mouseClick(find<QPushButton>("saveDrawing"), Qt::LeftButton);
    QVERIFY(told.contains("loop.odd"));
}

void StationsTest::what_drains_sizes_the_reservoir()
{
    document().set_job(new_job("drainback"), {});
    window->show_station(0);
    settle();
    window->station<LoopStation>().view()->choose(Part::drain_back);
    laid_out();
    QTest::mouseClick(find<QToolButton>("sum.drains.open"), Qt::LeftButton);
    const QString before = find<QLabel>("sum.drains.formula")->text();
    document().edit_variant("more pipe", [](Variant& v) { v.loop.back.outdoor_m = 9; });
    QVERIFY2(find<QLabel>("sum.drains.formula")->text() != before, "the sum follows the loop");
    const double needed = draining(document().variant().loop, 0).reservoir_m3;
    click("Take it for the reservoir");
    QCOMPARE(document().variant().loop.reservoir.volume_m3, needed);
    auto* siphon = find<QCheckBox>("loop.siphon");
    QVERIFY(siphon->isChecked());
    QTest::mouseClick(siphon, Qt::LeftButton, {}, QPoint(10, siphon->height() / 2));
    QVERIFY(!document().variant().loop.drain_back.siphon);
    document().undo_stack().undo();
    QVERIFY(document().variant().loop.drain_back.siphon);
    QVERIFY(siphon->isChecked());
    settle();
}

void StationsTest::rules_of_several_outputs_can_be_given_to_another()
{
    document().set_job(new_job("two-arrays"), {});
    window->show_station(2);
    settle();
    const std::size_t last = document().variant().unit.rules.size() - 1;
    const std::string before = document().variant().unit.rules[last].output;
    QAction* other = nullptr;
    for (QPushButton* b : window->findChildren<QPushButton*>("word"))
        if (b->text() == QString::fromStdString(before) && b->menu())
            for (QAction* a : b->menu()->actions())
                if (!a->text().startsWith(QString::fromStdString(before)))
                    other = a;
    QVERIFY(other);
    const Job was = job();
    other->trigger();
    QVERIFY(job() != was);
    document().undo_stack().undo();
    QVERIFY(job() == was);
    auto* map = find<OperatingMap>("operatingMap");
    map->set_output(1);
    QCOMPARE(map->output(), std::size_t{1});
    document().set_job(new_job("glycol-coil"), {});
    QCOMPARE(map->output(), std::size_t{0}); // a unit with one output has no second
    settle();
}

void StationsTest::figures_show_what_the_arrangement_has()
{
    const auto names = [&] {
        QStringList all;
        auto* table = find<QTableWidget>("figures");
        for (int i = 0; i < table->rowCount(); ++i)
            for (int c = 0; c < table->columnCount(); ++c)
                all << (table->item(i, c) ? table->item(i, c)->text() : QString());
        return all;
    };
    document().set_job(new_job("pv-battery"), {});
    window->show_station(4);
    settle();
    QVERIFY(names().contains("lowest battery"));
    QVERIFY(!names().contains("fills of the array"));
    document().set_job(new_job("drainback"), {});
    settle();
    QVERIFY(names().contains("fills of the array"));
    QVERIFY(!names().contains("lowest battery"));
}

// Weather is kept between edits; turning anything that meets the sun must not be answered from what was kept.
void StationsTest::whatever_meets_the_sun_is_run_anew()
{
    document().set_job(new_job("pv-direct"), {});
    settle();
    double heat = window->session().outcome()->figures()->heat.to_store;
    for (const auto& turn : {+[](Loop& l) { l.panel.azimuth_deg = 90; }, +[](Loop& l) { l.collector.tilt_deg = 80; }}) {
        document().edit_variant("turn", [&](Variant& v) { turn(v.loop); });
        settle();
        QVERIFY(window->session().outcome()->figures()->heat.to_store != heat);
        heat = window->session().outcome()->figures()->heat.to_store;
    }
    document().edit_day("warmer", [](Day& d) { d.sky.air_max_c += 8; });
    settle();
    QVERIFY(window->session().outcome()->figures()->heat.to_store != heat);
}

int main(int argc, char** argv) { return run_window_test<StationsTest>(argc, argv); }
#include "stations_test.moc"
