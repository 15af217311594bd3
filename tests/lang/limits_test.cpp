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

TEST_CASE("limit: statements, and parameters", "[lang][limits]") {
    const auto lets = [](std::size_t count) {
        std::string text;
        for (std::size_t i = 0; i + 1 < count; ++i)
            text += "let a" + std::to_string(i) + " = r\n";
        return text + "out.r = a0\n";
    };
    CHECK_FALSE(has(checked(lets(max_statements)), Code::too_many_statements));
    const Checked many = checked(lets(max_statements + 1));
    CHECK_FALSE(many.ok);
    CHECK(has(many, Code::too_many_statements));
    const auto parameters = [](std::size_t count, const std::string& first) {
        std::string text = first;
        for (std::size_t i = 0; i < count; ++i)
            text += "param p" + std::to_string(i) + " = 0 in 0 .. 1\n";
        return text;
    };
    CHECK_FALSE(has(checked(parameters(max_parameters, "")), Code::too_many_parameters));
    CHECK(has(checked(parameters(max_parameters + 1, "")), Code::too_many_parameters));
    CHECK(has(checked(parameters(max_parameters - 2, "param c = vec3(0, 0, 0)\n")), Code::too_many_parameters));
    CHECK_FALSE(has(checked(parameters(max_parameters - 3, "param c = vec3(0, 0, 0)\n")), Code::too_many_parameters));
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

TEST_CASE("each used file is read once, however often it is used, and a circle is told as one", "[lang][limits]") {
    CheckOptions options;
    int reads = 0;
    options.open = [&](const std::string& name) -> Result<std::string> {
        ++reads;
        const int level = std::stoi(name);
        std::string text;
        for (int i = 0; i < 8 && level > 0; ++i)
            text += "use \"" + std::to_string(level - 1) + "\"\n";
        return text + "fn f" + name + "(x) = x * 2\n";
    };
    CHECK(check("use \"7\"\nout.r = f7(f0(g))", proof::vocabulary(), options).ok);
    CHECK(reads == 8); // not 8 to the power of 7
    options.open = [](const std::string& name) -> Result<std::string> {
        return "use \"" + std::string(name == "a" ? "b" : name == "b" ? "c" : "a") + "\"\n";
    };
    const Checked circle = check("use \"a\"\nout.r = g", proof::vocabulary(), options);
    REQUIRE(circle.diagnostics.size() == 1);
    CHECK(message(circle.diagnostics.front()) ==
          "a cannot be used: files use each other in a circle: a -> b -> c -> a");
    // A fault is told with its own file, whichever way it was met first.
    options.open = [](const std::string& name) -> Result<std::string> {
        return std::string(name == "a" ? "use \"b\"\n" : "fn g(x) = \n");
    };
    const Checked broken = check("use \"a\"\nuse \"b\"\nout.r = g", proof::vocabulary(), options);
    REQUIRE(broken.diagnostics.size() == 2);
    CHECK(message(broken.diagnostics[0]).starts_with("a cannot be used: line 1, column 1: b cannot be used: line 1"));
    CHECK(message(broken.diagnostics[1]).starts_with("b cannot be used: line 1"));
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
    CHECK(without == 8); // the limits, each tested above
}
