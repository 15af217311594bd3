#include "model/readout.hpp"

#include "colour/difference.hpp"
#include "colour/models/models.hpp"

namespace kasuri::app {

std::vector<ReadoutRow> rows_of(const Readout& readout, const colour::Model& model) {
    const colour::Space* named = colour::find_space(readout.space);
    const colour::Space& space = named ? *named : *colour::find_space(colour::default_space);
    const auto seen = [&](const colour::Model& by, const std::array<float, 4>& stored) {
        return from_rgb(
            by, space,
            {static_cast<double>(stored[0]), static_cast<double>(stored[1]), static_cast<double>(stored[2])});
    };
    const colour::Triple lab_before = seen(colour::lab_model, readout.before),
                         lab_after = seen(colour::lab_model, readout.after);
    const double y_before = seen(colour::xyz_model, readout.before)[1],
                 y_after = seen(colour::xyz_model, readout.after)[1];
    const auto stored = [&](const char* name, std::size_t i) {
        return ReadoutRow{name, static_cast<double>(readout.before[i]), static_cast<double>(readout.after[i]), 3,
                          i < 3};
    };
    std::vector<ReadoutRow> rows = {stored("r", 0), stored("g", 1), stored("b", 2), stored("alpha", 3),
                                    ReadoutRow{"Y", y_before, y_after, 3, false}};
    const colour::Triple before = seen(model, readout.before), after = seen(model, readout.after);
    const bool lab = &model == &colour::lab_model;
    for (std::size_t c = 0; c < 3; ++c) {
        const colour::Component& component = model.components[c];
        static const char* const marked[3] = {"L*", "a*", "b*"};
        const QString name = lab
            ? QString(marked[c])
            : QString::fromUtf8(component.name.data(), static_cast<qsizetype>(component.name.size()));
        rows.push_back({name, before[c], after[c], component.high - component.low > 20 ? 1 : 3, false});
    }
    rows.push_back({QString::fromUtf8("\u0394"
                                      "E2000"),
                    0, colour::ciede2000(lab_before, lab_after), 1, false});
    return rows;
}

} // namespace kasuri::app
