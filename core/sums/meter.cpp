#include "meter.h"

#include "switching.h"

#include <algorithm>
#include <cctype>

namespace vernal {
namespace {

constexpr double meter_share = 0.008;   // of the reading, a hand meter; estimate
constexpr double thermometer_k = 0.5;   // estimate
constexpr double most_drift = 0.25;     // of the signal, and it still goes along with the temperature; estimate
constexpr double short_ohm = 5;         // no probe's curve comes down to it where a loop can be
constexpr double coldest_place_c = -45; // a loop out of doors
constexpr double hottest_store_c = 110;

std::string temp(double c, const Units& u) { return to_text(c, Quantity::temperature, u); }
std::string apart(double k, const Units& u) { return (k > 0 ? "+" : "") + to_text(k, Quantity::small_difference, u); }

// The unit's pull-up lies beside the probe while the unit is dead.
double without_pull_up(double ohm, const InputStage& stage)
{
    if (stage.kind != StageKind::pull_up)
        return NAN;
    const double left = 1 / ohm - 1 / stage.pull_up_ohm;
    return left > 0 ? 1 / left : NAN;
}

const NamedCurve* other_curve(const CurveBook& book, const ProbeCurve& own, double signal, double beside_c, double within_k)
{
    const NamedCurve* best = nullptr;
    double least = within_k;
    for (const NamedCurve& n : book)
        if (!(n.curve == own) && std::string(signal_unit(n.curve)) == signal_unit(own))
            if (const auto t = temperature_at(n.curve, signal); t && std::fabs(t->in_celsius() - beside_c) <= least) {
                least = std::fabs(t->in_celsius() - beside_c);
                best = &n;
            }
    return best;
}

void compare(MeterAnswer& a, const Probe& p, double beside_c, const CurveBook& book, const Units& u)
{
    a.off_k = a.read_c - beside_c;
    const double by_meter = std::fabs(temperature_beyond(p.curve, a.alone * (1 + meter_share)) - a.read_c);
    a.allowed_k = tolerance_k(p.curve, p.sensor.tolerance, beside_c) + by_meter + thermometer_k;
    const std::string off = "Off by " + apart(a.off_k, u) + "; a sound one lies within ± " + to_text(a.allowed_k, Quantity::small_difference, u) + ". ";
    if (std::fabs(a.off_k) <= a.allowed_k) {
        a.says = off + "Sound.";
        return;
    }
    a.likely = {ConditionKind::drifted};
    if (a.off_k > 0 && (p.place == ProbePlace::collector || p.place == ProbePlace::collector_2))
        a.likely.push_back(ConditionKind::in_sun);
    // One reading fits some curve nearly always: another one comes first only where
    // no probe drifts so far.
    const double share = a.alone / signal_beyond(p.curve, beside_c) - 1;
    const NamedCurve* n = other_curve(book, p.curve, a.alone, beside_c, a.allowed_k);
    const bool drifts = !n || std::fabs(share) <= most_drift;
    a.says = off;
    if (drifts)
        a.says += "Likely drifted: its signal is " + to_text(std::fabs(share), Quantity::fine_ratio, u) + (share > 0 ? " high" : " low") + ". Prove it in ice water" + (a.likely.size() > 1 ? ", and shade it first." : ".");
    if (n)
        a.says += std::string(drifts ? " Or it is another probe: " : "Another probe than its curve says: ") + n->name + " would read right. A reading at a second temperature tells.";
}

} // namespace

MeterAnswer meter_answer(const Variant& v, std::size_t probe, const MeterReading& r, const CurveBook& book, const Units& u)
{
    const Probe& p = v.probes[probe];
    const bool ohms = is_resistance(p.curve);
    MeterAnswer a;
    if (std::isinf(r.signal)) {
        a.likely = {ConditionKind::open};
        a.reads = "no path";
        a.says = "Open: a broken lead or a loose clamp. Measure at the probe, then at the unit's end: the lead is between.";
        return a;
    }
    if (ohms && r.signal < short_ohm) {
        a.likely = {ConditionKind::shorted};
        a.reads = "no resistance";
        a.says = "Shorted: a crushed or wet cable. Disconnect at the probe: if the lead still reads a few ohms, it is the lead.";
        return a;
    }
    a.alone = r.connected && ohms ? without_pull_up(r.signal, v.input) : r.signal;
    if (std::isnan(a.alone)) {
        a.reads = "not to be told";
        a.says = v.input.kind == StageKind::pull_up ? "With the unit's pull-up of " + to_text(v.input.pull_up_ohm, Quantity::resistance, u) + " beside it no probe could read that much: is the unit fed? Disconnect the probe and measure again."
                                                    : "The unit's own resistor reads along, and nothing here says how large it is: disconnect the probe and measure again.";
        return a;
    }
    const auto read = temperature_at(p.curve, a.alone);
    const double stands = stagnation_at(v.loop, p.place), hottest = std::isnan(stands) ? hottest_store_c : stands;
    a.read_c = read ? read->in_celsius() : NAN;
    if (!read || a.read_c < coldest_place_c || a.read_c > hottest) {
        const bool high = a.alone > signal_beyond(p.curve, 20);
        a.likely = {high ? ConditionKind::open : ConditionKind::shorted};
        a.reads = read ? temp(a.read_c, u) : "beyond its curve";
        a.says = std::string("Nothing here can have that temperature: ") + (a.likely.front() == ConditionKind::open ? "a bad joint, or another curve than its own." : "moisture between the wires, or another curve than its own.");
        if (const NamedCurve* n = std::isfinite(r.beside_c) ? other_curve(book, p.curve, a.alone, r.beside_c, 2) : nullptr)
            a.says += " " + n->name + " would read right.";
        return a;
    }
    const double tolerance = tolerance_k(p.curve, p.sensor.tolerance, a.read_c);
    a.reads = temp(a.read_c, u) + (tolerance > 0 ? ", ± " + to_text(tolerance, Quantity::small_difference, u) : "");
    if (std::isfinite(r.beside_c)) {
        compare(a, p, r.beside_c, book, u);
        return a;
    }
    const double lead = lead_error_k(p.curve, p.lead, a.read_c);
    a.says = std::isfinite(lead) && std::fabs(lead) >= 0.1 ? "At the unit's end of the lead: " + apart(lead, u) + " of it is the lead's. " : "";
    a.says += "Hold a thermometer beside it to see how far it is off.";
    return a;
}

Result<double> meter_signal(const std::string& text, const ProbeCurve& curve)
{
    std::string s;
    for (const char c : text)
        if (c != ' ')
            s += static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
    if (s == "OL" || s == "0L" || s == "OPEN" || s == "∞")
        return INFINITY;
    if (!is_resistance(curve)) {
        if (const std::string unit = signal_unit(curve); text.size() > unit.size() && text.ends_with(unit))
            return parse(text.substr(0, text.size() - unit.size()), Quantity::number, {});
        return parse(text, Quantity::number, {});
    }
    double times = 1;
    for (const char* end : {"KΩ", "KOHM", "K"})
        if (const std::string unit = end; times == 1 && s.size() > unit.size() && s.ends_with(unit)) {
            s.resize(s.size() - unit.size());
            times = 1000;
        }
    const auto ohm = times == 1 ? parse(text, Quantity::resistance, {}) : parse(s, Quantity::number, {});
    if (!ohm)
        return Error{"“" + text + "” is no reading", "", "Type what the meter shows: 1097, 10.2 k, or OL"};
    if (*ohm < 0 || *ohm * times > 1e9)
        return Error{"no probe reads " + text, "", "Type what the meter shows: 1097, 10.2 k, or OL"};
    return *ohm * times;
}

} // namespace vernal
