// One source for every instruction set: Highway includes this file once for each.
#define HWY_WANT_SSE4 1
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "engine/kernels.cpp"
#include <hwy/foreach_target.h> // must come before highway.h
#include <hwy/highway.h>

#include <hwy/contrib/math/math-inl.h>

#include "engine/kernels.hpp"

HWY_BEFORE_NAMESPACE();
namespace kasuri::engine::HWY_NAMESPACE {

namespace hn = hwy::HWY_NAMESPACE;
using D = hn::CappedTag<float, widest_vector>;
using V = hn::Vec<D>;
using DI = hn::RebindToSigned<D>;

HWY_INLINE V Const(float x) { return hn::Set(D(), x); }

/// log2 x = e + log2 m with m in [sqrt 1/2, sqrt 2): 2 atanh((m-1)/(m+1)) / ln 2 as a polynomial in t^2.
/// Truncation error below 2e-9 of the result; -inf at 0, NaN below, subnormals exact.
HWY_INLINE V Log2(V x) {
    const D d;
    const DI di;
    const auto subnormal = hn::Lt(x, Const(1.17549435e-38f));
    const V scaled = hn::IfThenElse(subnormal, hn::Mul(x, Const(8388608.0f)), x);
    const auto bits = hn::BitCast(di, scaled);
    // Subtracting the bits of sqrt(1/2) moves the switch of the exponent there.
    const auto shifted = hn::Sub(bits, hn::Set(di, 0x3F3504F3));
    const auto exponent = hn::ShiftRight<23>(shifted);
    const V m = hn::BitCast(d, hn::Sub(bits, hn::ShiftLeft<23>(exponent)));
    V e = hn::ConvertTo(d, exponent);
    e = hn::Sub(e, hn::IfThenElseZero(subnormal, Const(23.0f)));
    const V t = hn::Div(hn::Sub(m, Const(1.0f)), hn::Add(m, Const(1.0f)));
    const V t2 = hn::Mul(t, t);
    const V t4 = hn::Mul(t2, t2);
    // (2 / ln 2) / (2 k + 1), in Estrin's order: these chains wait for latency.
    const V low = hn::MulAdd(t2, Const(0.961796694f), Const(2.885390082f));
    const V high = hn::MulAdd(t2, Const(0.412198583f), Const(0.577078016f));
    const V top = hn::MulAdd(t4, Const(0.320598898f), high);
    const V p = hn::MulAdd(t4, top, low);
    V result = hn::MulAdd(t, p, e);
    const V infinity = Const(__builtin_inff());
    result = hn::IfThenElse(hn::Eq(x, hn::Zero(d)), hn::Neg(infinity), result);
    result = hn::IfThenElse(hn::Eq(x, infinity), infinity, result);
    return hn::IfThenElse(hn::Or(hn::Lt(x, hn::Zero(d)), hn::IsNaN(x)), Const(__builtin_nanf("")), result);
}

/// 2^x = 2^n 2^f with f in [-1/2, 1/2]: Taylor polynomial of degree 7, truncation error below 6e-9.
HWY_INLINE V Exp2(V x) {
    const D d;
    const DI di;
    const V bounded = hn::Min(hn::Max(x, Const(-160.0f)), Const(130.0f));
    const V n = hn::Round(bounded);
    const V f = hn::Sub(bounded, n);
    const V f2 = hn::Mul(f, f);
    const V f4 = hn::Mul(f2, f2);
    const V p01 = hn::MulAdd(f, Const(0.693147181f), Const(1.0f));
    const V p23 = hn::MulAdd(f, Const(0.0555041087f), Const(0.240226507f));
    const V p45 = hn::MulAdd(f, Const(0.00133335581f), Const(0.00961812911f));
    const V p67 = hn::MulAdd(f, Const(1.52527338e-5f), Const(1.54035304e-4f));
    const V low = hn::MulAdd(f2, p23, p01);
    const V high = hn::MulAdd(f2, p67, p45);
    const V p = hn::MulAdd(f4, high, low);
    // In two halves, so that the ends of the range reach infinity and the subnormals.
    const auto whole = hn::ConvertTo(di, n);
    const auto half = hn::ShiftRight<1>(whole);
    const auto bias = hn::Set(di, 127);
    const V first = hn::BitCast(d, hn::ShiftLeft<23>(hn::Add(half, bias)));
    const V second = hn::BitCast(d, hn::ShiftLeft<23>(hn::Add(hn::Sub(whole, half), bias)));
    const V result = hn::Mul(hn::Mul(p, first), second);
    return hn::IfThenElse(hn::IsNaN(x), x, result);
}

/// std::pow by ISO C17 F.10.4.4, but for the sign of a zero base.
HWY_INLINE V Pow(V x, V y) {
    const D d;
    const V zero = hn::Zero(d);
    const V one = Const(1.0f);
    const V infinity = Const(__builtin_inff());
    const V size = hn::Abs(x);
    V result = Exp2(hn::Mul(y, Log2(size)));
    const auto negative = hn::Lt(x, zero);
    const auto whole = hn::Eq(hn::Floor(y), y); // true for infinities
    const V half = hn::Mul(y, Const(0.5f));
    const auto odd = hn::And(whole, hn::Ne(hn::Floor(half), half));
    result = hn::IfThenElse(hn::And(negative, odd), hn::Neg(result), result);
    const auto undefined = hn::And(hn::And(negative, hn::Not(whole)), hn::Lt(size, infinity));
    result = hn::IfThenElse(undefined, Const(__builtin_nanf("")), result);
    result = hn::IfThenElse(hn::And(hn::Eq(size, one), hn::Eq(hn::Abs(y), infinity)), one, result);
    return hn::IfThenElse(hn::Or(hn::Eq(y, zero), hn::Eq(x, one)), one, result);
}

HWY_INLINE V Truth(hn::Mask<D> mask) { return hn::IfThenElseZero(mask, Const(1.0f)); }
HWY_INLINE hn::Mask<D> True(V x) { return hn::Ne(x, hn::Zero(D())); }

/// A NaN in either operand is a NaN in the result, whatever the processor's own min and max do.
HWY_INLINE V KeepNaN(V a, V b, V result) {
    return hn::IfThenElse(hn::Or(hn::IsNaN(a), hn::IsNaN(b)), hn::Add(a, b), result);
}

template <class F>
HWY_INLINE void Unary(float* target, KernelOperand a, std::size_t count, F f) {
    const D d;
    for (std::size_t i = 0; i < count; i += hn::Lanes(d))
        hn::StoreU(f(hn::LoadU(d, a.data + (i & a.mask))), d, target + i);
}

template <class F>
HWY_INLINE void Binary(float* target, KernelOperand a, KernelOperand b, std::size_t count, F f) {
    const D d;
    for (std::size_t i = 0; i < count; i += hn::Lanes(d))
        hn::StoreU(f(hn::LoadU(d, a.data + (i & a.mask)), hn::LoadU(d, b.data + (i & b.mask))), d, target + i);
}

template <class F>
HWY_INLINE void Ternary(float* target, KernelOperand a, KernelOperand b, KernelOperand c, std::size_t count, F f) {
    const D d;
    for (std::size_t i = 0; i < count; i += hn::Lanes(d))
        hn::StoreU(f(hn::LoadU(d, a.data + (i & a.mask)), hn::LoadU(d, b.data + (i & b.mask)),
                     hn::LoadU(d, c.data + (i & c.mask))),
                   d, target + i);
}

#define KASURI_UNARY(NAME, EXPRESSION)                                                                              \
    void NAME(float* target, KernelOperand a, KernelOperand, KernelOperand, std::size_t count) {                    \
        Unary(target, a, count, [](V x) HWY_ATTR { return EXPRESSION; });                                           \
    }
#define KASURI_BINARY(NAME, EXPRESSION)                                                                             \
    void NAME(float* target, KernelOperand a, KernelOperand b, KernelOperand, std::size_t count) {                  \
        Binary(target, a, b, count, [](V x, V y) HWY_ATTR { return EXPRESSION; });                                  \
    }
#define KASURI_TERNARY(NAME, EXPRESSION)                                                                            \
    void NAME(float* target, KernelOperand a, KernelOperand b, KernelOperand c, std::size_t count) {                \
        Ternary(target, a, b, c, count, [](V x, V y, V z) HWY_ATTR { return EXPRESSION; });                         \
    }

KASURI_UNARY(DoNeg, hn::Neg(x))
KASURI_UNARY(DoAbs, hn::Abs(x))
KASURI_UNARY(DoFloor, hn::Floor(x))
KASURI_UNARY(DoCeil, hn::Ceil(x))
KASURI_UNARY(DoTrunc, hn::Trunc(x))
KASURI_UNARY(DoRound, hn::Round(x))
KASURI_UNARY(DoSqrt, hn::Sqrt(x))
KASURI_UNARY(DoExp2, Exp2(x))
KASURI_UNARY(DoLog2, Log2(x))
// x - x is 0, but NaN where x is infinite, which the library's functions do not look at.
KASURI_UNARY(DoSin, hn::Add(hn::Sin(D(), x), hn::Sub(x, x)))
KASURI_UNARY(DoCos, hn::Add(hn::Cos(D(), x), hn::Sub(x, x)))
KASURI_UNARY(DoNot, Truth(hn::Eq(x, hn::Zero(D()))))
KASURI_UNARY(DoIsNaN, Truth(hn::IsNaN(x)))
KASURI_BINARY(DoAdd, hn::Add(x, y))
KASURI_BINARY(DoSub, hn::Sub(x, y))
KASURI_BINARY(DoMul, hn::Mul(x, y))
KASURI_BINARY(DoDiv, hn::Div(x, y))
KASURI_BINARY(DoMin, KeepNaN(x, y, hn::Min(x, y)))
KASURI_BINARY(DoMax, KeepNaN(x, y, hn::Max(x, y)))
KASURI_BINARY(DoPow, Pow(x, y))
KASURI_BINARY(DoLess, Truth(hn::Lt(x, y)))
KASURI_BINARY(DoLessEqual, Truth(hn::Le(x, y)))
KASURI_BINARY(DoEqual, Truth(hn::Eq(x, y)))
KASURI_BINARY(DoAnd, Truth(hn::And(True(x), True(y))))
KASURI_BINARY(DoOr, Truth(hn::Or(True(x), True(y))))
KASURI_TERNARY(DoFma, hn::MulAdd(x, y, z))
KASURI_TERNARY(DoSelect, hn::IfThenElse(True(x), y, z))

Kernel Find(ir::Op op) {
    using ir::Op;
    switch (op) {
    case Op::constant:
    case Op::uniform:
    case Op::input: return nullptr;
    case Op::neg: return DoNeg;
    case Op::abs: return DoAbs;
    case Op::floor: return DoFloor;
    case Op::ceil: return DoCeil;
    case Op::trunc: return DoTrunc;
    case Op::round_even: return DoRound;
    case Op::sqrt: return DoSqrt;
    case Op::exp2: return DoExp2;
    case Op::log2: return DoLog2;
    case Op::sin: return DoSin;
    case Op::cos: return DoCos;
    case Op::logical_not: return DoNot;
    case Op::is_nan: return DoIsNaN;
    case Op::add: return DoAdd;
    case Op::sub: return DoSub;
    case Op::mul: return DoMul;
    case Op::div: return DoDiv;
    case Op::min: return DoMin;
    case Op::max: return DoMax;
    case Op::pow: return DoPow;
    case Op::less: return DoLess;
    case Op::less_equal: return DoLessEqual;
    case Op::equal: return DoEqual;
    case Op::logical_and: return DoAnd;
    case Op::logical_or: return DoOr;
    case Op::fma: return DoFma;
    case Op::select: return DoSelect;
    }
    return nullptr;
}

const char* Name() { return hwy::TargetName(HWY_TARGET); }

} // namespace kasuri::engine::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace kasuri::engine {
HWY_EXPORT(Find);
HWY_EXPORT(Name);

Kernel kernel(ir::Op op) { return HWY_DYNAMIC_DISPATCH(Find)(op); }
const char* instruction_set() { return HWY_DYNAMIC_DISPATCH(Name)(); }

} // namespace kasuri::engine
#endif
