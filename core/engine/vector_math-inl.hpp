// Per-target header: included once for each instruction set, inside HWY_NAMESPACE. The polynomials are minimax
// fits (Remez, relative error); their truncation error stands beside them and is below float rounding.
#if defined(KASURI_VECTOR_MATH_INL) == defined(HWY_TARGET_TOGGLE)
#ifdef KASURI_VECTOR_MATH_INL
#undef KASURI_VECTOR_MATH_INL
#else
#define KASURI_VECTOR_MATH_INL
#endif

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
HWY_INLINE V NaN() { return Const(__builtin_nanf("")); }
HWY_INLINE V Infinity() { return Const(__builtin_inff()); }

// On x86, Min and Max give their second operand if either is NaN. So a NaN in b comes through by itself; a NaN in
// a has to be put back, unless a is known to be a number.
HWY_INLINE V MaxOf(V number, V x) { return hn::Max(number, x); }
HWY_INLINE V MinOf(V number, V x) { return hn::Min(number, x); }
HWY_INLINE V MaxNaN(V a, V b) { return hn::IfThenElse(hn::IsNaN(a), a, hn::Max(a, b)); }
HWY_INLINE V MinNaN(V a, V b) { return hn::IfThenElse(hn::IsNaN(a), a, hn::Min(a, b)); }
HWY_INLINE V Clamp01(V x) { return MinOf(Const(1.0f), MaxOf(hn::Zero(D()), x)); }

/// log2 x for x > 0 that is neither subnormal nor infinite: x = 2^e m, m in [sqrt 1/2, sqrt 2), and a polynomial of
/// degree 8 in m - 1 (2.6e-8). No division: these chains wait for latency, and so Estrin's order.
HWY_INLINE V Log2Positive(V x) {
    const D d;
    const DI di;
    const auto bits = hn::BitCast(di, x);
    // Subtracting the bits of sqrt(1/2) moves the switch of the exponent there.
    const auto exponent = hn::ShiftRight<23>(hn::Sub(bits, hn::Set(di, 0x3F3504F3)));
    const V m = hn::BitCast(d, hn::Sub(bits, hn::ShiftLeft<23>(exponent)));
    const V e = hn::ConvertTo(d, exponent);
    const V t = hn::Sub(m, Const(1.0f));
    const V t2 = hn::Mul(t, t);
    const V t4 = hn::Mul(t2, t2);
    const V p01 = hn::MulAdd(t, Const(-0.721347347f), Const(1.442695f));
    const V p23 = hn::MulAdd(t, Const(-0.360703683f), Const(0.480910643f));
    const V p45 = hn::MulAdd(t, Const(-0.23894482f), Const(0.287916249f));
    const V p67 = hn::MulAdd(t, Const(-0.20726975f), Const(0.215715599f));
    const V low = hn::MulAdd(t2, p23, p01);
    const V high = hn::MulAdd(t2, p67, p45);
    const V top = hn::MulAdd(t4, Const(0.12583704f), high);
    return hn::MulAdd(t, hn::MulAdd(t4, top, low), e);
}

/// log2: -inf at 0 (subnormal numbers count as 0), NaN below, inf at inf.
HWY_INLINE V Log2(V x) {
    V result = Log2Positive(x);
    result = hn::IfThenElse(hn::Lt(x, Infinity()), result, x); // infinity and NaN are themselves
    result = hn::IfThenElse(hn::Lt(x, Const(1.17549435e-38f)), hn::Neg(Infinity()), result);
    return hn::IfThenElse(hn::Lt(x, hn::Zero(D())), NaN(), result);
}

/// 2^x = 2^n 2^f with f in [-1/2, 1/2]: a polynomial of degree 6 (1.9e-9). Results below 2^-126 are 0.
HWY_INLINE V Exp2(V x) {
    const D d;
    const DI di;
    const V bounded = MinOf(Const(128.0f), MaxOf(Const(-126.0f), x));
    // Adding 3 * 2^22 leaves the nearest whole number in the low bits.
    const V shifted = hn::Add(bounded, Const(12582912.0f));
    const V f = hn::Sub(bounded, hn::Sub(shifted, Const(12582912.0f)));
    const V f2 = hn::Mul(f, f);
    const V f4 = hn::Mul(f2, f2);
    const V p01 = hn::MulAdd(f, Const(0.693147206f), Const(1.0f));
    const V p23 = hn::MulAdd(f, Const(0.0555032878f), Const(0.240226469f));
    const V p45 = hn::MulAdd(f, Const(0.00133999312f), Const(0.00961848896f));
    const V low = hn::MulAdd(f2, p23, p01);
    const V high = hn::MulAdd(f2, Const(0.00015345811f), p45);
    const V p = hn::MulAdd(f4, high, low);
    // n is added to the exponent of p: 128 makes the bits of infinity of 1, and a number of what is below 1.
    const auto scaled = hn::Add(hn::BitCast(di, p), hn::ShiftLeft<23>(hn::BitCast(di, shifted)));
    // Below, 0; and a NaN, which is below nothing, is itself.
    return hn::IfThenElse(hn::Ge(x, Const(-126.0f)), hn::BitCast(d, scaled), MaxOf(hn::Zero(d), x));
}

/// An exponent that is the same for all lanes, looked at once.
struct Exponent {
    V y;
    bool simple = false; ///< finite and not 0
    bool whole = false;
    bool odd = false;

    explicit HWY_INLINE Exponent(float value) : y(Const(value)) {
        simple = value - value == 0 && value != 0;
        whole = simple && __builtin_floorf(value) == value;
        odd = whole && __builtin_floorf(value * 0.5f) != value * 0.5f;
    }
};

