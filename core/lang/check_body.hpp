#pragma once
#include "lang/check_expression.hpp"

namespace kasuri::lang {

/// Checks the statements that do work: let, assignments, finishing statements. For a rule and for a function alike.
class BodyChecker {
public:
    BodyChecker(FileContext& file, Body& body, Rule* rule) : body_(body), rule_(rule), e_(file, body, rule) {}

    void let(const Statement& s);
    void assign(const Statement& s);
    void keep(const Statement& s);
    void hold(const Statement& s);
    /// Whether `s.name` is still free; reports it otherwise.
    bool free_name(const Statement& s);
    void warn_unused_locals(std::size_t first = 0);

    ExpressionChecker& expressions() { return e_; }

private:
    void unassignable(const Statement& s);
    void mismatch(const Statement& s, Type target, Type came, TypedId value);

    Body& body_;
    Rule* rule_; ///< null in a function
    ExpressionChecker e_;
};

/// Whether expressions know it as what a pixel brings: r, rgb, pos ...
bool is_input(std::string_view name);

/// A step that writes out.rgb; its value is still to come.
Step colour_step(Span span);

} // namespace kasuri::lang
