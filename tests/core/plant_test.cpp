#include "core/job/fields.h"
#include "core/plant/hydraulic_state.h"
#include "core/plant/integrator.h"
#include "core/plant/vessel.h"
#include "core/run/weather_at.h"
#include "core/setup/job_setup.h"
#include "core/sums/switching.h"

#include <Eigen/Dense>
#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <numeric>

using namespace vernal;

namespace {

Loop loop_of(const char* arrangement)
{
    Loop l;
    l.answers = preset_answers(arrangement);
    return l;
}

// The general sparse solver against Eigen's dense one, on random patterns whose diagonal dominates.
RC_GTEST_PROP(SparseLu, solves_as_a_dense_solver_does, ())
{
    const auto n = static_cast<std::size_t>(*rc::gen::inRange(1, 30));
    std::vector<std::pair<int, int>> entries;
    for (int k = *rc::gen::inRange(0, 90); k-- > 0;)
        entries.emplace_back(*rc::gen::inRange(0, static_cast<int>(n)), *rc::gen::inRange(0, static_cast<int>(n)));
    const SparsePattern pattern(n, entries);
    std::vector<double> values(pattern.entries(), 0.0);
    Eigen::MatrixXd dense = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(n), static_cast<Eigen::Index>(n));
    for (std::size_t r = 0; r < n; ++r)
        entries.emplace_back(r, r);
    for (const auto& [r, c] : entries) {
        const double v = c == r ? 100.0 : *rc::gen::inRange(-100, 101) / 100.0;
        values[pattern.slot(r, c)] = v;
        dense(r, c) = v;
    }
    Eigen::VectorXd b = Eigen::VectorXd::LinSpaced(static_cast<Eigen::Index>(n), -3, 5);
    SparseLu lu;
    lu.factor(pattern, values.data());
    std::vector<double> x(n);
    lu.solve(pattern, b.data(), x.data());
    const Eigen::VectorXd expected = dense.partialPivLu().solve(b);
    for (std::size_t i = 0; i < n; ++i)
        RC_ASSERT(std::fabs(x[i] - expected[static_cast<Eigen::Index>(i)]) < 1e-10);
}

// Stagnation is where q = G η0 − a1 Δ − a2 Δ² is zero: published parameter sets,
// values computed from the formula (field handbook): 169.5, 268.7 and 90 °C.
struct Stagnation {
    double eta0, a1, a2, temp_c;
};
class Stagnates : public testing::TestWithParam<Stagnation> {};
TEST_P(Stagnates, at_the_zero_of_the_efficiency)
{
    Loop l = loop_of("glycol-coil");
    l.collector.eta0 = GetParam().eta0;
    l.collector.a1_w_m2k = GetParam().a1;
    l.collector.a2_w_m2k2 = GetParam().a2;
    l.collector.sky_exchange = 0;
    const Network net(l, {});
    Integrator integrator(net);
    auto t = net.start(20, 30);
    const Surroundings sun{30, {1000}, 0};
    for (int i = 0; i < 2000; ++i)
        t = *integrator.attempt(t, {}, sun, sun, 60).next;
    EXPECT_NEAR(t[net.node_of(ProbePlace::collector)], GetParam().temp_c, 0.06);
}
INSTANTIATE_TEST_SUITE_P(Handbook, Stagnates, testing::Values(Stagnation{0.78, 3.5, 0.015, 169.5}, Stagnation{0.70, 1.5, 0.006, 268.7}, Stagnation{0.90, 15, 0, 90}));

TEST(Network, a_clear_night_takes_the_absorber_a_few_kelvin_below_the_air)
{
    const Network net(loop_of("glycol-coil"), {});
    Integrator integrator(net);
    auto t = net.start(20, 5);
    const Surroundings night{5, {}, 100};
    for (int i = 0; i < 600; ++i)
        t = *integrator.attempt(t, {}, night, night, 60).next;
    const double below = 5 - t[net.node_of(ProbePlace::collector)];
    EXPECT_GT(below, 1);
    EXPECT_LT(below, 6);
}

