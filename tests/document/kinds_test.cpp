// Parameters of every kind in a filter's text, and files that filters use.
#include "document/edit.hpp"
#include "document/filter_file.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::document;
using namespace kasuri::test;

namespace {

const std::string kinds =
    "param levels = 4 in 2 .. 16 whole\nparam inside = true\nparam edge = soft of soft, hard, torn \"Rim\"\n"
    "param tint = vec3(1, 0.5, 0.25) in 0 .. 2\nparam gain = 1 in 0 .. 4\n"
    "out.rgb = rgb * tint * levels * gain * (inside && edge.soft ? 1 : 2)\n";

} // namespace

TEST_CASE("values of every kind become defaults, each as the language writes it", "[document]") {
    const lang::Rule rule = good_rule(kinds);
    REQUIRE(rule.parameters.size() == 7);
    const std::vector<double> values = {7, 0, 2, 0.1, 0.5, 1.5, 2.5};
    const std::string text = with_defaults(kinds, rule, values).applied(kinds);
    CHECK(text ==
          "param levels = 7 in 2 .. 16 whole\nparam inside = false\nparam edge = torn of soft, hard, torn \"Rim\"\n"
          "param tint = vec3(0.1, 0.5, 1.5) in 0 .. 2\nparam gain = 2.5 in 0 .. 4\n" +
              kinds.substr(kinds.find("out.rgb")));
    const lang::Rule again = good_rule(text);
    for (std::size_t i = 0; i < values.size(); ++i)
        CHECK(again.parameters[i].value == Approx(values[i]));
}

TEST_CASE("a preset of every kind reads back", "[document]") {
    const lang::Rule rule = good_rule(kinds);
    const std::vector<double> values = {16, 0, 1, 0, 2, 0.125, 4};
    const std::string text = with_preset(kinds, rule, "Torn", values).applied(kinds);
    CHECK(text.find("preset \"Torn\" levels = 16, inside = false, edge = hard, tint = vec3(0, 2, 0.125), gain = 4\n") !=
          std::string::npos);
    const lang::Rule again = good_rule(text);
    REQUIRE(again.presets.size() == 1);
    CHECK(again.presets[0].values == values);
}

TEST_CASE("values are written, read and kept within what a parameter can be", "[document]") {
    const lang::Rule rule = good_rule(kinds);
    const auto& [levels, inside, edge, tint] =
        std::tie(rule.parameters[0], rule.parameters[1], rule.parameters[2], rule.parameters[3]);
    CHECK(lang::value_text(inside, 1) == "true");
    CHECK(lang::value_text(edge, 1) == "hard");
    CHECK(lang::value_text(tint, 0.1) == "0.1");
    CHECK(lang::parse_value(inside, "off") == 0);
    CHECK(lang::parse_value(edge, " torn ") == 2);
    CHECK_FALSE(lang::parse_value(edge, "1"));
    CHECK_FALSE(lang::parse_value(inside, "2"));
    CHECK(lang::allowed_value(levels, 7.6) == 8);
    CHECK(lang::allowed_value(levels, 100) == 16);
    CHECK(lang::allowed_value(edge, 9) == 2);
    CHECK(lang::allowed_value(tint, 1.75) == 1.75);
    // Every option, switch and end of a range is a setting for proofs.
    const auto settings = proof::settings_of(rule);
    for (const double option : {0.0, 1.0, 2.0})
        CHECK(std::any_of(settings.begin(), settings.end(), [&](const auto& s) { return s[2] == option; }));
    CHECK(std::any_of(settings.begin(), settings.end(), [](const auto& s) { return s[1] == 0; }));
}

TEST_CASE("a filter uses files of its folder and below, and no others", "[document]") {
    const TemporaryFolder folder;
    std::filesystem::create_directories(folder / "dyes/deep");
    write(folder / "dyes/madder.kasuri",
          "use \"dyes/deep/root.kasuri\"\nfn madder(c vec3) = root(c) * vec3(1, 0.5, 0.5)\nparam unseen = 1\n");
    write(folder / "dyes/deep/root.kasuri", "fn root(c vec3) = sqrt(max(c, 0))\n");
    write(folder / "secret.kasuri", "fn secret(x) = x\n");
    const auto check_in = [&](const std::string& text) {
        lang::CheckOptions options;
        options.open = used_beside(folder / "filter.kasuri");
        return lang::check(text, proof::vocabulary(), options);
    };
    const lang::Checked good = check_in("use \"dyes/madder.kasuri\"\nout.rgb = madder(rgb)\n");
    REQUIRE(good.ok);
    CHECK(good.rule.parameters.empty()); // only functions come along
    CHECK(run(good.rule, {{0.25f, 4, 1, 1}})[0] == Colour{0.5f, 1, 0.5f, 1});
    CHECK(good.rule.functions.size() == 2);
    CHECK(good.rule.functions[1]->file == "dyes/madder.kasuri");
    const auto used = used_beside(folder / "dyes/filter.kasuri");
    for (const char* name : {"../secret.kasuri", "/etc/hostname", "", "none.kasuri", "deep"}) {
        INFO(name);
        CHECK_FALSE(used(name));
    }
    CHECK(used("madder.kasuri"));
    // A fault in a used file is told where the file is used, with its own place.
    write(folder / "bad.kasuri", "// first\nfn bad(x) = x +\n");
    const lang::Checked bad = check_in("out.r = g\nuse \"bad.kasuri\"\n");
    REQUIRE(bad.diagnostics.size() == 1);
    CHECK(bad.diagnostics[0].code == lang::Code::cannot_use);
    CHECK(bad.diagnostics[0].span.begin == 10);
    CHECK(lang::message(bad.diagnostics[0]).find("line 2, column") != std::string::npos);
    // Two files with one function of the same name.
    write(folder / "a.kasuri", "fn twin(x) = x\n");
    write(folder / "b.kasuri", "fn twin(x) = x * 2\n");
    CHECK_FALSE(check_in("use \"a.kasuri\"\nuse \"b.kasuri\"\nout.r = twin(r)").ok);
    CHECK_FALSE(check_in("use \"a.kasuri\"\nfn twin(x) = x\nout.r = twin(r)").ok);
    // The same file twice is the same functions.
    CHECK(check_in("use \"a.kasuri\"\nuse \"a.kasuri\"\nout.r = twin(r)").ok);
}
