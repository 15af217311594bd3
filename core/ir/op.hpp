#pragma once
#include <cstddef>
#include <cstdint>
#include <span>
#include <string_view>

namespace kasuri::ir {

/// The closed set of operations that a back end must know. Truth values are 0 and 1.
enum class Op : std::uint8_t {
    constant, ///< a number known when the rule is compiled
    uniform,  ///< one number per run: a parameter, or a measure of the picture
    input,    ///< one number per pixel
    neg,
    abs,
    floor,
    ceil,
    trunc,
    round_even,
    sqrt,
    exp2,
    log2,
    sin,
    cos,
    logical_not,
    is_nan,
    add,
    sub,
    mul,
    div,
    min,
    max,
    pow,
    atan2,
    less,
    less_equal,
    equal,
    logical_and,
    logical_or,
    bit_and,
    bit_or,
    bit_xor, ///< of whole numbers from 0 to 2^24, kept as floats
    fma,
    select,
    hexcone_h,
    hexcone_s,
    hexcone_v, ///< of r, g, b: hue in degrees, saturation, value
    hexcone_r,
    hexcone_g,
    hexcone_b, ///< of hue, saturation, value
    external,  ///< one of the three results of an External; slot says which External, value which result
    // From here on only engine/fuse makes them: several operations of a graph in one pass over a tile.
    fms,
    fnma, ///< x y - z; z - x y
    select_less,
    select_less_equal,
    select_equal, ///< (x, y, yes, no)
    clamp,        ///< min(max(x, low), high)
    mix,          ///< x (1 - share) + y share
    smooth,       ///< smoothstep of t = (x - low) scale
    cube,
    round_scaled,     ///< round_even(x k)
    floor_scaled,     ///< floor(x k)
    to_code,          ///< (x, n): round_even(min(max(x, 0), 1) n)
    unless_nan,       ///< (a, v, k): a where that is NaN, else v k
    pow_uniform,      ///< pow whose exponent is the same for every pixel
    signed_power,     ///< the same of |x|, negated below 0
    linear2,          ///< (x, y, a, b): a x + b y
    linear3,          ///< (x, y, z, a, b, c, d): a x + b y + c z + d
    power_segment,    ///< (x, limit, m, n, p, k, o, e, g, c): x <= limit ? m x + n : g ((x + p) k + o)^e + c
    mirrored_segment, ///< the same of |x|, negated below 0
    exp_segment,      ///< (x, limit, m, n, k, o, top): x <= limit ? m x + n : min(exp2(k x + o), top)
    log_segment,      ///< (x, limit, m, n, k, o, g, c): x <= limit ? m x + n : g log2(k x + o) + c
    matrix3,          ///< three linear3 of the same x, y, z: three results
    matrix3_apart,    ///< (p, x, y, ...): matrix3 of p, x - p, y - p
    opponent3, ///< (p, x, y, a, b, c, d, e, f, g, h): a p + b u + c v + d, e u + f v, g u + h v of u = x - p, v = y - p
    blend3,    ///< (u, v, w, nine values): of each three, u x + v y + w z
    to_hexcone,
    from_hexcone, ///< three results
};

/// The most operands of an operation, and the most results.
inline constexpr std::size_t max_operands = 15;
inline constexpr std::size_t max_results = 3;
/// Operations of a graph have at most this many operands.
inline constexpr std::size_t max_graph_operands = 3;

/// One row: how many operands and results, and its meaning in double precision (used to fold constants, for
/// uniform work and to test kernels; the reference evaluator has its own definitions and does not look here).
struct OpRow {
    Op op;
    std::string_view name;
    int arity;
    void (*fold)(const double* x, double* result); ///< null for leaves
    int results = 1;
};

/// One row for each operation, in the order of Op; and that of one.
std::span<const OpRow> op_table();
const OpRow& row(Op op);

/// The single result of an operation of one.
double folded(Op op, const double* x);

} // namespace kasuri::ir
