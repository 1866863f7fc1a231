// The sums done beside a part, by hand and by published examples.
#include "core/plant/hydraulics.h"
#include "core/plant/wiring.h"
#include "core/probe/input_stage.h"
#include "core/setup/job_setup.h"
#include "core/setup/loop_answers.h"
#include "core/sums/field_sums.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <regex>

using namespace vernal;

namespace {

struct At {
    explicit At(const std::string& arrangement, Part where) : job(new_job(arrangement)), part(where) {}
    explicit At(const LoopAnswers& answers, Part where) : job(new_job(answers)), part(where) {}
    Job job;
    Part part;
    SumContext context() const { return {job, job.variants.front(), part, {}}; }
    SumResult of(const char* key, const std::vector<double>& x) const { return find_sum(key)->work(x, context()); }
    void take(const char* key, const std::vector<double>& x)
    {
        const FieldSum& s = *find_sum(key);
        s.write(job.variants.front().loop, part, x, s.work(x, context()).value);
    }
    Loop& loop() { return job.variants.front().loop; }
};

// 10 L in 35 s = 17.1 L/min, and with a 5.8 K rise 6.9 kW (field handbook; common practice, no source).
// Names of the code have capitals inside; units such as kWh are short.
TEST(FieldSums, labels_are_words)
{
    const std::regex code("[a-z]{4}[A-Z]|[a-z]_[a-z]");
    for (const FieldSum& sum : field_sums()) {
        EXPECT_FALSE(std::regex_search(std::string(sum.title), code)) << sum.title;
        for (const auto& input : sum.inputs)
            EXPECT_FALSE(std::regex_search(std::string(input.field.label), code)) << input.field.label;
    }
}

TEST(FieldSums, flow_by_bucket_and_heat_from_its_rise)
{
    At at("direct", Part::pump);
    const SumResult flow = at.of("flow", {0.01, 35});
    EXPECT_NEAR(flow.value * 60000, 17.1, 0.05);
    EXPECT_EQ(flow.text, "10 L in 35 s = 17.1 L/min");
    at.take("flow", {0.01, 35});
    EXPECT_DOUBLE_EQ(at.loop().pump.flow_m3_s, 0.01 / 35);
    at.part = Part::collector;
    EXPECT_NE(at.of("heat", {flow.value, 5.8, 900, 20}).text.find("= 68"), std::string::npos) << at.of("heat", {flow.value, 5.8, 900, 20}).text;
}

std::vector<double> numbers_in(const std::string& text)
{
    std::vector<double> out;
    const std::regex number("[0-9]+(\\.[0-9]+)?");
    for (auto it = std::sregex_iterator(text.begin(), text.end(), number); it != std::sregex_iterator(); ++it)
        out.push_back(std::stod(it->str()));
    return out;
}

// Whoever puts the shown numbers into a pocket calculator gets the shown result.
TEST(FieldSums, multiply_out_in_the_units_they_show)
{
    for (const Units& units : {Units::metric(), Units::us()}) {
        At at("glycol-coil", Part::collector);
        const SumContext c{at.job, at.job.variants.front(), at.part, units};
        const auto content = numbers_in(find_sum("array_content")->work({5e-4}, c).text);
        ASSERT_GE(content.size(), 3U);
        EXPECT_NEAR(content[0] * content[1], content[2], 0.06);
        const SumResult heat = find_sum("heat")->work({1e-4, 6, 800, 25}, c);
        const std::string of_sun = heat.text.substr(heat.text.find("of "));
        const auto sun = numbers_in(of_sun); // G × area that is share
        const auto carried = numbers_in(heat.text.substr(heat.text.find("= ")));
        EXPECT_NEAR(carried[0] / (sun[0] * sun[1]) * 100, sun[2], 0.6) << heat.text;
        const std::string storage = find_sum("storage")->work({0.3, 1.5, 2.2e7, 0.45, 50}, c).text;
        const auto array = numbers_in(storage.substr(storage.find("array: "))); // content per area, rise, area, volume
        EXPECT_NEAR(array[0] * array[2] / array[3], 1, 0.006) << storage;
        const std::string area = find_sum("array_area")->work({0.3, 2.2e7, 0.45, 50}, c).text;
        const auto per = numbers_in(area); // sun, share, content per area, rise, draw, area
        EXPECT_NEAR(per[4] / per[2] / per[5], 1, 0.006) << area;
        EXPECT_EQ(heat.text.find("BTU/h\n") != std::string::npos, units.btu) << heat.text;
    }
}

// 200 m of 25/20 mm by hand: 5.0 m², π/4 × 0.02² × 200 = 62.8 L; four lengths of 50 m at 2 L/min each
// run at 0.106 m/s and Re 3220, between laminar (λ 64/2300 = 0.028) and smooth turbulent at 4000 (0.040, Moody
// chart) on a straight line: 0.034, 0.034 × 50/0.02 × 992/2 × 0.106² = 0.48 kPa.
TEST(FieldSums, hose_by_length_and_bore)
{
    At at("pool", Part::collector);
    at.loop().answers.array = Array::hose;
    at.loop().pump.flow_m3_s = 8.0 / 60000;
    EXPECT_TRUE(find_sum("hose")->applies(arrangement_of(at.loop())));
    EXPECT_FALSE(find_sum("hose")->applies(arrangement_of(preset_answers("pool"))));
    at.take("hose", {200, 0.025, 0.02, 4});
    const Collector& c = at.loop().collector;
    EXPECT_NEAR(c.area_m2, 5.0, 1e-9);
    EXPECT_NEAR(c.content_m3, 0.0628, 0.0001);
    EXPECT_NEAR(c.capacity_j_m2k, (62.8 * 4170 + (200 * M_PI / 4 * (0.025 * 0.025 - 0.02 * 0.02)) * 2.1e6) / 5, 100);
    EXPECT_NEAR(c.drop_pa, 480, 15);
    EXPECT_DOUBLE_EQ(c.drop_flow_m3_s, 8.0 / 60000);
}

TEST(FieldSums, heat_gives_back_the_efficiency_that_made_it)
{
    At at("direct", Part::collector);
    const Collector c = at.loop().collector;
    const double sun = 750, over = 30, heat = c.area_m2 * (c.eta0 * sun - c.a1_w_m2k * over - c.a2_w_m2k2 * over * over);
    const Fluid w = fluid_at(0, 40);
    const SumResult r = at.of("heat", {1e-4, heat / (1e-4 * w.density_kg_m3 * w.heat_capacity_j_kgk), sun, over});
    EXPECT_NEAR(r.value, c.eta0, 1e-9);
    EXPECT_TRUE(std::isnan(at.of("heat", {1e-4, 79, 200, over}).value)) << "more than the sun gives";
}

// About 1.5 US gal per ft² and day = 61 L/m² (field handbook).
TEST(FieldSums, array_and_tank_for_the_draw)
{
    At at("direct", Part::collector);
    EXPECT_NEAR(1.5 * 3.785411784 / 0.09290304, 61, 0.2);
    // 6.2 kWh, 46 % of them, 40 K: 61 L of hot water a day per m² (common practice, no source).
    EXPECT_NEAR(at.of("array_area", {0.244, 6.2 * 3.6e6, 0.46, 40}).value, 4.0, 0.05);
    at.part = Part::tank;
    EXPECT_NEAR(at.of("storage", {0.2, 1.5, 4.18e6, 0.4, 40}).value, 0.3, 1e-12);
    EXPECT_NEAR(at.of("storage", {0.1, 1, 4.18e6 * 6, 0.5, 50}).value, 0.36, 1e-12) << "the array's share is the larger";
}

TEST(FieldSums, tempering_mixes_two_waters)
{
    const At at("direct", Part::tank);
    EXPECT_NEAR(at.of("tempering", {65, 10, 49, 1e-4}).value, 39.0 / 55.0, 1e-12);
    EXPECT_TRUE(std::isnan(at.of("tempering", {40, 10, 49, 1e-4}).value));
}

// A tank that loses by its own W/K gives that back.
TEST(FieldSums, standing_loss_from_a_night)
{
    At at("direct", Part::tank);
    const Fluid w = fluid_at(0, 58);
    const double capacity = 0.3 * w.density_kg_m3 * w.heat_capacity_j_kgk, morning = 16 + (60 - 16) * std::exp(-2.5 * 36000 / capacity);
    EXPECT_NEAR(at.of("standing_loss", {60, morning, 16, 10}).value, 2.5, 0.01);
    EXPECT_TRUE(std::isnan(at.of("standing_loss", {50, 55, 16, 10}).value));
}

// Counterflow with equal heat capacity rates: effectiveness NTU/(1 + NTU) (Incropera & DeWitt, table 11.3).
TEST(FieldSums, exchanger_from_four_readings)
{
    const At at("glycol-hx", Part::exchanger);
    const Fluid f = fluid_at(at.job.variants[0].loop.glycol_fraction, 40);
    const double rate = 1e-4 * f.density_kg_m3 * f.heat_capacity_j_kgk, ntu = 2.5, eps = ntu / (1 + ntu);
    const double out = 60 - eps * (60 - 30), cold_out = 30 + eps * (60 - 30);
    EXPECT_NEAR(at.of("exchanger", {1e-4, 60, out, 30, cold_out}).value, ntu * rate, 0.01 * ntu * rate);
    EXPECT_TRUE(std::isnan(at.of("exchanger", {1e-4, 60, 48, 40, 61}).value));
}

TEST(FieldSums, pipe_pool_and_array_by_geometry)
{
    At at("pool", Part::supply);
    EXPECT_NEAR(at.of("bore", {0.022, 0.001}).value, 0.020, 1e-12);
    at.part = Part::pool;
    EXPECT_NEAR(at.of("pool", {10, 5, 1.2, 2.0, 1, 0, 2, 1, 1, 1}).value, 80, 1e-9);
    EXPECT_NEAR(at.of("pool", {10, 5, 1.2, 2.0, 1, 3, 4, 1, 1, 0.5}).value, 80 + 6, 1e-9);
    at.take("pool", {8, 8, 1, 2, 0.785, 0, 2, 1, 1, 1});
    EXPECT_NEAR(at.loop().pool.area_m2, M_PI / 4 * 64, 0.1);
    At plate("direct", Part::collector);
    EXPECT_NEAR(plate.of("array_content", {0.0007}).value, 0.0007 * plate.loop().collector.area_m2, 1e-12);
}

// 6 m of water = 58.7 kPa (field handbook).
TEST(FieldSums, lift_and_the_pump_for_it)
{
    At at("drainback", Part::drain_back);
    EXPECT_NEAR(at.of("lift", {7.2, 1.2}).value, 6, 1e-12);
    EXPECT_NE(at.of("lift", {7.2, 1.2}).text.find("58.7 kPa"), std::string::npos);
    EXPECT_TRUE(std::isnan(at.of("pump_choice", {1e-4, 10}).value)) << "its curve is not known";
    at.loop().pump.head_m = 4;
    at.loop().pump.free_flow_m3_s = 5e-4;
    EXPECT_TRUE(std::isnan(at.of("pump_choice", {1e-4, 10}).value)) << "below the lift";
    at.loop().pump.head_m = 20;
    EXPECT_EQ(at.of("pump_choice", {1e-4, 10}).value, 1e-4);
    at.part = Part::pump;
    const double meets = at.of("working_point", {40}).value;
    EXPECT_GT(meets, 1e-4);
    EXPECT_FALSE(std::isnan(at.of("pump_choice", {0.99 * meets, 40}).value));
    EXPECT_TRUE(std::isnan(at.of("pump_choice", {1.01 * meets, 40}).value));
}

TEST(FieldSums, curve_from_points)
{
    At at("direct", Part::pump);
    at.take("curve", {0, 6, 3e-4, 4, 0, 0});
    EXPECT_NEAR(at.loop().pump.head_m, 6, 1e-9);
    EXPECT_NEAR(pump_head_m(at.loop().pump, 3e-4, 1), 4, 1e-9);
    EXPECT_TRUE(std::isnan(at.of("curve", {0, 4, 3e-4, 6, 0, 0}).value));
}

// 12 V, 5 A over 10 m (20 m of conductor), 3 % = 0.36 V: 3.6 mΩ/m of run at most; 6 mm² of class 5
// has 3.30 mΩ/m, warm 3.56: 0.356 V. By hand from IEC 60228.
TEST(FieldSums, wire_for_a_drop)
{
    At at("pv-battery", Part::wiring);
    EXPECT_NEAR(at.of("wire", {10, 5, 12, 0.03, 30, 70}).value, 6e-6, 1e-12);
    EXPECT_NEAR(at.of("wire", {10, 5, 12, 0.06, 30, 70}).value, 4e-6, 1e-12);
    EXPECT_TRUE(std::isnan(at.of("wire", {10, 90, 12, 0.01, 30, 70}).value));
    EXPECT_NEAR(at.of("wire", {2, 0.5, 230, 0.05, 30, 70}).value, 1.5e-6, 1e-12) << "smallest of fixed wiring (IEC 60364-5-52, table 52.2, from memory)";
    EXPECT_NEAR(at.of("wire", {2, 0.5, 12, 0.2, 30, 70}).value, 0.75e-6, 1e-12);
    // 60 °C leaves PVC √(10/40) = half (0.50 in table B.52.14, from memory), 90 °C insulation √(30/60) = 0.71.
    EXPECT_NEAR(cable_derating(60), 0.5, 1e-9);
    EXPECT_NEAR(cable_derating(60, 90), 0.707, 0.001);
    EXPECT_GT(at.of("wire", {2, 15, 230, 0.05, 60, 70}).value, at.of("wire", {2, 15, 230, 0.05, 30, 70}).value);
    EXPECT_TRUE(std::isnan(at.of("wire", {2, 15, 230, 0.05, 75, 70}).value));
}

TEST(FieldSums, panel_battery_breaker)
{
    At at("pv-battery", Part::panel);
    EXPECT_NEAR(at.of("panel", {1.5, 12, 6, 3, 0.75, 0.5}).value, (1.5 * 12 * 6 + 24 * 0.5) / (3 * 0.75), 1e-9);
    at.take("panel", {1.5, 12, 6, 3, 0.75, 0});
    EXPECT_NEAR(at.loop().panel.imp_a * at.loop().panel.vmp_v, 48, 1e-6);
    at.part = Part::battery;
    EXPECT_NEAR(at.of("battery", {1.5, 5, 3, 0.5, 0}).value, 45, 1e-9);
    EXPECT_NEAR(at.of("battery", {1.5, 5, 3, 0.5, 1}).value, 45 + 24 / at.loop().battery.full_v * 3 / 0.5, 1e-9);
    at.part = Part::wiring;
    at.loop().wiring.output_a = 10;
    EXPECT_EQ(at.of("breaker", {30}).value, 10); // a 16 A breaker does not protect a 10 A unit (field practice)
}

// 2 A at 12 V shall run at half the sun with 80 % arriving: 24 / 0.8 × 2 = 60 W; there is no storage in it.
TEST(FieldSums, panel_without_a_battery)
{
    At at("pv-direct", Part::panel);
    EXPECT_NEAR(at.of("panel_alone", {2, 12, 500, 0.8}).value, 60, 1e-9);
    EXPECT_TRUE(find_sum("panel")->applies(arrangement_of(preset_answers("pv-battery"))));
    EXPECT_FALSE(find_sum("panel")->applies(arrangement_of(preset_answers("pv-direct"))));
}

// Half the voltage, half the current, a quarter of the power.
TEST(FieldSums, element_on_half_its_voltage)
{
    At at("glycol-coil", Part::element);
    at.loop().answers.backup = Backup::element;
    at.loop().wiring.output_a = 6;
    EXPECT_NEAR(at.of("element_power", {3000, 230, 115}).value, 750, 1e-9);
    EXPECT_NE(at.of("element_power", {3000, 230, 115}).text.find("too little"), std::string::npos) << "6.5 A on 6";
    EXPECT_EQ(at.of("element_power", {1200, 230, 115}).text.find("too little"), std::string::npos);
}

// By hand with equal resistors of 10 kΩ at 25 °C, B 3950: collector at 33 °C has 7078 Ω: 12 V × 10000/17078 =
// 7.026 V, at 28 °C 8763 Ω: 6.396 V: 0.631 V apart; behind 5 kΩ from 12 V: 5000 (12/0.631 − 1) = 90.1 kΩ.
TEST(FieldSums, comparator_there_and_back)
{
    At at("glycol-coil", Part::collector);
    Variant& v = at.job.variants.front();
    for (Probe& p : v.probes)
        p.curve = *parse_curve("ntc:r25=10000,beta=3950");
    v.input.kind = StageKind::bridge;
    v.input.supply_v = 12;
    EXPECT_NEAR(at.of("comparator", {8, 3, 25, 5000}).value, 90100, 600);
    const double start = bridge_volt(v.input, signal_beyond(v.probes[0].curve, 33), signal_beyond(v.probes[0].curve, 25));
    EXPECT_NEAR(start, 7.026, 0.01);
    EXPECT_NEAR(at.of("comparator_means", {start, 5000, at.of("comparator", {8, 3, 25, 5000}).value, 25}).value, 3, 0.01);
    EXPECT_TRUE(std::isnan(at.of("comparator", {3, 8, 25, 5000}).value));
}

TEST(FieldSums, glycol_for_the_frost)
{
    At at("glycol-coil", Part::vessel);
    const SumResult r = at.of("glycol_mix", {-15, 5});
    EXPECT_LE(fluid_at(r.value, 20).freezing_c, -20);
    EXPECT_GT(fluid_at(r.value - 0.011, 20).freezing_c, -20);
    EXPECT_TRUE(std::isnan(at.of("glycol_mix", {-50, 10}).value));
}

TEST(FieldSums, vessel_and_fill)
{
    At at("glycol-coil", Part::vessel);
    EXPECT_GT(at.of("vessel", {120}).value, at.loop().collector.content_m3);
    at.take("cold_fill", {10, 1e5});
    // ten metres of water are 0.98 bar; 40 % propylene glycol by mass weighs 1037 kg/m³ at 15 °C (ASHRAE, from memory)
    EXPECT_NEAR(at.loop().vessel.fill_pa, 1e5 + 10 * 1037 * 9.81, 0.01e5);
    EXPECT_NEAR(at.loop().vessel.precharge_pa, 0.7e5 + 10 * 1037 * 9.81, 0.01e5);
    at.loop().vessel.precharge_pa = 7e5;
    EXPECT_TRUE(std::isnan(at.of("vessel", {120}).value));
}

TEST(FieldSums, every_one_begins_with_possible_numbers_and_belongs_somewhere)
{
    for (const FieldSum& s : field_sums()) {
        SCOPED_TRACE(s.key);
        EXPECT_EQ(s.take != nullptr, s.writes());
        bool offered = s.page != ProbePage::none; // of a probe: at each
        EXPECT_EQ(offered, s.parts.empty());
        std::vector<LoopAnswers> loops{*complete({{"array", "hose"}, {"store", "pool"}}), *complete({{"backup", "element"}})}; // what no preset has
        for (const Arrangement& a : presets())
            loops.push_back(a.answers);
        for (const LoopAnswers& answers : loops)
            for (Part part : s.parts) {
                const Arrangement& a = arrangement_of(answers);
                const auto here = sums_at(part, a);
                if (std::find(here.begin(), here.end(), &s) == here.end())
                    continue;
                offered = true;
                const At at(answers, part);
                for (const SumInput& i : s.inputs) {
                    EXPECT_GE(i.from(at.context()), i.field.min) << a.key << i.field.key;
                    EXPECT_LE(i.from(at.context()), i.field.max) << a.key << i.field.key;
                }
            }
        EXPECT_TRUE(offered);
    }
}

// Whether every number of the loop lies in its field's range.
struct AllPossible : FieldVisitor {
    bool ok = true;
    void number(const NumberField& f, double x) { ok = ok && x >= f.min && x <= f.max; }
    template <class T>
    void object(const char*, const T& x) { fields(*this, x); }
    template <class T>
    void spare_object(const char*, const T& x) { fields(*this, x); }
};
bool possible(const Job& job)
{
    AllPossible all;
    fields(all, job.variants.front().loop);
    return all.ok;
}

TEST(FieldSums, refuse_what_no_loop_can_have)
{
    At at("direct", Part::collector);
    const auto r = taken(*find_sum("array_area"), {50, 4.18e6, 0.2, 40}, at.context()); // 10 000 m²
    ASSERT_FALSE(r);
    EXPECT_NE(r.error().what.find("Area"), std::string::npos);
    EXPECT_FALSE(taken(*find_sum("friction"), {1e-4, 40}, At("direct", Part::supply).context()));
}

std::vector<double> any_numbers(const FieldSum& s)
{
    std::vector<double> x;
    for (const SumInput& i : s.inputs)
        x.push_back(i.field.min + (i.field.max - i.field.min) * *rc::gen::inRange(0, 1001) / 1000.0);
    return x;
}

bool answers(const FieldSum& s, const std::vector<double>& x, const SumContext& c)
{
    const SumResult r = s.work(x, c);
    return !r.text.empty() && r.text.find("nan") == std::string::npos && r.text.find("inf") == std::string::npos;
}

// Any numbers in their ranges: no sum writes what the job file would refuse, nor anything that is no number.
RC_GTEST_PROP(FieldSums, any_numbers_are_answered, ())
{
    const Arrangement& a = presets()[*rc::gen::inRange<std::size_t>(0, presets().size())];
    for (Part part : a.parts)
        for (const FieldSum* s : sums_at(part, a)) {
            At at(a.key, part);
            const std::vector<double> x = any_numbers(*s);
            RC_ASSERT(answers(*s, x, at.context()));
            if (const auto l = taken(*s, x, at.context())) {
                at.job.variants.front() = *l;
                const auto setup = coupled_setup(at.job, at.job.variants.front(), at.job.days.front());
                RC_ASSERT(setup && Network(setup->loop, setup->probes).size() > 0);
                RC_ASSERT(possible(at.job));
            }
        }
}

// The same of the sums about probes, with any shipped kind of curve on any input.
RC_GTEST_PROP(ProbeSums, any_numbers_are_answered, ())
{
    At at("glycol-coil", Part::collector);
    Variant& v = at.job.variants.front();
    for (Probe& p : v.probes)
        p.curve = *parse_curve(*rc::gen::element<std::string>("pt1000", "ntc:r25=10000,beta=3950", "table:0=32650,25=10000,50=3602,100=678.3", "poly:at=25,r=2000,c=0.00788/1.937e-05", "line:mA=4..20,c=0..100"));
    v.input.kind = *rc::gen::element(StageKind::exact, StageKind::pull_up, StageKind::bridge);
    for (ProbePage page : {ProbePage::measure, ProbePage::lead, ProbePage::input, ProbePage::knob})
        for (const FieldSum* s : sums_on(page)) {
            const std::vector<double> x = any_numbers(*s);
            RC_ASSERT(answers(*s, x, at.context()));
            if (const auto after = taken(*s, x, at.context())) {
                Job job = at.job;
                job.variants.front() = *after;
                RC_ASSERT(static_cast<bool>(coupled_setup(job, *after, job.days.front())));
            }
        }
}

TEST(ProbeSums, by_hand)
{
    At at("glycol-coil", Part::collector);
    Variant& v = at.job.variants.front();
    v.probes[0].curve = *parse_curve("ntc:r25=10000,beta=3950");
    // 10 kΩ beside 10 kΩ is 5 kΩ.
    EXPECT_NE(at.of("connected", {25, 10000}).text.find("shows 5000"), std::string::npos) << at.of("connected", {25, 10000}).text;
    // Water boils at 95.0 °C at 1500 m (ISO 2533 and steam tables: 84.56 kPa).
    EXPECT_NE(at.of("boiling", {1500, 800}).text.find("boils at 95.0"), std::string::npos) << at.of("boiling", {1500, 800}).text;
    v.probes[0].curve = *parse_curve("pt1000");
    EXPECT_NEAR(at.of("ice", {1003.9}).value, 1.0, 0.005);
    const auto corrected = taken(*find_sum("ice"), {1003.9}, at.context());
    ASSERT_TRUE(corrected);
    EXPECT_NEAR(corrected->probes[0].correction.in_kelvin(), -1.0, 0.005);
    v.probes[0].lead.section_m2 = 0.326e-6; // 22 AWG
    EXPECT_NEAR(at.of("longest_lead", {0.5, 100}).value, 0.5 * 3.7928 / (2 * 0.05296), 0.2) << "3.793 Ω/K at 100 °C, IEC 60751";
    // A knob's pair is written into the difference rule.
    const auto turned = taken(*find_sum("knob_at"), {5}, at.context());
    ASSERT_TRUE(turned);
    for (const Rule& r : turned->unit.rules)
        if (const auto* d = std::get_if<Differential>(&r.body)) {
            EXPECT_DOUBLE_EQ(d->on.in_kelvin(), 8.5);
            EXPECT_DOUBLE_EQ(d->off.in_kelvin(), 4.5);
        }
}

} // namespace
