#include "in_units.h"

#include <array>
#include <cmath>
#include <cstdio>
#include <regex>

namespace vernal {
namespace {

struct Written {
    const char* unit;
    Quantity quantity, spread; // spread: of what stands behind "±"
};
constexpr std::array written_units{Written{"°C", Quantity::temperature, Quantity::difference}, Written{"K", Quantity::difference, Quantity::difference}, Written{"m", Quantity::length, Quantity::length},
    Written{"bar", Quantity::pressure, Quantity::pressure}, Written{"L/min", Quantity::flow, Quantity::flow}, Written{"L", Quantity::volume, Quantity::volume}};

// "−11" or "0.5", as far as its decimals go; of a coarser unit one more.
std::string again(const std::string& number, Quantity q, const Units& u)
{
    std::string plain = number;
    const bool less = plain.starts_with("−");
    if (less)
        plain.replace(0, std::string("−").size(), "-");
    const double shown = to_display(from_display(std::stod(plain), q, Units::metric()), q, u);
    const std::size_t point = plain.find('.');
    int digits = point == std::string::npos ? 0 : static_cast<int>(plain.size() - point - 1);
    if ((q == Quantity::flow || q == Quantity::volume) && u.us_gallons) // a gallon is nearly four litres
        ++digits;
    if (q == Quantity::pressure && u.psi)
        digits = std::max(0, digits - 1);
    char b[40];
    std::snprintf(b, sizeof b, "%.*f", digits, std::fabs(shown));
    const bool none = std::string(b).find_first_not_of("0.") == std::string::npos;
    return (shown < 0 && !none ? "−" : "") + std::string(b);
}

} // namespace

std::string in_units(const std::string& text, const Units& u)
{
    if (u == Units::metric())
        return text;
    static const std::regex pattern("((?:−|-)?\\d+(?:\\.\\d+)?)(?:( ?± ?)(\\d+(?:\\.\\d+)?)|( to |–| … )((?:−|-)?\\d+(?:\\.\\d+)?))?( |\u202f|\u00a0)(°C|K|bar|L/min|L|m)(?![A-Za-z0-9/·²³])");
    std::string out;
    auto from = text.begin();
    for (std::sregex_iterator it(text.begin(), text.end(), pattern), end; it != end; ++it) {
        const std::smatch& m = *it;
        out.append(from, m[0].first);
        from = m[0].second;
        const Written* w = nullptr;
        for (const Written& x : written_units)
            if (m[7] == x.unit)
                w = &x;
        out += again(m[1], w->quantity, u);
        if (m[2].matched)
            out += m[2].str() + again(m[3], w->spread, u);
        if (m[4].matched)
            out += m[4].str() + again(m[5], w->quantity, u);
        out += m[6].str() + unit_name(w->quantity, u);
    }
    out.append(from, text.end());
    return out;
}

} // namespace vernal
