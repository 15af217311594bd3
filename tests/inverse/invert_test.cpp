#include "inverse/invert.hpp"

#include "engine/reference.hpp"
#include "insight/derivative.hpp"
#include "proof/proof.hpp"
#include "support/random_rule.hpp"
#include "support/support.hpp"
#include "support/undoable_rule.hpp"

#include <catch2/catch.hpp>
#include <Eigen/Dense>

using namespace kasuri;
using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

struct Made {
    lang::Rule rule;
    inverse::Back back;
};

Made inverted(const std::string& text, const std::string& file = "it.kasuri") {
    lang::Checked checked = lang::check(text, proof::vocabulary());
    INFO(text);
    REQUIRE(checked.ok);
    inverse::Options options;
    options.file = file;
    auto back = inverse::invert(checked.rule, text, defaults(checked.rule), options);
    if (!back)
        FAIL(back.error().text());
    return {std::move(checked.rule), std::move(back.value())};
}

lang::Rule checked_back(const Made& made, const std::string& text) {
    lang::CheckOptions with;
    with.open = [&](const std::string&) -> Result<std::string> { return text; };
    lang::Checked checked = lang::check(made.back.text, proof::vocabulary(), with);
    INFO(made.back.text);
    REQUIRE(checked.ok);
    return std::move(checked.rule);
}

/// By the double-precision reference, which shares no code with what measured it: there and back.
double there_and_back(const lang::Rule& forward, const lang::Rule& back, const std::array<double, 3>& colour) {
    const auto made = engine::reference(forward, defaults(forward), {{colour[0], colour[1], colour[2], 1}});
    const auto again = engine::reference(back, defaults(back), {made});
    double most = 0;
    for (std::size_t c = 0; c < 3; ++c)
        most = std::max(most, std::fabs(again[c] - colour[c]));
    return std::isnan(most) ? 1 : most;
}

/// Whether a rule can be undone, judged without the way back: its slopes are finite, never turn over, and no direction
/// is thirty times as weak as another.
bool can_be_undone(const lang::Rule& rule) {
    const subject::Subject subject(rule, defaults(rule));
    std::vector<std::array<float, 3>> colours;
    for (int i = 0; i < 512; ++i)
        colours.push_back(
            {static_cast<float>(i % 8) / 7, static_cast<float>(i / 8 % 8) / 7, static_cast<float>(i / 64) / 7});
    std::optional<bool> over;
    for (const auto& j : insight::jacobians(*insight::derivative(subject), subject.values(), colours)) {
        Eigen::Matrix3d m;
        for (int r = 0; r < 3; ++r)
            for (int c = 0; c < 3; ++c)
                m(r, c) = j[static_cast<std::size_t>(r)][static_cast<std::size_t>(c)];
        if (!m.allFinite())
            continue; // neutrals in models of hue
        const Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> own(m.transpose() * m);
        if (!(own.eigenvalues()(0) * 900 > own.eigenvalues()(2)) || own.eigenvalues()(0) < 1e-3)
            return false;
        if (over && *over != (m.determinant() < 0))
            return false;
        over = m.determinant() < 0;
    }
    return true;
}

} // namespace

TEST_CASE("statements are taken back as people would write it", "[inverse]") {
    CHECK_THAT(inverted("out.rgb = mat3(1, 0, 0, 0.25, 0.5, 0.25, 0, 0, 1) * rgb").back.text,
               Contains("out.rgb = inverse(mat3(1, 0, 0, 0.25, 0.5, 0.25, 0, 0, 1)) * rgb"));
    CHECK_THAT(inverted("out.rgb = rgb.gbr").back.text, Contains("out.rgb = rgba.brg"));
    CHECK_THAT(inverted("let c = hsv(rgb)\nc.h += 30\nc.s *= 0.5\nout.rgb = rgb(c)").back.text,
               Contains("let c = hsv(rgb)\nc.h -= 30\nc.s /= 0.5\nout.rgb = rgb(c)"));
    CHECK_THAT(inverted("param stops = 1 in -2 .. 2\nout.rgb = exposure(rgb, stops)").back.text,
               Contains("out.rgb = exposure(rgb, -stops)"));
    CHECK_THAT(inverted("out.rgb = curve(rgb, vec2(0, 0), vec2(0.5, 0.4), vec2(1, 1))").back.text,
               Contains("curve_back(rgb, vec2(0, 0), vec2(0.5, 0.4), vec2(1, 1))"));
    CHECK_THAT(inverted("param lay = 0.5 in 0 .. 1\nlet wash = blend_multiply(rgb, vec3(0.5, 0.8, 1))\nout.rgb = "
                        "mix(rgb, wash, lay)")
                   .back.text,
               Contains("undoes \"it.kasuri\" < 0.00001"));
    CHECK_THAT(inverted("let mask = disc(pos, vec2(0.5), 0.3, 0.1)\nout.rgb = rgb * (1 + mask)").back.text,
               Contains("let mask = disc(pos, vec2(0.5, 0.5), 0.3, 0.1)\nout.rgb = rgb / (1 + mask)"));
    CHECK_THAT(inverted("out.a = a * 0.5\nout.rgb = rgb * a").back.text,
               Contains("let x = a / 0.5\nout.rgb = rgb / x\nout.a = x"));
    CHECK_THAT(
        inverted("// Dye.\nfn dye(k) = vec3(1, k, 0.5)\nparam k = 0.7 in 0.5 .. 1\nout.rgb = rgb * dye(k)").back.text,
        Contains("fn dye(k) = vec3(1, k, 0.5)") && Contains("out.rgb = rgb / dye(k)"));
}

