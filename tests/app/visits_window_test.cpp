// The logbook in the window, worked with keys: a yearly service, commissioning of two loops, a
// call-back, photos, reports, a folder of jobs, two computers.
#include "app/print/paper_print.h"
#include "app/shell/customer_list.h"
#include "app/visits/call_page.h"
#include "app/visits/cost_page.h"
#include "app/visits/list_page.h"
#include "app/visits/visit_edits.h"
#include "app/visits/visit_page.h"
#include "app/visits/visits_station.h"
#include "core/visit/check_list.h"
#include "core/visit/measured.h"
#include "files/disk.h"
#include "fixture.h"

#include <QClipboard>
#include <QElapsedTimer>
#include <QImageReader>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QPlainTextEdit>
#include <QProcess>

using namespace vernal;

class VisitsWindowTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init()
    {
        open_demo();
        fresh("glycol-coil");
    }
    void an_empty_logbook_says_what_to_do();
    void a_yearly_service_is_dictated_by_keyboard();
    void what_is_not_understood_stays_in_the_line();
    void a_line_is_changed_and_removed();
    void settings_found_and_left_stand_as_sentences();
    void a_closed_visit_is_amended_not_changed();
    void a_draft_is_deleted_and_brought_back();
    void two_loops_are_commissioned_over_days();
    void a_survey_becomes_the_loop();
    void a_list_of_ones_own_is_kept_in_the_job();
    void the_first_day_is_foretold();
    void a_call_becomes_a_visit();
    void a_reading_that_no_sky_gives_is_asked_about();
    void seasons_are_told_beside_the_page();
    void photos_are_turned_scaled_and_stripped();
    void a_large_photo_goes_in_without_a_stall();
    void papers_are_written_with_pages_and_pictures();
    void costs_are_worked_out();
    void what_is_due_goes_into_the_visit_and_the_calendar();
    void a_folder_is_the_customer_list();
    void two_computers_lose_nothing();

private:
    void fresh(const char* preset)
    {
        document().set_job(new_job(preset), {});
        settle();
        window->show_station(6);
        laid_out();
    }
    VisitsStation& visits() { return window->station<VisitsStation>(); }
    const Visit& last() { return job().logbook.visits.back(); }
    QString page() { return find<QTextBrowser>("visitPage")->toPlainText(); }
    void say(const QString& words)
    {
        auto* line = find<QLineEdit>("sayLine");
        line->setFocus();
        QTest::keyClicks(line, words);
        QTest::keyClick(line, Qt::Key_Return);
        laid_out();
    }
    void follow(const QString& link)
    {
        emit find<QTextBrowser>("visitPage")->anchorClicked(QUrl(link));
        laid_out();
    }
    // The row of the list's item with this id is chosen by keys.
    void to_item(const char* id)
    {
        auto* list = find<QListWidget>("listItems");
        list->setFocus();
        const auto items = items_of(job(), variant_of(job(), *find_visit(job(), visits().shown())), shipped_check_lists()[shown_list()], find_visit(job(), visits().shown())->when);
        const auto it = std::find_if(items.begin(), items.end(), [&](const ItemStands& s) { return s.item->id == id; });
        QVERIFY2(it != items.end(), id);
        for (int row = 0; row < list->count(); ++row)
            if (list->item(row)->data(Qt::UserRole).toInt() == it - items.begin())
                list->setCurrentRow(row);
        laid_out();
    }
    std::size_t shown_list() { return find_visit(job(), visits().shown())->purpose == Purpose::survey ? 0 : find_visit(job(), visits().shown())->purpose == Purpose::commissioning ? 1
                                                                                                                                                                                   : 2; }
    static QString run(const QString& program, const QStringList& arguments)
    {
        QProcess p;
        p.start(program, arguments);
        if (!p.waitForFinished(20000))
            qWarning("%s does not answer", qPrintable(program));
        return QString::fromUtf8(p.readAllStandardOutput());
    }
    QString photo(int width, int height)
    {
        QImage image(width, height, QImage::Format_RGB32);
        image.fill(QColor(200, 180, 150));
        for (int i = 0; i < std::min(width, height); ++i)
            image.setPixel(i, i, qRgb(20, 80, 60));
        const QString path = folder->filePath(QStringLiteral("photo-%1.jpg").arg(width));
        image.save(path, "JPEG", 90);
        return path;
    }
    void take_photo(const QString& path)
    {
        visits().page().photos().take_files({path});
        QVERIFY(QTest::qWaitFor([&] { return !visits().page().photos().runs(); }, 20000));
        laid_out();
    }
};

