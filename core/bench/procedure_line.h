// A line of a procedure, read and written. Not for others.
#pragma once

#include "core/units/ascii.h"

#include "procedure.h"

#include <algorithm>
#include <string>
#include <utility>
#include <vector>

namespace vernal::procedure_text {

struct Bad {
    std::string what, expected;
};

// What stands before the word, and behind it; without it all stands before.
std::pair<std::string, std::string> parted(const std::string& s, const std::string& by);
double number_in(const std::string& word, const std::string& unit); // throws Bad

std::string any_of(const auto& keys)
{
    std::string out;
    for (const char* k : keys)
        out += (out.empty() ? "" : ", ") + std::string(k);
    return out;
}

inline std::string spaced(std::string key)
{
    std::replace(key.begin(), key.end(), '_', ' ');
    return key;
}

template <class T>
T key_in(const auto& keys, const std::string& word, const char* what)
{
    for (std::size_t i = 0; i < keys.size(); ++i)
        if (spaced(keys[i]) == word)
            return static_cast<T>(i);
    std::string all;
    for (const char* k : keys)
        all += (all.empty() ? "" : ", ") + spaced(k);
    throw Bad{"“" + word + "” is no " + what, all};
}

// A text with a front part between two lines "---": its lines go to `front`, those behind it to
// `body`, trimmed; empty ones only to body. keys: what the front part can hold. line: counted
// along, for what is told. Throws Bad, also where the front part has no end.
template <class Front, class Body>
void each_line(const std::string& text, const std::string& keys, std::size_t& line, Front front, Body body)
{
    int fences = 0; // lines "---" so far
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t to = std::min(text.find('\n', from), text.size());
        const std::string s = trimmed(text.substr(from, to - from));
        from = to + 1;
        ++line;
        if (fences == 0 && s != "---")
            throw Bad{"the front part is missing", "a line “---”, then " + keys + ", then “---”"};
        if (fences == 2)
            body(s);
        else if (s == "---")
            ++fences;
        else if (!s.empty())
            front(s);
    }
    if (fences < 2)
        throw Bad{"the front part has no end", "a second line “---”"};
}

bool is_name(const std::string& s); // small letters, digits and "-", 1 to 60
// before: the lines of its step so far. Throws Bad.
Line line_in(const std::string& verb, const std::string& rest, const std::vector<Line>& before);
// all: of its step
std::string line_text(const Line& l, const std::vector<Line>& all);

} // namespace vernal::procedure_text
