#include "builtins/row.hpp"

namespace kasuri::builtins {

std::vector<Builtin> neighbours() {
    Rows table;
    const lang::Slot number = per_picture(float_type);
    const auto add = [&](std::string_view name, std::vector<std::string_view> parameters, std::string_view doc,
                         std::string_view source, ir::Neighbour kind) -> Builtin& {
        Builtin& row = table.add(name, std::move(parameters), doc, source);
        row.form = Form::neighbourhood;
        row.takes = {lang::gen, number};
        row.neighbour = kind;
        return row;
    };
    add("blur", {"x", "size"},
        "Gaussian blur of any expression; size is the standard deviation in pixels (percent(2) is 2 % of the picture's "
        "height). "
        "Beyond the edge the nearest pixel is repeated. A size of 0 or less changes nothing.",
        "convolution with a sampled Gaussian of sum 1", ir::Neighbour::blur);
    Builtin& sharpen = add("sharpen", {"x", "size", "amount"},
                           "Unsharp masking: x + amount * (x - blur(x, size)). Nothing is clamped.",
                           "common practice, no source", ir::Neighbour::blur);
    sharpen.takes.push_back(lang::exactly(float_type));
    sharpen.unsharp = true;
    add("dilate", {"x", "radius"},
        "The largest value among the pixels whose centres lie within the radius (in pixels) of this one: masks grow by "
        "round brush.",
        "grey-scale dilation by a disc; common practice, no source", ir::Neighbour::dilate);
    add("erode", {"x", "radius"},
        "The smallest value among the pixels whose centres lie within the radius (in pixels) of this one: masks "
        "shrink.",
        "grey-scale erosion by a disc; common practice, no source", ir::Neighbour::erode);
    return std::move(table.rows);
}

} // namespace kasuri::builtins
