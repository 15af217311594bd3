#include "lang/statement_help.hpp"

#include <array>

namespace kasuri::lang {
namespace {

constexpr std::array rows = {
    StatementHelp{"filter", "filter \"Title\"", "The title of the filter."},
    StatementHelp{"tags", "tags \"word, word\"", "Words to find the filter by, parted by commas."},
    StatementHelp{"note", "note \"Text\"", "What the filter does, in a sentence."},
    StatementHelp{
        "working", "working SPACE",
        "The space in which r, g, b are meant. Pictures are converted into it before the rule and back after it."},
    StatementHelp{"use", "use \"FILE\"", "Brings in the functions of a filter file beside this one."},
    StatementHelp{
        "source", "source NAME [: TYPE] [= picture or step \"LABEL\"] [\"What it is\"]",
        "A further picture that the rule reads by name: vec4, vec3 or float. In a look also the picture as it "
        "came in, or what an earlier step made; a float reads one channel of them, such as picture.g."},
    StatementHelp{"param",
                  "param NAME = DEFAULT [of OPTION, ...] [in LOW .. HIGH] [whole] [step STEP] [\"What it does\"]",
                  "Something the user sets: a number, a whole number, true or false, one of several options, or a "
                  "colour vec3(r, g, b)."},
    StatementHelp{"preset", "preset \"Title\" NAME = VALUE, ...",
                  "A named set of values; what it does not name has its default."},
    StatementHelp{"fn", "fn NAME(ARGUMENT [TYPE], ...) = EXPRESSION",
                  "A function: sees its arguments, aspect and extent alone. Instead of = there may be { lines, the "
                  "last of them the result }."},
    StatementHelp{"let", "let NAME = EXPRESSION", "Names a value. It can be changed later by assigning to it."},
    StatementHelp{"keep", "keep luminance", "Gives out the luminance of the input back."},
    StatementHelp{"hold", "hold hue of COLOUR [in MODEL]",
                  "Turns out about the neutral axis until this colour has its hue back; neutrals stay."},
    StatementHelp{"proof", "proof \"Title\" [on TARGET or (R, G, B)] : CONDITION",
                  "What the filter promises: a ready-made proof function with a limit, or a condition that holds at "
                  "every pixel of a target, or for one colour."},
    StatementHelp{"", "NAME[.COMPONENTS] = EXPRESSION",
                  "Assigns to out, to a let, or to some of their components; also += -= *= /=."},
};

} // namespace

std::span<const StatementHelp> statement_table() { return rows; }

} // namespace kasuri::lang
