// What a new job begins with besides its loop: days and draws. Figures are those a
// technician can start from (estimates).
#include "fresh_loop.h"
#include "ids.h"

#include "core/weather/winter.h"

#include <cmath>

namespace vernal {
namespace {

Day generated(const char* name, int month, int day, Clouds clouds, double lo, double hi)
{
    Day d;
    d.name = name;
    d.sky.month = month;
    d.sky.day = day;
    d.sky.clouds = clouds;
    d.sky.seed = 11;
    d.sky.air_min_c = lo;
    d.sky.air_max_c = hi;
    d.draws = {{6.5, 900, 1e-4}, {18.0, 900, 1e-4}};
    return d;
}

} // namespace

// Household: 180 L of tempered water over a day, most of it in the morning and the
// evening; wash-down: two long draws. Estimates.
const std::vector<DrawProfile>& draw_profiles()
{
    static const std::vector<DrawProfile> table{
        {"household", {{6.5, 420, 1.1e-4}, {7.25, 360, 1.1e-4}, {12.5, 240, 8e-5}, {18.0, 300, 8e-5}, {20.5, 420, 1.1e-4}}},
        {"wash-down twice a day", {{6.0, 1200, 2.2e-4}, {17.5, 1200, 2.2e-4}}},
        {"none", {}},
    };
    return table;
}

namespace {

// Of a loop that keeps its water outdoors the last day is the coldest that its place has, so that frost is
// never hidden; one that drains or holds glycol is shown well below freezing anywhere.
void frosty_day_of(Day& day, const Place& place, const LoopAnswers& answers)
{
    if (answers.carrier != Carrier::water || answers.empties != Empties::full)
        return;
    constexpr double swing_k = 10; // of a clear day
    day.sky.air_min_c = std::round(coldest_winter_c(place));
    day.sky.air_max_c = day.sky.air_min_c + swing_k;
    day.name = day.sky.air_min_c <= 0 ? "Frosty day" : "Cold day";
}

} // namespace

int usual_probes(const LoopAnswers& answers) { return answers.power == PoweredBy::none ? 1 : 3; }

Job new_job(const LoopAnswers& answers, int probes)
{
    Job job;
    job.site.place = {46.0, 8.0, 400.0, 1.0};
    Variant v;
    fill_fresh(v, answers, probes > 0 ? probes : usual_probes(answers));
    sort_by_priority(v.unit.rules);
    job.variants = {v};
    job.days = {generated("Clear day", 6, 18, Clouds::clear, 11, 24), generated("Racing clouds", 4, 22, Clouds::racing, 6, 15),
        generated("Frosty day", 1, 16, Clouds::clear, -11, -1)};
    frosty_day_of(job.days.back(), job.site.place, answers);
    if (!arrangement_of(answers).has(Part::tank))
        for (Day& d : job.days)
            d.draws.clear();
    give_ids(job, NewFrom::file);
    return job;
}

void move_fresh_job(Job& job, const Place& place)
{
    job.site.place = place;
    frosty_day_of(job.days.back(), place, job.variants.front().loop.answers);
    if (place.latitude_deg >= 0)
        return;
    const auto turn = [](double& azimuth_deg) { azimuth_deg += azimuth_deg > 0 ? -180 : 180; };
    for (Variant& v : job.variants)
        for (double* azimuth : {&v.loop.collector.azimuth_deg, &v.loop.collector_2.azimuth_deg, &v.loop.panel.azimuth_deg})
            turn(*azimuth);
    for (Day& d : job.days)
        d.sky.month = (d.sky.month + 5) % 12 + 1;
}

Job new_job(const std::string& preset) { return new_job(preset_answers(preset)); }

} // namespace vernal
