#include "core/probe/fit.h"
#include "core/probe/identify.h"

#include <gsl/gsl_multifit.h>
#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

std::vector<CurvePoint> points_of(const std::string& curve, std::initializer_list<double> temps)
{
    std::vector<CurvePoint> out;
    for (double t : temps)
        out.push_back({t, *signal_at(*parse_curve(curve), Temperature::celsius(t))});
    return out;
}

// Least squares by the GNU Scientific Library, as an independent second opinion.
std::vector<double> gsl_fit(const std::vector<CurvePoint>& points, FitLaw law)
{
    const std::size_t n = points.size(), m = law == FitLaw::beta ? 2 : 3;
    gsl_matrix* a = gsl_matrix_alloc(n, m);
    gsl_vector *y = gsl_vector_alloc(n), *x = gsl_vector_alloc(m);
    gsl_matrix* cov = gsl_matrix_alloc(m, m);
    for (std::size_t i = 0; i < n; ++i) {
        const double l = std::log(points[i].ohm), inverse = 1 / (points[i].temp_c + 273.15);
        gsl_matrix_set(a, i, 0, 1);
        gsl_matrix_set(a, i, 1, law == FitLaw::beta ? inverse - 1 / 298.15 : l);
        if (m == 3)
            gsl_matrix_set(a, i, 2, l * l * l);
        gsl_vector_set(y, i, law == FitLaw::beta ? l : inverse);
    }
    gsl_multifit_linear_workspace* w = gsl_multifit_linear_alloc(n, m);
    double chi = 0;
    gsl_multifit_linear(a, y, x, cov, &chi, w);
    std::vector<double> out;
    for (std::size_t i = 0; i < m; ++i)
        out.push_back(gsl_vector_get(x, i));
    for (std::size_t i = 0; i < m; ++i)
        out.push_back(std::sqrt(gsl_matrix_get(cov, i, i)));
    gsl_multifit_linear_free(w);
    gsl_matrix_free(a);
    gsl_matrix_free(cov);
    gsl_vector_free(y);
    gsl_vector_free(x);
    return out;
}

std::vector<CurvePoint> measured(const std::string& curve, int n)
{
    std::vector<CurvePoint> out;
    for (int i = 0; i < n; ++i) {
        const double t = -5 + 100.0 * i / n + *rc::gen::inRange(0, 500) / 100.0;
        const double noise = 1 + *rc::gen::inRange(-100, 101) / 20000.0;
        out.push_back({t, *signal_at(*parse_curve(curve), Temperature::celsius(t)) * noise});
    }
    return out;
}

RC_GTEST_PROP(Fit, beta_agrees_with_gsl, ())
{
    const auto points = measured("ntc:r25=5000,beta=3700", *rc::gen::inRange(3, 30));
    const auto f = fit_curve(points, FitLaw::beta);
    RC_ASSERT(static_cast<bool>(f));
    const auto& c = std::get<NtcBetaCurve>(f->curve.law);
    const auto g = gsl_fit(points, FitLaw::beta);
    RC_ASSERT(std::fabs(std::log(c.r25_ohm) - g[0]) < 1e-10);
    RC_ASSERT(std::fabs(c.beta_k - g[1]) < 1e-6 * g[1]);
    RC_ASSERT(std::fabs(f->sigma[0] - g[2] * c.r25_ohm) < 1e-5 * c.r25_ohm * g[2] + 1e-9);
    RC_ASSERT(std::fabs(f->sigma[1] - g[3]) < 1e-5 * g[3] + 1e-6);
}

RC_GTEST_PROP(Fit, three_terms_agree_with_gsl, ())
{
    const auto points = measured("abc:0.001129148,0.000234125,8.76741e-08", *rc::gen::inRange(5, 30));
    const auto f = fit_curve(points, FitLaw::three_term);
    if (!f)
        return; // noise has turned the curve back: told, not hidden
    const auto& c = std::get<NtcThreeTermCurve>(f->curve.law);
    const auto g = gsl_fit(points, FitLaw::three_term);
    RC_ASSERT(std::fabs(c.a - g[0]) < 1e-7 * std::fabs(g[0]) + 1e-12);
    RC_ASSERT(std::fabs(c.b - g[1]) < 1e-7 * std::fabs(g[1]) + 1e-13);
    RC_ASSERT(std::fabs(c.c - g[2]) < 1e-6 * std::fabs(g[2]) + 1e-15);
}

