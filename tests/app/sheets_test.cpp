// The part's sheet beside the drawing, the meter above the probes' pages, and the marks
// of findings at parts, fields and probes.
#include "app/findings/finding_mark.h"
#include "app/loop/sheet.h"
#include "app/widgets/form.h"
#include "core/plant/parts.h"
#include "fixture.h"

#include <QListWidget>

#include <set>

using namespace vernal;

class SheetsTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init() { open_demo(); }
    void cleanup() { window.reset(); }
    void arrow_keys_choose_every_part();
    void what_is_found_is_marked_at_its_part_and_its_field();
    void cautions_stand_above_what_scrolls();
    void rows_have_no_gaps_and_say_what_is_usual();
    void no_field_is_shown_that_the_loop_does_not_have();
    void valves_and_feeds_are_chosen();
    void words_stay_legible_and_details_fade();
    void the_meter_is_answered_before_any_page();
    void what_is_found_of_a_probe_is_marked_in_the_list();
};

// From part to part by the arrow keys alone, in every arrangement.
void SheetsTest::arrow_keys_choose_every_part()
{
    for (const Arrangement& a : presets()) {
        at(a.key.c_str(), Part::collector);
        auto* view = window->station<LoopStation>().view();
        QSignalSpy chosen(view, &LoopView::chosen);
        std::set<Part> seen{Part::collector};
        std::vector<Part> open{Part::collector};
        while (!open.empty()) {
            const Part from = open.back();
            open.pop_back();
            for (Qt::Key key : {Qt::Key_Left, Qt::Key_Right, Qt::Key_Up, Qt::Key_Down}) {
                view->choose(from);
                chosen.clear();
                QTest::keyClick(view, key);
                if (chosen.isEmpty())
                    continue;
                const Part to = chosen.last()[0].value<Part>();
                QVERIFY(to != from);
                if (seen.insert(to).second)
                    open.push_back(to);
            }
        }
        for (Part part : a.parts)
            QVERIFY2(seen.count(part) == 1, qPrintable(QStringLiteral("%1: %2").arg(QString::fromUtf8(a.title), QString::fromUtf8(part_text(part).title))));
    }
}

void SheetsTest::what_is_found_is_marked_at_its_part_and_its_field()
{
    at("glycol-coil", Part::vessel);
    const auto seen_in = [](const QWidget* w) -> FindingMark* {
        for (FindingMark* m : w->findChildren<FindingMark*>())
            if (m->isVisible())
                return m;
        return nullptr;
    };
    const auto at_field = [&] { return seen_in(FieldRow::of(number("loop.precharge_pa"))); };
    settle();
    laid_out();
    QVERIFY2(!at_field(), "nothing is wrong with the vessel yet");
    const double before = document().variant().loop.vessel.precharge_pa;
    type(number("loop.precharge_pa"), "2.9");
    settle();
    laid_out();
    QVERIFY2(seen_in(window->station<LoopStation>().view()), "at the part on the drawing");
    QVERIFY(at_field());
    QVERIFY(at_field()->toolTip().contains("Enter: Try"));
    // Enter tries the remedy; it is accepted and undone as at the spine.
    at_field()->setFocus();
    QTest::keyClick(at_field(), Qt::Key_Return);
    QVERIFY(QTest::qWaitFor([&] { return button("Accept") != nullptr; }, 5000));
    click("Accept");
    settle();
    laid_out();
    QVERIFY(document().variant().loop.vessel.precharge_pa < 2.9e5);
    QVERIFY(!at_field());
    document().undo_stack().undo();
    document().undo_stack().undo();
    QCOMPARE(document().variant().loop.vessel.precharge_pa, before);
}

void SheetsTest::cautions_stand_above_what_scrolls()
{
    for (QSize size : {QSize(1280, 800), QSize(1024, 700)}) {
        window->resize(size);
        for (Part part : {Part::collector, Part::tank, Part::vessel, Part::element}) {
            at("glycol-coil", Part::collector);
            document().set("An element", "loop/answers/backup", "element");
            settle();
            window->station<LoopStation>().view()->choose(part);
            laid_out();
            bool shown = false;
            for (QLabel* label : window->station<LoopStation>().findChildren<QLabel*>())
                if (label->isVisible() && label->text().contains(tr(part_text(part).caution))) {
                    shown = true;
                    QVERIFY(label->visibleRegion().boundingRect().height() >= label->heightForWidth(label->width()));
                    for (QScrollArea* area : window->findChildren<QScrollArea*>())
                        QVERIFY2(!area->isAncestorOf(label), "it can be scrolled away");
                }
            QVERIFY(shown);
        }
    }
}

void SheetsTest::no_field_is_shown_that_the_loop_does_not_have()
{
    const auto shown = [&](const char* name) {
        FieldRow* row = FieldRow::of(number(name));
        return row && !row->isHidden();
    };
    at("glycol-coil", Part::tank);
    QVERIFY(shown("loop.coil_w_k"));
    QVERIFY(!shown("loop.above_m"));
    at("direct", Part::tank);
    QVERIFY(!shown("loop.coil_w_k"));
    at("air", Part::collector);
    QVERIFY(shown("loop.area_m2"));
    QVERIFY(!shown("loop.content_m3"));
}

