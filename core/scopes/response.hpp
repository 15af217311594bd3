#pragma once
#include "image/image.hpp"

#include <array>
#include <cstddef>
#include <vector>

namespace kasuri::scopes {

/// What comes out for greys that go in.
struct ResponsePoint {
    float in = 0;
    std::array<float, 3> out{};
};

/// Points first to last.
struct Span {
    std::size_t first = 0, last = 0;
};

struct Response {
    std::vector<ResponsePoint> points;
    /// Whether a channel falls anywhere while the grey rises (by more than rounding).
    std::array<bool, 3> reverses{};
    /// Where it falls.
    std::array<std::vector<Span>, 3> reversals;
};

/// From a grey ramp (its first channel is taken as the input) and what the rule makes of it, pixel by pixel.
Response response(const image::Picture& before, const image::Picture& after);

} // namespace kasuri::scopes
