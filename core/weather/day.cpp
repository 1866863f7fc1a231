#include "measured.h"

#include "core/units/constants.h"

#include "zone.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

// splitmix64 (Steele, Lea & Flood, OOPSLA 2014): the same numbers everywhere,
// which the standard library's distributions do not promise.
class Seeded {
public:
    explicit Seeded(std::uint64_t seed) : x_(seed) {}
    double uniform()
    {
        x_ += 0x9e3779b97f4a7c15ULL;
        std::uint64_t z = x_;
        z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ULL;
        z = (z ^ (z >> 27)) * 0x94d049bb133111ebULL;
        return static_cast<double>((z ^ (z >> 31)) >> 11) * 0x1.0p-53;
    }
    double between(double a, double b) { return a + (b - a) * uniform(); }
    double exponential(double mean) { return -mean * std::log(1.0 - uniform()); }

private:
    std::uint64_t x_;
};

struct CloudStyle {
    double clear_min, cloud_min; // mean minutes of sun and of shade
    double beam_lo, beam_hi;     // what a cloud leaves of the beam
    double diffuse_gain;         // diffuse under a cloud over the clear day's
};

CloudStyle style_of(Clouds c)
{
    switch (c) {
    case Clouds::racing: return {7, 4, 0.05, 0.35, 1.5};
    case Clouds::broken: return {35, 30, 0.0, 0.25, 1.7};
    case Clouds::overcast: return {0, 60, 0.0, 0.02, 1.6};
    case Clouds::clear:
    case Clouds::thin:
    case Clouds::fog:
    case Clouds::thunder: break;
    }
    return {1e9, 0, 1, 1, 1};
}

struct CloudFactor {
    double beam = 1, diffuse = 1, cover = 0;
    double beside = 0; // of the clear sky's global irradiance, thrown over by the edge of a cloud
};

// Alternating sun and shade of exponential length.
std::vector<CloudFactor> drifting(Clouds clouds, std::uint32_t seed)
{
    const CloudStyle style = style_of(clouds);
    std::vector<CloudFactor> out(minutes_per_day + 1);
    if (clouds == Clouds::clear)
        return out;
    Seeded random(seed * 7919ULL + static_cast<std::uint64_t>(clouds));
    double at = style.clear_min > 0 ? random.exponential(style.clear_min) : 0;
    while (at <= minutes_per_day) {
        const double until = at + std::max(1.0, random.exponential(style.cloud_min));
        const CloudFactor f{random.between(style.beam_lo, style.beam_hi), random.between(1.0, style.diffuse_gain), 1.0};
        for (int m = static_cast<int>(std::ceil(at)); m <= minutes_per_day && m < until; ++m)
            out[static_cast<std::size_t>(m)] = f;
        at = until + (style.clear_min > 0 ? std::max(1.0, random.exponential(style.clear_min)) : 0);
    }
    // Bright edges beside the sun throw more over for a minute or two, up to a third of the clear
    // sky's (Yordanov et al., IEEE J. Photovoltaics 3 (2013) 271, from memory); an estimate of the usual.
    constexpr double thrown_over = 0.15;
    if (style.clear_min > 0)
        for (std::size_t m = 0; m < out.size(); ++m) {
            const bool edge = (m > 0 && out[m - 1].cover > 0) || (m + 1 < out.size() && out[m + 1].cover > 0);
            if (edge && out[m].cover <= 0)
                out[m].beside = thrown_over;
        }
    return out;
}

CloudFactor between(const CloudFactor& a, const CloudFactor& b, double share)
{
    return {std::lerp(a.beam, b.beam, share), std::lerp(a.diffuse, b.diffuse, share), std::lerp(a.cover, b.cover, share), std::lerp(a.beside, b.beside, share)};
}

