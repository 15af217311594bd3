// Functions against sources outside the project, kept as tables in data/reference beside the scripts that made them.
#include "base/text.hpp"
#include "builtins/builtin.hpp"
#include "support/support.hpp"

#include <map>
#include <set>

using namespace kasuri;
using namespace kasuri::test;

namespace {

std::vector<std::vector<std::string>> table(const std::string& name) {
    std::ifstream in(std::string(KASURI_SOURCE_DIR) + "/data/reference/" + name);
    REQUIRE(in);
    std::string line;
    std::getline(in, line);
    CHECK(line.starts_with("#")); // the source stands in the first line
    std::vector<std::vector<std::string>> rows;
    while (std::getline(in, line)) {
        rows.emplace_back();
        for (const std::string_view part : split(line, ','))
            rows.back().emplace_back(part);
    }
    return rows;
}

std::string vector(const std::vector<std::string>& row, std::size_t first, std::size_t count) {
    std::string text = "vec" + std::to_string(count) + "(";
    for (std::size_t i = 0; i < count; ++i)
        text += (i > 0 ? ", " : "") + row[first + i];
    return text + ")";
}

} // namespace

TEST_CASE("curve: Fritsch & Carlson as R computes it", "[builtins][reference]") {
    // splinefun(method = "monoH.FC") of R 4.2; see tools/make_reference_curve.R for where the paper leaves a choice.
    std::map<std::string, std::vector<std::pair<double, double>>> by_knots;
    for (const auto& row : table("curve-monohfc.csv")) {
        const auto n = static_cast<std::size_t>(std::stoi(row[0]));
        std::string knots;
        for (std::size_t k = 0; k < n; ++k)
            knots += ", " + vector(row, 1 + 2 * k, 2);
        by_knots[knots].emplace_back(std::stod(row[1 + 2 * n]), std::stod(row[2 + 2 * n]));
    }
    CHECK(by_knots.size() == 7);
    for (const auto& [knots, values] : by_knots) {
        const lang::Rule rule = good_rule("out.r = curve(r" + knots + ")");
        for (const auto& [x, y] : values) {
            const Colour in = {static_cast<float>(x), 0, 0, 1};
            INFO("curve(" << x << knots << ")");
            engine::ReferencePixel pixel;
            pixel.rgba[0] = x;
            CHECK(engine::reference(rule, {}, pixel)[0] == Approx(y).margin(1e-12));
            CHECK(static_cast<double>(run(rule, {in})[0][0]) == Approx(y).margin(3e-6));
        }
    }
}

TEST_CASE("a curve through rising knots rises everywhere and does not overshoot", "[builtins]") {
    // Fritsch & Carlson (1980), theorem: the interpolant is monotone where the data are.
    std::mt19937 random(5);
    std::uniform_real_distribution<double> spread(0.01, 1);
    for (int round = 0; round < 60; ++round) {
        double x = 0, y = 0;
        std::string knots;
        const int count = 3 + round % 6;
        for (int k = 0; k < count; ++k) {
            knots += ", vec2(" + std::to_string(x) + ", " + std::to_string(y) + ")";
            x += spread(random);
            y += k % 3 == 2 ? 0 : spread(random) * spread(random) * 3;
        }
        const lang::Rule rule = good_rule("out.r = curve(r" + knots + ")");
        std::vector<Colour> ramp;
        for (int i = 0; i < 500; ++i)
            ramp.push_back({static_cast<float>(-0.5 + (x + 1) * i / 499), 0, 0, 1});
        const auto out = run(rule, ramp);
        for (std::size_t i = 1; i < out.size(); ++i)
            REQUIRE(out[i][0] >= out[i - 1][0] - 2e-6f);
    }
}

TEST_CASE("blend modes and compositing as pixman computes them", "[builtins][reference]") {
    // pixman 0.42 in floats; the definitions are those of W3C Compositing and Blending Level 1.
    std::set<std::string> seen;
    for (const auto& row : table("blend-pixman.csv")) {
        const std::string& name = row[0];
        seen.insert(name);
        const bool blend = name.starts_with("blend_");
        const std::string call = blend ? "out.rgb = " + name + "(" + vector(row, 1, 3) + ", " + vector(row, 5, 3) + ")"
                                       : "out = " + name + "(" + vector(row, 1, 4) + ", " + vector(row, 5, 4) + ")";
        const lang::Rule rule = good_rule(call);
        const Colour fast = run(rule, {{0, 0, 0, 1}})[0], exact = reference_one(rule, {0, 0, 0, 1});
        for (std::size_t c = 0; c < 4; ++c) {
            const double expected = std::stod(row[9 + c]);
            INFO(call << ", channel " << c);
            const float alpha = c < 3 ? exact[3] : 1; // the table is premultiplied
            CHECK(static_cast<double>(exact[c] * alpha) == Approx(expected).margin(2e-6));
            CHECK(static_cast<double>(fast[c] * alpha) == Approx(expected).margin(4e-6));
        }
    }
    CHECK(seen.size() == 28);
}

