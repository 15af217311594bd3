#include "colour/model.hpp"
#include "terms/terms.hpp"

namespace kasuri::terms {
namespace {

using lang::Operator;
using lang::Type;
using lang::Typed;
using lang::TypedId;
using lang::TypedKind;

class Reader {
public:
    Reader(const lang::Rule& rule, Terms& terms, const Keeps& keeps) : rule_(rule), t_(terms), keeps_(keeps) {}

    Read read() {
        const std::array<TermId, 4> in{t_.channel(0), t_.channel(1), t_.channel(2), t_.channel(3)};
        perform(in, rule_.steps.size());
        return {out_};
    }

private:
    /// One body: the rule, or a function at one of its calls.
    struct Frame {
        const lang::Body& body;
        std::vector<std::vector<TermId>> locals; ///< their components; one if it is held whole
        std::optional<Span> call{};              ///< in a function: where it was called
    };

    void perform(const std::array<TermId, 4>& in, std::size_t count) {
        in_ = out_ = in;
        Frame frame{rule_, std::vector<std::vector<TermId>>(rule_.locals.size())};
        for (std::size_t i = 0; i < count; ++i)
            if (rule_.steps[i].hold_hue)
                hold(rule_.steps[i], i, frame);
            else
                step(rule_.steps[i], frame);
    }

    void step(const lang::Step& s, Frame& frame) {
        const TermId made = value(s.value, frame);
        if (!frame.call && !t_.origin(made).span)
            t_.origin(made).span = s.span;
        if (s.to_output) {
            for (std::size_t i = 0; i < (s.whole ? 4 : static_cast<std::size_t>(s.count)); ++i)
                out_[s.whole ? i : s.components[i]] = t_.component(made, i);
            return;
        }
        const std::string& name = frame.body.locals[s.local].name;
        std::vector<TermId>& local = frame.locals[s.local];
        if (s.whole) {
            local = {made};
            if (t_.origin(made).name.empty() && !frame.call && !leaf(made))
                t_.origin(made).name = name;
            return;
        }
        const Type type = frame.body.locals[s.local].type;
        std::vector<TermId> parts = components(local[0]);
        for (std::size_t i = 0; i < static_cast<std::size_t>(s.count); ++i)
            parts[s.components[i]] = t_.component(made, i);
        local = {t_.construct(type, std::move(parts))};
        if (t_.origin(local[0]).name.empty() && !frame.call)
            t_.origin(local[0]).name = name;
    }

    bool leaf(TermId id) const {
        const TermKind kind = t_[id].kind;
        return kind == TermKind::number || kind == TermKind::channel || kind == TermKind::name ||
            kind == TermKind::swizzle;
    }

    std::vector<TermId> components(TermId id) {
        std::vector<TermId> all;
        for (int i = 0; i < t_.width(id); ++i)
            all.push_back(t_.component(id, static_cast<std::size_t>(i)));
        return all;
    }

    TermId colour(const std::array<TermId, 4>& of) { return t_.construct(lang::vec3_type, {of[0], of[1], of[2]}); }

    /// The statements before, for the colour whose hue is held; then the turn as the language would write it.
    void hold(const lang::Step& s, std::size_t index, Frame& frame) {
        const TermId key = value(s.value, frame);
        const auto in = in_, out = out_;
        perform({t_.component(key, 0), t_.component(key, 1), t_.component(key, 2), t_.number(1)}, index);
        const TermId came = colour(out_);
        in_ = in;
        out_ = out;
        const TermId turned = turn(s.model, key, came, colour(out_));
        if (!t_.origin(turned).span)
            t_.origin(turned).span = s.span;
        for (std::size_t i = 0; i < 3; ++i)
            out_[i] = t_.component(turned, i);
    }

    TermId f(std::string_view name, std::vector<TermId> args) {
        return t_.call(name, lang::float_type, std::move(args));
    }

    TermId turn(const lang::ModelShape* shape, TermId key, TermId came, TermId out) {
        if (!shape) { // Rodrigues's formula about r = g = b
            const auto angle = [&](TermId c) {
                const TermId r = t_.component(c, 0), g = t_.component(c, 1), b = t_.component(c, 2);
                return f("atan",
                         {t_.mul(t_.number(1.7320508075688772), t_.sub(g, b)),
                          t_.sub(t_.sub(t_.mul(t_.number(2), r), g), b)});
            };
            const TermId by = t_.sub(angle(key), angle(came));
            t_.origin(by).name = "turned";
            const TermId cosine = f("cos", {by}), sine = t_.div(f("sin", {by}), t_.number(1.7320508075688772));
            const TermId third = t_.div(t_.sub(t_.number(1), cosine), t_.number(3));
            const TermId own = t_.add(third, cosine), plus = t_.add(third, sine), minus = t_.sub(third, sine);
            const TermId matrix = t_.construct(lang::mat3_type, {own, minus, plus, plus, own, minus, minus, plus, own});
            return t_.mul(matrix, out);
        }
        const Type type{lang::Kind::model, shape};
        const auto in = [&](TermId c) { return t_.call(shape->name, type, {c}); };
        const TermId before = in(key), after = in(came), c = in(out);
        std::vector<TermId> parts = components(c);
        if (shape->hue == lang::HueWay::angle) {
            parts[shape->angle] = t_.add(parts[shape->angle],
                                         t_.sub(t_.component(before, shape->angle), t_.component(after, shape->angle)));
        } else {
            const TermId by = t_.sub(f("atan", {t_.component(before, 2), t_.component(before, 1)}),
                                     f("atan", {t_.component(after, 2), t_.component(after, 1)}));
            t_.origin(by).name = "turned";
            const TermId cosine = f("cos", {by}), sine = f("sin", {by});
            const TermId x = parts[1], y = parts[2];
            parts[1] = t_.sub(t_.mul(cosine, x), t_.mul(sine, y));
            parts[2] = t_.add(t_.mul(sine, x), t_.mul(cosine, y));
        }
        return t_.call("rgb", lang::vec3_type, {t_.construct(type, std::move(parts))});
    }

