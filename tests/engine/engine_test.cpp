#include "base/parallel.hpp"
#include "colour/transfer.hpp"
#include "engine/kernels.hpp"
#include "support/random_rule.hpp"
#include "support/support.hpp"

#include <cstring>
#include <thread>

using namespace kasuri;
using namespace kasuri::test;

namespace {

// Random rules against the reference, on every instruction set: fuzz/rule_fuzz, of which ctest runs some thousands.
std::string random_rule(unsigned seed) {
    std::mt19937 random(seed);
    return RandomRule<std::mt19937>(random).text();
}

std::vector<Colour> random_colours(int count, unsigned seed) {
    std::mt19937 random(seed);
    std::uniform_real_distribution<float> spread(-1, 4);
    std::vector<Colour> colours;
    for (int i = 0; i < count; ++i)
        colours.push_back({spread(random), spread(random), spread(random), std::fabs(spread(random)) / 4});
    return colours;
}

} // namespace

TEST_CASE("NaN, infinities and negatives arrive as in the reference", "[engine]") {
    const char* rules[] = {
        "out.rgb = rgb * 2 - 1",
        "out.rgb = max(rgb, 0)",
        "out.rgb = min(rgb, 1)",
        "out.rgb = clamp(rgb, 0, 1)",
        "out.rgb = sqrt(rgb)",
        "out.rgb = log2(rgb)",
        "out.rgb = exp2(rgb)",
        "out.rgb = 1 / rgb",
        "out.rgb = floor(rgb)",
        "out.rgb = sign(rgb)",
        "out.rgb = step(0.5, rgb)",
        "out.rgb = smoothstep(0, 1, rgb)",
        "out.rgb = mix(rgb, rgb.gbr, 0.5)",
        "out.r = r > g ? b : g",
        "out.r = r == g || b != b ? 1 : 0",
        "out.r = isnan(r) ? 1 : isinf(g) ? 2 : 3",
        "out.rgb = abs(rgb)",
        "out.rgb = fract(rgb)",
        "out.rgb = round(rgb)",
    };
    const float special[] = {0, 1, -1, 0.5f, -0.25f, 3, 1e-30f, infinity, -infinity, not_a_number};
    std::vector<Colour> colours;
    for (const float r : special)
        for (const float g : special)
            for (const float b : {special[3], special[7], special[9]})
                colours.push_back({r, g, b, 1});
    for (const char* text : rules) {
        const lang::Rule rule = good_rule(text);
        const auto fast = run(rule, colours);
        for (std::size_t i = 0; i < colours.size(); ++i) {
            const Colour exact = reference_one(rule, colours[i]);
            for (std::size_t c = 0; c < 4; ++c) {
                INFO(text << " of " << colours[i][0] << " " << colours[i][1] << " " << colours[i][2] << ": " << exact[c]
                          << " " << fast[i][c]);
                if (std::isnan(exact[c]))
                    CHECK(std::isnan(fast[i][c]));
                else if (std::isinf(exact[c]))
                    CHECK(fast[i][c] == exact[c]);
                else
                    CHECK(fast[i][c] == Approx(exact[c]).margin(1e-6));
            }
        }
    }
}

TEST_CASE("an empty rule is the identity, bit for bit", "[engine]") {
    const lang::Rule rule = good_rule("");
    CHECK(engine::compile(rule)->is_identity());
    const std::vector<Colour> colours = {{-0.0f, 1e-45f, infinity, 0.3f}, {not_a_number, -7, 3e38f, 0}};
    const auto out = run(rule, colours);
    CHECK(std::memcmp(out.data(), colours.data(), sizeof(Colour) * colours.size()) == 0);
}

TEST_CASE("any number of pixels, also less than a vector", "[engine]") {
    const lang::Rule rule = good_rule("out.rgb = rgb.gbr * 2");
    for (const int count : {1, 2, 3, 15, 16, 17, 511, 512, 513, 1025, 20000}) {
        const auto colours = random_colours(count, 5);
        const auto out = run(rule, colours);
        for (std::size_t i = 0; i < colours.size(); ++i)
            REQUIRE(out[i] == Colour{2 * colours[i][1], 2 * colours[i][2], 2 * colours[i][0], colours[i][3]});
    }
}

