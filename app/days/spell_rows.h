// Rows about a day of several days: how long it is, who is away, who is there besides.
#pragma once

#include "app/widgets/form.h"

namespace vernal {

// Adds them to a sheet; what it gives back shows the day as it is now.
std::function<void()> add_spell_rows(FieldSheet& sheet, Session& session, const std::function<std::string(const std::string&)>& path);

} // namespace vernal
