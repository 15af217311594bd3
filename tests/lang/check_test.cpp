#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::lang;
using namespace kasuri::test;

namespace {

struct Faulty {
    std::string text;
    Code code;
    std::string at;    ///< the text under the span
    std::string fixed; ///< the rule after the first fix; empty: no fix is offered
};

} // namespace

TEST_CASE("every fault has its exact code, its exact place and its fix", "[lang]") {
    const Faulty faulty = GENERATE(values<Faulty>({
        // A scalar where a colour is expected.
        {"out = g", Code::needs_colour, "g", "out.rgb = vec3(g)"},
        {"out = rgb", Code::needs_rgb, "rgb", "out.rgb = rgb"},
        // A colour model assigned to out.
        {"let c = hsv(rgb)\nout = c", Code::model_not_colour, "c", "let c = hsv(rgb)\nout.rgb = rgb(c)"},
        {"out.rgb = hsv(rgb)", Code::model_not_colour, "hsv(rgb)", "out.rgb = rgb(hsv(rgb))"},
        {"let c = hsv(rgb)\nout.rgb = vec3(c)", Code::argument_type, "c", "let c = hsv(rgb)\nout.rgb = vec3(rgb(c))"},
        // Names.
        {"let shared = g\nout.g = shard", Code::unknown_name, "shard", "let shared = g\nout.g = shared"},
        {"out.g = smothstep(0, 1, g)", Code::unknown_function, "smothstep", "out.g = smoothstep(0, 1, g)"},
        {"ouut.g = b", Code::unknown_name, "ouut", "out.g = b"},
        {"x = g", Code::unknown_name, "x", ""},
        {"out.q = g", Code::unknown_component, "q", ""},
        {"let c = hsv(rgb)\nout.g = c.r", Code::unknown_component, "r", ""},
        {"out.rr = vec2(g)", Code::swizzle_repeats, "rr", ""},
        {"g = 1", Code::not_assignable, "g", "out.g = 1"},
        {"rgb = vec3(1)", Code::not_assignable, "rgb", "out.rgb = vec3(1)"},
        {"let a = 1", Code::reserved_name, "a", ""},
        {"let x = 1\nout.r = x\nlet x = 2", Code::duplicate_name, "x", "let x = 1\nout.r = x\nx = 2"},
        {"filter \"A\"\nfilter \"B\"", Code::duplicate_statement, "filter \"B\"", ""},
        {"working rec709-linaer", Code::unknown_space, "rec709-linaer", "working rec709-linear"},
        {"proof \"x\" : neutrl", Code::unknown_proof, "neutrl", "proof \"x\" : neutral"},
        // Types.
        {"out.r = rgb + vec2(1)", Code::operand_types, "+", ""},
        {"out.r = rgb < rgb ? 1 : 0", Code::operand_types, "<", ""},
        {"let c = lab(rgb)\nout.rgb = rgb(c * c)", Code::operand_types, "*", ""},
        {"let c = lab(rgb) + hsv(rgb)\nout.r = 1", Code::operand_types, "+", ""},
        {"out.rgb = rgb * mat3(1)", Code::operand_types, "*", "out.rgb = mat3(1) * rgb"},
        {"out.r = g ? 1 : 0", Code::condition_type, "g", ""},
        {"out.r = g > 0 ? 1 : rgb", Code::wrong_type, "g > 0 ? 1 : rgb", ""},
        {"out.r = g > 0 ? rgb : hsv(rgb)", Code::choice_types, "g > 0 ? rgb : hsv(rgb)", ""},
        {"out.r = !g", Code::condition_type, "g", ""},
        {"out.r = g && true ? 1 : 0", Code::condition_type, "g", ""},
        {"out.rgb = rgba", Code::wrong_type, "rgba", "out.rgb = rgba.rgb"},
        {"out.r = clamp(g, 0)", Code::argument_count, "clamp(g, 0)", ""},
        {"out.rgb = rgb(hsv(rgba))", Code::argument_type, "hsv(rgba)", "out.rgb = rgb(hsv(rgba.rgb))"},
        {"out.rgb = vec3(1, 2)", Code::argument_count, "vec3(1, 2)", ""},
        {"out.rgb = mat3(1, 2) * rgb", Code::argument_type, "mat3(1, 2)", ""},
        // Parameters.
        {"param p = 2 in 0 .. 1\nout.r = p", Code::value_out_of_range, "2", "param p = 2 in 0 .. 2\nout.r = p"},
        {"param p = 0 in 1 .. 0\nout.r = p", Code::empty_range, "1 .. 0", "param p = 0 in 0 .. 1\nout.r = p"},
        {"param p = 0 in 0 .. 1 step 0\nout.r = p", Code::bad_step, "0", ""},
        {"param p = 0 in 0 .. 1\nout.r = p\npreset \"x\" q = 1", Code::not_parameter, "q", ""},
        {"param p = g\nout.r = p", Code::not_constant, "g", ""},
        // Grammar.
        {"out.g = ", Code::expected, "", ""},
        {"out.g = (b", Code::expected, "", ""},
        {"out.g = b b", Code::extra_text, "b", ""},
        {"= 3", Code::statement_expected, "=", ""},
        {"note \"open", Code::unclosed_string, "\"open", "note \"open\""},
        {"out.g = b # 1", Code::bad_character, "#", ""},
    }));
    INFO(faulty.text);
    const Checked checked = check(faulty.text, proof::vocabulary());
    std::vector<Diagnostic> errors;
    for (const Diagnostic& d : checked.diagnostics)
        if (d.severity == Severity::error)
            errors.push_back(d);
    REQUIRE(errors.size() == 1);
    CHECK(row(errors[0].code).id == row(faulty.code).id);
    CHECK(std::string(text_of(faulty.text, errors[0].span)) == faulty.at);
    CHECK_FALSE(checked.ok);
    if (faulty.fixed.empty())
        return;
    REQUIRE_FALSE(errors[0].fixes.empty());
    const std::string mended = applied(errors[0].fixes[0], faulty.text);
    CHECK(mended == faulty.fixed);
    CHECK(check(mended, proof::vocabulary()).ok);
}

