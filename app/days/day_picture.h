// What a day looks like on the shelf, and in a line.
#pragma once

#include "app/shell/session.h"

#include <QIcon>
#include <QSize>

namespace vernal {

inline constexpr QSize day_picture_size(236, 100);

// A small picture of a day's sun and air, of a log its temperatures.
QIcon day_picture(const Job& job, const Day& day);

// The kinds of sky in the order of Clouds, as they are called.
QStringList sky_names();

QString day_line(const Day& day, const Units& units);

} // namespace vernal