TEST(Fit, exact_points_are_hit)
{
    const auto beta = fit_curve(points_of("ntc:r25=3000,beta=3892", {0, 25, 60}), FitLaw::beta);
    ASSERT_TRUE(beta);
    EXPECT_NEAR(std::get<NtcBetaCurve>(beta->curve.law).beta_k, 3892, 1e-6);
    EXPECT_NEAR(std::get<NtcBetaCurve>(beta->curve.law).r25_ohm, 3000, 1e-6);
    EXPECT_LT(beta->rms_k, 1e-8);
    EXPECT_FALSE(beta->suspect);
    // Steinhart & Hart's form through three points is the linear system's solution.
    const auto points = points_of("table:0=32650,25=10000,50=3602,100=678.3", {0, 25, 100});
    const auto three = fit_curve(points, FitLaw::three_term);
    const auto through = three_term_through(points[0], points[1], points[2]);
    ASSERT_TRUE(three && through);
    EXPECT_NEAR(std::get<NtcThreeTermCurve>(three->curve.law).a, through->a, 1e-12);
    EXPECT_NEAR(std::get<NtcThreeTermCurve>(three->curve.law).c, through->c, 1e-15);
}

// The trade's 5 kΩ service chart, rounded: 5.0 k at 70 °F, 3.3 k at 90, 2.2 k at
// 110, 1.4 k at 130. Common practice, no source.
std::vector<CurvePoint> service_chart()
{
    std::vector<CurvePoint> out;
    for (const auto& [f, ohm] : {std::pair{70.0, 5000.0}, {90.0, 3300.0}, {110.0, 2200.0}, {130.0, 1400.0}})
        out.push_back({Temperature::fahrenheit(f).in_celsius(), ohm});
    return out;
}

TEST(ServiceChart, leaving_one_out_names_its_130_degree_point)
{
    const auto f = fit_curve(service_chart(), FitLaw::beta);
    ASSERT_TRUE(f);
    ASSERT_TRUE(f->suspect);
    EXPECT_EQ(*f->suspect, 3u);
    ASSERT_EQ(f->left_out_rms.size(), 4u);
    EXPECT_NEAR(f->left_out_rms[3], 0.005, 0.0006);
    for (std::size_t i : {0u, 1u, 2u}) {
        EXPECT_GT(f->left_out_rms[i], 0.0175);
        EXPECT_LT(f->left_out_rms[i], 0.0265);
    }
    const auto largest = std::max_element(f->residual_k.begin(), f->residual_k.end(), [](double a, double b) { return std::fabs(a) < std::fabs(b); });
    EXPECT_EQ(largest - f->residual_k.begin(), 2) << "the plain residual would mislead to 110 °F";
    EXPECT_NEAR(std::get<NtcBetaCurve>(f->curve.law).r25_ohm, 4300, 60) << "no nominal 5 kΩ curve";
}

TEST(ServiceChart, three_terms_of_four_points_name_no_one)
{
    const auto f = fit_curve(service_chart(), FitLaw::three_term);
    EXPECT_TRUE(!f || !f->suspect);
}

TEST(ServiceChart, interval_betas_jump_at_the_last_point)
{
    const auto p = service_chart();
    const double expected[] = {3360, 3527, 4217};
    for (std::size_t i = 0; i < 3; ++i)
        EXPECT_NEAR(std::log(p[i].ohm / p[i + 1].ohm) / (1 / (p[i].temp_c + 273.15) - 1 / (p[i + 1].temp_c + 273.15)), expected[i], 1);
}

TEST(Fit, a_single_wrong_point_is_named_and_a_clean_set_is_left_alone)
{
    auto points = points_of("ntc:r25=10000,beta=3950", {0, 20, 40, 60, 80});
    EXPECT_FALSE(fit_curve(points, FitLaw::beta)->suspect);
    points[2].ohm *= 1.08;
    EXPECT_EQ(fit_curve(points, FitLaw::beta)->suspect, std::optional<std::size_t>(2));
}

