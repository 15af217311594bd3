// Sums of multiples of what is not known: read off, and solved up to three at a time.
#include "builtins/builtin.hpp"
#include "inverse/solve.hpp"

#include <algorithm>

namespace kasuri::inverse {
namespace {

using lang::Operator;
using terms::Term;
using terms::TermKind;

class Summing {
public:
    Summing(Solver& solver, const std::set<TermId>& stops) : s_(solver), t_(solver.t), stops_(stops) {}

    Sum of(TermId scalar, bool definition = false) {
        if (!definition)
            if (const auto value = s_.seen(scalar))
                return constant(*value);
        if (!definition && stops_.contains(scalar))
            return unknown(scalar);
        if (const auto found = made_.find(scalar); found != made_.end())
            return found->second;
        const Term& term = t_[scalar];
        const Sum made = term.kind == TermKind::swizzle ? component(term.args[0], term.swizzle[0], scalar)
                                                        : component(scalar, 0, scalar);
        return made_[scalar] = made;
    }

private:
    static constexpr std::string_view weighted[] = {"average", "luma", "luminance", "dot", "mono"};

    Sum constant(TermId value) { return {{}, value}; }
    Sum unknown(TermId scalar) {
        Sum sum{{}, t_.number(0)};
        sum.factors[scalar] = t_.number(1);
        return sum;
    }
    Sum plus(const Sum& a, const Sum& b, bool minus = false) {
        Sum sum = a;
        sum.constant = minus ? t_.sub(a.constant, b.constant) : t_.add(a.constant, b.constant);
        for (const auto& [atom, factor] : b.factors) {
            const auto found = sum.factors.find(atom);
            const TermId before = found == sum.factors.end() ? t_.number(0) : found->second;
            const TermId after = minus ? t_.sub(before, factor) : t_.add(before, factor);
            if (t_.is_number(after, 0))
                sum.factors.erase(atom);
            else
                sum.factors[atom] = after;
        }
        return sum;
    }
    Sum times(const Sum& a, TermId by) {
        Sum sum{{}, t_.mul(by, a.constant)};
        for (const auto& [atom, factor] : a.factors)
            if (const TermId product = t_.mul(by, factor); !t_.is_number(product, 0))
                sum.factors[atom] = product;
        return sum;
    }
    Sum over(const Sum& a, TermId by) {
        Sum sum{{}, t_.div(a.constant, by)};
        for (const auto& [atom, factor] : a.factors)
            sum.factors[atom] = t_.div(factor, by);
        return sum;
    }
    /// Components of a value, or the one float for all of them.
    TermId part(TermId of, std::size_t which) { return t_.component(of, t_[of].type == lang::float_type ? 0 : which); }

    Sum weights(TermId colour, const std::array<TermId, 3>& by) {
        Sum sum{{}, t_.number(0)};
        for (std::size_t i = 0; i < 3; ++i)
            sum = plus(sum, times(of(part(colour, i)), by[i]));
        return sum;
    }

