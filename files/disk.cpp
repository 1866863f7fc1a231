#include "disk.h"

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <fcntl.h>
#include <fstream>
#include <optional>
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

// What is there and is no file: a folder, or a device or pipe, which could give without end.
std::optional<Error> no_file(const std::filesystem::path& path)
{
    std::error_code ec;
    const auto status = std::filesystem::status(path, ec);
    if (!std::filesystem::exists(status) || std::filesystem::is_regular_file(status))
        return {};
    return Error{std::filesystem::is_directory(status) ? "this is a folder, not a file" : "this is a device or a pipe, not a file", path.string(), "Choose a file"};
}

// Where a link leads, so that the link stays; a broken one, to where it would.
std::filesystem::path behind_links(std::filesystem::path path)
{
    std::error_code ec;
    for (int i = 0; i < 40 && std::filesystem::is_symlink(path, ec); ++i) {
        const auto to = std::filesystem::read_symlink(path, ec);
        path = to.is_absolute() ? to : path.parent_path() / to;
    }
    return path;
}

} // namespace

Result<std::string> read_file(const std::filesystem::path& path)
{
    if (auto trouble = no_file(path))
        return *trouble;
    errno = 0;
    std::ifstream in(path, std::ios::binary);
    if (!in)
        return Error{std::string("cannot be opened: ") + std::strerror(errno ? errno : ENOENT), path.string(), "Check the name and that you may read it"};
    std::ostringstream out;
    out << in.rdbuf();
    return std::move(out).str();
}

AtomicFile::AtomicFile(std::filesystem::path path) : path_(behind_links(std::move(path))), temporary_((path_.parent_path() / ("." + path_.filename().string() + ".XXXXXX")).string())
{
    if ((refused_ = no_file(path_)))
        return;
    fd_ = ::mkstemp(temporary_.data());
    failed_ = fd_ < 0 ? errno : 0;
    if (fd_ < 0)
        return;
    // Mode, and as far as it may owner, of the file that is there; else what the person's usual is.
    struct stat old {};
    if (::stat(path_.c_str(), &old) == 0) {
        ::fchmod(fd_, old.st_mode & 07777U);
        if (::fchown(fd_, old.st_uid, old.st_gid) != 0)
            errno = 0; // only its owner's rights are lost
    } else {
        const mode_t mask = ::umask(0);
        ::umask(mask);
        ::fchmod(fd_, 0666U & ~mask);
    }
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
    if (failed_ == 0 && !refused_ && !write_all(fd_, content))
        failed_ = errno;
}

Result<std::monostate> AtomicFile::finish()
{
    if (refused_)
        return *refused_;
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