void VisitsWindowTest::an_empty_logbook_says_what_to_do()
{
    QVERIFY(find<QPushButton>("firstVisit")->isVisible());
    QVERIFY(!find<QPushButton>("closeVisit")->isEnabled());
    QTest::mouseClick(find<QPushButton>("firstVisit"), Qt::LeftButton);
    laid_out();
    QCOMPARE(job().logbook.visits.size(), std::size_t(1));
    QVERIFY(find<QLineEdit>("sayLine")->hasFocus());
    QVERIFY(page().contains("Nothing is read yet"));
}

void VisitsWindowTest::a_yearly_service_is_dictated_by_keyboard()
{
    visits().begin(Purpose::service);
    say("when: 2026-06-18T11:30"); // whatever hour the test is run at
    for (const char* line : {"persons: A. Fitter", "weather: sun and cloud", "S1 1106 ohm", "S1 26.8 C", "S1 S2 0.2 K, by one cup", "bucket 8 L 71 s 70 s", "rise 7 K, by both gauges", "pressure 1.82 bar at 16 C", "P1 9140 h", "P1 31200 starts", "fault: Strainer full | at pump", "done: Strainer cleaned | 20 min | does strainer", "done: New seal | 45 min | part Seal | cost 12.5", "next: look at the pitch | by 2027-10-01"})
        say(QString::fromUtf8(line));
    const Visit& v = last();
    QCOMPARE(v.readings.size(), std::size_t(8));
    QCOMPARE(v.work.size(), std::size_t(2));
    QCOMPARE(qs(v.persons), QStringLiteral("A. Fitter"));
    const QString text = page();
    for (const char* shown : {"1106", "6.8", "A. Fitter", "Strainer full", "12.50", "by 1 Oct 2027", "by its curve"})
        QVERIFY2(text.contains(QString::fromUtf8(shown)), shown);
    // The list of the service, item by item.
    QTest::mouseClick(find<QPushButton>("visitLists"), Qt::LeftButton);
    laid_out();
    to_item("strainer");
    QTest::keyClick(find<QListWidget>("listItems"), Qt::Key_Space);
    laid_out();
    QCOMPARE(last().ticks.size(), std::size_t(1));
    to_item("pressure");
    QVERIFY(find<QLabel>("itemMeasured")->text().contains("within"));
    QVERIFY(find<QLabel>("itemCaution")->text().contains("cool"));
    QTest::keyClick(find<QListWidget>("listItems"), Qt::Key_Escape);
    laid_out();
    QTest::mouseClick(find<QPushButton>("closeVisit"), Qt::LeftButton);
    laid_out();
    QVERIFY(last().closed);
    QVERIFY(!find<QLineEdit>("sayLine")->isVisible());
    // Each line was an edit: all of it goes back, one by one.
    for (int i = 0; i < 18; ++i)
        document().undo_stack().undo();
    QVERIFY(job().logbook.visits.empty());
}

void VisitsWindowTest::what_is_not_understood_stays_in_the_line()
{
    visits().begin(Purpose::service);
    say("S7 1106 ohm");
    QCOMPARE(find<QLineEdit>("sayLine")->text(), QStringLiteral("S7 1106 ohm"));
    QVERIFY(find<QLabel>("lineSaid")->text().startsWith(QStringLiteral("▲")));
    QVERIFY(last().readings.empty());
    QTest::keyClick(find<QLineEdit>("sayLine"), Qt::Key_Escape);
    QVERIFY(find<QLineEdit>("sayLine")->text().isEmpty());
}

