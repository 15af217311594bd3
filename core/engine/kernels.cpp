// One source for every instruction set: Highway includes this file once for each.
#define HWY_WANT_SSE4 1
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "engine/kernels.cpp"
#include <hwy/foreach_target.h> // must come before highway.h
#include <hwy/highway.h>

#include "engine/kernels.hpp"
#include "engine/vector_math-inl.hpp"

#include <cmath>
#include <cstring>
#include <type_traits>
#include <utility>
#if HWY_ARCH_X86
#include <immintrin.h>
#endif

HWY_BEFORE_NAMESPACE();
namespace kasuri::engine::HWY_NAMESPACE {

HWY_INLINE V Truth(hn::Mask<D> mask) { return hn::IfThenElseZero(mask, Const(1.0f)); }
HWY_INLINE hn::Mask<D> True(V x) { return hn::Ne(x, hn::Zero(D())); }

HWY_INLINE V Read(const KernelOperand& from, std::size_t i) { return hn::LoadU(D(), from.data + (i & from.mask)); }
/// Of an operand that is the same for every pixel.
HWY_INLINE V Same(const KernelOperand& from) { return hn::LoadU(D(), from.data); }

/// What an operand gives to a loop: a vector of each place, or the same one everywhere, which a loop keeps in a
/// register.
struct Lanes {
    const float* from;
    HWY_INLINE V at(std::size_t i) const { return hn::LoadU(D(), from + i); }
};
struct Equal {
    V value;
    HWY_INLINE V at(std::size_t) const { return value; }
};

/// What a function of few instructions costs is the loop around it: it takes four vectors a round. One of many takes
/// one.
enum class Function { light, heavy };

template <Function kind, class F, class... Operands>
HWY_INLINE void Walk(const KernelCall& call, std::size_t count, F f, Operands... operands) {
    const std::size_t lanes = hn::Lanes(D());
    std::size_t i = 0;
    if constexpr (std::is_same_v<decltype(f(operands.at(0)...)), Three>) {
        const auto [tx, ty, tz] = call.targets;
        for (; i < count; i += lanes) {
            const Three made = f(operands.at(i)...);
            hn::StoreU(made.x, D(), tx + i);
            hn::StoreU(made.y, D(), ty + i);
            hn::StoreU(made.z, D(), tz + i);
        }
    } else {
        float* const target = call.targets[0];
        if constexpr (kind == Function::light)
            for (; i + 4 * lanes <= count; i += 4 * lanes) { // a target may be an operand: read before it is written
                const V a = f(operands.at(i)...), b = f(operands.at(i + lanes)...);
                const V c = f(operands.at(i + 2 * lanes)...), d = f(operands.at(i + 3 * lanes)...);
                hn::StoreU(a, D(), target + i);
                hn::StoreU(b, D(), target + i + lanes);
                hn::StoreU(c, D(), target + i + 2 * lanes);
                hn::StoreU(d, D(), target + i + 3 * lanes);
            }
        for (; i < count; i += lanes)
            hn::StoreU(f(operands.at(i)...), D(), target + i);
    }
}

/// f of the first `arity` operands, by a loop of its own for each way in which they are the same for all pixels.
template <std::size_t arity, Function kind, class F, class... Operands>
HWY_INLINE void Map(const KernelCall& call, std::size_t count, F f, Operands... operands) {
    constexpr std::size_t k = sizeof...(operands);
    if constexpr (k == arity)
        Walk<kind>(call, count, f, operands...);
    else if (call.args[k].mask == 0)
        Map<arity, kind>(call, count, f, operands..., Equal{Same(call.args[k])});
    else
        Map<arity, kind>(call, count, f, operands..., Lanes{call.args[k].data});
}

template <class F>
HWY_INLINE void Map1(const KernelCall& call, std::size_t count, F f) {
    Map<1, Function::heavy>(call, count, f);
}
template <class F>
HWY_INLINE void Map2(const KernelCall& call, std::size_t count, F f) {
    Map<2, Function::light>(call, count, f);
}
template <class F>
HWY_INLINE void Map3(const KernelCall& call, std::size_t count, F f) {
    Map<3, Function::light>(call, count, f);
}

#define KASURI_UNARY(NAME, KIND, EXPRESSION)                                                                           \
    void NAME(const KernelCall& call, std::size_t count) {                                                             \
        Map<1, Function::KIND>(call, count, [](V x) HWY_ATTR { return EXPRESSION; });                                  \
    }
#define KASURI_BINARY(NAME, KIND, EXPRESSION)                                                                          \
    void NAME(const KernelCall& call, std::size_t count) {                                                             \
        Map<2, Function::KIND>(call, count, [](V x, V y) HWY_ATTR { return EXPRESSION; });                             \
    }
#define KASURI_TERNARY(NAME, KIND, EXPRESSION)                                                                         \
    void NAME(const KernelCall& call, std::size_t count) {                                                             \
        Map<3, Function::KIND>(call, count, [](V x, V y, V z) HWY_ATTR { return EXPRESSION; });                        \
    }
#define KASURI_CHOICE(NAME, EXPRESSION)                                                                                \
    void NAME(const KernelCall& call, std::size_t count) {                                                             \
        Map<4, Function::light>(call, count,                                                                           \
                                [](V x, V y, V yes, V no) HWY_ATTR { return hn::IfThenElse(EXPRESSION, yes, no); });   \
    }

HWY_INLINE V Whole(V x) { return hn::Min(hn::Max(x, hn::Zero(D())), Const(16777216.0f)); }
template <class F>
HWY_INLINE V Bits(V x, V y, F f) {
    const DI di;
    return hn::ConvertTo(D(), f(hn::ConvertTo(di, Whole(x)), hn::ConvertTo(di, Whole(y))));
}

/// The library's sine and cosine lose the angle beyond 39000 radians; such lanes are rare and are done one by one.
HWY_INLINE V Turned(V x, V near, double (*exact)(double)) {
    const D d;
    if (hn::AllTrue(d, hn::Not(hn::Gt(hn::Abs(x), Const(39000.0f)))))
        return near;
    HWY_ALIGN float angle[hn::MaxLanes(d)], result[hn::MaxLanes(d)];
    hn::Store(x, d, angle);
    hn::Store(near, d, result);
    for (std::size_t i = 0; i < hn::Lanes(d); ++i)
        if (std::fabs(angle[i]) > 39000.0f && std::isfinite(angle[i]))
            result[i] = static_cast<float>(exact(static_cast<double>(angle[i])));
    return hn::Load(d, result);
}

KASURI_UNARY(DoNeg, light, hn::Neg(x))
KASURI_UNARY(DoAbs, light, hn::Abs(x))
KASURI_UNARY(DoFloor, light, hn::Floor(x))
KASURI_UNARY(DoCeil, light, hn::Ceil(x))
KASURI_UNARY(DoTrunc, light, hn::Trunc(x))
KASURI_UNARY(DoRound, light, hn::Round(x))
KASURI_UNARY(DoSqrt, light, hn::Sqrt(x))
KASURI_UNARY(DoExp2, heavy, Exp2(x))
KASURI_UNARY(DoLog2, heavy, Log2(x))
// x - x is 0, but NaN where x is infinite, which the library's functions do not look at.
KASURI_UNARY(DoSin, heavy, hn::Add(Turned(x, hn::Sin(D(), x), std::sin), hn::Sub(x, x)))
KASURI_UNARY(DoCos, heavy, hn::Add(Turned(x, hn::Cos(D(), x), std::cos), hn::Sub(x, x)))
KASURI_UNARY(DoNot, light, Truth(hn::Eq(x, hn::Zero(D()))))
KASURI_UNARY(DoIsNaN, light, Truth(hn::IsNaN(x)))
KASURI_UNARY(DoCube, light, hn::Mul(hn::Mul(x, x), x))
KASURI_BINARY(DoAdd, light, hn::Add(x, y))
KASURI_BINARY(DoSub, light, hn::Sub(x, y))
KASURI_BINARY(DoMul, light, hn::Mul(x, y))
KASURI_BINARY(DoDiv, light, hn::Div(x, y))
KASURI_BINARY(DoMin, light, MinNaN(x, y))
KASURI_BINARY(DoMax, light, MaxNaN(x, y))
KASURI_BINARY(DoPow, heavy, Pow(x, y))
KASURI_BINARY(DoAtan2, heavy, Atan2(x, y))
KASURI_BINARY(DoLess, light, Truth(hn::Lt(x, y)))
KASURI_BINARY(DoLessEqual, light, Truth(hn::Le(x, y)))
KASURI_BINARY(DoEqual, light, Truth(hn::Eq(x, y)))
KASURI_BINARY(DoAnd, light, Truth(hn::And(True(x), True(y))))
KASURI_BINARY(DoOr, light, Truth(hn::Or(True(x), True(y))))
KASURI_BINARY(DoBitAnd, light, Bits(x, y, [](auto a, auto b) HWY_ATTR { return hn::And(a, b); }))
KASURI_BINARY(DoBitOr, light, Bits(x, y, [](auto a, auto b) HWY_ATTR { return hn::Or(a, b); }))
KASURI_BINARY(DoBitXor, light, Bits(x, y, [](auto a, auto b) HWY_ATTR { return hn::Xor(a, b); }))
KASURI_TERNARY(DoFma, light, hn::MulAdd(x, y, z))
KASURI_TERNARY(DoFms, light, hn::MulSub(x, y, z))
KASURI_TERNARY(DoFnma, light, hn::NegMulAdd(x, y, z))
KASURI_TERNARY(DoSelect, light, hn::IfThenElse(True(x), y, z))
KASURI_TERNARY(DoClamp, light, MinNaN(MaxNaN(x, y), z))
KASURI_TERNARY(DoMix, light, hn::MulAdd(y, z, hn::Mul(x, hn::Sub(Const(1.0f), z))))
KASURI_BINARY(DoRoundScaled, light, hn::Round(hn::Mul(x, y)))
KASURI_BINARY(DoFloorScaled, light, hn::Floor(hn::Mul(x, y)))
KASURI_BINARY(DoToCode, light, hn::Round(hn::Mul(MinNaN(MaxNaN(x, hn::Zero(D())), Const(1.0f)), y)))
KASURI_TERNARY(DoUnlessNaN, light, hn::IfThenElse(hn::IsNaN(x), x, hn::Mul(y, z)))
KASURI_CHOICE(DoSelectLess, hn::Lt(x, y))
KASURI_CHOICE(DoSelectLessEqual, hn::Le(x, y))
KASURI_CHOICE(DoSelectEqual, hn::Eq(x, y))
KASURI_TERNARY(DoHexconeH, heavy, ToHexcone(x, y, z).x)
KASURI_TERNARY(DoHexconeS, heavy, ToHexcone(x, y, z).y)
KASURI_TERNARY(DoHexconeV, heavy, ToHexcone(x, y, z).z)
KASURI_TERNARY(DoHexconeR, heavy, FromHexcone(x, y, z).x)
KASURI_TERNARY(DoHexconeG, heavy, FromHexcone(x, y, z).y)
KASURI_TERNARY(DoHexconeB, heavy, FromHexcone(x, y, z).z)

void DoSmooth(const KernelCall& call, std::size_t count) {
    Map3(call, count, [](V x, V low, V scale) HWY_ATTR {
        const V t = Clamp01(hn::Mul(hn::Sub(x, low), scale));
        return hn::Mul(hn::Mul(t, t), hn::NegMulAdd(Const(2.0f), t, Const(3.0f)));
    });
}

void DoPowUniform(const KernelCall& call, std::size_t count) {
    const Exponent e(call.args[1].data[0]);
    if (e.whole)
        Map1(call, count, [e](V x) HWY_ATTR { return PowWhole(x, e); });
    else if (e.simple)
        Map1(call, count, [e](V x) HWY_ATTR { return PowFraction(x, e); });
    else
        DoPow(call, count);
}

template <class Power>
HWY_INLINE void SignedPower(const KernelCall& call, std::size_t count, Power power) {
    Map1(call, count, [=](V x) HWY_ATTR {
        const V size = power(hn::Abs(x));
        return hn::IfThenElse(hn::Lt(x, hn::Zero(D())), hn::Neg(size), size);
    });
}
void DoSignedPower(const KernelCall& call, std::size_t count) {
    const Exponent e(call.args[1].data[0]);
    if (e.whole)
        SignedPower(call, count, [e](V x) HWY_ATTR { return PowWhole(x, e); });
    else if (e.simple)
        SignedPower(call, count, [e](V x) HWY_ATTR { return PowFraction(x, e); });
    else
        SignedPower(call, count, [e](V x) HWY_ATTR { return Pow(x, e.y); });
}

void DoLinear2(const KernelCall& call, std::size_t count) {
    const V a = Same(call.args[2]), b = Same(call.args[3]);
    Map2(call, count, [=](V x, V y) HWY_ATTR { return hn::MulAdd(a, x, hn::Mul(b, y)); });
}

void DoLinear3(const KernelCall& call, std::size_t count) {
    const V a = Same(call.args[3]), b = Same(call.args[4]), c = Same(call.args[5]), d = Same(call.args[6]);
    Map3(call, count, [=](V x, V y, V z) HWY_ATTR { return hn::MulAdd(a, x, hn::MulAdd(b, y, hn::MulAdd(c, z, d))); });
}

/// Of x, y, z; or, apart, of p, x - p and y - p, where p is the first operand.
template <bool apart>
HWY_INLINE void Matrix3(const KernelCall& call, std::size_t count) {
    std::array<V, 12> u;
    for (std::size_t k = 0; k < 12; ++k)
        u[k] = Same(call.args[3 + k]);
    Map<3, Function::heavy>(call, count, [=](V x, V y, V z) HWY_ATTR {
        if constexpr (apart) {
            y = hn::Sub(y, x);
            z = hn::Sub(z, x);
        }
        return Three{hn::MulAdd(u[0], x, hn::MulAdd(u[1], y, hn::MulAdd(u[2], z, u[3]))),
                     hn::MulAdd(u[4], x, hn::MulAdd(u[5], y, hn::MulAdd(u[6], z, u[7]))),
                     hn::MulAdd(u[8], x, hn::MulAdd(u[9], y, hn::MulAdd(u[10], z, u[11])))};
    });
}
void DoMatrix3(const KernelCall& call, std::size_t count) { Matrix3<false>(call, count); }
void DoMatrix3Apart(const KernelCall& call, std::size_t count) { Matrix3<true>(call, count); }

void DoOpponent3(const KernelCall& call, std::size_t count) {
    std::array<V, 8> u;
    for (std::size_t k = 0; k < 8; ++k)
        u[k] = Same(call.args[3 + k]);
    Map<3, Function::heavy>(call, count, [=](V p, V x, V y) HWY_ATTR {
        x = hn::Sub(x, p);
        y = hn::Sub(y, p);
        return Three{hn::MulAdd(u[0], p, hn::MulAdd(u[1], x, hn::MulAdd(u[2], y, u[3]))),
                     hn::MulAdd(u[4], x, hn::Mul(u[5], y)), hn::MulAdd(u[6], x, hn::Mul(u[7], y))};
    });
}

/// (a, b, c, ka.x, ka.y, ka.z, kb.x, ... kc.z): a ka + b kb + c kc, where mostly every operand comes with every pixel.
void DoBlend3(const KernelCall& call, std::size_t count) {
    const auto blend = [&](auto read) HWY_ATTR {
        const auto [tx, ty, tz] = call.targets;
        for (std::size_t i = 0; i < count; i += hn::Lanes(D())) {
            const V a = read(0, i), b = read(1, i), c = read(2, i);
            const V x = hn::MulAdd(c, read(9, i), hn::MulAdd(b, read(6, i), hn::Mul(a, read(3, i))));
            const V y = hn::MulAdd(c, read(10, i), hn::MulAdd(b, read(7, i), hn::Mul(a, read(4, i))));
            const V z = hn::MulAdd(c, read(11, i), hn::MulAdd(b, read(8, i), hn::Mul(a, read(5, i))));
            hn::StoreU(x, D(), tx + i);
            hn::StoreU(y, D(), ty + i);
            hn::StoreU(z, D(), tz + i);
        }
    };
    std::array<const float*, 12> from;
    bool all = true;
    for (std::size_t k = 0; k < from.size(); ++k) {
        from[k] = call.args[k].data;
        all = all && call.args[k].mask != 0;
    }
    if (all)
        blend([&](std::size_t k, std::size_t i) HWY_ATTR { return hn::LoadU(D(), from[k] + i); });
    else
        blend([&](std::size_t k, std::size_t i) HWY_ATTR { return Read(call.args[k], i); });
}

void DoToHexcone(const KernelCall& call, std::size_t count) {
    Map<3, Function::heavy>(call, count, [](V x, V y, V z) HWY_ATTR { return ToHexcone(x, y, z); });
}
void DoFromHexcone(const KernelCall& call, std::size_t count) {
    Map<3, Function::heavy>(call, count, [](V x, V y, V z) HWY_ATTR { return FromHexcone(x, y, z); });
}

/// (x, limit, m, n, p, k, o, e, g, c): x <= limit ? m x + n : g ((x + p) k + o)^e + c
template <class Power>
HWY_INLINE void Segment(const KernelCall& call, std::size_t count, bool mirrored, Power power) {
    const V limit = Same(call.args[1]), m = Same(call.args[2]), n = Same(call.args[3]), p = Same(call.args[4]),
            k = Same(call.args[5]), o = Same(call.args[6]), g = Same(call.args[8]), c = Same(call.args[9]);
    const auto one = [=](V x) HWY_ATTR {
        const V straight = hn::MulAdd(m, x, n);
        const V curved = hn::MulAdd(g, power(hn::MulAdd(hn::Add(x, p), k, o)), c);
        return hn::IfThenElse(hn::Le(x, limit), straight, curved);
    };
    if (mirrored)
        Map1(call, count, [=](V x) HWY_ATTR {
            const V size = one(hn::Abs(x));
            return hn::IfThenElse(hn::Lt(x, hn::Zero(D())), hn::Neg(size), size);
        });
    else
        Map1(call, count, one);
}
HWY_INLINE void AnySegment(const KernelCall& call, std::size_t count, bool mirrored) {
    const Exponent e(call.args[7].data[0]);
    if (call.args[7].data[0] == 3)
        Segment(call, count, mirrored, [](V x) HWY_ATTR { return hn::Mul(hn::Mul(x, x), x); });
    else if (e.whole)
        Segment(call, count, mirrored, [e](V x) HWY_ATTR { return PowWhole(x, e); });
    else if (e.simple) // a base of -inf could only come of a falling one, beyond any picture
        Segment(call, count, mirrored, [e](V x) HWY_ATTR { return Exp2(hn::Mul(e.y, Log2(x))); });
    else
        Segment(call, count, mirrored, [e](V x) HWY_ATTR { return Pow(x, e.y); });
}
void DoPowerSegment(const KernelCall& call, std::size_t count) { AnySegment(call, count, false); }
void DoMirroredSegment(const KernelCall& call, std::size_t count) { AnySegment(call, count, true); }

void DoExpSegment(const KernelCall& call, std::size_t count) {
    const V limit = Same(call.args[1]), m = Same(call.args[2]), n = Same(call.args[3]), k = Same(call.args[4]),
            o = Same(call.args[5]), top = Same(call.args[6]);
    Map1(call, count, [=](V x) HWY_ATTR {
        return hn::IfThenElse(hn::Le(x, limit), hn::MulAdd(m, x, n), MinNaN(Exp2(hn::MulAdd(k, x, o)), top));
    });
}
void DoLogSegment(const KernelCall& call, std::size_t count) {
    const V limit = Same(call.args[1]), m = Same(call.args[2]), n = Same(call.args[3]), k = Same(call.args[4]),
            o = Same(call.args[5]), g = Same(call.args[6]), c = Same(call.args[7]);
    Map1(call, count, [=](V x) HWY_ATTR {
        return hn::IfThenElse(hn::Le(x, limit), hn::MulAdd(m, x, n), hn::MulAdd(g, Log2(hn::MulAdd(k, x, o)), c));
    });
}

Kernel Find(ir::Op op) {
    using ir::Op;
    switch (op) {
    case Op::constant:
    case Op::uniform:
    case Op::input:
    case Op::external: return nullptr; // the worker calls it
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
    case Op::atan2: return DoAtan2;
    case Op::less: return DoLess;
    case Op::less_equal: return DoLessEqual;
    case Op::equal: return DoEqual;
    case Op::logical_and: return DoAnd;
    case Op::logical_or: return DoOr;
    case Op::bit_and: return DoBitAnd;
    case Op::bit_or: return DoBitOr;
    case Op::bit_xor: return DoBitXor;
    case Op::fma: return DoFma;
    case Op::select: return DoSelect;
    case Op::hexcone_h: return DoHexconeH;
    case Op::hexcone_s: return DoHexconeS;
    case Op::hexcone_v: return DoHexconeV;
    case Op::hexcone_r: return DoHexconeR;
    case Op::hexcone_g: return DoHexconeG;
    case Op::hexcone_b: return DoHexconeB;
    case Op::fms: return DoFms;
    case Op::fnma: return DoFnma;
    case Op::select_less: return DoSelectLess;
    case Op::select_less_equal: return DoSelectLessEqual;
    case Op::select_equal: return DoSelectEqual;
    case Op::clamp: return DoClamp;
    case Op::mix: return DoMix;
    case Op::smooth: return DoSmooth;
    case Op::cube: return DoCube;
    case Op::round_scaled: return DoRoundScaled;
    case Op::floor_scaled: return DoFloorScaled;
    case Op::to_code: return DoToCode;
    case Op::unless_nan: return DoUnlessNaN;
    case Op::pow_uniform: return DoPowUniform;
    case Op::signed_power: return DoSignedPower;
    case Op::linear2: return DoLinear2;
    case Op::linear3: return DoLinear3;
    case Op::power_segment: return DoPowerSegment;
    case Op::mirrored_segment: return DoMirroredSegment;
    case Op::exp_segment: return DoExpSegment;
    case Op::log_segment: return DoLogSegment;
    case Op::matrix3: return DoMatrix3;
    case Op::matrix3_apart: return DoMatrix3Apart;
    case Op::opponent3: return DoOpponent3;
    case Op::blend3: return DoBlend3;
    case Op::to_hexcone: return DoToHexcone;
    case Op::from_hexcone: return DoFromHexcone;
    }
    return nullptr;
}

template <class Tag>
HWY_INLINE std::size_t StreamBy(Tag d, const float* from, float* to, std::size_t count) {
    const std::size_t lanes = hn::Lanes(d);
    if (reinterpret_cast<std::uintptr_t>(to) % (lanes * sizeof(float)) != 0)
        return 0;
    std::size_t i = 0;
    for (; i + lanes <= count; i += lanes)
        hn::Stream(hn::LoadU(d, from + i), d, to + i);
    return i;
}

/// Past the caches by vectors, or by the 16 bytes to which every allocator aligns: the processor joins four of them to
/// a line.
void StreamCopy(const float* from, float* to, std::size_t count) {
    std::size_t i = StreamBy(D(), from, to, count);
    if (i == 0)
        i = StreamBy(hn::CappedTag<float, 4>(), from, to, count);
    if (i < count)
        std::memcpy(to + i, from + i, (count - i) * sizeof(float));
}

void ConvolveRows(const float* const* rows, const float* weights, std::size_t rows_count, float* to,
                  std::size_t count) {
    const D d;
    const std::size_t lanes = hn::Lanes(d);
    std::size_t i = 0;
    for (; i + 4 * lanes <= count; i += 4 * lanes) {
        V s0 = hn::Zero(d), s1 = s0, s2 = s0, s3 = s0;
        for (std::size_t k = 0; k < rows_count; ++k) {
            const V w = Const(weights[k]);
            const float* row = rows[k] + i;
            s0 = hn::MulAdd(w, hn::LoadU(d, row), s0);
            s1 = hn::MulAdd(w, hn::LoadU(d, row + lanes), s1);
            s2 = hn::MulAdd(w, hn::LoadU(d, row + 2 * lanes), s2);
            s3 = hn::MulAdd(w, hn::LoadU(d, row + 3 * lanes), s3);
        }
        hn::StoreU(s0, d, to + i);
        hn::StoreU(s1, d, to + i + lanes);
        hn::StoreU(s2, d, to + i + 2 * lanes);
        hn::StoreU(s3, d, to + i + 3 * lanes);
    }
    for (; i < count; ++i) {
        float sum = 0;
        for (std::size_t k = 0; k < rows_count; ++k)
            sum = __builtin_fmaf(weights[k], rows[k][i], sum); // the same bits as in a vector
        to[i] = sum;
    }
}

template <class Pick>
HWY_INLINE void Widen(const float* a, const float* b, float* to, std::size_t count, Pick pick) {
    const D d;
    std::size_t i = 0;
    for (; i + hn::Lanes(d) <= count; i += hn::Lanes(d))
        hn::StoreU(pick(hn::LoadU(d, a + i), pick(hn::LoadU(d, b + i), hn::LoadU(d, to + i))), d, to + i);
    for (; i < count; ++i) {
        const V one = pick(Const(a[i]), pick(Const(b[i]), Const(to[i])));
        to[i] = hn::GetLane(one);
    }
}
void WidenMax(const float* a, const float* b, float* to, std::size_t count) {
    Widen(a, b, to, count, [](V x, V y) HWY_ATTR { return MaxNaN(x, y); });
}
void WidenMin(const float* a, const float* b, float* to, std::size_t count) {
    Widen(a, b, to, count, [](V x, V y) HWY_ATTR { return MinNaN(x, y); });
}

const Kernels* All() {
    static const Kernels all = {Find, StreamCopy, ConvolveRows, WidenMax, WidenMin, hwy::TargetName(HWY_TARGET)};
    return &all;
}

} // namespace kasuri::engine::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include <algorithm>
#include <atomic>

