// The Rules station: sentences, moves, outputs, chooser, card, map.
#include "fixture.h"

#include "app/rules/rules_station.h"
#include "cli/program.h"
#include "core/job/fresh_rule.h"

#include <QAction>
#include <QComboBox>
#include <QMenu>
#include <QSlider>
#include <QTextBrowser>

#include <sstream>

using namespace vernal;

class RulesTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init()
    {
        open_demo();
        window->show_station(2);
    }
    void every_kind_is_added_shown_and_undone();
    void a_key_is_chosen_from_its_word();
    void details_open_and_stay_when_said();
    void a_move_out_of_its_rank_is_refused_with_the_reason();
    void outputs_are_added_described_and_removed();
    void the_chooser_takes_all_at_once();
    void the_card_is_saved_and_printed();
    void a_third_quantity_moves_the_map();
    void lines_of_a_lower_limit_are_dragged();
    void strip_and_command_line_decide_the_same();

private:
    void add(std::size_t kind)
    {
        document().edit_variant("add", [&](Variant& v) {
            v.unit.rules.push_back(fresh_rule(v, kind));
            sort_by_priority(v.unit.rules);
        });
        settle();
    }
    QAction* action(QWidget* in, const QString& text)
    {
        for (QMenu* m : in->findChildren<QMenu*>())
            for (QAction* a : m->actions())
                if (a->text() == text)
                    return a;
        return nullptr;
    }
    Ledger& ledger() { return window->station<RulesStation>().ledger(); }
    LedgerLine* line(std::size_t rule) { return ledger().lines().at(rule); }
    std::size_t rules() { return document().variant().unit.rules.size(); }
};

void RulesTest::every_kind_is_added_shown_and_undone()
{
    const Job before = job();
    for (std::size_t k = 0; k < rule_kinds().size(); ++k) {
        const std::size_t now = rules();
        QAction* a = action(find<QPushButton>("addRule"), QString::fromUtf8(rule_kinds()[k].title));
        QVERIFY2(a, rule_kinds()[k].title);
        a->trigger();
        QCOMPARE(rules(), now + 1);
        settle();
        QCOMPARE(ledger().lines().size(), rules());
        document().undo_stack().undo();
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    }
    QVERIFY(job() == before);
}

void RulesTest::a_key_is_chosen_from_its_word()
{
    const std::size_t last = rules() - 1; // the difference
    QAction* a = action(line(last), QStringLiteral("S3  Tank top"));
    QVERIFY(a);
    a->trigger();
    QCOMPARE(difference().source, std::string("S3"));
    settle();
}

void RulesTest::details_open_and_stay_when_said()
{
    const QString field = rule_field("confirm_s");
    QVERIFY(!number(field));
    action(line(rules() - 1), "Details")->trigger();
    QVERIFY(QTest::qWaitFor([&] { return number(field) != nullptr; }, 2000));
    type(number(field), "25");
    QCOMPARE(difference().conditioning.confirm_s, 25.0);
    settle();
}

void RulesTest::a_move_out_of_its_rank_is_refused_with_the_reason()
{
    const Job before = job();
    action(line(0), "Move down")->trigger();
    QVERIFY(job() == before);
    QVERIFY2(find<QLabel>("refusal")->isVisible() && find<QLabel>("refusal")->text().contains("protection"), qPrintable(find<QLabel>("refusal")->text()));
    action(line(0), "Move up")->trigger();
    QVERIFY(find<QLabel>("refusal")->text().contains("first"));
    add(0);
    document().edit_variant("other", [](Variant& v) { std::get<Differential>(v.unit.rules.back().body).on = TempDiff::kelvin(21); });
    action(line(rules() - 1), "Move up")->trigger();
    QCOMPARE(std::get<Differential>(document().variant().unit.rules[rules() - 2].body).on.in_kelvin(), 21.0);
    settle();
}

