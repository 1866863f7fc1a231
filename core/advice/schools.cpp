#include "schools.h"

#include "core/job/fresh_rule.h"
#include "core/plant/passing.h"
#include "core/sums/filling.h"
#include "core/sums/switching.h"
#include "core/units/in_units.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double good_sun_w_m2 = 600;                      // on the collector; estimate
constexpr double least_off_k = 0.5, most_off_k = 8;        // of a stop; estimates
constexpr double usual_store_c = 40, usual_air_c = 20;     // at which a good sun's rise is taken; estimates
constexpr double mid_tank_k = 15.0;                        // layers above a probe at half height; estimate
constexpr double bottom_k = 30.0;                          // above one at the bottom
constexpr double drain_back_k = 20;                        // filled again only when the pump is about to start: water that stands in a cold pipe freezes; estimate
constexpr double drain_from_c = 5, recirculate_from_c = 5; // above freezing by what the coldest pipe is colder than the probe; estimates
constexpr double cool_frost_c = 2.0;                       // coldest air of a day that may bring frost to an array under a clear sky; estimate

// Estimates: what the store may reach by the answer, what a pool, a slab and a
// room bear, and where the collector is left alone.
constexpr std::array<double, 3> store_limit_c{60, 70, 85};
constexpr double pool_c = 30, slab_c = 45, room_c = 22;
constexpr double cut_out_c = 125, tube_cut_out_c = 118, lockout_c = 95, tube_a1_w_m2k = 2.2;
constexpr double cut_out_back_k = 15;
// How far a store at its limit must cool before it takes heat again: little, since a pool, a slab
// and a room hold their warmth for hours while heat is wanted again.
constexpr double tank_back_k = 4, pool_back_k = 0.5, slab_back_k = 4, room_back_k = 2;
// Estimates: night cooling begins below the limit and makes room for a day.
constexpr double cooling_below_k = 8, cooling_room_k = 15;

// Schools differ in how many times the pump's power the loop must still bring when
// it stops, and in how far above that it starts. Both are estimates.
struct School {
    const char* name;
    double heat_per_power, gap_k;
};
constexpr std::array<School, 3> schools{{{"harvest first", 8, 3.5}, {"even-handed", 30, 4.5}, {"power saving", 65, 5}}};
constexpr double pool_gap_k = 2.4; // a pool gains by little differences

template <class R>
R* find_rule(Variant& v, const std::string& output)
{
    for (Rule& r : v.unit.rules)
        if (auto* body = std::get_if<R>(&r.body); body && r.output == output)
            return body;
    return nullptr;
}

// The output's rule of this kind, added where there is none, changed and in use.
template <class R>
std::function<void(Variant&)> set_rule(const std::string& output, std::function<void(R&)> change)
{
    return [output, change](Variant& v) {
        if (!find_rule<R>(v, output)) {
            Rule rule = fresh_rule(v, kind_index<R>());
            rule.output = output;
            v.unit.rules.push_back(rule);
            sort_by_priority(v.unit.rules);
        }
        change(*find_rule<R>(v, output));
        for (Rule& r : v.unit.rules)
            if (r.output == output && std::holds_alternative<R>(r.body))
                r.enabled = true;
    };
}

template <class R>
std::function<void(Variant&)> without(const std::string& output)
{
    return [output](Variant& v) {
        for (Rule& r : v.unit.rules)
            if (r.output == output && std::holds_alternative<R>(r.body))
                r.enabled = false;
    };
}

double half(double k) { return std::ceil(2 * k - 1e-9) / 2; }

class Chooser {
public:
    Chooser(const Job& job, const Variant& v, const Answers& a, const Units& units) : job_(job), v_(v), a_(a), units_(units), arrangement_(arrangement_of(v.loop)) {}

