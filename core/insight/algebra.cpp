#include "insight/algebra.hpp"

#include "engine/lower.hpp"
#include "insight/polynomial.hpp"
#include "ir/graph.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <set>
#include <string>

namespace kasuri::insight {
namespace {

using ir::Op;
using Atom = Polynomial::Atom;

constexpr std::size_t most_terms = 160;
constexpr std::size_t most_factors = 12;
constexpr int most_choices = 6;

/// Everything that is an atom, by what it is made of, for one or more rules.
class Atoms {
public:
    Polynomial named(const std::string& name) { return Polynomial::of(number(name)); }
    /// 1 / x
    Polynomial reciprocal(const Polynomial& x) {
        const Atom atom = number("1/(" + x.key() + ")");
        divisors_.try_emplace(atom, x);
        return Polynomial::of(atom);
    }
    const std::map<Atom, Polynomial>& divisors() const { return divisors_; }
    const std::string& name(Atom atom) const { return names_[atom]; }

private:
    Atom number(const std::string& name) {
        const auto [place, fresh] = numbers_.try_emplace(name, static_cast<Atom>(names_.size()));
        if (fresh)
            names_.push_back(name);
        return place->second;
    }
    std::map<std::string, Atom> numbers_;
    std::vector<std::string> names_;
    std::map<Atom, Polynomial> divisors_;
};

/// Which way each condition goes, by its key, as far as it has been decided.
struct Choices {
    std::map<std::string, bool> decided;
    bool grey = false; ///< the condition was that r, g, b are equal
};

/// A condition that is still open.
struct Open {
    std::string key;
    bool whether_grey = false;
};

/// The outputs of a rule as sums of products.
class Reading {
public:
    using Inputs = std::array<Polynomial, 4>;

    Reading(const lang::Rule& rule, Atoms& atoms, std::optional<std::span<const double>> values) : rule_(rule), atoms_(atoms), values_(values), outputs_(engine::lower(rule, graph_, {})) {}

    /// `open` gets the first condition that is not decided, if there is one.
    std::array<Polynomial, 4> outputs(const Inputs& inputs, const Choices& choices, std::optional<Open>& open) {
        inputs_ = &inputs;
        choices_ = &choices;
        open_ = &open;
        known_.assign(graph_.size(), {});
        for (ir::NodeId id = 0; id < graph_.size(); ++id) // operands come before what uses them
            known_[id] = bounded(of(graph_[id]), id);
        return {known_[outputs_[0]], known_[outputs_[1]], known_[outputs_[2]], known_[outputs_[3]]};
    }

    const ir::Graph& graph() const { return graph_; }
    std::span<const ir::NodeId> nodes() const { return outputs_; }

private:
    std::string key(const ir::Node& node) const {
        std::string text(ir::row(node.op).name);
        if (node.op == Op::external)
            text += fmt::format("{}#{}", node.value, static_cast<const void*>(graph_.externals()[node.slot]));
        std::vector<std::string> keys;
        for (int k = 0; k < ir::row(node.op).arity; ++k)
            keys.push_back(known_[node.args[static_cast<std::size_t>(k)]].key());
        if (node.op == Op::min || node.op == Op::max || node.op == Op::equal)
            std::sort(keys.begin(), keys.end());
        return fmt::format("{}({})", text, fmt::join(keys, ","));
    }

    /// A sum that has grown too large stands for itself.
    Polynomial bounded(Polynomial made, ir::NodeId id) {
        const auto long_product = [](const auto& term) { return term.first.size() > most_factors; };
        const bool large = made.terms().size() > most_terms || std::any_of(made.terms().begin(), made.terms().end(), long_product);
        const bool odd = std::any_of(made.terms().begin(), made.terms().end(), [](const auto& term) { return !std::isfinite(term.second); });
        return large || odd ? atoms_.named(key(graph_[id])) : made;
    }

