#include "job_files.h"

#include "files/job_file.h"

#include <QFileInfo>
#include <QSettings>

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
}

bool JobFiles::may_leave()
{
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
    auto job = open_job_file(path.toStdString());
    if (!job) {
        tell(qs(job.error().text()));
        return false;
    }
    session_.document().set_job(std::move(job->job), path, {false, job->newer()});
    remember(path);
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
    const auto done = save_job(session_.document().job(), path.toStdString());
    if (!done) {
        tell(qs(done.error().text()));
        return false;
    }
    session_.document().saved_as(path);
    remember(path);
    return true;
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

QStringList JobFiles::recent() const { return options_.remember ? QSettings().value(QStringLiteral("recent")).toStringList() : QStringList(); }

void JobFiles::remember(const QString& path)
{
    if (!options_.remember || is_demo(path))
        return;
    QStringList all = recent();
    all.removeAll(path);
    all.prepend(path);
    QSettings().setValue(QStringLiteral("recent"), all.mid(0, 6));
}

} // namespace vernal
