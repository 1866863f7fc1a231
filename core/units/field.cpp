#include "field.h"

#include <algorithm>
#include <cmath>

namespace vernal {

std::string field_text(const NumberField& f, double inside, const Units& u) { return inside == 0 && *f.zero != '\0' ? f.zero : to_text(inside, f.quantity, u); }

Result<double> parse_field(const NumberField& f, const std::string& text, const Units& u)
{
    if (*f.zero != '\0' && (text.empty() || text == f.zero))
        return 0.0;
    const auto parsed = parse(text, f.quantity, u);
    if (!parsed)
        return parsed;
    const double slack = 1e-9 * std::max(1.0, std::fabs(f.max));
    if (*parsed < f.min - slack || *parsed > f.max + slack)
        return Error{std::string(f.label) + " must lie between " + to_text(f.min, f.quantity, u) + " and " + to_text(f.max, f.quantity, u), "", ""};
    return std::clamp(*parsed, f.min, f.max);
}

} // namespace vernal
