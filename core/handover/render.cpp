#include "handover/render.hpp"

#include "engine/evaluate.hpp"
#include "engine/lower.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::handover {

Result<io::SaveReport> render(const lang::Rule& rule, std::span<const double> values, const std::filesystem::path& in,
                              const std::filesystem::path& out, std::string layer, const CancelToken& cancel,
                              std::atomic<std::size_t>* done) {
    const Result<image::Image> loaded = io::load(in);
    if (!loaded)
        return loaded.error();
    const image::Image& image = loaded.value();
    const std::vector<std::string> layers = image::layers(image);
    if (layer.empty() && std::find(layers.begin(), layers.end(), "") == layers.end())
        layer = layers.front();
    if (std::find(layers.begin(), layers.end(), layer) == layers.end())
        return Error{fmt::format("there is no layer {}", layer), in.string(), fmt::format("It has {}.", fmt::join(layers, ", "))};
    const std::optional<image::Picture> picture = image::picture_of(image, layer);
    if (!picture)
        return Error{"has no channel to work on", in.string(), ""};
    engine::CompileOptions options;
    const std::string out_space = io::space_of_ending(out, image.depth);
    options.in_space = picture->space;
    options.out_space = out_space;
    const engine::ProgramPtr program = engine::compile(rule, options);
    if (program->is_identity()) // also spares the division by alpha and back, which is not exact
        return io::save(out, image);
    std::optional<image::Picture> result = engine::evaluate(*program, *picture, values, cancel, done);
    if (!result)
        return Error{"called off", out.string(), "Nothing was written."};
    result->space = out_space;
    // The other layers cannot follow into another space, so then only the worked one goes along.
    if (out_space == image.space)
        return io::save(out, image::with_picture(image, layer, *result));
    image::Image alone = image::image_of(*result);
    alone.depth = image.depth;
    return io::save(out, alone);
}

} // namespace kasuri::handover
