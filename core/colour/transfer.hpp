#pragma once
#include "ir/graph.hpp"

#include <span>
#include <string_view>

namespace kasuri::colour {

/// One row: a transfer function between encoded values and linear light, each applied channel by channel.
/// Negative values are mirrored (f(-x) = -f(x)); values above 1 follow the same formula; NaN stays NaN.
struct Transfer {
    std::string_view name;
    std::string_view doc;
    std::string_view source;
    double (*decode)(double encoded); ///< encoded -> linear light
    double (*encode)(double linear);  ///< linear light -> encoded
    ir::NodeId (*lower_decode)(ir::Graph& graph, ir::NodeId encoded);
    ir::NodeId (*lower_encode)(ir::Graph& graph, ir::NodeId linear);
};

/// All curves; by name: null if there is none.
std::span<const Transfer> transfers();
const Transfer* find_transfer(std::string_view name);

/// IEC 61966-2-1, odd about 0: encoded 0 .. 1 to light 0 .. 1, and back.
double srgb_decode(double encoded);
double srgb_encode(double linear);

} // namespace kasuri::colour
