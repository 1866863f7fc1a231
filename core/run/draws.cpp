#include "draws.h"

#include "core/plant/fluid.h"
#include "weather_at.h"

namespace vernal {

DrawNow draw_at(const DayForcing& day, double t, double top_c)
{
    static const Fluid water = glycol_water(0);
    DrawNow now;
    for (const Draw& d : day.draws)
        if (t >= d.begins_s() && t < d.ends_s())
            now.rate_w_k += d.flow_m3_s * water.density_kg_m3 * water.heat_capacity_j_kgk;
    now.needed_w = now.rate_w_k * (day.target_c - day.mains_c);
    if (top_c > day.target_c) // the tempering valve adds cold water
        now.rate_w_k *= (day.target_c - day.mains_c) / (top_c - day.mains_c);
    return now;
}

} // namespace vernal
