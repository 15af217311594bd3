#pragma once
#include "terms/terms.hpp"

#include <span>
#include <string_view>

namespace kasuri::inverse {

using terms::TermId;
using terms::Terms;

/// One row: how an argument of a function is found from its result and its other arguments.
struct Inverse {
    std::string_view function;
    std::size_t argument = 0;
    /// `result` is what the function made; `args` are its arguments, of which the one that is looked for is not to be
    /// read.
    TermId (*argument_from)(Terms& terms, TermId result, const std::vector<TermId>& args);
    /// What of it cannot come back, as the end of a sentence; empty: everything comes back where the function has an
    /// answer.
    std::string_view loses = {};
    /// Needs a working space that is proportional to light.
    bool of_light = false;
};

/// The row of that argument; null if there is none.
const Inverse* find_inverse(std::string_view function, std::size_t argument);
std::span<const Inverse> inverses();

/// The argument of a call (of a function of the table, of one of a pair of conversions) from what the call made;
/// nothing if there is no way. `light`: the working space is proportional to light. `loses`: what cannot come back.
std::optional<TermId> argument_from(Terms& terms, TermId of, std::size_t argument, TermId result, bool light,
                                    std::string_view* loses);

/// Functions of the language whose calls are kept as they are, because a row above knows their
/// inverse in a working space that is, or is not, proportional to light.
bool keeps_call(const lang::Function& function, bool light);

/// All sentences of the tables, for those who translate them.
std::vector<std::string_view> sentences();

/// Why a function has no inverse, as a sentence; empty if it is not known.
std::string_view why_lost(std::string_view function);

} // namespace kasuri::inverse
