#include "carry/carry.hpp"

#include "colour/space.hpp"
#include "engine/reference.hpp"
#include "insight/affine.hpp"
#include "inverse/invert.hpp"
#include "proof/proof.hpp"
#include "simplify/simplify.hpp"
#include "support/random_rule.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>

using namespace kasuri;
using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

carry::Carried carried(const std::string& text, std::string_view to) {
    INFO(text);
    auto made = carry::carried(text, to);
    if (!made)
        FAIL(made.error().text());
    return std::move(made.value());
}

/// By the double-precision reference, which shares no code with the fast path: the same colour into both, and the
/// largest difference of what comes out, in the old space, relative above 1.
double difference(const std::string& text, const std::string& other, unsigned seed) {
    const lang::Checked a = lang::check(text, proof::vocabulary()), b = lang::check(other, proof::vocabulary());
    INFO(other);
    REQUIRE(a.ok);
    REQUIRE(b.ok);
    const colour::Space &here = *colour::find_space(engine::working_space(a.rule)),
                        &there = *colour::find_space(engine::working_space(b.rule));
    std::mt19937 random(seed);
    double most = 0;
    for (int i = 0; i < 20; ++i) {
        colour::Triple in{};
        for (double& channel : in)
            channel = 0.05 + 0.9 * static_cast<double>(random()) / 4294967296.0;
        const colour::Triple moved = colour::converted(in, here, there);
        const auto made = engine::reference(a.rule, defaults(a.rule), {{in[0], in[1], in[2], 0.7}}),
                   again = engine::reference(b.rule, defaults(b.rule), {{moved[0], moved[1], moved[2], 0.7}});
        const colour::Triple back = colour::converted({again[0], again[1], again[2]}, there, here);
        for (std::size_t c = 0; c < 3; ++c)
            if (std::isfinite(made[c]) && std::fabs(made[c]) < 16)
                most = std::max(most, std::fabs(made[c] - back[c]) / std::max(1.0, std::fabs(made[c])));
        CHECK(again[3] == Approx(made[3]));
    }
    return most;
}

} // namespace

TEST_CASE("a matrix of light becomes the matrix that it is in the other space", "[carry]") {
    const carry::Carried made = carried("working rec2020-linear\nout.rgb = rgb * vec3(2, 1, 1)\n", "rec709-linear");
    CHECK(made.matrix);
    CHECK(made.largest < 1e-5);
    // ITU-R BT.2087-0, 2.2: light of BT.709 as light of BT.2020 (values from memory, rounded to four digits).
    const double m[3][3] = {{0.6274, 0.3293, 0.0433}, {0.0691, 0.9195, 0.0114}, {0.0164, 0.0880, 0.8956}};
    const lang::Checked checked = lang::check(made.text, proof::vocabulary());
    REQUIRE(checked.ok);
    const auto found = insight::affine(checked.rule, {});
    REQUIRE(found);
    // M found = diag(2, 1, 1) M
    for (std::size_t r = 0; r < 3; ++r)
        for (std::size_t c = 0; c < 3; ++c) {
            double left = 0;
            for (std::size_t k = 0; k < 3; ++k)
                left += m[r][k] * found->matrix[k][c];
            CHECK(left == Approx((r == 0 ? 2 : 1) * m[r][c]).margin(3e-4));
        }
}

TEST_CASE("what a rule says of a colour is said of the same colour", "[carry]") {
    CHECK_THAT(carried("let c = lab(rgb)\nc.a *= 0.5\nout.rgb = rgb(c)\n", "acescct").text,
               Contains("working acescct") && Contains("let c = lab(rgb)\nc.a *= 0.5\nout.rgb = rgb(c)"));
    CHECK_THAT(
        carried(
            "// Codes.\nworking acescct\nparam k = 0.1 in 0 .. 1  \"How much\"\npreset \"Half\" k = 0.5\nout.rgb += "
            "k\n\nproof \"same\" : identity\n",
            "rec709-linear")
            .text,
        Contains("// Codes.\nworking rec709-linear\nparam k = 0.1 in 0 .. 1  \"How much\"\npreset \"Half\" k = 0.5") &&
            Contains("out.rgb = from_acescct(") && !Contains("identity"));
    for (const char* text :
         {"out.rgb = mix(vec3(luminance(rgb)), rgb, 1.4)", "working srgb\nout.rgb = rgb.bgr\nkeep luminance",
          "working acescg\nout.rgb = vec3(luma(rgb), g, outside_srgb(rgb))", "out.rgb = from_srgb(to_acescct(rgb))",
          "working p3-d65\nlet c = hsv(rgb)\nc.h += 40\nout.rgb = rgb(c)\nhold hue of (0.7, 0.4, 0.1) in lab",
          "working romm\nout.rgb = deutan(rgb, 0.6) * delta_e_2000(rgb, vec3(0.5)) / 50"})
        for (const char* to : {"acescct", "rec709-linear", "p3-d65", "romm-linear", "rec2020"}) {
            const std::string made = carried(text, to).text;
            CAPTURE(text, to, made);
            CHECK(difference(text, made, 5) < 1e-9);
        }
}

