#include "lang/check_expression.hpp"

#include "base/text.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::lang {

namespace {

constexpr InputRow inputs[] = {
    {InputName::r, "r", float_type, "red of the input"},
    {InputName::g, "g", float_type, "green of the input"},
    {InputName::b, "b", float_type, "blue of the input"},
    {InputName::a, "a", float_type, "alpha of the input, 1 where a picture has none"},
    {InputName::rgb, "rgb", vec3_type, "the input without its alpha"},
    {InputName::rgba, "rgba", vec4_type, "the input with its alpha"},
    {InputName::pos, "pos", vec2_type, "place of the pixel's centre, 0..1 from the top left"},
    {InputName::pixel, "pixel", vec2_type, "column and row, counted from 0 at the top left"},
    {InputName::aspect, "aspect", float_type, "width of the picture divided by its height"},
};

std::string components_of(Type type) {
    if (type.kind == Kind::model)
        return fmt::format("{} {} {}", type.model->components[0], type.model->components[1], type.model->components[2]);
    switch (width(type)) {
    case 2: return "x y (or r g)";
    case 3: return "r g b (or x y z)";
    case 4: return "r g b a (or x y z w)";
    default: return "none";
    }
}

std::string type_list(const std::vector<Type>& types) {
    std::string text;
    for (const Type& type : types)
        text += (text.empty() ? "" : ", ") + name(type);
    return text;
}

std::string counted(std::size_t count, std::string_view what) {
    return count == 0 ? fmt::format("no {}s", what) : fmt::format("{} {}{}", count, what, count == 1 ? "" : "s");
}

} // namespace

std::span<const InputRow> input_table() { return inputs; }

void ExpressionChecker::fault(Code code, Span where, std::vector<std::string> arguments, std::vector<Fix> fixes) {
    diagnostics_.push_back({code, row(code).severity, where, std::move(arguments), std::move(fixes)});
}

TypedId ExpressionChecker::add(Typed typed) {
    rule_.exprs.push_back(std::move(typed));
    return static_cast<TypedId>(rule_.exprs.size() - 1);
}

TypedId ExpressionChecker::bad(Span where) {
    Typed nothing;
    nothing.span = where;
    return add(std::move(nothing));
}

TypedId ExpressionChecker::spread(TypedId scalar, Type to) {
    if (type(scalar) == to)
        return scalar;
    Typed typed;
    typed.kind = TypedKind::spread;
    typed.type = to;
    typed.span = span(scalar);
    typed.args = {scalar};
    return add(std::move(typed));
}

TypedId ExpressionChecker::check(ExprId id) {
    const Expr& e = tree_.exprs[id];
    switch (e.kind) {
    case ExprKind::bad: return bad(e.span);
    case ExprKind::number:
    case ExprKind::boolean: {
        Typed typed;
        typed.kind = TypedKind::constant;
        typed.type = e.kind == ExprKind::number ? float_type : bool_type;
        typed.span = e.span;
        typed.number = e.number;
        return add(std::move(typed));
    }
    case ExprKind::name: return name(e);
    case ExprKind::component: return component(e);
    case ExprKind::unary: return unary(e);
    case ExprKind::binary: {
        const TypedId left = check(e.args[0]);
        const TypedId right = check(e.args[1]);
        return binary(e.op, left, right, e.span, e.name_span);
    }
    case ExprKind::choice: return choice(e);
    case ExprKind::call: return call(e);
    }
    return bad(e.span);
}

TypedId ExpressionChecker::name(const Expr& e) {
    Typed typed;
    typed.span = e.span;
    if (e.name == "out") {
        typed.kind = TypedKind::output;
        typed.type = vec4_type;
        return add(std::move(typed));
    }
    for (const InputRow& input : inputs)
        if (input.name == e.name) {
            typed.kind = TypedKind::input;
            typed.type = input.type;
            typed.index = static_cast<std::uint32_t>(input.which);
            return add(std::move(typed));
        }
    if (const auto found = names.find(e.name); found != names.end()) {
        typed.kind = found->second.kind;
        typed.index = found->second.index;
        if (typed.kind == TypedKind::parameter) {
            typed.type = float_type;
            parameter_used[typed.index] = true;
        } else {
            typed.type = rule_.locals[typed.index].type;
            local_used[typed.index] = true;
        }
        return add(std::move(typed));
    }
    std::vector<std::string> candidates = {"out"};
    for (const InputRow& input : inputs)
        candidates.emplace_back(input.name);
    for (const auto& [known, meaning] : names)
        candidates.push_back(known);
    std::sort(candidates.begin(), candidates.end()); // the same suggestion at every run
    std::vector<Fix> fixes;
    if (const auto meant = did_you_mean(e.name, candidates))
        fixes.push_back({fmt::format("did you mean {}?", *meant), e.name_span, *meant});
    fault(Code::unknown_name, e.name_span, {e.name}, std::move(fixes));
    return bad(e.span);
}

