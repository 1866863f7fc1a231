// Names of files from what a person calls things.
#pragma once

#include <string>

namespace vernal {

// Small letters and digits of ASCII, "-" for what stands between them, at most 100; `empty` where none is left.
std::string plain_file_name(const std::string& name, const std::string& empty);

} // namespace vernal
