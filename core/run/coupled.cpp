#include "coupled.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double day_s = 86400.0;
constexpr double longest_step_s = 600.0;
constexpr double longest_substep_s = 1.0;
constexpr double record_every_s = 20.0;
constexpr double resting_share = 0.07; // of the tolerance
constexpr double air_share = 0.33;     // hardly any heat in the ring: a little error switches sooner
// Steps in samples. Divisors of a minute, so that weather points are met.
constexpr std::array<int, 10> step_lengths{1, 2, 5, 10, 20, 30, 60, 120, 300, 600};

// How far weather is as good as one straight line from each minute on: a bend
// below this, W/m² per minute and minute, shifts ten minutes by a watt or so.
constexpr double bend_w_m2 = 0.1;
constexpr int longest_stretch_min = 10;

std::vector<double> smooth_until(const DayForcing& d)
{
    const auto straight = [&](std::size_t m) {
        return std::all_of(d.sun_w_m2.begin(), d.sun_w_m2.end(), [m](const auto& g) { return g.empty() || std::fabs(g[m + 2] - 2 * g[m + 1] + g[m]) < bend_w_m2; });
    };
    std::vector<double> until(minutes_per_day);
    for (std::size_t m = minutes_per_day; m-- > 0;) {
        const bool goes_on = m + 2 <= minutes_per_day && (m + 1) % longest_stretch_min != 0 && straight(m);
        until[m] = goes_on ? until[m + 1] : 60.0 * static_cast<double>(m + 1);
    }
    return until;
}

class Run {
public:
    Run(const CoupledSetup& s, const CoupledOptions& o)
        : setup_(s), options_(o), network_(s.loop, s.probes, s.fine), integrator_(network_), hydraulics_(network_, s.loop, s.altitude_m), pressure_(network_, s.loop, s.altitude_m),
          readings_(s.sensors, s.program.probes, s.resolution_k), sample_s_(static_cast<double>(s.program.sample_ms) / 1000.0)
    {
        temps_ = network_.start(s.start_tank_c, s.days.front()->air_c.front());
        state_ = power_up(s.program);
        inputs_.modes = s.modes;
        inputs_.away = s.away;
        for (std::size_t i = 0; i < s.program.outputs; ++i)
            if (s.drives[i] == Drives::element)
                element_output_ = static_cast<int>(i);
        for (std::size_t i = 0; i < network_.size(); ++i)
            for (bool drained : {false, true})
                if (network_.can_freeze(i, drained))
                    wet_[drained ? 1 : 0].push_back(i);
        for (std::size_t l = 0; l < s.program.latches.size(); ++l)
            if ((s.program.limiting >> l & 1U) != 0)
                limits_.push_back(s.program.latches[l]);
    }

    CoupledResult go()
    {
        day_ = setup_.days.front().get(); // its first sun is on the probes
        decide();
        act();
        for (int i = 0; i < setup_.spin_up_days && !stopped(); ++i)
            one_day(*setup_.days.front());
        begin_counting();
        for (const auto& day : setup_.days) {
            if (stopped())
                break;
            one_day(*day);
            day_start_s_ += day_s;
        }
        result_.figures.hydraulics = hydraulics_.figures();
        result_.figures.power = hydraulics_.power().figures();
        result_.figures.vessel = pressure_.figures();
        if (pressure_.present())
            result_.figures.end_pressure_pa = pressure_.cold_pa();
        result_.figures.end_store_c = temps_[network_.store_top()];
        if (coldest_node_ < network_.size())
            result_.figures.coldest_wet_at = network_.place_text(coldest_node_);
        result_.figures.stored_change_j = network_.stored_j(temps_.data(), hydraulics_.drained()) - stored_at_start_;
        for (PumpFigures& p : result_.figures.pumps)
            RunCounter::finish(p);
        result_.cancelled = stopped();
        return std::move(result_);
    }

private:
    bool stopped() const { return options_.stop.stop_requested(); }
    double tip(const std::vector<double>& t, std::size_t probe) const { return t[network_.probe_node(probe)]; }

