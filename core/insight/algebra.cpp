#include "insight/algebra.hpp"

#include "insight/polynomial.hpp"
#include "ir/graph.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <string>

namespace kasuri::insight {
namespace {

using ir::Op;
using Atom = Polynomial::Atom;

constexpr std::size_t max_terms = 160;
constexpr std::size_t max_factors = 12;
constexpr int max_choices = 6;
constexpr std::size_t max_in_product = 4 * max_terms; ///< terms that are multiplied with each other at once
constexpr std::size_t max_work = 200'000;             ///< terms looked at for one question; some tens of milliseconds

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

    /// Counts work. A question that costs too much is given up: nothing is shown.
    void work(std::size_t terms) { done_ += terms + 1; }
    bool spent() const { return done_ > max_work; }

private:
    Atom number(const std::string& name) {
        const auto [place, fresh] = numbers_.try_emplace(name, count_);
        count_ += fresh ? 1 : 0;
        return place->second;
    }
    std::map<std::string, Atom> numbers_;
    Atom count_ = 0;
    std::map<Atom, Polynomial> divisors_;
    std::size_t done_ = 0;
};

using Inputs = std::array<Polynomial, 4>;

/// Which way each condition goes, by its key, as far as it has been decided.
struct Choices {
    std::map<std::string, bool> decided;
    std::optional<Inputs>
        inputs{}; ///< what is left of r, g, b where conditions that are true say that something is equal
};

/// A condition that is still open, what is 0 if it is true, and the inputs it was asked of.
struct Open {
    std::string key;
    std::vector<Polynomial> zero{};
    Inputs inputs{};
};

/// The inputs where all of `zero` are 0, as far as one of them can be told by the others: an input that stands in it
/// once, alone.
std::optional<Inputs> where_zero(std::vector<Polynomial> zero, Inputs inputs) {
    bool any = false;
    for (std::size_t i = 0; i < zero.size(); ++i) {
        const Polynomial equation = zero[i];
        for (std::size_t c = 0; c < 3; ++c) {
            const auto& terms = inputs[c].terms();
            if (terms.size() != 1 || terms.begin()->first.size() != 1) // told by others already
                continue;
            const Polynomial::Atom atom = terms.begin()->first.front();
            const auto alone = equation.terms().find({atom});
            const auto holds = [atom](const auto& term) {
                return std::count(term.first.begin(), term.first.end(), atom) > 0;
            };
            if (alone == equation.terms().end() ||
                std::count_if(equation.terms().begin(), equation.terms().end(), holds) != 1)
                continue;
            Polynomial rest = equation;
            rest.add({atom}, -alone->second);
            const Polynomial told = rest.times(-1 / alone->second);
            for (Polynomial& input : inputs)
                input = input.with(atom, told);
            for (Polynomial& later : zero)
                later = later.with(atom, told);
            any = true;
            break;
        }
    }
    return any ? std::optional(std::move(inputs)) : std::nullopt;
}

/// The outputs of a rule as sums of products.
class Reading {
public:
    Reading(const Subject& subject, Atoms& atoms, std::optional<std::span<const double>> values)
        : subject_(subject), atoms_(atoms), values_(values), outputs_(subject.lower(graph_)) {}

    /// `open` gets the first condition that is not decided, if there is one.
    std::array<Polynomial, 4> outputs(const Inputs& inputs, const Choices& choices, std::optional<Open>& open) {
        inputs_ = &inputs;
        choices_ = &choices;
        open_ = &open;
        known_.assign(graph_.size(), {});
        for (ir::NodeId id = 0; id < graph_.size() && !atoms_.spent(); ++id) { // operands come before what uses them
            known_[id] = bounded(of(graph_[id]), id);
            atoms_.work(known_[id].terms().size());
        }
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
        for (int k = 0; k < ir::row(node.op).arity; ++k) {
            const Polynomial& operand = known_[node.args[static_cast<std::size_t>(k)]];
            atoms_.work(operand.terms().size());
            keys.push_back(operand.key());
        }
        if (node.op == Op::min || node.op == Op::max || node.op == Op::equal)
            std::sort(keys.begin(), keys.end());
        return fmt::format("{}({})", text, fmt::join(keys, ","));
    }

