// What is typed, what other programs do to the file, and copies that cannot be kept.
#include "fixture.h"

#include "files/disk.h"

using namespace vernal;

class TypingTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init() { open_demo(); }
    void cleanup() { window.reset(); }
    void a_typed_number_is_taken_before_saving();
    void a_typed_number_lands_in_its_own_variant();
    void a_number_that_cannot_be_taken_is_not_lost();
    void a_change_on_disk_is_noticed();
    void theirs_can_be_taken_and_mine_saved_beside();
    void a_second_window_is_told();
    void a_copy_that_cannot_be_kept_is_told();
    void what_does_not_fit_is_refused_with_the_number();
    void names_stay_different();
    void rules_out_of_action_stand_on_the_strip();

private:
    NumberEdit* typed(const char* key, const QString& text)
    {
        NumberEdit* edit = number(rule_field(key));
        edit->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, text);
        return edit;
    }
};

void TypingTest::a_typed_number_is_taken_before_saving()
{
    window->show_station(2);
    typed("on_k", "9.7");
    QVERIFY(window->save());
    const Job saved = *open_job(job_path.toStdString());
    QCOMPARE(std::get<Differential>(saved.variants[document().variant_index()].unit.rules.back().body).on.in_kelvin(), 9.7);
}

void TypingTest::a_typed_number_lands_in_its_own_variant()
{
    window->show_station(2);
    document().choose_variant(1);
    const Variant other = job().variants[0];
    typed("on_k", "11.3");
    document().choose_variant(0);
    QCOMPARE(document().variant_index(), std::size_t(0));
    QVERIFY(job().variants[0] == other);
    QCOMPARE(std::get<Differential>(job().variants[1].unit.rules.back().body).on.in_kelvin(), 11.3);
    typed("on_k", "5.9");
    window->show_station(3);
    QCOMPARE(std::get<Differential>(job().variants[0].unit.rules.back().body).on.in_kelvin(), 5.9);
}

void TypingTest::a_number_that_cannot_be_taken_is_not_lost()
{
    window->show_station(2);
    document().choose_variant(1);
    const Job before = job();
    NumberEdit* edit = typed("on_k", "12 parsecs");
    told.clear();
    QVERIFY(!window->save());
    QVERIFY2(told.contains("12 parsecs"), qPrintable(told));
    document().choose_variant(0);
    QCOMPARE(document().variant_index(), std::size_t(1));
    QCOMPARE(edit->text(), QStringLiteral("12 parsecs"));
    QVERIFY(!window->close());
    QVERIFY(job() == before);
    QTest::keyClick(edit, Qt::Key_Escape);
    QVERIFY(window->save());
}

void TypingTest::a_change_on_disk_is_noticed()
{
    const auto theirs = [&] {
        Job other = *open_job(job_path.toStdString());
        other.title = "theirs";
        QVERIFY(save_job(other, job_path.toStdString()));
    };
    document().edit("title", [](Job& j) { j.title = "mine"; });
    theirs();
    changed_answer = Dialogs::Changed::cancel;
    QVERIFY(!window->save());
    QCOMPARE(open_job(job_path.toStdString())->title, std::string("theirs"));
    changed_answer = Dialogs::Changed::keep_mine;
    QVERIFY(window->save());
    QCOMPARE(open_job(job_path.toStdString())->title, std::string("mine"));
    changed_answer = Dialogs::Changed::cancel; // not asked again: the file is as it was saved
    document().edit("title", [](Job& j) { j.title = "mine again"; });
    QVERIFY(window->save());
}

