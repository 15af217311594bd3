#pragma once
#include "base/cancel.hpp"
#include "image/image.hpp"

#include <array>
#include <optional>
#include <utility>

namespace kasuri::pairing {

/// How the second of two pictures lies on the first. Pixel centres have whole numbers.
struct Registration {
    std::array<double, 6> map{1, 0, 0, 0, 1, 0}; ///< (x, y) of the second to (m0 x + m1 y + m2, m3 x + m4 y + m5)
    double correlation = 0;                      ///< of their edges, so placed: 1 at most
    double before = 0;                           ///< the same as they came, corner on corner
    double farthest = 0; ///< by how many pixels of the first a corner of the second lies elsewhere than it came
};

/// Finds shift and scale between two pictures of the same thing, one graded or cropped, by their edges, in every
/// channel by itself, so that neither a grade nor exchanged channels matter: the scale (1/3 to 3) and the shift by
/// phase correlation of small copies (C. D. Kuglin, D. C. Hines, The phase correlation image alignment method, 1975),
/// then an affine map by the enhanced correlation coefficient (G. D. Evangelidis, E. Z. Psarakis, Parametric image
/// alignment using enhanced correlation coefficient maximization, 2008), both as OpenCV has them. Nothing where the
/// edges do not match, or when it was called off.
std::optional<Registration> registered(const image::Picture& before, const image::Picture& after,
                                       const CancelToken& cancel);

/// Both at the size of the coarser one, where they lie on each other; what one of them does not cover is no number in
/// both. The finer one is softened first, so that a pixel of it is what the coarser one could have seen.
/// Nothing where there is no memory for it.
std::optional<std::pair<image::Picture, image::Picture>>
brought_over(const image::Picture& before, const image::Picture& after, const Registration& registration);

/// Whether kasuri-registration.so, which does the work, is there.
bool can_register();

} // namespace kasuri::pairing
