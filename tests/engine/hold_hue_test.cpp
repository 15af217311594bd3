// `hold hue of COLOUR [in MODEL]`: the key colour keeps its hue, neutrals stay, reference and engine agree.
#include "colour/models/models.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

const std::string two_dyes =
    "param meet = 0.6 in 0 .. 1\nparam dye = vec3(0.72, 0.49, 0.40)\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, "
    "shared, meet)\nout.b = mix(b, shared, meet)\nout.r = 0.9 * r + 0.1 * g\n";
const Colour red = {0.72f, 0.49f, 0.40f, 1};

colour::Triple triple(const Colour& c) {
    return {static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])};
}

double hue_of(const colour::Model& model, const Colour& c, std::string_view working) {
    const colour::Triple made = from_rgb(model, *colour::find_space(working), triple(c));
    for (std::size_t i = 0; i < 3; ++i)
        if (model.components[i].cyclic)
            return made[i];
    return std::atan2(made[2], made[1]) * 180 / 3.14159265358979;
}

} // namespace

TEST_CASE("hold hue: the key colour keeps its hue and neutrals stay, in every model", "[engine][hold]") {
    std::vector<Colour> colours = {red};
    for (int i = -5; i <= 14; ++i) // ACEScct ends at 1.468
        colours.push_back(
            {0.1f * static_cast<float>(i), 0.1f * static_cast<float>(i), 0.1f * static_cast<float>(i), 1});
    for (const char* working : {"rec709-linear", "srgb", "acescct"})
        for (const colour::Model* model : colour::models()) {
            const std::string text =
                "working " + std::string(working) + "\n" + two_dyes + "hold hue of dye in " + std::string(model->name);
            const lang::Checked checked = lang::check(text, proof::vocabulary());
            if (model->name.starts_with("xy")) {
                CHECK_FALSE(checked.ok);
                continue;
            }
            INFO(working << " " << model->name);
            REQUIRE(checked.ok);
            for (const double meet : {0.0, 0.3, 1.0}) {
                const auto made = run(checked.rule, colours, {meet, 0.72, 0.49, 0.40});
                CHECK(std::fabs(std::remainder(hue_of(*model, made[0], working) - hue_of(*model, red, working), 360)) <
                      2e-3);
                for (std::size_t k = 1; k < colours.size(); ++k)
                    for (std::size_t c = 0; c < 3; ++c)
                        CHECK(made[k][c] == Approx(colours[k][c]).margin(3e-6));
            }
        }
}

TEST_CASE("hold hue without a model turns about the neutral axis", "[engine][hold]") {
    const lang::Rule rule = good_rule(two_dyes + "hold hue of dye");
    const Colour before = run(good_rule(two_dyes), {red}).front(), held = run(rule, {red}).front();
    // A turn keeps the sum and the distance from the axis, and with the angle the hexcone's hue, which depends on
    // nothing else.
    const auto sum = [](const Colour& c) { return c[0] + c[1] + c[2]; };
    CHECK(sum(held) == Approx(sum(before)).margin(1e-6));
    const auto size = [](const Colour& c) { return std::hypot(c[0] - c[1], c[1] - c[2], c[2] - c[0]); };
    CHECK(size(held) == Approx(size(before)).margin(1e-6));
    CHECK(colour::hsv_model.from(triple(held))[0] ==
          Approx(16.875).margin(2e-5)); // 60 (g - b) / (r - b) = 60 * 0.09 / 0.32
    CHECK(std::fabs(colour::hsv_model.from(triple(before))[0] - 16.875) > 2);
    // Greys come back to the bit if the rule leaves them.
    const lang::Rule plain =
        good_rule("param meet = 0.6 in 0 .. 1\nout.g = g + meet * (b - g)\nhold hue of (0.7, 0.4, 0.3)");
    CHECK(run(plain, {{0.3f, 0.3f, 0.3f, 1}}).front() == Colour{0.3f, 0.3f, 0.3f, 1});
}