    void begin_counting()
    {
        counting_ = true;
        hydraulics_.forget_figures();
        if (pressure_.present())
            pressure_.refill();
        stored_at_start_ = network_.stored_j(temps_.data(), hydraulics_.drained());
        result_.first_state = state_;
        result_.node_count = network_.size();
        result_.figures.pumps.resize(setup_.program.outputs);
        for (std::size_t o = 0; o < setup_.program.outputs; ++o)
            counters_.emplace_back((state_.running >> o & 1U) != 0);
        if (options_.keep_records) {
            result_.records.reserve(6000);
            result_.nodes.reserve(6000 * network_.size());
        }
    }

    void one_day(const DayForcing& day)
    {
        day_ = &day;
        smooth_ = smooth_until(day);
        find_edges();
        const auto samples = static_cast<std::int64_t>(std::llround(day_s / sample_s_));
        if (counting_)
            keep(0, true);
        std::int64_t k = 0;
        while (k < samples && !stopped())
            k += advance(k, samples - k);
    }

    // One accepted step from sample k; returns its length in samples.
    std::int64_t advance(std::int64_t k, std::int64_t left)
    {
        const double t = static_cast<double>(k) * sample_s_;
        const Surroundings a = surroundings_at(*day_, t);
        if (hydraulics_.follows_sun())
            hydraulics_.weather(surroundings_at(*day_, 60.0 * std::floor(t / 60.0 + 1e-9)));
        const DrawNow draw = network_.has_tank() ? draw_at(*day_, t, temps_[network_.store_top()]) : DrawNow{};
        Flows flows = hydraulics_.flows(draw.rate_w_k, day_->mains_c);
        flows.element_w = element_now(t);
        std::int64_t n = std::min(allowed(t), left);
        trial_begin_s_ = t;
        for (;;) {
            const double h = static_cast<double>(n) * sample_s_;
            if (n == 1 && h > substep() * 1.001) {
                walk_one_sample(t, flows);
                break;
            }
            const Surroundings b = surroundings_at(*day_, t + h);
            const Integrator::Trial& trial = integrator_.attempt(temps_, flows, a, b, h);
            const std::int64_t good = n == 1 ? 1 : acceptable(trial, n, h);
            if (good == n) {
                take(trial);
                next_step_ = static_cast<double>(n) * growth(trial.error_k);
                break;
            }
            ++result_.figures.rejected;
            n = good;
        }
        finish_step(k, n, draw);
        return n;
    }

    double element_now(double t) const
    {
        if (!powered(t))
            return 0;
        if (element_output_ < 0)
            return element_w(setup_.loop, t);
        return (state_.running >> element_output_ & 1U) != 0 ? setup_.loop.element.power_w : 0.0;
    }

    bool powered(double t) const { return !(t >= day_->outage_start_s && t < day_->outage_end_s); }

    // Instants at which windows or the mains switch, or a button is pressed.
    void find_edges()
    {
        edges_.clear();
        for (const Gate& c : setup_.program.gates) {
            for (std::size_t i = 0; i < c.span_count; ++i)
                for (Millis edge : {c.spans[i].from_ms, c.spans[i].to_ms})
                    edges_.push_back(static_cast<double>(edge) / 1000.0);
            if (c.kind == Gate::Kind::pressed)
                edges_.push_back(static_cast<double>(c.wait_ms) / 1000.0);
        }
        if (element_output_ < 0 && setup_.loop.element.mode == ElementMode::windows)
            for (const HeatingWindow& w : setup_.loop.element.windows)
                edges_.insert(edges_.end(), {w.start_h * 3600.0, w.end_h * 3600.0});
        if (day_->outage_end_s > day_->outage_start_s)
            edges_.insert(edges_.end(), {day_->outage_start_s, day_->outage_end_s});
    }

    double substep() const { return setup_.step_s > 0 ? setup_.step_s : longest_substep_s; }

