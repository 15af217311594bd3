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

} // namespace kasuri::targets
