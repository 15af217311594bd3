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

/// Chromaticities of the spectrum of the CIE 1931 standard observer, 380 to 700 nm in steps of 10 (480 to 530: of 5):
/// CIE 15:2018, from memory; the tests compare them with the published fit of the observer by Wyman, Sloan and Shirley
/// (2013).
constexpr std::array<double, 2> spectrum[] = {
    {0.1741, 0.0050}, {0.1738, 0.0049}, {0.1733, 0.0048}, {0.1726, 0.0048}, {0.1714, 0.0051}, {0.1689, 0.0069},
    {0.1644, 0.0109}, {0.1566, 0.0177}, {0.1440, 0.0297}, {0.1241, 0.0578}, {0.0913, 0.1327}, {0.0687, 0.2007},
    {0.0454, 0.2950}, {0.0235, 0.4127}, {0.0082, 0.5384}, {0.0039, 0.6548}, {0.0139, 0.7502}, {0.0389, 0.8120},
    {0.0743, 0.8338}, {0.1142, 0.8262}, {0.1547, 0.8059}, {0.2296, 0.7543}, {0.3016, 0.6923}, {0.3731, 0.6245},
    {0.4441, 0.5547}, {0.5125, 0.4866}, {0.5752, 0.4242}, {0.6270, 0.3725}, {0.6658, 0.3340}, {0.6915, 0.3083},
    {0.7079, 0.2920}, {0.7190, 0.2809}, {0.7260, 0.2740}, {0.7300, 0.2700}, {0.7320, 0.2680}, {0.7334, 0.2666},
    {0.7344, 0.2656}, {0.7347, 0.2653},
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
    Guide locus{{}, "", true};
    for (const auto& [x, y] : spectrum)
        locus.points.push_back(placed(diagram, x, y));
    locus.points.push_back(locus.points.front()); // purples
    panel.guides.push_back(std::move(locus));
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
    "chromaticity",
    "Chromaticity",
    "Where colours lie on the chromaticity diagram, with the triangles of spaces. Every pixel is counted.",
    "CIE 15:2018; primaries: the publications of the spaces (docs/colour.md)",
    About::pictures,
    settings,
    panels_of,
    [](const Order& order) {
        const Diagram& diagram = diagrams[static_cast<std::size_t>(order.settings[0])];
        const std::vector<Panel> panels = panels_of(order.settings);
        return plane_counting(order, {"rec709-linear", diagram.expression}, panels[0].x, panels[0].y, "pixels");
    },
    nullptr,
};

} // namespace kasuri::readings