    // Longest step from here, in samples.
    std::int64_t allowed(double t) const
    {
        const double wish = setup_.step_s > 0 ? setup_.step_s / sample_s_ : next_step_;
        double until = smooth_[static_cast<std::size_t>(std::min(t / 60.0, minutes_per_day - 1.0))];
        for (const Draw& d : day_->draws)
            for (double edge : {d.start_h * 3600.0, d.start_h * 3600.0 + d.duration_s})
                if (edge > t)
                    until = std::min(until, edge);
        for (double edge : edges_)
            if (edge > t)
                until = std::min(until, edge);
        if (hydraulics_.follows_sun() && (state_.running != 0 || plane_at(t) > 0))
            until = std::min(until, 60.0 * (std::floor(t / 60.0 + 1e-9) + 1));
        until = std::min({until, t + longest_step_s, t + hydraulics_.until_change_s()});
        const auto room = static_cast<std::int64_t>(std::max(1.0, std::floor((until - t) / sample_s_ + 1e-9)));
        const auto n = static_cast<std::int64_t>(std::max(1.0, std::min(wish, static_cast<double>(room))));
        // Up to a bend in one step even where that step's factors must be made.
        return setup_.step_s > 0 || n == room ? n : usual_length(n);
    }

    static std::int64_t usual_length(std::int64_t n)
    {
        return *(std::upper_bound(step_lengths.begin(), step_lengths.end(), n) - 1);
    }

    // The step that would have had this error times what is borne, as a factor.
    // The error goes with the third power of the step.
    double growth(double error_k) const { return std::clamp(0.9 * std::cbrt(error_tolerance_k() / std::max(error_k, 1e-9)), 0.1, 6.0); }

    // While all rests, readings creep towards their thresholds: a little error
    // is a long time then, and few steps are needed anyway.
    double error_tolerance_k() const
    {
        const double share = network_.arrangement().carrier == Carrier::air ? air_share : 1.0;
        return setup_.tolerance_k * (state_.running != 0 ? share : resting_share);
    }

    // How many of the n samples tried may be taken at once; n: all, the trial stands.
    std::int64_t acceptable(const Integrator::Trial& trial, std::int64_t n, double h)
    {
        if (setup_.step_s <= 0 && trial.error_k > error_tolerance_k())
            return std::min(usual_length(n - 1), usual_length(std::max<std::int64_t>(1, static_cast<std::int64_t>(static_cast<double>(n) * growth(trial.error_k)))));
        if (n == 1 || quiet(trial, n, n, h))
            return n;
        std::int64_t m = 1, noisy = n; // the last that is quiet, the first that is not
        while (noisy - m > 1) {
            const std::int64_t middle = (m + noisy) / 2;
            (quiet(trial, middle, n, h) ? m : noisy) = middle;
        }
        return m;
    }

    // Whether nothing can switch in the first m of n samples. Readings inside
    // follow a parabola through both ends with the slope at the first; they are
    // taken to stay between the ends of the stretch, widened by a quarter of the bend.
    bool quiet(const Integrator::Trial& trial, std::int64_t m, std::int64_t n, double h)
    {
        const double x = static_cast<double>(m) / static_cast<double>(n);
        for (std::size_t i = 0; i < setup_.program.probes; ++i) {
            const std::size_t node = network_.probe_node(i);
            const double r0 = temps_[node], straight = h * (*trial.rate)[node];
            const double bend = ((*trial.next)[node] - r0 - straight) * x * x;
            const double r1 = r0 + straight * x + bend, bulge = 0.25 * std::fabs(bend);
            low_[i] = std::min(r0, r1) - bulge;
            high_[i] = std::max(r0, r1) + bulge;
        }
        const double sun_0 = readings_.need_sun() ? plane_at(trial_begin_s_) : 0.0, sun_1 = readings_.need_sun() ? plane_at(trial_begin_s_ + x * h) : 0.0;
        const bool steady = readings_.bound(low_, high_, std::min(sun_0, sun_1), std::max(sun_0, sun_1), bounds_);
        bounds_.low[supply_channel] = bounds_.high[supply_channel] = inputs_.readings[supply_channel].mk;
        return dead_ || (steady && safe_skip(setup_.program, state_, inputs_, bounds_) >= m);
    }

