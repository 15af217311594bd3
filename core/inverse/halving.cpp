// One unknown number in a formula of its own, x * (1 + amount * (1 - smoothstep(0, until, x))): it is found by halving
// the range in which it can be, as functions of the language.
#include "base/said.hpp"
#include "builtins/builtin.hpp"
#include "inverse/solve.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::inverse {
namespace {

using terms::Term;
using terms::TermKind;

/// Where numbers are looked for: channels of a colour, and components of models by their usual ranges and a half more
/// on either side. A luminance and the like up
/// to 4. Thirty halvings are below what single precision tells apart.
constexpr double channel_low = -1, channel_high = 15, light_high = 4;

/// Of a formula, in parts: it is worked out thirty times.
constexpr double longest = 400, longest_of_colours = 1200;

class Halving {
public:
    explicit Halving(Solver& solver) : s_(solver), t_(solver.t) {}

    /// The nearest unknown float of which the value is a formula, whatever else it is made of being known.
    std::optional<TermId> unknown(TermId scalar) {
        constexpr std::size_t most = 100;
        std::vector<TermId> below;
        std::set<TermId> met;
        const auto add = [&](TermId of) {
            if (const auto parts = parts_of(of))
                for (const TermId part : *parts)
                    if (t_.width(part) == 1 && !s_.seen(part) && met.insert(part).second)
                        below.push_back(part);
        };
        add(scalar);
        for (std::size_t i = 0; i < below.size() && i < most; ++i)
            add(below[i]);
        for (const TermId candidate : below) {
            std::map<TermId, bool> known;
            if (covers(scalar, candidate, true, known))
                return candidate;
        }
        return {};
    }

    /// The formula with `sought` in the place of the unknown and what is known as it is known.
    TermId formula(TermId scalar, TermId unknown, TermId sought, bool definition) {
        if (scalar == unknown)
            return sought;
        if (!definition)
            if (const auto value = s_.seen(scalar))
                return *value;
        if (const auto found = made_.find(scalar); found != made_.end())
            return found->second;
        std::vector<TermId> args;
        const std::vector<TermId> parts = parts_of(scalar).value_or(std::vector<TermId>{});
        for (const TermId part : parts)
            args.push_back(formula(part, unknown, sought, false));
        return made_[scalar] = t_.rebuilt(scalar, std::move(args));
    }

private:
    /// Whether all ways from the value to what is not known lead over this one.
    bool covers(TermId of, TermId one, bool definition, std::map<TermId, bool>& known) {
        if (of == one || (!definition && s_.seen(of)))
            return true;
        if (const auto found = known.find(of); found != known.end())
            return found->second;
        const auto parts = parts_of(of);
        return known[of] = parts && !parts->empty() &&
            std::all_of(parts->begin(), parts->end(), [&](TermId part) { return covers(part, one, false, known); });
    }

    /// Floats (and bools, and knots) of which this one is a function; nothing if it is not to be taken apart.
    std::optional<std::vector<TermId>> parts_of(TermId scalar) {
        const Term term = t_[scalar];
        if (term.kind == TermKind::unary || term.kind == TermKind::binary || term.kind == TermKind::choice) {
            for (const TermId arg : term.args)
                if (t_.width(arg) != 1)
                    return {};
            return term.args;
        }
        if (term.kind == TermKind::call || term.kind == TermKind::invoke) {
            if (term.kind == TermKind::call && builtins::all()[term.index].form == builtins::Form::neighbourhood)
                return {};
            for (const TermId arg : term.args)
                if (t_.width(arg) != 1 && t_.depends(arg))
                    return {};
            return term.args;
        }
        return {};
    }

