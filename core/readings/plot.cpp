#include "readings/plot.hpp"

#include "base/text.hpp"

#include <cmath>
#include <fmt/format.h>

namespace kasuri::readings {
namespace {

constexpr int digits = 7;
std::string text(double value) { return number_text(value, digits); }

/// A title as a name in a header: no separators.
std::string heading(const std::string& title) {
    std::string made;
    for (const char c : title)
        made += c == ',' || c == '\n' || c == '"' ? ' ' : c;
    return made;
}

struct Writer {
    const Panel& panel;
    std::string& out;

    void operator()(const Density& density) const {
        out +=
            fmt::format("{},{},count of {}\n", heading(panel.x.title), heading(panel.y.title), heading(density.name));
        for (int row = 0; row < density.rows; ++row)
            for (int column = 0; column < density.columns; ++column)
                if (const std::uint32_t count =
                        density.counts[static_cast<std::size_t>(row) * static_cast<std::size_t>(density.columns) +
                                       static_cast<std::size_t>(column)])
                    out += fmt::format("{},{},{}\n", text(panel.x.value_at((column + 0.5) / density.columns)),
                                       text(panel.y.value_at((row + 0.5) / density.rows)), count);
    }
    void operator()(const Trace& trace) const {
        out += fmt::format("{},{}\n", heading(panel.x.title), heading(trace.name));
        for (const auto& [x, y] : trace.points)
            out += fmt::format("{},{}\n", text(static_cast<double>(x)), text(static_cast<double>(y)));
    }
    void operator()(const Arrows& arrows) const {
        out +=
            fmt::format("{0} before,{1} before,{0} after,{1} after\n", heading(panel.x.title), heading(panel.y.title));
        for (const Arrow& arrow : arrows.arrows)
            out += fmt::format("{},{},{},{}\n", text(static_cast<double>(arrow.from[0])),
                               text(static_cast<double>(arrow.from[1])), text(static_cast<double>(arrow.to[0])),
                               text(static_cast<double>(arrow.to[1])));
    }
    void operator()(const Solid& solid) const {
        out += fmt::format("r,g,b,{},{},{}\n", heading(panel.x.title), heading(panel.y.title), heading(panel.z->title));
        for (std::size_t i = 0; i < solid.points.size(); ++i) {
            for (const float number : solid.from[i])
                out += text(static_cast<double>(number)) + ",";
            const auto& [x, y, z] = solid.points[i];
            out += fmt::format("{},{},{}\n", text(static_cast<double>(x)), text(static_cast<double>(y)),
                               text(static_cast<double>(z)));
        }
    }
    void operator()(const Wires& wires) const {
        out += fmt::format("{},{},{},edge of {}\n", heading(panel.x.title), heading(panel.y.title),
                           heading(panel.z->title), heading(wires.name));
        for (std::size_t k = 0; k < wires.lines.size(); ++k)
            for (const auto& [x, y, z] : wires.lines[k])
                out += fmt::format("{},{},{},{}\n", text(static_cast<double>(x)), text(static_cast<double>(y)),
                                   text(static_cast<double>(z)), k + 1);
    }
    void operator()(const Spots& spots) const {
        out += fmt::format("{},{},name\n", heading(panel.x.title), heading(panel.y.title));
        for (const Spot& spot : spots.spots)
            out += fmt::format("{},{},{}\n", text(static_cast<double>(spot.at[0])),
                               text(static_cast<double>(spot.at[1])), heading(spot.label));
    }
};

} // namespace

std::string csv(const std::vector<Panel>& panels, const Measured& measured) {
    std::string out;
    for (const Layer& layer : measured.layers) {
        if (!out.empty())
            out += '\n';
        std::visit(Writer{panels[static_cast<std::size_t>(layer.panel)], out}, layer.data);
    }
    if (!measured.figures.empty())
        out += out.empty() ? "figure,of,value,unit\n" : "\nfigure,of,value,unit\n";
    for (const Figure& figure : measured.figures)
        out += fmt::format("{},{},{},{}\n", heading(figure.name), figure.of, text(figure.value), figure.unit);
    return out;
}

std::vector<Tick> even_ticks(double low, double high, int wanted) {
    std::vector<Tick> ticks;
    const double span = high - low;
    if (!(span > 0) || wanted < 1)
        return ticks;
    const double raw = span / wanted, power = std::pow(10.0, std::floor(std::log10(raw)));
    const double step = raw / power < 1.5 ? power
        : raw / power < 3.5               ? 2 * power
        : raw / power < 7.5               ? 5 * power
                                          : 10 * power;
    for (double at = std::ceil(low / step - 1e-9); at * step <= high + 1e-9 * span; ++at)
        ticks.push_back({at * step, number_text(at == 0 ? 0.0 : at * step, 6), at == 0 || at * step == 1});
    return ticks;
}

} // namespace kasuri::readings
