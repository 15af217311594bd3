// Signals and displays: the codes and lights that the standards print.
#include "colour/transfer.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

/// r of what the rule makes of a colour, by the engine; the double-precision reference must agree.
double value(const std::string& expression, Colour in = {0, 0, 0, 1}, double within = 2e-6) {
    const lang::Rule rule = good_rule("out.r = " + expression);
    const double fast = static_cast<double>(run(rule, {in}).front()[0]);
    const double exact = static_cast<double>(reference_one(rule, in)[0]);
    INFO(expression << ": " << fast << ", reference " << exact);
    CHECK(std::fabs(fast - exact) <= within * std::max(1.0, std::fabs(exact)));
    return fast;
}

} // namespace

TEST_CASE("narrow-range codes are those of BT.709, BT.2020 and BT.2100", "[builtins][video]") {
    // ITU-R BT.709-6, item 5.6; BT.2020-2, Table 5; BT.2100-2, Table 9: black, white, no difference, its ends.
    struct Row {
        int bits, black, white, none, low, high;
    };
    for (const Row& row : {Row{8, 16, 235, 128, 16, 240}, Row{10, 64, 940, 512, 64, 960},
                           Row{12, 256, 3760, 2048, 256, 3840}, Row{16, 4096, 60160, 32768, 4096, 61440}}) {
        const std::string bits = std::to_string(row.bits), top = std::to_string((1 << row.bits) - 1);
        INFO(bits << " bits");
        const auto code = [&](const std::string& call) { return value(call + " * " + top); };
        CHECK(code("narrow_encode(r, " + bits + ")") == Approx(row.black).epsilon(1e-6));
        CHECK(code("narrow_encode(r + 1, " + bits + ")") == Approx(row.white).epsilon(1e-6));
        CHECK(code("narrow_difference_encode(r, " + bits + ")") == Approx(row.none).epsilon(1e-6));
        CHECK(code("narrow_difference_encode(r - 0.5, " + bits + ")") == Approx(row.low).epsilon(1e-6));
        CHECK(code("narrow_difference_encode(r + 0.5, " + bits + ")") == Approx(row.high).epsilon(1e-6));
        CHECK(value("narrow_decode((r + " + std::to_string(row.white) + ") / " + top + ", " + bits + ")") ==
              Approx(1).epsilon(1e-5));
        CHECK(value("narrow_decode((r + " + std::to_string(row.black) + ") / " + top + ", " + bits + ")") ==
              Approx(0).margin(1e-5));
        CHECK(value("narrow_difference_decode((r + " + std::to_string(row.high) + ") / " + top + ", " + bits + ")") ==
              Approx(0.5).margin(1e-5));
    }
    // SMPTE EG 1: the yellow bar of 75 % in BT.601 has the codes 162, 44, 142 (from memory).
    const lang::Rule bars = good_rule("let y = ycbcr601(rgb)\n"
                                      "out.r = quantise(narrow_encode(y.y, 8), 8)\n"
                                      "out.gb = quantise(narrow_difference_encode(y.cbcr, 8), 8)");
    const Colour yellow = run(bars, {{0.75f, 0.75f, 0, 1}}).front();
    CHECK(std::lround(255 * yellow[0]) == 162);
    CHECK(std::lround(255 * yellow[1]) == 44);
    CHECK(std::lround(255 * yellow[2]) == 142);
    // There and back, beyond the ends too; a NaN stays one.
    for (const float x : {-0.05f, 0.0f, 0.3f, 1.0f, 1.09f}) {
        CHECK(value("narrow_decode(narrow_encode(r, 10), 10)", {x, 0, 0, 1}) ==
              Approx(static_cast<double>(x)).margin(2e-6));
        CHECK(value("narrow_difference_decode(narrow_difference_encode(r, 12), 12)", {x, 0, 0, 1}) ==
              Approx(static_cast<double>(x)).margin(2e-6));
    }
    CHECK(std::isnan(run_one("out.r = narrow_encode(r, 8)", {not_a_number, 0, 0, 1})[0]));
    CHECK(std::isnan(run_one("out.r = narrow_decode(r, g)", {0.5f, not_a_number, 0, 1})[0]));
}