// Ice cloud that thickens and thins over half hours: a half to nearly all of the beam; estimates.
std::vector<CloudFactor> thin_haze(std::uint32_t seed)
{
    constexpr int knot_min = 30;
    Seeded random(seed * 7919ULL + static_cast<std::uint64_t>(Clouds::thin));
    std::vector<CloudFactor> knots, out;
    for (int m = 0; m <= minutes_per_day + knot_min; m += knot_min) {
        const double left = random.between(0.5, 0.85);
        knots.push_back({left, 1 + 1.2 * (1 - left), 0.4, 0.1 * (1 - left)});
    }
    for (int m = 0; m <= minutes_per_day; ++m)
        out.push_back(between(knots[static_cast<std::size_t>(m / knot_min)], knots[static_cast<std::size_t>(m / knot_min + 1)], m % knot_min / static_cast<double>(knot_min)));
    return out;
}

// A quarter of the clear sky's global light comes through a layer of fog, from all sides; it lifts
// within half an hour; estimates.
constexpr CloudFactor in_fog{0, 0, 1, 0.25};
constexpr double lifting_h = 0.5;
// Under a thunderstorm an eighth of it; how long it is dark, how long towers build before it, by how
// much and how fast the air falls, and how fast it comes back; estimates.
constexpr CloudFactor in_storm{0, 0, 1, 0.12};
constexpr double storm_h = 1.5, towers_h = 2.0, storm_drop_k = 6.0, drop_h = 1.0 / 3, back_k_h = 2.0;

std::vector<CloudFactor> cloud_factors(const SkySpec& spec)
{
    if (spec.clouds == Clouds::thin)
        return thin_haze(spec.seed);
    if (spec.clouds != Clouds::fog && spec.clouds != Clouds::thunder)
        return drifting(spec.clouds, spec.seed);
    std::vector<CloudFactor> out(minutes_per_day + 1);
    const bool storm = spec.clouds == Clouds::thunder;
    const auto before = drifting(Clouds::racing, spec.seed), after = drifting(Clouds::broken, spec.seed);
    for (std::size_t m = 0; m < out.size(); ++m) {
        const double hour = static_cast<double>(m) / 60.0;
        if (!storm)
            out[m] = between(in_fog, {}, std::clamp((hour - spec.fog_until_h) / lifting_h + 1, 0.0, 1.0));
        else if (hour >= spec.thunder_at_h)
            out[m] = hour < spec.thunder_at_h + storm_h ? in_storm : after[m];
        else if (hour >= spec.thunder_at_h - towers_h)
            out[m] = before[m];
    }
    return out;
}

double storm_cools_k(const SkySpec& spec, double hour)
{
    const double since = hour - spec.thunder_at_h;
    if (spec.clouds != Clouds::thunder || since <= 0)
        return 0;
    return std::min(storm_drop_k * std::min(1.0, since / drop_h), std::max(0.0, storm_drop_k - back_k_h * (since - storm_h)));
}

// Half cosine up from 05:00 to 15:00, half cosine down to 05:00.
double air_at(const SkySpec& s, double hour)
{
    const double mean = 0.5 * (s.air_min_c + s.air_max_c), swing = 0.5 * (s.air_max_c - s.air_min_c);
    const double since = hour >= 5 ? hour - 5 : hour + 19;
    const double phase = since <= 10 ? since / 10 : 1 + (since - 10) / 14;
    return mean - swing * std::cos(std::numbers::pi * phase);
}

double erbs_diffuse_share(double kt)
{
    if (kt <= 0.22)
        return 1.0 - 0.09 * kt;
    if (kt > 0.8)
        return 0.165;
    return 0.9511 - 0.1604 * kt + 4.388 * kt * kt - 16.638 * kt * kt * kt + 12.336 * kt * kt * kt * kt;
}

} // namespace

double linke_turbidity(Haze haze)
{
    switch (haze) {
    case Haze::mountain: return 2.0;
    case Haze::usual: break;
    case Haze::hazy: return 4.5;
    case Haze::smoke: return 7.0; // estimate
    }
    return 3.0;
}

