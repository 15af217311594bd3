#include "lang/check_expression.hpp"

#include "base/said.hpp"
#include "base/text.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::lang {

namespace {

constexpr InputRow inputs[] = {
    {InputName::r, "r", float_type, Rate::pixel, "red of the input"},
    {InputName::g, "g", float_type, Rate::pixel, "green of the input"},
    {InputName::b, "b", float_type, Rate::pixel, "blue of the input"},
    {InputName::a, "a", float_type, Rate::pixel, "alpha of the input, 1 where a picture has none"},
    {InputName::rgb, "rgb", vec3_type, Rate::pixel, "the input without its alpha"},
    {InputName::rgba, "rgba", vec4_type, Rate::pixel, "the input with its alpha"},
    {InputName::pos, "pos", vec2_type, Rate::pixel, "place of the pixel's centre, 0..1 from the top left"},
    {InputName::pixel, "pixel", vec2_type, Rate::pixel, "column and row, counted from 0 at the top left"},
    {InputName::aspect, "aspect", float_type, Rate::picture, "width of the picture divided by its height"},
    {InputName::extent, "extent", vec2_type, Rate::picture, "width and height of the picture in pixels"},
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

} // namespace

std::span<const InputRow> input_table() { return inputs; }

void ExpressionChecker::fault(Code code, Span where, std::vector<std::string> arguments, std::vector<Fix> fixes) {
    file_.diagnostics.push_back({code, row(code).severity, where, std::move(arguments), std::move(fixes)});
}

TypedId ExpressionChecker::add(Typed typed) {
    for (const TypedId arg : typed.args) {
        typed.rate = std::max(typed.rate, body_.exprs[arg].rate);
        typed.depends |= body_.exprs[arg].depends;
    }
    if (!typed.args.empty() && typed.kind != TypedKind::swizzle && typed.kind != TypedKind::construct)
        body_.weight += static_cast<std::size_t>(width(typed.type));
    body_.exprs.push_back(std::move(typed));
    return static_cast<TypedId>(body_.exprs.size() - 1);
}

TypedId ExpressionChecker::bad(Span where) {
    Typed nothing;
    nothing.span = where;
    return add(std::move(nothing));
}

std::uint32_t ExpressionChecker::add_local(const std::string& name, Type type, Span name_span) {
    body_.locals.push_back({name, type, name_span});
    locals.emplace_back();
    const auto index = static_cast<std::uint32_t>(body_.locals.size() - 1);
    names[name] = {TypedKind::local, index};
    return index;
}

void ExpressionChecker::assigned(std::uint32_t local, TypedId value, bool whole) {
    LocalState& state = locals[local];
    const Typed& from = body_.exprs[value];
    state.rate = whole ? from.rate : std::max(state.rate, from.rate);
    state.depends = whole ? from.depends : state.depends | from.depends;
}

std::vector<Fix> ExpressionChecker::meant(const std::string& word, std::vector<std::string> candidates,
                                          Span where) const {
    std::sort(candidates.begin(), candidates.end()); // the same suggestion at every run
    if (const auto best = did_you_mean(word, candidates))
        return {{said("did you mean {}?", *best), where, *best}};
    return {};
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
    const Expr& e = file_.tree.exprs[id];
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
    // Inside a function the arguments come first, and neither out nor the inputs are there.
    if (const auto found = names.find(e.name); found != names.end()) {
        typed.kind = found->second.kind;
        typed.index = found->second.index;
        if (typed.kind == TypedKind::parameter)
            return parameter(e, typed.index);
        if (typed.kind == TypedKind::source) {
            typed.type = rule_->sources[typed.index].type;
            typed.rate = Rate::pixel;
            source_used[typed.index] = true;
            return add(std::move(typed));
        }
        typed.type = body_.locals[typed.index].type;
        typed.rate = locals[typed.index].rate;
        typed.depends = locals[typed.index].depends;
        locals[typed.index].used = true;
        return add(std::move(typed));
    }
    const auto input =
        std::find_if(std::begin(inputs), std::end(inputs), [&](const InputRow& i) { return i.name == e.name; });
    if (!rule_ && (e.name == "out" || (input != std::end(inputs) && input->rate == Rate::pixel))) {
        fault(Code::outside_function, e.name_span, {e.name});
        return bad(e.span);
    }
    if (e.name == "out") {
        typed.kind = TypedKind::output;
        typed.type = vec4_type;
        typed.rate = Rate::pixel;
        return add(std::move(typed));
    }
    if (input != std::end(inputs)) {
        typed.kind = TypedKind::input;
        typed.type = input->type;
        typed.rate = input->rate;
        typed.index = static_cast<std::uint32_t>(input->which);
        return add(std::move(typed));
    }
    std::vector<std::string> candidates;
    if (rule_) {
        candidates.emplace_back("out");
        for (const InputRow& known : inputs)
            candidates.emplace_back(known.name);
    }
    for (const auto& [known, meaning] : names)
        candidates.push_back(known);
    fault(Code::unknown_name, e.name_span, {e.name}, meant(e.name, std::move(candidates), e.name_span));
    return bad(e.span);
}

TypedId ExpressionChecker::parameter(const Expr& e, std::uint32_t index) {
    parameter_used[index] = true;
    const Parameter& p = rule_->parameters[index];
    Typed typed;
    typed.kind = TypedKind::parameter;
    typed.span = e.span;
    typed.index = index;
    typed.rate = Rate::picture;
    typed.type = p.kind == ParameterKind::toggle ? bool_type : float_type;
    if (p.kind == ParameterKind::choice) {
        fault(Code::bare_choice, e.span,
              {e.name, fmt::format("{}.{}", e.name, fmt::join(p.options, fmt::format(", {}.", e.name)))});
        return bad(e.span);
    }
    if (p.kind != ParameterKind::colour)
        return add(std::move(typed));
    Typed colour;
    colour.kind = TypedKind::construct;
    colour.type = vec3_type;
    colour.span = e.span;
    for (std::uint32_t part = 0; part < 3; ++part) {
        typed.index = index + part;
        colour.args.push_back(add(typed));
    }
    return add(std::move(colour));
}

/// `way.soft` of a choice: whether it is the one chosen.
TypedId ExpressionChecker::option(const Expr& e, std::uint32_t index) {
    parameter_used[index] = true;
    const Parameter& p = rule_->parameters[index];
    const auto found = std::find(p.options.begin(), p.options.end(), e.name);
    if (found == p.options.end()) {
        fault(Code::unknown_option, e.name_span, {p.name, e.name, fmt::format("{}", fmt::join(p.options, ", "))},
              meant(e.name, p.options, e.name_span));
        return bad(e.span);
    }
    Typed chosen;
    chosen.kind = TypedKind::parameter;
    chosen.type = float_type;
    chosen.rate = Rate::picture;
    chosen.span = e.span;
    chosen.index = index;
    Typed number;
    number.kind = TypedKind::constant;
    number.type = float_type;
    number.span = e.span;
    number.number = static_cast<double>(found - p.options.begin());
    Typed same;
    same.kind = TypedKind::binary;
    same.op = Operator::equal;
    same.type = bool_type;
    same.span = e.span;
    same.args = {add(std::move(chosen)), add(std::move(number))};
    return add(std::move(same));
}

std::vector<std::uint8_t> ExpressionChecker::components(Type of, std::string_view component, Span where) {
    std::vector<std::uint8_t> places;
    if (of.kind == Kind::model) {
        // One component, or several side by side: c.a, c.ab, c.cbcr. No name of a model's component begins another's.
        for (std::size_t at = 0; at < component.size() && places.size() < 4;) {
            const auto begin = of.model->components.begin(), end = of.model->components.end();
            const auto named =
                std::find_if(begin, end, [&](std::string_view name) { return component.substr(at).starts_with(name); });
            if (named == end) {
                places.clear();
                break;
            }
            places.push_back(static_cast<std::uint8_t>(named - begin));
            at += named->size();
        }
        if (!places.empty() && places.size() <= 4)
            return places;
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
    const Expr& of = file_.tree.exprs[e.args[0]];
    if (of.kind == ExprKind::name && rule_)
        if (const auto found = names.find(of.name); found != names.end() &&
            found->second.kind == TypedKind::parameter &&
            rule_->parameters[found->second.index].kind == ParameterKind::choice)
            return option(e, found->second.index);
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

namespace {

/// What an operator takes, for the message of one that got something else.
std::string what_works(Operator op, Type a, Type b) {
    switch (op) {
    case Operator::less:
    case Operator::less_equal:
    case Operator::greater:
    case Operator::greater_equal:
        return "It compares two numbers (float): take a component, or a measure such as luminance( ).";
    case Operator::equal:
    case Operator::not_equal: return "Both sides must have one type.";
    default: break;
    }
    if (a.kind == Kind::model || b.kind == Kind::model)
        return "Values of one model can be added and weighted by numbers; else work on their components, or on rgb( ) "
               "of them.";
    if (a.kind == Kind::bool_ || b.kind == Kind::bool_)
        return "A condition is not a number: write condition ? 1.0 : 0.0.";
    if (a.kind == Kind::mat3 || b.kind == Kind::mat3)
        return "A matrix is multiplied by a vec3 behind it, another matrix, or a float.";
    return "Both sides must have one type, or one must be a float.";
}

} // namespace

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
        } else if (a.kind == Kind::model &&
                   ((a == b && (op == Operator::add || op == Operator::sub)) ||
                    (b == float_type && (op == Operator::mul || op == Operator::div)))) {
            typed.type = a; // a weighted sum of two values of one model
        } else if (b.kind == Kind::model && a == float_type && op == Operator::mul) {
            typed.type = b;
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
        fault(Code::operand_types, op_span,
              {std::string(symbol(op)), lang::name(a), lang::name(b), what_works(op, a, b)}, std::move(fixes));
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
    always(condition);
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

std::optional<double> ExpressionChecker::constant_value(TypedId id) const {
    const Typed& t = body_.exprs[id];
    if (t.rate != Rate::constant)
        return std::nullopt;
    if (t.kind == TypedKind::constant)
        return t.number;
    std::vector<double> args;
    for (const TypedId arg : t.args) {
        const std::optional<double> value = constant_value(arg);
        if (!value)
            return std::nullopt;
        args.push_back(*value);
    }
    if (t.kind == TypedKind::unary)
        return t.op == Operator::neg ? -args[0] : (args[0] == 0 ? 1.0 : 0.0);
    if (t.kind != TypedKind::binary || width(type(t.args[0])) != 1 || width(type(t.args[1])) != 1)
        return std::nullopt;
    switch (t.op) {
    case Operator::add: return args[0] + args[1];
    case Operator::sub: return args[0] - args[1];
    case Operator::mul: return args[0] * args[1];
    case Operator::div: return args[0] / args[1];
    case Operator::less: return args[0] < args[1];
    case Operator::less_equal: return args[0] <= args[1];
    case Operator::greater: return args[0] > args[1];
    case Operator::greater_equal: return args[0] >= args[1];
    case Operator::equal: return args[0] == args[1];
    case Operator::not_equal: return args[0] != args[1];
    case Operator::logical_and: return args[0] != 0 && args[1] != 0;
    case Operator::logical_or: return args[0] != 0 || args[1] != 0;
    case Operator::none:
    case Operator::neg:
    case Operator::logical_not: break;
    }
    return std::nullopt;
}

/// Warns where a condition cannot come out differently.
void ExpressionChecker::always(TypedId id) {
    const Typed& condition = body_.exprs[id];
    if (condition.kind == TypedKind::constant)
        return; // `true` and `false` are written on purpose
    std::optional<double> value = constant_value(id);
    if (!value && condition.kind == TypedKind::binary &&
        text(span(condition.args[0])) == text(span(condition.args[1]))) {
        if (condition.op == Operator::less || condition.op == Operator::greater)
            value = 0;
        else if (condition.op == Operator::less_equal || condition.op == Operator::greater_equal)
            value = 1; // but for a NaN, for which x == x is the usual test
    }
    if (value)
        fault(Code::always, condition.span, {*value != 0 ? "true" : "false"});
}

} // namespace kasuri::lang
