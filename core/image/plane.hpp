#pragma once
#include "image/samples.hpp"

#include <array>
#include <cstddef>
#include <cstdint>
#include <iterator>
#include <memory>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace kasuri::image {

/// How the numbers were stored in a file.
enum class Depth {
    uint8,
    uint16,
    half,
    float32,
    uint32, ///< numbers that name something, such as objects: their bits stand in the place of the floats'
};
/// "8", "16", "half" or "float"; pictures are of none other.
std::optional<Depth> find_depth(std::string_view name);

/// Pixels of a picture that are made when they are asked for, since it is too large to be kept. Safe across threads.
class MadeOnDemand {
public:
    virtual ~MadeOnDemand() = default;
    virtual std::size_t width() const = 0;
    virtual std::size_t height() const = 0;
    /// Puts the channels of the pixels [x, x + wide) x [y, y + high), row by row, to where `to` is not null.
    virtual void make(std::size_t x, std::size_t y, std::size_t wide, std::size_t high,
                      const std::array<float*, 4>& to) const = 0;
};

/// The numbers of one channel: floats to everyone who reads them, but kept as they came from a file where that takes
/// less. Whole ones stand for code / 255 and code / 65535.
class PlaneData {
public:
    class Iterator;
    using Bytes = std::vector<unsigned char, Uncleared<unsigned char>>;

    explicit PlaneData(Samples floats);
    /// `kind` is uint8, uint16 or half; the bytes are as the machine holds such numbers.
    PlaneData(Depth kind, Bytes kept);
    /// A channel of what is made when it is asked for: nothing of it is kept.
    PlaneData(std::shared_ptr<const MadeOnDemand> made, std::size_t channel);
    PlaneData(const PlaneData&) = delete;
    PlaneData& operator=(const PlaneData&) = delete;

    std::size_t size() const { return size_; }
    Depth kind() const { return kind_; } ///< float32 for floats, those of uint32 among them
    std::size_t bytes() const;           ///< of memory
    /// The numbers as they are kept; null if they are made when they are asked for.
    const void* kept() const;
    const MadeOnDemand* on_demand() const { return made_.get(); }
    const float* values() const { return values_; } ///< the first of the floats; null where they are kept otherwise
    float operator[](std::size_t i) const {
        if (values_) [[likely]]
            return values_[i];
        return number(i);
    }
    /// `count` numbers from `first` on: where they lie, if they are floats; else put into `room`, which holds as many.
    const float* numbers(std::size_t first, std::size_t count, float* room) const;
    /// The same, always into `to`.
    void copy(std::size_t first, std::size_t count, float* to) const;
    /// The floats of a plane that is kept as such, for whoever made it; else none.
    const Samples& floats() const { return floats_; }
    /// A copy as floats.
    Samples copied() const;
    Iterator begin() const;
    Iterator end() const;
    friend bool operator==(const PlaneData& a, const PlaneData& b); ///< number by number; NaN is equal to none

private:
    float number(std::size_t i) const;

    Samples floats_{};
    Bytes kept_{};
    std::shared_ptr<const MadeOnDemand> made_{};
    std::size_t channel_ = 0;
    const float* values_ = nullptr; ///< of the floats
    Depth kind_ = Depth::float32;
    std::size_t size_ = 0;
};

/// One number after the other. Whoever reads many asks for `numbers`.
class PlaneData::Iterator {
public:
    using iterator_category = std::forward_iterator_tag;
    using value_type = float;
    using difference_type = std::ptrdiff_t;
    using pointer = const float*;
    using reference = float;

    Iterator() = default;
    Iterator(const PlaneData& of, std::size_t at) : of_(&of), at_(at) {}
    float operator*() const { return (*of_)[at_]; }
    Iterator& operator++() {
        ++at_;
        return *this;
    }
    Iterator operator++(int) { return {*of_, at_++}; }
    friend bool operator==(const Iterator& a, const Iterator& b) { return a.at_ == b.at_; }

private:
    const PlaneData* of_ = nullptr;
    std::size_t at_ = 0;
};

/// One channel, row by row from the top left. Planes are shared and never changed once they are in an Image, so that
/// copies of pictures and of single channels cost nothing.
using Plane = std::shared_ptr<const PlaneData>;

/// Takes the samples over; they are shared and never change.
Plane make_plane(Samples values);

/// The same plane, or one of the same numbers that is kept as floats: for those who need all of them beside each other.
Plane as_floats(const Plane& plane);

/// Gathers a channel that comes band by band as floats, and keeps it as `depth` says, as long as those are the same
/// numbers: half floats bit by bit, whole ones within the rounding of a division. From the first number on for which
/// that is not so, all are floats.
class PlaneGatherer {
public:
    /// Of `count` numbers. Memory that nothing was put into is not taken.
    PlaneGatherer(Depth depth, std::size_t count);
    /// The next numbers, every `stride`-th of `from` on.
    void put(const float* from, std::size_t count, std::size_t stride);
    /// What was put in. Throws std::logic_error if it was not all.
    Plane plane() &&;

private:
    bool keep(const float* from, std::size_t count);
    void widen();

    Depth kind_;
    std::size_t size_, filled_ = 0;
    PlaneData::Bytes kept_{};
    Samples floats_{};
};

/// The same numbers, kept as `depth` says where that is the same.
Plane packed(const Plane& plane, Depth depth);

/// Buffers that planes give back when nobody needs them any more, so that evaluating the same picture again and
/// again neither asks the system for memory nor clears it. Copies share the store; safe across threads.
class PlanePool {
public:
    PlanePool();
    /// `count` floats of any value.
    Samples take(std::size_t count) const;
    /// A plane whose buffer comes back here.
    Plane plane(Samples values) const;

private:
    struct Store;
    std::shared_ptr<Store> store_;
};

} // namespace kasuri::image
