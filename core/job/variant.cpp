#include "variant.h"

namespace vernal {

Probe::Probe() = default;
Probe::Probe(const Probe&) = default;
Probe::Probe(Probe&&) noexcept = default;
Probe& Probe::operator=(const Probe&) = default;
Probe& Probe::operator=(Probe&&) noexcept = default;
Probe::~Probe() = default;
bool Probe::operator==(const Probe&) const = default;

Variant::Variant() = default;
Variant::Variant(const Variant&) = default;
Variant::Variant(Variant&&) noexcept = default;
Variant& Variant::operator=(const Variant&) = default;
Variant& Variant::operator=(Variant&&) noexcept = default;
Variant::~Variant() = default;
bool Variant::operator==(const Variant&) const = default;

} // namespace vernal
