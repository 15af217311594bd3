#pragma once
#include "lang/diagnostic.hpp"
#include "lang/rule.hpp"

#include <string_view>
#include <unordered_map>
#include <vector>

namespace kasuri::lang {

/// What a name means inside a rule.
struct Meaning {
    TypedKind kind{}; ///< parameter or local
    std::uint32_t index = 0;
};

/// Gives types to expressions. An expression with a fault has type `none`, which no later check complains about.
class ExpressionChecker {
public:
    ExpressionChecker(std::string_view source, const Tree& tree, const Vocabulary& vocabulary, Rule& rule,
                      std::vector<Diagnostic>& diagnostics)
        : source_(source), tree_(tree), vocabulary_(vocabulary), rule_(rule), diagnostics_(diagnostics) {}

    TypedId check(ExprId id);

    void fault(Code code, Span span, std::vector<std::string> arguments, std::vector<Fix> fixes = {});
    TypedId add(Typed typed);
    TypedId bad(Span span);
    /// Built by +=: the same checks as for a written operator.
    TypedId binary(Operator op, TypedId left, TypedId right, Span span, Span op_span);
    TypedId spread(TypedId scalar, Type to);
    Type type(TypedId id) const { return rule_.exprs[id].type; }
    Span span(TypedId id) const { return rule_.exprs[id].span; }
    std::string text(Span where) const { return std::string(text_of(source_, where)); }

    /// The places that `component` names in `type`, in the written order; reports what it does not have.
    std::vector<std::uint8_t> components(Type type, std::string_view component, Span where);

    std::unordered_map<std::string, Meaning> names;
    std::vector<bool> parameter_used;
    std::vector<bool> local_used;

private:
    TypedId name(const Expr& e);
    TypedId component(const Expr& e);
    TypedId unary(const Expr& e);
    TypedId choice(const Expr& e);
    TypedId call(const Expr& e);
    TypedId construct_vector(const Expr& e, Type type, std::vector<TypedId> args);
    TypedId construct_matrix(const Expr& e, std::vector<TypedId> args);
    TypedId function(const Expr& e, const std::vector<TypedId>& args);
    bool unknown_call(const Expr& e);

    std::string_view source_;
    const Tree& tree_;
    const Vocabulary& vocabulary_;
    Rule& rule_;
    std::vector<Diagnostic>& diagnostics_;
};

} // namespace kasuri::lang
