// "day" puts ready days into a job file.
#include "cli/program.h"
#include "core/job/day_shelf.h"
#include "files/job_file.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <sstream>

using namespace vernal;
namespace fs = std::filesystem;

namespace {

struct Said {
    int code;
    std::string out, err;
};

Said cli(const std::vector<std::string>& words)
{
    std::ostringstream out, err;
    const int code = run_cli(words, {out, err});
    return {code, out.str(), err.str()};
}

class DayVerb : public testing::Test {
protected:
    DayVerb() : folder(fs::path(testing::TempDir()) / ("vernal-day-" + std::to_string(::getpid()))) { fs::create_directories(folder); }
    ~DayVerb() override { fs::remove_all(folder); }
    fs::path folder;
};

TEST_F(DayVerb, adds_every_ready_day_and_the_job_runs)
{
    const std::string job = (folder / "job.vrelay").string();
    ASSERT_EQ(cli({"new", "--preset", "drainback", "--out", job}).code, exit_fine);
    const Said list = cli({"day"});
    for (const ReadyDay& d : ready_days()) {
        EXPECT_NE(list.out.find(d.key), std::string::npos);
        const Said added = cli({"day", job, "--add", d.key});
        ASSERT_EQ(added.code, exit_fine) << added.err;
        EXPECT_NE(added.out.find(d.title), std::string::npos);
    }
    const auto opened = open_job(job);
    ASSERT_TRUE(opened);
    EXPECT_EQ(opened->days.size(), 3 + ready_days().size());
    const Said run = cli({"run", job, "--day", "Weekend without a draw"});
    EXPECT_EQ(run.code, exit_fine) << run.err;
    EXPECT_NE(run.out.find("heat to store"), std::string::npos);
}

TEST_F(DayVerb, a_name_that_is_taken_gets_a_number_and_another_file_is_left_alone)
{
    const std::string job = (folder / "job.vrelay").string(), other = (folder / "other.vrelay").string();
    ASSERT_EQ(cli({"new", "--out", job}).code, exit_fine);
    EXPECT_EQ(cli({"day", job, "--add", "thaw", "--name", "Clear day", "--out", other}).out, "Clear day 2\n");
    EXPECT_EQ(open_job(job)->days.size(), 3U);
    EXPECT_EQ(open_job(other)->days.size(), 4U);
}

TEST_F(DayVerb, says_what_is_wrong)
{
    const std::string job = (folder / "job.vrelay").string();
    ASSERT_EQ(cli({"new", "--out", job}).code, exit_fine);
    EXPECT_EQ(cli({"day", job, "--add", "nowhere"}).code, exit_bad_input);
    EXPECT_NE(cli({"day", job, "--add", "nowhere"}).err.find("nowhere"), std::string::npos);
    EXPECT_EQ(cli({"day", "--add", "fog"}).code, exit_bad_input);
    EXPECT_EQ(cli({"day", (folder / "none.vrelay").string(), "--add", "fog"}).code, exit_bad_input);
}

} // namespace
