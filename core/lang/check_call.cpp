// Calls: constructors, built-in functions, functions of the text.
#include "base/text.hpp"
#include "lang/check_expression.hpp"

#include "base/said.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::lang {
namespace {

/// The most forms of one function that a message lists.
constexpr std::size_t max_forms = 3;

/// The most knots of a curve.
constexpr std::size_t max_knots = 64;

std::string type_list(const std::vector<Type>& types) {
    std::string text;
    for (const Type& type : types)
        text += (text.empty() ? "" : ", ") + name(type);
    return text;
}

} // namespace

std::string counted(std::size_t count, std::string_view what) {
    if (what == "component")
        return count == 0 ? said("no components") : count == 1 ? said("1 component") : said("{} components", count);
    return count == 0 ? said("no arguments") : count == 1 ? said("1 argument") : said("{} arguments", count);
}

TypedId ExpressionChecker::call(const Expr& e) {
    Operands args;
    bool broken = false;
    for (const ExprId arg : e.args) {
        args.push_back(check(arg));
        broken = broken || type(args.back()).kind == Kind::none;
    }
    if (unknown_call(e) || broken)
        return bad(e.span);
    for (int n = 2; n <= 4; ++n)
        if (e.name == lang::name(vector_of(n)))
            return construct_vector(e, vector_of(n), std::move(args));
    if (e.name == "mat3")
        return construct_matrix(e, std::move(args));
    return function(e, args);
}

FunctionPtr ExpressionChecker::find_function(std::string_view name) const {
    for (const FunctionPtr& function : file_.functions)
        if (function->name == name)
            return function;
    for (const FunctionPtr& function : file_.vocabulary.prelude)
        if (function->name == name)
            return function;
    return nullptr;
}

bool ExpressionChecker::unknown_call(const Expr& e) {
    const auto named = [&](const auto& row) { return row.name == e.name; };
    const auto pointed = [&](const FunctionPtr& row) { return row->name == e.name; };
    constexpr std::string_view constructors[] = {"vec2", "vec3", "vec4", "mat3"};
    if (std::find(std::begin(constructors), std::end(constructors), e.name) != std::end(constructors) ||
        std::any_of(file_.vocabulary.functions.begin(), file_.vocabulary.functions.end(), named) ||
        std::any_of(file_.functions.begin(), file_.functions.end(), pointed) ||
        std::any_of(file_.vocabulary.prelude.begin(), file_.vocabulary.prelude.end(), pointed) ||
        std::any_of(file_.vocabulary.models.begin(), file_.vocabulary.models.end(), named))
        return false;
    std::vector<std::string> known(std::begin(constructors), std::end(constructors));
    for (const ModelShape& model : file_.vocabulary.models)
        known.emplace_back(model.name);
    for (const Signature& signature : file_.vocabulary.functions)
        if (!signature.name.empty())
            known.emplace_back(signature.name);
    for (const auto list : {std::span<const FunctionPtr>(file_.functions), file_.vocabulary.prelude})
        for (const FunctionPtr& function : list)
            known.push_back(function->name);
    if (file_.later_functions.contains(e.name))
        fault(Code::function_later, e.name_span, {e.name});
    else
        fault(Code::unknown_function, e.name_span, {e.name}, meant(e.name, std::move(known), e.name_span));
    return true;
}

TypedId ExpressionChecker::construct_vector(const Expr& e, Type to, Operands args) {
    if (args.size() == 1 && type(args[0]) == float_type) {
        const TypedId filled = spread(args[0], to);
        body_.exprs[filled].span = e.span;
        return filled;
    }
    int total = 0;
    std::vector<Type> types;
    for (const TypedId arg : args) {
        types.push_back(type(arg));
        if (!is_numeric(type(arg))) {
            std::vector<Fix> fixes;
            if (type(arg).kind == Kind::model)
                fixes.push_back({"turn it into r, g, b", span(arg), "rgb(" + text(span(arg)) + ")"});
            fault(Code::argument_type, span(arg), {e.name, lang::name(type(arg)), "It takes numbers and vectors."},
                  std::move(fixes));
            return bad(e.span);
        }
        total += width(type(arg));
    }
    if (total != width(to)) {
        fault(Code::argument_count, e.span,
              {e.name, counted(static_cast<std::size_t>(width(to)), "component"), fmt::format("{}", total),
               "Or one number for all of them."});
        return bad(e.span);
    }
    Typed typed;
    typed.kind = TypedKind::construct;
    typed.type = to;
    typed.span = e.span;
    typed.args = std::move(args);
    return add(std::move(typed));
}

