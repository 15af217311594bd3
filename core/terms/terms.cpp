#include "terms/terms.hpp"

#include "builtins/builtin.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::terms {

using lang::Operator;
using lang::Type;

TermId Terms::intern(Term term) {
    std::string key =
        fmt::format("{}/{}/{}/{}/{}/{}/{}", static_cast<int>(term.kind), lang::name(term.type), term.number, term.index,
                    static_cast<int>(term.op), term.text, fmt::join(term.args, ","));
    if (term.kind == TermKind::swizzle)
        key += fmt::format("/{}", fmt::join(term.swizzle, ","));
    const auto [found, fresh] = known_.emplace(std::move(key), static_cast<TermId>(terms_.size()));
    if (fresh) {
        depends_.push_back(term.kind == TermKind::channel ||
                           std::any_of(term.args.begin(), term.args.end(), [&](TermId id) { return depends_[id]; }));
        double size = 1;
        for (const TermId id : term.args)
            size += sizes_[id];
        sizes_.push_back(size);
        terms_.push_back(std::move(term));
        origins_.emplace_back();
    }
    return found->second;
}

TermId Terms::number(double value) {
    Term term{TermKind::number, lang::float_type};
    term.number = value == 0 ? 0 : value; // no -0
    return intern(std::move(term));
}
TermId Terms::truth(bool value) {
    Term term{TermKind::number, lang::bool_type};
    term.number = value ? 1 : 0;
    return intern(std::move(term));
}
TermId Terms::channel(std::uint32_t index) {
    Term term{TermKind::channel, lang::float_type};
    term.index = index;
    return intern(std::move(term));
}
TermId Terms::given(std::uint32_t index) {
    Term term{TermKind::given, lang::float_type};
    term.index = index;
    return intern(std::move(term));
}
TermId Terms::name(std::string text, Type type) {
    Term term{TermKind::name, type};
    term.text = std::move(text);
    return intern(std::move(term));
}

TermId Terms::spread(Type type, TermId scalar) {
    if (type == lang::float_type)
        return scalar;
    return intern({TermKind::spread, type, {scalar}});
}

TermId Terms::diagonal(TermId scalar) { return intern({TermKind::diagonal, lang::mat3_type, {scalar}}); }

TermId Terms::construct(Type type, std::vector<TermId> components) {
    if (components.size() == 1)
        return components[0];
    if (const auto found = whole_.find(components); found != whole_.end() && terms_[found->second].type == type)
        return found->second;
    // All components of one value, in order, are that value.
    const Term& first = terms_[components[0]];
    if (first.kind == TermKind::swizzle && terms_[first.args[0]].type == type) {
        bool whole = true;
        for (std::size_t i = 0; i < components.size() && whole; ++i) {
            const Term& part = terms_[components[i]];
            whole = part.kind == TermKind::swizzle && part.args == first.args && part.swizzle[0] == i;
        }
        if (whole)
            return first.args[0];
    }
    if (lang::is_vector(type) &&
        std::all_of(components.begin(), components.end(), [&](TermId id) { return id == components[0]; }))
        return spread(type, components[0]);
    return intern({TermKind::construct, type, std::move(components)});
}

TermId Terms::component(TermId of, std::size_t which) {
    const Term& t = terms_[of];
    if (t.type == lang::float_type)
        return of;
    switch (t.kind) {
    case TermKind::construct: return t.args[which];
    case TermKind::spread: return t.args[0];
    case TermKind::diagonal: return which % 4 == 0 ? t.args[0] : number(0);
    case TermKind::swizzle: return component(t.args[0], t.swizzle[which]);
    default: break;
    }
    if (t.type.kind == lang::Kind::mat3) { // which has no names for its parts: a column of it, and of that one number
        std::vector<TermId> unit(3, number(0));
        unit[which % 3] = number(1);
        return component(mul(of, construct(lang::vec3_type, std::move(unit))), which / 3);
    }
    if (const auto scalar = apart(of, which))
        return *scalar;
    Term part{TermKind::swizzle, lang::float_type, {of}};
    part.swizzle[0] = static_cast<std::uint8_t>(which);
    const TermId made = intern(std::move(part));
    auto& all = wholes_[made];
    if (all.empty())
        all.push_back(of);
    return made;
}