TEST(Fit, says_what_is_wrong_with_the_points)
{
    const auto text = [](const std::vector<CurvePoint>& p, FitLaw law = FitLaw::beta) {
        const auto f = fit_curve(p, law);
        return f ? std::string("fitted") : f.error().text();
    };
    EXPECT_NE(text({{25, 10000}}).find("too few points"), std::string::npos);
    EXPECT_NE(text({{25, 10000}, {25, 9990}}).find("only 1 different temperature"), std::string::npos);
    EXPECT_NE(text({{25, 10000}, {50, -3}}).find("point 2: a resistance must be above zero"), std::string::npos);
    EXPECT_NE(text({{25, 10000}, {50, 3600}}, FitLaw::three_term).find("3 temperatures"), std::string::npos);
    EXPECT_NE(text({{0, 1000}, {100, 1385}}).find("rises"), std::string::npos);
    EXPECT_NE(text({{-300, 1000}, {100, 1385}}).find("not possible"), std::string::npos);
}

NamedCurve entry(const char* key, const char* text, double r_share = 0.01)
{
    NamedCurve c{key, key, "", *parse_curve(text), {}, 0};
    c.tolerance.kind = ToleranceKind::percent;
    c.tolerance.r_share = r_share;
    return c;
}
const CurveBook small_book{entry("pt1000", "pt1000"), entry("a", "ntc:r25=10000,beta=3950"), entry("b", "ntc:r25=10000,beta=3435"), entry("five", "ntc:r25=5000,beta=3950"), entry("mA", "line:mA=4..20,c=0..100")};

TEST(Identify, ranks_and_says_when_only_one_fits)
{
    const auto r = identify(points_of("ntc:r25=10000,beta=3435", {0, 60}), small_book);
    ASSERT_TRUE(r);
    EXPECT_EQ(small_book[r->matches.front().curve].key, "b");
    EXPECT_EQ(r->alike, 1u);
    EXPECT_EQ(r->matches.size(), 4u) << "a straight signal has no ohms";
    EXPECT_NE(r->advice.find("Only b fits"), std::string::npos);
    EXPECT_TRUE(std::isinf(r->matches.back().rms_k)) << "platinum cannot give such ohms";
}

TEST(Identify, is_honest_about_what_the_points_cannot_tell)
{
    const auto r = identify(points_of("ntc:r25=10000,beta=3950", {24, 27}), small_book);
    ASSERT_TRUE(r);
    EXPECT_EQ(r->alike, 2u);
    EXPECT_GT(std::fabs(r->ask_c - 25), 40) << "far from where both agree";
    EXPECT_GT(r->ask_k, 1);
    EXPECT_NE(r->advice.find("would tell them apart"), std::string::npos);
}

TEST(Identify, says_when_none_fits)
{
    const auto r = identify({{0, 100000}, {60, 9000}}, small_book);
    ASSERT_TRUE(r);
    EXPECT_EQ(r->alike, 0u);
    EXPECT_NE(r->advice.find("No known curve fits"), std::string::npos);
    EXPECT_FALSE(identify({{25, 10000}}, small_book));
    EXPECT_FALSE(identify({{25, 10000}, {25, 10010}}, small_book));
}

RC_GTEST_PROP(Identify, points_within_tolerance_keep_their_own_curve_possible, ())
{
    const std::size_t own = *rc::gen::inRange<std::size_t>(0, 4);
    std::vector<CurvePoint> points;
    const double off = *rc::gen::inRange(-100, 101) / 10000.0; // of R, within its tolerance
    for (double t : {2.0, 31.0, 74.0})
        points.push_back({t + *rc::gen::inRange(-40, 41) / 100.0, signal_beyond(small_book[own].curve, t) * (1 + off)});
    const auto r = identify(points, small_book);
    RC_ASSERT(static_cast<bool>(r));
    for (const Match& m : r->matches)
        if (m.curve == own)
            RC_ASSERT(m.possible);
}

} // namespace
