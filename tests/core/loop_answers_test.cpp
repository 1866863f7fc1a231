// A loop from answers: the arrangements as named sets, what cannot go together, and
// what is left open.
#include "core/setup/loop_answers.h"

#include <gtest/gtest.h>

#include <set>

using namespace vernal;

namespace {

TEST(LoopAnswers, every_arrangement_is_a_full_set_of_answers_and_no_two_are_alike)
{
    std::set<LoopAnswers> seen;
    ASSERT_EQ(loop_presets().size(), arrangements().size());
    for (std::size_t i = 0; i < arrangements().size(); ++i) {
        const LoopPreset& p = loop_presets()[i];
        EXPECT_STREQ(p.arrangement, arrangements()[i].key);
        EXPECT_EQ(p.answers.size(), loop_questions().size());
        EXPECT_TRUE(seen.insert(p.answers).second) << p.arrangement;
        EXPECT_EQ(cannot_combine(p.answers), "") << p.arrangement;
        const auto found = nearest_preset(p.answers);
        ASSERT_TRUE(found) << p.arrangement;
        EXPECT_STREQ(found->arrangement, p.arrangement);
    }
}

// What the answers say is what the arrangement has.
TEST(LoopAnswers, say_what_the_arrangement_is)
{
    for (const LoopPreset& p : loop_presets()) {
        const Arrangement& a = *find_arrangement(p.arrangement);
        const auto is = [&](const char* question, const char* answer) { return p.answers.at(question) == answer; };
        EXPECT_EQ(is("carrier", "glycol"), a.carrier == Carrier::glycol) << a.key;
        EXPECT_EQ(is("carrier", "air"), a.carrier == Carrier::air) << a.key;
        EXPECT_EQ(is("empties", "reservoir") || is("empties", "open-tank"), a.drains) << a.key;
        EXPECT_EQ(is("empties", "reservoir"), a.has(Part::reservoir)) << a.key;
        EXPECT_EQ(is("transfer", "exchanger"), a.has(Part::exchanger)) << a.key;
        EXPECT_EQ(is("store", "two-tanks"), a.has(Part::tank_2)) << a.key;
        EXPECT_EQ(is("store", "pool"), a.has(Part::pool)) << a.key;
        EXPECT_EQ(is("store", "slab"), a.has(Part::slab)) << a.key;
        EXPECT_EQ(is("store", "room"), a.has(Part::room)) << a.key;
        EXPECT_EQ(is("fields", "2"), a.has(Part::collector_2)) << a.key;
        EXPECT_EQ(!is("power", "mains"), a.has(Part::panel)) << a.key;
        EXPECT_EQ(is("power", "battery"), a.has(Part::battery)) << a.key;
        EXPECT_EQ(is("excess", "cooler"), a.has(Part::cooler)) << a.key;
        const Job job = new_job(p.arrangement);
        const auto& outputs = job.variants[0].unit.outputs;
        EXPECT_EQ(is("empties", "valve"), std::any_of(outputs.begin(), outputs.end(), [](const Output& o) { return o.drives == Drives::drain_valve; })) << a.key;
    }
}

TEST(LoopAnswers, what_cannot_go_together_is_refused_with_its_reason)
{
    EXPECT_NE(cannot_combine({{"carrier", "air"}, {"transfer", "coil"}}), "");
    EXPECT_NE(cannot_combine({{"carrier", "glycol"}, {"transfer", "straight"}, {"store", "tank"}}).find("water that people use"), std::string::npos);
    EXPECT_NE(cannot_combine({{"empties", "open-tank"}, {"carrier", "glycol"}}), "");
    EXPECT_NE(cannot_combine({{"backup", "element"}, {"store", "pool"}}), "");
    EXPECT_EQ(cannot_combine({{"carrier", "glycol"}, {"transfer", "straight"}}), "") << "a slab could still be the store";
    EXPECT_EQ(cannot_combine({}), "");
    EXPECT_FALSE(nearest_preset({{"carrier", "air"}, {"store", "tank"}}));
}

TEST(LoopAnswers, open_questions_are_answered_by_the_first_that_fits)
{
    EXPECT_STREQ(nearest_preset({})->arrangement, "direct");
    EXPECT_STREQ(nearest_preset({{"carrier", "glycol"}})->arrangement, "glycol-coil");
    EXPECT_STREQ(nearest_preset({{"store", "pool"}})->arrangement, "pool");
    EXPECT_STREQ(nearest_preset({{"power", "battery"}})->arrangement, "pv-battery");
    EXPECT_STREQ(nearest_preset({{"excess", "cooler"}})->arrangement, "dump");
    const auto none = nearest_preset({{"store", "pool"}, {"power", "battery"}});
    ASSERT_FALSE(none) << "composed loops are not there yet";
    EXPECT_NE(none.error().remedy.find("nearest"), std::string::npos);
    EXPECT_FALSE(nearest_preset({{"array", "wood"}}));
    EXPECT_FALSE(nearest_preset({{"colour", "green"}}));
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

} // namespace
