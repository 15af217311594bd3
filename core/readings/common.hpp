#pragma once
// What several readings need.
#include "readings/reading.hpp"

#include <array>
#include <string>

namespace kasuri::readings {

inline constexpr std::string_view channel_names[3] = {"r", "g", "b"};
inline constexpr Ink channel_inks[3] = {Ink::red, Ink::green, Ink::blue};

/// What the numbers of a picture are shown as.
struct Unit {
    std::string_view name;
    std::string_view title;   ///< of an axis
    std::string_view working; ///< the space in which `expression` is meant; empty: the picture's own
    std::string_view expression;
    double low, high; ///< usual range
};

/// Numbers of the picture; signal of the reference display; light in cd/m2; stops about middle grey. For settings:
/// `unit_names`.
std::span<const Unit> units();
extern const std::array<std::string_view, 4> unit_names;

/// The low and high that were asked for, or where they are equal the unit's own.
std::array<double, 2> range_of(const Unit& unit, double low, double high);

/// The three channels of a picture in a unit. Nothing if called off.
std::optional<std::array<image::Plane, 4>> in_unit(const Order& order, const image::Picture& picture, const Unit& unit);

/// Counts each channel of all pictures of the subject: `count(samples, width, counts)` adds a plane to its channel's
/// counts and says whether it was not called off. Nothing if called off.
template <class Count>
std::optional<std::array<scopes::Counts, 3>> count_channels(const Order& order, const Unit& unit, Count&& count) {
    std::array<scopes::Counts, 3> counts;
    for (const image::Picture* picture : order.pictures) {
        const auto planes = in_unit(order, *picture, unit);
        if (!planes)
            return std::nullopt;
        for (std::size_t c = 0; c < 3; ++c)
            if (!count(std::span<const float>(image::as_floats((*planes)[c])->floats()), picture->width, counts[c]))
                return std::nullopt;
    }
    return counts;
}

/// The share of values that lie outside a range as figures, where there are any.
void tell_outside(Measured& measured, std::string_view name, const scopes::Counts& counts);

/// A pixel as linear light of BT.709, for the colour of marks.
std::array<float, 3> light_of(const image::Picture& picture, std::size_t pixel);

/// Pictures of so few pixels are charts: each pixel is shown as a spot too.
inline constexpr std::size_t max_spots = 600;

/// A plane of two coordinates, counted over all pictures of the subject, with spots for charts.
struct PlaneView {
    std::string_view working;
    std::string_view expression; ///< whose first two components are the coordinates
};
std::optional<Measured> measure_plane(const Order& order, const PlaneView& view, const Axis& x, const Axis& y,
                                      std::string_view name);

} // namespace kasuri::readings