void RulesTest::outputs_are_added_described_and_removed()
{
    window->station<RulesStation>().show_page(RulesStation::unit);
    QTest::mouseClick(find<QPushButton>("addOutput"), Qt::LeftButton);
    QCOMPARE(document().variant().unit.outputs.size(), std::size_t(2));
    settle();
    auto* drives = find<QComboBox>("output1.drives");
    QVERIFY(drives);
    emit drives->activated(1);
    QVERIFY(document().variant().unit.outputs[1].drives == Drives::element);
    settle();
    document().edit_variant("bypass", [](Variant& v) { v.unit.outputs[0].bypass = true; });
    settle();
    QCOMPARE(window->session().outcome()->figures()->pumps[0].run_time_s, 86400.0);
    QVERIFY(find<QLabel>("why")->text().contains("bypass"));
    document().undo_stack().undo();
    settle();
    QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    add(22); // backup heating, by the new output
    QCOMPARE(document().variant().unit.rules.back().output, document().variant().unit.outputs[1].key);
    QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    click("Remove");
    QCOMPARE(document().variant().unit.outputs.size(), std::size_t(1));
    QVERIFY(!std::holds_alternative<Heating>(document().variant().unit.rules.back().body));
    settle();
}

void RulesTest::the_chooser_takes_all_at_once()
{
    const Job before = job();
    click("Choose for me");
    auto* pump = find<QComboBox>("question.pump");
    QVERIFY(pump && pump->isVisible());
    emit pump->activated(2);
    QTest::mouseClick(find<QPushButton>("trySettings"), Qt::LeftButton);
    QVERIFY(job() == before);
    QTest::mouseClick(find<QPushButton>("takeSettings"), Qt::LeftButton);
    QVERIFY(job() != before);
    QVERIFY(difference().on.in_kelvin() >= 8);
    QCOMPARE(document().undo_stack().count(), 1);
    document().undo_stack().undo();
    QVERIFY(job() == before);
    settle();
}

void RulesTest::the_card_is_saved_and_printed()
{
    click("Card");
    QVERIFY(find<QTextBrowser>("settingsCard")->toPlainText().contains("Hysteresis"));
    save_answer = folder->filePath("card.pdf");
    QTest::mouseClick(find<QPushButton>("saveCard"), Qt::LeftButton);
    QFile pdf(save_answer);
    QVERIFY(pdf.open(QIODevice::ReadOnly));
    const QByteArray bytes = pdf.readAll();
    QVERIFY(bytes.startsWith("%PDF"));
    QCOMPARE(bytes.count("/Type /Page\n") + bytes.count("/Type /Page\r"), 1);
    save_answer = folder->filePath("card.csv");
    QTest::mouseClick(find<QPushButton>("saveCard"), Qt::LeftButton);
    QFile csv(save_answer);
    QVERIFY(csv.open(QIODevice::ReadOnly));
    QVERIFY(csv.readAll().contains("unit's own code,as found"));
    save_answer = folder->filePath("card.odd");
    QTest::mouseClick(find<QPushButton>("saveCard"), Qt::LeftButton);
    QVERIFY(told.contains(".pdf"));
    print_answer = folder->filePath("printed.pdf");
    QTest::mouseClick(find<QPushButton>("printCard"), Qt::LeftButton);
    QVERIFY(QFile::exists(print_answer));
}

void RulesTest::a_third_quantity_moves_the_map()
{
    add(20); // low voltage
    auto* map = find<OperatingMap>("operatingMap");
    auto* third = find<QComboBox>("third");
    const int supply = third->findText("Supply voltage");
    QVERIFY(supply > 0);
    third->setCurrentIndex(supply);
    emit third->activated(supply);
    auto* at = find<QSlider>("thirdAt");
    QVERIFY(at->isEnabled());
    at->setValue(900);
    QCoreApplication::processEvents();
    const QImage high = map->grab().toImage();
    at->setValue(100);
    QCoreApplication::processEvents();
    QVERIFY(map->grab().toImage() != high);
    QVERIFY(map->third_text().contains("V"));
    third->setCurrentIndex(0);
    emit third->activated(0);
    QVERIFY(!at->isEnabled());
}

