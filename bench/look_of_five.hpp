#pragma once
// A look of five steps in five working spaces in turn, with an opacity, a mask by luminance and one by hue.
#include "look/make.hpp"

#include <cstdlib>

namespace kasuri::bench {

inline subject::Subject look_of_five() {
    document::Look look;
    const auto step = [&](const char* text, double opacity, const char* mask) {
        document::LookStep made;
        made.text = text;
        made.opacity = opacity;
        made.mask = mask;
        look.steps.push_back(made);
    };
    step("param meet = 0.6 in 0 .. 1\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, shared, meet)\nout.b = mix(b, "
         "shared, meet)\n",
         1, "");
    step("working acescct\nout.rgb = contrast(rgb, 1.2, 0.4135884)\n", 0.8, "");
    step("out.rgb = subtractive_saturation(rgb, 0.4)\n", 1, "smoothstep(0.1, 0.6, luminance(rgb))");
    step("let c = oklch(rgb)\nc.h += 12\nout.rgb = rgb(c)\n", 0.7, "band(hsv(rgb).h, 120.0, 60.0, 30.0)");
    step("working srgb\nout.rgb = split_tone(rgb, clamp(luma(rgb), 0, 1), vec3(0.84, 0.96, 1.12), vec3(1.08, 1.01, "
         "0.82), 0.46, 0.6)\n",
         1, "");
    const auto runs = look::make(look, {});
    if (!runs)
        std::abort();
    return runs.value().subject;
}

} // namespace kasuri::bench