// Steady flow through a collector: outlet by the ISO 9806 form with mean temperature.
TEST(Network, steady_gain_follows_the_efficiency_form)
{
    Loop l = loop_of("direct");
    l.collector.a2_w_m2k2 = 0;
    l.collector.sky_exchange = 0;
    l.supply.loss_w_mk = l.back.loss_w_mk = 0;
    l.tank.volume_m3 = 50;
    const Network net(l, {});
    Integrator integrator(net);
    auto t = net.start(30, 30);
    const Flows flows{{net.rate_w_k(0, l.pump.flow_m3_s)}, 0, 10};
    const Surroundings sun{20, {700}, 0};
    for (int i = 0; i < 400; ++i)
        t = *integrator.attempt(t, flows, sun, sun, 10).next;
    integrator.attempt(t, flows, sun, sun, 1);
    const HeatFlows q = integrator.heat();
    const double outlet = t[net.node_of(ProbePlace::collector)], rise = (q.absorbed - q.loss(Loss::collector)) / flows.route_w_k[0];
    const double mean = outlet - rise / 2;
    const double expected = l.collector.area_m2 * (l.collector.eta0 * 700 - l.collector.a1_w_m2k * (mean - 20));
    EXPECT_NEAR(q.absorbed - q.loss(Loss::collector), expected, 0.01 * expected);
}

TEST(Network, the_cold_slug_stands_in_the_pipe_and_arrives_after_a_while)
{
    const Loop l = loop_of("glycol-coil");
    const Network net(l, {{ProbePlace::return_pipe, 1, 0}});
    Integrator integrator(net);
    auto t = net.start(20, 0);
    const Flows flows{{net.rate_w_k(0, l.pump.flow_m3_s)}, 0, 10};
    const NodeRange collector = net.nodes_of(Segment::collector);
    for (std::size_t i = collector.first; i <= collector.last(); ++i)
        t[i] = 60;
    const Surroundings dark{0, {}, 0};
    double peak = 0;
    int at = 0;
    for (int s = 1; s < 400; ++s) {
        t = *integrator.attempt(t, flows, dark, dark, 1).next;
        if (t[net.probe_node(0)] > peak) {
            peak = t[net.probe_node(0)];
            at = s;
        }
    }
    // Volume of the return pipe over the flow, and half the collector's hold-up more.
    const double section = M_PI / 4 * l.back.bore_m * l.back.bore_m;
    EXPECT_GT(at, 0.6 * l.back.length_m * section / l.pump.flow_m3_s);
    EXPECT_GT(peak, 25);
}

TEST(Network, inversions_mix_and_layers_stay)
{
    const Network net(loop_of("glycol-coil"), {});
    Integrator integrator(net);
    auto t = net.start(30, 20);
    const std::size_t bottom = net.tank(0).first, top = net.tank(0).last();
    t[bottom] = 50;
    const Surroundings dark{20, {}, 0};
    for (int i = 0; i < 120; ++i)
        t = *integrator.attempt(t, {}, dark, dark, 10).next;
    EXPECT_LT(t[bottom] - t[top], 0.5);
    auto layered = net.start(20, 20);
    layered[top] = 60;
    for (int i = 0; i < 360; ++i)
        layered = *integrator.attempt(layered, {}, dark, dark, 10).next;
    EXPECT_GT(layered[top], 55);
}

// Order of convergence in time of the step, smooth stretch, against very small steps.
// A ramp of sun on a running loop, in steps of h; the largest error against steps of an eighth of a second.
double error_of_steps(const Loop& loop, double h)
{
    const Network net(loop, {});
    const Flows flows{{net.rate_w_k(0, 1e-4)}, 0, 10};
    const auto run = [&](double step) {
        Integrator integrator(net);
        auto t = net.start(35, 10);
        for (double at = 0; at < 960 - step / 2; at += step)
            t = *integrator.attempt(t, flows, {10, {0.5 * at}, 0}, {10, {0.5 * (at + step)}, 0}, step).next;
        return t;
    };
    const auto exact = run(0.125), coarse = run(h);
    double error = 0;
    for (std::size_t i = 0; i < exact.size(); ++i)
        error = std::max(error, std::fabs(coarse[i] - exact[i]));
    return error;
}

TEST(Integrator, is_of_third_order_on_a_straight_loss)
{
    Loop l = loop_of("glycol-coil");
    l.collector.a2_w_m2k2 = 0;
    const double coarse = error_of_steps(l, 16), fine = error_of_steps(l, 8);
    EXPECT_GT(std::log2(coarse / fine), 2.6) << coarse << " " << fine;
}

