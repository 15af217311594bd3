#include "lang/diagnostic.hpp"

#include "base/said.hpp"
#include "base/table.hpp"
#include "base/text.hpp"

#include <algorithm>
#include <array>
#include <fmt/format.h>

namespace kasuri::lang {
namespace {

constexpr Severity error = Severity::error;
constexpr Severity warning = Severity::warning;
constexpr Severity hint = Severity::hint;

constexpr std::array rows = {
    CodeRow{Code::bad_character, error, "K101", "%1 has no meaning here", "Remove it.", "out.g = b # 1"},
    CodeRow{Code::unclosed_string, error, "K102", "this text has no closing quotation mark",
            "End it with \" on the same line.", "filter \"Indigo"},
    CodeRow{Code::bad_number, error, "K103", "%1 is not a number", "Write numbers like 2, 0.5 or 1e-3.", "out.r = 2e"},
    CodeRow{Code::number_too_large, error, "K104", "%1 is larger than a float can hold", "Stay below 3.4e38.",
            "out.r = 1e39"},
    CodeRow{Code::text_too_long, error, "K105", "the rule has %1 bytes; the limit is %2",
            "Split it into several filters.", ""},
    CodeRow{Code::nested_too_deep, error, "K106", "this is nested deeper than %1 levels", "Name parts of it with let.",
            ""},
    CodeRow{Code::too_many_errors, error, "K107", "more than %1 errors; the rest is not listed", "Mend the first ones.",
            ""},
    CodeRow{Code::expected, error, "K111", "expected %1, found %2", "", "out.r = (r + g"},
    CodeRow{Code::statement_expected, error, "K112", "%1 does not begin a statement",
            "A line begins with filter, note, working, use, source, param, preset, fn, let, keep, hold, proof, or a "
            "name to assign to.",
            "* r"},
    CodeRow{Code::extra_text, error, "K113", "the statement is complete before %1",
            "Put the next statement on a line of its own.", "let x = r g"},
    CodeRow{Code::nested_function, error, "K114", "the function %1 stands inside another",
            "Functions stand side by side.", "fn outer(x) {\n    fn inner(y) = y\n    x\n}"},
    CodeRow{Code::not_in_function, error, "K115", "%1 does not belong in a function",
            "A function holds let, assignments to its names, and its result.", "fn f(x) {\n    param k = 1\n    x\n}"},
    CodeRow{Code::after_result, error, "K116", "this stands after the result of the function",
            "The result is the last line.", "fn f(x) {\n    x * 2\n    x * 3\n}"},
    CodeRow{Code::no_result, error, "K117", "the function %1 has no result",
            "Its last line is an expression: what it gives.", "fn f(x) {\n    let y = x\n}"},
    CodeRow{Code::unknown_name, error, "K201", "there is no %1",
            "Inputs are r g b a rgb rgba pos pixel aspect extent; others are made with let, param or source.",
            "out.r = shade"},
    CodeRow{Code::unknown_function, error, "K202", "there is no function %1", "See docs/builtins.md for the list.",
            "out.rgb = clmp(rgb, 0, 1)"},
    CodeRow{Code::unknown_component, error, "K203", "%1 has no component %2", "It has %3.", "out.r = rgb.k"},
    CodeRow{Code::unknown_space, error, "K204", "there is no space %1", "Known are %2.", "working rec70-linear"},
    CodeRow{Code::unknown_proof, error, "K205", "there is no proof function %1", "Known are %2.",
            "proof \"greys\" : neutrl"},
    CodeRow{Code::unknown_option, error, "K206", "%1 has no option %2", "It has %3.",
            "param way = sofft of soft, hard\nout.r = way.hard ? g : r"},
    CodeRow{Code::unknown_type, error, "K207", "there is no type %1 here",
            "Types are float, bool, vec2, vec3, vec4, mat3 and the colour models; a source is float, vec3 or vec4.",
            "source lamp : picture"},
    CodeRow{Code::source_channel, error, "K214", "%1 is %2, and so it reads %3",
            "A float reads a channel, such as source key = picture.g; vec3 and vec4 read all of a picture.",
            "source key : float = picture\nout.r = key"},
    CodeRow{Code::unknown_target, error, "K208", "there is no target %1", "Known are %2.",
            "proof \"a\" on gray : out.r >= 0"},
    CodeRow{Code::unknown_finish, error, "K209", "%1 cannot be %2", "Write %3.", "keep hue"},
    CodeRow{Code::no_hue, error, "K231", "%1 has no hue to hold", "Models with one are %2.",
            "out.g = b\nhold hue of (0.7, 0.4, 0.3) in xyz"},
    CodeRow{Code::neutral_hue, error, "K232", "a neutral colour has no hue to hold",
            "Name a colour whose channels differ.", "out.g = b\nhold hue of (0.5, 0.5, 0.5)"},
    CodeRow{Code::hold_place, error, "K233",
            "the rule depends on %1 here, so a colour has no one result whose hue could be held",
            "Hold the hue before %1 comes in.", "out.g = mix(g, b, pos.x)\nhold hue of (0.7, 0.4, 0.3)"},
    CodeRow{Code::cannot_use, error, "K221", "%1 cannot be used: %2",
            "Write the name of a .kasuri file beside this one.", "use \"nowhere.kasuri\""},
    CodeRow{Code::outside_function, error, "K222", "%1 is not known inside a function",
            "Make it an argument: a function sees its arguments, aspect and extent alone.", "fn f(x) = x * g"},
    CodeRow{Code::function_later, error, "K223", "the function %1 stands further down, or would call itself",
            "Move it above this place. No function can call itself.", "out.r = later(r)\nfn later(x) = x"},
    CodeRow{Code::duplicate_name, error, "K211", "%1 is already the name of something", "Choose another name.",
            "let x = r\nlet x = g\nout.r = x"},
    CodeRow{Code::reserved_name, error, "K212", "%1 has a fixed meaning and cannot be used as a name",
            "Choose another name.", "let r = g"},
    CodeRow{Code::duplicate_statement, error, "K213", "%1 was already said", "Keep one of them.",
            "working srgb\nworking srgb"},
    CodeRow{Code::not_assignable, error, "K301", "%1 cannot be assigned to",
            "Assign to out, to a component of out, or to a let.", "r = 0.5"},
    CodeRow{Code::needs_colour, error, "K302", "a colour is expected here (%1), a single number (float) came",
            "Say what each channel gets.", "out = 0.5"},
    CodeRow{Code::needs_rgb, error, "K303", "%1 is expected here, a colour without alpha (vec3) came",
            "Assign to out.rgb to leave alpha alone.", "out = rgb"},
    CodeRow{Code::wrong_type, error, "K304", "%1 is expected here, %2 came", "", "out.r = rgb"},
    CodeRow{Code::operand_types, error, "K305", "%1 does not work on %2 and %3", "%4", "out.rgb = rgb * pos"},
    CodeRow{Code::argument_count, error, "K306", "%1 takes %2, %3 came", "%4", "out.r = clamp(r, 0)"},
    CodeRow{Code::argument_type, error, "K307", "%1 does not take (%2)", "%3", "out.r = dot(r > 0, rgb)"},
    CodeRow{Code::condition_type, error, "K308", "a condition (bool) is expected here, %1 came",
            "Compare it with something.", "out.r = r ? g : b"},
    CodeRow{Code::choice_types, error, "K309", "both results of ? : must have one type; here they are %1 and %2", "",
            "out.rgb = r > 0 ? rgb : pos"},
    CodeRow{Code::swizzle_repeats, error, "K310", "component %1 is assigned twice", "Name every component once.",
            "out.rr = pos"},
    CodeRow{Code::model_not_colour, error, "K311", "%1 is expected here, a value of %2 came",
            "Turn it back into r, g, b with rgb( ).", "out.rgb = hsv(rgb)"},
    CodeRow{Code::bare_choice, error, "K312", "%1 is a choice and has no value of its own",
            "Ask for an option, which is a condition: %2.", "param way = soft of soft, hard\nout.r = way"},
    CodeRow{Code::rate, error, "K313", "%1 of %2 cannot change from pixel to pixel",
            "It may be a number, a parameter, or made of those.", "out.rgb = blur(rgb, 10 * r)"},
    CodeRow{Code::target_fixed, error, "K314", "%1 is measured on targets of its own",
            "Leave out `on`, or write a condition.", "proof \"greys\" on ramp : neutral"},
    CodeRow{Code::proof_file, error, "K315", "%1 %2",
            "equals and undoes are measured against another filter, which stands behind them: proof \"as before\" : "
            "equals \"old.kasuri\".",
            "proof \"as before\" : equals"},
    CodeRow{Code::proof_colours, error, "K316", "%1 needs two colours or more",
            "They stand behind `on`: proof \"still apart\" on (0.7, 0.2, 0.2), (0.2, 0.5, 0.2) : apart > 10.",
            "proof \"still apart\" : apart > 10"},
    CodeRow{Code::proof_way, error, "K317", "the figure of %1 must be %2 its limit", "Write %3 before the limit.",
            "proof \"still apart\" on (0.7, 0.2, 0.2), (0.2, 0.5, 0.2) : apart < 10"},
    CodeRow{Code::value_out_of_range, error, "K401", "the value %1 lies outside %2 .. %3",
            "Widen the range or change the value.", "param k = 2 in 0 .. 1\nout.r = r * k"},
    CodeRow{Code::empty_range, error, "K402", "the range %1 .. %2 is empty", "Write the smaller end first.",
            "param k = 0 in 1 .. 0\nout.r = r * k"},
    CodeRow{Code::bad_step, error, "K403", "a step must be %1", "", "param k = 0 in 0 .. 1 step -0.1\nout.r = r * k"},
    CodeRow{Code::not_constant, error, "K404", "a plain number is expected here",
            "Parameters hold numbers, such as 0.5 or -1.",
            "param top = 4\nparam k = 0 in 0 .. top\nout.r = r * k * top"},
    CodeRow{Code::not_parameter, error, "K405", "%1 is not a parameter of this filter",
            "Parameters are made with param.", "preset \"Strong\" k = 1"},
    CodeRow{Code::not_whole, error, "K406", "%1 is not a whole number", "Leave out `whole`, or use whole numbers.",
            "param n = 2.5 in 0 .. 8 whole\nout.r = r * n"},
    CodeRow{Code::no_range, error, "K407", "%1 has no range and no step: it is on or off, or one of its options",
            "Leave them out.", "param on = true in 0 .. 1\nout.r = on ? g : r"},
    CodeRow{Code::knot_order, error, "K411", "knots stand from left to right: %1 comes after %2",
            "Put them in order; no two have the same x.", "out.r = curve(r, vec2(0.5, 0), vec2(0, 1))"},
    CodeRow{Code::too_many_knots, error, "K412", "%1 takes at most %2 knots, %3 came", "Chain two curves.", ""},
    CodeRow{Code::rule_too_large, error, "K421", "the rule has %1 operations; the limit is %2",
            "Functions are written out at every call: call less often, or split the rule into several filters.", ""},
    CodeRow{Code::too_many_stages, error, "K422",
            "the rule looks around itself %1 times (blur, sharpen, dilate, erode, for each component); the limit is %2",
            "Split it into several filters.", ""},
    CodeRow{Code::too_many_statements, error, "K423", "the rule has %1 statements; the limit is %2",
            "Split it into several filters.", ""},
    CodeRow{Code::too_many_parameters, error, "K424", "the rule has %1 parameters; the limit is %2",
            "Nobody sets so many by hand: make lets of most, or split the rule into several filters.", ""},
    CodeRow{Code::unused_name, warning, "K501", "%1 is never used", "Use it or remove it.", "let x = r"},
    CodeRow{Code::always, warning, "K502", "this condition is always %1", "Compare with something that changes.",
            "out.r = 2 > 1 ? r : g"},
    CodeRow{Code::keep_in_linear, hint, "K511", "luminance is kept in linear light",
            "That is exact, but often stronger than wanted: most rules that keep luminance are meant in a "
            "display-encoded space (working srgb).",
            "out.g = b\nkeep luminance"},
    CodeRow{Code::keep_after_model, hint, "K512", "luminance is kept after work in %1",
            "It undoes part of what was done to %1, whose own lightness component may be what you want to keep.",
            "working srgb\nlet c = hsv(rgb)\nout.rgb = rgb(c)\nkeep luminance"},
};
static_assert(rows_in_order(rows, &CodeRow::code), "code_table rows stand in the order of Code");

std::string filled(std::string_view wording, const std::vector<std::string>& arguments) {
    std::string text;
    for (std::size_t i = 0; i < wording.size(); ++i) {
        if (wording[i] == '%' && i + 1 < wording.size() && wording[i + 1] >= '1' && wording[i + 1] <= '9') {
            const std::size_t which = static_cast<std::size_t>(wording[++i] - '1');
            if (which < arguments.size())
                text += printable(translated(arguments[which])); // a phrase, or a name that no language knows otherwise
        } else {
            text += wording[i];
        }
    }
    return text;
}

} // namespace

std::span<const CodeRow> code_table() { return rows; }

const CodeRow& row(Code code) { return rows[static_cast<std::size_t>(code)]; }

std::string message(const Diagnostic& diagnostic) {
    return filled(translated(row(diagnostic.code).wording), diagnostic.arguments);
}

std::string help(const Diagnostic& diagnostic) {
    return filled(translated(row(diagnostic.code).help), diagnostic.arguments);
}

std::string rendered(const Diagnostic& diagnostic, std::string_view source, std::string_view file) {
    const LineColumn place = line_column(source, diagnostic.span.begin);
    std::string text = fmt::format("{}:{}:{}: {} {}: {}", file, place.line, place.column, word(diagnostic.severity),
                                   row(diagnostic.code).id, message(diagnostic));
    for (const Fix& fix : diagnostic.fixes)
        text += fmt::format("\n    fix: {}", translated(fix.label));
    if (const std::string what_to_do = help(diagnostic); !what_to_do.empty())
        text += "\n    " + what_to_do;
    return text;
}

std::string_view word(Severity severity) {
    switch (severity) {
    case Severity::error: return "error";
    case Severity::warning: return "warning";
    case Severity::hint: break;
    }
    return "hint";
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
