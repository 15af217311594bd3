#include "document/recipe.hpp"

#include "lang/lexer.hpp"
#include "lang/parser.hpp"

#include <algorithm>
#include <cctype>
#include <map>
#include <set>

namespace kasuri::document {
namespace {

constexpr Recipe table[] = {
    {"swap", "Swap two channels", "Green and blue change places.", "out.gb = $out.bg\n"},
    {"rotate", "Rotate the channels", "Red takes green, green takes blue, blue takes red.", "out.rgb = $out.gbr\n"},
    {"average", "Average of the channels", "Each channel moves to the mean of all three; greys stay.",
     "param @meet = $0 in 0 .. 1 \"How far the channels meet\"\nout.rgb = mix(out.rgb, vec3(average(out.rgb)), "
     "@meet)\n"},
    {"mono", "Weighted mono", "One picture without colour, of weights that sum to 1.",
     "param @mono = $0 in 0 .. 1 \"How much of the colour goes\"\nout.rgb = mix(out.rgb, vec3(mono(out.rgb, vec3(0.3, "
     "0.6, 0.1))), @mono)\n"},
    {"crosstalk", "Crosstalk with held sums",
     "Every channel takes a share of the two others; the rows sum to 1, so greys stay.",
     "param @share = $0 in -0.5 .. 0.5 \"What a channel takes of each other one\"\n"
     "out.rgb = mat3(1 - 2 * @share, @share, @share,  @share, 1 - 2 * @share, @share,  @share, @share, 1 - 2 * @share) "
     "* out.rgb\n"},
    {"mix", "Mixing matrix", "Nine numbers that the mix table shows.",
     "out.rgb = mat3($1, 0, 0,  0, 1, 0,  0, 0, 1) * out.rgb\n"},
    {"two_dyes", "Two dyes", "Green and blue share one dye, red has the other.",
     "param @meet = $0 in 0 .. 1 \"How far green and blue meet\"\nlet @shared = 0.5 * out.g + 0.5 * out.b\nout.gb = "
     "mix(out.gb, vec2(@shared), @meet)\n"},
    {"split_tone", "Split tone", "Shadows lean to one tint, lights to another; the middle stays.",
     "param @tone = $0 in 0 .. 1 \"How much\"\nparam @shadows = vec3(0.86, 0.95, 1.12) \"Tint of the shadows\"\nparam "
     "@lights = vec3(1.08, 1, 0.86) \"Tint of the lights\"\n"
     "out.rgb = split_tone(out.rgb, luminance(out.rgb), @shadows, @lights, 0.18, @tone)\n"},
    {"zone_mix", "Mix by zones", "Three matrices, for shadows, middle tones and lights; the zones sum to 1.",
     "param @zone_mix = $0 in 0 .. 1 \"How much\"\nlet @zone = zones(luminance(rgb), 0.08, 0.4, 0.1)\n"
     "let @dark = mat3(1, 0, 0,  0, 1, 0,  0, 0.1, 0.9) * out.rgb\nlet @middle = mat3(1, 0, 0,  0, 0.9, 0.1,  0, 0.1, "
     "0.9) * out.rgb\nlet @light = mat3(0.9, 0.1, 0,  0, 1, 0,  0, 0, 1) * out.rgb\n"
     "out.rgb = mix(out.rgb, @zone.x * @dark + @zone.y * @middle + @zone.z * @light, @zone_mix)\n"},
    {"band", "Adjust a band of hues", "Turns and saturates one range of hues; the rest stays.",
     "param @turn = $0 in -60 .. 60 \"Degrees\"\nparam @more = 0 in -1 .. 1 \"Saturation\"\nlet @hue = "
     "lch(out.rgb)\nlet @band = band(@hue.h, 40, 50, 20)\n"
     "@hue.h += @turn * @band\n@hue.c *= 1 + @more * @band\nout.rgb = rgb(@hue)\n"},
    {"model", "Edit in L*a*b*", "Lightness and the two opponents, edited apart.",
     "param @warm = $0 in -20 .. 20 \"Along b*, blue to yellow\"\nlet @lab = lab(out.rgb)\n@lab.b += @warm\nout.rgb = "
     "rgb(@lab)\n"},
    {"hsv", "Darken what is saturated", "As more dye does.",
     "param @depth = $0 in -1 .. 1 \"How much\"\nlet @hsv = hsv(out.rgb)\n@hsv.v *= 1 - @depth * @hsv.s\nout.rgb = "
     "rgb(@hsv)\n"},
    {"chroma_blur", "Blur the chroma", "Colour noise goes, detail of lightness stays.",
     "param @size = $0 in 0 .. 5 \"Percent of the picture's height\"\nlet @soft = lab(out.rgb)\n@soft.a = "
     "blur(@soft.a, percent(@size))\n@soft.b = blur(@soft.b, percent(@size))\nout.rgb = rgb(@soft)\n"},
    {"sharpen", "Sharpen the lightness", "Colour stays as it is.",
     "param @crisp = $0 in 0 .. 2 \"How much\"\nlet @sharp = lab(out.rgb)\n@sharp.l = sharpen(@sharp.l, 1.5, "
     "@crisp)\nout.rgb = rgb(@sharp)\n"},
    {"mask", "Blend through a mask", "A changed picture is laid over by a smooth mask of luminance.",
     "param @opacity = $0 in 0 .. 1 \"How much\"\nlet @mask = smoothstep(0.2, 0.6, luminance(rgb))\nlet @over = "
     "blend_soft_light(out.rgb, rgb)\nout.rgb = mix(out.rgb, @over, @mask * @opacity)\n"},
    {"vivid", "Colour over mono", "One range of hues keeps its colour, the rest goes grey.",
     "param @grey = $0 in 0 .. 1 \"How grey the rest\"\nlet @kept = band(lch(rgb).h, 40, 60, 20)\nout.rgb = "
     "mix(out.rgb, vec3(luminance(out.rgb)), @grey * (1 - @kept))\n"},
    {"codes", "Pattern of code values", "Bits of red against bits of green, at 8 bits.",
     "param @weave = $0 in 0 .. 1 \"How much\"\nlet @codes = bit_xor(out.r, out.g, 8)\nout.rgb = mix(out.rgb, "
     "vec3(@codes), @weave)\n"},
    {"edge", "Offset that minds alpha", "What is not there gets no light.",
     "param @lift = $0 in -0.2 .. 0.2 \"Offset\"\nout.rgb += @lift * step(0.0001, a)\n"},
    {"hold_hue", "Hold the hue of a colour", "Turns the result until this colour has its hue back.",
     "hold hue of ($0.72, 0.49, 0.4)\n"},
    {"keep_luminance", "Keep the luminance", "Scales the result to the luminance of what came in.",
     "keep luminance$\n"},
};

std::set<std::string> names_in(std::string_view text) {
    std::set<std::string> names;
    for (const lang::Token& token : lang::lex(text, nullptr))
        if (token.kind == lang::TokenKind::name || token.kind == lang::TokenKind::keyword)
            names.emplace(text_of(text, token.span));
    return names;
}

bool is_letter(char c) { return std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '_'; }

/// The recipe with names of its own, and where $ stood.
Written filled(std::string_view recipe, std::set<std::string> taken) {
    std::map<std::string, std::string> names;
    Written made;
    for (std::size_t i = 0; i < recipe.size(); ++i) {
        if (recipe[i] == '$') {
            made.caret = made.edit.inserted.size();
        } else if (recipe[i] == '@') {
            std::size_t end = i + 1;
            while (end < recipe.size() && is_letter(recipe[end]))
                ++end;
            const std::string wanted(recipe.substr(i + 1, end - i - 1));
            std::string& name = names[wanted];
            for (int number = 1; name.empty(); ++number)
                if (const std::string tried = number == 1 ? wanted : wanted + std::to_string(number);
                    !taken.contains(tried))
                    name = tried;
            taken.insert(name);
            made.edit.inserted += name;
            i = end - 1;
        } else {
            made.edit.inserted += recipe[i];
        }
    }
    return made;
}

/// The end of the line that `at` is in, or of the statement that goes on over it.
std::size_t end_of_line(std::string_view text, std::size_t at) {
    std::vector<lang::Diagnostic> ignored;
    const lang::Tree tree = lang::parse(text, ignored);
    for (const lang::Statement& s : tree.statements)
        if (at > s.span.begin && at < s.span.end)
            at = s.span.end;
    const std::size_t end = text.find('\n', std::min(at, text.size()));
    return end == text.npos ? text.size() : end;
}

Written placed(std::string_view text, std::size_t end, Written made) {
    made.edit.at = static_cast<std::uint32_t>(end);
    const std::size_t begin = end == 0 ? 0 : text.rfind('\n', end - 1) == text.npos ? 0 : text.rfind('\n', end - 1) + 1;
    const bool blank = text.substr(begin, end - begin).find_first_not_of(" \t\r") == text.npos;
    const std::string before = blank ? "" : "\n";
    std::string& inserted = made.edit.inserted;
    if (inserted.ends_with('\n') && (!blank || end < text.size()))
        inserted.pop_back(); // the line's own end follows
    inserted = before + inserted;
    made.caret += end + before.size();
    return made;
}

} // namespace

std::span<const Recipe> recipes() { return table; }

Written with_recipe(std::string_view text, std::size_t at, const Recipe& recipe) {
    return placed(text, end_of_line(text, at), filled(recipe.text, names_in(text)));
}

Written with_last_line(std::string_view text, std::string_view line) {
    const std::size_t end = text.find_last_not_of(" \t\r\n") == text.npos ? 0 : text.find_last_not_of(" \t\r\n") + 1;
    return placed(text, end, filled(line, {}));
}

} // namespace kasuri::document
