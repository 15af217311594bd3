// One source for every instruction set: Highway includes this file once for each.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "image/file_numbers.cpp"
#include <hwy/foreach_target.h> // must come before highway.h
#include <hwy/highway.h>

#include "image/file_numbers.hpp"

#include <cstring>
#include <limits>

HWY_BEFORE_NAMESPACE();
namespace kasuri::image::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;
using D [[maybe_unused]] = hn::ScalableTag<float>;
[[maybe_unused]] constexpr std::size_t widest_vector = HWY_MAX_BYTES / sizeof(float);

template <class Code>
HWY_INLINE void FromCodes(const Code* from, float* to, std::size_t count) {
    constexpr auto highest = static_cast<float>(std::numeric_limits<Code>::max());
    const D d;
    const hn::Rebind<std::int32_t, D> di;
    const hn::Rebind<Code, D> dc;
    const std::size_t lanes = hn::Lanes(d);
    const auto most = hn::Set(d, highest), share = hn::Set(d, 1 / highest);
    std::size_t i = 0;
    for (; i + lanes <= count; i += lanes) {
        const auto code = hn::ConvertTo(d, hn::PromoteTo(di, hn::LoadU(dc, from + i)));
#if HWY_NATIVE_FMA // a product, and what it leaves over: as exact as a division (tested: every code)
        const auto about = hn::Mul(code, share);
        hn::StoreU(hn::MulAdd(hn::NegMulAdd(about, most, code), share, about), d, to + i);
#else
        (void)share;
        hn::StoreU(hn::Div(code, most), d, to + i);
#endif
    }
    for (; i < count; ++i)
        to[i] = static_cast<float>(from[i]) / highest;
}
void FromCodes8(const std::uint8_t* from, float* to, std::size_t count) { FromCodes(from, to, count); }
void FromCodes16(const std::uint16_t* from, float* to, std::size_t count) { FromCodes(from, to, count); }

// Before AVX2 processors have no instruction for it, and what Highway does there knows neither NaN nor infinity, and
// cuts off instead of rounding.
#if HWY_ARCH_X86 && HWY_TARGET < HWY_SSE4

void FromHalf(const std::uint16_t* from, float* to, std::size_t count) {
    const D d;
    const hn::Rebind<hwy::float16_t, D> dh;
    const std::size_t lanes = hn::Lanes(d);
    const auto* halves = reinterpret_cast<const hwy::float16_t*>(from);
    std::size_t i = 0;
    for (; i + lanes <= count; i += lanes)
        hn::StoreU(hn::PromoteTo(d, hn::LoadU(dh, halves + i)), d, to + i);
    if (i < count) {
        hwy::float16_t rest[widest_vector] = {};
        float made[widest_vector];
        std::memcpy(rest, halves + i, (count - i) * sizeof(hwy::float16_t));
        hn::StoreU(hn::PromoteTo(d, hn::LoadU(dh, rest)), d, made);
        std::memcpy(to + i, made, (count - i) * sizeof(float));
    }
}

void ToHalf(const float* from, std::uint16_t* to, std::size_t count) {
    const D d;
    const hn::Rebind<hwy::float16_t, D> dh;
    const std::size_t lanes = hn::Lanes(d);
    auto* const halves = reinterpret_cast<hwy::float16_t*>(to);
    std::size_t i = 0;
    for (; i + lanes <= count; i += lanes)
        hn::StoreU(hn::DemoteTo(dh, hn::LoadU(d, from + i)), dh, halves + i);
    if (i < count) {
        float in[widest_vector] = {};
        hwy::float16_t made[widest_vector];
        std::memcpy(in, from + i, (count - i) * sizeof(float));
        hn::StoreU(hn::DemoteTo(dh, hn::LoadU(d, in)), dh, made);
        std::memcpy(halves + i, made, (count - i) * sizeof(hwy::float16_t));
    }
}

#else

void FromHalf(const std::uint16_t* from, float* to, std::size_t count) {
    for (std::size_t i = 0; i < count; ++i) {
        const std::uint32_t half = from[i], sign = (half & 0x8000u) << 16, exponent = (half >> 10) & 31u,
                            fraction = half & 1023u;
        std::uint32_t bits = sign | ((exponent + 112) << 23) | (fraction << 13);
        if (exponent == 31) // infinite, or NaN, which is quiet afterwards
            bits = sign | 0x7f800000u | (fraction << 13) | (fraction != 0 ? 0x400000u : 0u);
        else if (exponent == 0) {
            const float small = static_cast<float>(fraction) * 0x1p-24f;
            std::memcpy(&bits, &small, sizeof bits);
            bits |= sign;
        }
        std::memcpy(to + i, &bits, sizeof bits);
    }
}

void ToHalf(const float* from, std::uint16_t* to, std::size_t count) {
    for (std::size_t i = 0; i < count; ++i) {
        std::uint32_t bits;
        std::memcpy(&bits, from + i, sizeof bits);
        const std::uint32_t size = bits & 0x7fffffffu;
        std::uint32_t half = 0; // up to half the least step
        if (size > 0x7f800000u)
            half = 0x7e00u | ((size >> 13) & 0x3ffu);
        else if (size >= 0x477ff000u) // 65520, from where on the nearest would be 65536
            half = 0x7c00u;
        else if (size >= 0x38800000u) // 2^-14, the least that is normal
            half = (size - 0x38000000u + 0xfffu + ((size >> 13) & 1u)) >> 13;
        else if (size > 0x33000000u) {
            const std::uint32_t number = (size & 0x7fffffu) | 0x800000u, shift = 126u - (size >> 23);
            half = (number + (1u << (shift - 1)) - 1 + ((number >> shift) & 1u)) >> shift;
        }
        to[i] = static_cast<std::uint16_t>(half | ((bits >> 16) & 0x8000u));
    }
}

#endif

} // namespace kasuri::image::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace kasuri::image {

HWY_EXPORT(FromCodes8);
HWY_EXPORT(FromCodes16);
HWY_EXPORT(FromHalf);
HWY_EXPORT(ToHalf);

void from_codes(const std::uint8_t* from, float* to, std::size_t count) {
    HWY_DYNAMIC_DISPATCH(FromCodes8)(from, to, count);
}
void from_codes(const std::uint16_t* from, float* to, std::size_t count) {
    HWY_DYNAMIC_DISPATCH(FromCodes16)(from, to, count);
}
void from_half(const std::uint16_t* from, float* to, std::size_t count) {
    HWY_DYNAMIC_DISPATCH(FromHalf)(from, to, count);
}
void to_half(const float* from, std::uint16_t* to, std::size_t count) { HWY_DYNAMIC_DISPATCH(ToHalf)(from, to, count); }

} // namespace kasuri::image
#endif
