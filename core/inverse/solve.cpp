#include "inverse/solve.hpp"

#include "base/said.hpp"
#include "builtins/builtin.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::inverse {

using lang::Operator;
using terms::Term;
using terms::TermKind;

namespace {

/// The most choices that are followed both ways.
constexpr int most_choices = 6;

} // namespace

Solver::Solver(Terms& terms, const colour::Space& of, Functions& written) : t(terms), space(of), functions(written) {}

void Solver::learn(TermId id, TermId value) {
    if (!t.depends(id) || known_.contains(id))
        return;
    if (const std::string& name = t.origin(id).name; !name.empty() && t.origin(value).name.empty())
        t.origin(value).name = name;
    known_[id] = value;
    seen_.clear();
    if (t[id].type.kind == lang::Kind::mat3)
        return;
    for (int i = 0; i < t.width(id); ++i)
        if (t.width(id) > 1)
            learn(t.component(id, static_cast<std::size_t>(i)), t.component(value, static_cast<std::size_t>(i)));
    // The last component of a value makes the whole of it known.
    for (const TermId whole : std::vector<TermId>(t.wholes(id))) {
        if (known_.contains(whole) || t[whole].type.kind == lang::Kind::mat3)
            continue;
        std::vector<TermId> parts;
        for (int i = 0; i < t.width(whole); ++i)
            if (const auto part = seen(t.component(whole, static_cast<std::size_t>(i))))
                parts.push_back(*part);
        if (parts.size() == static_cast<std::size_t>(t.width(whole)))
            learn(whole, t.construct(t[whole].type, std::move(parts)));
    }
}

std::optional<TermId> Solver::seen(TermId id) {
    if (!t.depends(id))
        return id;
    if (const auto found = known_.find(id); found != known_.end())
        return found->second;
    if (const auto found = seen_.find(id); found != seen_.end())
        return found->second == id ? std::nullopt : std::optional(found->second);
    const Term term = t[id];
    std::vector<TermId> args;
    for (const TermId arg : term.args) {
        const auto value = seen(arg);
        if (!value) {
            seen_[id] = id; // it is not
            return {};
        }
        args.push_back(*value);
    }
    if (args.empty()) {
        seen_[id] = id;
        return {};
    }
    const TermId made = t.rebuilt(id, std::move(args));
    seen_[id] = made;
    return made;
}

std::vector<TermId> Solver::open() {
    std::vector<TermId> all;
    for (const auto& [id, value] : known_) {
        const Term term = t[id];
        if (term.kind == TermKind::channel || assumed == id)
            continue;
        const bool whole =
            std::all_of(term.args.begin(), term.args.end(), [&](TermId arg) { return seen(arg).has_value(); });
        if (!whole)
            all.push_back(id);
    }
    return all;
}

/// A component that came of a whole stands for the whole.
Obstacle Solver::obstacle(TermId id, std::string why) const {
    const Term& term = t[id];
    if (term.kind == TermKind::swizzle && !t.origin(id).span && t.origin(term.args[0]).span)
        id = term.args[0];
    return {t.origin(id).span.value_or(Span{}), terms::expression(t, id), std::move(why)};
}

std::set<TermId> Solver::open_floats() {
    std::set<TermId> floats;
    for (const TermId id : open())
        if (t[id].type.kind != lang::Kind::mat3)
            for (int c = 0; c < t.width(id); ++c)
                floats.insert(t.component(id, static_cast<std::size_t>(c)));
    return floats;
}

void add_once(std::vector<Obstacle>& to, Obstacle obstacle) {
    for (const Obstacle& known : to)
        if (known.part == obstacle.part || (obstacle.span.size() > 0 && known.span == obstacle.span))
            return;
    to.push_back(std::move(obstacle));
}

void Solver::lose(TermId id, std::string_view what) {
    if (!what.empty())
        add_once(losses, obstacle(id, std::string(what)));
}

