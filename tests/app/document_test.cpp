// The way of one edit: settings by path, undo, ids, outcome and verdict, the
// recovery copy with attachments, files of a newer program.
#include "fixture.h"

#include "app/rules/operating_map.h"
#include "core/job/ids.h"
#include "files/attachment.h"
#include "files/csv_trace.h"
#include "files/disk.h"
#include "files/job_json.h"

#include <nlohmann/json.hpp>

using namespace vernal;

class DocumentTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init() { open_demo(); }
    void cleanup() { window.reset(); }
    void edits_of_one_setting_are_one_step_back();
    void a_value_a_setting_cannot_have_changes_nothing();
    void what_is_added_gets_an_id_of_its_own();
    void what_was_run_is_not_run_again();
    void the_verdict_follows_its_outcome();
    void glare_runs_nothing();
    void attachments_survive_a_crash();
    void a_newer_file_is_read_and_never_written_over();
    void a_line_stops_before_its_rule_could_not_work();
    void every_line_on_the_map_is_dragged_and_taken_back();

private:
    std::string rule_path(const char* field) { return "rule/" + document().variant().unit.rules.back().id + "/" + field; }
    QString newer_file()
    {
        auto j = nlohmann::ordered_json::parse(write_job_json(job()));
        j["version"] = job_format_version + 1;
        j["wind"] = "north";
        const QString path = folder->filePath("newer.json");
        write_file_atomically(path.toStdString(), j.dump());
        return path;
    }
};

void DocumentTest::edits_of_one_setting_are_one_step_back()
{
    const double before = difference().on.in_kelvin();
    for (int i = 0; i < 5; ++i)
        document().set("drag", rule_path("on_k"), before + 0.1 * i + 1);
    QCOMPARE(document().undo_stack().count(), 1);
    document().set("drag", rule_path("off_k"), difference().off.in_kelvin() - 0.5);
    QCOMPARE(document().undo_stack().count(), 2);
    document().undo_stack().undo();
    document().undo_stack().undo();
    QCOMPARE(difference().on.in_kelvin(), before);
    // The same setting of another variant is another setting.
    document().set("here", "loop/tank/volume_m3", 0.33);
    document().choose_variant(0);
    document().set("there", "loop/tank/volume_m3", 0.34);
    QCOMPARE(document().undo_stack().count(), 2);
    settle();
}

void DocumentTest::a_value_a_setting_cannot_have_changes_nothing()
{
    const Job before = job();
    document().set("too much", "loop/tank/volume_m3", 5000.0);
    document().set("no such", "loop/boiler/power_w", 1.0);
    document().set("no such probe", rule_path("source"), std::string("S9"));
    QVERIFY(job() == before);
    QCOMPARE(document().undo_stack().count(), 0);
}

void DocumentTest::what_is_added_gets_an_id_of_its_own()
{
    document().edit("copy", [](Job& j) {
        j.variants.push_back(j.variants.back());
        j.days.push_back(j.days.back());
        j.variants.back().unit.rules.push_back(j.variants.back().unit.rules.back());
    });
    std::set<std::string> variants, days, rules;
    for (const Variant& v : job().variants)
        QVERIFY(variants.insert(v.id).second);
    for (const Day& d : job().days)
        QVERIFY(days.insert(d.id).second);
    for (const Rule& r : job().variants.back().unit.rules)
        QVERIFY2(is_id(r.id) && rules.insert(r.id).second, r.id.c_str());
    const auto& copied = job().variants[job().variants.size() - 2].unit.rules;
    QCOMPARE(job().variants.back().unit.rules.front().id, copied.front().id);
    settle();
}

void DocumentTest::what_was_run_is_not_run_again()
{
    const auto was = window->session().outcome();
    document().choose_day(document().day_index());
    document().choose_variant(document().variant_index());
    QVERIFY(window->session().settled());
    QCOMPARE(window->session().outcome(), was);
    document().choose_day(1);
    QVERIFY(!window->session().settled());
    settle();
    QVERIFY(window->session().outcome() != was);
}

