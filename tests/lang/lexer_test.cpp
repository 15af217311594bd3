#include "lang/lexer.hpp"
#include "lang/parser.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::lang;

namespace {

std::vector<std::string> texts(const std::string& source) {
    std::vector<std::string> all;
    for (const Token& token : lex(source, nullptr))
        if (token.kind != TokenKind::end)
            all.emplace_back(text_of(source, token.span));
    return all;
}

std::string tree_of(const std::string& source) {
    std::vector<Diagnostic> faults;
    const Tree tree = parse(source, faults);
    INFO(source);
    CHECK(faults.empty());
    return printed(tree);
}

} // namespace

TEST_CASE("tokens keep every byte's place", "[lang]") {
    CHECK(texts("out.g=mix(g,.5,1e-3)") ==
          std::vector<std::string>{"out", ".", "g", "=", "mix", "(", "g", ",", ".5", ",", "1e-3", ")"});
    CHECK(texts("0..1") == std::vector<std::string>{"0", "..", "1"});
    CHECK(texts("0 .. 1.") == std::vector<std::string>{"0", "..", "1."});
    CHECK(texts("a<=b&&!c||d!=e") == std::vector<std::string>{"a", "<=", "b", "&&", "!", "c", "||", "d", "!=", "e"});
    CHECK(texts("x // note \"y\"\nz") == std::vector<std::string>{"x", "// note \"y\"", "\n", "z"});
    CHECK(texts("note \"a // b\"") == std::vector<std::string>{"note", "\"a // b\""});
}

TEST_CASE("faulty tokens are reported with their place and do not end the reading", "[lang]") {
    std::vector<Diagnostic> faults;
    lex("a # b 12abc 1e999 \"open", &faults);
    REQUIRE(faults.size() == 4);
    CHECK(faults[0].code == Code::bad_character);
    CHECK(faults[0].span == Span{2, 3});
    CHECK(faults[1].code == Code::bad_number);
    CHECK(faults[1].span == Span{6, 11});
    CHECK(faults[2].code == Code::number_too_large);
    CHECK(faults[3].code == Code::unclosed_string);
    CHECK(faults[3].span == Span{18, 23});
}

TEST_CASE("a foreign character is one token with all its bytes", "[lang]") {
    const std::string text = "a \u00d7 b";
    std::vector<Diagnostic> faults;
    lex(text, &faults);
    REQUIRE(faults.size() == 1);
    CHECK(faults[0].span == Span{2, 4});
}

TEST_CASE("operators bind as in GLSL", "[lang]") { // GLSL 4.60, section 5.1, precedence table
    CHECK(tree_of("let x = a + b * c - d") == "let x (- (+ a (* b c)) d)\n");
    CHECK(tree_of("let x = a < b && c >= d || !e") == "let x (|| (&& (< a b) (>= c d)) (! e))\n");
    CHECK(tree_of("let x = a == b < c") == "let x (== a (< b c))\n");
    CHECK(tree_of("let x = -a.r * b") == "let x (* (- (.r a)) b)\n");
    CHECK(tree_of("let x = a ? b : c ? d : e") == "let x (? a b (? c d e))\n");
    CHECK(tree_of("let x = a / b / c") == "let x (/ (/ a b) c)\n");
}

TEST_CASE("statements end at a line end or a semicolon and go on inside brackets and after operators", "[lang]") {
    CHECK(tree_of("out.g = b; out.b = g") == "assign out.g b\nassign out.b g\n");
    CHECK(tree_of("let x = mix(a,\n  b,\n  c)\nout.r = x") == "let x (mix a b c)\nassign out.r x\n");
    CHECK(tree_of("let x = a +\n  b") == "let x (+ a b)\n");
    CHECK(tree_of("c.v *= 2\n\n// only a comment\n") == "assign c.v *= 2\n");
    CHECK(tree_of("param p = -0.5 in -1 .. 1 step 0.25 \"how\"") == "param p (- 0.5) (- 1) 1 0.25 \"how\"\n");
    CHECK(tree_of("preset \"One\" a = 1, b = -2") == "preset a=1 b=(- 2) \"One\"\n");
    CHECK(tree_of("proof \"greys\" : neutral < 1e-4") == "proof (< neutral 0.0001) \"greys\"\n");
    CHECK(tree_of("working rec709-linear // c") == "working rec709-linear\n");
}

TEST_CASE("reading goes on after a fault", "[lang]") {
    std::vector<Diagnostic> faults;
    const Tree tree = parse("let a = (1 +\nout.r = 2\nlet = 3\nout.g = a b\nout.b = 4", faults);
    CHECK(faults.size() == 3);
    CHECK(printed(tree) == "assign out.r 2\nassign out.g a\nassign out.b 4\n");
}

TEST_CASE("limits end in a clear fault, never in a crash", "[lang]") {
    const auto only_fault = [](const std::string& text) {
        std::vector<Diagnostic> faults;
        parse(text, faults);
        REQUIRE(faults.size() == 1);
        return faults[0].code;
    };
    CHECK(only_fault(std::string(2'000'000, 'x')) == Code::text_too_long); // a rule of 2 MB
    CHECK(only_fault("out.r = " + std::string(5000, '(') + "1" + std::string(5000, ')')) == Code::nested_too_deep);
    CHECK(only_fault("out.r = " + std::string(5000, '-') + "1") == Code::nested_too_deep);
    std::string sum = "out.r = 1";
    for (int i = 0; i < 5000; ++i)
        sum += "+1";
    CHECK(only_fault(sum) == Code::nested_too_deep);
}

TEST_CASE("random bytes never crash the checker", "[lang][fuzz]") {
    std::mt19937 random(7);
    const std::string pieces[] = {"out", ".",    "r",      "g",      "=",       "(",   ")",   "mix",  ",", "1", ".5",
                                  "\n",  "let ", "param ", " in ",   "..",      "hsv", "rgb", "?",    ":", "+", "*",
                                  "\"",  "vec3", "mat3",   "proof ", "preset ", "<",   "&&",  "\xff", "//"};
    for (int round = 0; round < 3000; ++round) {
        std::string text;
        const std::size_t length = random() % 60;
        for (std::size_t i = 0; i < length; ++i)
            text += pieces[random() % std::size(pieces)];
        const Checked checked = check(text, proof::vocabulary());
        for (const Diagnostic& d : checked.diagnostics) {
            REQUIRE(d.span.begin <= d.span.end);
            REQUIRE(d.span.end <= text.size());
            REQUIRE_FALSE(message(d).empty());
        }
        if (checked.ok)
            kasuri::test::run(checked.rule, {{0.1f, 0.2f, 0.3f, 1}});
    }
}
