#include "support/support.hpp"

#include <set>

using namespace kasuri;
using namespace kasuri::test;

namespace {

proof::Outcome outcome_of(const std::string& text, const std::string& function, std::vector<std::vector<double>> settings = {}) {
    const lang::Rule rule = good_rule(text);
    if (settings.empty())
        settings = {defaults(rule)};
    const auto outcome = proof::check(rule, *engine::compile(rule), {"", function, std::nullopt, {}}, settings);
    REQUIRE(outcome);
    return *outcome;
}

} // namespace

TEST_CASE("identity: nothing moves at the defaults", "[proof]") {
    CHECK(outcome_of("", "identity").figure == 0);
    CHECK(outcome_of("param k = 0 in 0 .. 1\nout.g = mix(g, b, k)", "identity").passed);
    CHECK(outcome_of("let c = hsv(rgb)\nc.v *= 1\nout.rgb = rgb(c)", "identity").passed);
    const proof::Outcome off = outcome_of("param k = 0.5 in 0 .. 1\nout.g = mix(g, b, k)", "identity");
    CHECK_FALSE(off.passed);
    CHECK(off.figure > 0.1);
    CHECK(off.worst.before != off.worst.after);
    CHECK_FALSE(outcome_of("out.a = 0.5", "identity").passed); // alpha counts
    // Values do not matter: identity is about the defaults.
    CHECK(outcome_of("param k = 0 in 0 .. 1\nout.g = mix(g, b, k)", "identity", {{1.0}}).passed);
}

TEST_CASE("neutral: greys stay grey, with the worst place when they do not", "[proof]") {
    CHECK(outcome_of("out.rgb = mat3(0.5, 0.3, 0.2, 0.1, 0.8, 0.1, 0, 0.25, 0.75) * rgb", "neutral").passed);
    const proof::Outcome tinted = outcome_of("out.r = r + 0.001", "neutral");
    CHECK_FALSE(tinted.passed);
    CHECK(tinted.figure == Approx(0.001).margin(1e-6));
    const proof::Outcome scaled = outcome_of("out.b = b * 0.5", "neutral");
    CHECK(scaled.worst.target == "grey_ramp");
    CHECK(scaled.worst.index == scaled.worst.count - 1); // furthest apart at 4
    CHECK(scaled.figure == Approx(2).margin(0.02));
    // A NaN must not hide in a comparison.
    const proof::Outcome lost = outcome_of("out.r = sqrt(r)", "neutral");
    CHECK_FALSE(lost.passed);
    CHECK(std::isinf(lost.figure));
}

TEST_CASE("finite: NaN and infinities are counted", "[proof]") {
    CHECK(outcome_of("out.rgb = rgb * rgb", "finite").figure == 0);
    const proof::Outcome root = outcome_of("out.r = sqrt(r)", "finite");
    CHECK_FALSE(root.passed);
    CHECK(root.figure == 4 * 17 * 17); // four of the 17 levels are below 0
    CHECK(root.worst.before[0] < 0);
    CHECK(outcome_of("out.b = 1 / b", "finite").figure == 17 * 17);
}

TEST_CASE("without proof lines the ready-made ones stand, with them they do", "[proof]") {
    CHECK(proof::lines_of(good_rule("")).size() == proof::functions().size());
    const lang::Rule rule = good_rule("proof \"mine\" : neutral < 0.5\nout.r = r + 0.1");
    REQUIRE(proof::lines_of(rule).size() == 1);
    const auto outcome = proof::check(rule, *engine::compile(rule), proof::lines_of(rule)[0], std::vector<std::vector<double>>{{}});
    CHECK(outcome->passed);
    CHECK(outcome->title == "mine");
    CHECK(outcome->limit == 0.5);
}

TEST_CASE("settings reach both ends of every parameter, and the presets", "[proof]") {
    const lang::Rule rule = good_rule("param a1 = 0 in 0 .. 1\nparam b1 = 0 in -1 .. 1\npreset \"p\" a1 = 0.5, b1 = 0.5\nout.r = a1 + b1");
    const auto settings = proof::settings_of(rule);
    const auto has = [&](std::vector<double> wanted) { return std::find(settings.begin(), settings.end(), wanted) != settings.end(); };
    CHECK((has({0, 0}) && has({1, 0}) && has({0, 1}) && has({0, -1}) && has({1, 1}) && has({0.5, 0.5})));
    CHECK(std::set<std::vector<double>>(settings.begin(), settings.end()).size() == settings.size());
    // A fault that only shows at one end is found, and the end is named.
    const lang::Rule tint = good_rule("param k = 0 in 0 .. 1\nout.r = r + k * 0.1");
    const auto found = proof::check(tint, *engine::compile(tint), {"", "neutral", std::nullopt, {}}, proof::settings_of(tint));
    CHECK_FALSE(found->passed);
    CHECK(found->values == std::vector<double>{1});
}

TEST_CASE("the report names figure, limit, place and values", "[proof]") {
    const lang::Rule rule = good_rule("param k = 1 in 0 .. 1\nout.r = r + k");
    const auto outcome = proof::check(rule, *engine::compile(rule), {"greys", "neutral", std::nullopt, {}}, proof::settings_of(rule));
    const std::string report = proof::report(rule, *outcome);
    CHECK(report.starts_with("FAIL  greys  1 > 0.0001  worst on grey_ramp: ("));
    CHECK(report.find("at k = 1") != std::string::npos);
    CHECK(report.find("sampled") != std::string::npos);
}

TEST_CASE("the demo filters keep their promises", "[proof]") {
    int filters = 0;
    for (const auto& entry : std::filesystem::directory_iterator(KASURI_SOURCE_DIR "/data/filters")) {
        INFO(entry.path().string());
        const lang::Rule rule = good_rule(content_of(entry.path()));
        CHECK_FALSE(rule.note.empty());
        CHECK_FALSE(rule.parameters.empty());
        CHECK_FALSE(rule.presets.empty());
        CHECK_FALSE(rule.proofs.empty());
        const auto program = engine::compile(rule);
        for (const lang::ProofLine& line : rule.proofs) {
            const auto outcome = proof::check(rule, *program, line, proof::settings_of(rule));
            INFO(proof::report(rule, *outcome));
            CHECK(outcome->passed);
        }
        ++filters;
    }
    CHECK(filters >= 3);
}