TEST_CASE("luminance, luma: ITU-R BT.709-6, item 3.2, and encoded working spaces are decoded first", "[builtins]") {
    // Light: the row of Y of the matrix to XYZ (SMPTE RP 177; the digits of CSS Color 4's sample code), as xyz( ).y has
    // it. The rounded factors of the standard are those of luma.
    CHECK(run_one("out.r = luminance(rgb)", {1, 0, 0, 1})[0] == Approx(0.21263900587151027).epsilon(1e-6));
    CHECK(run_one("out.r = luminance(rgb) - xyz(rgb).y", {0.7f, 0.2f, 0.4f, 1})[0] == 0);
    CHECK(run_one("out.r = luma(rgb)", {0, 0, 1, 1})[0] == Approx(0.0722));
    // sRGB 0.5 is 0.2140411 of linear light (IEC 61966-2-1).
    CHECK(run_one("working srgb\nout.r = luminance(vec3(0.5))", {0, 0, 0, 1})[0] == Approx(0.2140411).margin(2e-6));
    CHECK(run_one("working srgb\nout.r = luma(vec3(0.5))", {0, 0, 0, 1})[0] == Approx(0.5));
}

TEST_CASE("keep luminance keeps it, in linear and in encoded spaces, for every colour", "[builtins]") {
    for (const std::string space : {"rec709-linear", "srgb"}) {
        const lang::Rule rule =
            good_rule("working " + space +
                      "\nlet y = luminance(rgb)\nout.g = 0.3 * g + 0.7 * b\nout.r = 0.8 * r\nkeep luminance\n");
        const lang::Rule measure = good_rule("working " + space + "\nout.r = luminance(rgb)");
        std::mt19937 random(3);
        std::uniform_real_distribution<float> spread(-0.2f, 2);
        for (int i = 0; i < 500; ++i) {
            Colour in = {spread(random), spread(random), spread(random), 1};
            if (i == 0)
                in = {0, 0, 0, 1};
            const Colour out = run(rule, {in})[0];
            const float before = run(measure, {in})[0][0], after = run(measure, {out})[0][0];
            INFO(space << " " << in[0] << " " << in[1] << " " << in[2]);
            CHECK(after == Approx(before).epsilon(2e-4).margin(2e-4));
        }
    }
}

TEST_CASE("what does nothing at strength 0 does nothing, and the prelude is documented", "[builtins]") {
    for (const lang::FunctionPtr& function : builtins::vocabulary().prelude) {
        INFO(function->name);
        CHECK(function->doc.size() > 20);
        CHECK(function->text.starts_with("fn " + function->name));
    }
    for (const char* text :
         {"out.rgb = exposure(rgb, 0)", "out.rgb = subtractive_saturation(rgb, 0)", "out.rgb = density(rgb, 0)",
          "out.rgb = split_tone(rgb, luma(rgb), vec3(1, 0.8, 0.6), vec3(0.6, 0.8, 1), 0.5, 0)",
          "out.rgb = saturate(rgb, 1)", "out.rgb = contrast(rgb, 1, 0.5)", "out.rg = crosstalk(r, g, 0)",
          "out.rgb = laid_over(rgb, 1 - rgb, 1, 0)", "out.rgb = slope_offset_power(rgb, vec3(1), vec3(0), vec3(1))",
          "out.rgb = gamma(rgb, 1)"}) {
        const lang::Rule rule = good_rule(text);
        for (const Colour in : {Colour{0.25f, 0.5f, 0.75f, 1}, Colour{-0.5f, 2, 0, 1}, Colour{0, 0, 0, 1}}) {
            const Colour out = run(rule, {in})[0];
            for (std::size_t c = 0; c < 3; ++c) {
                INFO(text);
                CHECK(out[c] == Approx(in[c]).margin(1e-6));
            }
        }
    }
    // Common practice, no source: subtractive saturation darkens saturated colours and leaves the largest channel;
    // ordinary saturation keeps luminance.
    const Colour deep = run_one("out.rgb = subtractive_saturation(rgb, 0.5)", {0.8f, 0.4f, 0.4f, 1});
    CHECK(deep == Colour{0.8f, Approx(0.2f) == deep[1] ? deep[1] : -1, Approx(0.2f) == deep[2] ? deep[2] : -1, 1});
    const Colour grey = run_one("out.rgb = saturate(rgb, 0)", {0.8f, 0.4f, 0.2f, 1});
    CHECK(grey[0] == Approx(0.212639 * 0.8 + 0.715169 * 0.4 + 0.072192 * 0.2));
}
