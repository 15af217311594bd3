#pragma once
#include "image/image.hpp"

#include <memory>

namespace kasuri::app {

using PicturePtr = std::shared_ptr<const image::Picture>;
using ImagePtr = std::shared_ptr<const image::Image>;

} // namespace kasuri::app
