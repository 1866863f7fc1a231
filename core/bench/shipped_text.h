// Texts that are built in. Not for others.
#pragma once

#include <vector>

namespace vernal {

struct ShippedText {
    const char *file, *text;
};
const std::vector<ShippedText>& shipped_procedure_texts();
const std::vector<ShippedText>& shipped_list_texts(); // of the room visit

} // namespace vernal
