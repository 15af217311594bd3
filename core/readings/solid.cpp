// What becomes of the cube of colours, as a body in the room of a colour model; and the colours of pictures in it.
#include "colour/space.hpp"
#include "readings/common.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace kasuri::readings {
namespace {

using Point = Solid::Point;

/// A room of three axes, the last one upwards.
struct Room {
    std::string_view title;
    std::array<std::string_view, 3> axes;
    std::string_view expression; ///< its three coordinates
    std::array<double, 3> low, high;
    bool own_numbers = false; ///< r, g, b of the rule's working space; else of linear BT.709, which the models adapt
};
constexpr Room rooms[] = {
    {"L*a*b*", {"a*", "b*", "L*"}, "vec3(lab(rgb).a, lab(rgb).b, lab(rgb).l)", {-120, -120, 0}, {120, 120, 120}},
    {"OKLab", {"a", "b", "L"}, "vec3(oklab(rgb).a, oklab(rgb).b, oklab(rgb).l)", {-0.4, -0.4, 0}, {0.4, 0.4, 1.1}},
    {"xyY", {"x", "y", "Y"}, "vec3(xyy(rgb).x, xyy(rgb).y, xyy(rgb).lum)", {0, 0, 0}, {0.8, 0.9, 1.1}},
    {"ICtCp",
     {"Ct", "Cp", "I"},
     "vec3(ictcp(rgb).ct, ictcp(rgb).cp, ictcp(rgb).i)",
     {-0.35, -0.35, 0},
     {0.35, 0.35, 0.7}},
    {"r g b", {"r", "g", "b"}, "rgb", {-0.1, -0.1, -0.1}, {1.1, 1.1, 1.1}, true},
};
constexpr std::string_view room_names[] = {rooms[0].title, rooms[1].title, rooms[2].title, rooms[3].title,
                                           rooms[4].title};

constexpr std::string_view shells[] = {"rec709-linear", "p3-d65-linear", "rec2020-linear", "acescg"};
constexpr std::string_view shell_labels[] = {"709", "P3", "2020", "AP1"};
constexpr std::string_view shell_names[] = {"none", "709", "and P3", "and 2020", "and AP1"};
constexpr std::string_view rule_names[] = {"none", "of the rule"};
constexpr std::string_view own_names[] = {"none", "of the rule", "of the pictures"};
constexpr std::string_view print_names[] = {"none", "of all presses"};
constexpr std::string_view cut_names[] = {"whole", "at a height", "at a hue"};

constexpr Setting of_room{"model", "in which room", 0, 0, 4, true, room_names};
constexpr Setting of_shells{"shells", "edges of spaces", 1, 0, 4, true, shell_names};
constexpr Setting of_prints{"prints",   "edges of what presses can hold, whose profiles are in use", 0, 0, 1, true,
                            print_names};
const Setting settings[] = {
    of_room,
    of_shells,
    {"steps", "points along an edge of the cube", 17, 2, 33, true},
    {"top", "largest number of a channel", 1, 0.01, 16},
    {"cut", "what is taken away", 0, 0, 2, true, cut_names},
    {"height", "where it is cut, as a share of the upward axis", 0.5, 0, 1},
    {"hue", "along which hue it is cut, in degrees", 0, 0, 360},
    {"own", "edges of the working space, which may be of a colour config", 0, 0, 1, true, rule_names},
    of_prints,
};
const Setting cloud_settings[] = {
    of_room,
    of_shells,
    {"points", "of the pictures, about", 20000, 100, 200000, true},
    {"own", "edges of these spaces, which may be of a colour config", 0, 0, 2, true, own_names},
    of_prints};

const Room& room_of(Values set) { return rooms[static_cast<std::size_t>(set[0])]; }

std::vector<Panel> panels_of(Values set) {
    const Room& room = room_of(set);
    Panel panel;
    panel.square = true;
    const auto axis = [&](std::size_t i) {
        return Axis{std::string(room.axes[i]), room.low[i], room.high[i], even_ticks(room.low[i], room.high[i], 4)};
    };
    panel.x = axis(0);
    panel.y = axis(1);
    panel.z = axis(2);
    return {panel};
}

/// Three numbers for each pixel.
std::optional<std::vector<Point>> seen(const Order& order, const image::Picture& picture, std::string_view working,
                                       std::string_view expression) {
    const auto planes = order.views->look(picture, working, expression, order.cancel);
    if (!planes)
        return std::nullopt;
    std::vector<Point> made(picture.pixels());
    for (std::size_t i = 0; i < made.size(); ++i)
        made[i] = {(*(*planes)[0])[i], (*(*planes)[1])[i], (*(*planes)[2])[i]};
    return made;
}

/// Where they lie in the room.
std::optional<std::vector<Point>> placed(const Order& order, const image::Picture& picture) {
    const Room& room = room_of(order.settings);
    return seen(order, picture, room.own_numbers ? order.working : "rec709-linear", room.expression);
}

/// A space whose edges are shown.
struct Shell {
    std::string space, label;
};
std::vector<Shell> shells_of(const Order& order) {
    std::vector<Shell> all;
    for (std::size_t k = 0; k < static_cast<std::size_t>(order.settings[1]); ++k)
        all.push_back({std::string(shells[k]), std::string(shell_labels[k])});
    const auto add = [&](const std::string& space) {
        if (!space.empty() && std::none_of(all.begin(), all.end(), [&](const Shell& s) { return s.space == space; }))
            all.push_back({space, space});
    };
    if (const double own = order.settings[order.settings.size() - 2]; own == 1)
        add(std::string(order.working));
    else if (own == 2)
        for (const image::Picture* picture : order.pictures)
            add(picture->space);
    return all;
}

/// Edges of the spaces, and what share of the picture lies outside of each. False if called off.
bool add_shells(const Order& order, const image::Picture& picture, Measured& to) {
    constexpr int steps = 12;
    for (const Shell& shell : shells_of(order)) {
        Wires wires{shell.label, {}};
        image::Picture edges = image::generated(steps + 1, 12, [](int x, int edge) {
            // Edge by edge: along one channel, with the two others at their ends.
            std::array<double, 3> at{};
            const auto along = static_cast<std::size_t>(edge / 4);
            at[along] = static_cast<double>(x) / steps;
            at[(along + 1) % 3] = edge % 2;
            at[(along + 2) % 3] = edge / 2 % 2;
            return at;
        });
        edges.space = shell.space;
        const auto at = placed(order, edges);
        const auto inside = seen(order, picture, shell.space, "rgb");
        if (!at || !inside)
            return false;
        for (std::size_t edge = 0; edge < 12; ++edge) {
            const auto from = at->begin() + static_cast<std::ptrdiff_t>(edge * (steps + 1));
            wires.lines.emplace_back(from, from + steps + 1);
        }
        to.layers.push_back({0, std::move(wires)});
        constexpr float slack = 1e-5f;
        const auto out = std::count_if(inside->begin(), inside->end(), [](const Point& c) {
            return !std::all_of(c.begin(), c.end(), [](float v) { return v >= -slack && v <= 1 + slack; });
        });
        to.figures.push_back({"outside " + shell.label, "",
                              100.0 * static_cast<double>(out) / static_cast<double>(picture.pixels()), "%"});
    }
    return true;
}

/// The same of the presses in use, outside by the difference between a colour and what is printed for it.
bool add_prints(const Order& order, const image::Picture& picture, Measured& to) {
    if (order.settings.back() == 0)
        return true;
    for (const std::string& name : colour::added_prints()) {
        const colour::Space& press = *colour::find_space(name);
        if (press.edges.empty())
            continue;
        const std::string label = name.substr(0, name.rfind(" printed")); // the press, without the way of seeing it
        Wires wires{label, {}};
        const int steps = static_cast<int>(press.edges.front().size());
        image::Picture edges =
            image::generated(steps, static_cast<int>(press.edges.size()), [&](int x, int edge) -> colour::Triple {
                return press.edges[static_cast<std::size_t>(edge)][static_cast<std::size_t>(x)];
            });
        edges.space = "rec709-linear";
        const auto at = placed(order, edges);
        auto light = seen(order, picture, "rec709-linear", "rgb");
        if (!at || !light)
            return false;
        for (auto from = at->begin(); from != at->end(); from += steps)
            wires.lines.emplace_back(from, from + steps);
        to.layers.push_back({0, std::move(wires)});
        std::size_t out = 0;
        for (Point& c : *light) {
            float* const one[3] = {&c[0], &c[1], &c[2]};
            press.beyond->apply(one, 1);
            out += static_cast<double>(c[0]) <= colour::outside_print ? 0 : 1; // NaN too
            if (order.cancel.cancelled())
                return false;
        }
        to.figures.push_back(
            {"outside " + label, "", 100.0 * static_cast<double>(out) / static_cast<double>(picture.pixels()), "%"});
    }
    return true;
}

/// The lattice of a cube: r goes fastest.
struct Lattice {
    std::size_t n;
    std::size_t operator()(std::size_t r, std::size_t g, std::size_t b) const { return (b * n + g) * n + r; }
    std::size_t step(std::size_t axis) const { return axis == 0 ? 1 : axis == 1 ? n : n * n; }
};

std::vector<std::array<std::uint32_t, 4>> surface(const Lattice& at) {
    std::vector<std::array<std::uint32_t, 4>> faces;
    for (std::size_t axis = 0; axis < 3; ++axis) {
        const std::size_t u = at.step((axis + 1) % 3), v = at.step((axis + 2) % 3);
        for (const std::size_t side : {std::size_t{0}, at.n - 1})
            for (std::size_t i = 0; i + 1 < at.n; ++i)
                for (std::size_t j = 0; j + 1 < at.n; ++j) {
                    const auto first = static_cast<std::uint32_t>(side * at.step(axis) + i * u + j * v);
                    faces.push_back({first, first + static_cast<std::uint32_t>(u),
                                     first + static_cast<std::uint32_t>(u + v), first + static_cast<std::uint32_t>(v)});
                }
    }
    return faces;
}

double minus(const Point& a, const Point& b, std::size_t i) {
    return static_cast<double>(a[i]) - static_cast<double>(b[i]);
}

/// The volume of a cell by its edges at one corner, in cells that nothing was done to.
double volume(const std::vector<Point>& numbers, const Lattice& at, std::size_t corner, double size) {
    double m[3][3];
    for (std::size_t axis = 0; axis < 3; ++axis)
        for (std::size_t i = 0; i < 3; ++i)
            m[axis][i] = minus(numbers[corner + at.step(axis)], numbers[corner], i) / size;
    return m[0][0] * (m[1][1] * m[2][2] - m[1][2] * m[2][1]) - m[0][1] * (m[1][0] * m[2][2] - m[1][2] * m[2][0]) +
        m[0][2] * (m[1][0] * m[2][1] - m[1][1] * m[2][0]);
}

/// Adds a point between two others.
std::uint32_t add_between(Solid& solid, std::size_t a, std::size_t b, float share) {
    const auto between = [&](std::vector<Point>& all) {
        Point made{};
        for (std::size_t i = 0; i < 3; ++i)
            made[i] = all[a][i] + share * (all[b][i] - all[a][i]);
        all.push_back(made);
    };
    between(solid.points);
    between(solid.from);
    between(solid.colours);
    return static_cast<std::uint32_t>(solid.points.size() - 1);
}

/// Cells that are turned over against most of the others, and cells without a volume: `numbers` is what came out.
void add_folds(Solid& solid, const std::vector<Point>& numbers, const Lattice& at, double size, Measured& to) {
    constexpr double flat = 1e-6;
    std::vector<std::pair<std::size_t, double>> cells;
    std::ptrdiff_t over = 0;
    for (std::size_t b = 0; b + 1 < at.n; ++b)
        for (std::size_t g = 0; g + 1 < at.n; ++g)
            for (std::size_t r = 0; r + 1 < at.n; ++r) {
                const double v = volume(numbers, at, at(r, g, b), size);
                cells.emplace_back(at(r, g, b), v);
                over += v > flat ? 1 : v < -flat ? -1 : 0;
            }
    for (const auto& [corner, v] : cells) {
        const bool no_volume = !(std::fabs(v) > flat), turned = !no_volume && (v > 0) != (over >= 0);
        if (!no_volume && !turned)
            continue;
        const std::size_t opposite = corner + at.step(0) + at.step(1) + at.step(2);
        (no_volume ? solid.collapsed : solid.folded).push_back(add_between(solid, corner, opposite, 0.5f));
    }
    const auto share = [&](std::size_t count) {
        return 100 * static_cast<double>(count) / static_cast<double>(std::max<std::size_t>(1, cells.size()));
    };
    if (!solid.folded.empty())
        to.figures.push_back({"folded cells", "", share(solid.folded.size()), "%"});
    if (!solid.collapsed.empty())
        to.figures.push_back({"cells without volume", "", share(solid.collapsed.size()), "%"});
}

/// Takes away what lies above the cut, and marks where the lattice meets it.
void cut(Solid& solid, const Lattice& at, const Order& order) {
    const auto way = static_cast<int>(order.settings[4]);
    if (way == 0)
        return;
    const Room& room = room_of(order.settings);
    const double height = room.low[2] + order.settings[5] * (room.high[2] - room.low[2]),
                 angle = order.settings[6] * std::numbers::pi / 180;
    // In the middle of a plane that neutral colours lie in the middle of; a room of r, g, b has none.
    const double middle[2] = {(room.low[0] + room.high[0]) / 2, (room.low[1] + room.high[1]) / 2};
    const auto above = [&](const Point& p) {
        const double x = static_cast<double>(p[0]) - middle[0], y = static_cast<double>(p[1]) - middle[1];
        return way == 1 ? static_cast<double>(p[2]) - height : x * std::sin(angle) - y * std::cos(angle);
    };
    std::erase_if(solid.faces, [&](const auto& face) {
        double sum = 0;
        for (const std::uint32_t corner : face)
            sum += above(solid.points[corner]);
        return !(sum <= 0);
    });
    const std::size_t lattice = at.n * at.n * at.n;
    for (std::size_t axis = 0; axis < 3; ++axis)
        for (std::size_t i = 0; i < lattice; ++i) {
            if (i / at.step(axis) % at.n + 1 == at.n)
                continue;
            const double a = above(solid.points[i]), b = above(solid.points[i + at.step(axis)]);
            if ((a <= 0) != (b <= 0) && std::isfinite(a + b))
                solid.section.push_back(add_between(solid, i, i + at.step(axis), static_cast<float>(a / (a - b))));
        }
}

std::optional<Measured> measured_solid(const Order& order) {
    const Lattice at{static_cast<std::size_t>(order.settings[2])};
    const double top = order.settings[3];
    const auto n = static_cast<int>(at.n);
    image::Picture before = image::generated(n, n * n, [&](int x, int y) {
        return std::array<double, 3>{top * x / (n - 1), top * (y % n) / (n - 1), top * (y / n) / (n - 1)};
    });
    before.space = order.working;
    std::optional<image::Picture> after = order.rule(before);
    if (!after)
        return std::nullopt;
    after->space = order.working;
    auto points = placed(order, *after), colours = seen(order, *after, "rec709-linear", "rgb"),
         from = seen(order, before, order.working, "rgb");
    const auto numbers = seen(order, *after, order.working, "rgb");
    if (!points || !colours || !from || !numbers)
        return std::nullopt;
    Measured measured;
    Solid solid{"cube", std::move(*points), std::move(*from), std::move(*colours), surface(at), {}, {}, {}};
    add_folds(solid, *numbers, at, top / (n - 1), measured);
    cut(solid, at, order);
    measured.layers.push_back({0, std::move(solid)});
    if (!add_shells(order, *after, measured) || !add_prints(order, *after, measured))
        return std::nullopt;
    return measured;
}

/// Pixels of the pictures, spread so that no pattern of theirs is met: one at a golden place of each stretch.
std::optional<Measured> measured_cloud(const Order& order) {
    std::size_t all = 0;
    for (const image::Picture* picture : order.pictures)
        all += picture->pixels();
    const std::size_t wanted = static_cast<std::size_t>(order.settings[2]);
    const double step = std::max(1.0, static_cast<double>(all) / static_cast<double>(wanted));
    Solid solid{"pixels", {}, {}, {}, {}, {}, {}, {}};
    for (const image::Picture* picture : order.pictures) {
        const auto count = static_cast<int>(std::ceil(static_cast<double>(picture->pixels()) / step));
        const auto place = [&](std::size_t i) {
            const auto x = static_cast<double>(i);
            return std::min(picture->pixels() - 1,
                            static_cast<std::size_t>((x + std::fmod(x * (std::numbers::phi - 1), 1.0)) * step));
        };
        std::array<image::Samples, 3> taken;
        for (image::Samples& channel : taken)
            channel.resize(static_cast<std::size_t>(count));
        const Onlooker taker[] = {{{}, [&](const Band& band) {
                                       const std::size_t last = band.first + band.components[0].size();
                                       auto i = static_cast<std::size_t>(
                                           std::max(0.0, std::floor(static_cast<double>(band.first) / step) - 1));
                                       for (; i < taken[0].size(); ++i) {
                                           const std::size_t at = place(i);
                                           if (at >= last)
                                               break;
                                           for (std::size_t c = 0; c < 3 && at >= band.first; ++c)
                                               taken[c][i] = band.components[c][at - band.first];
                                       }
                                   }}};
        if (!through_bands(*picture, *order.views, taker, order.cancel))
            return std::nullopt;
        image::Picture few;
        few.width = count;
        few.height = 1;
        for (std::size_t c = 0; c < 3; ++c)
            few.planes[c] = image::make_plane(std::move(taken[c]));
        few.space = picture->space;
        const auto colours = seen(order, few, "rec709-linear", "rgb"),
                   from = seen(order, few, few.space.empty() ? order.working : std::string_view(few.space), "rgb");
        if (!colours || !from)
            return std::nullopt;
        solid.colours.insert(solid.colours.end(), colours->begin(), colours->end());
        solid.from.insert(solid.from.end(), from->begin(), from->end());
    }
    image::Picture together = image::generated(static_cast<int>(solid.colours.size()), 1, [&](int x, int) {
        const Point& c = solid.colours[static_cast<std::size_t>(x)];
        return std::array<double, 3>{static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])};
    });
    together.space = "rec709-linear";
    auto points = placed(order, together);
    Measured measured;
    if (!points || !add_shells(order, together, measured) || !add_prints(order, together, measured))
        return std::nullopt;
    solid.points = std::move(*points);
    measured.layers.insert(measured.layers.begin(), {0, std::move(solid)});
    return measured;
}

constexpr std::string_view source =
    "CIE 15:2018, white D65; OKLab: Ottosson 2020; ICtCp: ITU-R BT.2100-2; primaries: the publications of the spaces "
    "(docs/colour.md)";

} // namespace

extern const Reading solid, cloud;
const Reading solid = {
    "solid",
    "Colour solid",
    "What becomes of the cube of colours, in a room of a colour model: turned by dragging and arrow keys. Cells that "
    "are turned over are marked, and those that have lost their volume; edges of spaces are wires.",
    source,
    About::rule,
    settings,
    panels_of,
    nullptr,
    measured_solid,
};
const Reading cloud = {
    "cloud",
    "Colours in the room",
    "Where the colours of pictures lie in a room of a colour model, as points; edges of spaces are wires.",
    source,
    About::pictures,
    cloud_settings,
    panels_of,
    nullptr,
    measured_cloud,
};

} // namespace kasuri::readings