std::vector<std::uint8_t> ExpressionChecker::components(Type of, std::string_view component, Span where) {
    std::vector<std::uint8_t> places;
    if (of.kind == Kind::model) {
        for (std::uint8_t i = 0; i < 3; ++i)
            if (of.model->components[i] == component)
                return {i};
    } else if (is_vector(of) && component.size() <= 4) {
        constexpr std::string_view sets[] = {"rgba", "xyzw"};
        for (const std::string_view set : sets) {
            places.clear();
            for (const char c : component)
                if (const auto at = set.find(c); at < static_cast<std::size_t>(width(of)))
                    places.push_back(static_cast<std::uint8_t>(at));
            if (places.size() == component.size())
                return places;
        }
    }
    if (of.kind != Kind::none)
        fault(Code::unknown_component, where, {lang::name(of), std::string(component), components_of(of)});
    return {};
}

TypedId ExpressionChecker::component(const Expr& e) {
    const TypedId inner = check(e.args[0]);
    const auto places = components(type(inner), e.name, e.name_span);
    if (places.empty())
        return bad(e.span);
    Typed typed;
    typed.kind = TypedKind::swizzle;
    typed.type = vector_of(static_cast<int>(places.size()));
    typed.span = e.span;
    typed.args = {inner};
    std::copy(places.begin(), places.end(), typed.swizzle.begin());
    return add(std::move(typed));
}

TypedId ExpressionChecker::unary(const Expr& e) {
    const TypedId inner = check(e.args[0]);
    const Type of = type(inner);
    if (of.kind == Kind::none)
        return bad(e.span);
    Typed typed;
    typed.kind = TypedKind::unary;
    typed.op = e.op;
    typed.type = of;
    typed.span = e.span;
    typed.args = {inner};
    if (e.op == Operator::logical_not && of != bool_type) {
        fault(Code::condition_type, span(inner), {lang::name(of)});
        return bad(e.span);
    }
    if (e.op == Operator::neg && !is_numeric(of) && of.kind != Kind::mat3) {
        fault(Code::argument_type, e.span, {"-", lang::name(of), "It negates numbers, vectors and matrices."});
        return bad(e.span);
    }
    return add(std::move(typed));
}

TypedId ExpressionChecker::binary(Operator op, TypedId left, TypedId right, Span where, Span op_span) {
    const Type a = type(left);
    const Type b = type(right);
    if (a.kind == Kind::none || b.kind == Kind::none)
        return bad(where);
    Typed typed;
    typed.kind = TypedKind::binary;
    typed.op = op;
    typed.span = where;
    typed.args = {left, right};
    const bool both_matrix = a.kind == Kind::mat3 && b.kind == Kind::mat3;
    switch (op) {
    case Operator::logical_and:
    case Operator::logical_or:
        for (const TypedId side : {left, right})
            if (type(side) != bool_type) {
                fault(Code::condition_type, span(side), {lang::name(type(side))});
                return bad(where);
            }
        typed.type = bool_type;
        return add(std::move(typed));
    case Operator::less:
    case Operator::less_equal:
    case Operator::greater:
    case Operator::greater_equal:
        if (a == float_type && b == float_type)
            typed.type = bool_type;
        break;
    case Operator::equal:
    case Operator::not_equal:
        if (a == b)
            typed.type = bool_type;
        break;
    default:
        if (is_numeric(a) && is_numeric(b) && (a == b || a == float_type || b == float_type)) {
            typed.type = a == float_type ? b : a;
            typed.args = {spread(left, typed.type), spread(right, typed.type)};
        } else if (both_matrix && op != Operator::div) {
            typed.type = mat3_type;
        } else if (op == Operator::mul && a.kind == Kind::mat3 && b == vec3_type) {
            typed.type = vec3_type;
        } else if ((a.kind == Kind::mat3 && b == float_type && (op == Operator::mul || op == Operator::div)) ||
                   (a == float_type && b.kind == Kind::mat3 && op == Operator::mul)) {
            typed.type = mat3_type;
        }
        break;
    }
    if (typed.type.kind == Kind::none) {
        std::vector<Fix> fixes;
        if (op == Operator::mul && a == vec3_type && b.kind == Kind::mat3)
            fixes.push_back({"put the matrix first", where, text(span(right)) + " * " + text(span(left))});
        fault(Code::operand_types, op_span, {std::string(symbol(op)), lang::name(a), lang::name(b)}, std::move(fixes));
        return bad(where);
    }
    return add(std::move(typed));
}

