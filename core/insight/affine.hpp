#pragma once
#include "ir/graph.hpp"
#include "lang/rule.hpp"

#include <array>
#include <optional>
#include <span>

namespace kasuri::insight {

/// out = matrix * rgb + offset, by rows: matrix[o][i] is how much of input channel i goes into output channel o.
struct Affine {
    std::array<std::array<double, 3>, 3> matrix{{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}};
    std::array<double, 3> offset{};

    std::array<double, 3> row_sums() const;
    double determinant() const;
    /// Nothing if the determinant is 0.
    std::optional<Affine> inverse() const;
    bool is_identity() const { return *this == Affine{}; }
    std::array<double, 3> operator()(const std::array<double, 3>& rgb) const;
    friend bool operator==(const Affine&, const Affine&) = default;
};

/// The matrix that the rule is, at these values of its parameters, in its working space. Exact: found by following the
/// rule's operations, not by trying colours; coefficients are computed in double precision. Nothing if r, g, b of out
/// are not each a sum of multiples of r, g, b and a constant, or if alpha is touched or used. A condition on pixels, a
/// clamp or a colour model makes it nothing, even where they would change no colour.
std::optional<Affine> affine(const lang::Rule& rule, std::span<const double> values);
/// The same of a graph with four outputs, r, g, b and a, such as a chain of rules.
std::optional<Affine> affine(const ir::Graph& graph, std::span<const ir::NodeId> outputs,
                             std::span<const double> values);

} // namespace kasuri::insight
