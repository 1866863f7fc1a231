// Fields of the logbook; see fields.h.
#pragma once

#include "core/units/field.h"
#include "logbook.h"

namespace vernal {

template <class V, OneOf<VisitReading> T>
void fields(V& v, T& r)
{
    v.text("kind", r.kind);
    v.text("of", r.of);
    v.number({"value", "Value", Quantity::number, -1e13, 1e13, ""}, r.value); // as the widest of reading_kinds()
    v.boolean({"with_temperature", "Read at a known temperature"}, r.with_temperature);
    v.number({"at_c", "Read at", Quantity::temperature, -60, 400, ""}, r.at_c);
    v.text("how", r.how);
    v.text("time", r.time);
}

template <class V, OneOf<VisitFault> T>
void fields(V& v, T& f)
{
    v.text("text", f.text);
    v.text("of", f.of);
}

template <class V, OneOf<VisitWork> T>
void fields(V& v, T& w)
{
    v.text("text", w.text);
    v.text("of", w.of);
    v.number({"minutes_s", "Worked", Quantity::minutes, 0, 864000, ""}, w.minutes_s);
    v.text("part", w.part);
    v.number({"cost", "Cost", Quantity::number, 0, 1e7, ""}, w.cost);
    v.number({"after_h", "After hours of running", Quantity::number, 0, 1e6, "", "not known"}, w.after_h);
    v.number({"after_starts", "After starts", Quantity::count, 0, 1e8, "", "not known"}, w.after_starts);
    v.number({"expected_years", "Expected to last, years", Quantity::number, 0, 100, "", "not stated"}, w.expected_years);
    v.words("does", w.does);
}

template <class V, OneOf<VisitPhoto> T>
void fields(V& v, T& p)
{
    v.text("sha256", p.sha256);
    v.text("caption", p.caption);
    v.text("of", p.of);
}

template <class V, OneOf<VisitNext> T>
void fields(V& v, T& n)
{
    v.text("text", n.text);
    v.text("by", n.by);
}

template <class V, OneOf<VisitTick> T>
void fields(V& v, T& t)
{
    v.text("list", t.list);
    v.text("item", t.item);
    v.choice("tick", tick_keys, t.tick);
    v.text("said", t.said);
    v.text("when", t.when);
}

template <class V, OneOf<Amendment> T>
void fields(V& v, T& a)
{
    v.text("when", a.when);
    v.text("by", a.by);
    v.text("reason", a.reason);
    v.text("text", a.text);
    v.spare_list("readings", a.readings);
}

template <class V, OneOf<FirstDay> T>
void fields(V& v, T& d)
{
    v.text("date", d.date);
    v.number({"store_c", "Warmest store", Quantity::temperature, -60, 400, ""}, d.store_c);
    v.number({"heat_j", "Heat to the store", Quantity::energy, -1e12, 1e12, ""}, d.heat_j);
    v.number({"starts", "Starts", Quantity::count, 0, 1e5, ""}, d.starts);
    v.number({"run_s", "Run time", Quantity::minutes, 0, 86400, ""}, d.run_s);
    v.number({"begin_c", "Store in the morning", Quantity::temperature, -60, 400, ""}, d.begin_c);
    v.text("sky", d.sky);
}

template <class V, OneOf<Visit> T>
void fields(V& v, T& x)
{
    v.id("id", x.id);
    v.text("when", x.when);
    v.text("persons", x.persons);
    v.choice("purpose", purpose_keys, x.purpose);
    v.text("title", x.title);
    v.text("weather", x.weather);
    v.text("sky", x.sky);
    v.boolean({"closed", "Closed"}, x.closed);
    v.text("variant", x.variant);
    v.spare_list("found", x.found);
    v.spare_list("left", x.left);
    v.text("found_how", x.found_how);
    v.text("left_how", x.left_how);
    v.spare_list("readings", x.readings);
    v.words("tests", x.tests);
    v.spare_list("faults", x.faults);
    v.spare_list("work", x.work);
    v.spare_list("photos", x.photos);
    v.spare_list("ticks", x.ticks);
    v.spare_list("next", x.next);
    v.text("notes", x.notes);
    v.spare_object("first_day", x.first_day);
    v.spare_list("amendments", x.amendments);
}

template <class V, OneOf<DueItem> T>
void fields(V& v, T& d)
{
    v.id("id", d.id);
    v.text("title", d.title);
    v.text("kind", d.kind);
    v.number({"every_months", "Every months", Quantity::number, 0, 600, "", "not by date"}, d.every_months);
    v.number({"every_h", "Every hours of running", Quantity::number, 0, 1e6, "", "not by hours"}, d.every_h);
    v.number({"every_starts", "Every starts", Quantity::count, 0, 1e8, "", "not by starts"}, d.every_starts);
    v.text("of", d.of);
    v.text("event", d.event);
    v.boolean({"licensed", "By the licensed person"}, d.licensed);
    v.text("last", d.last);
    v.boolean({"dropped", "Not on this loop"}, d.dropped);
}

template <class V, OneOf<Costs> T>
void fields(V& v, T& c)
{
    v.text("money", c.money);
    v.number({"energy_kwh", "Electricity, each kWh", Quantity::number, 0, 1e6, "", "not stated"}, c.energy_kwh);
    v.number({"work_h", "Work, an hour", Quantity::number, 0, 1e6, "", "not stated"}, c.work_h);
}

template <class V, OneOf<Logbook> T>
void fields(V& v, T& l)
{
    v.spare_list("visits", l.visits);
    v.spare_list("due", l.due);
    v.spare_object("costs", l.costs);
}

} // namespace vernal
