#pragma once
#include "subject/subject.hpp"

#include <array>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace kasuri::insight {

/// slopes[o][i]: how fast output channel o changes with input channel i, in the rule's working space.
using Jacobian = std::array<std::array<double, 3>, 3>;

/// A program with nine outputs: the Jacobian of r, g, b, row by row, at every pixel of a picture in the rule's working
/// space. How it is made: ir/derive.hpp. `source_spaces` as in engine::CompileOptions.
engine::ProgramPtr derivative(const subject::Subject& subject, std::vector<std::string> source_spaces = {});

/// The Jacobians at `colours` (r, g, b; alpha 1; a picture one pixel high), computed by the tiles in single precision.
/// `more`: channels of further pictures.
std::vector<Jacobian> jacobians(const engine::Program& derivative, std::span<const double> values,
                                std::span<const std::array<float, 3>> colours,
                                std::vector<engine::PlaneView> more = {});

/// One row: a number that is made of the Jacobian, for lenses and proofs.
struct Measure {
    std::string_view name, title, doc;
    double low, high; ///< usual range to show
    double (*of)(const Jacobian&);
    ir::NodeId (*lower)(ir::Graph&, const std::array<std::array<ir::NodeId, 3>, 3>&);
};

/// All measures of slopes; by name: null if there is none.
std::span<const Measure> measures();
const Measure* find_measure(std::string_view name);

/// A program with one output, the measure at every pixel.
engine::ProgramPtr measured(const subject::Subject& subject, const Measure& measure,
                            std::vector<std::string> source_spaces = {});

/// Determinant of the Jacobian: negative where the orientation of colours is flipped (a swap of two channels flips all
/// of them).
double determinant(const Jacobian& slopes);
/// The determinant by the product of the lengths of its rows, -1 to 1: how much room the three channels leave each
/// other, whatever their sizes. 0: a dimension is lost. 0 also where a channel does not change at all.
double volume(const Jacobian& slopes);
/// How independent noise of equal size in r, g, b comes out, in the channel that gets most of it: the longest row.
double noise_gain(const Jacobian& slopes);

} // namespace kasuri::insight
