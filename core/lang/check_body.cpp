#include "lang/check_body.hpp"

#include "base/said.hpp"
#include "base/text.hpp"

#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace kasuri::lang {

bool is_input(std::string_view name) {
    const auto inputs = input_table();
    return std::any_of(inputs.begin(), inputs.end(), [&](const InputRow& i) { return i.name == name; });
}

bool BodyChecker::free_name(const Statement& s) {
    if (rule_ && (s.name == "out" || is_input(s.name))) {
        std::vector<Fix> fixes;
        if (s.name == "out" && s.kind == StatementKind::let)
            fixes.push_back({"assign to out", {s.span.begin, s.name_span.end}, "out"});
        e_.fault(Code::reserved_name, s.name_span, {s.name}, std::move(fixes));
        return false;
    }
    if (e_.names.contains(s.name)) {
        std::vector<Fix> fixes;
        if (s.kind == StatementKind::let && e_.names[s.name].kind == TypedKind::local)
            fixes.push_back({"assign to it again, without let", {s.span.begin, s.name_span.end}, s.name});
        e_.fault(Code::duplicate_name, s.name_span, {s.name}, std::move(fixes));
        return false;
    }
    return true;
}

void BodyChecker::let(const Statement& s) {
    const TypedId value = e_.check(s.value);
    if (!free_name(s))
        return;
    // A let with a fault keeps its name (of type none), so that its uses are not faulted too.
    Step step;
    step.local = e_.add_local(s.name, e_.type(value), s.name_span);
    step.value = value;
    step.span = s.span;
    e_.assigned(step.local, value, true);
    body_.steps.push_back(step);
}

Step colour_step(Span span) {
    Step step;
    step.to_output = true;
    step.whole = false;
    step.count = 3;
    step.components = {0, 1, 2};
    step.span = span;
    return step;
}

/// `keep luminance` is out.rgb = with_luminance(out.rgb, luminance(rgb)).
void BodyChecker::keep(const Statement& s) {
    if (s.name != "luminance") {
        e_.fault(Code::unknown_finish, s.name_span, {s.name, said("kept"), "keep luminance"},
                 e_.meant(s.name, {"luminance"}, s.name_span));
        return;
    }
    if (!rule_) {
        e_.fault(Code::outside_function, s.span, {"keep luminance"});
        return;
    }
    const auto part = [&](TypedKind kind, InputName input) {
        Typed typed;
        typed.kind = kind;
        typed.type = kind == TypedKind::output ? vec4_type : vec3_type;
        typed.rate = Rate::pixel;
        typed.span = s.span;
        typed.index = static_cast<std::uint32_t>(input);
        return e_.add(std::move(typed));
    };
    Typed colour;
    colour.kind = TypedKind::swizzle;
    colour.type = vec3_type;
    colour.span = s.span;
    colour.args = {part(TypedKind::output, InputName::rgba)};
    colour.swizzle = {0, 1, 2};
    const TypedId before = e_.builtin_call("luminance", {part(TypedKind::input, InputName::rgb)}, s.span);
    Step step = colour_step(s.span);
    step.value = e_.builtin_call("with_luminance", {e_.add(std::move(colour)), before}, s.span);
    body_.steps.push_back(step);
}

