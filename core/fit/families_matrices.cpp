#include "fit/families.hpp"

namespace kasuri::fit {
namespace {

constexpr char own[] = "common practice, no source";

Form balanced(const Family&, const Range&) {
    Form form;
    form.text = matrix_text(form, "out.rgb = ", "", true) + " * rgb\n";
    return form;
}

Form plain(const Family&, const Range&) {
    Form form;
    form.text = matrix_text(form, "out.rgb = ", "", false) + " * rgb\n";
    return form;
}

Form with_offset(const Family&, const Range&) {
    Form form;
    form.text = matrix_text(form, "out.rgb = ", "", false) + " * rgb + vec3($offset_r, $offset_g, $offset_b)\n";
    for (const char* name : {"offset_r", "offset_g", "offset_b"})
        form.values.push_back({name, 0, -0.2, 0.2, false, {}});
    return form;
}

Form between_powers(const Family&, const Range&) {
    Form form;
    form.text = "let opened = spow(rgb, $power_in)\n" + matrix_text(form, "let mixed = ", "", false) +
        " * opened\nout.rgb = spow(mixed, $power_out)\n";
    form.values.push_back({"power_in", 1, 1.6, 2.8, false, {}});
    form.values.push_back({"power_out", 1, 0.35, 0.6, false, {}});
    std::vector<double> start;
    for (const Value& value : form.values)
        start.push_back(value.start);
    start[9] = 2.2;
    start[10] = 0.45;
    form.more_starts = {start};
    return form;
}

Form saturation(const Family&, const Range&) {
    return {"out.rgb = saturate(rgb, $saturation)\n",
            {{"saturation", 1, 0.3, 1.7, true, "0 is grey, 1 changes nothing"}}};
}

Form weighted_saturation(const Family&, const Range&) {
    return {"let grey = mono(rgb, vec3($red_in_grey, [1 - $red_in_grey - $blue_in_grey], $blue_in_grey))\n"
            "out.rgb = mix(vec3(grey), rgb, $saturation)\n",
            {{"red_in_grey", 0.3, 0.1, 0.5, false, {}},
             {"blue_in_grey", 0.2, 0.1, 0.4, false, {}},
             {"saturation", 0.9, 0.3, 1.7, true, "0 is grey, 1 changes nothing"}},
            {{0.3, 0.2, 1.2}}};
}

Form with_density(const Family&, const Range&) {
    Form form;
    form.text = matrix_text(form, "let mixed = ", "", false) + " * rgb\nout.rgb = density(mixed, $density)\n";
    form.values.push_back({"density", 0.01, 0.1, 0.5, false, {}});
    return form;
}

Form with_subtractive(const Family&, const Range&) {
    Form form;
    form.text =
        matrix_text(form, "let mixed = ", "", false) + " * rgb\nout.rgb = subtractive_saturation(mixed, $depth)\n";
    form.values.push_back({"depth", 0.01, 0.1, 0.5, false, {}});
    return form;
}

} // namespace

void add_matrices(std::vector<Family>& table) {
    table.push_back({"saturation", "saturation about luminance", "Towards grey or away from it.", own, saturation});
    table.push_back({"weighted-saturation", "saturation about a grey of its own",
                     "Towards a grey of found weights, or away from it.", own, weighted_saturation});
    table.push_back({"matrix-balanced", "3x3 matrix, rows sum to 1", "Greys stay.", own, balanced});
    table.push_back({"matrix", "3x3 matrix", "Each channel a sum of all three.", own, plain});
    table.push_back({"matrix-offset", "3x4 matrix", "A matrix and an offset.", own, with_offset});
    table.push_back(
        {"matrix-density", "3x3 matrix, then density", "A matrix, then darker by saturation.", own, with_density});
    table.push_back({"matrix-subtractive", "3x3 matrix, then subtractive saturation",
                     "A matrix, then away from the largest channel.", own, with_subtractive});
    table.push_back({"matrix-between-powers", "3x3 matrix between two powers", "A power, a matrix, another power.", own,
                     between_powers, Family::Spaces::as_they_are});
}

} // namespace kasuri::fit
