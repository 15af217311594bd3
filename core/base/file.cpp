#include "base/file.hpp"

#include <algorithm>
#include <array>
#include <cctype>
#include <cerrno>
#include <chrono>
#include <csignal>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <memory>
#include <random>
#include <sys/file.h>
#include <sys/stat.h>
#include <system_error>
#include <thread>
#include <unistd.h>

namespace kasuri {
namespace fs = std::filesystem;
namespace {

constexpr int most_links = 40;                        ///< as many as Linux follows
constexpr std::size_t longest_ending = 16;            ///< that a temporary takes over
constexpr auto reader_wait = std::chrono::seconds(5); ///< for somebody to read from a pipe
constexpr auto reader_poll = std::chrono::milliseconds(20);
constexpr const char* check_permissions = "Check its permissions.";
constexpr const char* free_space = "Free some space and try again.";

Error failure(const fs::path& path, const char* what, int code, const char* remedy) {
    return {said("{}: {}", translated(what), std::strerror(code)), path.string(), remedy};
}

/// A descriptor that is closed when it goes.
struct Descriptor {
    int file = -1;
    explicit Descriptor(int opened) : file(opened) {}
    Descriptor(const Descriptor&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    ~Descriptor() {
        if (file >= 0)
            ::close(file);
    }
    /// What closing says, which is the last word on whether everything was written.
    int close() { return ::close(std::exchange(file, -1)) == 0 ? 0 : errno; }
};

/// A temporary, locked as long as it is ours, so that one that was left behind can be told. Deleted unless the rename
/// made it the real file.
struct Temporary {
    fs::path path;
    Descriptor lock;
    Temporary(fs::path made, int file) : path(std::move(made)), lock(file) {}
    ~Temporary() {
        std::error_code ignored;
        if (!path.empty())
            fs::remove(path, ignored);
    }
};

Status sync_to_disk(const fs::path& path) {
    const Descriptor file(::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NOFOLLOW));
    if (file.file < 0)
        return failure(path, "cannot reopen what was written", errno, "Is the folder still there?");
    if (::fsync(file.file) != 0)
        return failure(path, "cannot bring the file to disk", errno, free_space);
    return {};
}

/// So that the name is there after a loss of power, too. What cannot be synced (some file systems) is left to itself.
void sync_folder(const fs::path& folder) {
    const Descriptor opened(::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (opened.file >= 0)
        (void)::fsync(opened.file);
}

/// A name that nobody can guess, and no longer than any file system takes. A file of it is made, ours alone to write.
Result<std::unique_ptr<Temporary>> new_temporary(const fs::path& folder, const fs::path& like) {
    std::random_device random;
    std::string ending = like.extension().string(); // pictures and LUTs are written by their ending
    if (ending.size() > longest_ending)
        ending.clear();
    for (int tries = 0;; ++tries) {
        const fs::path path =
            folder / fmt::format("{}{:08x}{:08x}.part{}", temporary_prefix, random(), random(), ending);
        const int made = ::open(path.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, 0666);
        if (made >= 0) {
            (void)::flock(made, LOCK_EX | LOCK_NB);
            return std::make_unique<Temporary>(path, made);
        }
        if (errno != EEXIST || tries > 8)
            return failure(folder, "cannot write here", errno, "Choose another folder, or check its permissions.");
    }
}

/// Where a path leads in the end: links are followed, also one whose end is not there yet.
Result<fs::path> end_of_links(fs::path path) {
    const fs::path asked = path;
    std::error_code code;
    for (int links = 0; fs::is_symlink(fs::symlink_status(path, code)); ++links) {
        if (links == most_links)
            return Error{"the link leads in a circle", asked.string(), "Choose another name."};
        const fs::path to = fs::read_symlink(path, code);
        if (code)
            return Error{said("the link leads nowhere: {}", code.message()), asked.string(), ""};
        path = to.is_absolute() ? to : path.parent_path() / to;
    }
    return path;
}

Status write_all(int file, const fs::path& path, std::string_view content) {
    while (!content.empty()) {
        const ssize_t count = ::write(file, content.data(), content.size());
        if (count < 0 && errno == EINTR)
            continue;
        if (count <= 0)
            return failure(path, "cannot write all of the file", errno, free_space);
        content.remove_prefix(static_cast<std::size_t>(count));
    }
    return {};
}

/// While it lives, a pipe whose reader has gone is an error of this thread's writes, and no end of the program.
class NoBrokenPipe {
public:
    NoBrokenPipe() {
        ::sigemptyset(&pipe_);
        ::sigaddset(&pipe_, SIGPIPE);
        ::pthread_sigmask(SIG_BLOCK, &pipe_, &before_);
    }
    ~NoBrokenPipe() {
        const timespec at_once{};
        while (::sigtimedwait(&pipe_, nullptr, &at_once) > 0) {
        }
        ::pthread_sigmask(SIG_SETMASK, &before_, nullptr);
    }
    NoBrokenPipe(const NoBrokenPipe&) = delete;
    NoBrokenPipe& operator=(const NoBrokenPipe&) = delete;

private:
    sigset_t pipe_{}, before_{};
};

/// Opens a device or a pipe for writing; a pipe that nobody reads from is waited for a while.
int open_special(const fs::path& path, bool pipe) {
    const auto until = std::chrono::steady_clock::now() + reader_wait;
    while (true) {
        const int file = ::open(path.c_str(), O_WRONLY | O_CLOEXEC | O_NOCTTY | (pipe ? O_NONBLOCK : 0));
        if (file >= 0 || errno != ENXIO || !pipe || std::chrono::steady_clock::now() > until) {
            if (file >= 0 && pipe)
                ::fcntl(file, F_SETFL, ::fcntl(file, F_GETFL) & ~O_NONBLOCK);
            return file;
        }
        std::this_thread::sleep_for(reader_poll);
    }
}

/// Into a device, a pipe or a socket: there is nothing that could be kept, and nothing is replaced.
Status write_special(const fs::path& path, bool pipe, const std::function<Status(const fs::path&)>& write) {
    std::error_code code;
    const fs::path folder = fs::temp_directory_path(code);
    Result<std::unique_ptr<Temporary>> made = new_temporary(code ? fs::path("/tmp") : folder, path);
    if (!made)
        return made.error();
    const Temporary& temporary = *made.value();
    if (Status written = write(temporary.path); !written)
        return written;
    const Descriptor from(::open(temporary.path.c_str(), O_RDONLY | O_CLOEXEC | O_NOFOLLOW));
    if (from.file < 0)
        return failure(path, "cannot reopen what was written", errno, "");
    const NoBrokenPipe no_broken_pipe;
    Descriptor to(open_special(path, pipe));
    if (to.file < 0)
        return errno == ENXIO ? Status(Error{"nobody reads from it", path.string(), "Start what reads it first."})
                              : Status(failure(path, "cannot write here", errno, check_permissions));
    std::array<char, 1 << 16> block{};
    for (ssize_t count = 0; (count = ::read(from.file, block.data(), block.size())) != 0;) {
        if (count < 0)
            return failure(path, "cannot reopen what was written", errno, "");
        if (Status written = write_all(to.file, path, {block.data(), static_cast<std::size_t>(count)}); !written)
            return written;
    }
    if (const int failed = to.close(); failed != 0)
        return failure(path, "cannot write all of the file", failed, free_space);
    return {};
}

/// An error unless it is a folder that can be looked into.
Status is_folder(const fs::path& folder) {
    struct stat facts {};
    if (::stat(folder.c_str(), &facts) != 0 && errno != ENOENT && errno != ENOTDIR)
        return failure(folder, "cannot open the folder", errno, check_permissions);
    if (!S_ISDIR(facts.st_mode))
        return Error{"there is no folder to write to", folder.string(), "Make it first, or choose another."};
    return {};
}

} // namespace

std::string lower_ending(const std::filesystem::path& path) {
    std::string ending = path.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return ending;
}

Status readable_file(const fs::path& path) {
    // Opened, for only that tells everything; without blocking, for a pipe that nobody writes to would for ever.
    const Descriptor file(::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_NOCTTY | O_CLOEXEC));
    if (file.file < 0 && (errno == ENOENT || errno == ENOTDIR))
        return Error{"there is no such file", path.string(), "Check the name."};
    if (file.file < 0 && errno != ENXIO)
        return failure(path, "cannot open", errno, check_permissions);
    struct stat facts {};
    if (file.file >= 0 && ::fstat(file.file, &facts) != 0)
        return failure(path, "cannot open", errno, check_permissions);
    if (S_ISDIR(facts.st_mode))
        return Error{"this is a folder, not a file", path.string(), "Name a file in it."};
    if (!S_ISREG(facts.st_mode))
        return Error{"this is a device or a pipe, not a file", path.string(), "Name a file."};
    return {};
}

Status readable_folder(const fs::path& path) {
    const Descriptor folder(::open(path.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (folder.file >= 0)
        return {};
    if (errno == ENOENT)
        return Error{"there is no such folder", path.string(), "Check the name."};
    return failure(path, "cannot look into this folder", errno, check_permissions);
}

Result<std::string> read_file(const fs::path& path, std::size_t limit) {
    if (Status readable = readable_file(path); !readable)
        return readable.error();
    // What took its place since then is no reason to wait either.
    const Descriptor file(::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_NOCTTY | O_CLOEXEC));
    if (file.file < 0)
        return failure(path, "cannot open", errno, check_permissions);
    std::string content;
    std::array<char, 1 << 16> block{};
    while (true) {
        const ssize_t count = ::read(file.file, block.data(), block.size());
        if (count < 0 && errno == EINTR)
            continue;
        if (count < 0)
            return failure(path, "cannot read", errno, "");
        if (count == 0)
            return content;
        content.append(block.data(), static_cast<std::size_t>(count));
        if (content.size() > limit)
            return Error{said("the file is longer than {} bytes", limit), path.string(),
                         "Is it the file that was meant?"};
    }
}

Status write_atomically(const fs::path& path, const std::function<Status(const fs::path&)>& write, Lasts lasts) {
    struct stat before {};
    const bool exists = ::stat(path.c_str(), &before) == 0;
    if (exists && S_ISDIR(before.st_mode))
        return Error{"this is a folder, not a file", path.string(), "Name a file in it."};
    if (exists && !S_ISREG(before.st_mode))
        return write_special(path, S_ISFIFO(before.st_mode), write);
    // A link is followed, so that saving through it changes, or makes, the file it stands for.
    Result<fs::path> end = end_of_links(path);
    if (!end)
        return end.error();
    const fs::path target = end.value();
    if (exists && ::access(target.c_str(), W_OK) != 0)
        return failure(path, "the file is write-protected", errno, "Save under another name, or lift the protection.");
    const fs::path folder = target.has_parent_path() ? target.parent_path() : fs::path(".");
    if (Status there = is_folder(folder); !there)
        return there;
    Result<std::unique_ptr<Temporary>> made = new_temporary(folder, target);
    if (!made)
        return made.error();
    Temporary& temporary = *made.value();
    if (Status written = write(temporary.path); !written)
        return written;
    if (lasts == Lasts::power_loss)
        if (Status synced = sync_to_disk(temporary.path); !synced)
            return synced;
    if (exists)
        ::chmod(temporary.path.c_str(), before.st_mode & 07777);
    std::error_code code;
    fs::rename(temporary.path, target, code);
    if (code)
        return Error{said("cannot put the new file in place: {}", code.message()), path.string(), check_permissions};
    temporary.path.clear();
    if (lasts == Lasts::power_loss)
        sync_folder(folder);
    return {};
}

Status write_file(const fs::path& path, std::string_view content, Lasts lasts) {
    return write_atomically(
        path,
        [&](const fs::path& temporary) -> Status {
            Descriptor file(::open(temporary.c_str(), O_WRONLY | O_TRUNC | O_NOFOLLOW | O_CLOEXEC));
            if (file.file < 0)
                return failure(path, "cannot write here", errno, "Choose another folder, or check its permissions.");
            if (Status written = write_all(file.file, path, content); !written)
                return written;
            if (const int failed = file.close(); failed != 0)
                return failure(path, "cannot write all of the file", failed, free_space);
            return {};
        },
        lasts);
}

bool is_temporary(const fs::path& path) {
    const std::string name = path.filename().string();
    return name.starts_with(temporary_prefix) && name.find(".part") != std::string::npos;
}

std::size_t remove_stale_temporaries(const fs::path& folder) {
    std::size_t removed = 0;
    std::error_code code;
    for (fs::directory_iterator walk(folder.empty() ? fs::path(".") : folder, code), end; !code && walk != end;
         walk.increment(code)) {
        if (!is_temporary(walk->path()))
            continue;
        const Descriptor file(::open(walk->path().c_str(), O_RDONLY | O_NONBLOCK | O_NOFOLLOW | O_CLOEXEC));
        std::error_code kept;
        if (file.file >= 0 && ::flock(file.file, LOCK_EX | LOCK_NB) == 0 && fs::remove(walk->path(), kept))
            ++removed;
    }
    return removed;
}

} // namespace kasuri
