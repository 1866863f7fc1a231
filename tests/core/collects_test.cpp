// A new loop collects what its sun allows, and what keeps a pump from collecting is found.
#include "core/advice/schools.h"
#include "core/findings/findings.h"
#include "core/setup/possible.h"

#include <gtest/gtest.h>

#include <cstdlib>
#include <fstream>
#include <random>

using namespace vernal;

namespace {

struct Collected {
    double share = NAN, heat_j = 0, possible_j = 0, full_s = 0;
};

Collected collected_of(const Job& job, const Variant& v, const Day& day)
{
    const auto setup = coupled_setup(job, v, day);
    if (!setup)
        return {};
    CoupledOptions options;
    options.keep_records = false;
    const Figures f = run_with_possible(v, *setup, options).figures;
    return {f.collected_share(), f.heat.to_store, f.possible_j, f.full_s};
}

// A store that stood at its limit for an hour of sun takes no more, whatever the rules.
constexpr double truly_full_s = 3600, asked_share = 0.85;
bool collects(const Collected& c) { return std::isnan(c.share) || c.share >= asked_share || c.full_s >= truly_full_s; }

// With VERNAL_COLLECTED=FILE the table of docs/collected.md goes there.
void tell(const std::string& loop, const Job& job, const Collected& clear)
{
    const char* file = std::getenv("VERNAL_COLLECTED");
    if (!file)
        return;
    std::ofstream out(file, std::ios::app);
    const auto cell = [&](const Collected& c) {
        std::array<char, 64> text{};
        std::snprintf(text.data(), text.size(), " %.1f of %.1f | %s%s |", c.heat_j / 3.6e6, c.possible_j / 3.6e6, std::isnan(c.share) ? "–" : (std::to_string(std::lround(100 * c.share)) + " %").c_str(), c.full_s >= truly_full_s ? ", full" : "");
        out << text.data();
    };
    out << "| " << loop << " |";
    cell(clear);
    for (std::size_t d = 1; d < job.days.size(); ++d)
        cell(collected_of(job, job.variants[0], job.days[d]));
    out << "\n";
}

void expect_collects(const std::string& name, const LoopAnswers& answers)
{
    const Job job = new_job(answers);
    const Collected clear = collected_of(job, job.variants[0], job.days[0]);
    EXPECT_TRUE(collects(clear)) << name << ": " << clear.share << ", full for " << clear.full_s << " s";
    tell(name, job, clear);
}

TEST(Collects, every_preset_on_its_clear_day)
{
    for (const Arrangement& p : presets())
        expect_collects(p.key, p.answers);
}

// docs/collected.md shows five hundred; VERNAL_COLLECTS=500 runs as many.
TEST(Collects, any_answers_on_the_clear_day)
{
    const std::vector<LoopAnswers> all = all_answers();
    std::mt19937 random(20261202);
    const char* asked = std::getenv("VERNAL_COLLECTS");
    for (int i = 0, n = asked ? std::atoi(asked) : 60; i < n; ++i) {
        const LoopAnswers& a = all[random() % all.size()];
        expect_collects(answers_text(a), a);
    }
}

TEST(Collects, by_every_school)
{
    for (const Arrangement& p : presets()) {
        if (!p.pumped())
            continue;
        const Job job = new_job(p.answers);
        for (std::size_t school = 0; school < questions().front().answers.size(); ++school) {
            Variant v = job.variants[0];
            Answers a = likely_answers(job, v);
            answer(a, 0, school);
            take_all(choose_settings(job, v, a, {}), v);
            const Collected c = collected_of(job, v, job.days[0]);
            EXPECT_TRUE(collects(c)) << p.key << ", school " << school << ": " << c.share << ", full for " << c.full_s << " s";
        }
    }
}

// The same answers at the same latitude south: the array faces the sun, the days lie in the other half of the year.
TEST(Collects, south_of_the_equator_as_much_as_north)
{
    Job north = new_job("glycol-coil"), south = north;
    Place place = north.site.place;
    place.latitude_deg = -34;
    move_fresh_job(south, place);
    place.latitude_deg = 34;
    move_fresh_job(north, place);
    EXPECT_EQ(south.days[0].sky.month, 12);
    const double to_north = collected_of(north, north.variants[0], north.days[0]).heat_j;
    EXPECT_NEAR(collected_of(south, south.variants[0], south.days[0]).heat_j, to_north, 0.1 * to_north); // the orbit and the length of day differ a little
    for (const Finding& f : findings({south, south.variants[0], nullptr, {}}))
        EXPECT_STRNE(f.kind, "array_looks_away");
}

// A pump's watts move its flow through its own ring, whatever the answers.
TEST(Collects, fresh_pumps_are_strong_enough)
{
    const std::vector<LoopAnswers> all = all_answers();
    std::mt19937 random(20261202);
    for (int i = 0; i < 400; ++i) {
        const LoopAnswers& a = all[random() % all.size()];
        const Job job = new_job(a);
        for (const Finding& f : findings({job, job.variants[0], nullptr, {}}))
            EXPECT_STRNE(f.kind, "pump_too_weak_for_its_flow") << answers_text(a) << ": " << f.reason;
    }
}

// The balance of a flat plate on a store too large to warm, written apart: q = A (eta0 G - a1 d - a2 d²)
// of ISO 9806 with the mean of inlet and outlet, minute by minute.
TEST(Possible, comes_to_what_the_collector_s_own_balance_gives)
{
    Job job = new_job("direct");
    Variant& v = job.variants[0];
    v.loop.tank.volume_m3 = 20;
    v.loop.tank.loss_w_k = 0;
    v.loop.supply.loss_w_mk = v.loop.back.loss_w_mk = 0.01;
    v.loop.collector.sky_exchange = 0;
    Day& day = job.days[0];
    day.draws.clear();
    day.begins = Begins::cold;
    day.mains_c = 20;
    const Collector& c = v.loop.collector;
    const auto setup = coupled_setup(job, v, day);
    ASSERT_TRUE(setup);
    const double carried = v.loop.pump.flow_m3_s * 998 * 4182, inlet = 20;
    double expected = 0;
    for (std::size_t m = 0; m < 1440; ++m) {
        const double g = setup->days[0]->sun_w_m2[0][m], air = setup->days[0]->air_c[m];
        double out = inlet;
        for (int i = 0; i < 50; ++i) {
            const double d = (inlet + out) / 2 - air;
            out = inlet + std::max(0.0, c.area_m2 * (c.eta0 * g - c.a1_w_m2k * d - c.a2_w_m2k2 * d * std::abs(d))) / carried;
        }
        expected += 60 * carried * (out - inlet);
    }
    const Collected got = collected_of(job, v, day);
    EXPECT_NEAR(got.possible_j, expected, 0.05 * expected);
}

const Finding* find(const std::vector<Finding>& all, const std::string& kind)
{
    const auto it = std::find_if(all.begin(), all.end(), [&](const Finding& f) { return f.kind == kind; });
    return it == all.end() ? nullptr : &*it;
}

std::vector<Finding> found_on(const Job& job, const Day& day, double* share = nullptr)
{
    const Variant& v = job.variants[0];
    const auto setup = coupled_setup(job, v, day);
    CoupledOptions options;
    options.keep_records = false;
    const Figures f = run_with_possible(v, *setup, options).figures;
    if (share)
        *share = f.collected_share();
    return findings({job, v, &f, {}, &day});
}

// A slab that rests half an hour after each stop, and a pool whose limit releases 8 K below.
TEST(NotCollected, says_which_rule_held_the_pump_and_its_remedy_gets_most_of_it_back)
{
    Job job = new_job("floor");
    for (Rule& r : job.variants[0].unit.rules)
        if (auto* t = std::get_if<RunTimes>(&r.body))
            t->min_off_s = 7200;
        else if (auto* limit = std::get_if<StoreLimit>(&r.body))
            limit->hysteresis = TempDiff::kelvin(8);
    double before = 0;
    const auto all = found_on(job, job.days[0], &before);
    const Finding* f = find(all, "sun_not_collected");
    ASSERT_NE(f, nullptr) << before;
    EXPECT_EQ(f->severity, Severity::serious);
    EXPECT_NE(f->reason.find("kept P1 off"), std::string::npos) << f->reason;
    ASSERT_TRUE(f->remedy);
    Job mended = job;
    f->remedy->apply(mended.variants[0]);
    double after = 0;
    found_on(mended, mended.days[0], &after);
    EXPECT_GT(after, before + 0.25 * (1 - before));
}

TEST(NotCollected, is_silent_where_the_pump_collects_and_without_a_possible_heat)
{
    const Job job = new_job("glycol-coil");
    EXPECT_EQ(find(found_on(job, job.days[0]), "sun_not_collected"), nullptr);
    Figures none;
    EXPECT_EQ(find(findings({job, job.variants[0], &none, {}}), "sun_not_collected"), nullptr);
}

TEST(NotCollected, a_switch_left_off_is_named)
{
    Job job = new_job("glycol-coil");
    job.variants[0].unit.outputs[0].mode = Mode::off;
    const auto all = found_on(job, job.days[0]);
    const Finding* f = find(all, "sun_not_collected");
    ASSERT_NE(f, nullptr);
    EXPECT_NE(f->reason.find("switch of P1 is OFF"), std::string::npos) << f->reason;
    ASSERT_TRUE(f->remedy);
    Variant v = job.variants[0];
    f->remedy->apply(v);
    EXPECT_EQ(v.unit.outputs[0].mode, Mode::automatic);
}

// The first tank is full within the hour and the valve to the second never turns: what the
// second could have taken is missed, by the limit that rests the pump.
TEST(NotCollected, counts_what_the_second_of_two_tanks_could_have_taken)
{
    Job job = new_job("two-stores");
    Variant& v = job.variants[0];
    for (Rule& r : v.unit.rules)
        if (std::holds_alternative<SecondStore>(r.body))
            r.enabled = false;
        else if (auto* limit = std::get_if<StoreLimit>(&r.body); limit && limit->probe != "S4")
            limit->limit = Temperature::celsius(25), limit->only_store.clear();
    const auto setup = coupled_setup(job, v, job.days[0]);
    ASSERT_TRUE(setup);
    const Figures f = run_with_possible(v, *setup, {}).figures;
    double by_limit_j = 0;
    for (const MissedHeat& m : f.missed)
        if (m.rule >= 0 && std::holds_alternative<StoreLimit>(v.unit.rules[static_cast<std::size_t>(m.rule)].body))
            by_limit_j += m.heat_j;
    EXPECT_GT(by_limit_j, 0.4 * (f.possible_j - f.collected_j())) << f.collected_j() / 3.6e6 << " of " << f.possible_j / 3.6e6;
}

// A limit that the repeats of the first day had latched kept a pool cold through twelve days of July.
TEST(Collects, a_pool_s_limit_does_not_survive_the_repeats_of_its_first_day)
{
    Job job = new_job("pool");
    Variant& v = job.variants[0];
    v.loop.pool.volume_m3 = 20; // passes its limit within a day of the repeats
    for (Rule& r : v.unit.rules)
        if (auto* limit = std::get_if<StoreLimit>(&r.body))
            limit->hysteresis = TempDiff::kelvin(8.5);
    Day& day = job.days[0];
    day.sky.month = 7;
    EXPECT_GT(collected_of(job, v, day).heat_j, 20 * 3.6e6);
}

} // namespace
