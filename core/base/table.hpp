#pragma once
#include <cstddef>

namespace kasuri {

/// Compile-time check that row i of a table describes enumerator i, so that the enumerator can index it.
template <class Rows, class Member>
constexpr bool rows_in_order(const Rows& rows, Member key) {
    std::size_t index = 0;
    for (const auto& row : rows)
        if (static_cast<std::size_t>(row.*key) != index++)
            return false;
    return true;
}

} // namespace kasuri
