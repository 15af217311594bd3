#pragma once
#include "insight/affine.hpp"
#include "subject/subject.hpp"

#include <array>
#include <optional>
#include <span>

namespace kasuri::insight {

using subject::Subject;

/// What algebra shows about a rule, or several in a row, for every finite colour and, where it is not said that the
/// subject's values count, for every value of every parameter (a fixed subject has none left). Each output is written
/// as a sum of products of inputs, parameters and operations that are left as they are (a square root, a minimum, a
/// choice), and the sums are compared: numbers are exact but for the rounding of published constants (1e-9). True is a
/// proof in exact arithmetic; what rounding adds is for measuring. False says nothing. Choices between two ways (`?`,
/// guards of divisions) are followed both ways, up to six of them. A question that would take long (some tens of
/// milliseconds) is given up.

/// out is in, alpha too, at these values.
bool shown_identity(const Subject& subject);
/// The matrix that it is at these values, however it is written, choices and colour models included; nothing if that
/// cannot be shown. `affine` is ten times as quick and finds most of them.
std::optional<Affine> shown_matrix(const Subject& subject);
/// Equal r, g, b come out as equal r, g, b.
bool shown_neutral(const Subject& subject);
/// A grey comes out as the same grey: the rows of a matrix sum to 1.
bool shown_grey_kept(const Subject& subject);
/// The sum of the channels by these weights stays.
bool shown_sum_kept(const Subject& subject, const std::array<double, 3>& weights);
/// Both give the same colours; their parameters are matched by name, and the first's values are given to both where
/// they share one. Both have the same working space.
bool shown_equal(const Subject& a, const Subject& b);

/// reads[o][i]: whether output r, g, b, a may depend on input r, g, b, a. Three independent curves if only the diagonal
/// is true.
using Dependence = std::array<std::array<bool, 4>, 4>;
Dependence dependence(const Subject& subject);
/// Whether out.r depends on r alone, out.g on g, out.b on b, alpha stays, and nothing depends on the place or on
/// neighbours.
bool separable(const Subject& subject);

} // namespace kasuri::insight
