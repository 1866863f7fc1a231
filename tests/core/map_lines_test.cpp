#include "core/job/fresh_rule.h"
#include "core/wording/map_lines.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

using Kind = MapLine::Kind;

// A variant with these rules on its first output, over collector and tank bottom.
Variant with(std::vector<RuleBody> bodies)
{
    Variant v = new_job("glycol-coil").variants[0];
    v.unit.rules.clear();
    bodies.push_back(Differential{"S1", "S2", TempDiff::kelvin(8), TempDiff::kelvin(4), {}});
    for (RuleBody& b : bodies)
        v.unit.rules.push_back({"P1", true, std::move(b)});
    return v;
}

const MapLine* line(const std::vector<MapLine>& all, std::size_t rule, const std::string& field, bool sets)
{
    for (const MapLine& l : all)
        if (l.rule == rule && l.field == field && l.sets == sets)
            return &l;
    return nullptr;
}

TEST(MapLines, lie_where_the_latches_turn)
{
    const Variant v = with({StoreLimit{"S2", Temperature::celsius(70), TempDiff::kelvin(4), TempDiff::kelvin(1.5), ""}, StoreLimit{"S3", Temperature::celsius(66), TempDiff::kelvin(4), {}, ""},
        CollectorMinimum{"S1", Temperature::celsius(20), TempDiff::kelvin(2)}, FixedDifference{"S1", Temperature::celsius(30), TempDiff::kelvin(6), TempDiff::kelvin(2)}});
    const auto all = map_lines(v, 0);
    const auto expect = [&](std::size_t rule, const char* field, bool sets, Kind kind, double value) {
        const MapLine* l = line(all, rule, field, sets);
        ASSERT_NE(l, nullptr) << rule << field;
        EXPECT_EQ(l->kind, kind) << rule << field;
        EXPECT_NEAR(l->value, value, 1e-9) << rule << field;
    };
    expect(0, "limit_c", true, Kind::upright, 68.5); // less the allowance
    expect(0, "hysteresis_k", false, Kind::upright, 64.5);
    expect(1, "limit_c", true, Kind::banner, 66);
    expect(2, "limit_c", true, Kind::slanted, 20);
    expect(2, "hysteresis_k", false, Kind::slanted, 22);
    expect(3, "on_k", true, Kind::slanted, 36);
    expect(3, "off_k", false, Kind::slanted, 32);
    expect(4, "on_k", true, Kind::level, 8);
    expect(4, "off_k", false, Kind::level, 4);
}

// Every line of every kind of rule goes where it is put, a little way up and down,
// and no other rule changes.
TEST(MapLines, every_line_can_be_moved)
{
    int moved_lines = 0;
    for (std::size_t kind = 0; kind < rule_kinds().size(); ++kind) {
        Variant v = with({});
        Rule fresh = fresh_rule(v, kind);
        fresh.output = "P1";
        v.unit.rules.insert(v.unit.rules.begin(), fresh);
        for (const MapLine& l : map_lines(v, 0)) {
            if (l.rule != 0 || l.kind == Kind::banner)
                continue;
            for (double by : {0.4, -0.4}) {
                Variant other = v;
                ASSERT_TRUE(move_line(other, 0, l, l.value + by)) << rule_kinds()[kind].key << " " << l.field;
                EXPECT_EQ(other.unit.rules[1], v.unit.rules[1]);
                if (rule_kinds()[kind].key == std::string("linked_difference"))
                    continue; // its mark goes in steps
                for (const MapLine& now : map_lines(other, 0))
                    if (now.rule == 0 && now.field == l.field && now.sets == l.sets && now.kind == l.kind && now.probe == l.probe) {
                        EXPECT_NEAR(now.value, l.value + by, 2e-3) << rule_kinds()[kind].key << " " << l.field;
                        ++moved_lines;
                        break;
                    }
            }
        }
    }
    EXPECT_GT(moved_lines, 40);
}

TEST(MapLines, are_never_dragged_where_the_rule_could_not_work)
{
    Variant v = with({});
    const Variant before = v;
    const auto all = map_lines(v, 0);
    EXPECT_FALSE(move_line(v, 0, *line(all, 0, "on_k", true), 3.9));
    EXPECT_FALSE(move_line(v, 0, *line(all, 0, "off_k", false), 8.0));
    EXPECT_EQ(v, before);
    v = with({StoreLimit{"S2", Temperature::celsius(70), TempDiff::kelvin(4), {}, ""}});
    const auto limits = map_lines(v, 0);
    EXPECT_FALSE(move_line(v, 0, *line(limits, 0, "hysteresis_k", false), 71));
}

TEST(MapLines, of_a_rule_out_of_action_or_another_output_there_are_none)
{
    Variant v = with({Differential{"S1", "S2", TempDiff::kelvin(2), TempDiff::kelvin(4), {}}});
    v.unit.outputs.push_back({"P2", "other"});
    for (const MapLine& l : map_lines(v, 0))
        EXPECT_EQ(l.rule, 1U);
    EXPECT_TRUE(map_lines(v, 1).empty());
    EXPECT_TRUE(map_axes(v, 1).has_value()) << "shown over those of the first";
    v.unit.rules.clear();
    EXPECT_FALSE(map_axes(v, 0).has_value());
}

} // namespace
