// What every station sees besides the document: the newest outcome, the cursor,
// the units. Views talk to this, never to each other.
#pragma once

#include "document.h"
#include "runner.h"

namespace vernal {

struct Audit;

class Session : public QObject {
    Q_OBJECT
public:
    explicit Session(QObject* parent = nullptr);

    Document& document() { return document_; }
    const Units& units() const { return units_; }
    void set_units(const Units& units);
    const std::shared_ptr<const Outcome>& outcome() const { return outcome_; }
    double faults_begin_s() const { return outcome_ ? outcome_->faults_begin_s() : 0.0; } // painted faults count from here
    const Verdict& verdict() const { return *verdict_; }                                  // may be of an earlier outcome while the newest is being judged
    // The verdict's, and what the audit of the day's log shows; most serious first.
    const std::vector<Finding>& findings() const { return findings_; }
    bool settled() const { return outcome_ && outcome_->id == asked_ && outcome_->settled && verdict_->id == asked_; } // nothing is under way
    void restyle();                                                                                                    // colours have changed: all views show the same once more
    double cursor_s() const { return cursor_s_; }
    void set_cursor(double time_s);         // kept within what was run
    bool several_days() const;              // what was run goes beyond its first midnight
    QString cursor_text() const;            // its time, of several days with the day's number
    void step_cursor(bool forward);         // to the switching point after or before it; else to the end
    QString time_text(double time_s) const; // of any instant, likewise
    // "15:04", "day 3, 15:04" as a person types it, s of the run; without a day that of `near_s`. None: it is no time.
    std::optional<double> typed_time(const QString& text, double near_s) const;
    // A stretch that is marked on the strip, for a fault or an edit of a log.
    struct Marked {
        double from_s = 0, to_s = 0;
        bool operator==(const Marked&) const = default;
    };
    const std::optional<Marked>& marked() const { return marked_; }
    void mark(std::optional<Marked> stretch); // put in order, kept within what was run
    // What the audit of the chosen day's log found, of the variant as it is; null: there is none.
    const std::shared_ptr<const Audit>& audit() const { return audit_; }
    void set_audit(std::shared_ptr<const Audit> audit);
    // Index into the outcome at the cursor.
    std::size_t cursor_index() const { return outcome_ ? outcome_->at(cursor_s_) : 0; }

    // Runs the variant with a remedy applied, on the side; answers by previewed().
    void preview(const Remedy& remedy);

signals:
    void strip_due(); // an outcome is there: the strip paints before anything else takes it up
    void outcome_changed();
    void verdict_changed(); // or what an audit shows beside it
    void cursor_changed();
    void units_changed();
    void marked_changed();
    void audit_changed();
    void finding_wanted(const QString& which); // kind, line end, path: shown with its remedy tried
    void previewed(std::shared_ptr<const vernal::Outcome> outcome);

private:
    void run();
    void collect_findings();
    RunRequest request() const;
    Document document_;
    Runner runner_, previewer_;
    Units units_;
    std::optional<RunRequest> last_;
    quint64 asked_ = 0;
    std::shared_ptr<const Outcome> outcome_;
    std::shared_ptr<const Verdict> verdict_ = std::make_shared<const Verdict>();
    double cursor_s_ = 11.2 * 3600;
    std::optional<Marked> marked_;
    std::shared_ptr<const Audit> audit_;
    std::vector<Finding> findings_;
};

QString qs(const std::string& s);
QString text(double inside, Quantity q, const Units& u);
// What a probe reads, given in °C, L/min, bar or W/m².
QString reading_text(const Probe& p, double reading, const Units& u);

} // namespace vernal
