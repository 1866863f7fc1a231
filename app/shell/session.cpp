#include "session.h"

#include "core/advice/log_findings.h"
#include "core/units/instant_text.h"

#include <QRegularExpression>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double day_s = 86400.0;

} // namespace

Session::Session(QObject* parent) : QObject(parent)
{
    connect(&document_, &Document::changed, this, &Session::run);
    connect(&document_, &Document::view_changed, this, &Session::run);
    const auto take = [this](std::shared_ptr<const Outcome> o) {
        outcome_ = std::move(o);
        const double was = cursor_s_;
        if (marked_ && (outcome_->size() == 0 || marked_->to_s > outcome_->time_s(outcome_->size() - 1) + 1)) {
            marked_.reset();
            emit marked_changed();
        }
        if (outcome_->size() > 0) // of a shorter run than the one before: the same time of its day
            cursor_s_ = cursor_s_ > outcome_->time_s(outcome_->size() - 1) ? std::fmod(cursor_s_, day_s) : cursor_s_;
        emit strip_due();
        emit outcome_changed();
        if (cursor_s_ != was)
            emit cursor_changed();
    };
    connect(&runner_, &Runner::begun, this, take);
    connect(&runner_, &Runner::finished, this, take);
    connect(&runner_, &Runner::judged, this, [this](std::shared_ptr<const Verdict> v) {
        verdict_ = std::move(v);
        collect_findings();
    });
    connect(&previewer_, &Runner::finished, this, &Session::previewed);
}

RunRequest Session::request() const
{
    RunRequest r;
    r.job = document_.job();
    r.variant = document_.variant_index();
    r.day = document_.day_index();
    r.baseline = document_.baseline_index();
    r.units = units_;
    r.job.logbook = {}; // no run and no finding of a day hangs on it
    r.job.bench.clear();
    r.job.attachments.clear();
    return r;
}

// What is looked at again needs no new run.
void Session::run()
{
    RunRequest r = request();
    if (last_ && *last_ == r)
        return;
    last_ = r;
    asked_ = runner_.request(std::move(r));
}

void Session::restyle()
{
    if (!outcome_)
        return;
    emit strip_due();
    emit outcome_changed();
    emit verdict_changed();
}

void Session::set_units(const Units& units)
{
    if (units == units_)
        return;
    units_ = units;
    emit units_changed();
    run(); // findings carry numbers in these units
}

void Session::set_cursor(double time_s)
{
    const double last = outcome_ && outcome_->size() > 0 ? outcome_->time_s(outcome_->size() - 1) : 86400.0;
    const double to = std::clamp(time_s, 0.0, std::max(last, 1.0));
    if (to == cursor_s_)
        return;
    cursor_s_ = to;
    emit cursor_changed();
}

bool Session::several_days() const
{
    return outcome_ && outcome_->size() > 0 && outcome_->start_s() + outcome_->time_s(outcome_->size() - 1) > day_s + 1;
}

QString Session::time_text(double time_s) const { return qs(instant_text(time_s + (outcome_ ? outcome_->start_s() : 0), several_days())); }

QString Session::cursor_text() const { return time_text(cursor_s_); }

std::optional<double> Session::typed_time(const QString& typed, double near_s) const
{
    // The day that is named and the rest; none named: 0.
    static const QRegularExpression named(QStringLiteral("^\\s*(?:day\\s*)?(\\d+)[\\s,]+(\\d.*)$"), QRegularExpression::CaseInsensitiveOption);
    const auto m = named.match(typed);
    const int day = m.hasMatch() ? m.captured(1).toInt() : 0;
    const auto hours = parse((m.hasMatch() ? m.captured(2) : typed).toStdString(), Quantity::time_of_day, {});
    if (!hours || *hours < 0 || *hours > 24)
        return {};
    // Of a log that begins in the afternoon, the small hours are those of the next day.
    const double start = outcome_ ? outcome_->start_s() : 0;
    double at = *hours * 3600 - start;
    if (day > 0)
        at += (day - 1) * day_s;
    else if (several_days()) // of the day that is looked at
        at += std::floor((near_s + start) / day_s) * day_s;
    while (at < 0)
        at += day_s;
    return at;
}

void Session::set_audit(std::shared_ptr<const Audit> audit)
{
    if (audit == audit_)
        return;
    audit_ = std::move(audit);
    emit audit_changed();
    collect_findings();
}

void Session::collect_findings()
{
    findings_ = verdict_->findings;
    if (audit_)
        for (Finding& f : findings_in_log(*audit_, document_.job(), document_.variant_index(), units_))
            findings_.push_back(std::move(f));
    std::stable_sort(findings_.begin(), findings_.end(), [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    emit verdict_changed();
}

void Session::mark(std::optional<Marked> stretch)
{
    if (stretch) {
        const double last = outcome_ && outcome_->size() > 0 ? outcome_->time_s(outcome_->size() - 1) : day_s;
        const auto [from, to] = std::minmax(stretch->from_s, stretch->to_s);
        stretch = Marked{std::clamp(from, 0.0, last), std::clamp(to, 0.0, last)};
        if (stretch->to_s - stretch->from_s < 1)
            stretch.reset();
    }
    if (stretch == marked_)
        return;
    marked_ = stretch;
    emit marked_changed();
}

void Session::step_cursor(bool forward)
{
    if (!outcome_ || outcome_->size() == 0)
        return;
    const auto to = forward ? outcome_->next_switch_s(cursor_s_) : outcome_->last_switch_s(cursor_s_);
    set_cursor(to.value_or(forward ? outcome_->time_s(outcome_->size() - 1) : 0.0));
}

void Session::preview(const Remedy& remedy)
{
    RunRequest r = request();
    remedy.apply(r.job.variants[r.variant]);
    r.baseline = r.variant;
    previewer_.request(std::move(r));
}

QString qs(const std::string& s) { return QString::fromStdString(s); }

QString text(double inside, Quantity q, const Units& u) { return qs(to_text(inside, q, u)); }

QString reading_text(const Probe& p, double reading, const Units& u)
{
    const Reads reads = reads_at(p.place);
    return text(reading * inside_per_reading(reads), quantity_of(reads), u);
}

} // namespace vernal
