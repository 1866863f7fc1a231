#include "job_files.h"

#include "core/visit/keeping.h"
#include "files/job_file.h"

#include <QCryptographicHash>
#include <QDir>
#include <QFileInfo>
#include <QSettings>

#include <sys/stat.h>
#include <utility>

namespace vernal {
namespace {

QString notices_text(const OpenedJob& opened)
{
    QStringList out;
    for (const std::string& n : opened.notices)
        out << qs(n);
    return out.join(QStringLiteral("\n\n"));
}

} // namespace

JobFiles::JobFiles(Session& session, const Dialogs& dialogs, Options options, QWidget* window)
    : QObject(window), session_(session), dialogs_(dialogs), options_(std::move(options)), recovery_(session.document(), options_.recovery_folder), window_(window)
{
    connect(&recovery_, &Recovery::failed, this, [this](const QString& why) {
        if (std::exchange(failure_, why) != why && !why.isEmpty())
            emit told(tr("Unsaved work cannot be kept safe: %1").arg(why));
    });
}

bool JobFiles::may_leave()
{
    note();
    if (!session_.document().unsaved())
        return true;
    const Dialogs::Unsaved answer = dialogs_.unsaved(window_);
    return answer == Dialogs::Unsaved::drop || (answer == Dialogs::Unsaved::save && save());
}

bool JobFiles::open(const QString& wanted)
{
    const QString path = wanted.isEmpty() ? dialogs_.open_file(window_) : wanted;
    if (path.isEmpty() || !may_leave())
        return false;
    return load(path);
}

bool JobFiles::load(const QString& path)
{
    const Stamp stamp = stamp_of(path);
    auto job = open_job_file(path.toStdString());
    if (!job) {
        tell(qs(job.error().text()));
        return false;
    }
    session_.document().set_job(std::move(job->job), path, {false, job->newer()});
    belongs_to(path);
    stamp_ = stamp;
    note();
    emit opened();
    if (!job->notices.empty())
        tell(notices_text(*job));
    return true;
}

void JobFiles::recover(const LeftBehind& left)
{
    auto job = Recovery::open(left);
    if (!job)
        return tell(qs(job.error().text()));
    session_.document().set_job(std::move(job->job), left.original, {true, job->newer()});
    belongs_to(left.original);
    recovery_.write_now();
    recovery_.wait(); // the new copy stands before the old one goes
    Recovery::discard(left);
    emit opened();
    if (!job->notices.empty())
        tell(notices_text(*job));
}

bool JobFiles::write(const QString& path)
{
    if (session_.document().newer() && QFileInfo(path) == QFileInfo(session_.document().path())) {
        tell(tr("This file is of a newer program and stays as it is. Save the job under another name."));
        return false;
    }
    if (QFileInfo(path) == QFileInfo(session_.document().path()) && stamp_of(path) != stamp_ && QFileInfo::exists(path) && stamp_.bytes >= 0)
        switch (dialogs_.changed(window_, path)) {
        case Dialogs::Changed::keep_mine: break;
        case Dialogs::Changed::take_theirs: return load(path);
        case Dialogs::Changed::save_beside: return save_beside();
        case Dialogs::Changed::take_visits:
            if (!take_visits_of(path))
                return false;
            break;
        case Dialogs::Changed::cancel: return false;
        }
    const auto done = save_job(session_.document().job(), path.toStdString());
    if (!done) {
        tell(qs(done.error().text()));
        return false;
    }
    session_.document().saved_as(path);
    belongs_to(path);
    stamp_ = stamp_of(path);
    note();
    return true;
}

// What the other file's logbook has and this one lacks.
bool JobFiles::take_visits_of(const QString& path)
{
    const auto theirs = open_job(path.toStdString());
    if (!theirs) {
        tell(qs(theirs.error().text()));
        return false;
    }
    TakenOver taken;
    session_.document().edit(tr("Take over visits"), [&](Job& j) { taken = take_visits(j, *theirs); });
    QString said = tr("%1 visits and %2 amendments were taken over.").arg(taken.visits).arg(taken.amendments);
    for (const std::string& d : taken.differ)
        said += tr(" The visit of %1 stood in both otherwise: both are kept.").arg(qs(d));
    emit told(said);
    return true;
}

// Seen when the window gets the focus again, not only when it is saved.
void JobFiles::look_at_file()
{
    const QString path = session_.document().path();
    if (path.isEmpty() || must_be_renamed() || stamp_.bytes < 0 || told_stamp_ == stamp_of(path) || stamp_of(path) == stamp_ || !QFileInfo::exists(path))
        return;
    told_stamp_ = stamp_of(path);
    switch (dialogs_.changed(window_, path)) {
    case Dialogs::Changed::take_theirs: load(path); break;
    case Dialogs::Changed::take_visits:
        if (take_visits_of(path))
            stamp_ = told_stamp_; // what is there is in here now
        break;
    case Dialogs::Changed::save_beside: save_beside(); break;
    case Dialogs::Changed::keep_mine:
    case Dialogs::Changed::cancel: break; // asked again when it is saved
    }
}

// Under the first free name in the same folder.
bool JobFiles::save_beside()
{
    const QFileInfo file(session_.document().path());
    for (int n = 2;; ++n) {
        const QString path = QStringLiteral("%1/%2 (%3).%4").arg(file.absolutePath(), file.completeBaseName()).arg(n).arg(file.suffix());
        if (!QFileInfo::exists(path))
            return write(path);
    }
}

JobFiles::Stamp JobFiles::stamp_of(const QString& path)
{
    struct stat s {};
    if (path.isEmpty() || ::stat(path.toStdString().c_str(), &s) != 0)
        return {};
    return {static_cast<qint64>(s.st_ino), static_cast<qint64>(s.st_size), static_cast<qint64>(s.st_mtim.tv_sec) * 1'000'000'000 + s.st_mtim.tv_nsec};
}

void JobFiles::left()
{
    lock_.reset();
    stamp_ = {};
}

void JobFiles::belongs_to(const QString& path)
{
    left();
    if (path.isEmpty() || is_demo(path))
        return;
    const QString whole = QFileInfo(path).canonicalFilePath().isEmpty() ? QFileInfo(path).absoluteFilePath() : QFileInfo(path).canonicalFilePath();
    const QString folder = options_.recovery_folder + QStringLiteral("/open");
    QDir().mkpath(folder);
    lock_ = std::make_unique<QLockFile>(folder + QLatin1Char('/') + QString::fromLatin1(QCryptographicHash::hash(whole.toUtf8(), QCryptographicHash::Sha1).toHex()));
    lock_->setStaleLockTime(0); // as long as its program runs
    if (lock_->tryLock(0) || lock_->error() != QLockFile::LockFailedError)
        return;
    lock_.reset();
    tell(tr("%1 is open in another window as well. What is saved there and here does not come together: close one of the two, or save this one under another name.").arg(path));
}

bool JobFiles::is_demo(const QString& path) const
{
    return !options_.demo.isEmpty() && !path.isEmpty() && QFileInfo(path).absoluteFilePath().startsWith(QFileInfo(QFileInfo(options_.demo).absolutePath()).absolutePath() + QLatin1Char('/'));
}

bool JobFiles::must_be_renamed() const
{
    const Document& d = session_.document();
    return d.path().isEmpty() || d.newer() || is_demo(d.path());
}

bool JobFiles::save() { return must_be_renamed() ? save_as() : write(session_.document().path()); }

bool JobFiles::save_as()
{
    const QString suggestion = must_be_renamed() ? qs(session_.document().job().title) + QStringLiteral(".vrelay") : session_.document().path();
    const QString path = dialogs_.save_file(window_, suggestion);
    return !path.isEmpty() && write(QFileInfo(path).suffix().isEmpty() ? path + QStringLiteral(".vrelay") : path);
}

QList<KnownJob> JobFiles::known() const { return options_.remember ? read_known_jobs(QSettings()) : QList<KnownJob>(); }

void JobFiles::note()
{
    const Document& d = session_.document();
    if (!options_.remember || d.path().isEmpty() || is_demo(d.path()))
        return;
    KnownJob job{d.path(), qs(d.job().title), qs(d.job().site.name), qs(answers_text(d.variant().loop.answers)), QDateTime::currentDateTime()};
    if (const auto& found = session_.findings(); session_.settled() && !found.empty()) {
        job.severity = static_cast<int>(found.front().severity);
        job.finding = qs(found.front().title);
    }
    QSettings settings;
    keep_known_job(settings, job);
}

} // namespace vernal
