#include "targets/demo.hpp"

#include "targets/demo_pictures.hpp"

namespace kasuri::targets {
namespace {
constexpr DemoPicture table[] = {
    {"cloths", "Dyed cloth on a line at dusk; the lantern reaches values above 20.", demo_cloths},
    {"puppet", "A rod puppet in four layers with soft, premultiplied edges.", demo_puppet},
};
} // namespace

std::span<const DemoPicture> demo_pictures() { return table; }

} // namespace kasuri::targets
