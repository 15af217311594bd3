#include "subject/further.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::subject {
namespace {

const image::Picture* bound_to(const Subject& subject, const lang::SourceInput& source) {
    const auto bound = subject.bindings().find(source.name);
    return bound == subject.bindings().end() ? nullptr : bound->second.picture.get();
}

/// The number of a name is the same in every run.
std::size_t number_of(const std::string& name) {
    std::size_t number = 0;
    for (const char c : name)
        number = (number * 31 + static_cast<unsigned char>(c)) % 997;
    return number;
}

} // namespace

std::vector<std::vector<float>> source_settings(const Subject& subject) {
    constexpr double golden = 0.6180339887498949; // its multiples fill 0 to 1 evenly
    if (subject.sources().empty())
        return {{}};
    std::vector<std::vector<float>> all(source_variations);
    for (const lang::SourceInput& source : subject.sources()) {
        const image::Picture* const picture = bound_to(subject, source);
        const std::size_t number = number_of(source.name);
        for (std::size_t c = 0; c < static_cast<std::size_t>(width(source.type)); ++c)
            for (std::size_t k = 0; k < source_variations; ++k) {
                if (picture && picture->pixels() > 0) {
                    const double share = std::fmod(golden * static_cast<double>(k + 1), 1.0);
                    const auto place = static_cast<std::size_t>(share * static_cast<double>(picture->pixels()));
                    all[k].push_back(picture->at(std::min(place, picture->pixels() - 1))[c]);
                    continue;
                }
                const double random =
                    std::fmod(golden * static_cast<double>((4 * number + c + 1) * source_variations + k), 1.0);
                all[k].push_back(k == 0 ? 0.0f : k == 1 ? 1.0f : k == 2 ? 0.5f : static_cast<float>(random));
            }
    }
    return all;
}

std::vector<std::string> source_spaces(const Subject& subject) {
    std::vector<std::string> spaces;
    for (const lang::SourceInput& source : subject.sources()) {
        const image::Picture* const picture = bound_to(subject, source);
        spaces.push_back(picture ? picture->space : std::string());
    }
    return spaces;
}

std::vector<std::string> unbound(const Subject& subject) { return without_picture(subject, nullptr); }

std::vector<engine::PlaneView> constant_planes(std::span<const float> values) {
    std::vector<engine::PlaneView> planes;
    for (const float& value : values)
        planes.emplace_back(&value, engine::Sample::float32, 0, 0);
    return planes;
}

} // namespace kasuri::subject
