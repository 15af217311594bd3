#pragma once
#include "engine/program.hpp"
#include "engine/sources.hpp"
#include "image/image.hpp"

#include <memory>
#include <vector>

namespace kasuri::engine {

/// What `evaluate` makes of a picture, made pixel by pixel when it is asked for: nothing of it is kept, however large.
/// Every pixel has the bits that `evaluate` gives it. Planes that the program leaves alone are the picture's own.
image::Picture on_demand(ProgramPtr program, std::shared_ptr<const image::Picture> picture, std::vector<double> values,
                         std::shared_ptr<const BoundSources> sources);

} // namespace kasuri::engine
