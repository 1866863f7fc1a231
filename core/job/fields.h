// The fields of every value in a job, stated once: key in the file, label in
// the window, quantity, range, and what is typical and where that comes from.
// Readers, writers, the schema and the editors are visitors of these functions.
//
// A visitor has: number, integer, text, boolean, choice, temperature,
// difference, curve, object, list, alternatives; spare_object, spare_list, words (a list of
// texts) and spare_choice for what most files leave out.
#pragma once

#include "core/probe/identify.h"
#include "job.h"
#include "logbook_fields.h"
#include "loop_fields.h"
#include "probe_fields.h"
#include "rule_fields.h"

#include <array>

namespace vernal {

template <class V, OneOf<Variant> T>
void fields(V& v, T& x)
{
    v.id("id", x.id);
    v.text("name", x.name);
    v.object("loop", x.loop);
    v.list("probes", x.probes);
    v.object("unit", x.unit);
    v.spare_object("input", x.input);
    v.spare_object("knob", x.unit.knob);
    v.spare_list("horizon", x.horizon);
}

template <class V, OneOf<Place> T>
void fields(V& v, T& p)
{
    v.number({"latitude_deg", "Latitude", Quantity::angle, -90, 90, ""}, p.latitude_deg);
    v.number({"longitude_deg", "Longitude", Quantity::angle, -180, 180, ""}, p.longitude_deg);
    v.number({"altitude_m", "Altitude", Quantity::altitude, -400, 6000, ""}, p.altitude_m);
    v.number({"utc_offset_h", "Clock ahead of UTC", Quantity::hours, -12, 14, "Where no zone is stated"}, p.utc_offset_h);
    v.text("zone", p.zone);
    v.boolean({"daylight_saving", "Clock is put forward in summer", "Where its zone does so; many units keep winter time"}, p.daylight_saving);
}

template <class V, OneOf<Site> T>
void fields(V& v, T& s)
{
    v.text("name", s.name);
    v.text("customer", s.customer);
    v.object("place", s.place);
}

template <class V, OneOf<SkySpec> T>
void fields(V& v, T& s)
{
    v.integer("year", 1950, 2050, s.year);
    v.integer("month", 1, 12, s.month);
    v.integer("day", 1, 31, s.day);
    static constexpr std::array clouds{"clear", "racing", "broken", "overcast", "thin", "fog", "thunder"};
    v.choice("clouds", clouds, s.clouds);
    static constexpr std::array air{"mountain", "usual", "hazy", "smoke"};
    v.choice("haze", air, s.haze);
    v.integer("seed", 0, 1000000, s.seed);
    v.number({"air_min_c", "Coldest air", Quantity::temperature, -60, 50, ""}, s.air_min_c);
    v.number({"air_max_c", "Warmest air", Quantity::temperature, -60, 60, ""}, s.air_max_c);
    v.number({"fog_until_h", "Fog lifts at", Quantity::time_of_day, 0, 24, ""}, s.fog_until_h);
    v.number({"thunder_at_h", "Thunder at", Quantity::time_of_day, 0, 24, ""}, s.thunder_at_h);
    v.number({"snow_until_h", "Snow on the glass until", Quantity::time_of_day, 0, 24, "It lets next to nothing through and then slides off", "none"}, s.snow_until_h);
    v.number({"wind_m_s", "Wind at the array", Quantity::speed, 0, 30, "1 on a calm night, 3 to 5 in wind; the calmer, the colder a collector gets (estimate)"}, s.wind_m_s);
}

template <class V, OneOf<HorizonPoint> T>
void fields(V& v, T& p)
{
    v.number({"azimuth_deg", "Azimuth, west of south", Quantity::angle, -180, 180, "0 is south, −90 east, 90 west"}, p.azimuth_deg);
    v.number({"height_deg", "Height above level", Quantity::angle, 0, 90, "By clinometer from where the array stands"}, p.height_deg);
}

template <class V, OneOf<Shade> T>
void fields(V& v, T& s)
{
    v.number({"from_h", "Shade from", Quantity::time_of_day, 0, 24, ""}, s.from_h);
    v.number({"to_h", "to", Quantity::time_of_day, 0, 24, ""}, s.to_h);
    v.number({"passes", "lets through", Quantity::ratio, 0, 1, "0 a chimney; a bare tree 0.4 to 0.6 (estimate)"}, s.passes);
}

template <class V, OneOf<Draw> T>
void fields(V& v, T& d)
{
    v.number({"start_h", "Draw begins", Quantity::time_of_day, 0, 24, ""}, d.start_h);
    v.number({"duration_s", "lasts", Quantity::minutes, 1, 86400, ""}, d.duration_s);
    v.number({"flow_m3_s", "at the tap", Quantity::flow, 0, 0.02, ""}, d.flow_m3_s);
}

template <class V, OneOf<Fault> T>
void fields(V& v, T& f)
{
    v.choice("kind", fault_keys, f.kind);
    v.text("of", f.of);
    v.text("with", f.with);
    v.number({"from_h", "From", Quantity::hours, 0, longest_fault_h, ""}, f.from_h);
    v.number({"to_h", "to", Quantity::hours, 0, longest_fault_h, ""}, f.to_h);
    v.number({"stuck_c", "Reads", Quantity::temperature, -60, 400, ""}, f.stuck_c);
    v.number({"by_k", "Wrong by", Quantity::difference, -100, 100, ""}, f.by_k);
    v.number({"share", "Share", Quantity::ratio, 0, 1, ""}, f.share);
    v.number({"every_s", "Every", Quantity::duration, 1, 3600, ""}, f.every_s);
    v.number({"supply_v", "At most", Quantity::voltage, 0, 60, ""}, f.supply_v);
    v.number({"by_h", "Ahead by", Quantity::hours, -24, 24, ""}, f.by_h);
}

template <class V, OneOf<Day> T>
void fields(V& v, T& d)
{
    v.id("id", d.id);
    v.text("name", d.name);
    static constexpr std::array kinds{"generated", "recorded"};
    v.choice("kind", kinds, d.kind);
    v.object("sky", d.sky);
    v.text("trace", d.trace);
    v.list("draws", d.draws);
    v.number({"mains_c", "Cold mains", Quantity::temperature, 0, 35, ""}, d.mains_c);
    v.number({"draw_target_c", "Wanted at the tap", Quantity::temperature, 20, 90, "49 °C at most at a tap people use (US CPSC, from memory)"}, d.draw_target_c);
    static constexpr std::array begins{"settled", "cold", "holiday"};
    v.choice("begins", begins, d.begins);
    v.number({"outage_start_h", "Mains fail at", Quantity::time_of_day, 0, 24, ""}, d.outage_start_h);
    v.number({"outage_h", "for", Quantity::hours, 0, 24, "Shows what a frost protection that needs power is worth", "never"}, d.outage_h);
    v.spare_list("shades", d.shades);
    v.integer("length_days", 1, longest_days, d.length_days);
    v.integer("away_from", 1, longest_days, d.away_from);
    v.integer("away_days", 0, longest_days, d.away_days);
    v.integer("guests_from", 1, longest_days, d.guests_from);
    v.integer("guests_days", 0, longest_days, d.guests_days);
    v.number({"guests_times", "Guests draw as much as", Quantity::number, 1, 10, "Times what is drawn without them"}, d.guests_times);
    v.spare_list("faults", d.faults);
}

template <class V, OneOf<Attachment> T>
void fields(V& v, T& a)
{
    v.text("name", a.name);
    v.text("sha256", a.sha256);
}

template <class V, OneOf<BenchReading> T>
void fields(V& v, T& r)
{
    v.text("name", r.name);
    v.text("unit", r.unit);
    v.number({"value", "Value", Quantity::number, -1e9, 1e9, ""}, r.value);
    v.integer("pass", 1, 1000, r.pass);
}

template <class V, OneOf<BenchStep> T>
void fields(V& v, T& s)
{
    v.text("title", s.title);
    v.text("of", s.of);
    v.choice("verdict", verdict_keys, s.verdict);
    v.text("said", s.said);
    v.spare_list("readings", s.readings);
}

template <class V, OneOf<BenchRecord> T>
void fields(V& v, T& r)
{
    v.text("when", r.when);
    v.text("procedure", r.procedure);
    v.text("title", r.title);
    v.text("variant", r.variant);
    v.choice("read_at", read_at_keys, r.read_at);
    v.choice("verdict", verdict_keys, r.verdict);
    v.list("steps", r.steps);
}

template <class V, OneOf<Job> T>
void fields(V& v, T& j)
{
    v.text("title", j.title);
    v.object("site", j.site);
    v.list("variants", j.variants);
    v.list("days", j.days);
    v.spare_list("attachments", j.attachments);
    v.spare_list("bench", j.bench);
    v.spare_object("logbook", j.logbook);
}

} // namespace vernal