SkyDay generate(const SkySpec& spec, const Place& place)
{
    const auto clouds = cloud_factors(spec);
    const int doy = day_of_year(spec.year, spec.month, spec.day);
    const double midnight = days_since_j2000(spec.year, spec.month, spec.day, -clock_ahead_h(place, spec.year, spec.month, spec.day));
    SkyDay d;
    d.wind_m_s = spec.wind_m_s;
    d.snow_until_h = spec.snow_until_h;
    for (std::size_t m = 0; m <= minutes_per_day; ++m) {
        const SunPosition sun = sun_position(place, midnight + static_cast<double>(m) / minutes_per_day);
        const Irradiance clear = clear_sky(sun, place.altitude_m, doy, linke_turbidity(spec.haze));
        const double global = clear.beam_normal_w_m2 * std::cos(sun.zenith_deg * degree_rad) + clear.diffuse_horizontal_w_m2;
        const double air = air_at(spec, static_cast<double>(m) / 60.0) - storm_cools_k(spec, static_cast<double>(m) / 60.0);
        d.sun.push_back(sun);
        d.beam_normal_w_m2.push_back(clear.beam_normal_w_m2 * clouds[m].beam);
        d.diffuse_horizontal_w_m2.push_back(clear.diffuse_horizontal_w_m2 * clouds[m].diffuse + clouds[m].beside * std::max(0.0, global));
        d.air_c.push_back(air);
        d.sky_c.push_back(std::lerp(clear_sky_temperature_c(air), air - 1.0, clouds[m].cover));
    }
    return d;
}

double through_snow(double snow_until_h, double hour)
{
    constexpr double through = 0.05, slides_h = 0.5; // estimates
    return snow_until_h <= 0 ? 1.0 : std::lerp(through, 1.0, std::clamp((hour - snow_until_h) / slides_h, 0.0, 1.0));
}

void override_air(SkyDay& day, const std::vector<double>& time_s, const std::vector<double>& air_c)
{
    for (std::size_t m = 0; m < day.air_c.size(); ++m) {
        const double depression = day.air_c[m] - day.sky_c[m];
        day.air_c[m] = interpolated(time_s, air_c, 60.0 * static_cast<double>(m));
        day.sky_c[m] = day.air_c[m] - depression;
    }
}

void override_global(SkyDay& day, const SkySpec& spec, const MeasuredSeries& global_w_m2)
{
    const std::vector<double> by_minute = irradiance_by_minute(day, global_w_m2);
    const int doy = day_of_year(spec.year, spec.month, spec.day);
    const double normal = 1367.0 * (1.0 + 0.033 * std::cos(360.0 * doy / 365.0 * degree_rad));
    for (std::size_t m = 0; m < day.air_c.size(); ++m) {
        const double g = by_minute[m];
        const double cos_z = std::cos(day.sun[m].zenith_deg * degree_rad);
        const double share = cos_z > 0.02 ? erbs_diffuse_share(g / (normal * cos_z)) : 1.0;
        day.diffuse_horizontal_w_m2[m] = g * share;
        day.beam_normal_w_m2[m] = cos_z > 0.02 ? std::min(normal, g * (1 - share) / cos_z) : 0.0;
    }
}

PlaneDay on_collector(const SkyDay& day, double tilt_deg, double azimuth_deg, double iam_b0, double iam_diffuse)
{
    PlaneDay out;
    for (std::size_t m = 0; m < day.sun.size(); ++m) {
        const Irradiance sky{day.beam_normal_w_m2[m], day.diffuse_horizontal_w_m2[m]};
        const PlaneIrradiance p = on_plane(sky, day.sun[m], tilt_deg, azimuth_deg);
        const double cos_i = std::cos(p.incidence_deg * degree_rad);
        const double iam = cos_i > 0.05 ? std::clamp(1 - iam_b0 * (1 / cos_i - 1), 0.0, 1.0) : 0.0;
        out.plane_w_m2.push_back(p.beam_w_m2 + p.diffuse_w_m2);
        out.effective_w_m2.push_back(p.beam_w_m2 * iam + p.diffuse_w_m2 * iam_diffuse);
    }
    return out;
}

} // namespace vernal
