#include "disk.h"

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <fcntl.h>
#include <fstream>
#include <sstream>
#include <sys/stat.h>
#include <unistd.h>
#include <utility>

namespace vernal {
namespace {

Error system_error(const std::string& what, const std::filesystem::path& path, int code)
{
    return Error{what + ": " + std::strerror(code), path.string(), code == ENOSPC ? "Make room, or save to another place" : "Save to another place, or check the folder"};
}

bool write_all(int fd, std::string_view content)
{
    while (!content.empty()) {
        const ssize_t n = ::write(fd, content.data(), content.size());
        if (n < 0 && errno == EINTR)
            continue;
        if (n <= 0)
            return false;
        content.remove_prefix(static_cast<std::size_t>(n));
    }
    return true;
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

AtomicFile::AtomicFile(std::filesystem::path path) : path_(std::move(path)), temporary_((path_.parent_path() / ("." + path_.filename().string() + ".XXXXXX")).string())
{
    fd_ = ::mkstemp(temporary_.data());
    failed_ = fd_ < 0 ? errno : 0;
    if (fd_ >= 0)
        ::fchmod(fd_, 0644);
}

AtomicFile::~AtomicFile()
{
    if (fd_ < 0)
        return;
    ::close(fd_);
    ::unlink(temporary_.c_str());
}

void AtomicFile::write(std::string_view content)
{
    if (failed_ == 0 && !write_all(fd_, content))
        failed_ = errno;
}

Result<std::monostate> AtomicFile::finish()
{
    if (failed_ == 0 && ::fsync(fd_) != 0)
        failed_ = errno;
    if (fd_ >= 0 && ::close(std::exchange(fd_, -1)) != 0 && failed_ == 0)
        failed_ = errno;
    const char* what = "cannot be written";
    if (failed_ == 0 && std::rename(temporary_.c_str(), path_.c_str()) != 0) {
        failed_ = errno;
        what = "cannot be replaced";
    }
    if (failed_ == 0)
        return std::monostate{};
    ::unlink(temporary_.c_str());
    return system_error(what, path_, failed_);
}

Result<std::monostate> write_file_atomically(const std::filesystem::path& path, const std::string& content)
{
    AtomicFile file(path);
    file.write(content);
    return file.finish();
}

} // namespace vernal
