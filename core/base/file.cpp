#include "base/file.hpp"

#include <algorithm>
#include <atomic>
#include <cctype>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <fstream>
#include <sys/stat.h>
#include <system_error>
#include <unistd.h>

namespace kasuri {
namespace fs = std::filesystem;
namespace {

Error failure(const fs::path& path, const char* what, int code, const char* remedy) {
    return {said("{}: {}", translated(what), std::strerror(code)), path.string(), remedy};
}

/// Deletes the temporary unless the rename made it the real file.
struct Temporary {
    fs::path path;
    ~Temporary() {
        std::error_code ignored;
        if (!path.empty())
            fs::remove(path, ignored);
    }
};

Status sync_to_disk(const fs::path& path) {
    const int file = ::open(path.c_str(), O_RDONLY | O_CLOEXEC);
    if (file < 0)
        return failure(path, "cannot reopen what was written", errno, "");
    const int failed = ::fsync(file) != 0 ? errno : 0;
    ::close(file);
    if (failed != 0)
        return failure(path, "cannot bring the file to disk", failed, "Free some space and try again.");
    return {};
}

} // namespace

std::string lower_ending(const std::filesystem::path& path) {
    std::string ending = path.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return ending;
}

Result<std::string> read_file(const fs::path& path, std::size_t limit) {
    std::error_code code;
    const fs::file_status status = fs::status(path, code);
    if (status.type() == fs::file_type::not_found)
        return Error{"there is no such file", path.string(), "Check the name."};
    if (status.type() == fs::file_type::directory)
        return Error{"this is a folder, not a file", path.string(), "Name a file in it."};
    std::ifstream in(path, std::ios::binary);
    if (!in)
        return failure(path, "cannot open", errno, "Check its permissions.");
    std::string content;
    char block[1 << 16];
    while (in.read(block, sizeof block) || in.gcount() > 0) {
        content.append(block, static_cast<std::size_t>(in.gcount()));
        if (content.size() > limit)
            return Error{said("the file is longer than {} bytes", limit), path.string(),
                         "Is it the file that was meant?"};
    }
    if (in.bad())
        return failure(path, "cannot read", errno, "");
    return content;
}

Status write_atomically(const fs::path& path, const std::function<Status(const fs::path&)>& write) {
    std::error_code code;
    // A link is followed, so that saving through it changes the file it stands for.
    fs::path target = path;
    if (fs::is_symlink(fs::symlink_status(path, code))) {
        target = fs::weakly_canonical(path, code);
        if (code)
            return Error{said("the link leads nowhere: {}", code.message()), path.string(), ""};
    }
    if (fs::is_directory(target, code))
        return Error{"this is a folder, not a file", path.string(), "Name a file in it."};
    if (fs::exists(target, code) && ::access(target.c_str(), W_OK) != 0)
        return failure(path, "the file is write-protected", errno, "Save under another name, or lift the protection.");
    const fs::path folder = target.has_parent_path() ? target.parent_path() : fs::path(".");
    if (!fs::is_directory(folder, code))
        return Error{"there is no folder to write to", folder.string(), "Make it first, or choose another."};
    // Pictures are written by their ending, so the temporary keeps it. Two threads may write one file at a time.
    static std::atomic<unsigned> writes = 0;
    Temporary temporary{
        folder /
        fmt::format(".{}.{}-{}.part{}", target.stem().string(), ::getpid(), writes++, target.extension().string())};
    if (Status written = write(temporary.path); !written)
        return written;
    if (Status synced = sync_to_disk(temporary.path); !synced)
        return synced;
    struct stat before {};
    if (::stat(target.c_str(), &before) == 0)
        ::chmod(temporary.path.c_str(), before.st_mode & 07777);
    fs::rename(temporary.path, target, code);
    if (code)
        return Error{said("cannot put the new file in place: {}", code.message()), path.string(),
                     "Check its permissions."};
    temporary.path.clear();
    return {};
}

Status write_file(const fs::path& path, std::string_view content) {
    return write_atomically(path, [&](const fs::path& temporary) -> Status {
        const int file = ::open(temporary.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0666);
        if (file < 0)
            return failure(path, "cannot write here", errno, "Choose another folder, or check its permissions.");
        std::size_t done = 0;
        while (done < content.size()) {
            const ssize_t count = ::write(file, content.data() + done, content.size() - done);
            if (count < 0 && errno == EINTR)
                continue;
            if (count <= 0) {
                const int failed = errno;
                ::close(file);
                return failure(path, "cannot write all of the file", failed, "Free some space and try again.");
            }
            done += static_cast<std::size_t>(count);
        }
        if (::close(file) != 0)
            return failure(path, "cannot write all of the file", errno, "Free some space and try again.");
        return {};
    });
}

} // namespace kasuri