TypedId ExpressionChecker::construct_matrix(const Expr& e, Operands args) {
    Typed typed;
    typed.kind = TypedKind::construct;
    typed.type = mat3_type;
    typed.span = e.span;
    const auto all = [&](std::size_t count, Type wanted) {
        return args.size() == count &&
            std::all_of(args.begin(), args.end(), [&](TypedId arg) { return type(arg) == wanted; });
    };
    if (all(1, float_type))
        typed.kind = TypedKind::diagonal;
    else if (!all(9, float_type) && !all(3, vec3_type)) {
        std::vector<Type> types;
        for (const TypedId arg : args)
            types.push_back(type(arg));
        fault(Code::argument_type, e.span,
              {"mat3", type_list(types),
               "It takes nine numbers or three vec3, row by row: one row for each output channel."});
        return bad(e.span);
    }
    typed.args = std::move(args);
    return add(std::move(typed));
}

TypedId ExpressionChecker::function(const Expr& e, const Operands& args) {
    if (const FunctionPtr callee = find_function(e.name))
        return invoke(e, callee, args);
    std::vector<Type> types;
    for (const TypedId arg : args)
        types.push_back(type(arg));
    for (const ModelShape& model : file_.vocabulary.models)
        if (model.name == e.name && args.size() == 3 &&
            std::all_of(types.begin(), types.end(), [](Type t) { return t == float_type; })) {
            Typed typed;
            typed.kind = TypedKind::construct;
            typed.type = {Kind::model, &model};
            typed.span = e.span;
            typed.args = args;
            return add(std::move(typed));
        }
    for (std::uint32_t index = 0; index < file_.vocabulary.functions.size(); ++index) {
        const Signature& signature = file_.vocabulary.functions[index];
        const std::size_t written = signature.parameters.size();
        if (signature.name != e.name || (signature.variadic ? args.size() < written : args.size() != written))
            continue;
        const auto slot = [&](std::size_t i) -> const Slot& { return signature.parameters[std::min(i, written - 1)]; };
        Type general = float_type; // the widest gen argument; the others must be that or float
        for (std::size_t i = 0; i < args.size(); ++i)
            if (slot(i).gen && is_vector(types[i]))
                general = types[i];
        bool fits = true;
        for (std::size_t i = 0; i < args.size(); ++i)
            fits = fits && (slot(i).gen ? types[i] == general || types[i] == float_type : types[i] == slot(i).type);
        if (!fits)
            continue;
        for (std::size_t i = 0; i < args.size(); ++i)
            if (!rate_fits(e, signature.parameter_names[std::min(i, written - 1)], args[i], slot(i).rate))
                return bad(e.span);
        if (signature.variadic && args.size() > max_knots + 1) {
            fault(Code::too_many_knots, e.span,
                  {e.name, fmt::format("{}", max_knots), fmt::format("{}", args.size() - 1)});
            return bad(e.span);
        }
        if (signature.variadic && !knots_rise(args))
            return bad(e.span);
        Typed typed;
        typed.kind = TypedKind::call;
        typed.type = signature.result.gen ? general : signature.result.type;
        typed.span = e.span;
        typed.index = index;
        for (std::size_t i = 0; i < args.size(); ++i)
            typed.args.push_back(slot(i).gen ? spread(args[i], general) : args[i]);
        if (signature.neighbourhood) {
            typed.rate = Rate::pixel;
            body_.stages += static_cast<std::size_t>(width(typed.type));
        }
        return add(std::move(typed));
    }
    return mismatched(e, types, args);
}

TypedId ExpressionChecker::builtin_call(std::string_view name, const Operands& args, Span where) {
    Expr e;
    e.kind = ExprKind::call;
    e.name = name;
    e.span = e.name_span = where;
    return function(e, args);
}

