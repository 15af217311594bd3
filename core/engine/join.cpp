// Results of several items that one instruction makes together, so that their operands are read once.
#include "engine/schedule.hpp"

#include <algorithm>
#include <limits>
#include <map>
#include <optional>

namespace kasuri::engine {

using ir::Op;
using Id = std::uint32_t;
using Three = std::array<Id, 3>;

namespace {

/// Which item uses an item first: until then it may be made.
std::vector<Id> first_users(const Schedule& s) {
    std::vector<Id> first(s.items.size(), std::numeric_limits<Id>::max());
    for (Id id = 0; id < s.items.size(); ++id)
        if (s[id].uses > 0)
            for (int k = 0; k < s[id].arity(); ++k) {
                Id& user = first[s[id].args[static_cast<std::size_t>(k)]];
                user = std::min(user, id);
            }
    return first;
}

/// Has `op` make three items, in the place of the last of them; not if one is needed before. `args` are operands of
/// theirs, or what those are made of.
bool join_as(Schedule& s, const std::vector<Id>& first, const Three& members, Op op, std::span<const Id> args) {
    const Id leader = *std::max_element(members.begin(), members.end());
    if (std::any_of(members.begin(), members.end(), [&](Id id) { return first[id] <= leader; }))
        return false;
    s.rewrite(leader, op, args);
    for (const Id id : members) {
        if (id != leader)
            s.absorb(id);
        s[id].joint = true;
        s[id].leader = leader;
    }
    s[leader].slot = static_cast<std::uint32_t>(op);
    s[leader].value = members[0] + 1;
    s[leader].joined = {members[1] + 1, members[2] + 1};
    return true;
}

/// Results that one instruction can make together: items of `ops` with the same operands.
void join_same(Schedule& s, std::span<const Op, 3> ops, Op together) {
    for (Id id = 0; id < s.items.size(); ++id) {
        if (s[id].uses == 0 || s[id].joint || std::find(ops.begin(), ops.end(), s[id].op) == ops.end())
            continue;
        // In the order of ops; what nobody needs is computed into a spare register.
        std::array<Id, 3> found{};
        int count = 0;
        for (std::size_t k = 0; k < 3; ++k)
            for (Id other = id; other < s.items.size(); ++other)
                if (s[other].uses > 0 && !s[other].joint && s[other].op == ops[k] &&
                    std::equal(s[id].args.begin(), s[id].args.begin() + 3, s[other].args.begin())) {
                    found[k] = other + 1;
                    ++count;
                    break;
                }
        if (count < 2)
            continue;
        s[id].leader = id;
        for (std::size_t k = 0; k < 3; ++k)
            if (found[k] != 0) {
                s[found[k] - 1].joint = true;
                s[found[k] - 1].leader = id;
            }
        s[id].slot = static_cast<std::uint32_t>(together);
        s[id].joined = {found[1], found[2]};
        s[id].value = found[0]; // place of the first result, plus 1
    }
}

/// linear3 of p, x - p and y - p, in any order: then the places of those three among its operands.
struct Apart {
    Id p, x, y;
    std::array<std::size_t, 3> place;
};
std::optional<Apart> apart(const Schedule& s, Id id) {
    for (std::size_t k = 0; k < 3; ++k) {
        const Id p = s[id].args[k];
        const std::size_t i = k == 0 ? 1 : 0, j = k == 2 ? 1 : 2;
        const Id u = s[id].args[i], v = s[id].args[j];
        if (s.is(u, Op::sub) && s.is(v, Op::sub) && s[u].args[1] == p && s[v].args[1] == p && s[u].uses == 3 &&
            s[v].uses == 3)
            return Apart{p, s[u].args[0], s[v].args[0], {k, i, j}};
    }
    return std::nullopt;
}

/// What tells how far two values are from a third, in three sums: the way into and out of opponent colours.
void join_apart(Schedule& s, const std::vector<Id>& first) {
    std::map<Three, std::vector<Id>> full;
    std::map<std::pair<Id, Id>, std::vector<Id>> pairs;
    for (Id id = 0; id < s.items.size(); ++id) {
        if (s[id].uses == 0 || s[id].joint)
            continue;
        if (s[id].op == Op::linear3)
            full[{s[id].args[0], s[id].args[1], s[id].args[2]}].push_back(id);
        else if (s[id].op == Op::linear2)
            pairs[std::minmax(s[id].args[0], s[id].args[1])].push_back(id);
    }
    for (const auto& [args, rows] : full) {
        const std::optional<Apart> found = apart(s, rows[0]);
        if (!found)
            continue;
        std::vector<Id> made = {found->p, found->x, found->y};
        const auto all_of = [&](Id row) {
            for (const std::size_t k : found->place)
                made.push_back(s[row].args[3 + k]);
            made.push_back(s[row].args[6]);
        };
        const Id u = args[found->place[1]], v = args[found->place[2]];
        const auto two = pairs.find(std::minmax(u, v));
        if (rows.size() == 3) {
            for (const Id row : rows)
                all_of(row);
            join_as(s, first, {rows[0], rows[1], rows[2]}, Op::matrix3_apart, made);
        } else if (rows.size() == 1 && two != pairs.end() && two->second.size() == 2) {
            all_of(rows[0]);
            for (const Id row : two->second) {
                const bool turned = s[row].args[0] == v;
                made.push_back(s[row].args[turned ? 3 : 2]);
                made.push_back(s[row].args[turned ? 2 : 3]);
            }
            join_as(s, first, {rows[0], two->second[0], two->second[1]}, Op::opponent3, made);
        }
    }
}

/// Three linear3 of the same x, y, z are a matrix. Uniform operands stand before all pixel work, so the first of
/// them can do it for all.
void join_matrices(Schedule& s) {
    for (Id id = 0; id < s.items.size(); ++id) {
        if (s[id].uses == 0 || s[id].joint || s[id].op != Op::linear3)
            continue;
        std::array<Id, 3> found = {id, 0, 0};
        std::size_t count = 1;
        for (Id other = id + 1; other < s.items.size() && count < 3; ++other)
            if (s[other].uses > 0 && !s[other].joint && s[other].op == Op::linear3 &&
                std::equal(s[id].args.begin(), s[id].args.begin() + 3, s[other].args.begin()))
                found[count++] = other;
        if (count < 3)
            continue;
        for (const Id member : found) {
            s[member].joint = true;
            s[member].leader = id;
        }
        s[id].slot = static_cast<std::uint32_t>(Op::matrix3);
        s[id].value = id + 1;
        s[id].joined = {found[1] + 1, found[2] + 1};
    }
}

/// u x + v y + w z as multiply_add left it: the three products.
std::optional<std::array<std::array<Id, 2>, 3>> products(const Schedule& s, Id id) {
    if (s[id].op != Op::fma)
        return std::nullopt;
    const Id inner = s[id].args[2];
    if (!s.is(inner, Op::fma) || !s.single(inner) || s[inner].joint)
        return std::nullopt;
    const Id last = s[inner].args[2];
    if (!s.is(last, Op::mul) || !s.single(last) || !s.per_pixel(last))
        return std::nullopt;
    return std::array<std::array<Id, 2>, 3>{
        {{s[id].args[0], s[id].args[1]}, {s[inner].args[0], s[inner].args[1]}, {s[last].args[0], s[last].args[1]}}};
}

/// Three sums of three products by the same three weights: zones laid over each other.
void join_blends(Schedule& s, const std::vector<Id>& first) {
    std::map<Three, std::vector<Id>> by_weights;
    for (Id id = 0; id < s.items.size(); ++id)
        if (s[id].uses > 0 && !s[id].joint)
            if (const auto found = products(s, id))
                for (std::size_t sides = 0; sides < 8; ++sides) {
                    std::vector<Id>& sums =
                        by_weights[{(*found)[0][sides & 1], (*found)[1][sides >> 1 & 1], (*found)[2][sides >> 2]}];
                    if (sums.empty() || sums.back() != id) // of a square both sides are the same
                        sums.push_back(id);
                }
    for (const auto& [weights, sums] : by_weights) {
        if (sums.size() < 3)
            continue;
        std::vector<Id> args(weights.begin(), weights.end());
        args.resize(12);
        bool free = true;
        for (std::size_t i = 0; i < 3 && free; ++i) {
            const auto found = products(s, sums[i]);
            free = found && !s[sums[i]].joint;
            for (std::size_t k = 0; k < 3 && free; ++k)
                args[3 + 3 * k + i] = (*found)[k][0] == weights[k] ? (*found)[k][1] : (*found)[k][0];
        }
        if (free)
            join_as(s, first, {sums[0], sums[1], sums[2]}, Op::blend3, args);
    }
}

} // namespace

void join_externals(Schedule& s) {
    for (Id id = 0; id < s.items.size(); ++id) {
        if (s[id].uses == 0 || s[id].joint || s[id].op != Op::external || !s.per_pixel(id))
            continue;
        std::array<Id, 3> found{};
        for (Id other = id; other < s.items.size(); ++other)
            if (s[other].uses > 0 && !s[other].joint && s[other].op == Op::external && s[other].slot == s[id].slot &&
                std::equal(s[id].args.begin(), s[id].args.begin() + 3, s[other].args.begin()))
                found[static_cast<std::size_t>(s[other].value)] = other + 1;
        for (const Id place : found)
            if (place != 0) {
                s[place - 1].joint = true;
                s[place - 1].leader = id;
            }
        s[id].joined = {found[1], found[2]};
        s[id].value = found[0]; // place of the first result, plus 1
    }
}

void join(Schedule& schedule) {
    constexpr Op to[] = {Op::hexcone_h, Op::hexcone_s, Op::hexcone_v};
    constexpr Op from[] = {Op::hexcone_r, Op::hexcone_g, Op::hexcone_b};
    join_same(schedule, to, Op::to_hexcone);
    join_same(schedule, from, Op::from_hexcone);
    const std::vector<Id> first = first_users(schedule);
    join_apart(schedule, first);
    join_blends(schedule, first);
    join_matrices(schedule);
}

} // namespace kasuri::engine
