#pragma once
#include <fmt/format.h>
#include <random>
#include <string>
#include <vector>

namespace kasuri::test {

/// Random rules of what artists write that can be taken back where their numbers allow: statements that each change
/// what came out so far.
class UndoableRule {
public:
    explicit UndoableRule(unsigned seed) : random_(seed) {}

    std::string text() {
        static const char* const spaces[] = {"rec709-linear", "srgb",           "acescct",
                                             "acescg",        "rec2020-linear", "rec2100-pq"};
        const int space = pick(6);
        linear_ = space == 0 || space == 3 || space == 4;
        std::string rule =
            fmt::format("working {}\nparam p = {} in 0 .. 0.5\nparam q = {} in 0.5 .. 2\nparam on = {}\n",
                        spaces[space], number(0, 0.5), number(0.6, 1.6), pick(2) ? "true" : "false");
        if (pick(5) == 0 && linear_)
            rule += "out.rgb = " + matrix() + " * rgb\nkeep luminance\n";
        const int statements = 1 + pick(3);
        for (int i = 0; i < statements; ++i)
            rule += statement();
        if (pick(8) == 0)
            rule += pick(2) ? "hold hue of (0.7, 0.3, 0.2) in oklch\n" : "hold hue of (0.7, 0.3, 0.2)\n";
        return rule;
    }

private:
    int pick(int of) { return static_cast<int>(random_() % static_cast<unsigned>(of)); }
    double between(double low, double high) {
        return low + (high - low) * static_cast<double>(random_()) / 4294967296.0;
    }
    std::string number(double low, double high) { return fmt::format("{:.3f}", between(low, high)); }
    std::string triple(double low, double high) {
        return fmt::format("vec3({}, {}, {})", number(low, high), number(low, high), number(low, high));
    }
    std::string matrix() {
        std::string all;
        for (int i = 0; i < 9; ++i)
            all += (i ? ", " : "") + (i % 4 == 0 ? number(0.7, 1.2) : number(-0.2, 0.3));
        return "mat3(" + all + ")";
    }
    std::string knots() {
        return fmt::format("vec2(0, {}), vec2({}, {}), vec2({}, {}), vec2(1.1, {})", number(-0.05, 0.05),
                           number(0.2, 0.35), number(0.15, 0.4), number(0.6, 0.8), number(0.55, 0.85),
                           number(0.95, 1.2));
    }
    std::string name(const char* stem) { return stem + std::to_string(++names_); }

    std::string statement() {
        const std::string c = name("c");
        const char *one = channels_[pick(3)], *other = channels_[pick(3)];
        switch (pick(24)) {
        case 0: return "out.rgb = " + matrix() + " * out.rgb\n";
        case 1: return fmt::format("out.{} = mix(out.{}, out.{}, p)\n", one, one, other);
        case 2: return fmt::format("out.rgb = out.rgb * {} + {}\n", triple(0.6, 1.6), triple(-0.1, 0.1));
        case 3: return "out.rgb = spow(out.rgb, q)\n";
        case 4:
            return fmt::format("let {0} = hsv(out.rgb)\n{0}.h += {1}\n{0}.s *= q\n{0}.v *= {2}\nout.rgb = rgb({0})\n",
                               c, number(-90, 90), number(0.7, 1.3));
        case 5:
            return fmt::format("let {0} = oklch(out.rgb)\n{0}.h += {1} * {0}.l\n{0}.c *= q\nout.rgb = rgb({0})\n", c,
                               number(-60, 60));
        case 6:
            return fmt::format("let {0} = lab(out.rgb)\n{0}.a = {0}.a * q + {1}\n{0}.l *= {2}\nout.rgb = rgb({0})\n", c,
                               number(-10, 10), number(0.8, 1.2));
        case 7: return fmt::format("out.rgb = curve(out.rgb, {})\n", knots());
        case 8: return fmt::format("out.{} = curve(out.{}, {})\n", one, one, knots());
        case 9:
            return fmt::format("let {0} = ycbcr709(out.rgb)\n{0}.cb *= q\n{0}.cr += {1} * {0}.cb\nout.rgb = rgb({0})\n",
                               c, number(-0.2, 0.2));
        case 10: return fmt::format("out.rgb = saturate(out.rgb, {})\n", number(0.6, 1.5));
        case 11: return fmt::format("out.rgb = contrast(out.rgb, q, {})\n", number(0.1, 0.5));
        case 12: return fmt::format("out.rgb = exposure(out.rgb, {})\n", number(-1, 1));
        case 13: return fmt::format("out.rgb = density(out.rgb, {})\n", number(-0.4, 0.4));
        case 14: return fmt::format("out.rgb = subtractive_saturation(out.rgb, {})\n", number(-0.4, 0.8));
        case 15: return fmt::format("out.rgb = blend_multiply(out.rgb, {})\n", triple(0.5, 1.4));
        case 16: return fmt::format("out.rgb = mix(out.rgb, blend_screen(out.rgb, {}), p)\n", triple(0, 0.6));
        case 17: return fmt::format("out.rgb = mix(out.rgb, shoulder(out.rgb, {}, 1.4), p)\n", number(0.3, 0.7));
        case 18: return fmt::format("out.rgb = on ? out.rgb * {} : out.{}\n", number(0.5, 2), pick(2) ? "gbr" : "bgr");
        case 19:
            return fmt::format("let {0} = to_acescct(out.rgb)\nout.rgb = from_acescct({0} * {1} + {2})\n", c,
                               number(0.8, 1.2), number(-0.05, 0.05));
        case 20: return "out.rgb = adapt_bradford(out.rgb, vec2(0.3127, 0.329), vec2(0.345, 0.358))\n";
        case 21: return fmt::format("out.r += {} * out.g * out.b\n", number(-0.3, 0.5));
        case 22: return fmt::format("out.rgb = mix(out.rgb, vec3(luma(out.rgb)), p)\n");
        default:
            return fmt::format("out.rgb = out.rgb * (1 + p * (1 - smoothstep(0, 1, {} * out.rgb)))\n", number(0.5, 1));
        }
    }

    static constexpr const char* channels_[] = {"r", "g", "b"};
    std::mt19937 random_;
    bool linear_ = true;
    int names_ = 0;
};

} // namespace kasuri::test