    Solver& s_;
    Terms& t_;
    std::map<TermId, TermId> made_;
};

/// `{n}` is the number of the formula, `{k}` what is known of it, as it is declared, and `{p}` as it is passed on.
constexpr std::string_view functions_text =
    "// What became of x; and the x from {low} to {high} of which y became, by halving thirty times.\n"
    "fn made{n}(x : float{k}) = {body}\n"
    "fn nearer{n}(between : vec2, y : float, rises : float{k}) {{\n"
    "    let middle = 0.5 * (between.x + between.y)\n"
    "    (made{n}(middle{p}) - y) * rises >= 0 ? vec2(between.x, middle) : vec2(middle, between.y)\n"
    "}}\n"
    "fn much_nearer{n}(between : vec2, y : float, rises : float{k}) {{\n"
    "    let some = nearer{n}(nearer{n}(between, y, rises{p}), y, rises{p})\n"
    "    nearer{n}(nearer{n}(nearer{n}(some, y, rises{p}), y, rises{p}), y, rises{p})\n"
    "}}\n"
    "fn back_from{n}(y : float{k}) {{\n"
    "    let rises = made{n}({upper}{p}) - made{n}({lower}{p})\n"
    "    let wanted = {wanted}\n"
    "    let some = much_nearer{n}(much_nearer{n}(vec2({low}, {high}), wanted, rises{p}), wanted, rises{p})\n"
    "    let more = much_nearer{n}(much_nearer{n}(some, wanted, rises{p}), wanted, rises{p})\n"
    "    let found = much_nearer{n}(much_nearer{n}(more, wanted, rises{p}), wanted, rises{p})\n"
    "    0.5 * (found.x + found.y)\n"
    "}}\n";

std::string text_of(const std::string& n, const std::string& body, const std::string& declared,
                    const std::string& passed, double from, double to, bool cyclic) {
    const std::string low = terms::number_text(from), high = terms::number_text(to);
    // Whether it rises is seen where most colours are: beyond, a formula may have no answer, or turn.
    const bool wide = from < 0 && to > 1;
    const double lower = wide ? 0 : from + 0.25 * (to - from), upper = wide ? 1 : from + 0.75 * (to - from);
    // A hue is looked for on the turn that begins where the first one came to lie.
    const std::string wanted =
        cyclic ? fmt::format("made{0}({1}{2}) + mod(y - made{0}({1}{2}), {3})", n, low, passed, high) : "y";
    return fmt::format(fmt::runtime(functions_text), fmt::arg("n", n), fmt::arg("body", body), fmt::arg("k", declared),
                       fmt::arg("p", passed), fmt::arg("low", low), fmt::arg("high", high),
                       fmt::arg("lower", terms::number_text(lower)), fmt::arg("upper", terms::number_text(upper)),
                       fmt::arg("wanted", wanted));
}

/// What does not read the number that is sought becomes an argument of the function.
class Arguments {
public:
    Arguments(Terms& terms, TermId sought) : t_(terms), sought_(sought) {}

    std::vector<TermId> values, names;

    TermId body(TermId id) {
        if (id == sought_)
            return t_.name(t_[sought_].type == lang::float_type ? "x" : "c", t_[sought_].type);
        if (!reads(id)) {
            if (t_.number_of(id))
                return id;
            const auto found = std::find(values.begin(), values.end(), id);
            if (found != values.end())
                return names[static_cast<std::size_t>(found - values.begin())];
            values.push_back(id);
            names.push_back(t_.name("k" + std::to_string(values.size()), t_[id].type));
            return names.back();
        }
        if (const auto found = done_.find(id); found != done_.end())
            return found->second;
        std::vector<TermId> args = t_[id].args;
        for (TermId& arg : args)
            arg = body(arg);
        return done_[id] = t_.rebuilt(id, std::move(args));
    }

private:
    bool reads(TermId id) {
        if (const auto found = reads_.find(id); found != reads_.end())
            return found->second;
        const auto& args = t_[id].args;
        const bool any = id == sought_ || std::any_of(args.begin(), args.end(), [&](TermId arg) { return reads(arg); });
        return reads_[id] = any;
    }

    Terms& t_;
    TermId sought_;
    std::map<TermId, bool> reads_;
    std::map<TermId, TermId> done_;
};

} // namespace

TermId taken(Terms& t) { return t.name("(taken)", lang::float_type); }
TermId sought(Terms& t) { return t.name("(sought)", lang::float_type); }

Range range_of(const Terms& t, TermId what) {
    Range range{channel_low, channel_high};
    const Term& term = t[what];
    if (term.kind == TermKind::call && t.width(term.args[0]) == 3)
        return {channel_low, light_high};
    if (term.kind != TermKind::swizzle || t[term.args[0]].type.kind != lang::Kind::model)
        return range;
    const colour::Component& component =
        colour::find_model(t[term.args[0]].type.model->name)->components[term.swizzle[0]];
    const double more = component.cyclic ? 0 : 0.5 * (component.high - component.low);
    return {component.low - (component.low < 0 ? more : 0), component.high + more, component.cyclic};
}