void Solver::follow_call(TermId id, TermId value) {
    const Term term = t[id];
    const bool light = colour::is_linear(space);
    const std::string name = term.kind == TermKind::call ? builtins::all()[term.index].name : term.text;
    if (name == "with_luminance" && term.kind == TermKind::call) {
        learn(term.args[1], t.call("luminance", lang::float_type, {value}));
        return;
    }
    // One unknown argument, or a limit that is known and a value that is not.
    std::optional<std::size_t> unknown;
    for (std::size_t i = 0; i < term.args.size(); ++i)
        if (!seen(term.args[i])) {
            if (unknown)
                return;
            unknown = i;
        }
    if (!unknown)
        return;
    std::vector<TermId> args = term.args;
    for (std::size_t i = 0; i < args.size(); ++i)
        if (i != *unknown)
            args[i] = *seen(args[i]);
    std::string_view loses;
    const TermId with =
        term.kind == TermKind::call ? t.call(term.index, term.type, args) : t.invoke(term.text, term.type, args);
    if (with != id && t[with].kind != term.kind)
        return;
    const auto argument = argument_from(t, with, *unknown, value, light, &loses);
    if (!argument)
        return;
    const bool narrow = t.width(term.args[*unknown]) < t.width(id); // one float for all components
    learn(term.args[*unknown], narrow ? t.component(*argument, 0) : *argument);
    lose(id, loses);
}

void Solver::follow(TermId id) {
    if (assumed == id)
        return;
    const TermId value = known_.at(id);
    const Term term = t[id];
    switch (term.kind) {
    case TermKind::construct:
        for (std::size_t i = 0; i < term.args.size(); ++i)
            learn(term.args[i], t.component(value, i));
        return;
    case TermKind::spread:
    case TermKind::diagonal: learn(term.args[0], t.component(value, 0)); return;
    case TermKind::unary:
        if (term.op == Operator::neg)
            learn(term.args[0], t.neg(value));
        return;
    case TermKind::binary: {
        const auto a = seen(term.args[0]), b = seen(term.args[1]);
        if (a.has_value() == b.has_value())
            return;
        const std::size_t unknown = a ? 1 : 0;
        const lang::Kind left = t[term.args[0]].type.kind;
        if (left == lang::Kind::mat3 && term.type == lang::vec3_type) {
            if (unknown == 1)
                learn(term.args[1], t.mul(t.call("inverse", lang::mat3_type, {*a}), value));
            return;
        }
        if (term.type.kind == lang::Kind::mat3)
            return;
        const TermId other = a ? *a : *b;
        TermId made = 0;
        switch (term.op) {
        case Operator::add: made = t.sub(value, other); break;
        case Operator::sub: made = unknown == 0 ? t.add(value, other) : t.sub(other, value); break;
        case Operator::mul: made = t.div(value, other); break;
        case Operator::div: made = unknown == 0 ? t.mul(value, other) : t.div(other, value); break;
        default: return;
        }
        learn(term.args[unknown], t.width(term.args[unknown]) < t.width(id) ? t.component(made, 0) : made);
        return;
    }
    case TermKind::call:
    case TermKind::invoke: follow_call(id, value); return;
    default: return;
    }
}

void Solver::run() {
    for (bool more = true; more;) {
        more = false;
        // The widest first: what is known of a whole colour is said of the whole colour.
        for (int round = 0; round < 10'000; ++round) {
            const std::size_t before = known_.size();
            std::vector<TermId> all;
            for (const auto& [id, value] : known_)
                all.push_back(id);
            std::stable_sort(all.begin(), all.end(), [&](TermId a, TermId b) { return t.width(a) > t.width(b); });
            for (const TermId id : all) {
                follow(id);
                if (known_.size() != before)
                    break;
            }
            if (known_.size() == before)
                break;
        }
        more = solve_sums() || solve_by_halving();
    }
}

namespace {

class Attempt {
public:
    Attempt(Terms& terms, const colour::Space& space, bool by_scale) : t_(terms), space_(space), by_scale_(by_scale) {}

    Functions functions;

