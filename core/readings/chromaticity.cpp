// The chromaticity diagram, with the gamuts of spaces to compare with.
#include "colour/space.hpp"
#include "readings/common.hpp"

namespace kasuri::readings {
namespace {

struct Diagram {
    std::string_view name, x, y, expression;
    double right, top;
};
constexpr Diagram diagrams[] = {
    {"xy", "x", "y", "xyy(rgb).xy", 0.8, 0.9},
    // CIE 15:2018: u' = 4X / (X + 15Y + 3Z), v' = 9Y / (X + 15Y + 3Z), from x and y.
    {"u'v'", "u'", "v'", "vec2(4 * xyy(rgb).x, 9 * xyy(rgb).y) / (12 * xyy(rgb).y - 2 * xyy(rgb).x + 3)", 0.65, 0.65},
};
constexpr std::string_view names[] = {diagrams[0].name, diagrams[1].name};
constexpr std::string_view gamuts[] = {"rec709-linear", "p3-d65-linear", "rec2020-linear", "acescg"};
constexpr std::string_view labels[] = {"709", "P3", "2020", "AP1"};
constexpr std::string_view gamut_names[] = {"709", "and P3", "and 2020", "and AP1"};
const Setting settings[] = {
    {"diagram", "which coordinates", 0, 0, 1, true, names},
    {"gamuts", "triangles of spaces", 2, 0, 3, true, gamut_names},
};

std::array<double, 2> placed(const Diagram& diagram, double x, double y) {
    if (&diagram == &diagrams[0])
        return {x, y};
    const double below = 12 * y - 2 * x + 3;
    return {4 * x / below, 9 * y / below};
}

std::vector<Panel> panels_of(Values set) {
    const Diagram& diagram = diagrams[static_cast<std::size_t>(set[0])];
    Panel panel;
    panel.square = true;
    panel.x = {std::string(diagram.x), -0.05, diagram.right, even_ticks(0, diagram.right, 4)};
    panel.y = {std::string(diagram.y), -0.05, diagram.top, even_ticks(0, diagram.top, 4)};
    for (std::size_t i = 0; i <= static_cast<std::size_t>(set[1]); ++i) {
        const colour::Space& space = *colour::find_space(gamuts[i]);
        Guide triangle{{}, std::string(labels[i]), i > 0};
        for (const std::size_t corner : {1u, 2u, 0u, 1u})
            triangle.points.push_back(placed(diagram, space.primaries[corner].x, space.primaries[corner].y));
        panel.guides.push_back(std::move(triangle));
    }
    const auto white = placed(diagram, colour::d65.x, colour::d65.y);
    constexpr double arm = 0.012;
    panel.guides.push_back({{{white[0] - arm, white[1]}, {white[0] + arm, white[1]}}, "", false});
    panel.guides.push_back({{{white[0], white[1] - arm}, {white[0], white[1] + arm}}, "", false});
    return {panel};
}

} // namespace

extern const Reading chromaticity;
const Reading chromaticity = {
    "chromaticity", "Chromaticity", "Where colours lie on the chromaticity diagram, with the triangles of spaces. Every pixel is counted.",
    "CIE 15:2018; primaries: the publications of the spaces (docs/colour.md)", About::pictures, settings, panels_of,
    [](const Subject& subject) {
        const Diagram& diagram = diagrams[static_cast<std::size_t>(subject.settings[0])];
        const std::vector<Panel> panels = panels_of(subject.settings);
        return measure_plane(subject, {"rec709-linear", diagram.expression}, panels[0].x, panels[0].y, "pixels");
    },
};

} // namespace kasuri::readings
