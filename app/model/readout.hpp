#pragma once
#include "colour/model.hpp"

#include <QString>

#include <array>
#include <string>
#include <vector>

namespace kasuri::app {

/// The numbers under the pointer: one pixel of a target before and after, as stored in its space.
struct Readout {
    bool valid = false;
    QString target; ///< what is pointed at
    QString place;  ///< where on it: "x 12  y 40", "hue 132", a patch's name
    std::array<float, 4> before{}, after{};
    std::string space;
};

/// One line of the numbers panel: a component in three columns.
struct ReadoutRow {
    QString name;
    double before = 0, after = 0;
    int decimals = 3;
    bool strong = false;
};

/// A pin and what stands there; the readout is not valid while nothing on the sheet shows its picture.
struct PinReadout {
    int number = 0;
    Readout readout;
};

/// r, g, b, alpha, Y, the model's three components (all but the first four of light), and last the difference by
/// CIEDE2000, in `after`.
std::vector<ReadoutRow> rows_of(const Readout& readout, const colour::Model& model = *colour::find_model("lab"));

} // namespace kasuri::app
