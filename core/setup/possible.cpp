#include "possible.h"

#include "core/plant/passing.h"
#include "core/run/figure_counter.h"
#include "core/run/missed_sun.h"
#include "core/run/simulation.h"
#include "core/units/constants.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

// All estimates.
constexpr double full_again_k = 0.3; // below its limit a store takes heat again
constexpr double look_s = 120, night_s = 1800;
constexpr double gains_k = 0.05;    // leaving the collector over the store, less is no gain
constexpr double in_vain_s = 900;   // a pump is given to fill the array
constexpr double not_again_s = 600; // after a run that brought nothing

// Outputs that have to do with collecting.
std::vector<std::size_t> collecting(const Arrangement& a)
{
    std::vector<std::size_t> out;
    for (const Driver d : {Driver::pump, Driver::pump_2, Driver::exchanger_pump, Driver::valve, Driver::cooler_valve})
        if (const int o = a.output_of(d); o >= 0)
            out.push_back(static_cast<std::size_t>(o));
    return out;
}

// The unit without what its collecting outputs do by rules.
Program bare_program(const Variant& v, const std::vector<std::size_t>& by_hand)
{
    Variant bare = v;
    bare.unit.sample_s = 1; // a longer one is walked in pieces of a second wherever a step ends
    bare.unit.power_wait_s = 0;
    for (const std::size_t o : by_hand) {
        Output& output = bare.unit.outputs[o];
        output.bypass = output.auto_after_power = false;
        output.on_timeout_s = 0;
        std::erase_if(bare.unit.rules, [&](const Rule& r) { return r.output == output.key; });
    }
    return compile(bare).program;
}

class PerfectHand {
public:
    PerfectHand(Simulation& s, const std::vector<std::size_t>& outputs) : s_(s), a_(s.network().arrangement()), arrays_(a_.has(Part::collector_2) ? 2 : 1)
    {
        for (const std::size_t o : outputs)
            s_.set_mode(o, Mode::off);
    }

    double full_s() const { return full_s_; }
    bool resting() const { return !on_[0] && !on_[1]; }
    bool sunny() const
    {
        const Surroundings now = surroundings_at(s_.day(), s_.time_of_day_s());
        return now.sun_w_m2[0] > 0 || (arrays_ > 1 && now.sun_w_m2[1] > 0);
    }

    void look(double since_s)
    {
        follow_limits();
        const bool room = !full_[0] || (two_tanks() && !full_[1]);
        const bool second = two_tanks() && !full_[1] && (full_[0] || !warms_first());
        double could_w = 0;
        for (std::size_t i = 0; i < arrays_; ++i) {
            const double w = could_collect_w(s_, i, cold_c(second));
            could_w += w;
            if (!on_[i])
                on_[i] = room && w > 0 && s_.now_s() >= again_s_[i];
            else if (!room)
                on_[i] = false;
            else if (in_vain(i) || !gains(i, second))
                on_[i] = false, again_s_[i] = s_.now_s() + not_again_s;
            on_since_s_[i] = on_[i] ? on_since_s_[i] + since_s : 0;
        }
        if (!room && could_w > 0)
            full_s_ += since_s;
        set(Driver::pump, on_[0]);
        set(Driver::pump_2, on_[1]);
        set(Driver::exchanger_pump, on_[0] || on_[1]);
        set(Driver::valve, second && (on_[0] || on_[1]));
    }

private:
    bool two_tanks() const { return a_.answers.store == Store::two_tanks; }
    double temp(ProbePlace p) const { return s_.temperatures()[s_.network().node_of(p)]; }
    double cold_c(bool second) const { return second ? temp(ProbePlace::tank_2_bottom) : s_.temperatures()[cold_store_node(s_)]; }
    static bool of_second(ProbePlace p) { return p == ProbePlace::tank_2_bottom || p == ProbePlace::tank_2_top; }

