#include "settings_seen.h"

#include "core/study/difference.h"
#include "core/wording/sentence.h"

#include <algorithm>
#include <sstream>

namespace vernal {
namespace {

std::vector<std::string> words_of(const std::string& s)
{
    std::vector<std::string> out;
    std::istringstream in(s);
    for (std::string w; std::getline(in, w, ' ');)
        out.push_back(w);
    return out;
}

void add(SettingLine& line, const std::string& word, SettingPiece::Is is)
{
    if (!line.empty() && line.back().is == is)
        line.back().text += " " + word;
    else
        line.push_back({word, is});
}

const Rule* by_id(const RuleSet& unit, const std::string& id)
{
    const auto it = std::find_if(unit.rules.begin(), unit.rules.end(), [&](const Rule& r) { return r.id == id; });
    return it == unit.rules.end() ? nullptr : &*it;
}

std::string said(const Variant& v, const Rule& r, const Units& units) { return sentence(v, r, units) + (r.enabled ? "" : " (switched off)"); }

} // namespace

SettingLine words_between(const std::string& found, const std::string& left)
{
    const auto a = words_of(found), b = words_of(left);
    // Longest common subsequence from the end, so that what is struck stands before what replaces it.
    std::vector<std::vector<std::size_t>> longest(a.size() + 1, std::vector<std::size_t>(b.size() + 1));
    for (std::size_t i = a.size(); i-- > 0;)
        for (std::size_t j = b.size(); j-- > 0;)
            longest[i][j] = a[i] == b[j] ? longest[i + 1][j + 1] + 1 : std::max(longest[i + 1][j], longest[i][j + 1]);
    SettingLine out;
    for (std::size_t i = 0, j = 0; i < a.size() || j < b.size();)
        if (i < a.size() && j < b.size() && a[i] == b[j]) {
            add(out, a[i++], SettingPiece::Is::same);
            ++j;
        } else if (i < a.size() && (j == b.size() || longest[i + 1][j] >= longest[i][j + 1])) {
            add(out, a[i++], SettingPiece::Is::was);
        } else {
            add(out, b[j++], SettingPiece::Is::now);
        }
    return out;
}

SettingsSeen settings_seen(const Variant& found, const Variant& left, const Units& units)
{
    SettingsSeen out;
    for (const Rule& r : left.unit.rules) {
        const Rule* was = by_id(found.unit, r.id);
        const std::string now = said(left, r, units), then = was ? said(found, *was, units) : "";
        if (was && now == then && *was == r)
            ++out.same;
        else
            out.lines.push_back(was ? words_between(then, now) : SettingLine{{now, SettingPiece::Is::now}});
    }
    for (const Rule& r : found.unit.rules)
        if (!by_id(left.unit, r.id))
            out.lines.push_back({{said(found, r, units), SettingPiece::Is::was}});
    for (const Output& o : left.unit.outputs)
        for (const Output& w : found.unit.outputs)
            if (w.id == o.id && w.mode != o.mode) {
                static constexpr std::array modes{"OFF", "AUTO", "ON"};
                const auto of = [](Mode m) { return std::string(modes[static_cast<std::size_t>(m)]); };
                out.lines.push_back({{"Switch of " + o.key + ":", SettingPiece::Is::same}, {of(w.mode), SettingPiece::Is::was}, {of(o.mode), SettingPiece::Is::now}});
            }
    // What is no rule: parts, probes, the unit.
    Job both;
    both.variants = {left, found};
    both.variants[1].unit.rules = left.unit.rules;
    for (const VariantChange& c : changes_between(both, 0, 1, units))
        out.lines.push_back({{c.what, SettingPiece::Is::now}});
    return out;
}

std::string plain_text(const SettingLine& line)
{
    std::string out;
    for (const SettingPiece& p : line)
        out += (out.empty() ? "" : " ") + (p.is == SettingPiece::Is::was ? "[was " + p.text + "]" : p.text);
    return out;
}

} // namespace vernal
