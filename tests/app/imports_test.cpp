// A log from elsewhere, through its one page.
#include "app/days/days_station.h"
#include "app/days/import_page.h"
#include "app/days/log_desk.h"
#include "app/days/log_table.h"
#include "files/disk.h"
#include "fixture.h"

#include <QComboBox>
#include <QListWidget>
#include <QSettings>
#include <QSpinBox>

#include <cmath>

using namespace vernal;

class ImportsTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init()
    {
        QSettings().remove(QStringLiteral("logs"));
        open_demo();
        window->show_station(3);
    }
    void a_log_of_a_strange_shape_is_seen_chosen_and_taken_in();
    void what_was_chosen_is_remembered_by_the_header();
    void a_broken_log_says_where_and_loses_nothing();
    void rows_that_would_be_left_out_are_asked_about();
    void several_files_are_joined();
    void an_empty_file_and_a_file_that_is_no_log();

private:
    QString file(const char* name, const std::string& text)
    {
        const QString path = folder->filePath(QString::fromLatin1(name));
        [&] { QVERIFY(write_file_atomically(path.toStdString(), text)); }();
        return path;
    }
    DaysStation& days() { return window->station<DaysStation>(); }
    ImportPage& page() { return days().import_page(); }
    void choose(const char* box, const QString& text)
    {
        auto* b = page().findChild<QComboBox*>(QString::fromLatin1(box));
        QVERIFY(b && b->isEnabled());
        const int at = b->findText(text);
        QVERIFY2(at >= 0, qPrintable(text));
        b->setCurrentIndex(at);
        emit b->activated(at);
    }
    void take()
    {
        QTest::mouseClick(find<QPushButton>("takeLog"), Qt::LeftButton);
        QVERIFY(QTest::qWaitFor([this] { return !days().importing(); }, 20000));
        settle();
    }
    const Trace& log() { return *job().traces.at(document().day().trace); }
};

namespace {

const std::string strange = "Van logger 7\n\nDay;Clock;T1;T2;K1\n05.06.2026;08:00:00;140,0;86,0;run\n05.06.2026;08:00:30;141,8;86,0;run\n05.06.2026;08:01:00;---;86,0;rest\n";

} // namespace

void ImportsTest::a_log_of_a_strange_shape_is_seen_chosen_and_taken_in()
{
    const std::size_t before = job().days.size();
    log_answer = file("van.txt", strange);
    QTest::keyClick(window.get(), Qt::Key_I, Qt::ControlModifier);
    QVERIFY(days().importing());
    QCOMPARE(find<QComboBox>("logDelimiter")->currentText(), QStringLiteral("semicolon"));
    QCOMPARE(find<QComboBox>("logDecimal")->currentText(), QStringLiteral("a comma"));
    QCOMPARE(find<QSpinBox>("logHeader")->value(), 3);
    choose("role2", QStringLiteral("Collector"));
    choose("unit2", QStringLiteral("°F"));
    choose("role3", QStringLiteral("Tank bottom"));
    choose("unit3", QStringLiteral("°F"));
    choose("role4", find<QComboBox>("role4")->itemText(find<QComboBox>("role4")->findText(QStringLiteral("P1"), Qt::MatchStartsWith)));
    auto words = page().findChildren<QComboBox*>(QStringLiteral("logWord"));
    const auto rest = std::find_if(words.begin(), words.end(), [](QComboBox* b) { return b->accessibleName().contains(QStringLiteral("rest")); });
    QVERIFY(rest != words.end());
    (*rest)->setCurrentIndex(2);
    emit(*rest)->activated(2);
    take();
    QCOMPARE(job().days.size(), before + 1);
    QCOMPARE(log().find("collector")->values[0], 60.0);
    QVERIFY(std::isnan(log().find("collector")->values[2]));
    QCOMPARE(log().find("tank_bottom")->values[1], 30.0);
    QCOMPARE(log().find("P1")->values, (std::vector<double>{1, 1, 0}));
    QCOMPARE(qs(log().start), QStringLiteral("2026-06-05T08:00:00"));
    QVERIFY(document().day().kind == DayKind::recorded);
    document().undo_stack().undo();
    QCOMPARE(job().days.size(), before);
}