    Polynomial leaf(const ir::Node& node) {
        if (node.op == Op::constant)
            return std::isfinite(node.value) ? Polynomial(node.value) : atoms_.named(fmt::format("{}", node.value));
        if (node.op == Op::uniform) {
            if (node.slot < ir::first_parameter_slot)
                return atoms_.named(fmt::format("extent {}", node.slot));
            const std::size_t parameter = node.slot - ir::first_parameter_slot;
            return values_ ? Polynomial((*values_)[parameter]) : atoms_.named("parameter " + rule_.parameters[parameter].name);
        }
        if (node.slot < 4)
            return (*inputs_)[node.slot];
        if (node.slot < graph_.first_stage_slot())
            return atoms_.named(node.slot < ir::input_count ? fmt::format("place {}", node.slot) : fmt::format("source {}", node.slot));
        const ir::Stage& stage = graph_.stages()[node.slot - graph_.first_stage_slot()];
        return atoms_.named(fmt::format("around {} ({}) ({})", static_cast<int>(stage.kind), known_[stage.source].key(), known_[stage.size].key()));
    }

    Polynomial comparison(const ir::Node& node, const Polynomial& a, const Polynomial& b) {
        const Polynomial apart = a.plus(b, -1);
        if (apart.is_constant()) {
            const double x[] = {apart.constant(), 0};
            return Polynomial(ir::folded(node.op, x));
        }
        return atoms_.named(key(node));
    }

    Polynomial choice(const ir::Node& node) {
        const Polynomial &condition = known_[node.args[0]], &yes = known_[node.args[1]], &no = known_[node.args[2]];
        if (condition.is_constant())
            return condition.constant() != 0 ? yes : no;
        if (yes.plus(no, -1).is_zero(std::max(1.0, yes.largest())))
            return yes;
        const std::string decided = condition.key();
        if (const auto way = choices_->decided.find(decided); way != choices_->decided.end())
            return way->second ? yes : no;
        if (!*open_)
            *open_ = {decided, asks_for_grey(graph_[node.args[0]])};
        return atoms_.named(key(node));
    }

    bool is_input(ir::NodeId id, std::size_t channel) const { return known_[id].plus((*inputs_)[channel], -1).is_zero(); }

    /// max(max(r, g), b) or the smallest: colour models ask whether they are equal before they divide by what lies between.
    bool is_extreme(Op op, ir::NodeId id) const {
        const ir::Node& outer = graph_[id];
        if (outer.op != op || graph_[outer.args[0]].op != op)
            return false;
        const ir::Node& inner = graph_[outer.args[0]];
        return is_input(inner.args[0], 0) && is_input(inner.args[1], 1) && is_input(outer.args[1], 2);
    }
    bool asks_for_grey(const ir::Node& condition) const {
        if (condition.op != Op::equal || !known_[condition.args[1]].is_zero())
            return false;
        const ir::Node& spread = graph_[condition.args[0]];
        return spread.op == Op::sub && is_extreme(Op::max, spread.args[0]) && is_extreme(Op::min, spread.args[1]);
    }