/// The component of an operation that works component by component; nothing of any other.
std::optional<TermId> Terms::apart(TermId of, std::size_t which) {
    if (const auto found = apart_.find(of); found != apart_.end())
        return found->second[which];
    const Term t = terms_[of];
    const bool numbers = lang::is_vector(t.type);
    const builtins::Builtin* row = t.kind == TermKind::call ? &builtins::all()[t.index] : nullptr;
    const bool call = row && (row->form == builtins::Form::componentwise || row->variadic);
    const bool operation =
        t.kind == TermKind::unary || (t.kind == TermKind::binary && terms_[t.args[0]].type.kind != lang::Kind::mat3);
    if (!numbers || (!call && !operation))
        return {};
    std::vector<TermId> all;
    const auto count = static_cast<std::size_t>(lang::width(t.type));
    for (std::size_t c = 0; c < count; ++c) {
        std::vector<TermId> args;
        for (const TermId arg : t.args) // the knots of a curve are the same for all
            args.push_back(terms_[arg].type == t.type && !(row && row->variadic && !args.empty()) ? component(arg, c)
                                                                                                  : arg);
        all.push_back(t.kind == TermKind::unary ? unary(t.op, args[0])
                          : operation           ? binary(t.op, lang::float_type, args[0], args[1])
                                                : this->call(t.index, lang::float_type, std::move(args)));
        if (!origins_[all.back()].span)
            origins_[all.back()].span = origins_[of].span;
    }
    apart_.emplace(of, all);
    if (whole_.emplace(all, of).second)
        for (const TermId part : std::vector<TermId>(all))
            if (depends_[part])
                wholes_[part].push_back(of);
    return all[which];
}

const std::vector<TermId>& Terms::wholes(TermId component) const {
    static const std::vector<TermId> none;
    const auto found = wholes_.find(component);
    return found == wholes_.end() ? none : found->second;
}

TermId Terms::swizzle(TermId of, Type type, std::array<std::uint8_t, 4> places) {
    std::vector<TermId> parts;
    for (int i = 0; i < lang::width(type); ++i)
        parts.push_back(component(of, places[static_cast<std::size_t>(i)]));
    return construct(type, std::move(parts));
}

std::optional<double> Terms::number_of(TermId id) const {
    const Term& t = terms_[id];
    if (t.kind == TermKind::number)
        return t.number;
    if (t.kind == TermKind::spread)
        return number_of(t.args[0]);
    return {};
}

bool Terms::is_number(TermId id, double value) const { return number_of(id) == value; }

TermId Terms::unary(Operator op, TermId of) {
    const Term& t = terms_[of];
    if (op == Operator::neg) {
        if (const auto value = number_of(of))
            return spread(t.type, number(-*value));
        if (t.kind == TermKind::unary && t.op == Operator::neg)
            return t.args[0];
        if (t.kind == TermKind::binary && t.op == Operator::sub)
            return sub(t.args[1], t.args[0]);
    } else if (t.kind == TermKind::number) {
        return truth(t.number == 0);
    }
    Term made{TermKind::unary, t.type, {of}};
    made.op = op;
    return intern(std::move(made));
}

/// What of a value, and how many times it.
std::pair<TermId, double> Terms::multiple(TermId id) {
    const Term t = terms_[id];
    if (t.kind == TermKind::unary && t.op == Operator::neg) {
        const auto [of, by] = multiple(t.args[0]);
        return {of, -by};
    }
    if (t.kind == TermKind::binary && t.op == Operator::mul && terms_[t.args[0]].kind == TermKind::number) {
        const auto [of, by] = multiple(t.args[1]);
        return {of, by * terms_[t.args[0]].number};
    }
    if (t.kind == TermKind::number)
        return {number(1), t.number};
    return {id, 1};
}

/// Sums in which one value stands more than once, as a sum in which it stands once.
std::optional<TermId> Terms::merged(Operator op, TermId a, TermId b) {
    std::vector<std::pair<TermId, double>> all;
    bool fewer = false;
    const auto collect = [&](auto&& self, TermId id, double sign, int depth) -> void {
        const Term t = terms_[id];
        if (depth < 8 && t.kind == TermKind::binary && (t.op == Operator::add || t.op == Operator::sub) &&
            t.type == lang::float_type) {
            self(self, t.args[0], sign, depth + 1);
            self(self, t.args[1], t.op == Operator::sub ? -sign : sign, depth + 1);
            return;
        }
        const auto [of, by] = multiple(id);
        for (auto& [known, times] : all)
            if (known == of) {
                times += sign * by;
                fewer = true;
                return;
            }
        all.emplace_back(of, sign * by);
    };
    collect(collect, a, 1, 0);
    collect(collect, b, op == Operator::sub ? -1 : 1, 0);
    if (!fewer)
        return {};
    std::optional<TermId> sum;
    // What is added first, so that nothing begins with a minus that need not.
    std::stable_sort(all.begin(), all.end(),
                     [](const auto& x, const auto& y) { return (x.second > 0) > (y.second > 0); });
    const auto part = [&](TermId of, double by) {
        return terms_[of].kind == TermKind::number ? number(by) : mul(number(by), of);
    };
    for (const auto& [of, by] : all) {
        if (std::fabs(by) < 1e-15)
            continue;
        if (!sum) {
            sum = part(of, by);
            continue;
        }
        const TermId next = part(of, std::fabs(by));
        Term made{TermKind::binary, lang::float_type, {*sum, next}};
        made.op = by < 0 ? Operator::sub : Operator::add;
        sum = intern(std::move(made));
    }
    return sum ? *sum : number(0);
}

