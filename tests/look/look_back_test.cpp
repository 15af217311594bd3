// Steps that look back: at the picture as it came in, and at what earlier steps made. Every look is held to the one
// rule that does the same.
#include "handover/shader.hpp"
#include "look/make.hpp"
#include "look/sums.hpp"
#include "support/support.hpp"
#include "targets/demo.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

document::LookStep step(const std::string& label, const std::string& text, double opacity = 1,
                        const std::string& mask = {}) {
    document::LookStep made;
    made.label = label;
    made.text = text;
    made.opacity = opacity;
    made.mask = mask;
    return made;
}

document::LookStep group(std::vector<document::LookStep> within, double opacity = 1) {
    document::LookStep made;
    made.is_look = true;
    made.within = std::move(within);
    made.opacity = opacity;
    return made;
}

Result<look::Made> made_of(std::vector<document::LookStep> steps) {
    document::Look look;
    look.steps = std::move(steps);
    return look::make(look, {});
}

image::Picture noise(int width, int height) {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> number(-0.1, 1.4);
    return image::generated(width, height, [&](int, int) {
        return std::array{number(random), number(random), number(random)};
    });
}

/// The largest difference between a look and a rule on a picture of a space.
double apart(const subject::Subject& look, const subject::Subject& rule, const std::string& space = "rec709-linear") {
    image::Picture picture = noise(40, 30);
    picture.space = space;
    const auto a = engine::evaluate(*look.program(space, space), picture, look.values()),
               b = engine::evaluate(*rule.program(space, space), picture, rule.values());
    REQUIRE(a);
    REQUIRE(b);
    double most = 0;
    for (std::size_t i = 0; i < picture.pixels(); ++i)
        for (std::size_t c = 0; c < 4; ++c)
            most = std::max(most, std::fabs(static_cast<double>(a->at(i)[c]) - static_cast<double>(b->at(i)[c])));
    return most;
}

/// The graph against the double reference, which is written apart.
void check_reference(const subject::Subject& look, const char* space) {
    image::Picture picture = noise(30, 2);
    picture.space = space;
    const auto made = engine::evaluate(*look.program(space, space), picture, look.values());
    REQUIRE(made);
    for (std::size_t i = 0; i < picture.pixels(); ++i) {
        engine::ReferencePixel pixel;
        for (std::size_t c = 0; c < 4; ++c)
            pixel.rgba[c] = static_cast<double>(picture.at(i)[c]);
        const auto wanted = engine::reference_chain(look.steps(), look.values(), space, pixel);
        for (std::size_t c = 0; c < 4; ++c)
            CHECK_THAT(static_cast<double>(made->at(i)[c]),
                       Catch::Matchers::WithinAbs(wanted[c], 2e-5 * std::max(1.0, std::fabs(wanted[c]))));
    }
}

subject::Subject shipped(const char* name) {
    const auto look = document::load_look(std::string(KASURI_SOURCE_DIR "/data/looks/") + name);
    REQUIRE(look);
    const auto made = look::make(look.value(), {});
    REQUIRE(made);
    return made.value().subject;
}

} // namespace

TEST_CASE("three zone steps that weigh by the picture as it came in are one rule", "[look][back]") {
    const subject::Subject rule = good_rule("let z = zones(luminance(rgb), 0.05, 0.4, 0.2)\n"
                                            "out.rgb = mix(out.rgb, out.rgb * vec3(0.5, 0.7, 1.3), 0.8 * z.x)\n"
                                            "out.rgb = mix(out.rgb, out.rgb * vec3(0.95, 1.08, 0.95), 0.6 * z.y)\n"
                                            "out.rgb = mix(out.rgb, out.rgb * vec3(1.25, 1, 0.7), 0.7 * z.z)\n");
    CHECK(apart(shipped("three-times-of-day.kasurilook"), rule) < 1e-6);
    CHECK(apart(shipped("three-times-of-day.kasurilook"), rule, "srgb") < 1e-5); // through a curve and back
    // If each weighed by what comes into it, it would be another picture.
    document::Look other = document::load_look(KASURI_SOURCE_DIR "/data/looks/three-times-of-day.kasurilook").value();
    for (document::LookStep& each : other.steps)
        each.text.replace(each.text.find("luminance(original)"), 19, "luminance(rgb)     ");
    CHECK(apart(look::make(other, {}).value().subject, rule) > 1e-3);
    // One graph: the zones are computed once.
    CHECK(shipped("three-times-of-day.kasurilook").program()->operations() <= rule.program()->operations() + 4);
}

