// Every setting of a unit on one card: plain names, values as the technician
// reads them, and room for the unit's own code and for what was found.
#pragma once

#include "core/job/job.h"

namespace vernal {

struct CardRow {
    std::string group; // the rule's title with its output, "Store limit · P1"
    std::string name;  // of the field
    std::string value;
    bool used = true; // false: the rule is switched off
    bool operator==(const CardRow&) const = default;
};
std::vector<CardRow> settings_card(const Variant& v, const Units& units);

} // namespace vernal