    std::vector<Choice> all()
    {
        for (const Rule& r : v_.unit.rules)
            if (difference_of(v_.unit, r))
                pair(r);
        times();
        limit();
        hot_collector();
        frost();
        overheat();
        supply();
        special();
        heating();
        return std::move(out_);
    }

private:
    std::string temp(double c) const { return to_text(c, Quantity::temperature, units_); }
    std::string diff(double k) const { return to_text(k, Quantity::difference, units_); }
    std::string lasts(double s) const { return to_text(s, Quantity::duration, units_); }
    std::string hour(double h) const { return to_text(h, Quantity::time_of_day, units_); }
    bool has(Part p) const { return arrangement_.has(p); }
    const std::string& pump() const { return v_.unit.outputs.front().key; }
    void add(std::string what, std::string value, std::string why, std::string not_chosen, std::function<void(Variant&)> apply = {}) { out_.push_back({std::move(what), std::move(value), in_units(why, units_), in_units(not_chosen, units_), std::move(apply)}); }

    // What the difference must be for the loop to bring `times` the pump's power:
    // times P / (ρ c V').
    double worth_k(double times) const
    {
        return times * v_.loop.pump.power_w / std::max(1.0, carried_w_k(v_.loop, v_.loop.pump.flow_m3_s));
    }
    struct Pair {
        double on, off;
    };
    // Half of what a good sun gives through this flow: a stop above it ends runs in full sun.
    double highest_off_k() const { return settled_rise_k(v_.loop, v_.loop.collector, v_.loop.pump.flow_m3_s, good_sun_w_m2, usual_store_c, usual_air_c) / 2; }
    Pair pair_of(const School& school) const
    {
        const double off = std::clamp(worth_k(school.heat_per_power), least_off_k, std::max(least_off_k, std::min(most_off_k, highest_off_k())));
        return {off + (has(Part::pool) ? pool_gap_k : school.gap_k), off};
    }

    // The school's pair, widened until the probes cannot close it.
    void pair(const Rule& rule)
    {
        const School& school = schools[static_cast<std::size_t>(a_.pump)];
        auto [on, off] = pair_of(school);
        std::string probes;
        if (const double error = worst_error(rule); error > 0) {
            const double safe_off = std::max(off, has(Part::pool) ? off : error), safe_on = std::max(on, safe_off + error);
            if (safe_off > off + 0.05 || safe_on > on + 0.05)
                probes = " Probes, leads and input may be " + diff(error) + " off together, so stop and gap are no less than that.";
            off = safe_off;
            on = safe_on;
        }
        off = half(off);
        on = std::max(half(on), off + 1);
        std::string others;
        for (const School& other : schools)
            if (&other != &school) {
                const Pair p = pair_of(other);
                others += std::string(others.empty() ? "" : "; ") + other.name + " would be " + diff(half(p.on)) + " and " + diff(half(p.off)) + (p.on < pair_of(school).on ? ": more heat, more pump" : ": less pump, less heat");
            }
        const auto d = *difference_of(v_.unit, rule);
        add("Start and stop of " + rule.output + " against " + name_of(d.store), diff(on) + ", " + diff(off), std::string("The ") + school.name + " school" + why_pair() + ". At the stop it still brings " + to_text(off / worth_k(1), Quantity::count, units_) + " times what the pump takes." + probes, others,
            [output = rule.output, store = d.store, on = on, off = off](Variant& v) {
                for (Rule& r : v.unit.rules)
                    if (const auto found = difference_of(v.unit, r); found && r.output == output && found->store == store)
                        set_difference(v.unit, r, TempDiff::kelvin(on), TempDiff::kelvin(off));
            });
    }
    std::string why_pair() const
    {
        if (has(Part::pool))
            return ": a pool gains by little differences and much flow";
        return a_.pump == PumpPower::cheap ? ": the pump costs little, so every degree is taken" : a_.pump == PumpPower::scarce ? ": the pump runs off a panel or battery, so it runs when it pays"
                                                                                                                                : ": the pump's power counts, but the sun's heat counts more";
    }
    double worst_error(const Rule& rule) const
    {
        const auto index = static_cast<std::size_t>(&rule - v_.unit.rules.data());
        double worst = 0;
        const StoreRange stores = store_range(v_, index);
        for (double store_c : {stores.low_c, stores.middle_c(), stores.high_c})
            if (const auto points = real_points(v_, index, {store_c, 15}))
                worst = std::max({worst, points->on.worst_k, points->off.worst_k});
        return worst;
    }