void VisitsWindowTest::a_line_is_changed_and_removed()
{
    visits().begin(Purpose::service);
    say("when: 2026-06-18T11:30"); // whatever hour the test is run at
    say("flow 6.8 L/min");
    say("note: first");
    follow("say:rise");
    QCOMPARE(find<QLineEdit>("sayLine")->text(), QStringLiteral("rise "));
    QTest::keyClicks(find<QLineEdit>("sayLine"), "7 K");
    QTest::keyClick(find<QLineEdit>("sayLine"), Qt::Key_Return);
    QCOMPARE(last().readings.size(), std::size_t(2));
    follow("line:2");
    auto* line = find<QLineEdit>("sayLine");
    QVERIFY(line->text().startsWith("flow"));
    line->selectAll();
    QTest::keyClicks(line, "flow 7 L/min");
    QTest::keyClick(line, Qt::Key_Return);
    laid_out();
    QVERIFY(std::fabs(last().readings[0].value - 7e-3 / 60) < 1e-12);
    follow("line:2");
    QTest::mouseClick(find<QPushButton>("removeLine"), Qt::LeftButton);
    QCOMPARE(last().readings.size(), std::size_t(1));
    QCOMPARE(last().notes, std::string("first"));
    document().undo_stack().undo();
    QCOMPARE(last().readings.size(), std::size_t(2));
}

void VisitsWindowTest::settings_found_and_left_stand_as_sentences()
{
    visits().begin(Purpose::service);
    QTest::mouseClick(find<QPushButton>("takeFoundSettings"), Qt::LeftButton);
    document().edit_variant("start", [](Variant& v) { std::get<Differential>(v.unit.rules.back().body).on = TempDiff::kelvin(9.4); });
    settle();
    QTest::mouseClick(find<QPushButton>("takeLeftSettings"), Qt::LeftButton);
    laid_out();
    QVERIFY(page().contains("9.4"));
    QVERIFY(page().contains("lines as they were") || page().contains("line as it was"));
    document().edit_variant("start", [](Variant& v) { std::get<Differential>(v.unit.rules.back().body).on = TempDiff::kelvin(11); });
    settle();
    QCOMPARE(std::get<Differential>(last().left[0].unit.rules.back().body).on.in_kelvin(), 9.4);
}

void VisitsWindowTest::a_closed_visit_is_amended_not_changed()
{
    visits().begin(Purpose::service);
    say("flow 68 L/min");
    QTest::mouseClick(find<QPushButton>("closeVisit"), Qt::LeftButton);
    QVERIFY2(told.contains("who was there"), qPrintable(told));
    QVERIFY(!last().closed);
    find<QLineEdit>("sayLine")->clear();
    say("persons: A. Fitter");
    QTest::mouseClick(find<QPushButton>("closeVisit"), Qt::LeftButton);
    laid_out();
    QVERIFY(last().closed);
    // No way round: whatever edits the document, the page stays.
    const std::string id = last().id;
    told.clear();
    change_visit(document(), id, "x", [](Visit& v) { v.notes = "sly"; });
    QVERIFY(told.contains("amended, not changed"));
    delete_draft(document(), id);
    QCOMPARE(job().logbook.visits.size(), std::size_t(1));
    QVERIFY(last().notes.empty());
    visits().page().begin_amending();
    laid_out();
    QTest::keyClicks(find<QLineEdit>("amendWhat"), "flow 6.8 L/min");
    QTest::keyClick(find<QLineEdit>("amendBy"), Qt::Key_Return);
    QVERIFY2(told.contains("reason"), qPrintable(told));
    QTest::keyClicks(find<QLineEdit>("amendReason"), "the point was missed");
    QTest::keyClick(find<QLineEdit>("amendBy"), Qt::Key_Return);
    laid_out();
    QCOMPARE(last().amendments.size(), std::size_t(1));
    QVERIFY(std::fabs(valid_readings(last())[0].value - 6.8e-3 / 60) < 1e-12);
    QVERIFY(page().contains("the point was missed"));
}

void VisitsWindowTest::a_draft_is_deleted_and_brought_back()
{
    visits().begin(Purpose::other);
    say("note: gone");
    delete_draft(document(), visits().shown());
    laid_out();
    QVERIFY(job().logbook.visits.empty());
    QVERIFY(find<QPushButton>("firstVisit")->isVisible());
    document().undo_stack().undo();
    laid_out();
    QVERIFY(page().contains("gone"));
}

