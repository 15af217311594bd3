// Rules one after the other as one graph: against the double reference, and against pictures handed along.
#include "engine/chain.hpp"
#include "engine/evaluate.hpp"
#include "support/support.hpp"

#include <deque>
#include <random>

using namespace kasuri;
using namespace kasuri::test;

namespace {

struct Chain {
    std::deque<lang::Rule> rules; ///< which stay where they are
    std::vector<engine::ChainStep> steps;
    std::vector<double> parameters;

    void add(const std::string& text, double opacity = 1, std::string_view blend = "normal",
             const std::string& mask = "", bool inverted = false) {
        rules.push_back(good_rule(text));
        const lang::Rule& rule = rules.back();
        const lang::Rule* masking = nullptr;
        if (!mask.empty()) {
            lang::CheckOptions with;
            with.print = mask;
            const lang::Checked checked = lang::check(rule.working.empty() ? std::string() : "working " + rule.working,
                                                      proof::vocabulary(), with);
            REQUIRE(checked.ok);
            rules.push_back(checked.rule);
            masking = &rules.back();
        }
        engine::ChainStep step;
        step.rule = &rule;
        step.blend = blend;
        step.mask = masking;
        step.mask_inverted = inverted;
        steps.push_back(step);
        for (const double value : defaults(rule))
            parameters.push_back(value);
        parameters.push_back(opacity);
    }
};

image::Picture noise(int width, int height) {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> number(0.02, 1.2);
    image::Picture picture = image::generated(width, height, [&](int, int) {
        return std::array<double, 3>{number(random), number(random), number(random)};
    });
    image::Samples alpha(picture.pixels());
    for (float& a : alpha)
        a = static_cast<float>(number(random));
    picture.planes[3] = image::make_plane(std::move(alpha));
    return picture;
}

engine::CompileOptions in(std::string_view space) {
    engine::CompileOptions options;
    options.in_space = options.out_space = space;
    return options;
}

} // namespace

TEST_CASE("five steps in one program are what the reference makes, one after the other", "[chain]") {
    Chain chain;
    chain.add("param meet = 0.4 in 0 .. 1\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, shared, meet)\nout.b = "
              "mix(b, shared, meet)");
    chain.add("working srgb\nparam k = 1.2 in 0 .. 2\nout.rgb = contrast(rgb, k, 0.5)", 0.7);
    chain.add("let c = oklch(rgb)\nc.h += 30\nout.rgb = rgb(c)", 1, "soft_light",
              "smoothstep(0.1, 0.6, luminance(rgb))");
    chain.add("working acescg\nout.rgb = rgb.grb\nout.a *= 0.5", 0.5, "multiply", "a", true);
    chain.add("out.rgb *= vec3(1.1, 1, 0.9)\nhold hue of (0.72, 0.49, 0.4)", 1, "luminosity");
    CHECK(engine::chain_parameters(chain.steps) == 7);
    const image::Picture picture = noise(64, 8);
    for (const char* space : {"rec709-linear", "srgb", "p3-d65-linear"}) {
        INFO(space);
        const auto made = engine::evaluate(*engine::compile_chain(chain.steps, in(space)), picture, chain.parameters);
        REQUIRE(made);
        for (std::size_t i = 0; i < picture.pixels(); ++i) {
            engine::ReferencePixel pixel;
            for (std::size_t c = 0; c < 4; ++c)
                pixel.rgba[c] = static_cast<double>(picture.at(i)[c]);
            const auto wanted = engine::reference_chain(chain.steps, chain.parameters, space, pixel);
            for (std::size_t c = 0; c < 4; ++c)
                CHECK_THAT(static_cast<double>(made->at(i)[c]),
                           Catch::Matchers::WithinAbs(wanted[c], 5e-5 * std::max(1.0, std::fabs(wanted[c]))));
        }
    }
}

