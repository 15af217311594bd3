#include "lang/format.hpp"
#include "lang/lexer.hpp"
#include "lang/parser.hpp"
#include "support/random_rule.hpp"
#include "support/shipped.hpp"
#include "support/support.hpp"

#include <algorithm>

using namespace kasuri;
using namespace kasuri::lang;
using namespace kasuri::test;

namespace {

/// The words of a text without blanks, colons and line ends: what formatting may never change.
std::vector<std::string> words(const std::string& text) {
    std::vector<std::string> all;
    for (const Token& token : lex(text, nullptr))
        if (token.kind != TokenKind::newline && token.kind != TokenKind::colon) // those before types are written in
            all.emplace_back(text_of(text, token.span));
    return all;
}

std::string tree_of(const std::string& text) {
    std::vector<Diagnostic> faults;
    const std::string tree = printed(parse(text, faults));
    CHECK(faults.empty());
    return tree;
}

void check_kept(const std::string& text) {
    const auto canonical = formatted(text);
    REQUIRE(canonical);
    INFO(text << "\n--\n" << *canonical);
    CHECK(words(text) == words(*canonical)); // comments are words, too
    CHECK(tree_of(text) == tree_of(*canonical));
    CHECK(formatted(*canonical) == canonical);
}

} // namespace

TEST_CASE("the canonical form", "[lang][format]") {
    struct Row {
        const char* text;
        const char* canonical;
    };
    const Row rows[] = {
        {"out.r=g+b*2", "out.r = g + b * 2\n"},
        {"out.r = - g", "out.r = -g\n"},
        {"out.r=g - -1", "out.r = g - -1\n"},
        {"out.r=2*-g", "out.r = 2 * -g\n"},
        {"out.r = ( g+b ) *2", "out.r = (g + b) * 2\n"},
        {"out.rgb=mix ( rgb,vec3( 0,1,0 ),0.5 )", "out.rgb = mix(rgb, vec3(0, 1, 0), 0.5)\n"},
        {"out.r=g>0&&! (b<1)?r:g", "out.r = g > 0 && !(b < 1) ? r : g\n"},
        {"param k=1 in 0..4", "param k = 1 in 0 .. 4\n"},
        {"param k=-1 in -2..4 step 0.5", "param k = -1 in -2 .. 4 step 0.5\n"},
        {"working   rec709-linear", "working   rec709-linear\n"}, // columns of declarations are the author's
        {"let x=r // why\n", "let x = r  // why\n"},
        {"let x = r      // in a column\n", "let x = r      // in a column\n"},
        {"\n\n\nlet x = r\n\n\n\nout.r = x\n\n\n", "let x = r\n\nout.r = x\n"},
        {"fn f(x){\nlet y=x\n  y*2\n}", "fn f(x) {\n    let y = x\n    y * 2\n}\n"},
        {"out.rgb = mix(rgb,\n vec3(0),\n0.5)", "out.rgb = mix(rgb,\n              vec3(0),\n              0.5)\n"},
        {"out.rgb = rgb *\n2", "out.rgb = rgb *\n    2\n"},
        {"let x=r;out.r=x", "let x = r; out.r = x\n"},
        {"proof \"a\":neutral<1e-4", "proof \"a\" : neutral < 1e-4\n"},
        // Columns of a matrix stay as they were set.
        {"out.rgb = mat3(1,    0, 0,\n               0.15, 1, 0,\n               0,    0, 1) * rgb",
         "out.rgb = mat3(1,    0, 0,\n               0.15, 1, 0,\n               0,    0, 1) * rgb\n"},
        {"", ""},
        {"// only a comment", "// only a comment\n"},
    };
    for (const Row& row : rows) {
        INFO(row.text);
        const auto canonical = formatted(row.text);
        REQUIRE(canonical);
        CHECK(*canonical == row.canonical);
        CHECK(formatted(*canonical) == canonical);
    }
}

TEST_CASE("formatting changes no word, no comment and no meaning", "[lang][format]") {
    for (const std::filesystem::path& path : test::shipped_filters())
        check_kept(content_of(path));
    for (const char* folder : {"/tests/lang/cases/ok", "/tests/lang/cases/warning"})
        for (const auto& entry : std::filesystem::directory_iterator(KASURI_SOURCE_DIR + std::string(folder)))
            check_kept(content_of(entry.path()));
    check_kept(content_of(std::string(KASURI_SOURCE_DIR) + "/data/prelude.kasuri"));
    for (unsigned seed = 0; seed < 200; ++seed) {
        std::mt19937 random(seed);
        std::string text = RandomRule<std::mt19937>(random).text();
        // Blanks where they do not matter are taken out or doubled.
        std::string shaken;
        for (const char c : text)
            if (c != ' ' || random() % 2 == 0)
                shaken += c == ' ' && random() % 3 == 0 ? "   " : std::string(1, c);
            else if (!shaken.empty() && std::isalnum(static_cast<unsigned char>(shaken.back())))
                shaken += c;
        check_kept(shaken);
    }
}

TEST_CASE("our own filters and the prelude are in canonical form", "[lang][format]") {
    std::vector<std::filesystem::path> files = {std::string(KASURI_SOURCE_DIR) + "/data/prelude.kasuri"};
    for (const std::filesystem::path& path : test::shipped_filters())
        files.push_back(path);
    for (const auto& file : files) {
        INFO(file.string());
        CHECK(formatted(content_of(file)) == content_of(file));
    }
}

TEST_CASE("a text that cannot be read is not touched", "[lang][format]") {
    for (const char* text : {"out.r = (", "let = 2", "fn f(x) {", "note \"open", "out.r = g # b"})
        CHECK_FALSE(formatted(text));
    // What reads well and means nothing may be formatted.
    CHECK(formatted("out.r=nobody( 1 )") == "out.r = nobody(1)\n");
}
