#include "fit/fit.hpp"
#include "lang/format.hpp"
#include "proof/proof.hpp"
#include "support/fitting.hpp"
#include "support/support.hpp"

#include <atomic>
#include <fmt/format.h>

using namespace kasuri;
using namespace kasuri::fit;
using namespace kasuri::test;
using Catch::Matchers::WithinAbs;

namespace {

constexpr double whole = 0.75 / 255; // what is nearer to an end was clipped, in pictures of whole numbers
constexpr char mixed[] = "out.rgb = mat3(0.8, 0.2, 0, 0.15, 0.7, 0.15, 0, 0.25, 0.75) * rgb\n";

/// A picture of smooth shapes, with noise and wrong pixels where they are asked for.
struct Shot {
    image::Picture before, after;
};
Shot shot(const std::string& rule, double noise, double wrong,
          const std::function<double(double, double)>& shade = {}) {
    constexpr int width = 160, height = 120;
    std::mt19937 random(9);
    Shot made;
    made.before = image::generated(width, height, [](int x, int y) {
        const double u = x / 160.0, v = y / 120.0;
        return std::array<double, 3>{0.5 + 0.4 * std::sin(9 * u + 3 * v), 0.5 + 0.4 * std::sin(5 * v - 7 * u),
                                     0.5 + 0.4 * std::cos(8 * u * v + 2 * v)};
    });
    made.before.space = "rec709-display";
    Pairs pairs;
    pairs.space = made.before.space;
    for (std::size_t i = 0; i < made.before.pixels(); ++i) {
        const auto at = made.before.at(i);
        pairs.add({at[0], at[1], at[2]}, {0, 0, 0});
    }
    const Planes clean = through(pairs.space, rule, pairs.from);
    made.after = image::generated(width, height, [&](int x, int y) {
        const auto i = static_cast<std::size_t>(y * width + x);
        std::array<double, 3> rgb{};
        const bool off = between(random, 0, 1) < wrong;
        for (std::size_t c = 0; c < 3; ++c)
            rgb[c] = off ? between(random, 0, 1)
                         : static_cast<double>(clean[c][i]) * (shade ? shade(x / 160.0, y / 120.0) : 1) +
                    noise * (between(random, -1.7320508, 1.7320508)); // of deviation 1
        return rgb;
    });
    made.after.space = made.before.space;
    return made;
}

} // namespace

TEST_CASE("a LUT of a matrix gives the matrix, in round numbers, as a rule that proves itself", "[fit]") {
    Pairs pairs = made_by("rec709-display", mixed, 9, true);
    pairs.title = "a \"quoted\"\nname.cube";
    const auto found = fit::fit(pairs);
    REQUIRE(found);
    const Candidate& best = found.value().candidates[found.value().best];
    CHECK(best.family->name == "matrix-balanced");
    CHECK(best.body.find("mat3(0.8, 0.2, 0,") != std::string::npos);
    CHECK(best.body.find("0, 0.25, 0.75)") != std::string::npos);
    const std::string text = rule_text(best, pairs);
    CHECK(lang::formatted(text) == text); // as an artist would have it
    const lang::Checked checked = lang::check(text, proof::vocabulary());
    for (const auto& diagnostic : checked.diagnostics)
        UNSCOPED_INFO(lang::message(diagnostic));
    REQUIRE(checked.ok);
    CHECK(checked.diagnostics.empty());
    const auto lines = proof::lines_of(checked.rule);
    CHECK(lines.size() == 6);
    for (const auto& line : lines) {
        const auto outcome = proof::check(subject::Subject(checked.rule), line, proof::settings_of(checked.rule));
        REQUIRE(outcome);
        CHECK(outcome->passed);
    }
    // And a rule that is another one does not pass.
    std::string spoiled = text;
    spoiled.replace(spoiled.find("0.25"), 4, "0.26");
    const lang::Checked other = lang::check(spoiled, proof::vocabulary());
    REQUIRE(other.ok);
    int failed = 0;
    for (const auto& line : proof::lines_of(other.rule))
        failed += !proof::check(subject::Subject(other.rule), line, proof::settings_of(other.rule))->passed;
    CHECK(failed > 0);
}

TEST_CASE("parameters that stay are those of the rule, and its proofs hold beside their values", "[fit]") {
    const Pairs pairs = made_by("rec709-linear", "out.rgb = saturate(rgb, 1.35)\n", 9, true);
    const auto found = fit::fit(pairs);
    REQUIRE(found);
    const Candidate& best = found.value().candidates[found.value().best];
    REQUIRE(best.family->name == "saturation");
    const std::string text = rule_text(best, pairs);
    CHECK(text.find("param saturation = 1.35 in 0.3 .. 1.7") != std::string::npos);
    const lang::Checked checked = lang::check(text, proof::vocabulary());
    REQUIRE(checked.ok);
    for (const auto& line : proof::lines_of(checked.rule))
        CHECK(proof::check(subject::Subject(checked.rule), line, proof::settings_of(checked.rule))->passed);
}