TEST_CASE("a vivid layer over a mono base through a mask of the untouched picture is one rule", "[look][back]") {
    const subject::Subject rule = good_rule(
        "let y = vec3(luminance(rgb))\nlet m = band(hsv(rgb).h, 0, 60, 30) * smoothstep(0.15, 0.5, hsv(rgb).s)\n"
        "out.rgb = mix(y, mix(y, rgb, 1.4), m)\n");
    CHECK(apart(shipped("one-cloth-dyed.kasurilook"), rule) < 1e-6);
}

TEST_CASE("an inner and an edge treatment from one key are one rule, neighbours included", "[look][back]") {
    const subject::Subject rule =
        good_rule("let k = smoothstep(0.2, 0.45, hsv(rgb).s) * band(hsv(rgb).h, 0, 70, 30)\n"
                  "let small = erode(k, 2)\n"
                  "out.rgb = mix(rgb, mix(vec3(luminance(rgb)), rgb, 0.8) * 1.4, small)\n"
                  "out.rgb = mix(out.rgb, out.rgb + 0.3 * vec3(1, 0.75, 0.35), dilate(k, 2) - small)\n");
    const subject::Subject look = shipped("lit-from-within.kasurilook");
    CHECK(apart(look, rule) < 1e-6);
    CHECK(look.program()->passes().size() == 2); // the key once, and its two neighbourhoods in one go
    CHECK(look.sources().empty());               // nobody has to bring anything
}

TEST_CASE("a step reads what an earlier one made, by its label or its number", "[look][back]") {
    const auto base = step("mono base", "out.rgb = vec3(luminance(rgb))"),
               vivid = step("vivid", "out.rgb = rgb.gbr * 2");
    const auto reads =
        made_of({base, vivid, step("", "source base : vec3 = step \"mono base\"\nout.rgb = 0.5 * (rgb + base)")});
    REQUIRE(reads);
    CHECK(apart(reads.value().subject,
                good_rule("let y = vec3(luminance(rgb))\nlet v = y.gbr * 2\nout.rgb = 0.5 * (v + y)")) < 1e-6);
    const auto number =
        made_of({base, vivid, step("", "source base : vec3 = step \"1\"\nout.rgb = 0.5 * (rgb + base)")});
    REQUIRE(number);
    CHECK(number.value().subject.identity() == reads.value().subject.identity());
    // What it made, opacity and all; single channels; alpha.
    const auto share =
        made_of({step("half", "out.rgb = rgb * 0", 0.5),
                 step("", "source g1 : float = step \"half\".g\nsource a1 = picture.a\nout.rgb = vec3(g1, r, a1)")});
    REQUIRE(share);
    CHECK(apart(share.value().subject, good_rule("out.rgb = vec3(0.5 * g, 0.5 * r, a)")) < 1e-6);
    // A step that is off has made what came into it.
    auto off = vivid;
    off.on = false;
    const auto without = made_of({base, off, step("", "source v : vec3 = step \"vivid\"\nout.rgb = rgb + v")});
    REQUIRE(without);
    CHECK(apart(without.value().subject, good_rule("out.rgb = 2 * vec3(luminance(rgb))")) < 1e-6);
    auto first_off = base;
    first_off.on = false;
    const auto untouched = made_of({first_off, vivid, step("", "source b1 : vec3 = step \"mono base\"\nout.rgb = b1")});
    REQUIRE(untouched);
    CHECK(apart(untouched.value().subject, subject::Subject()) < 1e-6);
}

TEST_CASE("spaces are minded, and masks and looks within looks look back too", "[look][back]") {
    const std::vector<document::LookStep> steps = {
        step("dip", "working srgb\nparam k = 0.7 in 0 .. 1\nout.rgb = rgb * k", 0.8),
        step("turn",
             "working acescg\nsource dipped : vec3 = step \"dip\"\nsource original = picture\n"
             "out.rgb = mix(rgb.gbr, dipped, 0.3) + 0.1 * original.rgb",
             1, "source original : vec3 = picture\nclamp(original.r, 0, 1)"),
        group({step("a", "out.rgb = rgb * 0.5"),
               step("b",
                    "working srgb\nsource whole : vec3 = picture\nsource first : vec3 = step \"a\"\nout.rgb = 0.5 * "
                    "whole + 0.25 * first")},
              0.6),
        step("", "source turned : vec3 = step \"turn\"\nout.rgb = max(rgb, turned)")};
    const auto made = made_of(steps);
    REQUIRE(made);
    for (const char* space : {"rec709-linear", "srgb", "p3-d65-linear"})
        check_reference(made.value().subject, space);
    // The picture of a look within a look is what comes into that look.
    const auto within =
        made_of({step("", "out.rgb = rgb * 0.25"),
                 group({step("", "out.rgb = rgb.gbr"), step("", "source o : vec3 = picture\nout.rgb = o")})});
    REQUIRE(within);
    CHECK(apart(within.value().subject, good_rule("out.rgb = rgb * 0.25")) < 1e-6);
}

