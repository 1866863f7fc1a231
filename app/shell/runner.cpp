#include "runner.h"

#include <QMetaObject>
#include <QTimer>

namespace vernal {
namespace {

constexpr int grace_ms = 100;

} // namespace

Runner::Runner(QObject* parent)
    : QObject(parent), runs_({[this](std::shared_ptr<const Outcome> o) { QMetaObject::invokeMethod(
                                                                             this, [this, o] { emit begun(o); }, Qt::QueuedConnection); },
                           [this](std::shared_ptr<const Outcome> o) { QMetaObject::invokeMethod(
                                                                          this, [this, o] { emit finished(o); }, Qt::QueuedConnection); },
                           [this](std::shared_ptr<const Verdict> v) { QMetaObject::invokeMethod(
                                                                          this, [this, v] { emit judged(v); }, Qt::QueuedConnection); }})
{
}

quint64 Runner::request(RunRequest r)
{
    const quint64 id = runs_.request(std::move(r));
    QTimer::singleShot(grace_ms, this, [this, id] { runs_.hurry(id); });
    return id;
}

} // namespace vernal
