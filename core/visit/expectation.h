// What the loop should show at that hour: its heat under a clear sky, its gauge when cold.
#pragma once

#include "core/job/job.h"
#include "core/units/calendar.h"

namespace vernal {

// A cloudless day at the job's place on the variant's arrays.
class ClearDay {
public:
    ClearDay(const Job& job, const Variant& v, Day1970 date);
    // W at a minute of the clock's day, 0…1440; negative where more is lost than gained.
    double heat_w(std::size_t minute, double fluid_c, double air_c) const;
    double sun_w_m2(std::size_t minute) const; // on the first array

private:
    struct Array {
        Collector collector;
        std::vector<double> effective_w_m2;
    };
    std::vector<Array> arrays_;
    std::vector<double> plane_w_m2_;
};

// W that the arrays give under a cloudless sky at that moment by the clock, with so warm a
// fluid in them and such air: flux of ISO 9806 over the area. NaN: no sun, or not a moment.
double clear_sky_heat_w(const Job& job, const Variant& v, const std::string& when, double fluid_c, double air_c);

// Sun on the first array under a cloudless sky at that moment by the clock, W/m². NaN: not a moment.
double clear_sky_sun_w_m2(const Job& job, const Variant& v, const std::string& when);

// W that a flow carries with a rise: density and heat capacity of the loop's fluid at a temperature.
double carried_w(const Loop& loop, double flow_m3_s, double rise_k, double fluid_c);

// Pa above the air's that the gauge of a closed loop shows with all its fluid at one
// temperature, filled as stated at filled_c: fluid expands into the vessel's gas, which follows
// Boyle's law. NaN: no vessel. fill_pa: NaN, as stated for the loop.
double cold_gauge_pa(const Job& job, const Loop& loop, double at_c, double filled_c, double fill_pa = NAN);
inline constexpr double usual_fill_c = 15.0; // of the fluid, where no visit says it; an estimate

} // namespace vernal