// The slopes of a nonlinear loss are kept for a stretch of temperatures, which costs order but little accuracy.
TEST(Integrator, is_accurate_on_a_bent_loss)
{
    EXPECT_LT(error_of_steps(loop_of("glycol-coil"), 8), 1e-3);
}

// Gives every number of a part any value that the job file allows.
struct AnyNumbers {
    static double any(double lo, double hi) { return lo + (hi - lo) * *rc::gen::inRange(0, 1001) / 1000.0; }
    void number(const NumberField& f, double& x) { x = any(f.min, f.max); }
    void temperature(const NumberField& f, Temperature& t) { t = Temperature::celsius(any(f.min, f.max)); }
    void difference(const NumberField& f, TempDiff& d) { d = TempDiff::kelvin(any(f.min, f.max)); }
    void boolean(const SwitchField&, bool& b) { b = *rc::gen::arbitrary<bool>(); }
    template <class Names, class E>
    void choice(const char*, const Names& names, E& x) { x = static_cast<E>(*rc::gen::inRange<std::size_t>(0, names.size())); }
    template <class Names, class E>
    void spare_choice(const char* key, const Names& names, E& x) { choice(key, names, x); }
    template <class... A>
    void text_choice(A&&...) {}
    template <class T>
    void object(const char*, T& x) { fields(*this, x); }
    template <class T>
    void spare_object(const char*, T& x) { fields(*this, x); }
};

// Any loop that may be put together, of any parts, in any weather at any step: finite, balanced, above absolute zero.
RC_GTEST_PROP(Integrator, any_loop_stays_finite_and_balanced, ())
{
    const auto any = AnyNumbers::any;
    static const std::vector<LoopAnswers> all = all_answers();
    Loop l;
    AnyNumbers numbers;
    fields(numbers, l);
    l.answers = all[*rc::gen::inRange<std::size_t>(0, all.size())];
    const Network net(l, {{ProbePlace::collector, 10, 0.2}, {ProbePlace::tank_bottom, 10, 0}});
    Integrator integrator(net);
    HydraulicState water(net, l, 0);
    Pressure pressure(net, l, any(-300, 4000));
    auto t = net.start(any(5, 90), any(-20, 30));
    const auto weather = [&] { return Surroundings{any(-20, 35), {any(0, 1200), any(0, 1200), any(0, 1200)}, any(0, 120)}; };
    for (int k = 0; k < 60; ++k) {
        const auto running = static_cast<std::uint32_t>(*rc::gen::inRange(0, 32));
        water.weather({any(-20, 35), {0, 0, 0, any(0, 1300)}, 0});
        water.outputs(Acting{running}, t, 10);
        Flows flows = water.flows(net.has_tank() && *rc::gen::inRange(0, 4) == 0 ? any(0, 2000) : 0, any(2, 20));
        flows.element_w = l.element.mode == ElementMode::off ? 0 : l.element.power_w;
        const Surroundings a = weather(), b = weather();
        double h = *rc::gen::element(0.25, 1.0, 10.0, 60.0, 600.0);
        const double before = net.stored_j(t.data(), water.drained());
        while (integrator.attempt(t, flows, a, b, h).error_k > 5 && h > 0.01) // as a run does: shorten what errs
            h /= 2;
        const auto next = *integrator.attempt(t, flows, a, b, h).next;
        const HeatFlows q = integrator.heat();
        const double residual = q.kept() - (net.stored_j(next.data(), flows.drained) - before);
        const double gross = std::fabs(q.absorbed) + std::fabs(q.loss(Loss::collector)) + std::fabs(q.drawn) + std::fabs(before);
        RC_ASSERT(std::fabs(residual) <= 1e-9 * gross + 1e-3);
        t = next;
        water.pass(h, t); // may move water, never heat
        RC_ASSERT(std::fabs(net.stored_j(t.data(), water.drained()) - net.stored_j(next.data(), flows.drained)) <= 1e-9 * gross + 1e-3);
        pressure.pass(t, h);
        RC_ASSERT(std::isfinite(pressure.pa()) && std::isfinite(water.lifted_m3_s()) && std::isfinite(water.reverse_m3_s()));
        for (double v : t)
            RC_ASSERT(std::isfinite(v) && v > -273.15 && v < 5000);
    }
}

