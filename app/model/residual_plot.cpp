#include "model/residual_plot.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace kasuri::app {
namespace {

constexpr double usually_long = 24,
                 long_enough = 60; ///< in units of L*a*b*: of half of the differences, of nineteen of twenty
constexpr double most_times = 1000;
constexpr std::size_t most_arrows = 140; ///< on the plane: more would hide each other

/// 1, 2, 5, 10 ... times, by the components from `first` on: so that they are seen and do not cover each other.
double times_for(const fit::Residual& residual, std::size_t first) {
    std::vector<double> lengths;
    for (std::size_t i = 0; i < residual.wanted.size(); ++i) {
        double sum = 0;
        for (std::size_t c = first; c < 3; ++c)
            sum += std::pow(residual.made[i][c] - residual.wanted[i][c], 2);
        if (std::isfinite(sum))
            lengths.push_back(std::sqrt(sum));
    }
    if (lengths.empty())
        return 1;
    std::sort(lengths.begin(), lengths.end());
    const double usual = lengths[lengths.size() / 2],
                 most = lengths[static_cast<std::size_t>(0.95 * static_cast<double>(lengths.size() - 1))];
    double times = 1;
    for (int step = 0; times < most_times; ++step) {
        const double next = times * (step % 3 == 1 ? 2.5 : 2);
        if (usual * next > usually_long || most * next > long_enough)
            break;
        times = next;
    }
    return times;
}

std::array<float, 3> drawn_to(const fit::Residual& residual, std::size_t i, double times) {
    std::array<float, 3> end{};
    for (std::size_t c = 0; c < 3; ++c)
        end[c] = static_cast<float>(residual.wanted[i][c] + times * (residual.made[i][c] - residual.wanted[i][c]));
    return end;
}

readings::Axis axis(const char* title, double low, double high) {
    return {title, low, high, readings::even_ticks(low, high, 4)};
}

constexpr double reach = 120;

} // namespace

ResidualPlot residual_plane(const fit::Residual& residual) {
    ResidualPlot plot;
    plot.times = times_for(residual, 1); // of a* and b* alone
    readings::Panel panel;
    panel.square = true;
    panel.x = axis("a*", -reach, reach);
    panel.y = axis("b*", -reach, reach);
    plot.panels = {panel};
    readings::Arrows arrows{"residual", {}};
    const std::size_t every = residual.wanted.size() / most_arrows + 1;
    for (std::size_t i = 0; i < residual.wanted.size(); i += every) {
        const auto end = drawn_to(residual, i, plot.times);
        arrows.arrows.push_back({{static_cast<float>(residual.wanted[i][1]), static_cast<float>(residual.wanted[i][2])},
                                 {end[1], end[2]},
                                 residual.light[i]});
    }
    auto measured = std::make_shared<readings::Measured>();
    measured->layers.push_back({0, std::move(arrows)});
    plot.measured = std::move(measured);
    return plot;
}

ResidualPlot residual_room(const fit::Residual& residual) {
    ResidualPlot plot;
    plot.times = times_for(residual, 0);
    readings::Panel panel;
    panel.square = true;
    panel.x = axis("a*", -reach, reach);
    panel.y = axis("b*", -reach, reach);
    panel.z = axis("L*", 0, reach);
    plot.panels = {panel};
    readings::Solid points;
    points.name = "wanted";
    readings::Wires wires{"", {}};
    for (std::size_t i = 0; i < residual.wanted.size(); ++i) {
        const auto& lab = residual.wanted[i];
        const readings::Solid::Point from{static_cast<float>(lab[1]), static_cast<float>(lab[2]),
                                          static_cast<float>(lab[0])};
        const auto end = drawn_to(residual, i, plot.times);
        points.points.push_back(from);
        points.colours.push_back(residual.light[i]);
        wires.lines.push_back({from, {end[1], end[2], end[0]}});
    }
    points.from = points.points;
    auto measured = std::make_shared<readings::Measured>();
    measured->layers.push_back({0, std::move(points)});
    measured->layers.push_back({0, std::move(wires)});
    plot.measured = std::move(measured);
    return plot;
}

} // namespace kasuri::app
