// Colours that stay apart for other eyes.
#include "colour/difference.hpp"
#include "colour/models/models.hpp"
#include "colour/vision.hpp"
#include "proof/ready_made.hpp"
#include "proof/report.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

proof::Outcome outcome(const std::string& text) {
    const lang::Rule rule = good_rule(text);
    const auto settings = proof::settings_of(rule);
    const auto made = proof::check(subject::Subject(rule), rule.proofs.at(0), settings);
    REQUIRE(made);
    return *made;
}

std::string codes(const std::string& text) {
    std::string all;
    for (const lang::Diagnostic& d : lang::check(text, proof::vocabulary()).diagnostics)
        all += std::string(lang::row(d.code).id) + " ";
    return all;
}

/// CIEDE2000 of two colours of linear BT.709, worked out here.
double far(const colour::Triple& a, const colour::Triple& b) {
    const colour::Space& space = *colour::find_space("rec709-linear");
    return colour::ciede2000(from_rgb(colour::lab_model, space, a), from_rgb(colour::lab_model, space, b));
}

} // namespace

TEST_CASE("the smallest difference of colours through each kind of eyes", "[proof][vision]") {
    const proof::Outcome same = outcome("out.rgb = rgb\nproof \"x\" on (0.4, 0.1, 0.1), (0.1, 0.1, 0.4) : apart > 5");
    CHECK(same.passed);
    CHECK(same.relation == ">=");
    using colour::operator*;
    const colour::Triple red = {0.4, 0.1, 0.1}, blue = {0.1, 0.1, 0.4};
    double least = far(red, blue);
    for (const colour::Deficiency& who : colour::deficiencies())
        least = std::min(least, far(colour::seen_by(who, 1) * red, colour::seen_by(who, 1) * blue));
    for (const colour::Dichromat& who : colour::dichromats())
        least = std::min(least, far(colour::seen_by(who, red), colour::seen_by(who, blue)));
    CHECK(same.figure == Approx(least).epsilon(1e-4));
    CHECK(same.worst.target.find("seen by") != std::string::npos);
    // A deuteranope confuses what differs along the missing cone only: take a red and what it is seen as.
    const auto who = std::find_if(colour::dichromats().begin(), colour::dichromats().end(),
                                  [](const colour::Dichromat& d) { return d.name == "deuteranope"; });
    const colour::Triple confused = colour::seen_by(*who, {0.5, 0.2, 0.1});
    const auto text = [](const colour::Triple& c) { return fmt::format("({:.9f}, {:.9f}, {:.9f})", c[0], c[1], c[2]); };
    const proof::Outcome alike =
        outcome("out.rgb = rgb\nproof \"x\" on (0.5, 0.2, 0.1), " + text(confused) + " : apart > 5");
    CHECK_FALSE(alike.passed);
    CHECK(alike.figure < 0.01);
    CHECK(alike.worst.target.starts_with("these colours, seen by deuteranope"));
    CHECK(proof::report(alike).starts_with("FAIL"));
    CHECK(far({0.5, 0.2, 0.1}, confused) > 20); // most people see it at once
    CHECK_FALSE(alike.proved);
}

TEST_CASE("without colour vision, equal luminance is alike", "[proof][vision]") {
    // Red and green of one luminance: 0.2126 r = 0.7152 g, by the digits of the matrix to XYZ.
    const std::string on = " on (0.71516867876775593, 0, 0), (0, 0.21263900587151027, 0) : ";
    CHECK(outcome("out.rgb = rgb\nproof \"x\"" + on + "apart_for_everyone").figure < 0.01);
    CHECK(outcome("out.rgb = rgb\nproof \"x\"" + on + "apart").figure > 1);
    // It is measured behind the rule, in its working space, at every setting.
    const proof::Outcome grey =
        outcome("param s = 0 in 0 .. 1\nout.rgb = mix(rgb, vec3(luminance(rgb)), s)\nproof \"x\"" + on + "apart > 5");
    CHECK_FALSE(grey.passed);
    CHECK(grey.at == "s = 1");
    CHECK(outcome("working srgb\nout.rgb = rgb\nproof \"x\" on (0, 0, 0), (1, 1, 1) : apart > 99").passed);
    CHECK(outcome("out.rgb = rgb / 0\nproof \"x\" on (0, 0, 0), (1, 1, 1) : apart").figure == 0);
    // Of three colours: the two that are nearest.
    const double two = outcome("out.rgb = rgb\nproof \"x\" on (0.4, 0.1, 0.1), (0.1, 0.1, 0.4) : apart").figure,
                 three =
                     outcome("out.rgb = rgb\nproof \"x\" on (0.4, 0.1, 0.1), (0.1, 0.1, 0.4), (0.4, 0.1, 0.11) : apart")
                         .figure;
    CHECK(three < two);
    CHECK(three > 0);
}

TEST_CASE("without two colours nothing is apart", "[proof]") {
    const lang::Rule rule = good_rule("out.rgb = blur(rgb, 20)");
    for (const std::size_t count : {0u, 1u}) {
        lang::ProofLine line;
        line.function = "apart";
        line.colours.assign(count, {0.5, 0.1, 0.1});
        const auto made = proof::check(subject::Subject(rule), line, proof::settings_of(rule));
        REQUIRE(made);
        CHECK_FALSE(made->passed);
        CHECK(made->figure == 0);
    }
}

TEST_CASE("conditions take several colours, and what is missing or turned round is said", "[proof]") {
    const proof::Outcome both = outcome("out.r = g\nproof \"x\" on (0.6, 0.1, 0.1), (0.2, 0.3, 0.1) : out.r <= r");
    CHECK_FALSE(both.passed); // the second gains red
    CHECK(both.worst.index == 1);
    CHECK(both.worst.count == 2);
    CHECK(both.doc.find("(0.6, 0.1, 0.1), (0.2, 0.3, 0.1)") != std::string::npos);
    CHECK(outcome("out.r = g\nproof \"x\" on (0.6, 0.1, 0.1), (0.4, 0.3, 0.1) : out.r <= r").passed);
    CHECK(codes("out.r = g\nproof \"x\" : apart > 3") == "K316 ");
    CHECK(codes("out.r = g\nproof \"x\" on (1, 0, 0) : apart > 3") == "K316 ");
    CHECK(codes("out.r = g\nproof \"x\" on (1, 0, 0), (0, 1, 0) : apart < 3") == "K317 ");
    CHECK(codes("out.r = g\nproof \"x\" : neutral > 3") == "K317 ");
    CHECK(codes("out.r = g\nproof \"x\" on (1, 0, 0), (0, 1, 0) : neutral").find("K314") != std::string::npos);
    CHECK_FALSE(codes("out.r = g\nproof \"x\" on (1, 0, 0), : neutral").empty());
    CHECK_FALSE(codes("out.r = g\nproof \"x\" on (1, 0, 0), grey_ramp : finite").empty());
    int offered = 0;
    for (const proof::ReadyMade& row : proof::ready_made())
        if (row.line.find("apart") != std::string::npos) {
            std::string line = row.line;
            std::erase(line, '$');
            CHECK(outcome("out.rgb = rgb\n" + line).samples > 0);
            ++offered;
        }
    CHECK(offered == 2);
}