void RulesTest::lines_of_a_lower_limit_are_dragged()
{
    add(13); // collector minimum
    auto* map = find<OperatingMap>("operatingMap");
    std::size_t rule = 0;
    while (!std::holds_alternative<CollectorMinimum>(document().variant().unit.rules[rule].body))
        ++rule;
    const auto h = map->handle(rule, "limit_c");
    QVERIFY(h);
    const double before = std::get<CollectorMinimum>(document().variant().unit.rules[rule].body).limit.in_celsius();
    QTest::mousePress(map, Qt::LeftButton, {}, h->toPoint());
    QTest::mouseMove(map, h->toPoint() + QPoint(0, -20));
    QTest::mouseRelease(map, Qt::LeftButton, {}, h->toPoint() + QPoint(0, -20));
    QVERIFY(std::get<CollectorMinimum>(document().variant().unit.rules[rule].body).limit.in_celsius() > before + 0.5);
    settle();
    add(6); // difference to a fixed value: its line lies at the reference and the difference
    const std::size_t fixed = rules() - 1;
    QVERIFY(std::holds_alternative<FixedDifference>(document().variant().unit.rules[fixed].body));
    const auto on = map->handle(fixed, "on_k");
    QVERIFY(on);
    QTest::mousePress(map, Qt::LeftButton, {}, on->toPoint());
    QTest::mouseMove(map, on->toPoint() - QPoint(0, 15));
    QTest::mouseRelease(map, Qt::LeftButton, {}, on->toPoint() - QPoint(0, 15));
    const double k = std::get<FixedDifference>(document().variant().unit.rules[fixed].body).on.in_kelvin();
    QVERIFY2(k > 10 && k < 20, qPrintable(QString::number(k)));
    settle();
}

// The strip's instants against the rows that the command line writes for the same file.
void RulesTest::strip_and_command_line_decide_the_same()
{
    document().edit_variant("busy", [](Variant& v) {
        for (std::size_t k : {std::size_t(20), std::size_t(26), std::size_t(8), std::size_t(18)}) {
            v.unit.rules.push_back(fresh_rule(v, k));
        }
        sort_by_priority(v.unit.rules);
        std::get<RunTimes>(std::find_if(v.unit.rules.begin(), v.unit.rules.end(), [](const Rule& r) { return std::holds_alternative<RunTimes>(r.body); })->body).run_on_s = 40;
    });
    settle();
    const auto outcome = window->session().outcome();
    const std::string saved = folder->filePath("busy.vrelay").toStdString(), csv = folder->filePath("rows.csv").toStdString();
    QVERIFY(save_job(job(), saved));
    std::ostringstream out, err;
    QCOMPARE(run_cli({"run", saved, "--day", document().day().name, "--variant", document().variant().name, "--csv", csv}, {out, err}), exit_fine);
    QFile file(QString::fromStdString(csv));
    QVERIFY(file.open(QIODevice::ReadOnly));
    const QList<QByteArray> head = file.readLine().trimmed().split(',');
    const auto on = head.indexOf("P1"), speed = head.indexOf("P1_speed [%]"), by = head.indexOf("P1_decided_by");
    QVERIFY(on > 0 && speed > 0 && by > 0);
    std::map<int, QList<QByteArray>> rows;
    while (!file.atEnd()) {
        const auto cells = file.readLine().trimmed().split(',');
        rows[static_cast<int>(std::lround(cells[0].toDouble()))] = cells;
    }
    int compared = 0;
    for (std::size_t i = 0; i < outcome->size(); ++i) {
        const auto it = rows.find(static_cast<int>(std::lround(outcome->time_s(i))));
        if (it == rows.end())
            continue;
        const Decision d = outcome->decisions(i)[0];
        QCOMPARE(it->second[on] == "1", d.on);
        QCOMPARE(it->second[speed].toDouble(), d.on ? d.speed_pm / 10.0 : 0.0);
        for (std::size_t p = 0; p < outcome->variant.probes.size(); ++p)
            QCOMPARE(it->second[static_cast<qsizetype>(1 + p)].toDouble(), outcome->inputs(i).readings[p].mk / 1000.0);
        ++compared;
    }
    QVERIFY(compared > 1000);
}

int main(int argc, char** argv) { return run_window_test<RulesTest>(argc, argv); }
#include "rules_test.moc"
