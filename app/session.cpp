#include "session.h"

#include <algorithm>

namespace vernal {

Session::Session(QObject* parent) : QObject(parent)
{
    connect(&document_, &Document::changed, this, &Session::run);
    connect(&document_, &Document::view_changed, this, &Session::run);
    connect(&runner_, &Runner::finished, this, [this](std::shared_ptr<const Outcome> o) {
        outcome_ = std::move(o);
        emit strip_due();
        emit outcome_changed();
    });
    connect(&previewer_, &Runner::finished, this, &Session::previewed);
}

RunRequest Session::request() const { return {document_.job(), document_.variant_index(), document_.day_index(), document_.kept_index(), units_, 0}; }

void Session::run() { runner_.request(request()); }

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
    if (time_s == cursor_s_)
        return;
    cursor_s_ = std::max(0.0, time_s);
    emit cursor_changed();
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

} // namespace vernal
