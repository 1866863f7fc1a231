#include "shared.h"

#include "core/setup/job_setup.h"
#include "core/sums/switching.h"

#include <array>

namespace vernal {
namespace {

constexpr double lead_error_felt_k = 1.0;   // a lead that reads this much off is told; estimate
constexpr double bridge_error_felt_k = 1.0; // likewise of a limit that is read over a bridge; estimate
constexpr double coarse_share = 0.25;       // of the gap between start and stop, one count

std::string fine(const FindingContext& c, double v) { return to_text(v, Quantity::small_difference, c.units); }

template <class F>
Remedy set_probe(const FindingContext& c, std::string label, std::size_t index, F change)
{
    return {std::move(label), [of = ref_to(c.variant.probes, index), change](Variant& v) {
                if (Probe* p = of.in(v.probes))
                    change(*p);
            }};
}

// Sets the difference of a rule from what it is.
template <class F>
Remedy set_difference_of(const FindingContext& c, std::string label, std::size_t rule, F change)
{
    return {std::move(label), [of = ref_to(c.variant.unit.rules, rule), change](Variant& v) {
                Rule* r = of.in(v.unit.rules);
                if (auto now = r ? difference_of(v.unit, *r) : std::nullopt) {
                    change(*now);
                    set_difference(v.unit, *r, now->on, now->off);
                }
            }};
}

template <class F>
Found each_probe(const FindingContext& c, F f)
{
    Found out;
    for (std::size_t i = 0; i < c.variant.probes.size(); ++i) {
        if (!reads_temperature(c.variant.probes[i]))
            continue;
        const std::size_t before = out.size();
        f(out, i, c.variant.probes[i]);
        for (std::size_t k = before; k < out.size(); ++k)
            out[k].at = "probe/" + c.variant.probes[i].id;
    }
    return out;
}

// The budget of a rule at that of the store temperatures looked at where the
// real stop lies lowest.
struct Widest {
    RealPoints points;
    double store_c;
    double lowest_off_k() const { return points.off.real_k() - points.off.worst_k; }
};
template <class F>
Found each_budget(const FindingContext& c, F f)
{
    Found out;
    for (std::size_t r = 0; r < c.variant.unit.rules.size(); ++r) {
        const auto d = difference_of(c.variant.unit, c.variant.unit.rules[r]);
        if (!d || !c.variant.unit.rules[r].enabled || d->off >= d->on)
            continue;
        std::optional<Widest> widest;
        const StoreRange stores = store_range(c.variant, r);
        for (double store_c : {stores.low_c, stores.high_c})
            if (const auto points = real_points(c.variant, r, {store_c, 15}); points && (!widest || Widest{*points, store_c}.lowest_off_k() < widest->lowest_off_k()))
                widest = Widest{*points, store_c};
        if (widest)
            f(out, r, *d, *widest);
    }
    return out;
}

// What a condition does, and what to do about it.
struct Sign {
    const char* title;
    const char* reason;
};
constexpr std::array signs{
    Sign{"", ""},
    Sign{" is open", "A broken lead, a loose clamp. The unit sees a fault: what uses this probe goes to its safe state. Isolate the unit and prove it dead before opening its cover, then tug at each wire."},
    Sign{" is shorted", "Crushed or wet cable. The unit sees a fault: what uses this probe goes to its safe state. Isolate the unit and prove it dead before opening its cover."},
    Sign{" is stuck", "It reads the same whatever the fluid does. Put it beside a second probe in a cup of warm water."},
    Sign{" has drifted", "Its ohms are off its curve: moisture, heat or age. Measure it in ice water and replace it."},
    Sign{" is in the sun", "It reads warmer than the fluid while the sun shines: the pump starts early and stops late. Put it under the insulation."},
    Sign{" is swapped with another", "The two leads sit on each other's inputs: the pump runs by night and rests by day."},
};

Found probe_not_sound(const FindingContext& c)
{
    return each_probe(c, [&](Found& out, std::size_t i, const Probe& p) {
        if (p.condition.kind == ConditionKind::sound)
            return;
        const Sign& t = signs[static_cast<std::size_t>(p.condition.kind)];
        const ConditionKind kind = p.condition.kind;
        const Remedy swap_back{"Try: swapped back", [](Variant& v) {
                                   for (Probe& x : v.probes)
                                       if (x.condition.kind == ConditionKind::swapped)
                                           x.condition.kind = ConditionKind::sound;
                               }};
        const Remedy sound = set_probe(c, "Try: a sound probe", i, [](Probe& x) { x.condition.kind = ConditionKind::sound; });
        out.push_back({"", Severity::serious, named(p) + t.title, t.reason, kind == ConditionKind::swapped ? swap_back : sound});
    });
}

Found swapped_alone(const FindingContext& c)
{
    const auto swapped = std::count_if(c.variant.probes.begin(), c.variant.probes.end(), [](const Probe& p) { return p.condition.kind == ConditionKind::swapped; });
    if (swapped == 0 || swapped == 2)
        return {};
    return {{"", Severity::note, "Swapped probes come in twos", std::to_string(swapped) + " say they are; the run changes places only of exactly two.", {}}};
}

Found read_by_other_curve(const FindingContext& c)
{
    return each_probe(c, [&](Found& out, std::size_t i, const Probe& p) {
        if (!p.read_by.other || p.read_by.curve == p.curve)
            return;
        constexpr double at_c = 60;
        const double read = temperature_beyond(p.read_by.curve, signal_beyond(p.curve, at_c));
        const std::string what = std::isfinite(read) ? "At " + temp(c, at_c) + " it reads " + temp(c, read) + "." : "It finds no temperature for its ohms.";
        out.push_back({"", Severity::serious, "The unit reads " + named(p) + " by another curve", what + " Set the unit to the probe's own curve, or change the probe.",
            set_probe(c, "Try: the probe's own curve", i, [](Probe& x) { x.read_by.other = false; })});
    });
}

Found band_may_close(const FindingContext& c)
{
    return each_budget(c, [&](Found& out, std::size_t r, const DifferenceOf& d, const Widest& w) {
        const double gap = (d.on - d.off).in_kelvin(), error = std::max(w.points.on.worst_k, w.points.off.worst_k);
        if (gap > error || error == 0)
            return;
        const double on = d.off.in_kelvin() + std::ceil(2 * (error + 0.5)) / 2;
        out.push_back({"", Severity::caution, "The band may close: the pump may chatter",
            "Start and stop are " + diff(c, gap) + " apart, and at a store of " + temp(c, w.store_c) + " probes, leads and input may be " + fine(c, error) + " off together.",
            set_difference_of(c, "Try: start at " + diff(c, on), r, [on](DifferenceOf& now) { now.on = TempDiff::kelvin(on); })});
    });
}

Found off_may_pass_zero(const FindingContext& c)
{
    return each_budget(c, [&](Found& out, std::size_t r, const DifferenceOf& d, const Widest& w) {
        const double least = w.lowest_off_k();
        if (least >= 0 || d.off.in_kelvin() < 0)
            return;
        const bool likely = w.points.off.real_k() - w.points.off.rss_k < 0;
        const double off = std::ceil(2 * (d.off.in_kelvin() - least)) / 2;
        std::optional<Remedy> remedy;
        if (off < d.on.in_kelvin())
            remedy = set_difference_of(c, "Try: stop at " + diff(c, off), r, [off](DifferenceOf& now) { now.off = TempDiff::kelvin(off); });
        out.push_back({"", likely ? Severity::caution : Severity::note, "The pump may run on while the loop loses heat",
            "It is to stop at " + diff(c, d.off.in_kelvin()) + ". With the errors of probes, leads and input at a store of " + temp(c, w.store_c) + " that can be a real difference of " + fine(c, least) + ".", remedy});
    });
}

namespace {

Found rated_too_low(const FindingContext& c, double (*rating)(const Probe&), const char* what, const char* do_what)
{
    return each_probe(c, [&](Found& out, std::size_t, const Probe& p) {
        const double stagnation = stagnation_at(c.variant.loop, p.place), rated = rating(p);
        if (rated <= 0 || !(stagnation > rated))
            return;
        out.push_back({"", Severity::serious, std::string(what) + " of " + named(p) + " bears only " + temp(c, rated),
            "The array can stand at " + temp(c, stagnation) + " (1000 W/m², 30 °C air, no flow). " + do_what + " Cover the collector before you touch it: it is hot enough to burn.", {}});
    });
}

} // namespace

Found probe_rated_too_low(const FindingContext& c)
{
    return rated_too_low(
        c, [](const Probe& p) { return p.sensor.rated_c; }, "The probe", "It drifts, then fails. Use one made for collectors.");
}

Found cable_rated_too_low(const FindingContext& c)
{
    return rated_too_low(
        c, [](const Probe& p) { return p.lead.cable_c; }, "The cable", "Its insulation melts and shorts. Use silicone cable at the collector and join it further down.");
}

Found range_too_small(const FindingContext& c)
{
    return each_probe(c, [&](Found& out, std::size_t i, const Probe& p) {
        const double stagnation = stagnation_at(c.variant.loop, p.place);
        if (std::isnan(stagnation) || p.condition.kind != ConditionKind::sound)
            return;
        const double most = std::min(c.variant.input.high_c, p.curve.max_c);
        if (most >= stagnation && ReadingChain(chain_of(c.variant, i), ReadingChain::For::look).at(stagnation, 0).valid)
            return;
        out.push_back({"", Severity::caution, "The range of " + named(p) + " is too small",
            "The array can stand at " + temp(c, stagnation) + "; curve and input go to " + temp(c, most) + " at most. Beyond, the unit takes the probe for broken, and what uses it goes to its safe state until it cools.", {}});
    });
}

Found limit_not_readable(const FindingContext& c)
{
    Found out;
    for (const Rule& r : c.variant.unit.rules) {
        const auto limit = limit_of(r);
        if (!limit || !r.enabled)
            continue;
        const auto it = std::find_if(c.variant.probes.begin(), c.variant.probes.end(), [&](const Probe& p) { return p.key == limit->probe; });
        if (it == c.variant.probes.end() || it->condition.kind != ConditionKind::sound)
            continue;
        const double at = limit->limit.in_celsius();
        if (limit->lower)
            continue;
        if (at <= it->curve.max_c && ReadingChain(chain_of(c.variant, static_cast<std::size_t>(it - c.variant.probes.begin())), ReadingChain::For::look).at(at, 0).valid)
            continue;
        out.push_back({"", Severity::serious, std::string(kind_of(r).title) + " at " + temp(c, at) + " can never act",
            named(*it) + " cannot be read that high: its curve is good to " + temp(c, it->curve.max_c) + ", the unit calls it broken above " + temp(c, c.variant.input.high_c) + ". Use another probe, or a lower limit.", {}, "rule/" + r.id});
    }
    return out;
}

// What the unit reads on the bridged probe at `real_c` while the store has `store_c`;
// NaN: it takes the probe for broken.
double read_over_bridge(const Sensors::Pair& bridge, double real_c, double store_c)
{
    const Seen seen = bridge.chain.collector(bridge.chain.difference_k(real_c, store_c, 0), {store_c, true});
    return seen.valid ? seen.temp_c : NAN;
}

Found limit_over_bridge(const FindingContext& c)
{
    const Sensors wired = sensors(c.variant);
    if (!wired.bridge)
        return {};
    const Probe& probe = c.variant.probes[wired.bridge->collector];
    if (probe.condition.kind != ConditionKind::sound || c.variant.probes[wired.bridge->store].condition.kind != ConditionKind::sound)
        return {};
    StoreRange stores{20, 60};
    for (std::size_t i = 0; i < c.variant.unit.rules.size(); ++i)
        if (const auto d = difference_of(c.variant.unit, c.variant.unit.rules[i]); d && c.variant.unit.rules[i].enabled && d->source == probe.key)
            stores = store_range(c.variant, i);
    Found out;
    for (const Rule& r : c.variant.unit.rules) {
        const auto limit = limit_of(r);
        if (!limit || !r.enabled || limit->probe != probe.key)
            continue;
        const double at = limit->limit.in_celsius();
        const auto late_k = [&](double store_c) {
            const double read = read_over_bridge(*wired.bridge, at, store_c);
            return std::isnan(read) ? INFINITY : limit->lower ? read - at
                                                              : at - read;
        };
        const double worst_c = std::max({stores.low_c, stores.high_c}, [&](double a, double b) { return std::abs(late_k(a)) < std::abs(late_k(b)); });
        if (std::abs(late_k(worst_c)) < bridge_error_felt_k)
            continue;
        const double read = read_over_bridge(*wired.bridge, at, worst_c);
        const bool late = std::max(late_k(stores.low_c), late_k(stores.high_c)) >= bridge_error_felt_k;
        out.push_back({"", late ? Severity::serious : Severity::caution, std::string(kind_of(r).title) + " at " + temp(c, at) + " is fed by the bridge",
            "A bridge tells how much warmer " + named(probe) + " is than the store, by a scale that is right at a store of " + temp(c, c.variant.input.scale_at_c) + "; it knows no temperature of the collector. At a true " + temp(c, at) + " and a store of " + temp(c, worst_c) + (std::isnan(read) ? std::string(" the unit takes the probe for broken. ") : " the unit reads " + temp(c, read) + ": the rule acts " + (late_k(worst_c) > 0 ? "too late. " : "too early. ")) + "A protection needs a probe on an input of its own, or a thermostat switch on the pipe.",
            own_inputs(), "rule/" + r.id});
    }
    return out;
}

Found lead_reads_off(const FindingContext& c)
{
    return each_probe(c, [&](Found& out, std::size_t i, const Probe& p) {
        const double stagnation = stagnation_at(c.variant.loop, p.place);
        const double hot = std::min(std::isnan(stagnation) ? 90.0 : 120.0, p.curve.max_c);
        const double error = lead_error_k(p.curve, p.lead, hot);
        if (!(std::fabs(error) >= lead_error_felt_k))
            return;
        const bool wet = p.lead.leak_ohm > 0;
        std::optional<Remedy> remedy;
        if (wet)
            remedy = set_probe(c, "Try: a dry joint", i, [](Probe& x) { x.lead.leak_ohm = 0; });
        else
            remedy = set_probe(c, "Try: three wires", i, [](Probe& x) { x.lead.three_wire = true; });
        out.push_back({"", Severity::caution, "The lead of " + named(p) + " reads " + fine(c, error) + " off",
            "At " + temp(c, hot) + (wet ? ", by the moisture between its wires. Joints outdoors belong in a box or under gel." : ", by its own ohms. Thicker wire, a third wire, or a probe of more ohms."), remedy});
    });
}

Found counts_too_coarse(const FindingContext& c)
{
    return each_budget(c, [&](Found& out, std::size_t r, const DifferenceOf& d, const Widest& w) {
        const double count = 2 * std::max(w.points.on.lines[static_cast<std::size_t>(ErrorCause::resolution)].source_k, w.points.on.lines[static_cast<std::size_t>(ErrorCause::resolution)].store_k);
        if (count <= coarse_share * (d.on - d.off).in_kelvin())
            return;
        out.push_back({"", Severity::caution, "The unit sees only steps of " + fine(c, count),
            "At a store of " + temp(c, w.store_c) + " that is much of the " + diff(c, (d.on - d.off).in_kelvin()) + " between start and stop: it switches by steps, not by the fluids. A pull-up that suits the probe, or more bits.", {}, "rule/" + c.variant.unit.rules[r].id});
    });
}

} // namespace

const FindingKinds& probe_findings()
{
    static const FindingKinds table{
        {"probe_not_sound", probe_not_sound, Cause::probes},
        {"swapped_alone", swapped_alone, Cause::probes},
        {"read_by_other_curve", read_by_other_curve, Cause::probes},
        {"band_may_close", band_may_close},
        {"off_may_pass_zero", off_may_pass_zero},
        {"probe_rated_too_low", probe_rated_too_low, Cause::probes},
        {"cable_rated_too_low", cable_rated_too_low, Cause::probes},
        {"range_too_small", range_too_small, Cause::probes},
        {"limit_not_readable", limit_not_readable, Cause::probes},
        {"limit_over_bridge", limit_over_bridge, Cause::probes},
        {"lead_reads_off", lead_reads_off, Cause::probes},
        {"counts_too_coarse", counts_too_coarse, Cause::probes},
    };
    return table;
}

} // namespace vernal
