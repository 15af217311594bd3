#pragma once
#include "base/setting.hpp"
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
    friend bool operator==(const Tick&, const Tick&) = default;
};

/// The axis of a strip: what stands at its left and right end.
struct Axis {
    double low = 0;
    double high = 1;
    Scale scale = Scale::linear;
    std::vector<Tick> ticks;
    std::string_view unit = {};

    double value_at(double share) const; ///< share 0..1 of the width -> value
    double share_of(double value) const; ///< the inverse
    friend bool operator==(const Axis&, const Axis&) = default;
};

enum class Shape {
    strip,   ///< one row, any width: value by value along an axis
    patches, ///< a small grid, one pixel a patch
    field,   ///< a picture of any width
};

using Colour = std::array<double, 3>;

/// One row: a generated target. Its numbers are values of the rule's working space, unless it has a space of its own.
struct Target {
    std::string_view name;   ///< as in proofs: grey_ramp
    std::string_view title;  ///< as on the sheet: grey ramp
    std::string_view detail; ///< range and usual settings, for the caption
    std::string_view doc;
    std::string_view source = {}; ///< publication of its values, where there is one
    std::string_view space = {};  ///< what its numbers mean; empty: values of the working space
    Shape shape = Shape::strip;
    Axis axis = {};  ///< of a strip, at the usual settings
    int columns = 0; ///< of patches; of a field: its usual width
    int rows = 0;
    double thread_low = 0; ///< usual range of the threads
    double thread_high = 1;
    Scale thread_scale = Scale::linear;
    std::span<const Setting> settings = {};
    /// The axis of a strip whose settings move its ends; null: `axis`.
    Axis (*axis_of)(Values set) = nullptr;
    /// Colour at an axis value (strips), or of patch number `value` (patches).
    Colour (*colour)(double value, Values set) = nullptr;
    /// A field's pixels. Its height follows from the usual proportions.
    image::Picture (*field)(int width, int height, Values set) = nullptr;
    std::span<const std::string_view> patch_names = {};
};

/// All targets, in the order of the menus; by name: null if there is none.
std::span<const Target* const> all();
const Target* find(std::string_view name);

/// The axis of a strip at these settings.
Axis axis_of(const Target& target, Values given);

/// A strip of `width` samples taken at pixel centres, a field of that width (0: its usual one), or the patches (width
/// is ignored). `space` of the picture is the target's own, or stays as it is in a new picture.
image::Picture make(const Target& target, int width, Values given = {});

/// The target, at its usual settings, as a picture that stands beside others: about `width` pixels wide, patches as
/// even areas of some height. A space of "" says that the numbers are values of the working space, whichever it is.
image::Picture picture_beside(const Target& target, int width);

/// What proofs are measured on, at the usual settings: fine for strips, small for fields. Made once; safe across
/// threads.
const image::Picture& sampled(const Target& target, int strip_width);

/// Every combination of the given levels as r, g, b: a picture of levels^3 x 1, red fastest.
image::Picture lattice(std::span<const double> levels);

/// Title of patch number `index`.
std::string patch_name(const Target& target, int index);

} // namespace kasuri::targets