namespace kasuri::engine {
HWY_EXPORT(All);

namespace {
std::atomic<const Kernels*> chosen{nullptr};
} // namespace

const Kernels& kernels() {
    const Kernels* all = chosen.load(std::memory_order_acquire);
    if (!all) {
        all = HWY_DYNAMIC_DISPATCH(All)();
        chosen.store(all, std::memory_order_release);
    }
    return *all;
}

Kernel kernel(ir::Op op) { return kernels().find(op); }

std::vector<std::string> instruction_sets() {
    std::vector<std::string> names;
    for (const std::int64_t target : hwy::SupportedAndGeneratedTargets())
        names.emplace_back(hwy::TargetName(target));
    return names;
}

void choose_instruction_set(const std::string& name) {
    for (const std::int64_t target : hwy::SupportedAndGeneratedTargets())
        if (name.empty() || hwy::TargetName(target) == name) {
            if (name.empty())
                hwy::SetSupportedTargetsForTest(0);
            else
                hwy::SetSupportedTargetsForTest(target);
            hwy::GetChosenTarget().Update(hwy::SupportedTargets());
            chosen.store(HWY_DYNAMIC_DISPATCH(All)(), std::memory_order_release);
            hwy::SetSupportedTargetsForTest(0);
            hwy::GetChosenTarget().Update(hwy::SupportedTargets());
            return;
        }
}

const char* instruction_set() { return kernels().name; }

#if HWY_ARCH_X86
FlushSubnormals::FlushSubnormals() : saved_(_mm_getcsr()) { _mm_setcsr(saved_ | 0x8040u); } // FTZ and DAZ
FlushSubnormals::~FlushSubnormals() { _mm_setcsr(saved_); }
#else
FlushSubnormals::FlushSubnormals() = default;
FlushSubnormals::~FlushSubnormals() = default;
#endif

} // namespace kasuri::engine
#endif
