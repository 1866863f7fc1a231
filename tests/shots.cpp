// Takes the pictures in docs/screenshots from the demo job: shots FOLDER.
// With a second word: the window at its edges.
#include "app/bench/bench_station.h"
#include "app/days/days_station.h"
#include "app/days/log_desk.h"
#include "app/loop/loop_station.h"
#include "app/loop/loop_view.h"
#include "app/rules/rules_station.h"
#include "app/run/audit_sheet.h"
#include "app/shell/jobs_page.h"
#include "app/shell/main_window.h"
#include "app/shell/station.h"
#include "app/shell/theme.h"
#include "app/visits/visits_station.h"
#include "app/wire/wire_page.h"
#include "core/job/fresh_rule.h"
#include "core/setup/loop_answers.h"

#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QDir>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QRegularExpression>
#include <QScrollArea>
#include <QTabBar>
#include <QTableWidget>
#include <QTest>
#include <algorithm>

using namespace vernal;

namespace {

bool settled(MainWindow& w)
{
    return QTest::qWaitFor([&] { return w.session().settled() && w.session().outcome()->variant == w.session().document().variant() && w.session().outcome()->day == w.session().document().day(); }, 10000);
}

void shot(MainWindow& w, const QString& file)
{
    QTest::qWait(400); // pictures are of a window at rest
    if (QWidget* focus = QApplication::focusWidget())
        focus->clearFocus();
    // What is worked out in the background has been told.
    (void)QTest::qWaitFor([&] {
        const auto* line = w.findChild<QLabel*>(QStringLiteral("difference"));
        return !line || !line->isVisible() || !line->text().endsWith(QStringLiteral("…"));
    },
        10000);
    QTest::qWait(50); // and has its room
    w.grab().save(file);
}

QString demo(const char* loop) { return QStringLiteral(VERNAL_SOURCE "/demo/%1/job.json").arg(QLatin1String(loop)); }

// The first page as it is after some days of work on the demo.
void jobs(const QString& to)
{
    const QString site = QStringLiteral("Quillback Meadow Creamery");
    JobsPage page({{demo("parlour-wash"), QStringLiteral("Parlour wash water"), site, QStringLiteral("drainback"), QDateTime({2026, 6, 18}, {16, 40}), 1, QStringLiteral("The store never reaches 60.0 °C")},
                      {demo("drying-loft"), QStringLiteral("Drying loft"), site, QStringLiteral("air"), QDateTime({2026, 6, 17}, {9, 5})}},
        {}, demo("cheese-room"));
    page.resize(1280, 800);
    page.show();
    QTest::qWait(300);
    page.grab().save(to + "jobs.png");
}

void stations(MainWindow& w, const QString& to)
{
    const char* names[] = {"loop", "probes", "rules", "days", "run"};
    for (int i = 0; i < 5; ++i) {
        w.show_station(i);
        shot(w, to + names[i] + ".png");
    }
}

bool findings_and_rules(MainWindow& w, const QString& to)
{
    w.session().document().choose_variant(0);
    w.show_station(2);
    w.show_findings();
    shot(w, to + "findings.png");
    w.show_findings(false);
    w.session().document().choose_variant(1);
    w.set_glare(true);
    w.session().set_units(Units::us());
    shot(w, to + "rules-glare.png");
    w.set_glare(false);
    w.session().set_units({});
    w.session().document().choose_day(3);
    w.show_station(4);
    auto* audit = w.findChild<QPushButton*>(QStringLiteral("showAudit"));
    audit->setChecked(true);
    (void)QTest::qWaitFor([&] { return w.findChild<AuditSheet*>()->audit() != nullptr; }, 10000);
    w.findChild<QListWidget*>(QStringLiteral("auditList"))->setCurrentRow(0);
    shot(w, to + "audit.png");
    audit->setChecked(false);
    w.session().mark({});
    if (!w.open(demo("cheese-room")) || !settled(w))
        return false;
    w.show_station(0);
    w.station<LoopStation>().show_valves(ServiceState::fill);
    shot(w, to + "loop-valves.png");
    if (!w.open(demo("parlour-wash")))
        return false;
    w.session().document().choose_variant(1);
    w.show_station(2);
    if (!settled(w))
        return false;
    w.station<RulesStation>().show_page(1);
    w.station<RulesStation>().show_page(0);
    return true;
}

// The unit's keys; what was read beside what should be; a call half looked into.
bool bench_sheets(MainWindow& w, const QString& to)
{
    auto* station = w.findChild<BenchStation*>();
    station->show_page(BenchStation::Page::unit);
    w.findChild<QTabBar*>(QStringLiteral("unitPages"))->setCurrentIndex(1);
    shot(w, to + "bench-unit.png");
    station->show_page(BenchStation::Page::loop);
    const auto type = [&](const char* name, const char* text) {
        auto* edit = w.findChild<QLineEdit*>(QLatin1String(name));
        edit->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, QLatin1String(text));
        QTest::keyClick(edit, Qt::Key_Return);
    };
    for (const auto& [name, text] : {std::pair("now.hour", "12:20"), std::pair("now.store", "31"), std::pair("now.litres", "10"), std::pair("now.seconds", "52"), std::pair("now.supply", "33"), std::pair("now.return", "61")})
        type(name, text);
    for (const auto& [name, answer] : {std::pair("pump.hum", 2), std::pair("pump.shaft", 2)}) {
        auto* box = w.findChild<QComboBox*>(QLatin1String(name));
        box->setCurrentIndex(answer);
        emit box->activated(answer);
    }
    shot(w, to + "bench-loop.png");
    station->show_page(BenchStation::Page::drills);
    w.findChild<QListWidget*>(QStringLiteral("drillCalls"))->setCurrentRow(4);
    for (const char* name : {"beginDrill", "act.display", "act.listen", "act.ohms"})
        w.findChild<QPushButton*>(QLatin1String(name))->click();
    w.findChild<QListWidget*>(QStringLiteral("drillSeen"))->item(1)->setCheckState(Qt::Checked);
    w.findChild<QPushButton*>(QStringLiteral("sayDiagnosis"))->click();
    const auto* debrief = w.findChild<QLabel*>(QStringLiteral("drillDebrief"));
    const bool told = QTest::qWaitFor([&] { return debrief->text().contains(QStringLiteral("It was")); }, 60000);
    shot(w, to + "bench-drills.png");
    station->show_page(BenchStation::Page::rig);
    return told;
}

