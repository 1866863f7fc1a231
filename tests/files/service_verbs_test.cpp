// Service from the command line: a call, a pump, the seasons, parts of a unit, what a command keeps.
#include "cli/program.h"
#include "files/disk.h"
#include "files/job_file.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <sstream>

namespace vernal {
namespace {

struct Said {
    int code;
    std::string out, err;
};

Said say(const std::vector<std::string>& arguments)
{
    std::ostringstream out, err;
    const int code = run_cli(arguments, {out, err});
    return {code, out.str(), err.str()};
}

class Service : public testing::Test {
protected:
    Service() : file_((std::filesystem::path(testing::TempDir()) / ("vernal-service-" + std::to_string(::getpid()) + ".vrelay")).string())
    {
        std::filesystem::remove(file_);
        EXPECT_EQ(say({"new", "--preset", "glycol-coil", "--out", file_}).code, 0);
    }
    ~Service() override { std::filesystem::remove(file_); }
    std::string file_;
};

TEST_F(Service, a_call_names_causes_and_the_next_question)
{
    const Said r = say({"call", file_, "it is humming and never starts", "--yes", "hum", "--json"});
    ASSERT_EQ(r.code, 0) << r.err;
    const auto j = nlohmann::json::parse(r.out);
    EXPECT_EQ(j["causes"][0]["key"], "pump");
    EXPECT_FALSE(j["ask"].empty());
    EXPECT_EQ(say({"call", file_, "I am tired"}).code, 2);
    EXPECT_EQ(say({"call", file_, "cold", "--yes", "colour"}).code, 2);
    EXPECT_NE(say({"call", file_, "cold"}).out.find("Nobody opens the unit"), std::string::npos);
}

TEST_F(Service, a_pump_is_told_by_what_is_seen)
{
    const Said r = say({"triage", "--seen", "hum=yes", "--seen", "current=more", "--seen", "by_hand=stuck", "--json"});
    ASSERT_EQ(r.code, 0) << r.err;
    EXPECT_EQ(nlohmann::json::parse(r.out)["causes"][0]["title"], "It is seized");
    EXPECT_EQ(say({"triage", "--seen", "hum=loud"}).code, 2);
    EXPECT_EQ(say({"triage", "--seen", "colour=red"}).code, 2);
    EXPECT_NE(say({"triage"}).out.find("current"), std::string::npos);
}

TEST_F(Service, parts_are_added_and_removed)
{
    EXPECT_EQ(say({"add", file_, "rule", "timer", "--output", "P1"}).code, 0);
    EXPECT_EQ(say({"add", file_, "probe", "S4", "--place", "return_pipe"}).out, "probes/3\n");
    EXPECT_EQ(say({"add", file_, "output", "E1", "--drives", "element"}).out, "outputs/1\n");
    const Job job = *open_job(file_);
    EXPECT_EQ(job.variants[0].probes.back().place, ProbePlace::return_pipe);
    EXPECT_EQ(job.variants[0].unit.outputs.back().drives, Drives::element);
    EXPECT_TRUE(std::any_of(job.variants[0].unit.rules.begin(), job.variants[0].unit.rules.end(), [](const Rule& r) { return std::holds_alternative<Timer>(r.body); }));
    const std::string before = *read_file(file_);
    for (const auto& wrong : std::vector<std::vector<std::string>>{{"add", file_, "rule", "magic"}, {"add", file_, "probe", "S4"}, {"add", file_, "probe", "S5", "--place", "pool_water"}, {"add", file_, "rule", "timer", "--output", "P9"}, {"remove", file_, "probe", "S1"}, {"remove", file_, "output", "P1"}, {"remove", file_, "rule", "freeze"}})
        EXPECT_EQ(say(wrong).code, 2) << wrong[2] << " " << wrong[3];
    EXPECT_EQ(*read_file(file_), before) << "what is refused writes nothing";
    EXPECT_EQ(say({"remove", file_, "rule", "timer"}).code, 0);
    EXPECT_EQ(say({"remove", file_, "output", "E1"}).code, 0);
    EXPECT_EQ(say({"remove", file_, "probe", "S4"}).code, 0);
    EXPECT_EQ(open_job(file_)->variants[0].probes.size(), 3U);
}

TEST_F(Service, a_visit_is_begun_by_the_procedure_that_needs_one)
{
    ASSERT_NE(say({"procedure", file_, "side-by-side", "--keep"}).code, 2);
    Job job = *open_job(file_);
    ASSERT_EQ(job.logbook.visits.size(), 1U);
    EXPECT_EQ(job.logbook.visits[0].tests.size(), 1U);
    EXPECT_EQ(job.bench.size(), 1U);
    say({"procedure", file_, "side-by-side", "--keep"});
    job = *open_job(file_);
    EXPECT_EQ(job.logbook.visits.size(), 1U) << "the open one is gone on with";
    EXPECT_EQ(job.bench.size(), 2U);
    const std::string paper = file_ + ".txt";
    EXPECT_EQ(say({"report", file_, "--kind", "commissioning", "--out", paper}).code, 0);
    std::filesystem::remove(paper);
}

TEST_F(Service, what_is_missing_is_said_with_the_command_to_type)
{
    const std::string paper = file_ + ".txt";
    EXPECT_NE(say({"report", file_, "--kind", "service", "--out", paper}).err.find("visit JOB add"), std::string::npos);
    EXPECT_NE(say({"report", file_, "--kind", "keys", "--out", paper}).err.find("--sheet north"), std::string::npos);
    EXPECT_NE(say({"report", file_, "--kind", "audit", "--out", paper}).err.find("audit JOB --log"), std::string::npos);
    EXPECT_FALSE(std::filesystem::exists(paper));
    EXPECT_EQ(say({"report", file_, "--kind", "wiring", "--sheet", "south", "--out", paper}).code, 0);
    std::filesystem::remove(paper);
    EXPECT_NE(say({"unit", file_, "--list", "keys"}).err.find("--sheet north"), std::string::npos);
    const Said presets = say({"unit", file_, "--sheet", "north", "--list", "presets"});
    EXPECT_EQ(presets.code, 0) << presets.out;
    EXPECT_NE(presets.out.find("No preset"), std::string::npos);
}

TEST_F(Service, an_audit_keeps_its_log_so_that_its_paper_can_be_made)
{
    const std::string log = file_ + ".csv", with = file_ + ".audited.vrelay", paper = file_ + ".html";
    ASSERT_NE(say({"run", file_, "--csv", log}).code, 2);
    ASSERT_NE(say({"audit", file_, "--log", log, "--out", with}).code, 2);
    const Job job = *open_job(with);
    EXPECT_EQ(job.traces.size(), 1U);
    EXPECT_EQ(job.days.back().trace, job.traces.begin()->first);
    EXPECT_EQ(say({"report", with, "--kind", "audit", "--out", paper}).code, 0);
    for (const std::string& f : {log, with, paper})
        std::filesystem::remove(f);
}

TEST_F(Service, what_no_sky_gives_is_asked_about_before_it_is_kept)
{
    const std::string before = *read_file(file_);
    const Said r = say({"visit", file_, "add", "--when", "2026-06-20T12:30", "--say", "sun 1550 W/m2"});
    EXPECT_EQ(r.code, 2);
    EXPECT_NE(r.err.find("--sure"), std::string::npos) << r.err;
    EXPECT_EQ(*read_file(file_), before);
    EXPECT_EQ(say({"visit", file_, "add", "--when", "2026-06-20T12:30", "--say", "sun 1550 W/m2", "--sure"}).code, 0);
    EXPECT_EQ(say({"seasons", file_}).code, 0);
}

} // namespace
} // namespace vernal