void BodyChecker::assign(const Statement& s) {
    TypedId value = e_.check(s.value);
    Step step;
    step.span = s.span;
    Typed current; // the target as it stands, for += and for its type
    current.span = cover(s.name_span, s.component.empty() ? s.name_span : s.component_span);
    if (rule_ && s.name == "out") {
        step.to_output = true;
        current.kind = TypedKind::output;
        current.type = vec4_type;
        current.rate = Rate::pixel;
    } else if (const auto found = e_.names.find(s.name);
               found != e_.names.end() && found->second.kind == TypedKind::local) {
        step.local = found->second.index;
        current.kind = TypedKind::local;
        current.index = step.local;
        current.type = body_.locals[step.local].type;
        current.rate = e_.locals[step.local].rate;
        current.depends = e_.locals[step.local].depends;
    } else {
        unassignable(s);
        return;
    }
    if (current.type.kind == Kind::none)
        return;
    Type target = current.type;
    if (!s.component.empty()) {
        const auto places = e_.components(target, s.component, s.component_span);
        if (places.empty())
            return;
        if (std::set<std::uint8_t>(places.begin(), places.end()).size() != places.size()) {
            const auto repeated = std::find_if(s.component.begin(), s.component.end(), [&](char c) {
                return std::count(s.component.begin(), s.component.end(), c) > 1;
            });
            e_.fault(Code::swizzle_repeats, s.component_span,
                     {repeated == s.component.end() ? s.component : std::string(1, *repeated)});
            return;
        }
        step.whole = false;
        step.count = static_cast<int>(places.size());
        std::copy(places.begin(), places.end(), step.components.begin());
        target = vector_of(step.count);
    }
    if (s.op != Operator::none) {
        TypedId before = e_.add(current);
        if (!step.whole) {
            Typed part;
            part.kind = TypedKind::swizzle;
            part.type = target;
            part.span = current.span;
            part.args = {before};
            part.swizzle = step.components;
            before = e_.add(std::move(part));
        }
        value = e_.binary(s.op, before, value, s.span, s.name_span);
    }
    Type came = e_.type(value);
    if (came.kind == Kind::none)
        return;
    if (came == float_type && is_vector(target) &&
        target != vec4_type) { // one number for all channels; never for alpha
        value = e_.spread(value, target);
        came = target;
    }
    if (came != target) {
        mismatch(s, target, came, value);
        return;
    }
    step.value = value;
    body_.steps.push_back(step);
    if (!step.to_output)
        e_.assigned(step.local, value, step.whole);
}

void BodyChecker::unassignable(const Statement& s) {
    std::vector<Fix> fixes;
    const bool known = e_.names.contains(s.name);
    const bool input = rule_ && is_input(s.name);
    if (input && s.component.empty() && (s.name == "rgb" || s.name.size() == 1))
        fixes.push_back({said("assign to out.{}", s.name), s.name_span, "out." + s.name});
    else if (!known && !input && s.component.empty() && s.op == Operator::none)
        fixes.push_back({"make it with let", s.name_span, "let " + s.name});
    std::vector<std::string> targets;
    if (rule_)
        targets.emplace_back("out");
    for (const Local& local : body_.locals)
        targets.push_back(local.name);
    if (const auto meant = known || input ? std::nullopt : did_you_mean(s.name, targets))
        fixes.insert(fixes.begin(), {said("did you mean {}?", *meant), s.name_span, *meant});
    e_.fault(known || input ? Code::not_assignable : Code::unknown_name, s.name_span, {s.name}, std::move(fixes));
}

void BodyChecker::mismatch(const Statement& s, Type target, Type came, TypedId value) {
    const Span where = e_.span(value);
    const std::string text = e_.text(where);
    const bool plain = s.op == Operator::none;
    const Span whole{s.name_span.begin, where.end};
    std::vector<Fix> fixes;
    if (came.kind == Kind::model) {
        if (plain && target == vec3_type)
            fixes.push_back({"turn it into r, g, b", where, "rgb(" + text + ")"});
        else if (plain && target == vec4_type)
            fixes.push_back({"write it to out.rgb as r, g, b", whole, s.name + ".rgb = rgb(" + text + ")"});
        e_.fault(Code::model_not_colour, where, {name(target), name(came)}, std::move(fixes));
    } else if (came == float_type && is_vector(target)) {
        if (plain && target == vec4_type)
            fixes.push_back({"write it to r, g and b", whole, s.name + ".rgb = vec3(" + text + ")"});
        e_.fault(Code::needs_colour, where, {name(target)}, std::move(fixes));
    } else if (came == vec3_type && target == vec4_type) {
        if (plain)
            fixes.push_back({said("write it to {}.rgb", s.name), s.name_span, s.name + ".rgb"});
        e_.fault(Code::needs_rgb, where, {name(target)}, std::move(fixes));
    } else {
        if (plain && came == vec4_type && target == vec3_type)
            fixes.push_back({"leave alpha out", where, text + ".rgb"});
        e_.fault(Code::wrong_type, where, {name(target), name(came)}, std::move(fixes));
    }
}

void BodyChecker::warn_unused_locals(std::size_t first) {
    for (std::size_t i = first; i < body_.locals.size(); ++i)
        if (!e_.locals[i].used)
            e_.fault(Code::unused_name, body_.locals[i].name_span, {body_.locals[i].name});
}

} // namespace kasuri::lang
