#define HWY_WANT_SSE4 1
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE                                                                                             \
    KASURI_HANDWRITTEN // this file, by its whole path: the folder holds scripts, and must not be searched for headers
#include <hwy/foreach_target.h> // must come before highway.h
#include <hwy/highway.h>

#include "engine/vector_math-inl.hpp"
#include "handwritten.hpp"
#include "handwritten_loop-inl.hpp"

HWY_BEFORE_NAMESPACE();
namespace kasuri::bench::HWY_NAMESPACE {

HWY_INLINE V Decode(V x) {
    const V curved = PowPositive(hn::MulAdd(x, Const(1 / 1.055f), Const(0.055f / 1.055f)), 2.4f);
    return hn::IfThenElse(hn::Le(x, Const(0.04045f)), hn::Mul(x, Const(1 / 12.92f)), curved);
}
HWY_INLINE V Encode(V x) {
    const V curved = hn::MulSub(Const(1.055f), PowPositive(x, 1 / 2.4f), Const(0.055f));
    return hn::IfThenElse(hn::Le(x, Const(0.0031308f)), hn::Mul(x, Const(12.92f)), curved);
}

HWY_INLINE Rgb A(const Rgb& c) {
    return {hn::Add(Row(c, 0.7f, 0.2f, 0.1f), Const(0.01f)), Row(c, 0.1f, 0.8f, 0.1f),
            hn::Sub(Row(c, 0.05f, 0.15f, 0.8f), Const(0.01f))};
}
HWY_INLINE Rgb B(const Rgb& c) {
    const Rgb d = {Decode(c.r), Decode(c.g), Decode(c.b)};
    return {Encode(Row(d, 0.7f, 0.2f, 0.1f)), Encode(Row(d, 0.1f, 0.8f, 0.1f)), Encode(Row(d, 0.05f, 0.15f, 0.8f))};
}
HWY_INLINE Rgb C(const Rgb& c) {
    const Three hsv = ToHexcone(c.r, c.g, c.b);
    const Three back = FromHexcone(hn::Add(hsv.x, Const(20.0f)), hn::Mul(hsv.y, Const(0.8f)), hsv.z);
    return {back.x, back.y, back.z};
}
HWY_INLINE V Root(V x) {
    return hn::IfThenElse(hn::Gt(x, Const(0.008856f)), PowPositive(x, 1 / 3.0f),
                          hn::MulAdd(Const(7.787f), x, Const(0.13793f)));
}
HWY_INLINE V Cube(V x) {
    return hn::IfThenElse(hn::Gt(x, Const(0.20690f)), hn::Mul(hn::Mul(x, x), x),
                          hn::Mul(hn::Sub(x, Const(0.13793f)), Const(1 / 7.787f)));
}
HWY_INLINE Rgb DLab(const Rgb& c) {
    const V fx = Root(Row(c, 0.4339f, 0.3762f, 0.1898f)), fy = Root(Row(c, 0.2127f, 0.7152f, 0.0722f)),
            fz = Root(Row(c, 0.0178f, 0.1095f, 0.8728f));
    const V l = hn::MulSub(Const(116.0f), fy, Const(16.0f));
    const V a = hn::Mul(Const(600.0f), hn::Sub(fx, fy)), b = hn::MulAdd(Const(200.0f), hn::Sub(fy, fz), Const(4.0f));
    const V ky = hn::Mul(hn::Add(l, Const(16.0f)), Const(1 / 116.0f));
    const Rgb q = {Cube(hn::MulAdd(a, Const(1 / 500.0f), ky)), Cube(ky), Cube(hn::NegMulAdd(b, Const(1 / 200.0f), ky))};
    const Rgb back = {Row(q, 3.0799f, -1.5372f, -0.5427f), Row(q, -0.9212f, 1.8760f, 0.0452f),
                      Row(q, 0.0529f, -0.2040f, 1.1512f)};
    const V t = Clamp01(hn::Mul(hn::Sub(c.g, Const(0.1f)), Const(2.0f)));
    const V share = hn::Mul(hn::Mul(t, t), hn::NegMulAdd(Const(2.0f), t, Const(3.0f)));
    const V rest = hn::Sub(Const(1.0f), share);
    return {hn::MulAdd(back.r, share, hn::Mul(c.r, rest)), hn::MulAdd(back.g, share, hn::Mul(c.g, rest)),
            hn::MulAdd(back.b, share, hn::Mul(c.b, rest))};
}
HWY_INLINE Rgb E(const Rgb& c) { return DLab(C(B(c))); }

HandWritten Find(char workload) {
    switch (workload) {
    case 'a': return Loop<A>;
    case 'b': return Loop<B>;
    case 'c': return Loop<C>;
    case 'd': return Loop<DLab>;
    default: return Loop<E>;
    }
}

} // namespace kasuri::bench::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace kasuri::bench {
HWY_EXPORT(Find);
HandWritten handwritten(char workload) { return HWY_DYNAMIC_DISPATCH(Find)(workload); }

void choose_handwritten(const std::string& set) {
    for (const std::int64_t target : hwy::SupportedAndGeneratedTargets())
        if (hwy::TargetName(target) == set) {
            hwy::SetSupportedTargetsForTest(target);
            hwy::GetChosenTarget().Update(hwy::SupportedTargets());
            return;
        }
}
} // namespace kasuri::bench
#endif