TypedId ExpressionChecker::mismatched(const Expr& e, const std::vector<Type>& types, const Operands& args) {
    bool count_fits = false;
    std::size_t wanted = 0;
    std::string forms;
    std::size_t listed = 0;
    for (const Signature& signature : file_.vocabulary.functions)
        if (signature.name == e.name) {
            if (++listed <= max_forms)
                forms += (forms.empty() ? "Write " : " or ") + shown(signature);
            wanted = signature.parameters.size();
            count_fits = count_fits || (signature.variadic ? args.size() >= wanted : args.size() == wanted);
        }
    forms += listed > max_forms ? ", or the like with another colour model." : ".";
    if (!count_fits) {
        fault(Code::argument_count, e.span,
              {e.name, counted(wanted, "argument"), fmt::format("{}", args.size()), forms});
        return bad(e.span);
    }
    std::vector<Fix> fixes;
    if (args.size() == 1 && types[0] == vec4_type)
        fixes.push_back({"leave alpha out", span(args[0]), text(span(args[0])) + ".rgb"});
    else if (args.size() == 1 && types[0].kind == Kind::model)
        fixes.push_back({"turn it into r, g, b", span(args[0]), "rgb(" + text(span(args[0])) + ")"});
    fault(Code::argument_type, e.span, {e.name, type_list(types), forms}, std::move(fixes));
    return bad(e.span);
}

TypedId ExpressionChecker::invoke(const Expr& e, const FunctionPtr& callee, const Operands& args) {
    const std::string form = said("Write {}.", shown(*callee));
    if (args.size() != callee->parameters.size()) {
        fault(Code::argument_count, e.span,
              {e.name, counted(callee->parameters.size(), "argument"), fmt::format("{}", args.size()), form});
        return bad(e.span);
    }
    Typed typed;
    typed.kind = TypedKind::invoke;
    typed.type = callee->type;
    typed.span = e.span;
    std::vector<Type> types;
    for (const TypedId arg : args)
        types.push_back(type(arg));
    for (std::size_t i = 0; i < args.size(); ++i) {
        const Slot& slot = callee->parameters[i];
        TypedId arg = args[i];
        if (types[i] == float_type && is_vector(slot.type))
            arg = spread(arg, slot.type);
        if (type(arg) != slot.type) {
            fault(Code::argument_type, e.span, {e.name, type_list(types), form});
            return bad(e.span);
        }
        if (!rate_fits(e, callee->locals[i].name, arg, slot.rate))
            return bad(e.span);
        typed.args.push_back(arg);
    }
    if (callee->type.kind == Kind::none) // its own fault is reported where it stands
        return bad(e.span);
    body_.weight += callee->weight;
    body_.stages += callee->stages;
    if (callee->stages > 0)
        typed.rate = Rate::pixel;
    const auto known = std::find(body_.callees.begin(), body_.callees.end(), callee);
    typed.index = static_cast<std::uint32_t>(known - body_.callees.begin());
    if (known == body_.callees.end())
        body_.callees.push_back(callee);
    return add(std::move(typed));
}

bool ExpressionChecker::rate_fits(const Expr& e, std::string_view parameter, TypedId arg, Rate allowed) {
    if (allowed == Rate::pixel)
        return true;
    const Typed& value = body_.exprs[arg];
    if (value.rate > allowed) {
        fault(Code::rate, value.span, {std::string(parameter), e.name});
        return false;
    }
    per_picture |= value.depends; // whoever calls this function must keep to it
    return true;
}

bool ExpressionChecker::knots_rise(const Operands& args) {
    std::optional<double> before;
    for (std::size_t i = 1; i < args.size(); ++i) {
        const Typed& knot = body_.exprs[args[i]];
        const std::optional<double> x =
            knot.kind == TypedKind::construct && !knot.args.empty() ? constant_value(knot.args[0]) : std::nullopt;
        if (x && before && !(*x > *before)) {
            fault(Code::knot_order, knot.span, {number_text(*x, 9), number_text(*before, 9)});
            return false;
        }
        if (x)
            before = x;
    }
    return true;
}

} // namespace kasuri::lang