std::optional<TermId> looked_for(Terms& t, Functions& functions, TermId formula, TermId x, TermId value,
                                 const Range& range) {
    Arguments arguments(t, x);
    const TermId written = arguments.body(formula);
    if (t.written_size(written) > longest)
        return {};
    const std::string body = terms::expression(t, written);
    std::string declared, passed;
    for (const TermId name : arguments.names) {
        declared += fmt::format(", {} : {}", t[name].text, lang::name(t[name].type));
        passed += ", " + t[name].text;
    }
    const std::string key = fmt::format("{} {} {} {}", declared, body, range.low, range.high);
    auto found = functions.names.find(key);
    if (found == functions.names.end()) {
        const std::string n = functions.names.empty() ? "" : std::to_string(functions.names.size() + 1);
        functions.texts.emplace_back("back_from" + n,
                                     text_of(n, body, declared, passed, range.low, range.high, range.cyclic));
        found = functions.names.emplace(key, "back_from" + n).first;
    }
    std::vector<TermId> args{value};
    args.insert(args.end(), arguments.values.begin(), arguments.values.end());
    return t.invoke(found->second, lang::float_type, std::move(args));
}

/// The same for a whole colour.
constexpr std::string_view closing_text =
    "// What became of c; and the c of which y became: what is missing is added, forty times.\n"
    "fn made{n}(c : vec3{k}) = {body}\n"
    "fn closer{n}(c : vec3, y : vec3{k}) = c + (y - made{n}(c{p}))\n"
    "fn much_closer{n}(c : vec3, y : vec3{k}) {{\n"
    "    let some = closer{n}(closer{n}(closer{n}(c, y{p}), y{p}), y{p})\n"
    "    closer{n}(closer{n}(some, y{p}), y{p})\n"
    "}}\n"
    "fn back_from{n}(y : vec3{k}) {{\n"
    "    let some = much_closer{n}(much_closer{n}(y, y{p}), y{p})\n"
    "    let more = much_closer{n}(much_closer{n}(some, y{p}), y{p})\n"
    "    let most = much_closer{n}(much_closer{n}(more, y{p}), y{p})\n"
    "    much_closer{n}(much_closer{n}(most, y{p}), y{p})\n"
    "}}\n";

std::optional<TermId> closed_in_on(Terms& t, Functions& functions, TermId formula, TermId colour, TermId value) {
    Arguments arguments(t, colour);
    const TermId written = arguments.body(formula);
    if (t.written_size(written) > longest_of_colours)
        return {};
    std::string declared, passed;
    for (const TermId name : arguments.names) {
        declared += fmt::format(", {} : {}", t[name].text, lang::name(t[name].type));
        passed += ", " + t[name].text;
    }
    const std::string body = terms::expression(t, written), key = "colour" + declared + body;
    auto found = functions.names.find(key);
    if (found == functions.names.end()) {
        const std::string n = functions.names.empty() ? "" : std::to_string(functions.names.size() + 1);
        functions.texts.emplace_back("back_from" + n,
                                     fmt::format(fmt::runtime(closing_text), fmt::arg("n", n), fmt::arg("body", body),
                                                 fmt::arg("k", declared), fmt::arg("p", passed)));
        found = functions.names.emplace(key, "back_from" + n).first;
    }
    std::vector<TermId> args{value};
    args.insert(args.end(), arguments.values.begin(), arguments.values.end());
    return t.invoke(found->second, lang::vec3_type, std::move(args));
}

bool Solver::solve_by_halving() {
    for (const TermId id : open_floats()) {
        const auto value = seen(id);
        const auto unknown = value ? Halving(*this).unknown(id) : std::nullopt;
        if (!unknown)
            continue;
        const TermId what = *unknown;
        const Range range = range_of(t, what);
        const TermId formula = Halving(*this).formula(id, what, sought(t), true);
        if (const auto number = looked_for(t, functions, formula, sought(t), *value, range)) {
            learn(what, *number);
            look_within(id, range);
            return true;
        }
    }
    return false;
}

void Solver::look_within(TermId id, const Range& range) {
    if (!range.cyclic)
        add_once(ranges,
                 obstacle(id,
                          said("found by halving, from {} to {}", terms::number_text(range.low),
                               terms::number_text(range.high))));
}

} // namespace kasuri::inverse
