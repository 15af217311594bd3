#include "image/plane.hpp"

#include "image/file_numbers.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>
#include <limits>
#include <mutex>
#include <stdexcept>
#include <utility>

namespace kasuri::image {
namespace {

constexpr std::size_t piece = 2048; ///< numbers that stay in the nearest cache, on their way

/// One row: how numbers of a kind are read, and made of floats. `make` says whether they are the same.
struct Kind {
    Depth depth;
    std::size_t bytes;
    void (*read)(const void* from, float* to, std::size_t count);
    bool (*make)(const float* from, void* to, std::size_t count);
};

template <class Code>
void read_codes(const void* from, float* to, std::size_t count) {
    from_codes(static_cast<const Code*>(from), to, count);
}

/// Readers multiply by 1 / most, which is up to two roundings away.
template <class Code>
bool make_codes(const float* from, void* to, std::size_t count) {
    constexpr auto most = static_cast<float>(std::numeric_limits<Code>::max());
    auto* codes = static_cast<Code*>(to);
    unsigned other = 0;
    for (std::size_t i = 0; i < count; ++i) {
        const float scaled = from[i] * most;
        const float inside = scaled > 0 ? std::min(scaled, most) : 0.0f; // not for NaN
        const auto code = static_cast<std::int32_t>(inside + 0.5f);
        const auto whole = static_cast<float>(code);
        codes[i] = static_cast<Code>(code);
        other |= std::fabs(scaled - whole) <= whole * 0x1p-22f ? 0u : 1u;
    }
    return other == 0;
}

void read_halves(const void* from, float* to, std::size_t count) {
    from_half(static_cast<const std::uint16_t*>(from), to, count);
}

bool make_halves(const float* from, void* to, std::size_t count) {
    auto* halves = static_cast<std::uint16_t*>(to);
    to_half(from, halves, count);
    std::array<float, piece> again;
    from_half(halves, again.data(), count);
    return std::memcmp(again.data(), from, count * sizeof(float)) == 0;
}

constexpr Kind kinds[] = {
    {Depth::uint8, 1, read_codes<std::uint8_t>, make_codes<std::uint8_t>},
    {Depth::uint16, 2, read_codes<std::uint16_t>, make_codes<std::uint16_t>},
    {Depth::half, 2, read_halves, make_halves},
};

/// Null for what is kept as floats.
const Kind* kind_of(Depth depth) {
    const auto* const found =
        std::find_if(std::begin(kinds), std::end(kinds), [&](const Kind& kind) { return kind.depth == depth; });
    return found == std::end(kinds) ? nullptr : found;
}

} // namespace

std::optional<Depth> find_depth(std::string_view name) {
    constexpr std::pair<std::string_view, Depth> names[] = {
        {"8", Depth::uint8}, {"16", Depth::uint16}, {"half", Depth::half}, {"float", Depth::float32}};
    for (const auto& [each, depth] : names)
        if (each == name)
            return depth;
    return std::nullopt;
}

PlaneData::PlaneData(Samples floats) : floats_(std::move(floats)), values_(floats_.data()), size_(floats_.size()) {}

PlaneData::PlaneData(Depth kind, Bytes kept)
    : kept_(std::move(kept)), kind_(kind), size_(kept_.size() / kind_of(kind)->bytes) {}

PlaneData::PlaneData(std::shared_ptr<const MadeOnDemand> made, std::size_t channel)
    : made_(std::move(made)), channel_(channel), size_(made_->width() * made_->height()) {}

std::size_t PlaneData::bytes() const { return kind_ == Depth::float32 ? floats_.size() * sizeof(float) : kept_.size(); }

const void* PlaneData::kept() const {
    return kind_ == Depth::float32 ? static_cast<const void*>(values_) : kept_.data();
}

float PlaneData::number(std::size_t i) const {
    float made = 0;
    numbers(i, 1, &made);
    return made;
}

const float* PlaneData::numbers(std::size_t first, std::size_t count, float* room) const {
    if (values_ || count == 0)
        return values_ ? values_ + first : room;
    if (made_) {
        const std::size_t wide = made_->width();
        for (std::size_t at = first; at < first + count;) { // row by row
            const std::size_t x = at % wide, few = std::min(wide - x, first + count - at);
            std::array<float*, 4> to{};
            to[channel_] = room + (at - first);
            made_->make(x, at / wide, few, 1, to);
            at += few;
        }
        return room;
    }
    const Kind& kind = *kind_of(kind_);
    kind.read(kept_.data() + first * kind.bytes, room, count);
    return room;
}

void PlaneData::copy(std::size_t first, std::size_t count, float* to) const {
    if (const float* const from = numbers(first, count, to); from != to)
        std::copy_n(from, count, to);
}

Samples PlaneData::copied() const {
    if (values_)
        return floats_;
    Samples made(size_);
    numbers(0, size_, made.data());
    return made;
}

PlaneData::Iterator PlaneData::begin() const { return {*this, 0}; }
PlaneData::Iterator PlaneData::end() const { return {*this, size_}; }

bool operator==(const PlaneData& a, const PlaneData& b) {
    if (a.size_ != b.size_)
        return false;
    std::array<float, piece> of_a, of_b;
    for (std::size_t first = 0; first < a.size_; first += piece) {
        const std::size_t count = std::min(piece, a.size_ - first);
        const float* const x = a.numbers(first, count, of_a.data());
        if (!std::equal(x, x + count, b.numbers(first, count, of_b.data())))
            return false;
    }
    return true;
}

Plane make_plane(Samples values) { return std::make_shared<const PlaneData>(std::move(values)); }

Plane as_floats(const Plane& plane) { return !plane || plane->values() ? plane : make_plane(plane->copied()); }

PlaneGatherer::PlaneGatherer(Depth depth, std::size_t count) : kind_(depth), size_(count) {
    if (const Kind* const kind = kind_of(depth))
        kept_.resize(count * kind->bytes);
    else {
        kind_ = Depth::float32;
        floats_.resize(count);
    }
}

bool PlaneGatherer::keep(const float* from, std::size_t count) {
    const Kind& kind = *kind_of(kind_);
    return kind.make(from, kept_.data() + filled_ * kind.bytes, count);
}

void PlaneGatherer::widen() {
    const Kind& kind = *kind_of(kind_);
    floats_.resize(size_);
    kind.read(kept_.data(), floats_.data(), filled_);
    kept_ = {};
    kind_ = Depth::float32;
}

void PlaneGatherer::put(const float* from, std::size_t count, std::size_t stride) {
    std::array<float, piece> close;
    for (std::size_t first = 0; first < count; first += piece) {
        const std::size_t few = std::min(piece, count - first);
        const float* const begin = from + first * stride;
        for (std::size_t i = 0; i < few; ++i)
            close[i] = begin[i * stride];
        if (kind_ != Depth::float32 && !keep(close.data(), few))
            widen();
        if (kind_ == Depth::float32)
            std::copy_n(close.data(), few, floats_.data() + filled_);
        filled_ += few;
    }
}

Plane PlaneGatherer::plane() && {
    if (filled_ != size_)
        throw std::logic_error("a channel of which a part is missing");
    return kind_ == Depth::float32 ? make_plane(std::move(floats_))
                                   : std::make_shared<const PlaneData>(kind_, std::move(kept_));
}

Plane packed(const Plane& plane, Depth depth) {
    if (!kind_of(depth) || plane->kind() == depth)
        return plane;
    PlaneGatherer gatherer(depth, plane->size());
    std::array<float, piece> room;
    for (std::size_t first = 0; first < plane->size(); first += piece) {
        const std::size_t count = std::min(piece, plane->size() - first);
        gatherer.put(plane->numbers(first, count, room.data()), count, 1);
    }
    return std::move(gatherer).plane();
}

struct PlanePool::Store {
    std::mutex mutex;
    std::vector<Samples> free;
    static constexpr std::size_t most = 16;                    ///< buffers kept; older ones go back to the system
    static constexpr std::size_t most_floats = 28 * (1 << 20); ///< in all of them: three planes of 3840x2160

    void keep(Samples buffer) {
        const std::lock_guard lock(mutex);
        std::size_t floats = buffer.size();
        for (const Samples& each : free)
            floats += each.size();
        while (!free.empty() && (free.size() >= most || floats > most_floats)) {
            floats -= free.front().size();
            free.erase(free.begin());
        }
        if (floats <= most_floats)
            free.push_back(std::move(buffer));
    }
};

PlanePool::PlanePool() : store_(std::make_shared<Store>()) {}

Samples PlanePool::take(std::size_t count) const {
    {
        const std::lock_guard lock(store_->mutex);
        for (auto buffer = store_->free.begin(); buffer != store_->free.end(); ++buffer)
            if (buffer->size() == count) {
                Samples taken = std::move(*buffer);
                store_->free.erase(buffer);
                return taken;
            }
    }
    return Samples(count);
}

Plane PlanePool::plane(Samples values) const {
    auto give_back = [store = store_](const PlaneData* plane) {
        const std::unique_ptr<const PlaneData> owner(plane);
        store->keep(std::move(const_cast<Samples&>(plane->floats())));
    };
    return Plane(new PlaneData(std::move(values)), give_back);
}

} // namespace kasuri::image
