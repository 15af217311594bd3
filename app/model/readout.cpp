#include "model/readout.hpp"

#include "colour/space.hpp"

namespace kasuri::app {

std::array<ReadoutRow, 8> rows_of(const Readout& readout) {
    using colour::operator*;
    const colour::Space* space = colour::find_space(readout.space);
    const auto linear = [&](const std::array<float, 4>& stored) {
        colour::Triple light{};
        for (std::size_t i = 0; i < 3; ++i)
            light[i] = space ? transfer_of(*space).decode(stored[i]) : stored[i];
        // Y and L*a*b* below are of BT.709's primaries.
        return space ? linear_between(*space, *colour::find_space(colour::default_space)) * light : light;
    };
    const colour::Triple before = linear(readout.before), after = linear(readout.after);
    const colour::Triple lab_before = colour::lab_d65(before), lab_after = colour::lab_d65(after);
    const auto stored = [&](const char* name, std::size_t i) {
        return ReadoutRow{name, static_cast<double>(readout.before[i]), static_cast<double>(readout.after[i]), 3, i < 3};
    };
    return {stored("r", 0), stored("g", 1), stored("b", 2), stored("alpha", 3),
            ReadoutRow{"Y", colour::luminance(before), colour::luminance(after), 3, false},
            ReadoutRow{"L*", lab_before[0], lab_after[0], 1, false},
            ReadoutRow{"a*", lab_before[1], lab_after[1], 1, false},
            ReadoutRow{"b*", lab_before[2], lab_after[2], 1, false}};
}

} // namespace kasuri::app
