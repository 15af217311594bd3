#include "simplify/simplify.hpp"

#include "engine/reference.hpp"
#include "proof/proof.hpp"
#include "support/random_rule.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>

using namespace kasuri;
using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

simplify::Shorter shorter(const std::string& text) {
    INFO(text);
    auto made = simplify::simplified(text);
    REQUIRE(made);
    return std::move(made.value());
}

/// The largest difference at random colours and values, by the double-precision reference; relative above 1.
double difference(const std::string& a, const std::string& b, unsigned seed) {
    const lang::Checked x = lang::check(a, proof::vocabulary()), y = lang::check(b, proof::vocabulary());
    REQUIRE(x.ok);
    INFO(b);
    REQUIRE(y.ok);
    REQUIRE(x.rule.parameters.size() == y.rule.parameters.size());
    std::mt19937 random(seed);
    const auto between = [&](double low, double high) {
        return low + (high - low) * static_cast<double>(random()) / 4294967296.0;
    };
    double most = 0;
    for (int i = 0; i < 40; ++i) {
        std::vector<double> values;
        for (const lang::Parameter& p : x.rule.parameters)
            values.push_back(lang::allowed_value(p, between(p.low, p.high)));
        const engine::ReferencePixel pixel{{between(-0.5, 1.5), between(-0.5, 1.5), between(-0.5, 1.5), between(0, 1)}};
        const auto p = engine::reference(x.rule, values, pixel), q = engine::reference(y.rule, values, pixel);
        for (std::size_t c = 0; c < 4; ++c)
            if (std::isfinite(p[c]))
                most = std::max(most, std::fabs(p[c] - q[c]) / std::max(1.0, std::fabs(p[c])));
    }
    return most;
}

} // namespace

TEST_CASE("swaps, matrices and detours become what they are", "[simplify]") {
    CHECK(shorter("out.rgb = rgb.gbr\nout.rgb = out.gbr\nout.rgb = out.gbr\n").text.empty());
    CHECK(shorter("out.rgb = rgb.gbr\nout.rgb = out.gbr\n").text == "out.rgb = rgb.brg\n");
    // By hand: (1 0 0, 1/4 1/2 1/4, 0 0 1), then (1 0 0, 0 1 0, 1/2 0 1/2).
    CHECK(shorter("out.rgb = mat3(1, 0, 0, 0.25, 0.5, 0.25, 0, 0, 1) * rgb\nout.rgb = mat3(1, 0, 0, 0, 1, 0, 0.5, 0, "
                  "0.5) * out.rgb\n")
              .text == "out.g = 0.25 * r + 0.5 * g + 0.25 * b\nout.b = 0.5 * r + 0.5 * b\n");
    CHECK(shorter("out.rgb = rgb * 2 - 1\nout.rgb = (out.rgb + 1) / 2\n").text.empty());
    CHECK(shorter("let c = oklch(rgb)\nc.h += 30\nc.h -= 30\nout.rgb = rgb(c)\n").text.empty());
    CHECK(shorter("out.rgb = spow(rgb, 2)\nout.rgb = out.rgb * 2\nout.rgb = 3 * out.rgb\n").text ==
          "out.rgb = spow(rgb, 2)\nout.rgb = 6 * out.rgb\n");
    CHECK(shorter("param k = 0.5 in 0 .. 1\nout.g = mix(g, b, k)\nout.b = mix(b, r, 0)\n").text ==
          "param k = 0.5 in 0 .. 1\nout.g = mix(g, b, k)\n");
    CHECK_THAT(shorter("let c = ycbcr709(rgb)\nc.cb *= 2\nout.rgb = rgb(c)\nlet d = ycbcr709(out.rgb)\nd.cb /= "
                       "4\nd.cr *= 1\nout.rgb = rgb(d)\n")
                   .text,
               Contains("mat3(1, 0, 0"));
}

TEST_CASE("what stays keeps its names, comments, proofs and presets", "[simplify]") {
    const simplify::Shorter made = shorter(
        "filter \"Dyes\"\n// How much.\nparam k = 0.5 in 0 .. 1\npreset \"All\" k = 1\n\n// Both share it.\nlet "
        "shared = 0.5 * g + 0.5 * b\n// Never read.\nlet idle = luma(rgb)  // nor this\nout.g = mix(g, shared, k)  "
        "// the green\n\nproof \"red stays\" : out.r == r\n");
    CHECK(made.text ==
          "filter \"Dyes\"\n// How much.\nparam k = 0.5 in 0 .. 1\npreset \"All\" k = 1\n\n// Both share it.\nlet "
          "shared = 0.5 "
          "* g + 0.5 * b\nout.g = mix(g, shared, k)  // the green\n\nproof \"red stays\" : out.r == r\n");
    CHECK(made.done == std::vector<std::string>{"without it nothing changes: let idle = luma(rgb)"});
    // A let that only a proof reads stays.
    const char* read = "let y = luma(rgb)\nout.rgb = rgb * 2\n\nproof \"brighter\" : luma(out.rgb) >= y || y < 0\n";
    CHECK(shorter(read).text == read);
    CHECK_FALSE(simplify::simplified("out.rgb = clmp(rgb)"));
    CancelToken cancelled;
    cancelled.cancel();
    CHECK_FALSE(simplify::simplified("out.rgb = rgb.gbr\nout.rgb = out.gbr", {}, cancelled));
}

TEST_CASE("nothing is changed that is not the same: random rules, with lines that do nothing between theirs",
          "[simplify]") {
    static const char* const idle[] = {"out.rgb = out.gbr\nout.rgb = out.brg\n", "let idle = hsv(out.rgb)\n",
                                       "out.rgb = out.rgb * 4\nout.rgb = out.rgb / 4\n",
                                       "out.g = mix(out.g, 0.5 * out.g + 0.5 * out.g, p)\n",
                                       "out.rgb = mat3(0, 1, 0, 1, 0, 0, 0, 0, 1) * out.rgb\nout.rgb = out.grb\n"};
    std::mt19937 random(20261130);
    int shortened = 0;
    for (unsigned i = 0; i < 40; ++i) {
        std::string text = RandomRule<std::mt19937>(random).text();
        text += idle[random() % 5];
        const simplify::Shorter made = shorter(text);
        CHECK(made.after <= made.before);
        shortened += made.done.empty() ? 0 : 1;
        CHECK(difference(text, made.text, i) < 1e-9);
    }
    CHECK(shortened >= 38);
}
