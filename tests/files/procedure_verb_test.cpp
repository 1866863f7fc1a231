// Procedures on the command line, on the demo's units.
#include "cli/program.h"
#include "files/disk.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <sstream>

using namespace vernal;
namespace fs = std::filesystem;

namespace {

struct Said {
    int code;
    std::string out, err;
};
Said say(std::vector<std::string> arguments)
{
    arguments.insert(arguments.begin(), "procedure");
    std::ostringstream out, err;
    const int code = run_cli(arguments, {out, err});
    return {code, out.str(), err.str()};
}

std::string job(const char* loop) { return (fs::path(VERNAL_DEMO).parent_path() / loop / "job.json").string(); }

} // namespace

TEST(ProcedureVerb, passes_on_every_unit_of_the_demo)
{
    for (const char* loop : {"cheese-room", "parlour-wash", "calf-milk", "drying-loft"}) {
        const Said all = say({job(loop)});
        EXPECT_EQ(all.code, 0) << loop << "\n"
                               << all.out << all.err;
    }
}

TEST(ProcedureVerb, names_the_step_that_fails)
{
    const Said r = say({job("cheese-room"), "start-by-warming", "--fault", "start_high", "--json"});
    EXPECT_EQ(r.code, 1) << r.err;
    const auto j = nlohmann::json::parse(r.out);
    EXPECT_EQ(j["procedure"], "start-by-warming");
    EXPECT_EQ(j["verdict"], "failed");
    EXPECT_EQ(j["steps"][1]["verdict"], "failed");
    EXPECT_EQ(j["steps"][1]["captured"][0]["name"], "start");
    EXPECT_EQ(j["steps"][1]["captured"][0]["passes"], 3);
}

TEST(ProcedureVerb, lists_runs_ones_own_and_refuses_what_it_does_not_know)
{
    const Said list = say({job("cheese-room"), "--list"});
    EXPECT_EQ(list.code, 0);
    EXPECT_NE(list.out.find("tank-limit"), std::string::npos);
    EXPECT_NE(list.out.find("--fault probe_open"), std::string::npos);
    const std::string own = (fs::path(testing::TempDir()) / ("vernal-procedure-" + std::to_string(::getpid()) + ".md")).string();
    ASSERT_TRUE(write_file_atomically(own, "---\nname: own\ntitle: Own\nneeds: probes\n---\n## Wait\n- put: all in block\n- block: 30 °C\n- await: all settled, within 30 min\n- capture: apart = spread of all\n- judge: apart below 1 K\n"));
    EXPECT_EQ(say({job("cheese-room"), "--file", own}).code, 0);
    ASSERT_TRUE(write_file_atomically(own, "---\nname: own\ntitle: Own\n---\n## Wait\n- put: all in soup\n"));
    const Said wrong = say({job("cheese-room"), "--file", own});
    EXPECT_EQ(wrong.code, 2);
    EXPECT_NE(wrong.err.find("line 6"), std::string::npos) << wrong.err;
    fs::remove(own);
    EXPECT_EQ(say({job("cheese-room"), "fly"}).code, 2);
    EXPECT_EQ(say({job("cheese-room"), "side-by-side", "--fault", "soup"}).code, 2);
}