// ASHRAE Handbook, HVAC Applications, natatoriums: W = A Δp (0.089 + 0.0782 v)/h_fg.
// Saturation pressures of the steam table: 27 °C 3.567 kPa, 28 °C 3.782 kPa; by hand
// for still air at 28 °C and 60 %: (3.567 − 2.269) kPa · 0.0968 = 125.7 W/m².
TEST(Pool, evaporates_as_the_handbook_says)
{
    Loop l = loop_of("pool");
    l.pool.still_loss_w_m2k = 0;
    l.pool.air_speed_m_s = 0.1;
    l.pool.humidity = 0.6;
    const auto lost = [&] {
        const Network net(l, {});
        const auto t = std::vector<double>(net.size(), 27.0);
        return net.heat_flows({}, {28, {}, 0}, t.data()).loss(Loss::store) / l.pool.area_m2;
    };
    l.pool.activity = 1;
    const double from_the_air = 0.9 * stefan_boltzmann * (std::pow(301.15, 4) - std::pow(300.15, 4));
    EXPECT_NEAR(lost(), 125.7 - from_the_air, 1.5);
    l.pool.activity = 0.5;
    EXPECT_NEAR(lost(), 125.7 / 2 - from_the_air, 1.5);
    l.pool.covered = true;
    EXPECT_NEAR(lost(), 0, 1e-9);
}

// ε σ (Tw⁴ − Tsky⁴) by its own temperature: water at 28 °C under a sky of 2 °C over air of 20 °C.
TEST(Pool, radiates_by_its_own_temperature)
{
    Loop l = loop_of("pool");
    l.pool.still_loss_w_m2k = 0;
    l.pool.activity = 0;
    const Network net(l, {});
    const auto t = std::vector<double>(net.size(), 28.0);
    const auto fourth = [](double c) { return std::pow(c + 273.15, 4); };
    Surroundings s;
    s.air_c = 20;
    s.net_sky_w_m2 = 5.670374e-8 * (fourth(20) - fourth(2));
    EXPECT_NEAR(net.heat_flows({}, s, t.data()).loss(Loss::store) / l.pool.area_m2, 0.9 * 5.670374e-8 * (fourth(28) - fourth(2)), 0.1);
}

// Ten square metres without a pane, of which only wind and a1 take heat.
Loop without_a_pane(double eta0, double a1, double a3, double a6)
{
    Loop l = loop_of("pool");
    l.collector.area_m2 = 10;
    l.collector.eta0 = eta0;
    l.collector.a1_w_m2k = a1;
    l.collector.a2_w_m2k2 = l.collector.sky_exchange = 0;
    l.collector.wind_loss_j_m3k = a3;
    l.collector.wind_gain_s_m = a6;
    return l;
}

// What it loses at 45 °C in air of 20 °C, W.
double lost_w(const Loop& l, double wind_m_s)
{
    const Network net(l, {});
    EXPECT_TRUE(net.windy());
    auto t = std::vector<double>(net.size(), 20.0);
    const NodeRange c = net.nodes_of(Segment::collector);
    std::fill_n(t.begin() + static_cast<std::ptrdiff_t>(c.first), c.count, 45.0);
    Surroundings s;
    s.air_c = 20;
    Flows f;
    f.wind_m_s = wind_m_s;
    return net.heat_flows(f, s, t.data()).loss(Loss::collector);
}

// Of the sun at noon what counts in this wind, over that in still air.
double counts_in_wind(const Loop& l, double wind_m_s)
{
    SkySpec calm, windy;
    calm.wind_m_s = 0;
    windy.wind_m_s = wind_m_s;
    return forcing(generate(windy, {}), l).sun_w_m2[0][720] / forcing(generate(calm, {}), l).sun_w_m2[0][720];
}

// ISO 9806:2013: an absorber without a pane loses (a1 + a3 u) Δ and gains (eta0 − a6 u) G.
TEST(Collector, without_a_pane_feels_the_wind)
{
    const Loop l = without_a_pane(0.9, 10, 4, 0.04);
    for (double wind : {0.0, 3.0})
        EXPECT_NEAR(lost_w(l, wind), 10 * (10 + 4 * wind) * 25, 1e-6);
    EXPECT_NEAR(counts_in_wind(l, 3), (0.9 - 0.04 * 3) / 0.9, 1e-9);
}

