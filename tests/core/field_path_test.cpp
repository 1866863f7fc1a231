#include "core/job/field_path.h"
#include "core/job/fresh_rule.h"
#include "core/job/ids.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <set>

using namespace vernal;

namespace {

std::string value(const Job& job, const std::string& path, std::size_t variant = 0)
{
    const auto s = setting_at(job, variant, path);
    return s ? s->value : "! " + s.error().text();
}

std::string refusal(Job job, const std::string& path, const std::string& value)
{
    const Job before = job;
    const auto done = set_setting(job, 0, path, value);
    EXPECT_EQ(job, before) << "a refused value changes nothing";
    return done ? "" : done.error().text();
}

TEST(FieldPath, reads_and_writes_by_ids_keys_and_names)
{
    Job job = new_job("glycol-coil");
    const Rule& rule = job.variants[0].unit.rules.back();
    ASSERT_STREQ(kind_of(rule).key, "differential");
    const std::string at = "rule/" + rule.id + "/on_k";
    EXPECT_EQ(value(job, at), "8");
    ASSERT_TRUE(set_setting(job, 0, at, 9.5));
    EXPECT_EQ(std::get<Differential>(job.variants[0].unit.rules.back().body).on, TempDiff::kelvin(9.5));
    ASSERT_TRUE(set_setting(job, 0, "loop/tank/volume_m3", "250 L"));
    EXPECT_DOUBLE_EQ(job.variants[0].loop.tank.volume_m3, 0.25);
    ASSERT_TRUE(set_setting(job, 0, "loop/tank/volume_m3", "0,4"));
    EXPECT_DOUBLE_EQ(job.variants[0].loop.tank.volume_m3, 0.4);
    ASSERT_TRUE(set_setting(job, 0, "output/P1/mode", "ON"));
    EXPECT_EQ(job.variants[0].unit.outputs[0].mode, Mode::on);
    ASSERT_TRUE(set_setting(job, 0, "probe/S1/curve", "pt100"));
    EXPECT_EQ(value(job, "probe/" + job.variants[0].probes[0].id + "/curve"), "pt100");
    ASSERT_TRUE(set_setting(job, 0, "day/Frosty day/sky/air_min_c", "-17.5"));
    EXPECT_DOUBLE_EQ(job.days[2].sky.air_min_c, -17.5);
    ASSERT_TRUE(set_setting(job, 0, "day/" + job.days[0].id + "/draw/1/flow_m3_s", "0.0001"));
    EXPECT_DOUBLE_EQ(job.days[0].draws[0].flow_m3_s, 0.0001);
    ASSERT_TRUE(set_setting(job, 0, "site/place/latitude_deg", "51.5"));
    ASSERT_TRUE(set_setting(job, 0, "variant/name", "as left"));
    EXPECT_EQ(job.variants[0].name, "as left");
    ASSERT_TRUE(set_setting(job, 0, "unit/away", "true"));
    EXPECT_TRUE(job.variants[0].unit.away);
}

TEST(FieldPath, refuses_with_reason_and_range)
{
    const Job job = new_job("glycol-coil");
    const std::string rule = "rule/" + job.variants[0].unit.rules.back().id;
    EXPECT_NE(refusal(job, "loop/tank/volume_m3", "900").find("between 0.02 and 50"), std::string::npos);
    EXPECT_NE(refusal(job, "loop/tank/volume_m3", "many").find("loop/tank/volume_m3"), std::string::npos);
    EXPECT_NE(refusal(job, "loop/tank/volume_m3", "20 °C"), "");
    EXPECT_NE(refusal(job, "loop/tank/volume_m3", "nan"), "");
    EXPECT_NE(refusal(job, "day/" + job.days[0].id + "/sky/month", "2.5").find("whole number"), std::string::npos);
    EXPECT_NE(refusal(job, "output/P1/mode", "FAST").find("OFF, AUTO, ON"), std::string::npos);
    EXPECT_NE(refusal(job, rule + "/source", "S9").find("Use S1, S2"), std::string::npos);
    EXPECT_NE(refusal(job, rule + "/kind", "timer").find("cannot be changed"), std::string::npos);
    EXPECT_NE(refusal(job, "probe/S1/key", "S7").find("cannot be changed"), std::string::npos);
    EXPECT_NE(refusal(job, "rule/zz/on_k", "3").find("“rule/zz”"), std::string::npos);
    EXPECT_NE(refusal(job, "loop/boiler", "3").find("“loop/boiler”. Use answers, collector"), std::string::npos);
    for (const char* path : {"", "/", "loop", "loop/", "loop/tank", "loop/tank/volume_m3/more", "rule", "variant/nobody/loop/tank/volume_m3", "day/0/mains_c"})
        EXPECT_NE(refusal(job, path, "1"), "") << path;
}

TEST(FieldPath, ids_outlast_moving_renaming_and_pair_the_copies_of_a_variant)
{
    Job job = new_job("drainback");
    job.variants.push_back(job.variants[0]);
    job.variants[1].name = "proposed";
    give_ids(job, NewFrom::edit);
    EXPECT_NE(job.variants[0].id, job.variants[1].id);
    auto& rules = job.variants[1].unit.rules;
    for (std::size_t i = 0; i < rules.size(); ++i)
        EXPECT_EQ(rules[i].id, job.variants[0].unit.rules[i].id);
    const std::string path = "rule/" + rules.back().id + "/on_k";
    ASSERT_TRUE(set_setting(job, 1, path, 11.0));
    rules.insert(rules.begin(), rules.back());
    rules.pop_back();
    job.variants[1].name = "other";
    EXPECT_EQ(value(job, path, 1), "11");
    EXPECT_EQ(value(job, "variant/" + job.variants[1].id + "/" + path), "11");
    EXPECT_EQ(value(job, "variant/other/" + path), "11");
    EXPECT_EQ(value(job, path), "8");
    // What an edit adds is new in every variant.
    rules.push_back(fresh_rule(job.variants[1], 0));
    give_ids(job, NewFrom::edit);
    for (const Rule& r : job.variants[0].unit.rules)
        EXPECT_NE(r.id, rules.back().id);
    job.days.push_back(job.days[0]);
    give_ids(job, NewFrom::edit);
    EXPECT_NE(job.days.back().id, job.days[0].id);
    EXPECT_EQ(new_job("drainback"), new_job("drainback"));
}

// Every setting of every loop: its own value changes nothing, its ends can be set and are read back.
TEST(FieldPath, every_setting_can_be_reached)
{
    for (const Arrangement& a : presets()) {
        Job job = new_job(a.key);
        for (std::size_t k = 0; k < rule_kinds().size(); ++k)
            job.variants[0].unit.rules.push_back(fresh_rule(job.variants[0], k));
        give_ids(job, NewFrom::edit);
        const auto all = settings_of(job, 0);
        const auto usual = default_settings(job, 0);
        std::set<std::string> paths;
        for (const Setting& s : all) {
            EXPECT_TRUE(paths.insert(s.path).second) << s.path;
            EXPECT_EQ(usual.count(s.path), 1U) << s.path;
            EXPECT_EQ(value(job, s.path), s.value);
            Job same = job;
            const bool left_open = s.type == Setting::Type::key && std::find(s.choices.begin(), s.choices.end(), s.value) == s.choices.end();
            if (!s.fixed && !left_open) {
                EXPECT_TRUE(set_setting(same, 0, s.path, s.value)) << s.path;
            }
            EXPECT_EQ(same, job) << s.path;
            for (double end : {s.min, s.max})
                if (s.numeric()) {
                    Job other = job;
                    EXPECT_TRUE(set_setting(other, 0, s.path, end)) << s.path;
                    EXPECT_DOUBLE_EQ(std::stod(value(other, s.path)), end) << s.path;
                }
        }
        EXPECT_GT(all.size(), 400U);
    }
}

TEST(FieldPath, a_default_is_what_a_file_means_that_leaves_it_out)
{
    Job job = new_job("glycol-coil");
    const Rule& rule = job.variants[0].unit.rules.back();
    const std::string on = "rule/" + rule.id + "/on_k";
    ASSERT_TRUE(set_setting(job, 0, on, 13.0));
    ASSERT_TRUE(set_setting(job, 0, "loop/tank/volume_m3", 1.5));
    const auto usual = default_settings(job, 0);
    EXPECT_EQ(std::stod(usual.at(on)), Differential{}.on.in_kelvin());
    EXPECT_EQ(std::stod(usual.at("loop/tank/volume_m3")), Tank{}.volume_m3);
    EXPECT_EQ(usual.at("day/" + job.days[0].id + "/name"), "");
}

} // namespace
