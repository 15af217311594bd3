// Every limit of the language: just inside it is taken, just outside gives its own error and nothing falls over.
#include "engine/lower.hpp"
#include "lang/lexer.hpp"
#include "lang/parser.hpp"
#include "support/support.hpp"

#include <algorithm>

using namespace kasuri;
using namespace kasuri::lang;
using namespace kasuri::test;

namespace {

Checked checked(const std::string& text) { return check(text, proof::vocabulary()); }

bool has(const Checked& result, Code code) {
    return std::any_of(result.diagnostics.begin(), result.diagnostics.end(),
                       [&](const Diagnostic& d) { return d.code == code; });
}

std::string repeated(const std::string& part, int count) {
    std::string text;
    for (int i = 0; i < count; ++i)
        text += part;
    return text;
}

} // namespace

TEST_CASE("limit: bytes of text", "[lang][limits]") {
    const std::string rule = "out.r = g\n";
    std::string text = rule + "//" + std::string(longest_text - rule.size() - 2, 'x');
    CHECK(checked(text).ok);
    text += "x";
    const Checked result = checked(text);
    CHECK_FALSE(result.ok);
    REQUIRE(has(result, Code::text_too_long));
    CHECK(message(result.diagnostics[0]) == "the rule has 1048577 bytes; the limit is 1048576");
}

TEST_CASE("limit: brackets inside brackets, signs, choices", "[lang][limits]") {
    const auto nested = [](int depth) { return "out.r = " + repeated("(", depth) + "g" + repeated(")", depth); };
    CHECK(checked(nested(deepest_nesting - 2)).ok);
    for (const std::string& text :
         {nested(deepest_nesting + 1), nested(200000), "out.r = " + repeated("-", 200000) + "g",
          "out.r = " + repeated("abs(", 5000) + "g" + repeated(")", 5000),
          "out.r = " + repeated("g > 0 ? r : ", 5000) + "b", "out.r = " + repeated("(", 100000)}) {
        const Checked result = checked(text);
        CHECK_FALSE(result.ok);
        CHECK(has(result, Code::nested_too_deep));
    }
}

TEST_CASE("limit: operators one after the other", "[lang][limits]") {
    CHECK(checked("out.r = g" + repeated(" + g", tallest_expression - 10)).ok);
    const Checked result = checked("out.r = g" + repeated(" + g", tallest_expression + 10));
    CHECK(has(result, Code::nested_too_deep));
}

TEST_CASE("limit: operations, with functions that call functions", "[lang][limits]") {
    std::string text = "fn f0(x) = x * x + 1\n";
    for (int i = 1; i < 40; ++i)
        text += "fn f" + std::to_string(i) + "(x) = f" + std::to_string(i - 1) + "(x) + f" + std::to_string(i - 1) +
            "(x * 2)\n";
    CHECK(checked(text + "out.r = f10(g)").ok);
    for (const char* call : {"out.r = f20(g)", "out.r = f39(g)"}) { // 2^39 operations, if they were written out
        const Checked result = checked(text + call);
        CHECK_FALSE(result.ok);
        CHECK(has(result, Code::rule_too_large));
    }
}

TEST_CASE("limit: passes", "[lang][limits]") {
    std::string text = "let c = rgb\n";
    for (int i = 0; i < static_cast<int>(max_stages) / 3; ++i)
        text += "c = blur(c, " + std::to_string(i + 1) + ")\n";
    CHECK(checked(text + "out.rgb = c").ok); // 21 times 3
    const Checked result = checked(text + "c = blur(c, 1)\nout.rgb = c");
    CHECK_FALSE(result.ok);
    CHECK(has(result, Code::too_many_stages));
}

TEST_CASE("limit: knots of a curve", "[lang][limits]") {
    const auto curve = [](int knots) {
        std::string text = "out.r = curve(r";
        for (int i = 0; i < knots; ++i)
            text += ", vec2(" + std::to_string(i) + ", " + std::to_string(i * i) + ")";
        return text + ")";
    };
    CHECK(checked(curve(64)).ok);
    const Checked result = checked(curve(65));
    CHECK_FALSE(result.ok);
    CHECK(has(result, Code::too_many_knots));
}

TEST_CASE("limit: files that use files, or each other", "[lang][limits]") {
    CheckOptions options;
    options.open = [](const std::string& name) -> Result<std::string> {
        const int level = std::stoi(name);
        if (level == 0)
            return std::string("fn f0(x) = x");
        const std::string below = std::to_string(level - 1);
        return "use \"" + below + "\"\nfn f" + name + "(x) = f" + below + "(x) * 2\n";
    };
    const auto at = [&](int depth) {
        return check("use \"" + std::to_string(depth) + "\"\nout.r = f" + std::to_string(depth) + "(g)",
                     proof::vocabulary(), options);
    };
    CHECK(at(deepest_use - 1).ok);
    CHECK(has(at(deepest_use + 1), Code::cannot_use));
    options.open = [](const std::string&) -> Result<std::string> { return std::string("use \"a\""); };
    const Checked circle = check("use \"a\"", proof::vocabulary(), options);
    CHECK(has(circle, Code::cannot_use));
}

TEST_CASE("limit: faults that are listed, and a broken rule stays broken", "[lang][limits]") {
    const Checked result = checked(repeated("out.r = nobody\n", 1000));
    CHECK_FALSE(result.ok);
    CHECK(result.diagnostics.size() == max_diagnostics + 1);
    CHECK(has(result, Code::too_many_errors));
    std::string warnings;
    for (int i = 0; i < 300; ++i)
        warnings += "let x" + std::to_string(i) + " = r\n";
    const Checked fine = checked(warnings);
    CHECK(fine.ok);
    CHECK(fine.diagnostics.size() == max_diagnostics);
    CHECK_FALSE(checked(warnings + "out.r = nobody").ok);
}

TEST_CASE("every row of the table of faults has an example that has it, or is too long for one", "[lang][limits]") {
    CheckOptions options;
    options.open = [](const std::string& name) -> Result<std::string> { return Error{"does not exist", name, ""}; };
    int without = 0;
    for (const CodeRow& row : code_table()) {
        INFO(row.id << ": " << row.example);
        if (row.example.empty()) {
            ++without;
            continue;
        }
        CHECK(has(check(row.example, proof::vocabulary(), options), row.code));
    }
    CHECK(without == 6); // the limits, each tested above
}