    std::string name_of(const std::string& key) const
    {
        for (const Probe& p : v_.probes)
            if (p.key == key)
                return p.name;
        return key;
    }

    void times()
    {
        if (arrangement_.drains) {
            const double drain = std::ceil(v_.loop.drain_back.drain_s * 1.2 / 10) * 10;
            add("Drain time of " + pump(), lasts(drain), "The array takes " + lasts(v_.loop.drain_back.drain_s) + " to empty; a fifth more for a cold day. It also holds after power returns, and against ON.", "A minimum off time alone: ON would defeat it.", set_rule<DrainTime>(pump(), [drain](DrainTime& d) { d.drain_s = drain; }));
            return;
        }
        if (arrangement_.carrier == Carrier::air) {
            add("Run-on of " + pump(), lasts(90), "What is warm in duct and collector still reaches the room.", "", set_rule<RunTimes>(pump(), [](RunTimes& r) { r.run_on_s = 90; }));
            return;
        }
        const double rest = has(Part::room)               ? 600 // air warms and cools within minutes
                            : a_.pump == PumpPower::cheap ? 60
                                                          : 120;
        for (std::size_t o = 0; o < v_.unit.outputs.size(); ++o) {
            const bool pumps = std::any_of(arrangement_.routes.begin(), arrangement_.routes.end(), [&](const Route& r) { return r.pump == o; });
            if (!pumps)
                continue;
            const bool second = o > 0 && has(Part::collector_2);
            const Loop& l = v_.loop;
            const double run = past_the_slug_s(second ? l.collector_2 : l.collector, second ? l.supply_2 : l.supply, second ? l.pump_2.flow_m3_s : l.pump.flow_m3_s);
            add("Run and rest times of " + v_.unit.outputs[o].key, lasts(run) + ", " + lasts(rest), "Each start wears the pump. What stood cold in collector and pipe takes half of that time to pass the probe and would stop it again; the rest keeps starts apart.", "No minimum run time: on many days the first starts would end one after the other. A longer one: it would pump the store's heat out after a false start.",
                set_rule<RunTimes>(v_.unit.outputs[o].key, [run, rest](RunTimes& r) { r = {run, rest, r.run_on_s}; }));
        }
    }

