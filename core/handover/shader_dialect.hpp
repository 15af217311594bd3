#pragma once
#include "ir/graph.hpp"

#include <span>
#include <string>
#include <string_view>

namespace kasuri::handover {

/// One row: an operation as text. {0} to {2} are its operands, {n} the prefix of helpers, {f} the type of numbers.
struct OpText {
    ir::Op op;
    std::string_view text;
    std::string_view helper = {}; ///< that it calls
    std::string_view c = {};      ///< where C has it otherwise; it calls the helper if {n} is in it
};

/// A function that a text brings along, after those that it calls. {a} is the function for an absolute value.
struct Helper {
    std::string_view name, calls, text;
    std::string_view c = {}; ///< where C has it otherwise
};
/// In the order of ir::Op, from neg on.
extern const std::span<const OpText> operations;
extern const std::span<const Helper> helpers;

/// Where the values that can be set stand.
enum class Values {
    uniforms, ///< with their defaults
    plain,    ///< uniforms that have none
    block,    ///< a uniform block
    argument, ///< a struct
};

/// One row: a language that rules are written in.
struct Dialect {
    std::string_view name, doc;
    Values values = Values::uniforms;
    std::string_view number;   ///< the type of numbers
    std::string_view absolute; ///< the function for an absolute value
    std::string (*literal)(double value);
    std::string_view reserved = {};    ///< words between blanks that cannot be names
    std::string_view first_lines = {}; ///< of a whole shader; empty: there is none
};
std::span<const Dialect> dialects();
const Dialect* find_dialect(std::string_view name);

} // namespace kasuri::handover
