#include "reference.h"

#include "core/rules/rule_set.h"

#include <cvode/cvode.h>
#include <gtest/gtest.h>
#include <nvector/nvector_serial.h>
#include <sundials/sundials_context.h>
#include <sunlinsol/sunlinsol_dense.h>
#include <sunmatrix/sunmatrix_dense.h>

#include <algorithm>
#include <cmath>

namespace vernal::reference {
namespace {

constexpr double relative_tolerance = 1e-7, absolute_tolerance = 1e-5;
constexpr std::int64_t speed_looks = 5; // samples: a speed by difference moves between its roots
constexpr double kink_w_m2 = 5;         // weather bends sharper than this restart the solver

class Hybrid {
public:
    explicit Hybrid(const CoupledSetup& s) : s_(s), net_(s.loop, s.probes, s.fine, s.altitude_m), hydraulics_(net_, s.loop, s.altitude_m), n_(net_.size()), sample_s_(static_cast<double>(s.program.sample_ms) / 1000)
    {
        SUNContext_Create(nullptr, &context_);
        y_ = N_VNew_Serial(static_cast<sunindextype>(n_ + 1), context_);
        const auto start = net_.start(s.start_tank_c, s.days.front()->air_c.front());
        std::copy(start.begin(), start.end(), N_VGetArrayPointer(y_));
        N_VGetArrayPointer(y_)[n_] = 0;
        matrix_ = SUNDenseMatrix(static_cast<sunindextype>(n_ + 1), static_cast<sunindextype>(n_ + 1), context_);
        solver_ = SUNLinSol_Dense(y_, matrix_, context_);
        cvode_ = CVodeCreate(CV_BDF, context_);
        good(CVodeInit(cvode_, rhs, 0, y_));
        good(CVodeSStolerances(cvode_, relative_tolerance, absolute_tolerance));
        good(CVodeSetUserData(cvode_, this));
        good(CVodeSetLinearSolver(cvode_, solver_, matrix_));
        good(CVodeSetJacFn(cvode_, jacobian));
        good(CVodeSetMaxNumSteps(cvode_, 100000));
        good(CVodeRootInit(cvode_, static_cast<int>(2 * s.program.latches.size()), roots));
        state_ = power_up(s.program);
        in_.modes = s.modes;
        in_.away = s.away;
    }
    ~Hybrid()
    {
        CVodeFree(&cvode_);
        SUNLinSolFree(solver_);
        SUNMatDestroy(matrix_);
        N_VDestroy(y_);
        SUNContext_Free(&context_);
    }
    Hybrid(const Hybrid&) = delete;
    Hybrid& operator=(const Hybrid&) = delete;

    Result go()
    {
        day_ = s_.days.front().get();
        decide(0, 1);
        act();
        for (const auto& day : s_.days) {
            day_ = day.get();
            restart(0);
            one_day();
            day_start_ += 86400;
        }
        out_.heat_to_store_j = N_VGetArrayPointer(y_)[n_];
        return out_;
    }

private:
    static void good(int flag) { ASSERT_GE(flag, 0) << CVodeGetReturnFlagName(flag); }
    double tip(const double* y, std::size_t p) const { return y[net_.probe_node(s_.sensors.tip.empty() ? p : s_.sensors.tip[p])]; }
    // The reading chain done step by step, without counts: a root needs a smooth reading.
    double by_steps(const ChainSpec& c, double tip_c) const
    {
        const double t = tip_c + c.sensor.share * tolerance_k(c.curve, c.sensor.tolerance, tip_c);
        return temperature_beyond(c.unit_curve, seen_ohm(c.lead, signal_beyond(c.curve, t))) + c.correction_k;
    }
    double reading(const double* y, int input) const
    {
        const auto p = static_cast<std::size_t>(input);
        if (s_.sensors.chains.empty())
            return tip(y, p);
        const auto& bridge = s_.sensors.bridge;
        if (!bridge || bridge->collector != p)
            return by_steps(s_.sensors.chains[p].spec(), tip(y, p));
        const ChainSpec &c = s_.sensors.chains[p].spec(), &store = s_.sensors.chains[bridge->store].spec();
        const double volt = bridge_volt(c.stage, seen_ohm(c.lead, signal_beyond(c.curve, tip(y, p))), seen_ohm(store.lead, signal_beyond(store.curve, tip(y, bridge->store))));
        return by_steps(store, tip(y, bridge->store)) + bridge_difference_k(c.stage, c.unit_curve, volt, c.stage.scale_at_c);
    }
    double channel(const double* y, int c) const
    {
        if (c < static_cast<int>(s_.program.probes))
            return reading(y, c);
        const auto i = static_cast<std::size_t>(c);
        return i == supply_channel ? in_.readings[i].mk / 1000.0 : i >= first_spare_channel ? s_.program.spare[i - first_spare_channel] / 1000.0
                                                                                            : 0.0;
    }
    double value(const Latch& l, const double* y) const { return channel(y, l.plus) - channel(y, l.minus); }

