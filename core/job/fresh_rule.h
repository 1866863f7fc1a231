// A rule as it begins when someone adds it: the kind's usual figures, on the
// probes and the output that suit it in this loop.
#pragma once

#include "job.h"

namespace vernal {

// kind: index into rule_kinds(). Keys that nothing here suits are left empty.
Rule fresh_rule(const Variant& v, std::size_t kind);

// Key of the probe that suits this role best; of the roles that any would do for,
// and where none suits, the first. Empty: none does.
std::string probe_for(const Variant& v, ProbeRole role);

// Place of a kind among rule_kinds().
template <class R>
constexpr std::size_t kind_index()
{
    std::size_t found = 0;
    const auto look = [&]<std::size_t... I>(std::index_sequence<I...>) { ((std::is_same_v<R, std::variant_alternative_t<I, RuleBody>> ? void(found = I) : void()), ...); };
    look(std::make_index_sequence<std::variant_size_v<RuleBody>>());
    return found;
}

// Probe of the first of these places that has one; empty: none has.
std::string probe_at(const Variant& v, std::initializer_list<ProbePlace> places);

} // namespace vernal
