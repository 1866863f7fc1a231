#include "known_jobs.h"

#include <QSettings>

namespace vernal {
namespace {

constexpr int most_kept = 8;

} // namespace

QList<KnownJob> read_known_jobs(const QSettings& settings)
{
    QList<KnownJob> out;
    for (const QString& path : settings.value(QStringLiteral("recent")).toStringList()) {
        const QVariantMap m = settings.value(QStringLiteral("known")).toMap().value(path).toMap();
        out.append({path, m.value(QStringLiteral("title")).toString(), m.value(QStringLiteral("site")).toString(), m.value(QStringLiteral("arrangement")).toString(), m.value(QStringLiteral("opened")).toDateTime(), m.value(QStringLiteral("severity"), -1).toInt(), m.value(QStringLiteral("finding")).toString()});
    }
    return out;
}

void keep_known_job(QSettings& settings, const KnownJob& job)
{
    QStringList paths = settings.value(QStringLiteral("recent")).toStringList();
    paths.removeAll(job.path);
    paths.prepend(job.path);
    paths = paths.mid(0, most_kept);
    QVariantMap known = settings.value(QStringLiteral("known")).toMap(), kept;
    known[job.path] = QVariantMap{{QStringLiteral("title"), job.title}, {QStringLiteral("site"), job.site}, {QStringLiteral("arrangement"), job.arrangement}, {QStringLiteral("opened"), job.opened}, {QStringLiteral("severity"), job.severity}, {QStringLiteral("finding"), job.finding}};
    for (const QString& path : paths)
        kept[path] = known.value(path);
    settings.setValue(QStringLiteral("recent"), paths);
    settings.setValue(QStringLiteral("known"), kept);
}

} // namespace vernal