void VisitsWindowTest::two_loops_are_commissioned_over_days()
{
    for (const char* preset : {"glycol-coil", "drainback"}) {
        fresh(preset);
        visits().begin(Purpose::commissioning);
        laid_out();
        auto* list = find<QListWidget>("listItems");
        QVERIFY(list->isVisible());
        const auto all = [&] { return items_of(job(), job().variants.front(), shipped_check_lists()[1]); };
        const std::size_t items = all().size();
        QVERIFY(items > 20);
        // The first day: all of mounting and wiring, item by item with the space bar.
        list->setFocus();
        for (std::size_t i = 0; i < items / 2; ++i) {
            QTest::keyClick(list, Qt::Key_Space);
            laid_out();
        }
        const std::size_t first_day = open_items(all());
        QCOMPARE(first_day, items - items / 2);
        // The second day is another visit; the list goes on where it was.
        document().edit("day", [](Job& j) { j.logbook.visits.back().when = QDate::currentDate().addDays(-1).toString(Qt::ISODate).toStdString() + "T08:00"; });
        visits().begin(Purpose::commissioning);
        laid_out();
        QCOMPARE(open_items(all()), first_day);
        // What is measured ticks nothing; without a reason nothing is left out.
        const bool glycol = std::string(preset) == "glycol-coil";
        to_item(glycol ? "cold-pressure" : "first-fill");
        auto* measure = find<QLineEdit>("itemMeasure");
        QTest::keyClicks(measure, glycol ? "1.8 bar at 15 C" : "60 s");
        QTest::keyClick(measure, Qt::Key_Return);
        laid_out();
        QCOMPARE(last().readings.size(), std::size_t(1));
        QCOMPARE(open_items(all()), first_day);
        to_item("tap");
        QTest::mouseClick(find<QPushButton>("itemNotApplicable"), Qt::LeftButton);
        QCOMPARE(open_items(all()), first_day);
        QTest::keyClicks(find<QLineEdit>("itemWords"), "no taps yet");
        QTest::mouseClick(find<QPushButton>("itemNotApplicable"), Qt::LeftButton);
        laid_out();
        QCOMPARE(open_items(all()), first_day - 1);
        // A procedure proves its item, and a failure opens it again.
        BenchRecord b;
        b.procedure = "outputs-by-hand";
        b.title = "Outputs by hand";
        b.when = now_moment().toStdString();
        b.verdict = StepVerdict::passed;
        document().edit("bench", [&](Job& j) { j.bench.push_back(b); });
        laid_out();
        const auto after = all();
        QVERIFY(std::any_of(after.begin(), after.end(), [](const ItemStands& s) { return s.item->id == "outputs" && s.tick == Tick::proved; }));
        // The rest.
        list->setFocus();
        for (int row = 0; row < list->count(); ++row) {
            list->setCurrentRow(row);
            if (find<QPushButton>("itemDone")->isEnabled() && (list->item(row)->flags() & Qt::ItemIsSelectable))
                QTest::keyClick(list, Qt::Key_Space);
            laid_out();
        }
        QVERIFY(open_items(all()) <= 1);
        QVERIFY(find<QLabel>("listOpen")->text().contains("open"));
        const QString pdf = folder->filePath(QString::fromUtf8(preset) + ".pdf");
        QVERIFY(visits().write_report("commissioning", pdf, QPageSize::A4));
        const QString text = run("pdftotext", {"-layout", pdf, "-"});
        QVERIFY2(text.contains("no taps yet"), qPrintable(text));
        QVERIFY(text.contains("proved by its procedure"));
    }
}

void VisitsWindowTest::a_survey_becomes_the_loop()
{
    visits().begin(Purpose::survey);
    laid_out();
    to_item("return-length");
    auto* value = find<QLineEdit>("itemSetting");
    QVERIFY(value->isVisible());
    value->selectAll();
    QTest::keyClicks(value, "17.5 m");
    QTest::keyClick(value, Qt::Key_Return);
    laid_out();
    QCOMPARE(job().variants.front().loop.back.length_m, 17.5);
    QCOMPARE(last().ticks.size(), std::size_t(1));
    to_item("tilt");
    value->selectAll();
    QTest::keyClicks(value, "steep");
    QTest::keyClick(value, Qt::Key_Return);
    QVERIFY(find<QLabel>("itemSaid")->text().startsWith(QStringLiteral("▲")));
    document().undo_stack().undo();
    QVERIFY(job().variants.front().loop.back.length_m != 17.5);
}