    TermId value(TypedId id, Frame& frame) {
        const Typed& typed = frame.body.exprs[id];
        const TermId made = fresh(typed, frame);
        if (!t_.origin(made).span)
            t_.origin(made).span = frame.call ? frame.call : std::optional(typed.span);
        return made;
    }

    TermId fresh(const Typed& typed, Frame& frame) {
        const auto arg = [&](std::size_t i) { return value(typed.args[i], frame); };
        switch (typed.kind) {
        case TypedKind::constant:
            return typed.type == lang::bool_type ? t_.truth(typed.number != 0) : t_.number(typed.number);
        case TypedKind::input: return input(static_cast<lang::InputName>(typed.index));
        case TypedKind::source: return t_.name(rule_.sources[typed.index].name, typed.type);
        case TypedKind::parameter: return t_.name(rule_.parameters[typed.index].name, typed.type);
        case TypedKind::local: return frame.locals[typed.index][0];
        case TypedKind::output: return t_.construct(lang::vec4_type, {out_[0], out_[1], out_[2], out_[3]});
        case TypedKind::construct: {
            std::vector<TermId> parts;
            for (std::size_t i = 0; i < typed.args.size(); ++i)
                for (const TermId part : components(arg(i)))
                    parts.push_back(part);
            return t_.construct(typed.type, std::move(parts));
        }
        case TypedKind::spread: return t_.spread(typed.type, arg(0));
        case TypedKind::diagonal: return t_.diagonal(arg(0));
        case TypedKind::swizzle: return t_.swizzle(arg(0), typed.type, typed.swizzle);
        case TypedKind::unary: return t_.unary(typed.op, arg(0));
        case TypedKind::binary: {
            const TermId a = arg(0), b = arg(1);
            if (typed.op == Operator::equal && t_[a].kind == TermKind::name && t_[b].kind == TermKind::number)
                if (const lang::Parameter* p = parameter(t_[a].text); p && p->kind == lang::ParameterKind::choice)
                    return t_.name(p->name + "." + p->options[static_cast<std::size_t>(t_[b].number)], lang::bool_type);
            return t_.binary(typed.op, typed.type, a, b);
        }
        case TypedKind::choice: {
            const TermId condition = arg(0), yes = arg(1), no = arg(2);
            return t_.choice(condition, yes, no);
        }
        case TypedKind::call: {
            std::vector<TermId> args;
            for (std::size_t i = 0; i < typed.args.size(); ++i)
                args.push_back(arg(i));
            return t_.call(typed.index, typed.type, std::move(args));
        }
        case TypedKind::invoke: return invoked(typed, frame);
        }
        return t_.number(0);
    }

    TermId invoked(const Typed& typed, Frame& frame) {
        const lang::Function& callee = *frame.body.callees[typed.index];
        std::vector<TermId> args;
        bool depends = false;
        for (const TypedId id : typed.args) {
            args.push_back(value(id, frame));
            depends = depends || t_.depends(args.back());
        }
        if (keeps_ ? keeps_(callee, depends) : !depends) {
            return t_.invoke(callee.name, typed.type, std::move(args));
        }
        Frame inner{callee, std::vector<std::vector<TermId>>(callee.locals.size()),
                    frame.call ? frame.call : std::optional(typed.span)};
        for (std::size_t i = 0; i < args.size(); ++i)
            inner.locals[i] = {args[i]};
        for (const lang::Step& s : callee.steps)
            step(s, inner);
        return value(callee.result, inner);
    }

    const lang::Parameter* parameter(std::string_view name) const {
        for (const lang::Parameter& p : rule_.parameters)
            if (p.name == name)
                return &p;
        return nullptr;
    }

    TermId input(lang::InputName which) {
        using lang::InputName;
        switch (which) {
        case InputName::r: return in_[0];
        case InputName::g: return in_[1];
        case InputName::b: return in_[2];
        case InputName::a: return in_[3];
        case InputName::rgb: return colour(in_);
        case InputName::rgba: return t_.construct(lang::vec4_type, {in_[0], in_[1], in_[2], in_[3]});
        default: break;
        }
        for (const lang::InputRow& row : lang::input_table())
            if (row.which == which)
                return t_.name(std::string(row.name), row.type);
        return t_.number(0);
    }

    const lang::Rule& rule_;
    Terms& t_;
    const Keeps& keeps_;
    std::array<TermId, 4> in_{}, out_{};
};

} // namespace

std::vector<std::string> names_of(const lang::Rule& rule) {
    std::vector<std::string> names;
    for (const lang::Parameter& p : rule.parameters)
        names.push_back(p.name.substr(0, p.name.find('.')));
    for (const lang::SourceInput& s : rule.sources)
        names.push_back(s.name);
    for (const lang::FunctionPtr& f : rule.functions)
        names.push_back(f->name);
    return names;
}

Read read(const lang::Rule& rule, Terms& terms, const Keeps& keeps) { return Reader(rule, terms, keeps).read(); }

} // namespace kasuri::terms
