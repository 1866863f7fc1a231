// What the words of a procedure stand for on the rig: levels, quantities, probes and outputs.
#include "procedure_run.h"

#include "core/plant/passing.h"
#include "core/sums/filling.h"
#include "core/sums/switching.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double under_k = 4, over_k = 6, just_over_k = 2, beside_v = 0.4; // so far from what is set that it is not met by chance
constexpr double drains_times = 1.2;                                       // an ear at the pipe is no stop-watch (estimate)
constexpr double card_steps = 7, valve_k = 3;                              // a tempering valve keeps its temperature within (estimate)

double warm_store_c(const std::optional<BenchPair>& pair)
{
    constexpr double warm_c = 50, below_limit_k = 6;
    return pair && pair->limit_c ? std::min(warm_c, *pair->limit_c - below_limit_k) : warm_c;
}

} // namespace

bool applies(const Procedure& p, const Variant& v)
{
    const auto pair = bench_pair(v);
    const Arrangement& a = arrangement_of(v.loop);
    const bool fluid = a.pumped() && a.carrier != Carrier::air;
    switch (p.needs) {
    case Needs::always: return true;
    case Needs::probes: return std::count_if(v.probes.begin(), v.probes.end(), reads_temperature) >= 2;
    case Needs::pair: return pair.has_value();
    case Needs::pair_alone: return pair && pair->alone;
    case Needs::cut_out: return pair && pair->cut_out_c;
    case Needs::limit: return pair && pair->limit_c && pair->limit_probe < v.probes.size();
    case Needs::outputs: return !v.unit.outputs.empty();
    case Needs::knob: {
        Variant copy = v;
        return knob_rule(copy) != nullptr;
    }
    case Needs::freeze: return bench_freeze(v).has_value();
    case Needs::low_voltage: return bench_low(v).has_value();
    case Needs::pumps: return fluid;
    case Needs::two_pumps: return fluid && (a.has(Part::exchanger_pump) || a.has(Part::pump_2));
    case Needs::drain_back: return fluid && a.drains;
    case Needs::dip_pipe: return fluid && a.answers.empties == Empties::open_tank;
    case Needs::closed: return fluid && a.has(Part::vessel);
    case Needs::scale: return fluid && a.carrier == Carrier::water && a.answers.transfer == Transfer::straight && a.has(Part::tank);
    case Needs::tap: return a.has(Part::tank);
    }
    return false;
}

std::vector<std::size_t> ProcedureRun::probes(const ItemChoice& w) const
{
    std::vector<std::size_t> out;
    const auto each = places_[at_].each;
    for (std::size_t p = 0; p < rig_.probes(); ++p) {
        bool in = false;
        switch (w.of) {
        case ItemChoice::Of::source: in = pair_ && p == pair_->source; break;
        case ItemChoice::Of::store: in = pair_ && p == pair_->store; break;
        case ItemChoice::Of::both: in = pair_ && (p == pair_->source || p == pair_->store); break;
        case ItemChoice::Of::all: in = true; break;
        case ItemChoice::Of::each: in = each && p == *each; break;
        case ItemChoice::Of::others: in = each && p != *each; break;
        case ItemChoice::Of::key: in = written_.probes[p].key == w.key; break;
        case ItemChoice::Of::limit: in = pair_ && pair_->limit_c && p == pair_->limit_probe; break;
        case ItemChoice::Of::freeze: in = freeze_ && p == freeze_->probe; break;
        case ItemChoice::Of::output:
        case ItemChoice::Of::low_voltage: break;
        }
        if (in && reads_temperature(written_.probes[p]))
            out.push_back(p);
    }
    return out;
}

std::vector<std::size_t> ProcedureRun::outputs(const ItemChoice& w) const
{
    std::vector<std::size_t> out;
    for (std::size_t o = 0; o < rig_.outputs(); ++o) {
        bool in = false;
        switch (w.of) {
        case ItemChoice::Of::all: in = true; break;
        case ItemChoice::Of::output: in = o == (pair_ ? pair_->output : 0); break;
        case ItemChoice::Of::each: in = places_[at_].each == o; break;
        case ItemChoice::Of::key: in = written_.unit.outputs[o].key == w.key; break;
        case ItemChoice::Of::freeze: in = freeze_ && o == freeze_->output; break;
        case ItemChoice::Of::low_voltage: in = low_ && o == low_->output; break;
        default: break;
        }
        if (in)
            out.push_back(o);
    }
    return out;
}

