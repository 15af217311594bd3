#pragma once
#include "colour/matrix3.hpp"

namespace kasuri::colour {

/// Luminance of diffuse white on a display for high dynamic range, in cd/m2 (ITU-R BT.2408-7, 2.2).
inline constexpr double diffuse_white = 203;
/// Light of the scene, of which 1 is the peak, where HLG has diffuse white: at 75 % of the signal (ITU-R
/// BT.2408-7, 2.2, with the curve of BT.2100-2, Table 5).
inline constexpr double hlg_diffuse_white = 0.26496255978640015;

// Chromaticities as their documents print them.

inline constexpr Chromaticity d50 = {0.3457, 0.3585};          ///< ISO 22028-2:2013
inline constexpr Chromaticity dci_white = {0.314, 0.351};      ///< SMPTE RP 431-2
inline constexpr Chromaticity aces_white = {0.32168, 0.33767}; ///< SMPTE ST 2065-1:2012

inline constexpr std::array<Chromaticity, 3> rec601_525_primaries = {
    {{0.630, 0.340}, {0.310, 0.595}, {0.155, 0.070}}}; ///< ITU-R BT.601-7, 525 lines
inline constexpr std::array<Chromaticity, 3> rec601_625_primaries = {
    {{0.640, 0.330}, {0.290, 0.600}, {0.150, 0.060}}}; ///< ITU-R BT.601-7, 625 lines
inline constexpr std::array<Chromaticity, 3> rec2020_primaries = {
    {{0.708, 0.292}, {0.170, 0.797}, {0.131, 0.046}}}; ///< ITU-R BT.2020-2, Table 3
inline constexpr std::array<Chromaticity, 3> p3_primaries = {
    {{0.680, 0.320}, {0.265, 0.690}, {0.150, 0.060}}}; ///< SMPTE RP 431-2
inline constexpr std::array<Chromaticity, 3> oprgb_primaries = {
    {{0.64, 0.33}, {0.21, 0.71}, {0.15, 0.06}}}; ///< IEC 61966-2-5:2007
inline constexpr std::array<Chromaticity, 3> romm_primaries = {
    {{0.7347, 0.2653}, {0.1596, 0.8404}, {0.0366, 0.0001}}}; ///< ISO 22028-2:2013
inline constexpr std::array<Chromaticity, 3> aces_primaries = {
    {{0.7347, 0.2653}, {0, 1}, {0.0001, -0.0770}}}; ///< SMPTE ST 2065-1:2012, AP0
inline constexpr std::array<Chromaticity, 3> acescg_primaries = {
    {{0.713, 0.293}, {0.165, 0.830}, {0.128, 0.044}}}; ///< S-2014-004, AP1

} // namespace kasuri::colour