TEST_CASE("BT.1886 with its white and its black", "[builtins][video]") {
    // ITU-R BT.1886, Annex 1: white and black are met exactly, whatever they are.
    for (const auto& [white, black] : {std::pair{"100", "0.1"}, {"80", "0.5"}, {"200", "0"}}) {
        const std::string by = std::string(", ") + white + ", " + black + ")";
        CHECK(value("bt1886_display(r + 1" + by) == Approx(std::stod(white)).epsilon(1e-5));
        CHECK(value("bt1886_display(r" + by) == Approx(std::stod(black)).margin(1e-5));
        for (const float v : {0.0f, 0.1f, 0.5f, 0.9f, 1.1f})
            CHECK(value("bt1886_signal(bt1886_display(r" + by + by, {v, 0, 0, 1}, 2e-5) ==
                  Approx(static_cast<double>(v)).margin(2e-5));
    }
    // By hand, LW = 100 and LB = 0.1: roots 6.812920691 and 0.383118673, a = 6.429802018^2.4, b = 0.059584863.
    const double a = std::pow(std::pow(100, 1 / 2.4) - std::pow(0.1, 1 / 2.4), 2.4),
                 b = std::pow(0.1, 1 / 2.4) / (std::pow(100, 1 / 2.4) - std::pow(0.1, 1 / 2.4));
    CHECK(b == Approx(0.0595848).epsilon(1e-5));
    CHECK(value("bt1886_display(r, 100, 0.1)", {0.5f, 0, 0, 1}, 1e-5) ==
          Approx(a * std::pow(0.5 + b, 2.4)).epsilon(1e-5));
    // Over a black of 0 it is the plain power.
    CHECK(value("bt1886_display(r, 1, 0) - bt1886_decode(r)", {0.37f, 0, 0, 1}) == Approx(0).margin(1e-6));
    // Below the black there is no light.
    CHECK(value("bt1886_display(r, 100, 0.1)", {-0.5f, 0, 0, 1}) == 0);
}

