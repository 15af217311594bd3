#include "model/lens.hpp"

#include "base/text.hpp"
#include "colour/model.hpp"
#include "colour/space.hpp"
#include "colour/vision.hpp"
#include "document/look_file.hpp"
#include "model/display.hpp"

#include <QtGlobal>

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <mutex>
#include <vector>

namespace kasuri::app {
namespace {

constexpr float past = 1e-5f; ///< beyond what rounding can do to a colour on the edge
constexpr int ring_steps = 360;
constexpr std::string_view peek_prefix = "peek|";
constexpr std::string_view step_prefix = "step|";

Light grey(float value) { return {value, value, value}; }

bool chequer(int x, int y) { return ((x / 3 + y / 3) & 1) != 0; }
bool rising(int x, int y) { return (x + y) % 6 < 3; }
bool falling(int x, int y) { return (x - y + 6'000'000) % 6 < 3; }

Light over_surround(const LensPixel& p, const Light& light) {
    const float a = std::clamp(p.screen[3], 0.0f, 1.0f);
    const float behind = p.surround * (1 - a);
    return {light[0] * a + behind, light[1] * a + behind, light[2] * a + behind};
}

/// Stripes tell the ways to be outside apart without colour: rising and light where a channel is too bright, falling
/// and dark where one is below 0, a chequer where there is no number. What the screen can show is a dim grey.
Light range_marks(const LensPixel& p) {
    const auto& s = p.screen;
    const float y = static_cast<float>(colour::luminance({p.light[0], p.light[1], p.light[2]}));
    const float base = 0.06f + 0.22f * std::clamp(y, 0.0f, 1.0f);
    if (!std::isfinite(s[0]) || !std::isfinite(s[1]) || !std::isfinite(s[2]))
        return grey(chequer(p.x, p.y) ? 1.0f : 0.0f);
    const bool above = std::max({s[0], s[1], s[2]}) > 1 + past, below = std::min({s[0], s[1], s[2]}) < -past;
    if ((above || p.beyond > outside_print) && rising(p.x, p.y))
        return grey(0.9f);
    if (below && falling(p.x, p.y))
        return grey(0.0f);
    return grey(base);
}

/// The picture, and where it is transparent a lattice of lines that lets it through: alpha is seen with the picture.
Light veil(const LensPixel& p) {
    const float a = std::clamp(p.screen[3], 0.0f, 1.0f);
    const Light tint = (p.x / 4 + p.y / 4) % 2 == 0 ? Light{0.05f, 0.08f, 0.24f} : Light{0.10f, 0.14f, 0.36f};
    const float share = 0.75f * (1 - a);
    return {p.screen[0] * (1 - share) + tint[0] * share, p.screen[1] * (1 - share) + tint[1] * share,
            p.screen[2] * (1 - share) + tint[2] * share};
}

/// As others see it. The matrices are of a display's light; the screen's is taken for it.
Light seen(const LensPixel& p, const colour::Matrix3& matrix) {
    using colour::operator*;
    const colour::Triple made = matrix * colour::Triple{p.screen[0], p.screen[1], p.screen[2]};
    return over_surround(p, {static_cast<float>(made[0]), static_cast<float>(made[1]), static_cast<float>(made[2])});
}

/// The kinds of vision that one of three cones is missing from, at their full severity.
template <std::size_t kind>
Light seen(const LensPixel& p) {
    return seen(p, colour::deficiencies()[kind].by_severity.back());
}

/// As those see it who have luminance alone.
Light seen_grey(const LensPixel& p) {
    const auto y = static_cast<float>(colour::luminance(
        {static_cast<double>(p.screen[0]), static_cast<double>(p.screen[1]), static_cast<double>(p.screen[2])}));
    return over_surround(p, {y, y, y});
}

/// What is turned over: light rising stripes; what has lost a dimension: dark level lines. The rest is a dim grey, the
/// brighter the more room the channels leave each other.
Light fold_marks(double volume, int x, int y) {
    constexpr double lost = 1e-3;
    const auto base = static_cast<float>(0.06 + 0.22 * std::clamp(std::fabs(volume), 0.0, 1.0));
    if (std::isnan(volume))
        return grey(chequer(x, y) ? 1.0f : 0.0f);
    if (std::fabs(volume) < lost)
        return grey(y % 4 < 2 ? 0.0f : 0.12f);
    return grey(volume < 0 && rising(x, y) ? 0.8f : base);
}

Lens of_slopes(std::string_view measure, std::string id, std::string title, std::string doc) {
    Lens lens;
    lens.measure = insight::find_measure(measure);
    lens.id = std::move(id);
    lens.title = std::move(title);
    lens.doc = std::move(doc);
    lens.low = lens.measure->low;
    lens.high = lens.measure->high;
    return lens;
}

std::string of_model(const colour::Model& model, const colour::Component& component) {
    return std::string(model.name) + "(rgb)." + std::string(component.name);
}

/// A stored number on its own is shown as what it is in its own encoding.
std::vector<Lens> table() {
    std::vector<Lens> rows = {
        {"colour",
         QT_TRANSLATE_NOOP("Tables", "colour"),
         QT_TRANSLATE_NOOP("Tables", "The picture, laid over the surround where it is transparent."),
         {},
         [](const LensPixel& p) {
             return over_surround(p, {p.screen[0], p.screen[1], p.screen[2]});
         }},
        {"red",
         QT_TRANSLATE_NOOP("Tables", "red channel"),
         QT_TRANSLATE_NOOP("Tables", "Red alone, as a neutral grey."),
         {},
         [](const LensPixel& p) { return grey(p.light[0]); }},
        {"green",
         QT_TRANSLATE_NOOP("Tables", "green channel"),
         QT_TRANSLATE_NOOP("Tables", "Green alone, as a neutral grey."),
         {},
         [](const LensPixel& p) { return grey(p.light[1]); }},
        {"blue",
         QT_TRANSLATE_NOOP("Tables", "blue channel"),
         QT_TRANSLATE_NOOP("Tables", "Blue alone, as a neutral grey."),
         {},
         [](const LensPixel& p) { return grey(p.light[2]); }},
        {"alpha",
         QT_TRANSLATE_NOOP("Tables", "alpha"),
         QT_TRANSLATE_NOOP("Tables", "Alpha: 0 black, 1 white, in even steps for the eye."),
         {},
         [](const LensPixel& p) { return grey(static_cast<float>(colour::srgb_decode(p.stored[3]))); }},
        {"veil",
         QT_TRANSLATE_NOOP("Tables", "alpha over the picture"),
         QT_TRANSLATE_NOOP("Tables", "The picture as it is stored, under an indigo lattice where alpha is below 1."),
         {},
         veil},
        {"luminance",
         QT_TRANSLATE_NOOP("Tables", "luminance"),
         QT_TRANSLATE_NOOP("Tables", "Luminance Y of linear light, as a neutral grey."),
         {},
         [](const LensPixel& p) {
             return grey(static_cast<float>(colour::luminance({p.light[0], p.light[1], p.light[2]})));
         }},
        {"range",
         QT_TRANSLATE_NOOP("Tables", "out of range"),
         QT_TRANSLATE_NOOP("Tables",
                           "What the screen cannot show: light rising stripes where a channel is above 1, dark falling "
                           "ones where it is below 0, a chequer for NaN and infinite."),
         {},
         range_marks},
        {"change",
         QT_TRANSLATE_NOOP("Tables", "change, times 4"),
         QT_TRANSLATE_NOOP("Tables",
                           "What the rule adds and takes away: mid grey where nothing changes, four times the change "
                           "in each channel."),
         {},
         nullptr,
         "rgb - other",
         -0.125,
         0.125,
         false,
         true},
        {"difference",
         QT_TRANSLATE_NOOP("Tables",
                           "difference \u0394"
                           "E2000"),
         QT_TRANSLATE_NOOP("Tables", "How far the rule moves each colour, by CIEDE2000."),
         {},
         nullptr,
         "delta_e_2000(lab(rgb), lab(other))",
         0,
         20,
         false,
         true},
        {"fine_difference",
         QT_TRANSLATE_NOOP("Tables",
                           "fine difference \u0394"
                           "E2000"),
         QT_TRANSLATE_NOOP("Tables",
                           "How far the rule moves each colour, by CIEDE2000: white is 2, which is just seen "
                           "where two colours lie side by side."),
         {},
         nullptr,
         "delta_e_2000(lab(rgb), lab(other))",
         0,
         2,
         false,
         true},
    };
    rows.push_back(of_slopes(
        "noise_gain", "noise_gain", QT_TRANSLATE_NOOP("Tables", "noise gain"),
        QT_TRANSLATE_NOOP(
            "Tables",
            "How much louder the rule makes noise, in the channel that gets most of it: 1 is as loud as before.")));
    Lens folds = of_slopes(
        "volume", "folds", QT_TRANSLATE_NOOP("Tables", "folds"),
        QT_TRANSLATE_NOOP("Tables",
                          "Where the rule turns the order of colours over (light rising stripes) and where it loses a "
                          "dimension of colour (dark level lines). A swap of two channels "
                          "turns all of them over; a fold is an edge between what is turned and what is not."));
    folds.mark = fold_marks;
    rows.push_back(std::move(folds));
    Lens mask{"step_mask", QT_TRANSLATE_NOOP("Tables", "step's mask"),
              QT_TRANSLATE_NOOP("Tables",
                                "Where the active step is laid over what comes into it: 0 black, 1 white. Everywhere, "
                                "if it has no mask.")};
    mask.step_mask = true;
    rows.push_back(std::move(mask));
    for (Lens& row : rows)
        if (row.measure || row.step_mask)
            row.group = QT_TRANSLATE_NOOP("Tables", "what the rule does");
    const auto eyes = [&](const char* id, const char* title, const char* doc, Light (*shown)(const LensPixel&)) {
        Lens lens;
        lens.id = id;
        lens.title = title;
        lens.doc = doc;
        lens.group = QT_TRANSLATE_NOOP("Tables", "other eyes");
        lens.shown = shown;
        rows.push_back(std::move(lens));
    };
    eyes("protan", QT_TRANSLATE_NOOP("Tables", "without long-wave cones"),
         QT_TRANSLATE_NOOP("Tables", "As protanopes see the screen (Machado, Oliveira and Fernandes 2009)."), seen<0>);
    eyes("deutan", QT_TRANSLATE_NOOP("Tables", "without middle-wave cones"),
         QT_TRANSLATE_NOOP("Tables", "As deuteranopes see the screen (Machado, Oliveira and Fernandes 2009)."),
         seen<1>);
    eyes("tritan", QT_TRANSLATE_NOOP("Tables", "without short-wave cones"),
         QT_TRANSLATE_NOOP("Tables", "As tritanopes see the screen (Machado, Oliveira and Fernandes 2009)."), seen<2>);
    eyes("achromat", QT_TRANSLATE_NOOP("Tables", "without cones that differ"),
         QT_TRANSLATE_NOOP("Tables", "As those see the screen who see no colour, only luminance."), seen_grey);
    for (const colour::Model* model : colour::models())
        for (const colour::Component& component : model->components) {
            Lens lens;
            lens.id = std::string(model->name) + "." + std::string(component.name);
            lens.title = std::string(model->name) + " " + std::string(component.name);
            lens.doc = std::string(component.meaning) + ". " + std::string(model->doc);
            lens.group = model->name;
            lens.expression = of_model(*model, component);
            lens.low = component.low;
            lens.high = component.high;
            lens.ring = component.cyclic;
            rows.push_back(std::move(lens));
        }
    return rows;
}

using Ring = std::array<Light, ring_steps>;

/// The hues of a model's ring: its other components stand in the upper middle of their ranges.
const Ring& ring_of(const Lens& lens) {
    static std::mutex mutex;
    static std::map<std::string, Ring> rings;
    const std::lock_guard lock(mutex);
    const auto [entry, fresh] = rings.try_emplace(lens.id);
    if (fresh) {
        const colour::Model& model = *colour::find_model(lens.group);
        for (int i = 0; i < ring_steps; ++i) {
            colour::Triple value;
            for (std::size_t c = 0; c < 3; ++c) {
                const colour::Component& component = model.components[c];
                value[c] = component.cyclic ? component.low + (component.high - component.low) * i / ring_steps
                                            : component.low + 0.62 * (component.high - component.low);
            }
            const colour::Triple made = to_rgb(model, *colour::find_space(colour::default_space), value);
            for (std::size_t c = 0; c < 3; ++c)
                entry->second[static_cast<std::size_t>(i)][c] = static_cast<float>(std::clamp(made[c], 0.0, 1.0));
        }
    }
    return entry->second;
}

} // namespace

std::span<const Lens> lenses() {
    static const std::vector<Lens> rows = table();
    return rows;
}

std::string step_lens(int number) { return fmt::format("{}{}", step_prefix, number); }

std::string peek_lens(std::string_view expression, double low, double high) {
    return fmt::format("{}{}|{}|{}", peek_prefix, low, high, expression);
}

namespace {

/// What is behind a prefix of an id that begins with it.
std::optional<std::string_view> behind(std::string_view id, std::string_view prefix) {
    return id.starts_with(prefix) ? std::optional(id.substr(prefix.size())) : std::nullopt;
}

std::optional<Lens> made_peek(std::string_view rest) {
    const std::size_t first = rest.find('|'), second = first == rest.npos ? first : rest.find('|', first + 1);
    if (second == rest.npos)
        return std::nullopt;
    Lens lens;
    const auto low = parse_number(rest.substr(0, first)),
               high = parse_number(rest.substr(first + 1, second - first - 1));
    lens.peeks = rest.substr(second + 1);
    lens.title = lens.peeks;
    lens.doc = "The value of this expression of the rule.";
    lens.low = low.value_or(0);
    lens.high = high && *high > lens.low ? *high : lens.low + 1;
    return lens;
}

std::optional<Lens> made_step(std::string_view rest) {
    const auto number = parse_number(rest);
    if (!number || !(*number >= 1 && *number <= static_cast<double>(document::max_steps)))
        return std::nullopt;
    Lens lens = lenses().front();
    lens.after_step = static_cast<int>(*number);
    lens.title = fmt::format("after step {}", lens.after_step);
    lens.doc = "What comes out of this step of the look.";
    return lens;
}

/// The lens that an id of `peek_lens` or `step_lens` names; each is made once. Null for every other id.
const Lens* made_for(std::string_view id) {
    const auto peek = behind(id, peek_prefix), step = behind(id, step_prefix);
    if (!peek && !step)
        return nullptr;
    static std::mutex mutex;
    static std::map<std::string, Lens, std::less<>> made;
    const std::lock_guard lock(mutex);
    if (const auto found = made.find(id); found != made.end())
        return &found->second;
    std::optional<Lens> lens = peek ? made_peek(*peek) : made_step(*step);
    if (!lens)
        return nullptr;
    lens->id = id;
    return &made.emplace(id, std::move(*lens)).first->second;
}

} // namespace

const Lens& lens(std::string_view id) {
    if (const Lens* made = made_for(id))
        return *made;
    const auto all = lenses();
    const auto found = std::find_if(all.begin(), all.end(), [&](const Lens& l) { return l.id == id; });
    return found == all.end() ? all.front() : *found;
}

std::string caption(const Lens& lens) {
    if ((lens.expression.empty() && !lens.of_rule()) || lens.compares || lens.mark)
        return lens.title;
    return lens.title + " " + number_text(lens.low, 4) + " .. " + number_text(lens.high, 4);
}

Light light_for(const Lens& lens, double value, int x, int y) {
    if (lens.mark)
        return lens.mark(value, x, y);
    if (std::isnan(value))
        return grey(chequer(x, y) ? 1.0f : 0.0f);
    const double share = (value - lens.low) / (lens.high - lens.low);
    if (lens.ring)
        return ring_of(
            lens)[static_cast<std::size_t>(std::min<double>(ring_steps - 1, (share - std::floor(share)) * ring_steps))];
    constexpr double room = 1e-4;
    if (share > 1 + room && !lens.compares && rising(x, y))
        return grey(0.25f);
    if (share < -room && !lens.compares && falling(x, y))
        return grey(0.25f);
    return grey(static_cast<float>(colour::srgb_decode(std::clamp(share, 0.0, 1.0))));
}

} // namespace kasuri::app
