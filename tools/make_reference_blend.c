/* Blend modes and Porter-Duff operators as pixman computes them in floats (premultiplied), as a second source beside
 * W3C Compositing and Blending Level 1. Blends are of opaque colours, so the result is B(backdrop, source).
 * cc tools/make_reference_blend.c $(pkg-config --cflags --libs pixman-1) -lm -o make && ./make > data/reference/blend-pixman.csv */
#include <pixman.h>
#include <stdio.h>

struct op { const char* name; pixman_op_t op; int blend; };
static const struct op ops[] = {
    {"blend_multiply", PIXMAN_OP_MULTIPLY, 1}, {"blend_screen", PIXMAN_OP_SCREEN, 1}, {"blend_overlay", PIXMAN_OP_OVERLAY, 1},
    {"blend_darken", PIXMAN_OP_DARKEN, 1}, {"blend_lighten", PIXMAN_OP_LIGHTEN, 1}, {"blend_color_dodge", PIXMAN_OP_COLOR_DODGE, 1},
    {"blend_color_burn", PIXMAN_OP_COLOR_BURN, 1}, {"blend_hard_light", PIXMAN_OP_HARD_LIGHT, 1}, {"blend_soft_light", PIXMAN_OP_SOFT_LIGHT, 1},
    {"blend_difference", PIXMAN_OP_DIFFERENCE, 1}, {"blend_exclusion", PIXMAN_OP_EXCLUSION, 1}, {"blend_hue", PIXMAN_OP_HSL_HUE, 1},
    {"blend_saturation", PIXMAN_OP_HSL_SATURATION, 1}, {"blend_color", PIXMAN_OP_HSL_COLOR, 1}, {"blend_luminosity", PIXMAN_OP_HSL_LUMINOSITY, 1},
    {"compose_clear", PIXMAN_OP_CLEAR, 0}, {"compose_copy", PIXMAN_OP_SRC, 0}, {"compose_destination", PIXMAN_OP_DST, 0},
    {"compose_source_over", PIXMAN_OP_OVER, 0}, {"compose_destination_over", PIXMAN_OP_OVER_REVERSE, 0},
    {"compose_source_in", PIXMAN_OP_IN, 0}, {"compose_destination_in", PIXMAN_OP_IN_REVERSE, 0}, {"compose_source_out", PIXMAN_OP_OUT, 0},
    {"compose_destination_out", PIXMAN_OP_OUT_REVERSE, 0}, {"compose_source_atop", PIXMAN_OP_ATOP, 0},
    {"compose_destination_atop", PIXMAN_OP_ATOP_REVERSE, 0}, {"compose_xor", PIXMAN_OP_XOR, 0}, {"compose_lighter", PIXMAN_OP_ADD, 0},
};

static float next(unsigned* state) {
    *state = *state * 1664525u + 1013904223u;
    return (float)(*state >> 24) / 255.0f;
}

int main(void) {
    unsigned state = 7, i, k;
    int c;
    printf("# name, backdrop r g b a, source r g b a (straight), result r g b a (premultiplied); pixman %s, rgba_float; made by tools/make_reference_blend.c\n", pixman_version_string());
    for (i = 0; i < sizeof ops / sizeof *ops; ++i)
        for (k = 0; k < 40; ++k) {
            float b[4], s[4], pb[4], ps[4];
            for (c = 0; c < 4; ++c) {
                b[c] = next(&state);
                s[c] = next(&state);
            }
            if (ops[i].blend)
                b[3] = s[3] = 1;
            for (c = 0; c < 4; ++c) {
                pb[c] = c < 3 ? b[c] * b[3] : b[3];
                ps[c] = c < 3 ? s[c] * s[3] : s[3];
            }
            pixman_image_t* source = pixman_image_create_bits(PIXMAN_rgba_float, 1, 1, (uint32_t*)ps, 16);
            pixman_image_t* target = pixman_image_create_bits(PIXMAN_rgba_float, 1, 1, (uint32_t*)pb, 16);
            pixman_image_composite32(ops[i].op, source, NULL, target, 0, 0, 0, 0, 0, 0, 1, 1);
            printf("%s", ops[i].name);
            for (c = 0; c < 4; ++c) printf(",%.9g", b[c]);
            for (c = 0; c < 4; ++c) printf(",%.9g", s[c]);
            for (c = 0; c < 4; ++c) printf(",%.9g", pb[c]);
            printf("\n");
            pixman_image_unref(source);
            pixman_image_unref(target);
        }
    return 0;
}
