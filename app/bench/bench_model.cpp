#include "bench_model.h"

#include "app/wire/wire_link.h"

#include "files/attachment.h"

#include <QDateTime>

#include <algorithm>
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
    const bool same = written_ && *written_ == d.variant();
    if (rig_ && same && own_from_ == d.job().attachments)
        return;
    run_.reset();
    left_.clear();
    of_ = nullptr;
    if (!same) {
        fault_ = -1;
        written_ = d.variant();
        faults_ = bench_faults(*written_);
        rig_.reset();
    }
    if (!rig_) {
        recorded_.clear();
        trouble_.clear();
        Variant real = *written_;
        Day day = d.day().kind == DayKind::generated ? d.day() : d.job().days.front();
        day.faults.clear(); // of the bench are those that are put in by hand
        OnSite on_site;
        if (fault_ >= 0)
            faults_[static_cast<std::size_t>(fault_)].put(real, day, on_site);
        constexpr double noon_h = 12;
        auto rig = Rig::make(d.job(), real, day, noon_h, on_site);
        if (rig)
            rig_.emplace(std::move(*rig));
        else
            trouble_ = qs(rig.error().text());
        turned_ = 0;
    }
    collect_procedures();
    emit remade();
    emit ticked();
}

void BenchModel::collect_procedures()
{
    own_from_ = session_.document().job().attachments;
    own_.clear();
    for (const Attachment& a : own_from_)
        if (a.bytes && a.name.ends_with(".md"))
            if (auto p = read_procedure(*a.bytes, a.name))
                own_.push_back(std::move(*p));
    procedures_.clear();
    for (const Procedure& p : shipped_procedures())
        if (rig_ && applies(p, *written_))
            procedures_.push_back(&p);
    for (const Procedure& p : own_)
        if (rig_ && applies(p, *written_))
            procedures_.push_back(&p);
}

void BenchModel::put_fault(int index)
{
    if (index == fault_ || index >= static_cast<int>(faults_.size()) || !written_)
        return;
    fault_ = index;
    rig_.reset();
    remake();
}

std::optional<Error> BenchModel::add_procedure(const QString& file, const std::string& text)
{
    const auto p = read_procedure(text, file.toStdString());
    if (!p)
        return p.error();
    for (const Procedure& other : shipped_procedures())
        if (other.name == p->name)
            return Error{"a procedure “" + p->name + "” ships with the program", file.toStdString(), "Give it another name: in its front part"};
    const Attachment a = make_attachment(p->name + ".md", text);
    session_.document().edit(tr("Procedure %1").arg(qs(p->title)), [&](Job& j) { keep_attachment(j, a); });
    if (!applies(*p, *written_))
        return Error{"it is kept with the job, but this unit has nothing of the kind that it needs", file.toStdString(), ""};
    return {};
}

void BenchModel::begin(const Procedure& p)
{
    if (!rig_)
        return;
    left_.erase(&p);
    of_ = &p;
    kept_ = false;
    run_ = std::make_unique<ProcedureRun>(p, *written_, *rig_);
    run_->attended(true, by_hand_);
    if (at_unit())
        run_->on_unit(seen_of(link_->map(), link_->image(), *written_));
    emit ticked();
}

void BenchModel::set_wire(WireLink& link)
{
    link_ = &link;
    connect(&link, &WireLink::changed, this, &BenchModel::follow_link);
}

bool BenchModel::can_read_unit() const { return link_ && link_->state() == WireLink::State::joined; }

void BenchModel::follow_link()
{
    if (run_ && run_->is_on_unit() && run_->step() < run_->result().steps.size()) {
        if (can_read_unit()) {
            run_->on_unit(seen_of(link_->map(), link_->image(), *written_));
        } else {
            leave();
            emit left_alone(tr("The link to the unit was lost: the procedure was left, and can be resumed."));
        }
    }
    emit ticked();
}

