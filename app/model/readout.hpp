#pragma once
#include <QString>

#include <array>
#include <string>

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

/// r, g, b, alpha, Y, L*, a*, b* of a readout; the last four of linear light.
std::array<ReadoutRow, 8> rows_of(const Readout& readout);

} // namespace kasuri::app