TEST_CASE("what was clamped is fitted where it was not, and clamped again", "[fit]") {
    const Pairs pairs = made_by("rec709-display", "out.rgb = clamp(rgb * 1.6 - 0.2, 0, 1)\n", 17, true);
    const auto found = fit::fit(pairs);
    REQUIRE(found);
    const Candidate& best = found.value().candidates[found.value().best];
    CHECK(best.family->name == "gain-offset");
    CHECK(best.clamped);
    CHECK_THAT(best.values[0], WithinAbs(1.6, 1e-4));
    CHECK(best.body.find("clamp(out.rgb, 0, 1)") != std::string::npos);
    const auto untouched = fit::fit(made_by("rec709-display", "", 9, true));
    REQUIRE(untouched);
    CHECK(untouched.value().candidates[untouched.value().best].family->name == "identity");
    CHECK_FALSE(untouched.value().candidates[untouched.value().best].clamped);
}

TEST_CASE("two pictures give the rule through noise and wrong pixels", "[fit]") {
    const Shot pictures = shot(mixed, 0.01, 0.05);
    const auto pairs = pairs_of(pictures.before, pictures.after, 0);
    REQUIRE(pairs);
    CHECK(pairs.value().pairs.noisy);
    const auto found = fit::fit(pairs.value().pairs);
    REQUIRE(found);
    const Candidate& best = found.value().candidates[found.value().best];
    CHECK(best.family->name == "matrix-balanced");
    const double wanted[] = {0.2, 0, 0.15, 0.15, 0, 0.25};
    for (std::size_t i = 0; i < best.values.size(); ++i)
        CHECK_THAT(best.values[i], WithinAbs(wanted[i], 0.006));
    CHECK(found.value().unexplained < 0.2); // the wrong ones
    // A shade over the picture is nothing that a colour explains.
    const Shot shaded = shot(mixed, 0.002, 0, [](double u, double v) { return 1 - 0.7 * (u * u + v * v); });
    const auto dark = pairs_of(shaded.before, shaded.after, 0);
    REQUIRE(dark);
    const Shot even = shot(mixed, 0.002, 0);
    const auto plain = pairs_of(even.before, even.after, 0);
    CHECK(repeats(dark.value().pairs).unexplained > 0.1);
    CHECK(repeats(plain.value().pairs).unexplained < 0.02);
}

TEST_CASE("pictures that do not fit each other are refused, and clipped pixels left out", "[fit]") {
    const image::Picture small = image::generated(4, 4, [](int, int) { return std::array{0.5, 0.5, 0.5}; });
    image::Picture large = image::generated(8, 4, [](int x, int) { return std::array{x / 7.0, 0.5, 0.5}; });
    CHECK(pairs_of(small, large, whole).error().what.find("4 x 4") != std::string::npos);
    image::Picture other = large;
    other.space = "srgb";
    CHECK(pairs_of(large, other, whole).error().what.find("srgb") != std::string::npos);
    const auto pairs = pairs_of(large, large, whole);
    REQUIRE(pairs);
    CHECK(pairs.value().clipped == 8); // the first column and the last
    CHECK(pairs.value().pairs.size() == 24);
    const image::Picture black = image::generated(4, 4, [](int, int) { return std::array{0.0, 0.0, 0.0}; });
    CHECK_FALSE(pairs_of(black, black, whole));
}

TEST_CASE("a table of colours is read, and what is wrong with it is told by its line", "[fit]") {
    const auto good = pairs_of("r,g,b,R,G,B\n# a comment\n0.1, 0.2, 0.3, 0.4, 0.5, 0.6\n1;2;3;4;5;6;0.5\n\n", "t.csv");
    REQUIRE(good);
    CHECK(good.value().size() == 2);
    CHECK(good.value().from[1][0] == 0.2F);
    CHECK(good.value().weights == std::vector<float>{1, 0.5F});
    for (const char* bad :
         {"1,2,3\n", "1,2,3,4,5,6\n1,2,3,4,5,x\n", "1,2,3,4,5,6,0\n", "1,2,3,4,5,nan\n", "", "a,b\n"}) {
        CAPTURE(bad);
        const auto pairs = pairs_of(std::string_view(bad), "t.csv");
        REQUIRE_FALSE(pairs);
        CHECK(pairs.error().where == "t.csv");
    }
    CHECK(pairs_of("1,2,3,4,5,6\n1,2,3,4,5,x\n", "t.csv").error().what.find("line 2") != std::string::npos);
}

TEST_CASE("a fit can be called off, before and in the middle, and tells of each candidate as it comes", "[fit]") {
    const Pairs pairs = made_by("rec709-display", mixed, 9, true);
    CancelToken cancel;
    cancel.cancel();
    CHECK(fit::fit(pairs, {}, cancel).error().what == "called off");
    CancelToken later;
    std::atomic<int> came{0};
    const auto stopped = fit::fit(pairs, {}, later, [&](const Candidate&) {
        if (++came == 3)
            later.cancel();
    });
    CHECK_FALSE(stopped);
    CHECK(came < 10);
    CHECK_FALSE(fit::fit(Pairs{}));
}

