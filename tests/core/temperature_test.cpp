#include "core/units/field.h"
#include "core/units/temperature.h"

#include <gtest/gtest.h>

#include <concepts>

using namespace vernal;

namespace {

template <class A, class B>
concept Adds = requires(A a, B b)
{
    a + b;
};
template <class A, class B>
concept Assigns = requires(A a, B b)
{
    a = b;
};
template <class A, class B>
concept Compares = requires(A a, B b)
{
    a < b;
};

static_assert(Adds<Temperature, TempDiff>);
static_assert(!Adds<Temperature, Temperature>, "two temperatures do not add");
static_assert(!Assigns<Temperature&, TempDiff>, "a difference is no temperature");
static_assert(!Assigns<TempDiff&, Temperature>);
static_assert(!Compares<Temperature, TempDiff>);
static_assert(!Assigns<Temperature&, double>, "a bare number is neither");
static_assert(std::same_as<decltype(Temperature() - Temperature()), TempDiff>);

TEST(Temperature, fahrenheit_difference_has_no_offset)
{
    // 12 °F of difference is 6.7 K, not −11 °C (field practice; arithmetic).
    EXPECT_DOUBLE_EQ(TempDiff::fahrenheit(12).in_kelvin(), 20.0 / 3.0);
    EXPECT_NEAR(Temperature::fahrenheit(12).in_celsius(), -11.1111, 1e-4);
}

TEST(Temperature, fixed_points)
{
    EXPECT_DOUBLE_EQ(Temperature::fahrenheit(212).in_celsius(), 100);
    EXPECT_DOUBLE_EQ(Temperature::fahrenheit(-40).in_celsius(), -40);
    EXPECT_DOUBLE_EQ(Temperature::kelvin(273.15).in_celsius(), 0);
    EXPECT_DOUBLE_EQ((Temperature::celsius(60) - Temperature::celsius(20)).in_fahrenheit(), 72);
}

TEST(Quantity, shows_and_parses_each_unit)
{
    const Units si, other = Units::us();
    EXPECT_EQ(to_text(8, Quantity::difference, si), "8.0 K");
    EXPECT_EQ(to_text(8, Quantity::difference, other), "14.4 °F");
    EXPECT_EQ(to_text(60, Quantity::temperature, other), "140.0 °F");
    EXPECT_EQ(to_text(-0.01, Quantity::temperature, si), "0.0 °C");
    EXPECT_EQ(to_text(-5, Quantity::temperature, si), "−5.0 °C");
    EXPECT_EQ(to_text(0.3, Quantity::volume, other), "79.3 gal");
}

TEST(Quantity, large_energies_are_grouped_and_read_back)
{
    EXPECT_EQ(to_text(1234.56 * 3.6e6, Quantity::energy, Units::metric()), "1\u202f235 kWh");
    EXPECT_EQ(to_text(-1234567 * 3.6e6, Quantity::electricity, Units::us()), "−1\u202f234\u202f567 kWh");
    EXPECT_EQ(to_text(999.4 * 3.6e6, Quantity::energy, Units::metric()), "999 kWh");
    EXPECT_EQ(to_text(9.994 * 3.6e6, Quantity::energy, Units::metric()), "9.99 kWh");
    EXPECT_EQ(to_text(9.996 * 3.6e6, Quantity::energy, Units::metric()), "10.0 kWh");
    EXPECT_EQ(to_text(99.96 * 3.6e6, Quantity::energy, Units::metric()), "100 kWh");
    for (const double kwh : {1.0, 999.0, 1000.0, 45678.0, 1234567.0})
        for (const Units& u : {Units::metric(), Units::us()}) {
            const auto back = parse(to_text(kwh * 3.6e6, Quantity::electricity, u), Quantity::electricity, u);
            ASSERT_TRUE(back) << kwh << back.error().text();
            EXPECT_NEAR(*back / 3.6e6, kwh, 0.5);
        }
}

// Factors: NIST SP 811 (2008), appendix B.8 and B.9; BTU of the international table.
TEST(Quantity, us_units_of_heat)
{
    const Units us = Units::us();
    EXPECT_EQ(to_text(3.6e6, Quantity::energy, us), "3.41 kBTU");
    EXPECT_EQ(to_text(3.6e6, Quantity::electricity, us), "1.00 kWh");
    EXPECT_EQ(to_text(1000, Quantity::heat_rate, us), "3412 BTU/h");
    EXPECT_NEAR(to_display(11356530, Quantity::irradiation, us), 1, 1e-6); // J/m² of 1000 BTU/ft²
    EXPECT_EQ(to_text(1000, Quantity::irradiance, us), "317 BTU/(h·ft²)");
    EXPECT_NEAR(to_display(5.678263, Quantity::loss_linear, us), 1, 1e-6); // W/(m² K) of 1 BTU/(h ft² °F)
    EXPECT_NEAR(to_display(1.730735, Quantity::line_loss, us), 1, 1e-6);   // W/(m K) of 1 BTU/(h ft °F)
    EXPECT_NEAR(to_display(1899.101, Quantity::heat_capacity, us), 1, 1e-6);
    EXPECT_NEAR(to_display(0.5275279, Quantity::conductance, us), 1, 1e-6);
    EXPECT_EQ(to_text(2e5, Quantity::pressure, us), "29.0 psi");
    // One's own mix: each pair for itself.
    Units mixed;
    mixed.psi = true;
    EXPECT_EQ(to_text(2e5, Quantity::pressure, mixed), "29.0 psi");
    EXPECT_EQ(to_text(0.3, Quantity::volume, mixed), "300 L");
    EXPECT_EQ(to_text(20, Quantity::temperature, mixed), "20.0 °C");
}

TEST(Quantity, a_field_without_a_value_says_so_in_every_unit)
{
    const NumberField rated{"rated_c", "It bears up to", Quantity::temperature, 0, 600, "", "not stated"};
    for (const Units& u : {Units::metric(), Units::us()}) {
        EXPECT_EQ(field_text(rated, 0, u), "not stated");
        EXPECT_EQ(*parse_field(rated, "not stated", u), 0);
        EXPECT_EQ(*parse_field(rated, "", u), 0);
        EXPECT_NEAR(*parse_field(rated, field_text(rated, 90, u), u), 90, 1e-9);
    }
    const auto wide = parse_field(rated, "700", {});
    ASSERT_FALSE(wide);
    EXPECT_NE(wide.error().text().find("between 0.0 °C and 600.0 °C"), std::string::npos);
    const NumberField plain{"x", "X", Quantity::temperature, -10, 10};
    EXPECT_EQ(field_text(plain, 0, Units::us()), "32.0 °F");
    EXPECT_FALSE(parse_field(plain, "", {}));
}

TEST(Quantity, typed_unit_wins_over_the_shown_one)
{
    const Units si, other = Units::us();
    EXPECT_NEAR(*parse("140 °F", Quantity::temperature, si), 60, 1e-12);
    EXPECT_NEAR(*parse("8 K", Quantity::difference, other), 8, 1e-12);
    EXPECT_NEAR(*parse("9", Quantity::difference, other), 5, 1e-12);
    EXPECT_NEAR(*parse("8,5", Quantity::difference, si), 8.5, 1e-12);
    EXPECT_NEAR(*parse("−3.5 K", Quantity::difference, si), -3.5, 1e-12);
}

TEST(Quantity, refuses_what_it_cannot_read)
{
    for (const char* bad : {"", "abc", "8 8", "5 L", "nan", "1e999"})
        EXPECT_FALSE(parse(bad, Quantity::difference, {})) << bad;
    EXPECT_NE(parse("5 L", Quantity::difference, {}).error().text().find("Use K"), std::string::npos);
}

TEST(Quantity, what_its_unit_takes_beyond_all_bounds_is_no_number)
{
    for (const char* bad : {"-9E3awg", "9e3 AWG", "61 AWG"})
        EXPECT_FALSE(parse(bad, Quantity::wire, {})) << bad;
    EXPECT_FALSE(parse("1e308", Quantity::energy, {}));
    EXPECT_FALSE(parse("1e308 kΩ", Quantity::resistance, {}));
    EXPECT_FALSE(parse("9000", Quantity::wire, Units::us()));
    EXPECT_NEAR(*parse("14 AWG", Quantity::wire, {}) * 1e6, 2.08, 0.005); // ASTM B258, table 1 (from memory)
}

TEST(Quantity, text_reads_back_for_every_quantity)
{
    for (const Units u : {Units::metric(), Units::us()})
        for (int q = 0; q <= static_cast<int>(Quantity::altitude); ++q) {
            const auto quantity = static_cast<Quantity>(q);
            const double x = from_display(12.0, quantity, u);
            const auto back = parse(to_text(x, quantity, u), quantity, u);
            ASSERT_TRUE(back) << q;
            EXPECT_NEAR(to_display(*back, quantity, u), 12.0, 1e-9) << q;
        }
}

} // namespace
