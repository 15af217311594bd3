#include "pairing/pictures.hpp"

#include "base/file.hpp"
#include "base/parallel.hpp"
#include "base/said.hpp"
#include "colour/space.hpp"
#include "handover/render.hpp"

#include <filesystem>
#include <fmt/format.h>

namespace kasuri::pairing {

std::string name_of(const std::string& file) { return std::filesystem::path(file).filename().string(); }

Result<Shown> picture_from(const std::string& file, const PairingOptions& options, std::vector<std::string>& notes) {
    const auto image = handover::source_image(file, options.in_space);
    if (!image)
        return image.error();
    for (const std::string& note : image.value().notes)
        notes.push_back(name_of(file) + ": " + note);
    auto picture =
        image::picture_of(image.value(), options.layer.empty() ? image::usual_layer(image.value()) : options.layer);
    if (!picture)
        return Error{said("there is no layer \"{}\"", options.layer), file,
                     said("Its layers are: {}.", fmt::join(image::layers(image.value()), ", "))};
    if (picture->space.empty()) // a generated target: its numbers are of whichever space it is looked at in
        picture->space = colour::default_space;
    const image::Depth depth = image.value().depth;
    const bool whole = depth == image::Depth::uint8 || depth == image::Depth::uint16;
    const std::string ending = lower_ending(file);
    const bool lossy = ending == ".jpg" || ending == ".jpeg" || ending == ".webp";
    return Shown{std::move(*picture), !whole ? 0 : (lossy ? 8 : 0.75) / 255};
}

void bring_into(image::Picture& picture, const std::string& space) {
    const colour::Space *from = colour::find_space(picture.space), *to = colour::find_space(space);
    if (picture.space == space || !from || !to)
        return;
    std::array<image::Samples, 3> made{image::Samples(picture.pixels()), image::Samples(picture.pixels()),
                                       image::Samples(picture.pixels())};
    const image::Picture numbers = image::as_floats(picture);
    parallel_ranges(picture.pixels(), 4096, {}, [&](std::size_t begin, std::size_t end) {
        for (std::size_t i = begin; i < end; ++i) {
            const auto x = numbers.at(i);
            const colour::Triple y = colour::converted(
                {static_cast<double>(x[0]), static_cast<double>(x[1]), static_cast<double>(x[2])}, *from, *to);
            for (std::size_t c = 0; c < 3; ++c)
                made[c][i] = static_cast<float>(y[c]);
        }
    });
    for (std::size_t c = 0; c < 3; ++c)
        picture.planes[c] = image::make_plane(std::move(made[c]));
    picture.space = space;
}

} // namespace kasuri::pairing
