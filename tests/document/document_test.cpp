#include "document/edit.hpp"
#include "document/filter_file.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::document;
using namespace kasuri::test;

TEST_CASE("an edit and its inverse leave the text as it was", "[document]") {
    const std::string text = "out.g = b";
    const TextEdit edit{8, "b", "mix(g, b, 0.5)"};
    CHECK(edit.applied(text) == "out.g = mix(g, b, 0.5)");
    CHECK(edit.inverse().applied(edit.applied(text)) == text);
}

TEST_CASE("values become defaults in the text, and nothing else changes", "[document]") {
    const std::string text = "param a1 = 0 in 0 .. 1 \"x\"\n// between\nparam b1 = -0.5 in -1 .. 1\nout.r = a1 + b1";
    const lang::Rule rule = good_rule(text);
    const std::vector<double> values = {0.25, 0.75};
    const TextEdit edit = with_defaults(text, rule, values);
    CHECK(edit.applied(text) ==
          "param a1 = 0.25 in 0 .. 1 \"x\"\n// between\nparam b1 = 0.75 in -1 .. 1\nout.r = a1 + b1");
    CHECK(good_rule(edit.applied(text)).parameters[1].value == 0.75);
    const TextEdit none = with_defaults(text, rule, std::vector<double>{0, -0.5});
    CHECK(none.removed == none.inserted);
}

TEST_CASE("a preset is written below the parameters, or over the one of its name", "[document]") {
    const std::string text = "param k = 0 in 0 .. 1 // how\nout.r = k\n";
    const lang::Rule rule = good_rule(text);
    const std::string with = with_preset(text, rule, "Half \"way\"", std::vector<double>{0.5}).applied(text);
    CHECK(with == "param k = 0 in 0 .. 1 // how\npreset \"Half 'way'\" k = 0.5\nout.r = k\n");
    const lang::Rule again = good_rule(with);
    const std::string over = with_preset(with, again, "Half 'way'", std::vector<double>{0.1}).applied(with);
    CHECK(over == "param k = 0 in 0 .. 1 // how\npreset \"Half 'way'\" k = 0.1\nout.r = k\n");
    CHECK(good_rule(over).presets.size() == 1);
}

TEST_CASE("numbers in a text are the shortest that read back", "[document]") {
    CHECK(number_for_text(0.1) == "0.1");
    CHECK(number_for_text(1) == "1");
    CHECK(number_for_text(-0.0125) == "-0.0125");
}

TEST_CASE("a filter comes back from its file as it was saved", "[document]") {
    TemporaryFolder folder;
    const std::string text = "filter \"N\u00e4he\"\nout.g = b\n";
    REQUIRE(save_filter(folder / "n.kasuri", text));
    CHECK(load_filter(folder / "n.kasuri").value() == text);
    write(folder / "dos.kasuri", "\xEF\xBB\xBFout.g = b\r\nout.r = g\r\n");
    CHECK(load_filter(folder / "dos.kasuri").value() == "out.g = b\nout.r = g\n");
}

TEST_CASE("files that are not filters are refused with a reason", "[document]") {
    TemporaryFolder folder;
    CHECK_FALSE(load_filter(folder / "none.kasuri"));
    CHECK_FALSE(load_filter(folder.path));
    write(folder / "binary.kasuri", std::string("out\0r", 5));
    CHECK(load_filter(folder / "binary.kasuri").error().what == "is not a text: byte 3 has no meaning in UTF-8");
    write(folder / "latin.kasuri", "note \"\xE4\"");
    CHECK_FALSE(load_filter(folder / "latin.kasuri"));
    write(folder / "huge.kasuri", std::string(2'000'000, 'x')); // a rule of 2 MB
    CHECK_FALSE(load_filter(folder / "huge.kasuri"));
}

TEST_CASE("a new filter does nothing and proves it", "[document]") {
    const lang::Rule rule = good_rule(new_filter_text());
    CHECK(engine::compile(rule)->is_identity());
    CHECK(rule.proofs.size() == 3);
}