    void limit()
    {
        const ProbePlace store = arrangement_.places[1];
        if (has(Part::pool))
            return limit_of_store(pool_c, "Warmer water is unpleasant and grows algae.", 0);
        if (has(Part::slab))
            return limit_of_store(slab_c, "The water that comes back: the slab stays some 13 K colder, its surface near 29 °C. A floor warmer than that is unpleasant.", 0);
        if (store == ProbePlace::room_air)
            return limit_of_store(room_c, "The room is warm enough.", 0);
        const double wish = store_limit_c[static_cast<std::size_t>(a_.heat)];
        const char* why = a_.heat == StoreHeat::low     ? "A lining that bears no more, hard water, or small children at the taps. It must still reach 60 °C at the top against legionella, or another heater must."
                          : a_.heat == StoreHeat::usual ? "Most linings bear it and a tempering valve manages it."
                                                        : "The tank and its relief valve must bear it, and a tempering valve must hold the taps at 49 °C: such water scalds in a second.";
        limit_of_store(wish, why, allowance());
    }
    double allowance() const
    {
        if (!probe_at(v_, {ProbePlace::tank_top}).empty())
            return 0;
        return !probe_at(v_, {ProbePlace::tank_middle}).empty() ? mid_tank_k : bottom_k;
    }
    void limit_of_store(double limit, const std::string& why, double allowance)
    {
        const std::string probe = probe_at(v_, {ProbePlace::tank_top, ProbePlace::tank_middle, ProbePlace::tank_bottom, ProbePlace::pool_water, ProbePlace::slab_return, ProbePlace::room_air});
        const double back_k = has(Part::pool) ? pool_back_k : has(Part::slab) ? slab_back_k
                                                          : has(Part::room)   ? room_back_k
                                                                              : tank_back_k;
        std::string text = why, value = temp(limit) + ", back " + diff(back_k);
        if (allowance > 0) {
            value += ", " + diff(allowance) + " for the layers above";
            text += " Its probe sits below the top, which may be " + diff(allowance) + " hotter: the limit acts that much sooner.";
        }
        add("Store limit of " + pump(), value, text, allowance > 0 ? "A limit that trusts the probe: the top would reach " + temp(limit + allowance) + "." : std::string(),
            set_rule<StoreLimit>(pump(), [probe, limit, back_k, allowance](StoreLimit& l) { l = {probe, Temperature::celsius(limit), TempDiff::kelvin(back_k), TempDiff::kelvin(allowance), l.only_store}; }));
    }

    void hot_collector()
    {
        const double stands = stagnation_c(v_.loop.collector);
        if (arrangement_.carrier == Carrier::air || stands < 100) {
            add("Collector cut-out", "none", "The collector stands at " + temp(stands) + " at most: no steam.", "", without<CutOut>(pump()));
            return;
        }
        if (arrangement_.drains)
            add("Filling of " + pump(), "full speed for " + lasts(fill_s()) + ", not from " + temp(lockout_c), "The pump must lift to the top; the first water into a hotter array flashes to steam. The time is twice what filling takes at the pump's flow.", "A cut-out only: it would also stop a pump that runs and cools the array.",
                set_rule<Fill>(pump(), [s = fill_s()](Fill& f) {
                    f.boost_s = s;
                    f.boost = 1;
                    f.lockout = Temperature::celsius(lockout_c);
                    f.hysteresis = TempDiff::kelvin(10);
                }));
        const double cut = v_.loop.collector.a1_w_m2k < tube_a1_w_m2k ? tube_cut_out_c : cut_out_c;
        add("Collector cut-out of " + pump(), temp(cut) + ", back " + diff(cut_out_back_k), "It can stand at " + temp(stands) + ". A start into it sends steam and a shock into the loop.", "A higher one: common plastic and rubber parts near the collector give up.",
            set_rule<CutOut>(pump(), [cut](CutOut& c) {
                c.limit = Temperature::celsius(cut);
                c.hysteresis = TempDiff::kelvin(cut_out_back_k);
            }));
    }
    double fill_s() const
    {
        return std::clamp(std::ceil(2 * fill_time_s(v_.loop, job_.site.place.altitude_m) / 10) * 10, 60.0, 600.0);
    }

