// The Days station: ready days, several days, skies, the horizon drawn and typed.
#include "app/days/horizon_picture.h"
#include "app/days/year_sheet.h"
#include "fixture.h"

#include <QComboBox>
#include <QLineEdit>
#include <QMenu>

using namespace vernal;

class DaysTest : public WindowFixture {
    Q_OBJECT
private:
    void add(const char* key)
    {
        auto* menu = find<QMenu>("readyDays");
        QVERIFY(menu);
        QAction* action = menu->findChild<QAction*>(QString::fromLatin1(key));
        QVERIFY2(action, key);
        action->trigger();
        settle();
        laid_out();
    }

private slots:
    void init()
    {
        open_demo();
        window->show_station(3);
        laid_out();
    }
    void a_ready_day_is_put_on_the_shelf_and_run();
    void several_days_are_named_where_the_time_stands();
    void a_length_is_typed_and_undone();
    void only_what_a_sky_has_is_asked();
    void shades_are_added_and_removed();
    void the_horizon_is_drawn();
    void the_horizon_is_typed();
    void a_ridge_delays_the_first_start();
    void a_year_is_run_and_its_days_are_one_click_away();
    void a_year_can_be_stopped();
    void what_a_weather_file_says_is_not_asked_for();
};

void DaysTest::a_ready_day_is_put_on_the_shelf_and_run()
{
    const std::size_t days = job().days.size();
    add("thunder");
    QCOMPARE(job().days.size(), days + 1);
    QCOMPARE(document().day().name, std::string("Thunder at four"));
    QVERIFY(!window->session().outcome()->error);
    add("thunder");
    QCOMPARE(document().day().name, std::string("Thunder at four 2"));
    document().undo_stack().undo();
    document().undo_stack().undo();
    QCOMPARE(job().days.size(), days);
    settle();
}

void DaysTest::several_days_are_named_where_the_time_stands()
{
    auto* time = find<QLineEdit>("cursorTime");
    QVERIFY(time);
    QVERIFY(!time->text().contains(QLatin1String("day")));
    add("weekend-away");
    const auto& o = window->session().outcome();
    QVERIFY(window->session().several_days());
    QVERIFY(std::fabs(o->time_s(o->size() - 1) - 3 * 86400.0) < 1);
    window->session().set_cursor(86400 + 14 * 3600);
    QCOMPARE(time->text(), QStringLiteral("day 2, 14:00"));
    time->setFocus();
    time->selectAll();
    QTest::keyClicks(time, QStringLiteral("3 9:30"));
    QTest::keyClick(time, Qt::Key_Return);
    QCOMPARE(window->session().cursor_s(), 2 * 86400 + 9.5 * 3600);
    time->selectAll();
    QTest::keyClicks(time, QStringLiteral("11:15"));
    QTest::keyClick(time, Qt::Key_Return);
    QCOMPARE(window->session().cursor_s(), 2 * 86400 + 11.25 * 3600); // of the day that is looked at
    document().choose_day(0);
    settle();
    QCOMPARE(time->text(), QStringLiteral("11:15"));
}

void DaysTest::a_length_is_typed_and_undone()
{
    NumberEdit* length = number("day.length_days");
    QVERIFY(length);
    QVERIFY(!number("day.away_days")->isVisible());
    type(length, "3");
    QCOMPARE(document().day().length_days, 3);
    QVERIFY(number("day.away_days")->isVisible());
    QVERIFY(!number("day.away_from")->isVisible());
    type(number("day.away_days"), "2");
    QCOMPARE(document().day().away_days, 2);
    QVERIFY(number("day.away_from")->isVisible());
    type(length, "63");
    QVERIFY(!length->reason().isEmpty());
    QCOMPARE(document().day().length_days, 3);
    settle();
    document().undo_stack().undo();
    document().undo_stack().undo();
    QCOMPARE(document().day().length_days, 1);
    settle();
}

void DaysTest::only_what_a_sky_has_is_asked()
{
    auto* sky = find<QComboBox>("dayClouds");
    QVERIFY(sky);
    QCOMPARE(sky->count(), 7);
    QVERIFY(!number("sky.fog_until_h")->isVisible());
    sky->setCurrentIndex(5);
    emit sky->activated(5);
    QCOMPARE(document().day().sky.clouds, Clouds::fog);
    QVERIFY(number("sky.fog_until_h")->isVisible());
    QVERIFY(!number("sky.thunder_at_h")->isVisible());
    type(number("sky.fog_until_h"), "11:30");
    QCOMPARE(document().day().sky.fog_until_h, 11.5);
    settle();
}

void DaysTest::shades_are_added_and_removed()
{
    click("Add the shade of something near");
    laid_out();
    QCOMPARE(document().day().shades.size(), std::size_t{1});
    type(number("shade0.passes"), "40 %");
    QCOMPARE(document().day().shades.front().passes, 0.4);
    auto* remove = find<QPushButton>("remove_shade");
    QVERIFY(remove);
    remove->click();
    laid_out();
    QVERIFY(document().day().shades.empty());
    settle();
}

