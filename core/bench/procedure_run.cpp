#include "procedure_run.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <numeric>

namespace vernal {
namespace {

std::string number(double x, const char* unit)
{
    char b[48];
    std::snprintf(b, sizeof b, "%.1f %s", x, unit);
    return b;
}

bool done_for_each(const ProcedureStep& s, bool outputs)
{
    return std::any_of(s.lines.begin(), s.lines.end(), [&](const Line& l) {
        const bool of_output = l.verb == Act::turn || (l.verb == Act::await && (l.awaited == Awaited::runs || l.awaited == Awaited::rests)) || (l.verb == Act::capture && (l.captured == Captured::watt || l.captured == Captured::forced));
        return l.which.of == Which::Of::each && of_output == outputs;
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

bool applies(const Procedure& p, const Variant& v)
{
    const auto pair = bench_pair(v);
    switch (p.needs) {
    case Needs::always: return true;
    case Needs::probes: return std::count_if(v.probes.begin(), v.probes.end(), reads_temperature) >= 2;
    case Needs::pair: return pair.has_value();
    case Needs::cut_out: return pair && pair->cut_out_c;
    case Needs::limit: return pair && pair->limit_c && pair->limit_probe < v.probes.size();
    case Needs::outputs: return !v.unit.outputs.empty();
    }
    return false;
}

ProcedureRun::ProcedureRun(const Procedure& procedure, const Variant& written, Rig& rig)
    : procedure_(procedure), written_(written), rig_(rig), pair_(bench_pair(written)), sample_s_(static_cast<double>(rig.simulation().setup().program.sample_ms) / 1000)
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
    constexpr double below_limit_k = 8; // the bench stands so cool that no limit holds
    if (pair_ && pair_->limit_c)
        rig_.set_air(std::min(rig_.medium_c(Medium::air), *pair_->limit_c - below_limit_k));
}

void ProcedureRun::begin_step()
{
    line_ = 0;
    pass_ = 1;
    since_s_ = rig_.now_s();
    if (at_ < places_.size())
        result_.steps[at_].began_s = rig_.now_s();
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
    while (advance(sample_s_) && rig_.now_s() < longest_s) {
    }
}

bool ProcedureRun::advance(double seconds)
{
    const double until = rig_.now_s() + seconds;
    constexpr std::size_t kept = 60;
    for (;;) {
        while (at_ < places_.size() && do_line()) {
        }
        if (at_ >= places_.size() || rig_.now_s() > until - sample_s_ / 2)
            return at_ < places_.size();
        rig_.advance(sample_s_);
        if (pair_) {
            const double source = rig_.medium_c(rig_.medium(pair_->source)), k = std::isfinite(source) ? source : rig_.medium_c(Medium::block);
            media_rate_ = (k - last_media_c_) / sample_s_;
            last_media_c_ = k;
        }
        std::vector<double> now;
        for (std::size_t p = 0; p < rig_.probes(); ++p)
            now.push_back(rig_.reading(p).valid ? rig_.reading(p).mk / 1000.0 : NAN);
        last_.push_back(std::move(now));
        if (last_.size() > kept)
            last_.erase(last_.begin());
    }
}

std::vector<std::size_t> ProcedureRun::probes(const Which& w) const
{
    std::vector<std::size_t> out;
    const auto each = places_[at_].each;
    for (std::size_t p = 0; p < rig_.probes(); ++p) {
        bool in = false;
        switch (w.of) {
        case Which::Of::source: in = pair_ && p == pair_->source; break;
        case Which::Of::store: in = pair_ && p == pair_->store; break;
        case Which::Of::both: in = pair_ && (p == pair_->source || p == pair_->store); break;
        case Which::Of::all: in = true; break;
        case Which::Of::each: in = each && p == *each; break;
        case Which::Of::others: in = each && p != *each; break;
        case Which::Of::key: in = written_.probes[p].key == w.key; break;
        case Which::Of::limit: in = pair_ && pair_->limit_c && p == pair_->limit_probe; break;
        case Which::Of::output: break;
        }
        if (in && reads_temperature(written_.probes[p]))
            out.push_back(p);
    }
    return out;
}

std::vector<std::size_t> ProcedureRun::outputs(const Which& w) const
{
    std::vector<std::size_t> out;
    for (std::size_t o = 0; o < rig_.outputs(); ++o)
        if (w.of == Which::Of::all || (w.of == Which::Of::output && pair_ && o == pair_->output) || (w.of == Which::Of::each && places_[at_].each == o) || (w.of == Which::Of::key && written_.unit.outputs[o].key == w.key))
            out.push_back(o);
    return out;
}

double ProcedureRun::level(const Level& l) const
{
    if (l.of == Level::Of::number)
        return l.number;
    if (l.of == Level::Of::air)
        return rig_.medium_c(Medium::air);
    if (!pair_)
        return NAN;
    constexpr double under_k = 4, over_k = 6;
    const double store = rig_.reading(pair_->store).mk / 1000.0;
    switch (l.of) {
    case Level::Of::set_start: return pair_->on_k;
    case Level::Of::set_stop: return pair_->off_k;
    case Level::Of::set_limit: return pair_->limit_c.value_or(NAN);
    case Level::Of::set_cut_out: return pair_->cut_out_c.value_or(NAN);
    case Level::Of::under_start: return store + pair_->on_k - under_k;
    case Level::Of::over_start: return store + pair_->on_k + over_k;
    case Level::Of::over_limit: return pair_->limit_c.value_or(NAN) + pair_->on_k + over_k;
    case Level::Of::over_cut_out: return pair_->cut_out_c.value_or(NAN) + over_k;
    case Level::Of::as_computed: return tolerance_k();
    default: return NAN;
    }
}

// Probes, the warming of a sample or two, what the readings are rounded to.
double ProcedureRun::tolerance_k() const
{
    constexpr double least_k = 0.3;
    return least_k + pair_->open_k + 2 * std::fabs(media_rate_) * sample_s_ + written_.unit.resolution_k;
}

double ProcedureRun::pause_s(const Line& l) const
{
    constexpr double more_s = 60;
    return l.pause == Pause::time ? l.within_s : !pair_                      ? 0
                                             : l.pause == Pause::minimum_run ? pair_->min_run_s + more_s
                                                                             : pair_->min_rest_s + more_s;
}

double ProcedureRun::value(const Line& l) const
{
    const auto reads = [&](std::size_t p) { return rig_.reading(p).valid ? rig_.reading(p).mk / 1000.0 : NAN; };
    switch (l.captured) {
    case Captured::difference: return pair_ ? reads(pair_->source) - reads(pair_->store) : NAN;
    case Captured::media_difference: return pair_ ? rig_.tip_c(pair_->source) - rig_.tip_c(pair_->store) : NAN;
    case Captured::rate: return 60 * media_rate_;
    case Captured::reading: {
        const auto of = probes(l.which);
        return of.empty() ? NAN : reads(of.front());
    }
    case Captured::spread: {
        double low = INFINITY, high = -INFINITY;
        for (const std::size_t p : probes(l.which)) {
            if (!rig_.reading(p).valid)
                return NAN;
            low = std::min(low, reads(p));
            high = std::max(high, reads(p));
        }
        return high - low;
    }
    case Captured::watt: {
        double sum = 0;
        for (const std::size_t o : outputs(l.which))
            sum += rig_.watt(o);
        return sum;
    }
    case Captured::forced: {
        double count = 0;
        for (const std::size_t o : outputs(l.which))
            count += (rig_.mode(o) != Mode::automatic) + rig_.bypassed(o);
        return count;
    }
    }
    return NAN;
}

void ProcedureRun::capture(const Line& l)
{
    auto& list = result_.steps[at_].captured;
    auto it = std::find_if(list.begin(), list.end(), [&](const CapturedValue& c) { return c.name == l.name; });
    if (it == list.end())
        it = list.insert(list.end(), {l.name, l.captured, {}});
    it->passes.push_back(value(l));
}

// False: the step has failed by it.
bool ProcedureRun::judge(const Line& l)
{
    const auto& list = result_.steps[at_].captured;
    const auto it = std::find_if(list.begin(), list.end(), [&](const CapturedValue& c) { return c.name == l.name; });
    const double seen = it == list.end() ? NAN : it->mean(), to = level(l.level), within = l.judged == Judged::near ? level(l.tolerance) : 0;
    const char* unit = it == list.end() ? "" : unit_of(it->what);
    const bool good = l.judged == Judged::near ? std::fabs(seen - to) <= within : l.judged == Judged::below ? seen < to
                                                                                                            : seen > to;
    std::string& said = result_.steps[at_].said;
    said += (said.empty() ? "" : "; ") + l.name + " " + (std::isfinite(seen) ? number(seen, unit) : std::string("not read")) + (l.judged == Judged::near ? ", set to " + number(to, unit) + ", within " + number(within, unit) : (l.judged == Judged::below ? ", below " : ", above ") + number(to, unit));
    return good;
}

bool ProcedureRun::look(const Line& l)
{
    const auto now = [&](std::size_t p) { return rig_.reading(p).valid ? rig_.reading(p).mk / 1000.0 : NAN; };
    switch (l.awaited) {
    case Awaited::runs:
    case Awaited::rests: {
        const auto of = outputs(l.which);
        return std::all_of(of.begin(), of.end(), [&](std::size_t o) { return rig_.turns(o) == (l.awaited == Awaited::runs); });
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
        return std::all_of(of.begin(), of.end(), [&](std::size_t p) { return now(p) > from_[p] + level(l.level); });
    }
    case Awaited::keeps: return false; // to the end of its time
    }
    return false;
}

// True: on to the next line.
bool ProcedureRun::do_line()
{
    const ProcedureStep& step = procedure_.steps[places_[at_].step];
    if (line_ >= step.lines.size()) {
        end_step(StepVerdict::passed, {});
        return true;
    }
    const Line& l = step.lines[line_];
    const bool last_of_pass = std::none_of(step.lines.begin() + static_cast<std::ptrdiff_t>(line_), step.lines.end(), [](const Line& x) { return x.verb != Act::judge; });
    if (last_of_pass && pass_ < step.passes) {
        ++pass_;
        line_ = 0;
        since_s_ = rig_.now_s();
        return true;
    }
    const auto next = [&] {
        ++line_;
        since_s_ = rig_.now_s();
        from_.clear();
        return true;
    };
    if (from_.empty())
        for (std::size_t p = 0; p < rig_.probes(); ++p)
            from_.push_back(rig_.reading(p).valid ? rig_.reading(p).mk / 1000.0 : NAN);
    switch (l.verb) {
    case Act::put:
        for (const std::size_t p : probes(l.which))
            if (l.medium == Medium::resistor) {
                if (const double ohm = signal_beyond(written_.probes[p].curve, level(l.level)); ohm > 0)
                    rig_.put_resistor(p, ohm);
            } else {
                rig_.put(p, l.medium);
            }
        return next();
    case Act::block: rig_.set_block(level(l.level), l.rate_k_min); return next();
    case Act::cup: rig_.pour(level(l.level)); return next();
    case Act::lead:
        for (const std::size_t p : probes(l.which))
            rig_.set_lead(p, l.lead);
        return next();
    case Act::turn:
        for (const std::size_t o : outputs(l.which))
            rig_.set_mode(o, l.mode);
        return next();
    case Act::supply: rig_.set_supply(l.as_it_stands ? std::nullopt : std::optional(level(l.level))); return next();
    case Act::wait: return rig_.now_s() - since_s_ >= pause_s(l) && next();
    case Act::capture: capture(l); return next();
    case Act::judge:
        if (judge(l))
            return next();
        end_step(StepVerdict::failed, {});
        return true;
    case Act::await: break;
    }
    const bool over = rig_.now_s() - since_s_ >= l.within_s;
    if (l.awaited == Awaited::keeps) {
        for (const std::size_t p : probes(l.which))
            if (!(std::fabs((rig_.reading(p).valid ? rig_.reading(p).mk / 1000.0 : NAN) - from_[p]) <= level(l.level))) {
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
    const std::string time = number((l.verb == Act::wait ? pause_s(l) : l.within_s) / 60, "min");
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
