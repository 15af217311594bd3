#pragma once
#include "colour/transfer.hpp"
#include "colour/triple.hpp"

#include <span>
#include <string_view>

namespace kasuri::colour {

/// What r, g and b mean: primaries and white (so far BT.709 only, hence one row of weights) and a transfer function.
struct Space {
    std::string_view name;
    std::string_view doc;
    std::string_view transfer; ///< a name of transfers()
};

std::span<const Space> spaces();
const Space* find_space(std::string_view name);
const Transfer& transfer_of(const Space& space);

/// The space in which pictures are held and in which a rule works that does not say otherwise.
inline constexpr std::string_view default_space = "rec709-linear";

/// Weights of linear r, g, b in luminance Y for BT.709 primaries and D65 (ITU-R BT.709-6, item 3.2, the
/// rounded factors of the standard).
inline constexpr Triple rec709_luminance_weights = {0.2126, 0.7152, 0.0722};

/// Luminance of linear BT.709 light.
double luminance(const Triple& linear);

/// CIE 1976 L*, a*, b* (CIE 15:2018, 8.2.1) of linear BT.709 light, relative to its own white D65.
Triple lab_d65(const Triple& linear);

} // namespace kasuri::colour
