#include "builtins/builtin.hpp"
#include "terms/terms.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace kasuri::terms {
namespace {

using lang::Operator;

/// How tightly an operator holds; what stands in brackets, or is a name, holds tightest.
constexpr int tightest = 9, loosest = 0;
int strength(Operator op) {
    switch (op) {
    case Operator::logical_or: return 1;
    case Operator::logical_and: return 2;
    case Operator::equal:
    case Operator::not_equal: return 3;
    case Operator::less:
    case Operator::less_equal:
    case Operator::greater:
    case Operator::greater_equal: return 4;
    case Operator::add:
    case Operator::sub: return 5;
    case Operator::mul:
    case Operator::div: return 6;
    default: return 7;
    }
}

struct Written {
    std::string text;
    int holds = tightest;
};

constexpr std::string_view channels = "rgba";
/// A colour that is longer is written channel by channel.
constexpr std::size_t longest_line = 70;

class Writer {
public:
    Writer(const Terms& terms) : t_(terms) {}

    std::map<TermId, std::string> names; ///< of what stands in a let already

    std::string text(TermId id) { return written(id).text; }
    std::string at_least(TermId id, int holds) {
        Written made = written(id);
        return made.holds < holds ? "(" + made.text + ")" : made.text;
    }

    Written written(TermId id) {
        if (const auto found = names.find(id); found != names.end())
            return {found->second};
        return bare(id);
    }

    /// Not by its name, even if it has one.
    Written bare(TermId id) {
        const Term& t = t_[id];
        switch (t.kind) {
        case TermKind::number:
            if (t.type == lang::bool_type)
                return {t.number != 0 ? "true" : "false"};
            return {number_text(t.number), t.number < 0 ? 7 : tightest};
        case TermKind::channel:
        case TermKind::given: return {std::string(1, channels[t.index])};
        case TermKind::name: return {t.text};
        case TermKind::construct: return construct(t);
        case TermKind::spread:
            if (t.type == lang::vec2_type && t_[t.args[0]].kind == TermKind::number) // a place, such as a knot
                return {fmt::format("vec2({0}, {0})", text(t.args[0]))};
            return {fmt::format("{}({})", lang::name(t.type), text(t.args[0]))};
        case TermKind::diagonal: return {fmt::format("mat3({})", text(t.args[0]))};
        case TermKind::swizzle: return {at_least(t.args[0], tightest) + "." + places(t)};
        case TermKind::unary: return {std::string(lang::symbol(t.op)) + at_least(t.args[0], 8), 7};
        case TermKind::binary: {
            const int own = strength(t.op);
            const bool mirrored = t.op == Operator::sub || t.op == Operator::div;
            return {
                fmt::format("{} {} {}", at_least(narrow(t.args[0], t.args[1]), own), lang::symbol(t.op),
                            at_least(narrow(t.args[1], t.args[0]), mirrored || t.op == Operator::mul ? own + 1 : own)),
                own};
        }
        case TermKind::choice:
            return {fmt::format("{} ? {} : {}", at_least(t.args[0], 1), at_least(t.args[1], 1), text(t.args[2])),
                    loosest};
        case TermKind::call: return {builtin(t)};
        case TermKind::invoke: return {call(t.text, t)};
        }
        return {};
    }

    std::string places(const Term& t) const {
        const lang::Type of = t_[t.args[0]].type;
        std::string made;
        for (int i = 0; i < lang::width(t.type); ++i)
            if (of.kind == lang::Kind::model)
                made += of.model->components[t.swizzle[static_cast<std::size_t>(i)]];
            else
                made += (of == lang::vec2_type ? "xyzw" : "rgba")[t.swizzle[static_cast<std::size_t>(i)]];
        return made;
    }

private:
    std::string list(const std::vector<TermId>& args) {
        std::string made;
        for (const TermId arg : args)
            made += (made.empty() ? "" : ", ") + text(arg);
        return made;
    }
    /// One float stands for a vector of equal components where the other operand is a vector.
    TermId narrow(TermId id, TermId other) const {
        const bool vector = lang::is_vector(t_[other].type) && t_[other].kind != TermKind::spread;
        return t_[id].kind == TermKind::spread && vector && !names.contains(id) ? t_[id].args[0] : id;
    }
    /// And where another argument of the call is one.
    std::string builtin(const Term& t) {
        const builtins::Builtin& row = builtins::all()[t.index];
        std::vector<TermId> args = t.args;
        if (row.form == builtins::Form::componentwise)
            for (const TermId vector : t.args)
                if (lang::is_vector(t_[vector].type) && t_[vector].kind != TermKind::spread)
                    for (TermId& arg : args)
                        arg = narrow(arg, vector);
        return fmt::format("{}({})", row.name, list(args));
    }
    std::string call(std::string_view name, const Term& t) { return fmt::format("{}({})", name, list(t.args)); }

