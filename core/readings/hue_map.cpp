// Where every hue and saturation goes.
#include "colour/models/models.hpp"
#include "readings/common.hpp"
#include "readings/lab_plane.hpp"

namespace kasuri::readings {
namespace {

constexpr int hues = 18, rings = 4;
constexpr std::string_view names[] = {plane_models[0].title, plane_models[1].title};
const Setting settings[] = {
    {"model", "of which plane", 0, 0, 1, true, names},
    {"value", "HSV value of the colours, in the working space", 0.5, 0.01, 16},
    {"zoom", "times the usual size", 1, 1, 32},
};

/// Hues by rings of saturation, the outermost full.
image::Picture wheel(double value) {
    return image::generated(hues, rings, [&](int x, int y) {
        return colour::hsv_model.to({360.0 * x / hues, (y + 1.0) / rings, value});
    });
}

std::optional<Measured> measured_on(const Order& order) {
    const PlaneModel& model = plane_models[static_cast<std::size_t>(order.settings[0])];
    image::Picture before = wheel(order.settings[1]);
    before.space = order.working;
    std::optional<image::Picture> after = order.rule(before);
    if (!after)
        return std::nullopt;
    after->space = order.working;
    const auto from = order.views->look(before, "rec709-linear", model.expression, order.cancel);
    const auto to = order.views->look(*after, "rec709-linear", model.expression, order.cancel);
    if (!from || !to)
        return std::nullopt;
    Arrows arrows{"hues", {}};
    for (std::size_t i = 0; i < before.pixels(); ++i)
        arrows.arrows.push_back(
            {{(*(*from)[0])[i], (*(*from)[1])[i]}, {(*(*to)[0])[i], (*(*to)[1])[i]}, light_of(before, i)});
    Measured measured;
    measured.layers.push_back({0, std::move(arrows)});
    return measured;
}

} // namespace

extern const Reading hue_map;
const Reading hue_map = {
    "hue_map",
    "Hue map",
    "Where hues and saturations go: from each ring to where the rule takes it.",
    "CIE 15:2018, white D65; OKLab: Ottosson 2020",
    About::rule,
    settings,
    [](Values set) { return std::vector{plane_panel(plane_models[static_cast<std::size_t>(set[0])], set[2])}; },
    nullptr,
    measured_on,
};

} // namespace kasuri::readings
