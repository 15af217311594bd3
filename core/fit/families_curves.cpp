#include "fit/families.hpp"

#include <fmt/format.h>

namespace kasuri::fit {
namespace {

constexpr auto as_they_are = Family::Spaces::as_they_are;
constexpr char source[] = "monotone cubic: Fritsch and Carlson, SIAM J. Numer. Anal. 17, 1980";

Form one(const Family& family, const Range& range) {
    Form form;
    form.text = "out.rgb = " + curve_text(form, "rgb", "at", family.size, range) + "\n";
    return form;
}

std::string three(Form& form, const std::string& of, int knots, const Range& range) {
    std::string made;
    for (const char* channel : {"r", "g", "b"})
        made += fmt::format("out.{} = {}\n", channel,
                            curve_text(form, of + "." + channel, fmt::format("{}_at", channel), knots, range));
    return made;
}

Form each(const Family& family, const Range& range) {
    Form form;
    form.text = three(form, "rgb", family.size, range);
    return form;
}

/// Rows sum to 1, so that what scales a channel is the curve's alone.
Form after_matrix(const Family& family, const Range& range) {
    Form form;
    form.text = matrix_text(form, "let mixed = ", "", true) + " * rgb\n";
    form.text += three(form, "mixed", family.size, range);
    return form;
}

Form before_matrix(const Family& family, const Range& range) {
    Form form;
    form.text = three(form, "rgb", family.size, range);
    form.text += matrix_text(form, "out.rgb = ", "", true) + " * out.rgb\n";
    return form;
}

} // namespace

void add_curves(std::vector<Family>& table) {
    const auto name = [](const char* what, int knots) { return fmt::format("{}-{}", what, knots); };
    const auto title = [](const char* what, int knots) { return fmt::format(fmt::runtime(what), knots); };
    for (const int knots : {5, 9, 17})
        table.push_back({name("curve", knots),
                         title("one curve of {} knots", knots),
                         "The same curve for all channels.",
                         source,
                         one,
                         as_they_are,
                         {},
                         knots});
    for (const int knots : {5, 9, 17})
        table.push_back({name("curves", knots),
                         title("three curves of {} knots", knots),
                         "A curve for each channel.",
                         source,
                         each,
                         as_they_are,
                         {},
                         knots});
    for (const int knots : {5, 9})
        table.push_back({name("matrix-curves", knots),
                         title("matrix, then three curves of {} knots", knots),
                         "A matrix with rows that sum to 1, then a curve for each channel.",
                         source,
                         after_matrix,
                         as_they_are,
                         {},
                         knots});
    for (const int knots : {5, 9})
        table.push_back({name("curves-matrix", knots),
                         title("three curves of {} knots, then a matrix", knots),
                         "A curve for each channel, then a matrix with rows that sum to 1.",
                         source,
                         before_matrix,
                         as_they_are,
                         {},
                         knots});
}

} // namespace kasuri::fit
