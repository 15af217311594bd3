#pragma once
#include "lang/diagnostic.hpp"
#include "lang/rule.hpp"

#include <set>
#include <string_view>
#include <unordered_map>
#include <vector>

namespace kasuri::lang {

/// What a name means inside a body.
struct Meaning {
    TypedKind kind{}; ///< parameter, local or source
    std::uint32_t index = 0;
};

/// The text and what surrounds it: shared by every checker of one file.
struct FileContext {
    std::string_view source;
    const Tree& tree;
    const Vocabulary& vocabulary;
    std::vector<Diagnostic>& diagnostics;
    std::vector<FunctionPtr> functions;    ///< known so far: of used files and of this one
    std::set<std::string> later_functions; ///< that stand further down in this text
};

/// Gives types to expressions. An expression with a fault has type `none`, which no later check complains about.
class ExpressionChecker {
public:
    /// `rule` brings parameters, sources, inputs and out; null inside a function, which sees its arguments alone.
    ExpressionChecker(FileContext& file, Body& body, Rule* rule) : file_(file), body_(body), rule_(rule) {}

    TypedId check(ExprId id);

    void fault(Code code, Span span, std::vector<std::string> arguments, std::vector<Fix> fixes = {});
    TypedId add(Typed typed);
    TypedId bad(Span span);
    /// Built by +=: the same checks as for a written operator.
    TypedId binary(Operator op, TypedId left, TypedId right, Span span, Span op_span);
    TypedId spread(TypedId scalar, Type to);
    /// A call of the builtin of this name, as `keep luminance` writes it; no names are looked up.
    TypedId builtin_call(std::string_view name, const Operands& args, Span span);
    Type type(TypedId id) const { return body_.exprs[id].type; }
    Span span(TypedId id) const { return body_.exprs[id].span; }
    std::span<const ModelShape> models() const { return file_.vocabulary.models; }
    std::string text(Span where) const { return std::string(text_of(file_.source, where)); }

    /// The places that `component` names in `type`, in the written order; reports what it does not have.
    std::vector<std::uint8_t> components(Type type, std::string_view component, Span where);

    std::uint32_t add_local(const std::string& name, Type type, Span name_span);
    /// Notes what a local is computed from, so that its rate is known where it is used.
    void assigned(std::uint32_t local, TypedId value, bool whole);
    /// "did you mean" for a word among candidates.
    std::vector<Fix> meant(const std::string& word, std::vector<std::string> candidates, Span where) const;

    /// The value of an expression of numbers alone.
    std::optional<double> constant_value(TypedId id) const;

    std::unordered_map<std::string, Meaning> names;
    std::vector<bool> parameter_used; ///< of Rule::parameters
    std::vector<bool> source_used;
    struct LocalState {
        bool used = false;
        Rate rate = Rate::constant;
        std::uint32_t depends = 0;
    };
    std::vector<LocalState> locals;
    std::uint32_t per_picture = 0; ///< in a function: bits of the parameters that may not change per pixel

private:
    TypedId name(const Expr& e);
    TypedId parameter(const Expr& e, std::uint32_t index);
    TypedId option(const Expr& e, std::uint32_t parameter);
    TypedId component(const Expr& e);
    TypedId unary(const Expr& e);
    TypedId choice(const Expr& e);
    TypedId call(const Expr& e);
    TypedId construct_vector(const Expr& e, Type type, Operands args);
    TypedId construct_matrix(const Expr& e, Operands args);
    TypedId function(const Expr& e, const Operands& args);
    TypedId invoke(const Expr& e, const FunctionPtr& callee, const Operands& args);
    TypedId mismatched(const Expr& e, const std::vector<Type>& types, const Operands& args);
    bool unknown_call(const Expr& e);
    FunctionPtr find_function(std::string_view name) const;
    /// Whether the argument changes no more often than `allowed`; reports it otherwise.
    bool rate_fits(const Expr& e, std::string_view parameter, TypedId arg, Rate allowed);
    /// Whether the knots of a curve stand in order, as far as they are plain numbers.
    bool knots_rise(const Operands& args);
    void always(TypedId condition);

    FileContext& file_;
    Body& body_;
    Rule* rule_;
};

/// "two arguments", "1 component", "no arguments"
std::string counted(std::size_t count, std::string_view what);

} // namespace kasuri::lang
