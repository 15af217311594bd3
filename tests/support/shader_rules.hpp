#pragma once

namespace kasuri::test {

/// What the language has, as rules that a shader can be: read by tests of shaders as texts and as they run.
inline constexpr const char* shader_rules[] = {
    "out.rgb = rgb.gbr",
    "let c = hsv(rgb)\nc.h += 40\nc.s *= 0.5\nout.rgb = rgb(c)",
    "let c = oklch(rgb)\nc.h += 20\nout.rgb = rgb(c)",
    "out.rgb = srgb_encode(rgb)",
    "out.rgb = pq_encode(clamp(rgb, 0, 1))",
    "out.r = atan(g, b)\nout.g = pow(r, 3)\nout.b = spow(b - 0.5, 1.7)",
    "out.r = bit_xor(r, g, 8)\nout.b = quantise(b, 4)",
    "out.rgb = r > g && b < 0.5 ? rgb * 2 : -rgb",
    "out.a = 1 - a\nout.rgb = mix(rgb, vec3(luminance(rgb)), smoothstep(0.2, 0.8, g))",
    "working srgb\nout.rgb = rgb * rgb",
    "out.rgb = blend_soft_light(rgb, rgb.gbr)",
    "param k = 3 in 0 .. 9 whole\nout.r = mod(k, 2) * r",
    "out.r = min(r, sqrt(g))\nout.g = log2(b)\nout.b = round(8 * b) / 8",
    "param tint = vec3(1, 0.5, 0.25)\nparam tint_r = 2 in 0 .. 4\nout.rgb *= tint * tint_r",
};

} // namespace kasuri::test
