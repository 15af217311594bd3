#include "lang/statement.hpp"

#include <algorithm>
#include <array>

namespace kasuri::lang {
namespace {

constexpr std::array rows = {
    StatementRow{
        .kind = StatementKind::filter, .word = "filter", .form = "filter \"Title\"", .doc = "The title of the filter."},
    StatementRow{.kind = StatementKind::note,
                 .word = "note",
                 .form = "note \"Text\"",
                 .doc = "What the filter does, in a sentence."},
    StatementRow{.kind = StatementKind::tags,
                 .word = "tags",
                 .form = "tags \"word, word\"",
                 .doc = "Words to find the filter by, parted by commas."},
    StatementRow{
        .kind = StatementKind::working,
        .word = "working",
        .form = "working SPACE",
        .doc =
            "The space in which r, g, b are meant. Pictures are converted into it before the rule and back after it."},
    StatementRow{.kind = StatementKind::use,
                 .word = "use",
                 .form = "use \"FILE\"",
                 .doc = "Brings in the functions of a filter file beside this one."},
    StatementRow{
        .kind = StatementKind::source,
        .word = "source",
        .form = "source NAME [: TYPE] [= picture or step \"LABEL\"] [\"What it is\"]",
        .doc = "A further picture that the rule reads by name: vec4, vec3 or float. In a look also the picture as it "
               "came in, or what an earlier step made; a float reads one channel of them, such as picture.g.",
        .gives_name = true},
    StatementRow{
        .kind = StatementKind::param,
        .word = "param",
        .form = "param NAME = DEFAULT [of OPTION, ...] [in LOW .. HIGH] [whole] [step STEP] [\"What it does\"]",
        .doc = "Something the user sets: a number, a whole number, true or false, one of several options, or a "
               "colour vec3(r, g, b).",
        .gives_name = true,
        .folds = true},
    StatementRow{.kind = StatementKind::preset,
                 .word = "preset",
                 .form = "preset \"Title\" NAME = VALUE, ...",
                 .doc = "A named set of values; what it does not name has its default.",
                 .folds = true},
    StatementRow{.kind = StatementKind::fn,
                 .word = "fn",
                 .form = "fn NAME(ARGUMENT [: TYPE], ...) = EXPRESSION",
                 .doc =
                     "A function: sees its arguments, aspect and extent alone. Instead of = there may be { lines, the "
                     "last of them the result }.",
                 .gives_name = true},
    StatementRow{.kind = StatementKind::let,
                 .word = "let",
                 .form = "let NAME = EXPRESSION",
                 .doc = "Names a value. It can be changed later by assigning to it.",
                 .in_functions = true,
                 .gives_name = true},
    StatementRow{.kind = StatementKind::assign,
                 .word = "",
                 .form = "NAME[.COMPONENTS] = EXPRESSION",
                 .doc = "Assigns to out, to a let, or to some of their components; also += -= *= /=.",
                 .in_functions = true,
                 .printed = "assign"},
    StatementRow{.kind = StatementKind::keep,
                 .word = "keep",
                 .form = "keep luminance",
                 .doc = "Gives out the luminance of the input back.",
                 .in_functions = true},
    StatementRow{.kind = StatementKind::hold,
                 .word = "hold",
                 .form = "hold hue of COLOUR [in MODEL]",
                 .doc = "Turns out about the neutral axis until this colour has its hue back; neutrals stay.",
                 .in_functions = true},
    StatementRow{
        .kind = StatementKind::result, .word = "", .form = "", .doc = "", .in_functions = true, .printed = "result"},
    StatementRow{.kind = StatementKind::proof,
                 .word = "proof",
                 .form = "proof \"Title\" [on TARGET or (R, G, B)] : CONDITION",
                 .doc =
                     "What the filter promises: a ready-made proof function with a limit, or a condition that holds at "
                     "every pixel of a target, or for one colour.",
                 .folds = true},
};

constexpr bool in_order() {
    for (std::size_t i = 0; i < rows.size(); ++i)
        if (rows[i].kind != static_cast<StatementKind>(i))
            return false;
    return rows.size() == static_cast<std::size_t>(StatementKind::proof) + 1;
}
static_assert(in_order(), "one row for each kind of statement, in their order");

} // namespace

std::span<const StatementRow> statement_table() { return rows; }

const StatementRow& row(StatementKind kind) { return rows[static_cast<std::size_t>(kind)]; }

const StatementRow* find_statement(std::string_view word) {
    const auto found = std::find_if(rows.begin(), rows.end(),
                                    [&](const StatementRow& each) { return !word.empty() && each.word == word; });
    return found == rows.end() ? nullptr : &*found;
}

} // namespace kasuri::lang