    Polynomial of(const ir::Node& node) {
        const int arity = ir::row(node.op).arity;
        if (arity == 0)
            return leaf(node);
        const auto x = [&](std::size_t k) -> const Polynomial& { return known_[node.args[k]]; };
        const auto same = [&](std::size_t a, std::size_t b) { return x(a).plus(x(b), -1).is_zero(std::max(1.0, x(a).largest())); };
        bool constant = node.op != Op::external;
        for (int k = 0; k < arity; ++k)
            constant = constant && x(static_cast<std::size_t>(k)).is_constant();
        if (constant) {
            double plain[ir::most_graph_operands] = {};
            for (int k = 0; k < arity; ++k)
                plain[k] = x(static_cast<std::size_t>(k)).constant();
            const double made = ir::folded(node.op, plain);
            return std::isfinite(made) ? Polynomial(made) : atoms_.named(key(node));
        }
        switch (node.op) {
        case Op::neg: return x(0).times(-1);
        case Op::add: return x(0).plus(x(1));
        case Op::sub: return x(0).plus(x(1), -1);
        case Op::mul: return x(0).times(x(1));
        case Op::fma: return x(0).times(x(1)).plus(x(2));
        case Op::div: return x(1).is_constant() ? (x(1).constant() != 0 ? x(0).times(1 / x(1).constant()) : atoms_.named(key(node))) : x(0).times(atoms_.reciprocal(x(1)));
        case Op::min:
        case Op::max: return same(0, 1) ? x(0) : atoms_.named(key(node));
        case Op::less:
        case Op::less_equal:
        case Op::equal: return comparison(node, x(0), x(1));
        case Op::select: return choice(node);
        case Op::hexcone_h:
        case Op::hexcone_s: return same(0, 1) && same(1, 2) ? Polynomial(0) : atoms_.named(key(node));
        case Op::hexcone_v: return same(0, 1) && same(1, 2) ? x(0) : atoms_.named(key(node));
        case Op::hexcone_r:
        case Op::hexcone_g:
        case Op::hexcone_b: return x(1).is_zero() ? x(2) : atoms_.named(key(node));
        default: return atoms_.named(key(node));
        }
    }

