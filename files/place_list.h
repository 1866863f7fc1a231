// Places by name: the shipped open list (data/README.md).
#pragma once

#include "core/weather/sun.h"

#include <vector>

namespace vernal {

struct ListedPlace {
    std::string name, plain; // plain: without its accents; empty: it has none
    std::string region, country;
    Place place; // with its zone; altitude 0: the list has none
    int people = 0;
    std::string text() const { return name + ", " + (region.empty() || region == name ? "" : region + ", ") + country; }
};

const std::vector<ListedPlace>& listed_places();

// Those whose name, or name, region and country ("ulm, germany"), begin so, whatever the
// case of plain letters; the one with most people first, at most `most`.
std::vector<const ListedPlace*> find_places(const std::string& typed, std::size_t most);

} // namespace vernal
