#include "place_list.h"

#include "core/units/ascii.h"

#include "csv/reader.h"

#include <algorithm>
#include <cctype>
#include <cstdlib>

namespace vernal {

extern const char* const shipped_places_csv;

namespace {

std::vector<ListedPlace> read_list()
{
    std::vector<ListedPlace> out;
    CsvReader rows{std::string_view(shipped_places_csv), "data/places.csv"};
    rows.next(); // the names of the columns
    while (rows.next()) {
        const auto& c = rows.cells();
        ListedPlace p{c[0], c[1], c[2], c[3], {}, std::atoi(c[7].c_str())};
        p.place.latitude_deg = std::strtod(c[4].c_str(), nullptr);
        p.place.longitude_deg = std::strtod(c[5].c_str(), nullptr);
        p.place.zone = c[6];
        out.push_back(std::move(p));
    }
    std::stable_sort(out.begin(), out.end(), [](const ListedPlace& a, const ListedPlace& b) { return a.people > b.people; });
    return out;
}

} // namespace

const std::vector<ListedPlace>& listed_places()
{
    static const std::vector<ListedPlace> all = read_list();
    return all;
}

std::vector<const ListedPlace*> find_places(const std::string& typed, std::size_t most)
{
    std::vector<const ListedPlace*> out;
    const std::string begins = lower_ascii(typed);
    const auto fits = [&](const std::string& s) { return lower_ascii(s).rfind(begins, 0) == 0; };
    for (const ListedPlace& p : listed_places()) {
        if (out.size() == most || begins.empty())
            break;
        if (fits(p.text()) || fits(p.name + ", " + p.country) || (!p.plain.empty() && (fits(p.plain) || fits(p.plain + ", " + p.country))))
            out.push_back(&p);
    }
    return out;
}

} // namespace vernal