/// std::pow by ISO C17 F.10.4.4, but for the sign of a zero base.
HWY_INLINE V Pow(V x, V y) {
    const D d;
    const V zero = hn::Zero(d);
    const V one = Const(1.0f);
    const V size = hn::Abs(x);
    V result = Exp2(hn::Mul(y, Log2(size)));
    const auto negative = hn::Lt(x, zero);
    const auto whole = hn::Eq(hn::Floor(y), y); // true for infinities
    const V half = hn::Mul(y, Const(0.5f));
    const auto odd = hn::And(whole, hn::Ne(hn::Floor(half), half));
    result = hn::IfThenElse(hn::And(negative, odd), hn::Neg(result), result);
    const auto undefined = hn::And(hn::And(negative, hn::Not(whole)), hn::Lt(size, Infinity()));
    result = hn::IfThenElse(undefined, NaN(), result);
    result = hn::IfThenElse(hn::And(hn::Eq(size, one), hn::Eq(hn::Abs(y), Infinity())), one, result);
    return hn::IfThenElse(hn::Or(hn::Eq(y, zero), hn::Eq(x, one)), one, result);
}

/// The same for an exponent that is not a whole number: a third of the cases are gone.
HWY_INLINE V PowFraction(V x, const Exponent& e) {
    const V size = hn::Abs(x);
    V log = Log2Positive(size);
    log = hn::IfThenElse(hn::Lt(size, Infinity()), log, size);
    log = hn::IfThenElse(hn::Lt(size, Const(1.17549435e-38f)), hn::Neg(Infinity()), log);
    const V result = Exp2(hn::Mul(e.y, log));
    return hn::IfThenElse(hn::And(hn::Lt(x, hn::Zero(D())), hn::Gt(x, hn::Neg(Infinity()))), NaN(), result);
}

HWY_INLINE V PowWhole(V x, const Exponent& e) {
    const V result = Exp2(hn::Mul(e.y, Log2(hn::Abs(x))));
    return e.odd ? hn::CopySign(result, x) : result;
}

/// Hexcone of Smith (1978): see colour/models/hsv.cpp for what happens outside 0..1.
struct Three {
    V x, y, z;
};

HWY_INLINE Three ToHexcone(V r, V g, V b) {
    const D d;
    const V zero = hn::Zero(d);
    const V largest = MaxNaN(r, MaxNaN(g, b));
    const V smallest = MinNaN(r, MinNaN(g, b));
    const V spread = hn::Sub(largest, smallest);
    const auto neutral = hn::Eq(spread, zero);
    const auto red_leads = hn::Eq(r, largest);
    const auto green_leads = hn::Eq(g, largest);
    const V difference =
        hn::IfThenElse(red_leads, hn::Sub(g, b), hn::IfThenElse(green_leads, hn::Sub(b, r), hn::Sub(r, g)));
    const V start = hn::IfThenElse(red_leads, zero, hn::IfThenElse(green_leads, Const(120.0f), Const(240.0f)));
    const V angle = hn::MulAdd(Const(60.0f), hn::Div(difference, spread), start);
    const V wrapped = hn::IfThenElse(hn::Lt(angle, zero), hn::Add(angle, Const(360.0f)), angle);
    const V safe = hn::IfThenElse(hn::Lt(hn::Abs(largest), Const(1e-20f)), Const(1e-20f), largest);
    return {hn::IfThenElse(neutral, zero, wrapped), hn::IfThenElse(neutral, zero, hn::Div(spread, safe)),
            hn::IfThenElse(neutral, largest, safe)};
}

/// One channel: v - v s k, with k a tent of the distance of the hue (0..360) from the channel's own.
HWY_INLINE V HexconeChannel(V hue, V value, V chroma, float offset) {
    V own = hue;
    if (offset != 0) {
        const V shifted = hn::Add(hue, Const(offset));
        own = hn::IfThenElse(hn::Ge(shifted, Const(360.0f)), hn::Sub(shifted, Const(360.0f)), shifted);
    }
    const V away = hn::Min(hn::Sub(Const(360.0f), own), own);
    const V tent = Clamp01(hn::Mul(hn::Sub(away, Const(60.0f)), Const(1.0f / 60)));
    return hn::NegMulAdd(chroma, tent, value);
}

HWY_INLINE Three FromHexcone(V h, V s, V v) {
    const V turns = hn::Floor(hn::Mul(h, Const(1.0f / 360)));
    const V hue = hn::NegMulAdd(Const(360.0f), turns, h);
    const V chroma = hn::Mul(v, s);
    return {HexconeChannel(hue, v, chroma, 0), HexconeChannel(hue, v, chroma, 240),
            HexconeChannel(hue, v, chroma, 120)};
}

/// std::atan2, signs of zeros apart.
HWY_INLINE V Atan2(V y, V x) {
    const D d;
    const V zero = hn::Zero(d);
    const V ax = hn::Abs(x), ay = hn::Abs(y);
    const V small = MinNaN(ax, ay), large = MaxNaN(ax, ay);
    V ratio = hn::Div(small, large);
    ratio = hn::IfThenElse(hn::Eq(small, large), hn::IfThenElse(hn::Eq(large, zero), zero, Const(1.0f)), ratio);
    V angle = hn::Atan(d, ratio);
    angle = hn::IfThenElse(hn::Lt(ax, ay), hn::Sub(Const(1.57079633f), angle), angle);
    angle = hn::IfThenElse(hn::Lt(x, zero), hn::Sub(Const(3.14159265f), angle), angle);
    angle = hn::IfThenElse(hn::Lt(y, zero), hn::Neg(angle), angle);
    return hn::IfThenElse(hn::IsNaN(large), large, angle);
}

} // namespace kasuri::engine::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif
