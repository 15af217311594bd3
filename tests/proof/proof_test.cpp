#include "support/shipped.hpp"
#include "support/support.hpp"

#include <map>
#include <set>

using namespace kasuri;
using namespace kasuri::test;

namespace {

proof::Outcome outcome_of(const std::string& text, const std::string& function,
                          std::vector<std::vector<double>> settings = {}) {
    const lang::Rule rule = good_rule(text);
    if (settings.empty())
        settings = {defaults(rule)};
    const auto outcome = proof::check(subject::Subject(rule), {"", function, std::nullopt, {}}, settings);
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
    const auto usual = proof::lines_of(good_rule(""));
    REQUIRE(usual.size() == 3);
    CHECK((usual[0].function == "identity" && usual[1].function == "neutral" && usual[2].function == "finite"));
    const lang::Rule rule = good_rule("proof \"mine\" : neutral < 0.5\nout.r = r + 0.1");
    REQUIRE(proof::lines_of(rule).size() == 1);
    const auto outcome =
        proof::check(subject::Subject(rule), proof::lines_of(rule)[0], std::vector<std::vector<double>>{{}});
    CHECK(outcome->passed);
    CHECK(outcome->title == "mine");
    CHECK(outcome->limit == 0.5);
}

TEST_CASE("settings reach both ends of every parameter, and the presets", "[proof]") {
    const lang::Rule rule =
        good_rule("param a1 = 0 in 0 .. 1\nparam b1 = 0 in -1 .. 1\npreset \"p\" a1 = 0.5, b1 = 0.5\nout.r = a1 + b1");
    const auto settings = proof::settings_of(rule);
    const auto has = [&](std::vector<double> wanted) {
        return std::find(settings.begin(), settings.end(), wanted) != settings.end();
    };
    CHECK((has({0, 0}) && has({1, 0}) && has({0, 1}) && has({0, -1}) && has({1, 1}) && has({0.5, 0.5})));
    CHECK(std::set<std::vector<double>>(settings.begin(), settings.end()).size() == settings.size());
    // A fault that only shows at one end is found, and the end is named.
    const lang::Rule tint = good_rule("param k = 0 in 0 .. 1\nout.r = r + k * 0.1");
    const auto found =
        proof::check(subject::Subject(tint), {"", "neutral", std::nullopt, {}}, proof::settings_of(tint));
    CHECK_FALSE(found->passed);
    CHECK(found->values == std::vector<double>{1});
}

TEST_CASE("the report names figure, limit, place and values", "[proof]") {
    const lang::Rule rule = good_rule("param k = 1 in 0 .. 1\nout.r = r + k");
    const auto outcome =
        proof::check(subject::Subject(rule), {"greys", "neutral", std::nullopt, {}}, proof::settings_of(rule));
    const std::string report = proof::report(*outcome);
    CHECK(report.starts_with("FAIL  greys  1 > 0.0001  worst on grey_ramp: ("));
    CHECK(report.find("at k = 1") != std::string::npos);
    CHECK(report.find("sampled") != std::string::npos);
}

TEST_CASE("the demo filters keep their promises", "[proof]") {
    int filters = 0;
    for (const std::filesystem::path& path : test::shipped_filters()) {
        INFO(path.string());
        const lang::Rule rule = good_rule(content_of(path));
        CHECK_FALSE(rule.note.empty());
        CHECK_FALSE(rule.parameters.empty());
        CHECK_FALSE(rule.presets.empty());
        CHECK_FALSE(rule.proofs.empty());
        const auto program = engine::compile(rule);
        for (const lang::ProofLine& line : rule.proofs) {
            const auto outcome = proof::check(subject::Subject(rule), line, proof::settings_of(rule));
            INFO(proof::report(*outcome));
            CHECK(outcome->passed);
        }
        ++filters;
    }
    CHECK(filters >= 3);
}

TEST_CASE("sums, luminance and reversals", "[proof]") {
    CHECK(outcome_of("out.rgb = mat3(0.5, 0.3, 0.2, 0.1, 0.8, 0.1, 0, 0.25, 0.75) * rgb", "sums").proved);
    const proof::Outcome gain = outcome_of("out.rgb = rgb * 0.5", "sums");
    CHECK_FALSE((gain.passed || gain.proved));
    CHECK(gain.figure == Approx(0.5).margin(1e-3));
    const proof::Outcome kept =
        outcome_of("working rec709-linear\nout.rgb = max(rgb.grb, 0)\nkeep luminance", "luminance");
    CHECK(kept.passed);
    CHECK_FALSE(outcome_of("out.rgb = rgb.grb", "luminance").passed);
    // By hand: what is taken of red must be given to green in the proportion of their luminances (the digits of CSS
    // Color 4's matrix to XYZ). With the rounded factors of BT.709, item 3.2, it holds to four digits, and is not
    // proved.
    CHECK(
        outcome_of("out.r = r - 0.71516867876775593 * (r - g)\nout.g = g + 0.21263900587151027 * (r - g)", "luminance")
            .proved);
    const proof::Outcome rounded =
        outcome_of("out.r = r - 0.7152 * (r - g)\nout.g = g + 0.2126 * (r - g)", "luminance");
    CHECK((rounded.passed && !rounded.proved && rounded.figure > 1e-6));
    CHECK(outcome_of("working srgb\nout.rgb = vec3(0.5)", "luminance").figure > 0.1);
    CHECK(outcome_of("out.rgb = rgb * rgb * rgb", "monotonic").passed);
    const proof::Outcome wave = outcome_of("out.g = sin(6.283185 * g)", "monotonic");
    CHECK_FALSE(wave.passed);
    CHECK(wave.worst.target == "grey_ramp");
    CHECK(std::isinf(outcome_of("out.r = sqrt(r)", "monotonic").figure)); // NaN below 0
}

TEST_CASE("folds, inverses and noise come from the slopes", "[proof]") {
    CHECK(outcome_of("", "folds").proved);
    CHECK(outcome_of("out.rgb = rgb.grb", "folds").passed); // all of it is turned over: no fold
    CHECK(outcome_of("out.rgb = rgb.grb", "invertible").proved);
    const proof::Outcome bump = outcome_of("out.r = 4 * r * (1 - r)", "folds"); // rises up to 0.5, falls above it
    CHECK(bump.figure == 8 * 16 * 16);
    CHECK_FALSE(bump.proved);
    CHECK(outcome_of("out.r = r * r", "folds").passed);
    const proof::Outcome dyes = outcome_of(
        "param meet = 1 in 0 .. 1\nlet s = 0.5 * g + 0.5 * b\nout.g = mix(g, s, meet)\nout.b = mix(b, s, meet)",
        "invertible");
    CHECK(dyes.figure == 4096);
    CHECK(outcome_of("out.b = out.g", "folds").passed); // lost, not folded
    // Past the middle of a swap all colours are turned the other way than at the default, and on the way there a
    // dimension was lost.
    const std::string swap = "param s = 0 in 0 .. 1\nout.gb = mix(out.gb, out.bg, s)";
    CHECK(outcome_of(swap, "folds", {{0.4}}).proved);
    CHECK(outcome_of(swap, "folds", {{0.6}}).figure == 4096);
    CHECK_FALSE(outcome_of(swap, "invertible", {{0.5}}).passed);
    CHECK_FALSE(outcome_of("out.r = pow(r, 3) * 0 + clamp(r, 0.2, 0.8)", "invertible").passed);
    // 3 r - g - b: sqrt(9 + 1 + 1), by the rule of error propagation (JCGM 100, 5.1.2).
    CHECK(outcome_of("out.r = 3 * r - g - b", "noise").figure == Approx(std::sqrt(11.0)).margin(1e-5));
    CHECK(outcome_of("", "noise").figure == Approx(1));
}

TEST_CASE("nothing leaves 0 to 1", "[proof]") {
    CHECK(outcome_of("out.rgb = mat3(0.5, 0.3, 0.2, 0.1, 0.8, 0.1, 0, 0.25, 0.75) * rgb", "inside").proved);
    const proof::Outcome over = outcome_of("out.r = 1.25 * r - 0.125", "inside");
    CHECK_FALSE((over.passed || over.proved));
    CHECK(over.figure == Approx(0.125));
    CHECK(outcome_of("out.rgb = clamp(rgb * 3, 0, 1)", "inside").passed);
    CHECK_FALSE(outcome_of("out.rgb = rgb / (rgb - 0.5)", "inside").passed);
}

TEST_CASE("a promise about one colour", "[proof]") {
    const auto check = [](const std::string& text) {
        const lang::Rule rule = good_rule(text);
        return *proof::check(subject::Subject(rule), rule.proofs.at(0), proof::settings_of(rule));
    };
    const proof::Outcome held =
        check("proof \"skin keeps its hue\" on (0.72, 0.49, 0.4) : abs(hsv(out.rgb).h - hsv(rgb).h) < 0.01\nout.rgb = "
              "rgb.grb * 0.9\nhold hue of (0.72, 0.49, 0.4) in hsv");
    CHECK(held.passed);
    CHECK(held.samples == 1);
    CHECK(held.worst.before[1] == 0.49f);
    const proof::Outcome lands = check("proof \"lands\" on (0.5, 0.25, 0.125) : delta_e_2000(lab(out.rgb), "
                                       "lab(vec3(0.25, 0.5, 0.125))) < 0.1\nout.rgb = rgb.grb");
    CHECK(lands.passed);
    CHECK_FALSE(check("proof \"lands\" on (-0.5, 0.25, 0.125) : delta_e_2000(lab(out.rgb), lab(vec3(0.25, 0.5, "
                      "0.125))) < 0.1\nout.rgb = rgb.grb")
                    .passed);
}

TEST_CASE("what is proved is not contradicted by what is measured", "[proof]") {
    for (const std::filesystem::path& path : test::shipped_filters()) {
        INFO(path.string());
        const lang::Rule rule = good_rule(content_of(path));
        const auto program = engine::compile(rule);
        for (const proof::Function* function : proof::functions()) {
            if (function->compares) // there is nothing to compare with
                continue;
            lang::ProofLine line;
            line.function = function->name;
            const auto outcome = proof::check(subject::Subject(rule), line, proof::settings_of(rule));
            INFO(proof::report(*outcome));
            CHECK((!outcome->proved || outcome->passed));
        }
    }
}

TEST_CASE("a filter is compared with another one, and undone by it", "[proof]") {
    const std::map<std::string, std::string> files = {
        {"same.kasuri",
         "param meet = 1 in 0 .. 1\nlet half = 0.5 * meet * (b - g)\nout.g += half\nout.b -= half\nproof \"x\" : "
         "equals \"same.kasuri\""}, // its own proofs play no part
        {"other.kasuri", "out.g = b"},
        {"encoded.kasuri", "working srgb\nout.rgb = srgb_encode(srgb_decode(rgb) * 2)"},
        {"halved.kasuri", "out.rgb = rgb / 2"},
        {"broken.kasuri", "out.r = "},
    };
    lang::CheckOptions options;
    options.open = [&](const std::string& name) -> Result<std::string> {
        const auto found = files.find(name);
        return found == files.end() ? Result<std::string>(Error{"is not there", name, ""})
                                    : Result<std::string>(found->second);
    };
    const auto checked = [&](const std::string& text) { return lang::check(text, proof::vocabulary(), options); };
    const auto outcome = [&](const std::string& text) {
        const lang::Checked made = checked(text);
        REQUIRE(made.ok);
        return *proof::check(subject::Subject(made.rule), made.rule.proofs.at(0), proof::settings_of(made.rule));
    };
    const std::string dyes = "param meet = 0 in 0 .. 1\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, shared, "
                             "meet)\nout.b = mix(b, shared, meet)\n";
    const proof::Outcome same = outcome(dyes + "proof \"same\" : equals \"same.kasuri\" < 1e-6");
    CHECK((same.passed && same.proved));
    CHECK(same.limit == 1e-6);
    const proof::Outcome other = outcome("proof \"same\" : equals \"other.kasuri\"");
    CHECK_FALSE((other.passed || other.proved));
    CHECK(other.figure > 0.9); // |g - b| over the larger: of 16 and -1 more than 1
    const proof::Outcome spaces = outcome("out.rgb = rgb * 2\nproof \"same\" : equals \"encoded.kasuri\" < 1e-4");
    CHECK((spaces.passed && !spaces.proved)); // in another space: the same light
    CHECK(outcome("out.rgb = rgb * 2\nproof \"back\" : undoes \"halved.kasuri\"").figure == 0);
    CHECK_FALSE(outcome("out.rgb = rgb * 3\nproof \"back\" : undoes \"halved.kasuri\"").passed);
    const auto code = [&](const std::string& text) {
        const lang::Checked made = checked(text);
        return made.diagnostics.empty() ? std::string() : std::string(lang::row(made.diagnostics[0].code).id);
    };
    CHECK(code("proof \"x\" : equals") == "K315");
    CHECK(code("proof \"x\" : neutral \"same.kasuri\"") == "K315");
    CHECK(code("proof \"x\" : equals \"nowhere.kasuri\"") == "K221");
    CHECK(code("proof \"x\" : undoes \"broken.kasuri\"") == "K221");
    CHECK(code("proof \"x\" on grey_ramp : equals \"same.kasuri\"") == "K314");
}

TEST_CASE("how far a table of 33 points is from the rule", "[proof]") {
    CHECK(outcome_of("out.rgb = mat3(0.5, 0.3, 0.2, 0.1, 0.8, 0.1, 0, 0.25, 0.75) * rgb", "lut").figure <
          1e-6); // straight lines
    // By hand: x * x between points that are 1/32 apart is missed by (1/64)^2 at most.
    const proof::Outcome square = outcome_of("out.r = r * r", "lut");
    CHECK(square.figure == Approx(1.0 / 4096).epsilon(0.03));
    CHECK(square.passed);
    CHECK_FALSE(outcome_of("out.rgb = step(0.51, rgb)", "lut").passed);
    CHECK(std::isinf(outcome_of("out.rgb = blur(rgb, 2)", "lut").figure));
}
