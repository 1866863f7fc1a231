#include "field.h"

#include <algorithm>
#include <cmath>

namespace vernal {

std::string field_text(const NumberField& f, double inside, const Units& u) { return inside == 0 && *f.zero != '\0' ? f.zero : to_text(inside, f.quantity, u); }

std::string usual_text(const NumberField& f, const Units& u)
{
    if (std::isnan(f.usual.from))
        return "";
    const std::string unit = unit_name(f.quantity, u);
    const auto bare = [&](double inside) {
        std::string s = to_text(inside, f.quantity, u);
        if (!unit.empty() && s.ends_with(unit))
            s.resize(s.size() - unit.size());
        s.resize(s.find_last_not_of(' ') + 1);
        if (s.find('.') != std::string::npos) {
            s.resize(s.find_last_not_of('0') + 1);
            if (s.back() == '.')
                s.pop_back();
        }
        return s;
    };
    // Wire by its gauge counts the other way round.
    const bool falls = to_display(f.usual.from, f.quantity, u) > to_display(f.usual.to, f.quantity, u);
    const std::string from = bare(falls ? f.usual.to : f.usual.from), to = bare(falls ? f.usual.from : f.usual.to);
    return from == to ? from : from + " to " + to;
}

std::string hint_text(const NumberField& f, const Units& u)
{
    const std::string usual = usual_text(f, u), unit = unit_name(f.quantity, u);
    if (usual.empty())
        return f.typical;
    const std::string range = unit.empty() || unit == "°" ? usual + unit : usual + " " + unit;
    return *f.typical == '\0' ? range : range + ": " + f.typical;
}

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
