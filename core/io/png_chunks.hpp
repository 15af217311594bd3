#pragma once
#include <array>
#include <cstdint>
#include <filesystem>
#include <optional>

namespace kasuri::io {

/// What the chunks before the pixels of a PNG say about its colours (Portable Network Graphics, third edition, 11.3.2).
struct PngColour {
    bool srgb = false;
    bool profile = false;                                   ///< an ICC profile is there
    std::optional<double> gamma;                            ///< of gAMA: 1 is linear, 0.45455 a power of 2.2
    std::optional<std::array<double, 8>> chromaticities;    ///< white, red, green, blue, each x and y
    std::optional<std::array<std::uint8_t, 2>> code_points; ///< of cICP: primaries and transfer of ITU-T H.273
};

/// Nothing for what is no PNG. Chunks that are cut short or out of range are passed over.
std::optional<PngColour> png_colour(const std::filesystem::path& path);

} // namespace kasuri::io
