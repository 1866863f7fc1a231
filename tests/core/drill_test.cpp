// Drills: hidden faults, evidence, a diagnosis, the shortest way.
#include "core/bench/drill.h"

#include <gtest/gtest.h>

#include <cstdio>
#include <map>

namespace vernal {
namespace {

Drill with(const std::string& fault, const Variant& v)
{
    for (const Drill& d : drills_for(v))
        if (d.fault == fault)
            return d;
    ADD_FAILURE() << "no drill about " << fault;
    return {};
}

} // namespace

TEST(Drills, a_dozen_at_least_and_the_same_by_the_same_seed)
{
    for (const char* preset : {"glycol-coil", "drainback", "pv-battery"}) {
        const Variant v = new_job(preset).variants.front();
        EXPECT_GE(drills_for(v).size(), 12U) << preset;
        EXPECT_EQ(drills_for(v, 7), drills_for(v, 7));
        EXPECT_NE(drills_for(v, 7), drills_for(v, 8));
        for (const Drill& d : drills_for(v)) {
            const auto again = read_drill(write_drill(d), d.name);
            ASSERT_TRUE(again) << again.error().text();
            EXPECT_EQ(*again, d);
            EXPECT_EQ(d.title.find(d.fault), std::string::npos) << "its title gives nothing away";
        }
    }
}

TEST(Drills, every_fault_leaves_evidence_and_most_can_be_told_from_all_others)
{
    for (const char* preset : {"glycol-coil", "drainback", "pv-battery"}) {
        const Job job = new_job(preset);
        int alone = 0, all = 0;
        std::map<double, DrillTable> tables;
        for (const Drill& d : drills_for(job.variants.front())) {
            if (!tables.contains(d.hour))
                tables.emplace(d.hour, drill_table(job, 0, d.hour));
            const Debrief b = debrief_of(tables.at(d.hour), d.fault);
            std::string acts, like;
            for (const DrillAct a : b.shortest)
                acts += std::string(" ") + drill_act_text(a).key;
            for (const std::string& l : b.like_it)
                like += " [" + l + "]";
            std::printf("%-12s %-20s told by %zu acts; shortest %d min:%s; like it:%s\n", preset, d.fault.c_str(), b.told.size(), b.shortest_minutes, acts.c_str(), like.c_str());
            EXPECT_FALSE(b.told.empty()) << preset << " " << d.fault;
            ++all;
            alone += b.like_it.empty() && !b.shortest.empty();
        }
        EXPECT_GE(alone * 10, all * 8) << preset;
    }
}

TEST(Drills, acts_cost_time_and_looks_run_out)
{
    const Job job = new_job("glycol-coil");
    Drill d = with("probe_open", job.variants.front());
    d.looks = 2;
    auto run = DrillRun::make(job, 0, d);
    ASSERT_TRUE(run);
    EXPECT_NE(run->look(DrillAct::display).text.find("no reading"), std::string::npos);
    EXPECT_EQ(run->minutes(), drill_act_text(DrillAct::display).minutes);
    EXPECT_NE(run->look(DrillAct::ohms).text.find("open"), std::string::npos);
    EXPECT_EQ(run->looks_left(), 0);
    run->look(DrillAct::roof);
    EXPECT_EQ(run->seen().size(), 2U) << "there is no time for it";
    EXPECT_FALSE(run->diagnose("pump_dead").right);
    EXPECT_TRUE(run->diagnose("probe_open").right);
    EXPECT_TRUE(run->can(DrillAct::refractometer) && run->can(DrillAct::gauge)) << "glycol, and a vessel";
    EXPECT_FALSE(run->can(DrillAct::drain)) << "it stays full";
    EXPECT_FALSE(DrillRun::make(job, 0, {"x", "X", "no_such_fault", 11, 5, "?", {}}));
}

TEST(Drills, what_is_wrong_with_a_text_is_told_by_line)
{
    const std::string front = "---\nname: own\ntitle: Own\nfault: probe_open\n";
    for (const auto& [text, what] : std::map<std::string, std::string>{
             {"", "front part"},
             {"---\nname: Own\n---\n", "line 2"},
             {front + "---\n", "no story"},
             {front + "hour: 25\n---\nCold.\n", "0 to 23"},
             {front + "looks: 2.5\n---\nCold.\n", "whole number"},
             {front + "---\nCold.\n## Before\n", "one heading"},
             {"---\nname: own\ntitle: Own\n---\nCold.\n", "no fault"}}) {
        const auto d = read_drill(text, "own.md");
        ASSERT_FALSE(d) << text;
        EXPECT_NE(d.error().text().find(what), std::string::npos) << d.error().text();
    }
    const auto d = read_drill(front + "hour: 9.5\n---\nIt is cold.\nSince Monday.\n\n## Afterwards\nThe lead was cut.\n", "own.md");
    ASSERT_TRUE(d);
    EXPECT_EQ(d->story, "It is cold. Since Monday.");
    EXPECT_EQ(d->afterwards, "The lead was cut.");
}

} // namespace vernal
