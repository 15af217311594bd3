#pragma once
#include "base/span.hpp"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::lang {

/// A hint is nothing wrong: something that is easily overlooked.
enum class Severity { error, warning, hint };

/// Stable identities of everything that can be wrong with a rule. The wording is in diagnostic.cpp.
enum class Code {
    bad_character,
    unclosed_string,
    bad_number,
    number_too_large,
    text_too_long,
    nested_too_deep,
    too_many_errors,
    expected,
    statement_expected,
    extra_text,
    nested_function,
    not_in_function,
    after_result,
    no_result,
    unknown_name,
    unknown_function,
    unknown_component,
    unknown_space,
    unknown_proof,
    unknown_option,
    unknown_type,
    source_channel,
    unknown_target,
    unknown_finish,
    no_hue,
    neutral_hue,
    hold_place,
    cannot_use,
    outside_function,
    function_later,
    duplicate_name,
    reserved_name,
    duplicate_statement,
    not_assignable,
    needs_colour,
    needs_rgb,
    wrong_type,
    operand_types,
    argument_count,
    argument_type,
    condition_type,
    choice_types,
    swizzle_repeats,
    model_not_colour,
    bare_choice,
    rate,
    target_fixed,
    proof_file,
    proof_colours,
    proof_way,
    value_out_of_range,
    empty_range,
    bad_step,
    not_constant,
    not_parameter,
    not_whole,
    no_range,
    knot_order,
    too_many_knots,
    rule_too_large,
    too_many_stages,
    too_many_statements,
    too_many_parameters,
    unused_name,
    always,
    keep_in_linear,
    keep_after_model,
};

/// A change of the text that mends the fault.
struct Fix {
    std::string label; ///< what it does, as a command: "write luminance"
    Span span;         ///< replaced by `text`
    std::string text;
};

/// A fault as data: where, what was expected, what came, and a remedy.
struct Diagnostic {
    Code code{};
    Severity severity = Severity::error;
    Span span;
    std::vector<std::string> arguments; ///< fill %1 .. %9 of the wording
    std::vector<Fix> fixes;
};

struct CodeRow {
    Code code;
    Severity severity;
    std::string_view id;      ///< stable, for documentation and tests: "K201"
    std::string_view wording; ///< with %1, %2 for the arguments
    std::string_view help;    ///< one sentence on what to do
    std::string_view example; ///< a short rule with this fault; empty where it would have to be very long
};

/// One row for each code, in their order; and that of one.
std::span<const CodeRow> code_table();
const CodeRow& row(Code code);

/// The wording with its arguments filled in; the sentence on what to do. In the language of whoever reads them.
std::string message(const Diagnostic& diagnostic);
std::string help(const Diagnostic& diagnostic);

/// "file:line:column: error K201: message" and, indented, the fixes and the help.
std::string rendered(const Diagnostic& diagnostic, std::string_view source, std::string_view file);

/// "error", "warning", "hint"
std::string_view word(Severity severity);

/// Whether one of them is an error, not a warning or a hint.
bool has_error(std::span<const Diagnostic> diagnostics);

/// `source` with the fix applied.
std::string applied(const Fix& fix, std::string_view source);

} // namespace kasuri::lang
