#include "recovery.h"

#include "files/disk.h"
#include "session.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QStandardPaths>

namespace vernal {
namespace {

constexpr int behind_ms = 1000; // of the two seconds promised, half for writing

std::string base_of(const LeftBehind& left) { return (QFileInfo(left.copy).path() + QLatin1Char('/') + QFileInfo(left.copy).completeBaseName()).toStdString(); }

bool still_runs(qint64 pid) { return QFileInfo::exists(QStringLiteral("/proc/%1/stat").arg(pid)); }

} // namespace

Recovery::Recovery(Document& document, const QString& folder, QObject* parent)
    : QObject(parent), document_(document), copy_((folder + QStringLiteral("/%1").arg(QCoreApplication::applicationPid())).toStdString())
{
    timer_.setSingleShot(true);
    connect(&timer_, &QTimer::timeout, this, &Recovery::write_now);
    look_.setSingleShot(true);
    connect(&look_, &QTimer::timeout, this, [this] {
        const auto failure = copy_.failure();
        emit failed(failure ? qs(failure->text()) : QString());
    });
    // Not restarted by later edits: the copy is never more than one period behind.
    connect(&document_, &Document::changed, this, [this] {
        if (!timer_.isActive())
            timer_.start(behind_ms);
    });
    connect(&document_, &Document::path_changed, this, [this] {
        if (!document_.unsaved())
            remove();
    });
}

void Recovery::write_now()
{
    if (!document_.unsaved())
        return remove();
    copy_.write(document_.job(), document_.path().toStdString());
    look_.start(behind_ms);
}

QList<LeftBehind> Recovery::left_behind(const QString& folder)
{
    QList<LeftBehind> out;
    for (const QFileInfo& f : QDir(folder).entryInfoList({QStringLiteral("*.vrelay")}, QDir::Files, QDir::Time)) {
        if (still_runs(f.completeBaseName().toLongLong()))
            continue;
        const auto path = read_file((f.path() + QLatin1Char('/') + f.completeBaseName() + QStringLiteral(".path")).toStdString());
        out.append({f.filePath(), path ? qs(*path) : QString()});
    }
    return out;
}

Result<OpenedJob> Recovery::open(const LeftBehind& left) { return RecoveryCopy::open(base_of(left)); }

void Recovery::discard(const LeftBehind& left) { RecoveryCopy::discard(base_of(left)); }

QString Recovery::usual_folder() { return QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/recovery"); }

} // namespace vernal
