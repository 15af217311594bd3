#include "ir/range_table.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <initializer_list>
#include <numbers>

namespace kasuri::ir {
namespace {

constexpr double infinity = std::numeric_limits<double>::infinity();
constexpr double pi = std::numbers::pi;
constexpr double hexcone_tiny = 1e-20; ///< as in op.cpp

using G = const Ranged&;

/// Widened by what an operation of `scale` may be wrong by; what cannot change its sign by rounding does not.
Range widened(Range made, const Rounding& by, double relative, double scale, bool keeps_sign) {
    const double low = made.low, high = made.high;
    const double room = scale * relative + by.tiny;
    made.low -= std::isfinite(room) ? room : 0;
    made.high += std::isfinite(room) ? room : 0;
    if (keeps_sign && low >= 0)
        made.low = std::max(made.low, 0.0);
    if (keeps_sign && high <= 0)
        made.high = std::min(made.high, 0.0);
    made.low = made.low < -by.largest ? -infinity : made.low;
    made.high = made.high > by.largest ? infinity : made.high;
    return made;
}
/// Of products, quotients, roots and powers: by their own size, at either end.
Range by_itself(const Range& made, const Rounding& by, double relative) {
    const Range low = widened({made.low, made.low, made.nan}, by, relative, std::fabs(made.low), true),
                high = widened({made.high, made.high, made.nan}, by, relative, std::fabs(made.high), true);
    return {low.low, high.high, made.nan};
}

Range hull(std::initializer_list<double> values, bool nan) {
    Range made{infinity, -infinity, nan};
    for (const double x : values) {
        if (std::isnan(x))
            return {};
        made.low = std::min(made.low, x);
        made.high = std::max(made.high, x);
    }
    return made;
}

Range negated(const Range& x) { return {-x.high, -x.low, x.nan}; }

Range sum(const Range& a, const Range& b, const Rounding& by, bool plain) {
    const bool nan =
        a.nan || b.nan || (a.high == infinity && b.low == -infinity) || (a.low == -infinity && b.high == infinity);
    Range made{a.low + b.low, a.high + b.high, nan};
    if (std::isnan(made.low))
        made.low = -infinity;
    if (std::isnan(made.high))
        made.high = infinity;
    if (&by == &exact)
        return by_itself(made, by, by.relative);
    return widened(made, by, by.relative, std::max(a.largest(), b.largest()),
                   plain || (a.low >= 0 && b.low >= 0) || (a.high <= 0 && b.high <= 0));
}

/// 0 times anything that is finite is 0.
double times(double a, double b) { return a == 0 || b == 0 ? 0 : a * b; }

Range product(const Range& a, const Range& b, const Rounding& by, bool same) {
    const bool nan =
        a.nan || b.nan || (a.holds(0) && b.largest() == infinity) || (b.holds(0) && a.largest() == infinity);
    Range made = hull({times(a.low, b.low), times(a.low, b.high), times(a.high, b.low), times(a.high, b.high)}, nan);
    if (same)
        made.low = a.holds(0) ? 0 : std::min(times(a.low, a.low), times(a.high, a.high));
    return by_itself(made, by, by.relative);
}

Range quotient(const Range& a, const Range& b, const Rounding& by) {
    bool nan = a.nan || b.nan || (a.largest() == infinity && b.largest() == infinity);
    if (b.holds(0)) {
        nan = nan || a.holds(0) || &by == &exact;
        // Exactly, nothing is divided by 0, and below 0 is not above; floats divide by -0, too.
        if (&by == &exact && b.low == 0 && a.low >= 0)
            return {0, infinity, true};
        if (&by == &exact && b.high == 0 && a.low >= 0)
            return {-infinity, 0, true};
        return {-infinity, infinity, nan};
    }
    const auto over = [](double x, double y) { return x == 0 || std::isinf(y) ? 0 : x / y; };
    return by_itself(hull({over(a.low, b.low), over(a.low, b.high), over(a.high, b.low), over(a.high, b.high)}, nan),
                     by, by.relative);
}

Range power(G g) {
    const Range &base = g.x[0], &exponent = g.x[1];
    bool nan = base.nan || exponent.nan;
    if (nan || base.low == -infinity || !std::isfinite(exponent.low) || !std::isfinite(exponent.high))
        return {};
    Range made{infinity, -infinity, nan};
    const auto include = [&](double low, double high) {
        made.low = std::min(made.low, low);
        made.high = std::max(made.high, high);
    };
    if (base.high >= 0) { // monotonic in either
        const double low = std::max(base.low, 0.0);
        for (const double b : {low, base.high})
            for (const double e : {exponent.low, exponent.high}) {
                const double p = std::pow(b, e);
                include(p, p);
            }
        if (low == 0 && exponent.low < 0) // no bound near 0
            made.high = infinity;
        if (low == 0 && exponent.holds(0))
            include(0, 1);
    }
    if (base.low < 0) {
        const bool whole = exponent.low == exponent.high && exponent.low == std::floor(exponent.low);
        made.nan = made.nan || !whole;
        if (whole) {
            const double high = std::min(base.high, 0.0);
            include(std::min(std::pow(base.low, exponent.low), std::pow(high, exponent.low)),
                    std::max(std::pow(base.low, exponent.low), std::pow(high, exponent.low)));
            if (exponent.low < 0 && high == 0)
                return {-infinity, infinity, nan};
        } else if (exponent.low != exponent.high) { // powers by whole numbers in between
            const double most = std::max(std::pow(-base.low, exponent.low), std::pow(-base.low, exponent.high));
            include(-most, most);
            if (exponent.low < 0)
                return {-infinity, infinity, true};
        }
    }
    if (made.low > made.high)
        made = {0, 0, true};
    return by_itself(made, g.by, g.by.curve);
}

Range wave(double (*of)(double), double first_top, G g) {
    const Range& x = g.x[0];
    if (!x.is_finite())
        return {-1, 1, true};
    Range made = hull({of(x.low), of(x.high)}, false);
    const auto meets = [&](double at) {
        return std::floor((x.high - at) / (2 * pi)) >= std::ceil((x.low - at) / (2 * pi));
    };
    if (x.high - x.low >= 2 * pi || x.largest() > 1e4)
        made = {-1, 1, false};
    if (meets(first_top))
        made.high = 1;
    if (meets(first_top + pi))
        made.low = -1;
    return widened(made, g.by, g.by.curve, 1, false);
}

Range angle(G g) {
    const Range &y = g.x[0], &x = g.x[1];
    const bool nan = y.nan || x.nan;
    Range made{-pi, pi, nan};
    if (x.low > 0 || y.low > 0 || y.high < 0) { // neither the origin nor the cut
        made = hull({std::atan2(y.low, x.low), std::atan2(y.low, x.high), std::atan2(y.high, x.low),
                     std::atan2(y.high, x.high)},
                    nan);
    }
    return widened(made, g.by, g.by.curve, pi, false);
}

/// 1, 0, or either.
Range truth(bool always, bool never) { return always ? Range::of(1) : never ? Range::of(0) : Range::between(0, 1); }
bool never_zero(const Range& x) { return !x.holds(0); } // NaN counts as true
bool always_zero(const Range& x) { return x.low == 0 && x.high == 0 && !x.nan; }

template <double (*round)(double)>
Range rounded(G g) {
    return {round(g.x[0].low), round(g.x[0].high), g.x[0].nan || g.x[0].largest() == infinity};
}

double highest_bits(double x) { return std::exp2(std::ceil(std::log2(std::clamp(x, 0.0, 16777216.0) + 1))) - 1; }
Range any_bits(G g) { return {0, std::max(highest_bits(g.x[0].high), highest_bits(g.x[1].high)), false}; }

struct Three {
    Range most, least, spread;
    bool whole; ///< all are numbers
};
Three three(G g) {
    const Range *a = g.x, *b = g.x + 1, *c = g.x + 2;
    Three made{};
    made.whole = a->is_finite() && b->is_finite() && c->is_finite();
    made.most = {std::max({a->low, b->low, c->low}), std::max({a->high, b->high, c->high}), false};
    made.least = {std::min({a->low, b->low, c->low}), std::min({a->high, b->high, c->high}), false};
    made.spread = sum(made.most, negated(made.least), g.by, true);
    made.spread.low = std::max(made.spread.low, 0.0);
    return made;
}

Range hue(G g) { return three(g).whole ? Range::between(0, 360) : Range{0, 360, true}; }

Range saturation(G g) {
    const Three t = three(g);
    if (!t.whole)
        return {};
    if (t.least.low >= 0)
        return widened({0, 1, false}, g.by, g.by.relative, 1, true);
    if (t.most.low > 0)
        return quotient(t.spread, t.most, g.by);
    const double most = times(t.spread.high, 1 / hexcone_tiny);
    return by_itself({-most, most, false}, g.by, g.by.relative);
}

Range value(G g) {
    const Three t = three(g);
    if (!t.whole)
        return {};
    const bool near_nothing = t.most.low < hexcone_tiny && t.most.high > -hexcone_tiny;
    return near_nothing ? Range{t.most.low, std::max(t.most.high, hexcone_tiny), false} : t.most;
}

Range of_hexcone(G g) {
    if (!g.x[0].is_finite())
        return {};
    const Range taken = product(product(g.x[2], g.x[1], g.by, false), Range::between(0, 1), g.by, false);
    return sum(g.x[2], negated(taken), g.by, false);
}

struct Row {
    Op op;
    Range (*range)(G);
};

constexpr Row table[] = {
    {Op::neg, [](G g) { return negated(g.x[0]); }},
    {Op::abs,
     [](G g) {
         const Range& x = g.x[0];
         return Range{x.holds(0) ? 0 : std::min(std::fabs(x.low), std::fabs(x.high)), x.largest(), x.nan};
     }},
    {Op::floor, rounded<std::floor>},
    {Op::ceil, rounded<std::ceil>},
    {Op::trunc, rounded<std::trunc>},
    {Op::round_even, rounded<std::nearbyint>},
    {Op::sqrt,
     [](G g) {
         const Range& x = g.x[0];
         return by_itself({std::sqrt(std::max(x.low, 0.0)), std::sqrt(std::max(x.high, 0.0)), x.nan || x.low < 0}, g.by,
                          g.by.relative);
     }},
    {Op::exp2,
     [](G g) {
         return by_itself({std::exp2(g.x[0].low), std::exp2(g.x[0].high), g.x[0].nan}, g.by, g.by.curve);
     }},
    {Op::log2,
     [](G g) {
         const Range& x = g.x[0];
         const Range made{std::log2(std::max(x.low, 0.0)), std::log2(std::max(x.high, 0.0)), x.nan || x.low < 0};
         return widened(made, g.by, g.by.curve, std::max(1.0, made.is_finite() ? made.largest() : 1.0), false);
     }},
    {Op::sin, [](G g) { return wave([](double x) { return std::sin(x); }, pi / 2, g); }},
    {Op::cos, [](G g) { return wave([](double x) { return std::cos(x); }, 0, g); }},
    {Op::logical_not, [](G g) { return truth(always_zero(g.x[0]), never_zero(g.x[0])); }},
    {Op::is_nan, [](G g) { return truth(false, !g.x[0].nan); }},
    {Op::add, [](G g) { return sum(g.x[0], g.x[1], g.by, g.plain); }},
    {Op::sub,
     [](G g) { return g.same && g.x[0].is_finite() ? Range::of(0) : sum(g.x[0], negated(g.x[1]), g.by, g.plain); }},
    {Op::mul, [](G g) { return product(g.x[0], g.x[1], g.by, g.same); }},
    {Op::div, [](G g) { return quotient(g.x[0], g.x[1], g.by); }},
    {Op::min,
     [](G g) {
         return Range{std::min(g.x[0].low, g.x[1].low), std::min(g.x[0].high, g.x[1].high), g.x[0].nan || g.x[1].nan};
     }},
    {Op::max,
     [](G g) {
         return Range{std::max(g.x[0].low, g.x[1].low), std::max(g.x[0].high, g.x[1].high), g.x[0].nan || g.x[1].nan};
     }},
    {Op::pow, power},
    {Op::atan2, angle},
    {Op::less,
     [](G g) {
         const bool nan = g.x[0].nan || g.x[1].nan;
         return truth(!nan && g.x[0].high < g.x[1].low, g.x[0].low >= g.x[1].high);
     }},
    {Op::less_equal,
     [](G g) {
         const bool nan = g.x[0].nan || g.x[1].nan;
         return truth(!nan && g.x[0].high <= g.x[1].low, g.x[0].low > g.x[1].high);
     }},
    {Op::equal,
     [](G g) {
         const Range &a = g.x[0], &b = g.x[1];
         return truth(!a.nan && !b.nan && a.low == a.high && b.low == b.high && a.low == b.low,
                      a.low > b.high || a.high < b.low);
     }},
    {Op::logical_and,
     [](G g) { return truth(never_zero(g.x[0]) && never_zero(g.x[1]), always_zero(g.x[0]) || always_zero(g.x[1])); }},
    {Op::logical_or,
     [](G g) { return truth(never_zero(g.x[0]) || never_zero(g.x[1]), always_zero(g.x[0]) && always_zero(g.x[1])); }},
    {Op::bit_and, any_bits},
    {Op::bit_or, any_bits},
    {Op::bit_xor, any_bits},
    {Op::fma, [](G g) { return sum(product(g.x[0], g.x[1], g.by, g.same), g.x[2], g.by, false); }},
    {Op::hexcone_h, hue},
    {Op::hexcone_s, saturation},
    {Op::hexcone_v, value},
    {Op::hexcone_r, of_hexcone},
    {Op::hexcone_g, of_hexcone},
    {Op::hexcone_b, of_hexcone},
};

} // namespace

Range range_of(Op op, const Ranged& given) {
    static const auto rows = [] {
        std::array<Range (*)(G), 256> made{};
        for (const Row& row : table)
            made[static_cast<std::size_t>(row.op)] = row.range;
        return made;
    }();
    const auto of = rows[static_cast<std::size_t>(op)];
    return of ? of(given) : Range{};
}

} // namespace kasuri::ir
