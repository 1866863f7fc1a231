// The bench as the station sees it: one rig of the variant in hand, its time going on while
// somebody looks, and the procedure under way.
#pragma once

#include "bench_sample.h"

#include "app/shell/session.h"
#include "core/bench/bench_faults.h"
#include "core/bench/procedure_run.h"

#include <QTimer>

#include <deque>
#include <map>

namespace vernal {

class WireLink;

class BenchModel : public QObject {
    Q_OBJECT
public:
    BenchModel(Session& session, QObject* parent);
    Rig* rig() { return rig_ ? &*rig_ : nullptr; } // null: it cannot be run, see trouble()
    const QString& trouble() const { return trouble_; }
    void look(bool visible); // time goes on only then

    int speed() const { return speed_; }
    void set_speed(int times); // 1, 10, 60 or 600 times the clock; 0: it stands

    // What can be wrong with this unit, and which of it is; −1: nothing. Another one is another unit.
    const std::vector<BenchFault>& faults() const { return faults_; }
    int fault() const { return fault_; }
    void put_fault(int index);

    // Those that apply to this unit, then the job's own.
    const std::vector<const Procedure*>& procedures() const { return procedures_; }
    // A procedure of one's own, kept in the job; else what is wrong with its text.
    std::optional<Error> add_procedure(const QString& file, const std::string& text);
    const ProcedureRun* run() const { return run_.get(); }
    const Procedure* procedure() const { return of_; }
    void begin(const Procedure& p);
    void leave();                              // it can be resumed
    bool can_resume(const Procedure& p) const; // it was left before its end
    void resume(const Procedure& p);
    void repeat(); // the step before
    void put_away();
    void not_possible(const QString& reason);
    void read_by_hand(bool on); // typed
    bool by_hand() const { return by_hand_; }
    void answer(double typed);
    // Procedures that begin read the unit on the wire, while one is joined; the rig keeps the time.
    void set_wire(WireLink& link);
    bool can_read_unit() const; // it is joined
    void read_unit(bool on) { at_unit_ = on; }
    bool at_unit() const { return at_unit_ && can_read_unit(); }
    // The newest test of this procedure that the job has of this variant; null: none.
    const BenchRecord* last_of(const Procedure& p) const;

    // What was read, the last ten minutes at least.
    const std::deque<BenchSample>& recorded() const { return recorded_; }
    void touched() { emit ticked(); } // something was moved by hand

signals:
    void remade(); // another unit lies there
    void ticked();
    void switched(std::uint32_t turns);  // an output has, bit per output: it is on
    void left_alone(const QString& why); // the procedure under way was left

private:
    void remake();
    void collect_procedures();
    void keep();
    void follow_link();
    void tick();
    void go_on(double seconds);
    Session& session_;
    WireLink* link_ = nullptr;
    std::optional<Variant> written_; // outlives the run
    std::optional<Rig> rig_;
    std::unique_ptr<ProcedureRun> run_;
    std::map<const Procedure*, std::unique_ptr<ProcedureRun>> left_;
    std::vector<const Procedure*> procedures_;
    std::deque<Procedure> own_; // read from the job's attachments
    std::vector<Attachment> own_from_;
    std::vector<BenchFault> faults_;
    const Procedure* of_ = nullptr;
    std::deque<BenchSample> recorded_;
    QTimer clock_;
    QString trouble_;
    double owed_s_ = 0; // of the rig's time, less than a sample
    int speed_ = 10, fault_ = -1;
    std::uint32_t turned_ = 0;
    bool visible_ = false, stale_ = true, by_hand_ = false, kept_ = false, at_unit_ = false;
};

} // namespace vernal
