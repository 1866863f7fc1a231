#include "core/findings/findings.h"
#include "core/plant/valve_board.h"
#include "core/setup/job_setup.h"
#include "core/setup/loop_answers.h"

#include <gtest/gtest.h>

namespace vernal {
namespace {

using V = HandValve;
using S = ServiceState;

constexpr std::array every_state{S::run, S::fill, S::flush, S::backup_only, S::drained, S::winter};

Loop loop_of(const char* preset) { return new_job(preset_answers(preset)).variants.front().loop; }

bool found(const Loop& loop, const std::string& kind)
{
    Job job = new_job(loop.answers);
    job.variants.front().loop = loop;
    const auto all = findings({job, job.variants.front(), nullptr, {}});
    return std::any_of(all.begin(), all.end(), [&](const Finding& f) { return f.kind == kind; });
}

// Whatever a loop is put together from: it runs as it stands, nothing runs out while it runs,
// no array is shut in, no relief valve shut off, and each valve has a word.
TEST(ValveBoard, stands_right_in_every_loop)
{
    for (const LoopAnswers& answers : all_answers()) {
        Loop loop;
        loop.answers = answers;
        const Arrangement& a = arrangement_of(loop);
        const auto valves = valves_of(a);
        ASSERT_EQ(valves.empty(), answers.carrier == Carrier::air) << answers_text(answers);
        if (valves.empty())
            continue;
        const StateFlow run = flow_in(loop, S::run);
        ASSERT_TRUE(run.runs(Segment::collector)) << answers_text(answers);
        ASSERT_EQ(run.runs(Segment::collector_2), answers.fields == Fields::two) << answers_text(answers);
        for (const S s : every_state) {
            ASSERT_FALSE(shut_in(loop, false, s) || shut_in(loop, true, s)) << answers_text(answers) << state_title(s);
            for (const V v : valves)
                if (is_relief(v)) {
                    ASSERT_EQ(stands(loop, v, s) == ValveStands::lifted, s == S::fill) << answers_text(answers);
                }
        }
    }
}

// In the order of the flow.
TEST(ValveBoard, tells_the_way_of_the_flow)
{
    const auto words = [](const char* preset, S s) { return flow_in(loop_of(preset), s).words(); };
    EXPECT_EQ(words("glycol-coil", S::run).front(), "coil → pump and supply → collector → return");
    EXPECT_EQ(words("glycol-coil", S::fill).front(), "fill port → pump and supply → collector → return → coil → flush port");
    EXPECT_EQ(words("direct", S::flush).front(), "fill port → pump and supply → collector → return → flush port");
    EXPECT_EQ(words("drainback", S::fill).front(), "fill port → coil → level cock");
    EXPECT_EQ(words("direct", S::fill).front(), "store → pump and supply → collector → air vent");
    EXPECT_EQ(words("direct", S::drained).front(), "air vent → collector → pump and supply → fill port");
    EXPECT_EQ(words("glycol-coil", S::run).back(), "cold water → tank → taps");
    EXPECT_EQ(words("pool", S::winter).back(), "filter → bypass → pool");
}

// What the trade does with a heater after the tank (common practice, no source).
TEST(ValveBoard, backup_only_leads_past_the_tank)
{
    Loop loop = loop_of("glycol-coil");
    loop.answers.backup = Backup::heater_after;
    EXPECT_EQ(flow_in(loop, S::run).words().back(), "cold water → tank → heater, taps");
    EXPECT_EQ(flow_in(loop, S::backup_only).words().back(), "cold water → past the tank → heater, taps");
    loop.heater.way = HeaterWay::tank_only;
    EXPECT_EQ(flow_in(loop, S::run).words().back(), "cold water → tank → past the heater, taps");
    // How it leads while it runs is the heater's setting, not the board's.
    loop.valves.run.set[static_cast<std::size_t>(V::cold_inlet)] = ValveSet::shut;
    EXPECT_EQ(stands(loop, V::cold_inlet, S::run), ValveStands::open);
}

TEST(ValveBoard, a_wrong_position_is_found)
{
    for (const char* preset : {"glycol-coil", "direct", "drainback", "glycol-hx", "pool"}) {
        const Loop right = loop_of(preset);
        for (const FindingKind& kind : finding_kinds())
            if (std::string(kind.key).starts_with("array_shut") || std::string(kind.key).starts_with("port_is")) {
                EXPECT_FALSE(found(right, kind.key)) << preset << kind.key;
            }
    }
    const auto with = [](const char* preset, S s, std::initializer_list<std::pair<V, ValveStands>> set) {
        Loop l = loop_of(preset);
        for (const auto& [v, to] : set)
            set_stands(l, v, s, to);
        return l;
    };
    constexpr auto open = ValveStands::open, shut = ValveStands::shut;
    EXPECT_TRUE(found(with("glycol-coil", S::backup_only, {{V::supply_isolating, shut}, {V::return_isolating, shut}}), "array_shut_in"));
    EXPECT_FALSE(found(with("glycol-coil", S::backup_only, {{V::supply_isolating, shut}}), "array_shut_in"));
    EXPECT_TRUE(found(with("direct", S::winter, {{V::fill_port, shut}, {V::flush_port, shut}}), "array_shut_in"));
    EXPECT_TRUE(found(with("direct", S::winter, {{V::fill_port, shut}, {V::flush_port, shut}}), "stays_full_in_winter"));
    EXPECT_TRUE(found(with("drainback", S::run, {{V::supply_isolating, shut}}), "run_is_cut"));
    EXPECT_TRUE(found(with("glycol-hx", S::run, {{V::water_supply, shut}}), "run_is_cut"));
    EXPECT_TRUE(found(with("direct", S::run, {{V::tank_drain, open}}), "port_is_open"));
    EXPECT_TRUE(found(with("glycol-coil", S::winter, {{V::vessel_valve, shut}}), "vessel_is_cut_off"));
    EXPECT_TRUE(found(with("glycol-coil", S::run, {{V::air_vent, open}}), "vent_is_open"));
    EXPECT_TRUE(found(with("direct", S::run, {{V::cold_inlet, shut}}), "taps_stay_dry"));
    EXPECT_TRUE(found(with("pool", S::run, {{V::pool_bypass, open}}), "two_ways_open"));
}

// A remedy leads back to what is usual, and then nothing is kept.
TEST(ValveBoard, what_is_usual_is_not_kept)
{
    Loop l = loop_of("glycol-coil");
    set_stands(l, V::loop_valve, S::run, ValveStands::shut);
    EXPECT_TRUE(set_by_hand(l, V::loop_valve, S::run));
    set_stands(l, V::loop_valve, S::run, ValveStands::open);
    EXPECT_EQ(l.valves, HandValves{});
    set_stands(l, V::relief, S::run, ValveStands::lifted); // not to be had
    EXPECT_EQ(l.valves, HandValves{});
    set_stands(l, V::relief, S::fill, ValveStands::seated);
    EXPECT_EQ(stands(l, V::relief, S::fill), ValveStands::seated);
}

// A valve that is not fitted cannot stand in the way.
TEST(ValveBoard, what_is_not_fitted_is_not_there)
{
    Loop l = loop_of("direct");
    set_stands(l, V::return_isolating, S::run, ValveStands::shut);
    l.valves.fitted.has[static_cast<std::size_t>(V::return_isolating)] = Fitted::no;
    EXPECT_TRUE(flow_in(l, S::run).runs(Segment::collector));
    EXPECT_FALSE(found(l, "run_is_cut"));
}

// The plant feels it: the pump works against the valve and no heat comes.
TEST(ValveBoard, a_valve_shut_in_the_run_stops_the_flow)
{
    Job job = new_job(preset_answers("glycol-coil"));
    set_stands(job.variants.front().loop, V::return_isolating, S::run, ValveStands::shut);
    const auto setup = coupled_setup(job, job.variants.front(), job.days.front(), nullptr);
    ASSERT_TRUE(setup);
    EXPECT_TRUE(setup->loop.pump.shut);
    EXPECT_FALSE(setup->loop.pump_2.shut);
}

} // namespace
} // namespace vernal
