// What an editor offers at the place that is marked with | in a text.
#include "lang/assist.hpp"
#include "lang/lexer.hpp"
#include "lang/statement.hpp"
#include "support/support.hpp"
#include "targets/target.hpp"

#include <algorithm>

using namespace kasuri;
using namespace kasuri::lang;
using namespace kasuri::test;

namespace {

struct Marked {
    std::string text;
    std::size_t at;
};

Marked marked(std::string text) {
    const std::size_t at = text.find('|');
    REQUIRE(at != std::string::npos);
    text.erase(at, 1);
    return {text, at};
}

Completions offered(const std::string& text) {
    const Marked m = marked(text);
    return completions(m.text, m.at, proof::vocabulary());
}

std::string list(const Completions& all, std::size_t most = 100) {
    std::string text;
    for (std::size_t i = 0; i < std::min(most, all.items.size()); ++i)
        text += (i > 0 ? " " : "") + all.items[i].text;
    return text;
}

bool has(const Completions& all, const std::string& word) {
    return std::any_of(all.items.begin(), all.items.end(), [&](const Completion& item) { return item.text == word; });
}

std::string hovered(const std::string& text) {
    const Marked m = marked(text);
    const auto hover = lang::hover(m.text, m.at, proof::vocabulary());
    return hover ? hover->heading + " - " + hover->doc : "nothing";
}

std::optional<CallHelp> called(const std::string& text) {
    const Marked m = marked(text);
    return call_help(m.text, m.at, proof::vocabulary());
}

std::string target_names() {
    std::string names;
    for (const targets::Target* target : targets::all())
        names += (names.empty() ? "" : " ") + std::string(target->name);
    return names;
}

} // namespace

TEST_CASE("completion: each place offers what makes sense there", "[lang][assist]") {
    struct Row {
        const char* text;
        std::string items; ///< all of them, in their order
    };
    const Row rows[] = {
        {"working acesc|", "acescg acescc acescct"},
        {"working rec709-l|", "rec709-linear"},
        {"keep |", "luminance"},
        {"note \"a |", ""},
        {"// r|", ""},
        {"let x = 2|", ""},
        {"source lamp : |", "vec4 vec3 float"},
        {"source l|", ""},
        {"let |", ""},
        {"param k = |", "true false vec3"},
        {"param k = 1 |", "of in whole step"},
        {"param k = 1 in 0 .. 4 |", "of whole step"},
        {"param k = 1 in |", ""},
        {"source key : |", "vec4 vec3 float"},
        {"source key : float = |", "picture step"},
        {"source key = pi|", "picture"},
        {"param way = soft of soft, hard\nout.r = way.|", "soft hard"},
        {"param tint = vec3(1, 0, 0)\nout.r = tint.|", "r g b rgb x y z"},
        {"let c = hsv(rgb)\nlet k = c.|", "h s v"},
        {"let c = hsv(rgb)\nlet k = c.|\nout.r = c.h", "h s v"},
        {"let k = pos.|", "r g x y"},
        {"let k = hsv(rgb * 2).|", "h s v"},
        {"let k = rgba.bgr.|", "r g b rgb x y z"},
        {"out.|", "r g b a rgb x y z w"},
        {"let k = r.|", ""},
        {"fn f(c |",
         "float bool vec2 vec3 vec4 mat3 hsv hsl hwb hsi hsi_hexcone ycbcr601 ycbcr709 ycbcr2020 ycocg xyz xyz65 xyz50 "
         "xyy lab "
         "lab50 lch lch50 luv luv50 lchuv lchuv50 oklab oklch ictcp ictcp_hlg"},
        {"fn f(c vec3, k) {\n    let d = c * k\n    d.|", "r g b rgb x y z"},
        {"proof \"a\" |", "on"},
        {"proof \"a\" on |", "lattice " + target_names()},
        {"param k = 1\nparam on = true\npreset \"p\" |", "k on"},
        {"param k = 1\nparam on = true\npreset \"p\" k = 1, on = |", "true false"},
        {"param way = soft of soft, hard\npreset \"p\" way = |", "soft hard"},
    };
    for (const Row& row : rows) {
        INFO(row.text);
        CHECK(list(offered(row.text)) == row.items);
    }
}

