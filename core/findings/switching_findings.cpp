// Outputs that switch often: what makes them, told from every stop of the day.
#include "shared.h"

#include "core/plant/passing.h"
#include "core/sums/stability.h"

namespace vernal {
namespace {

constexpr int many_starts = 20;      // of a pump on a day; estimate
constexpr int many_switches = 20;    // of a valve, a cooler or an element; estimate
constexpr double least_stop_k = 0.5; // a stop that two probes can still tell from none; estimate

// Of several the last holds; nullptr: the output has none in use.
RunTimes* run_times_of(Variant& v, const std::string& output)
{
    RunTimes* out = nullptr;
    for (Rule& r : v.unit.rules)
        if (auto* t = std::get_if<RunTimes>(&r.body); t && r.output == output && r.enabled)
            out = t;
    return out;
}

// The commonest reason, with all stops of its like.
struct Reason {
    Stops stops;
    int of = 0; // stops of the output in all
};

std::optional<Reason> commonest(const FindingContext& c, std::size_t output)
{
    Reason out;
    for (const Stops& s : c.figures->stops) {
        if (s.output != output)
            continue;
        out.of += s.count;
        if (s.count > out.stops.count)
            out.stops = s;
    }
    return out.of > 0 ? std::optional(out) : std::nullopt;
}

struct Told {
    std::string reason;
    std::optional<Remedy> remedy;
    Severity severity = Severity::caution;
};

class Teller {
public:
    Teller(const FindingContext& c, const Reason& r) : c_(c), s_(r.stops), of_(r.of) {}

    Told tell() const
    {
        if (s_.ended_by < Priority::min_off)
            return overruled();
        if (s_.held_by == Priority::dump)
            return by_limit(s_.held, "It cools, falls by the hysteresis, and begins again.");
        if (s_.held_by == Priority::freeze && in_bursts())
            return {counted() + "the freeze protection runs in bursts: it is meant to, where frost is rare.", {}, Severity::note};
        if (s_.held_by == Priority::freeze)
            return {counted() + "the freeze protection has warmed its probe and begins anew when it has cooled.", {}};
        if (s_.held_by == Priority::heat)
            return heating();
        if (const Look* look = body<Look>(s_.held))
            return {counted() + "they end looks of " + lasts(c_, look->run_s) + " every " + said(c_, look->every_s, Quantity::minutes) + ".", change<Look>(c_, "Try: a look every " + said(c_, look->every_s * 2, Quantity::minutes), at(s_.held), [](Look& l) { l.every_s = std::min(86400.0, l.every_s * 2); })};
        if (s_.sun == Stops::Sun::slug)
            return slug();
        if (s_.sun == Stops::Sun::small_rise)
            return small_rise();
        if (s_.sun == Stops::Sun::gone)
            return clouds();
        return {counted() + "what asked for it did so no more.", {}};
    }

private:
    static std::size_t at(std::int16_t rule) { return static_cast<std::size_t>(rule); }
    const Rule* rule(std::int16_t r) const { return r >= 0 && at(r) < c_.variant.unit.rules.size() ? &c_.variant.unit.rules[at(r)] : nullptr; }
    template <class R>
    const R* body(std::int16_t r) const
    {
        const Rule* of = rule(r);
        return of ? std::get_if<R>(&of->body) : nullptr;
    }
    std::string title(std::int16_t r) const { return rule(r) ? kind_of(*rule(r)).title : "a switch"; }
    std::string counted() const { return "Every start is wear. Of " + std::to_string(of_) + " stops " + std::to_string(s_.count) + " are alike: "; }

    // A limit, a cut-out or a hold took it off.
    Told overruled() const
    {
        if (const Rule* r = rule(s_.ended); r && limit_of(*r))
            return by_limit(s_.ended, "It lets go once the reading has fallen by the hysteresis, and what asked still asks.");
        if (s_.ended_by == Priority::fault)
            return {counted() + "a reading is distrusted again and again. Look at the probe, its lead and its clamps.", {}};
        return {counted() + (rule(s_.ended) ? title(s_.ended) + " takes it off." : std::string("a switch takes it off.")), {}};
    }

    Told by_limit(std::int16_t r, const char* how) const
    {
        if (!rule(r) || !limit_of(*rule(r)))
            return {counted() + title(r) + ".", {}};
        const double wide = limit_of(*rule(r))->hysteresis.in_kelvin(), wider = std::max(wide + 2, std::ceil(wide * 1.6));
        std::optional<Remedy> remedy;
        std::visit(
            [&](const auto& b) {
                using R = std::decay_t<decltype(b)>;
                if constexpr (requires(R x) { x.hysteresis; })
                    remedy = change<R>(c_, "Try: a hysteresis of " + diff(c_, wider), at(r), [wider](R& x) { x.hysteresis = TempDiff::kelvin(wider); });
            },
            rule(r)->body);
        return {counted() + title(r) + " makes them, with a hysteresis of " + diff(c_, wide) + ". " + how, remedy};
    }