    void restart(double t)
    {
        good(CVodeReInit(cvode_, t, y_));
        flows_.draw_w_k = -1;
    }

    Flows flows_at(double t, const double* y) const
    {
        const double draw = net_.has_tank() ? draw_at(*day_, t, y[net_.delivers()]).rate_w_k : 0.0;
        Flows f = hydraulics_.flows(draw, day_->mains_c);
        f.wind_m_s = net_.windy() ? day_->wind_m_s : 0;
        f.element_w = element_w(s_.loop, t);
        for (std::size_t o = 0; o < s_.program.outputs; ++o)
            if (s_.drives[o] == Drives::element)
                f.element_w = (state_.running >> o & 1U) != 0 ? s_.loop.element.power_w : 0.0;
        // Neither outage nor through-flow here.
        const Heater& h = s_.loop.heater;
        f.heater_w = net_.arrangement().has(Part::heater) && h.way != HeaterWay::tank_only ? h.power_w : 0.0;
        return f;
    }
    void assemble(double t, const double* y)
    {
        const Flows f = flows_at(t, y);
        if (f == flows_)
            return;
        flows_ = f;
        net_.assemble(f, k_);
    }
    static int rhs(realtype t, N_Vector y, N_Vector dy, void* self)
    {
        auto& h = *static_cast<Hybrid*>(self);
        const double* v = N_VGetArrayPointer(y);
        h.assemble(t, v);
        const Surroundings around = surroundings_at(*h.day_, t);
        h.net_.rates(h.k_, h.flows_, around, v, N_VGetArrayPointer(dy));
        N_VGetArrayPointer(dy)[h.n_] = h.net_.heat_flows(h.flows_, around, v).to_store;
        return 0;
    }
    static int jacobian(realtype t, N_Vector y, N_Vector, SUNMatrix m, void* self, N_Vector, N_Vector, N_Vector)
    {
        auto& h = *static_cast<Hybrid*>(self);
        const double* v = N_VGetArrayPointer(y);
        h.assemble(t, v);
        std::vector<double> k;
        const SparsePattern& pattern = h.net_.linearise(h.flows_, h.k_, v, surroundings_at(*h.day_, t).air_c, k);
        SUNMatZero(m);
        for (std::size_t e = 0; e < k.size(); ++e)
            SM_ELEMENT_D(m, static_cast<sunindextype>(pattern.row_of(e)), static_cast<sunindextype>(pattern.column_of(e))) += k[e] * h.net_.inverse_capacity(pattern.row_of(e), h.flows_.drained);
        return 0; // the quadrature row drives nothing
    }
    static int roots(realtype, N_Vector y, realtype* g, void* self)
    {
        auto& h = *static_cast<Hybrid*>(self);
        for (std::size_t i = 0; i < h.s_.program.latches.size(); ++i) {
            const Latch& l = h.s_.program.latches[i];
            const double v = h.value(l, N_VGetArrayPointer(y));
            g[2 * i] = v - l.set_mk / 1000.0;
            g[2 * i + 1] = v - l.clear_mk / 1000.0;
        }
        return 0;
    }