TEST_CASE("a chain with neighbours and places is what pictures handed along give", "[chain]") {
    Chain chain;
    chain.add("param size = 2 in 0 .. 9\nout.rgb = blur(rgb * rgb, size)");
    chain.add("out.r += pos.x * 0.1\nout.rgb = sharpen(out.rgb, 1.5, 0.5)");
    chain.add("out.rgb = dilate(rgb, 1) - erode(rgb.gbr, 1)");
    const image::Picture picture = noise(70, 40);
    const auto fused = engine::evaluate(*engine::compile_chain(chain.steps), picture, chain.parameters);
    REQUIRE(fused);
    image::Picture along = picture;
    std::size_t first = 0;
    for (const engine::ChainStep& step : chain.steps) {
        const std::size_t count = step.rule->parameters.size();
        along =
            *engine::evaluate(*engine::compile(*step.rule), along, std::span(chain.parameters).subspan(first, count));
        first += count + 1;
    }
    for (std::size_t i = 0; i < picture.pixels(); ++i)
        for (std::size_t c = 0; c < 4; ++c)
            CHECK_THAT(static_cast<double>(fused->at(i)[c]),
                       Catch::Matchers::WithinAbs(static_cast<double>(along.at(i)[c]), 1e-5));
}

TEST_CASE("opacity is a number of the run, and nothing of a step is nothing", "[chain]") {
    Chain chain;
    chain.add("out.rgb = rgb.gbr");
    chain.add("out.rgb = rgb.brg");
    const image::Picture picture = noise(16, 1);
    const engine::ProgramPtr program = engine::compile_chain(chain.steps);
    const auto both = engine::evaluate(*program, picture, std::vector<double>{1, 1}),
               none = engine::evaluate(*program, picture, std::vector<double>{0, 0}),
               half = engine::evaluate(*program, picture, std::vector<double>{0.5, 0});
    for (std::size_t i = 0; i < picture.pixels(); ++i) {
        CHECK(both->at(i) == picture.at(i)); // there and back
        CHECK(none->at(i) == picture.at(i));
        CHECK(half->at(i)[0] ==
              Approx(0.5 * static_cast<double>(picture.at(i)[0]) + 0.5 * static_cast<double>(picture.at(i)[1])));
    }
    CHECK(engine::compile_chain({})->is_identity());
    CHECK(engine::is_blend("soft_light"));
    CHECK_FALSE(engine::is_blend("nothing"));
}

TEST_CASE("steps have their own sources", "[chain]") {
    Chain chain;
    chain.add("source lamp : vec3\nout.rgb += lamp");
    chain.add("source plate : float\nout.g = plate");
    const float in[3] = {0.1f, 0.2f, 0.3f}, lamp[3] = {1, 2, 3}, plate = 7;
    float out[4];
    engine::Source source{1, 1, {&in[0], &in[1], &in[2]}, {&lamp[0], &lamp[1], &lamp[2], &plate}};
    float* const sinks[] = {&out[0], &out[1], &out[2], &out[3]};
    engine::run(*engine::compile_chain(chain.steps), source, chain.parameters, std::span<float* const>(sinks));
    CHECK((out[0] == Approx(1.1) && out[1] == 7 && out[2] == Approx(3.3)));
    engine::ReferencePixel pixel;
    pixel.rgba = {0.1, 0.2, 0.3, 1};
    pixel.sources = {1, 2, 3, 7};
    CHECK(engine::reference_chain(chain.steps, chain.parameters, "rec709-linear", pixel)[1] == 7);
}

namespace {

/// Rules that stay where they are, and steps of all kinds upon them.
struct Look {
    std::deque<lang::Rule> rules;
    std::vector<double> parameters;

