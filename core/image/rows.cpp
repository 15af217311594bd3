#include "image/rows.hpp"

#include <algorithm>

namespace kasuri::image {

Rows::Rows(const Picture& picture) : Rows(picture, 0, 0, static_cast<std::size_t>(picture.width)) {}

Rows::Rows(const Picture& picture, std::size_t left, std::size_t top, std::size_t width)
    : picture_(picture), left_(left), top_(top), width_(width) {
    for (const Plane& plane : picture.planes)
        if (plane && plane->on_demand())
            made_ = plane->on_demand();
}

void Rows::at(std::size_t first, std::size_t last) {
    first_ = first;
    last_ = last;
    if (!made_)
        return;
    std::array<float*, 4> to{};
    for (std::size_t c = 0; c < 4; ++c)
        if (picture_.planes[c] && picture_.planes[c]->on_demand()) {
            room_[c].resize(width_ * (last - first));
            to[c] = room_[c].data();
        }
    made_->make(left_, top_ + first, width_, last - first, to);
}

std::size_t Rows::place(std::size_t y) const { return (top_ + y) * static_cast<std::size_t>(picture_.width) + left_; }

const float* Rows::row(std::size_t channel, std::size_t y) {
    const PlaneData& plane = *picture_.planes[channel];
    Samples& room = room_[channel];
    if (plane.on_demand())
        return room.data() + (y - first_) * width_;
    if (!plane.values() && room.size() < width_)
        room.resize(width_);
    return plane.numbers(place(y), width_, room.data());
}

const float* Rows::all(std::size_t channel) {
    const PlaneData& plane = *picture_.planes[channel];
    Samples& room = room_[channel];
    if (plane.on_demand())
        return room.data();
    const std::size_t count = width_ * (last_ - first_);
    const bool apart = width_ != static_cast<std::size_t>(picture_.width);
    if (apart || !plane.values())
        room.resize(std::max(room.size(), count));
    if (!apart)
        return plane.numbers(place(first_), count, room.data());
    for (std::size_t y = first_; y < last_; ++y)
        plane.copy(place(y), width_, room.data() + (y - first_) * width_);
    return room.data();
}

} // namespace kasuri::image
