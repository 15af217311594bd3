#include "scopes/response.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::scopes {

Response response(const image::Picture& before, const image::Picture& after) {
    Response result;
    const std::size_t count = std::min(before.pixels(), after.pixels());
    result.points.reserve(count);
    for (std::size_t i = 0; i < count; ++i) {
        const auto out = after.at(i);
        result.points.push_back({before.at(i)[0], {out[0], out[1], out[2]}});
    }
    for (std::size_t i = 1; i < count; ++i)
        for (std::size_t c = 0; c < 3; ++c) {
            const float from = result.points[i - 1].out[c], to = result.points[i].out[c];
            const float rounding = 4e-7f * std::max(1.0f, std::fabs(from));
            if (result.points[i].in > result.points[i - 1].in && to < from - rounding) {
                result.reverses[c] = true;
                std::vector<Span>& spans = result.reversals[c];
                if (!spans.empty() && spans.back().last == i - 1)
                    spans.back().last = i;
                else
                    spans.push_back({i - 1, i});
            }
        }
    return result;
}

} // namespace kasuri::scopes
