// What helps to write: names, comments, numbers, recipes.
#include "document/line_edits.hpp"
#include "document/recipe.hpp"
#include "insight/algebra.hpp"
#include "lang/symbol.hpp"
#include "proof/ready_made.hpp"
#include "support/support.hpp"

#include <random>
#include <set>

using namespace kasuri;
using namespace kasuri::document;
using namespace kasuri::test;

namespace {

std::string renamed_at(const std::string& text, const std::string& place, const std::string& name) {
    const auto symbol = lang::symbol_at(text, text.find(place));
    if (!symbol)
        return "no symbol";
    const lang::Renamed made = lang::renamed(text, *symbol, name, proof::vocabulary());
    return made.fault.empty() ? made.text : made.fault;
}

std::string commented(const std::string& text, std::uint32_t begin, std::uint32_t end) {
    return with_comments_toggled(text, {begin, end}).applied(text);
}

} // namespace

TEST_CASE("a name is renamed where it is meant, and nowhere else", "[writing]") {
    const std::string text = "param meet = 0 in 0 .. 1 \"meet here\"\npreset \"p\" meet = 1\nfn half(meet float) = "
                             "meet / 2\nlet c = hsv(rgb)\nc.h += meet\nout.g = mix(g, half(meet), meet) // meet\n";
    CHECK(renamed_at(text, "meet = 0", "near") ==
          "param near = 0 in 0 .. 1 \"meet here\"\npreset \"p\" near = 1\nfn half(meet float) = meet / 2\nlet c = "
          "hsv(rgb)\nc.h += near\nout.g = mix(g, half(near), near) // meet\n");
    CHECK(renamed_at(text, "meet float", "x") ==
          "param meet = 0 in 0 .. 1 \"meet here\"\npreset \"p\" meet = 1\nfn half(x float) = x / 2\nlet c = "
          "hsv(rgb)\nc.h += meet\nout.g = mix(g, half(meet), meet) // meet\n");
    CHECK(renamed_at(text, "half(meet float", "share").find("mix(g, share(meet), meet)") != std::string::npos);
    CHECK(renamed_at(text, "c = hsv", "colour").find("colour.h += meet") != std::string::npos);
    // Components, the language's own and words in quotes are not the text's.
    CHECK(renamed_at(text, "h +=", "x") == "no symbol");
    CHECK(renamed_at(text, "hsv", "x") == "no symbol");
    CHECK(renamed_at(text, "meet here", "x") == "no symbol");
    CHECK(renamed_at(text, "meet = 0", "c").find("stands in the text already") != std::string::npos);
    CHECK(renamed_at(text, "meet = 0", "rgb").find("already") != std::string::npos);
    CHECK(renamed_at(text, "meet = 0", "2x").find("is not a name") != std::string::npos);
    CHECK(renamed_at(text, "meet = 0", "let").find("is not a name") != std::string::npos);
    const auto symbol = lang::symbol_at(text, text.find("half(meet), meet"));
    REQUIRE(symbol);
    CHECK(symbol->definition.begin == text.find("half(meet float"));
    CHECK(symbol->places.size() == 2);
}

TEST_CASE("names of targets, models and options are not lets of that name", "[writing]") {
    CHECK(renamed_at("let lattice = r\nproof \"x\" on lattice : out.r == lattice", "lattice = r", "z") ==
          "let z = r\nproof \"x\" on lattice : out.r == z");
    CHECK(renamed_at("let hsv2 = r\nout.r = hsv2", "hsv2", "z") == "let z = r\nout.r = z");
}

TEST_CASE("lines become comments and come back", "[writing]") {
    const std::string text = "out.r = g\n\n    out.g = b\nout.b = r";
    CHECK(commented(text, 0, 0) == "// out.r = g\n\n    out.g = b\nout.b = r");
    CHECK(commented(text, 0, 16) == "// out.r = g\n\n//     out.g = b\nout.b = r");
    const std::string all = commented(text, 0, static_cast<std::uint32_t>(text.size()));
    CHECK(all == "// out.r = g\n\n//     out.g = b\n// out.b = r");
    CHECK(commented(all, 0, static_cast<std::uint32_t>(all.size())) == text);
    CHECK(commented("a = 1\nb = 2", 0, 6) == "// a = 1\nb = 2"); // the end stands before the second line
    CHECK(commented("//a = 1", 3, 3) == "a = 1");
    CHECK(commented("", 0, 0) == "");
    CHECK(commented("\n\n", 1, 1) == "\n\n");
}