void TypingTest::theirs_can_be_taken_and_mine_saved_beside()
{
    const auto theirs = [&](const char* title) {
        Job other = *open_job(job_path.toStdString());
        other.title = title;
        QVERIFY(save_job(other, job_path.toStdString()));
    };
    document().edit("title", [](Job& j) { j.title = "mine"; });
    theirs("theirs");
    changed_answer = Dialogs::Changed::save_beside;
    QVERIFY(window->save());
    QCOMPARE(open_job(job_path.toStdString())->title, std::string("theirs"));
    QVERIFY(document().path().endsWith(QStringLiteral("copy (2).vrelay")));
    QCOMPARE(open_job(document().path().toStdString())->title, std::string("mine"));
    QVERIFY(window->open(job_path));
    document().edit("title", [](Job& j) { j.title = "mine"; });
    theirs("theirs again");
    changed_answer = Dialogs::Changed::take_theirs;
    QVERIFY(window->save());
    QCOMPARE(job().title, std::string("theirs again"));
    QVERIFY(!document().unsaved());
}

void TypingTest::a_second_window_is_told()
{
    QString second_told;
    Dialogs s;
    s.tell = [&](QWidget*, const QString& t) { second_told = t; };
    s.unsaved = [](QWidget*) { return Dialogs::Unsaved::drop; };
    MainWindow second(s, MainWindow::Options{{}, folder->filePath("recovery"), false, folder->filePath("curves.json")});
    QVERIFY(second.open(job_path));
    QVERIFY2(second_told.contains("another window"), qPrintable(second_told));
    second_told.clear();
    window.reset();
    QVERIFY(second.open(job_path));
    QVERIFY(second_told.isEmpty());
}

void TypingTest::a_copy_that_cannot_be_kept_is_told()
{
    window.reset();
    QVERIFY(QDir(folder->filePath("recovery")).removeRecursively());
    QVERIFY(write_file_atomically(folder->filePath("recovery").toStdString(), "a file where the folder should be"));
    Dialogs s;
    s.tell = [this](QWidget*, const QString& t) { told = t; };
    s.unsaved = [](QWidget*) { return Dialogs::Unsaved::drop; };
    window = std::make_unique<MainWindow>(s, MainWindow::Options{{}, folder->filePath("recovery"), false, folder->filePath("curves.json")});
    QVERIFY(window->open(job_path));
    told.clear();
    document().edit("title", [](Job& j) { j.title = "unsaved"; });
    QVERIFY(QTest::qWaitFor([&] { return told.contains("cannot be kept safe"); }, 8000));
}

void TypingTest::what_does_not_fit_is_refused_with_the_number()
{
    const Rule one{"P1", true, Exercise{}};
    document().edit_variant("fill", [&](Variant& v) {
        while (v.unit.rules.size() < max_rules)
            v.unit.rules.push_back(one);
    });
    QCOMPARE(document().variant().unit.rules.size(), max_rules);
    told.clear();
    const Job before = job();
    document().edit_variant("one more", [&](Variant& v) { v.unit.rules.push_back(one); });
    QVERIFY2(told.contains("64 rules"), qPrintable(told));
    QVERIFY(job() == before);
}

void TypingTest::names_stay_different()
{
    const Job before = job();
    told.clear();
    document().edit("rename", [](Job& j) { j.variants[1].name = j.variants[0].name; });
    QVERIFY2(told.contains("there twice"), qPrintable(told));
    QVERIFY(job() == before);
}

void TypingTest::rules_out_of_action_stand_on_the_strip()
{
    auto* idle = window->findChild<QLabel*>(QStringLiteral("stripIdle"));
    QVERIFY(idle && !idle->isVisible());
    document().edit_variant("no band", [](Variant& v) {
        for (Rule& r : v.unit.rules)
            if (auto* d = std::get_if<Differential>(&r.body))
                d->off = d->on;
    });
    settle();
    QVERIFY(idle->isVisible());
    QVERIFY2(idle->text().contains("Difference"), qPrintable(idle->text()));
    QVERIFY(idle->toolTip().contains("it stops at or above"));
    document().undo_stack().undo();
    settle();
    QVERIFY(!idle->isVisible());
}

int main(int argc, char** argv) { return run_window_test<TypingTest>(argc, argv); }
#include "typing_test.moc"
