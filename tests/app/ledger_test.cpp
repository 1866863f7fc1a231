// The rules' sheet by keyboard, the map's labels, the marks of findings, the frame about
// them, and finding things by words.
#include "fixture.h"

#include "app/findings/finding_mark.h"
#include "app/findings/findings_panel.h"
#include "app/findings/findings_spine.h"
#include "app/shell/palette.h"
#include "core/job/fresh_rule.h"

#include <QListWidget>
#include <QMenu>

using namespace vernal;

class LedgerTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init()
    {
        open_demo();
        window->show_station(2);
        laid_out();
    }
    void a_typed_number_moves_the_day_at_once_and_is_one_step_back();
    void what_is_no_number_yet_changes_nothing();
    void tab_goes_from_number_to_number_in_the_line();
    void rules_are_moved_removed_and_added_by_keys();
    void a_line_that_stays_keeps_its_editors();
    void a_rule_that_goes_while_it_is_typed_into_changes_no_other();
    void nine_rules_stand_without_scrolling();
    void a_rank_folds_and_opens();
    void many_outputs_narrow_the_threads();
    void a_map_label_is_typed_into();
    void a_switching_point_of_the_map_takes_the_cursor();
    void a_mark_stands_at_its_rule_and_tries_the_remedy();
    void findings_open_over_the_work_or_beside_it();
    void the_strip_has_three_heights();
    void a_setting_is_found_and_set_by_words();
    void the_focus_goes_round_the_parts();
    void units_are_chosen_one_by_one();
    void a_change_of_theme_styles_nothing_anew();

private:
    Ledger& ledger() { return window->station<RulesStation>().ledger(); }
    std::size_t rules() { return document().variant().unit.rules.size(); }
    NumberEdit* start() { return number(rule_field("on_k")); }
    bool scrolls() { return find<QScrollArea>("ledgerScroll")->verticalScrollBar()->isVisible(); }
    void add(std::size_t kind)
    {
        document().edit_variant("add", [&](Variant& v) {
            v.unit.rules.push_back(fresh_rule(v, kind));
            sort_by_priority(v.unit.rules);
        });
    }
    Palette* asked(const QString& words)
    {
        window->activateWindow(); // a popup that closed leaves none active on this platform
        (void)QTest::qWaitForWindowActive(window.get());
        QTest::keyClick(window.get(), Qt::Key_K, Qt::ControlModifier);
        auto* palette = find<Palette>("palette");
        QTest::keyClicks(palette->findChild<QLineEdit*>(), words);
        return palette;
    }
};

void LedgerTest::a_typed_number_moves_the_day_at_once_and_is_one_step_back()
{
    const Job before = job();
    start()->setFocus();
    start()->selectAll();
    QTest::keyClicks(start(), "1");
    QCOMPARE(difference().on.in_kelvin(), 1.0);
    QTest::qWait(1200); // longer than edits of one key merge
    QTest::keyClicks(start(), "4.5");
    QCOMPARE(difference().on.in_kelvin(), 14.5);
    settle();
    QCOMPARE(window->session().outcome()->variant.unit.rules, document().variant().unit.rules);
    QTest::keyClick(start(), Qt::Key_Return);
    QCOMPARE(start()->text(), QStringLiteral("14.5 K"));
    QCOMPARE(document().undo_stack().count(), 1);
    document().undo_stack().undo();
    QVERIFY(job() == before);
}

void LedgerTest::what_is_no_number_yet_changes_nothing()
{
    const Job before = job();
    start()->setFocus();
    start()->selectAll();
    QTest::keyClicks(start(), "12 pars");
    QVERIFY(job() == before);
    QTest::keyClick(start(), Qt::Key_Escape);
    QVERIFY(job() == before);
    QCOMPARE(document().undo_stack().count(), 0); // typed and taken back is no edit
    start()->selectAll();
    QTest::keyClicks(start(), "13");
    QTest::keyClick(start(), Qt::Key_Escape);
    QVERIFY(job() == before);
}

void LedgerTest::tab_goes_from_number_to_number_in_the_line()
{
    LedgerLine* line = ledger().lines().back();
    QList<QWidget*> order;
    for (QWidget* w : line->in_order())
        if (w->isVisible())
            order.append(w);
    QVERIFY(order.size() >= 4); // two probes, two numbers, the menu
    int x = -1, y = -1;
    for (QWidget* w : order) { // in reading order
        QVERIFY(w->y() > y + 4 || w->x() > x);
        x = w->x();
        y = w->y();
    }
    order.front()->setFocus();
    for (qsizetype i = 1; i < order.size(); ++i) {
        QTest::keyClick(QApplication::focusWidget(), Qt::Key_Tab);
        QCOMPARE(QApplication::focusWidget(), order[i]);
    }
}

