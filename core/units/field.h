// One field of a value in a job, as readers, writers and editors meet it.
#pragma once

#include "reads.h"

#include <cmath>
#include <concepts>
#include <cstdint>
#include <type_traits>

namespace vernal {

// Between what and what a value usually lies, inside unit; NaN: nobody says.
struct Usual {
    double from = NAN, to = NAN;
};

struct NumberField {
    const char* key;
    const char* label;
    Quantity quantity;
    double min, max;          // inside unit, inclusive
    const char* typical = ""; // what is usual, and its origin
    const char* zero = "";    // what 0 says where it is no value: "not stated"
    Usual usual = {};
};

// A field's value as it is shown, and as it is typed: of one that says something else
// by 0, that in place of the number.
std::string field_text(const NumberField& f, double inside, const Units& u);
// Error also where it lies outside the field's range, with the range.
Result<double> parse_field(const NumberField& f, const std::string& text, const Units& u);

// "1.5 to 3.5", in these units but without their name; empty: nobody says.
std::string usual_text(const NumberField& f, const Units& u);
// What is usual, with its unit, and where that comes from.
std::string hint_text(const NumberField& f, const Units& u);

struct SwitchField {
    const char* key;
    const char* label;
    const char* typical = "";
};

// What a probe is to a rule: where a fresh rule looks for it in its loop.
enum class ProbeRole : std::uint8_t {
    array,        // at the collector
    cold_store,   // where the store is coldest
    warm_store,   // where it is warmest
    second_store, // of another store
    water_back,   // reads the water that comes round
    second_spot,  // another cold place; only where there is a probe
    delivered,    // what goes to the floor
    room,
    flow, // reads no temperature
    pressure,
    sun,
    left_open // empty until somebody chooses
};

// What a probe of this role must read.
inline Reads reads_for(ProbeRole role)
{
    switch (role) {
    case ProbeRole::flow: return Reads::flow;
    case ProbeRole::pressure: return Reads::pressure;
    case ProbeRole::sun: return Reads::irradiance;
    default: return Reads::temperature;
    }
}

// A text that is the key of a probe or of an output.
struct ProbeField {
    const char* key;
    const char* label;
    ProbeRole role;
    bool may_be_empty = false;
    const char* nothing = "(no probe)"; // what the sentence says where it is empty
};
struct OutputField {
    const char* key;
    const char* label;
    bool may_be_empty = false;
    const char* nothing = "(no output)";
};

template <class T, class U>
concept OneOf = std::same_as<std::remove_const_t<T>, U>;

// A visitor of field lists that passes over everything; others derive from it
// and take up what they are about.
struct FieldVisitor {
    template <class X>
    void number(const NumberField&, X&&) {}
    template <class X>
    void temperature(const NumberField&, X&&) {}
    template <class X>
    void difference(const NumberField&, X&&) {}
    template <class X>
    void boolean(const SwitchField&, X&&) {}
    template <class X>
    void probe(const ProbeField&, X&&) {}
    template <class X>
    void output(const OutputField&, X&&) {}
    template <class... A>
    void integer(A&&...) {}
    template <class... A>
    void text(A&&...) {}
    template <class... A>
    void id(A&&...) {}
    template <class... A>
    void text_choice(A&&...) {}
    template <class... A>
    void choice(A&&...) {}
    template <class... A>
    void spare_choice(A&&...) {}
    template <class... A>
    void curve(A&&...) {}
    template <class... A>
    void object(A&&...) {}
    template <class... A>
    void spare_object(A&&...) {}
    template <class... A>
    void list(A&&...) {}
    template <class... A>
    void spare_list(A&&...) {}
    template <class... A>
    void words(A&&...) {}
    template <class... A>
    void alternatives(A&&...) {}
};

} // namespace vernal