TEST_CASE("hold hue: engine and reference agree on all colours, also twice and with other finishing",
          "[engine][hold]") {
    std::mt19937 random(11);
    std::uniform_real_distribution<float> spread(-0.2f, 1.5f);
    std::vector<Colour> colours;
    for (int i = 0; i < 100; ++i)
        colours.push_back({spread(random), spread(random), spread(random), 1});
    for (const std::string finish :
         {"hold hue of dye", "hold hue of (0.2, 0.6, 0.3) in oklch", "hold hue of dye in lab", "hold hue of dye in hsv",
          "keep luminance\nhold hue of dye", "hold hue of dye in ycbcr709\nkeep luminance\nhold hue of (0.3, 0.2, 0.8)",
          "hold hue of vec3(dye.r, dye.g, 0.1)"})
        for (const char* working : {"rec709-linear", "srgb"}) {
            const lang::Rule rule = good_rule("working " + std::string(working) + "\n" + two_dyes + finish);
            const auto fast = run(rule, colours);
            for (std::size_t k = 0; k < colours.size(); ++k) {
                const Colour exact = reference_one(rule, colours[k]);
                INFO(working << " " << finish << " of " << colours[k][0] << " " << colours[k][1] << " "
                             << colours[k][2]);
                for (std::size_t c = 0; c < 3; ++c)
                    CHECK(fast[k][c] == Approx(exact[c]).margin(5e-5)); // the steep foot of srgb
            }
        }
}

TEST_CASE("hold hue: nothing is turned where the rule makes the colour neutral", "[engine][hold]") {
    CHECK(run_one("out.rgb = vec3(0.25)\nhold hue of (0.7, 0.4, 0.3)", {0.1f, 0.2f, 0.3f, 1}) ==
          Colour{0.25f, 0.25f, 0.25f, 1});
    const Colour grey =
        run_one("let y = average(rgb)\nout.rgb = vec3(y)\nhold hue of (0.7, 0.4, 0.3) in oklch", {0.1f, 0.2f, 0.3f, 1});
    CHECK(grey[0] == Approx(0.2f).margin(1e-6));
    CHECK(grey[1] == Approx(0.2f).margin(1e-6));
}

TEST_CASE("a hue held in every line costs what its lines cost, not twice as much with each", "[engine][hold]") {
    std::string text;
    for (int i = 1; i <= 60; ++i)
        text += "out.g = mix(out.g, out.b, 0.0" + std::to_string(i) + ")\nhold hue of (0." +
            std::to_string(70 + i % 9) + ", 0.5, 0.4)" + (i % 3 == 0 ? " in oklab\n" : "\n");
    const lang::Rule rule = good_rule(text); // was K421 from the 14th on
    CHECK(rule.weight < 20'000);
    const std::vector<Colour> colours = {{0.77f, 0.5f, 0.4f, 1}, {0.2f, 0.6f, 0.9f, 1}, {0.3f, 0.3f, 0.3f, 1}};
    const auto made = run(rule, colours);
    for (std::size_t i = 0; i < colours.size(); ++i) {
        const auto exact = reference_one(rule, colours[i]);
        for (std::size_t c = 0; c < 3; ++c)
            CHECK(static_cast<double>(made[i][c]) == Approx(static_cast<double>(exact[c])).margin(2e-5));
    }
    // The last line, the 60th, has the last word: its colour (0.76, 0.5, 0.4) keeps its hue in OKLab.
    const auto angle = [](const Colour& c) {
        const colour::Triple lab =
            from_rgb(*colour::find_model("oklab"), *colour::find_space("rec709-linear"), triple(c));
        return std::atan2(lab[2], lab[1]);
    };
    const Colour key = {0.76f, 0.5f, 0.4f, 1};
    CHECK(angle(run(rule, {key}).front()) == Approx(angle(key)).margin(1e-4));
}