// ISO 9806:2017 has u - 3 m/s in the place of u (from memory): loss (a1 + a3 (u - 3)) Δ,
// gain (eta0 - a6 (u - 3)) G; by hand.
TEST(Collector, a_report_of_2017_counts_the_wind_from_3_m_s)
{
    Loop l = without_a_pane(0.8, 16, 3, 0.02);
    l.collector.wind_from = WindFrom::three_m_s;
    for (double wind : {1.0, 3.0, 6.0}) {
        EXPECT_NEAR(lost_w(l, wind), 10 * (16 + 3 * (wind - 3)) * 25, 1e-6) << wind;
        EXPECT_NEAR(counts_in_wind(l, wind), (0.8 - 0.02 * (wind - 3)) / (0.8 + 0.02 * 3), 1e-9) << wind;
    }
    EXPECT_NEAR(stagnation_c(l.collector), 30 + (0.8 + 0.06) * 1000 / (16 - 9.0), 1e-9);
}

// While a coil in the lower part charges, what it warms rises: the top is not left behind.
TEST(Tank, no_inversion_stands_while_a_coil_charges)
{
    for (const char* preset : {"glycol-coil", "drainback", "two-stores"}) {
        const Job job = new_job(preset);
        for (const Day& day : job.days) {
            CoupledSetup s = *coupled_setup(job, job.variants[0], day);
            const std::vector<Probe>& probes = job.variants[0].probes;
            const auto at = [&](ProbePlace place) { return static_cast<std::size_t>(std::find_if(probes.begin(), probes.end(), [place](const Probe& p) { return p.place == place; }) - probes.begin()); };
            const std::size_t bottom = at(ProbePlace::tank_bottom), top = at(ProbePlace::tank_top);
            ASSERT_LT(std::max(bottom, top), probes.size());
            double since = -1, longest = 0;
            for (const Record& r : run_coupled(s).records) {
                const bool stands = r.inputs.readings[bottom].mk - r.inputs.readings[top].mk > 300;
                since = !stands ? -1 : since < 0 ? r.time_s
                                                 : since;
                longest = std::max(longest, stands ? r.time_s - since : 0.0);
            }
            EXPECT_LE(longest, 10) << preset << " " << day.name;
        }
    }
}

// The cold water that enters stirs what lies round its port: after a short draw the two lowest
// layers are nearer to each other than the same water leaves them that comes in slowly. Nothing
// is lost by it.
TEST(Tank, what_enters_as_a_jet_stirs)
{
    Loop l = loop_of("glycol-coil");
    l.tank.loss_w_k = 0;
    l.tank.coil_w_k = 0;
    const Network net(l, {});
    std::vector<double> t(net.size(), 50.0), dt(net.size()), k;
    const NodeRange tank = net.tank(0);
    t[tank.first] = 15, t[tank.first + 1] = 30;
    Flows drawn;
    drawn.draw_w_k = 500;
    drawn.mains_c = 15;
    net.assemble(drawn, k);
    const Surroundings dark;
    net.rates(k, drawn, dark, t.data(), dt.data());
    // Plug flow alone would cool the second layer by 500 (15 − 30) W. A twentieth of the height from the
    // port the jet exchanges 1.25 of its flow across a tenth of the height, so 2.5 of it between
    // layers a twentieth apart, with the lowest; with the third, a tenth away, 2.
    const double moved_w = dt[tank.first + 1] / net.inverse_capacity(tank.first + 1);
    EXPECT_NEAR(moved_w, 500 * (15 - 30) + 1250 * (15 - 30) + 1000 * (50 - 30), 120) << "conduction comes on top";
    double all = 0;
    for (std::size_t i = tank.first; i <= tank.last(); ++i)
        all += dt[i] / net.inverse_capacity(i);
    EXPECT_NEAR(all, 500 * 15 - 500 * t[tank.last()], 500);
}

