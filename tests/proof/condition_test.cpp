// Promises that are written as conditions in the rule itself.
#include "support/support.hpp"
#include "targets/target.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

proof::Outcome outcome_of(const std::string& text, std::vector<std::vector<double>> settings = {}) {
    const lang::Rule rule = good_rule(text);
    REQUIRE(rule.proofs.size() == 1);
    if (settings.empty())
        settings = {defaults(rule)};
    const auto outcome = proof::check(subject::Subject(rule), rule.proofs[0], settings);
    REQUIRE(outcome);
    return *outcome;
}

} // namespace

TEST_CASE("a comparison names the pixel that comes closest, or breaks it most", "[proof]") {
    const proof::Outcome holds = outcome_of("out.rgb = rgb * 0.5\nproof \"dim\" on grey_ramp : out.r < 2.5");
    CHECK(holds.passed);
    CHECK(holds.figure == Approx(2).margin(0.01)); // half of the ramp's end, 4
    CHECK(holds.limit == 2.5);
    CHECK(holds.relation == "<");
    CHECK(holds.title == "dim");
    CHECK(holds.worst.target == "grey_ramp");
    CHECK(holds.worst.before[0] == Approx(4).margin(0.02));
    CHECK(holds.worst.after[0] == Approx(2).margin(0.01));
    const proof::Outcome broken = outcome_of("out.rgb = rgb * 0.5\nproof \"bright\" on grey_ramp : out.r >= 0");
    CHECK_FALSE(broken.passed);
    CHECK(broken.figure == Approx(-0.125).margin(0.001)); // half of its beginning, -0.25
    CHECK(broken.limit == 0);
    CHECK(proof::report(broken).find("bright") != std::string::npos);
    // Both sides may change from pixel to pixel.
    CHECK(outcome_of("out.g = b\nproof \"\" : out.g <= b").passed);
    CHECK_FALSE(outcome_of("out.g = b\nproof \"\" : out.g < b").passed);
    CHECK(outcome_of("out.g = b\nproof \"\" : out.g >= b").figure ==
          outcome_of("out.g = b\nproof \"\" : out.g >= b").limit);
}

TEST_CASE("any other condition counts the pixels where it is false", "[proof]") {
    const proof::Outcome both = outcome_of("out.r = g\nproof \"same\" : out.r == g && out.g == g");
    CHECK(both.passed);
    CHECK(both.figure == 0);
    CHECK(both.samples == 17u * 17 * 17);
    const proof::Outcome positive = outcome_of("proof \"positive\" : !(r < 0 || g < 0)");
    CHECK_FALSE(positive.passed);
    CHECK(positive.figure == 17 * 17 * 17 - 13 * 13 * 17); // four of the 17 levels are below 0
    CHECK((positive.worst.before[0] < 0 || positive.worst.before[1] < 0));
}

TEST_CASE("a NaN breaks every comparison", "[proof]") {
    for (const char* relation : {"<", "<=", ">", ">="}) {
        const proof::Outcome lost =
            outcome_of(std::string("out.r = sqrt(-1 - abs(r))\nproof \"\" : out.r ") + relation + " 1");
        INFO(relation);
        CHECK_FALSE(lost.passed);
    }
    CHECK_FALSE(outcome_of("out.r = 0 / (r - r)\nproof \"\" : out.r == out.r").passed);
}

TEST_CASE("a condition sees what came out, every name of the rule, and all settings", "[proof]") {
    // out is the result although more is done to it below, and the local has its last value.
    const std::string rule =
        "param k = 0 in 0 .. 1\nlet x = r\nproof \"\" on grey_ramp : abs(out.r - x) <= k\nx = r + k\nout.r = x\n";
    CHECK(outcome_of(rule).passed);
    CHECK(outcome_of(rule, {{0.0}, {0.5}, {1.0}}).passed);
    const proof::Outcome some = outcome_of(
        "param k = 0 in 0 .. 1\nout.r = r + k\nproof \"\" on grey_ramp : abs(out.r - r) < 0.75", {{0.0}, {0.5}, {1.0}});
    CHECK_FALSE(some.passed);
    CHECK(some.values == std::vector<double>{1});
    CHECK(some.figure == Approx(1));
    CHECK(some.settings == 3);
}

TEST_CASE("conditions hold on every target, with places and neighbours", "[proof]") {
    for (const targets::Target* target : targets::all()) {
        const std::string name(target->name);
        INFO(name);
        CHECK(outcome_of("out.rgb = rgb * 0.5\nproof \"\" on " + name + " : abs(out.g - 0.5 * g) < 1e-6").passed);
    }
    CHECK(outcome_of("proof \"\" on hue_sweep : pos.x > 0 && pos.x < 1").passed);
    // A blur of a ramp lies within its ends.
    CHECK(outcome_of("out.rgb = blur(rgb, 20)\nproof \"\" on grey_ramp : out.r >= -0.2501 && out.r <= 4.0001").passed);
}

TEST_CASE("a proof with a condition is called off as others are", "[proof]") {
    const lang::Rule rule = good_rule("proof \"\" : out.r < 100");
    CancelToken cancel;
    cancel.cancel();
    CHECK_FALSE(
        proof::check(subject::Subject(rule), rule.proofs[0], std::vector<std::vector<double>>{defaults(rule)}, cancel));
}
