// What the checks of all subjects say and do alike. Not for others.
#pragma once

#include "subjects.h"

#include "core/units/safe_temperatures.h"

#include <algorithm>
#include <cmath>

namespace vernal {

using Found = std::vector<Finding>;

inline std::string said(const FindingContext& c, double v, Quantity q) { return to_text(v, q, c.units); }
inline std::string temp(const FindingContext& c, double v) { return said(c, v, Quantity::temperature); }
inline std::string diff(const FindingContext& c, double v) { return said(c, v, Quantity::difference); }
inline std::string lasts(const FindingContext& c, double s) { return said(c, s, Quantity::duration); }

// Of what the figures counted: " today", or " in 14 days".
inline std::string meanwhile(const FindingContext& c) { return c.figures && c.figures->days > 1 ? " in " + std::to_string(c.figures->days) + " days" : " today"; }

inline const Loop& loop(const FindingContext& c) { return c.variant.loop; }
inline const Arrangement& arrangement(const FindingContext& c) { return arrangement_of(loop(c)); }
inline bool has(const FindingContext& c, Part part) { return arrangement(c).has(part); }
inline bool drains(const FindingContext& c) { return arrangement(c).drains; }
inline std::string named(const Probe& p) { return p.key + " " + p.name; }

inline bool holds_drinking_water(const FindingContext& c)
{
    const Arrangement& a = arrangement_of(loop(c));
    return a.has(Part::tank);
}

// Calls f(found, index, rule, body) for each enabled rule of kind R; what it finds is
// about that rule.
template <class R, class F>
Found each(const FindingContext& c, F f)
{
    Found out;
    for (std::size_t i = 0; i < c.variant.unit.rules.size(); ++i)
        if (const Rule& r = c.variant.unit.rules[i]; r.enabled)
            if (const R* body = std::get_if<R>(&r.body)) {
                const std::size_t before = out.size();
                f(out, i, r, *body);
                for (std::size_t k = before; k < out.size(); ++k)
                    if (out[k].at.empty())
                        out[k].at = "rule/" + r.id;
            }
    return out;
}

// Calls f(index, body) likewise.
template <class R, class F>
void for_each_rule(const FindingContext& c, F f)
{
    each<R>(c, [&](Found&, std::size_t i, const Rule&, const R& body) { f(i, body); });
}

// Rules, outputs and probes are found again by their ids: a remedy still holds when
// they have been moved, and changes nothing once they are gone. What has no id yet
// is found by its place.
struct EntityRef {
    std::string id;
    std::size_t place;
    template <class T>
    T* in(std::vector<T>& all) const
    {
        if (id.empty())
            return place < all.size() ? &all[place] : nullptr;
        const auto it = std::find_if(all.begin(), all.end(), [&](const T& x) { return x.id == id; });
        return it == all.end() ? nullptr : &*it;
    }
};
template <class T>
EntityRef ref_to(const std::vector<T>& all, std::size_t place) { return {all[place].id, place}; }

template <class R, class F>
Remedy change(const FindingContext& c, std::string label, std::size_t rule, F what)
{
    return {std::move(label), [of = ref_to(c.variant.unit.rules, rule), what](Variant& v) {
                Rule* r = of.in(v.unit.rules);
                if (R* body = r ? std::get_if<R>(&r->body) : nullptr)
                    what(*body);
            }};
}

inline Remedy switch_off(const FindingContext& c, std::size_t rule)
{
    return {"Try: without this rule", [of = ref_to(c.variant.unit.rules, rule)](Variant& v) {
                if (Rule* r = of.in(v.unit.rules))
                    r->enabled = false;
            }};
}

template <class F>
Remedy on_loop(std::string label, F what)
{
    return {std::move(label), [what](Variant& v) { what(v.loop); }};
}

// A bridge knows no temperature of its warm probe; an input that reads each probe alone does.
inline Remedy own_inputs()
{
    return {"Try: each probe on an input of its own", [](Variant& v) { v.input.kind = StageKind::pull_up; }};
}

inline Found one(Severity severity, std::string title, std::string reason, std::optional<Remedy> remedy = {})
{
    return {{"", severity, std::move(title), std::move(reason), std::move(remedy), {}}};
}

inline const Probe* probe_of(const FindingContext& c, const std::string& key)
{
    const auto it = std::find_if(c.variant.probes.begin(), c.variant.probes.end(), [&](const Probe& p) { return p.key == key; });
    return it == c.variant.probes.end() ? nullptr : &*it;
}

// What the speed rules of an output keep at least, of full speed; without one all of it.
inline double least_speed(const FindingContext& c, const std::string& output)
{
    double floor = 1;
    for (const Rule& r : c.variant.unit.rules)
        if (r.enabled && r.output == output)
            std::visit(
                [&](const auto& body) {
                    if constexpr (requires { body.range.floor; })
                        floor = std::min(floor, body.range.floor);
                },
                r.body);
    return floor;
}

inline bool sits_at(const FindingContext& c, const std::string& key, std::initializer_list<ProbePlace> places)
{
    const Probe* p = probe_of(c, key);
    return p && std::find(places.begin(), places.end(), p->place) != places.end();
}

} // namespace vernal
