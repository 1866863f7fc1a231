// Which order the dates of a log have.
#pragma once

#include "log_layout.h"

namespace vernal {

// By every date of the file in this column, not its first rows: the order in which most
// dates can be read and time runs backwards least. Where both do, dates with points have
// the day first unless they then leap over days again and again; others go by the smaller
// leaps, and without any by `us`. The first three forms only.
TimeForm order_of_dates(std::string_view text, const LogLayout& layout, std::size_t column, bool us);

} // namespace vernal