    void frost()
    {
        const char* fails = "Recirculation: it fails with the power.";
        if (a_.frost == FrostNights::never)
            return add("Freeze protection", "none", "It never freezes there. One clear night is enough to burst an array: be sure.", "", without<Freeze>(pump()));
        if (arrangement_.carrier == Carrier::air)
            return add("Freeze protection", "none", "Air does not freeze.", "");
        if (arrangement_.drains)
            return add("Freeze protection", "drain-back", "Nothing to do but drain: pitch, drain time and no check valve in the return.", "Recirculation: it would fill a cold empty array. Glycol: not needed where it drains.", without<Freeze>(pump()));
        if (arrangement_.carrier == Carrier::glycol)
            return add("Freeze protection", "glycol", "Measure its strength every year: it turns to slush before it bursts pipe.", "Recirculation: it would cool the store for nothing. See to it that no leaking check valve lets a cold collector freeze the water side of an exchanger.", without<Freeze>(pump()));
        if (a_.frost == FrostNights::winter || a_.power == PowerInFrost::may_fail) {
            const auto valve = std::find_if(v_.unit.outputs.begin(), v_.unit.outputs.end(), [](const Output& o) { return o.drives == Drives::drain_valve; });
            const std::string why = a_.frost == FrostNights::winter ? "Frost every winter." : "The power may fail on the night that counts.";
            const bool there = valve != v_.unit.outputs.end();
            const std::string key = there ? valve->key : free_valve();
            const auto rule = set_rule<DrainDown>(key, [p = pump(), probe = probe_at(v_, {ProbePlace::collector})](DrainDown& d) { d = {probe, Temperature::celsius(drain_from_c), TempDiff::kelvin(drain_back_k), p}; });
            return add("Freeze protection", "drain-down from " + temp(drain_from_c) + ", shut again " + diff(drain_back_k) + " above" + (there ? "" : ", by a valve on " + key), why + (there ? " The valve falls open by itself, also without power." : " Fit a drain-down valve on an output of its own, with vents and pitch to let the array run empty; it falls open by itself, also without power. Or rebuild the loop as drain-back or with glycol."), std::string(fails) + " In a long frost it also pumps the store's heat to the roof.",
                [key, there, rule](Variant& v) {
                    if (!there && std::none_of(v.unit.outputs.begin(), v.unit.outputs.end(), [&](const Output& o) { return o.key == key; })) {
                        Output out{key, "Drain-down valve"};
                        out.drives = Drives::drain_valve;
                        v.unit.outputs.push_back(out);
                    }
                    without<Freeze>(v.unit.outputs.front().key)(v);
                    rule(v);
                });
        }
        const bool bursts = a_.pump == PumpPower::scarce;
        add("Freeze protection of " + pump(), std::string(bursts ? "bursts of " + lasts(60) + " every " + to_text(600, Quantity::minutes, units_) : "recirculation") + " from " + temp(recirculate_from_c), "Frost is rare and the power stays: warm water sent round keeps the pipe open. The coldest wet place is often not where the probe sits, so it begins well above freezing.",
            bursts ? "Running all the time: it would empty the battery." : "Bursts: they spare the pump and trust the pipe to hold its heat between. Draining: not needed for a few nights.",
            set_rule<Freeze>(pump(), [bursts](Freeze& f) {
                f.limit = Temperature::celsius(recirculate_from_c);
                f.hysteresis = TempDiff::kelvin(3);
                f.burst_s = bursts ? 60 : 0;
                f.every_s = 600;
                f.store_min = Temperature::celsius(8);
            }));
    }

    std::string free_valve() const
    {
        for (int n = 1;; ++n)
            if (const std::string key = "V" + std::to_string(n); std::none_of(v_.unit.outputs.begin(), v_.unit.outputs.end(), [&](const Output& o) { return o.key == key; }))
                return key;
    }