// A start looked for by warming, the wires where the procedure put them.
// A stand-in whose start somebody set too high, half a minute after it was joined, about to be written to.
bool wire_page(MainWindow& w, const QString& to)
{
    w.findChild<BenchStation*>()->show_page(BenchStation::Page::wire);
    auto& page = *w.findChild<WirePage*>();
    w.findChild<QPushButton*>(QStringLiteral("startStandIn"))->click();
    if (!QTest::qWaitFor([&] { return page.link().state() == WireLink::State::joined; }, 10000))
        return false;
    page.card().stand_in().say(QStringLiteral("fault start_high"));
    page.card().stand_in().say(QStringLiteral("speed 60"));
    QTest::qWait(1000);
    w.findChild<QPushButton*>(QStringLiteral("wireAgain"))->click();
    constexpr int recorded_ms = 30000;
    QTest::qWait(recorded_ms);
    w.findChild<QCheckBox*>(QStringLiteral("wireArm"))->click();
    for (QCheckBox* tick : w.findChildren<QCheckBox*>(QRegularExpression(QStringLiteral("^wire/rule/.*/on_k$"))))
        tick->setChecked(true);
    w.findChild<QPushButton*>(QStringLiteral("wireWrite"))->click();
    shot(w, to + "bench-wire.png");
    page.link().leave();
    return QTest::qWaitFor([&] { return page.link().state() == WireLink::State::apart; }, 10000);
}