TEST_CASE("HLG on a display: BT.2100's gammas, BT.2408's levels", "[builtins][video]") {
    // ITU-R BT.2100-2, Table 5, note 5e: 1.2 at 1000 cd/m2; note 5f outside of 400 to 2000.
    CHECK(value("hlg_gamma(1000)") == Approx(1.2).epsilon(1e-6));
    CHECK(value("hlg_gamma(2000)") == Approx(1.3264).epsilon(1e-4));
    CHECK(value("hlg_gamma(400)") == Approx(1.0329).epsilon(1e-4));
    CHECK(value("hlg_gamma(4000)") == Approx(1.2 * 1.111 * 1.111).epsilon(1e-5));
    // ITU-R BT.2408-7, Table 1: on a display of 1000 cd/m2, diffuse white at 75 % is 203 cd/m2, an 18 % grey card at 38
    // % is 26 cd/m2.
    CHECK(value("hlg_display(vec3(r), 1000, 1.2, 0).r", {0.75f, 0, 0, 1}, 1e-5) == Approx(203).margin(0.6));
    CHECK(value("hlg_display(vec3(r), 1000, 1.2, 0).r", {0.38f, 0, 0, 1}, 1e-5) == Approx(26).margin(0.5));
    // The ends are the display's own.
    for (const char* black : {"0", "0.005", "0.5"}) {
        const std::string by = std::string(", 1000, 1.2, ") + black + ")";
        CHECK(value("hlg_display(vec3(r + 1)" + by + ".g", {0, 0, 0, 1}, 1e-5) == Approx(1000).epsilon(1e-5));
        CHECK(value("hlg_display(vec3(r)" + by + ".g", {0, 0, 0, 1}, 1e-5) == Approx(std::stod(black)).margin(1e-4));
    }
    // By the standard's formula, by hand for a colour, another peak and gamma: alpha Ys^(gamma - 1) E.
    const Colour in = {0.6f, 0.4f, 0.8f, 1};
    const auto light = [](double x) {
        return x <= 0.5 ? x * x / 3 : (std::exp((x - 0.55991073) / 0.17883277) + 0.28466892) / 12;
    };
    const double r = light(0.6), g = light(0.4), b = light(0.8), ys = 0.2627 * r + 0.6780 * g + 0.0593 * b;
    const lang::Rule shown = good_rule("out.rgb = hlg_display(rgb, 600, 1.1, 0)");
    const Colour made = run(shown, {in}).front();
    const double wanted[] = {r, g, b};
    for (std::size_t c = 0; c < 3; ++c)
        CHECK(static_cast<double>(made[c]) == Approx(600 * std::pow(ys, 0.1) * wanted[c]).epsilon(2e-5));
    // There and back, colours that reach below 0 in a channel too.
    const lang::Rule round = good_rule("param peak = 1000 in 400 .. 4000\nlet gamma = hlg_gamma(peak)\n"
                                       "out.rgb = hlg_signal(hlg_display(rgb, peak, gamma, 0.01), peak, gamma, 0.01)");
    for (const double peak : {400.0, 1000.0, 4000.0})
        for (const Colour& c :
             {Colour{0.1f, 0.5f, 0.9f, 1}, Colour{0.75f, 0.75f, 0.75f, 1}, Colour{0.02f, 0.9f, 0.3f, 1}}) {
            const Colour back = run(round, {c}, {peak}).front();
            for (std::size_t i = 0; i < 3; ++i)
                CHECK(static_cast<double>(back[i]) == Approx(static_cast<double>(c[i])).margin(3e-5));
        }
    // Nothing becomes no number: black of no luminance, and light below 0.
    for (const float v : {0.0f, -0.25f, -4.0f}) {
        const Colour dark = run_one("out.rgb = hlg_display(rgb, 1000, 0.9, 0)", {v, v, v, 1});
        CHECK(dark[1] == 0);
        CHECK(std::isfinite(run_one("out.rgb = hlg_signal(rgb, 1000, 1.2, 0)", {v, v, v, 1})[1]));
    }
}

TEST_CASE("luma takes the weights that the standard of the working space has", "[builtins][video]") {
    const auto luma = [](const std::string& space, Colour in) {
        return static_cast<double>(run_one("working " + space + "\nout.r = luma(rgb)", in)[0]);
    };
    // ITU-R BT.709-6, item 3.2; BT.2020-2, Table 4.
    CHECK(luma("srgb", {1, 0, 0, 1}) == Approx(0.2126).epsilon(1e-6));
    CHECK(luma("rec709", {0, 1, 0, 1}) == Approx(0.7152).epsilon(1e-6));
    CHECK(luma("rec2020", {1, 0, 0, 1}) == Approx(0.2627).epsilon(1e-6));
    CHECK(luma("rec2100-pq", {0, 1, 0, 1}) == Approx(0.6780).epsilon(1e-6));
    // Display P3 fixes none: those of luminance (the digits of CSS Color 4's matrix to XYZ).
    CHECK(luma("p3-d65", {1, 0, 0, 1}) == Approx(0.22897456406974884).epsilon(1e-6));
    for (const char* space : {"srgb", "rec2020", "p3-d65", "acescg"}) {
        INFO(space);
        CHECK(luma(space, {0.4f, 0.4f, 0.4f, 1}) == Approx(0.4).epsilon(1e-6)); // greys keep their number
        // Light: one and the same whichever way it is asked for.
        const Colour both = run_one("working " + std::string(space) + "\nout.r = luminance(rgb)\nout.g = xyz(rgb).y",
                                    {0.7f, 0.2f, 0.4f, 1});
        CHECK(static_cast<double>(both[0]) == Approx(static_cast<double>(both[1])).epsilon(2e-7));
    }
}
