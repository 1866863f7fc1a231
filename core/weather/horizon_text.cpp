#include "horizon_text.h"

#include "core/units/exact_text.h"

#include <charconv>

namespace vernal {
namespace {

void replace_all(std::string& text, const std::string& from, const std::string& to)
{
    for (std::size_t at = text.find(from); at != std::string::npos; at = text.find(from, at + to.size()))
        text.replace(at, from.size(), to);
}

std::vector<std::string> words_of(const std::string& point)
{
    std::vector<std::string> out(1);
    for (char c : point)
        if (c == ' ' || c == ':' || c == '\t' || c == '\r')
            out.back().empty() ? void() : out.emplace_back().clear();
        else
            out.back() += c;
    if (out.back().empty())
        out.pop_back();
    return out;
}

bool number_in(const std::string& word, double low, double high, double& to)
{
    const auto [end, error] = std::from_chars(word.data(), word.data() + word.size(), to);
    return error == std::errc() && end == word.data() + word.size() && to >= low && to <= high;
}

} // namespace

std::string horizon_text(const std::vector<HorizonPoint>& line)
{
    std::string out;
    for (const HorizonPoint& p : line)
        out += (out.empty() ? "" : ", ") + exact_text(p.azimuth_deg) + " " + exact_text(p.height_deg);
    return out;
}

Result<std::vector<HorizonPoint>> parse_horizon(const std::string& text)
{
    std::string plain = text;
    for (const auto& [from, to] : {std::pair{"−", "-"}, {"°", ""}, {";", ","}, {"\n", ","}})
        replace_all(plain, from, to);
    std::vector<HorizonPoint> out;
    for (std::size_t at = 0; at <= plain.size();) {
        const std::size_t end = std::min(plain.find(',', at), plain.size());
        const auto words = words_of(plain.substr(at, end - at));
        at = end + 1;
        if (words.empty())
            continue;
        HorizonPoint p;
        const std::string where = "point " + std::to_string(out.size() + 1);
        if (words.size() != 2)
            return Error{"a point has an azimuth and a height", where, "For a ridge of 12° in the east write -90 12"};
        if (!number_in(words[0], -180, 180, p.azimuth_deg))
            return Error{"“" + words[0] + "” is no azimuth", where, "Degrees west of south: −90 is east, 0 south, 90 west"};
        if (!number_in(words[1], 0, 90, p.height_deg))
            return Error{"“" + words[1] + "” is no height", where, "Degrees above level, 0 to 90"};
        out.push_back(p);
    }
    return out;
}

} // namespace vernal