    const lang::Rule& rule_;
    Atoms& atoms_;
    std::optional<std::span<const double>> values_;
    ir::Graph graph_;
    std::vector<ir::NodeId> outputs_;
    const Inputs* inputs_ = nullptr;
    const Choices* choices_ = nullptr;
    std::optional<Open>* open_ = nullptr;
    std::vector<Polynomial> known_;
};

/// Divisors are multiplied out, one after the other, the latest first: it may hold earlier ones.
bool is_nothing(Polynomial difference, const Atoms& atoms, double scale) {
    for (auto divisor = atoms.divisors().rbegin(); divisor != atoms.divisors().rend(); ++divisor) {
        const auto& [atom, x] = *divisor;
        std::size_t most = 0;
        const auto times_in = [atom = atom](const Polynomial::Product& product) { return static_cast<std::size_t>(std::count(product.begin(), product.end(), atom)); };
        for (const auto& [product, factor] : difference.terms())
            most = std::max(most, times_in(product));
        if (most == 0)
            continue;
        Polynomial cleared;
        for (const auto& [product, factor] : difference.terms()) {
            Polynomial::Product rest;
            std::copy_if(product.begin(), product.end(), std::back_inserter(rest), [atom = atom](Atom a) { return a != atom; });
            Polynomial term;
            term.add(rest, factor);
            for (std::size_t k = times_in(product); k < most; ++k)
                term = term.times(x);
            cleared = cleared.plus(term);
            if (cleared.terms().size() > most_terms * 8)
                return false;
        }
        difference = std::move(cleared);
    }
    return difference.is_zero(scale);
}

/// Calls `holds` for every way that the choices of the readings can go. It computes outputs and names a condition that is still open.
template <class Holds>
bool every_way(const Holds& holds, Choices choices = {}) {
    std::optional<Open> open;
    if (holds(choices, open))
        return true;
    if (!open || choices.decided.size() >= most_choices)
        return false;
    for (const bool way : {false, true}) {
        Choices further = choices;
        further.decided[open->key] = way;
        further.grey = further.grey || (way && open->whether_grey);
        if (!every_way(holds, std::move(further)))
            return false;
    }
    return true;
}

Reading::Inputs colour(Atoms& atoms) { return {atoms.named("r"), atoms.named("g"), atoms.named("b"), atoms.named("a")}; }
Reading::Inputs grey(Atoms& atoms) {
    const Polynomial t = atoms.named("grey");
    return {t, t, t, atoms.named("a")};
}

/// Whether all of `differences` of the outputs vanish, whichever way choices go.
template <class Differences>
bool vanish(const lang::Rule& rule, std::optional<std::span<const double>> values, Reading::Inputs (*inputs)(Atoms&), const Differences& differences) {
    Atoms atoms;
    Reading reading(rule, atoms, values);
    return every_way([&](const Choices& choices, std::optional<Open>& open) {
        const Reading::Inputs in = choices.grey ? grey(atoms) : inputs(atoms);
        const auto out = reading.outputs(in, choices, open);
        double scale = 1;
        for (const Polynomial& each : out)
            scale = std::max(scale, each.largest());
        const std::vector<Polynomial> all = differences(in, out);
        return std::all_of(all.begin(), all.end(), [&](const Polynomial& difference) { return is_nothing(difference, atoms, scale); });
    });
}

} // namespace

bool shown_identity(const lang::Rule& rule, std::span<const double> values) {
    return vanish(rule, values, colour, [](const auto& in, const auto& out) {
        return std::vector{out[0].plus(in[0], -1), out[1].plus(in[1], -1), out[2].plus(in[2], -1), out[3].plus(in[3], -1)};
    });
}

bool shown_neutral(const lang::Rule& rule) {
    return vanish(rule, std::nullopt, grey, [](const auto&, const auto& out) { return std::vector{out[0].plus(out[1], -1), out[2].plus(out[1], -1)}; });
}

bool shown_grey_kept(const lang::Rule& rule) {
    return vanish(rule, std::nullopt, grey, [](const auto& in, const auto& out) { return std::vector{out[0].plus(in[0], -1), out[1].plus(in[0], -1), out[2].plus(in[0], -1)}; });
}

bool shown_sum_kept(const lang::Rule& rule, const std::array<double, 3>& weights) {
    return vanish(rule, std::nullopt, colour, [&](const auto& in, const auto& out) {
        Polynomial change;
        for (std::size_t c = 0; c < 3; ++c)
            change = change.plus(out[c], weights[c]).plus(in[c], -weights[c]);
        return std::vector{change};
    });
}

bool shown_equal(const lang::Rule& a, const lang::Rule& b) {
    if (engine::working_space(a) != engine::working_space(b))
        return false;
    Atoms atoms;
    Reading first(a, atoms, std::nullopt), second(b, atoms, std::nullopt);
    return every_way([&](const Choices& choices, std::optional<Open>& open) {
        const Reading::Inputs in = choices.grey ? grey(atoms) : colour(atoms);
        const auto x = first.outputs(in, choices, open), y = second.outputs(in, choices, open);
        for (std::size_t c = 0; c < 4; ++c)
            if (!is_nothing(x[c].plus(y[c], -1), atoms, std::max(1.0, x[c].largest())))
                return false;
        return true;
    });
}

Dependence dependence(const lang::Rule& rule) {
    ir::Graph graph;
    const std::vector<ir::NodeId> outputs = engine::lower(rule, graph, {});
    Dependence found{};
    for (std::size_t o = 0; o < 4; ++o) {
        std::set<ir::NodeId> seen;
        std::vector<ir::NodeId> waiting = {outputs[o]};
        while (!waiting.empty()) {
            const ir::NodeId id = waiting.back();
            waiting.pop_back();
            if (!seen.insert(id).second)
                continue;
            const ir::Node& node = graph[id];
            if (node.op == Op::input && node.slot < 4)
                found[o][node.slot] = true;
            if (node.op == Op::input && node.slot >= graph.first_stage_slot())
                waiting.push_back(graph.stages()[node.slot - graph.first_stage_slot()].source);
            for (int k = 0; k < ir::row(node.op).arity; ++k)
                waiting.push_back(node.args[static_cast<std::size_t>(k)]);
        }
    }
    return found;
}

bool separable(const lang::Rule& rule) {
    const engine::ProgramPtr program = engine::compile(rule);
    if (program->reads_position() || program->reads_neighbours() || program->reads_sources() || !program->passes_through(3))
        return false;
    const Dependence reads = dependence(rule);
    for (std::size_t o = 0; o < 3; ++o)
        for (std::size_t i = 0; i < 4; ++i)
            if (reads[o][i] && i != o)
                return false;
    return true;
}

} // namespace kasuri::insight
