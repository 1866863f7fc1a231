// Texts of small formats: ASCII letters and blanks only, whatever the locale.
#pragma once

#include <string>

namespace vernal {

// Without blanks, tabs and carriage returns at both ends.
std::string trimmed(const std::string& s);
std::string lower_ascii(std::string s); // A to Z only; other bytes stay

} // namespace vernal
