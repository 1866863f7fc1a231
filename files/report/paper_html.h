// A paper as one HTML file: its pictures sit inside it.
#pragma once

#include "core/report/paper.h"

#include <map>

namespace vernal {

struct PaperPicture {
    std::string mime; // "image/svg+xml", "image/jpeg", "image/png"
    std::string bytes;
    double width_mm = 0; // as it is shown; 0: as wide as the page
};
using PaperPictures = std::map<std::string, PaperPicture>; // by name; what is missing is left out

struct Letterhead {
    std::string lines;                // name, street, telephone: a line each
    std::optional<PaperPicture> logo; // none: no logo
};

// HTML 5, UTF-8, without scripts and without anything from elsewhere.
std::string paper_html(const Paper& paper, const Letterhead& head = {}, const PaperPictures& pictures = {});

std::string escaped_html(const std::string& text);
std::string base64(const std::string& bytes); // RFC 4648

} // namespace vernal
