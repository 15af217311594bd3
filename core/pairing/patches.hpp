#pragma once
#include "base/result.hpp"
#include "image/image.hpp"
#include "image/perspective.hpp"

#include <array>
#include <string>
#include <vector>

namespace kasuri::pairing {

/// A patch of a chart that was photographed.
struct Patch {
    std::string name{};
    std::array<double, 3> colour{}; ///< on average, without the rim and without pixels that are plainly something else
    double noise = 0;               ///< standard deviation of one pixel, of the channel that varies most
    double clipped = 0;             ///< share of the pixels that are at an end of what could be said
    double left_out = 0;            ///< share of the pixels that are not averaged: dust, scratches, no numbers
    std::string why_not{};          ///< why it does not count; empty: it does
};

/// What counts as clipped, channel by channel: as dark or darker, as bright or brighter.
struct Ends {
    double low = -1e30;
    std::array<double, 3> high{1e30, 1e30, 1e30};
};

/// `unsure_ends`: so near to 0 and to 1; where that is 0, the largest number of the picture, if many pixels share it.
Ends ends_of(const image::Picture& picture, double unsure_ends);

/// The patches of a chart whose outer corners lie at `corners` (in pixels, the first at the first patch), row by row.
/// Of each the inner half is looked at. A pixel is left out where a channel is farther from the median than five times
/// the usual distance (1.4826 times their median; common practice, no source). A patch does not count where more than
/// a twentieth of it is clipped, where half of it is outside or is left out, or where its quarters differ by more than
/// a tenth. Errors: the corners make no four-sided figure, are outside, or so near that
/// patches have no pixels.
Result<std::vector<Patch>> patches_of(const image::Picture& picture, const image::Corners& corners, int columns,
                                      int rows, const Ends& ends);

/// Whether the patches would be more like what they should be if the chart stood on its head: by how well the order of
/// their brightness agrees (Spearman's rank correlation), which no grade and no lamp changes much.
bool seems_upside_down(const std::vector<Patch>& seen, const std::vector<Patch>& wanted);

} // namespace kasuri::pairing
