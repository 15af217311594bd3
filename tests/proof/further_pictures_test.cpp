// Promises of rules that read further pictures, and what is said of them where there is none.
#include "insight/algebra.hpp"
#include "proof/report.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

proof::Outcome outcome(const subject::Subject& subject, const std::string& function) {
    lang::ProofLine line;
    line.function = function;
    const auto made = proof::check(subject, line, proof::settings_of(*subject.rule()));
    REQUIRE(made);
    return *made;
}

subject::Bindings lamp_of(float value) {
    return {{"lamp",
             {std::make_shared<const image::Picture>(image::generated(8, 8,
                                                                      [&](int, int) {
                                                                          return std::array{value, value, value};
                                                                      })),
              "lamp.exr", "1"}}};
}

} // namespace

TEST_CASE("a further picture is no black picture: what depends on it is measured with several", "[proof]") {
    const proof::Outcome matte = outcome(good_rule("source matte : float\nout.rgb = rgb * (1 - matte)"), "identity");
    CHECK_FALSE(matte.passed);
    CHECK_FALSE(matte.proved);
    CHECK(matte.varied == std::vector<std::string>{"matte"});
    CHECK(matte.variations == static_cast<int>(subject::source_variations));
    CHECK(matte.at == "matte = 1");
    const std::string said = proof::report(matte);
    INFO(said);
    CHECK(said.starts_with("FAIL"));
    CHECK(said.find("there is no picture for it") != std::string::npos);
    // What holds whatever it is, is shown.
    const proof::Outcome kept = outcome(good_rule("source matte : float\nout.rgb = mix(rgb, rgb, matte)"), "identity");
    CHECK(kept.passed);
    CHECK(kept.proved);
    // Every function: a lamp that is coloured makes greys coloured, and all along a ramp it is the same.
    CHECK_FALSE(outcome(good_rule("source lamp : vec3\nout.rgb = rgb + lamp"), "neutral").passed);
    CHECK(outcome(good_rule("source matte : float\nout.rgb = rgb * matte"), "neutral").proved);
    CHECK(outcome(good_rule("source lamp : vec3\nout.rgb = rgb + lamp"), "monotonic").passed);
    CHECK(outcome(good_rule("source lamp : vec3\nout.rgb = rgb + 0.5 * lamp"), "folds").passed);
    CHECK_FALSE(outcome(good_rule("source matte : float\nout.rgb = rgb * (1 - matte)"), "invertible").passed);
    const lang::Rule condition =
        good_rule("source matte : float\nout.rgb = rgb * matte\nproof \"p\" : out.r <= 16 * matte");
    const auto held = proof::check(condition, condition.proofs[0], std::vector<std::vector<double>>{{}});
    CHECK(held->passed);
}

TEST_CASE("a picture that is there is what is measured", "[proof]") {
    const subject::Subject rule = good_rule("source lamp : vec3\nout.rgb = rgb + lamp");
    const proof::Outcome dark = outcome(rule.with_bindings(lamp_of(0)), "identity");
    CHECK(dark.passed);
    CHECK_FALSE(dark.proved); // of this picture, not of all
    CHECK(dark.varied.empty());
    CHECK_FALSE(outcome(rule.with_bindings(lamp_of(0.5f)), "identity").passed);
    CHECK(outcome(rule.with_bindings(lamp_of(0.5f)), "neutral").passed);
}

TEST_CASE("two rules that read one picture read the same", "[proof]") {
    const auto equal = [](const std::string& a, const std::string& b) {
        lang::ProofLine line;
        line.function = "equals";
        line.other = std::make_shared<const lang::Rule>(good_rule(b));
        return *proof::check(good_rule(a), line, std::vector<std::vector<double>>{{}});
    };
    CHECK_FALSE(equal("source matte : float\nout.rgb = rgb * (1 - matte)", "").passed);
    CHECK(equal("source matte : float\nout.rgb = rgb * matte", "source matte : float\nout.rgb = matte * rgb").proved);
    // The first of one is not the first of the other.
    CHECK_FALSE(
        equal("source matte : float\nout.rgb = rgb * matte", "source veil : float\nout.rgb = rgb * veil").passed);
    CHECK(equal("source a1 : float\nsource b1 : float\nout.r = a1 + 0 * b1",
                "source b1 : float\nsource a1 : float\nout.r = a1 + 0 * b1")
              .passed);
}

TEST_CASE("what fails is not called proved, though algebra cancels it", "[proof]") {
    for (const char* text : {"out.rgb = pow(rgb, vec3(0.8))", "out.rgb = sqrt(rgb)", "out.rgb = log(rgb)",
                             "param k = 0 in 0 .. 1\nout.rgb = rgb * sqrt(0.5 - k) / sqrt(0.5 - k)"}) {
        INFO(text);
        const proof::Outcome made = outcome(good_rule(text), "neutral");
        CHECK_FALSE(made.passed);
        CHECK(made.shown);
        CHECK_FALSE(made.proved);
        CHECK(proof::report(made).find("[proved") == std::string::npos);
        CHECK(proof::report(made).find("where the rule gives numbers") != std::string::npos);
    }
    CHECK(outcome(good_rule("out.rgb = spow(rgb, 0.8)"), "neutral").proved);
}
