#include "recovery.h"

#include "files/attachment.h"
#include "files/disk.h"
#include "session.h"

#include <QCoreApplication>
#include <QFile>
#include <QFileInfo>
#include <QStandardPaths>
#include <QThreadPool>

namespace vernal {
namespace {

constexpr int behind_ms = 1000; // of the two seconds promised, half for writing

// Beside the copy: the content of attachments, a file each, written once.
QString attachments_of(const QString& base) { return base + QStringLiteral(".attachments"); }

QString base_of(const LeftBehind& left) { return QFileInfo(left.copy).path() + QLatin1Char('/') + QFileInfo(left.copy).completeBaseName(); }

bool still_runs(qint64 pid) { return QFileInfo::exists(QStringLiteral("/proc/%1/stat").arg(pid)); }

} // namespace

Recovery::Recovery(Document& document, const QString& folder, QObject* parent) : QObject(parent), document_(document), folder_(folder)
{
    QDir().mkpath(folder_);
    timer_.setSingleShot(true);
    connect(&timer_, &QTimer::timeout, this, &Recovery::write_now);
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

Recovery::~Recovery() { remove(); }

QString Recovery::base() const { return folder_ + QStringLiteral("/%1").arg(QCoreApplication::applicationPid()); }

void Recovery::write_now()
{
    if (!document_.unsaved())
        return remove();
    QThreadPool::globalInstance()->start([shared = shared_, id = ++shared_->newest, job = document_.job(), base = base().toStdString(), path = document_.path().toStdString()] {
        const auto bytes = pack_job(job, Packed::without_attachments);
        const std::lock_guard lock(shared->mutex);
        if (!bytes || id != shared->newest)
            return; // a newer copy, or a save, has overtaken this one
        save_attachments(job, base + ".attachments");
        write_file_atomically(base + ".path", path);
        write_file_atomically(base + ".vrelay", *bytes);
    });
}

void Recovery::remove()
{
    ++shared_->newest;
    const std::lock_guard lock(shared_->mutex);
    QFile::remove(base() + QStringLiteral(".vrelay"));
    QFile::remove(base() + QStringLiteral(".path"));
    QDir(attachments_of(base())).removeRecursively();
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

Result<OpenedJob> Recovery::open(const LeftBehind& left)
{
    auto opened = open_job_file(left.copy.toStdString());
    if (!opened)
        return opened;
    const QDir folder(attachments_of(base_of(left)));
    opened->notices = fill_attachments(opened->job, [&](const std::string& sha256) -> std::optional<std::string> {
        const auto content = read_file(folder.filePath(qs(sha256)).toStdString());
        return content ? std::optional(*content) : std::nullopt;
    });
    return opened;
}

void Recovery::discard(const LeftBehind& left)
{
    QFile::remove(left.copy);
    QFile::remove(base_of(left) + QStringLiteral(".path"));
    QDir(attachments_of(base_of(left))).removeRecursively();
}

QString Recovery::usual_folder() { return QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/recovery"); }

} // namespace vernal
