// Settings and troubles that are known, found again in logs of seeded runs. The whole, with
// VERNAL_AUDIT_RUNS=2000, prints the tables of docs/audit.md; every test run does a part.
#include "audit_log.h"

#include "core/rules/rule_set.h"

#include <gtest/gtest.h>

#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <functional>
#include <map>

namespace vernal {
namespace {

std::size_t runs()
{
    const char* said = std::getenv("VERNAL_AUDIT_RUNS");
    return said ? static_cast<std::size_t>(std::atoi(said)) : 90;
}
bool whole() { return runs() >= 1000; }

// Of a preset or of a loop put together from answers, with a pair of its own.
struct KnownPair {
    TruthCase c;
    std::string output;
    double on_k = 0, off_k = 0;
    Logger logger;
};

std::optional<KnownPair> known_pair(std::size_t run)
{
    std::mt19937 random(static_cast<unsigned>(run) * 7919 + 17);
    const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    const auto& all = audited_loops();
    KnownPair k;
    k.c = truth_case(all[random() % all.size()], static_cast<unsigned>(random() % 1000), 3 + static_cast<int>(random() % 4));
    k.c.day.sky.month = 1 + static_cast<int>(random() % 12);
    constexpr std::array spacings{10.0, 30.0, 30.0, 60.0, 120.0, 300.0};
    k.logger.every_s = spacings[random() % spacings.size()];
    k.logger.step_k = random() % 3 == 0 ? 0.5 : 0.1;
    k.logger.seed = static_cast<unsigned>(run);
    Variant& v = k.c.job.variants.front();
    for (Rule& r : v.unit.rules)
        if (const auto d = difference_of(v.unit, r); d && r.enabled) {
            const double on = between(4, 12);
            set_difference(v.unit, r, TempDiff::kelvin(on), TempDiff::kelvin(between(1, 0.6 * on)));
            const auto set = difference_of(v.unit, r);
            k.on_k = set->on.in_kelvin();
            k.off_k = set->off.in_kelvin();
            k.output = r.output;
            return k;
        }
    return {};
}

struct Tally {
    std::size_t n = 0, inside = 0, close = 0, close_of = 0;
    double error = 0, width = 0;
    void add(const Estimate& e, double truth, bool fine)
    {
        ++n;
        inside += truth >= e.low && truth <= e.high;
        error += std::fabs(e.value - truth);
        width += e.high - e.low;
        if (fine && e.points >= 10) {
            ++close_of;
            close += std::fabs(e.value - truth) <= 0.3;
        }
    }
};

} // namespace

TEST(AuditTruth, pairs_are_found_and_their_intervals_are_honest)
{
    std::map<std::string, Tally> table;
    for (std::size_t run = 0; run < runs(); ++run) {
        const auto k = known_pair(run);
        if (!k)
            continue;
        const Variant& v = k->c.job.variants.front();
        Trace log = logged(k->c.job, v, k->c.day, k->logger);
        if (run % 3 == 0) { // an hour or two are missing, and the clock is off
            const std::size_t from = log.time_s.size() / 3, rows = static_cast<std::size_t>(5400 / k->logger.every_s);
            const auto cut = [&](auto& list) { list.erase(list.begin() + static_cast<std::ptrdiff_t>(from), list.begin() + static_cast<std::ptrdiff_t>(from + rows)); };
            cut(log.time_s);
            for (TraceColumn& c : log.columns)
                cut(c.values);
            log.start.replace(11, 8, "02:10:00");
        }
        const LogView view(log, v);
        for (const FoundSettings& f : found_settings(view, v)) {
            if (v.unit.outputs[f.output].key != k->output)
                continue;
            const bool fine = k->logger.every_s == 30 && k->logger.step_k == 0.1;
            char spacing[32], step[32];
            std::snprintf(spacing, sizeof spacing, "a row each %3.0f s", k->logger.every_s);
            std::snprintf(step, sizeof step, "in steps of %.1f K", k->logger.step_k);
            const auto put = [&](const std::optional<Estimate>& e, double truth, const char* which) {
                if (e)
                    for (const std::string& key : {std::string("all"), std::string(spacing), std::string(step), std::string(which)})
                        table[key].add(*e, truth, fine);
            };
            put(f.on_k, k->on_k, "starts");
            put(f.off_k, k->off_k, "stops");
        }
    }
    std::printf("%-22s %6s %8s %12s %10s\n", "", "found", "inside", "mean error", "width");
    for (const auto& [key, t] : table)
        std::printf("%-22s %6zu %6.1f %% %10.2f K %8.2f K\n", key.c_str(), t.n, 100.0 * static_cast<double>(t.inside) / static_cast<double>(t.n), t.error / static_cast<double>(t.n), t.width / static_cast<double>(t.n));
    const Tally& all = table["all"];
    std::printf("within 0.3 K at 30 s, 0.1 K and ten points: %zu of %zu\n", all.close, all.close_of);
    const double inside = static_cast<double>(all.inside) / static_cast<double>(all.n);
    EXPECT_GE(inside, whole() ? 0.93 : 0.88);
    EXPECT_LE(inside, whole() ? 0.97 : 1.0);
    EXPECT_GE(static_cast<double>(all.close), 0.97 * static_cast<double>(all.close_of));
}

namespace {

// A way to put a trouble of a stated size into a log.
struct Injected {
    const char* what;
    std::vector<const char*> named; // any of these will do: it, or its look-alikes
    std::function<Trace(TruthCase& c, unsigned seed)> log;
};

Trace with_fault(TruthCase& c, unsigned seed, FaultKind kind, double from_h, double to_h, const std::function<void(Fault&)>& size = {})
{
    Fault f = fresh_fault(kind, c.job.variants.front(), from_h, to_h);
    if (size)
        size(f);
    c.day.faults = {f};
    Logger logger;
    logger.seed = seed;
    Trace t = logged(c.job, c.job.variants.front(), c.day, logger);
    c.day.faults.clear();
    return t;
}

Trace with_rules(const TruthCase& c, unsigned seed, const std::function<void(Variant&)>& change)
{
    Variant v = c.job.variants.front();
    change(v);
    Logger logger;
    logger.seed = seed;
    return logged(c.job, v, c.day, logger);
}

const std::vector<Injected>& injections()
{
    static const std::vector<Injected> list{
        {"probe open for two hours", {"probe_lost"}, [](TruthCase& c, unsigned s) { return with_fault(c, s, FaultKind::probe_open, 34, 36); }},
        {"probe shorted for two hours", {"probe_lost"}, [](TruthCase& c, unsigned s) { return with_fault(c, s, FaultKind::probe_shorted, 34, 36); }},
        {"collector stuck for six hours", {"probe_stuck", "probe_lost"}, [](TruthCase& c, unsigned s) { return with_fault(c, s, FaultKind::probe_stuck, 33, 39); }},
        {"relay stuck on over a night", {"runs_at_night", "stuck_on"}, [](TruthCase& c, unsigned s) { return with_fault(c, s, FaultKind::relay_stuck_on, 44, 52); }},
        {"relay stuck off over a day", {"stuck_off", "no_rise"}, [](TruthCase& c, unsigned s) { return with_fault(c, s, FaultKind::relay_stuck_off, 30, 42); }},
        {"relay chatters each minute for two hours", {"chattering", "short_cycling"}, [](TruthCase& c, unsigned s) { c.day.sky.clouds = Clouds::clear; return with_fault(c, s, FaultKind::relay_chatters, 35, 37, [](Fault& f) { f.every_s = 120; }); }},
        {"pump dead over a day", {"no_rise", "low_flow", "stuck_off"}, [](TruthCase& c, unsigned s) { c.day.sky.clouds = Clouds::clear; Logger l; l.seed = s; l.by_relay = false; c.day.faults = {fresh_fault(FaultKind::pump_dead, c.job.variants.front(), 30, 42)}; Trace t = logged(c.job, c.job.variants.front(), c.day, l); c.day.faults.clear(); return t; }},
        {"air lock over a day", {"no_rise", "low_flow"}, [](TruthCase& c, unsigned s) { c.day.sky.clouds = Clouds::clear; return with_fault(c, s, FaultKind::air_lock, 30, 42); }},
        {"line shut over a day", {"no_rise", "low_flow"}, [](TruthCase& c, unsigned s) { c.day.sky.clouds = Clouds::clear; return with_fault(c, s, FaultKind::line_shut, 30, 42); }},
        {"strainer lets a quarter through", {"low_flow", "no_rise"}, [](TruthCase& c, unsigned s) { c.day.sky.clouds = Clouds::clear; return with_fault(c, s, FaultKind::strainer_clogged, 0, 72, [](Fault& f) { f.share = 0.25; }); }},
        {"check valve leaks wholly, by night, the store warm", {"heat_lost_backwards", "probe_offset"}, [](TruthCase& c, unsigned s) { c.day.sky.clouds = Clouds::clear; return with_fault(c, s, FaultKind::check_valve_leaks, 0, 72, [](Fault& f) { f.share = 1; }); }},
        {"four fifths of the pressure lost", {"pressure_lost", "lost_after_stagnation"}, [](TruthCase& c, unsigned s) { return with_fault(c, s, FaultKind::pressure_lost, 36, 72, [](Fault& f) { f.share = 0.8; }); }},
        {"pressure lost on a day of stagnation", {"lost_after_stagnation", "pressure_lost"}, [](TruthCase& c, unsigned s) { c.day.sky.clouds = Clouds::clear; c.day.sky.month = 6; Logger l; l.seed = s; c.day.faults = {fresh_fault(FaultKind::relay_stuck_off, c.job.variants.front(), 30, 42), fresh_fault(FaultKind::pressure_lost, c.job.variants.front(), 38, 72)}; c.day.faults[1].share = 0.8; Trace t = logged(c.job, c.job.variants.front(), c.day, l); c.day.faults.clear(); return t; }},
        {"collector drifts by 8 K in ten days", {"probe_drifts", "probe_offset", "runs_at_night"}, [](TruthCase& c, unsigned s) { c.day.length_days = 10; Trace t = with_fault(c, s, FaultKind::probe_drifts, 0, 240, [](Fault& f) { f.by_k = 8; }); c.day.length_days = 3; return t; }},
        {"collector 14 K high", {"probe_offset", "heat_lost_backwards", "runs_at_night"}, [](TruthCase& c, unsigned s) { return with_rules(c, s, [](Variant& v) { v.probes[0].correction = TempDiff::kelvin(14); }); }},
        {"collector and store swapped", {"probes_swapped", "probe_offset", "runs_at_night", "stuck_on"}, [](TruthCase& c, unsigned s) { return with_fault(c, s, FaultKind::probes_swapped, 0, 72); }},
        {"store probe in the sun, 20 K", {"probe_in_sun", "probe_offset"}, [](TruthCase& c, unsigned s) { c.day.sky.clouds = Clouds::racing; return with_fault(c, s, FaultKind::probe_in_sun, 0, 72, [&](Fault& f) { f.of = c.job.variants.front().probes[1].key; f.by_k = 20; }); }},
        {"store probe out of its well, 85 % of the room, the store warm", {"probe_bare", "no_rise", "low_flow", "runs_at_night"}, [](TruthCase& c, unsigned s) { if (c.day.sky.clouds == Clouds::overcast) c.day.sky.clouds = Clouds::racing; return with_fault(c, s, FaultKind::probe_tip_lost, 0, 72, [&](Fault& f) { f.of = c.job.variants.front().probes[1].key; f.share = 0.85; }); }},
        {"store probe strapped on bare, 60 % of the room, the store warm", {"probe_bare", "no_rise", "low_flow", "runs_at_night"}, [](TruthCase& c, unsigned s) { c.day.sky.clouds = Clouds::clear; return with_fault(c, s, FaultKind::probe_bare, 0, 72, [&](Fault& f) { f.of = c.job.variants.front().probes[1].key; f.share = 0.6; }); }},
        {"array probe bare, 40 % of the air, at rest in the sun for a day", {"probe_bare"}, [](TruthCase& c, unsigned s) { c.day.sky.clouds = Clouds::clear; Logger l; l.seed = s; c.day.faults = {fresh_fault(FaultKind::relay_stuck_off, c.job.variants.front(), 30, 42), fresh_fault(FaultKind::probe_bare, c.job.variants.front(), 0, 72)}; Trace t = logged(c.job, c.job.variants.front(), c.day, l); c.day.faults.clear(); return t; }},
        {"differences typed in the other scale", {"unit_mix_up"}, [](TruthCase& c, unsigned s) { return with_rules(c, s, [](Variant& v) { for (Rule& r : v.unit.rules) if (const auto d = difference_of(v.unit, r); d && r.enabled) { set_difference(v.unit, r, d->on * (5.0 / 9), d->off * (5.0 / 9)); break; } }); }},
        {"clock an hour and a half off", {"clock_wrong", "late_start"}, [](TruthCase& c, unsigned s) { c.day.sky.clouds = Clouds::clear; Trace t = with_rules(c, s, [](Variant&) {}); t.start.replace(11, 8, "01:30:00"); return t; }},
        {"an hour missing", {"long_gaps"}, [](TruthCase& c, unsigned s) { Trace t = with_rules(c, s, [](Variant&) {}); for (TraceColumn& col : t.columns) col.values.erase(col.values.begin() + 4000, col.values.begin() + 4120); t.time_s.erase(t.time_s.begin() + 4000, t.time_s.begin() + 4120); return t; }},
    };
    return list;
}

constexpr std::array heard{"limit_reached", "stagnated", "long_gaps"}; // tell of the day, not of a trouble

} // namespace

TEST(AuditTruth, troubles_of_a_stated_size_are_named)
{
    const std::size_t each = whole() ? 34 : 2;
    std::printf("%-44s %6s %s\n", "put in", "named", "as");
    for (const Injected& in : injections()) {
        std::size_t tries = 0, named = 0;
        std::map<std::string, int> as;
        for (const char* preset : {"glycol-coil", "glycol-hx", "drainback"})
            for (std::size_t s = 0; s < each; ++s) {
                TruthCase c = truth_case(preset, static_cast<unsigned>(s * 13 + 5), 3);
                const std::string_view loop = preset, kind = in.named[0]; // a drained array has no gauge; only a coil lets fluid rise by itself
                const bool fits = kind == "heat_lost_backwards" ? loop == "glycol-coil" : (kind != "pressure_lost" && kind != "lost_after_stagnation") || loop != "drainback";
                if (!fits)
                    continue;
                const Trace log = in.log(c, static_cast<unsigned>(s));
                const auto a = audit(c.job, c.job.variants.front(), log);
                ASSERT_TRUE(a) << a.error().text();
                ++tries;
                bool hit = false;
                for (const AuditTrouble& t : a->troubles) {
                    ++as[t.key];
                    hit = hit || std::any_of(in.named.begin(), in.named.end(), [&](const char* k) { return t.key == k; });
                }
                named += hit;
            }
        std::printf("%-44s %3zu/%-3zu", in.what, named, tries);
        for (const auto& [key, n] : as)
            std::printf(" %s %d", key.c_str(), n);
        std::printf("\n");
        EXPECT_GE(static_cast<double>(named), 0.95 * static_cast<double>(tries) - (whole() ? 0 : 1)) << in.what;
    }
}

TEST(AuditTruth, clean_logs_are_left_alone)
{
    const std::size_t each = whole() ? 15 : 2;
    std::size_t logs = 0, alarmed = 0;
    std::map<std::string, int> by;
    for (const LoopAnswers& answers : audited_loops())
        for (std::size_t s = 0; s < each; ++s) {
            const TruthCase c = truth_case(answers, static_cast<unsigned>(s * 7 + 1), 3);
            Logger logger;
            logger.seed = static_cast<unsigned>(s);
            const auto found = audit(c.job, c.job.variants.front(), logged(c.job, c.job.variants.front(), c.day, logger));
            ASSERT_TRUE(found) << found.error().text();
            ++logs;
            bool alarm = false;
            for (const AuditTrouble& t : found->troubles)
                if (std::none_of(heard.begin(), heard.end(), [&](const char* k) { return t.key == k; })) {
                    alarm = true;
                    ++by[arrangement_of(answers).title + ": " + t.key + ", " + t.what];
                }
            alarmed += alarm;
        }
    std::printf("%zu of %zu clean logs with a false alarm\n", alarmed, logs);
    for (const auto& [key, n] : by)
        std::printf("  %s %d\n", key.c_str(), n);
    EXPECT_LE(static_cast<double>(alarmed), 0.02 * static_cast<double>(logs) + (whole() ? 0 : 1));
}

} // namespace vernal