TypedId ExpressionChecker::choice(const Expr& e) {
    const TypedId condition = check(e.args[0]);
    TypedId yes = check(e.args[1]);
    TypedId no = check(e.args[2]);
    if (type(condition) != bool_type && type(condition).kind != Kind::none) {
        fault(Code::condition_type, span(condition), {lang::name(type(condition))});
        return bad(e.span);
    }
    if (type(condition).kind == Kind::none || type(yes).kind == Kind::none || type(no).kind == Kind::none)
        return bad(e.span);
    if (type(yes) == float_type && is_vector(type(no)))
        yes = spread(yes, type(no));
    if (type(no) == float_type && is_vector(type(yes)))
        no = spread(no, type(yes));
    if (type(yes) != type(no)) {
        fault(Code::choice_types, e.span, {lang::name(type(yes)), lang::name(type(no))});
        return bad(e.span);
    }
    Typed typed;
    typed.kind = TypedKind::choice;
    typed.type = type(yes);
    typed.span = e.span;
    typed.args = {condition, yes, no};
    return add(std::move(typed));
}

TypedId ExpressionChecker::call(const Expr& e) {
    std::vector<TypedId> args;
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

bool ExpressionChecker::unknown_call(const Expr& e) {
    std::vector<std::string> known = {"vec2", "vec3", "vec4", "mat3"};
    for (const ModelShape& model : vocabulary_.models)
        known.emplace_back(model.name);
    for (const Signature& signature : vocabulary_.functions)
        known.emplace_back(signature.name);
    if (std::find(known.begin(), known.end(), e.name) != known.end())
        return false;
    std::vector<Fix> fixes;
    if (const auto meant = did_you_mean(e.name, known))
        fixes.push_back({fmt::format("did you mean {}?", *meant), e.name_span, *meant});
    fault(Code::unknown_function, e.name_span, {e.name}, std::move(fixes));
    return true;
}

TypedId ExpressionChecker::construct_vector(const Expr& e, Type to, std::vector<TypedId> args) {
    if (args.size() == 1 && type(args[0]) == float_type) {
        const TypedId filled = spread(args[0], to);
        rule_.exprs[filled].span = e.span;
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

TypedId ExpressionChecker::construct_matrix(const Expr& e, std::vector<TypedId> args) {
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
              {"mat3", type_list(types), "It takes nine numbers or three vec3, row by row: one row for each output channel."});
        return bad(e.span);
    }
    typed.args = std::move(args);
    return add(std::move(typed));
}

TypedId ExpressionChecker::function(const Expr& e, const std::vector<TypedId>& args) {
    std::vector<Type> types;
    for (const TypedId arg : args)
        types.push_back(type(arg));
    for (const ModelShape& model : vocabulary_.models)
        if (model.name == e.name && args.size() == 3 &&
            std::all_of(types.begin(), types.end(), [](Type t) { return t == float_type; })) {
            Typed typed;
            typed.kind = TypedKind::construct;
            typed.type = {Kind::model, &model};
            typed.span = e.span;
            typed.args = args;
            return add(std::move(typed));
        }
    bool count_fits = false;
    std::string forms;
    for (std::uint32_t index = 0; index < vocabulary_.functions.size(); ++index) {
        const Signature& signature = vocabulary_.functions[index];
        if (signature.name != e.name)
            continue;
        forms += (forms.empty() ? "Write " : " or ") + shown(signature);
        if (signature.parameters.size() != args.size())
            continue;
        count_fits = true;
        Type general = float_type; // the widest gen argument; the others must be that or float
        for (std::size_t i = 0; i < args.size(); ++i)
            if (signature.parameters[i].gen && is_vector(types[i]))
                general = types[i];
        bool fits = true;
        for (std::size_t i = 0; i < args.size(); ++i) {
            const Slot& slot = signature.parameters[i];
            fits = fits && (slot.gen ? types[i] == general || types[i] == float_type : types[i] == slot.type);
        }
        if (!fits)
            continue;
        Typed typed;
        typed.kind = TypedKind::call;
        typed.type = signature.result.gen ? general : signature.result.type;
        typed.span = e.span;
        typed.index = index;
        for (std::size_t i = 0; i < args.size(); ++i)
            typed.args.push_back(signature.parameters[i].gen ? spread(args[i], general) : args[i]);
        return add(std::move(typed));
    }
    forms += ".";
    std::vector<Fix> fixes;
    if (!count_fits) {
        std::size_t wanted = 0;
        for (const Signature& signature : vocabulary_.functions)
            if (signature.name == e.name)
                wanted = signature.parameters.size();
        fault(Code::argument_count, e.span,
              {e.name, counted(wanted, "argument"), fmt::format("{}", args.size()), forms});
        return bad(e.span);
    }
    if (args.size() == 1 && types[0] == vec4_type)
        fixes.push_back({"leave alpha out", span(args[0]), text(span(args[0])) + ".rgb"});
    else if (args.size() == 1 && types[0].kind == Kind::model)
        fixes.push_back({"turn it into r, g, b", span(args[0]), "rgb(" + text(span(args[0])) + ")"});
    fault(Code::argument_type, e.span, {e.name, type_list(types), forms}, std::move(fixes));
    return bad(e.span);
}

} // namespace kasuri::lang
