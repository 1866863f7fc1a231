#include "stand_in_process.h"

#include "app/shell/session.h"
#include "files/disk.h"
#include "files/job_file.h"
#include "link/map_file.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QRegularExpression>
#include <QStandardPaths>
#include <QTimer>

#include <utility>

namespace vernal {

StandInProcess::StandInProcess(QObject* parent) : QObject(parent) {}

StandInProcess::~StandInProcess()
{
    if (!process_)
        return;
    process_->disconnect(this);
    process_->closeWriteChannel();
    constexpr int soon_ms = 500;
    if (!process_->waitForFinished(soon_ms))
        process_->kill();
    process_->waitForFinished(soon_ms);
}

QString StandInProcess::program()
{
    const QString name = QStringLiteral("vernal-relay-rig"), here = QCoreApplication::applicationDirPath();
    for (const QString& at : {here + QLatin1Char('/') + name, here + QStringLiteral("/../link/") + name})
        if (QFileInfo(at).isExecutable())
            return QFileInfo(at).canonicalFilePath();
    return QStandardPaths::findExecutable(name);
}

void StandInProcess::start(const Job& job, std::size_t variant, const RegisterMap& map, int speed)
{
    stop();
    const QString at = program();
    if (at.isEmpty())
        return void(emit failed(tr("The stand-in is not installed: vernal-relay-rig belongs beside this program.")));
    folder_ = std::make_unique<QTemporaryDir>();
    const std::string job_file = folder_->filePath(QStringLiteral("job.vrelay")).toStdString(), map_file = folder_->filePath(QStringLiteral("unit.map.json")).toStdString();
    const auto saved = save_job(job, job_file);
    const auto mapped = saved ? write_file_atomically(map_file, write_register_map(map)) : saved;
    if (!mapped)
        return void(emit failed(qs(mapped.error().text())));
    listening_ = false;
    process_ = new QProcess(this);
    connect(process_, &QProcess::readyReadStandardOutput, this, &StandInProcess::heard);
    connect(process_, &QProcess::finished, this, [this, p = process_] {
        const QString why = QString::fromUtf8(p->readAllStandardError()).trimmed();
        if (p == process_)
            process_ = nullptr;
        p->deleteLater();
        if (!listening_)
            emit failed(why.isEmpty() ? tr("the stand-in has ended") : why);
        emit ended();
    });
    connect(process_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError e) {
        if (e == QProcess::FailedToStart)
            emit failed(tr("The stand-in cannot be started."));
    });
    process_->start(at, {qs(job_file), QStringLiteral("--variant"), qs(job.variants[variant].name), QStringLiteral("--map"), qs(map_file), QStringLiteral("--tcp"), QStringLiteral("0"), QStringLiteral("--speed"), QString::number(speed)});
}

void StandInProcess::heard()
{
    while (process_ && process_->canReadLine()) {
        const QString line = QString::fromUtf8(process_->readLine()).trimmed();
        static const QRegularExpression where(QStringLiteral("^listens on 127\\.0\\.0\\.1:(\\d+)$"));
        const auto m = where.match(line);
        if (!listening_ && m.hasMatch()) {
            listening_ = true;
            emit listens(m.captured(1).toInt());
        } else if (!line.isEmpty()) {
            emit answered(line);
        }
    }
}

void StandInProcess::say(const QString& words)
{
    if (runs())
        process_->write(words.simplified().toUtf8() + '\n');
}

// It ends when nothing can be said to it any more; nobody waits for that.
void StandInProcess::stop()
{
    if (!process_)
        return;
    QProcess* p = std::exchange(process_, nullptr);
    p->disconnect(this);
    p->setParent(nullptr);
    connect(p, &QProcess::finished, p, &QObject::deleteLater);
    p->closeWriteChannel();
    constexpr int soon_ms = 2000;
    QTimer::singleShot(soon_ms, p, &QProcess::kill);
    emit ended();
}

} // namespace vernal
