// Whole files, read and written so that nothing is ever half there.
#pragma once

#include "core/units/result.h"

#include <filesystem>
#include <string>

namespace vernal {

// Errors give the system's reason.
Result<std::string> read_file(const std::filesystem::path& path);

// Through a temporary file beside the target, flushed, then renamed over it:
// after any failure the old content stands. The value on success says nothing.
Result<std::monostate> write_file_atomically(const std::filesystem::path& path, const std::string& content);

} // namespace vernal