    // A sample longer than a step may be: equal pieces, nobody looks in between.
    void walk_one_sample(double t, const Flows& flows)
    {
        const int pieces = static_cast<int>(std::ceil(sample_s_ / substep() - 1e-9));
        const double h = sample_s_ / pieces;
        for (int i = 0; i < pieces; ++i)
            take(integrator_.attempt(temps_, flows, surroundings_at(*day_, t + i * h), surroundings_at(*day_, t + (i + 1) * h), h));
        next_step_ = 2.0;
    }

    void take(const Integrator::Trial& trial)
    {
        if (counting_)
            count_heat(integrator_.heat());
        previous_.swap(temps_);
        temps_ = *trial.next;
        rate_ = trial.rate;
        if (!counting_)
            return;
        ++result_.figures.steps;
    }

    void count_heat(const HeatFlows& q)
    {
        result_.figures.heat += q;
        if (hydraulics_.reverse_m3_s() > 0)
            result_.figures.night_loss_j += std::max(0.0, -q.to_store);
    }

    void finish_step(std::int64_t k, std::int64_t n, const DrawNow& draw)
    {
        const double h = static_cast<double>(n) * sample_s_;
        time_s_ = static_cast<double>(k + n) * sample_s_;
        if (counting_) {
            count(h, draw);
        }
        samples_between(k, n);
        hydraulics_.pass(h, temps_);
        pressure_.pass(temps_, h);
        const std::uint32_t before = state_.running;
        const double now = static_cast<double>(k + n) * sample_s_;
        time_of_day_s_ = now;
        const Acting acted = acting_;
        powered(now) ? decide(setup_.program.walks() || dead_ ? 1 : n) : stand_still();
        const Filling stood = hydraulics_.filling();
        act();
        const bool switched = before != state_.running || !(acted == acting_);
        if (switched || stood != filling_before_ || hydraulics_.siphon() != siphon_before_)
            next_step_ = 1.0;
        filling_before_ = hydraulics_.filling();
        siphon_before_ = hydraulics_.siphon();
        if (!counting_)
            return;
        for (std::size_t o = 0; o < setup_.program.outputs; ++o)
            counters_[o].output(day_start_s_ + now, decisions_[o].on, result_.figures.pumps[o]);
        keep(now, switched);
        if (options_.each_sample)
            row(now);
    }

    void decide(std::int64_t n = 1)
    {
        dead_ = false;
        take_readings();
        decisions_ = step(setup_.program, inputs_, state_, n);
    }

    void act()
    {
        acting_ = acting(setup_.program, setup_.drives, state_.running, decisions_);
        hydraulics_.outputs(acting_, temps_);
    }

    static Millis clock_at(double time_of_day_s) { return std::llround(time_of_day_s * 1000.0) % day_ms; }

    // Buttons pressed at this sample: on the first day that counts, at their hour.
    std::uint32_t pressed_at(double time_of_day_s) const
    {
        std::uint32_t out = 0;
        if (!counting_ || day_start_s_ > 0)
            return out;
        const Millis now = std::llround(time_of_day_s * 1000.0);
        for (const Gate& c : setup_.program.gates)
            if (c.kind == Gate::Kind::pressed && now >= c.wait_ms && now - setup_.program.sample_ms < c.wait_ms)
                out |= 1U << c.timer;
        return out;
    }

    // Without power the unit decides nothing, its outputs fall, and it begins anew when power returns.
    void stand_still()
    {
        dead_ = true;
        state_ = power_up(setup_.program);
        decisions_ = {};
        take_readings();
    }

    void take_readings()
    {
        std::array<double, max_probes> tips{};
        for (std::size_t i = 0; i < setup_.program.probes; ++i)
            tips[i] = tip(temps_, i);
        readings_.read(tips, sun_on_probes(time_of_day_s_), inputs_);
        inputs_.readings[supply_channel] = {hydraulics_.follows_sun() ? in_milli(hydraulics_.power().volt()) : steady_supply_mv, true};
        inputs_.clock_ms = clock_at(time_of_day_s_);
        inputs_.pressed = pressed_at(time_of_day_s_);
    }
    double sun_on_probes(double now) const { return readings_.need_sun() ? plane_at(now) : 0.0; }

