// What is remembered of the jobs last open, for the Jobs page.
#pragma once

#include <QDateTime>
#include <QList>
#include <QString>

class QSettings;

namespace vernal {

struct KnownJob {
    QString path;
    QString title = {}, site = {}, arrangement = {}; // empty: of an older program, which kept the path alone
    QDateTime opened = {};
    int severity = -1; // of its worst finding when it was last seen; −1: none was
    QString finding = {};
};

QList<KnownJob> read_known_jobs(const QSettings& settings); // the last one first
// Puts it first; the oldest beyond the most that are kept go.
void keep_known_job(QSettings& settings, const KnownJob& job);

} // namespace vernal
