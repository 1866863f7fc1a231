#include "shared.h"

#include "core/plant/fluid.h"
#include "probe_health.h"
#include "switching.h"

#include <algorithm>
#include <cmath>

namespace vernal {

using namespace sums;

namespace {

constexpr double hand_c = 33, a_room_c = 20; // skin of a warm hand; estimate

std::string temp(double v, C c) { return show(v, Q::temperature, c); }
std::string fine(double v, C c) { return show(v, Q::small_difference, c); }
std::string ohm(double v, C c) { return is_resistance(c.at_probe().curve) ? show(v, Q::resistance, c) : show(v, Q::number, c) + " " + signal_unit(c.at_probe().curve); }

double signal_of(C c, double temp_c) { return signal_beyond(c.at_probe().curve, temp_c); }
double read_of(C c, double signal) { return temperature_beyond(c.at_probe().curve, signal); }

SumResult off_curve(double signal, C c) { return {ohm(signal, c) + " is outside this probe's curve: look for an open or shorted lead.", NAN}; }
bool on_curve(double signal, C c) { return static_cast<bool>(temperature_at(c.at_probe().curve, signal)); }

// --- measuring --------------------------------------------------------------

SumResult left_connected(X x, C c)
{
    const double probe = signal_of(c, x[0]), seen = probe * x[1] / (probe + x[1]);
    return {"At " + temp(x[0], c) + " the probe has " + ohm(probe, c) + ". Beside the unit's " + ohm(x[1], c) + " the meter shows " + ohm(seen, c) + ", which looks like " + temp(read_of(c, seen), c) + ": " + fine(read_of(c, seen) - x[0], c) +
                " off. Disconnect the probe first.",
        read_of(c, seen) - x[0]};
}

SumResult meter_error(X x, C c)
{
    if (!on_curve(x[0], c))
        return off_curve(x[0], c);
    const double off = x[0] * x[1] + x[2], t = read_of(c, x[0]);
    const double worst = std::max(std::fabs(read_of(c, x[0] + off) - t), std::fabs(read_of(c, std::max(x[0] - off, x[0] * 0.01)) - t));
    return {ohm(x[0], c) + " ± " + ohm(off, c) + " is " + temp(t, c) + " ± " + fine(worst, c), worst};
}

SumResult against(double true_c, double signal, const std::string& before, C c)
{
    if (!on_curve(signal, c))
        return off_curve(signal, c);
    const double read = read_of(c, signal), error = read - true_c, allowed = tolerance_k(c.at_probe().curve, c.at_probe().sensor.tolerance, true_c);
    const bool stated = c.at_probe().sensor.tolerance.kind != ToleranceKind::none;
    const std::string verdict = !stated ? "" : std::fabs(error) <= allowed ? ", within its ±" + fine(allowed, c)
                                                                           : ", outside its ±" + fine(allowed, c) + ": the probe, or the bath";
    return {before + ohm(signal, c) + " reads " + temp(read, c) + ": " + fine(error, c) + " off" + verdict, error};
}

SumResult ice(X x, C c) { return against(0, x[0], "Crushed ice and water, stirred, is " + temp(0, c) + ". ", c); }

SumResult boiling(X x, C c)
{
    const double boils = boiling_c(atmosphere_pa(x[0]));
    return against(boils, x[1], "At " + show(x[0], Q::altitude, c) + " water boils at " + temp(boils, c) + ". ", c);
}

std::size_t other_of(C c) { return c.probe == 0 && c.variant.probes.size() > 1 ? 1 : 0; }

SumResult beside(X x, C c)
{
    const auto other = static_cast<std::size_t>(std::lround(x[1])) - 1;
    const auto s = side_by_side(c.variant, c.probe, x[0], other, x[2], x[3]);
    if (!s)
        return {s.error().text(), NAN};
    return {c.at_probe().name + " reads " + temp(s->this_c, c) + ", " + c.variant.probes[other].name + " " + temp(s->other_c, c) + ": " + fine(s->apart_k, c) + " apart, and sound ones may be " + fine(s->allowed_k, c) + ". " +
                (s->sound() ? "Both may be sound." : "One of them is not: prove each in ice water."),
        s->apart_k};
}

SumResult hand_warm(X x, C c)
{
    const double lag = c.at_probe().lag_s, after = warming_c(lag, x[0], x[1], x[2]);
    if (!(x[1] > x[0]))
        return {"The hand must be warmer than the probe.", NAN};
    return {"With a lag of " + show(lag, Q::duration, c) + " it climbs from " + temp(x[0], c) + " to " + temp(after, c) + " in " + show(x[2], Q::duration, c) + ": " + ohm(signal_of(c, x[0]), c) + " becomes " + ohm(signal_of(c, after), c), after};
}

SumResult cup(X x, C c)
{
    const auto d = first_difference(c.variant);
    if (!d)
        return {"There is no difference rule to trip.", NAN};
    const double starts = x[1] + d->on.in_kelvin(), stops = x[1] + d->off.in_kelvin();
    const double after = reaches_after_s(c.at_probe().lag_s, x[2], x[0], starts);
    if (!std::isfinite(after))
        return {"The cup must be warmer than " + temp(starts, c) + " to trip the pump with a store of " + temp(x[1], c) + ".", NAN};
    return {"The pump must start at " + temp(starts, c) + " (" + ohm(signal_of(c, starts), c) + "), after " + show(after, Q::duration, c) + " in the cup, and stop at " + temp(stops, c) + " (" + ohm(signal_of(c, stops), c) + ") as it cools.", after};
}

// --- lead -------------------------------------------------------------------

SumResult lead_off(X x, C c)
{
    const Lead& l = c.at_probe().lead;
    if (l.length_m <= 0 && l.leak_ohm <= 0)
        return {"No lead is stated: nothing is added.", NAN};
    const double r = signal_of(c, x[0]), error = lead_error_k(c.at_probe().curve, l, x[0]);
    Lead dry = l;
    dry.leak_ohm = 0;
    const double copper = lead_error_k(c.at_probe().curve, dry, x[0]);
    return {"At " + temp(x[0], c) + " the probe has " + ohm(r, c) + ", the unit sees " + ohm(is_resistance(c.at_probe().curve) ? seen_ohm(l, r) : r, c) + ": " + fine(error, c) + " off" + (l.leak_ohm > 0 ? "; by its copper " + fine(copper, c) + ", by moisture " + fine(error - copper, c) : std::string()), error};
}

SumResult longest(X x, C c)
{
    const double m = longest_lead_m(c.at_probe().curve, c.at_probe().lead, x[1], x[0]);
    if (!std::isfinite(m))
        return {"Three wires and straight signals know no limit of this kind.", NAN};
    return {"At " + temp(x[1], c) + " the probe changes by " + ohm(m * 2 * copper_ohm_m(c.at_probe().lead.section_m2, c.at_probe().lead.strands, c.at_probe().lead.temp_c), c) + " in " + fine(x[0], c) + ": that is two wires of " + show(m, Q::length, c), m};
}

SumResult moisture(X x, C c)
{
    Lead wet = c.at_probe().lead;
    wet.leak_ohm = x[0];
    const double error = lead_error_k(c.at_probe().curve, wet, x[1]);
    return {"With " + ohm(x[0], c) + " across it, " + ohm(signal_of(c, x[1]), c) + " at " + temp(x[1], c) + " becomes " + ohm(seen_ohm(wet, signal_of(c, x[1])), c) + ": " + fine(error, c) + " off", error};
}

// --- input ------------------------------------------------------------------

SumResult pull_up(X x, C c)
{
    if (!is_resistance(c.at_probe().curve))
        return {"A straight signal needs no pull-up.", NAN};
    if (!(x[1] > x[0]))
        return {"The range must rise.", NAN};
    const PullUpChoice p = best_pull_up(c.variant.input, c.at_probe().curve, x[0], x[1]);
    return {"Finest at its coarsest end with " + ohm(p.best_ohm, c) + "; of the E24 series " + ohm(p.e24_ohm, c) + ": no count above " + fine(p.coarsest_k, c) + " between " + temp(x[0], c) + " and " + temp(x[1], c), p.e24_ohm};
}

SumResult bridge_at(X x, C c)
{
    const double v = bridge_volt(c.variant.input, signal_of(c, x[0]), signal_of(c, x[1]));
    return {"Collector " + ohm(signal_of(c, x[0]), c) + ", store " + ohm(signal_of(c, x[1]), c) + ": the middle stands at " + show(v, Q::signal_voltage, c), v};
}

SumResult bridge_means(X x, C c)
{
    const auto at = [&](double store_c) { return bridge_difference_k(c.variant.input, c.at_probe().curve, x[0], store_c); };
    const double here = at(x[1]), warmer = at(x[1] + 20);
    if (!std::isfinite(here))
        return {"No difference gives this voltage.", NAN};
    return {show(x[0], Q::signal_voltage, c) + " stands for " + fine(here, c) + " at a store of " + temp(x[1], c) + (std::isfinite(warmer) ? ", for " + fine(warmer, c) + " at " + temp(x[1] + 20, c) : std::string()), here};
}

// A comparator that starts at one voltage of the bridge's middle and lets go at another, apart by
// what its feedback lifts the reference: Vs R/(R + Rf) behind a divider of source resistance R.
double middle_volt(C c, double over_k, double store_c) { return bridge_volt(c.variant.input, signal_of(c, store_c + over_k), signal_of(c, store_c)); }

SumResult comparator(X x, C c)
{
    const double start = middle_volt(c, x[0], x[2]), stop = middle_volt(c, x[1], x[2]), apart = std::fabs(start - stop), supply = c.variant.input.supply_v;
    if (!(x[1] < x[0]) || !(apart > 0) || !(apart < supply))
        return {"The stop must lie below the start.", NAN};
    const double feedback = x[3] * (supply / apart - 1);
    const Knob& k = c.variant.unit.knob;
    const auto volt = [&](double v) { return show(v, Q::signal_voltage, c); };
    return {"At a store of " + temp(x[2], c) + " it starts at " + volt(start) + " and stops at " + volt(stop) + ", " + volt(apart) + " apart. From " + volt(supply) + " back over " + show(feedback, Q::resistance, c) + " to a divider of " + show(x[3], Q::resistance, c) +
                " gives that. The knob from " + show(k.on_first.in_kelvin(), Q::difference, c) + " to " + show(k.on_last.in_kelvin(), Q::difference, c) + " runs from " + volt(middle_volt(c, k.on_first.in_kelvin(), x[2])) + " to " + volt(middle_volt(c, k.on_last.in_kelvin(), x[2])) + ".",
        feedback};
}

SumResult comparator_means(X x, C c)
{
    const double apart = c.variant.input.supply_v * x[1] / (x[1] + x[2]), even = middle_volt(c, 0, x[3]);
    const double stop = x[0] + (x[0] > even ? -apart : apart);
    const auto means = [&](double volt) { return bridge_difference_k(c.variant.input, c.at_probe().curve, volt, x[3]); };
    const double on = means(x[0]), off = means(stop);
    if (!std::isfinite(on) || !std::isfinite(off))
        return {"No difference gives these voltages.", NAN};
    return {"The feedback keeps them " + show(apart, Q::signal_voltage, c) + " apart: it stops at " + show(stop, Q::signal_voltage, c) + ". At a store of " + temp(x[3], c) + " that is start at " + fine(on, c) + ", stop at " + fine(off, c) + (off >= on ? ": the two thresholds lie the wrong way round." : "."), off};
}

SumResult self_heating(X x, C c)
{
    const double r = signal_of(c, x[0]), w = probe_power_w(c.variant.input, r, r);
    return {"At " + temp(x[0], c) + " the measuring current puts " + to_text(w * 1000, Q::number, c.units) + " mW into " + ohm(r, c) + "; with " + show(x[1], Q::dissipation, c) + " it reads " + fine(w / x[1], c) + " high", w / x[1]};
}

// --- one knob ---------------------------------------------------------------

std::string pair_text(const KnobPair& p, C c) { return "start at " + show(p.on_k, Q::difference, c) + ", stop at " + show(p.off_k, Q::difference, c); }

SumResult knob_for(X x, C c)
{
    const KnobSetting s = knob_setting(c.variant.unit.knob, {x[0], x[1]});
    return {"Mark " + to_text(s.mark, Q::number, c.units) + ": " + pair_text(s.got, c) + ". That misses the start by " + show(s.miss.on_k, Q::difference, c) + ", the stop by " + show(s.miss.off_k, Q::difference, c) + ".", s.mark};
}

SumResult knob_at(X x, C c) { return {"Mark " + to_text(x[0], Q::number, c.units) + ": " + pair_text(knob_pair(c.variant.unit.knob, x[0]), c), x[0]}; }

void write_pair(Variant& v, const KnobPair& p)
{
    for (Rule& r : v.unit.rules)
        if (r.enabled && difference_of(v.unit, r))
            return set_difference(v.unit, r, TempDiff::kelvin(p.on_k), TempDiff::kelvin(p.off_k));
}

// --- inputs -----------------------------------------------------------------

SumInput at_temp(const char* label, double (*from)(C)) { return {{"temp_c", label, Q::temperature, -60, 300, ""}, from}; }
SumInput signal(const char* key, const char* label, double (*from)(C)) { return {{key, label, Q::resistance, 1e-3, 1e8, "Disconnected from the unit"}, from}; }

double at_25(C) { return 25; }
double signal_at_ice(C c) { return signal_of(c, 0); }
double signal_at_room(C c) { return signal_of(c, a_room_c); }
double other_at_room(C c) { return signal_beyond(c.variant.probes[other_of(c)].curve, a_room_c); }

void write_correction(Variant& v, std::size_t probe, X, double error) { v.probes[probe].correction = TempDiff::kelvin(-error); }

} // namespace

std::vector<FieldSum> probe_sums()
{
    using P = ProbePage;
    std::vector<FieldSum> out;
    const auto add = [&](FieldSum s, ProbePage page, decltype(FieldSum::write_probe) write = nullptr) {
        s.page = page;
        s.write_probe = write;
        out.push_back(std::move(s));
    };
    constexpr const char* correct = "Store as this probe's correction";
    add({"connected", {}, "The probe still connected?", "two resistances side by side", {at_temp("Probe at", at_25), {{"pull_up_ohm", "The unit's pull-up", Q::resistance, 1, 1e7, "Or the comparator's divider"}, [](C c) { return c.variant.input.pull_up_ohm; }}}, left_connected, nullptr, nullptr}, P::measure);
    add({"meter", {}, "How true is the meter?", "the meter's data sheet", {signal("ohm", "The meter shows", [](C c) { return signal_of(c, 25); }), {{"share", "± of the reading", Q::fine_ratio, 0, 0.2, "0.2 to 2 % for a hand meter (estimate)"}, [](C) { return 0.008; }}, {{"digits_ohm", "± digits", Q::resistance, 0, 1e5, "Last digits, in ohms"}, [](C c) { return signal_of(c, 25) / 1000; }}}, meter_error, nullptr, nullptr}, P::measure);
    add({"ice", {}, "Ice water", "0 °C by definition of the ice point, ITS-90 within 0.01 K", {signal("ohm", "The meter shows", signal_at_ice)}, ice, correct, nullptr}, P::measure, write_correction);
    add({"boiling", {}, "Boiling water", "ISO 2533 atmosphere; saturation of water (IAPWS); steam scalds: long tongs, gloves", {{{"altitude_m", "Altitude", Q::altitude, -400, 6000, ""}, [](C c) { return c.job.site.place.altitude_m; }}, signal("ohm", "The meter shows", [](C c) { return signal_of(c, boiling_c(atmosphere_pa(c.job.site.place.altitude_m))); })}, boiling, correct, nullptr}, P::measure, write_correction);
    add({"beside", {}, "Two probes side by side", "the same place has the same temperature", {signal("ohm", "This probe shows", signal_at_room), {{"other", "Beside probe number", Q::number, 1, static_cast<double>(max_probes), "As in the list, from 1"}, [](C c) { return static_cast<double>(other_of(c) + 1); }}, signal("other_ohm", "That one shows", other_at_room), {{"share", "Meter, ± of the reading", Q::fine_ratio, 0, 0.2, ""}, [](C) { return 0.008; }}}, beside, "Correct this one to the other", nullptr}, P::measure, write_correction);
    add({"hand", {}, "Hand-warm test", "first-order lag; it must climb within a minute (estimate)", {at_temp("Probe begins at", [](C) { return a_room_c; }), {{"hand_c", "Hand", Q::temperature, 20, 45, "30 to 35 °C (estimate)"}, [](C) { return hand_c; }}, {{"after_s", "after", Q::duration, 1, 3600, ""}, [](C) { return 60.0; }}}, hand_warm, nullptr, nullptr}, P::measure);
    add({"cup", {}, "Cup of hot water", "first-order lag; the water scalds above 50 °C", {{{"cup_c", "Cup", Q::temperature, 20, 95, ""}, [](C) { return 60.0; }}, {{"store_c", "The store reads", Q::temperature, 0, 95, ""}, [](C) { return 40.0; }}, {{"from_c", "Probe begins at", Q::temperature, -30, 95, ""}, [](C) { return a_room_c; }}}, cup, nullptr, nullptr}, P::measure);
    add({"lead_error", {}, "Lead error at a temperature", "two wires, ρ L / A of the table chosen; moisture in parallel", {at_temp("Probe at", [](C) { return 80.0; })}, lead_off, nullptr, nullptr}, P::lead);
    add({"longest_lead", {}, "Longest lead for an error", "two wires, ρ L / A of the table chosen", {{{"wanted_k", "Error allowed", Q::small_difference, 0.01, 20, ""}, [](C) { return 0.5; }}, at_temp("at", [](C) { return 100.0; })}, longest, nullptr, nullptr}, P::lead);
    add({"moisture", {}, "Moisture between the wires", "two resistances side by side", {{{"leak_ohm", "Across the wires", Q::resistance, 10, 1e9, "Probe disconnected, high ohms range"}, [](C c) { return c.at_probe().lead.leak_ohm > 0 ? c.at_probe().lead.leak_ohm : 100000.0; }}, at_temp("Probe at", [](C) { return 60.0; })}, moisture, "This lead is as wet", nullptr}, P::lead,
        [](Variant& v, std::size_t i, X x, double) { v.probes[i].lead.leak_ohm = x[0]; });
    add({"pull_up", {}, "Best pull-up for a range", "the coarsest count made finest; E24 series, IEC 60063", {{{"low_c", "from", Q::temperature, -60, 300, ""}, [](C) { return 0.0; }}, {{"high_c", "to", Q::temperature, -60, 350, ""}, [](C) { return 100.0; }}}, pull_up, "Use this pull-up", nullptr}, P::input,
        [](Variant& v, std::size_t, X, double value) { v.input.pull_up_ohm = value; });
    add({"bridge", {}, "Bridge: volts of a pair", "V = Vs R store / (R collector + R store)", {{{"collector_c", "Collector", Q::temperature, -40, 200, ""}, [](C) { return 48.0; }}, {{"store_c", "Store", Q::temperature, 0, 100, ""}, [](C) { return 40.0; }}}, bridge_at, nullptr, nullptr}, P::input);
    add({"bridge_means", {}, "Bridge: what a voltage means", "V = Vs R store / (R collector + R store), solved for the collector", {{{"volt", "Comparator at", Q::signal_voltage, 0, 48, ""}, [](C c) { return c.variant.input.supply_v * 0.56; }}, {{"store_c", "Store", Q::temperature, 0, 100, ""}, [](C) { return 40.0; }}}, bridge_means, nullptr, nullptr}, P::input);
    const SumInput at_store{{"store_c", "Store", Q::temperature, 0, 100, ""}, [](C) { return 40.0; }}, divider{{"divider_ohm", "Reference divider", Q::resistance, 10, 1e7, "Its two resistors side by side, as the comparator sees them"}, [](C) { return 5000.0; }};
    add({"comparator", {}, "Comparator for a wanted pair", "V = Vs R store / (R collector + R store); feedback by Vs R / (R + Rf)", {{{"on_k", "Start at", Q::difference, -20, 60, ""}, [](C c) { return first_difference(c.variant) ? first_difference(c.variant)->on.in_kelvin() : 8.0; }}, {{"off_k", "Stop at", Q::difference, -20, 60, ""}, [](C c) { return first_difference(c.variant) ? first_difference(c.variant)->off.in_kelvin() : 3.0; }}, at_store, divider}, comparator, nullptr, nullptr}, P::input);
    add({"comparator_means", {}, "Comparator: the pair it makes", "the same, solved for the collector", {{{"volt", "It starts at", Q::signal_voltage, 0, 48, "At the bridge's middle"}, [](C c) { return middle_volt(c, 8, 40); }}, divider, {{"feedback_ohm", "Feedback resistor", Q::resistance, 100, 1e9, "From its output to the divider"}, [](C) { return 200000.0; }}, at_store}, comparator_means, nullptr, nullptr}, P::input);
    add({"self_heating", {}, "Self-heating", "P = I² R over the heat it gives off", {at_temp("Probe at", at_25), {{"dissipation_w_k", "Heat it gives off", Q::dissipation, 1e-5, 0.2, "Data sheet; a bead 1 to 2 mW/K in still air (estimate)"}, [](C c) { return c.at_probe().sensor.dissipation_w_k > 0 ? c.at_probe().sensor.dissipation_w_k : 0.002; }}}, self_heating, "Keep this figure", nullptr}, P::input,
        [](Variant& v, std::size_t i, X x, double) { v.probes[i].sensor.dissipation_w_k = x[1]; });
    add({"knob_for", {}, "Mark for a wanted pair", "least sum of both squared misses", {{{"on_k", "Start at", Q::difference, -20, 60, ""}, [](C c) { return first_difference(c.variant) ? first_difference(c.variant)->on.in_kelvin() : 8.0; }}, {{"off_k", "Stop at", Q::difference, -20, 60, ""}, [](C c) { return first_difference(c.variant) ? first_difference(c.variant)->off.in_kelvin() : 4.0; }}}, knob_for, "Set the rule to this mark's pair", nullptr}, P::knob,
        [](Variant& v, std::size_t, X, double mark) { write_pair(v, knob_pair(v.unit.knob, mark)); });
    add({"knob_at", {}, "Pair at a mark", "the knob's two ends and its law", {{{"mark", "Knob at", Q::number, -1000, 1000, ""}, [](C c) { return 0.5 * (c.variant.unit.knob.first + c.variant.unit.knob.last); }}}, knob_at, "Set the rule to this pair", nullptr}, P::knob,
        [](Variant& v, std::size_t, X, double mark) { write_pair(v, knob_pair(v.unit.knob, mark)); });
    return out;
}

} // namespace vernal