TEST_CASE("a worked inverse: the matrices of BT.709 light and XYZ take each other back", "[inverse]") {
    // The rounded matrices of IEC 61966-2-1:1999 for the two ways (values from memory).
    const Made made =
        inverted("out.rgb = mat3(0.4124, 0.3576, 0.1805, 0.2126, 0.7152, 0.0722, 0.0193, 0.1192, 0.9505) * rgb");
    const lang::Rule back = checked_back(made, "");
    const double published[3][3] = {{3.2406, -1.5372, -0.4986}, {-0.9689, 1.8758, 0.0415}, {0.0557, -0.2040, 1.0570}};
    for (std::size_t c = 0; c < 3; ++c) {
        std::array<double, 4> one{0, 0, 0, 1};
        one[c] = 1;
        const auto column = engine::reference(back, {}, {one});
        for (std::size_t r = 0; r < 3; ++r)
            CHECK(column[r] == Approx(published[r][c]).margin(0.0005)); // both are rounded to four digits
    }
}

TEST_CASE("luminance that is kept, hues that are held, and choices are solved", "[inverse]") {
    for (const char* text :
         {"out.rgb = rgb.bgr\nkeep luminance", "working srgb\nout.rgb = rgb.gbr\nkeep luminance",
          "out.g = 0.6 * g + 0.4 * b\nhold hue of (0.7, 0.4, 0.1) in oklch",
          "out.g = 0.6 * g + 0.4 * b\nhold hue of (0.7, 0.4, 0.1) in lab",
          "out.g = 0.6 * g + 0.4 * b\nhold hue of (0.7, 0.4, 0.1)",
          "param way = a of a, b, c\nout.rgb = way.a ? rgb.gbr : way.b ? rgb * 2 : spow(rgb, 2.2)",
          "let y = luminance(rgb)\nout.rgb = mix(vec3(y), rgb, 0.5)",
          "let c = oklch(rgb)\nc.c *= 1 + 0.5 * (1 - smoothstep(0, 0.2, c.c))\nout.rgb = rgb(c)",
          "param k = 0.4 in 0 .. 1\nout.rgb = mix(rgb, balanced(mat3(2, 1, 1, 0, 1, k, 0, 0.5, 3)) * rgb, k)",
          "let c = lch(rgb)\nc.h += 20 * band(c.h, 40, 60, 60)\nout.rgb = rgb(c)"}) {
        const Made made = inverted(text);
        CAPTURE(text, made.back.text, made.back.largest_anywhere);
        REQUIRE(made.back.found);
        CHECK(made.back.everywhere);
        const lang::Rule back = checked_back(made, text);
        for (const std::array<double, 3>& colour :
             {std::array<double, 3>{0.2, 0.5, 0.7}, {0.9, 0.1, 0.3}, {0.18, 0.18, 0.18}, {0.05, 0.6, 0.02}})
            CHECK(there_and_back(made.rule, back, colour) < 1e-5);
    }
}

TEST_CASE("what is lost is said, with two colours that become one", "[inverse]") {
    const auto meets = [](const std::string& text) {
        const Made made = inverted(text);
        INFO(text);
        REQUIRE(made.back.meeting);
        const auto& [a, b, result] = *made.back.meeting;
        const auto of_a = engine::reference(made.rule, defaults(made.rule), {{a[0], a[1], a[2], 1}}),
                   of_b = engine::reference(made.rule, defaults(made.rule), {{b[0], b[1], b[2], 1}});
        double apart = 0;
        for (std::size_t c = 0; c < 3; ++c) {
            CHECK(of_a[c] == Approx(of_b[c]).margin(2e-5));
            apart = std::max(apart, std::fabs(a[c] - b[c]));
        }
        CHECK(apart > 0.02);
        return made.back;
    };
    CHECK_FALSE(meets("out.rgb = vec3(luma(rgb))").found);
    CHECK_FALSE(meets("out.rgb = floor(rgb * 8) / 8").found);
    CHECK_FALSE(meets("out.rgb = abs(rgb - 0.5)").everywhere);
    const inverse::Back clamped = meets("out.rgb = clamp(rgb * 2 - 0.5, 0, 1)");
    REQUIRE(clamped.losses.size() == 1);
    CHECK_THAT(inverse::told(clamped.losses[0], "out.rgb = clamp(rgb * 2 - 0.5, 0, 1)"),
               Contains("line 1, clamp(rgb * 2 - 0.5, 0, 1): what is outside of the limits there"));
    CHECK_THAT(inverted("out.rgb = blur(rgb, 3)").back.obstacles.at(0).why, Contains("other pixels"));
}

