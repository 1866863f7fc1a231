#include "app/shell/main_window.h"
#include "app/shell/theme.h"
#include "app/visits/visits_station.h"
#include "core/report/paper.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QElapsedTimer>
#include <QFileInfo>
#include <QSettings>

#include <algorithm>
#include <cstdio>
#include <string_view>

// The demo lies beside the build, or where it was installed.
static QString demo_file()
{
    for (const char* place : {VERNAL_DEMO_BUILD, VERNAL_DEMO_INSTALLED})
        if (QFileInfo::exists(QString::fromUtf8(place)))
            return QString::fromUtf8(place);
    return {};
}

// Without a screen there is no window; then what to do is said, unless only pictures are wanted.
static bool has_screen()
{
    return !qEnvironmentVariableIsEmpty("DISPLAY") || !qEnvironmentVariableIsEmpty("WAYLAND_DISPLAY") || !qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM");
}

static bool wants_no_window(int argc, char** argv)
{
    return std::any_of(argv, argv + argc, [](const char* word) { return std::string_view(word).starts_with("--pictures") || std::string_view(word).starts_with("--report"); });
}

template <class Until>
static void wait_for(const Until& until)
{
    QElapsedTimer timer;
    timer.start();
    while (!until() && timer.elapsed() < 20000) {
        QApplication::processEvents(QEventLoop::AllEvents | QEventLoop::WaitForMoreEvents, 50);
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete); // no loop runs yet that would
    }
}

// A paper of the job, as the window would write it.
static int write_report(vernal::MainWindow& window, const std::string& kind, const QString& out, QPageSize::PageSizeId size)
{
    if (!vernal::find_paper(kind)) {
        std::string all;
        for (const vernal::PaperKind& k : vernal::paper_kinds())
            all += (all.empty() ? "" : ", ") + std::string(k.key);
        std::fprintf(stderr, "“%s” is no paper. One of %s.\n", kind.c_str(), all.c_str());
        return 1;
    }
    if (out.isEmpty()) {
        std::fputs("Where to? --out FILE.pdf or FILE.html.\n", stderr);
        return 1;
    }
    window.resize(1280, 800);
    window.show();
    wait_for([&] { return window.session().settled(); });
    return window.station<vernal::VisitsStation>().write_report(kind, out, size) ? 0 : 1;
}

// Every station, settled, at 1280 × 800.
static int write_pictures(vernal::MainWindow& window, const QString& folder)
{
    if (!QDir().mkpath(folder)) {
        std::fprintf(stderr, "%s cannot be made. Name a folder that can be written to.\n", qPrintable(folder));
        return 1;
    }
    window.resize(1280, 800);
    window.show();
    wait_for([&] { return window.session().settled(); });
    for (std::size_t i = 0; i < vernal::stations().size(); ++i) {
        window.show_station(static_cast<int>(i));
        QElapsedTimer rest;
        rest.start();
        wait_for([&] { return rest.elapsed() > 200; }); // what was asked for is painted
        const QString file = folder + QStringLiteral("/%1-%2.png").arg(i + 1).arg(QLatin1String(vernal::stations()[i].key));
        if (!window.grab().save(file)) {
            std::fprintf(stderr, "%s cannot be written. Look at the folder and the space on it.\n", qPrintable(file));
            return 1;
        }
        std::printf("%s\n", qPrintable(file));
    }
    return 0;
}

int main(int argc, char** argv)
{
    const bool pictures = wants_no_window(argc, argv); // and leaves
    if (!has_screen()) {
        if (!pictures) {
            std::fputs("There is no screen to show the window on: neither DISPLAY nor WAYLAND_DISPLAY is set.\n"
                       "Start it from a desktop, or connect by ssh -X. For pictures of the main views without a screen: --pictures FOLDER.\n",
                stderr);
            return 1;
        }
        qputenv("QT_QPA_PLATFORM", "offscreen");
    }
    QApplication app(argc, argv);
    QApplication::setApplicationName(QStringLiteral("vernal-relay"));
    QApplication::setOrganizationName(QStringLiteral("vernal-relay"));
    QApplication::setApplicationVersion(QStringLiteral(VERNAL_VERSION));
    QCommandLineParser parser;
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addOption({QStringLiteral("demo"), QStringLiteral("Open the demo job.")});
    parser.addOption({QStringLiteral("glare"), QStringLiteral("Begin in the Glare theme.")});
    parser.addOption({QStringLiteral("pictures"), QStringLiteral("Write each station of the job, or of the demo, as PNG into this folder and leave; needs no screen."), QStringLiteral("folder")});
    parser.addOption({QStringLiteral("report"), QStringLiteral("Write a paper of the job and leave; needs no screen: commissioning, service, settings, keys, wiring, valves, chart, owner or audit."), QStringLiteral("kind")});
    parser.addOption({QStringLiteral("out"), QStringLiteral("With --report: FILE.pdf or FILE.html."), QStringLiteral("file")});
    parser.addOption({QStringLiteral("letter"), QStringLiteral("With --report: on Letter instead of A4.")});
    parser.addPositionalArgument(QStringLiteral("job"), QStringLiteral("A job file to open."));
    parser.process(app);
    vernal::load_fonts();
    vernal::apply_theme(app, parser.isSet(QStringLiteral("glare")) || QSettings().value(QStringLiteral("glare")).toBool());
    vernal::Dialogs dialogs = vernal::Dialogs::usual();
    if (pictures)
        dialogs.tell = [](QWidget*, const QString& text) { std::fprintf(stderr, "%s\n", qPrintable(text)); };
    vernal::MainWindow window(dialogs, {demo_file(), {}, !pictures});
    if (!pictures)
        window.show();
    if (parser.isSet(QStringLiteral("demo")) || (pictures && parser.positionalArguments().isEmpty()))
        window.open(demo_file());
    else if (!parser.positionalArguments().isEmpty() && !window.open(parser.positionalArguments().first()) && pictures)
        return 1;
    if (parser.isSet(QStringLiteral("report")))
        return write_report(window, parser.value(QStringLiteral("report")).toStdString(), parser.value(QStringLiteral("out")), parser.isSet(QStringLiteral("letter")) ? QPageSize::Letter : QPageSize::A4);
    if (pictures)
        return write_pictures(window, parser.value(QStringLiteral("pictures")));
    return QApplication::exec();
}