    /// A sum that has grown too large stands for itself.
    Polynomial bounded(Polynomial made, ir::NodeId id) {
        const auto long_product = [](const auto& term) { return term.first.size() > max_factors; };
        const bool large =
            made.terms().size() > max_terms || std::any_of(made.terms().begin(), made.terms().end(), long_product);
        const bool odd = std::any_of(made.terms().begin(), made.terms().end(),
                                     [](const auto& term) { return !std::isfinite(term.second); });
        return large || odd ? atoms_.named(key(graph_[id])) : made;
    }

    /// Two rules that read a picture of one name read the same one.
    std::string source_channel(std::uint32_t slot) const {
        for (const lang::SourceInput& source : subject_.sources()) {
            const auto channels = static_cast<std::uint32_t>(width(source.type));
            if (slot < channels)
                return fmt::format("source {} {}", source.name, slot);
            slot -= channels;
        }
        return fmt::format("source channel {}", slot);
    }

    Polynomial leaf(const ir::Node& node) {
        if (node.op == Op::constant)
            return std::isfinite(node.value) ? Polynomial(node.value) : atoms_.named(fmt::format("{}", node.value));
        if (node.op == Op::uniform) {
            if (node.slot < ir::first_parameter_slot)
                return atoms_.named(fmt::format("extent {}", node.slot));
            const std::size_t parameter = node.slot - ir::first_parameter_slot;
            return values_ ? Polynomial((*values_)[parameter])
                           : atoms_.named("parameter " + subject_.parameters()[parameter].name);
        }
        if (node.slot < 4)
            return (*inputs_)[node.slot];
        if (node.slot < graph_.first_stage_slot())
            return atoms_.named(node.slot < ir::input_count ? fmt::format("place {}", node.slot)
                                                            : source_channel(node.slot - ir::input_count));
        const ir::Stage& stage = graph_.stages()[node.slot - graph_.first_stage_slot()];
        return atoms_.named(fmt::format("around {} ({}) ({})", static_cast<int>(stage.kind), known_[stage.source].key(),
                                        known_[stage.size].key()));
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
        if (yes.plus(no, -1).is_zero(std::max(yes.largest(), no.largest())))
            return yes;
        const std::string decided = condition.key();
        if (const auto way = choices_->decided.find(decided); way != choices_->decided.end())
            return way->second ? yes : no;
        if (!*open_)
            *open_ = Open{decided, equations(graph_[node.args[0]]), *inputs_};
        return atoms_.named(key(node));
    }

    /// The three values of max(max(x, y), z), or of the smallest.
    std::optional<std::array<ir::NodeId, 3>> extreme(Op op, ir::NodeId id) const {
        const ir::Node& outer = graph_[id];
        if (outer.op != op || graph_[outer.args[0]].op != op)
            return std::nullopt;
        return std::array{graph_[outer.args[0]].args[0], graph_[outer.args[0]].args[1], outer.args[1]};
    }

    /// What is 0 where the condition is true. Colour models ask whether the largest and the smallest of three are
    /// equal: then all are.
    std::vector<Polynomial> equations(const ir::Node& condition) const {
        if (condition.op != Op::equal)
            return {};
        const ir::Node& left = graph_[condition.args[0]];
        if (left.op == Op::sub && known_[condition.args[1]].is_zero()) {
            const auto most = extreme(Op::max, left.args[0]), least = extreme(Op::min, left.args[1]);
            if (most && most == least)
                return {known_[(*most)[1]].plus(known_[(*most)[0]], -1),
                        known_[(*most)[2]].plus(known_[(*most)[0]], -1)};
        }
        return {known_[condition.args[0]].plus(known_[condition.args[1]], -1)};
    }