TEST_CASE("parameters go only as far as they can be undone", "[inverse]") {
    const Made made = inverted("param green = 0 in 0 .. 1\nout.g = mix(g, 1 - g, green)");
    REQUIRE(made.back.narrowed.size() == 1);
    CHECK(made.back.narrowed[0].high < 0.5); // at a half every green is 0.5
    CHECK(made.back.narrowed[0].high > 0.49);
    CHECK(made.back.everywhere);
    const Made other = inverted(
        "param meet = 1 in 0 .. 1\nout.g = mix(g, 0.5 * g + 0.5 * b, meet)\nout.b = mix(b, 0.5 * g + 0.5 * b, meet)");
    CHECK_FALSE(other.back.found);
    CHECK(other.back.meeting.has_value());
    const Made fixed =
        inverted("param reach = 0 in 0 .. 20\nout.rgb = rgb * 2 + 0 * reach\nout.r += 0.1 * reach * blur(r, reach)");
    CHECK(fixed.back.found);
    CHECK(fixed.back.at_values);
    CHECK_THAT(fixed.back.text, !Contains("param") && Contains("proof \"takes back"));
}

TEST_CASE("random rules that can be undone are undone", "[inverse]") {
    int tried = 0, found = 0, kept = 0, near = 0;
    double largest = 0;
    std::string failed;
    for (unsigned seed = 1; tried < 500; ++seed) {
        const std::string text = UndoableRule(seed).text();
        lang::Checked checked = lang::check(text, proof::vocabulary());
        INFO(text);
        REQUIRE(checked.ok);
        if (!can_be_undone(checked.rule))
            continue;
        ++tried;
        const Made made = inverted(text);
        if (!made.back.found || made.back.largest > 4e-5) {
            failed += fmt::format("seed {}: found {}, off by {}\n{}{}\n", seed, made.back.found, made.back.largest,
                                  text, made.back.obstacles.empty() ? "" : inverse::told(made.back.obstacles[0], text));
            continue;
        }
        ++found;
        near += made.back.largest <= 1e-5 ? 1 : 0; // single precision, and thirty times as much where a rule says so
        largest = std::max(largest, made.back.largest);
        kept += made.back.everywhere && !made.back.at_values ? 1 : 0;
        const lang::Rule back = checked_back(made, text);
        std::mt19937 random(seed);
        for (int i = 0; i < 4; ++i) {
            std::array<double, 3> colour{};
            for (double& channel : colour)
                channel = static_cast<double>(random()) / 4294967296.0;
            INFO(made.back.text);
            CHECK(there_and_back(made.rule, back, colour) < 1e-5);
        }
    }
    INFO(failed);
    CAPTURE(kept, near, largest);
    CHECK(found == tried);
    CHECK(near >= 485);
    CHECK(kept >= 485);
}

TEST_CASE("whatever the rule, what is written can be read, and is said to come back only where it does", "[inverse]") {
    std::mt19937 random(20261129);
    int found = 0;
    for (int i = 0; i < 60; ++i) {
        const std::string text = RandomRule<std::mt19937>(random).text();
        lang::Checked checked = lang::check(text, proof::vocabulary());
        INFO(text);
        REQUIRE(checked.ok);
        inverse::Options options;
        options.file = "it.kasuri";
        const auto made = inverse::invert(checked.rule, text, defaults(checked.rule), options);
        if (!made || !made.value().found)
            continue;
        ++found;
        const lang::Rule back = checked_back({checked.rule, made.value()}, text);
        CHECK((made.value().largest <= inverse::as_good_as_back || !made.value().losses.empty()));
        if (made.value().everywhere && made.value().losses.empty())
            CHECK(there_and_back(checked.rule, back, {0.21875, 0.53125, 0.71875}) < 2e-4);
        for (const inverse::Obstacle& o : made.value().obstacles)
            CHECK_THAT(o.why, !Contains("fault of the program"));
    }
    CHECK(found > 0);
}