    Told heating() const
    {
        if (const auto* h = body<Heating>(s_.held)) {
            const double band = (h->windows[0].off - h->windows[0].on).in_kelvin();
            return {counted() + "backup heating reaches its off temperature and falls to its on temperature again, " + diff(c_, band) + " apart.", change<Heating>(c_, "Try: off " + diff(c_, band + 3) + " above on", at(s_.held), [band](Heating& x) { x.windows[0].off = x.windows[0].on + TempDiff::kelvin(band + 3); })};
        }
        if (const auto* t = body<Thermostat>(s_.held)) {
            const double to = (t->on < t->off ? t->off + TempDiff::kelvin(2) : t->off - TempDiff::kelvin(2)).in_celsius();
            return {counted() + "its thermostat's two temperatures lie close.", change<Thermostat>(c_, "Try: off at " + temp(c_, to), at(s_.held), [to](Thermostat& x) { x.off = Temperature::celsius(to); })};
        }
        return {counted() + title(s_.held) + " asks by the clock or in bursts.", {}};
    }

    std::optional<DifferenceOf> difference() const { return rule(s_.held) ? difference_of(c_.variant.unit, *rule(s_.held)) : std::nullopt; }

    // A lower stop, as far as the probes allow one at all.
    std::optional<Remedy> lower_stop(double off) const
    {
        const auto d = difference();
        if (!d || off < least_stop_k || off >= d->off.in_kelvin())
            return {};
        return Remedy{"Try: stop at " + diff(c_, off), [of = ref_to(c_.variant.unit.rules, at(s_.held)), off](Variant& v) {
                          if (Rule* r = of.in(v.unit.rules))
                              if (const auto now = difference_of(v.unit, *r))
                                  set_difference(v.unit, *r, now->on, TempDiff::kelvin(off));
                      }};
    }

    // Kept on until what stood in the pipes has passed.
    Remedy longer_run(double s) const
    {
        const std::string output = c_.variant.unit.outputs[s_.output].key;
        return {"Try: keep on for " + lasts(c_, s), [output, s](Variant& v) {
                    if (!run_times_of(v, output)) {
                        v.unit.rules.push_back(Rule{output, true, RunTimes{}});
                        sort_by_priority(v.unit.rules);
                    }
                    RunTimes& times = *run_times_of(v, output);
                    times.min_run_s = std::max(times.min_run_s, s);
                }};
    }

    bool in_bursts() const
    {
        const auto& rules = c_.variant.unit.rules;
        const Freeze* f = s_.held >= 0 && static_cast<std::size_t>(s_.held) < rules.size() ? std::get_if<Freeze>(&rules[static_cast<std::size_t>(s_.held)].body) : nullptr;
        return f && f->burst_s > 0;
    }

    Told slug() const
    {
        const Loop& l = loop(c_);
        const auto d = difference();
        const bool second = d && s_.output > 0 && sits_at(c_, d->source, {ProbePlace::collector_2});
        const double s = second ? past_the_slug_s(l.collector_2, l.supply_2, l.pump_2.flow_m3_s) : past_the_slug_s(l.collector, l.supply, l.pump.flow_m3_s);
        return {counted() + "within " + lasts(c_, s) + " of the start, the shortest after " + lasts(c_, s_.shortest_s) + ". What had stood cold in the pipes passes the probe then.", longer_run(s)};
    }

    Told small_rise() const
    {
        const auto d = difference();
        const double off = d ? d->off.in_kelvin() : 0;
        return {counted() + "the sun shone with " + said(c_, s_.sun_w_m2, Quantity::irradiance) + " on average, and this flow warms by no more than " + diff(c_, s_.rise_k) + " then, below the stop of " + diff(c_, off) + ". A lower stop, or less flow. " + (d ? stability_text(loop(c_), d->on.in_kelvin(), off) : std::string()),
            lower_stop(std::floor(s_.rise_k * 0.6 * 2) / 2)};
    }

