#include "builtins/row.hpp"

namespace kasuri::builtins {
namespace {

/// F. N. Fritsch, R. E. Carlson, "Monotone piecewise cubic interpolation", SIAM J. Numer. Anal. 17 (1980): tangents
/// start as the mean of the neighbouring secants, one-sided at the ends, are 0 where a secant is 0 or the sign
/// changes, and (alpha, beta) is drawn back to the circle of radius 3.
std::vector<double> tangents(const std::vector<double>& x, const std::vector<double>& y) {
    const std::size_t n = x.size();
    std::vector<double> secant(n - 1), m(n);
    for (std::size_t k = 0; k + 1 < n; ++k)
        secant[k] = (y[k + 1] - y[k]) / (x[k + 1] - x[k]);
    m[0] = secant[0];
    m[n - 1] = secant[n - 2];
    for (std::size_t k = 1; k + 1 < n; ++k)
        m[k] = secant[k - 1] * secant[k] <= 0 ? 0 : (secant[k - 1] + secant[k]) / 2;
    for (std::size_t k = 0; k + 1 < n; ++k) {
        if (secant[k] == 0) {
            m[k] = m[k + 1] = 0;
            continue;
        }
        const double alpha = m[k] / secant[k], beta = m[k + 1] / secant[k];
        if (const double size = std::hypot(alpha, beta); size > 3) {
            m[k] = 3 * alpha / size * secant[k];
            m[k + 1] = 3 * beta / size * secant[k];
        }
    }
    return m;
}

void curve_reference(Shape s, const double* const* args, double* result) {
    std::vector<double> x, y;
    for (int k = 1; k < s.count; ++k) {
        x.push_back(args[k][0]);
        y.push_back(args[k][1]);
    }
    const std::vector<double> m = tangents(x, y);
    const std::size_t last = x.size() - 1;
    for (int i = 0; i < s.width; ++i) {
        const double at = args[0][i];
        if (at <= x[0]) {
            result[i] = m[0] == 0 ? y[0] : y[0] + m[0] * (at - x[0]);
        } else if (at >= x[last]) {
            result[i] = m[last] == 0 ? y[last] : y[last] + m[last] * (at - x[last]);
        } else {
            std::size_t k = 0;
            while (k + 1 < last && at >= x[k + 1])
                ++k;
            // The cubic Hermite basis.
            const double h = x[k + 1] - x[k], t = (at - x[k]) / h, u = 1 - t;
            result[i] = (1 + 2 * t) * u * u * y[k] + t * u * u * h * m[k] + t * t * (3 - 2 * t) * y[k + 1] -
                t * t * u * h * m[k + 1];
        }
        if (std::isnan(at))
            result[i] = at;
    }
}

/// What the knots say, the same for every pixel, so that it costs nothing per pixel.
struct Pieces {
    std::vector<NodeId> width, secant, m;