TEST_CASE("numbers are found with their sign and changed as they are written", "[writing]") {
    const std::string text = "out.r = 0.25 - 3 * -1.5e-2 // 7";
    REQUIRE(number_at(text, 9));
    CHECK(number_at(text, 9)->value == 0.25);
    CHECK(number_at(text, 15)->value == 3); // it is taken away, its sign is not its own
    CHECK(number_at(text, text.find("-1.5"))->value == -0.015);
    CHECK_FALSE(number_at(text, 2));
    CHECK_FALSE(number_at(text, text.size() - 1));
    const NumberPlace place = *number_at(text, 9);
    CHECK(place.step() == Approx(0.01));
    CHECK(with_number(text, place, 0.2, 0.01).applied(text) == "out.r = 0.20 - 3 * -1.5e-2 // 7");
    CHECK(with_number(text, place, 0.255, 0.001).applied(text) == "out.r = 0.255 - 3 * -1.5e-2 // 7");
    CHECK(with_number(text, *number_at(text, 15), 4, 1).applied(text) == "out.r = 0.25 - 4 * -1.5e-2 // 7");
    CHECK(with_number("k = -0.01", *number_at("k = -0.01", 5), 0, 0.01).applied("k = -0.01") == "k = 0.00");
    CHECK((number_at("360", 0)->step() == Approx(10) && number_at("1", 0)->step() == Approx(0.1) &&
           number_at("0", 0)->step() == Approx(0.01)));
}

TEST_CASE("colours are found where three numbers are one", "[writing]") {
    const std::string text = "out.rgb *= vec3(0.5, -1, 2)\nhold hue of (0.72, 0.49, 0.4)\nout.r = clamp(0.1, 0.2, 0.3) "
                             "// vec3(1, 2, 3)\nlet m = vec3(r, 0, 1)";
    const auto all = colours_in(text);
    REQUIRE(all.size() == 2);
    CHECK(all[0].values == std::array<double, 3>{0.5, -1, 2});
    CHECK(all[1].values == std::array<double, 3>{0.72, 0.49, 0.4});
    CHECK(colour_at(text, text.find("-1")));
    CHECK_FALSE(colour_at(text, text.find("clamp") + 8));
    CHECK(with_colour(text, all[0], {1, 0.123456789, -0.5})
              .applied(text)
              .starts_with("out.rgb *= vec3(1, 0.12346, -0.5)\nhold"));
}

TEST_CASE("the change between two texts is as small as it can be", "[writing]") {
    const auto edit = difference("out.r = 0.25", "out.r = 0.35");
    CHECK((edit.removed == "2" && edit.inserted == "3" && edit.at == 10));
    for (const auto& [a, b] : std::vector<std::pair<std::string, std::string>>{
             {"", "a"}, {"aa", "aaa"}, {"abc", ""}, {"\u00e4", "\u00e5"}, {"x\u00e4y", "x\u00c4y"}, {"abab", "ab"}}) {
        CHECK(difference(a, b).applied(a) == b);
        CHECK(difference(a, b).inverse().applied(b) == a);
    }
    CHECK(difference("\u00e4", "\u00e5").removed == "\u00e4"); // whole letters
}

TEST_CASE("every recipe compiles, does nothing at its defaults where it has one, and goes in twice", "[writing]") {
    std::set<std::string_view> ids;
    for (const Recipe& recipe : recipes()) {
        INFO(recipe.id);
        CHECK(ids.insert(recipe.id).second);
        std::string text = "filter \"x\"\nout.r = g\nproof \"greys\" : neutral";
        for (int time = 0; time < 2; ++time) {
            const Written made = with_recipe(text, text.find("out.r = g") + 3, recipe);
            text = made.edit.applied(text);
            CHECK(made.caret <= text.size());
            CHECK(text.find('@') == std::string::npos);
            CHECK(text.find('$') == std::string::npos);
        }
        INFO(text);
        CHECK(text.ends_with("\nproof \"greys\" : neutral"));
        const bool once = recipe.id == "keep_luminance";
        if (!once)
            good_rule(text);
        const std::string alone = with_recipe("", 0, recipe).edit.applied("");
        const lang::Rule rule = good_rule(alone);
        if (!rule.parameters.empty()) {
            lang::ProofLine line;
            line.function = "identity";
            CHECK(proof::check(subject::Subject(rule), line, std::vector<std::vector<double>>{defaults(rule)})->passed);
        }
    }
    CHECK(ids.size() >= 15);
}