namespace {
bool is_short(double x) { return std::stod(fmt::format("{:.6g}", x)) == x; }
} // namespace

std::optional<TermId> Terms::arithmetic(Operator op, Type type, TermId a, TermId b) {
    const auto x = number_of(a), y = number_of(b);
    const bool matrices = terms_[a].type.kind == lang::Kind::mat3 || terms_[b].type.kind == lang::Kind::mat3;
    const auto fits = [&](TermId id) { return terms_[id].type == type; };
    const auto value = [&](double v) { return spread(type, number(v)); };
    const auto negative = [&](TermId id) -> std::optional<TermId> {
        if (terms_[id].kind == TermKind::unary && terms_[id].op == Operator::neg)
            return terms_[id].args[0];
        return {};
    };
    switch (op) {
    case Operator::add:
        if (x && y && !matrices)
            return value(*x + *y);
        if (x == 0.0 && fits(b))
            return b;
        if (y == 0.0 && fits(a))
            return a;
        if (y && *y < 0 && !matrices)
            return binary(Operator::sub, type, a, spread(terms_[b].type, number(-*y)));
        if (const auto minus = negative(b))
            return binary(Operator::sub, type, a, *minus);
        if (const auto minus = negative(a))
            return binary(Operator::sub, type, b, *minus);
        return type == lang::float_type ? merged(op, a, b) : std::nullopt;
    case Operator::sub:
        if (x && y && !matrices)
            return value(*x - *y);
        if (a == b && !matrices)
            return value(0);
        if (y == 0.0 && fits(a))
            return a;
        if (x == 0.0 && fits(b))
            return neg(b);
        if (const auto minus = negative(b))
            return binary(Operator::add, type, a, *minus);
        return type == lang::float_type ? merged(op, a, b) : std::nullopt;
    case Operator::mul:
        if (x && y && !matrices)
            return value(*x * *y);
        if ((x == 0.0 || y == 0.0) && !matrices)
            return value(0);
        if (x == 1.0 && fits(b))
            return b;
        if (y == 1.0 && fits(a))
            return a;
        if (x == -1.0 && fits(b))
            return neg(b);
        if (y && !x && !matrices && type == lang::float_type) // the number first
            return binary(op, type, b, a);
        if (type == lang::float_type)
            for (const TermId side : {b, a})
                if (const Term& product = terms_[side]; product.kind == TermKind::binary && product.op == Operator::mul)
                    if (const auto inner = number_of(product.args[0])) {
                        const TermId rest = side == b ? a : b;
                        if (const auto outer = number_of(rest))
                            return binary(op, type, number(*outer * *inner), product.args[1]);
                        return binary(op, type, number(*inner), binary(op, type, rest, product.args[1]));
                    }
        break;
    case Operator::div:
        if (x && y && *y != 0 && !matrices && is_short(*x / *y)) // 1 / 3 stays as it is
            return value(*x / *y);
        if (y == 1.0 && fits(a))
            return a;
        if (x == 0.0 && !matrices)
            return value(0);
        if (a == b && !matrices)
            return value(1);
        break;
    default: break;
    }
    return {};
}

TermId Terms::binary(Operator op, Type type, TermId a, TermId b) {
    if (const auto simple = arithmetic(op, type, a, b))
        return *simple;
    Term made{TermKind::binary, type, {a, b}};
    made.op = op;
    return intern(std::move(made));
}

namespace {
Type wider(const Term& a, const Term& b) { return lang::width(b.type) > lang::width(a.type) ? b.type : a.type; }
} // namespace

TermId Terms::add(TermId a, TermId b) { return binary(Operator::add, wider(terms_[a], terms_[b]), a, b); }
TermId Terms::sub(TermId a, TermId b) { return binary(Operator::sub, wider(terms_[a], terms_[b]), a, b); }
TermId Terms::div(TermId a, TermId b) { return binary(Operator::div, wider(terms_[a], terms_[b]), a, b); }
TermId Terms::mul(TermId a, TermId b) {
    const bool applied = terms_[a].type.kind == lang::Kind::mat3 && terms_[b].type == lang::vec3_type;
    return binary(Operator::mul, applied ? lang::vec3_type : wider(terms_[a], terms_[b]), a, b);
}

