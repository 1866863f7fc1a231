// What the program makes passes its own check: new loops and every answer of choosing;
// the demo's proposals are in files/cli_test.cpp. On days that nothing disturbs no
// finding says more than a note.
#include "core/advice/schools.h"
#include "core/job/job_check.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>

#include <rapidcheck/gtest.h>

using namespace vernal;

namespace {

// A loop that nobody can protect from frost by rules must be drained by hand: said of new ones too.
// Two full tanks, or a warm slab, send what still comes to the cooler in many short runs; a dump that
// begins sooner or ends later would throw away heat that they still take.
bool is_true_of_the_loop(const Finding& f, const LoopAnswers& a)
{
    const std::string kind = f.kind;
    const bool dumps = a.store == Store::two_tanks && (a.excess == Excess::cooler || a.excess == Excess::house);
    const bool slab = a.store == Store::slab;                                       // its return warms and cools faster than the slab
    const bool full = a.carrier == Carrier::water && a.empties == Empties::full;    // and its frosty day is the coldest of its place
    const bool hot_fluid = a.array == Array::tubes && a.carrier == Carrier::glycol; // stands above what glycol bears once the store is full
    return kind == "unprotected_from_frost" || (hot_fluid && kind == "stagnates") || (full && (kind == "freezes_today" || kind == "freeze_needs_power")) || ((dumps || slab) && (kind == "many_starts_today" || kind == "switches_often"));
}

void expect_clean(const Job& job, const Variant& v, const std::string& what)
{
    for (const Day& day : job.days) {
        if (day.kind != DayKind::generated || day.outage_h > 0)
            continue;
        CoupledOptions o;
        o.keep_records = false;
        const auto setup = coupled_setup(job, v, day);
        ASSERT_TRUE(setup) << setup.error().text();
        const Figures f = run_coupled(*setup, o).figures;
        for (const Finding& found : findings({job, v, &f, {}}))
            EXPECT_TRUE(found.severity == Severity::note || is_true_of_the_loop(found, v.loop.answers)) << what << ", " << day.name << ": " << found.kind << ": " << found.title << ". " << found.reason;
    }
}

class OwnCheck : public testing::TestWithParam<const char*> {};

TEST_P(OwnCheck, a_new_loop_passes)
{
    const Job job = new_job(GetParam());
    expect_clean(job, job.variants[0], GetParam());
}

// Each answer by itself beside the likely ones, and all first and all last ones.
TEST_P(OwnCheck, every_answer_of_choosing_passes)
{
    const Job job = new_job(GetParam());
    const auto& all = questions();
    std::vector<Answers> tries{likely_answers(job, job.variants[0])};
    for (std::size_t q = 0; q < all.size(); ++q)
        for (std::size_t a = 0; a < all[q].answers.size(); ++a) {
            Answers one = tries.front();
            answer(one, q, a);
            // Frost that the person says never comes is on the third day all the same.
            if (q != 1 || a == 2)
                tries.push_back(one);
        }
    std::sort(tries.begin() + 1, tries.end(), [](const Answers& x, const Answers& y) { return std::tuple(x.pump, x.frost, x.power, x.heat, x.absence) < std::tuple(y.pump, y.frost, y.power, y.heat, y.absence); });
    tries.erase(std::unique(tries.begin(), tries.end()), tries.end());
    for (const Answers& a : tries) {
        Variant v = job.variants[0];
        take_all(choose_settings(job, v, a, {}), v);
        std::string code;
        for (std::size_t q = 0; q < all.size(); ++q)
            code += std::string(" ") + all[q].key + "=" + std::to_string(answered(a, q));
        expect_clean(job, v, GetParam() + code);
    }
}

// Any loop that may be put together; all 4062 of them were run once when it was written.
RC_GTEST_PROP(OwnCheckOfAll, any_loop_from_answers_passes, ())
{
    static const std::vector<LoopAnswers> all = all_answers();
    const LoopAnswers& answers = all[*rc::gen::inRange<std::size_t>(0, all.size())];
    const Job job = new_job(answers, *rc::gen::element(2, 3));
    RC_ASSERT(!job_problem(job));
    for (const Day& day : job.days) {
        CoupledOptions o;
        o.keep_records = false;
        const auto setup = coupled_setup(job, job.variants[0], day);
        RC_ASSERT(setup);
        const Figures f = run_coupled(*setup, o).figures;
        const double handled = f.heat.absorbed + std::fabs(f.heat.drawn) + std::fabs(f.heat.all_losses());
        RC_ASSERT(std::fabs(f.residual_j()) <= 1e-6 * handled);
        for (const Finding& found : findings({job, job.variants[0], &f, {}}))
            if (found.severity != Severity::note && !is_true_of_the_loop(found, answers))
                RC_FAIL(answers_text(answers) + ", " + day.name + ": " + found.title + ". " + found.reason);
    }
}

std::vector<const char*> every_key()
{
    std::vector<const char*> out;
    for (const Arrangement& a : presets())
        out.push_back(a.key.c_str());
    return out;
}
INSTANTIATE_TEST_SUITE_P(All, OwnCheck, testing::ValuesIn(every_key()), [](const auto& of) {
    std::string name = of.param;
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
});

} // namespace
