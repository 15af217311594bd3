#include "fit/families.hpp"

namespace kasuri::fit {
namespace {

constexpr char own[] = "common practice, no source";

Form split(const Family&, const Range&) {
    Form form{"out.rgb = split_tone(rgb, luma(rgb), vec3($shadow_r, $shadow_g, $shadow_b),\n"
              "                     vec3($light_r, $light_g, $light_b), $pivot, 1)\n",
              {}};
    for (const char* name : {"shadow_r", "shadow_g", "shadow_b", "light_r", "light_g", "light_b"})
        form.values.push_back({name, 1, 0.7, 1.3, false, {}});
    form.values.push_back({"pivot", 0.5, 0.3, 0.7, false, {}});
    return form;
}

Form zones(const Family&, const Range&) {
    Form form;
    form.text = matrix_text(form, "let dark = ", "_dark", false) + " * rgb\n";
    form.text += matrix_text(form, "let light = ", "_light", false) + " * rgb\n";
    form.text += "out.rgb = mix(dark, light, smoothstep(0, 1, (luma(rgb) - $middle) * $steep + 0.5))\n";
    form.values.push_back({"middle", 0.5, 0.35, 0.65, false, {}});
    form.values.push_back({"steep", 1.7, 1.4, 2.5, false, {}});
    // Where both matrices are the same it does not matter where one goes over into the other: a search must not start
    // there.
    for (std::size_t i = 0; i < 18; ++i)
        form.values[i].start *= i < 9 ? 0.9 : 1.1;
    std::vector<double> start;
    for (const Value& value : form.values)
        start.push_back(value.start);
    for (const double middle : {0.3, 0.7}) {
        start[18] = middle;
        form.more_starts.push_back(start);
    }
    return form;
}

} // namespace

void add_tones(std::vector<Family>& table) {
    table.push_back({"split-tone", "split tone", "A tint of the shadows, another of the highlights.", own, split,
                     Family::Spaces::as_they_are});
    table.push_back({"zone-matrices", "matrices of dark and light", "A matrix for dark colours, one for light ones.",
                     own, zones, Family::Spaces::as_they_are});
}

} // namespace kasuri::fit
