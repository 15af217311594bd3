#pragma once
#include "colour/space.hpp"

#include <cstdint>
#include <functional>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace kasuri::io {

/// What an ICC profile says that r, g and b mean.
struct Profile {
    std::string name;  ///< its description
    std::string space; ///< of colour::spaces(), if it is one of them within its own rounding; else empty
    /// Where it is none: r, g, b of the profile to linear BT.709 light, relative colorimetric.
    std::function<colour::Triple(const colour::Triple&)> to_light;
    std::string note; ///< what was done with one that is not a matrix and curves; empty otherwise
};

/// Nothing, and why in `reason`, for what cannot be read or is not of r, g and b.
std::optional<Profile> read_profile(std::span<const std::uint8_t> bytes, std::string& reason);

/// The space as a profile of a matrix and curves (ICC.1:2022, version 4): white adapted to D50 by the Bradford
/// transform.
std::vector<std::uint8_t> made_profile(const colour::Space& space);

} // namespace kasuri::io