void LedgerTest::rules_are_moved_removed_and_added_by_keys()
{
    add(0);
    document().edit_variant("other", [](Variant& v) { std::get<Differential>(v.unit.rules.back().body).on = TempDiff::kelvin(21); });
    laid_out();
    const Job before = job();
    start()->setFocus();
    QTest::keyClick(start(), Qt::Key_Up, Qt::ControlModifier);
    QCOMPARE(std::get<Differential>(document().variant().unit.rules[rules() - 2].body).on.in_kelvin(), 21.0);
    QCOMPARE(QApplication::focusWidget()->objectName(), QStringLiteral("rule%1.on_k").arg(rules() - 2)); // it goes with its rule
    document().undo_stack().undo();
    laid_out();
    start()->setFocus();
    QTest::keyClick(start(), Qt::Key_Delete); // of its text
    QCOMPARE(job().variants[document().variant_index()].unit.rules.size(), before.variants[document().variant_index()].unit.rules.size());
    QTest::keyClick(start(), Qt::Key_Escape);
    QWidget* more = ledger().lines().back()->in_order().back();
    more->setFocus();
    const std::size_t now = rules();
    QTest::keyClick(more, Qt::Key_Delete);
    QCOMPARE(rules(), now - 1);
    document().undo_stack().undo();
    QVERIFY(job() == before);
}

void LedgerTest::a_line_that_stays_keeps_its_editors()
{
    NumberEdit* const edit = start();
    edit->setFocus();
    add(3); // above it
    laid_out();
    QCOMPARE(number(rule_field("on_k")), edit);
    QVERIFY(edit->hasFocus());
    document().undo_stack().undo();
    laid_out();
    QCOMPARE(number(rule_field("on_k")), edit);
}

void LedgerTest::a_rule_that_goes_while_it_is_typed_into_changes_no_other()
{
    add(0);
    laid_out();
    NumberEdit* edit = start();
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, "4000"); // not to be taken
    auto* label = number(QStringLiteral("map%1.off_k").arg(rules() - 2));
    QVERIFY(label);
    const auto others = document().variant().unit.rules;
    document().edit_variant("gone", [](Variant& v) { v.unit.rules.pop_back(); });
    laid_out();
    QCOMPARE(document().variant().unit.rules, std::vector<Rule>(others.begin(), others.end() - 1));
    settle();
}

void LedgerTest::nine_rules_stand_without_scrolling()
{
    for (std::size_t kind = 14; rules() < 9; ++kind)
        add(kind);
    laid_out();
    QCOMPARE(rules(), std::size_t(9));
    QVERIFY(!scrolls());
    QTest::keyClick(window.get(), Qt::Key_F3); // tall
    QTest::keyClick(window.get(), Qt::Key_F3); // lanes
    for (std::size_t kind = 0; rules() < 12; kind += 2)
        add(kind);
    laid_out();
    QVERIFY(!scrolls());
    QVERIFY(ledger().lines().back()->isVisible());
}

void LedgerTest::a_rank_folds_and_opens()
{
    QPushButton* rank = nullptr;
    for (QPushButton* b : ledger().findChildren<QPushButton*>())
        if (b->text() == QLatin1String("collect"))
            rank = b;
    QVERIFY(rank);
    const int before = ledger().maximumHeight();
    QVERIFY(ledger().lines().back()->isVisible());
    rank->click();
    QVERIFY(!ledger().lines().back()->isVisible());
    QVERIFY(ledger().maximumHeight() <= before);
    ledger().go_to(rules() - 1, "on_k"); // opens it again
    QVERIFY(ledger().lines().back()->isVisible());
    QVERIFY(start()->hasFocus());
}

void LedgerTest::many_outputs_narrow_the_threads()
{
    const ThreadColumns one{1, 600}, eight{8, 600};
    QVERIFY(eight.each() < one.each());
    QVERIFY(eight.left() > 400);
    document().edit_variant("eight", [](Variant& v) {
        while (v.unit.outputs.size() < 8)
            v.unit.outputs.push_back({"A" + std::to_string(v.unit.outputs.size()), "Another", Mode::automatic, 0, Drives::other});
    });
    settle();
    laid_out();
    QVERIFY(ledger().width() < 760); // the map keeps its room
    QVERIFY(ledger().lines().back()->width() > 300);
}