    std::optional<Sum> call(const Term& term, std::size_t which) {
        const std::string_view name = builtins::all()[term.index].name;
        const auto arg = [&](std::size_t i) { return part(term.args[i], which); };
        if (name == "mix") {
            if (const auto share = s_.seen(arg(2))) {
                const Sum x = of(arg(0)), y = of(arg(1));
                return plus(times(x, t_.sub(t_.number(1), *share)), times(y, *share));
            }
            const auto x = s_.seen(arg(0)), y = s_.seen(arg(1));
            if (x && y)
                return plus(constant(*x), times(of(arg(2)), t_.sub(*y, *x)));
            return {};
        }
        if (name == "fma" || name == "blend_screen" || name == "blend_exclusion") {
            const bool fma = name == "fma";
            for (const std::size_t i : {0UL, 1UL})
                if (const auto factor = s_.seen(arg(i))) {
                    const Sum x = of(arg(1 - i));
                    if (fma)
                        return plus(times(x, *factor), of(arg(2)));
                    const double by = name == "blend_screen" ? 1 : 2;
                    return plus(constant(*factor), times(x, t_.sub(t_.number(1), t_.mul(t_.number(by), *factor))));
                }
            return {};
        }
        if (name == "blend_multiply" || name == "blend_divide") {
            if (const auto factor = s_.seen(arg(1)))
                return name == "blend_multiply" ? times(of(arg(0)), *factor) : over(of(arg(0)), *factor);
            if (const auto factor = s_.seen(arg(0)); factor && name == "blend_multiply")
                return times(of(arg(1)), *factor);
            return {};
        }
        if (name == "blend_linear_dodge" || name == "blend_subtract")
            return plus(of(arg(0)), of(arg(1)), name == "blend_subtract");
        if (name == "blend_linear_burn")
            return plus(plus(of(arg(0)), of(arg(1))), constant(t_.number(-1)));
        if (name == "blend_linear_light")
            return plus(plus(of(arg(0)), times(of(arg(1)), t_.number(2))), constant(t_.number(-1)));
        if (name == "dot" && t_.width(term.args[0]) == 3) {
            for (const std::size_t i : {0UL, 1UL})
                if (const auto by = s_.seen(term.args[i]))
                    return weights(term.args[1 - i], {part(*by, 0), part(*by, 1), part(*by, 2)});
            return {};
        }
        if (name == "mono")
            if (const auto by = s_.seen(term.args[1]))
                return weights(term.args[0], {part(*by, 0), part(*by, 1), part(*by, 2)});
        if (name == "average")
            return over(weights(term.args[0], {t_.number(1), t_.number(1), t_.number(1)}), t_.number(3));
        if (name == "luma" || (name == "luminance" && colour::is_linear(s_.space))) {
            const colour::Triple by =
                name == "luma" ? colour::luma_weights(s_.space) : colour::luminance_weights(s_.space);
            return weights(term.args[0], {t_.number(by[0]), t_.number(by[1]), t_.number(by[2])});
        }
        return {};
    }

    /// Component `which` of a value; `scalar` is its name where it goes no further.
    Sum component(TermId of_value, std::size_t which, TermId scalar) {
        const Term& term = t_[of_value];
        switch (term.kind) {
        case TermKind::unary:
            if (term.op == Operator::neg)
                return times(of(part(term.args[0], which)), t_.number(-1));
            break;
        case TermKind::binary: {
            const lang::Kind left = t_[term.args[0]].type.kind;
            if (left == lang::Kind::mat3 || term.type.kind == lang::Kind::mat3) {
                const auto matrix = s_.seen(term.args[0]);
                if (!matrix || term.op != Operator::mul || term.type != lang::vec3_type)
                    break;
                return weights(term.args[1],
                               {t_.component(*matrix, 3 * which), t_.component(*matrix, 3 * which + 1),
                                t_.component(*matrix, 3 * which + 2)});
            }
            const TermId a = part(term.args[0], which), b = part(term.args[1], which);
            if (term.op == Operator::add || term.op == Operator::sub)
                return plus(of(a), of(b), term.op == Operator::sub);
            if (term.op == Operator::mul) {
                if (const auto factor = s_.seen(a))
                    return times(of(b), *factor);
                if (const auto factor = s_.seen(b))
                    return times(of(a), *factor);
            }
            if (term.op == Operator::div)
                if (const auto factor = s_.seen(b))
                    return over(of(a), *factor);
            break;
        }
        case TermKind::call:
            if (const auto sum = call(term, which))
                return *sum;
            break;
        default: break;
        }
        return unknown(scalar);
    }

