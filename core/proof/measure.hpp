#pragma once
#include "engine/evaluate.hpp"
#include "proof/proof.hpp"

#include <cmath>
#include <limits>

namespace kasuri::proof {

/// Levels that find trouble: negative, zero, tiny, the middle, around 1 and far above.
inline constexpr double telling_levels[] = {-1, -0.5, -0.25, -0.01, 0, 1e-6, 0.01, 0.02, 0.18,
                                            0.25, 0.5, 0.75, 1, 2, 4, 8, 16};

/// Runs the rule over `picture` and keeps the largest fault(before, after) in `into`.
/// Returns false if cancelled.
template <class Fault>
bool measure_on(const Subject& subject, const image::Picture& picture, std::string_view target, Measurement& into,
                Fault&& fault) {
    const auto after = engine::evaluate(subject.program, picture, subject.values, subject.cancel);
    if (!after)
        return false;
    for (std::size_t i = 0; i < picture.pixels(); ++i) {
        const auto before_pixel = picture.at(i);
        const auto after_pixel = after->at(i);
        double figure = fault(before_pixel, after_pixel);
        if (std::isnan(figure))
            figure = std::numeric_limits<double>::infinity();
        if (figure > into.figure || into.samples == 0) {
            into.figure = figure;
            into.worst = {std::string(target), static_cast<int>(i), static_cast<int>(picture.pixels()), before_pixel,
                          after_pixel};
        }
        ++into.samples;
    }
    return true;
}

} // namespace kasuri::proof