void LedgerTest::a_map_label_is_typed_into()
{
    auto* label = number(QStringLiteral("map%1.off_k").arg(rules() - 1));
    QVERIFY(label && label->isVisible());
    type(label, "2.5");
    QCOMPARE(difference().off.in_kelvin(), 2.5);
    QCOMPARE(number(rule_field("off_k"))->text(), QStringLiteral("2.5 K"));
    document().undo_stack().undo();
    QCOMPARE(label->text(), number(rule_field("off_k"))->text());
    for (QWidget* map : {static_cast<QWidget*>(find<OperatingMap>("operatingMap"))})
        for (MapLabel* l : map->findChildren<MapLabel*>())
            QVERIFY(!l->isVisible() || map->rect().contains(l->geometry()));
}

void LedgerTest::a_switching_point_of_the_map_takes_the_cursor()
{
    auto* map = find<OperatingMap>("operatingMap");
    const auto& o = *window->session().outcome();
    const double first = *o.next_switch_s(0);
    window->session().set_cursor(43200);
    const auto axes = *map_axes(document().variant(), 0);
    const MapGeometry g = map->geometry();
    const std::size_t i = o.at(first);
    const QPointF at = g.at(o.reading(i, axes.store), o.reading(i, axes.source));
    QVERIFY(g.area.contains(at));
    QTest::mouseMove(map, at.toPoint());
    QVERIFY(o.switches_at(o.at(window->session().cursor_s())));
}

void LedgerTest::a_mark_stands_at_its_rule_and_tries_the_remedy()
{
    document().choose_variant(0);
    settle();
    laid_out();
    FindingMark* mark = nullptr;
    for (FindingMark* m : ledger().findChildren<FindingMark*>())
        if (m->isVisible())
            mark = m;
    QVERIFY(mark);
    QVERIFY(!mark->accessibleName().isEmpty() && !mark->accessibleDescription().isEmpty());
    QVERIFY(!window->work().findings_shown());
    const Job before = job();
    mark->setFocus();
    QTest::keyClick(mark, Qt::Key_Return);
    QVERIFY(window->work().findings_shown());
    QVERIFY(QTest::qWaitFor([&] {
        for (QLabel* l : window->findChildren<QLabel*>(QStringLiteral("remedyEffect")))
            if (l->isVisible() && l->text().contains(QStringLiteral("Starts")))
                return true;
        return false;
    },
        10000));
    QVERIFY(job() == before);
    QCOMPARE(QApplication::focusWidget()->objectName(), QStringLiteral("accept"));
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Space);
    QVERIFY(job() != before);
    QTest::keyClick(window.get(), Qt::Key_Z, Qt::ControlModifier);
    QVERIFY(job() == before);
    settle();
}

void LedgerTest::findings_open_over_the_work_or_beside_it()
{
    auto& panel = window->work().findings();
    const int room = window->station<RulesStation>().width();
    QTest::keyClick(window.get(), Qt::Key_F4);
    QVERIFY(panel.isVisible());
    QCOMPARE(window->station<RulesStation>().width(), room); // over it
    QVERIFY(find<FindingsSpine>("findingsSpine")->accessibleName().contains("notes"));
    emit panel.pin_wanted(true);
    laid_out();
    QVERIFY(window->station<RulesStation>().width() < room - 200);
    QTest::keyClick(window.get(), Qt::Key_F4);
    laid_out();
    QVERIFY(!panel.isVisible());
    QCOMPARE(window->station<RulesStation>().width(), room);
    emit panel.pin_wanted(false);
    QVERIFY(panel.isVisible());
    QTest::keyClick(&window->work(), Qt::Key_Escape);
    QVERIFY(!panel.isVisible());
}

void LedgerTest::the_strip_has_three_heights()
{
    Strip& strip = window->strip();
    const int usual = strip.height();
    QTest::keyClick(window.get(), Qt::Key_F3);
    laid_out();
    const int tall = strip.height();
    QTest::keyClick(window.get(), Qt::Key_F3);
    laid_out();
    const int lanes = strip.height();
    QVERIFY2(lanes < usual && usual < tall, qPrintable(QStringLiteral("%1 %2 %3").arg(lanes).arg(usual).arg(tall)));
    QVERIFY(lanes < 100);
    QTest::keyClick(window.get(), Qt::Key_F3);
    laid_out();
    QCOMPARE(strip.height(), usual);
}