void DaysTest::the_horizon_is_drawn()
{
    auto* picture = find<HorizonPicture>("horizonPicture");
    QVERIFY(picture);
    for (QScrollArea* area : window->findChildren<QScrollArea*>())
        if (area->isAncestorOf(picture))
            area->ensureWidgetVisible(picture);
    laid_out();
    const QPoint middle(picture->width() / 2, picture->height() / 2);
    QTest::mouseClick(picture, Qt::LeftButton, {}, middle);
    QCOMPARE(document().variant().horizon.size(), std::size_t{1});
    const HorizonPoint first = document().variant().horizon.front();
    QVERIFY(std::fabs(first.azimuth_deg) < 15);
    QVERIFY(first.height_deg > 20 && first.height_deg < 55);
    QTest::mousePress(picture, Qt::LeftButton, {}, middle);
    QTest::mouseMove(picture, middle + QPoint(60, 20));
    QTest::mouseRelease(picture, Qt::LeftButton, {}, middle + QPoint(60, 20));
    QCOMPARE(document().variant().horizon.size(), std::size_t{1});
    QVERIFY(document().variant().horizon.front().azimuth_deg > first.azimuth_deg + 20);
    QVERIFY(document().variant().horizon.front().height_deg < first.height_deg);
    picture->setFocus();
    QTest::keyClick(picture, Qt::Key_Delete);
    QVERIFY(document().variant().horizon.empty());
    settle();
}

void DaysTest::the_horizon_is_typed()
{
    auto* line = find<QLineEdit>("horizonLine");
    QVERIFY(line);
    line->setFocus();
    QTest::keyClicks(line, QStringLiteral("-90 20, 0 5"));
    QTest::keyClick(line, Qt::Key_Return);
    const std::vector<HorizonPoint> want{{-90, 20}, {0, 5}};
    QVERIFY(document().variant().horizon == want);
    line->selectAll();
    QTest::keyClicks(line, QStringLiteral("-90 20, 0 95"));
    QTest::keyClick(line, Qt::Key_Return);
    QVERIFY(document().variant().horizon == want);
    QVERIFY(find<QLabel>("horizonNote")->text().contains(QStringLiteral("95")));
    settle();
    find<QPushButton>("levelHorizon")->click();
    QVERIFY(document().variant().horizon.empty());
    document().undo_stack().undo();
    QVERIFY(document().variant().horizon == want);
    settle();
}

void DaysTest::a_ridge_delays_the_first_start()
{
    add("best");
    const auto first = [&] { return window->session().outcome()->figures()->pumps[0].first_start_s; };
    const double open = first();
    document().edit_variant(QStringLiteral("Draw the horizon"), [](Variant& v) { v.horizon = {{-180, 0}, {-130, 42}, {-40, 42}, {-20, 0}, {180, 0}}; });
    settle();
    QVERIFY2(first() > open + 1800, qPrintable(QStringLiteral("%1 %2").arg(open).arg(first())));
}

void DaysTest::a_year_is_run_and_its_days_are_one_click_away()
{
    find<QPushButton>("showYear")->click();
    laid_out();
    auto* sheet = window->findChild<YearSheet*>();
    QVERIFY(sheet && sheet->isVisible());
    auto* table = find<QTableWidget>("yearTable");
    QVERIFY(!table->isVisible());
    QSignalSpy done(sheet, &YearSheet::finished);
    find<QPushButton>("runYear")->click();
    QVERIFY(sheet->runs());
    QVERIFY(done.wait(120000));
    QCOMPARE(table->rowCount(), 13);
    QVERIFY(table->isVisible());
    QVERIFY(table->horizontalHeaderItem(0)->text().endsWith(QLatin1String("kWh")));
    const auto shown = [&](int row, int column) { return table->item(row, column)->text().remove(QChar(0x202f)).toDouble(); };
    double months = 0;
    for (int row = 1; row < 13; ++row)
        months += shown(row, 0);
    const double year = shown(0, 0); // first the year, then its months
    QVERIFY(table->horizontalHeaderItem(3)->text().startsWith(QLatin1String("collected")));
    QVERIFY2(shown(0, 3) > 85 && shown(0, 3) < 110, qPrintable(table->item(0, 3)->text()));
    QVERIFY2(year > 100 && std::fabs(year - months) < 7, qPrintable(QStringLiteral("%1 %2").arg(year).arg(months)));
    const std::size_t days = job().days.size();
    auto* coldest = find<QPushButton>("look_coldest");
    QVERIFY(coldest);
    coldest->click();
    QCOMPARE(job().days.size(), days + 1);
    settle();
    QVERIFY(!window->session().outcome()->error);
    document().undo_stack().undo();
    QCOMPARE(job().days.size(), days);
    settle();
}

void DaysTest::a_year_can_be_stopped()
{
    find<QPushButton>("showYear")->click();
    auto* sheet = window->findChild<YearSheet*>();
    QSignalSpy done(sheet, &YearSheet::finished);
    find<QPushButton>("runYear")->click();
    find<QPushButton>("stopYear")->click();
    QVERIFY(done.wait(60000));
    QVERIFY(!sheet->runs());
    QVERIFY(find<QLabel>("yearAbout")->text().contains(QLatin1String("Stopped")));
    find<QPushButton>("runYear")->click(); // and the window may close while it runs
}

void DaysTest::what_a_weather_file_says_is_not_asked_for()
{
    QVERIFY(find<QComboBox>("dayClouds")->isVisible());
    document().edit(QStringLiteral("Weather"), [](Job& j) {
        Trace t;
        t.time_s = {0, 43200, 86400};
        t.columns = {{"air", Quantity::temperature, {1, 9, 1}}, {"irradiance", Quantity::irradiance, {0, 700, 0}}};
        j.traces["dale.csv"] = std::make_shared<const Trace>(t);
        j.days.front().trace = "dale.csv";
    });
    document().choose_day(0);
    settle();
    laid_out();
    QVERIFY(!find<QComboBox>("dayClouds")->isVisible());
    QVERIFY(!find<QComboBox>("dayHaze")->isVisible());
    QVERIFY(!number("sky.air_min_c")->isVisible());
    QVERIFY(number("sky.wind_m_s")->isVisible()); // the file has none
}

int main(int argc, char** argv) { return run_window_test<DaysTest>(argc, argv); }
#include "days_test.moc"
