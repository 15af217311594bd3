// What comes out for greys that go in.
#include "scopes/response.hpp"
#include "readings/common.hpp"

#include <cmath>
#include <fmt/format.h>
#include <limits>

namespace kasuri::readings {
namespace {

constexpr int samples = 600;
constexpr std::string_view names[] = {"linear", "stops", "log"};
const Setting settings[] = {
    {"axes", "how both axes run", 0, 0, 2, true, names},
    {"low", "lowest value (of linear axes); low = high: -0.1 to 1.3", 0, -16, 64},
    {"high", "highest value", 0, -16, 64},
};
constexpr double middle_grey = 0.18; // common practice, no source
constexpr double lowest_stop = -6, highest_stop = 4;

struct Range {
    double low, high;
};
/// In what the axes show: values, stops about middle grey, or powers of ten.
Range range_of_axes(Values set) {
    if (set[0] == 1)
        return {lowest_stop, highest_stop};
    if (set[0] == 2)
        return {-3, 0.5};
    return set[1] < set[2] ? Range{set[1], set[2]} : Range{-0.1, 1.3};
}
double shown(double value, Values set) {
    if (set[0] == 0)
        return value;
    if (!(value > 0))
        return std::numeric_limits<double>::quiet_NaN();
    return set[0] == 1 ? std::log2(value / middle_grey) : std::log10(value);
}
double value_of(double position, Values set) {
    return set[0] == 0 ? position : set[0] == 1 ? middle_grey * std::exp2(position) : std::pow(10.0, position);
}

std::vector<Panel> panels_of(Values set) {
    const Range range = range_of_axes(set);
    std::vector<Tick> ticks;
    if (set[0] == 0) {
        ticks = even_ticks(range.low, range.high, 4);
        if (range.low < middle_grey && range.high > middle_grey)
            ticks.push_back({middle_grey, "0.18", false});
        std::erase_if(ticks, [&](const Tick& t) {
            return t.value != middle_grey && std::fabs(t.value - middle_grey) < 0.06 * (range.high - range.low);
        });
    } else if (set[0] == 1) {
        for (int stop = -6; stop <= 4; stop += 2)
            ticks.push_back({static_cast<double>(stop), fmt::format("{:+d}", stop), stop == 0});
    } else {
        ticks = {{-3, "0.001"}, {-2, "0.01"}, {-1, "0.1"}, {std::log10(middle_grey), "0.18"}, {0, "1", true}};
    }
    const char* unit = set[0] == 1 ? "stops about 0.18" : "value";
    Panel panel;
    panel.x = {fmt::format("in, {}", unit), range.low, range.high, ticks};
    panel.y = {fmt::format("out, {}", unit), range.low, range.high, ticks};
    panel.guides.push_back({{{range.low, range.low}, {range.high, range.high}}, "", true});
    return {panel};
}

std::optional<Measured> measured_on(const Order& order) {
    const Values set = order.settings;
    const Range range = range_of_axes(set);
    const image::Picture greys = image::generated(samples, 1, [&](int x, int) {
        const double in = value_of(range.low + (range.high - range.low) * x / (samples - 1), set);
        return std::array<double, 3>{in, in, in};
    });
    const std::optional<image::Picture> after = order.rule(greys);
    if (!after)
        return std::nullopt;
    const scopes::Response response = scopes::response(greys, *after);
    Measured measured;
    for (std::size_t c = 0; c < 3; ++c) {
        Trace trace{channel_inks[c], std::string(channel_names[c]), {}};
        for (const scopes::ResponsePoint& point : response.points)
            trace.points.push_back({static_cast<float>(shown(static_cast<double>(point.in), set)),
                                    static_cast<float>(shown(static_cast<double>(point.out[c]), set))});
        measured.layers.push_back({0, std::move(trace)});
    }
    for (std::size_t c = 0; c < 3; ++c) {
        // Where the response falls: a second trace beside the first, for the drawing to mark.
        Trace falls{channel_inks[c], fmt::format("{} reverses", channel_names[c]), {}};
        double first = std::numeric_limits<double>::quiet_NaN();
        for (const scopes::Span& span : response.reversals[c]) {
            if (std::isnan(first))
                first = static_cast<double>(response.points[span.first].in);
            for (std::size_t i = span.first; i <= span.last; ++i)
                falls.points.push_back(
                    {static_cast<float>(shown(static_cast<double>(response.points[i].in), set)),
                     static_cast<float>(shown(static_cast<double>(response.points[i].out[c]), set))});
            falls.points.push_back({std::numeric_limits<float>::quiet_NaN(), std::numeric_limits<float>::quiet_NaN()});
        }
        if (!falls.points.empty()) {
            measured.layers.push_back({0, std::move(falls)});
            measured.figures.push_back({"reverses from", std::string(channel_names[c]), first, ""});
        }
    }
    // Slopes at middle grey: change out over change in, by the samples on either side.
    const image::Picture pair = image::generated(2, 1, [](int x, int) {
        const double in = middle_grey * (1 + (x == 0 ? -0.01 : 0.01));
        return std::array<double, 3>{in, in, in};
    });
    if (const auto out = order.rule(pair)) {
        const double across = static_cast<double>(pair.at(1)[0]) - static_cast<double>(pair.at(0)[0]);
        for (std::size_t c = 0; c < 3; ++c)
            measured.figures.push_back(
                {"slope at 0.18", std::string(channel_names[c]),
                 (static_cast<double>(out->at(1)[c]) - static_cast<double>(out->at(0)[c])) / across, ""});
    } else {
        return std::nullopt;
    }
    return measured;
}

} // namespace

extern const Reading response;
const Reading response = {
    "response",
    "Response",
    "What comes out (up) for greys that go in (across), channel by channel; where it falls while the grey rises is "
    "marked.",
    "middle grey 0.18: common practice, no source",
    About::rule,
    settings,
    panels_of,
    nullptr,
    measured_on,
};

} // namespace kasuri::readings
