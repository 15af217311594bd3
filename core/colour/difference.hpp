#pragma once
#include "colour/model.hpp"

namespace kasuri::colour {

/// One row: how far two colours of a model are apart.
struct Difference {
    std::string_view name; ///< of the function of the language
    std::string_view doc;
    std::string_view source;
    const Model& model;                             ///< of both colours
    double (*of)(const Triple& a, const Triple& b); ///< the double-precision truth
    ir::NodeId (*lower)(ir::Graph& graph, const NodeTriple& a, const NodeTriple& b);
};

/// All rows.
std::span<const Difference> differences();

/// CIE 15:2018, 8.2.1.3; CIE 116-1995; G. Sharma, W. Wu, E. N. Dalal, Color Research and Application 30 (1), 2005.
/// Colours are L*, a*, b*; the first is the standard (only CIE94 tells them apart).
double cie76(const Triple& a, const Triple& b);
double cie94(const Triple& standard, const Triple& sample);
double cie94_textile(const Triple& standard, const Triple& sample);
double ciede2000(const Triple& a, const Triple& b);

} // namespace kasuri::colour
