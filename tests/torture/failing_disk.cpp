// A disk that fails, for programs that are started with it in LD_PRELOAD: below KASURI_DISK_FOLDER, calls that write
// fail as KASURI_DISK says: "KIND PERCENT SEED". Kinds: full (ENOSPC), broken (EIO), read-only (EROFS), short (half of
// what was asked), slow (20 ms each), and mixed. Standard streams and other folders are left alone.
#include <atomic>
#include <cerrno>
#include <cstdarg>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <dlfcn.h>
#include <fcntl.h>
#include <sys/types.h>
#include <sys/uio.h>
#include <unistd.h>

namespace {

struct Plan {
    char folder[4096] = "";
    char kind[32] = "";
    unsigned percent = 0;
    std::atomic<unsigned> state{1};

    Plan() {
        const char* where = std::getenv("KASURI_DISK_FOLDER");
        const char* what = std::getenv("KASURI_DISK");
        unsigned seed = 1;
        if (!where || !what || std::sscanf(what, "%31s %u %u", kind, &percent, &seed) < 2)
            percent = 0;
        else
            std::snprintf(folder, sizeof folder, "%s", where);
        state = seed * 2654435761u + static_cast<unsigned>(::getpid());
    }
    unsigned roll() { // xorshift (Marsaglia 2003)
        unsigned x = state;
        x ^= x << 13;
        x ^= x >> 17;
        x ^= x << 5;
        state = x ? x : 1;
        return x;
    }
    bool hit() { return percent > 0 && roll() % 100 < percent; }
    bool is(const char* name) { return std::strcmp(kind, name) == 0 || std::strcmp(kind, "mixed") == 0; }
    bool below(const char* path) const {
        const std::size_t length = std::strlen(folder);
        return length > 0 && std::strncmp(path, folder, length) == 0 && (path[length] == '/' || path[length] == 0);
    }
    bool below(int descriptor) const {
        if (descriptor <= 2 || folder[0] == 0)
            return false;
        char link[64], path[4096];
        std::snprintf(link, sizeof link, "/proc/self/fd/%d", descriptor);
        const ssize_t length = ::readlink(link, path, sizeof path - 1);
        if (length <= 0)
            return false;
        path[length] = 0;
        return below(path);
    }
    /// An errno for a write that is to fail; 0: it may be done.
    int fault() {
        if (!hit())
            return 0;
        const int faults[] = {is("full") ? ENOSPC : 0, is("broken") ? EIO : 0, is("read-only") ? EROFS : 0};
        if (is("slow"))
            ::usleep(20000);
        return faults[roll() % 3];
    }
};

Plan& plan() {
    static Plan made;
    return made;
}

template <class F>
F next(const char* name) {
    return reinterpret_cast<F>(::dlsym(RTLD_NEXT, name));
}

bool failed(int fault) {
    if (fault != 0)
        errno = fault;
    return fault != 0;
}

bool writes(int flags) { return (flags & O_ACCMODE) != O_RDONLY || (flags & (O_CREAT | O_TRUNC)) != 0; }

} // namespace

extern "C" {

ssize_t write(int descriptor, const void* data, size_t bytes) {
    static const auto real = next<ssize_t (*)(int, const void*, size_t)>("write");
    if (plan().below(descriptor)) {
        if (failed(plan().fault()))
            return -1;
        if (bytes > 1 && plan().is("short") && plan().hit())
            bytes /= 2;
    }
    return real(descriptor, data, bytes);
}

ssize_t pwrite(int descriptor, const void* data, size_t bytes, off_t at) {
    static const auto real = next<ssize_t (*)(int, const void*, size_t, off_t)>("pwrite");
    if (plan().below(descriptor) && failed(plan().fault()))
        return -1;
    return real(descriptor, data, bytes, at);
}

ssize_t writev(int descriptor, const iovec* parts, int count) {
    static const auto real = next<ssize_t (*)(int, const iovec*, int)>("writev");
    if (plan().below(descriptor) && failed(plan().fault()))
        return -1;
    return real(descriptor, parts, count);
}

int fsync(int descriptor) {
    static const auto real = next<int (*)(int)>("fsync");
    return plan().below(descriptor) && failed(plan().fault()) ? -1 : real(descriptor);
}

int ftruncate(int descriptor, off_t size) {
    static const auto real = next<int (*)(int, off_t)>("ftruncate");
    return plan().below(descriptor) && failed(plan().fault()) ? -1 : real(descriptor, size);
}

int rename(const char* from, const char* to) {
    static const auto real = next<int (*)(const char*, const char*)>("rename");
    return plan().below(to) && failed(plan().fault()) ? -1 : real(from, to);
}

int open(const char* path, int flags, ...) {
    static const auto real = next<int (*)(const char*, int, ...)>("open");
    va_list more;
    va_start(more, flags);
    const mode_t mode = va_arg(more, mode_t);
    va_end(more);
    return writes(flags) && plan().below(path) && failed(plan().fault()) ? -1 : real(path, flags, mode);
}

int open64(const char* path, int flags, ...) {
    va_list more;
    va_start(more, flags);
    const mode_t mode = va_arg(more, mode_t);
    va_end(more);
    return open(path, flags, mode);
}

FILE* fopen(const char* path, const char* mode) {
    static const auto real = next<FILE* (*)(const char*, const char*)>("fopen");
    return mode[0] != 'r' && plan().below(path) && failed(plan().fault()) ? nullptr : real(path, mode);
}

FILE* fopen64(const char* path, const char* mode) { return fopen(path, mode); }

size_t fwrite(const void* data, size_t size, size_t count, FILE* file) {
    static const auto real = next<size_t (*)(const void*, size_t, size_t, FILE*)>("fwrite");
    return file != stdout && file != stderr && plan().below(::fileno(file)) && failed(plan().fault())
        ? 0
        : real(data, size, count, file);
}

} // extern "C"
