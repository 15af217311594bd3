#include "engine/schedule.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

namespace kasuri::engine {

using ir::Op;
using Id = std::uint32_t;

namespace {

/// The pixel and the uniform operand of an operation of two, whichever way round.
struct Split {
    Id pixel, uniform;
};
std::optional<Split> split(const Schedule& s, Id id) {
    const Id a = s[id].args[0], b = s[id].args[1];
    if (s.per_pixel(a) == s.per_pixel(b))
        return std::nullopt;
    return s.per_pixel(a) ? Split{a, b} : Split{b, a};
}

Id negated(Schedule& s, Id uniform) {
    return s.is(uniform, Op::constant) ? s.constant(-s[uniform].value) : s.uniform(Op::neg, uniform, 0);
}

/// `id` as ((x + p) k + o), each part optional. Inner operations must have no other use.
struct Affine {
    Id x, p, k, o;
};
Affine affine(Schedule& s, Id id, Id stop) {
    Affine result{id, 0, 0, 0};
    Id at = id;
    std::optional<Id> p, k, o;
    const auto may_enter = [&](Id i) { return i != stop && s.per_pixel(i) && s.single(i); };
    if (may_enter(at) && s.is(at, Op::sub) && s.per_pixel(s[at].args[0]) && !s.per_pixel(s[at].args[1])) {
        o = negated(s, s[at].args[1]);
        at = s[at].args[0];
    } else if (may_enter(at) && s.is(at, Op::add))
        if (const auto parts = split(s, at)) {
            o = parts->uniform;
            at = parts->pixel;
        }
    if (may_enter(at) && s.is(at, Op::mul))
        if (const auto parts = split(s, at)) {
            k = parts->uniform;
            at = parts->pixel;
        }
    if (k && may_enter(at)) {
        if (s.is(at, Op::sub) && s.per_pixel(s[at].args[0]) && !s.per_pixel(s[at].args[1])) {
            p = negated(s, s[at].args[1]);
            at = s[at].args[0];
        } else if (s.is(at, Op::add))
            if (const auto parts = split(s, at)) {
                p = parts->uniform;
                at = parts->pixel;
            }
    }
    result.x = at;
    result.p = p ? *p : s.constant(0);
    result.k = k ? *k : s.constant(1);
    result.o = o ? *o : s.constant(0);
    return result;
}

/// x <= limit ? straight : curved, in any of the ways to write it.
struct Branch {
    Id x, limit, low, high;
};
std::optional<Branch> branch(Schedule& s, Id id) {
    if (!s.is(id, Op::select) || !s.single(s[id].args[0]))
        return std::nullopt;
    const Item& condition = s[s[id].args[0]];
    const Id a = condition.args[0], b = condition.args[1], yes = s[id].args[1], no = s[id].args[2];
    // The next float towards 0 or away from it turns < into <=, for limits known now.
    const auto below = [&](Id limit) {
        return s.constant(static_cast<double>(std::nextafterf(static_cast<float>(s[limit].value), -INFINITY)));
    };
    if (condition.op == Op::less_equal && s.per_pixel(a) && !s.per_pixel(b))
        return Branch{a, b, yes, no};
    if (condition.op == Op::less && !s.per_pixel(a) && s.per_pixel(b))
        return Branch{b, a, no, yes};
    if (condition.op == Op::less && s.per_pixel(a) && s.is(b, Op::constant))
        return Branch{a, below(b), yes, no};
    if (condition.op == Op::less_equal && s.is(a, Op::constant) && s.per_pixel(b))
        return Branch{b, below(a), no, yes};
    return std::nullopt;
}

/// g ( ) + c around what is at its heart, each part optional; inner operations must have no other use.
struct Scaled {
    Id heart, g, c;
};
std::optional<Scaled> scaled(Schedule& s, Id at, bool (*heart)(const Schedule&, Id)) {
    std::optional<Id> g, c;
    if (s.single(at) && s.is(at, Op::sub) && s.per_pixel(s[at].args[0]) && !s.per_pixel(s[at].args[1])) {
        c = negated(s, s[at].args[1]);
        at = s[at].args[0];
    } else if (s.single(at) && s.is(at, Op::add)) {
        if (const auto parts = split(s, at)) {
            c = parts->uniform;
            at = parts->pixel;
        }
    }
    if (s.single(at) && s.is(at, Op::mul))
        if (const auto parts = split(s, at)) {
            g = parts->uniform;
            at = parts->pixel;
        }
    if (!s.single(at) || !heart(s, at))
        return std::nullopt;
    return Scaled{at, g ? *g : s.constant(1), c ? *c : s.constant(0)};
}

/// ((x + p) k + o) as k x + o', where that loses nothing.
struct Line {
    Id k, o;
};
std::optional<Line> line(Schedule& s, Id id, Id x) {
    const Affine found = affine(s, id, x);
    if (found.x != x)
        return std::nullopt;
    if (s.is_constant(found.p, 0))
        return Line{found.k, found.o};
    // (x + p) k as k x + p k loses digits where x is near -p and p k is large.
    const bool known = s.is(found.p, Op::constant) && s.is(found.k, Op::constant) && s.is(found.o, Op::constant);
    if (!known || std::fabs(s[found.p].value * s[found.k].value) > 4)
        return std::nullopt;
    return Line{found.k, s.constant(s[found.p].value * s[found.k].value + s[found.o].value)};
}

bool power_segment(Schedule& s, Id id) {
    const std::optional<Branch> found = branch(s, id);
    if (!found || !s.per_pixel(found->low) || !s.per_pixel(found->high))
        return false;
    const auto high = scaled(s, found->high, [](const Schedule& t, Id at) {
        return (t.is(at, Op::pow) && !t.per_pixel(t[at].args[1])) || t.is(at, Op::cube);
    });
    if (!high)
        return false;
    const Affine inner = affine(s, s[high->heart].args[0], found->x);
    const auto straight = inner.x == found->x ? line(s, found->low, found->x) : std::nullopt;
    if (!straight)
        return false;
    const Id args[] = {
        found->x, found->limit, straight->k, straight->o,
        inner.p,  inner.k,      inner.o,     s.is(high->heart, Op::pow) ? s[high->heart].args[1] : s.constant(3),
        high->g,  high->c};
    s.rewrite(id, Op::power_segment, args);
    return true;
}

bool exp_segment(Schedule& s, Id id) {
    const std::optional<Branch> found = branch(s, id);
    if (!found || !s.per_pixel(found->low) || !s.per_pixel(found->high))
        return false;
    Id high = found->high, top = s.constant(INFINITY);
    if (s.single(high) && s.is(high, Op::min))
        if (const auto parts = split(s, high)) {
            top = parts->uniform;
            high = parts->pixel;
        }
    if (!s.single(high) || !s.is(high, Op::exp2))
        return false;
    const auto inner = line(s, s[high].args[0], found->x), straight = line(s, found->low, found->x);
    if (!inner || !straight)
        return false;
    const Id args[] = {found->x, found->limit, straight->k, straight->o, inner->k, inner->o, top};
    s.rewrite(id, Op::exp_segment, args);
    return true;
}

bool log_segment(Schedule& s, Id id) {
    const std::optional<Branch> found = branch(s, id);
    if (!found || !s.per_pixel(found->low) || !s.per_pixel(found->high))
        return false;
    const auto high = scaled(s, found->high, [](const Schedule& t, Id at) { return t.is(at, Op::log2); });
    const auto inner = high ? line(s, s[high->heart].args[0], found->x) : std::nullopt;
    const auto straight = inner ? line(s, found->low, found->x) : std::nullopt;
    if (!straight)
        return false;
    const Id args[] = {found->x, found->limit, straight->k, straight->o, inner->k, inner->o, high->g, high->c};
    s.rewrite(id, Op::log_segment, args);
    return true;
}

bool mirrored_segment(Schedule& s, Id id) {
    if (!s.is(id, Op::select))
        return false;
    const Id condition = s[id].args[0], minus = s[id].args[1], plus = s[id].args[2];
    if (!s.single(condition) || !s.is(condition, Op::less) || !s.is_constant(s[condition].args[1], 0) ||
        !s.is(minus, Op::neg) || s[minus].args[0] != plus || !s.is(plus, Op::power_segment) || s[plus].uses != 2 ||
        !s.single(minus))
        return false;
    const Id x = s[condition].args[0];
    const Id size = s[plus].args[0];
    if (!s.is(size, Op::abs) || s[size].args[0] != x)
        return false;
    std::array<Id, 10> args{};
    std::copy_n(s[plus].args.begin(), 10, args.begin());
    args[0] = x;
    s.rewrite(id, Op::mirrored_segment, args);
    return true;
}

bool pow_uniform(Schedule& s, Id id) {
    if (!s.is(id, Op::pow) || s.per_pixel(s[id].args[1]))
        return false;
    const Id args[] = {s[id].args[0], s[id].args[1]};
    s.rewrite(id, Op::pow_uniform, args);
    return true;
}

/// x < 0 ? -pow(|x|, e) : pow(|x|, e)
bool signed_power(Schedule& s, Id id) {
    if (!s.is(id, Op::select))
        return false;
    const Id condition = s[id].args[0], minus = s[id].args[1], plus = s[id].args[2];
    if (!s.single(condition) || !s.is(condition, Op::less) || !s.is_constant(s[condition].args[1], 0) ||
        !s.is(minus, Op::neg) || s[minus].args[0] != plus || !s.single(minus) || !s.is(plus, Op::pow) ||
        s.per_pixel(s[plus].args[1]) || s[plus].uses != 2)
        return false;
    const Id x = s[condition].args[0], size = s[plus].args[0];
    if (!s.is(size, Op::abs) || s[size].args[0] != x)
        return false;
    const Id args[] = {x, s[plus].args[1]};
    s.rewrite(id, Op::signed_power, args);
    return true;
}

bool scaled_whole(Schedule& s, Id id) {
    const bool round = s.is(id, Op::round_even);
    if (!round && !s.is(id, Op::floor))
        return false;
    const Id product = s[id].args[0];
    if (!s.is(product, Op::mul) || !s.single(product))
        return false;
    const Id args[] = {s[product].args[0], s[product].args[1]};
    s.rewrite(id, round ? Op::round_scaled : Op::floor_scaled, args);
    return true;
}

bool to_code(Schedule& s, Id id) {
    if (!s.is(id, Op::round_even))
        return false;
    const Id product = s[id].args[0];
    if (!s.is(product, Op::mul) || !s.single(product))
        return false;
    for (const std::size_t side : {0u, 1u}) {
        const Id kept = s[product].args[side];
        if (!s.is(kept, Op::clamp) || !s.single(kept) || !s.is_constant(s[kept].args[1], 0) ||
            !s.is_constant(s[kept].args[2], 1))
            continue;
        const Id args[] = {s[kept].args[0], s[product].args[1 - side]};
        s.rewrite(id, Op::to_code, args);
        return true;
    }
    return false;
}

bool unless_nan(Schedule& s, Id id) {
    if (!s.is(id, Op::select) || !s.is(s[id].args[0], Op::is_nan) || s[s[id].args[0]].args[0] != s[id].args[1])
        return false;
    const Id value = s[id].args[2];
    const auto parts = s.is(value, Op::mul) && s.single(value) ? split(s, value) : std::nullopt;
    const Id args[] = {s[id].args[1], parts ? parts->pixel : value, parts ? parts->uniform : s.constant(1)};
    s.rewrite(id, Op::unless_nan, args);
    return true;
}

/// a x + b y, a x - b y of two different pixel values
bool linear2(Schedule& s, Id id) {
    const bool minus = s.is(id, Op::sub);
    if (!minus && !s.is(id, Op::add))
        return false;
    const Id first = s[id].args[0], second = s[id].args[1];
    if (!s.is(first, Op::mul) || !s.is(second, Op::mul) || !s.single(first) || !s.single(second))
        return false;
    const auto x = split(s, first), y = split(s, second);
    if (!x || !y || x->pixel == y->pixel)
        return false;
    const Id args[] = {x->pixel, y->pixel, x->uniform, minus ? negated(s, y->uniform) : y->uniform};
    s.rewrite(id, Op::linear2, args);
    return true;
}

bool cube(Schedule& s, Id id) {
    if (!s.is(id, Op::mul))
        return false;
    for (const std::size_t side : {0u, 1u}) {
        const Id square = s[id].args[side], x = s[id].args[1 - side];
        if (s.single(square) && s.is(square, Op::mul) && s[square].args[0] == x && s[square].args[1] == x) {
            const Id args[] = {x};
            s.rewrite(id, Op::cube, args);
            return true;
        }
    }
    return false;
}

/// min(max(x, low), high); two uses of the clamp itself do not matter, of the max they do.
bool clamp(Schedule& s, Id id) {
    if (!s.is(id, Op::min))
        return false;
    for (const std::size_t side : {0u, 1u}) {
        const Id inner = s[id].args[side], high = s[id].args[1 - side];
        if (!s.is(inner, Op::max) || !s.single(inner))
            continue;
        const Id args[] = {s[inner].args[0], s[inner].args[1], high};
        s.rewrite(id, Op::clamp, args);
        return true;
    }
    return false;
}

/// t t (3 - 2 t) with t = clamp((x - low) scale, 0, 1)
bool smooth(Schedule& s, Id id) {
    if (!s.is(id, Op::mul))
        return false;
    const Id square = s[id].args[0], rest = s[id].args[1];
    if (!s.single(square) || !s.is(square, Op::mul) || !s.single(rest) || !s.is(rest, Op::sub) ||
        !s.is_constant(s[rest].args[0], 3))
        return false;
    const Id t = s[square].args[0], twice = s[rest].args[1];
    if (s[square].args[1] != t || !s.is(twice, Op::mul) || !s.single(twice) || s[t].uses != 3 || !s.is(t, Op::clamp) ||
        !(s.is_constant(s[twice].args[0], 2) && s[twice].args[1] == t) || !s.is_constant(s[t].args[1], 0) ||
        !s.is_constant(s[t].args[2], 1))
        return false;
    const Id share = s[t].args[0];
    if (!s.single(share) || !s.is(share, Op::mul))
        return false;
    const auto parts = split(s, share);
    if (!parts || !s.single(parts->pixel) || !s.is(parts->pixel, Op::sub) || !s.per_pixel(s[parts->pixel].args[0]))
        return false;
    const Id args[] = {s[parts->pixel].args[0], s[parts->pixel].args[1], parts->uniform};
    s.rewrite(id, Op::smooth, args);
    return true;
}

/// x (1 - share) + y share
bool mix(Schedule& s, Id id) {
    if (!s.is(id, Op::add))
        return false;
    for (const std::size_t side : {0u, 1u}) {
        const Id first = s[id].args[side], second = s[id].args[1 - side];
        if (!s.is(first, Op::mul) || !s.is(second, Op::mul) || !s.single(first) || !s.single(second) ||
            !s.per_pixel(first) || !s.per_pixel(second))
            continue;
        for (const std::size_t i : {0u, 1u}) {
            const Id rest = s[first].args[i], x = s[first].args[1 - i];
            if (!s.is(rest, Op::sub) || !s.is_constant(s[rest].args[0], 1))
                continue;
            const Id share = s[rest].args[1];
            for (const std::size_t j : {0u, 1u})
                if (s[second].args[j] == share) {
                    const Id args[] = {x, s[second].args[1 - j], share};
                    s.rewrite(id, Op::mix, args);
                    return true;
                }
        }
    }
    return false;
}

/// a x + b y + c z [+ d] of three different pixel values
bool linear3(Schedule& s, Id id) {
    if (!s.is(id, Op::add))
        return false;
    std::vector<std::pair<Id, std::optional<Id>>> terms; // pixel, weight; none is 1
    int weighted = 0;
    std::optional<Id> offset;
    std::vector<Id> open = {id};
    while (!open.empty()) {
        const Id at = open.back();
        open.pop_back();
        if (!s.per_pixel(at)) {
            if (offset)
                return false;
            offset = at;
        } else if (s.is(at, Op::add) && (at == id || s.single(at))) {
            open.push_back(s[at].args[0]);
            open.push_back(s[at].args[1]);
        } else {
            // A weight costs nothing in a multiply-add, so a weighted value may be used elsewhere, too.
            const auto parts = s.is(at, Op::mul) ? split(s, at) : std::nullopt;
            if (!parts && s.is(at, Op::mul) && s.single(at))
                return false; // a product of two pixel values is better off in a multiply-add
            weighted += parts ? 1 : 0;
            terms.emplace_back(parts ? parts->pixel : at, parts ? std::optional<Id>(parts->uniform) : std::nullopt);
        }
        if (terms.size() > 3)
            return false;
    }
    std::sort(terms.begin(), terms.end());
    if (terms.size() != 3 || weighted == 0 || terms[0].first == terms[1].first || terms[1].first == terms[2].first)
        return false;
    const auto weight = [&](std::size_t k) { return terms[k].second ? *terms[k].second : s.constant(1); };
    const Id args[] = {terms[0].first,
                       terms[1].first,
                       terms[2].first,
                       weight(0),
                       weight(1),
                       weight(2),
                       offset ? *offset : s.constant(0)};
    s.rewrite(id, Op::linear3, args);
    return true;
}

bool multiply_add(Schedule& s, Id id) {
    const bool sum = s.is(id, Op::add);
    if (!sum && !s.is(id, Op::sub))
        return false;
    for (const std::size_t side : {0u, 1u}) {
        const Id product = s[id].args[side], other = s[id].args[1 - side];
        if (!s.is(product, Op::mul) || !s.per_pixel(product) || !s.single(product))
            continue;
        const Id args[] = {s[product].args[0], s[product].args[1], other};
        s.rewrite(id, sum ? Op::fma : side == 0 ? Op::fms : Op::fnma, args);
        return true;
    }
    return false;
}

bool compared_choice(Schedule& s, Id id) {
    if (!s.is(id, Op::select) || !s.single(s[id].args[0]))
        return false;
    const Item& condition = s[s[id].args[0]];
    const Op op = condition.op == Op::less ? Op::select_less
        : condition.op == Op::less_equal   ? Op::select_less_equal
        : condition.op == Op::equal        ? Op::select_equal
                                           : Op::select;
    if (op == Op::select)
        return false;
    const Id args[] = {condition.args[0], condition.args[1], s[id].args[1], s[id].args[2]};
    s.rewrite(id, op, args);
    return true;
}

constexpr Fusion table[] = {
    {"x x x", cube},
    {"x <= limit ? m x + n : g ((x + p) k + o)^e + c", power_segment},
    {"x < 0 ? -f(|x|) : f(|x|)", mirrored_segment},
    {"x < 0 ? -pow(|x|, uniform) : pow(|x|, uniform)", signed_power},
    {"x <= limit ? m x + n : min(exp2(k x + o), top)", exp_segment},
    {"x <= limit ? m x + n : g log2(k x + o) + c", log_segment},
    {"min(max(x, low), high)", clamp},
    {"round_even(min(max(x, 0), 1) n)", to_code},
    {"round_even(x k), floor(x k)", scaled_whole},
    {"is_nan(a) ? a : v k", unless_nan},
    {"t t (3 - 2 t), t = clamp((x - low) scale, 0, 1)", smooth},
    {"x (1 - share) + y share", mix},
    {"a x + b y + c z + d", linear3},
    {"a x + b y, a x - b y", linear2},
    {"x y + z, x y - z, z - x y", multiply_add},
    {"pow(x, uniform)", pow_uniform},
    {"x < y ? a : b", compared_choice},
};

} // namespace

std::span<const Fusion> fusions() { return table; }

void fuse(Schedule& schedule) {
    for (const Fusion& fusion : table)
        // From the outside in: the largest shape first.
        for (std::size_t id = schedule.items.size(); id-- > 0;)
            if (schedule.items[id].uses > 0 && schedule.items[id].rate == ir::Rate::pixel)
                fusion.apply(schedule, static_cast<Id>(id));
    join(schedule);
}

} // namespace kasuri::engine
