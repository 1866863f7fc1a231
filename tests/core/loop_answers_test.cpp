// A loop from answers: the presets as named sets, what cannot go together, what is left
// open, and another answer to a loop that is already described.
#include "core/job/field_path.h"
#include "core/job/ids.h"
#include "core/plant/collector_kinds.h"
#include "core/setup/loop_answers.h"
#include "core/setup/rejoin.h"

#include <gtest/gtest.h>

#include <rapidcheck/gtest.h>

#include <set>

using namespace vernal;

namespace {

TEST(LoopAnswers, every_preset_is_a_set_of_its_own_that_can_go_together)
{
    std::set<std::string> seen;
    for (const Arrangement& p : presets()) {
        EXPECT_TRUE(seen.insert(answers_text(p.answers)).second) << p.key;
        EXPECT_EQ(cannot_combine(p.answers), "") << p.key;
        const auto found = complete({}, p.key);
        ASSERT_TRUE(found) << p.key;
        EXPECT_EQ(*found, p.answers);
    }
    EXPECT_EQ(seen.size(), 14U);
}

// Nobody fills a hose with glycol and sends a pool through an exchanger who was not asked to.
TEST(LoopAnswers, open_questions_are_not_answered_with_what_nobody_builds)
{
    const auto pool = complete({{"array", "hose"}, {"store", "pool"}, {"power", "battery"}, {"empties", "full"}}, "");
    ASSERT_TRUE(pool);
    EXPECT_EQ(pool->carrier, Carrier::water);
    EXPECT_EQ(pool->transfer, Transfer::straight);
    const auto bare = complete({{"array", "unglazed"}, {"store", "tank"}}, "");
    ASSERT_TRUE(bare);
    EXPECT_EQ(bare->carrier, Carrier::water);
}

// Water that stays outdoors meets the coldest day of its place, wherever the job is moved.
TEST(NewLoops, that_keep_water_outdoors_have_the_coldest_day_of_their_place)
{
    const Place high{39.7, -105.0, 1600}, mild{28.0, -16.0, 50};
    for (const LoopAnswers& a : all_answers()) {
        if (a.carrier != Carrier::water || a.empties != Empties::full)
            continue;
        for (const Place& place : {high, mild}) {
            Job job = new_job(a);
            move_fresh_job(job, place);
            const Day& cold = job.days.back();
            ASSERT_EQ(cold.sky.air_min_c < 0, place == high) << answers_text(a);
            ASSERT_EQ(cold.name, place == high ? "Frosty day" : "Cold day");
        }
    }
}

TEST(NewLoops, an_array_that_grows_holds_more_unless_its_content_was_stated)
{
    Job job = new_job("glycol-coil");
    const Collector& c = job.variants[0].loop.collector;
    const double area = c.area_m2, content = c.content_m3;
    ASSERT_TRUE(set_setting(job, 0, "loop/collector/area_m2", 2 * area));
    EXPECT_NEAR(c.content_m3, 2 * content, 1e-9);
    ASSERT_TRUE(set_setting(job, 0, "loop/collector/content_m3", 0.0123));
    ASSERT_TRUE(set_setting(job, 0, "loop/collector/area_m2", area));
    EXPECT_EQ(c.content_m3, 0.0123);
}

// Every part, ring and place that the answers ask for is there, and none else; written
// from the questions, not from what joins them.
RC_GTEST_PROP(LoopAnswers, say_what_the_loop_has, ())
{
    static const std::vector<LoopAnswers> all = all_answers();
    const LoopAnswers& q = all[*rc::gen::inRange<std::size_t>(0, all.size())];
    const Arrangement& a = arrangement_of(q);
    const bool tank = q.store == Store::tank || q.store == Store::two_tanks, exchanger = q.transfer == Transfer::exchanger;
    RC_ASSERT(a.has(Part::tank) == tank);
    RC_ASSERT(a.has(Part::tank_2) == (q.store == Store::two_tanks));
    RC_ASSERT(a.has(Part::pool) == (q.store == Store::pool));
    RC_ASSERT(a.has(Part::slab) == (q.store == Store::slab));
    RC_ASSERT(a.has(Part::room) == (q.store == Store::room));
    RC_ASSERT(a.has(Part::exchanger) == exchanger && a.has(Part::exchanger_pump) == exchanger);
    RC_ASSERT(a.has(Part::reservoir) == (q.empties == Empties::reservoir));
    RC_ASSERT(a.has(Part::collector_2) == (q.fields == Fields::two));
    RC_ASSERT(a.has(Part::panel) == (q.power == PoweredBy::panel || q.power == PoweredBy::battery) && a.has(Part::battery) == (q.power == PoweredBy::battery));
    const bool cooler = q.excess == Excess::cooler || q.excess == Excess::house, circulates = q.circulation == Circulates::taps, pumped = q.power != PoweredBy::none;
    RC_ASSERT(a.has(Part::cooler) == cooler);
    RC_ASSERT(a.has(Part::heater) == (q.backup == Backup::heater_after) && a.has(Part::circulation) == circulates && a.has(Part::pump) == pumped);
    RC_ASSERT(a.has(Part::element) == (q.backup == Backup::element));
    const std::size_t fields = q.fields == Fields::two ? 2 : 1, stores = q.store == Store::two_tanks ? 2 : 1;
    RC_ASSERT(a.routes.size() == fields * ((exchanger ? 1 : stores) + (cooler ? 1 : 0)) + (exchanger ? stores : 0) + (circulates ? 2 : 0));
    RC_ASSERT(a.routes.size() <= max_routes && a.drivers.size() <= max_outputs);
    for (const Route& r : a.routes) {
        RC_ASSERT(r.pump < a.drivers.size() || r.turns == Driver::nothing);
        for (const Route::Valve& v : r.valves)
            RC_ASSERT(v.output < a.drivers.size());
    }
    // Whatever way the valves stand, one ring through each array is open.
    for (std::uint32_t stand = 0; stand < 32; ++stand)
        for (const Driver pump : {Driver::pump, Driver::pump_2}) {
            const auto open = std::count_if(a.routes.begin(), a.routes.end(), [&](const Route& r) { return r.turns == pump && r.open(stand); });
            RC_ASSERT(open == ((pump == Driver::pump ? pumped : fields == 2) ? 1 : 0));
        }
    RC_ASSERT(answers_of_text(answers_text(q)) == q);
    RC_ASSERT(&arrangement_of(q) == &a);
}

TEST(LoopAnswers, what_cannot_go_together_is_refused_with_its_reason)
{
    const auto reason = [](const GivenAnswers& given) {
        const auto got = complete(given);
        return got ? std::string() : got.error().what;
    };
    EXPECT_NE(reason({{"carrier", "air"}, {"transfer", "coil"}}), "");
    EXPECT_NE(reason({{"carrier", "glycol"}, {"transfer", "straight"}, {"store", "tank"}}).find("water that people use"), std::string::npos);
    EXPECT_NE(reason({{"empties", "open-tank"}, {"carrier", "glycol"}}), "");
    EXPECT_NE(reason({{"backup", "element"}, {"store", "pool"}}), "");
    EXPECT_EQ(reason({{"carrier", "glycol"}, {"transfer", "straight"}}), "") << "a slab could still be the store";
    EXPECT_NE(reason({{"carrier", "air"}, {"store", "tank"}}), "");
    EXPECT_NE(reason({{"array", "wood"}}), "");
    EXPECT_NE(reason({{"colour", "green"}}), "");
    EXPECT_FALSE(complete({}, "castle"));
}

TEST(LoopAnswers, open_questions_are_answered_by_the_preset_that_is_nearest)
{
    const auto key = [](const GivenAnswers& given) { return arrangement_of(*complete(given)).key; };
    EXPECT_EQ(key({}), "direct");
    EXPECT_EQ(key({{"carrier", "glycol"}}), "glycol-coil");
    EXPECT_EQ(key({{"store", "pool"}}), "pool");
    EXPECT_EQ(key({{"power", "battery"}}), "pv-battery");
    EXPECT_EQ(key({{"excess", "cooler"}}), "dump");
    const LoopAnswers both = *complete({{"store", "pool"}, {"power", "battery"}});
    EXPECT_EQ(both.store, Store::pool);
    EXPECT_EQ(both.power, PoweredBy::battery);
    EXPECT_EQ(both.empties, Empties::valve) << "as in the pool it comes from";
    EXPECT_EQ(complete({{"power", "battery"}}, "drainback")->empties, Empties::reservoir);
}

// What a collector of each kind starts and ends at is in the order everybody knows: by loss
// painted plates over selective ones over tubes; an uncovered one stagnates lowest and feels the wind.
TEST(LoopAnswers, each_kind_of_collector_brings_values_of_its_own)
{
    const auto stagnates_k = [](Array kind) { // over the air at 1000 W/m², no wind
        const Collector c = collector_of(kind, 1);
        return c.a2_w_m2k2 > 0 ? (std::sqrt(c.a1_w_m2k * c.a1_w_m2k + 4 * c.a2_w_m2k2 * 1000 * c.eta0) - c.a1_w_m2k) / (2 * c.a2_w_m2k2) : 1000 * c.eta0 / c.a1_w_m2k;
    };
    EXPECT_LT(stagnates_k(Array::hose), stagnates_k(Array::unglazed));
    EXPECT_LT(stagnates_k(Array::unglazed), stagnates_k(Array::flat));
    EXPECT_LT(stagnates_k(Array::flat), stagnates_k(Array::selective));
    EXPECT_LT(stagnates_k(Array::selective), stagnates_k(Array::tubes));
    EXPECT_NEAR(stagnates_k(Array::unglazed), 80, 10);
    for (Array kind : {Array::flat, Array::selective, Array::tubes, Array::unglazed, Array::hose, Array::air, Array::trickle}) {
        const Collector c = collector_of(kind, 3);
        EXPECT_EQ(c.area_m2, 3);
        EXPECT_EQ(c.wind_loss_j_m3k > 0, uncovered(kind));
        EXPECT_NE(std::string(collector_origin(kind)), "");
    }
    // The same loop by another coat.
    LoopAnswers painted = preset_answers("glycol-coil");
    painted.array = Array::flat;
    EXPECT_EQ(arrangement_of(painted).key, "glycol-coil");
}

TEST(LoopAnswers, another_kind_fills_in_its_values_and_leaves_how_it_lies)
{
    Variant v = new_job("glycol-coil").variants.front();
    v.loop.collector.area_m2 = 11;
    v.loop.collector.tilt_deg = 33;
    v.loop.collector.eta0 = 0.79;
    LoopAnswers painted = v.loop.answers;
    painted.array = Array::flat;
    const Variant now = rejoined(v, painted);
    EXPECT_EQ(now.loop.collector.area_m2, 11);
    EXPECT_EQ(now.loop.collector.tilt_deg, 33);
    EXPECT_EQ(now.loop.collector.eta0, collector_of(Array::flat, 11).eta0);
    EXPECT_EQ(now.loop.collector.a1_w_m2k, collector_of(Array::flat, 11).a1_w_m2k);
}

TEST(LoopAnswers, an_element_heats_in_its_window)
{
    const auto job = new_job_of({{"carrier", "glycol"}, {"backup", "element"}});
    ASSERT_TRUE(job);
    const Element& e = job->variants[0].loop.element;
    EXPECT_EQ(e.mode, ElementMode::windows);
    EXPECT_TRUE(std::any_of(e.windows.begin(), e.windows.end(), [](const HeatingWindow& w) { return w.start_h != w.end_h; }));
    EXPECT_FALSE(new_job_of({{"store", "pool"}, {"backup", "element"}}));
}

Variant identified(Job job)
{
    give_ids(job, NewFrom::file);
    return job.variants[0];
}
// The same but for ids.
bool alike(Variant a, Variant b)
{
    for (Variant* v : {&a, &b}) {
        v->id.clear();
        for (auto& p : v->probes)
            p.id.clear();
        for (auto& o : v->unit.outputs)
            o.id.clear();
        for (auto& r : v->unit.rules)
            r.id.clear();
    }
    return a == b;
}

// What nobody touched becomes the fresh loop of the new answers, from any to any.
RC_GTEST_PROP(Rejoined, an_untouched_loop_is_as_fresh, ())
{
    static const std::vector<LoopAnswers> all = all_answers();
    const auto any = [] { return all[*rc::gen::inRange<std::size_t>(0, all.size())]; };
    const LoopAnswers from = any(), to = any();
    const Variant was = identified(new_job(from)), fresh = identified(new_job(to));
    Variant now = rejoined(was, to);
    RC_ASSERT(now.loop == fresh.loop);
    RC_ASSERT(now.probes.size() == fresh.probes.size());
    RC_ASSERT(now.unit.outputs.size() == fresh.unit.outputs.size());
    RC_ASSERT(now.unit.rules.size() == fresh.unit.rules.size());
    RC_ASSERT(compile(now).out_of_action.empty());
    RC_ASSERT(alike(rejoined(was, from), was));
}

TEST(Rejoined, what_was_set_stays)
{
    Variant v = identified(new_job("glycol-coil"));
    v.loop.collector.area_m2 = 7.5;
    v.loop.supply.length_m = 21;
    v.probes[2].name = "Top, by the ladder";
    v.unit.outputs[0].name = "Roof pump";
    for (Rule& r : v.unit.rules)
        if (auto* d = std::get_if<Differential>(&r.body))
            d->on = TempDiff::kelvin(9);
    LoopAnswers to = v.loop.answers;
    to.transfer = Transfer::exchanger;
    to.exchanger_pumps = ExchangerPumps::two;
    to.excess = Excess::cooler;
    const Variant now = rejoined(v, to);
    EXPECT_EQ(now.loop.collector.area_m2, 7.5);
    EXPECT_EQ(now.loop.supply.length_m, 21);
    EXPECT_EQ(now.probes[2], v.probes[2]);
    ASSERT_EQ(now.unit.outputs.size(), 3U);
    EXPECT_EQ(now.unit.outputs[0], v.unit.outputs[0]);
    const auto kept = std::find_if(now.unit.rules.begin(), now.unit.rules.end(), [](const Rule& r) { return r.output == "P1" && std::holds_alternative<Differential>(r.body); });
    ASSERT_NE(kept, now.unit.rules.end());
    EXPECT_EQ(std::get<Differential>(kept->body).on, TempDiff::kelvin(9));
    EXPECT_TRUE(std::any_of(now.unit.rules.begin(), now.unit.rules.end(), [](const Rule& r) { return r.output == "V1" && std::holds_alternative<Divert>(r.body); }));
    // And back again: nothing of the exchanger is left, what was set still is.
    EXPECT_TRUE(alike(rejoined(now, v.loop.answers), v));
}

TEST(Rejoined, a_rule_goes_with_the_probe_it_reads)
{
    const Variant v = identified(new_job("two-arrays"));
    LoopAnswers one = v.loop.answers;
    one.fields = Fields::one;
    const Variant now = rejoined(v, one);
    EXPECT_EQ(now.unit.outputs.size(), 1U);
    for (Rule r : now.unit.rules)
        for (const KeyOf& k : keys_of(r))
            EXPECT_NE(*k.key, "S4");
    EXPECT_TRUE(std::none_of(now.probes.begin(), now.probes.end(), [](const Probe& p) { return p.place == ProbePlace::collector_2; }));
}

TEST(Rejoined, another_answer_changes_as_few_of_the_others_as_can_be)
{
    const auto& questions = loop_questions();
    for (const LoopAnswers& from : {preset_answers("direct"), preset_answers("air"), preset_answers("dump"), preset_answers("open-tank")})
        for (std::size_t q = 0; q < questions.size(); ++q)
            for (std::size_t i = 0; i < questions[q].answers.size(); ++i) {
                const LoopAnswers to = answered_otherwise(from, q, i);
                EXPECT_EQ(questions[q].get(to), i);
                EXPECT_EQ(cannot_combine(to), "");
                LoopAnswers alone = from;
                questions[q].set(alone, i);
                if (cannot_combine(alone).empty()) {
                    EXPECT_EQ(to, alone) << answers_text(to);
                }
            }
}

} // namespace
