#include "ir/op.hpp"

#include "base/table.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace kasuri::ir {
namespace {

constexpr double nan_value = std::numeric_limits<double>::quiet_NaN();

/// A NaN in is a NaN out, whichever operand it is (unlike std::min and IEEE minNum).
double min_nan(double a, double b) { return std::isnan(a) || std::isnan(b) ? nan_value : (b < a ? b : a); }
double max_nan(double a, double b) { return std::isnan(a) || std::isnan(b) ? nan_value : (a < b ? b : a); }

std::uint32_t bits(double x) { return static_cast<std::uint32_t>(std::clamp(x, 0.0, 16777216.0)); }

/// Value below which the hexcone's own value is taken as this, so that saturation stays finite.
constexpr double hexcone_tiny = 1e-20;

void to_hexcone(const double* x, double* out) {
    const double most = max_nan(max_nan(x[0], x[1]), x[2]);
    const double spread = most - min_nan(min_nan(x[0], x[1]), x[2]);
    if (spread == 0) {
        out[0] = out[1] = 0;
        out[2] = most;
        return;
    }
    const double value = std::fabs(most) < hexcone_tiny ? hexcone_tiny : most;
    const double angle = x[0] == most ? (x[1] - x[2]) / spread
        : x[1] == most                ? 2 + (x[2] - x[0]) / spread
                                      : 4 + (x[0] - x[1]) / spread;
    out[0] = 60 * (angle < 0 ? angle + 6 : angle);
    out[1] = spread / value;
    out[2] = value;
}

void from_hexcone(const double* x, double* out) {
    for (int channel = 0; channel < 3; ++channel) {
        constexpr double offset[3] = {0, 240, 120}; // brings the channel's own hue to 0
        double own = x[0] - 360 * std::floor(x[0] / 360) + offset[channel];
        own = own >= 360 ? own - 360 : own;
        const double tent = min_nan(max_nan((min_nan(own, 360 - own) - 60) / 60, 0), 1);
        out[channel] = x[2] - x[2] * x[1] * tent;
    }
}

template <int which, void (*all)(const double*, double*)>
void part(const double* x, double* out) {
    double three[3];
    all(x, three);
    out[0] = three[which];
}

double smooth(double share) {
    const double t = min_nan(max_nan(share, 0), 1);
    return t * t * (3 - 2 * t);
}
double segment(double x, const double* u) {
    return x <= u[1] ? u[2] * x + u[3] : u[8] * std::pow((x + u[4]) * u[5] + u[6], u[7]) + u[9];
}

using X = const double*;
using R = double*;

constexpr std::array rows = {
    OpRow{Op::constant, "constant", 0, nullptr},
    OpRow{Op::uniform, "uniform", 0, nullptr},
    OpRow{Op::input, "input", 0, nullptr},
    OpRow{Op::neg, "neg", 1, [](X x, R r) { *r = -x[0]; }},
    OpRow{Op::abs, "abs", 1, [](X x, R r) { *r = std::fabs(x[0]); }},
    OpRow{Op::floor, "floor", 1, [](X x, R r) { *r = std::floor(x[0]); }},
    OpRow{Op::ceil, "ceil", 1, [](X x, R r) { *r = std::ceil(x[0]); }},
    OpRow{Op::trunc, "trunc", 1, [](X x, R r) { *r = std::trunc(x[0]); }},
    OpRow{Op::round_even, "round_even", 1, [](X x, R r) { *r = std::nearbyint(x[0]); }},
    OpRow{Op::sqrt, "sqrt", 1, [](X x, R r) { *r = std::sqrt(x[0]); }},
    OpRow{Op::exp2, "exp2", 1, [](X x, R r) { *r = std::exp2(x[0]); }},
    OpRow{Op::log2, "log2", 1, [](X x, R r) { *r = std::log2(x[0]); }},
    OpRow{Op::sin, "sin", 1, [](X x, R r) { *r = std::sin(x[0]); }},
    OpRow{Op::cos, "cos", 1, [](X x, R r) { *r = std::cos(x[0]); }},
    OpRow{Op::logical_not, "not", 1, [](X x, R r) { *r = x[0] == 0 ? 1.0 : 0.0; }},
    OpRow{Op::is_nan, "is_nan", 1, [](X x, R r) { *r = std::isnan(x[0]) ? 1.0 : 0.0; }},
    OpRow{Op::add, "add", 2, [](X x, R r) { *r = x[0] + x[1]; }},
    OpRow{Op::sub, "sub", 2, [](X x, R r) { *r = x[0] - x[1]; }},
    OpRow{Op::mul, "mul", 2, [](X x, R r) { *r = x[0] * x[1]; }},
    OpRow{Op::div, "div", 2, [](X x, R r) { *r = x[0] / x[1]; }},
    OpRow{Op::min, "min", 2, [](X x, R r) { *r = min_nan(x[0], x[1]); }},
    OpRow{Op::max, "max", 2, [](X x, R r) { *r = max_nan(x[0], x[1]); }},
    OpRow{Op::pow, "pow", 2, [](X x, R r) { *r = std::pow(x[0], x[1]); }},
    OpRow{Op::atan2, "atan2", 2, [](X x, R r) { *r = std::atan2(x[0], x[1]); }},
    OpRow{Op::less, "less", 2, [](X x, R r) { *r = x[0] < x[1] ? 1.0 : 0.0; }},
    OpRow{Op::less_equal, "less_equal", 2, [](X x, R r) { *r = x[0] <= x[1] ? 1.0 : 0.0; }},
    OpRow{Op::equal, "equal", 2, [](X x, R r) { *r = x[0] == x[1] ? 1.0 : 0.0; }},
    OpRow{Op::logical_and, "and", 2, [](X x, R r) { *r = x[0] != 0 && x[1] != 0 ? 1.0 : 0.0; }},
    OpRow{Op::logical_or, "or", 2, [](X x, R r) { *r = x[0] != 0 || x[1] != 0 ? 1.0 : 0.0; }},
    OpRow{Op::bit_and, "bit_and", 2, [](X x, R r) { *r = bits(x[0]) & bits(x[1]); }},
    OpRow{Op::bit_or, "bit_or", 2, [](X x, R r) { *r = bits(x[0]) | bits(x[1]); }},
    OpRow{Op::bit_xor, "bit_xor", 2, [](X x, R r) { *r = bits(x[0]) ^ bits(x[1]); }},
    OpRow{Op::fma, "fma", 3, [](X x, R r) { *r = std::fma(x[0], x[1], x[2]); }},
    OpRow{Op::select, "select", 3, [](X x, R r) { *r = x[0] != 0 ? x[1] : x[2]; }},
    OpRow{Op::hexcone_h, "hexcone_h", 3, part<0, to_hexcone>},
    OpRow{Op::hexcone_s, "hexcone_s", 3, part<1, to_hexcone>},
    OpRow{Op::hexcone_v, "hexcone_v", 3, part<2, to_hexcone>},
    OpRow{Op::hexcone_r, "hexcone_r", 3, part<0, from_hexcone>},
    OpRow{Op::hexcone_g, "hexcone_g", 3, part<1, from_hexcone>},
    OpRow{Op::hexcone_b, "hexcone_b", 3, part<2, from_hexcone>},
    OpRow{Op::external, "external", 3, nullptr, 3}, // the graph and the run see to it
    OpRow{Op::fms, "fms", 3, [](X x, R r) { *r = std::fma(x[0], x[1], -x[2]); }},
    OpRow{Op::fnma, "fnma", 3, [](X x, R r) { *r = std::fma(-x[0], x[1], x[2]); }},
    OpRow{Op::select_less, "select_less", 4, [](X x, R r) { *r = x[0] < x[1] ? x[2] : x[3]; }},
    OpRow{Op::select_less_equal, "select_less_equal", 4, [](X x, R r) { *r = x[0] <= x[1] ? x[2] : x[3]; }},
    OpRow{Op::select_equal, "select_equal", 4, [](X x, R r) { *r = x[0] == x[1] ? x[2] : x[3]; }},
    OpRow{Op::clamp, "clamp", 3, [](X x, R r) { *r = min_nan(max_nan(x[0], x[1]), x[2]); }},
    OpRow{Op::mix, "mix", 3, [](X x, R r) { *r = x[0] * (1 - x[2]) + x[1] * x[2]; }},
    OpRow{Op::smooth, "smooth", 3, [](X x, R r) { *r = smooth((x[0] - x[1]) * x[2]); }},
    OpRow{Op::cube, "cube", 1, [](X x, R r) { *r = x[0] * x[0] * x[0]; }},
    OpRow{Op::round_scaled, "round_scaled", 2, [](X x, R r) { *r = std::nearbyint(x[0] * x[1]); }},
    OpRow{Op::floor_scaled, "floor_scaled", 2, [](X x, R r) { *r = std::floor(x[0] * x[1]); }},
    OpRow{Op::to_code, "to_code", 2, [](X x, R r) { *r = std::nearbyint(min_nan(max_nan(x[0], 0), 1) * x[1]); }},
    OpRow{Op::unless_nan, "unless_nan", 3, [](X x, R r) { *r = std::isnan(x[0]) ? x[0] : x[1] * x[2]; }},
    OpRow{Op::pow_uniform, "pow_uniform", 2, [](X x, R r) { *r = std::pow(x[0], x[1]); }},
    OpRow{Op::signed_power, "signed_power", 2, [](X x, R r) { *r = (x[0] < 0 ? -1 : 1) * std::pow(std::fabs(x[0]), x[1]); }},
    OpRow{Op::linear2, "linear2", 4, [](X x, R r) { *r = x[2] * x[0] + x[3] * x[1]; }},
    OpRow{Op::linear3, "linear3", 7, [](X x, R r) { *r = x[3] * x[0] + x[4] * x[1] + x[5] * x[2] + x[6]; }},
    OpRow{Op::power_segment, "power_segment", 10, [](X x, R r) { *r = segment(x[0], x); }},
    OpRow{Op::mirrored_segment, "mirrored_segment", 10, [](X x, R r) { *r = (x[0] < 0 ? -1 : 1) * segment(std::fabs(x[0]), x); }},
    OpRow{Op::exp_segment, "exp_segment", 7, [](X x, R r) { *r = x[0] <= x[1] ? x[2] * x[0] + x[3] : min_nan(std::exp2(x[4] * x[0] + x[5]), x[6]); }},
    OpRow{Op::log_segment, "log_segment", 8, [](X x, R r) { *r = x[0] <= x[1] ? x[2] * x[0] + x[3] : x[6] * std::log2(x[4] * x[0] + x[5]) + x[7]; }},
    OpRow{Op::matrix3, "matrix3", 15,
          [](X x, R r) {
              for (int i = 0; i < 3; ++i)
                  r[i] = x[3 + 4 * i] * x[0] + x[4 + 4 * i] * x[1] + x[5 + 4 * i] * x[2] + x[6 + 4 * i];
          },
          3},
    OpRow{Op::matrix3_apart, "matrix3_apart", 15,
          [](X x, R r) {
              for (int i = 0; i < 3; ++i)
                  r[i] = x[3 + 4 * i] * x[0] + x[4 + 4 * i] * (x[1] - x[0]) + x[5 + 4 * i] * (x[2] - x[0]) + x[6 + 4 * i];
          },
          3},
    OpRow{Op::opponent3, "opponent3", 11,
          [](X x, R r) {
              const double u = x[1] - x[0], v = x[2] - x[0];
              r[0] = x[3] * x[0] + x[4] * u + x[5] * v + x[6];
              r[1] = x[7] * u + x[8] * v;
              r[2] = x[9] * u + x[10] * v;
          },
          3},
    OpRow{Op::blend3, "blend3", 12,
          [](X x, R r) {
              for (int i = 3; i < 6; ++i)
                  r[i - 3] = x[0] * x[i] + x[1] * x[i + 3] + x[2] * x[i + 6];
          },
          3},
    OpRow{Op::to_hexcone, "to_hexcone", 3, to_hexcone, 3},
    OpRow{Op::from_hexcone, "from_hexcone", 3, from_hexcone, 3},
};
static_assert(rows_in_order(rows, &OpRow::op), "op_table rows stand in the order of Op");

} // namespace

std::span<const OpRow> op_table() { return rows; }

const OpRow& row(Op op) { return rows[static_cast<std::size_t>(op)]; }

double folded(Op op, const double* x) {
    double result[max_results];
    row(op).fold(x, result);
    return result[0];
}

} // namespace kasuri::ir