    void count_frost(double h)
    {
        Figures& f = result_.figures;
        bool frozen = false, burst = false;
        if (hydraulics_.emptied())
            return;
        for (std::size_t i : wet_[hydraulics_.drained() ? 1 : 0]) {
            const double left = temps_[i] - network_.freezing_c(i);
            if (left < least_left_k_) {
                least_left_k_ = left;
                coldest_node_ = i;
                f.coldest_wet_c = temps_[i];
            }
            if (left >= 0)
                continue;
            frozen = true;
            burst = burst || temps_[i] < network_.burst_c(i);
            if (std::isnan(f.first_freeze_s)) {
                f.first_freeze_s = day_start_s_ + time_s_;
                f.first_freeze_at = network_.place_text(i);
            }
        }
        f.freezing_s += frozen ? h : 0.0;
        f.burst_s += burst ? h : 0.0;
    }

    // The draw gets less heat than it needs: its water stays below the target.
    void count_short(double h, const DrawNow& draw)
    {
        constexpr double unfelt_k = 1.0;
        const double short_k = day_->target_c - temps_[network_.store_top()];
        if (draw.needed_w <= 0 || short_k <= 0)
            return;
        Figures& f = result_.figures;
        f.short_j += draw.rate_w_k * short_k * h;
        if (short_k > unfelt_k && std::isnan(f.first_short_s))
            f.first_short_s = day_start_s_ + time_s_;
    }

    void count(double h, const DrawNow& draw)
    {
        Figures& f = result_.figures;
        for (std::size_t o = 0; o < setup_.program.outputs; ++o)
            counters_[o].passed(h, f.pumps[o]);
        f.pump_energy_j += pump_power_w() * h;
        f.needed_j += draw.needed_w * h;
        f.highest_collector_c = std::max(f.highest_collector_c, hottest_collector());
        f.highest_store_c = std::max(f.highest_store_c, temps_[network_.store_top()]);
        if (hydraulics_.power().cut() && std::isnan(f.first_cut_s))
            f.first_cut_s = day_start_s_ + time_s_;
        count_frost(h);
        count_short(h, draw);
        const bool above = std::any_of(limits_.begin(), limits_.end(), [&](const Latch& l) { return tip(temps_, static_cast<std::size_t>(l.plus)) * 1000 >= l.set_mk; });
        f.above_limit_s += above ? h : 0.0;
    }

    double pump_power_w() const
    {
        const bool second = network_.arrangement().has(Part::pump_2) && (state_.running & 2U) != 0;
        const double second_w = setup_.loop.pump_2.power_w * std::pow(setup_.loop.pump_2.speed, 3) * acting_.pumps[1].power_share();
        return ((state_.running & 1U) != 0 ? hydraulics_.power().pump_power_w() : 0.0) + (second ? second_w : 0.0);
    }

    double hottest_collector() const
    {
        double c = temps_[network_.node_of(ProbePlace::collector)];
        if (network_.arrangement().has(Part::collector_2))
            c = std::max(c, temps_[network_.node_of(ProbePlace::collector_2)]);
        return c;
    }

    void keep(double now, bool always)
    {
        if (!options_.keep_records)
            return;
        const double time = day_start_s_ + now;
        if (!always && !result_.records.empty() && time - result_.records.back().time_s < record_every_s)
            return;
        Record r{time, inputs_, state_, decisions_, 0, 0, hydraulics_.flows(0, 0)};
        r.air_c = static_cast<float>(surroundings_at(*day_, now).air_c);
        r.plane_w_m2 = static_cast<float>(plane_at(now));
        r.volt = static_cast<float>(hydraulics_.power().volt());
        r.charge = static_cast<float>(hydraulics_.power().charge());
        r.pressure_pa = pressure_now();
        r.trouble = hydraulics_.trouble();
        r.flows.element_w = element_now(now);
        result_.records.push_back(r);
        for (double t : temps_)
            result_.nodes.push_back(static_cast<float>(t));
    }

