// What an attempt says about the instants inside it: state, span, heat.
#include "core/job/job.h"
#include "core/plant/hydraulic_state.h"
#include "core/plant/integrator.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace vernal;

namespace {

// Every loop with its pumps running, warmed for a while from a cold start in the sun.
struct Warm {
    Loop loop;
    Network net;
    Integrator integrator;
    HydraulicState water;
    Flows flows;
    Surroundings a{12, {700, 500, 400}, 70}, b{12.4, {760, 520, 430}, 72};
    std::vector<double> t;
    explicit Warm(const Arrangement& arrangement) : loop(new_job(arrangement.key).variants[0].loop), net(loop, {{ProbePlace::collector, 12, 0}, {arrangement.places[1], 15, 0}}), integrator(net), water(net, loop, 0), t(net.start(35, 12))
    {
        water.weather({12, {700, 500, 400, 600}, 70});
        water.outputs(Acting{1}, t, 10);
        for (int i = 0; i < 600; ++i) {
            flows = water.flows(0, 10);
            t = *integrator.attempt(t, flows, a, a, 1).next;
            water.pass(1, t);
        }
        flows = water.flows(0, 10);
    }
};

class Inside : public testing::TestWithParam<std::size_t> {};

// Against steps a sixtieth as long: the cubic errs no more than a few times what the step does.
TEST_P(Inside, lies_where_short_steps_go)
{
    Warm w(presets()[GetParam()]);
    Warm fine(presets()[GetParam()]);
    constexpr double h = 30;
    constexpr int pieces = 600;
    const double error = w.integrator.attempt(w.t, w.flows, w.a, w.b, h).error_k;
    w.integrator.close();
    std::vector<double> now = fine.t;
    for (int k = 1; k < pieces; ++k) {
        const auto at = [&](int i) { return Surroundings::between(w.a, w.b, static_cast<double>(i) / pieces); };
        now = *fine.integrator.attempt(now, w.flows, at(k - 1), at(k), h / pieces).next;
        if (k % 60 != 0)
            continue;
        const double x = static_cast<double>(k) / pieces;
        const auto& part = w.integrator.part(x);
        for (std::size_t i = 0; i < now.size(); ++i) {
            EXPECT_EQ((*part.temps)[i], w.integrator.inside(i, x));
            EXPECT_NEAR(w.integrator.inside(i, x), now[i], 8 * (error + part.error_k) + 1e-4) << presets()[GetParam()].key << " node " << i << " at " << x;
        }
    }
}

TEST_P(Inside, keeps_within_its_span)
{
    Warm w(presets()[GetParam()]);
    w.integrator.attempt(w.t, w.flows, w.a, w.b, 60);
    w.integrator.close();
    for (double to : {0.1, 0.5, 0.83, 1.0})
        for (std::size_t i = 0; i < w.t.size(); ++i) {
            const Integrator::Span s = w.integrator.span(i, to);
            double low = INFINITY, high = -INFINITY;
            for (int k = 0; k <= 400; ++k) {
                const double v = w.integrator.inside(i, to * k / 400.0);
                low = std::min(low, v);
                high = std::max(high, v);
            }
            EXPECT_LE(s.low, low + 1e-9);
            EXPECT_GE(s.high, high - 1e-9);
            EXPECT_NEAR(s.low, low, 1e-3 + 0.01 * (high - low)) << "no wider than it is";
            EXPECT_NEAR(s.high, high, 1e-3 + 0.01 * (high - low));
        }
}

// The heat of a part closes the balance of the part as the whole's does.
TEST_P(Inside, its_heat_closes_the_balance)
{
    Warm w(presets()[GetParam()]);
    w.integrator.attempt(w.t, w.flows, w.a, w.b, 60);
    const double before = w.net.stored_j(w.t.data(), w.flows.drained);
    for (double x : {0.05, 0.4, 0.9, 1.0}) {
        const std::vector<double> then = *w.integrator.part(x).temps;
        const HeatFlows q = w.integrator.heat_of_part();
        const double gross = std::fabs(q.absorbed) + std::fabs(q.loss(Loss::collector)) + std::fabs(q.to_store) + 1;
        EXPECT_NEAR(q.kept(), w.net.stored_j(then.data(), w.flows.drained) - before, 1e-9 * std::max(gross, std::fabs(before))) << x;
    }
    EXPECT_NEAR(w.integrator.heat_of_part().to_store, w.integrator.heat().to_store, 1e-6 + 1e-12 * std::fabs(w.integrator.heat().to_store));
}

// Going on from the end with the rates worked out there is going on: bit for bit.
TEST_P(Inside, rates_at_the_end_are_those_of_the_next_beginning)
{
    Warm w(presets()[GetParam()]), plain(presets()[GetParam()]);
    for (int k = 0; k < 20; ++k) {
        w.t = *w.integrator.attempt(w.t, w.flows, w.a, w.a, 5).next;
        w.integrator.close();
        plain.t = *plain.integrator.attempt(plain.t, plain.flows, plain.a, plain.a, 5).next;
        ASSERT_EQ(w.t, plain.t);
    }
}

INSTANTIATE_TEST_SUITE_P(All, Inside, testing::Range<std::size_t>(0, 14), [](const auto& of) {
    std::string name = presets()[of.param].key;
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
});

} // namespace
