#include "take_along.h"

#include "core/plant/vessel.h"
#include "core/probe/identify.h"

#include <algorithm>

namespace vernal {
namespace {

constexpr double spare_share = 0.15; // over what the loop holds; an estimate

class List {
public:
    explicit List(const Units& units) : units_(units) {}
    void add(const std::string& what, const std::string& how_much = "", const std::string& why = "") { out.push_back({what, how_much, why}); }
    std::string text(double v, Quantity q) const { return to_text(v, q, units_); }
    std::vector<TakeAlong> out;

private:
    const Units& units_;
};

void building(List& l, const Job&, const Variant& v)
{
    const Loop& x = v.loop;
    const Arrangement& a = arrangement_of(x);
    l.add("Collector", l.text(x.collector.area_m2, Quantity::area), "");
    if (a.has(Part::collector_2))
        l.add("Second collector", l.text(x.collector_2.area_m2, Quantity::area));
    l.add("Pipe, supply and return", l.text(x.supply.length_m + x.back.length_m, Quantity::length) + ", " + l.text(x.supply.bore_m, Quantity::bore) + " inside");
    l.add("Insulation, with a jacket outdoors", l.text(x.supply.length_m + x.back.length_m, Quantity::length) + ", of it " + l.text(x.supply.outdoor_m + x.back.outdoor_m, Quantity::length) + " in the open");
    if (a.has(Part::vessel))
        l.add("Expansion vessel", l.text(x.vessel.volume_m3, Quantity::volume));
    for (const Probe& p : v.probes)
        l.add("Probe " + p.key + " " + p.name, curve_text(p.curve), "and a spare of each curve");
    l.add("Covers for the array", "", "the sun comes onto it last");
    if (a.has(Part::battery))
        l.add("Fuse for the battery, cable, posts' grease");
}

} // namespace

std::vector<TakeAlong> take_along(const Job& job, const Variant& v, Purpose purpose, const Units& units)
{
    List l(units);
    const Arrangement& a = arrangement_of(v.loop);
    const bool liquid = a.carrier != Carrier::air;
    if (purpose == Purpose::survey) {
        for (const char* what : {"Tape, clinometer, compass", "Camera", "Ladder, harness, someone below", "Meter for the supply"})
            l.add(what);
        return l.out;
    }
    l.add("Meter with leads", "", "ohms of " + std::to_string(v.probes.size()) + " probes, volts");
    l.add("Thermometer, cup, ice, hot water", "", "probes side by side");
    if (liquid && a.pumped())
        l.add("Bucket and watch", "", "flow");
    if (a.has(Part::vessel))
        l.add("Tyre gauge and pump", "", "the vessel's gas");
    if (a.carrier == Carrier::glycol)
        l.add("Refractometer, pH strips");
    if (a.has(Part::battery))
        l.add("Eye protection, hydrometer, clamp meter", "", "battery");
    if (liquid && (purpose == Purpose::commissioning || purpose == Purpose::call_back)) {
        const double content = ring_content_m3(v.loop), share = glycol_share(v.loop);
        l.add(a.carrier == Carrier::glycol ? "Fluid, ready mixed" : "Clean water", l.text(content * (1 + spare_share), Quantity::volume), "the loop holds " + l.text(content, Quantity::volume));
        if (share > 0)
            l.add("of it glycol", l.text(content * (1 + spare_share) * share, Quantity::volume), "by mass about " + l.text(share, Quantity::ratio));
        l.add("Flush pump, two hoses, strainer");
    }
    if (purpose == Purpose::commissioning)
        building(l, job, v);
    else
        for (const Probe& p : v.probes)
            if (&p == &v.probes.front() || !(p.curve == v.probes.front().curve))
                l.add("Spare probe", curve_text(p.curve), "as " + p.key);
    l.add("Settings card and wiring list of this job");
    return l.out;
}

CheckList take_along_list(const Job& job, const Variant& v, Purpose purpose, const Units& units)
{
    CheckList out;
    out.name = "take-along";
    out.title = "Take along";
    out.purpose = purpose;
    for (const TakeAlong& t : take_along(job, v, purpose, units)) {
        ListItem item;
        item.title = t.what + (t.how_much.empty() ? "" : ", " + t.how_much);
        item.why = t.why;
        for (const char c : t.what) // an id of its first words
            item.id += (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') ? c : c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a')
                                                                                                   : '-';
        if (std::none_of(out.items.begin(), out.items.end(), [&](const ListItem& i) { return i.id == item.id; }))
            out.items.push_back(std::move(item));
    }
    return out;
}

} // namespace vernal
