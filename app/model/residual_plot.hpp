#pragma once
#include "fit/residual.hpp"
#include "readings/plot.hpp"

#include <memory>
#include <vector>

namespace kasuri::app {

/// Where a found rule is off, as a reading is drawn.
struct ResidualPlot {
    std::vector<readings::Panel> panels;
    std::shared_ptr<const readings::Measured> measured;
    double times = 1; ///< so many times as long as they are, that small differences can be seen
};

/// On the plane of a* and b*: an arrow from what was wanted to what the rule makes.
ResidualPlot residual_plane(const fit::Residual& residual);
/// In the room of L*a*b*: what was wanted as points, and a line to what the rule makes.
ResidualPlot residual_room(const fit::Residual& residual);

} // namespace kasuri::app
