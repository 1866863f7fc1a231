// The shell: files on a full device, what is dropped, leaving, palette, cursor,
// variants, theme, edits in quick succession.
#include "fixture.h"

#include "app/charts/day_chart.h"
#include "app/charts/thinned.h"
#include "app/shell/job_sheet.h"
#include "app/shell/jobs_page.h"
#include "app/shell/palette.h"
#include "core/plant/hydraulic_state.h"
#include "core/plant/parts.h"
#include "files/disk.h"

#include <QCheckBox>
#include <QComboBox>
#include <QCompleter>
#include <QDateEdit>
#include <QDropEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QMimeData>
#include <QSettings>

#include <csignal>
#include <sys/resource.h>

using namespace vernal;

namespace {

// While it lives, no file of this process grows beyond so many bytes: a device that fills up.
class FullDevice {
public:
    explicit FullDevice(rlim_t bytes)
    {
        std::signal(SIGXFSZ, SIG_IGN);
        ::getrlimit(RLIMIT_FSIZE, &old_);
        const rlimit small{bytes, old_.rlim_max};
        ::setrlimit(RLIMIT_FSIZE, &small);
    }
    ~FullDevice() { ::setrlimit(RLIMIT_FSIZE, &old_); }
    FullDevice(const FullDevice&) = delete;
    FullDevice& operator=(const FullDevice&) = delete;

private:
    rlimit old_{};
};

} // namespace

class ShellTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init() { open_demo(); }
    void cleanup() { window.reset(); }
    void a_full_device_leaves_the_old_file_and_the_work();
    void a_full_device_after_any_number_of_bytes();
    void an_unreadable_job_is_told_and_nothing_is_lost();
    void a_dropped_log_becomes_a_day();
    void a_dropped_job_is_opened();
    void leaving_asks_and_can_be_cancelled();
    void palette_finds_by_words_and_acts();
    void every_new_loop_runs();
    void a_new_loop_is_asked_for();
    void jobs_last_open_are_kept_and_shown();
    void switch_off_is_seen_and_named();
    void cursor_goes_by_key_and_why_follows();
    void variants_are_copied_and_compared();
    void a_thinned_line_is_the_same_to_the_eye();
    void glare_changes_colours_only();
    void edits_in_quick_succession_end_in_the_last();
    void title_and_place_are_one_step();
    void a_place_of_the_list_brings_its_coordinates();

