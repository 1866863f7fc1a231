#include "disk.h"

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <fcntl.h>
#include <fstream>
#include <sstream>
#include <sys/stat.h>
#include <unistd.h>

namespace vernal {
namespace {

Error system_error(const std::string& what, const std::filesystem::path& path, int code)
{
    return Error{what + ": " + std::strerror(code), path.string(), code == ENOSPC ? "Make room, or save to another place" : "Save to another place, or check the folder"};
}

bool write_all(int fd, const std::string& content)
{
    std::size_t done = 0;
    while (done < content.size()) {
        const ssize_t n = ::write(fd, content.data() + done, content.size() - done);
        if (n < 0 && errno == EINTR)
            continue;
        if (n <= 0)
            return false;
        done += static_cast<std::size_t>(n);
    }
    return ::fsync(fd) == 0;
}

} // namespace

Result<std::string> read_file(const std::filesystem::path& path)
{
    std::error_code ec;
    if (std::filesystem::is_directory(path, ec))
        return Error{"this is a folder, not a file", path.string(), ""};
    errno = 0;
    std::ifstream in(path, std::ios::binary);
    if (!in)
        return Error{std::string("cannot be opened: ") + std::strerror(errno ? errno : ENOENT), path.string(), "Check the name and that you may read it"};
    std::ostringstream out;
    out << in.rdbuf();
    return std::move(out).str();
}

Result<std::monostate> write_file_atomically(const std::filesystem::path& path, const std::string& content)
{
    std::string temporary = (path.parent_path() / ("." + path.filename().string() + ".XXXXXX")).string();
    const int fd = ::mkstemp(temporary.data());
    if (fd < 0)
        return system_error("cannot be written", path, errno);
    ::fchmod(fd, 0644);
    const bool written = write_all(fd, content);
    int code = errno;
    if (::close(fd) != 0 && written)
        code = errno;
    if (!written) {
        ::unlink(temporary.c_str());
        return system_error("cannot be written", path, code);
    }
    if (std::rename(temporary.c_str(), path.c_str()) != 0) {
        code = errno;
        ::unlink(temporary.c_str());
        return system_error("cannot be replaced", path, code);
    }
    return std::monostate{};
}

} // namespace vernal
