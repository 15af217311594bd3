#include "model/readout.hpp"

#include "colour/models/models.hpp"

namespace kasuri::app {

std::array<ReadoutRow, 8> rows_of(const Readout& readout) {
    const colour::Space* named = colour::find_space(readout.space);
    const colour::Space& space = named ? *named : *colour::find_space(colour::default_space);
    const auto seen = [&](const colour::Model& model, const std::array<float, 4>& stored) {
        return from_rgb(model, space, {static_cast<double>(stored[0]), static_cast<double>(stored[1]), static_cast<double>(stored[2])});
    };
    const colour::Triple lab_before = seen(colour::lab_model, readout.before), lab_after = seen(colour::lab_model, readout.after);
    const double y_before = seen(colour::xyz_model, readout.before)[1], y_after = seen(colour::xyz_model, readout.after)[1];
    const auto stored = [&](const char* name, std::size_t i) {
        return ReadoutRow{name, static_cast<double>(readout.before[i]), static_cast<double>(readout.after[i]), 3, i < 3};
    };
    return {stored("r", 0), stored("g", 1), stored("b", 2), stored("alpha", 3),
            ReadoutRow{"Y", y_before, y_after, 3, false},
            ReadoutRow{"L*", lab_before[0], lab_after[0], 1, false},
            ReadoutRow{"a*", lab_before[1], lab_after[1], 1, false},
            ReadoutRow{"b*", lab_before[2], lab_after[2], 1, false}};
}

} // namespace kasuri::app
