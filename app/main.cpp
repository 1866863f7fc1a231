#include "app/shell/main_window.h"
#include "app/shell/theme.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QFileInfo>
#include <QSettings>

// The demo lies beside the build, or where it was installed.
static QString demo_file()
{
    for (const char* place : {VERNAL_DEMO_BUILD, VERNAL_DEMO_INSTALLED})
        if (QFileInfo::exists(QString::fromUtf8(place)))
            return QString::fromUtf8(place);
    return {};
}

int main(int argc, char** argv)
{
    QApplication app(argc, argv);
    QApplication::setApplicationName(QStringLiteral("vernal-relay"));
    QApplication::setOrganizationName(QStringLiteral("vernal-relay"));
    QApplication::setApplicationVersion(QStringLiteral(VERNAL_VERSION));
    QCommandLineParser parser;
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addOption({QStringLiteral("demo"), QStringLiteral("Open the demo job.")});
    parser.addOption({QStringLiteral("glare"), QStringLiteral("Begin in the Glare theme.")});
    parser.addPositionalArgument(QStringLiteral("job"), QStringLiteral("A job file to open."));
    parser.process(app);
    vernal::load_fonts();
    vernal::apply_theme(app, parser.isSet(QStringLiteral("glare")) || QSettings().value(QStringLiteral("glare")).toBool());
    vernal::MainWindow window(vernal::Dialogs::usual(), {demo_file(), {}, true});
    window.show();
    if (parser.isSet(QStringLiteral("demo")))
        window.open(demo_file());
    else if (!parser.positionalArguments().isEmpty())
        window.open(parser.positionalArguments().first());
    return QApplication::exec();
}
