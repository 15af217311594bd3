#include "wire/link.hpp"

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <poll.h>
#include <sys/mman.h>
#include <sys/socket.h>
#include <unistd.h>

namespace kasuri::wire {
namespace {

using Clock = std::chrono::steady_clock;

/// Headers with all their attributes, and texts of LUTs, stay below it.
constexpr std::uint32_t longest = 1u << 30;

} // namespace

Link::~Link() {
    if (descriptor_ >= 0)
        ::close(descriptor_);
}

bool Link::send(const Message& message) {
    const std::string body = packed(message);
    if (body.size() > longest)
        return false;
    const auto size = static_cast<std::uint32_t>(body.size());
    std::string all(sizeof size, '\0');
    std::memcpy(all.data(), &size, sizeof size);
    all += body;
    for (std::size_t at = 0; at < all.size();) {
        const ssize_t sent = ::send(descriptor_, all.data() + at, all.size() - at, MSG_NOSIGNAL);
        if (sent < 0 && errno == EINTR)
            continue;
        if (sent <= 0)
            return false;
        at += static_cast<std::size_t>(sent);
    }
    return true;
}

Link::Outcome Link::take(char* to, std::size_t bytes, Clock::time_point end, bool for_ever) {
    for (std::size_t at = 0; at < bytes;) {
        const auto left = std::chrono::duration_cast<std::chrono::milliseconds>(end - Clock::now()).count();
        if (!for_ever && left <= 0)
            return Outcome::late;
        pollfd ready{descriptor_, POLLIN, 0};
        const int polled = ::poll(&ready, 1, for_ever ? -1 : static_cast<int>(std::min<long long>(left, 1 << 30)));
        if (polled < 0 && errno != EINTR)
            return Outcome::closed;
        if (polled <= 0)
            continue;
        const ssize_t got = ::recv(descriptor_, to + at, bytes - at, 0);
        if (got < 0 && errno == EINTR)
            continue;
        if (got <= 0)
            return Outcome::closed;
        at += static_cast<std::size_t>(got);
    }
    return Outcome::message;
}

Link::Outcome Link::receive(Message& message, std::chrono::milliseconds limit) {
    const bool for_ever = limit.count() < 0;
    const auto end = Clock::now() + (for_ever ? std::chrono::milliseconds(0) : limit);
    std::uint32_t size = 0;
    if (const Outcome got = take(reinterpret_cast<char*>(&size), sizeof size, end, for_ever); got != Outcome::message)
        return got;
    if (size > longest)
        return Outcome::broken;
    std::string body(size, '\0');
    if (const Outcome got = take(body.data(), size, end, for_ever); got != Outcome::message)
        return got;
    std::optional<Message> made = unpacked(body);
    if (!made)
        return Outcome::broken;
    message = *std::move(made);
    return Outcome::message;
}

Slots Slots::made() {
    const int descriptor = ::memfd_create("kasuri-slots", MFD_CLOEXEC | MFD_ALLOW_SEALING);
    if (descriptor >= 0)
        ::fcntl(descriptor, F_ADD_SEALS, F_SEAL_SHRINK);
    return Slots(descriptor);
}

Slots::~Slots() {
    if (begin_)
        ::munmap(begin_, mapped_);
    if (descriptor_ >= 0)
        ::close(descriptor_);
}

Slots::Slots(Slots&& other) noexcept
    : descriptor_(other.descriptor_), begin_(other.begin_), mapped_(other.mapped_), bytes_(other.bytes_),
      count_(other.count_) {
    other.descriptor_ = -1;
    other.begin_ = nullptr;
}

bool Slots::arrange(std::size_t bytes, int count, bool grow) {
    constexpr std::size_t page = 4096;
    if (bytes == 0 || count < 1 || descriptor_ < 0)
        return false;
    bytes = (bytes + page - 1) / page * page;
    const std::size_t total = bytes * static_cast<std::size_t>(count);
    if (total > mapped_) {
        if (grow && ::ftruncate(descriptor_, static_cast<off_t>(total)) != 0)
            return false;
        void* const begin = ::mmap(nullptr, total, PROT_READ | PROT_WRITE, MAP_SHARED, descriptor_, 0);
        if (begin == MAP_FAILED)
            return false;
        if (begin_)
            ::munmap(begin_, mapped_);
        begin_ = begin;
        mapped_ = total;
    }
    bytes_ = bytes;
    count_ = count;
    return true;
}

void Slots::rest() const {
    // The size stays: both have it mapped.
    if (mapped_ > 0)
        (void)::fallocate(descriptor_, FALLOC_FL_PUNCH_HOLE | FALLOC_FL_KEEP_SIZE, 0, static_cast<off_t>(mapped_));
}

float* Slots::at(int slot) const {
    return reinterpret_cast<float*>(static_cast<char*>(begin_) + bytes_ * static_cast<std::size_t>(slot));
}

} // namespace kasuri::wire
