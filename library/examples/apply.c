/* Compiles a rule, sets a value, applies it to a picture in memory, and asks what is known of it. */
#include <kasuri.h>

#include <stdio.h>

int main(void) {
    const char* text = "param meet = 0.25 in 0 .. 1 \"How far red and green come together\"\n"
                       "out.rg = mix(rgb.rg, rgb.gr, 0.5 * meet)\n"
                       "proof \"greys stay grey\" : neutral\n";
    kasuri_filter* filter = NULL;
    kasuri_said* said = NULL;
    if (kasuri_compile(text, NULL, &filter, &said) != KASURI_OK) {
        fputs(kasuri_said_text(said), stderr); /* what, where and what to do */
        kasuri_said_free(said);
        return 1;
    }
    kasuri_said_free(said); /* hints, perhaps */
    kasuri_set(filter, "meet", 1, NULL);

    float pixels[2][3] = {{0.75f, 0.25f, 0.5f}, {0.1f, 0.2f, 0.3f}};
    kasuri_picture picture = kasuri_interleaved(pixels, 2, 1, 3, KASURI_FLOAT32);
    if (kasuri_apply(filter, &picture, &picture, 0, NULL, NULL) != KASURI_OK) /* in its own memory, on all cores */
        return 1;
    for (int i = 0; i < 2; ++i)
        printf("%g %g %g\n", (double)pixels[i][0], (double)pixels[i][1], (double)pixels[i][2]);

    double m[12];
    if (kasuri_matrix(filter, m))
        printf("red is %g red + %g green + %g blue + %g\n", m[0], m[1], m[2], m[3]);

    kasuri_proofs* proofs = NULL;
    int holds = 0;
    if (kasuri_check(filter, NULL, &proofs, &holds, NULL) != KASURI_OK)
        return 1;
    for (size_t i = 0; i < kasuri_proof_count(proofs); ++i) {
        kasuri_proof proof;
        kasuri_proof_at(proofs, i, &proof);
        printf("%s: %s%s\n", proof.title, proof.passed ? "holds" : "does not hold", proof.proved ? ", for all colours" : "");
    }
    kasuri_proofs_free(proofs);
    kasuri_filter_free(filter);
    return holds ? 0 : 1;
}