    Polynomial of(const ir::Node& node) {
        const int arity = ir::row(node.op).arity;
        if (arity == 0)
            return leaf(node);
        const auto x = [&](std::size_t k) -> const Polynomial& { return known_[node.args[k]]; };
        const auto same = [&](std::size_t a, std::size_t b) {
            return x(a).plus(x(b), -1).is_zero(std::max(x(a).largest(), x(b).largest()));
        };
        bool constant = node.op != Op::external;
        for (int k = 0; k < arity; ++k)
            constant = constant && x(static_cast<std::size_t>(k)).is_constant();
        if (constant) {
            double plain[ir::max_graph_operands] = {};
            for (int k = 0; k < arity; ++k)
                plain[k] = x(static_cast<std::size_t>(k)).constant();
            const double made = ir::folded(node.op, plain);
            return std::isfinite(made) ? Polynomial(made) : atoms_.named(key(node));
        }
        switch (node.op) {
        case Op::neg: return x(0).times(-1);
        case Op::add: return x(0).plus(x(1));
        case Op::sub: return x(0).plus(x(1), -1);
        case Op::mul:
        case Op::fma: {
            const std::size_t terms = x(0).terms().size() * x(1).terms().size();
            if (terms > max_in_product)
                return atoms_.named(key(node));
            atoms_.work(terms);
            return node.op == Op::mul ? x(0).times(x(1)) : x(0).times(x(1)).plus(x(2));
        }
        case Op::div:
            if (same(0, 1) && x(0).terms().size() > 0) // as dividing and multiplying out would have it
                return Polynomial(1);
            return x(1).is_constant()
                ? (x(1).constant() != 0 ? x(0).times(1 / x(1).constant()) : atoms_.named(key(node)))
                : x(0).times(atoms_.reciprocal(x(1)));
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

    const Subject& subject_;
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
bool is_nothing(Polynomial difference, Atoms& atoms, double scale) {
    if (atoms.spent())
        return false;
    for (auto divisor = atoms.divisors().rbegin(); divisor != atoms.divisors().rend(); ++divisor) {
        const auto& [atom, x] = *divisor;
        std::size_t most = 0;
        const auto times_in = [atom = atom](const Polynomial::Product& product) {
            return static_cast<std::size_t>(std::count(product.begin(), product.end(), atom));
        };
        for (const auto& [product, factor] : difference.terms())
            most = std::max(most, times_in(product));
        if (most == 0)
            continue;
        Polynomial cleared;
        for (const auto& [product, factor] : difference.terms()) {
            Polynomial::Product rest;
            std::copy_if(product.begin(), product.end(), std::back_inserter(rest),
                         [atom = atom](Atom a) { return a != atom; });
            Polynomial term;
            term.add(rest, factor);
            for (std::size_t k = times_in(product); k < most; ++k) {
                atoms.work(term.terms().size() * x.terms().size());
                if (term.terms().size() * x.terms().size() > max_in_product || atoms.spent())
                    return false;
                term = term.times(x);
            }
            cleared = cleared.plus(term);
            if (cleared.terms().size() > max_terms * 8)
                return false;
        }
        difference = std::move(cleared);
        scale *= std::pow(x.largest(), static_cast<double>(most)); // all of it was multiplied
    }
    return difference.is_zero(scale);
}

/// Calls `holds` for every way that the choices of the readings can go. It computes outputs and names a condition that
/// is still open.
template <class Holds>
bool every_way(const Atoms& atoms, const Holds& holds, Choices choices = {}) {
    std::optional<Open> open;
    if (holds(choices, open))
        return true;
    if (!open || atoms.spent() || choices.decided.size() >= max_choices)
        return false;
    for (const bool way : {false, true}) {
        Choices further = choices;
        further.decided[open->key] = way;
        if (way)
            if (auto told = where_zero(open->zero, open->inputs))
                further.inputs = std::move(told);
        if (!every_way(atoms, holds, std::move(further)))
            return false;
    }
    return true;
}

// Most questions are answered with no, and a single colour answers those in a moment: the same reading, of numbers
// instead of names.

constexpr std::array<double, 4> tried[] = {
    {0.21, 0.58, 0.37, 0.83}, {0.71, 0.13, 0.46, 0.57}, {0.09, 0.33, 0.92, 0.71}};
constexpr double beyond_rounding = 1e-6;

/// Any numbers will do for parameters, if those of one name are the same.
std::vector<double> some_values(const Subject& subject) {
    std::vector<double> values;
    for (const subject::Parameter& p : subject.parameters())
        values.push_back(0.15 + 0.7 * static_cast<double>(std::hash<std::string>()(p.name) % 997) / 997);
    return values;
}

/// A subject of numbers.
class Numbers {
public:
    Numbers(const Subject& subject, std::optional<std::span<const double>> values)
        : values_(values ? std::vector<double>(values->begin(), values->end()) : some_values(subject)),
          reading_(subject, atoms_, std::span<const double>(values_)) {}
    /// Nothing where one of them is no number, or depends on more than the colour.
    std::optional<std::array<Polynomial, 4>> at(const Inputs& in) {
        std::optional<Open> open;
        std::array<Polynomial, 4> out = reading_.outputs(in, {}, open);
        const bool plain = !open && std::all_of(out.begin(), out.end(), [](const Polynomial& x) {
            return x.is_constant() && std::isfinite(x.constant());
        });
        return plain ? std::optional(std::move(out)) : std::nullopt;
    }

private:
    Atoms atoms_;
    std::vector<double> values_;
    Reading reading_;
};

bool apart(const Polynomial& difference, double scale) {
    return std::fabs(difference.constant()) > beyond_rounding * std::max(1.0, scale);
}

double scale_of(const std::array<Polynomial, 4>& out) {
    double scale = 0;
    for (const Polynomial& x : out)
        scale = std::max(scale, std::fabs(x.constant()));
    return scale;
}

Inputs numbers(const std::array<double, 4>& rgba) {
    return {Polynomial(rgba[0]), Polynomial(rgba[1]), Polynomial(rgba[2]), Polynomial(rgba[3])};
}

/// Whether it cannot be a matrix: a fourth step along the axes does not lead where three say.
bool is_no_matrix(const Subject& subject) {
    constexpr double step = 0.25;
    Numbers of(subject, subject.values());
    const std::array<double, 4>& middle = tried[0];
    const auto here = of.at(numbers(middle));
    if (!here)
        return false;
    std::array<std::array<Polynomial, 4>, 3> along;
    for (std::size_t i = 0; i < 3; ++i) {
        std::array<double, 4> moved = middle;
        moved[i] += step;
        const auto there = of.at(numbers(moved));
        if (!there)
            return false;
        along[i] = *there;
    }
    for (const auto& colour : {tried[1], tried[2]}) {
        const auto out = of.at(numbers(colour));
        if (!out)
            continue;
        for (std::size_t o = 0; o < 3; ++o) {
            double wanted = (*here)[o].constant();
            for (std::size_t i = 0; i < 3; ++i)
                wanted += (along[i][o].constant() - (*here)[o].constant()) * (colour[i] - middle[i]) / step;
            if (apart(Polynomial((*out)[o].constant() - wanted), scale_of(*out)))
                return true;
        }
    }
    return false;
}

Inputs colour(Atoms& atoms) { return {atoms.named("r"), atoms.named("g"), atoms.named("b"), atoms.named("a")}; }
Inputs grey(Atoms& atoms) {
    const Polynomial t = atoms.named("grey");
    return {t, t, t, atoms.named("a")};
}

/// Whether all of `differences` of the outputs vanish, whichever way choices go.
template <class Differences>
bool vanish(const Subject& subject, std::optional<std::span<const double>> values, Inputs (*inputs)(Atoms&),
            const Differences& differences) {
    Numbers of(subject, values);
    for (std::array<double, 4> rgba : tried) {
        if (inputs == grey)
            rgba[1] = rgba[2] = rgba[0];
        const Inputs in = numbers(rgba);
        if (const auto out = of.at(in)) {
            const std::vector<Polynomial> all = differences(in, *out);
            if (std::any_of(all.begin(), all.end(),
                            [&](const Polynomial& difference) { return apart(difference, scale_of(*out)); }))
                return false;
        }
    }
    Atoms atoms;
    Reading reading(subject, atoms, values);
    return every_way(atoms, [&](const Choices& choices, std::optional<Open>& open) {
        const Inputs in = choices.inputs.value_or(inputs(atoms));
        const auto out = reading.outputs(in, choices, open);
        double scale = 0;
        for (std::size_t c = 0; c < 3; ++c) // alpha has numbers of its own
            scale = std::max(scale, out[c].largest());
        const std::vector<Polynomial> all = differences(in, out);
        return std::all_of(all.begin(), all.end(),
                           [&](const Polynomial& difference) { return is_nothing(difference, atoms, scale); });
    });
}

} // namespace

bool shown_identity(const Subject& subject) {
    return vanish(subject, subject.values(), colour, [](const auto& in, const auto& out) {
        return std::vector{out[0].plus(in[0], -1), out[1].plus(in[1], -1), out[2].plus(in[2], -1),
                           out[3].plus(in[3], -1)};
    });
}

std::optional<Affine> shown_matrix(const Subject& subject) {
    const std::vector<double>& values = subject.values();
    ir::Graph graph;
    const std::vector<ir::NodeId> nodes = subject.lower(graph);
    if (const std::optional<Affine> quick = affine(graph, nodes, values))
        return quick;
    if (is_no_matrix(subject))
        return std::nullopt;
    // One way through the choices says which matrix it would be; then all of them have to be that one.
    Atoms atoms;
    Reading reading(subject, atoms, values);
    const Inputs in = colour(atoms);
    Choices choices;
    std::array<Polynomial, 4> out;
    for (std::optional<Open> open; choices.decided.size() <= max_choices; choices.decided[open->key] = false) {
        open.reset();
        out = reading.outputs(in, choices, open);
        if (!open || atoms.spent())
            break;
    }
    if (atoms.spent())
        return std::nullopt;
    Affine made;
    for (std::size_t o = 0; o < 3; ++o) {
        made.matrix[o] = {};
        for (const auto& term : out[o].terms()) {
            if (term.first.empty()) {
                made.offset[o] = term.second;
                continue;
            }
            const auto channel = std::find_if(in.begin(), in.begin() + 3, [&](const Polynomial& x) {
                return x.terms().begin()->first == term.first;
            });
            if (channel == in.begin() + 3)
                return std::nullopt;
            made.matrix[o][static_cast<std::size_t>(channel - in.begin())] = term.second;
        }
    }
    const bool all = vanish(subject, values, colour, [&](const auto& before, const auto& after) {
        std::vector<Polynomial> differences = {after[3].plus(before[3], -1)};
        for (std::size_t o = 0; o < 3; ++o) {
            Polynomial difference = after[o].plus(Polynomial(made.offset[o]), -1);
            for (std::size_t i = 0; i < 3; ++i)
                difference = difference.plus(before[i], -made.matrix[o][i]);
            differences.push_back(std::move(difference));
        }
        return differences;
    });
    return all ? std::optional(made) : std::nullopt;
}

bool shown_neutral(const Subject& subject) {
    return vanish(subject, std::nullopt, grey, [](const auto&, const auto& out) {
        return std::vector{out[0].plus(out[1], -1), out[2].plus(out[1], -1)};
    });
}

bool shown_grey_kept(const Subject& subject) {
    return vanish(subject, std::nullopt, grey, [](const auto& in, const auto& out) {
        return std::vector{out[0].plus(in[0], -1), out[1].plus(in[0], -1), out[2].plus(in[0], -1)};
    });
}

bool shown_sum_kept(const Subject& subject, const std::array<double, 3>& weights) {
    return vanish(subject, std::nullopt, colour, [&](const auto& in, const auto& out) {
        Polynomial change;
        for (std::size_t c = 0; c < 3; ++c)
            change = change.plus(out[c], weights[c]).plus(in[c], -weights[c]);
        return std::vector{change};
    });
}

bool shown_equal(const Subject& a, const Subject& b) {
    if (a.in_space() != b.in_space() || a.out_space() != b.out_space())
        return false;
    Numbers of_a(a, std::nullopt), of_b(b, std::nullopt);
    for (const auto& rgba : tried)
        if (const auto x = of_a.at(numbers(rgba)), y = of_b.at(numbers(rgba)); x && y)
            for (std::size_t c = 0; c < 4; ++c)
                if (apart((*x)[c].plus((*y)[c], -1), std::max(scale_of(*x), scale_of(*y))))
                    return false;
    Atoms atoms;
    Reading first(a, atoms, std::nullopt), second(b, atoms, std::nullopt);
    return every_way(atoms, [&](const Choices& choices, std::optional<Open>& open) {
        const Inputs in = choices.inputs.value_or(colour(atoms));
        const auto x = first.outputs(in, choices, open), y = second.outputs(in, choices, open);
        for (std::size_t c = 0; c < 4; ++c)
            if (!is_nothing(x[c].plus(y[c], -1), atoms, std::max(x[c].largest(), y[c].largest())))
                return false;
        return true;
    });
}

} // namespace kasuri::insight
