#pragma once
#include <array>
#include <cstddef>
#include <string>

namespace kasuri::bench {

/// Planes of `count` floats.
using Planes = std::array<const float*, 3>;
using Targets = std::array<float*, 3>;

/// One workload of workloads.hpp as one would write it by hand: one loop over the pixels, everything in registers,
/// the same polynomials as the engine, results past the caches. For the best instruction set of the processor.
using HandWritten = void (*)(const Planes& from, const Targets& to, std::size_t count);

HandWritten handwritten(char workload); ///< 'a' to 'e'
/// Of another instruction set than the best: one of engine::instruction_sets().
void choose_handwritten(const std::string& set);

using Nine = std::array<float, 9>; ///< a matrix by rows

/// What the second set needs to know before the first pixel.
struct SecondSet {
    Nine to_cones, between, from_cones; ///< (g): into the cones of OKLab, with all that comes before; there; and back
    Nine to_rec2020;                    ///< (i): light of AP1 to that of BT.2020, 1 for 10 000 cd/m2
    Nine cones, turn;      ///< (j): into the cones of OKLab; between the two cube roots, hues turned by 12 degrees
    Nine to_ap1, from_ap1; ///< (j): light of BT.709 to that of AP1, and back
};
const SecondSet& second_set();
HandWritten handwritten_second(char workload); ///< 'g' to 'k'

} // namespace kasuri::bench
