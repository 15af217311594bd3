#pragma once
#include "base/result.hpp"

#include <array>
#include <cstdint>
#include <filesystem>
#include <optional>
#include <span>
#include <string_view>

namespace kasuri::io {

/// Primaries and transfer characteristics of ITU-T H.273.
using CodePoints = std::array<std::uint8_t, 2>;

/// What the chunks before the pixels of a PNG say about its colours (Portable Network Graphics, third edition, 11.3.2).
struct PngColour {
    bool srgb = false;
    bool profile = false;                                ///< an ICC profile is there
    std::optional<double> gamma;                         ///< of gAMA: 1 is linear, 0.45455 a power of 2.2
    std::optional<std::array<double, 8>> chromaticities; ///< white, red, green, blue, each x and y
    std::optional<CodePoints> code_points;               ///< of cICP
};

/// Nothing for what is no PNG. Chunks that are cut short or out of range are passed over.
std::optional<PngColour> png_colour(const std::filesystem::path& path);

/// What code points of ITU-T H.273 (tables 2 and 3: primaries and transfer characteristics) mean; empty: none of ours.
std::string_view space_of(CodePoints code_points);
/// The code points of a space; nothing if it has none.
std::optional<CodePoints> code_points_of(std::string_view space);

/// Puts a cICP chunk (PNG, third edition, 11.3.2.6: r, g, b, full range) before all others of a whole file. The error:
/// it is no PNG, it could not be written.
Status add_code_points(const std::filesystem::path& path, CodePoints code_points);

/// CRC-32 as PNG has it (annex D): of "123456789" it is cbf43926.
std::uint32_t crc32(std::span<const unsigned char> bytes);

} // namespace kasuri::io