bool bench_page(MainWindow& w, const QString& to)
{
    w.session().document().choose_variant(1);
    w.show_station(station_index("bench"));
    BenchModel& bench = w.findChild<BenchStation*>()->model();
    if (!settled(w) || !QTest::qWaitFor([&] { return bench.rig() != nullptr; }, 10000))
        return false;
    const auto& all = bench.procedures();
    bench.begin(**std::find_if(all.begin(), all.end(), [](const Procedure* p) { return p->name == "start-by-warming"; }));
    const auto in_the_second_pass = [&] { return bench.run()->step() == 1 && !bench.run()->result().steps[1].captured.empty() && bench.run()->waits_for().find("runs") != std::string::npos; };
    bench.set_speed(600);
    (void)QTest::qWaitFor(in_the_second_pass, 30000);
    bench.set_speed(60);
    QTest::qWait(1500);
    bench.set_speed(0);
    shot(w, to + "bench.png");
    bench.leave();
    return bench_sheets(w, to) && wire_page(w, to);
}

// A log of another make, as it would be read.
bool import_page(MainWindow& w, const QString& to)
{
    QFile own(QStringLiteral(VERNAL_SOURCE "/demo/parlour-wash/traces/parlour-12-aug.csv"));
    if (!own.open(QIODevice::ReadOnly))
        return false;
    QString text = QStringLiteral("Dairy logger\n\nDay;Clock;Roof;Tank low;Tank high;Wash pump;Tank pump;Outdoor\n");
    const QStringList lines = QString::fromUtf8(own.readAll()).split(QStringLiteral("\r\n"));
    for (qsizetype i = 1; i + 1 < lines.size(); ++i) {
        QStringList cells = lines[i].split(QLatin1Char(','));
        const QString day = cells[0].mid(8, 2) + QLatin1Char('.') + cells[0].mid(5, 2) + QLatin1Char('.') + cells[0].left(4), clock = cells[0].mid(11);
        cells.replace(0, clock);
        for (qsizetype k = 1; k < cells.size(); ++k)
            cells[k] = k == 4 || k == 5 ? (cells[k] == QLatin1String("1") ? QStringLiteral("run") : QStringLiteral("rest")) : QString(cells[k]).replace(QLatin1Char('.'), QLatin1Char(','));
        text += day + QLatin1Char(';') + (i == 600 ? cells.join(QLatin1Char(';')).replace(QLatin1Char(':'), QLatin1Char('?')) : cells.join(QLatin1Char(';'))) + QLatin1Char('\n');
    }
    QFile strange(QDir::tempPath() + QStringLiteral("/dairy-logger.txt"));
    if (!strange.open(QIODevice::WriteOnly) || strange.write(text.toUtf8()) < 0)
        return false;
    strange.close();
    w.show_station(3);
    w.station<DaysStation>().logs().import_files({strange.fileName()});
    shot(w, to + "import.png");
    w.findChild<QPushButton*>(QStringLiteral("leaveLog"))->click();
    return strange.remove();
}

// The shelf, and the horizon as the calves' roof has it.
bool days(MainWindow& w, const QString& to)
{
    if (!w.open(demo("calf-milk")))
        return false;
    w.session().document().choose_variant(1);
    w.show_station(3);
    if (!settled(w))
        return false;
    auto* horizon = w.findChild<QWidget*>(QStringLiteral("horizonPicture"));
    for (QScrollArea* area : w.findChildren<QScrollArea*>())
        if (horizon && area->isAncestorOf(horizon))
            area->ensureWidgetVisible(horizon, 0, 90);
    shot(w, to + "days.png");
    return horizon != nullptr;
}

// Some that no preset has.
std::vector<LoopAnswers> composed()
{
    std::vector<LoopAnswers> out;
    for (const auto& [preset, given] : std::vector<std::pair<const char*, GivenAnswers>>{
             {"pool", {{"transfer", "exchanger"}, {"exchanger_pumps", "two"}, {"power", "battery"}}},
             {"drainback", {{"transfer", "exchanger"}, {"store", "two-tanks"}}},
             {"dump", {{"store", "two-tanks"}, {"power", "panel"}}},
             {"two-arrays", {{"transfer", "exchanger"}, {"excess", "cooler"}, {"store", "two-tanks"}, {"backup", "element"}}},
             {"drainback", {{"store", "slab"}, {"excess", "house"}}},
             {"direct", {{"fields", "2"}, {"store", "two-tanks"}}},
             {"glycol-coil", {{"backup", "heater-after"}}},
             {"drainback", {{"backup", "heater-after"}, {"circulation", "taps"}}},
             {"glycol-hx", {{"excess", "circulation"}, {"fields", "2"}}},
             {"two-stores", {{"circulation", "taps"}, {"power", "battery"}}},
             {"two-arrays", {{"backup", "heater-after"}}},
             {"", {{"power", "none"}, {"backup", "element"}}}})
        out.push_back(*complete(given, preset));
    return out;
}