TEST_CASE("the description is as long as its definition says", "[fit]") {
    CHECK_THAT(description_length(9, 1024, 1e-6, 1e-5), WithinAbs(45, 1e-9));     // 9 * 10 / 2
    CHECK_THAT(description_length(2, 256, 4e-5, 1e-5), WithinAbs(8 + 512, 1e-9)); // and 2 bits for each of 256
    CHECK(description_length(2, 256, std::nan(""), 1e-5) > description_length(2, 256, 1e3, 1e-5)); // no numbers: worst
}

TEST_CASE("the row from simple to exact gets better with every number", "[fit]") {
    const Pairs pairs =
        made_by("rec709-display", "out.rgb = spow(rgb.grb, 1.3) * vec3(1, 0.9, 0.8) + 0.05 * rgb.bgr\n", 9, true);
    const auto found = fit::fit(pairs);
    REQUIRE(found);
    const auto row = simple_to_exact(found.value());
    REQUIRE(row.size() > 2);
    CHECK(std::find(row.begin(), row.end(), found.value().best) != row.end());
    for (std::size_t i = 1; i < row.size(); ++i)
        CHECK(found.value().candidates[row[i]].values.size() >= found.value().candidates[row[i - 1]].values.size());
}

TEST_CASE("rules that read more than a colour are refused", "[fit]") {
    for (const char* text : {"out.r = pos.x", "out.rgb = blur(rgb, 2)", "source lamp\nout.rgb = lamp.rgb"}) {
        const auto pairs = pairs_of(subject::Subject(good_rule(text)), 9, 0, 1);
        REQUIRE_FALSE(pairs);
        CHECK(pairs.error().what.find("more than a function of a colour") != std::string::npos);
    }
    CHECK_FALSE(pairs_of(subject::Subject(good_rule("out.r = sqrt(r - 0.5)")), 9, 0, 1));
    const auto pairs = pairs_of(subject::Subject(good_rule("working srgb\nout.r = g")), 5, -0.5, 1.5);
    REQUIRE(pairs);
    CHECK(pairs.value().size() == 125);
    CHECK(pairs.value().space == "srgb");
    CHECK(pairs.value().from[0][0] == -0.5F);
    CHECK(pairs.value().to[0][24] == 1.5F);
}

TEST_CASE("knots where no colour is stay on the straight line", "[fit]") {
    // Colours below 0.4 alone, with noise: nothing is known of the upper knots.
    std::mt19937 random(4);
    Pairs pairs;
    pairs.space = "rec709-display";
    pairs.noisy = true;
    for (int i = 0; i < 2000; ++i) {
        std::array<float, 3> from{}, to{};
        for (std::size_t c = 0; c < 3; ++c) {
            from[c] = static_cast<float>(between(random, 0, 0.4));
            to[c] = 1.2F * from[c] + static_cast<float>(between(random, -0.01, 0.01));
        }
        pairs.add(from, to);
    }
    Options options;
    options.families = {"curves-9"};
    options.spaces = {pairs.space};
    const auto found = fit::fit(pairs, options);
    REQUIRE(found);
    const std::vector<double>& knots = found.value().candidates.front().values;
    for (std::size_t c = 0; c < 3; ++c) {
        CHECK_THAT(knots[9 * c + 2], WithinAbs(1.2 * 0.25, 0.01));
        for (std::size_t k = 5; k < 9; ++k)
            CHECK_THAT(knots[9 * c + k], WithinAbs(static_cast<double>(k) / 8, 0.2));
    }
}

TEST_CASE("greys are kept where that is asked, and only proved rules are offered then", "[fit]") {
    // Its rows sum to 1.02, 0.99 and 1.
    const Pairs pairs =
        made_by("rec709-linear", "out.rgb = mat3(0.82, 0.2, 0, 0.15, 0.69, 0.15, 0, 0.25, 0.75) * rgb\n", 9, true);
    Options options;
    options.spaces = {pairs.space};
    const auto free = fit::fit(pairs, options);
    options.keep_greys = true;
    const auto kept = fit::fit(pairs, options);
    REQUIRE(free);
    REQUIRE(kept);
    CHECK(free.value().candidates[free.value().best].family->name == "matrix");
    CHECK(kept.value().candidates.size() < free.value().candidates.size() / 2);
    bool balanced = false;
    for (const Candidate& candidate : kept.value().candidates) {
        CAPTURE(candidate.family->name);
        balanced = balanced || candidate.family->name == "matrix-balanced";
        const Planes grey = through(pairs.space, candidate.body, {{{0.3F}, {0.3F}, {0.3F}}});
        for (const auto& plane : grey)
            CHECK_THAT(static_cast<double>(plane[0]), WithinAbs(0.3, 1e-6));
    }
    CHECK(balanced);
}