void ImportsTest::what_was_chosen_is_remembered_by_the_header()
{
    log_answer = file("van.txt", strange);
    days().logs().import_files({log_answer});
    choose("role2", QStringLiteral("Tank top"));
    take();
    days().logs().import_files({file("later.txt", "Van logger 7, battery low\nsecond line\n\nDay;Clock;T1;T2;K1\n06.06.2026;08:00:00;50,0;40,0;run\n")});
    QVERIFY(days().importing());
    QCOMPARE(find<QComboBox>("role2")->currentText(), QStringLiteral("Tank top"));
    QVERIFY(find<QLabel>("logSaid")->text().contains(QStringLiteral("last log")));
    take();
    QCOMPARE(log().find("tank_top")->values[0], 50.0);
    days().logs().import_files({log_answer});
    QTest::mouseClick(find<QPushButton>("guessLog"), Qt::LeftButton);
    laid_out();
    QVERIFY(find<QComboBox>("role2")->currentText() != QStringLiteral("Tank top"));
}

void ImportsTest::a_broken_log_says_where_and_loses_nothing()
{
    const Job before = job();
    days().logs().import_files({file("broken.csv", "time,collector\n0,20\n30,x9\n60,21\n")});
    QVERIFY(days().importing());
    QCOMPARE(find<QListWidget>("logTroubles")->item(0)->text(), QStringLiteral("line 3: “x9” is no reading of collector; the cell is empty"));
    QTest::keyClick(find<QPushButton>("takeLog"), Qt::Key_Escape);
    QVERIFY(!days().importing());
    QVERIFY(job() == before);
    days().logs().import_files({file("broken.csv", "time,collector\n0,20\n30,x9\n60,21\n")});
    choose("role0", QStringLiteral("left out"));
    QVERIFY(!find<QPushButton>("takeLog")->isEnabled());
    QVERIFY(find<QLabel>("logSaid")->text().contains(QStringLiteral("no column says when")));
    QTest::mouseClick(find<QPushButton>("leaveLog"), Qt::LeftButton);
    QVERIFY(job() == before);
}

void ImportsTest::rows_that_would_be_left_out_are_asked_about()
{
    std::string text = "when;Roof;Tank bottom\n";
    for (int day = 8; day < 20; ++day)
        for (int hour = 0; hour < 24; ++hour)
            text += (day < 10 ? "0" : "") + std::to_string(day) + ".05.2026 " + (hour < 10 ? "0" : "") + std::to_string(hour) + ":00;40;30\n";
    days().logs().import_files({file("may.csv", text)});
    auto* form = page().findChild<QComboBox*>(QStringLiteral("logForm"));
    QVERIFY(form);
    const int right = form->currentIndex();
    form->setCurrentIndex(static_cast<int>(TimeForm::month_first));
    emit form->activated(form->currentIndex());
    const Job before = job();
    QTest::mouseClick(find<QPushButton>("takeLog"), Qt::LeftButton);
    QVERIFY(QTest::qWaitFor([&] { return find<QLabel>("logSaid")->text().contains(QStringLiteral("again to import the other rows")); }, 10000));
    QVERIFY(find<QLabel>("logSaid")->text().contains(QStringLiteral("168 of 288 rows were left out")));
    QVERIFY(days().importing());
    QVERIFY(job() == before);
    form->setCurrentIndex(right);
    emit form->activated(right);
    take();
    QCOMPARE(log().time_s.size(), std::size_t{288});
}

void ImportsTest::several_files_are_joined()
{
    const QString one = file("one.csv", "time,collector [°C],P1\n2026-05-08T00:00:00,20,0\n2026-05-08T00:01:00,21,1\n");
    const QString two = file("two.csv", "time,collector [°C],P1\n2026-05-07T23:58:00,18,0\n2026-05-07T23:59:00,19,0\n");
    days().logs().import_files({one, two});
    QVERIFY(days().importing());
    take();
    QCOMPARE(qs(log().start), QStringLiteral("2026-05-07T23:58:00"));
    QCOMPARE(log().find("collector")->values, (std::vector<double>{18, 19, 20, 21}));
}

void ImportsTest::an_empty_file_and_a_file_that_is_no_log()
{
    const Job before = job();
    const auto empty = days().logs().import_files({file("empty.csv", " \n")});
    QVERIFY(empty.has_value());
    QVERIFY(find<QLabel>("dayMessage")->text().contains(QStringLiteral("empty")));
    days().logs().import_files({file("letter.txt", "Dear customer,\nthe pump is quiet now.\nRegards\n")});
    QVERIFY(days().importing());
    QVERIFY(!find<QPushButton>("takeLog")->isEnabled());
    QTest::mouseClick(find<QPushButton>("leaveLog"), Qt::LeftButton);
    QVERIFY(job() == before);
}

int main(int argc, char** argv) { return run_window_test<ImportsTest>(argc, argv); }
#include "imports_test.moc"
