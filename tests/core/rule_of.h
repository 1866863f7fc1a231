// The first rule of a kind in a variant.
#pragma once

#include "core/job/job.h"

#include <stdexcept>

namespace vernal {

template <class R>
R& rule_of(Variant& v)
{
    for (Rule& r : v.unit.rules)
        if (R* body = std::get_if<R>(&r.body))
            return *body;
    throw std::logic_error("no such rule");
}

// The same without its rules of a kind.
template <class R>
Variant without(Variant v)
{
    std::erase_if(v.unit.rules, [](const Rule& r) { return std::holds_alternative<R>(r.body); });
    return v;
}

// The same with its drain-down valve and what moves it taken out: a loop that holds its water.
inline Variant undrained(const Variant& v)
{
    Variant out = without<DrainDown>(v);
    std::erase_if(out.unit.outputs, [](const Output& o) { return o.drives == Drives::drain_valve; });
    return out;
}

} // namespace vernal