    // Next instant at which the equations bend, in samples from k.
    std::int64_t to_bend(std::int64_t k, bool& sharp) const
    {
        const double t = static_cast<double>(k) * sample_s_;
        double next = 60 * (std::floor(t / 60 + 1e-9) + 1);
        const auto m = static_cast<std::size_t>(next / 60);
        for (const auto& g : day_->sun_w_m2)
            sharp = sharp || (!g.empty() && m < g.size() - 1 && std::fabs(g[m + 1] - 2 * g[m] + g[m - 1]) > kink_w_m2);
        for (const Draw& d : day_->draws)
            for (double edge : {d.start_h * 3600, d.start_h * 3600 + d.duration_s})
                if (edge > t && edge <= next) {
                    next = edge;
                    sharp = true;
                }
        return std::max<std::int64_t>(1, std::llround((next - t) / sample_s_));
    }

    void one_day()
    {
        const std::int64_t samples = std::llround(86400 / sample_s_);
        std::int64_t k = 0, crossed = 0;
        while (k < samples) {
            bool sharp = false;
            ReadingBounds here;
            for (std::size_t p = 0; p < s_.program.probes; ++p)
                here.low[p] = here.high[p] = in_.readings[p].mk;
            here.low[supply_channel] = here.high[supply_channel] = in_.readings[supply_channel].mk;
            const std::int64_t timers = safe_skip(s_.program, state_, in_, here) + 1;
            if (hydraulics_.follows_sun()) {
                const Flows before = hydraulics_.flows(0, 0);
                const double now = static_cast<double>(k) * sample_s_;
                hydraulics_.weather(surroundings_at(*day_, 60 * std::floor(now / 60 + 1e-9)));
                if (!(hydraulics_.flows(0, 0) == before))
                    restart(now);
            }
            const double soon = std::min(1e9, hydraulics_.until_change_s() / sample_s_);
            std::int64_t n = std::min({to_bend(k, sharp), samples - k, std::max<std::int64_t>(1, timers), std::max<std::int64_t>(1, static_cast<std::int64_t>(soon + 1e-9))});
            if (std::any_of(s_.program.speeds.begin(), s_.program.speeds.end(), [&](const Speed& x) { return x.kind == Speed::Kind::difference && (state_.running >> x.output & 1U) != 0; }))
                n = std::min<std::int64_t>(n, speed_looks);
            sharp = sharp && n == to_bend(k, sharp);
            if (crossed > 0)
                n = 1;
            const std::int64_t done = integrate(k, n, crossed);
            crossed = std::max<std::int64_t>(0, crossed - 1);
            const bool in_vain = hydraulics_.stands_still();
            const bool moved = pass_water(static_cast<double>(done) * sample_s_);
            const std::uint32_t before = state_.running;
            out_.run_time_s += (before & 1U) && !in_vain ? static_cast<double>(done) * sample_s_ : 0;
            k += done;
            decide(k, done);
            const Flows flowed = hydraulics_.flows(0, 0);
            act();
            const bool other_flow = !(hydraulics_.flows(0, 0) == flowed);
            if (before != state_.running) {
                const double at = day_start_ + static_cast<double>(k) * sample_s_;
                out_.switches_s.push_back(at);
                out_.starts += (state_.running & ~before & 1U) ? 1 : 0;
                crossed = 0;
            }
            if (moved || other_flow || before != state_.running || (sharp && done == n))
                restart(static_cast<double>(k) * sample_s_);
        }
    }

    std::vector<double> nodes() const { return {N_VGetArrayPointer(y_), N_VGetArrayPointer(y_) + n_}; }
    // True: the equations are others from here on.
    bool pass_water(double seconds)
    {
        const Flows before = hydraulics_.flows(0, 0);
        std::vector<double> t = nodes();
        hydraulics_.pass(seconds, t);
        std::copy(t.begin(), t.end(), N_VGetArrayPointer(y_));
        return !(hydraulics_.flows(0, 0) == before);
    }

