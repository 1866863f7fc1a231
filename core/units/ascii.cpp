#include "ascii.h"

namespace vernal {

std::string trimmed(const std::string& s)
{
    const auto from = s.find_first_not_of(" \t\r"), to = s.find_last_not_of(" \t\r");
    return from == std::string::npos ? "" : s.substr(from, to - from + 1);
}

std::string lower_ascii(std::string s)
{
    for (char& c : s)
        if (c >= 'A' && c <= 'Z')
            c = static_cast<char>(c - 'A' + 'a');
    return s;
}

} // namespace vernal