double ProcedureRun::level(const Level& l) const
{
    const double store = pair_ ? reads(pair_->store) : NAN;
    const Loop& loop = written_.loop;
    const auto of_pair = [&](double x) { return pair_ ? x : NAN; };
    switch (l.of) {
    case Level::Of::number: return l.number;
    case Level::Of::air: return rig_.medium_c(Medium::air);
    case Level::Of::set_start: return of_pair(pair_->on_k);
    case Level::Of::set_stop: return of_pair(pair_->off_k);
    case Level::Of::set_limit: return of_pair(pair_->limit_c.value_or(NAN));
    case Level::Of::set_cut_out: return of_pair(pair_->cut_out_c.value_or(NAN));
    case Level::Of::under_start: return of_pair(store + pair_->on_k - under_k);
    case Level::Of::over_start: return of_pair(store + pair_->on_k + over_k);
    case Level::Of::just_over_start: return of_pair(store + pair_->on_k + just_over_k);
    case Level::Of::under_stop: return of_pair(store + pair_->off_k - under_k);
    case Level::Of::over_limit: return of_pair(pair_->limit_c.value_or(NAN) + pair_->on_k + over_k);
    case Level::Of::over_cut_out: return of_pair(pair_->cut_out_c.value_or(NAN) + over_k);
    case Level::Of::set_freeze: return freeze_ ? freeze_->limit_c : NAN;
    case Level::Of::under_freeze: return freeze_ ? freeze_->limit_c - under_k : NAN;
    case Level::Of::over_freeze: return freeze_ ? freeze_->release_c + under_k : NAN;
    case Level::Of::set_cut: return low_ ? low_->cut_v : NAN;
    case Level::Of::set_return: return low_ ? low_->reconnect_v : NAN;
    case Level::Of::under_cut: return low_ ? low_->cut_v - beside_v : NAN;
    case Level::Of::over_return: return low_ ? low_->reconnect_v + beside_v : NAN;
    case Level::Of::card_step: return low_ ? (low_->reconnect_v - low_->cut_v + 2 * beside_v) / card_steps : NAN;
    case Level::Of::set_flow: return rig_.should_flow_l_min();
    case Level::Of::set_fill: return loop.vessel.fill_pa / 1e5;
    case Level::Of::set_gas: return loop.vessel.precharge_pa / 1e5;
    case Level::Of::set_tap: return rig_.tap_set_c() + valve_k;
    case Level::Of::set_drain: return drains_times * loop.drain_back.drain_s;
    case Level::Of::fill_time: return 2 * fill_time_s(loop, rig_.altitude_m());
    case Level::Of::pitch_least: return least_pitch;
    case Level::Of::rated_power: return rig_.rated_w(outputs({ItemChoice::Of::output, {}}).front());
    case Level::Of::pumps: return rig_.pumps();
    case Level::Of::first_mark: return written_.unit.knob.first;
    case Level::Of::middle_mark: return (written_.unit.knob.first + written_.unit.knob.last) / 2;
    case Level::Of::last_mark: return written_.unit.knob.last;
    case Level::Of::cool_store: return warm_store_c(pair_) - 30;
    case Level::Of::warm_store: return warm_store_c(pair_);
    case Level::Of::expected_start:
    case Level::Of::expected_stop: return expected_k(l.of == Level::Of::expected_start);
    case Level::Of::fifth:
    case Level::Of::third:
    case Level::Of::as_computed: break;
    }
    return NAN;
}

// Of the first difference rule in use. The probe of the source is about as warm as the store.
double ProcedureRun::expected_k(bool start) const
{
    for (std::size_t r = 0; pair_ && r < written_.unit.rules.size(); ++r)
        if (written_.unit.rules[r].enabled && difference_of(written_.unit, written_.unit.rules[r])) {
            const double store_c = rig_.tip_c(pair_->store);
            const auto points = real_points(written_, r, {store_c, store_c});
            return !points ? NAN : start ? points->on.real_k()
                                         : points->off.real_k();
        }
    return NAN;
}

// Of a judgement near `to`, in its unit.
double ProcedureRun::tolerance(const Level& l, double to, const std::string& unit) const
{
    if (l.of == Level::Of::fifth || l.of == Level::Of::third)
        return std::fabs(to) / (l.of == Level::Of::fifth ? 5 : 3);
    if (l.of != Level::Of::as_computed)
        return level(l);
    if (unit == "V") { // of a supply that is turned: the delay, a sample or two, and what a meter shows
        constexpr double least_v = 0.05;
        return least_v + v_per_min_ / 60 * ((low_ ? std::max(low_->delay_s, low_->reconnect_s) : 0) + 2 * sample_s_);
    }
    constexpr double least_k = 0.3; // probes, the warming of a sample or two, what the readings are rounded to
    return least_k + (pair_ ? pair_->open_k : 0) + 2 * std::fabs(media_rate_) * sample_s_ + written_.unit.resolution_k;
}

double ProcedureRun::value(const Line& l) const
{
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
            if (std::isnan(reads(p)))
                return NAN;
            low = std::min(low, reads(p));
            high = std::max(high, reads(p));
        }
        return high - low;
    }
    case Captured::watt: {
        double sum = 0;
        for (const std::size_t o : outputs(l.which))
            sum += seen_ ? seen_->watt[o].value_or(NAN) : rig_.watt(o);
        return sum;
    }
    case Captured::forced: {
        double count = 0;
        for (const std::size_t o : outputs(l.which))
            count += seen_ ? seen_->modes[o] != Mode::automatic : (rig_.mode(o) != Mode::automatic) + rig_.bypassed(o);
        return count;
    }
    case Captured::speed: {
        const auto of = outputs(l.which);
        return of.empty() ? NAN : 100 * (seen_ ? seen_->speed[of.front()].value_or(NAN) : rig_.speed(of.front()));
    }
    case Captured::supply: return seen_ ? seen_->supply_v.value_or(NAN) : rig_.supply_v();
    case Captured::turning: return rig_.pumps_turning();
    case Captured::time: return rig_.now_s() - changed_s_;
    case Captured::bridge: return rig_.bridge_v();
    case Captured::flow:
    case Captured::bucket: return rig_.flow_l_min();
    case Captured::rise: return rig_.rise_k();
    case Captured::heat: return carried_w_k(written_.loop, rig_.flow_l_min() / 60000) * rig_.rise_k() / 1000;
    case Captured::gauge: return rig_.gauge_bar();
    case Captured::cold_gauge: return rig_.cold_gauge_bar();
    case Captured::gas: return rig_.vessel_gas_bar();
    case Captured::tap: return rig_.tap_c();
    case Captured::pitch: return rig_.pitch();
    }
    return NAN;
}

} // namespace vernal
