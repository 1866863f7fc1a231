// A line of a procedure, read and written. Not for others.
#pragma once

#include "procedure.h"

#include <algorithm>
#include <string>
#include <utility>
#include <vector>

namespace vernal::procedure_text {

struct Bad {
    std::string what, expected;
};

std::string trimmed(const std::string& s);
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

bool is_name(const std::string& s); // small letters, digits and "-", 1 to 60
// before: the lines of its step so far. Throws Bad.
Line line_in(const std::string& verb, const std::string& rest, const std::vector<Line>& before);
// all: of its step
std::string line_text(const Line& l, const std::vector<Line>& all);

} // namespace vernal::procedure_text