TEST_CASE("the same bits for any number of threads", "[engine]") {
    const lang::Rule rule = good_rule(random_rule(11));
    const auto colours = random_colours(100001, 6);
    limit_threads(1);
    const auto one = run(rule, colours);
    limit_threads(0);
    const auto all = run(rule, colours);
    CHECK(std::memcmp(one.data(), all.data(), sizeof(Colour) * one.size()) == 0);
}

TEST_CASE("coordinates count from the top left", "[engine]") {
    const lang::Rule rule = good_rule("out.rg = pixel\nout.b = pos.x\nout.a = aspect");
    const image::Picture picture = image::generated(4, 2, [](int, int) { return std::array<double, 3>{0, 0, 0}; });
    const auto program = engine::compile(rule);
    CHECK(program->reads_position());
    const auto out = engine::evaluate(*program, picture, {});
    REQUIRE(out);
    CHECK(out->at(0, 0) == Colour{0, 0, 0.125f, 2});
    CHECK(out->at(3, 1) == Colour{3, 1, 0.875f, 2});
}

TEST_CASE("parameters are run-time inputs", "[engine]") {
    const lang::Rule rule = good_rule("param k = 0 in 0 .. 10\nout.rgb = rgb * k");
    CHECK(run(rule, {{1, 2, 3, 1}}, {2})[0] == Colour{2, 4, 6, 1});
    CHECK(run(rule, {{1, 2, 3, 1}}, {0.5})[0] == Colour{0.5f, 1, 1.5f, 1});
}

TEST_CASE("work that is called off stops and says so", "[engine]") {
    const lang::Rule rule = good_rule("out.rgb = sin(rgb) + cos(rgb) + exp2(rgb)");
    const auto program = engine::compile(rule);
    const image::Picture picture = image::generated(2000, 2000, [](int x, int y) {
        return std::array<double, 3>{x * 1e-3, y * 1e-3, 0.5};
    });
    CancelToken before;
    before.cancel();
    CHECK_FALSE(engine::evaluate(*program, picture, {}, before));
    CancelToken during;
    std::atomic<std::size_t> done{0};
    std::thread stopper([&] {
        while (done == 0)
            std::this_thread::yield();
        during.cancel();
    });
    const auto result = engine::evaluate(*program, picture, {}, during, &done);
    stopper.join();
    CHECK((!result || done == picture.pixels())); // either stopped, or it had been through already
}

TEST_CASE("a picture is converted into the working space and back", "[engine]") {
    const lang::Rule rule = good_rule("out.rgb = 0.5 * rgb"); // works in linear light
    engine::CompileOptions options;
    options.in_space = options.out_space = "srgb";
    const auto program = engine::compile(rule, options);
    const image::Picture picture = image::generated(3, 1, [](int x, int) {
        return std::array<double, 3>{0.2 * x, 0.5, 1};
    });
    const auto out = engine::evaluate(*program, picture, {});
    REQUIRE(out);
    const double expected = colour::srgb_encode(0.5 * colour::srgb_decode(0.5));
    CHECK(static_cast<double>(out->at(1, 0)[1]) == Approx(expected).margin(1e-6));
    // What a rule leaves alone is not converted there and back.
    const auto touched = engine::compile(good_rule("out.r = 0.5 * r"), options);
    CHECK(touched->passes_through(1));
    CHECK_FALSE(touched->passes_through(0));
    // A rule that works in srgb has nothing to convert.
    const auto inside = engine::compile(good_rule("working srgb\nout.rgb = 0.5 * rgb"), options);
    CHECK(engine::evaluate(*inside, picture, {})->at(1, 0)[1] == 0.25f);
}

TEST_CASE("registers are used again", "[engine]") {
    std::string text = "let x0 = r\n";
    for (int i = 1; i < 60; ++i)
        text += "let x" + std::to_string(i) + " = x" + std::to_string(i - 1) + " * g + " + std::to_string(i) + "\n";
    text += "out.r = x59";
    const auto program = engine::compile(good_rule(text));
    CHECK(program->instructions().size() <= 60); // products are fused with the sums
    CHECK(program->registers() <= 3);
}

TEST_CASE("numbers too small for a normal float count as 0", "[engine]") {
    CHECK(run_one("out.r = 1 / r\nout.g = g > 0 ? 1 : 0\nout.b = b * 1e-30", {1e-42f, 1e-42f, 1e-20f, 1}) ==
          Colour{infinity, 0, 0, 1});
    // What a rule leaves alone is copied, not computed.
    CHECK(run_one("out.r = g", {1, 2, 1e-42f, 1})[2] == 1e-42f);
}