void DocumentTest::the_verdict_follows_its_outcome()
{
    QSignalSpy outcomes(&window->session(), &Session::outcome_changed), verdicts(&window->session(), &Session::verdict_changed);
    document().set("wider", rule_path("on_k"), 12.0);
    QVERIFY(QTest::qWaitFor([&] { return verdicts.count() > 0; }, 20000));
    QVERIFY(outcomes.count() == 1 || outcomes.count() == 2); // a first answer may come before the settled one
    QVERIFY(window->session().outcome()->settled);
    QCOMPARE(window->session().verdict().id, window->session().outcome()->id);
    QVERIFY(window->session().settled());
    // Many edits at once: the last one's verdict comes, and no more verdicts than outcomes.
    for (int i = 0; i < 12; ++i)
        document().edit_variant("edit", [i](Variant& v) { std::get<Differential>(v.unit.rules.back().body).on = TempDiff::kelvin(7 + 0.2 * i); });
    settle();
    QVERIFY(verdicts.count() <= outcomes.count());
    QCOMPARE(window->session().verdict().id, window->session().outcome()->id);
}

void DocumentTest::glare_runs_nothing()
{
    const auto was = window->session().outcome();
    QSignalSpy drawn(&window->session(), &Session::outcome_changed);
    window->set_glare(true);
    laid_out();
    QVERIFY(window->session().settled());
    QCOMPARE(window->session().outcome(), was);
    QVERIFY2(drawn.count() > 0, "the views draw the same once more");
    window->set_glare(false);
}

void DocumentTest::attachments_survive_a_crash()
{
    const std::string photo(50000, 'p');
    document().edit("attach", [&](Job& j) { j.attachments.push_back(make_attachment("roof.jpg", photo)); });
    const QString where = folder->filePath("recovery"), base = where + QStringLiteral("/%1").arg(QCoreApplication::applicationPid());
    QVERIFY(QTest::qWaitFor([&] { return QFile::exists(base + ".vrelay"); }, 2000));
    const QString hash = QString::fromStdString(job().attachments.back().sha256);
    QVERIFY(QFile::exists(base + ".attachments/" + hash));
    QVERIFY2(QFileInfo(base + ".vrelay").size() < 100000, "the copy itself stays small");
    QVERIFY(!job().traces.empty());
    const QFileInfo log(base + ".logs/0.csv");
    const QDateTime written = log.lastModified();
    QVERIFY(written.isValid());
    QFile::remove(base + ".vrelay");
    document().set("wider", rule_path("on_k"), 12.0);
    QVERIFY(QTest::qWaitFor([&] { return QFile::exists(base + ".vrelay"); }, 2000));
    QVERIFY2(QFileInfo(log.filePath()).lastModified() == written, "a log is written once");
    // What a program that is gone left behind.
    QDir().mkpath(where + "/999999999.attachments");
    QDir().mkpath(where + "/999999999.logs");
    QStringList parts{QStringLiteral(".vrelay"), QStringLiteral(".path"), QStringLiteral(".logs/0.csv")};
    for (const Attachment& a : job().attachments)
        parts << QStringLiteral(".attachments/") + qs(a.sha256);
    for (const QString& part : parts)
        QVERIFY(QFile::copy(base + part, where + "/999999999" + part));
    const auto left = Recovery::left_behind(where);
    QCOMPARE(left.size(), 1);
    const auto back = Recovery::open(left[0]);
    QVERIFY(back);
    QVERIFY(back->notices.empty());
    QVERIFY(*back->job.attachments.back().bytes == photo);
    QVERIFY(back->job.attachments == job().attachments);
    QCOMPARE(back->job.traces.size(), std::size_t{1});
    QCOMPARE(write_trace_csv(*back->job.traces.begin()->second), write_trace_csv(*job().traces.begin()->second));
    QVERIFY2(std::holds_alternative<Differential>(back->job.variants.back().unit.rules.back().body), "and the newest edit");
    Recovery::discard(left[0]);
    QVERIFY(!QFile::exists(where + "/999999999.attachments"));
    QVERIFY(!QFile::exists(where + "/999999999.logs"));
    window->save();
    QVERIFY(!QFile::exists(base + ".attachments"));
    QVERIFY(!QFile::exists(base + ".logs"));
    const auto saved = open_job(job_path.toStdString());
    QVERIFY(saved && *saved->attachments.back().bytes == photo);
}

