#include "logbook.h"

namespace vernal {

Visit::Visit() = default;
Visit::Visit(const Visit&) = default;
Visit::Visit(Visit&&) noexcept = default;
Visit& Visit::operator=(const Visit&) = default;
Visit& Visit::operator=(Visit&&) noexcept = default;
Visit::~Visit() = default;
bool Visit::operator==(const Visit&) const = default;

Logbook::Logbook() = default;
Logbook::Logbook(const Logbook&) = default;
Logbook::Logbook(Logbook&&) noexcept = default;
Logbook& Logbook::operator=(const Logbook&) = default;
Logbook& Logbook::operator=(Logbook&&) noexcept = default;
Logbook::~Logbook() = default;
bool Logbook::operator==(const Logbook&) const = default;

} // namespace vernal