    // Up to n samples; fewer when a root says that the unit may act sooner.
    std::int64_t integrate(std::int64_t k, std::int64_t n, std::int64_t& crossed)
    {
        const double end = static_cast<double>(k + n) * sample_s_;
        double t = static_cast<double>(k) * sample_s_;
        // After a root the solver may already stand beyond; it then interpolates.
        realtype reached = 0;
        good(CVodeGetCurrentTime(cvode_, &reached));
        if (end > reached)
            good(CVodeSetStopTime(cvode_, end));
        while (t < end - 1e-9) {
            const int flag = CVode(cvode_, end, y_, &t, CV_NORMAL);
            if (flag == CV_ILL_INPUT) { // a reading lies on a threshold: no crossing can be told, look at every sample
                crossed = 3;
                return without_roots(t, k);
            }
            good(flag);
            if (flag < 0)
                return n;
            if (flag == CV_ROOT_RETURN && t < end - 1e-9) {
                crossed = 3; // readings are rounded to millikelvin: look at the next samples one by one
                const auto act = std::max<std::int64_t>(k + 1, static_cast<std::int64_t>(std::ceil(t / sample_s_ - 1e-9)));
                if (act < k + n)
                    return integrate_to(t, k, act);
            }
        }
        return n;
    }
    std::int64_t without_roots(double t, std::int64_t k)
    {
        restart(t);
        good(CVodeRootInit(cvode_, 0, nullptr));
        const std::int64_t sample = std::max<std::int64_t>(k + 1, std::llround(std::ceil(t / sample_s_ - 1e-9)));
        good(CVodeSetStopTime(cvode_, static_cast<double>(sample) * sample_s_));
        const std::int64_t done = integrate_to(t, k, sample);
        good(CVodeRootInit(cvode_, static_cast<int>(2 * s_.program.latches.size()), roots));
        restart(static_cast<double>(sample) * sample_s_);
        return done;
    }
    std::int64_t integrate_to(double t, std::int64_t k, std::int64_t sample)
    {
        const double end = static_cast<double>(sample) * sample_s_;
        while (t < end - 1e-9)
            if (CVode(cvode_, end, y_, &t, CV_NORMAL) < 0)
                break;
        return sample - k;
    }

    void act()
    {
        std::vector<double> t = nodes();
        hydraulics_.outputs(acting(s_, s_.program, state_.running, decisions_), t, day_->mains_c);
        std::copy(t.begin(), t.end(), N_VGetArrayPointer(y_));
    }

    // The sample k of the day, the last of n.
    void decide(std::int64_t k, std::int64_t n)
    {
        const auto clock_at = [&](std::int64_t sample) { return std::llround(static_cast<double>(sample) * sample_s_ * 1000) % day_ms; };
        in_.clock_ms = clock_at(std::max<std::int64_t>(0, k - 1));
        // What crossed did so at the last of these samples; timers must not count from the first.
        if (n > 1)
            step(s_.program, in_, state_, n - 1);
        const double* y = N_VGetArrayPointer(y_);
        for (std::size_t p = 0; p < s_.program.probes; ++p)
            in_.readings[p] = {quantised(reading(y, static_cast<int>(p)), s_.resolution_k), true};
        in_.readings[supply_channel] = {hydraulics_.follows_sun() ? in_milli(hydraulics_.power().volt()) : steady_supply_mv, true};
        in_.clock_ms = clock_at(k);
        decisions_ = step(s_.program, in_, state_);
    }

    const CoupledSetup& s_;
    Network net_;
    HydraulicState hydraulics_;
    std::size_t n_;
    double sample_s_;
    SUNContext context_ = nullptr;
    N_Vector y_ = nullptr;
    SUNMatrix matrix_ = nullptr;
    SUNLinearSolver solver_ = nullptr;
    void* cvode_ = nullptr;
    const DayForcing* day_ = nullptr;
    double day_start_ = 0;
    Flows flows_{{}, -1, 0};
    std::vector<double> k_;
    EngineState state_;
    Inputs in_;
    Decisions decisions_{};
    Result out_;
};

} // namespace

Result run(const CoupledSetup& setup) { return Hybrid(setup).go(); }

} // namespace vernal::reference