TEST_CASE("random rules are the same in other spaces", "[carry]") {
    // The last is one to go to only: of a logarithm the rules make more light than there are numbers for.
    static const char* const spaces[] = {"rec709-linear", "srgb",  "acescg", "rec2020-linear",
                                         "dci-p3",        "oprgb", "acescct"};
    std::mt19937 random(20261201);
    for (unsigned i = 0; i < 40; ++i) {
        const std::string text =
            fmt::format("working {}\n", spaces[random() % 6]) + RandomRule<std::mt19937>(random).text();
        const auto made = carry::carried(text, spaces[random() % 7]);
        if (!made) { // written out it may be longer than rules can be
            CHECK_THAT(made.error().text(), Contains("it was written for"));
            continue;
        }
        const double by = difference(text, made.value().text, i);
        INFO(text << "\n-->\n" << made.value().text);
        CHECK(by < 1e-6);
    }
}

TEST_CASE("a look is carried with its opacities and masks, and what cannot be is said", "[carry]") {
    document::Look look;
    document::LookStep step;
    step.text = "param k = 0 in 0 .. 1\nout.rgb = mix(rgb, rgb.gbr, k)\n";
    step.values["k"] = 0.7;
    step.opacity = 0.5;
    step.mask = "luma(rgb)";
    look.steps.push_back(step);
    step = {};
    step.text = "working srgb\nout.rgb = blur(rgb, 3)\n";
    step.blend = "screen";
    look.steps.push_back(step);
    const auto made = carry::carried(look, {}, "acescg");
    REQUIRE(made);
    CHECK(made.value().largest < 1e-5);
    CHECK(made.value().look.steps[0].opacity == 1);
    CHECK(made.value().look.steps[0].values.at("k") == 0.7);
    CHECK_THAT(made.value().look.steps[1].text, Contains("working acescg") && Contains("blend_screen"));
    look.steps[1].lut = "cube";
    CHECK_FALSE(carry::carried(look, {}, "acescg"));
    CHECK_THAT(carry::carried("out.rgb = rgb", "nowhere").error().text(), Contains("there is no space nowhere"));
    CHECK_FALSE(carry::carried("out.rgb = clmp(rgb)", "srgb"));
}

TEST_CASE("long rules are refused with a limit, not with a stack that ends", "[carry][inverse][simplify]") {
    std::string lines;
    for (int i = 0; i < 6000; ++i)
        lines += "out.r = out.r * b + spow(g, out.r)\n";
    CHECK_THAT(carry::carried(lines, "srgb").error().text(), Contains("parts; more than 4000"));
    const lang::Checked checked = lang::check(lines, proof::vocabulary());
    REQUIRE(checked.ok);
    CHECK_THAT(inverse::invert(checked.rule, lines, {}).error().text(), Contains("parts; more than 4000"));
    CHECK_THAT(simplify::simplified(lines).error().text(), Contains("more than 60 statements"));
    std::string tall;
    for (int i = 0; i < 50; ++i) {
        tall += "out.r = out.r";
        for (int k = 0; k < 400; ++k)
            tall += k % 2 ? " * out.g" : " + b";
        tall += "\n";
    }
    CHECK_THAT(simplify::simplified(tall).error().text(), Contains("more than 4000 words"));
}

TEST_CASE("promises that say the same of any numbers and still hold are kept, the others go", "[carry]") {
    const carry::Carried made = carried("working rec2020-linear\n"
                                        "out.rgb = mat3(0.8, 0.2, 0,  0.1, 0.8, 0.1,  0, 0.2, 0.8) * rgb\n"
                                        "proof \"greys stay grey\" : neutral\n"
                                        "proof \"every number is one\" : finite\n"
                                        "proof \"no darker than -1\" on grey_ramp : out.r > -1\n",
                                        "srgb");
    CHECK_THAT(made.text, Contains("proof \"greys stay grey\" : neutral"));
    CHECK_THAT(made.text, Contains("proof \"every number is one\" : finite"));
    CHECK_THAT(made.text, !Contains("no darker"));
    const lang::Checked checked = lang::check(made.text, proof::vocabulary());
    REQUIRE(checked.ok);
    REQUIRE(checked.rule.proofs.size() == 2);
    // One that does not hold any more goes: colours of BT.709 are exchanged for some outside of it.
    const std::string inside = "working rec2020-linear\nout.rgb = rgb.gbr\nproof \"stays inside\" : inside\n";
    CHECK_THAT(carried(inside, "rec709-linear").text, !Contains("inside"));
    CHECK_THAT(carried(inside, "rec2020-linear").text, Contains("inside"));
}

TEST_CASE("a LUT in a look goes on in its own numbers", "[carry]") {
    document::Look look;
    document::LookStep rule, lut;
    rule.text = "working srgb\nout.r = r * 0.8 + 0.1\n";
    lut.lut = ".cube";
    lut.lut_text =
        document::SharedText("LUT_3D_SIZE 2\n0 0 0\n0.5 0 0\n0 1 0\n0.5 1 0\n0 0 1\n0.5 0 1\n0 1 1\n0.5 1 1\n");
    lut.opacity = 0.7;
    look.steps = {rule, lut, rule};
    const auto made = carry::carried(look, {}, "acescct");
    REQUIRE(made);
    CHECK(made.value().look.steps[1] == lut);
    CHECK(made.value().largest < 1e-5);
    CHECK_THAT(made.value().look.steps[2].text, Contains("working acescct"));
}