void BenchModel::leave()
{
    if (run_ && run_->step() < run_->result().steps.size()) {
        run_->leave();
        left_[of_] = std::move(run_);
    } else if (rig_) {
        rig_->all_automatic();
    }
    run_.reset();
    of_ = nullptr;
    emit ticked();
}

bool BenchModel::can_resume(const Procedure& p) const
{
    const auto it = left_.find(&p);
    return it != left_.end() && (!it->second->is_on_unit() || can_read_unit());
}

void BenchModel::resume(const Procedure& p)
{
    const auto it = left_.find(&p);
    if (it == left_.end() || (it->second->is_on_unit() && !can_read_unit()))
        return;
    run_ = std::move(it->second);
    left_.erase(it);
    of_ = &p;
    kept_ = false;
    run_->resume();
    follow_link();
}

void BenchModel::repeat()
{
    if (run_ && run_->repeat())
        kept_ = false;
    emit ticked();
}

void BenchModel::not_possible(const QString& reason)
{
    if (run_)
        run_->skip(reason.toStdString());
    keep();
    emit ticked();
}

void BenchModel::read_by_hand(bool on)
{
    by_hand_ = on;
    if (run_)
        run_->attended(true, on);
    emit ticked();
}

void BenchModel::answer(double typed)
{
    if (run_)
        run_->answer(typed);
    if (rig_)
        go_on(rig_->sample_s());
    emit ticked();
}

const BenchRecord* BenchModel::last_of(const Procedure& p) const
{
    const auto& all = session_.document().job().bench;
    for (auto it = all.rbegin(); it != all.rend(); ++it)
        if (it->procedure == p.name && written_ && it->variant == written_->id)
            return &*it;
    return nullptr;
}

// What has come to its end stands in the job from then on; with a fault put in it is practice.
void BenchModel::keep()
{
    if (!run_ || kept_ || (fault_ >= 0 && !run_->is_on_unit()) || run_->step() < run_->result().steps.size())
        return;
    kept_ = true;
    BenchRecord record = record_of(run_->result(), of_->title, QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm")).toStdString(), written_->id);
    record.read_at = run_->is_on_unit() ? ReadAt::wire : ReadAt::rig;
    session_.document().edit(tr("Test: %1").arg(qs(of_->title)), [&](Job& j) { j.bench.push_back(record); });
}

void BenchModel::tick()
{
    if (!rig_)
        return;
    go_on((run_ && run_->is_on_unit() ? 1 : speed_) * tick_ms / 1000.0);
    emit ticked();
}

void BenchModel::go_on(double seconds)
{
    constexpr double each_s = 2; // a row of the recorder
    const double sample_s = rig_->sample_s();
    for (owed_s_ += seconds; owed_s_ >= sample_s;) { // the unit looks once a sample: what is less waits for the next tick
        const double dt = std::max(sample_s, std::floor(std::min(owed_s_, each_s) / sample_s) * sample_s);
        if (!run_ || !run_->advance(dt)) {
            keep();
            rig_->advance(dt);
        }
        owed_s_ -= dt;
        if (!recorded_.empty() && rig_->now_s() - recorded_.back().time_s < each_s - 1e-6)
            continue;
        BenchSample s;
        s.time_s = rig_->now_s();
        for (std::size_t p = 0; p < rig_->probes(); ++p)
            s.reads.push_back(rig_->reading(p).valid && reads_temperature(written_->probes[p]) ? static_cast<float>(rig_->reading(p).mk) / 1000.F : NAN);
        for (std::size_t o = 0; o < rig_->outputs(); ++o)
            s.turns |= rig_->turns(o) ? 1U << o : 0U;
        if (s.turns != turned_)
            emit switched(turned_ = s.turns);
        recorded_.push_back(std::move(s));
        while (recorded_.back().time_s - recorded_.front().time_s > keep_s)
            recorded_.pop_front();
    }
}

} // namespace vernal
