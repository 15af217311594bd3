#pragma once
#include "image/image.hpp"

#include <span>
#include <string_view>

namespace kasuri::targets {

/// One row: a picture of the invented village, made by arithmetic alone and the same at every run.
struct DemoPicture {
    std::string_view name; ///< file name without ending
    std::string_view doc;
    image::Image (*make)();
};

/// All pictures of the demo world.
std::span<const DemoPicture> demo_pictures();

/// One row: numbered pictures of the village, name.0001.exr and on.
struct DemoSequence {
    std::string_view name; ///< of its folder, and of the files before their number
    std::string_view doc;
    int frames;
    image::Image (*make)(int frame); ///< from 0 on
};
std::span<const DemoSequence> demo_sequences();

} // namespace kasuri::targets