void DocumentTest::a_newer_file_is_read_and_never_written_over()
{
    const Variant proposed = document().variant();
    document().edit("no logs", [](Job& j) {
        std::erase_if(j.days, [](const Day& d) { return !d.trace.empty(); });
        j.traces.clear();
    });
    const QString path = newer_file();
    unsaved_answer = Dialogs::Unsaved::drop;
    QVERIFY(window->open(path));
    QVERIFY2(told.contains("newer program") && told.contains("wind"), qPrintable(told));
    QVERIFY(document().variant() == proposed);
    const auto content = read_file(path.toStdString());
    document().set("edit", "loop/tank/volume_m3", 0.3);
    save_answer = path; // the same name again
    QVERIFY(!window->save());
    QVERIFY(told.contains("another name"));
    QCOMPARE(*read_file(path.toStdString()), *content);
    save_answer = folder->filePath("older.json");
    QVERIFY(window->save());
    QCOMPARE(document().path(), save_answer);
    QVERIFY(!document().unsaved());
    const auto saved = open_job_file(save_answer.toStdString());
    QVERIFY(saved && saved->version == job_format_version);
    QCOMPARE(saved->job.variants.back().loop.tank.volume_m3, 0.3);
    settle();
}

void DocumentTest::a_line_stops_before_its_rule_could_not_work()
{
    window->show_station(2);
    laid_out();
    auto* map = find<OperatingMap>("operatingMap");
    const std::size_t rule = document().variant().unit.rules.size() - 1;
    const QPoint grip = map->handle(rule, "off_k")->toPoint();
    QTest::mousePress(map, Qt::LeftButton, {}, grip);
    for (int dy = 4; dy <= 200; dy += 4)
        QTest::mouseMove(map, grip - QPoint(0, dy));
    QTest::mouseRelease(map, Qt::LeftButton, {}, grip - QPoint(0, 200));
    QVERIFY(difference().off < difference().on);
    QVERIFY2((difference().on - difference().off).in_kelvin() < 1.5, "it went as far as it could");
    QVERIFY(map->handle(rule, "off_k").has_value());
    settle();
}

void DocumentTest::every_line_on_the_map_is_dragged_and_taken_back()
{
    window->show_station(2);
    laid_out();
    auto* map = find<OperatingMap>("operatingMap");
    int dragged = 0;
    for (const MapLine& line : map_lines(document().variant(), 0)) {
        const auto grip = map->handle(line.rule, line.field);
        if (!grip)
            continue;
        const Job before = job();
        const QPoint by = line.kind == MapLine::Kind::upright ? QPoint(6, 0) : QPoint(0, -6);
        QTest::mousePress(map, Qt::LeftButton, {}, grip->toPoint());
        QTest::mouseMove(map, grip->toPoint() + by);
        QTest::mouseRelease(map, Qt::LeftButton, {}, grip->toPoint() + by);
        QVERIFY2(!(job() == before), line.field.c_str());
        document().undo_stack().undo();
        QVERIFY(job() == before);
        ++dragged;
    }
    QVERIFY(dragged >= 3);
    settle();
}

int main(int argc, char** argv) { return run_window_test<DocumentTest>(argc, argv); }
#include "document_test.moc"
