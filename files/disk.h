// Whole files, read and written so that nothing is ever half there.
#pragma once

#include "core/units/result.h"

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

namespace vernal {

// Errors give the system's reason. Only files: no folder, device or pipe.
Result<std::string> read_file(const std::filesystem::path& path);

// Through a temporary file beside the target, flushed, then renamed over it:
// after any failure the old content stands. A link stays and its target is written;
// the file's mode stays; a device, a pipe or a folder is refused. The value on
// success says nothing.
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
    std::optional<Error> refused_;
};
Result<std::monostate> write_file_atomically(const std::filesystem::path& path, const std::string& content);

} // namespace vernal
