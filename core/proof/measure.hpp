#pragma once
#include "engine/evaluate.hpp"
#include "insight/derivative.hpp"
#include "proof/proof.hpp"
#include "targets/target.hpp"

#include <cmath>
#include <limits>

namespace kasuri::proof {

/// Levels that find trouble: negative, zero, tiny, the middle, around 1 and far above.
inline constexpr double telling_levels[] = {-1,   -0.5, -0.25, -0.01, 0, 1e-6, 0.01, 0.02, 0.18,
                                            0.25, 0.5,  0.75,  1,     2, 4,    8,    16};

/// Runs the rule over `picture` and keeps the largest fault(before, after) in `into`.
/// Returns false if cancelled.
template <class Fault>
bool measure_on(const Task& task, const image::Picture& picture, std::string_view target, Measurement& into,
                Fault&& fault) {
    const auto after = task.applied(picture);
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

/// A row of the colours, a pixel each.
inline image::Picture picture_of(std::span<const std::array<double, 3>> colours) {
    image::Picture picture;
    picture.width = static_cast<int>(colours.size());
    picture.height = 1;
    for (std::size_t c = 0; c < 3; ++c) {
        image::Samples samples;
        for (const std::array<double, 3>& colour : colours)
            samples.push_back(static_cast<float>(colour[c]));
        picture.planes[c] = image::make_plane(std::move(samples));
    }
    return picture;
}

/// Levels in the middle of even steps from 0 to 1: beside the kinks that rules like to have at round numbers.
inline std::vector<double> middles(int steps) {
    std::vector<double> levels;
    for (int i = 0; i < steps; ++i)
        levels.push_back((i + 0.5) / steps);
    return levels;
}

/// Runs the rule and its Jacobian over a lattice of `steps` levels between 0 and 1 and keeps the largest
/// fault(jacobian) in `into`. All Jacobians are given. Returns nothing if cancelled.
template <class Fault>
std::optional<std::vector<insight::Jacobian>> measure_slopes(const Task& task, int steps, Measurement& into,
                                                             Fault&& fault) {
    const image::Picture picture = targets::lattice(middles(steps));
    std::vector<std::array<float, 3>> colours(picture.pixels());
    for (std::size_t i = 0; i < colours.size(); ++i)
        colours[i] = {picture.at(i)[0], picture.at(i)[1], picture.at(i)[2]};
    std::vector<insight::Jacobian> slopes =
        insight::jacobians(*task.slopes(), task.subject.values(), colours, subject::constant_planes(task.sources));
    if (task.cancel.cancelled())
        return std::nullopt;
    std::size_t at = 0;
    const bool whole =
        measure_on(task, picture, "lattice", into, [&](const auto&, const auto&) { return fault(slopes, at++); });
    return whole ? std::optional(std::move(slopes)) : std::nullopt;
}

} // namespace kasuri::proof
