#include "ir/op.hpp"

#include "base/table.hpp"

#include <array>
#include <cmath>
#include <limits>

namespace kasuri::ir {
namespace {

constexpr double nan_value = std::numeric_limits<double>::quiet_NaN();

/// A NaN in is a NaN out, whichever operand it is (unlike std::min and IEEE minNum).
double min_nan(double a, double b, double) {
    return std::isnan(a) || std::isnan(b) ? nan_value : (b < a ? b : a);
}
double max_nan(double a, double b, double) {
    return std::isnan(a) || std::isnan(b) ? nan_value : (a < b ? b : a);
}

constexpr std::array rows = {
    OpRow{Op::constant, "constant", 0, nullptr},
    OpRow{Op::uniform, "uniform", 0, nullptr},
    OpRow{Op::input, "input", 0, nullptr},
    OpRow{Op::neg, "neg", 1, [](double a, double, double) { return -a; }},
    OpRow{Op::abs, "abs", 1, [](double a, double, double) { return std::fabs(a); }},
    OpRow{Op::floor, "floor", 1, [](double a, double, double) { return std::floor(a); }},
    OpRow{Op::ceil, "ceil", 1, [](double a, double, double) { return std::ceil(a); }},
    OpRow{Op::trunc, "trunc", 1, [](double a, double, double) { return std::trunc(a); }},
    OpRow{Op::round_even, "round_even", 1, [](double a, double, double) { return std::nearbyint(a); }},
    OpRow{Op::sqrt, "sqrt", 1, [](double a, double, double) { return std::sqrt(a); }},
    OpRow{Op::exp2, "exp2", 1, [](double a, double, double) { return std::exp2(a); }},
    OpRow{Op::log2, "log2", 1, [](double a, double, double) { return std::log2(a); }},
    OpRow{Op::sin, "sin", 1, [](double a, double, double) { return std::sin(a); }},
    OpRow{Op::cos, "cos", 1, [](double a, double, double) { return std::cos(a); }},
    OpRow{Op::logical_not, "not", 1, [](double a, double, double) { return a == 0 ? 1.0 : 0.0; }},
    OpRow{Op::is_nan, "is_nan", 1, [](double a, double, double) { return std::isnan(a) ? 1.0 : 0.0; }},
    OpRow{Op::add, "add", 2, [](double a, double b, double) { return a + b; }},
    OpRow{Op::sub, "sub", 2, [](double a, double b, double) { return a - b; }},
    OpRow{Op::mul, "mul", 2, [](double a, double b, double) { return a * b; }},
    OpRow{Op::div, "div", 2, [](double a, double b, double) { return a / b; }},
    OpRow{Op::min, "min", 2, min_nan},
    OpRow{Op::max, "max", 2, max_nan},
    OpRow{Op::pow, "pow", 2, [](double a, double b, double) { return std::pow(a, b); }},
    OpRow{Op::less, "less", 2, [](double a, double b, double) { return a < b ? 1.0 : 0.0; }},
    OpRow{Op::less_equal, "less_equal", 2, [](double a, double b, double) { return a <= b ? 1.0 : 0.0; }},
    OpRow{Op::equal, "equal", 2, [](double a, double b, double) { return a == b ? 1.0 : 0.0; }},
    OpRow{Op::logical_and, "and", 2, [](double a, double b, double) { return a != 0 && b != 0 ? 1.0 : 0.0; }},
    OpRow{Op::logical_or, "or", 2, [](double a, double b, double) { return a != 0 || b != 0 ? 1.0 : 0.0; }},
    OpRow{Op::fma, "fma", 3, [](double a, double b, double c) { return std::fma(a, b, c); }},
    OpRow{Op::select, "select", 3, [](double a, double b, double c) { return a != 0 ? b : c; }},
};
static_assert(rows_in_order(rows, &OpRow::op), "op_table rows stand in the order of Op");

} // namespace

std::span<const OpRow> op_table() { return rows; }

const OpRow& row(Op op) { return rows[static_cast<std::size_t>(op)]; }

} // namespace kasuri::ir
