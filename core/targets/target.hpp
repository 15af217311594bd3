#pragma once
#include "image/image.hpp"

#include <array>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::targets {

/// How numbers are spread along a strip and up its threads.
enum class Scale {
    linear,
    sinh_like, ///< position ~ asinh(value / 0.1): even around 0, by stops above
};

/// Monotone position of a value on a scale, and back (not normalised).
double forward(Scale scale, double value);
double backward(Scale scale, double position);

struct Tick {
    double value;
    std::string_view label;
};

/// The axis of a strip: what stands at its left and right end.
struct Axis {
    double low = 0;
    double high = 1;
    Scale scale = Scale::linear;
    std::vector<Tick> ticks;
    std::string_view unit = {};

    double value_at(double share) const;  ///< share 0..1 of the width -> value
    double share_of(double value) const;  ///< the inverse
};

enum class Shape {
    strip,   ///< one row, any width: value by value along an axis
    patches, ///< a small grid, one pixel a patch
};

/// One row: a generated target. Its numbers are values of the rule's working space.
struct Target {
    std::string_view name;   ///< as in proofs: grey_ramp
    std::string_view title;  ///< as on the sheet: grey ramp
    std::string_view detail; ///< range and settings, for the caption
    std::string_view doc;
    Shape shape = Shape::strip;
    Axis axis;               ///< of a strip
    int columns = 0;         ///< of patches
    int rows = 0;
    double thread_low = 0;   ///< usual range of the threads
    double thread_high = 1;
    Scale thread_scale = Scale::linear;
    /// Colour at an axis value (strips), or of patch number `value` (patches).
    std::array<double, 3> (*colour)(double value) = nullptr;
    std::span<const std::string_view> patch_names = {};
};

std::span<const Target* const> all();
const Target* find(std::string_view name);

/// A strip of `width` samples taken at pixel centres, or the patches (width is ignored).
image::Picture make(const Target& target, int width);

/// Every combination of the given levels as r, g, b: a picture of levels^3 x 1, red fastest.
image::Picture lattice(std::span<const double> levels);

/// Title of patch number `index`.
std::string patch_name(const Target& target, int index);

} // namespace kasuri::targets
