#pragma once
#include "insight/derivative.hpp"

#include <array>
#include <span>
#include <string>
#include <string_view>

namespace kasuri::app {

using Light = std::array<float, 3>;

/// A pixel as lenses see it: straight, in linear light of BT.709, as stored, and in linear light of the screen.
struct LensPixel {
    std::array<float, 4> light, stored, screen;
    int x = 0, y = 0;   ///< on the screen
    float surround = 0; ///< light of what shows through, diffuse white is 1
    float beyond = 0;   ///< seen as printed: how far it is from what the paper holds, as CIEDE2000
};

/// One row: what a cell shows of its pixels. Either `shown` makes light of a pixel, or an expression of the language
/// makes numbers that are shown as even steps of grey (one component) or of r, g, b (three) between low and high.
struct Lens {
    std::string id;
    std::string title;
    std::string doc;
    std::string group = {}; ///< lenses of a model stand together
    /// Light to show: of the screen's primaries. Single numbers are shown as a neutral grey, opaque.
    Light (*shown)(const LensPixel& pixel) = nullptr;
    std::string expression = {}; ///< of r, g, b in the picture's space
    double low = 0, high = 1;
    bool ring = false;     ///< low and high are the same: shown as the hues they are
    bool compares = false; ///< the expression knows `other`, what the picture was before the rule
    std::string peeks =
        {}; ///< an expression in the rule's own names: the numbers come from the rule, one or three of them
    const insight::Measure* measure = nullptr; ///< the number is made of the rule's slopes
    /// How a number is shown, where not as `light_for` does.
    Light (*mark)(double value, int x, int y) = nullptr;

    bool step_mask = false; ///< the number is the mask of the active step
    int after_step = 0;     ///< above 0: what steps 1 to this one of the look make, in its own colours
    /// Whether what is shown comes from the rule, not from a picture.
    bool of_rule() const { return !peeks.empty() || measure || step_mask; }
};

/// The rows, then every component of every colour model.
std::span<const Lens> lenses();
/// Of the rows, or one that `peek_lens` has named; the first one if there is no such lens.
const Lens& lens(std::string_view id);

/// The id of a lens that shows the value of an expression in the rule's names, between low and high.
std::string peek_lens(std::string_view expression, double low = 0, double high = 1);

/// The id of a lens that shows what comes out of a step of the look, counted from 1.
std::string step_lens(int number);

/// "colour", or with its range: "L*a*b* l 0 .. 100".
std::string caption(const Lens& lens);

/// Light for a number of a lens with an expression: a grey that rises in even steps for the eye, or a hue of the ring;
/// stripes below and above the range, a chequer for NaN.
Light light_for(const Lens& lens, double value, int x, int y);

} // namespace kasuri::app
