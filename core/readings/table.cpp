#include "readings/reading.hpp"

namespace kasuri::readings {

extern const Reading response, hue_map, waveform, parade, vectorscope, histogram, cut, chromaticity, lab_plane, solid,
    cloud;

namespace {
const Reading* const table[] = {&response, &hue_map,      &waveform,  &parade, &vectorscope, &histogram,
                                &cut,      &chromaticity, &lab_plane, &solid,  &cloud};
}

std::span<const Reading* const> all() { return table; }

const Reading* find(std::string_view name) {
    for (const Reading* reading : table)
        if (reading->name == name)
            return reading;
    return nullptr;
}

} // namespace kasuri::readings