void VisitsWindowTest::a_list_of_ones_own_is_kept_in_the_job()
{
    visits().begin(Purpose::commissioning);
    laid_out();
    log_answer = folder->filePath("own.md");
    QVERIFY(write_file_atomically(log_answer.toStdString(), "no list"));
    QTest::mouseClick(find<QPushButton>("ownList"), Qt::LeftButton);
    QVERIFY2(told.contains("line 1"), qPrintable(told));
    QVERIFY(write_file_atomically(log_answer.toStdString(), "---\nname: commissioning\ntitle: As our house does it\npurpose: commissioning\n---\n\n## Sign the van in\n\n- id: van\n"));
    QTest::mouseClick(find<QPushButton>("ownList"), Qt::LeftButton);
    laid_out();
    QVERIFY(check_lists(job()).front().title == "As our house does it");
    visits().show_lists();
    visits().show_page();
    visits().show_lists();
    laid_out();
    QCOMPARE(find<QListWidget>("listItems")->count(), 1);
}

void VisitsWindowTest::the_first_day_is_foretold()
{
    visits().begin(Purpose::commissioning);
    visits().show_page();
    auto* more = find<QPushButton>("visitMore");
    emit more->menu()->aboutToShow();
    for (QAction* a : more->menu()->actions())
        if (a->text().contains("Foretell"))
            a->trigger();
    laid_out();
    QVERIFY(!last().first_day.date.empty());
    QVERIFY(page().contains("foretold"));
    say(QStringLiteral("store %1 C").arg(last().first_day.store_c, 0, 'f', 1));
    QVERIFY2(page().contains("as foretold"), qPrintable(page()));
}

void VisitsWindowTest::a_call_becomes_a_visit()
{
    QTest::mouseClick(find<QPushButton>("callBack"), Qt::LeftButton);
    laid_out();
    QTest::keyClicks(find<QPlainTextEdit>("callWords"), "the water stays cold and the pump hums");
    laid_out();
    QVERIFY(find<QListWidget>("causeList")->count() > 3);
    const QString before = find<QListWidget>("causeList")->item(0)->text();
    for (int i = 0; i < 5 && find<QPushButton>("callYes")->isEnabled(); ++i) {
        const bool hums = find<QLabel>("callQuestion")->text().contains("hum");
        QTest::mouseClick(find<QPushButton>(hums ? "callYes" : "callNo"), Qt::LeftButton);
        if (i == 0) { // a slip is taken back, and asked again
            const QString next = find<QLabel>("callQuestion")->text();
            QTest::mouseClick(find<QPushButton>("callUndo"), Qt::LeftButton);
            QVERIFY(find<QLabel>("callQuestion")->text() != next);
            QVERIFY(!find<QPushButton>("callUndo")->isEnabled());
            QCOMPARE(find<QListWidget>("causeList")->item(0)->text(), before);
            QTest::mouseClick(find<QPushButton>(hums ? "callYes" : "callNo"), Qt::LeftButton);
        }
    }
    QVERIFY(!find<QLabel>("causeAbout")->text().isEmpty());
    QTest::mouseClick(find<QPushButton>("callBecomes"), Qt::LeftButton);
    laid_out();
    QCOMPARE(last().purpose, Purpose::call_back);
    QVERIFY(qs(last().title).contains("hums"));
    QVERIFY(qs(last().notes).contains("Take along"));
    QVERIFY(page().contains("Likely"));
}

// What no sky gives is asked about once; the same line again keeps it.
void VisitsWindowTest::a_reading_that_no_sky_gives_is_asked_about()
{
    visits().begin(Purpose::service);
    say("when: 2026-06-20T12:30");
    const std::size_t before = last().readings.size();
    say("sun 1550 W/m2");
    QCOMPARE(last().readings.size(), before);
    QTest::keyClick(find<QLineEdit>("sayLine"), Qt::Key_Return); // the line still stands there
    laid_out();
    QCOMPARE(last().readings.size(), before + 1);
}

// The demo's slow leak, with a fifth reading.
void VisitsWindowTest::seasons_are_told_beside_the_page()
{
    QVERIFY(window->open(job_path));
    settle();
    window->show_station(6);
    QVERIFY(QTest::qWaitFor([&] { return find<QLabel>("season.pressure"); }, 20000));
    QVERIFY(find<QLabel>("season.pressure")->text().contains("too few readings (4 of 5)"));
    visits().begin(Purpose::service);
    say("pressure 1.28 bar at 15 C");
    QVERIFY(QTest::qWaitFor([&] { laid_out(); const auto* l = find<QLabel>("season.pressure"); return l && l->text().contains("a year"); }, 20000));
    QVERIFY2(find<QLabel>("season.pressure")->text().contains("slow leak"), qPrintable(find<QLabel>("season.pressure")->text()));
}

