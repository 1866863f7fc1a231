// The bench as the station sees it: one rig of the variant in hand, its time going on while
// somebody looks, and the procedure under way.
#pragma once

#include "app/shell/session.h"
#include "core/bench/procedure_run.h"

#include <QTimer>

#include <deque>

namespace vernal {

class BenchModel : public QObject {
    Q_OBJECT
public:
    BenchModel(Session& session, QObject* parent);
    Rig* rig() { return rig_ ? &*rig_ : nullptr; } // null: it cannot be run, see trouble()
    const QString& trouble() const { return trouble_; }
    void look(bool visible); // time goes on only then

    int speed() const { return speed_; }
    void set_speed(int times); // 1, 10, 60 or 600 times the clock; 0: it stands

    // Those that apply to this unit.
    const std::vector<const Procedure*>& procedures() const { return procedures_; }
    const ProcedureRun* run() const { return run_ ? &*run_ : nullptr; }
    const Procedure* procedure() const { return of_; }
    void begin(const Procedure& p);
    void leave();
    void not_possible(const QString& reason);

    // What was read, the last ten minutes at least.
    struct Sample {
        double time_s = 0;
        std::vector<float> reads; // by probe, °C; NaN: none
        std::uint32_t turns = 0;
    };
    const std::deque<Sample>& recorded() const { return recorded_; }
    void touched() { emit ticked(); } // something was moved by hand

signals:
    void remade(); // another unit lies there
    void ticked();

private:
    void remake();
    void tick();
    void go_on(double seconds);
    Session& session_;
    std::optional<Variant> written_; // outlives the run
    std::optional<Rig> rig_;
    std::optional<ProcedureRun> run_;
    std::vector<const Procedure*> procedures_;
    const Procedure* of_ = nullptr;
    std::deque<Sample> recorded_;
    QTimer clock_;
    QString trouble_;
    double owed_s_ = 0; // of the rig's time, less than a sample
    int speed_ = 10;
    bool visible_ = false, stale_ = true;
};

} // namespace vernal