    Solution solve(const std::array<TermId, 4>& out, int choices) {
        Solver solver(t_, space_, functions);
        learn_out(solver, out);
        solver.run();
        Solution made = result(solver);
        if (made.found)
            return made;
        if (choices > 0)
            for (const TermId choice : choices_of(solver))
                if (const auto condition = solver.seen(t_[choice].args[0])) {
                    made = both_ways(out, choice, *condition, choices - 1);
                    return made;
                }
        if (auto scaled = by_scale_ ? with_scale(solver, out) : without_scale(solver, out, choices);
            scaled && scaled->found)
            return *scaled;
        if (auto looked = by_one_number(solver, out))
            return *looked;
        if (auto closed = by_closing_in(solver, out))
            return *closed;
        explain(solver, made);
        return made;
    }

private:
    void learn_out(Solver& solver, const std::array<TermId, 4>& out) {
        const TermId colour = t_.construct(lang::vec3_type, {out[0], out[1], out[2]});
        const TermId given = t_.construct(lang::vec3_type, {t_.given(0), t_.given(1), t_.given(2)});
        solver.learn(out[3], t_.given(3));
        solver.learn(colour, given);
        for (std::uint32_t c = 0; c < 3; ++c)
            solver.learn(out[c], t_.given(c));
    }

    Solution result(Solver& solver) {
        Solution made;
        std::array<std::optional<TermId>, 4> in;
        for (std::uint32_t c = 0; c < 4; ++c)
            in[c] = solver.seen(t_.channel(c));
        if (!in[3]) // nothing reads it, and nothing writes it
            return made;
        made.losses = solver.losses;
        made.ranges = solver.ranges;
        if (in[0] && in[1] && in[2]) {
            made.found = true;
            made.rgb = t_.construct(lang::vec3_type, {*in[0], *in[1], *in[2]});
            made.alpha = *in[3];
        }
        return made;
    }

    Solution both_ways(const std::array<TermId, 4>& out, TermId choice, TermId condition, int choices) {
        std::array<Solution, 2> ways;
        for (std::size_t way = 0; way < 2; ++way) {
            std::array<TermId, 4> with = out;
            for (TermId& channel : with)
                channel = t_.replaced(channel, choice, t_[choice].args[1 + way]);
            ways[way] = solve(with, choices);
            if (!ways[way].found)
                return ways[way];
        }
        Solution made;
        made.found = true;
        made.rgb = t_.choice(condition, ways[0].rgb, ways[1].rgb);
        made.alpha = t_.choice(condition, ways[0].alpha, ways[1].alpha);
        made.scaled = ways[0].scaled || ways[1].scaled;
        for (const Solution& way : ways) {
            for (const Obstacle& o : way.losses)
                add_once(made.losses, o);
            for (const Obstacle& o : way.ranges)
                add_once(made.ranges, o);
        }
        return made;
    }

    /// The outermost choices that stand in the way.
    std::vector<TermId> choices_of(Solver& solver) {
        std::vector<TermId> all;
        std::set<TermId> met;
        const auto go = [&](auto&& self, TermId id) -> void {
            if (!t_.depends(id) || !met.insert(id).second)
                return;
            if (t_[id].kind == TermKind::choice)
                all.push_back(id);
            for (const TermId arg : t_[id].args)
                self(self, arg);
        };
        for (const TermId id : solver.open())
            go(go, id);
        return all;
    }

    /// Colours that `keep luminance` has scaled to the luminance of what came in.
    std::vector<TermId> kept_luminances(Solver& solver) {
        const TermId in = t_.construct(lang::vec3_type, {t_.channel(0), t_.channel(1), t_.channel(2)}),
                     y = t_.call("luminance", lang::float_type, {in});
        std::vector<TermId> all;
        for (const TermId id : solver.open())
            if (t_[id].kind == TermKind::call && builtins::all()[t_[id].index].name == "with_luminance" &&
                t_[id].args[1] == y)
                all.push_back(id);
        return all;
    }

    /// `keep luminance` of what grows with its input: solved as if nothing had been scaled, and then scaled back.
    std::optional<Solution> without_scale(Solver& solver, const std::array<TermId, 4>& out, int choices) {
        for (const TermId id : kept_luminances(solver)) {
            const Term term = t_[id];
            std::array<TermId, 4> with = out;
            for (TermId& channel : with)
                channel = t_.replaced(channel, id, term.args[0]);
            Solution made = solve(with, choices);
            if (!made.found)
                return made;
            const TermId given = *solver.seen(id);
            made.rgb =
                t_.call("with_luminance", lang::vec3_type, {made.rgb, t_.call("luminance", lang::float_type, {given})});
            made.scaled = true;
            return made;
        }
        return {};
    }