// What is one of a few is chosen in a row, and written by its path.
void SheetsTest::valves_and_feeds_are_chosen()
{
    at("pv-battery", Part::wiring);
    auto* feed = window->findChild<QComboBox*>(QStringLiteral("loop.unit_feed"));
    QVERIFY(feed);
    QCOMPARE(feed->currentIndex(), static_cast<int>(UnitFeed::battery));
    feed->setCurrentIndex(static_cast<int>(UnitFeed::load_output));
    emit feed->activated(feed->currentIndex());
    QVERIFY(document().variant().loop.wiring.unit_feed == UnitFeed::load_output);
    document().undo_stack().undo();
    QVERIFY(document().variant().loop.wiring.unit_feed == UnitFeed::battery);
}

void SheetsTest::rows_have_no_gaps_and_say_what_is_usual()
{
    at("glycol-coil", Part::tank);
    FieldRow* above = nullptr;
    for (FieldRow* row : FieldRow::of(number("loop.volume_m3"))->parentWidget()->findChildren<FieldRow*>()) {
        if (row->isHidden()) // what this loop does not have
            continue;
        QCOMPARE(row->height(), 32);
        if (above)
            QCOMPARE(row->y(), above->y() + above->height());
        above = row;
    }
    const auto usual = [&] { return FieldRow::of(number("loop.loss_w_k"))->findChild<QLabel*>("usual")->text(); };
    QCOMPARE(usual(), QStringLiteral("1.5 to 3.5"));
    window->session().set_units(Units::us());
    QVERIFY(usual() != QStringLiteral("1.5 to 3.5")); // W/K are other numbers in BTU/(h·°F)
    window->session().set_units({});
}

// At 560 pixels all is read; at half of it the names and the figures of the stores still.
void SheetsTest::words_stay_legible_and_details_fade()
{
    at("glycol-coil", Part::collector);
    window->session().set_cursor(12 * 3600.0);
    const auto* view = window->station<LoopStation>().view();
    const auto ink = [&](int width) { // dark pixels where the collector's details stand: 14…170 × 60…95 of the sheet
        const QImage image = view->image(width);
        const double s = width / sheet_of(arrangement_of(document().variant().loop)).width;
        int n = 0;
        for (int y = int(60 * s); y < int(95 * s); ++y)
            for (int x = int(14 * s); x < int(170 * s); ++x)
                n += qGray(image.pixel(x, y)) < 170;
        return n;
    };
    QVERIFY(ink(560) > 200);
    QCOMPARE(ink(320), 0);
}

void SheetsTest::the_meter_is_answered_before_any_page()
{
    window->show_station(1);
    window->station<ProbesStation>().show_page(4);
    laid_out();
    auto *signal = find<QLineEdit>("meterSignal"), *beside = find<QLineEdit>("meterBeside");
    const auto says = [&] { return find<QLabel>("meterSays")->text(); };
    const auto type_in = [](QLineEdit* edit, const QString& text) {
        edit->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, text);
        if (text.isEmpty())
            QTest::keyClick(edit, Qt::Key_Delete);
    };
    type_in(signal, "1097.3"); // IEC 60751:2008, table 1: 25 °C of a Pt1000
    QVERIFY2(says().contains(QStringLiteral("25.0 °C")), qPrintable(says()));
    type_in(beside, "25.2");
    QVERIFY2(says().contains("Sound"), qPrintable(says()));
    type_in(beside, "15"); // nickel of 1000 Ω has 1097 there: DIN 43760, from memory
    QVERIFY2(says().contains("would read right"), qPrintable(says()));
    type_in(signal, "1150");
    type_in(beside, "60");
    QVERIFY2(says().contains("drifted"), qPrintable(says()));
    QVERIFY2(find<QLabel>("faultSigns")->text().contains("fits the meter"), "the table of signatures marks it");
    Units u = window->session().units();
    u.fahrenheit = true;
    window->session().set_units(u);
    QVERIFY2(beside->text().startsWith("140.0"), qPrintable(beside->text())); // 60 °C
    QVERIFY2(says().contains(QStringLiteral("101.")), qPrintable(says()));    // 38.7 °C
    window->session().set_units({});
    type_in(signal, "OL");
    QVERIFY(says().contains("Open"));
    type_in(signal, "warm");
    QVERIFY(says().contains("no reading"));
    // Another probe has its own reading; the first one's is kept.
    window->station<ProbesStation>().choose(1);
    QVERIFY(signal->text().isEmpty());
    window->station<ProbesStation>().choose(0);
    QCOMPARE(signal->text(), QStringLiteral("warm"));
    QVERIFY2(!document().undo_stack().canUndo(), "measuring changes nothing");
}

void SheetsTest::what_is_found_of_a_probe_is_marked_in_the_list()
{
    window->show_station(1);
    auto* list = find<QListWidget>("probeList");
    document().edit_variant("test", [](Variant& v) { v.probes[1].condition.kind = ConditionKind::stuck; });
    settle();
    laid_out();
    QVERIFY(!list->itemWidget(list->item(0)));
    auto* mark = list->itemWidget(list->item(1))->findChild<FindingMark*>();
    QVERIFY(mark && mark->isVisible());
    QVERIFY(mark->toolTip().contains("stuck"));
    // The rest of the row still chooses the probe.
    QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(1)).topLeft() + QPoint(20, 10));
    QCOMPARE(list->currentRow(), 1);
    document().undo_stack().undo();
    settle();
    laid_out();
    QVERIFY(!mark->isVisible());
}

int main(int argc, char** argv) { return run_window_test<SheetsTest>(argc, argv); }
#include "sheets_test.moc"
