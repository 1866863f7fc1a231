// One field of a value in a job, as readers, writers and editors meet it.
#pragma once

#include "core/units/quantity.h"

#include <concepts>
#include <type_traits>

namespace vernal {

struct NumberField {
    const char* key;
    const char* label;
    Quantity quantity;
    double min, max;          // inside unit, inclusive
    const char* typical = ""; // what is usual, and its origin
};

struct SwitchField {
    const char* key;
    const char* label;
    const char* typical = "";
};

template <class T, class U>
concept OneOf = std::same_as<std::remove_const_t<T>, U>;

} // namespace vernal