private:
    void drop(const QString& path)
    {
        QMimeData data;
        data.setUrls({QUrl::fromLocalFile(path)});
        QDragEnterEvent enter(QPoint(300, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(window.get(), &enter);
        QVERIFY(enter.isAccepted());
        QDropEvent dropped(QPointF(300, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(window.get(), &dropped);
    }
};

void ShellTest::a_full_device_leaves_the_old_file_and_the_work()
{
    const std::string before = *read_file(job_path.toStdString());
    window->show_station(2);
    type(number(rule_field("on_k")), "9.3");
    const Job edited = job();
    {
        const FullDevice device(2000);
        QVERIFY(!window->save());
    }
    QVERIFY2(told.contains("copy.vrelay"), qPrintable(told));
    QVERIFY(*read_file(job_path.toStdString()) == before);
    QVERIFY(job() == edited);
    QVERIFY(document().unsaved());
    QVERIFY(window->save()); // room again
    QVERIFY(open_job(job_path.toStdString())->variants == edited.variants);
}

void ShellTest::a_full_device_after_any_number_of_bytes()
{
    const std::string before = *read_file(job_path.toStdString());
    for (rlim_t bytes : {0U, 1U, 30U, 511U, 4096U, 8192U, 12000U}) {
        if (bytes >= before.size())
            continue;
        const FullDevice device(bytes);
        QVERIFY2(!window->save(), qPrintable(QString::number(bytes)));
        QVERIFY(*read_file(job_path.toStdString()) == before);
    }
    QCOMPARE(QDir(folder->path()).entryList({"copy*"}, QDir::Files).size(), 1); // no litter beside it
}

void ShellTest::an_unreadable_job_is_told_and_nothing_is_lost()
{
    const Job before = job();
    const QString path = folder->filePath("odd.json");
    QVERIFY(write_file_atomically(path.toStdString(), R"({"format": "vernal-relay-job", "version": 1, "variants": 7})"));
    QVERIFY(!window->open(path));
    QVERIFY2(told.contains("odd.json"), qPrintable(told));
    QVERIFY(job() == before);
    QVERIFY(!window->open(folder->filePath("missing.vrelay")));
    QVERIFY(told.contains("missing.vrelay"));
    QVERIFY(job() == before);
}

void ShellTest::a_dropped_log_becomes_a_day()
{
    const std::size_t days = job().days.size();
    drop(QStringLiteral(VERNAL_DEMO "/traces/cheese-room-7-may.csv"));
    QCOMPARE(job().days.size(), days + 1);
    QCOMPARE(document().day().kind, DayKind::recorded);
    document().undo_stack().undo();
    QCOMPARE(job().days.size(), days);
}

void ShellTest::a_dropped_job_is_opened()
{
    Job other = new_job("direct");
    other.title = "Another";
    const QString path = folder->filePath("another.vrelay");
    QVERIFY(save_job(other, path.toStdString()));
    drop(path);
    QCOMPARE(job().title, std::string("Another"));
    QCOMPARE(document().undo_stack().count(), 0);
}

void ShellTest::leaving_asks_and_can_be_cancelled()
{
    window->show_station(2);
    type(number(rule_field("on_k")), "9.9");
    const Job edited = job();
    unsaved_answer = Dialogs::Unsaved::cancel;
    QVERIFY(!window->open(QStringLiteral(VERNAL_DEMO "/job.json")));
    QVERIFY(job() == edited);
    QVERIFY(!window->close());
    unsaved_answer = Dialogs::Unsaved::save;
    QVERIFY(window->close());
    QCOMPARE(open_job(job_path.toStdString())->variants, edited.variants);
}

void ShellTest::palette_finds_by_words_and_acts()
{
    QTest::keyClick(window.get(), Qt::Key_K, Qt::ControlModifier);
    auto* palette = find<Palette>("palette");
    QVERIFY(palette);
    auto* list = palette->findChild<QListWidget*>();
    const int all = list->count();
    const std::string wanted = job().days.back().name;
    QVERIFY(all > 10);
    QTest::keyClicks(palette->findChild<QLineEdit*>(), "day " + QString::fromStdString(wanted).left(6).toLower());
    QVERIFY(list->count() < all && list->count() > 0);
    QTest::keyClick(palette->findChild<QLineEdit*>(), Qt::Key_Down);
    QTest::keyClick(palette->findChild<QLineEdit*>(), Qt::Key_Up);
    QTest::keyClick(palette->findChild<QLineEdit*>(), Qt::Key_Return);
    QCOMPARE(document().day().name, wanted);
}

void ShellTest::every_new_loop_runs()
{
    JobsPage page({{"/somewhere/old.vrelay"}}, {}, VERNAL_DEMO "/job.json");
    QSignalSpy wanted(&page, &JobsPage::new_wanted);
    for (QPushButton* b : page.findChildren<QPushButton*>("newLoop"))
        b->click();
    QCOMPARE(wanted.size(), static_cast<qsizetype>(presets().size()));
    for (const auto& one : wanted) {
        const auto answers = one[0].value<LoopAnswers>();
        document().set_job(new_job(answers), {});
        settle();
        QVERIFY2(window->session().outcome()->figures(), answers_text(answers).c_str());
        QVERIFY(window->session().outcome()->figures()->heat.to_store > 0);
    }
}

// The drawing grows with the answers; what could not go with one is answered otherwise, and why is said.
void ShellTest::a_new_loop_is_asked_for()
{
    JobsPage page({}, {}, {});
    QSignalSpy wanted(&page, &JobsPage::new_wanted);
    page.findChild<QPushButton*>("askedLoop")->click();
    auto* drawing = page.findChild<QLabel*>("askedDrawing");
    const QImage before = drawing->pixmap().toImage();
    auto* store = page.findChild<QComboBox*>("answer.store");
    store->setCurrentIndex(static_cast<int>(Store::pool));
    emit store->activated(static_cast<int>(Store::pool));
    QVERIFY(drawing->pixmap().toImage() != before);
    QVERIFY2(page.findChild<QLabel*>("alsoChanged")->text().contains("coil lies in a tank"), qPrintable(page.findChild<QLabel*>("alsoChanged")->text()));
    page.findChild<QPushButton*>("beginLoop")->click();
    QCOMPARE(wanted.size(), 1);
    const auto answers = wanted[0][0].value<LoopAnswers>();
    QCOMPARE(answers.store, Store::pool);
    QVERIFY(cannot_combine(answers).empty());
}

void ShellTest::jobs_last_open_are_kept_and_shown()
{
    QSettings settings(folder->filePath("settings.ini"), QSettings::IniFormat);
    for (int i = 0; i < 12; ++i)
        keep_known_job(settings, {QStringLiteral("/nowhere/job %1.vrelay").arg(i), QStringLiteral("Loop %1").arg(i)});
    keep_known_job(settings, {job_path, "Wash house", "Somewhere", "drainback", QDateTime({2026, 6, 18}, {16, 40}), 0, "A rule is out of action"});
    keep_known_job(settings, {job_path, "Wash house", "Somewhere", "drainback", QDateTime({2026, 6, 19}, {8, 0}), 0, "A rule is out of action"});
    settings.setValue("recent", settings.value("recent").toStringList() << "/nowhere/old.vrelay"); // as an older program left it
    const QList<KnownJob> known = read_known_jobs(settings);
    QVERIFY(known.size() >= 8 && known.size() <= 9);
    QCOMPARE(known[0].path, job_path);
    QVERIFY(known[1].path != job_path);
    QCOMPARE(known[0].site, QStringLiteral("Somewhere"));
    QCOMPARE(known[0].opened, QDateTime({2026, 6, 19}, {8, 0}));
    QCOMPARE(known[0].severity, 0);
    JobsPage page(known, {}, {});
    QSignalSpy wanted(&page, &JobsPage::open_wanted);
    const auto tiles = page.findChildren<JobTile*>("recent");
    QCOMPARE(tiles.size(), known.size());
    QVERIFY(tiles[0]->isEnabled() && !tiles[1]->isEnabled()); // the others are not there any more
    QVERIFY(tiles[0]->accessibleName().contains("Wash house") && tiles[0]->accessibleDescription().contains("out of action"));
    QVERIFY(tiles.last()->accessibleName().contains("old"));
    tiles[0]->click();
    QCOMPARE(wanted[0][0].toString(), job_path);
}

void ShellTest::switch_off_is_seen_and_named()
{
    document().edit_variant("switch", [](Variant& v) { v.unit.outputs[0].mode = Mode::off; });
    settle();
    QCOMPARE(starts(), 0);
    window->session().set_cursor(12 * 3600);
    QVERIFY2(find<QLabel>("why")->text().contains("OFF"), qPrintable(find<QLabel>("why")->text()));
    document().edit_variant("switch", [](Variant& v) { v.unit.outputs[0].mode = Mode::on; });
    settle();
    QCOMPARE(window->session().outcome()->figures()->pumps[0].run_time_s, 86400.0);
}

void ShellTest::cursor_goes_by_key_and_why_follows()
{
    DayChart* chart = window->strip().chart();
    window->session().set_cursor(3600);
    const QString night = find<QLabel>("why")->text();
    QTest::mouseClick(chart, Qt::LeftButton, {}, QPoint(chart->width() / 2, chart->height() / 2));
    QVERIFY(window->session().cursor_s() > 8 * 3600);
    QVERIFY(find<QLabel>("why")->text() != night);
    const double at = window->session().cursor_s();
    QTest::keyClick(chart, Qt::Key_Right, Qt::ShiftModifier);
    QCOMPARE(window->session().cursor_s(), at + 60);
    QTest::keyClick(chart, Qt::Key_Left, Qt::ControlModifier);
    QCOMPARE(window->session().cursor_s(), at - 540);
    // From one switching point to the next, and what stands between them stays.
    const auto& o = *window->session().outcome();
    QTest::keyClick(chart, Qt::Key_Right);
    const double switched = window->session().cursor_s();
    QVERIFY(switched > at - 540 && o.switches_at(o.at(switched)));
    QTest::keyClick(chart, Qt::Key_Left);
    const double before = window->session().cursor_s();
    QVERIFY(before < at && o.switches_at(o.at(before)));
    for (std::size_t i = o.at(before) + 1; i < o.at(switched); ++i)
        QVERIFY(!o.switches_at(i));
    // The same time stands in the one control, where it is typed as well.
    auto* time = find<QLineEdit>("cursorTime");
    QCOMPARE(time->text(), QString::fromStdString(clock_text(before)));
    QTest::keyClick(window.get(), Qt::Key_T, Qt::ControlModifier);
    QTest::keyClicks(time, "15:04");
    QTest::keyClick(time, Qt::Key_Return);
    QCOMPARE(window->session().cursor_s(), 15 * 3600.0 + 240);
    QTest::keyClick(time, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(time, "noon");
    QTest::keyClick(time, Qt::Key_Return);
    QCOMPARE(time->text(), QStringLiteral("15:04"));
}

void ShellTest::variants_are_copied_and_compared()
{
    document().choose_variant(0);
    settle();
    const std::size_t variants = job().variants.size();
    document().edit("copy", [](Job& j) {
        j.variants.push_back(j.variants[0]);
        j.variants.back().name = "wider";
    });
    document().choose_baseline(0);
    document().choose_variant(variants);
    document().edit_variant("wider", [](Variant& v) { std::get<Differential>(v.unit.rules.back().body).on = TempDiff::kelvin(15); });
    settle();
    QVERIFY(QTest::qWaitFor([&] { return window->session().verdict().baseline_name == job().variants[0].name; }, 10000));
    QVERIFY(find<QLabel>("good")->text().contains(QString::fromStdString(job().variants[0].name)));
}

void ShellTest::a_thinned_line_is_the_same_to_the_eye()
{
    QVector<double> x, y;
    double at = 20;
    for (int i = 0; i < 4000; ++i) {
        x.append(i % 7 == 0 && i > 0 ? x.back() : 10.0 * i); // two at one instant: a jump
        at += 0.3 * std::sin(i * 0.01) + (i % 900 == 450 ? 15 : 0);
        y.append(i == 2000 ? NAN : at);
    }
    for (double tolerance : {0.0, 0.05, 1.0}) {
        const Polyline few = thinned(x, y, tolerance);
        QCOMPARE(few.x.front(), x.front());
        QCOMPARE(few.x.back(), x.back());
        QVERIFY(tolerance == 0 || few.x.size() < x.size() / 2);
        qsizetype k = 0;
        for (qsizetype i = 0; i < x.size(); ++i) {
            while (k + 2 < few.x.size() && few.x[k + 1] < x[i])
                ++k;
            if (std::isnan(y[i])) {
                QVERIFY2(std::any_of(few.y.begin(), few.y.end(), [](double v) { return std::isnan(v); }), "a gap stays a gap");
                continue;
            }
            // Within the tolerance of the line, or of one of the ends of a jump.
            double off = INFINITY;
            for (qsizetype j = k; j < std::min(few.x.size(), k + 4); ++j) {
                if (few.x[j] == x[i])
                    off = std::min(off, std::fabs(few.y[j] - y[i]));
                if (j + 1 < few.x.size() && few.x[j] < x[i] && x[i] < few.x[j + 1])
                    off = std::min(off, std::fabs(std::lerp(few.y[j], few.y[j + 1], (x[i] - few.x[j]) / (few.x[j + 1] - few.x[j])) - y[i]));
            }
            QVERIFY2(off <= tolerance + 1e-9, qPrintable(QStringLiteral("point %1 is %2 off").arg(i).arg(off)));
        }
    }
}

void ShellTest::glare_changes_colours_only()
{
    const Job before = job();
    const QImage paper = window->grab().toImage();
    window->set_glare(true);
    settle();
    const QImage glare = window->grab().toImage();
    window->set_glare(false);
    QCOMPARE(glare.size(), paper.size());
    QVERIFY(glare != paper);
    QVERIFY(job() == before);
}

// The window may be busy; what stands at the end is the last edit, not an older run.
void ShellTest::edits_in_quick_succession_end_in_the_last()
{
    for (int i = 0; i < 40; ++i) {
        document().edit_variant(
            "quick", [i](Variant& v) { std::get<Differential>(v.unit.rules.back().body).on = TempDiff::kelvin(6 + 0.1 * i); }, "quick");
        if (i % 7 == 0)
            laid_out();
    }
    settle();
    QVERIFY(std::fabs(std::get<Differential>(window->session().outcome()->variant.unit.rules.back().body).on.in_kelvin() - 9.9) < 1e-9);
    QCOMPARE(document().undo_stack().count(), 1);
    laid_out();
    QVERIFY(window->session().outcome()->variant == document().variant());
}

void ShellTest::title_and_place_are_one_step()
{
    const Job before = job();
    QTest::keyClick(window.get(), Qt::Key_F2);
    laid_out();
    auto* sheet = find<JobSheet>("jobSheet");
    QVERIFY(sheet && sheet->isVisible());
    find<QLineEdit>("jobTitle")->setText("Whey room");
    find<QLineEdit>("jobCustomer")->setText("Quillback Meadow Creamery");
    find<QLineEdit>("jobPlace")->setText("Upper field");
    NumberEdit* altitude = sheet->findChild<NumberEdit*>("place.altitude_m");
    const auto type = [altitude](const char* text) {
        altitude->setFocus();
        altitude->selectAll();
        QTest::keyClicks(altitude, text);
    };
    type("9999999");
    click("Take this");
    QVERIFY2(sheet->isVisible() && job() == before, "what cannot be is not taken");
    type("812");
    click("Take this");
    laid_out();
    QCOMPARE(QString::fromStdString(job().title), QString("Whey room"));
    QCOMPARE(QString::fromStdString(job().site.customer), QString("Quillback Meadow Creamery"));
    QCOMPARE(QString::fromStdString(job().site.name), QString("Upper field"));
    QCOMPARE(job().site.place.altitude_m, 812.0);
    document().undo_stack().undo();
    QVERIFY(job() == before);
    for (QPushButton* b : window->findChildren<QPushButton*>())
        if (b->property("chip").toString() == QLatin1String("site"))
            b->click();
    laid_out();
    click("Leave it as it was");
    QVERIFY(job() == before);
}

void ShellTest::a_place_of_the_list_brings_its_coordinates()
{
    QTest::keyClick(window.get(), Qt::Key_F2);
    laid_out();
    auto* place = find<QLineEdit>("jobPlace");
    place->setFocus();
    place->selectAll();
    QTest::keyClicks(place, "ulm, ger");
    QCOMPARE(place->completer()->completionModel()->rowCount(), 1);
    emit place->completer()->activated(place->completer()->completionModel()->index(0, 0).data().toString());
    laid_out();
    QCOMPARE(place->text(), QString("Ulm"));
    QCOMPARE(find<QComboBox>("jobZone")->currentText(), QString("Europe/Berlin"));
    click("Take this");
    QVERIFY(std::fabs(job().site.place.latitude_deg - 48.4) < 0.05);
    QCOMPARE(QString::fromStdString(job().site.place.zone), QString("Europe/Berlin"));
}

int main(int argc, char** argv) { return run_window_test<ShellTest>(argc, argv); }
#include "shell_test.moc"
