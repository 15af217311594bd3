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

/// Curves on either side of a matrix whose rows sum to 1.
Form around_matrix(const Family& family, const Range& range) {
    Form form;
    form.text = three(form, "rgb", family.size, range);
    form.text += matrix_text(form, "let mixed = ", "", true) + " * out.rgb\n";
    for (const char* channel : {"r", "g", "b"})
        form.text += fmt::format(
            "out.{} = {}\n", channel,
            curve_text(form, fmt::format("mixed.{}", channel), fmt::format("{}_then", channel), family.size, range));
    return form;
}

constexpr char in_log_source[] = "common practice, no source: a logarithm with room for 0 and a straight line below, "
                                 "as log encodings of cameras have";
const Value bend{"bend", 5, 2, 200, false, {}}; ///< 0 would be a straight line

/// From 0 to 0 and from 1 to 1; below 0 the line goes straight on.
std::string to_log(const std::string& light) {
    return fmt::format("(log(1 + $bend * max({0}, 0)) + $bend * min({0}, 0)) / log(1 + $bend)", light);
}
/// And back.
std::string from_log(const std::string& code) {
    return fmt::format("(pow(1 + $bend, max({0}, 0)) - 1 + log(1 + $bend) * min({0}, 0)) / $bend", code);
}

std::vector<Value> log_values() { return {bend, {"black", 0, -0.1, 0.1, false, {}}, {"gain", 1, 0.7, 1.3, false, {}}}; }

Form log_curve(const Family&, const Range&) {
    return {"out.rgb = $black + $gain * " + to_log("rgb") + "\n", log_values(), {{80, 0, 1}}};
}

Form exp_curve(const Family&, const Range&) {
    return {"let code = (rgb - $black) / $gain\nout.rgb = " + from_log("code") + "\n", log_values(), {{80, 0, 1}}};
}

/// A matrix in the light of an encoding that nobody named.
Form matrix_in_log(const Family&, const Range&) {
    Form form;
    form.text = "let code = (rgb - $black) / (1 - $black)\nlet light = " + from_log("code") + "\n" +
        matrix_text(form, "let mixed = ", "", false) + " * light\nout.rgb = $black + (1 - $black) * " +
        to_log("mixed") + "\n";
    form.values.push_back(bend);
    form.values.push_back({"black", 0, 0.02, 0.12, false, {}});
    std::vector<double> start;
    for (const Value& value : form.values)
        start.push_back(value.start);
    for (const double tried : {20.0, 60.0, 150.0}) {
        start[9] = tried;
        start[10] = 0.05;
        form.more_starts.push_back(start);
    }
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
    table.push_back({name("curves-matrix-curves", 5),
                     title("three curves of {} knots, a matrix, three curves", 5),
                     "A curve for each channel on both sides of a matrix with rows that sum to 1.",
                     source,
                     around_matrix,
                     as_they_are,
                     {},
                     5});
    table.push_back({"log-curve", "a logarithm with found numbers", "Light to an encoding: the same for all channels.",
                     in_log_source, log_curve, as_they_are});
    table.push_back({"exp-curve", "an exponential with found numbers",
                     "An encoding to light: the same for all channels.", in_log_source, exp_curve, as_they_are});
    table.push_back({"matrix-in-log", "3x3 matrix in the light of a found log encoding",
                     "To light by a found encoding, a matrix, and back.", in_log_source, matrix_in_log, as_they_are});
}

} // namespace kasuri::fit
