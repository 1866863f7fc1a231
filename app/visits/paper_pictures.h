// Pictures of a job by the names papers use: loop, map, day, photos.
#pragma once

#include "app/shell/session.h"
#include "files/report/paper_html.h"

namespace vernal {

// loop, map and day are those of the session's chosen variant and day, once it has run.
PaperPictures paper_pictures(Session& session, const std::vector<std::string>& names);

} // namespace vernal