    /// The same of what does not: the luminance that it had before it was scaled is looked for, until what went in has
    /// the luminance that it has now.
    std::optional<Solution> with_scale(Solver& solver, const std::array<TermId, 4>& out) {
        for (const TermId id : kept_luminances(solver)) {
            const Term term = t_[id];
            const TermId given = *solver.seen(id);
            Solver second(t_, space_, functions);
            learn_out(second, out);
            second.learn(term.args[0], t_.call("with_luminance", lang::vec3_type, {given, taken(t_)}));
            second.run();
            Solution made = result(second);
            if (!made.found)
                continue;
            const TermId light = t_.call("luminance", lang::float_type, {made.rgb});
            return found_by(second, made, id, light, t_.call("luminance", lang::float_type, {given}),
                            range_of(t_, term.args[1]));
        }
        return {};
    }

    Solution found_by(Solver& solver, Solution made, TermId what, TermId formula, TermId value, const Range& range) {
        const auto number = looked_for(t_, functions, formula, taken(t_), value, range);
        if (!number)
            return {};
        t_.origin(*number).name = "light";
        made.rgb = t_.replaced(made.rgb, taken(t_), *number);
        made.alpha = t_.replaced(made.alpha, taken(t_), *number);
        solver.look_within(what, range);
        made.ranges = solver.ranges;
        return made;
    }

    /// One number on the way, such as a luminance that decides how much is done: if all could be solved were it known,
    /// it is the number that comes out again when what was solved goes in.
    std::optional<Solution> by_one_number(Solver& solver, const std::array<TermId, 4>& out) {
        constexpr std::size_t most = 24;
        std::vector<TermId> next = solver.open(), floats;
        std::set<TermId> met(next.begin(), next.end());
        for (std::size_t i = 0; i < next.size(); ++i) {
            for (const TermId arg : t_[next[i]].args)
                if (t_.depends(arg) && !solver.seen(arg) && met.insert(arg).second)
                    next.push_back(arg);
            if (t_[next[i]].type == lang::float_type && t_[next[i]].kind != TermKind::channel && !solver.seen(next[i]))
                floats.push_back(next[i]);
        }
        // What makes one number of a colour first: what comes of that is likely to lose something.
        std::stable_partition(floats.begin(), floats.end(), [&](TermId id) {
            const Term& term = t_[id];
            return term.kind == TermKind::call && t_.width(term.args[0]) == 3;
        });
        floats.resize(std::min(floats.size(), most));
        for (const TermId what : floats) {
            Solver second(t_, space_, functions);
            learn_out(second, out);
            second.assumed = what;
            second.learn(what, taken(t_));
            second.run();
            const Solution made = result(second);
            if (!made.found)
                continue;
            TermId again = what;
            std::array<TermId, 4> in{t_.component(made.rgb, 0), t_.component(made.rgb, 1), t_.component(made.rgb, 2),
                                     made.alpha};
            again = with_channels(again, in);
            if (again == what || again == taken(t_) || neighbours_read(again, taken(t_)) ||
                neighbours_read(made.rgb, taken(t_)))
                continue;
            if (const Solution found =
                    found_by(second, made, what, t_.sub(again, taken(t_)), t_.number(0), range_of(t_, what));
                found.found)
                return found;
        }
        return {};
    }

    /// A number that is looked for pixel by pixel cannot be one that its neighbours have a part in.
    bool neighbours_read(TermId of, TermId what) {
        std::map<TermId, bool> reads;
        bool any = false;
        const auto go = [&](auto&& self, TermId id) -> bool {
            if (const auto found = reads.find(id); found != reads.end())
                return found->second;
            bool here = id == what;
            for (const TermId arg : t_[id].args)
                here = self(self, arg) || here;
            if (here && t_[id].kind == TermKind::call &&
                builtins::all()[t_[id].index].form == builtins::Form::neighbourhood)
                any = true;
            return reads[id] = here;
        };
        go(go, of);
        return any;
    }