    Solver& s_;
    Terms& t_;
    const std::set<TermId>& stops_;
    std::map<TermId, Sum> made_;
};

/// value = factors . unknowns
struct Equation {
    TermId of = 0;
    Sum sum{};
    TermId rest = 0; ///< what is known of it, less the constant
};

TermId factor_of(Terms& t, const Sum& sum, TermId atom) {
    const auto found = sum.factors.find(atom);
    return found == sum.factors.end() ? t.number(0) : found->second;
}

} // namespace

std::optional<std::array<Sum, 3>> sums_of(Terms& t, const std::array<TermId, 4>& out, const colour::Space& space) {
    Functions none;
    Solver solver(t, space, none);
    const std::set<TermId> stops;
    Summing summing(solver, stops);
    std::array<Sum, 3> sums;
    for (std::size_t c = 0; c < 3; ++c) {
        sums[c] = summing.of(out[c]);
        for (const auto& [atom, factor] : sums[c].factors)
            if (t[atom].kind != TermKind::channel || t[atom].index == 3 || t.depends(factor))
                return {};
        if (t.depends(sums[c].constant))
            return {};
    }
    return sums;
}

bool Solver::solve_sums() {
    if (solve_sums({}))
        return true;
    // In the components of a colour on the way, which may be no sums themselves.
    for (const TermId colour : unknown_colours()) {
        std::set<TermId> stops;
        for (std::size_t c = 0; c < 3; ++c)
            stops.insert(t.component(colour, c));
        if (solve_sums(stops))
            return true;
    }
    return false;
}

std::vector<TermId> Solver::unknown_colours() {
    std::vector<TermId> all;
    std::set<TermId> met;
    std::vector<TermId> next = open();
    for (std::size_t i = 0; i < next.size(); ++i)
        for (const TermId arg : t[next[i]].args)
            if (!seen(arg) && met.insert(arg).second) {
                next.push_back(arg);
                if (t.width(arg) == 3)
                    all.push_back(arg);
            }
    return all;
}

bool Solver::solve_sums(const std::set<TermId>& stops) {
    std::vector<Equation> all;
    for (const TermId id : open_floats()) {
        const auto value = seen(id);
        if (!value)
            continue;
        Equation e{id, Summing(*this, stops).of(id, true)};
        if (e.sum.factors.empty() || e.sum.factors.size() > 3 || e.sum.factors.contains(id))
            continue;
        e.rest = t.sub(*value, e.sum.constant);
        all.push_back(std::move(e));
    }
    for (const Equation& e : all)
        if (e.sum.factors.size() == 1) {
            const auto [atom, factor] = *e.sum.factors.begin();
            learn(atom, t.div(e.rest, factor));
            return true;
        }
    const auto unknowns = [&](std::initializer_list<const Equation*> of) {
        std::set<TermId> set;
        for (const Equation* e : of)
            for (const auto& [atom, factor] : e->sum.factors)
                set.insert(atom);
        return std::vector<TermId>(set.begin(), set.end());
    };
    for (std::size_t i = 0; i < all.size(); ++i)
        for (std::size_t j = i + 1; j < all.size(); ++j) {
            const auto atoms = unknowns({&all[i], &all[j]});
            if (atoms.size() != 2)
                continue;
            const TermId a = factor_of(t, all[i].sum, atoms[0]), b = factor_of(t, all[i].sum, atoms[1]),
                         c = factor_of(t, all[j].sum, atoms[0]), d = factor_of(t, all[j].sum, atoms[1]);
            const TermId determinant = t.sub(t.mul(a, d), t.mul(b, c));
            if (t.is_number(determinant, 0))
                continue;
            t.origin(determinant).name = "room";
            const TermId x = t.sub(t.mul(d, all[i].rest), t.mul(b, all[j].rest)),
                         y = t.sub(t.mul(a, all[j].rest), t.mul(c, all[i].rest));
            learn(atoms[0], t.div(x, determinant));
            learn(atoms[1], t.div(y, determinant));
            return true;
        }
    for (std::size_t i = 0; i < all.size(); ++i)
        for (std::size_t j = i + 1; j < all.size(); ++j)
            for (std::size_t k = j + 1; k < all.size(); ++k) {
                auto atoms = unknowns({&all[i], &all[j], &all[k]});
                if (atoms.size() != 3)
                    continue;
                // The components of one colour in their order, so that the matrix reads as people write it.
                std::stable_sort(atoms.begin(), atoms.end(), [&](TermId x, TermId y) {
                    const Term &p = t[x], &q = t[y];
                    if (p.kind == TermKind::swizzle && q.kind == TermKind::swizzle && p.args == q.args)
                        return p.swizzle[0] < q.swizzle[0];
                    return p.kind == TermKind::channel && q.kind == TermKind::channel && p.index < q.index;
                });
                std::vector<TermId> entries;
                for (const std::size_t e : {i, j, k})
                    for (const TermId atom : atoms)
                        entries.push_back(factor_of(t, all[e].sum, atom));
                const TermId matrix = t.construct(lang::mat3_type, entries);
                t.origin(matrix).name = "mixed";
                const TermId rest = t.construct(lang::vec3_type, {all[i].rest, all[j].rest, all[k].rest});
                const TermId solved = t.mul(t.call("inverse", lang::mat3_type, {matrix}), rest);
                for (std::size_t c = 0; c < 3; ++c)
                    learn(atoms[c], t.component(solved, c));
                return true;
            }
    return false;
}

} // namespace kasuri::inverse
