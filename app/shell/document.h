// The job being edited: the only place that changes it, through undo commands.
#pragma once

#include "core/job/job.h"

#include <QObject>
#include <QUndoStack>

#include <functional>

namespace vernal {

// End of a merge key for the edits of one typing: they become one after any time.
QString lasting_merge(int sitting);

class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr);

    const Job& job() const { return job_; }
    QUndoStack& undo_stack() { return undo_; }
    QString path() const { return path_; }
    bool unsaved() const { return !undo_.isClean() || recovered_; }
    bool newer() const { return newer_; } // the file at path() is of a newer format: never written over

    // Per-job view state, not undone and not saved in the job: what is looked at.
    std::size_t variant_index() const { return variant_; }
    std::size_t day_index() const { return day_; }
    std::size_t baseline_index() const { return baseline_; } // variant compared with
    const Variant& variant() const { return job_.variants[variant_]; }
    const Day& day() const { return job_.days[day_]; }
    // Asked before another variant or day is looked at; false: it is not.
    std::function<bool()> may_turn;
    void choose_variant(std::size_t index);
    void choose_day(std::size_t index);
    void choose_baseline(std::size_t index);

    // Replaces everything; the undo history begins anew. path may be empty.
    struct Origin {
        bool recovered = false, newer = false;
    };
    void set_job(Job job, const QString& path, Origin origin);
    void set_job(Job job, const QString& path) { set_job(std::move(job), path, {}); }
    void saved_as(const QString& path);

    // One undoable edit. One that would make a job which job_problem() complains of is
    // refused(). Edits with the same non-empty merge key that follow each
    // other within a second become one (a dragged line, a held key).
    void edit(const QString& label, const std::function<void(Job&)>& change, const QString& merge_key = {});
    void edit_variant(const QString& label, const std::function<void(Variant&)>& change, const QString& merge_key = {});
    void edit_day(const QString& label, const std::function<void(Day&)>& change, const QString& merge_key = {});

    // One setting of the chosen variant by its path (core/job/field_path.h); edits of
    // the same setting that follow each other become one. A value it cannot have
    // changes nothing: editors check before. sitting: of one typing, whose edits become
    // one however long it takes; 0: none.
    void set(const QString& label, const std::string& path, double value, int sitting = 0);
    void set(const QString& label, const std::string& path, const std::string& value);

signals:
    void changed();      // job values, by edit, undo or load
    void view_changed(); // chosen variant, day or comparison
    void path_changed();
    void refused(const QString& why);

private:
    friend class EditCommand;
    void put(const Job& job);
    Job job_;
    QUndoStack undo_;
    QString path_;
    bool recovered_ = false, newer_ = false;
    std::size_t variant_ = 0, day_ = 0, baseline_ = 0;
};

} // namespace vernal
