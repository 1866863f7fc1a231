// Photos of visits at the part they belong to.
#pragma once

#include "app/shell/session.h"

#include <QWidget>

namespace vernal {

// Null: there are none of a thing of this name.
QWidget* part_photos(const Job& job, const std::string& name);

} // namespace vernal
