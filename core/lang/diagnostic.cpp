#include "lang/diagnostic.hpp"

#include "base/table.hpp"
#include "base/text.hpp"

#include <algorithm>
#include <array>
#include <fmt/format.h>

namespace kasuri::lang {
namespace {

constexpr Severity error = Severity::error;
constexpr Severity warning = Severity::warning;

constexpr std::array rows = {
    CodeRow{Code::bad_character, error, "K101", "%1 has no meaning here", "Remove it."},
    CodeRow{Code::unclosed_string, error, "K102", "this text has no closing quotation mark", "End it with \" on the same line."},
    CodeRow{Code::bad_number, error, "K103", "%1 is not a number", "Write numbers like 2, 0.5 or 1e-3."},
    CodeRow{Code::number_too_large, error, "K104", "%1 is larger than a float can hold", "Stay below 3.4e38."},
    CodeRow{Code::text_too_long, error, "K105", "the rule has %1 bytes; the limit is %2", "Split it into several filters."},
    CodeRow{Code::nested_too_deep, error, "K106", "this is nested deeper than %1 levels", "Name parts of it with let."},
    CodeRow{Code::too_many_errors, error, "K107", "more than %1 errors; the rest is not listed", "Mend the first ones."},
    CodeRow{Code::expected, error, "K111", "expected %1, found %2", ""},
    CodeRow{Code::statement_expected, error, "K112", "%1 does not begin a statement", "A line begins with filter, note, working, param, preset, let, proof, or a name to assign to."},
    CodeRow{Code::extra_text, error, "K113", "the statement is complete before %1", "Put the next statement on a line of its own."},
    CodeRow{Code::unknown_name, error, "K201", "there is no %1", "Inputs are r g b a rgb rgba pos pixel aspect; others are made with let or param."},
    CodeRow{Code::unknown_function, error, "K202", "there is no function %1", "See docs/language.md for the list."},
    CodeRow{Code::unknown_component, error, "K203", "%1 has no component %2", "It has %3."},
    CodeRow{Code::unknown_space, error, "K204", "there is no space %1", "Known are %2."},
    CodeRow{Code::unknown_proof, error, "K205", "there is no proof function %1", "Known are %2."},
    CodeRow{Code::duplicate_name, error, "K211", "%1 is already the name of something", "Choose another name."},
    CodeRow{Code::reserved_name, error, "K212", "%1 has a fixed meaning and cannot be used as a name", "Choose another name."},
    CodeRow{Code::duplicate_statement, error, "K213", "%1 was already said", "Keep one of them."},
    CodeRow{Code::not_assignable, error, "K301", "%1 cannot be assigned to", "Assign to out, to a component of out, or to a let."},
    CodeRow{Code::needs_colour, error, "K302", "a colour is expected here (%1), a single number (float) came", "Say what each channel gets."},
    CodeRow{Code::needs_rgb, error, "K303", "%1 is expected here, a colour without alpha (vec3) came", "Assign to out.rgb to leave alpha alone."},
    CodeRow{Code::wrong_type, error, "K304", "%1 is expected here, %2 came", ""},
    CodeRow{Code::operand_types, error, "K305", "%1 does not work on %2 and %3", "Both sides have one type, or one is a float."},
    CodeRow{Code::argument_count, error, "K306", "%1 takes %2, %3 came", "%4"},
    CodeRow{Code::argument_type, error, "K307", "%1 does not take (%2)", "%3"},
    CodeRow{Code::condition_type, error, "K308", "a condition (bool) is expected here, %1 came", "Compare it with something."},
    CodeRow{Code::choice_types, error, "K309", "both results of ? : must have one type; here they are %1 and %2", ""},
    CodeRow{Code::swizzle_repeats, error, "K310", "component %1 is assigned twice", "Name every component once."},
    CodeRow{Code::model_not_colour, error, "K311", "%1 is expected here, an %2 value came", "Turn it back into r, g, b with rgb( )."},
    CodeRow{Code::value_out_of_range, error, "K401", "the value %1 lies outside %2 .. %3", "Widen the range or change the value."},
    CodeRow{Code::empty_range, error, "K402", "the range %1 .. %2 is empty", "Write the smaller end first."},
    CodeRow{Code::bad_step, error, "K403", "a step must be above 0", ""},
    CodeRow{Code::not_constant, error, "K404", "a plain number is expected here", "Parameters hold numbers, such as 0.5 or -1."},
    CodeRow{Code::not_parameter, error, "K405", "%1 is not a parameter of this filter", "Parameters are made with param."},
    CodeRow{Code::unused_name, warning, "K501", "%1 is never used", "Use it or remove it."},
};
static_assert(rows_in_order(rows, &CodeRow::code), "code_table rows stand in the order of Code");

std::string filled(std::string_view wording, const std::vector<std::string>& arguments) {
    std::string text;
    for (std::size_t i = 0; i < wording.size(); ++i) {
        if (wording[i] == '%' && i + 1 < wording.size() && wording[i + 1] >= '1' && wording[i + 1] <= '9') {
            const std::size_t which = static_cast<std::size_t>(wording[++i] - '1');
            if (which < arguments.size())
                text += arguments[which];
        } else {
            text += wording[i];
        }
    }
    return text;
}

} // namespace

std::span<const CodeRow> code_table() { return rows; }

const CodeRow& row(Code code) { return rows[static_cast<std::size_t>(code)]; }

std::string message(const Diagnostic& diagnostic) { return filled(row(diagnostic.code).wording, diagnostic.arguments); }

std::string rendered(const Diagnostic& diagnostic, std::string_view source, std::string_view file) {
    const LineColumn place = line_column(source, diagnostic.span.begin);
    std::string text = fmt::format("{}:{}:{}: {} {}: {}", file, place.line, place.column,
                                   diagnostic.severity == Severity::error ? "error" : "warning",
                                   row(diagnostic.code).id, message(diagnostic));
    for (const Fix& fix : diagnostic.fixes)
        text += fmt::format("\n    fix: {}", fix.label);
    const std::string help = filled(row(diagnostic.code).help, diagnostic.arguments);
    if (!help.empty())
        text += "\n    " + help;
    return text;
}

bool has_error(std::span<const Diagnostic> diagnostics) {
    return std::any_of(diagnostics.begin(), diagnostics.end(),
                       [](const Diagnostic& d) { return d.severity == Severity::error; });
}

std::string applied(const Fix& fix, std::string_view source) {
    std::string text(source.substr(0, fix.span.begin));
    text += fix.text;
    text += source.substr(fix.span.end);
    return text;
}

} // namespace kasuri::lang