    /// The value whose components stand here in this order, if there is one: rgb, c, tint.
    std::optional<std::string> one_value(const std::vector<TermId>& args, std::size_t from, std::size_t count) {
        const Term& first = t_[args[from]];
        std::string colour;
        for (std::size_t i = 0; i < count; ++i) {
            const Term& part = t_[args[from + i]];
            if (names.contains(args[from + i]))
                return {};
            if (first.kind == TermKind::given || first.kind == TermKind::channel) {
                if (part.kind != first.kind)
                    return {};
                colour += channels[part.index];
            } else if (first.kind == TermKind::name) { // the parts of a colour that is a parameter
                if (part.kind != TermKind::name || part.text.size() < 3 || part.text[part.text.size() - 2] != '.' ||
                    channels.find(part.text.back()) == std::string_view::npos ||
                    part.text.substr(0, part.text.size() - 2) != first.text.substr(0, first.text.size() - 2))
                    return {};
                colour += part.text.back();
            } else if (first.kind == TermKind::swizzle) {
                const lang::Kind kind = t_[first.args[0]].type.kind;
                if (part.kind != TermKind::swizzle || part.args != first.args ||
                    (kind != lang::Kind::vec3 && kind != lang::Kind::vec4))
                    return {};
                colour += channels[part.swizzle[0]];
            } else {
                return {};
            }
        }
        if (first.kind == TermKind::given || first.kind == TermKind::channel)
            return colour == "rgb" || colour == "rgba" ? colour : "rgba." + colour;
        if (first.kind == TermKind::name) {
            const std::string base = first.text.substr(0, first.text.size() - 2);
            return colour == "rgb" ? base : base + "." + colour;
        }
        const std::string base = at_least(first.args[0], tightest);
        const bool whole =
            count == static_cast<std::size_t>(t_.width(first.args[0])) && colour == channels.substr(0, count);
        return whole ? base : base + "." + colour;
    }

    Written construct(const Term& t) {
        const std::string type = lang::name(t.type);
        if (t.type.kind == lang::Kind::model)
            return {fmt::format("{}({})", type, list(t.args))};
        if (t.type.kind == lang::Kind::mat3) {
            std::array<std::string, 3> rows;
            bool plain = true;
            for (std::size_t row = 0; row < 3; ++row) {
                const auto value = one_value(t.args, 3 * row, 3);
                plain = plain && value.has_value();
                rows[row] = value.value_or("");
            }
            if (plain)
                return {fmt::format("mat3({}, {}, {})", rows[0], rows[1], rows[2])};
            return {fmt::format("mat3({})", list(t.args))};
        }
        if (const auto value = one_value(t.args, 0, t.args.size()))
            return {*value};
        if (t.type == lang::vec4_type)
            if (const auto value = one_value(t.args, 0, 3))
                return {fmt::format("vec4({}, {})", *value, text(t.args[3]))};
        return {fmt::format("{}({})", type, list(t.args))};
    }

    const Terms& t_;
};

/// Puts what is used more than once, or has a name of its own, into lets before what uses it.
class Statements {
public:
    Statements(Terms& terms, const std::vector<std::string>& taken) : t_(terms), writer_(terms) {
        taken_.insert(taken.begin(), taken.end());
        for (const builtins::Builtin& row : builtins::all())
            taken_.insert(row.name);
        for (const lang::FunctionPtr& function : builtins::vocabulary().prelude)
            taken_.insert(function->name);
        for (const lang::InputRow& row : lang::input_table())
            taken_.emplace(row.name);
    }

