#include "colour/transfer.hpp"
#include "targets/target.hpp"

#include <iterator>

namespace kasuri::targets {
namespace {

/// Invented here, display-encoded 8-bit values: the dyer's own chart. Rows: dyes; skins, bark and leaves
/// and softer cloth; neutrals, ending in paper and in a lantern above 1.
struct Patch {
    int r, g, b;
};
constexpr Patch patches[] = {
    {0xb8, 0x38, 0x34}, {0xcc, 0x7a, 0x3c}, {0xd8, 0xc0, 0x48}, {0x84, 0xae, 0x4e}, {0x3f, 0x96, 0x66},
    {0x3c, 0x8c, 0x96}, {0x33, 0x57, 0x96}, {0x8a, 0x4b, 0x9a}, {0xcf, 0xab, 0x98}, {0xa0, 0x73, 0x56},
    {0x63, 0x44, 0x35}, {0xc9, 0xb4, 0x83}, {0x72, 0x7f, 0x54}, {0x57, 0x84, 0x84}, {0x63, 0x74, 0x9b},
    {0x9a, 0x79, 0x95}, {0x00, 0x00, 0x00}, {0x1c, 0x1c, 0x1c}, {0x3a, 0x3a, 0x3a}, {0x5e, 0x5e, 0x5e},
    {0x8c, 0x8c, 0x8c}, {0xbe, 0xbe, 0xbe}, {0xff, 0xff, 0xff}, {-1, -1, -1},
};
constexpr std::string_view names[] = {
    "madder",    "bark orange", "weld",      "young leaf", "moss",   "river",  "indigo",      "plum",
    "fair skin", "tanned skin", "dark skin", "straw",      "reed",   "slate",  "evening sky", "heather",
    "black",     "grey 1",      "grey 2",    "grey 3",     "grey 4", "grey 5", "white",       "lantern",
};

Colour patch(double index, Values) {
    const Patch& p = patches[static_cast<std::size_t>(index)];
    if (p.r < 0)
        return {4.0, 2.6, 1.1};
    return {colour::srgb_decode(p.r / 255.0), colour::srgb_decode(p.g / 255.0), colour::srgb_decode(p.b / 255.0)};
}

} // namespace

extern const Target dye_chart;
const Target dye_chart = {
    .name = "dye_chart",
    .title = "dye chart",
    .detail = "24 patches",
    .doc = "Our own chart of dyes, skins, plants and neutrals, with one patch of lantern light above 1.",
    .shape = Shape::patches,
    .axis = {},
    .columns = 8,
    .rows = 3,
    .colour = patch,
    .patch_names = names,
};
static_assert(std::size(patches) == std::size(names) && std::size(names) == 24);

} // namespace kasuri::targets
