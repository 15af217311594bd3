// Colour differences: the published pairs, another implementation, the engine.
#include "base/text.hpp"
#include "colour/difference.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::colour;
using namespace kasuri::test;

TEST_CASE("CIEDE2000 has its 34 published pairs, in reference and engine, either way round", "[colour][difference]") {
    std::size_t pairs = 0;
    for (const auto& row : reference_table("ciede2000-pairs.csv")) {
        const Triple a = {row[0], row[1], row[2]}, b = {row[3], row[4], row[5]};
        INFO("pair " << ++pairs);
        CHECK(ciede2000(a, b) == Approx(row[6]).margin(5.1e-5));
        CHECK(ciede2000(b, a) == Approx(row[6]).margin(5.1e-5));
        const auto text = [](const Triple& x) {
            return "lab(" + number_text(x[0], 9) + ", " + number_text(x[1], 9) + ", " + number_text(x[2], 9) + ")";
        };
        // Through inputs, so that nothing is worked out while compiling.
        const std::string rule =
            "let x = lab(r + 0, g, b)\nlet y = " + text(b) + "\nout.r = delta_e_2000(x, y)\nout.g = delta_e_2000(y, x)";
        const Colour fast =
            run_one(rule, {static_cast<float>(a[0]), static_cast<float>(a[1]), static_cast<float>(a[2]), 1});
        CHECK(static_cast<double>(fast[0]) == Approx(row[6]).margin(1.5e-4));
        CHECK(static_cast<double>(fast[1]) == Approx(row[6]).margin(1.5e-4));
    }
    CHECK(pairs == 34);
}

TEST_CASE("differences agree with another implementation", "[colour][difference]") {
    const Space& srgb = *find_space("srgb");
    std::size_t compared = 0;
    for (const auto& fields : reference_lines("differences-colorjs.csv")) {
        double x[7];
        for (std::size_t i = 0; i < 7; ++i)
            x[i] = *parse_number(fields[i + 1]);
        const std::string name = fields[0] == "OK" ? "delta_e_ok"
            : fields[0] == "ITP"                   ? "delta_e_itp"
                                                   : "delta_e_" + fields[0];
        const bool by_lab = fields[0] == "76" || fields[0] == "2000"; // it takes L*a*b* relative to D50
        for (const Difference& row : differences())
            if (row.name == name && (!by_lab || row.model.name == "lab50")) {
                INFO(name << " of " << x[0] << " " << x[1] << " " << x[2] << " and " << x[3] << " " << x[4] << " "
                          << x[5]);
                CHECK(row.of(from_rgb(row.model, srgb, {x[0], x[1], x[2]}),
                             from_rgb(row.model, srgb, {x[3], x[4], x[5]})) == Approx(x[6]).epsilon(1e-9).margin(1e-9));
                const std::string call = by_lab ? "(lab50(rgb), lab50(p))" : "(rgb, p)";
                const std::string rule = "working srgb\nlet p = vec3(" + fields[4] + ", " + fields[5] + ", " +
                    fields[6] + ")\nout.r = " + name + call;
                const Colour fast =
                    run_one(rule, {static_cast<float>(x[0]), static_cast<float>(x[1]), static_cast<float>(x[2]), 1});
                CHECK(static_cast<double>(fast[0]) == Approx(x[6]).epsilon(2e-5).margin(2e-4));
                ++compared;
            }
    }
    CHECK(compared > 200);
}

TEST_CASE("CIE94 is the sum of its definition", "[colour][difference]") {
    // CIE 116-1995, worked by hand: standard (50, 3, 4) has C* 5, sample (51, 6, 8) C* 10; dL 1, dC 5, dH 0.
    CHECK(cie94({50, 3, 4}, {51, 6, 8}) == Approx(std::sqrt(1 + std::pow(5 / 1.225, 2))).epsilon(1e-12));
    // Only hue: (50, 5, 0) and (50, 3, 4) have one chroma; dH is the whole distance, sqrt(20).
    CHECK(cie94({50, 5, 0}, {50, 3, 4}) == Approx(std::sqrt(20.0) / 1.075).epsilon(1e-12));
    CHECK(cie76({50, 5, 0}, {50, 3, 4}) == Approx(std::sqrt(20.0)).epsilon(1e-12));
    // The same for textiles: kL = 2, K1 = 0.048, K2 = 0.014.
    CHECK(cie94_textile({50, 3, 4}, {51, 6, 8}) == Approx(std::sqrt(0.25 + std::pow(5 / 1.24, 2))).epsilon(1e-12));
    CHECK(cie94_textile({50, 5, 0}, {50, 3, 4}) == Approx(std::sqrt(20.0) / 1.07).epsilon(1e-12));
    const Colour fast = run_one("out.r = delta_e_94_textile(lab(r + 0, g, b), lab(51, 6, 8))\n"
                                "out.g = delta_e_94(lab(r + 0, g, b), lab(51, 6, 8))",
                                {50, 3, 4, 1});
    CHECK(static_cast<double>(fast[0]) == Approx(std::sqrt(0.25 + std::pow(5 / 1.24, 2))).epsilon(1e-5));
    CHECK(static_cast<double>(fast[1]) == Approx(std::sqrt(1 + std::pow(5 / 1.225, 2))).epsilon(1e-5));
}