    std::string made(TermId rgb, TermId alpha) {
        count(rgb);
        count(alpha);
        lets(rgb, false);
        const bool keeps_alpha = alpha == t_.given(3);
        if (!keeps_alpha)
            lets(alpha, false);
        colour(rgb);
        if (!keeps_alpha)
            lines_ += fmt::format("out.a = {}\n", writer_.text(alpha));
        return lines_;
    }

private:
    /// Each channel that changes, or all at once.
    void colour(TermId rgb) {
        const Term& t = t_[rgb];
        if (t.kind == TermKind::construct && !writer_.names.contains(rgb)) {
            std::size_t kept = 0, swapped = 0;
            for (std::uint32_t c = 0; c < 3; ++c) {
                kept += t.args[c] == t_.given(c) ? 1 : 0;
                swapped += t_[t.args[c]].kind == TermKind::given ? 1 : 0;
            }
            if (kept > 0 && swapped < 3) {
                for (std::uint32_t c = 0; c < 3; ++c)
                    if (t.args[c] != t_.given(c))
                        lines_ += fmt::format("out.{} = {}\n", channels[c], writer_.text(t.args[c]));
                return;
            }
            if (swapped < 3 && writer_.text(rgb).size() > longest_line) {
                for (std::uint32_t c = 0; c < 3; ++c)
                    lines_ += fmt::format("out.{} = {}\n", channels[c], writer_.text(t.args[c]));
                return;
            }
        }
        if (const std::string text = writer_.text(rgb); text != "rgb")
            lines_ += fmt::format("out.rgb = {}\n", text);
    }

    void count(TermId id) {
        if (++uses_[id] > 1)
            return;
        for (const TermId arg : t_[id].args)
            count(arg);
    }

    bool is_small(TermId id) const {
        const Term& t = t_[id];
        switch (t.kind) {
        case TermKind::number:
        case TermKind::channel:
        case TermKind::given:
        case TermKind::name: return true;
        case TermKind::swizzle:
        case TermKind::spread:
        case TermKind::diagonal: return is_small(t.args[0]) || t.kind == TermKind::swizzle;
        case TermKind::unary: return is_small(t.args[0]);
        case TermKind::construct:
            return t.type.kind != lang::Kind::model && t.type.kind != lang::Kind::mat3 &&
                std::all_of(t.args.begin(), t.args.end(), [&](TermId arg) { return is_small(arg); });
        default: return false;
        }
    }

    void lets(TermId id, bool inside) {
        if (!seen_.insert(id).second)
            return;
        if (changed_components(id)) {
            component_lines(id);
            return;
        }
        for (const TermId arg : t_[id].args)
            lets(arg, true);
        const bool named = !t_.origin(id).name.empty();
        if (!inside || is_small(id) || (uses_[id] < 2 && !named))
            return;
        const Written text = writer_.bare(id);
        const std::string name = free_name(id);
        lines_ += fmt::format("let {} = {}\n", name, text.text);
        writer_.names[id] = name;
    }

    /// A colour of a model of which only some components are other ones than those of another value.
    std::optional<TermId> changed_components(TermId id) const {
        const Term& t = t_[id];
        if (t.kind != TermKind::construct || t.type.kind != lang::Kind::model)
            return {};
        for (const TermId arg : t.args)
            if (t_[arg].kind == TermKind::swizzle && t_[t_[arg].args[0]].type == t.type)
                return t_[arg].args[0];
        return {};
    }

    /// `let c = oklch(rgb)`, `c.h = c.h - 30`, as people write it.
    void component_lines(TermId id) {
        const Term t = t_[id];
        const TermId base = *changed_components(id);
        for (const TermId arg : t_[base].args)
            lets(arg, true);
        for (std::size_t i = 0; i < 3; ++i)
            if (t.args[i] != t_.component(base, i))
                lets_within(t.args[i], base);
        std::vector<std::size_t> changed;
        for (std::size_t i = 0; i < 3; ++i)
            if (t.args[i] != t_.component(base, i))
                changed.push_back(i);
        const bool known = writer_.names.contains(base);
        std::string before = writer_.text(base);
        const std::string name = free_name(known && t_.origin(id).name.empty() ? base : id);
        if (!known && !one_by_one(t, base, changed)) { // they read the colour as it was
            const std::string old = free_name(base);
            lines_ += fmt::format("let {} = {}\n", old, before);
            writer_.names[base] = before = old;
        }
        lines_ += fmt::format("let {} = {}\n", name, before);
        writer_.names[id] = name;
        const bool own = !writer_.names.contains(base);
        if (own)
            writer_.names[base] = name;
        for (const std::size_t i : changed)
            lines_ += assigned(fmt::format("{}.{}", name, t.type.model->components[i]), t.args[i], base, i);
        if (own) { // from here on that name is another colour
            writer_.names.erase(base);
            seen_.erase(base);
        }
    }

