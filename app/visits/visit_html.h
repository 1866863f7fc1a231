// The page of a visit as rich text in the colours of the theme. Every entry is a link:
// "line:N" the dictated line it stands for, "say:WORDS" something that is not read yet,
// "photo:HASH" a photo.
#pragma once

#include "app/shell/session.h"

namespace vernal {

QString visit_html(const Job& job, const Visit& visit, const Units& units);

} // namespace vernal
