#pragma once
#include "readings/plot.hpp"

#include <string>
#include <string_view>
#include <vector>

namespace kasuri::readings {

/// A layer as rows of numbers, for programs. `kind` and what a row has:
/// density: how often things fall into the cells of the panel, the lowest row first; trace: x, y (NaN interrupts it);
/// arrows: from x, y to x, y, colour (linear light of BT.709); spots: x, y, colour; solid: x, y, z, the numbers that
/// went in, colour; wires: number of the line, x, y, z.
struct Rows {
    std::string_view kind;
    std::string name;
    std::size_t panel = 0, columns = 1;
    std::vector<double> numbers;
};
Rows rows_of(const Layer& layer);

} // namespace kasuri::readings
