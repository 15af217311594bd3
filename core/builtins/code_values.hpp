#pragma once
// Bits of whole-number codes, for the families that count in them.
#include "builtins/row.hpp"

namespace kasuri::builtins {

/// Bits are rounded and kept within 1..24.
inline double bits_of(double bits) { return std::fmin(std::fmax(std::nearbyint(bits), 1), 24); }
inline NodeId bits_of(Graph& g, NodeId bits) {
    return g.clamp(g.make(Op::round_even, bits), g.constant(1), g.constant(24));
}

/// The largest code of so many bits.
inline double levels(double bits) { return std::exp2(bits_of(bits)) - 1; }
inline NodeId levels(Graph& g, NodeId bits) { return g.sub(g.make(Op::exp2, bits_of(g, bits)), g.constant(1)); }

} // namespace kasuri::builtins
