#pragma once
#include "base/span.hpp"
#include "lang/operands.hpp"

#include <cstddef>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::lang {

using ExprId = std::uint32_t;
inline constexpr ExprId no_expr = ~ExprId{0};

enum class ExprKind { bad, number, boolean, name, call, component, unary, binary, choice };

enum class Operator {
    none,
    neg,
    logical_not,
    add,
    sub,
    mul,
    div,
    less,
    less_equal,
    greater,
    greater_equal,
    equal,
    not_equal,
    logical_and,
    logical_or
};

/// How an operator is written.
std::string_view symbol(Operator op);

/// One node of the tree. Operands are ids of the same Tree.
struct Expr {
    ExprKind kind = ExprKind::bad;
    Span span;
    Span name_span;    ///< of a call's or component's name, or of an operator
    std::string name;  ///< of name, call and component
    double number = 0; ///< of number; 1 or 0 of boolean
    Operator op = Operator::none;
    Operands args;
    int height = 0; ///< levels below it
};

enum class StatementKind {
    filter,
    note,
    tags,
    working,
    use,
    source,
    param,
    preset,
    fn,
    let,
    assign,
    keep,
    hold,
    result,
    proof
};

/// A word of the text with its place.
struct Word {
    std::string text;
    Span span;
};

/// A parameter of a function: its name and the name of its type ("" is float).
struct FunctionParameter {
    Word name;
    Word type;
};

/// `name = value` in a preset.
struct NamedValue {
    std::string name;
    Span name_span;
    ExprId value = no_expr;
};

/// One statement; the members that its kind does not use stay empty.
struct Statement {
    StatementKind kind{};
    Span span;
    std::string name; ///< param, let, fn, source: the name; working: the space; assign: the target; keep, hold: what
    Span name_span;
    std::string component; ///< assign, source: after the dot, may be empty
    Span component_span;
    std::string text;             ///< filter, note, tags, use, preset, proof, param, source: the quoted text
    Operator op = Operator::none; ///< assign: of += and the like
    ExprId value = no_expr;       ///< let, assign, result; param: default; proof: the condition; hold: the colour
    ExprId low = no_expr, high = no_expr, step = no_expr; ///< param
    std::vector<ExprId> colours;                          ///< proof: those after `on`
    std::vector<NamedValue> values;                       ///< preset
    bool whole = false;                                   ///< param: whole numbers only
    std::vector<Word> options;                            ///< param: of a choice
    Word reads{};                                         ///< source: after =: "picture" or "step"
    std::string label;                                    ///< source: of the step
    Word type;   ///< source: the name of its type; proof: the target after `on`; hold: the model after `in`
    Word file{}; ///< proof: another filter that a ready-made function compares with
    std::vector<FunctionParameter> parameters; ///< fn
    std::vector<Statement> body;               ///< fn; its last statement is the result
    bool unclosed = false;                     ///< fn: its } is missing, which has been reported
};

/// The most statements of a text that a check takes.
inline constexpr std::size_t max_statements = 20'000;

/// What the parser makes of a text: immutable afterwards.
struct Tree {
    std::vector<Expr> exprs;
    std::vector<Statement> statements;
};

/// The tree as indented text, for `explain` and tests.
std::string printed(const Tree& tree);

} // namespace kasuri::lang
