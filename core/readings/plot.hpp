#pragma once
#include "scopes/counting.hpp"

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace kasuri::readings {

/// What a trace or a density stands for; how that looks is the drawing's business.
enum class Ink { neutral, red, green, blue };

struct Tick {
    double value;
    std::string label;
    bool strong = false; ///< a line that means something: 0, 1, white
};

/// One direction of a plot, even between low and high.
struct Axis {
    std::string title;
    double low = 0, high = 1;
    std::vector<Tick> ticks;

    double share_of(double value) const { return (value - low) / (high - low); }
    double value_at(double share) const { return low + share * (high - low); }
};

/// Lines that help to read: a gamut, a circle, where a standard puts its bars.
struct Guide {
    std::vector<std::array<double, 2>> points;
    std::string label; ///< at its first point
    bool dashed = false;
};

/// A field with axes; a parade has three. With a z (upwards) it is a room that is looked at from a side: y goes away
/// from the eye, and what is in it is a Solid.
struct Panel {
    std::string title;
    Axis x, y;
    std::optional<Axis> z{};
    bool square = false; ///< one unit across is as long as one unit up
    std::vector<Guide> guides;
};

/// How often things fall into the cells of a panel: row * columns + column, rows upwards.
struct Density {
    Ink ink = Ink::neutral;
    std::string name;
    int columns = 0, rows = 0;
    std::vector<std::uint32_t> counts;
};

struct Trace {
    Ink ink = Ink::neutral;
    std::string name;
    std::vector<std::array<float, 2>> points; ///< a NaN interrupts the line
};

/// From where to where, with the colour it belongs to (linear light of BT.709).
struct Arrow {
    std::array<float, 2> from, to;
    std::array<float, 3> colour;
};
struct Arrows {
    std::string name;
    std::vector<Arrow> arrows;
};

struct Spot {
    std::array<float, 2> at;
    std::array<float, 3> colour;
    std::string label;
};
struct Spots {
    std::string name;
    std::vector<Spot> spots;
};

/// Colours as a body in a room of three axes.
struct Solid {
    using Point = std::array<float, 3>;
    std::string name;
    std::vector<Point> points;                       ///< x, y, z; a NaN is nowhere
    std::vector<Point> from;                         ///< what they were made of: numbers that went in
    std::vector<Point> colours;                      ///< of the points: linear light of BT.709
    std::vector<std::array<std::uint32_t, 4>> faces; ///< of its surface, by points; none: the points alone are shown
    std::vector<std::uint32_t> folded;               ///< points in the middle of cells that are turned over,
    std::vector<std::uint32_t> collapsed;            ///< or have no volume
    std::vector<std::uint32_t> section;              ///< points where it is cut; what is above the cut is taken away
};

/// Lines in a room: the edges of what a space holds.
struct Wires {
    std::string name;
    std::vector<std::vector<Solid::Point>> lines;
};

/// What was measured of one picture or rule, on one panel.
struct Layer {
    int panel = 0;
    std::variant<Density, Trace, Arrows, Spots, Solid, Wires> data;
};

/// A number worth saying: "slope at 0.18" of r; those of one name belong together.
struct Figure {
    std::string name;
    std::string of; ///< a channel, or empty
    double value = 0;
    std::string unit;
};

struct Measured {
    std::vector<Layer> layers;
    std::vector<Figure> figures;
};

/// The numbers as CSV, every layer under a header of its own. Densities list the cells that are not empty.
std::string csv(const std::vector<Panel>& panels, const Measured& measured);

/// Round values for about `wanted` ticks between low and high: 1, 2 or 5 times a power of ten apart.
std::vector<Tick> even_ticks(double low, double high, int wanted);

} // namespace kasuri::readings
