#include "document.h"

#include "core/job/field_path.h"
#include "core/job/ids.h"
#include "core/job/job_check.h"
#include "core/visit/keeping.h"

#include <QDateTime>
#include <QUndoCommand>

#include <algorithm>

namespace vernal {
namespace {

constexpr QLatin1String lasting_key("#"); // in the key of edits that merge after any time

} // namespace

// Keeps the whole job before and after: it is a few kilobytes (traces are shared),
// and nothing can be forgotten.
class EditCommand : public QUndoCommand {
public:
    EditCommand(Document& owner, Job before, Job after, const QString& label, QString merge_key)
        : QUndoCommand(label), document_(owner), before_(std::move(before)), after_(std::move(after)), key_(std::move(merge_key)), at_ms_(QDateTime::currentMSecsSinceEpoch())
    {
    }
    int id() const override { return 1; }
    void undo() override { document_.put(before_); }
    void redo() override { document_.put(after_); }
    bool mergeWith(const QUndoCommand* other) override
    {
        const auto& next = static_cast<const EditCommand&>(*other);
        if (key_.isEmpty() || next.key_ != key_ || (next.at_ms_ - at_ms_ > 1000 && !key_.contains(lasting_key)))
            return false;
        after_ = next.after_;
        at_ms_ = next.at_ms_;
        setObsolete(after_ == before_); // typed and taken back
        return true;
    }

private:
    Document& document_;
    Job before_, after_;
    QString key_;
    qint64 at_ms_;
};

QString lasting_merge(int sitting) { return lasting_key + QString::number(sitting); }

Document::Document(QObject* parent) : QObject(parent), job_(new_job("glycol-coil")) {}

void Document::choose_variant(std::size_t index)
{
    if (!may_turn || may_turn())
        variant_ = std::min(index, job_.variants.size() - 1);
    emit view_changed();
}

void Document::choose_day(std::size_t index)
{
    if (!may_turn || may_turn())
        day_ = std::min(index, job_.days.size() - 1);
    emit view_changed();
}

void Document::choose_baseline(std::size_t index)
{
    baseline_ = std::min(index, job_.variants.size() - 1);
    emit view_changed();
}

void Document::set_job(Job job, const QString& path, Origin origin)
{
    job_ = std::move(job);
    path_ = path;
    recovered_ = origin.recovered;
    newer_ = origin.newer;
    variant_ = job_.variants.size() - 1; // the newest proposal
    day_ = baseline_ = 0;
    undo_.clear();
    emit changed();
    emit path_changed();
}

void Document::saved_as(const QString& path)
{
    path_ = path;
    recovered_ = newer_ = false;
    undo_.setClean();
    emit path_changed();
}

void Document::edit(const QString& label, const std::function<void(Job&)>& change, const QString& merge_key)
{
    Job after = job_;
    change(after);
    give_ids(after, NewFrom::edit);
    if (after == job_)
        return;
    if (const auto problem = job_problem(after); problem && !job_problem(job_)) {
        emit refused(QString::fromStdString(Error{problem->what, "", problem->remedy}.text()));
        emit changed(); // editors show what stands
        return;
    }
    if (const std::string why = touches_closed(job_.logbook, after.logbook); !why.empty()) {
        emit refused(QString::fromStdString(why));
        emit changed();
        return;
    }
    undo_.push(new EditCommand(*this, job_, std::move(after), label, merge_key));
}

void Document::edit_variant(const QString& label, const std::function<void(Variant&)>& change, const QString& merge_key)
{
    edit(
        label, [&](Job& j) { change(j.variants[variant_]); }, merge_key.isEmpty() ? merge_key : merge_key + QString::number(variant_));
}

void Document::edit_day(const QString& label, const std::function<void(Day&)>& change, const QString& merge_key)
{
    edit(
        label, [&](Job& j) { change(j.days[day_]); }, merge_key.isEmpty() ? merge_key : merge_key + QString::number(day_));
}

void Document::set(const QString& label, const std::string& path, double value, int sitting)
{
    const QString key = QString::fromStdString(variant().id + "/" + path);
    edit(
        label, [&](Job& j) { set_setting(j, variant_, path, value); }, sitting == 0 ? key : key + lasting_merge(sitting));
}

void Document::set(const QString& label, const std::string& path, const std::string& value)
{
    edit(label, [&](Job& j) { set_setting(j, variant_, path, value); });
}

void Document::put(const Job& job)
{
    job_ = job;
    variant_ = std::min(variant_, job_.variants.size() - 1);
    baseline_ = std::min(baseline_, job_.variants.size() - 1);
    day_ = std::min(day_, job_.days.size() - 1);
    emit changed();
}

} // namespace vernal
