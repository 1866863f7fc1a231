#include "file_name.h"

#include <algorithm>
#include <cctype>

namespace vernal {

std::string plain_file_name(const std::string& name, const std::string& empty)
{
    std::string plain;
    for (const char c : name) {
        const auto u = static_cast<unsigned char>(c);
        if (std::isalnum(u) != 0 && u < 0x80)
            plain += static_cast<char>(std::tolower(u));
        else if (!plain.empty() && plain.back() != '-')
            plain += '-';
    }
    constexpr std::size_t longest = 100;
    plain.resize(std::min(plain.size(), longest));
    return plain.empty() ? empty : plain;
}

} // namespace vernal