    void overheat()
    {
        if (has(Part::cooler)) {
            // A store with a low limit is full by the morning: from higher up and further down the cooler is asked for less often.
            const double from = a_.heat == StoreHeat::low ? 100 : 95, back = a_.heat == StoreHeat::low ? 20 : 18;
            for (const Output& o : v_.unit.outputs)
                if (o.drives == Drives::loop)
                    add("Dump of " + o.key, temp(from) + ", back " + diff(back), "The cooler takes the heat before the loop boils; valve and pump together.", "Coming back much lower, as at 45 °C: it would throw the day's heat away.", set_rule<Divert>(o.key, [from, back](Divert& d) {
                        d.limit = Temperature::celsius(from);
                        d.hysteresis = TempDiff::kelvin(back);
                    }));
            return;
        }
        if (!has(Part::tank))
            return;
        if (a_.absence == SummerAbsence::none)
            return add("Weeks without draw", "stagnation is accepted", "The limit stops the pump and the collector stands hot; the loop must bear it.", "Night cooling: nobody is away.", without<NightCooling>(pump()));
        if (arrangement_.drains || arrangement_.carrier == Carrier::air)
            return add("Weeks without draw", "stagnation is accepted", "The array is empty then and bears its own heat.", "Night cooling: it would fill and drain the array all night.", without<NightCooling>(pump()));
        const double from = store_limit_c[static_cast<std::size_t>(a_.heat)] - cooling_below_k;
        add("Night cooling of " + pump(), "from " + temp(from) + " to " + temp(from - cooling_room_k) + ", only while away", "The collector gives the day's surplus back to the night sky, so the loop does not stagnate each noon.", "Covering the collector, which is as good where somebody does it. Accepting stagnation: glycol ages by it.",
            set_rule<NightCooling>(pump(), [from](NightCooling& n) {
                n.from = Temperature::celsius(from);
                n.until = Temperature::celsius(from - cooling_room_k);
                n.away_only = true;
            }));
    }

    void supply()
    {
        if (!has(Part::battery))
            return;
        const double scale = v_.loop.battery.full_v > 18 ? 2 : 1;
        add("Low voltage of " + pump(), to_text(11.5 * scale, Quantity::voltage, units_) + ", back at " + to_text(12.5 * scale, Quantity::voltage, units_), "Below that a lead-acid battery loses its life quickly. The delay lets the dip of a starting motor pass.", "A lower one: at 1.75 V a cell, 10.5 V of twelve, a lead-acid battery is empty (IEC 60896-11, from memory).",
            set_rule<LowVoltage>(pump(), [scale](LowVoltage& l) { l = {11.5 * scale, 12.5 * scale, 5, 60}; }));
    }

    void special()
    {
        if (arrangement_.answers.array == Array::tubes)
            add("Looks of " + pump(), lasts(30) + " every " + to_text(1800, Quantity::minutes, units_), "The probe in the manifold learns little until fluid moves.", "A lower start difference: it would not help a probe that is not told.", set_rule<Look>(pump(), [](Look& l) {
                l.every_s = 1800;
                l.run_s = 30;
            }));
        if (has(Part::slab) && !probe_at(v_, {ProbePlace::return_pipe}).empty())
            add("Mixing limit of " + pump(), temp(45), "What flows into a slab must not be hotter: it cracks, and the pipe suffers.", "", set_rule<MixingLimit>(pump(), [probe = probe_at(v_, {ProbePlace::return_pipe})](MixingLimit& m) { m = {probe, Temperature::celsius(45), TempDiff::kelvin(4)}; }));
        for (const Rule& r : v_.unit.rules)
            if (std::holds_alternative<SpeedByDifference>(r.body) && arrangement_.drains && v_.loop.pump.head_m > 0) {
                const double least = std::clamp(std::sqrt(v_.loop.drain_back.lift_m / v_.loop.pump.head_m) * 1.1, 0.2, 1.0);
                add("Minimum speed of " + r.output, to_text(least, Quantity::ratio, units_), "Head goes with the square of the speed; this lifts to " + to_text(v_.loop.drain_back.lift_m, Quantity::length, units_) + " with a tenth to spare.", "A lower one: at half the speed a quarter of the head is left.", set_rule<SpeedByDifference>(r.output, [least](SpeedByDifference& s) { s.range.floor = std::ceil(least * 100) / 100; }));
            }
    }