TEST_CASE("completion: what is written of a word chooses, and says what it replaces", "[lang][assist]") {
    const Completions all = offered("let shared = g\nout.r = sha|red");
    CHECK(list(all, 2) == "shared sharpen");
    CHECK(all.replaces == Span{23, 29});
    CHECK(all.items[0].detail == "float, per pixel");
    CHECK(list(offered("out.rgb = LUMIN|"), 1) == "luminance");
    CHECK(list(offered("out.rgb = with_l|")) == "with_luminance");
    // What holds the word comes behind what begins with it.
    const Completions luma = offered("out.rgb = vec3(luma|");
    CHECK(list(luma, 1) == "luma");
    const Completions light = offered("out.rgb = blend_l|");
    CHECK(light.items.size() > 3);
    CHECK(light.items[0].text.starts_with("blend_l"));
}

TEST_CASE("completion: names are known below the line that makes them, and inside functions only their own",
          "[lang][assist]") {
    CHECK(has(offered("let x = r\nout.r = |"), "x"));
    CHECK_FALSE(has(offered("out.r = |\nlet x = r"), "x"));
    CHECK_FALSE(has(offered("let x = |"), "x"));
    const std::string body = "param strength = 1\nfn bend(x, k) {\n    let y = x * k\n    |\n}\n";
    const Completions inside = offered(body);
    for (const char* word : {"x", "k", "y", "aspect", "mix", "let"})
        CHECK(has(inside, word));
    for (const char* word : {"strength", "r", "rgba", "out", "param", "proof"})
        CHECK_FALSE(has(inside, word));
    const Completions outside = offered(body.substr(0, body.find('|')) + "y\n}\nout.r = |");
    CHECK(has(outside, "bend"));
    CHECK_FALSE(has(outside, "y"));
    // Own names come first, the nearest at the top.
    CHECK(list(offered("let first = r\nlet second = g\nout.r = |"), 3) == "second first out");
    // At the beginning of a line: what can be assigned to, and statements.
    const Completions line = offered("let x = r\n|");
    for (const StatementRow& row : statement_table())
        CHECK((row.word.empty() || has(line, std::string(row.word))));
    CHECK(has(line, "out"));
    CHECK_FALSE(has(line, "mix"));
}

TEST_CASE("completion: a text with faults elsewhere, and at any byte", "[lang][assist]") {
    CHECK(has(offered("let broken = (\nlet x = r\nout.r = |"), "x"));
    CHECK(list(offered("let c = hsv(rgb)\nout.r = wrong(\nlet k = c.|")) == "h s v");
    // Whatever the place, nothing falls over, and what an item replaces surrounds the place.
    const std::string text = content_of(std::string(KASURI_SOURCE_DIR) + "/data/filters/crossed-threads.kasuri");
    for (std::size_t at = 0; at <= text.size(); ++at) {
        const std::string cut = text.substr(0, at); // as it is while it is typed
        const Completions whole = completions(text, at, proof::vocabulary()),
                          typed = completions(cut, at, proof::vocabulary());
        REQUIRE(whole.replaces.begin <= at);
        REQUIRE(whole.replaces.end >= at);
        REQUIRE(typed.replaces.end == at);
        (void)hover(text, at, proof::vocabulary());
        (void)call_help(cut, at, proof::vocabulary());
    }
}

