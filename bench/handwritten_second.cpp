// The second set of workloads (workloads.hpp), which nobody had in mind when the engine was tuned: by hand, as
// handwritten.cpp has the first.
#define HWY_WANT_SSE4 1
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE KASURI_HANDWRITTEN
#include <hwy/foreach_target.h> // must come before highway.h
#include <hwy/highway.h>

#include "engine/vector_math-inl.hpp"
#include "handwritten.hpp"
#include "handwritten_loop-inl.hpp"

HWY_BEFORE_NAMESPACE();
namespace kasuri::bench::HWY_NAMESPACE {

HWY_INLINE Rgb Times(const Nine& m, const Rgb& c) {
    return {Row(c, m[0], m[1], m[2]), Row(c, m[3], m[4], m[5]), Row(c, m[6], m[7], m[8])};
}

HWY_INLINE V CubeRoot(V x) { return hn::CopySign(PowPositive(hn::Abs(x), 1 / 3.0f), x); }
HWY_INLINE V Cubed(V x) { return hn::Mul(hn::Mul(x, x), x); }

/// A mix, chroma and lightness in OKLCh, and a hue that is held: a turn and a scaling in OKLab's plane, for which
/// nobody needs an angle. What lies between the two cube roots is one matrix, and so is what comes before.
HWY_INLINE Rgb G(const Rgb& c) {
    const SecondSet& k = second_set();
    const Rgb cones = Times(k.to_cones, c);
    const Rgb turned = Times(k.between, {CubeRoot(cones.r), CubeRoot(cones.g), CubeRoot(cones.b)});
    return Times(k.from_cones, {Cubed(turned.r), Cubed(turned.g), Cubed(turned.b)});
}

HWY_INLINE V Smooth(V x, float from, float to) {
    const V t = Clamp01(hn::Mul(hn::Sub(x, Const(from)), Const(1 / (to - from))));
    return hn::Mul(hn::Mul(t, t), hn::NegMulAdd(Const(2.0f), t, Const(3.0f)));
}

HWY_INLINE Rgb H(const Rgb& c) {
    const V y = Row(c, 0.212639006f, 0.715168679f, 0.0721923154f);
    const V low = hn::Sub(Const(1.0f), Smooth(y, 0.02f, 0.25f)), high = Smooth(y, 0.4f, 0.9f);
    const V middle = hn::Sub(hn::Sub(Const(1.0f), low), high);
    const Rgb s = {Row(c, 0.9f, 0.05f, 0.05f), Row(c, 0.02f, 0.96f, 0.02f),
                   hn::MulAdd(Const(0.1f), c.g, hn::Mul(Const(0.9f), c.b))};
    const Rgb m = {hn::MulAdd(Const(1.05f), c.r, hn::Mul(Const(-0.05f), c.g)), c.g,
                   hn::MulAdd(Const(-0.02f), c.r, hn::MulAdd(Const(0.02f), c.g, c.b))};
    const Rgb t = {hn::MulAdd(Const(0.96f), c.r, hn::Mul(Const(0.04f), c.g)),
                   hn::MulAdd(Const(0.98f), c.g, hn::Mul(Const(0.02f), c.b)),
                   hn::MulAdd(Const(0.06f), c.r, hn::Mul(Const(0.94f), c.b))};
    const auto laid = [&](V a, V b, V d) { return hn::MulAdd(low, a, hn::MulAdd(middle, b, hn::Mul(high, d))); };
    return {laid(s.r, m.r, t.r), laid(s.g, m.g, t.g), laid(s.b, m.b, t.b)};
}

HWY_INLINE V FromAcescct(V y) {
    const V straight = hn::MulAdd(y, Const(1 / 10.5402377416545f), Const(-0.0729055341958355f / 10.5402377416545f));
    const V curved = Exp2(hn::MulAdd(y, Const(17.52f), Const(-9.72f)));
    return hn::Min(hn::IfThenElse(hn::Le(y, Const(0.155251141552511f)), straight, curved), Const(65504.0f));
}

/// SMPTE ST 2084, mirrored below 0, with the exponents of its table.
HWY_INLINE V ToPq(V light) {
    const V p = PowPositive(hn::Abs(light), 2610.0f / 16384);
    const V above = hn::MulAdd(Const(2413.0f / 128), p, Const(3424.0f / 4096));
    const V below = hn::MulAdd(Const(2392.0f / 128), p, Const(1.0f));
    return hn::CopySign(PowPositive(hn::Div(above, below), 2523.0f / 32), light);
}

HWY_INLINE Rgb I(const Rgb& c) {
    const Rgb light = Times(second_set().to_rec2020, {FromAcescct(c.r), FromAcescct(c.g), FromAcescct(c.b)});
    return {ToPq(light.r), ToPq(light.g), ToPq(light.b)};
}

HWY_INLINE V ToAcescct(V x) {
    const V straight = hn::MulAdd(x, Const(10.5402377416545f), Const(0.0729055341958355f));
    const V curved = hn::MulAdd(Log2(x), Const(1 / 17.52f), Const(9.72f / 17.52f));
    return hn::IfThenElse(hn::Le(x, Const(0.0078125f)), straight, curved);
}

/// IEC 61966-2-1, mirrored below 0.
HWY_INLINE V ToSrgb(V light) {
    const V x = hn::Abs(light);
    const V curved = hn::MulAdd(Const(1.055f), PowPositive(x, 1 / 2.4f), Const(-0.055f));
    return hn::CopySign(hn::IfThenElse(hn::Le(x, Const(0.0031308f)), hn::Mul(x, Const(12.92f)), curved), light);
}
HWY_INLINE V FromSrgb(V code) {
    const V x = hn::Abs(code);
    const V curved = PowPositive(hn::MulAdd(x, Const(1 / 1.055f), Const(0.055f / 1.055f)), 2.4f);
    return hn::CopySign(hn::IfThenElse(hn::Le(x, Const(0.04045f)), hn::Mul(x, Const(1 / 12.92f)), curved), code);
}

HWY_INLINE Rgb Mix(const Rgb& a, const Rgb& b, V share) {
    const V rest = hn::Sub(Const(1.0f), share);
    const auto one = [&](V x, V y) { return hn::MulAdd(y, share, hn::Mul(x, rest)); };
    return {one(a.r, b.r), one(a.g, b.g), one(a.b, b.b)};
}

/// look_of_five.hpp: a mix; contrast of ACEScct at 80 %, which is one of 1.16; saturation under a mask; a turn of hues
/// under another at 70 %; a split tone of sRGB's numbers.
HWY_INLINE Rgb J(const Rgb& in) {
    const SecondSet& k = second_set();
    const Rgb mixed = {in.r, hn::MulAdd(Const(0.7f), in.g, hn::Mul(Const(0.3f), in.b)),
                       hn::MulAdd(Const(0.3f), in.g, hn::Mul(Const(0.7f), in.b))};
    const Rgb ap1 = Times(k.to_ap1, mixed);
    const auto contrast = [](V x) {
        return FromAcescct(hn::MulAdd(ToAcescct(x), Const(1.16f), Const(-0.16f * 0.4135884f)));
    };
    const Rgb c = Times(k.from_ap1, {contrast(ap1.r), contrast(ap1.g), contrast(ap1.b)});

    const V top = hn::Max(hn::Max(c.r, c.g), c.b);
    const V dyed = hn::Mul(Const(0.4f), Smooth(Row(c, 0.212639006f, 0.715168679f, 0.0721923154f), 0.1f, 0.6f));
    const auto away = [&](V x) { return hn::NegMulAdd(hn::Sub(top, x), dyed, x); };
    const Rgb s = {away(c.r), away(c.g), away(c.b)};

    const Rgb cones = Times(k.cones, s);
    const Rgb roots = Times(k.turn, {CubeRoot(cones.r), CubeRoot(cones.g), CubeRoot(cones.b)});
    const Rgb turned = Times(k.from_cones, {Cubed(roots.r), Cubed(roots.g), Cubed(roots.b)});
    const V hue = hn::Sub(ToHexcone(s.r, s.g, s.b).x, Const(120.0f));
    const V around = hn::NegMulAdd(hn::Floor(hn::Mul(hue, Const(1 / 360.0f))), Const(360.0f), hue);
    const V distance = hn::Min(around, hn::Sub(Const(360.0f), around));
    const Rgb t = Mix(s, turned, hn::Mul(Const(0.7f), Smooth(hn::Neg(distance), -45, -15)));

    const Rgb code = {ToSrgb(t.r), ToSrgb(t.g), ToSrgb(t.b)};
    const V y = Clamp01(Row(code, 0.2126f, 0.7152f, 0.0722f));
    const V below = hn::Mul(Const(0.6f), Clamp01(hn::Mul(hn::Sub(Const(0.46f), y), Const(1 / 0.46f))));
    const V above = hn::Mul(Const(0.6f), Clamp01(hn::Mul(hn::Sub(y, Const(0.46f)), Const(1 / 0.54f))));
    const auto toned = [&](V x, float dark, float light) {
        const V one = Const(1.0f);
        return FromSrgb(
            hn::Mul(x, hn::Mul(hn::MulAdd(below, Const(dark - 1), one), hn::MulAdd(above, Const(light - 1), one))));
    };
    return {toned(code.r, 0.84f, 1.08f), toned(code.g, 0.96f, 1.01f), toned(code.b, 1.12f, 0.82f)};
}

/// Code values of 8 bits, as whole numbers from the first to the last.
HWY_INLINE Rgb K(const Rgb& c) {
    const DI di;
    const auto code = [](V x) { return hn::NearestInt(hn::Mul(Clamp01(x), Const(255.0f))); };
    const auto value = [](auto x) { return hn::Mul(hn::ConvertTo(D(), x), Const(1 / 255.0f)); };
    const auto r = code(c.r), g = code(c.g), b = code(c.b);
    return {value(hn::Xor(r, hn::ShiftRight<1>(r))), value(hn::Or(hn::And(g, hn::Set(di, 240)), hn::ShiftRight<4>(b))),
            value(hn::And(hn::ShiftLeft<1>(hn::Sub(hn::Set(di, 255), b)), hn::Set(di, 255)))};
}

HandWritten FindSecond(char workload) {
    switch (workload) {
    case 'g': return Loop<G>;
    case 'h': return Loop<H>;
    case 'i': return Loop<I>;
    case 'j': return Loop<J>;
    default: return Loop<K>;
    }
}

} // namespace kasuri::bench::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "colour/matrix3.hpp"
#include "colour/space.hpp"
#include "common.hpp"
#include "engine/reference.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::bench {
namespace {

using namespace colour; // matrices and their products

Nine floats(const Matrix3& m) {
    Nine made{};
    for (std::size_t i = 0; i < 9; ++i)
        made[i] = static_cast<float>(m[i / 3][i % 3]);
    return made;
}

/// The rule (g) by the double-precision reference.
Triple rule_g(const Triple& colour) {
    static const lang::Rule rule = rule_of(workload('g'));
    engine::ReferencePixel pixel;
    std::copy(colour.begin(), colour.end(), pixel.rgba.begin());
    const auto made = engine::reference(rule, {}, pixel);
    return {made[0], made[1], made[2]};
}

SecondSet make() {
    // OKLab, from linear sRGB (B. Ottosson, "A perceptual color space for image processing", 2020).
    const Matrix3 cones = {{{0.4122214708, 0.5363325363, 0.0514459929},
                            {0.2119034982, 0.6806995451, 0.1073969566},
                            {0.0883024619, 0.2817188376, 0.6299787005}}};
    const Matrix3 lab = {{{0.2104542553, 0.7936177850, -0.0040720468},
                          {1.9779984951, -2.4285922050, 0.4505937099},
                          {0.0259040371, 0.7827717662, -0.8086757660}}};
    const Matrix3 mix = {{{1, 0, 0}, {0, 0.4, 0.6}, {0, 0, 1}}};
    const auto lab_of = [&](const Triple& c) {
        Triple made = cones * c;
        for (double& x : made)
            x = std::cbrt(x);
        return lab * made;
    };
    // The only unknown is the angle by which the held hue turns all: one colour tells it.
    const Triple colour = {0.5, 0.2, 0.3}, after = lab_of(rule_g(colour)), before = lab_of(mix * colour);
    const double angle = std::atan2(after[2], after[1]) - std::atan2(before[2], before[1]);
    const double x = 1.2 * std::cos(angle), y = 1.2 * std::sin(angle);
    const Matrix3 edit = {{{0.97, 0, 0}, {0, x, -y}, {0, y, x}}};
    const double by = 12 * std::acos(-1.0) / 180;
    const Matrix3 turn = {{{1, 0, 0}, {0, std::cos(by), -std::sin(by)}, {0, std::sin(by), std::cos(by)}}};
    const colour::Space &acescct = *colour::find_space("acescct"), &linear = *colour::find_space("rec709-linear");
    return {floats(times(cones, mix)),
            floats(times(inverse(lab), times(edit, lab))),
            floats(inverse(cones)),
            floats(colour::linear_between(acescct, *colour::find_space("rec2100-pq"))),
            floats(cones),
            floats(times(inverse(lab), times(turn, lab))),
            floats(colour::linear_between(linear, acescct)),
            floats(colour::linear_between(acescct, linear))};
}

} // namespace

const SecondSet& second_set() {
    static const SecondSet set = make();
    return set;
}

HWY_EXPORT(FindSecond);
HandWritten handwritten_second(char workload) { return HWY_DYNAMIC_DISPATCH(FindSecond)(workload); }
} // namespace kasuri::bench
#endif
