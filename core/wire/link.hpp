#pragma once
#include "wire/message.hpp"

#include <chrono>
#include <cstddef>

namespace kasuri::wire {

/// What both programs find open when the one that was started begins.
inline constexpr int socket_place = 3, memory_place = 4;

/// One end of the socket between two programs. Not for several threads at once.
class Link {
public:
    enum class Outcome { message, late, closed, broken };

    explicit Link(int descriptor) : descriptor_(descriptor) {}
    ~Link();
    Link(Link&& other) noexcept : descriptor_(other.descriptor_) { other.descriptor_ = -1; }
    Link(const Link&) = delete;
    Link& operator=(const Link&) = delete;
    Link& operator=(Link&&) = delete;

    int descriptor() const { return descriptor_; }
    /// False if nobody is there to hear it.
    bool send(const Message& message);
    /// Waits for the next message so long; without a limit where it is negative.
    Outcome receive(Message& message, std::chrono::milliseconds limit);

private:
    Outcome take(char* to, std::size_t bytes, std::chrono::steady_clock::time_point end, bool for_ever);
    int descriptor_;
};

/// Memory that two programs see, in slots of floats. It grows and never shrinks, so that neither can take it from
/// under the other.
class Slots {
public:
    /// Made anew, by the one who asks: nothing in it, closed for programs that are started unless it is handed on.
    static Slots made();
    /// That of the other program.
    explicit Slots(int descriptor) : descriptor_(descriptor) {}
    ~Slots();
    Slots(Slots&& other) noexcept;
    Slots(const Slots&) = delete;
    Slots& operator=(const Slots&) = delete;
    Slots& operator=(Slots&&) = delete;

    int descriptor() const { return descriptor_; }
    /// So many slots of so many bytes from now on; what was in them is lost. `grow`: asks for the memory as well. False
    /// if there is not that much.
    bool arrange(std::size_t bytes, int count, bool grow);
    /// The system has the memory again until something is written; what was in the slots is lost (they hold zeros).
    void rest() const;
    std::size_t bytes() const { return bytes_; } ///< of one slot
    std::size_t mapped() const { return mapped_; }
    int count() const { return count_; }
    float* at(int slot) const;

private:
    int descriptor_;
    void* begin_ = nullptr;
    std::size_t mapped_ = 0, bytes_ = 0;
    int count_ = 0;
};

} // namespace kasuri::wire
