// The audit's parts: thresholds, switchings, what is found and said.
#include "audit_log.h"

#include "core/audit/audit.h"
#include "core/audit/found_speeds.h"
#include "core/job/fresh_rule.h"
#include "core/setup/fault_setup.h"

#include <gtest/gtest.h>

#include <cmath>
#include <map>

namespace vernal {
namespace {

// Crossings of a course that rises evenly, seen every `width`, blurred.
std::vector<Crossing> crossings(double setting, double width, double sigma, std::size_t n, unsigned seed)
{
    std::mt19937 random(seed);
    std::uniform_real_distribution<double> phase(0, 1);
    std::normal_distribution<double> noise(0, sigma);
    std::vector<Crossing> out;
    for (std::size_t i = 0; i < n; ++i)
        out.push_back({setting - width * phase(random) + noise(random), width, sigma, 0, i, 20 + 3.0 * static_cast<double>(i)});
    return out;
}

} // namespace

TEST(AuditThreshold, is_found_within_its_interval)
{
    for (unsigned seed = 1; seed < 20; ++seed) {
        const auto e = setting_from(crossings(8, 0.5, 0.1, 20, seed), true);
        ASSERT_TRUE(e);
        EXPECT_NEAR(e->value, 8, 0.25);
        EXPECT_LE(e->low, 8.05);
        EXPECT_GE(e->high, 7.95);
        EXPECT_LT(e->high - e->low, 0.6);
    }
    EXPECT_FALSE(setting_from({}, true));
}

TEST(AuditThreshold, is_not_led_away_by_what_was_held)
{
    auto c = crossings(8, 0.5, 0.1, 20, 3);
    for (std::size_t i = 0; i < 8; ++i)
        c[i].before = 12 + static_cast<double>(i);
    const auto e = setting_from(c, true);
    EXPECT_NEAR(e->value, 8, 0.3);
    EXPECT_NEAR(static_cast<double>(e->points), 12, 2);
}

TEST(AuditThreshold, one_point_gives_the_way_between_two_rows)
{
    const auto e = setting_from({{7.5, 1.0, 0.05, 0, 0, 20}}, true);
    ASSERT_TRUE(e);
    EXPECT_LT(e->low, 7.7);
    EXPECT_GT(e->high, 8.3);
}

TEST(AuditThreshold, a_setting_that_moves_with_the_store_is_told)
{
    auto c = crossings(8, 0.3, 0.1, 24, 5);
    const auto fixed = slope_from(c, true);
    ASSERT_TRUE(fixed);
    EXPECT_LT(fixed->low, 0);
    EXPECT_GT(fixed->high, 0);
    for (Crossing& x : c)
        x.before += 0.08 * (x.at - 50);
    const auto moves = slope_from(c, true);
    EXPECT_NEAR(moves->value, 0.08, 0.01);
    EXPECT_GT(moves->low, 0.05);
}

TEST(Audit, outputs_are_read_from_currents_percents_and_flows)
{
    const Variant v = new_job("glycol-coil").variants.front();
    Trace t;
    for (int i = 0; i < 100; ++i)
        t.time_s.push_back(30.0 * i);
    for (const char* name : {"collector", "tank_bottom"})
        t.columns.push_back({name, Quantity::temperature, std::vector<double>(100, 30.0)});
    t.columns.push_back({"P1", Quantity::number, std::vector<double>(100, 0.02), "A"}); // what the meter shows of nothing
    for (std::size_t i = 40; i < 60; ++i)
        t.columns.back().values[i] = 0.4;
    const LogView current(t, v);
    EXPECT_EQ(current.output(0, 20), 0);
    EXPECT_EQ(current.output(0, 50), 1);
    t.columns.back().name = "flow_meter";
    EXPECT_EQ(LogView(t, v).output(0, 50), 1) << "the pump is told by the flow";
}

TEST(Audit, limit_and_cut_out_and_times_are_found)
{
    TruthCase c = truth_case("glycol-coil", 4, 5);
    c.day.sky.clouds = Clouds::clear;
    c.day.sky.month = 6;
    c.day.draws.clear();
    Variant& v = c.job.variants.front();
    for (Rule& r : v.unit.rules)
        if (auto* l = std::get_if<StoreLimit>(&r.body))
            l->limit = Temperature::celsius(62);
    const auto a = audit(c.job, v, logged(c.job, v, c.day, {}));
    ASSERT_TRUE(a) << a.error().text();
    ASSERT_FALSE(a->found.empty());
    ASSERT_TRUE(a->found.front().limit_c);
    double allowance = 0;
    for (const Rule& r : v.unit.rules)
        if (const auto* l = std::get_if<StoreLimit>(&r.body))
            allowance = l->allowance.in_kelvin();
    EXPECT_NEAR(a->found.front().limit_c->value, 62 - allowance, 0.5);
    EXPECT_TRUE(std::any_of(a->troubles.begin(), a->troubles.end(), [](const AuditTrouble& t) { return t.key == "limit_reached"; }));
}

TEST(Audit, pressure_that_goes_after_a_stagnation_is_told_from_a_leak)
{
    for (const bool hot : {true, false}) {
        TruthCase c = truth_case("glycol-coil", 4, 3);
        c.day.sky.clouds = hot ? Clouds::clear : Clouds::overcast;
        c.day.sky.month = hot ? 6 : 3;
        const Variant& v = c.job.variants.front();
        c.day.faults = {fresh_fault(FaultKind::relay_stuck_off, v, 30, 42), fresh_fault(FaultKind::pressure_lost, v, 38, 72)};
        c.day.faults[1].share = 0.8;
        const auto a = audit(c.job, v, logged(c.job, v, c.day, {}));
        ASSERT_TRUE(a) << a.error().text();
        const auto has = [&](const char* key) { return std::any_of(a->troubles.begin(), a->troubles.end(), [&](const AuditTrouble& t) { return t.key == key && t.serious; }); };
        EXPECT_EQ(has("lost_after_stagnation"), hot);
        EXPECT_EQ(has("pressure_lost"), !hot);
    }
}

// A reading that falls is always told. One that climbs looks like nights that grow milder where the array
// drains: it is told in about half of such logs, and never where there is none.
TEST(Audit, a_probe_that_drifts_is_told_from_nights_that_differ)
{
    constexpr unsigned seeds = 6;
    std::map<double, unsigned> found;
    for (unsigned seed = 1; seed <= seeds; ++seed)
        for (const double by_k : {8.0, -8.0, 0.0}) {
            TruthCase c = truth_case("drainback", seed, 10);
            const Variant& v = c.job.variants.front();
            if (by_k != 0) {
                c.day.faults = {fresh_fault(FaultKind::probe_drifts, v, 0, 240)};
                c.day.faults.front().by_k = by_k;
            }
            const auto a = audit(c.job, v, logged(c.job, v, c.day, {}));
            ASSERT_TRUE(a) << a.error().text();
            const auto it = std::find_if(a->troubles.begin(), a->troubles.end(), [](const AuditTrouble& t) { return t.key == "probe_drifts"; });
            if (it == a->troubles.end())
                continue;
            ++found[by_k];
            EXPECT_EQ(it->probe, v.probes.front().key);
        }
    EXPECT_EQ(found[-8.0], seeds);
    EXPECT_GE(found[8.0], 1U);
    EXPECT_EQ(found[0.0], 0U);
}

TEST(Audit, speeds_are_found_as_steps_or_by_the_kelvin)
{
    std::mt19937 random(5);
    std::normal_distribution<double> noise(0, 0.15);
    std::vector<SpeedRow> rows, stairs;
    for (int i = 0; i < 600; ++i) {
        const double k = 6 + 14 * i / 600.0;
        rows.push_back({std::clamp(std::round(30 + 6 * (k - 8)) / 100, 0.3, 1.0), k + noise(random)});
        stairs.push_back({k < 9 ? 0.4 : k < 14 ? 0.7
                                               : 1.0,
            k});
    }
    const auto even = found_speeds(rows), steps = found_speeds(stairs);
    ASSERT_TRUE(even && even->per_k && steps);
    EXPECT_NEAR(even->least_share.value, 0.3, 0.005);
    EXPECT_LT(even->per_k->low, 0.06);
    EXPECT_GT(even->per_k->high, 0.0585); // noise in the difference makes a slope look smaller
    EXPECT_LT(even->per_k->high - even->per_k->low, 0.01);
    EXPECT_EQ(steps->steps, (std::vector<double>{0.4, 0.7, 1.0}));
    EXPECT_FALSE(steps->per_k);
    EXPECT_FALSE(found_speeds({{1, 9}, {1, 9}}));
    EXPECT_EQ(speeds_text(*steps), "runs at 40, 70 and 100 %");
}

TEST(Audit, speeds_are_found_in_a_log)
{
    TruthCase c = truth_case("glycol-coil", 4, 2);
    Variant& v = c.job.variants.front();
    const auto kind = std::find_if(rule_kinds().begin(), rule_kinds().end(), [](const RuleKind& k) { return std::string_view(k.key) == "speed_by_difference"; });
    v.unit.rules.push_back(fresh_rule(v, static_cast<std::size_t>(kind - rule_kinds().begin())));
    sort_by_priority(v.unit.rules);
    Logger logger;
    logger.speeds = true;
    const auto a = audit(c.job, v, logged(c.job, v, c.day, logger));
    ASSERT_TRUE(a) << a.error().text();
    ASSERT_TRUE(a->found.front().speeds);
    const auto rule = std::find_if(v.unit.rules.begin(), v.unit.rules.end(), [](const Rule& r) { return std::holds_alternative<SpeedByDifference>(r.body); });
    EXPECT_NEAR(a->found.front().speeds->least_share.value, std::get<SpeedByDifference>(rule->body).range.floor, 0.02);
}

// Its number read as °F, with the allowance for what is hotter above the probe.
TEST(Audit, a_limit_typed_in_the_other_scale_is_told)
{
    TruthCase c = truth_case("glycol-coil", 4, 4);
    c.day.sky.clouds = Clouds::clear;
    c.day.sky.month = 6;
    Variant stated = c.job.variants.front(), real = stated;
    for (Variant* v : {&stated, &real})
        for (Rule& r : v->unit.rules)
            if (auto* l = std::get_if<StoreLimit>(&r.body)) {
                l->limit = Temperature::celsius(v == &stated ? 150 : (150.0 - 32) * 5 / 9);
                l->allowance = TempDiff::kelvin(3);
            }
    const auto a = audit(c.job, stated, logged(c.job, real, c.day, {}));
    ASSERT_TRUE(a);
    ASSERT_TRUE(a->found.front().limit_c);
    EXPECT_NEAR(a->found.front().limit_c->value, (150.0 - 32) * 5 / 9 - 3, 0.6);
    EXPECT_TRUE(std::any_of(a->troubles.begin(), a->troubles.end(), [](const AuditTrouble& t) { return t.key == "unit_mix_up" && t.what.find("limit") != std::string::npos; }));
}

TEST(Audit, a_unit_that_does_as_the_job_says_disagrees_with_nothing_of_note)
{
    const TruthCase c = truth_case("glycol-coil", 8, 2);
    const Variant& v = c.job.variants.front();
    Logger exact;
    exact.noise_k = 0;
    exact.step_k = 0.001;
    exact.every_s = 1;
    const auto a = audit(c.job, v, logged(c.job, v, c.day, exact));
    ASSERT_TRUE(a);
    double length = 0;
    for (const CostedDisagreement& d : a->disagreements)
        length += d.length_s;
    EXPECT_LT(length, 300);
    EXPECT_FALSE(a->serious());
}

TEST(Audit, another_pair_is_found_costed_and_taken_into_a_variant)
{
    TruthCase c = truth_case("glycol-coil", 9, 4);
    Variant other = c.job.variants.front();
    for (Rule& r : other.unit.rules)
        if (difference_of(other.unit, r))
            set_difference(other.unit, r, TempDiff::kelvin(13), TempDiff::kelvin(6));
    const auto a = audit(c.job, c.job.variants.front(), logged(c.job, other, c.day, {}));
    ASSERT_TRUE(a);
    ASSERT_TRUE(a->found.front().on_k && a->found.front().off_k);
    EXPECT_NEAR(a->found.front().on_k->value, 13, 0.3);
    EXPECT_NEAR(a->found.front().off_k->value, 6, 0.4);
    double heat = 0;
    for (const CostedDisagreement& d : a->disagreements)
        heat += d.heat_j;
    EXPECT_GT(heat, 1e5) << "rest where the rules would collect costs heat";
    const Variant taken = with_found(c.job, c.job.variants.front(), a->found);
    bool seen = false;
    for (const Rule& r : taken.unit.rules)
        if (const auto d = difference_of(taken.unit, r)) {
            EXPECT_NEAR(d->on.in_kelvin(), 13, 0.3);
            seen = true;
        }
    EXPECT_TRUE(seen);
}

// A tank and its element, and nothing else.
TEST(Audit, an_element_is_found_with_its_thermostat_and_its_windows)
{
    Job job = new_job("glycol-coil");
    Variant& v = job.variants.front();
    Output element;
    element.key = "E1";
    element.name = "Element";
    element.drives = Drives::element;
    v.unit.outputs.push_back(element);
    std::mt19937 random(4);
    std::normal_distribution<double> noise(0, 0.05);
    Trace t;
    t.start = "2026-03-02T00:00:00";
    t.columns = {{"tank_top", Quantity::temperature, {}}, {"E1", Quantity::number, {}}};
    double top = 44;
    bool on = false;
    for (int i = 0; i < 10 * 24 * 60; ++i) {
        const double h = std::fmod(i / 60.0, 24), now = top + noise(random);
        const bool window = h >= 4 && h < 8;
        on = window && (on ? now < 55 : now < 50);
        top += on ? 0.15 : -0.02;
        t.time_s.push_back(60.0 * i);
        t.columns[0].values.push_back(std::round(now * 10) / 10);
        t.columns[1].values.push_back(on ? 2.1 : 0);
    }
    t.columns[1].unit = "kW";
    const auto a = audit(job, v, t);
    ASSERT_TRUE(a) << a.error().text();
    ASSERT_EQ(a->heating.size(), 1U);
    const FoundHeating& h = a->heating.front();
    ASSERT_TRUE(h.off_c);
    EXPECT_NEAR(h.off_c->value, 55, 0.4);
    ASSERT_FALSE(h.windows.empty());
    EXPECT_GE(h.windows.front().from_h, 4);
    EXPECT_LE(h.windows.back().to_h, 8.3);
    EXPECT_GT(h.longest_below_60_days, 9);
    EXPECT_TRUE(std::any_of(a->troubles.begin(), a->troubles.end(), [](const AuditTrouble& x) { return x.key == "not_disinfected"; }));
}

TEST(Audit, a_contact_in_a_probes_lead_is_no_broken_probe)
{
    TruthCase c = truth_case("glycol-coil", 5, 3);
    Fault f = fresh_fault(FaultKind::probe_open, c.job.variants.front(), 34, 36);
    c.day.faults = {f};
    const Trace log = logged(c.job, c.job.variants.front(), c.day, {});
    const auto lost = [&](const Variant& v) {
        const auto a = audit(c.job, v, log);
        return std::any_of(a->troubles.begin(), a->troubles.end(), [](const AuditTrouble& t) { return t.key == "probe_lost"; });
    };
    EXPECT_TRUE(lost(c.job.variants.front()));
    Variant with_contact = c.job.variants.front();
    SeriesThermostat contact;
    contact.probe = f.of;
    Rule r;
    r.output = with_contact.unit.outputs.front().key;
    r.body = contact;
    with_contact.unit.rules.insert(with_contact.unit.rules.begin(), r);
    EXPECT_FALSE(lost(with_contact));
}

TEST(Audit, what_cannot_be_audited_is_said)
{
    const Job job = new_job("glycol-coil");
    EXPECT_FALSE(audit(job, job.variants.front(), Trace{}));
    Trace t;
    t.time_s = {0, 30, 60};
    t.columns = {{"something", Quantity::number, {1, 2, 3}}};
    EXPECT_FALSE(audit(job, job.variants.front(), t));
}

TEST(Audit, every_kind_of_trouble_has_its_words_and_its_look_alikes)
{
    for (const TroubleKind& k : trouble_kinds()) {
        EXPECT_EQ(find_trouble(k.key), &k);
        std::string rest = k.looks_like;
        while (!rest.empty()) {
            const std::size_t blank = std::min(rest.find(' '), rest.size());
            EXPECT_NE(find_trouble(rest.substr(0, blank)), nullptr) << rest;
            rest.erase(0, std::min(rest.size(), blank + 1));
        }
    }
}

} // namespace vernal
