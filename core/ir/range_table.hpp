#pragma once
#include "ir/range.hpp"

namespace kasuri::ir {

/// What an operation is asked about.
struct Ranged {
    const Range* x; ///< of its operands
    const Rounding& by;
    bool plain; ///< no operand is a sum itself: nothing is added up in another order
    bool same;  ///< both operands are one node
};

/// The range of an operation that is neither a leaf, a choice nor an External: one row each (range_table.cpp).
Range range_of(Op op, const Ranged& given);

} // namespace kasuri::ir