    Pieces(Graph& g, std::size_t n, const NodeId* const* args) {
        const NodeId zero = g.constant(0), three = g.constant(3);
        for (std::size_t k = 0; k + 1 < n; ++k) {
            width.push_back(g.sub(args[k + 2][0], args[k + 1][0]));
            secant.push_back(g.div(g.sub(args[k + 2][1], args[k + 1][1]), width[k]));
        }
        m.push_back(secant[0]);
        for (std::size_t k = 1; k + 1 < n; ++k) {
            const NodeId turns = g.less_equal(g.mul(secant[k - 1], secant[k]), zero);
            m.push_back(g.select(turns, zero, g.mul(g.add(secant[k - 1], secant[k]), g.constant(0.5))));
        }
        m.push_back(secant[n - 2]);
        for (std::size_t k = 0; k + 1 < n; ++k) {
            const NodeId flat = g.equal(secant[k], zero);
            const NodeId alpha = g.div(m[k], secant[k]), beta = g.div(m[k + 1], secant[k]);
            const NodeId size = g.make(Op::sqrt, g.add(g.mul(alpha, alpha), g.mul(beta, beta)));
            const NodeId steep = g.less(three, size);
            const NodeId back = g.div(three, size);
            m[k] = g.select(flat, zero, g.select(steep, g.mul(back, m[k]), m[k]));
            m[k + 1] = g.select(flat, zero, g.select(steep, g.mul(back, m[k + 1]), m[k + 1]));
        }
    }
};

/// Each piece adds what it rises: a cubic of the distance into it, which stands still outside.
void curve_lowering(Graph& g, Shape s, const NodeId* const* args, NodeId* result) {
    const auto n = static_cast<std::size_t>(s.count - 1);
    const NodeId zero = g.constant(0), two = g.constant(2), three = g.constant(3);
    const auto [width, secant, m] = Pieces(g, n, args);
    for (int i = 0; i < s.width; ++i) {
        const NodeId x = args[0][i];
        // Straight on below the first and above the last knot; a level end stays level even at infinity.
        const auto beyond = [&](NodeId distance, NodeId slope) {
            return g.select(g.equal(slope, zero), zero, g.mul(distance, slope));
        };
        NodeId sum = g.add(args[1][1], beyond(g.min(g.sub(x, args[1][0]), zero), m[0]));
        for (std::size_t k = 0; k + 1 < n; ++k) {
            const NodeId t = g.clamp(g.sub(x, args[k + 1][0]), zero, width[k]);
            const NodeId square = g.div(g.sub(g.sub(g.mul(three, secant[k]), g.mul(two, m[k])), m[k + 1]), width[k]);
            const NodeId cubic = g.div(g.sub(g.add(m[k], m[k + 1]), g.mul(two, secant[k])), g.mul(width[k], width[k]));
            sum = g.add(sum, g.mul(t, g.add(m[k], g.mul(t, g.add(square, g.mul(t, cubic))))));
        }
        result[i] = g.add(sum, beyond(g.max(g.sub(x, args[n][0]), zero), m[n - 1]));
    }
}

/// The cubic of each piece by halving, 200 times.
void back_reference(Shape s, const double* const* args, double* result) {
    std::vector<double> x, y;
    for (int k = 1; k < s.count; ++k) {
        x.push_back(args[k][0]);
        y.push_back(args[k][1]);
    }
    const std::vector<double> m = tangents(x, y);
    const std::size_t last = x.size() - 1;
    const double rises = y[last] - y[0];
    bool one_way = rises != 0;
    for (std::size_t k = 0; k < last; ++k)
        one_way = one_way && (y[k + 1] - y[k]) * rises >= 0;
    for (int i = 0; i < s.width; ++i) {
        const double at = args[0][i];
        if (!one_way || std::isnan(at)) {
            result[i] = not_a_number;
        } else if ((at - y[0]) * rises <= 0) {
            result[i] = at == y[0] ? x[0] : x[0] + (at - y[0]) / m[0];
        } else if ((at - y[last]) * rises >= 0) {
            result[i] = at == y[last] ? x[last] : x[last] + (at - y[last]) / m[last];
        } else {
            double low = x[0], high = x[last];
            for (int step = 0; step < 200; ++step) {
                const double middle = low + (high - low) / 2;
                std::vector<const double*> there(args, args + s.count);
                there[0] = &middle;
                double made;
                curve_reference({1, s.count}, there.data(), &made);
                ((made - at) * rises < 0 ? low : high) = middle;
            }
            result[i] = low + (high - low) / 2;
        }
    }
}

/// The piece that the value lies in, and there Newton's method, kept between bounds: fourteen steps are enough where
/// the curve begins level (found by trying; the tests hold it to the reference).
void back_lowering(Graph& g, Shape s, const NodeId* const* args, NodeId* result) {
    const auto n = static_cast<std::size_t>(s.count - 1);
    const NodeId zero = g.constant(0), one = g.constant(1), two = g.constant(2), three = g.constant(3);
    const auto [width, secant, m] = Pieces(g, n, args);
    const NodeId rises = g.sub(args[n][1], args[1][1]);
    NodeId one_way = g.make(Op::logical_not, g.equal(rises, zero));
    for (const NodeId slope : secant)
        one_way = g.make(Op::logical_and, one_way, g.less_equal(zero, g.mul(slope, rises)));
    for (int i = 0; i < s.width; ++i) {
        const NodeId y = args[0][i];
        NodeId left = args[1][0], from = args[1][1], wide = width[0], high = g.mul(secant[0], width[0]),
               begins = g.div(m[0], secant[0]), ends = g.div(m[1], secant[0]);
        for (std::size_t k = 1; k + 1 < n; ++k) {
            const NodeId here = g.less(zero, g.mul(g.sub(y, args[k + 1][1]), rises));
            left = g.select(here, args[k + 1][0], left);
            from = g.select(here, args[k + 1][1], from);
            wide = g.select(here, width[k], wide);
            high = g.select(here, g.mul(secant[k], width[k]), high);
            begins = g.select(here, g.div(m[k], secant[k]), begins);
            ends = g.select(here, g.div(m[k + 1], secant[k]), ends);
        }
        // On the unit square: begins t + square t^2 + cubic t^3 = share.
        const NodeId share = g.clamp01(g.div(g.sub(y, from), high));
        const NodeId square = g.sub(g.sub(three, g.mul(two, begins)), ends), cubic = g.sub(g.add(begins, ends), two);
        NodeId low = zero, top = one, t = share;
        for (int step = 0; step < 14; ++step) {
            const NodeId made = g.mul(t, g.add(begins, g.mul(t, g.add(square, g.mul(t, cubic)))));
            const NodeId over = g.sub(made, share), above = g.less(zero, over);
            top = g.select(above, t, top);
            low = g.select(above, low, t);
            const NodeId slope = g.add(begins, g.mul(t, g.add(g.mul(two, square), g.mul(t, g.mul(three, cubic)))));
            const NodeId next = g.sub(t, g.div(over, slope));
            const NodeId within = g.make(Op::logical_and, g.less_equal(low, next), g.less_equal(next, top));
            t = g.select(within, next, g.mul(g.constant(0.5), g.add(low, top)));
        }
        const NodeId inside = g.add(left, g.mul(t, wide));
        const auto beyond = [&](std::size_t knot, NodeId slope) {
            const NodeId rest = g.sub(y, args[knot][1]);
            return g.select(g.equal(rest, zero), args[knot][0], g.add(args[knot][0], g.div(rest, slope)));
        };
        const NodeId before = g.less_equal(g.mul(g.sub(y, args[1][1]), rises), zero),
                     after = g.less_equal(zero, g.mul(g.sub(y, args[n][1]), rises));
        const NodeId found = g.select(before, beyond(1, m[0]), g.select(after, beyond(n, m[n - 1]), inside));
        result[i] = g.select(g.make(Op::is_nan, y), y, g.select(one_way, found, g.constant(not_a_number)));
    }
}

} // namespace

std::vector<Builtin> curves() {
    Rows table;
    table.rows.reserve(2); // the first is still spoken of when the second comes
    Builtin& curve = table.typed(
        "curve", {"x", "first", "knot"}, {lang::gen, per_picture(vec2_type), per_picture(vec2_type)}, lang::gen,
        "Smooth curve through knots vec2(x, y), given from left to right; it never overshoots, and goes on straight "
        "outside, so a knot just above 1 leaves highlights alone. Knots may be parameters.",
        "Fritsch & Carlson, SIAM J. Numer. Anal. 17, 1980; tangents begin as the mean of the neighbouring secants",
        // Worked by hand: secants 2 and 0.5 at the knots 0, 0.25, 1.
        {{{0.25, 0, 0, 0.25, 0.5, 1, 0.875}, 0.5},
         {{2, 0, 0, 1, 1}, 2},
         {{-1, 0, 0, 1, 1}, -1},
         {{0.5, 0, 0, 1, 1}, 0.5},
         {{7, 0, 0.5, 1, 0.5}, 0.5}},
        curve_reference, curve_lowering);
    curve.variadic = true;
    curve.tolerance = 2e-5;
    Builtin& back = table.typed(
        "curve_back", {"y", "first", "knot"}, {lang::gen, per_picture(vec2_type), per_picture(vec2_type)}, lang::gen,
        "The way back from curve with the same knots: the x at which it is y. The knots must rise all the way, or fall "
        "all the way; else there is no one answer, and NaN comes. Where the curve is level, what comes back is as "
        "uncertain as its slope is small.",
        "the inverse of the cubic by Newton's method between bounds (W. Press et al., Numerical Recipes, 9.4, from "
        "memory)",
        {{{0.5, 0, 0, 0.25, 0.5, 1, 0.875}, 0.25},
         {{2, 0, 0, 1, 1}, 2},
         {{-1, 0, 0, 1, 1}, -1},
         {{0.5, 0, 0, 1, 1}, 0.5},
         // By hand: the middle piece is t + t^2 - t^3; and 3 t^2 - 2 t^3, which begins and ends level.
         {{1.625, -1, 0, 0, 1, 1, 2, 2, 2}, 0.5},
         {{0.15625, -1, 0, 0, 0, 1, 1, 2, 1}, 0.25}},
        back_reference, back_lowering);
    back.variadic = true;
    back.tolerance = 2e-5;
    return std::move(table.rows);
}

} // namespace kasuri::builtins
