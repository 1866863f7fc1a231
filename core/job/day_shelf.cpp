#include "day_shelf.h"

#include <algorithm>

namespace vernal {
namespace {

Day on(int month, int day, Clouds clouds, double coldest_c, double warmest_c, int length_days = 1)
{
    Day d;
    d.sky.month = month;
    d.sky.day = day;
    d.sky.clouds = clouds;
    d.sky.seed = 23;
    d.sky.air_min_c = coldest_c;
    d.sky.air_max_c = warmest_c;
    d.length_days = length_days;
    return d;
}

Day best()
{
    Day d = on(5, 24, Clouds::clear, 9, 21);
    d.sky.haze = Haze::mountain;
    return d;
}

Day hard_frost()
{
    Day d = on(1, 21, Clouds::clear, -17, -5);
    d.sky.wind_m_s = 1;
    return d;
}

Day thaw()
{
    Day d = on(2, 13, Clouds::broken, -3, 7);
    d.sky.snow_until_h = 11.5;
    return d;
}

Day fortnight()
{
    Day d = on(7, 6, Clouds::clear, 15, 28, 16);
    d.away_from = 2;
    d.away_days = 14;
    return d;
}

Day weekend()
{
    Day d = on(5, 15, Clouds::clear, 8, 20, 3); // a Friday in 2026
    d.away_from = 2;
    d.away_days = 2;
    return d;
}

Day late_shade()
{
    Day d = on(9, 19, Clouds::clear, 9, 19);
    d.shades = {{14.75, 17.5, 0.1}};
    return d;
}

Day outage()
{
    Day d = on(7, 3, Clouds::clear, 16, 29);
    d.outage_start_h = 12;
    d.outage_h = 3;
    return d;
}

Day holiday()
{
    Day d = on(8, 3, Clouds::broken, 13, 25, 21);
    d.away_from = 8;
    d.away_days = 7;
    return d;
}

Day guests()
{
    Day d = on(6, 5, Clouds::broken, 11, 22, 4);
    d.guests_from = 2;
    d.guests_days = 2;
    return d;
}

Day first_fill()
{
    Day d = on(4, 9, Clouds::clear, 4, 14);
    d.begins = Begins::cold;
    return d;
}

} // namespace

const std::vector<ReadyDay>& ready_days()
{
    static const std::vector<ReadyDay> table{
        {"best", "Best day", "What the loop can give at all, and whether a limit stands in its way", best},
        {"racing-clouds", "Racing clouds", "How often the pump starts", [] { return on(4, 23, Clouds::racing, 6, 15); }},
        {"short-winter", "Short winter day", "When the pump starts with the sun low, and whether it pays", [] { return on(12, 15, Clouds::clear, -4, 3); }},
        {"hard-frost", "Hard clear frost", "What freezes first, and what keeps it from that", hard_frost},
        {"thaw", "Thaw", "Snow on the glass until nearly noon, then broken sun", thaw},
        {"fortnight-away", "Fortnight away in July", "Limits, stagnation, cooler: nobody draws for two weeks", fortnight},
        {"weekend-away", "Weekend without a draw", "How hot the tank is on Sunday evening", weekend},
        {"late-shade", "Late shade", "A tree takes the afternoon", late_shade},
        {"mains-failure", "Mains failure at noon", "What gets hot while nothing runs, and how it starts again", outage},
        {"dark-days", "Three dark days", "How long a battery and a tank last", [] { return on(11, 23, Clouds::overcast, 2, 6, 3); }},
        {"around-holiday", "Week before and after a holiday", "Three weeks, the middle one without a draw", holiday},
        {"guests", "Guests for two days", "Twice the draw: whether the backup is needed", guests},
        {"thin-haze", "Thin high haze", "A weak sun all day: the smallest rise that must still pay", [] { return on(3, 18, Clouds::thin, 3, 13); }},
        {"fog", "Fog until ten", "A late start that is none of the controller's", [] { return on(10, 13, Clouds::fog, 4, 14); }},
        {"thunder", "Thunder at four", "A hot collector that goes dark within minutes", [] { return on(7, 18, Clouds::thunder, 17, 31); }},
        {"first-fill", "First fill", "The tank filled cold this morning", first_fill},
    };
    return table;
}

const ReadyDay* find_ready_day(const std::string& key)
{
    const auto& all = ready_days();
    const auto it = std::find_if(all.begin(), all.end(), [&](const ReadyDay& r) { return r.key == key; });
    return it == all.end() ? nullptr : &*it;
}

Day ready_day(const ReadyDay& ready, const Job& job)
{
    Day d = ready.made();
    d.name = ready.title;
    for (const Day& like : job.days)
        if (like.kind == DayKind::generated) {
            d.draws = like.draws;
            d.mains_c = like.mains_c;
            d.draw_target_c = like.draw_target_c;
            d.sky.year = like.sky.year;
            break;
        }
    if (job.site.place.latitude_deg < 0)
        d.sky.month = (d.sky.month + 5) % 12 + 1;
    return d;
}

} // namespace vernal