void VisitsWindowTest::photos_are_turned_scaled_and_stripped()
{
    visits().begin(Purpose::service);
    // As a camera held upright writes it: lying, with a word that says so (Exif 2.3, tag 0x0112, value 6).
    {
        QFile lying(photo(400, 300));
        QVERIFY(lying.open(QIODevice::ReadOnly));
        QByteArray bytes = lying.readAll();
        const char exif[] = "\xFF\xE1\x00\x22"
                            "Exif\0\0"
                            "II*\0\x08\0\0\0"
                            "\x01\0"
                            "\x12\x01\x03\0\x01\0\0\0\x06\0\0\0"
                            "\0\0\0\0";
        bytes.insert(2, QByteArray(exif, sizeof exif - 1));
        const QString turned = folder->filePath("turned.jpg");
        QFile out(turned);
        QVERIFY(out.open(QIODevice::WriteOnly));
        out.write(bytes);
        out.close();
        const auto kept = photo_of(turned);
        QVERIFY(kept);
        const QImage upright = QImage::fromData(QByteArray::fromStdString(*kept->bytes));
        QCOMPARE(upright.size(), QSize(300, 400));
        QVERIFY(kept->bytes->find("Exif") == std::string::npos);
    }
    take_photo(photo(3000, 1500));
    QCOMPARE(last().photos.size(), std::size_t(1));
    QTest::keyClicks(find<QLineEdit>("sayLine"), "the roof | at collector");
    QTest::keyClick(find<QLineEdit>("sayLine"), Qt::Key_Return);
    QCOMPARE(last().photos[0].caption, std::string("the roof"));
    QCOMPARE(last().photos[0].of, std::string("collector"));
    const Attachment& kept = job().attachments.back();
    QCOMPARE(kept.sha256, last().photos[0].sha256);
    const QImage image = QImage::fromData(QByteArray::fromStdString(*kept.bytes));
    QCOMPARE(image.width(), photo_side_px);
    QVERIFY2(kept.bytes->find("Exif") == std::string::npos, "what a camera wrote of place and time");
    const std::size_t attachments = job().attachments.size();
    take_photo(photo(3000, 1500));
    QCOMPARE(job().attachments.size(), attachments); // kept once
    QCOMPARE(last().photos.size(), std::size_t(2));
    // Pasted.
    QImage small(64, 48, QImage::Format_RGB32);
    small.fill(Qt::red);
    QGuiApplication::clipboard()->setImage(small);
    auto* view = find<QTextBrowser>("visitPage");
    view->setFocus();
    QTest::keySequence(view, QKeySequence::Paste);
    QVERIFY(QTest::qWaitFor([&] { return last().photos.size() == 3; }, 10000));
    // What is no photo says so.
    const QString text = folder->filePath("no.jpg");
    QFile f(text);
    QVERIFY(f.open(QIODevice::WriteOnly));
    f.write("no photo");
    f.close();
    visits().page().photos().take_files({text});
    QVERIFY(QTest::qWaitFor([&] { return find<QLabel>("lineSaid")->text().contains("no photo"); }, 10000));
    QCOMPARE(last().photos.size(), std::size_t(3));
}

// 24 megapixels: the window's thread is never away for more than ten times the 100 ms that are asked.
void VisitsWindowTest::a_large_photo_goes_in_without_a_stall()
{
    visits().begin(Purpose::service);
    const QString path = photo(6000, 4000);
    QElapsedTimer since;
    since.start();
    qint64 longest = 0;
    QTimer beat;
    connect(&beat, &QTimer::timeout, this, [&] { longest = std::max(longest, since.restart()); });
    beat.start(1);
    visits().page().photos().take_files({path});
    QVERIFY(QTest::qWaitFor([&] { return last().photos.size() == 1; }, 20000));
    laid_out();
    longest = std::max(longest, since.elapsed());
    qInfo("24 megapixels: the window was away %lld ms at most", static_cast<long long>(longest));
    QVERIFY(longest < 1000);
}

