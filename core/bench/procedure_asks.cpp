// A procedure and the person beside it: what is asked, and what a unit tells that is not on the rig.
#include "procedure_run.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace vernal {

const Line* ProcedureRun::asked() const
{
    const ProcedureStep* step = left_ ? nullptr : step_under_way();
    if (!step || line_ >= step->lines.size())
        return nullptr;
    const Line& l = step->lines[line_];
    const bool by_person = seen_ && (is_act(l) || !told(l));
    const bool waits = l.verb == Act::read ? by_hand_ : by_person || (l.verb == Act::ask && (by_hand_ || (attended_ && l.fact == Fact::none)));
    return waits ? &l : nullptr;
}

double ProcedureRun::shown() const
{
    const Line* l = asked();
    if (!l || seen_)
        return NAN;
    if (l->verb == Act::ask)
        return l->fact == Fact::none ? NAN : rig_.is_so(l->fact);
    const double x = value(*l);
    return l->captured == Captured::bucket ? l->litres * 60 / x : x;
}

void ProcedureRun::answer(double typed)
{
    if (asked())
        answered_ = typed;
}

// What was typed, or what the rig's own instruments say. False: the step has ended by it.
bool ProcedureRun::take_answer(const Line& l)
{
    const auto typed = std::exchange(answered_, std::nullopt);
    if (l.verb == Act::read) {
        capture(l, !typed ? value(l) : l.captured == Captured::bucket ? l.litres * 60 / *typed
                                                                      : *typed);
        return true;
    }
    const std::string words = l.fact == Fact::none ? l.name : fact_texts[static_cast<std::size_t>(l.fact)];
    if (!typed && l.fact == Fact::none)
        end_step(StepVerdict::not_possible, "nobody was there to say: " + words);
    else if (typed ? *typed != 0 : rig_.is_so(l.fact))
        return true;
    else
        end_step(StepVerdict::failed, "no: " + words);
    return false;
}

double ProcedureRun::reads(std::size_t probe) const
{
    if (seen_)
        return seen_->reads[probe];
    return rig_.reading(probe).valid ? rig_.reading(probe).mk / 1000.0 : NAN;
}

std::optional<bool> ProcedureRun::runs(std::size_t output) const { return seen_ ? seen_->on[output] : std::optional(rig_.turns(output)); }

bool ProcedureRun::told(const Line& l) const
{
    if (!seen_)
        return true;
    const auto all = [&](const std::vector<std::size_t>& of, const auto& known) { return !of.empty() && std::all_of(of.begin(), of.end(), [&](std::size_t i) { return known[i].has_value(); }); };
    if (l.verb == Act::await)
        return !of_the_loop(l.awaited) && (l.awaited > Awaited::rests || all(outputs(l.which), seen_->on));
    if (l.verb != Act::capture)
        return true;
    switch (l.captured) {
    case Captured::difference:
    case Captured::reading:
    case Captured::spread:
    case Captured::rate:
    case Captured::time: return true;
    case Captured::watt: return all(outputs(l.which), seen_->watt);
    case Captured::speed: return all(outputs(l.which), seen_->speed);
    case Captured::supply: return seen_->supply_v.has_value();
    default: return false; // switches too: of a bypass the unit knows nothing
    }
}

void ProcedureRun::on_unit(UnitSeen seen)
{
    seen_ = std::move(seen);
    attended_ = by_hand_ = true;
    for (std::size_t o = 0; o < rig_.outputs(); ++o) // what is stated for pumps that are on is of those
        if (const auto on = seen_->on[o])
            rig_.set_mode(o, *on ? Mode::on : Mode::off);
}

} // namespace vernal