    float pressure_now() const { return pressure_.present() ? static_cast<float>(pressure_.pa()) : NAN; }

    double plane_at(double now) const
    {
        const double at = std::min(now / 60.0, static_cast<double>(minutes_per_day));
        const auto i = std::min<std::size_t>(static_cast<std::size_t>(at), minutes_per_day - 1);
        return std::lerp(day_->plane_w_m2[i], day_->plane_w_m2[i + 1], at - static_cast<double>(i));
    }

    void row(double now) const
    {
        options_.each_sample({day_start_s_ + now, inputs_, decisions_, surroundings_at(*day_, now).air_c, plane_at(now), pressure_now()});
    }

    // Samples inside a step: a parabola through both ends with the slope at the
    // first, kept within the bounds under which nothing can switch. They are
    // walked where someone wants them, and where the unit's state hangs on each.
    void samples_between(std::int64_t k, std::int64_t n)
    {
        const bool walks = setup_.program.walks(), wanted = counting_ && options_.each_sample;
        if (dead_ || n < 2 || !(walks || wanted))
            return;
        Inputs in = inputs_;
        in.pressed = 0;
        EngineState copy = state_;
        EngineState& s = walks ? state_ : copy;
        for (std::int64_t i = 1; i < n; ++i) {
            const double x = static_cast<double>(i) / static_cast<double>(n), h = static_cast<double>(n) * sample_s_;
            std::array<double, max_probes> tips{};
            for (std::size_t p = 0; p < setup_.program.probes; ++p) {
                const std::size_t node = network_.probe_node(p);
                const double r0 = previous_[node], r1 = temps_[node], slope = (*rate_)[node];
                tips[p] = r0 + h * slope * x + (r1 - r0 - h * slope) * x * x;
            }
            const double now = static_cast<double>(k + i) * sample_s_;
            readings_.read(tips, sun_on_probes(now), in);
            in.clock_ms = clock_at(now);
            for (std::size_t p = 0; p < setup_.program.probes; ++p) {
                const bool invalid = (bounds_.invalid >> p & 1U) != 0;
                in.readings[p] = {invalid ? 0 : std::clamp(in.readings[p].mk, bounds_.low[p], bounds_.high[p]), !invalid};
            }
            const Decisions d = step(setup_.program, in, s);
            if (wanted)
                options_.each_sample({day_start_s_ + now, in, d, surroundings_at(*day_, now).air_c, plane_at(now), pressure_now()});
        }
    }

    const CoupledSetup& setup_;
    const CoupledOptions& options_;
    Network network_;
    Integrator integrator_;
    HydraulicState hydraulics_;
    Pressure pressure_;
    Readings readings_;
    double sample_s_;
    std::vector<double> temps_, previous_;
    const std::vector<double>* rate_ = nullptr;
    EngineState state_;
    Inputs inputs_;
    Decisions decisions_{};
    ReadingBounds bounds_;
    const DayForcing* day_ = nullptr;
    std::vector<double> smooth_;
    std::array<std::vector<std::size_t>, 2> wet_; // full and drained
    std::vector<Latch> limits_;
    std::vector<RunCounter> counters_;
    std::vector<double> edges_;
    std::array<double, max_probes> low_{}, high_{}; // of the tips, in the stretch looked at
    double trial_begin_s_ = 0, time_of_day_s_ = 0;
    double next_step_ = 1.0; // wished, in samples
    double time_s_ = 0, least_left_k_ = INFINITY;
    std::size_t coldest_node_ = std::numeric_limits<std::size_t>::max();
    bool dead_ = false; // no power
    bool counting_ = false;
    Acting acting_;
    int element_output_ = -1; // the output that drives the backup element
    Filling filling_before_ = Filling::running;
    bool siphon_before_ = false;
    double day_start_s_ = 0, stored_at_start_ = 0;
    CoupledResult result_;
};

} // namespace

CoupledResult run_coupled(const CoupledSetup& setup, const CoupledOptions& options) { return Run(setup, options).go(); }

} // namespace vernal