void VisitsWindowTest::papers_are_written_with_pages_and_pictures()
{
    visits().begin(Purpose::service);
    say("persons: A. Fitter");
    say("flow 6.8 L/min");
    take_photo(photo(1200, 900));
    QTest::keyClick(find<QLineEdit>("sayLine"), Qt::Key_Escape);
    for (const auto& [kind, said] : std::vector<std::pair<const char*, const char*>>{{"service", "A. Fitter"}, {"settings", "Sampling period"}, {"valves", "Supply isolating"}, {"chart", "1000"}, {"owner", "Gauge in the morning"}}) {
        for (const auto& [size, points] : {std::pair{QPageSize::A4, "595"}, {QPageSize::Letter, "612"}}) {
            const QString pdf = folder->filePath(QStringLiteral("%1.pdf").arg(kind));
            QVERIFY2(visits().write_report(kind, pdf, size), qPrintable(told));
            const QString info = run("pdfinfo", {pdf});
            QVERIFY2(info.contains(QStringLiteral("Page size:       %1").arg(points)), qPrintable(info));
            const QString text = run("pdftotext", {"-layout", pdf, "-"});
            QVERIFY2(text.contains(QString::fromUtf8(said)), qPrintable(QString::fromUtf8(kind) + ": " + text));
            QVERIFY(text.contains("page 1 of "));
            QVERIFY(text.contains("licensed tradesperson"));
            const int pages = info.section("Pages:", 1).section('\n', 0, 0).trimmed().toInt();
            QVERIFY2(text.contains(QStringLiteral("page %1 of %1").arg(pages)), qPrintable(text));
        }
        if (std::string(kind) == "settings" || std::string(kind) == "owner")
            QVERIFY2(run("pdfinfo", {folder->filePath(QStringLiteral("%1.pdf").arg(kind))}).contains("Pages:           1\n"), kind);
        const QString html = folder->filePath(QStringLiteral("%1.html").arg(kind));
        QVERIFY(visits().write_report(kind, html, QPageSize::A4));
        QCOMPARE(QProcess::execute("tidy", {"-q", "-e", html}), 0);
    }
    const QString pictures = run("pdfimages", {"-list", folder->filePath("service.pdf")});
    QVERIFY2(pictures.count('\n') >= 3, qPrintable(pictures)); // two lines of head, the photo
    QVERIFY(run("pdffonts", {folder->filePath("service.pdf")}).contains("Vernal"));
    // A paper that lacks what it needs says so and writes nothing.
    told.clear();
    QVERIFY(!visits().write_report("audit", folder->filePath("audit.pdf"), QPageSize::A4));
    QVERIFY(told.contains("log"));
    QVERIFY(!QFile::exists(folder->filePath("audit.pdf")));
}

void VisitsWindowTest::costs_are_worked_out()
{
    visits().begin(Purpose::service);
    say("done: Pump | 60 min | part Pump | cost 90");
    QTest::mouseClick(find<QPushButton>("costs"), Qt::LeftButton);
    laid_out();
    QTest::keyClicks(find<QLineEdit>("costMoney"), "EUR");
    QTest::keyClicks(find<QLineEdit>("costEnergy"), "0.3");
    QTest::keyClicks(find<QLineEdit>("costHour"), "60");
    QTest::mouseClick(find<QPushButton>("costWork"), Qt::LeftButton);
    auto* page_of_costs = window->findChild<CostPage*>();
    QVERIFY(QTest::qWaitFor([&] { return !page_of_costs->runs(); }, 60000));
    auto* table = find<QTableWidget>("costTable");
    QCOMPARE(table->rowCount(), static_cast<int>(job().variants.size()) + 1);
    QCOMPARE(table->item(0, 4)->text(), QStringLiteral("150.00"));
    QVERIFY(table->item(0, 1)->text().toDouble() > 500);
    QVERIFY(table->item(1, 3)->text().toDouble() < table->item(0, 3)->text().toDouble());
    QCOMPARE(job().logbook.costs.energy_kwh, 0.3);
}

