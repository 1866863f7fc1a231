// The shipped list of places.
#include "core/weather/zone.h"
#include "files/place_list.h"

#include <gtest/gtest.h>

#include <cmath>
#include <set>

using namespace vernal;

namespace {

TEST(PlaceList, every_place_lies_on_earth_and_keeps_a_known_time)
{
    std::set<std::string> zones, texts;
    for (const ListedPlace& p : listed_places()) {
        EXPECT_FALSE(p.name.empty() || p.country.empty());
        EXPECT_LE(std::fabs(p.place.latitude_deg), 85) << p.name;
        EXPECT_LE(std::fabs(p.place.longitude_deg), 180) << p.name;
        EXPECT_TRUE(texts.insert(p.text()).second) << p.text();
        zones.insert(p.place.zone);
    }
    EXPECT_GT(texts.size(), 7000U);
    for (const std::string& z : zones)
        EXPECT_TRUE(zone_known(z)) << z;
}

// A zone's January offset and the sun's own time at that longitude are never far apart.
TEST(PlaceList, zones_fit_the_longitudes)
{
    for (const ListedPlace& p : listed_places()) {
        Place at = p.place;
        at.daylight_saving = false;
        double apart = clock_ahead_h(at, 2026, 1, 15) - at.longitude_deg / 15;
        apart -= 24 * std::round(apart / 24); // beside the date line
        EXPECT_LT(std::fabs(apart), 4) << p.text();
    }
}

TEST(PlaceList, finds_by_beginning_country_and_without_accents)
{
    ASSERT_FALSE(find_places("zuri", 5).empty());
    EXPECT_EQ(find_places("ulm, germ", 5).at(0)->place.zone, "Europe/Berlin");
    EXPECT_NEAR(find_places("ulm, germ", 5).at(0)->place.latitude_deg, 48.4, 0.05);
    EXPECT_TRUE(find_places("", 5).empty());
    EXPECT_TRUE(find_places("no such town", 5).empty());
    EXPECT_EQ(find_places("a", 7).size(), 7U);
    for (const ListedPlace* p : {find_places("portland", 1).at(0), find_places("reykjav", 1).at(0)})
        EXPECT_EQ(find_places(p->text(), 1).at(0), p) << p->text();
}

} // namespace
