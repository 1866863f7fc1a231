// Kills the program in the midst of editing and saving: the file is a whole job every
// time, and what is lost is not older than two seconds. kill_test [kills].
#include "fixture.h"

#include "files/disk.h"

#include <QProcess>
#include <QTimer>

#include <csignal>
#include <cstdlib>
#include <iostream>
#include <random>

using namespace vernal;

namespace {

constexpr int promised_ms = 2000, grace_ms = 150; // grace: for the line that says what was edited

Dialogs silent()
{
    Dialogs s;
    s.tell = [](QWidget*, const QString&) {};
    s.unsaved = [](QWidget*) { return Dialogs::Unsaved::drop; };
    s.changed = [](QWidget*, const QString&) { return Dialogs::Changed::keep_mine; };
    return s;
}

// The program that will be killed: an edit every 40 ms, told by its time; a save now and then.
int child(const QString& folder, const QString& job)
{
    MainWindow window(silent(), MainWindow::Options{{}, folder + QStringLiteral("/recovery"), false, folder + QStringLiteral("/curves.json")});
    window.show();
    if (!window.open(job))
        return 1;
    QTimer timer;
    int n = 0;
    QObject::connect(&timer, &QTimer::timeout, &window, [&] {
        const qint64 now = QDateTime::currentMSecsSinceEpoch();
        window.session().document().edit(QStringLiteral("title"), [now](Job& j) { j.title = std::to_string(now); });
        std::cout << now << std::endl;
        if (++n % 37 == 0)
            window.save();
    });
    timer.start(40);
    return QApplication::exec();
}

} // namespace

class KillTest : public QObject {
    Q_OBJECT
public:
    int kills = 30;
private slots:
    void go();

private:
    void one(int delay_ms);
};

void KillTest::one(int delay_ms)
{
    QTemporaryDir folder;
    const QString job = folder.filePath("job.vrelay");
    QVERIFY(save_job(*open_job(VERNAL_DEMO "/job.json"), job.toStdString()));
    QProcess program;
    program.start(QCoreApplication::applicationFilePath(), {QStringLiteral("child"), folder.path(), job});
    QVERIFY(program.waitForStarted());
    QVERIFY2(program.waitForReadyRead(20000), "it edits");
    QTest::qWait(delay_ms);
    ::kill(static_cast<pid_t>(program.processId()), SIGKILL);
    const qint64 killed = QDateTime::currentMSecsSinceEpoch();
    QVERIFY(program.waitForFinished());
    const QList<QByteArray> edits = program.readAllStandardOutput().split('\n');
    qint64 last = 0;
    for (const QByteArray& e : edits)
        last = std::max(last, e.toLongLong());
    const auto saved = open_job(job.toStdString());
    QVERIFY2(saved, saved ? "" : saved.error().text().c_str());
    qint64 kept = QString::fromStdString(saved->title).toLongLong();
    for (const LeftBehind& left : Recovery::left_behind(folder.filePath("recovery"))) {
        const auto copy = Recovery::open(left);
        QVERIFY2(copy, copy ? "" : copy.error().text().c_str());
        kept = std::max(kept, QString::fromStdString(copy->job.title).toLongLong());
    }
    const qint64 first = edits.isEmpty() ? killed : edits.first().toLongLong();
    if (kept == 0) // nothing was kept yet: then nothing older than the promise was there
        kept = first;
    QVERIFY2(last - kept <= promised_ms + grace_ms, qPrintable(QStringLiteral("killed after %1 ms: %2 ms lost").arg(delay_ms).arg(last - kept)));
}

void KillTest::go()
{
    std::mt19937 random(7);
    for (int i = 0; i < kills; ++i) {
        one(100 + static_cast<int>(random() % 2600));
        if (QTest::currentTestFailed())
            return;
    }
}

int main(int argc, char** argv)
{
    qputenv("QTEST_FUNCTION_TIMEOUT", "3600000"); // two hundred kills take longer than Qt waits for a function
    QApplication app(argc, argv);
    load_fonts();
    apply_theme(app, false);
    if (argc > 3 && QString::fromLocal8Bit(argv[1]) == QLatin1String("child"))
        return child(QString::fromLocal8Bit(argv[2]), QString::fromLocal8Bit(argv[3]));
    KillTest test;
    if (const char* many = std::getenv("VERNAL_KILLS")) // run-tests --long
        test.kills = std::atoi(many);
    if (argc > 1)
        test.kills = std::atoi(argv[1]);
    return QTest::qExec(&test, QStringList{QString::fromLocal8Bit(argv[0])});
}
#include "kill_test.moc"
