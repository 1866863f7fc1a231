#include "core/job/job.h"
#include "core/setup/job_setup.h"
#include "core/wording/figure_table.h"

#include <gtest/gtest.h>

#include <cstring>
#include <set>

using namespace vernal;

namespace {

TEST(FigureTable, keys_are_their_own_and_every_row_has_a_name)
{
    std::set<std::string> keys, labels;
    for (const Figure& f : figure_table())
        EXPECT_TRUE(keys.insert(f.key).second) << f.key;
    for (const Figure* f : figure_rows()) {
        ASSERT_NE(f, nullptr);
        EXPECT_TRUE(std::strlen(f->label) > 0 && labels.insert(f->label).second) << f->key;
    }
    // What has a name is read by people.
    for (const Figure& f : figure_table())
        EXPECT_EQ(std::strlen(f.label) > 0, labels.count(f.label) == 1) << f.key;
    EXPECT_EQ(find_figure("no such"), nullptr);
}

// The unit a key ends in is the unit of its value.
TEST(FigureTable, keys_end_in_the_unit_of_their_value)
{
    for (const Figure& f : figure_table()) {
        const std::string key = f.key, unit = inside_unit(f.quantity);
        const std::string end = key.substr(key.rfind('_') == std::string::npos ? key.size() : key.rfind('_') + 1);
        const std::map<std::string, std::string> ends{{"j", "J"}, {"c", "°C"}, {"s", "s"}, {"pa", "Pa"}, {"kg", "kg"}, {"v", "V"}};
        if (const auto it = ends.find(end); it != ends.end()) {
            EXPECT_EQ(unit, it->second) << key;
        }
    }
}

TEST(FigureTable, of_a_run)
{
    const Job job = new_job("drainback");
    CoupledOptions options;
    options.keep_records = false;
    const Figures f = run_coupled(*coupled_setup(job, job.variants[0], job.days[0]), options).figures;
    EXPECT_EQ(find_figure("heat_to_store_j")->value(f), f.heat.to_store);
    EXPECT_EQ(find_figure("outputs/0/starts")->value(f), f.pumps[0].starts);
    EXPECT_EQ(figure_text(*find_figure("outputs/0/starts"), f, {}), std::to_string(f.starts()));
    EXPECT_EQ(figure_text(*find_figure("outputs/0/first_start_s"), f, {}), clock_text(f.pumps[0].first_start_s));
    EXPECT_EQ(figure_text(*find_figure("drain_back/fills"), f, {}), std::to_string(f.hydraulics.fills));
    EXPECT_EQ(figure_text(*find_figure("battery/lowest_v"), f, {}), "") << "no battery";
    EXPECT_EQ(figure_text(*find_figure("outputs/1/starts"), f, {}), "") << "one output";
}

} // namespace
