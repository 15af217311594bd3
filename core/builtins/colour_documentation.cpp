#include "builtins/builtin.hpp"
#include "colour/adaptation.hpp"
#include "colour/difference.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::builtins {
namespace {

std::string underscored(std::string_view name) {
    std::string made(name);
    std::replace(made.begin(), made.end(), '-', '_');
    return made;
}

} // namespace

std::string colour_documentation() {
    std::string text = "# Colour: models, curves, spaces, differences\n\n"
                       "Made by `kasuri-cli docs colour` from the tables in core/colour; do not edit it here. Every "
                       "expression can be asked from\n"
                       "outside: `echo 1,0.5,0 | kasuri-cli eval --in-space srgb --print 'lab(rgb)'`.\n\n"
                       "## Models\n\n"
                       "`NAME(colour)` gives a colour of the working space in the model, `rgb( )` brings it back, "
                       "`NAME(x, y, z)` is a colour given\n"
                       "by its three numbers. A model that is made of light decodes the working space first and, where "
                       "it names a white, adapts to\n"
                       "it by the Bradford transform. What was not changed comes back to the bit.\n";
    for (const colour::Model* model : colour::models()) {
        text += fmt::format("\n### `{}(rgb)`\n\n{}\n\n", model->name, model->doc);
        for (const colour::Component& component : model->components)
            text += fmt::format("- `{}`: {}\n", component.name, component.meaning);
        text += fmt::format("- *Made of:* {}\n- *Source:* {}\n",
                            model->frame ? model->frame->doc : "the numbers r, g, b as they are", model->source);
    }
    text += "\n## Curves\n\nComponent by component; mirrored below 0 unless the curve says otherwise.\n\n| expression "
            "| curve | source |\n| --- | --- | --- |\n";
    for (const colour::Transfer& curve : colour::transfers())
        if (curve.name != "linear")
            text +=
                fmt::format("| `{0}_encode(x)`, `{0}_decode(x)` | {1} | {2} |\n", curve.name, curve.doc, curve.source);
    text += "| `log_encode(x, a, b, c, d, cut)`, `log_decode( )` | A logarithm of one's own; see docs/builtins.md. | "
            "common practice, no source |\n";
    text += "\n## Spaces\n\n`working NAME` makes it the rule's own. `to_NAME(colour)` gives a colour of the working "
            "space in the numbers of another,\n"
            "`from_NAME(numbers)` brings them back, `outside_NAME(colour)` says how far the colour is outside 0..1 "
            "there.\n\n"
            "| space | expressions | curve | primaries x y | white x y | diffuse white | source |\n| --- | --- | --- | "
            "--- | --- | --- | --- |\n";
    for (const colour::Space& space : colour::spaces()) {
        const auto& p = space.primaries;
        text += fmt::format("| `{0}`: {1} | `to_{2}` `from_{2}` `outside_{2}` | {3} | {4} {5}, {6} {7}, {8} {9} | {10} "
                            "{11} | {12:.4g} | {13} |\n",
                            space.name, space.doc, underscored(space.name), space.transfer, p[0].x, p[0].y, p[1].x,
                            p[1].y, p[2].x, p[2].y, space.white.x, space.white.y,
                            transfer_of(space).encode(space.white_level), space.source);
    }
    text += "\n## Differences\n\n`x` and `y` are colours of the working space, or of the models that are named.\n\n| "
            "expression | of | meaning | source |\n| --- | --- | --- | --- |\n";
    for (const colour::Difference& row : colour::differences())
        text += fmt::format("| `{}(x, y)` | {} | {} | {} |\n", row.name, row.model.name, row.doc, row.source);
    text += "\n## White balance\n\n`from` and `to` are chromaticities of whites, `vec2(x, y)`.\n\n| expression | "
            "meaning | source |\n| --- | --- | --- |\n";
    for (const colour::Adaptation& row : colour::adaptations())
        text += fmt::format("| `adapt_{}(colour, from, to)` | {} | {} |\n", row.name, row.doc, row.source);
    return text;
}

} // namespace kasuri::builtins