TEST_CASE("every ready-made proof can be written below a rule", "[writing]") {
    for (const proof::ReadyMade& row : proof::ready_made()) {
        INFO(row.line);
        const std::string text = with_last_line("out.r = g\n\n", row.line).edit.applied("out.r = g\n\n");
        CHECK(text.starts_with("out.r = g\nproof \""));
        lang::CheckOptions options;
        options.open = [](const std::string&) -> Result<std::string> { return std::string("out.r = g"); };
        const lang::Checked checked = lang::check(text, proof::vocabulary(), options);
        REQUIRE(checked.ok);
        const lang::Rule& rule = checked.rule;
        REQUIRE(rule.proofs.size() == 1);
        CHECK(proof::check(subject::Subject(rule), rule.proofs[0], proof::settings_of(rule)));
    }
}

TEST_CASE("whatever stands in the text, helping to write is safe", "[writing]") {
    // Rules of the corpus with pieces taken out, doubled and thrown in.
    std::vector<std::string> texts;
    for (const char* outcome : {"ok", "error", "warning"})
        for (const auto& entry :
             std::filesystem::directory_iterator(std::string(KASURI_SOURCE_DIR "/tests/lang/cases/") + outcome))
            texts.push_back(content_of(entry.path()));
    std::sort(texts.begin(), texts.end());
    REQUIRE(texts.size() > 50);
    std::mt19937 random(7);
    const std::string pieces[] = {"(",     ")",   "\"",       "{",    "}",
                                  "-",     ".",   "//",       "\n",   "vec3(1, 2",
                                  "fn x(", "0.5", "\xc3\xa4", "\xff", "proof \"a\" on (1, ",
                                  "$",     "@"};
    for (int trial = 0; trial < 1500; ++trial) {
        std::string text = texts[random() % texts.size()];
        for (int change = static_cast<int>(random() % 4); change > 0; --change) {
            const std::size_t at = random() % (text.size() + 1);
            if (random() % 2 == 0)
                text.erase(at, random() % 12);
            else
                text.insert(at, pieces[random() % std::size(pieces)]);
        }
        const std::size_t at = random() % (text.size() + 1);
        INFO(text << "\nat " << at);
        if (const auto symbol = lang::symbol_at(text, at)) {
            REQUIRE_FALSE(symbol->places.empty());
            for (const Span place : symbol->places)
                REQUIRE(text_of(text, place) == symbol->name);
            const lang::Renamed made = lang::renamed(text, *symbol, "quite_another_name", proof::vocabulary());
            if (made.fault.empty()) // and back again
                REQUIRE(made.text.size() ==
                        text.size() + symbol->places.size() * 18 - symbol->places.size() * symbol->name.size());
        }
        if (const auto number = number_at(text, at)) {
            const std::string changed =
                with_number(text, *number, number->value + number->step(), number->step()).applied(text);
            const bool glued = number->span.begin > 0 &&
                (std::isalnum(static_cast<unsigned char>(text[number->span.begin - 1])) != 0 ||
                 text[number->span.begin - 1] == '_');
            REQUIRE((glued || number_at(changed, number->span.begin))); // "in0.5" is in0 and .5
        }
        for (const ColourPlace& colour : colours_in(text)) {
            const std::string changed = with_colour(text, colour, {0.25, -0.5, 1}).applied(text);
            REQUIRE(colour_at(changed, colour.span.begin)->values == std::array<double, 3>{0.25, -0.5, 1});
        }
        const auto end = static_cast<std::uint32_t>(std::min(text.size(), at + random() % 60));
        const TextEdit comments = with_comments_toggled(text, {static_cast<std::uint32_t>(at), end});
        REQUIRE(comments.inverse().applied(comments.applied(text)) == text);
        const Written written = with_recipe(text, at, recipes()[random() % recipes().size()]);
        REQUIRE(written.caret <= written.edit.applied(text).size());
        REQUIRE(difference(text, written.edit.applied(text)).applied(text) == written.edit.applied(text));
    }
}