    /// Where nothing can be taken apart, as in a mixture of a colour and what a model made of it.
    std::optional<Solution> by_closing_in(Solver& solver, const std::array<TermId, 4>& out) {
        const auto alpha = solver.seen(t_.channel(3));
        if (!alpha)
            return {};
        const TermId colour = t_.name("(taken)", lang::vec3_type);
        const TermId formula =
            with_channels(t_.construct(lang::vec3_type, {out[0], out[1], out[2]}),
                          {t_.component(colour, 0), t_.component(colour, 1), t_.component(colour, 2), *alpha});
        if (neighbours_read(formula, colour))
            return {};
        const TermId given = t_.construct(lang::vec3_type, {t_.given(0), t_.given(1), t_.given(2)});
        const auto found = closed_in_on(t_, functions, formula, colour, given);
        if (!found)
            return {};
        Solution made;
        made.found = true;
        made.rgb = *found;
        made.alpha = *alpha;
        made.ranges = solver.ranges;
        explain(solver, made);
        for (Obstacle& o : made.obstacles)
            o.why = said("closed in on step by step, where the rule does little enough");
        for (const Obstacle& o : made.obstacles)
            add_once(made.ranges, o);
        made.obstacles.clear();
        return made;
    }

    TermId with_channels(TermId of, const std::array<TermId, 4>& in) {
        std::map<TermId, TermId> done;
        for (std::uint32_t c = 0; c < 4; ++c)
            done[t_.channel(c)] = in[c];
        const auto go = [&](auto&& self, TermId id) -> TermId {
            if (const auto found = done.find(id); found != done.end())
                return found->second;
            std::vector<TermId> args = t_[id].args;
            for (TermId& arg : args)
                arg = self(self, arg);
            return done[id] = t_[id].args.empty() ? id : t_.rebuilt(id, std::move(args));
        };
        return go(go, of);
    }

    void explain(Solver& solver, Solution& made) {
        std::set<TermId> met;
        // The deepest parts that are not known although what they make is, and that have a name for why.
        const auto go = [&](auto&& self, TermId id) -> bool {
            if (!t_.depends(id) || !met.insert(id).second || made.obstacles.size() > 3)
                return false;
            const Term term = t_[id];
            if (term.kind == TermKind::call)
                if (const std::string_view why = why_lost(builtins::all()[term.index].name); !why.empty()) {
                    add(made, id, std::string(why));
                    return true;
                }
            if (term.kind == TermKind::choice && !solver.seen(term.args[0])) {
                add(made, id, std::string(said("which way was taken depends on the colour that is looked for")));
                return true;
            }
            bool any = false;
            for (const TermId arg : term.args)
                if (!solver.seen(arg))
                    any = self(self, arg) || any;
            return any;
        };
        const std::vector<TermId> open = solver.open();
        for (const TermId id : open)
            go(go, id);
        if (made.obstacles.empty())
            for (const TermId id : open)
                if (t_[id].kind != TermKind::swizzle || open.size() == 1) {
                    add(made, id, std::string(said("what went into it cannot be told from what comes out")));
                    break;
                }
        if (made.obstacles.empty()) {
            std::string missing;
            for (std::uint32_t c = 0; c < 4; ++c)
                if (!solver.seen(t_.channel(c)))
                    missing += (missing.empty() ? "" : ", ") + std::string(1, "rgba"[c]);
            made.obstacles.push_back({{}, missing, std::string(said("nothing of it is in what comes out"))});
        }
    }

    void add(Solution& made, TermId id, std::string why) {
        add_once(made.obstacles, {t_.origin(id).span.value_or(Span{}), terms::expression(t_, id), std::move(why)});
    }

    Terms& t_;
    const colour::Space& space_;
    bool by_scale_ = false;
};

} // namespace

std::vector<Obstacle> lossy_parts(const Terms& t, const std::array<TermId, 4>& out) {
    std::vector<Obstacle> all;
    std::set<TermId> met;
    const auto go = [&](auto&& self, TermId id) -> void {
        if (!t.depends(id) || !met.insert(id).second)
            return;
        for (const TermId arg : t[id].args)
            self(self, arg);
        if (t[id].kind != TermKind::call)
            return;
        if (const std::string_view why = why_lost(builtins::all()[t[id].index].name); !why.empty())
            add_once(all, {t.origin(id).span.value_or(Span{}), terms::expression(t, id), std::string(why)});
    };
    for (const TermId id : out)
        go(go, id);
    return all;
}

Solution solve(Terms& terms, const std::array<TermId, 4>& out, const colour::Space& space, bool by_scale) {
    Attempt attempt(terms, space, by_scale);
    Solution made = attempt.solve(out, most_choices);
    made.functions = std::move(attempt.functions);
    return made;
}

} // namespace kasuri::inverse