void VisitsWindowTest::what_is_due_goes_into_the_visit_and_the_calendar()
{
    visits().begin(Purpose::service);
    laid_out();
    auto* due = find<QListWidget>("dueList");
    QVERIFY(due->count() > 4);
    due->setFocus();
    due->setCurrentRow(0);
    emit due->itemActivated(due->item(0));
    laid_out();
    QCOMPARE(last().work.size(), std::size_t(1));
    QVERIFY(!last().work[0].does.empty());
    // Another interval, and an item of one's own, by a line.
    const auto say_due = [&](const QString& words) {
        auto* line = find<QLineEdit>("dueLine");
        line->setFocus();
        line->selectAll();
        QTest::keyClicks(line, words);
        QTest::keyClick(line, Qt::Key_Return);
        laid_out();
    };
    due->setCurrentRow(1);
    QVERIFY(find<QLineEdit>("dueLine")->text().contains("every"));
    say_due("Seal of the pump | every 18 months");
    QCOMPARE(job().logbook.due.size(), std::size_t(1));
    say_due("Seal of the pump | sometimes");
    QCOMPARE(job().logbook.due.size(), std::size_t(1));
    save_as_answer = folder->filePath("due.ics");
    QTest::mouseClick(find<QPushButton>("dueCalendar"), Qt::LeftButton);
    QVERIFY(read_file(save_as_answer.toStdString())->find("BEGIN:VEVENT") != std::string::npos);
}

void VisitsWindowTest::a_folder_is_the_customer_list()
{
    QTemporaryDir jobs;
    qputenv("XDG_CACHE_HOME", folder->filePath("cache").toUtf8());
    Job one = new_job("glycol-coil");
    for (int i = 0; i < 3; ++i) {
        one.site.customer = "Customer " + std::to_string(i);
        QVERIFY(save_job(one, jobs.filePath(QStringLiteral("%1.vrelay").arg(i)).toStdString()));
    }
    window->show_start();
    laid_out();
    auto* customers = window->findChild<CustomerList*>();
    QVERIFY(customers);
    QSignalSpy listed(customers, &CustomerList::listed);
    customers->show_folder(jobs.path());
    QVERIFY(listed.wait(10000));
    auto* list = find<QListWidget>("customerList");
    QCOMPARE(list->count(), 3);
    QTest::keyClicks(find<QLineEdit>("findCustomer"), "customer 1");
    QCOMPARE(list->count(), 1);
    // The folder is watched.
    one.site.customer = "Newcomer 1";
    QVERIFY(save_job(one, jobs.filePath("new.vrelay").toStdString()));
    QVERIFY(QTest::qWaitFor([&] { return customers->jobs().size() == 4; }, 10000));
    find<QLineEdit>("findCustomer")->clear();
    QTest::keyClicks(find<QLineEdit>("findCustomer"), "newcomer");
    QTest::keyClick(find<QLineEdit>("findCustomer"), Qt::Key_Return);
    settle();
    QCOMPARE(job().site.customer, std::string("Newcomer 1"));
}

void VisitsWindowTest::two_computers_lose_nothing()
{
    QVERIFY(window->open(job_path));
    settle();
    window->show_station(6);
    visits().begin(Purpose::service);
    say("note: mine");
    // Meanwhile the other computer saves a visit of its own.
    Job theirs = *open_job(job_path.toStdString());
    Visit other = new_visit(theirs, "2026-03-01T08:00", Purpose::service, theirs.variants.front().id);
    other.notes = "theirs";
    theirs.logbook.visits.push_back(other);
    sort_visits(theirs);
    QVERIFY(save_job(theirs, job_path.toStdString()));
    changed_answer = Dialogs::Changed::take_visits;
    QVERIFY(window->save());
    const Job saved = *open_job(job_path.toStdString());
    const auto has = [&](const char* notes) { return std::any_of(saved.logbook.visits.begin(), saved.logbook.visits.end(), [&](const Visit& v) { return v.notes == notes; }); };
    QVERIFY(has("mine"));
    QVERIFY(has("theirs"));
    QVERIFY(told.contains("taken over"));
    // On focus too: what was saved there meanwhile is asked about without a save.
    theirs = *open_job(job_path.toStdString());
    other.when = "2026-03-02T08:00";
    other.notes = "later";
    other.id.clear();
    theirs.logbook.visits.push_back(other);
    sort_visits(theirs);
    QVERIFY(save_job(theirs, job_path.toStdString()));
    window->activateWindow();
    QVERIFY(QTest::qWaitForWindowActive(window.get()));
    QEvent back(QEvent::ActivationChange);
    QCoreApplication::sendEvent(window.get(), &back);
    laid_out();
    QVERIFY(std::any_of(job().logbook.visits.begin(), job().logbook.visits.end(), [](const Visit& v) { return v.notes == "later"; }));
}

int main(int argc, char** argv) { return run_window_test<VisitsWindowTest>(argc, argv); }
#include "visits_window_test.moc"