void LedgerTest::a_setting_is_found_and_set_by_words()
{
    Palette* palette = asked("start 9");
    auto* list = palette->findChild<QListWidget*>();
    QVERIFY(list->count() > 0);
    QVERIFY2(list->item(0)->text().contains("9.0 K") && list->item(0)->text().startsWith("Start P1"), qPrintable(list->item(0)->text()));
    QTest::keyClick(palette->findChild<QLineEdit*>(), Qt::Key_Return);
    QCOMPARE(difference().on.in_kelvin(), 9.0);
    laid_out();
    for (const char* words : {"site", "drain", "limit", "latitude", "tank volume", "probe s1", "finding", "sum flow", "day", "glare", "import"}) {
        palette = asked(QString::fromLatin1(words));
        if (QByteArray(words) != "finding" && QByteArray(words) != "drain") // this job may have none
            QVERIFY2(palette->findChild<QListWidget*>()->count() > 0, words);
        palette->close();
        laid_out();
    }
    palette = asked("tank volume");
    QVERIFY2(palette->findChild<QListWidget*>()->item(0)->text().startsWith("Tank: volume"), qPrintable(palette->findChild<QListWidget*>()->item(0)->text()));
    QTest::keyClick(palette->findChild<QLineEdit*>(), Qt::Key_Return);
    QCOMPARE(window->work().station(), 0);
    laid_out();
    QVERIFY(number("loop.volume_m3") && number("loop.volume_m3")->isVisible());
    // On whichever page of the probes it stands.
    palette = asked("s1 length");
    QTest::keyClick(palette->findChild<QLineEdit*>(), Qt::Key_Return);
    laid_out();
    QVERIFY(number("lead.length_m") && number("lead.length_m")->isVisible());
    palette = asked("ice water");
    QTest::keyClick(palette->findChild<QLineEdit*>(), Qt::Key_Return);
    laid_out();
    QVERIFY(find<QWidget>("sum.ice") && find<QWidget>("sum.ice")->isVisible());
    settle();
}

void LedgerTest::the_focus_goes_round_the_parts()
{
    start()->setFocus();
    QSet<QWidget*> met;
    for (int i = 0; i < 8; ++i) {
        QTest::keyClick(QApplication::focusWidget() ? QApplication::focusWidget() : window.get(), Qt::Key_F6);
        QVERIFY(QApplication::focusWidget());
        met.insert(QApplication::focusWidget());
    }
    QVERIFY(met.size() >= 3); // rail, sheet, map, strip
    QVERIFY(!ledger().isAncestorOf(nullptr));
}

void LedgerTest::units_are_chosen_one_by_one()
{
    QPushButton* chip = nullptr;
    for (QPushButton* b : window->findChildren<QPushButton*>())
        if (b->property("chip").toString() == QLatin1String("units"))
            chip = b;
    QVERIFY(chip);
    for (QAction* a : chip->menu()->actions())
        if (a->text().startsWith("psi"))
            a->trigger();
    QVERIFY(window->session().units().psi && !window->session().units().fahrenheit);
    QVERIFY(chip->text().contains("psi") && chip->text().contains(QStringLiteral("°C")));
    QTest::keyClick(window.get(), Qt::Key_U, Qt::ControlModifier);
    QVERIFY(window->session().units().fahrenheit && start()->text().endsWith(QStringLiteral("°F")));
    settle();
}

void LedgerTest::a_change_of_theme_styles_nothing_anew()
{
    const auto colour = [&] { return window->grab().toImage().pixelColor(window->width() - 3, 3); }; // of the top line, where nothing stands
    const QColor paper = colour();
    QElapsedTimer timer;
    timer.start();
    window->set_glare(true);
    QCoreApplication::processEvents();
    QVERIFY2(timer.elapsed() < 1000, qPrintable(QString::number(timer.elapsed()))); // ten times what is asked
    QVERIFY(colour() != paper);
    window->set_glare(false);
    QCOMPARE(colour(), paper);
    QVERIFY(window->styleSheet().isEmpty() && qApp->styleSheet().isEmpty());
}

int main(int argc, char** argv) { return run_window_test<LedgerTest>(argc, argv); }
#include "ledger_test.moc"
