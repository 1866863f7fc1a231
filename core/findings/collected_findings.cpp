// The day's sun that was not collected, against a plain perfect controller on the same loop.
#include "shared.h"

#include "core/setup/possible.h"

#include <algorithm>
#include <numeric>

namespace vernal {
namespace {

constexpr double told_from = 1.0 / 6, serious_from = 1.0 / 3; // of the possible heat, lost
constexpr double full_for_s = 3600;                           // a day with so much sun at the limit is full
constexpr double worth_a_try = 0.25;                          // of what is lost, got back
constexpr double least_told_j = 3.6e6;                        // 1 kWh a day

// Settings that can hold a pump off in good sun without protecting anything.
class Remedies {
public:
    Remedies(const FindingContext& c, std::size_t output) : c_(c), v_(c.variant), output_(output) {}

    std::vector<Remedy> all()
    {
        const std::string& key = v_.unit.outputs[output_].key;
        if (v_.unit.outputs[output_].mode == Mode::off)
            out_.push_back({"Try: " + key + " on AUTO", [of = ref_to(v_.unit.outputs, output_)](Variant& v) {
                                if (Output* o = of.in(v.unit.outputs))
                                    o->mode = Mode::automatic;
                            }});
        for (std::size_t i = 0; i < v_.unit.rules.size(); ++i)
            if (const Rule& r = v_.unit.rules[i]; r.enabled && r.output == key)
                of_rule(i, r);
        return std::move(out_);
    }

private:
    void of_rule(std::size_t i, const Rule& r)
    {
        constexpr double band_k = 1, rest_s = 300;
        if (const auto* l = std::get_if<StoreLimit>(&r.body); l && l->hysteresis.in_kelvin() > band_k)
            out_.push_back(change<StoreLimit>(c_, "Try: allow again " + diff(c_, band_k) + " below the limit", i, [=](StoreLimit& x) { x.hysteresis = TempDiff::kelvin(band_k); }));
        if (const auto* t = std::get_if<RunTimes>(&r.body); t && t->min_off_s > rest_s)
            out_.push_back(change<RunTimes>(c_, "Try: keep off for " + lasts(c_, rest_s), i, [=](RunTimes& x) { x.min_off_s = rest_s; }));
        if (const auto* m = std::get_if<CollectorMinimum>(&r.body)) {
            const double to = m->limit.in_celsius() - 10;
            out_.push_back(change<CollectorMinimum>(c_, "Try: allow from " + temp(c_, to), i, [=](CollectorMinimum& x) { x.limit = Temperature::celsius(to); }));
        }
        if (std::holds_alternative<SunStart>(r.body) || std::holds_alternative<SeriesThermostat>(r.body))
            out_.push_back(switch_off(c_, i));
        if (const auto d = difference_of(v_.unit, r))
            for (const auto& [on, off] : {std::pair{8.0, 2.0}, {5.0, 1.5}})
                if (on < d->on.in_kelvin() || off < d->off.in_kelvin())
                    out_.push_back({"Try: start at " + diff(c_, std::min(on, d->on.in_kelvin())) + ", stop at " + diff(c_, std::min(off, d->off.in_kelvin())), [of = ref_to(v_.unit.rules, i), on = on, off = off](Variant& v) {
                                        Rule* rule = of.in(v.unit.rules);
                                        if (const auto now = rule ? difference_of(v.unit, *rule) : std::nullopt)
                                            set_difference(v.unit, *rule, std::min(now->on, TempDiff::kelvin(on)), std::min(now->off, TempDiff::kelvin(off)));
                                    }});
    }

    const FindingContext& c_;
    const Variant& v_;
    std::size_t output_;
    std::vector<Remedy> out_;
};

// Heat to the store of the same day, from its own morning.
double heat_with(const FindingContext& c, const Remedy& remedy)
{
    Variant v = c.variant;
    remedy.apply(v);
    const auto setup = coupled_setup(c.job, v, *c.day);
    if (!setup)
        return -INFINITY;
    CoupledOptions options;
    options.keep_records = false;
    return run_coupled(*setup, options).figures.collected_j();
}

std::optional<Remedy> best_remedy(const FindingContext& c, std::size_t output, double lost_j)
{
    if (!c.day || c.day->kind != DayKind::generated)
        return {};
    std::optional<Remedy> best;
    double most = c.figures->collected_j() + worth_a_try * lost_j;
    for (Remedy& r : Remedies(c, output).all())
        if (const double heat = heat_with(c, r); heat > most) {
            most = heat;
            best = std::move(r);
        }
    if (best)
        best->label += " (" + said(c, most - c.figures->collected_j(), Quantity::energy) + " more)";
    return best;
}

std::string what_held(const FindingContext& c, const MissedHeat& m)
{
    const std::string output = c.variant.unit.outputs[m.output].key;
    if (m.rule >= 0)
        return std::string(kind_of(c.variant.unit.rules[static_cast<std::size_t>(m.rule)]).title) + " kept " + output + " off";
    switch (m.held_by) {
    case Priority::off_switch: return "The switch of " + output + " is OFF";
    case Priority::fault: return "A probe fault kept " + output + " off";
    case Priority::hold: return "The wait after power returns kept " + output + " off";
    default: return "No rule asked for " + output;
    }
}

Found sun_not_collected(const FindingContext& c)
{
    if (!c.figures || std::isnan(c.figures->collected_share()))
        return {};
    const Figures& f = *c.figures;
    if (c.day && c.day->outage_h > 0)
        return {}; // the mains failed, not the rules
    if (f.full_s >= full_for_s)
        return {}; // the store takes no more, whoever controls the pump
    const double lost = f.possible_j - f.collected_j();
    if (lost < told_from * f.possible_j || lost < least_told_j * f.days)
        return {};
    const auto most = std::max_element(f.missed.begin(), f.missed.end(), [](const MissedHeat& a, const MissedHeat& b) { return a.heat_j < b.heat_j; });
    const double all = std::accumulate(f.missed.begin(), f.missed.end(), 0.0, [](double sum, const MissedHeat& m) { return sum + m.heat_j; });
    Finding out{"", lost >= serious_from * f.possible_j ? Severity::serious : Severity::caution, "Only " + to_text(f.collected_share(), Quantity::ratio, c.units) + " of the possible heat was collected" + meanwhile(c),
        said(c, f.collected_j(), Quantity::energy) + " of " + said(c, f.possible_j, Quantity::energy) + " that a perfect controller gets from this loop and this sun. ", {}};
    if (most == f.missed.end() || all <= 0) {
        out.reason += "The pumps were not held off: look at where the heat went (cooler, night, pipes, second store).";
        return {out};
    }
    out.reason += what_held(c, *most) + " for " + to_text(most->time_s / 3600, Quantity::hours, c.units) + " of sun, about " + said(c, lost * most->heat_j / all, Quantity::energy) + " of what is missing.";
    if (most->rule >= 0)
        out.at = "rule/" + c.variant.unit.rules[static_cast<std::size_t>(most->rule)].id;
    out.remedy = best_remedy(c, most->output, lost);
    return {out};
}

} // namespace

const FindingKinds& collected_findings()
{
    static const FindingKinds table{
        {"sun_not_collected", sun_not_collected, Cause::rules, Loops::pumped, "loop/pump"},
    };
    return table;
}

} // namespace vernal
