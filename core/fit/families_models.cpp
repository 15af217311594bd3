#include "fit/families.hpp"

#include <fmt/format.h>

namespace kasuri::fit {
namespace {

constexpr char own[] = "common practice, no source";
constexpr int centres[] = {0, 60, 120, 180, 240, 300};

/// A colour of which nothing has changed comes back as it was, by another way (colour/model.hpp), whose slopes are 0: a
/// search must not start there.
constexpr double nearly_one = 0.98, nearly_none = 1;

/// The components of a polar model: hue, colourfulness, lightness.
struct Polar {
    const char *model, *colourful, *light;
};
constexpr Polar polar[] = {{"hsv", "s", "v"}, {"oklch", "c", "l"}};

const Polar& polar_of(const Family& family) { return family.model == polar[0].model ? polar[0] : polar[1]; }

std::string opened(const Polar& p) { return fmt::format("let c = {}(rgb)\n", p.model); }

Form turn(const Family& family, const Range&) {
    return {opened(polar_of(family)) + "c.h += $turn\nout.rgb = rgb(c)\n",
            {{"turn", nearly_none, -60, 60, true, "Degrees that every hue is turned by"}},
            {{90}, {-90}, {180}}};
}

Form colourfulness(const Family& family, const Range&) {
    const Polar& p = polar_of(family);
    return {fmt::format("{}c.{} *= $amount\nout.rgb = rgb(c)\n", opened(p), p.colourful),
            {{"amount", nearly_one, 0.3, 1.5, true, "0 is grey, 1 changes nothing"}},
            {{0.5}, {1.3}}};
}

Form all_three(const Family& family, const Range&) {
    const Polar& p = polar_of(family);
    return {fmt::format("{}c.h += $turn\nc.{} *= $colourful\nc.{} *= $light\nout.rgb = rgb(c)\n", opened(p),
                        p.colourful, p.light),
            {{"turn", nearly_none, -60, 60, true, "Degrees that every hue is turned by"},
             {"colourful", nearly_one, 0.4, 1.4, true, "0 is grey, 1 changes nothing"},
             {"light", nearly_one, 0.7, 1.2, true, "Scales lightness"}},
            {{90, 1, 1}, {-90, 1, 1}, {180, 1, 1}}};
}

/// A number for each of six hues, between which it goes over smoothly.
std::string by_hue(Form& form, const char* prefix, double start, double low, double high) {
    std::string made = "(";
    for (const int centre : centres) {
        const std::string name = fmt::format("{}_{}", prefix, centre);
        form.values.push_back({name, start, low, high, false, {}});
        made += fmt::format("{}${} * band(hue, {}, 60, 60)", made.size() > 1 ? " +\n    " : "", name, centre);
    }
    return made + ")";
}

void add_colourfulness(Form& form, const Polar& p) {
    form.text += fmt::format("c.{} *= {}\n", p.colourful, by_hue(form, "colourful", nearly_one, 0.4, 1.4));
}
void add_lightness(Form& form, const Polar& p) {
    form.text += fmt::format("c.{} *= {}\n", p.light, by_hue(form, "light", nearly_one, 0.8, 1.15));
}
void add_turn(Form& form, const Polar&) { form.text += "c.h += " + by_hue(form, "turn", nearly_none, -20, 20) + "\n"; }

template <void (*... add)(Form&, const Polar&)>
Form banded(const Family& family, const Range&) {
    const Polar& p = polar_of(family);
    Form form{opened(p) + "let hue = c.h\n", {}};
    (add(form, p), ...);
    form.text += "out.rgb = rgb(c)\n";
    return form;
}

} // namespace

void add_models(std::vector<Family>& table) {
    using Make = Form (*)(const Family&, const Range&);
    struct Row {
        const char *name, *title, *doc;
        Make make;
    };
    constexpr Row rows[] = {
        {"hue-turn", "hue turned, in {}", "Every hue by the same angle.", turn},
        {"colourfulness", "colourfulness, in {}", "All colours more or less colourful.", colourfulness},
        {"hue-colourfulness-lightness", "hue, colourfulness and lightness, in {}", "One number for each.", all_three},
        {"colourfulness-by-hue", "colourfulness by hue, in {}", "A number for each of six hues.",
         banded<add_colourfulness>},
        {"lightness-by-hue", "lightness by hue, in {}", "A number for each of six hues.", banded<add_lightness>},
        {"hue-by-hue", "hue by hue, in {}", "An angle for each of six hues.", banded<add_turn>},
        {"all-by-hue", "hue, colourfulness and lightness by hue, in {}", "Three numbers for each of six hues.",
         banded<add_turn, add_colourfulness, add_lightness>},
    };
    for (const Row& row : rows)
        for (const Polar& p : polar)
            table.push_back({fmt::format("{}-{}", row.name, p.model), fmt::format(fmt::runtime(row.title), p.model),
                             row.doc, own, row.make, Family::Spaces::as_they_are, p.model});
}

} // namespace kasuri::fit
