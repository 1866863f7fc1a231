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

} // namespace vernal
