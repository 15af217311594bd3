// How far apart rules, looks and LUTs are, and what looks are by algebra.
#include "baking/compare.hpp"
#include "insight/algebra.hpp"
#include "look/sums.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

subject::Subject of(const std::string& text) {
    const lang::Rule rule = good_rule(text);
    return subject::Subject(rule);
}

std::string sums(std::initializer_list<const char*> texts) {
    document::Look look;
    for (const char* text : texts) {
        document::LookStep step;
        step.text = text;
        look.steps.push_back(step);
    }
    const auto runs = look::make(look, {});
    REQUIRE(runs);
    return look::described(runs.value().subject);
}

} // namespace

TEST_CASE("differences are those that the rules were written with", "[handover][compare]") {
    const auto found = baking::compare(of("out.rgb = rgb"), of("out.r = r + 0.25 * b"));
    REQUIRE(found);
    CHECK(found.value().samples == 64000);
    CHECK(found.value().error.largest == Approx(0.25).epsilon(1e-3)); // where b comes near 1
    CHECK(static_cast<double>(found.value().error.worst[2]) > 0.999);
    CHECK(found.value().error.mean == Approx(0.125).epsilon(0.02));
    CHECK(found.value().error.delta_e_largest > found.value().error.delta_e_mean);
    CHECK(baking::compare(of("out.rgb = rgb"), of("out.r = r + 0.25 * b"), 0, 4).value().error.largest ==
          Approx(1).epsilon(1e-3));
    CHECK(baking::compare(of("out.rgb = pow(rgb, vec3(2.0))"), of("out.rgb = rgb * rgb")).value().error.largest < 1e-6);
    // In the space of the first: a half of encoded numbers.
    const auto encoded = baking::compare(of("working srgb\nout.rgb = rgb"), of("working rec709-linear\nout.rgb = rgb"));
    CHECK(encoded.value().space == "srgb");
    CHECK(encoded.value().error.largest < 1e-5);
}

TEST_CASE("what cannot be compared is refused, and NaN is counted", "[handover][compare]") {
    CHECK(baking::compare(of("out.r = pos.x"), of("out.r = r")).error().what.find("place in the picture") !=
          std::string::npos);
    CHECK(baking::compare(of("out.r = r"), of("out.rgb = blur(rgb, 3.0)")).error().what.find("neighbouring") !=
          std::string::npos);
    const auto lamp = baking::compare(of("out.r = r"), of("source lamp : float\nout.r = lamp"));
    REQUIRE(lamp);
    CHECK(lamp.value().varied == std::vector<std::string>{"lamp"});
    CHECK(lamp.value().error.largest > 0.9);
    CHECK(baking::compare(of("source lamp : float\nout.r = 2 * lamp"), of("source lamp : float\nout.r = lamp + lamp"))
              .value()
              .error.largest < 1e-6);
    CHECK_FALSE(baking::compare(of("out.r = r"), of("out.r = r"), 1, 1));
    const auto nan = baking::compare(of("out.rgb = rgb"), of("out.r = r > 0.5 ? sqrt(0.0 - r) : r"));
    CHECK(nan.value().not_finite == Approx(32000).epsilon(0.02));
    CHECK(nan.value().error.largest == 0);
    CancelToken cancelled;
    cancelled.cancel();
    CHECK_FALSE(baking::compare(of("out.r = r"), of("out.r = g"), 0, 1, cancelled));
}

TEST_CASE("steps that undo one another are told, through colour models too", "[handover][look]") {
    CHECK(sums({"out.rgb = rgb.gbr", "out.rgb = rgb.brg"}) == "all steps together change nothing\n");
    // Each by itself is a detour through hsv; algebra follows it.
    CHECK(sums({"let c = hsv(rgb)\nout.rgb = rgb(c)", "let d = hsl(rgb)\nout.rgb = rgb(d)", "out.r = pow(g, 2.0)"})
              .find("steps 1 and 2 together are the identity\n") != std::string::npos);
    CHECK(sums({"out.r = r + pow(g, 2.0)", "out.r = r - pow(g, 2.0)"}) == "all steps together change nothing\n");
    CHECK(sums({"out.b = b * 2", "out.r = r + pow(g, 2.0)", "out.r = r - pow(g, 2.0)"})
              .find("steps 2 and 3 together are the identity\n") != std::string::npos);
    CHECK(sums({"out.r = r + pow(g, 2.0)", "out.r = r - pow(g, 2.1)"}).empty());
    CHECK(sums({"out.r = sqrt(r)", "out.r = r * r"}).find("identity") == std::string::npos); // not for negative numbers
}

TEST_CASE("a matrix is handed over exactly, however it is written", "[handover]") {
    const auto mono = insight::shown_matrix(of("let c = hsv(rgb)\nc.v *= 1 - 0 * c.s\nout.rgb = rgb(c) * 0.5"));
    REQUIRE(mono);
    CHECK(mono->matrix[0][0] == Approx(0.5));
    CHECK(mono->matrix[0][1] == Approx(0).margin(1e-12));
    CHECK_FALSE(insight::shown_matrix(of("let c = hsv(rgb)\nc.s *= 0.5\nout.rgb = rgb(c)")));
    CHECK(insight::separable(of("out.rgb = pow(rgb, vec3(2.0))")));
    CHECK_FALSE(insight::separable(of("out.r = pow(g, 2.0)")));
    CHECK_FALSE(insight::separable(of("out.rgb = blur(rgb, 2.0)")));
}

TEST_CASE("numbers count as the same within a limit, within a share of them, or within both", "[baking]") {
    using baking::same_number;
    const double nan = std::numeric_limits<double>::quiet_NaN(), infinite = std::numeric_limits<double>::infinity();
    CHECK(same_number(100, 100.5, {0, 0.005}));
    CHECK_FALSE(same_number(100, 100.6, {0, 0.005}));
    CHECK(same_number(100, 100.6, {0.1, 0.005}));
    CHECK_FALSE(same_number(-1, 1, {0, 0.5}));
    CHECK(same_number(nan, nan, {0, 0}));
    CHECK_FALSE(same_number(nan, 1, {9, 9}));
    CHECK(same_number(infinite, infinite, {0, 0}));
    CHECK_FALSE(same_number(infinite, 1, {9, 9}));
    CHECK_FALSE(same_number(infinite, -infinite, {9, 9}));
    // Of a gain of 1.001 every colour but black is off by a 1001st of what it became.
    const auto gain = [](const baking::Within& within) {
        return baking::compare(of("out.rgb = rgb"), of("out.rgb = rgb * 1.001"), 0.5, 16, {}, within).value();
    };
    CHECK(gain({0, 1.001e-3}).beyond == 0);
    CHECK(gain({0, 0.998e-3}).beyond == gain({0, 0}).samples);
    CHECK(gain({1e-3, 0}).beyond > gain({1e-2, 0}).beyond);
}
