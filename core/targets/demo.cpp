#include "targets/demo.hpp"

#include "targets/demo_pictures.hpp"

namespace kasuri::targets {
namespace {
constexpr DemoPicture table[] = {
    {"cloths", "Dyed cloth on a line at dusk; the lantern reaches values above 20.", demo_cloths},
    {"puppet", "A rod puppet in four layers with soft, premultiplied edges.", demo_puppet},
    {"chart",
     "The chart of 1976 at the gate, askew in lamplight, as a camera saw it: noise, dust, a shine, white clipped.",
     demo_chart},
};
constexpr DemoSequence sequences[] = {
    {"lantern", "A lantern that swings in front of a dyed curtain, 24 frames that begin again where they end.",
     demo_lantern_frames, demo_lantern},
};
} // namespace

std::span<const DemoPicture> demo_pictures() { return table; }
std::span<const DemoSequence> demo_sequences() { return sequences; }

} // namespace kasuri::targets
