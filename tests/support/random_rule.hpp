#pragma once
#include <random>
#include <string>

namespace kasuri::test {

/// Random well-typed rules of functions without jumps, so that a small difference of the arguments is a small
/// difference of the result. `Random` gives unsigned numbers.
template <class Random>
class RandomRule {
public:
    explicit RandomRule(Random& random) : random_(random) {}

    std::string text() {
        std::string rule =
            "param p = 0.3 in -2 .. 2\nparam q = -0.7 in -2 .. 2\nparam on = true\nparam tint = vec3(0.5, -0.25, 1.5)\n"
            "fn bend(x, k) = x / (1 + abs(k * x))\n"
            "fn swirl(c vec3, k) {\n    let s = c.gbr * k\n    s.r += bend(c.r, k)\n    mix(c, s, 0.25)\n}\n"
            "fn dyed(c vec3, k) {\n    let m = lab(c)\n    m.a += 20 * bend(k, 1)\n    rgb(m)\n}\n"
            "fn rinsed(c vec3, k) {\n    let m = oklab(c)\n    m.ab *= 1 - 0.5 * bend(k, 1)\n    rgb(m)\n}\n"
            "fn soaked(c vec3, k) {\n    let m = oklch(c)\n    m.h = turn(m.h, 30 * bend(k, 1))\n    rgb(m)\n}\n"
            "fn woven(c vec3, k) {\n    let m = ycbcr709(c)\n    m.crcb = m.cbcr * bend(k, 1)\n    rgb(m)\n}\n";
        const int steps = 1 + pick(4);
        for (int i = 0; i < steps; ++i) {
            rule += "let v" + std::to_string(lets_) + " = " + vec3(3) + "\n";
            ++lets_;
            if (pick(2))
                rule += std::string("out.") + "rgb"[pick(3)] + " = " + scalar(3) + "\n";
            else
                rule += "out.rgb = " + vec3(2) + "\n";
            if (pick(4) == 0)
                rule += "out.a *= " + scalar(1) + "\n";
            if (pick(8) == 0)
                rule += "v" + std::to_string(lets_ - 1) + "." + "xyz"[pick(3)] + " -= " + scalar(1) + "\n";
            if (pick(12) == 0)
                rule +=
                    pick(2) ? "hold hue of tint\n" : "hold hue of vec3(0.7, 0.3 + 0.1 * bend(p, 1), 0.2) in oklch\n";
        }
        return rule;
    }

private:
    int pick(int count) { return static_cast<int>(random_() % static_cast<unsigned>(count)); }
    std::string number() { return std::to_string((pick(4000) - 2000) / 1000.0); }

    std::string scalar(int depth) {
        if (depth == 0)
            switch (pick(8)) {
            case 0: return number();
            case 1: return "p";
            case 2: return "q";
            case 3: return "out.g";
            case 4: return "a";
            case 5: return "tint.g";
            default: return std::string(1, "rgb"[pick(3)]);
            }
        const auto s = [&] { return scalar(depth - 1); };
        switch (pick(28)) {
        case 0: return "(" + s() + " + " + s() + ")";
        case 1: return "(" + s() + " - " + s() + ")";
        case 2: return "(" + s() + " * " + s() + ")";
        case 3: return "min(" + s() + ", " + s() + ")";
        case 4: return "max(" + s() + ", " + s() + ")";
        case 5: return "clamp(" + s() + ", -1, 2)";
        case 6: return "mix(" + s() + ", " + s() + ", clamp(" + s() + ", 0, 1))";
        case 7: return "smoothstep(-1, 2, " + s() + ")";
        case 8: return "abs(" + s() + ")";
        case 9: return "exp2(clamp(" + s() + ", -3, 2))";
        case 10: return "log2(1 + abs(" + s() + "))";
        case 11: return "sin(" + s() + ")";
        case 12: return "pow(abs(" + s() + ") + 0.25, 1.4)";
        case 13: return "dot(" + vec3(depth - 1) + ", vec3(0.25, 0.5, 0.25))";
        case 14: return "curve(" + s() + ", vec2(-1, -1), vec2(0, 0.2), vec2(0.5, 0.3), vec2(2, p + 2.5))";
        case 15: return "tanh(" + s() + ")";
        case 16: return "spow(" + s() + ", 1.5)";
        case 17: return "atan(" + s() + ")";
        case 18: return "bend(" + s() + ", " + s() + ")";
        case 19: return "luminance(" + vec3(depth - 1) + ")";
        case 20: return "zones(" + s() + ", 0.2, 0.7, 0.3)." + "xyz"[pick(3)];
        case 21: return "(on ? " + s() + " : " + s() + ")";
        case 22: { // a curve with a straight foot that meets it
            const std::string x = scalar(0);
            return "(" + x + " <= 0.0031308 ? 12.92 * " + x + " : 1.055 * pow(" + x + ", 1 / 2.4) - 0.055)";
        }
        case 23: return "asinh(" + s() + ") / 3";
        case 24: return "(" + s() + " * " + s() + " - " + s() + ")";
        case 25: return "0.1 * sqrt(1 + pow(abs(delta_e_ok(" + vec3(depth - 1) + ", tint)), 2))";
        case 26: return "acescct_encode(" + s() + ")";
        default: return "average(" + vec3(depth - 1) + ")";
        }
    }

    std::string vec3(int depth) {
        if (depth == 0)
            return lets_ > 0 && pick(2) ? "v" + std::to_string(pick(lets_)) : pick(2) ? "rgb" : "out.bgr";
        switch (pick(16)) {
        case 11: return std::string(pick(2) ? "dyed(" : "rinsed(") + vec3(depth - 1) + ", " + scalar(depth - 1) + ")";
        case 12: return std::string(pick(2) ? "soaked(" : "woven(") + vec3(depth - 1) + ", " + scalar(depth - 1) + ")";
        case 13: return std::string(pick(2) ? "to_acescg(" : "from_rec2020_linear(") + vec3(depth - 1) + ")";
        case 14: return std::string(pick(2) ? "to_romm_linear(" : "from_acescg(") + vec3(depth - 1) + ")";
        case 0: return "vec3(" + scalar(depth - 1) + ", " + scalar(depth - 1) + ", " + scalar(depth - 1) + ")";
        case 1: return "(" + vec3(depth - 1) + " * " + scalar(depth - 1) + ")";
        case 2: return "(" + vec3(depth - 1) + " + " + vec3(depth - 1) + ")";
        case 3: return "mat3(0.6, 0.3, 0.1, p, 1 - p, 0, 0.2, q, 0.5) * " + vec3(depth - 1);
        case 4: return "mix(" + vec3(depth - 1) + ", " + vec3(depth - 1) + ", 0.3)";
        case 5: return "swirl(" + vec3(depth - 1) + ", " + scalar(depth - 1) + ")";
        case 6: return "blend_exclusion(" + vec3(depth - 1) + ", " + vec3(depth - 1) + ")";
        case 7: return "mix(" + vec3(depth - 1) + ", tint, smoothstep(0, 1, " + scalar(depth - 1) + "))";
        case 8: return "(mat3(0.5, 0.25, 0.25, 0, 1, 0, 0.1, 0.2, 0.7) * " + vec3(depth - 1) + " + 0.1)";
        case 9: return "clamp(" + vec3(depth - 1) + ", -2, 3)";
        default: return "-" + vec3(depth - 1);
        }
    }

    Random& random_;
    int lets_ = 0;
};

} // namespace kasuri::test