    /// `c.h -= 30` where the component is what it was, and something more.
    std::string assigned(const std::string& target, TermId value, TermId base, std::size_t which) {
        const Term& t = t_[value];
        const TermId own = t_.component(base, which);
        if (t.kind == TermKind::binary && writer_.names.contains(base) &&
            target.starts_with(writer_.names[base] + ".")) {
            if (t.args[0] == own)
                return fmt::format("{} {}= {}\n", target, lang::symbol(t.op), writer_.text(t.args[1]));
            if (t.args[1] == own && (t.op == Operator::mul || t.op == Operator::add))
                return fmt::format("{} {}= {}\n", target, lang::symbol(t.op), writer_.text(t.args[0]));
        }
        return fmt::format("{} = {}\n", target, writer_.text(value));
    }

    /// Whether each new component reads none that was written before it.
    bool one_by_one(const Term& t, TermId base, const std::vector<std::size_t>& changed) const {
        std::set<TermId> written;
        for (const std::size_t i : changed) {
            const auto fits = [&](auto&& self, TermId id) -> bool {
                if (id == base || written.contains(id))
                    return false;
                const Term& part = t_[id];
                if (part.kind == TermKind::swizzle && part.args[0] == base)
                    return true;
                return std::all_of(part.args.begin(), part.args.end(), [&](TermId arg) { return self(self, arg); });
            };
            if (!fits(fits, t.args[i]))
                return false;
            written.insert(t_.component(base, i));
        }
        return true;
    }

    /// Lets of what does not read the colour whose components are about to change.
    void lets_within(TermId id, TermId base) {
        if (!reads(id, base)) {
            lets(id, true);
            return;
        }
        for (const TermId arg : t_[id].args)
            if (arg != base)
                lets_within(arg, base);
    }
    bool reads(TermId id, TermId what) {
        const auto key = std::pair(id, what);
        if (const auto found = reads_.find(key); found != reads_.end())
            return found->second;
        const auto& args = t_[id].args;
        const bool any =
            id == what || std::any_of(args.begin(), args.end(), [&](TermId arg) { return reads(arg, what); });
        return reads_[key] = any;
    }

    /// Whether it is another value at every pixel.
    bool reads_given(TermId id) {
        if (const auto found = reads_given_.find(id); found != reads_given_.end())
            return found->second;
        const Term& t = t_[id];
        const bool reads = t.kind == TermKind::given ||
            std::any_of(t.args.begin(), t.args.end(), [&](TermId arg) { return reads_given(arg); });
        return reads_given_[id] = reads;
    }

    std::string free_name(TermId id) {
        std::string stem = t_.origin(id).name;
        if (stem.empty()) {
            const Term& t = t_[id];
            stem = t.type.kind == lang::Kind::mat3                              ? "m"
                : t.type.kind == lang::Kind::model || t.type == lang::vec3_type ? "c"
                : reads_given(id)                                               ? "x"
                                                                                : "k";
        }
        std::string name = stem;
        for (int k = 2; taken_.contains(name); ++k)
            name = stem + std::to_string(k);
        taken_.insert(name);
        return name;
    }

    Terms& t_;
    Writer writer_;
    std::map<TermId, int> uses_;
    std::set<TermId> seen_;
    std::map<TermId, bool> reads_given_;
    std::map<std::pair<TermId, TermId>, bool> reads_;
    std::set<std::string> taken_;
    std::string lines_;
};

} // namespace

std::string number_text(double x) {
    if (std::isnan(x) || std::isinf(x))
        return std::isnan(x) ? "(0 / 0)" : x > 0 ? "(1 / 0)" : "(-1 / 0)";
    for (int digits = 1; digits < 18; ++digits) {
        const std::string text = fmt::format("{:.{}g}", x, digits);
        if (std::fabs(std::stod(text) - x) > 4e-16 * std::fabs(x) && digits < 17)
            continue;
        if (text.find('e') == std::string::npos || std::fabs(x) > 1e15 || std::fabs(x) < 1e-6)
            return text;
        const int whole = static_cast<int>(std::floor(std::log10(std::fabs(x)))) + 1;
        return fmt::format("{:.{}f}", x, std::max(0, digits - whole));
    }
    return {};
}

std::string statements(Terms& terms, TermId rgb, TermId alpha, const std::vector<std::string>& taken) {
    return Statements(terms, taken).made(rgb, alpha);
}

std::string expression(const Terms& terms, TermId id) {
    return terms.written_size(id) > 2000 ? "..." : Writer(terms).text(id);
}

} // namespace kasuri::terms