TEST_CASE("every statement's keyword has its help, and every help a keyword", "[lang][assist]") {
    for (const StatementRow& row : statement_table()) {
        INFO(row.form);
        CHECK((row.word.empty() || is_keyword(row.word)));
        CHECK(std::string(row.form).starts_with(row.word));
    }
    for (const std::string_view word : keywords())
        if (word != "in" && word != "true" && word != "false")
            CHECK(hovered("|" + std::string(word)) != "nothing");
}

TEST_CASE("hover says what a word means", "[lang][assist]") {
    CHECK(hovered("out.r = as|pect") == "aspect : float, per picture - width of the picture divided by its height");
    CHECK(hovered("let shar|ed = 0.5 * g") == "let shared : float, per pixel - ");
    CHECK(hovered("param k = 1 in 0 .. 4 \"How far\"\nout.r = |k") == "param k : 0 .. 4 - How far");
    CHECK(hovered("param way = soft of soft, hard \"Edge\"\nout.r = w|ay.hard ? 1 : 0") ==
          "param way : soft, hard - Edge");
    CHECK(hovered("let k = 2 * 3\nout.r = |k") == "let k : float, constant - ");
    CHECK(hovered("ke|ep luminance") == "keep luminance - Gives out the luminance of the input back.");
    CHECK(hovered("let c = hsv(rgb)\nout.r = c.|s").starts_with("s of hsv : float - "));
    CHECK(hovered("let c = hsv(rgb)\nout.r = c.|s").size() > 25);
    CHECK(hovered("out.rg = rgb.b|r") == "br of vec3 : vec2 - ");
    CHECK(hovered("out.r = average|(rgb)").starts_with("average("));
    CHECK(hovered("// Bends it.\nfn bend(x, k vec3) = x * k\nout.rgb = be|nd(r, rgb)") ==
          "bend(x float, k vec3) vec3 - Bends it.");
    CHECK(hovered("out.rgb = satu|rate(rgb, 2)").find("saturation") != std::string::npos);
    // A function of several forms shows them all.
    const std::string rgb = hovered("let c = hsv(rgb)\nout.rgb = rg|b(c)");
    CHECK(rgb.starts_with("rgb("));
    for (const char* text : {"out.r = 1|2", "// wo|rd", "out.r = |+ 1", "out.r = nobody|(1)", "note \"a wo|rd\"", "|"})
        CHECK(hovered(text) == "nothing");
}

TEST_CASE("help with a call follows the argument", "[lang][assist]") {
    const auto mix = called("out.rgb = mix(rgb, clamp(g, 0, 1) * rgb, |");
    REQUIRE(mix);
    CHECK(mix->argument == 2);
    REQUIRE(mix->forms.size() >= 1);
    const CallForm& form = mix->forms[0];
    CHECK(form.text.substr(form.active.begin, form.active.size()) == "share gen");
    const auto inner = called("out.rgb = mix(rgb, clamp(g|, 0, 1) * rgb, 1)");
    REQUIRE(inner);
    CHECK(inner->argument == 0);
    CHECK(inner->forms[0].text == "clamp(x gen, low gen, high gen) gen");
    // The last argument of a variadic function stays the one at hand.
    const auto curve = called("out.r = curve(r, vec2(0, 0), vec2(1, 1), vec2(2, 2), |");
    REQUIRE(curve);
    CHECK(curve->argument == 4);
    CHECK(curve->forms[0].active.size() > 0);
    // Too many arguments: the form is shown, nothing in it is active.
    const auto many = called("out.r = abs(r, |");
    REQUIRE(many);
    CHECK(many->forms[0].active.size() == 0);
    // Own functions, over several lines.
    const auto own = called("fn bend(x, k vec3) = x * k\nout.rgb = bend(\n    r,\n    |)");
    REQUIRE(own);
    CHECK(own->forms[0].text == "bend(x float, k vec3) vec3");
    CHECK(own->argument == 1);
    for (const char* text : {"out.r = |r", "out.r = (r + |", "fn f(|", "out.r = nobody(|", "out.r = abs(r) + |"})
        CHECK_FALSE(called(text));
}
