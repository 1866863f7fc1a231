// Whole files, read and written so that nothing is ever half there.
#pragma once

#include "core/units/result.h"

#include <filesystem>
#include <string>
#include <string_view>

namespace vernal {

// Errors give the system's reason.
Result<std::string> read_file(const std::filesystem::path& path);

// Through a temporary file beside the target, flushed, then renamed over it:
// after any failure the old content stands. The value on success says nothing.
class AtomicFile {
public:
    explicit AtomicFile(std::filesystem::path path);
    AtomicFile(const AtomicFile&) = delete;
    AtomicFile& operator=(const AtomicFile&) = delete;
    ~AtomicFile(); // not finished: the old content stands
    void write(std::string_view content);
    Result<std::monostate> finish(); // tells of the first failure

private:
    std::filesystem::path path_;
    std::string temporary_;
    int fd_ = -1, failed_ = 0; // errno of the first failure
};
Result<std::monostate> write_file_atomically(const std::filesystem::path& path, const std::string& content);

} // namespace vernal
