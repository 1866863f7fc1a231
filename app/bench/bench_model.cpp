#include "bench_model.h"

#include <cmath>

namespace vernal {
namespace {

constexpr int tick_ms = 50;
constexpr double keep_s = 3600;

} // namespace

BenchModel::BenchModel(Session& session, QObject* parent) : QObject(parent), session_(session)
{
    clock_.setInterval(tick_ms);
    connect(&clock_, &QTimer::timeout, this, &BenchModel::tick);
    for (auto signal : {&Document::changed, &Document::view_changed})
        connect(&session.document(), signal, this, [this] {
            stale_ = true;
            if (visible_)
                remake();
        });
}

void BenchModel::look(bool visible)
{
    visible_ = visible;
    if (visible && stale_)
        remake();
    visible&& speed_ > 0 ? clock_.start() : clock_.stop();
}

void BenchModel::set_speed(int times)
{
    speed_ = times;
    look(visible_);
}

// The same variant on the same day is the same unit: what lies on the bench stays.
void BenchModel::remake()
{
    stale_ = false;
    const Document& d = session_.document();
    if (rig_ && written_ && *written_ == d.variant())
        return;
    run_.reset();
    of_ = nullptr;
    rig_.reset();
    recorded_.clear();
    procedures_.clear();
    trouble_.clear();
    written_ = d.variant();
    Day day = d.day().kind == DayKind::generated ? d.day() : d.job().days.front();
    day.faults.clear(); // of the bench are those that are put in by hand
    auto rig = Rig::make(d.job(), *written_, day);
    if (rig)
        rig_.emplace(std::move(*rig));
    else
        trouble_ = qs(rig.error().text());
    for (const Procedure& p : shipped_procedures())
        if (rig_ && applies(p, *written_))
            procedures_.push_back(&p);
    emit remade();
    emit ticked();
}

void BenchModel::begin(const Procedure& p)
{
    if (!rig_)
        return;
    of_ = &p;
    run_.emplace(p, *written_, *rig_);
    emit ticked();
}

void BenchModel::leave()
{
    run_.reset();
    of_ = nullptr;
    if (rig_)
        rig_->all_automatic();
    emit ticked();
}

void BenchModel::not_possible(const QString& reason)
{
    if (run_)
        run_->skip(reason.toStdString());
    emit ticked();
}

void BenchModel::tick()
{
    if (!rig_)
        return;
    go_on(speed_ * tick_ms / 1000.0);
    emit ticked();
}

void BenchModel::go_on(double seconds)
{
    constexpr double each_s = 2; // a row of the recorder
    const double sample_s = rig_->sample_s();
    for (owed_s_ += seconds; owed_s_ >= sample_s;) { // the unit looks once a sample: what is less waits for the next tick
        const double dt = std::max(sample_s, std::floor(std::min(owed_s_, each_s) / sample_s) * sample_s);
        if (!run_ || !run_->advance(dt))
            rig_->advance(dt);
        owed_s_ -= dt;
        if (!recorded_.empty() && rig_->now_s() - recorded_.back().time_s < each_s - 1e-6)
            continue;
        Sample s;
        s.time_s = rig_->now_s();
        for (std::size_t p = 0; p < rig_->probes(); ++p)
            s.reads.push_back(rig_->reading(p).valid && reads_temperature(written_->probes[p]) ? static_cast<float>(rig_->reading(p).mk) / 1000.F : NAN);
        for (std::size_t o = 0; o < rig_->outputs(); ++o)
            s.turns |= rig_->turns(o) ? 1U << o : 0U;
        recorded_.push_back(std::move(s));
        while (recorded_.back().time_s - recorded_.front().time_s > keep_s)
            recorded_.pop_front();
    }
}

} // namespace vernal
