// From an edit to the repainted strip, through document, background run and paint.
#include "app/shell/main_window.h"
#include "app/shell/theme.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QTemporaryDir>
#include <QTest>

#include <algorithm>

using namespace vernal;

class StripBench : public QObject {
    Q_OBJECT
private slots:
    void edit_to_repainted_strip_data()
    {
        QTest::addColumn<int>("day");
        QTest::newRow("racing clouds") << 0;
        QTest::newRow("clear day") << 1;
        QTest::newRow("frosty day") << 2;
    }
    void edit_to_repainted_strip()
    {
        QFETCH(int, day);
        QTemporaryDir folder;
        MainWindow window(Dialogs::usual(), {{}, folder.filePath("recovery"), false});
        window.show();
        QVERIFY(window.open(QStringLiteral(VERNAL_DEMO "/job.json")));
        Document& d = window.session().document();
        d.choose_day(static_cast<std::size_t>(day));
        QTest::qWait(500);
        std::vector<double> ms;
        for (int i = 0; i < 60; ++i) {
            bool painted = false;
            QEventLoop loop;
            QElapsedTimer timer;
            const auto once = connect(window.strip().chart(), &DayChart::shown, &loop, [&] {
                if (!(window.session().outcome()->variant == d.variant())) // of the edit before, settled
                    return;
                if (!painted)
                    ms.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
                painted = true;
                loop.quit();
            });
            timer.start();
            d.edit_variant(
                "bench", [i](Variant& v) { std::get<Differential>(v.unit.rules.back().body).on = TempDiff::kelvin(8 + 0.1 * (i % 7)); }, "bench");
            if (!painted)
                loop.exec();
            disconnect(once);
            QTest::qWait(5);
        }
        std::sort(ms.begin(), ms.end());
        QTest::setBenchmarkResult(ms[ms.size() / 2], QTest::WalltimeMilliseconds);
        qInfo("median %.1f ms, least %.1f, nine in ten within %.1f", ms[ms.size() / 2], ms.front(), ms[ms.size() * 9 / 10]);
    }

    // What the whole window takes to show itself otherwise: no new style, a repaint.
    void theme_station_and_size()
    {
        QTemporaryDir folder;
        MainWindow window(Dialogs::usual(), {{}, folder.filePath("recovery"), false});
        window.resize(1280, 800);
        window.show();
        QVERIFY(window.open(QStringLiteral(VERNAL_DEMO "/job.json")));
        QTest::qWait(500);
        const auto longest = [&](const char* what, const std::function<void(int)>& change) {
            std::vector<double> ms;
            for (int i = 0; i < 20; ++i) {
                QElapsedTimer timer;
                timer.start();
                change(i);
                QCoreApplication::processEvents();
                ms.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
            }
            std::sort(ms.begin(), ms.end());
            qInfo("%s: median %.1f ms, longest %.1f", what, ms[ms.size() / 2], ms.back());
        };
        for (int station = 0; station < 5; ++station) {
            window.show_station(station);
            QTest::qWait(100);
            longest(qPrintable(QStringLiteral("theme at station %1").arg(station + 1)), [&](int i) { window.set_glare(i % 2 == 0); });
        }
        longest("station", [&](int i) { window.show_station(i % 5); });
        longest("size", [&](int i) { window.resize(1280 + 40 * (i % 5), 800 + 20 * (i % 3)); });
    }
};

int main(int argc, char** argv)
{
    QApplication app(argc, argv);
    load_fonts();
    apply_theme(app, false);
    StripBench bench;
    return QTest::qExec(&bench, argc, argv);
}
#include "strip_bench.moc"