TEST_CASE("one fault does not bring others after it", "[lang]") {
    const std::string text = "let x = nothing + 1\nlet y = x * 2\nout.rgb = vec3(y)\nout.g = smoothstep(x, y)\n";
    const Checked checked = check(text, proof::vocabulary());
    REQUIRE(checked.diagnostics.size() == 1);
    CHECK(checked.diagnostics[0].code == Code::unknown_name);
}

TEST_CASE("all faults are found, in the order of the text, up to a limit", "[lang]") {
    std::string text;
    for (int i = 0; i < 300; ++i)
        text += "out.r = nope" + std::to_string(i) + "\n";
    const Checked checked = check(text, proof::vocabulary());
    REQUIRE(checked.diagnostics.size() == max_diagnostics + 1);
    CHECK(checked.diagnostics.back().code == Code::too_many_errors);
    CHECK_FALSE(checked.ok);
}

TEST_CASE("unused names are warnings and do not stop a rule", "[lang]") {
    const Checked checked = check("param p = 0\nlet x = g\nout.r = b", proof::vocabulary());
    CHECK(checked.ok);
    REQUIRE(checked.diagnostics.size() == 2);
    CHECK(checked.diagnostics[0].code == Code::unused_name);
    CHECK(checked.diagnostics[0].severity == Severity::warning);
}

TEST_CASE("a rule is understood as data", "[lang]") {
    const Rule rule =
        good_rule("filter \"Name\"\nnote \"Why\"\nworking srgb\nparam p = 0.25 in 0 .. 2 step 0.5 \"how much\"\n"
                  "preset \"Full\" p = 2\nproof \"t\" : finite\nout.g = mix(g, b, p)");
    CHECK(rule.title == "Name");
    CHECK(rule.note == "Why");
    CHECK(rule.working == "srgb");
    REQUIRE(rule.parameters.size() == 1);
    CHECK(rule.parameters[0].value == 0.25);
    CHECK(rule.parameters[0].high == 2);
    CHECK(rule.parameters[0].step == 0.5);
    CHECK(rule.parameters[0].description == "how much");
    REQUIRE(rule.presets.size() == 1);
    CHECK(rule.presets[0].values == std::vector<double>{2});
    REQUIRE(rule.proofs.size() == 1);
}

TEST_CASE("a rendered diagnostic has file, line, column, code and remedy", "[lang]") {
    const std::string text = "filter \"A\"\nout.g = shrd";
    const Checked checked = check(text, proof::vocabulary());
    REQUIRE(checked.diagnostics.size() == 1);
    CHECK(
        rendered(checked.diagnostics[0], text, "a.kasuri").starts_with("a.kasuri:2:9: error K201: there is no shrd\n"));
}

TEST_CASE("ids of faults are unique", "[lang]") {
    std::vector<std::string_view> ids;
    for (const CodeRow& row : code_table()) {
        CHECK(std::find(ids.begin(), ids.end(), row.id) == ids.end());
        CHECK_FALSE(row.wording.empty());
        ids.push_back(row.id);
    }
}

TEST_CASE("a colour's range may lie above 0", "[check]") {
    const lang::Rule rule = good_rule("param power = vec3(1, 1.5, 1) in 0.25 .. 2\nout.rgb = pow(rgb, power)");
    CHECK((rule.parameters[1].low == 0.25 && rule.parameters[1].high == 2 && rule.parameters[1].value == 1.5));
    const lang::Checked wrong =
        lang::check("param power = vec3(1, 3, 1) in 0.25 .. 2\nout.rgb *= power", proof::vocabulary());
    CHECK_FALSE(wrong.ok);
    CHECK(lang::message(wrong.diagnostics.at(0)).find("the value 3 lies outside") != std::string::npos);
}
