#include "readings/reading.hpp"

#include <algorithm>
#include <utility>

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

std::optional<Measured> Reading::measure(const Order& order) const {
    const Asked alone[] = {{this, order}};
    std::optional<std::vector<Measured>> made = measured(alone);
    return made ? std::optional(std::move(made->front())) : std::nullopt;
}

std::optional<std::vector<Measured>> measured(std::span<const Asked> asked) {
    std::vector<std::unique_ptr<Counting>> countings;
    std::vector<const image::Picture*> pictures; // each once
    for (const Asked& each : asked) {
        countings.push_back(each.reading->counting ? each.reading->counting(each.order) : nullptr);
        for (const image::Picture* picture : each.order.pictures)
            if (countings.back() && std::find(pictures.begin(), pictures.end(), picture) == pictures.end())
                pictures.push_back(picture);
    }
    for (const image::Picture* picture : pictures) {
        std::vector<Onlooker> onlookers;
        std::vector<Counting*> counting;
        for (std::size_t i = 0; i < asked.size(); ++i)
            // A picture that is asked for twice counts twice.
            for (std::ptrdiff_t n = std::count(asked[i].order.pictures.begin(), asked[i].order.pictures.end(), picture);
                 n > 0 && countings[i]; --n) {
                counting.push_back(countings[i].get());
                onlookers.push_back({countings[i]->looked(), [of = countings[i].get()](const Band& b) { of->add(b); }});
            }
        for (Counting* each : counting)
            each->begin(*picture);
        if (!through_bands(*picture, *asked.front().order.views, onlookers, asked.front().order.cancel))
            return std::nullopt;
        for (Counting* each : counting)
            each->end(*picture);
    }
    std::vector<Measured> all;
    for (std::size_t i = 0; i < asked.size(); ++i) {
        std::optional<Measured> made =
            countings[i] ? std::optional(countings[i]->told()) : asked[i].reading->found(asked[i].order);
        if (!made || asked[i].order.cancel.cancelled())
            return std::nullopt;
        all.push_back(std::move(*made));
    }
    return all;
}

} // namespace kasuri::readings