    // Some array could bring heat to the first store.
    bool warms_first() const
    {
        for (std::size_t i = 0; i < arrays_; ++i)
            if (could_collect_w(s_, i, cold_c(false)) > 0)
                return true;
        return false;
    }

    void follow_limits()
    {
        std::array<bool, 2> at{}, over{};
        for (const CoupledSetup::BornBy& b : s_.setup().store_limits) {
            const std::size_t store = two_tanks() && of_second(b.place) ? 1 : 0;
            at[store] = at[store] || temp(b.place) >= b.limit_c;
            over[store] = over[store] || temp(b.place) > b.limit_c - full_again_k;
        }
        for (std::size_t i = 0; i < 2; ++i)
            full_[i] = at[i] || (full_[i] && over[i]);
    }

    // What stood in the pipes has passed, and what leaves the collector is warmer than the store.
    bool gains(std::size_t array, bool second) const
    {
        const Loop& l = s_.setup().loop;
        const double passing = passing_s(array == 0 ? l.collector : l.collector_2, array == 0 ? l.supply : l.supply_2, array == 0 ? l.pump.flow_m3_s : l.pump_2.flow_m3_s);
        if (on_since_s_[array] < 2 * passing + look_s || (s_.hydraulics().drained() >> array & 1U) != 0)
            return true;
        return temp(array == 0 ? ProbePlace::collector : ProbePlace::collector_2) > cold_c(second) + gains_k;
    }

    // With so little sun on the panel that the pump stands, or cannot fill the array.
    bool in_vain(std::size_t array) const { return on_since_s_[array] > in_vain_s && (s_.hydraulics().stands_still() || (s_.hydraulics().drained() >> array & 1U) != 0); }

    void set(Driver d, bool on)
    {
        if (const int o = a_.output_of(d); o >= 0)
            s_.set_mode(static_cast<std::size_t>(o), on ? Mode::on : Mode::off);
    }

    Simulation& s_;
    const Arrangement& a_;
    std::size_t arrays_;
    std::array<bool, 2> on_{}, full_{};
    std::array<double, 2> on_since_s_{}, again_s_{};
    double full_s_ = 0;
};

} // namespace

PossibleHeat possible_heat(const Variant& v, const CoupledSetup& as_run, const std::vector<double>& begins_c, std::stop_token stop)
{
    const Arrangement& a = arrangement_of(v.loop);
    if (!a.pumped())
        return {};
    const std::vector<std::size_t> outputs = collecting(a);
    CoupledSetup setup = as_run;
    setup.program = bare_program(v, outputs);
    setup.opens_with = {};
    setup.faults = {};
    setup.start_c = begins_c;
    setup.spin_up_days = 0;
    Simulation s(std::move(setup));
    s.spin_up();
    FigureCounter counter(s);
    s.add(counter);
    PerfectHand hand(s, outputs);
    PossibleHeat out;
    double before_j = 0;
    while (s.length_s() - s.now_s() > 1) {
        const double midnight = day_s * static_cast<double>(out.by_day_j.size() + 1);
        const double step = hand.resting() && !hand.sunny() ? night_s : look_s;
        if (!s.advance(std::min(midnight, s.now_s() + step), stop))
            return {};
        hand.look(step);
        if (s.now_s() > day_s * static_cast<double>(out.by_day_j.size() + 1) - 1) {
            out.by_day_j.push_back(counter.to_store_j() - before_j);
            before_j = counter.to_store_j();
        }
    }
    out.to_store_j = counter.to_store_j();
    out.full_s = hand.full_s();
    return out;
}

CoupledResult run_with_possible(const Variant& v, const CoupledSetup& setup, const CoupledOptions& options)
{
    CoupledResult out = run_coupled(setup, options);
    if (!out.cancelled) {
        const PossibleHeat p = possible_heat(v, setup, out.begins_c, options.stop);
        out.figures.possible_j = p.to_store_j;
        out.figures.full_s = p.full_s;
    }
    return out;
}

} // namespace vernal