TEST_CASE("what cannot be read is said in a sentence", "[look][back]") {
    const auto why = [](std::vector<document::LookStep> steps) {
        const auto made = made_of(std::move(steps));
        return made ? std::string("good") : made.error().text();
    };
    const std::string reads = "source x : vec3 = step \"later\"\nout.rgb = x";
    CHECK(why({step("first", reads), step("later", "out.r = g")}).find("comes later") != std::string::npos);
    CHECK(why({step("later", reads)}).find("is this step itself") != std::string::npos);
    CHECK(why({step("first", "out.r = g"), step("second", reads)}).find("Labels are: first, second") !=
          std::string::npos);
    CHECK(why({step("first", "out.r = g", 1, "source x : vec3 = step \"gone\"\nx.r")}).find("its mask: its source x") !=
          std::string::npos);
    // Of two steps of one label the nearest one before it.
    const auto nearest = made_of({step("later", "out.rgb = rgb * 2"), step("later", "out.rgb = rgb * 3"),
                                  step("", reads), step("later", "out.rgb = rgb")});
    REQUIRE(nearest);
    CHECK(apart(nearest.value().subject, good_rule("out.rgb = rgb * 6")) < 1e-5);
    // While somebody works on it, the step is left out.
    document::Look look;
    look.steps = {step("first", reads), step("later", "out.rgb = rgb * 0.5")};
    const look::Made so_far = look::make_so_far(look, {}).value();
    REQUIRE(so_far.faults.size() == 1);
    CHECK(apart(so_far.subject, good_rule("out.rgb = rgb * 0.5")) < 1e-6);
}

TEST_CASE("a rule by itself is its own picture, and a step it reads may be brought", "[look][back]") {
    const lang::Rule rule = good_rule("source original : vec3 = picture\nout.rgb = 0.5 * (rgb.gbr + original)");
    CHECK(apart(rule, good_rule("out.rgb = 0.5 * (rgb.gbr + rgb)")) < 1e-6);
    CHECK(reference_one(rule, {0.2f, 0.4f, 0.8f, 1})[0] == Approx(0.3f));
    CHECK(subject::Subject(rule).sources().empty());
    const subject::Subject base = good_rule("source base : vec3 = step \"mono\"\nout.rgb = base");
    CHECK(subject::without_picture(base, nullptr) == std::vector<std::string>{"base"});
    // What is the same whatever it reads is shown by algebra; steps that look elsewhere are not said to undo one
    // another.
    const auto pair =
        made_of({step("a", "out.rgb = rgb.gbr"), step("b", "out.rgb = rgb.brg"),
                 step("c", "source o : vec3 = picture\nout.rgb = o.gbr"), step("", "out.rgb = rgb.brg * 0.5")});
    REQUIRE(pair);
    CHECK(look::described(pair.value().subject).find("steps 1 and 2 together are the identity") != std::string::npos);
    CHECK(look::described(pair.value().subject).find("all 4 steps are one exact matrix") != std::string::npos);
    CHECK(look::described(pair.value().subject).find("steps 2") == std::string::npos);
    const auto text = handover::shader(shipped("one-cloth-dyed.kasurilook")); // one function of one pixel
    REQUIRE(text);
    CHECK(text.value().find("vec4 kasuri(vec4 colour)") != std::string::npos);
    CHECK_FALSE(handover::shader(shipped("lit-from-within.kasurilook"))); // looks at neighbours
}

TEST_CASE("sources that look back say one channel or all, as their type wants it", "[lang]") {
    const auto codes = [](const std::string& text) {
        const lang::Checked checked = lang::check(text, proof::vocabulary(), lang::CheckOptions());
        std::vector<lang::Code> all;
        for (const lang::Diagnostic& d : checked.diagnostics)
            if (d.severity == lang::Severity::error)
                all.push_back(d.code);
        return all;
    };
    using Codes = std::vector<lang::Code>;
    CHECK(codes("source k : float = picture.g\nout.r = k").empty());
    CHECK(codes("source k = picture.a\nout.r = k").empty()); // a float, by what it reads
    CHECK(codes("source k = picture\nout.rgba = k").empty());
    CHECK(codes("source k : float = step \"a\".b \"One key\"\nout.r = k").empty());
    CHECK(codes("source k : float = picture\nout.r = k") == Codes{lang::Code::source_channel});
    CHECK(codes("source k : vec3 = picture.r\nout.rgb = k") == Codes{lang::Code::source_channel});
    CHECK(codes("source k : float = picture.x\nout.r = k") == Codes{lang::Code::unknown_component});
    CHECK(codes("source k : float = photo\nout.r = k").front() == lang::Code::expected);
    CHECK(codes("source k : vec3 = step base\nout.rgb = k").front() == lang::Code::expected);
}