// Whatever a tank is cut into, it is the same tank: its volume, its loss and its coil in sum, and
// heights lie where they lay.
TEST(Tank, is_the_same_however_finely_it_is_cut)
{
    Loop l = loop_of("glycol-coil");
    l.tank.coil_top = 0.47;
    double lost[2], held[2], passes[2];
    for (int fine : {1, 3}) {
        const Network net(l, {}, {1, 1, fine});
        const std::size_t which = fine == 1 ? 0 : 1;
        EXPECT_EQ(net.tank(0).count, which == 0 ? 13U : 39U);
        EXPECT_EQ(net.tank_layers(0).size(), net.tank(0).count);
        EXPECT_NEAR(std::accumulate(net.tank_layers(0).begin(), net.tank_layers(0).end(), 0.0), 1, 1e-12);
        auto t = net.start(60, 60);
        held[which] = 0;
        for (std::size_t i = net.tank(0).first; i <= net.tank(0).last(); ++i)
            held[which] += 1 / net.inverse_capacity(i);
        lost[which] = net.heat_flows({}, {60}, t.data()).loss(Loss::store);
        const NodeRange coil = net.nodes_of(Segment::coil);
        std::fill_n(t.begin() + static_cast<std::ptrdiff_t>(coil.first), coil.count, 70.0);
        Flows usual;
        usual.route_w_k[0] = net.rate_w_k(0, l.pump.flow_m3_s);
        passes[which] = net.heat_flows(usual, {60}, t.data()).to_store / 10;
    }
    EXPECT_NEAR(held[1], held[0], 1e-9 * held[0]);
    EXPECT_NEAR(lost[1], lost[0], 1e-9 * lost[0]);
    EXPECT_NEAR(passes[1], passes[0], 1e-9 * passes[0]);
    const Layering layers;
    EXPECT_EQ(layers.at(0), 0U);
    EXPECT_EQ(layers.at(1), layers.count() - 1);
    EXPECT_EQ(layers.at(layers.top(3)), 4U) << "a height on a face belongs to what lies above it";
}

// A coil of 400 W/K with water, a quarter of the resistance inside it: at half the flow that quarter
// grows by 2^0.8: 400 / (0.75 + 0.25 × 1.741) = 337 W/K (Dittus & Boelter, by hand). In a plate both sides.
TEST(Wall, passes_less_as_the_flow_falls)
{
    Loop l = loop_of("drainback"); // water
    l.tank.coil_w_k = 400;
    const Network coil(l, {});
    auto t = std::vector<double>(coil.size(), 40.0);
    const NodeRange r = coil.nodes_of(Segment::coil);
    std::fill_n(t.begin() + static_cast<std::ptrdiff_t>(r.first), r.count, 50.0);
    const auto passes = [&](double share) {
        Flows f;
        f.route_w_k[0] = share * l.pump.flow_m3_s * coil.fluid_of(0).density_kg_m3 * coil.fluid_of(0).heat_capacity_j_kgk;
        return coil.heat_flows(f, {40}, t.data()).to_store / 10;
    };
    EXPECT_NEAR(passes(1), 400, 1e-6);
    EXPECT_NEAR(passes(0.5), 400 / (0.75 + 0.25 * std::pow(2, 0.8)), 1e-6);
    EXPECT_NEAR(passes(0.5), 337, 1);
    EXPECT_GT(passes(0), 60);
    l.answers = preset_answers("glycol-coil");
    const Network glycol(l, {});
    Flows half;
    half.route_w_k[0] = 0.5 * l.pump.flow_m3_s * glycol.fluid_of(0).density_kg_m3 * glycol.fluid_of(0).heat_capacity_j_kgk;
    EXPECT_LT(glycol.heat_flows(half, {40}, t.data()).to_store / 10, passes(0.5)) << "the thicker fluid has more of it inside";
}

TEST(Fluid, glycol_freezing_points)
{
    // ASHRAE Handbook Fundamentals, freezing points of propylene glycol by mass (from memory).
    EXPECT_NEAR(glycol_water(0).freezing_c, 0, 0.01);
    EXPECT_NEAR(glycol_water(0.3).freezing_c, -12.7, 0.5);
    EXPECT_NEAR(glycol_water(0.5).freezing_c, -33.5, 0.5);
    EXPECT_NEAR(glycol_water(0).heat_capacity_j_kgk, 4179, 5); // IAPWS-95 at 40 °C: 4.179 kJ/(kg K)
}

} // namespace