    void heating()
    {
        for (const Output& o : v_.unit.outputs) {
            if (o.drives != Drives::element)
                continue;
            add("Backup heating by " + o.key, hour(5) + " to " + hour(7) + ", on " + temp(45) + ", off " + temp(50), "Hot water for the morning; the day is left to the sun, and it waits while the sun heats.", "All day: the element would leave the sun nothing to do.",
                set_rule<Heating>(o.key, [p = pump(), probe = probe_at(v_, {ProbePlace::tank_top, ProbePlace::tank_middle, ProbePlace::tank_bottom})](Heating& h) { h = {probe, {HeatWindow{5, 7, Temperature::celsius(45), Temperature::celsius(50)}, {}, {}}, p}; }));
            add("Disinfection by " + o.key, temp(60) + " for " + to_text(1800, Quantity::minutes, units_) + ", every " + to_text(7, Quantity::days, units_), "Legionella grows in warm water: 60 °C at the coldest stored point, held. Local codes say how often.", "A longer period: between 25 and 45 °C they multiply within days.",
                set_rule<Disinfection>(o.key, [probe = probe_at(v_, {ProbePlace::tank_bottom, ProbePlace::tank_middle, ProbePlace::tank_top})](Disinfection& d) { d = {probe, Temperature::celsius(60), 1800, 7, d.last_days}; }));
        }
    }

    const Job& job_;
    const Variant& v_;
    const Answers& a_;
    const Units& units_;
    const Arrangement& arrangement_;
    std::vector<Choice> out_;
};

} // namespace

const std::vector<Question>& questions()
{
    static const std::vector<Question> table{
        {"pump", "What does running the pump cost?", {"little: mains, cheap", "something: the usual mains pump", "much: panel or battery"}, "It decides how much sun a start must be worth."},
        {"frost", "How often does the array freeze?", {"never", "a few nights in some years", "every winter"}, "It decides between recirculation and what needs no power."},
        {"power", "Can the power fail on such a night?", {"hardly ever", "it can"}, "What recirculates fails with it."},
        {"heat", "How hot may the store get?", {"60 °C: lining, hard water, children", "70 °C: the usual", "85 °C: tank, relief and tempering valve bear it"}, "The store limit."},
        {"absence", "Is nobody there for weeks in summer?", {"somebody is", "nobody is"}, "What to do with heat that nobody draws."},
    };
    return table;
}

void answer(Answers& a, std::size_t question, std::size_t choice)
{
    switch (question) {
    case 0: a.pump = static_cast<PumpPower>(choice); break;
    case 1: a.frost = static_cast<FrostNights>(choice); break;
    case 2: a.power = static_cast<PowerInFrost>(choice); break;
    case 3: a.heat = static_cast<StoreHeat>(choice); break;
    default: a.absence = static_cast<SummerAbsence>(choice);
    }
}

std::size_t answered(const Answers& a, std::size_t question)
{
    const std::size_t all[] = {static_cast<std::size_t>(a.pump), static_cast<std::size_t>(a.frost), static_cast<std::size_t>(a.power), static_cast<std::size_t>(a.heat), static_cast<std::size_t>(a.absence)};
    return all[question];
}

Answers likely_answers(const Job& job, const Variant& v)
{
    Answers a;
    const Arrangement& arrangement = arrangement_of(v.loop);
    if (arrangement.has(Part::panel))
        a.pump = PumpPower::scarce;
    const bool frost = std::any_of(job.days.begin(), job.days.end(), [](const Day& d) { return d.kind == DayKind::generated && d.sky.air_min_c < cool_frost_c; });
    a.frost = frost ? FrostNights::winter : FrostNights::rare;
    a.absence = v.unit.away ? SummerAbsence::weeks : SummerAbsence::none;
    return a;
}

std::vector<Choice> choose_settings(const Job& job, const Variant& v, const Answers& answers, const Units& units)
{
    if (v.unit.outputs.empty() || v.probes.empty())
        return {};
    return Chooser(job, v, answers, units).all();
}

void take_all(const std::vector<Choice>& choices, Variant& v)
{
    for (const Choice& c : choices)
        if (c.apply)
            c.apply(v);
}

} // namespace vernal