// Every preset's drawing at a sunny noon, and some composed ones, on one sheet.
bool every_arrangement(MainWindow& w, const QString& to)
{
    constexpr int across = 4, wide = 480, high = 330, title = 24;
    std::vector<LoopAnswers> all;
    for (const Arrangement& a : presets())
        all.push_back(a.answers);
    for (const LoopAnswers& a : composed())
        all.push_back(a);
    QImage sheet(across * wide, static_cast<int>((all.size() + across - 1) / across) * (high + title), QImage::Format_RGB32);
    sheet.fill(theme().desk);
    QPainter p(&sheet);
    p.setFont(text_font(16, true));
    for (int i = 0; i < static_cast<int>(all.size()); ++i) {
        w.session().document().set_job(new_job(all[static_cast<std::size_t>(i)]), {});
        if (!settled(w))
            return false;
        w.session().set_cursor(13 * 3600.0);
        const QPoint at(i % across * wide, i / across * (high + title));
        p.drawText(QRect(at.x() + 8, at.y(), wide, title), Qt::AlignVCenter, qs(arrangement_of(all[static_cast<std::size_t>(i)]).title));
        const QImage drawing = w.station<LoopStation>().view()->image(2 * wide).scaled(wide - 8, high - 4, Qt::KeepAspectRatio, Qt::SmoothTransformation);
        p.drawImage(at + QPoint(4, title), drawing);
    }
    p.end();
    return sheet.save(to + "arrangements.png");
}

// A page of the logbook, and a list in the midst of being worked.
bool visits(MainWindow& w, const QString& to)
{
    if (!w.open(demo("cheese-room")) || !settled(w))
        return false;
    w.show_station(6);
    shot(w, to + "visits.png");
    w.station<VisitsStation>().begin(Purpose::commissioning);
    auto* list = w.findChild<QListWidget*>(QStringLiteral("listItems"));
    constexpr int some = 12;
    for (int i = 0; i < some; ++i)
        QTest::keyClick(list, Qt::Key_Space);
    shot(w, to + "visits-list.png");
    return true;
}

// Pages of Visits that are opened by a button: a call half way, and a reading that is asked about.
void service_pages(MainWindow& w, const QString& to)
{
    w.show_station(6);
    QTest::mouseClick(w.findChild<QPushButton*>(QStringLiteral("callBack")), Qt::LeftButton);
    QTest::keyClicks(w.findChild<QPlainTextEdit*>(QStringLiteral("callWords")), "the pump never stops and hums at three in the morning");
    QTest::mouseClick(w.findChild<QPushButton*>(QStringLiteral("callNo")), Qt::LeftButton);
    shot(w, to + "call.png");
    w.station<VisitsStation>().begin(Purpose::service);
    auto* line = w.findChild<QLineEdit*>(QStringLiteral("sayLine"));
    QTest::keyClicks(line, "when: 20 June 2026 12:30");
    QTest::keyClick(line, Qt::Key_Return);
    QTest::keyClicks(line, "sun 1550 W/m2");
    QTest::keyClick(line, Qt::Key_Return);
    shot(w, to + "doubt.png");
}

// A year in US units, and the report of an absorber without a pane.
bool year_and_report(MainWindow& w, const QString& to)
{
    w.session().set_units(Units::us());
    w.show_station(3);
    QTest::mouseClick(w.findChild<QPushButton*>(QStringLiteral("showYear")), Qt::LeftButton);
    QTest::mouseClick(w.findChild<QPushButton*>(QStringLiteral("runYear")), Qt::LeftButton);
    const bool ran = QTest::qWaitFor([&] { return w.findChild<QTableWidget*>(QStringLiteral("yearTable"))->isVisible(); }, 120000);
    shot(w, to + "year-us.png");
    w.session().set_units({});
    w.session().document().set_job(new_job(find_preset("pool")->answers), {});
    w.show_station(0);
    shot(w, to + "report.png");
    return ran && w.open(demo("cheese-room")) && settled(w);
}

