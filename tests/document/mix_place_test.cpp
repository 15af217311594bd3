#include "document/mix_place.hpp"
#include "insight/affine.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::document;
using namespace kasuri::test;

TEST_CASE("a matrix in the text is found, with its offsets and signs, and its numbers are edited where they stand",
          "[document]") {
    const std::string text = "let x = r\nout.rgb = mat3(1, -0.25, 0, // row r\n  0, 1, 0,\n  0.5, 0, 1) * rgb + "
                             "vec3(0, 0.125, -1)\nout.r *= 2\n";
    const auto place = mix_place(good_rule(text));
    REQUIRE(place);
    CHECK(place->values == std::array<double, 9>{1, -0.25, 0, 0, 1, 0, 0.5, 0, 1});
    CHECK(place->offset_values == std::array<double, 3>{0, 0.125, -1});
    const std::string edited = with_mix_number(text, *place, 1, 0.75).applied(text);
    CHECK(edited.find("mat3(1, 0.75, 0, // row r") != std::string::npos);
    CHECK(with_mix_number(text, *place, 11, 0.5).applied(text).find("vec3(0, 0.125, 0.5)") != std::string::npos);
    std::array<double, 9> all = place->values;
    all[0] = 0.5;
    all[8] = -3;
    const std::string both = with_mix_numbers(text, *place, all, {0.1, 0, 0}).applied(text);
    CHECK(mix_place(good_rule(both))->values == all);
    CHECK(mix_place(good_rule(both))->offset_values == std::array<double, 3>{0.1, 0, 0});
    CHECK(both.find("// row r") != std::string::npos); // what stands between stays
    CHECK(with_mix_numbers(text, *place, place->values, place->offset_values).applied(text) == text);
}

TEST_CASE("only numbers that are written out are a place to edit", "[document]") {
    CHECK_FALSE(mix_place(good_rule("out.rgb = rgb.gbr")));
    CHECK_FALSE(mix_place(good_rule("let k = r\nout.rgb = mat3(k, 0, 0, 0, 1, 0, 0, 0, 1) * rgb")));
    const auto bare = mix_place(good_rule("out.rgb = mat3(1, 0, 0, 0, 1, 0, 0, 0, 1) * rgb"));
    REQUIRE(bare);
    CHECK_FALSE(bare->offsets);
    const TextEdit nothing = with_mix_number("x", *bare, 9, 1);
    CHECK(nothing.removed == nothing.inserted);
    CHECK(with_mix_numbers("out.rgb = mat3(1, 0, 0, 0, 1, 0, 0, 0, 1) * rgb", *bare, {2, 0, 0, 0, 1, 0, 0, 0, 1},
                           {0, 0, 0.5})
              .applied("out.rgb = mat3(1, 0, 0, 0, 1, 0, 0, 0, 1) * rgb") ==
          "out.rgb = mat3(2, 0, 0, 0, 1, 0, 0, 0, 1) * rgb + vec3(0, 0, 0.5)");
    CHECK(mix_statement({1, 0, 0, 0, 1, 0, 0, 0, 1}, {}, "rgb") == "out.rgb = mat3(1, 0, 0,  0, 1, 0,  0, 0, 1) * rgb");
    const std::string statement = mix_statement({1, 0.25, 0, 0, 1, 0, -0.5, 0, 1}, {0, 0.1, 0}, "rgb");
    const auto written = mix_place(good_rule(statement));
    REQUIRE(written);
    CHECK(written->values[6] == -0.5);
    CHECK(written->offset_values[1] == Approx(0.1));
    CHECK(insight::affine(good_rule(statement), {})->matrix[2][0] == -0.5);
}

TEST_CASE("every matrix of numbers and parameters is found under its name, wherever it stands", "[document]") {
    const std::string text = "param cross = 0.25 in 0 .. 1\n"
                             "param dye = vec3(0.7, 0.2, 0.1)\n"
                             "let dark = mat3(1, 0, 0,  0, 0.5, 0.5,  0, 0, 1)\n"
                             "let light = mat3(dye, vec3(0, 1, 0), vec3(0, cross, 1 - 0))\n"
                             "out.rgb = mix(dark * rgb, mat3(dye, vec3(0, 1, 0), vec3(0, cross, -1)) * rgb, r) + "
                             "mat3(0, 0, 0, 0, 0, 0, 0, 0, 0.5) * rgb\n";
    const std::vector<MixPlace> places = mix_places(good_rule(text));
    REQUIRE(places.size() == 3); // `light` has an expression in it
    CHECK(places[0].name == "dark");
    CHECK(places[0].values == std::array<double, 9>{1, 0, 0, 0, 0.5, 0.5, 0, 0, 1});
    CHECK_FALSE(places[0].takes_offset);
    CHECK(with_mix_numbers(text, places[0], {1, 0, 0, 0, 0.5, 0.5, 0, 0, 2}, {0.1, 0, 0}).inserted ==
          "1, 0, 0,  0, 0.5, 0.5,  0, 0, 2"); // an offset has no place there
    CHECK(places[1].name == "out.rgb");
    CHECK(places[1].values == std::array<double, 9>{0.7, 0.2, 0.1, 0, 1, 0, 0, 0.25, -1});
    CHECK(places[1].parameters == std::array<int, 9>{1, 2, 3, -1, -1, -1, -1, 0, -1});
    CHECK(places[2].name == "out.rgb, 2");
    // Numbers beside parameters are written; parameters are not.
    const TextEdit edit = with_mix_numbers(text, places[1], {9, 9, 9, 0, 1, 0, 0.5, 9, -1}, {});
    CHECK(edit.applied(text).find("mat3(dye, vec3(0, 1, 0), vec3(0.5, cross, -1))") != std::string::npos);
    const TextEdit none = with_mix_number(text, places[1], 7, 0.5);
    CHECK(none.removed == none.inserted);
    // Nothing but parameters: there is nothing to be written.
    const std::string nine = "param row_r = vec3(1, 0, 0)\nparam row_g = vec3(0, 1, 0)\nparam row_b = vec3(0, 0, "
                             "1)\nout.rgb = mat3(row_r, row_g, "
                             "row_b) * rgb";
    const auto all = mix_place(good_rule(nine));
    REQUIRE(all);
    CHECK(all->takes_offset);
    CHECK(with_mix_numbers(nine, *all, {2, 0, 0, 0, 1, 0, 0, 0, 1}, {}).applied(nine) == nine);
    CHECK(with_mix_numbers(nine, *all, all->values, {0, 0, 0.5}).applied(nine) == nine + " + vec3(0, 0, 0.5)");
}
