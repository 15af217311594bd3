#include "io/upright.hpp"

#include <algorithm>
#include <cstring>

namespace kasuri::io {
namespace {

/// Whole numbers of any size in the library's words: "int", "uint16".
int whole(const image::Attribute& attribute) {
    if (attribute.data.size() == 4) {
        std::int32_t number = 0;
        std::memcpy(&number, attribute.data.data(), 4);
        return number;
    }
    if (attribute.data.size() == 2) {
        std::uint16_t number = 0;
        std::memcpy(&number, attribute.data.data(), 2);
        return number;
    }
    return 1;
}

/// Where the stored row 0 and column 0 lie when it is seen; from TIFF 6.0, page 36: 1 top left, 2 top right, 3 bottom
/// right, 4 bottom left, 5 left top, 6 right top, 7 right bottom, 8 left bottom.
struct Turn {
    bool across;             ///< rows are seen as columns
    bool mirror_x, mirror_y; ///< of what is seen, before that: stored columns from the right, rows from the bottom
};
constexpr Turn turns[] = {{false, false, false}, {false, true, false}, {false, true, true}, {false, false, true},
                          {true, false, false},  {true, false, true},  {true, true, true},  {true, true, false}};

} // namespace

bool make_upright(image::Image& image) {
    const auto found = std::find_if(image.attributes.begin(), image.attributes.end(),
                                    [](const image::Attribute& each) { return each.name == "Orientation"; });
    if (found == image.attributes.end())
        return false;
    const int orientation = whole(*found);
    image.attributes.erase(found);
    if (orientation < 2 || orientation > 8)
        return false;
    const Turn& turn = turns[orientation - 1];
    const auto w = static_cast<std::size_t>(image.width), h = static_cast<std::size_t>(image.height);
    const std::size_t wide = turn.across ? h : w, high = turn.across ? w : h;
    for (image::Channel& channel : image.channels) {
        image::Samples made(channel.plane->size());
        const image::PlaneData& stored = *channel.plane;
        for (std::size_t y = 0; y < high; ++y)
            for (std::size_t x = 0; x < wide; ++x) {
                const std::size_t column = turn.across ? y : x, row = turn.across ? x : y;
                made[y * wide + x] =
                    stored[(turn.mirror_y ? h - 1 - row : row) * w + (turn.mirror_x ? w - 1 - column : column)];
            }
        channel.plane = image::packed(image::make_plane(std::move(made)), stored.kind());
    }
    image.width = static_cast<int>(wide);
    image.height = static_cast<int>(high);
    image.window = {}; // no kind of file that says how it is turned has a frame around it
    return true;
}

} // namespace kasuri::io