// Sizes, themes and jobs at the edge of what the window is for: to be looked at, not kept.
bool extremes(MainWindow& w, const QString& to)
{
    service_pages(w, to);
    if (!year_and_report(w, to))
        return false;
    const auto all_at = [&](const char* name, QSize size) {
        w.resize(size);
        for (int i = 0; i < static_cast<int>(vernal::stations().size()); ++i) {
            w.show_station(i);
            shot(w, to + QStringLiteral("%1-%2.png").arg(QLatin1String(name), QLatin1String(vernal::stations()[static_cast<std::size_t>(i)].key)));
        }
    };
    w.session().document().choose_variant(0);
    w.show_findings();
    w.work().show_strip(Strip::Height::lanes);
    w.show_station(2);
    shot(w, to + "findings-open.png");
    w.show_findings(false);
    w.work().show_strip(Strip::Height::normal);
    all_at("least", {1024, 700});
    all_at("wide", {1920, 1080});
    w.resize(1280, 800);
    w.set_glare(true);
    all_at("glare", {1280, 800});
    w.set_glare(false);
    // What no file reader lets through, and a window has to outlast.
    w.session().document().set_job([] {
        Job bare = new_job("direct");
        bare.days.resize(1);
        bare.variants[0].unit.rules.clear();
        bare.variants[0].probes.resize(1);
        return bare;
    }(),
        {});
    all_at("bare", {1280, 800});
    if (!w.open(demo("cheese-room")) || !settled(w))
        return false;
    w.session().document().edit_variant("many", [](Variant& v) {
        v.unit.outputs.resize(1);
        for (int i = 2; i <= 8; ++i)
            v.unit.outputs.push_back({"A" + std::to_string(i), "Output number " + std::to_string(i) + " of this unit", Mode::automatic, 0, Drives::other});
        for (std::size_t i = 0; i < 36; ++i) {
            v.unit.rules.push_back(fresh_rule(v, i % rule_kinds().size()));
            v.unit.rules.back().output = v.unit.outputs[i % 8].key;
        }
        sort_by_priority(v.unit.rules);
        v.name = "a variant whose name says a great deal about what was changed in it";
        v.probes[0].name = "Collector at the far end of the lower field";
    });
    w.show_station(2);
    shot(w, to + "forty.png");
    w.session().document().undo_stack().undo();
    w.session().document().set_job(new_job("drainback"), {});
    w.show_station(2);
    w.session().document().edit_variant("nine", [](Variant& v) {
        for (std::size_t i : {std::size_t(20), std::size_t(22), std::size_t(23), std::size_t(3)})
            if (v.unit.rules.size() < 9)
                v.unit.rules.push_back(fresh_rule(v, i));
        sort_by_priority(v.unit.rules);
    });
    shot(w, to + "nine.png");
    return true;
}

} // namespace

int main(int argc, char** argv)
{
    QApplication app(argc, argv);
    if (argc < 2)
        return 2;
    load_fonts();
    apply_theme(app, false);
    const QString to = QString::fromLocal8Bit(argv[1]) + QLatin1Char('/');
    MainWindow w(Dialogs::usual(), {demo("cheese-room"), QDir::tempPath() + QStringLiteral("/vernal-shots"), false});
    jobs(to);
    w.resize(1280, 800); // whatever the screen of this platform has
    w.show();
    if (!w.open(demo("cheese-room")) || !settled(w))
        return 1;
    if (argc > 2)
        return extremes(w, to) ? 0 : 1;
    stations(w, to);
    const bool good = findings_and_rules(w, to) && bench_page(w, to) && import_page(w, to) && days(w, to) && every_arrangement(w, to) && visits(w, to);
    return good ? 0 : 1;
}
