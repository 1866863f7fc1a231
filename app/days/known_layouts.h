// How logs were read before, by their headers; kept with the person's settings.
#pragma once

#include "files/import/log_layout.h"

namespace vernal {

std::optional<LogLayout> known_layout(const LogLayout& guessed); // one of the same header and delimiter
void keep_layout(const LogLayout& layout);

} // namespace vernal
