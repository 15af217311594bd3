#include "targets/paint.hpp"
#include "targets/target.hpp"

namespace kasuri::targets {
namespace {
constexpr Setting settings[] = {
    {"side", "pixels of one colour", 16, 1, 256, true},
    {"low", "least value of a channel", 0, -16, 1},
    {"high", "greatest value of a channel", 1, 0.01, 64},
    {"seed", "other numbers, other colours", 1, 0, 1e6, true},
};
} // namespace

extern const Target random_colours;
const Target random_colours = {
    .name = "random_colours",
    .title = "random colours",
    .detail = "0 .. 1",
    .doc = "Squares of even random r, g, b, the same for the same seed.",
    .shape = Shape::field,
    .columns = 512,
    .rows = 288,
    .settings = settings,
    .field =
        [](int width, int height, Values set) {
            const int side = static_cast<int>(set[0]);
            const auto seed = static_cast<std::uint64_t>(set[3]);
            return image::generated(width, height, [&](int x, int y) {
                Colour made;
                for (std::size_t c = 0; c < 3; ++c)
                    made[c] = set[1] + (set[2] - set[1]) * paint::hash(x / side, y / side, 3 * seed + c);
                return made;
            });
        },
};

} // namespace kasuri::targets