    engine::ChainStep step(const std::string& text, double opacity = 1, bool opaque = false) {
        engine::ChainStep made;
        made.rule = &rules.emplace_back(good_rule(text));
        made.opaque = opaque;
        for (const double value : defaults(*made.rule))
            parameters.push_back(value);
        if (!opaque)
            parameters.push_back(opacity);
        return made;
    }
    const lang::Rule* mask(const std::string& statements, const std::string& expression) {
        lang::CheckOptions with;
        with.print = expression;
        const lang::Checked checked = lang::check(statements, proof::vocabulary(), with);
        REQUIRE(checked.ok);
        return &rules.emplace_back(checked.rule);
    }
};

void compare(const std::vector<engine::ChainStep>& steps, const std::vector<double>& parameters, const char* space,
             std::vector<float> sources = {}) {
    const image::Picture picture = noise(40, 3);
    std::vector<std::vector<float>> planes(sources.size());
    std::vector<engine::PlaneView> views;
    for (std::size_t s = 0; s < sources.size(); ++s) {
        for (std::size_t i = 0; i < picture.pixels(); ++i)
            planes[s].push_back(sources[s] + 0.01f * static_cast<float>(i % 40));
        views.emplace_back(planes[s].data());
    }
    const auto made =
        engine::evaluate(*engine::compile_chain(steps, in(space)), picture, parameters, {}, nullptr, nullptr, views);
    REQUIRE(made);
    for (std::size_t i = 0; i < picture.pixels(); ++i) {
        engine::ReferencePixel pixel;
        for (std::size_t c = 0; c < 4; ++c)
            pixel.rgba[c] = static_cast<double>(picture.at(i)[c]);
        for (std::size_t s = 0; s < sources.size(); ++s)
            pixel.sources.push_back(static_cast<double>(planes[s][i]));
        const auto wanted = engine::reference_chain(steps, parameters, space, pixel);
        for (std::size_t c = 0; c < 4; ++c)
            CHECK_THAT(static_cast<double>(made->at(i)[c]),
                       Catch::Matchers::WithinAbs(wanted[c], 5e-5 * std::max(1.0, std::fabs(wanted[c]))));
    }
}

} // namespace

TEST_CASE("several steps as one are laid over together, in the space of the first", "[chain]") {
    Look look;
    engine::ChainStep group;
    group.within.push_back(look.step("working srgb\nparam k = 1.3 in 0 .. 2\nout.rgb = contrast(rgb, k, 0.5)", 0.8));
    engine::ChainStep inner;
    inner.within.push_back(look.step("working acescg\nout.rgb = rgb.gbr", 1, true));
    inner.within.push_back(look.step("out.a *= 0.5\nout.rgb *= vec3(1, 0.9, 0.8)"));
    look.parameters.push_back(0.6); // of the inner ones
    inner.mask = look.mask("working acescg", "clamp(g, 0, 1)");
    group.within.push_back(inner);
    look.parameters.push_back(0.7); // of all of them
    group.blend = "screen";
    const engine::ChainStep after = look.step("let c = hsv(rgb)\nc.h += 20\nout.rgb = rgb(c)");
    for (const char* space : {"rec709-linear", "srgb", "p3-d65-linear"})
        compare({group, after}, look.parameters, space);
    CHECK(engine::space_of(group) == "srgb");
    CHECK(engine::chain_parameters(std::vector{group, after}) == 6);
    CHECK(engine::rules_of(std::vector{group, after}).size() == 5);
}

TEST_CASE("masks read further pictures of their own, behind those of their rule", "[chain]") {
    Look look;
    engine::ChainStep first = look.step("source lamp : vec3\nout.rgb += lamp");
    first.mask = look.mask("source matte : float", "clamp(matte, 0, 1)");
    engine::ChainStep second = look.step("source plate : float\nout.g = plate", 0.5);
    second.mask = look.mask("source other : vec3", "clamp(other.g + r, 0, 1)");
    second.mask_inverted = true;
    compare({first, second}, look.parameters, "rec709-linear", {0.1f, 0.2f, 0.3f, 0.4f, 0.5f, 0.6f, 0.15f, 0.25f});
}

TEST_CASE("an opaque step takes the place of what came in: what it has dealt with does not come back", "[chain]") {
    Look look;
    const engine::ChainStep opaque = look.step("out.rgb = min(rgb, 4)", 1, true),
                            mixed = look.step("out.rgb = min(rgb, 4)");
    const float r[] = {infinity}, g[] = {0.5f}, b[] = {0.25f};
    float out[4];
    float* const sinks[] = {&out[0], &out[1], &out[2], &out[3]};
    const auto run_one = [&](const engine::ChainStep& step) {
        engine::run(*engine::compile_chain(std::vector{step}), {1, 1, {r, g, b}}, std::vector<double>{1},
                    std::span<float* const>(sinks));
    };
    run_one(opaque);
    CHECK(out[0] == 4);
    run_one(mixed); // infinity times 0
    CHECK(std::isnan(out[0]));
    engine::ReferencePixel pixel;
    pixel.rgba = {std::numeric_limits<double>::infinity(), 0.5, 0.25, 1};
    CHECK(engine::reference_chain(std::vector{opaque}, std::vector<double>{1}, "rec709-linear", pixel)[0] == 4);
}