    Told clouds() const
    {
        const auto d = difference();
        std::optional<Remedy> remedy;
        if (d) {
            const double on = std::ceil(d->on.in_kelvin() + 3);
            remedy = Remedy{"Try: start at " + diff(c_, on), [of = ref_to(c_.variant.unit.rules, at(s_.held)), on](Variant& v) {
                                if (Rule* r = of.in(v.unit.rules))
                                    if (const auto now = difference_of(v.unit, *r))
                                        set_difference(v.unit, *r, TempDiff::kelvin(on), now->off);
                            }};
        }
        return {counted() + "the sun was too low for this pair, or went behind clouds. A later start leaves out the shortest of its returns.", remedy, Severity::note};
    }

    const FindingContext& c_;
    const Stops& s_;
    int of_;
};

// Pumps and blowers of the loop; what else an output drives is a valve, a cooler, an element.
bool moves_the_loop(const FindingContext& c, std::size_t output)
{
    const Arrangement& a = arrangement_of(loop(c));
    return c.variant.unit.outputs[output].drives == Drives::loop && std::any_of(a.routes.begin(), a.routes.end(), [&](const Route& r) { return r.pump == output; });
}

// Whatever it does its leader did.
bool only_follows(const FindingContext& c, std::size_t output)
{
    const auto& rules = c.variant.unit.rules;
    const auto own = [&](const Rule& r) { return r.enabled && r.output == c.variant.unit.outputs[output].key; };
    return std::any_of(rules.begin(), rules.end(), own) && std::all_of(rules.begin(), rules.end(), [&](const Rule& r) { return !own(r) || std::holds_alternative<Follow>(r.body); });
}

Found switching(const FindingContext& c, bool pumps, int most, const char* what)
{
    Found out;
    for (std::size_t o = 0; c.figures && o < std::min(c.figures->pumps.size(), c.variant.unit.outputs.size()); ++o) {
        const int starts = c.figures->pumps[o].starts;
        if (moves_the_loop(c, o) != pumps || starts <= most * c.figures->days || only_follows(c, o))
            continue;
        if (const auto reason = commonest(c, o)) {
            Told told = Teller(c, *reason).tell();
            out.push_back({"", told.severity, (o == 0 ? std::string() : c.variant.unit.outputs[o].key + ": ") + std::to_string(starts) + what + meanwhile(c), std::move(told.reason), std::move(told.remedy)});
        }
    }
    return out;
}

Found many_starts_today(const FindingContext& c) { return switching(c, true, many_starts, " starts"); }
Found switches_often(const FindingContext& c) { return switching(c, false, many_switches, " times on and off"); }

// The pair has given up and only the minimum run time keeps the pump on: it moves what is no warmer than the store.
Found runs_only_minimum(const FindingContext& c)
{
    Found out;
    if (c.day && c.day->kind == DayKind::generated && c.day->sky.clouds != Clouds::clear)
        return out; // clouds end runs of any pair
    for (std::size_t o = 0; c.figures && o < std::min(c.figures->pumps.size(), c.variant.unit.outputs.size()); ++o) {
        int stops = 0, at_minimum = 0;
        for (const Stops& s : c.figures->stops)
            if (s.output == o) {
                stops += s.count;
                at_minimum += s.at_minimum;
            }
        if (!moves_the_loop(c, o) || at_minimum < many_starts * c.figures->days || 2 * at_minimum < stops)
            continue;
        Variant copy = c.variant;
        const RunTimes* times = run_times_of(copy, c.variant.unit.outputs[o].key);
        std::optional<Remedy> remedy;
        for_each_rule<Differential>(c, [&](std::size_t i, const Differential& d) {
            constexpr double more_k = 3;
            if (!remedy && c.variant.unit.rules[i].output == c.variant.unit.outputs[o].key)
                remedy = change<Differential>(c, "Try: start at " + diff(c, d.on.in_kelvin() + more_k), i, [](Differential& x) { x.on = TempDiff::kelvin(x.on.in_kelvin() + more_k); });
        });
        out.push_back({"", c.day ? Severity::caution : Severity::note, std::to_string(at_minimum) + " of " + std::to_string(stops) + " runs of " + c.variant.unit.outputs[o].key + " lasted just the minimum run time" + meanwhile(c), (times ? "Only those " + lasts(c, times->min_run_s) + " kept it on: " : std::string()) + "the difference had gone before. Each such run wears the pump and brings little. A start further above, a stop nearer the store, or less flow.", remedy});
    }
    return out;
}

} // namespace

const FindingKinds& switching_findings()
{
    static const FindingKinds table{
        {"many_starts_today", many_starts_today},
        {"switches_often", switches_often},
        {"runs_only_minimum", runs_only_minimum},
    };
    return table;
}

} // namespace vernal
