#pragma once
// The five workloads of the engine's design, as rules, and a second set.

namespace kasuri::bench {

struct Workload {
    const char* name;
    const char* rule;
};

inline constexpr Workload workloads[] = {
    {"a_matrix", "out.rgb = mat3(0.7, 0.2, 0.1, 0.1, 0.8, 0.1, 0.05, 0.15, 0.8) * rgb + vec3(0.01, 0, -0.01)\n"},
    {"b_srgb_matrix_srgb",
     "let d = vec3(r <= 0.04045 ? r / 12.92 : pow((r + 0.055) / 1.055, 2.4), g <= 0.04045 ? g / 12.92 : pow((g + "
     "0.055) / 1.055, 2.4), b <= 0.04045 ? b / 12.92 : pow((b + 0.055) / 1.055, 2.4))\n"
     "let m = mat3(0.7, 0.2, 0.1, 0.1, 0.8, 0.1, 0.05, 0.15, 0.8) * d\n"
     "out.r = m.r <= 0.0031308 ? m.r * 12.92 : 1.055 * pow(m.r, 1 / 2.4) - 0.055\n"
     "out.g = m.g <= 0.0031308 ? m.g * 12.92 : 1.055 * pow(m.g, 1 / 2.4) - 0.055\n"
     "out.b = m.b <= 0.0031308 ? m.b * 12.92 : 1.055 * pow(m.b, 1 / 2.4) - 0.055\n"},
    {"c_hsv_edit", "let c = hsv(rgb)\nc.h += 20\nc.s *= 0.8\nout.rgb = rgb(c)\n"},
    {"d_lab_edit_masked",
     "let x = mat3(0.4339, 0.3762, 0.1898, 0.2127, 0.7152, 0.0722, 0.0178, 0.1095, 0.8728) * rgb\n"
     "let f = vec3(x.r > 0.008856 ? pow(x.r, 1 / 3) : 7.787 * x.r + 0.13793, x.g > 0.008856 ? pow(x.g, 1 / 3) : 7.787 "
     "* x.g + 0.13793, x.b > 0.008856 ? pow(x.b, 1 / 3) : 7.787 * x.b + 0.13793)\n"
     "let l = 116 * f.g - 16\nlet a1 = 500 * (f.r - f.g) * 1.2\nlet b1 = 200 * (f.g - f.b) + 4\n"
     "let fy = (l + 16) / 116\nlet k = vec3(fy + a1 / 500, fy, fy - b1 / 200)\n"
     "let q = vec3(k.r > 0.20690 ? k.r * k.r * k.r : (k.r - 0.13793) / 7.787, k.g > 0.20690 ? k.g * k.g * k.g : (k.g - "
     "0.13793) / 7.787, k.b > 0.20690 ? k.b * k.b * k.b : (k.b - 0.13793) / 7.787)\n"
     "let back = mat3(3.0799, -1.5372, -0.5427, -0.9212, 1.8760, 0.0452, 0.0529, -0.2040, 1.1512) * q\n"
     "out.rgb = mix(rgb, back, smoothstep(0.1, 0.6, g))\n"},
};

/// Nobody had these in mind when the engine was tuned.
inline constexpr struct {
    char letter;
    const char* rule;
} second_workloads[] = {
    {'g',
     "out.g = 0.4 * g + 0.6 * b\nlet c = oklch(out.rgb)\nc.c *= 1.2\nc.l *= 0.97\nout.rgb = rgb(c)\n"
     "hold hue of (0.62, 0.34, 0.25) in oklch\n"},
    {'h',
     "let y = luminance(rgb)\nlet low = 1 - smoothstep(0.02, 0.25, y)\nlet high = smoothstep(0.4, 0.9, y)\n"
     "let s = mat3(0.9, 0.05, 0.05,  0.02, 0.96, 0.02,  0, 0.1, 0.9) * rgb\n"
     "let m = mat3(1.05, -0.05, 0,  0, 1, 0,  -0.02, 0.02, 1) * rgb\n"
     "let t = mat3(0.96, 0.04, 0,  0, 0.98, 0.02,  0.06, 0, 0.94) * rgb\n"
     "out.rgb = low * s + (1 - low - high) * m + high * t\n"},
    {'i', "working acescct\nout.rgb = to_rec2100_pq(rgb)\n"},
    {'k',
     "let q = quantise(rgb, 8)\nout.r = bit_xor(q.r, bit_right(q.r, 1, 8), 8)\n"
     "out.g = bit_or(bit_and(q.g, 240 / 255, 8), bit_right(q.b, 4, 8), 8)\n"
     "out.b = bit_left(bit_not(q.b, 8), 1, 8)\n"},
};

} // namespace kasuri::bench
