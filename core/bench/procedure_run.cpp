#include "procedure_run.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <numeric>
#include <utility>

namespace vernal {
namespace {

std::string time_text(double seconds)
{
    const bool hours = seconds > 3 * 3600;
    char b[48];
    std::snprintf(b, sizeof b, hours ? "%.0f h" : seconds < 60 ? "%.0f s"
                                                               : "%.0f min",
        hours ? seconds / 3600 : seconds < 60 ? seconds
                                              : seconds / 60);
    return b;
}

bool done_for_each(const ProcedureStep& s, bool outputs)
{
    return std::any_of(s.lines.begin(), s.lines.end(), [&](const Line& l) {
        const bool of_output = l.verb == Act::turn || (l.verb == Act::await && (l.awaited == Awaited::runs || l.awaited == Awaited::rests)) || ((l.verb == Act::capture || l.verb == Act::read) && (l.captured == Captured::watt || l.captured == Captured::forced || l.captured == Captured::speed));
        return l.which.of == ItemChoice::Of::each && of_output == outputs;
    });
}

} // namespace

double CapturedValue::mean() const { return passes.empty() ? NAN : std::accumulate(passes.begin(), passes.end(), 0.0) / static_cast<double>(passes.size()); }

double CapturedValue::spread() const
{
    const auto [low, high] = std::minmax_element(passes.begin(), passes.end());
    return passes.empty() ? 0 : *high - *low;
}

StepVerdict ProcedureResult::verdict() const
{
    const auto any = [&](StepVerdict v) { return std::any_of(steps.begin(), steps.end(), [v](const StepResult& s) { return s.verdict == v; }); };
    return any(StepVerdict::failed) ? StepVerdict::failed : any(StepVerdict::open) ? StepVerdict::open
                                                        : any(StepVerdict::passed) ? StepVerdict::passed
                                                                                   : StepVerdict::not_possible;
}

ProcedureRun::ProcedureRun(const Procedure& procedure, const Variant& written, Rig& rig)
    : procedure_(procedure), written_(written), rig_(rig), pair_(bench_pair(written)), freeze_(bench_freeze(written)), low_(bench_low(written)), sample_s_(static_cast<double>(rig.simulation().program().sample_ms) / 1000)
{
    result_.name = procedure.name;
    for (std::size_t s = 0; s < procedure.steps.size(); ++s) {
        const bool by_output = done_for_each(procedure.steps[s], true), by_probe = done_for_each(procedure.steps[s], false);
        std::vector<std::optional<std::size_t>> of{std::nullopt};
        if (by_output || by_probe)
            of.clear();
        for (std::size_t o = 0; by_output && o < rig.outputs(); ++o)
            of.emplace_back(o);
        for (std::size_t p = 0; !by_output && by_probe && p < rig.probes(); ++p)
            if (reads_temperature(written.probes[p]))
                of.emplace_back(p);
        for (const auto& each : of) {
            places_.push_back({s, each});
            StepResult r;
            r.title = procedure.steps[s].title;
            r.of = !each ? std::string() : by_output ? written.unit.outputs[*each].key
                                                     : written.probes[*each].key;
            result_.steps.push_back(std::move(r));
        }
    }
    if (!applies(procedure, written))
        for (StepResult& r : result_.steps) {
            r.verdict = StepVerdict::not_possible;
            r.said = "This unit has nothing of the kind.";
            at_ = places_.size();
        }
    else
        begin_step();
    constexpr double below_limit_k = 14; // the bench stands so cool that no limit holds
    if (pair_ && pair_->limit_c)
        rig_.set_air(std::min(rig_.medium_c(Medium::air), *pair_->limit_c - below_limit_k));
}

void ProcedureRun::begin_step()
{
    line_ = 0;
    pass_ = 1;
    since_s_ = changed_s_ = rig_.now_s();
    from_.clear();
    answered_.reset();
    if (at_ >= places_.size())
        return;
    StepResult& r = result_.steps[at_];
    r.verdict = StepVerdict::open;
    r.said.clear();
    r.captured.clear();
    r.judged.clear();
    r.began_s = rig_.now_s();
}

void ProcedureRun::leave()
{
    left_ = true;
    answered_.reset();
    rig_.all_automatic();
    rig_.set_supply({});
}

void ProcedureRun::resume()
{
    left_ = false;
    begin_step();
}

bool ProcedureRun::repeat()
{
    if (at_ == 0 || at_ > places_.size() || !applies(procedure_, written_))
        return false;
    --at_;
    left_ = false;
    begin_step();
    return true;
}

void ProcedureRun::end_step(StepVerdict v, std::string said)
{
    StepResult& r = result_.steps[at_];
    r.verdict = v;
    if (!said.empty())
        r.said = std::move(said);
    r.ended_s = rig_.now_s();
    ++at_;
    begin_step();
}

void ProcedureRun::skip(const std::string& reason)
{
    if (at_ < places_.size())
        end_step(StepVerdict::not_possible, reason);
}

void ProcedureRun::run()
{
    constexpr double longest_s = 7 * 86400.0;
    const double until = rig_.now_s() + longest_s;
    while (!asked() && advance(sample_s_) && rig_.now_s() < until) {
    }
}

bool ProcedureRun::advance(double seconds)
{
    const double until = rig_.now_s() + seconds;
    constexpr std::size_t kept = 60;
    for (;;) {
        while (!left_ && at_ < places_.size() && do_line()) {
        }
        if (left_ || at_ >= places_.size() || rig_.now_s() > until - sample_s_ / 2)
            return at_ < places_.size();
        rig_.advance(sample_s_);
        follow_media();
        std::vector<double> now;
        for (std::size_t p = 0; p < rig_.probes(); ++p)
            now.push_back(reads(p));
        last_.push_back(std::move(now));
        if (last_.size() > kept)
            last_.erase(last_.begin());
    }
}

// How fast the media of the pair warm: that of the source, or of the store where it does.
void ProcedureRun::follow_media()
{
    if (!pair_)
        return;
    if (seen_) { // by the unit's own readings, over what is kept of them
        media_rate_ = 0;
        const double over_s = static_cast<double>(last_.size()) * sample_s_;
        for (const std::size_t p : {pair_->source, pair_->store})
            if (!last_.empty())
                if (const double rate = (reads(p) - last_.front()[p]) / over_s; std::isfinite(rate) && std::fabs(rate) > std::fabs(media_rate_))
                    media_rate_ = rate;
        return;
    }
    media_rate_ = 0;
    for (const auto& [probe, last] : {std::pair(pair_->source, &last_media_c_[0]), std::pair(pair_->store, &last_media_c_[1])}) {
        const double c = rig_.medium_c(rig_.medium(probe)), rate = (c - *last) / sample_s_;
        if (std::isfinite(rate) && std::fabs(rate) > std::fabs(media_rate_))
            media_rate_ = rate;
        *last = c;
    }
}

double ProcedureRun::pause_s(const Line& l) const
{
    constexpr double more_s = 60;
    return l.pause == Pause::time ? l.within_s : !pair_                      ? 0
                                             : l.pause == Pause::minimum_run ? pair_->min_run_s + more_s
                                                                             : pair_->min_rest_s + more_s;
}

void ProcedureRun::capture(const Line& l, double x)
{
    auto& list = result_.steps[at_].captured;
    auto it = std::find_if(list.begin(), list.end(), [&](const CapturedValue& c) { return c.name == l.name; });
    if (it == list.end())
        it = list.insert(list.end(), {l.name, l.captured, {}});
    it->passes.push_back(x);
}

// False: the step has failed by it.
bool ProcedureRun::judge(const Line& l)
{
    const auto& list = result_.steps[at_].captured;
    const auto it = std::find_if(list.begin(), list.end(), [&](const CapturedValue& c) { return c.name == l.name; });
    const double seen = it == list.end() ? NAN : it->mean(), to = level(l.level);
    const char* unit = it == list.end() ? "" : unit_of(it->what);
    const double within = l.judged == Judged::near ? tolerance(l.tolerance, to, unit) : 0;
    if (seen_ && it != list.end() && !std::isfinite(seen)) { // nobody had an instrument for it
        result_.steps[at_].said += (result_.steps[at_].said.empty() ? "" : "; ") + l.name + " was not read";
        return true;
    }
    // A share of nothing would be met by nothing: a pump that lifts no water where its sum says that none comes.
    const bool of_nothing = l.judged == Judged::near && (l.tolerance.of == Level::Of::fifth || l.tolerance.of == Level::Of::third) && !(std::fabs(to) > 0);
    const bool good = of_nothing ? false : l.judged == Judged::near ? std::fabs(seen - to) <= within
                                       : l.judged == Judged::below  ? seen < to
                                                                    : seen > to;
    result_.steps[at_].judged.push_back({l.name, it == list.end() ? Captured::forced : it->what, l.judged, seen, to, within});
    return good;
}

bool ProcedureRun::look(const Line& l)
{
    switch (l.awaited) {
    case Awaited::runs:
    case Awaited::rests: {
        const auto of = outputs(l.which);
        return std::all_of(of.begin(), of.end(), [&](std::size_t o) { return runs(o) == (l.awaited == Awaited::runs); });
    }
    case Awaited::settled: {
        constexpr double still_k = 0.1;
        constexpr std::size_t least = 60; // samples
        if (last_.size() < least || rig_.now_s() - since_s_ < static_cast<double>(least) * sample_s_)
            return false;
        for (const std::size_t p : probes(l.which)) {
            double low = INFINITY, high = -INFINITY;
            for (std::size_t i = last_.size() - least; i < last_.size(); ++i) {
                low = std::min(low, last_[i][p]);
                high = std::max(high, last_[i][p]);
            }
            if (high - low > still_k + written_.unit.resolution_k)
                return false;
        }
        return true;
    }
    case Awaited::climbs: {
        const auto of = probes(l.which);
        return std::all_of(of.begin(), of.end(), [&](std::size_t p) { return reads(p) > from_[p] + level(l.level); });
    }
    case Awaited::keeps: return false; // to the end of its time
    case Awaited::fills: return rig_.full();
    case Awaited::drains: return rig_.emptied();
    case Awaited::hot: {
        constexpr double hotter_k = 5; // than what is set, so that the valve has something to do
        return rig_.hot_c() > rig_.tap_set_c() + hotter_k;
    }
    case Awaited::cool: {
        constexpr double touch_c = 60, half = 0.5;
        return rig_.array_c() < touch_c && rig_.drive_share() >= half;
    }
    }
    return false;
}

// What a line does to the rig.
void ProcedureRun::change(const Line& l)
{
    if (seen_ && l.verb != Act::knob)
        return; // a person's hands have done it
    switch (l.verb) {
    case Act::put:
        for (const std::size_t p : probes(l.which))
            if (l.medium == Medium::resistor) {
                if (const double ohm = signal_beyond(written_.probes[p].curve, level(l.level)); ohm > 0)
                    rig_.put_resistor(p, ohm);
            } else {
                rig_.put(p, l.medium);
            }
        break;
    case Act::block: rig_.set_block(level(l.level), l.rate_per_min); break;
    case Act::cup: rig_.pour(level(l.level)); break;
    case Act::lead:
        for (const std::size_t p : probes(l.which))
            rig_.set_lead(p, l.lead);
        break;
    case Act::turn:
        for (const std::size_t o : outputs(l.which))
            rig_.set_mode(o, l.mode);
        break;
    case Act::supply:
        v_per_min_ = l.rate_per_min;
        if (l.as_it_stands)
            rig_.set_supply({});
        else
            rig_.set_supply(l.lower ? rig_.supply_v() - level(l.level) : level(l.level), l.rate_per_min);
        break;
    case Act::knob:
        if (LinkedDifference* rule = knob_rule(written_)) {
            rule->mark = level(l.level);
            if (!seen_)
                rig_.turn_knob(rule->mark);
            pair_ = bench_pair(written_);
        }
        break;
    case Act::shade:
        for (const std::size_t p : probes(l.which))
            rig_.shade(p, !l.taken_away);
        break;
    default: break;
    }
}

// True: on to the next line.
bool ProcedureRun::do_line()
{
    const ProcedureStep& step = procedure_.steps[places_[at_].step];
    const bool last_of_pass = std::none_of(step.lines.begin() + static_cast<std::ptrdiff_t>(line_), step.lines.end(), [](const Line& x) { return x.verb != Act::judge; });
    if (last_of_pass && pass_ < step.passes) {
        ++pass_;
        line_ = 0;
        since_s_ = rig_.now_s();
        return true;
    }
    if (line_ >= step.lines.size()) {
        end_step(StepVerdict::passed, {});
        return true;
    }
    const Line& l = step.lines[line_];
    const auto next = [&] {
        ++line_;
        since_s_ = rig_.now_s();
        from_.clear();
        return true;
    };
    if (from_.empty())
        for (std::size_t p = 0; p < rig_.probes(); ++p)
            from_.push_back(reads(p));
    if (is_act(l)) {
        if (seen_ && !answered_)
            return false;
        answered_.reset();
        change(l);
        changed_s_ = rig_.now_s();
        return next();
    }
    switch (l.verb) {
    case Act::wait: return rig_.now_s() - since_s_ >= pause_s(l) && next();
    case Act::capture:
        if (asked() && !answered_)
            return false;
        capture(l, answered_ ? *std::exchange(answered_, std::nullopt) : value(l));
        return next();
    case Act::read:
    case Act::ask: return (!asked() || answered_) && (take_answer(l) ? next() : true);
    case Act::judge:
        if (judge(l))
            return next();
        end_step(StepVerdict::failed, {});
        return true;
    default: break; // an await
    }
    if (asked()) { // nobody but a person can tell
        if (!answered_)
            return false;
        if (*std::exchange(answered_, std::nullopt) != 0)
            return next();
        end_step(StepVerdict::failed, "in vain: " + waits_for());
        return true;
    }
    const bool over = rig_.now_s() - since_s_ >= l.within_s;
    if (l.awaited == Awaited::keeps) {
        for (const std::size_t p : probes(l.which))
            if (!(std::fabs(reads(p) - from_[p]) <= level(l.level))) {
                end_step(StepVerdict::failed, written_.probes[p].key + " moved with it");
                return true;
            }
        return over && next();
    }
    if (look(l))
        return next();
    if (over)
        end_step(StepVerdict::failed, "in vain: " + waits_for());
    return over;
}

std::string ProcedureRun::waits_for() const
{
    if (at_ >= places_.size())
        return {};
    const ProcedureStep& step = procedure_.steps[places_[at_].step];
    if (line_ >= step.lines.size() || (step.lines[line_].verb != Act::await && step.lines[line_].verb != Act::wait))
        return {};
    const Line& l = step.lines[line_];
    if (of_the_loop(l.awaited) && l.verb == Act::await)
        return "until the loop " + std::string(l.awaited >= Awaited::hot ? "is " : "") + awaited_keys[static_cast<std::size_t>(l.awaited)] + ", for at most " + time_text(l.within_s);
    const std::string time = time_text(l.verb == Act::wait ? pause_s(l) : l.within_s);
    if (l.verb == Act::wait)
        return "for " + time;
    std::string of;
    if (l.awaited == Awaited::runs || l.awaited == Awaited::rests)
        for (const std::size_t o : outputs(l.which))
            of += (of.empty() ? "" : ", ") + written_.unit.outputs[o].key;
    else
        for (const std::size_t p : probes(l.which))
            of += (of.empty() ? "" : ", ") + written_.probes[p].key;
    return "until " + of + " " + awaited_keys[static_cast<std::size_t>(l.awaited)] + ", for at most " + time;
}

} // namespace vernal
