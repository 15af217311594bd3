#include "insight/bounds.hpp"
#include "support/support.hpp"

using namespace kasuri;
using kasuri::test::good_rule;

namespace {

proof::Outcome outcome_of(const std::string& text, const std::string& function) {
    const lang::Rule rule = good_rule(text);
    const auto outcome =
        proof::check(subject::Subject(rule), {"", function, std::nullopt, {}}, proof::settings_of(rule));
    REQUIRE(outcome);
    return *outcome;
}
bool bounded(const std::string& text, const std::string& function) {
    const proof::Outcome outcome = outcome_of(text, function);
    CHECK((!outcome.bounded || outcome.passed));
    return outcome.bounded;
}

} // namespace

TEST_CASE("no NaN or infinity, for every colour of the cube and every value", "[insight][bounds]") {
    CHECK(bounded("", "finite"));
    CHECK(bounded("out.rgb = srgb_decode(rgb)", "finite"));
    CHECK(bounded("let c = oklch(rgb)\nc.h = turn(c.h, 20)\nc.c *= 1.2\nout.rgb = rgb(c)", "finite"));
    const proof::Outcome every = outcome_of("param k = 0 in 0 .. 4\nout.rgb = exp(k * rgb)", "finite");
    CHECK((every.bounded && every.bounded_values));
    CHECK(proof::how_known(every).starts_with("bounded, at every value"));
    // Between two ends a parameter may do what neither end does.
    const proof::Outcome between =
        outcome_of("param k = 0 in 0 .. 1\nout.r = r / (abs(k - 0.3) + abs(r - 0.37) + 1e-45)", "finite");
    CHECK(between.passed);
    CHECK_FALSE(between.bounded_values);
}

TEST_CASE("what no lattice meets is not called bounded", "[insight][bounds]") {
    const struct {
        const char *text, *function;
    } hidden[] = {
        // A root of less than 0 in a hair's breadth around 0.6, between all levels that are tried.
        {"out.r = sqrt((r - 0.6) * (r - 0.6) - 1e-6)", "finite"},
        {"out.r = r + max(0, 0.01 - abs(r - 0.53)) * 100", "inside"},
        // Falls and rises again, or steps down, between two greys of the ramp.
        {"out.r = r - max(0, 2e-4 - abs(r - 0.5005)) * 3", "monotonic"},
        {"out.r = r < 0.5003 ? r : r - 1e-4", "monotonic"},
    };
    for (const auto& rule : hidden) {
        INFO(rule.text);
        CHECK(outcome_of(rule.text, rule.function).passed);
        CHECK_FALSE(bounded(rule.text, rule.function));
    }
    // Single precision: a difference that comes to nothing but for its rounding has no root of its own.
    CHECK_FALSE(bounded("out.r = sqrt(r + g + b - (r + (g + b)))", "finite"));
    CHECK_FALSE(bounded("out.r = exp(100 * r)", "finite"));
}

TEST_CASE("nothing leaves 0 to 1, over the whole cube", "[insight][bounds]") {
    CHECK(bounded("out.rgb = rgb * rgb.gbr", "inside"));
    CHECK(bounded("out.rgb = clamp(rgb * 3 - 1, 0, 1)", "inside"));
    CHECK(bounded("out.r = smoothstep(0.2, 0.8, r)\nout.g = 1 - sqrt(g)", "inside"));
    CHECK(outcome_of("out.rgb = rgb.gbr", "inside").proved); // a matrix is more
    CHECK_FALSE(bounded("out.r = r + 0.1", "inside"));
}

TEST_CASE("greys never fall, between the steps of the ramp too", "[insight][bounds]") {
    CHECK(bounded("out.rgb = srgb_decode(rgb)", "monotonic"));
    CHECK(bounded("param k = 0 in 0 .. 1\nout.rgb = mix(rgb, srgb_encode(rgb), k)", "monotonic"));
    CHECK(bounded("out.rgb = smoothstep(0.1, 0.9, rgb)", "monotonic"));
    CHECK_FALSE(outcome_of("out.rgb = rgb * rgb", "monotonic").passed); // below 0
    // Along a ramp the place and the neighbours change, too.
    CHECK_FALSE(bounded("out.rgb = rgb + 0.1 * pos.x", "monotonic"));
    CHECK_FALSE(bounded("out.rgb = blur(rgb, 2)", "monotonic"));
}