TermId Terms::choice(TermId condition, TermId yes, TermId no) {
    if (yes == no)
        return yes;
    if (const auto known = number_of(condition))
        return *known != 0 ? yes : no;
    return intern({TermKind::choice, terms_[yes].type, {condition, yes, no}});
}

TermId Terms::call(std::uint32_t builtin, Type type, std::vector<TermId> args) {
    const builtins::Builtin& row = builtins::all()[builtin];
    if (row.model && args.size() == 1) { // there and back
        const Term& inner = terms_[args[0]];
        if (inner.kind == TermKind::call && builtins::all()[inner.index].model == row.model &&
            builtins::all()[inner.index].name != row.name)
            return inner.args[0];
    }
    if (row.space && args.size() == 1) { // the same of a space's numbers
        const Term& inner = terms_[args[0]];
        if (inner.kind == TermKind::call && builtins::all()[inner.index].space == row.space &&
            row.name.starts_with("to_") != builtins::all()[inner.index].name.starts_with("to_") &&
            !row.name.starts_with("outside_") && !builtins::all()[inner.index].name.starts_with("outside_"))
            return inner.args[0];
    }
    if (row.name == "mix" && args.size() == 3) {
        if (is_number(args[2], 0) && terms_[args[0]].type == type)
            return args[0];
        if (is_number(args[2], 1) && terms_[args[1]].type == type)
            return args[1];
    }
    Term made{TermKind::call, type, std::move(args)};
    made.index = builtin;
    return intern(std::move(made));
}

TermId Terms::call(std::string_view name, Type type, std::vector<TermId> args) {
    const auto rows = builtins::all();
    for (std::uint32_t i = 0; i < rows.size(); ++i) {
        if (rows[i].name != name ||
            (rows[i].variadic ? args.size() < rows[i].parameters.size() : rows[i].parameters.size() != args.size()))
            continue;
        bool fits = true;
        for (std::size_t k = 0; k < rows[i].takes.size() && k < args.size(); ++k)
            fits = fits && (rows[i].takes[k].gen || rows[i].takes[k].type == terms_[args[k]].type);
        if (fits)
            return call(i, type, std::move(args));
    }
    return call(0, type, std::move(args)); // never comes here
}

TermId Terms::invoke(std::string function, Type type, std::vector<TermId> args) {
    Term made{TermKind::invoke, type, std::move(args)};
    made.text = std::move(function);
    return intern(std::move(made));
}

TermId Terms::rebuilt(TermId id, std::vector<TermId> args) {
    const Term t = terms_[id];
    TermId made = id;
    switch (t.kind) {
    case TermKind::number:
    case TermKind::channel:
    case TermKind::given:
    case TermKind::name: return id;
    case TermKind::construct: made = construct(t.type, std::move(args)); break;
    case TermKind::spread: made = spread(t.type, args[0]); break;
    case TermKind::diagonal: made = diagonal(args[0]); break;
    case TermKind::swizzle: made = swizzle(args[0], t.type, t.swizzle); break;
    case TermKind::unary: made = unary(t.op, args[0]); break;
    case TermKind::binary: made = binary(t.op, t.type, args[0], args[1]); break;
    case TermKind::choice: made = choice(args[0], args[1], args[2]); break;
    case TermKind::call: made = call(t.index, t.type, std::move(args)); break;
    case TermKind::invoke: made = invoke(t.text, t.type, std::move(args)); break;
    }
    const Origin from = origins_[id];
    if (origins_[made].name.empty())
        origins_[made].name = from.name;
    if (!origins_[made].span)
        origins_[made].span = from.span;
    return made;
}

TermId Terms::replaced(TermId in, TermId what, TermId by) {
    std::map<TermId, TermId> done{{what, by}};
    const auto go = [&](auto&& self, TermId id) -> TermId {
        if (const auto found = done.find(id); found != done.end())
            return found->second;
        std::vector<TermId> args = terms_[id].args;
        bool other = false;
        for (TermId& arg : args) {
            const TermId next = self(self, arg);
            other = other || next != arg;
            arg = next;
        }
        const TermId made = other ? rebuilt(id, std::move(args)) : id;
        done.emplace(id, made);
        return made;
    };
    return go(go, in);
}

} // namespace kasuri::terms
