// One source for every instruction set: Highway includes this file once for each.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "scopes/finder.cpp"
#include <hwy/foreach_target.h> // must come before highway.h
#include <hwy/highway.h>

#include "scopes/finder.hpp"

#include <algorithm>

HWY_BEFORE_NAMESPACE();
namespace kasuri::scopes::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

void Find(float low, float high, float scale, std::int32_t count, const float* values, std::size_t number,
          std::int32_t* found) {
    const hn::ScalableTag<float> d;
    const hn::Rebind<std::int32_t, decltype(d)> di;
    const auto lowest = hn::Set(d, low), highest = hn::Set(d, high), factor = hn::Set(d, scale), zero = hn::Zero(d),
               most = hn::Set(d, static_cast<float>(count));
    const auto last = hn::Set(di, count), none = hn::Zero(di), above = hn::Set(di, count + 1),
               nan = hn::Set(di, count + 2), one = hn::Set(di, 1);
    const auto find = [&](decltype(lowest) value) HWY_ATTR {
        // In range for the conversion, whatever comes: what does not belong is told apart afterwards.
        const auto place = hn::Min(hn::Max(hn::Mul(hn::Sub(value, lowest), factor), zero), most);
        auto bin = hn::Min(hn::Add(hn::ConvertTo(di, hn::IfThenElse(hn::Eq(value, value), place, zero)), one),
                           last); // the highest value belongs to the last bin
        bin = hn::IfThenElse(hn::RebindMask(di, hn::Lt(value, lowest)), none, bin);
        bin = hn::IfThenElse(hn::RebindMask(di, hn::Gt(value, highest)), above, bin);
        return hn::IfThenElse(hn::RebindMask(di, hn::Eq(value, value)), bin, nan);
    };
    const std::size_t lanes = hn::Lanes(d);
    std::size_t i = 0;
    for (; i + lanes <= number; i += lanes)
        hn::StoreU(find(hn::LoadU(d, values + i)), di, found + i);
    if (i < number) {
        float rest[HWY_MAX_BYTES / sizeof(float)] = {};
        std::copy(values + i, values + number, rest);
        hn::StoreU(find(hn::LoadU(d, rest)), di, found + i);
    }
}

} // namespace kasuri::scopes::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace kasuri::scopes {

HWY_EXPORT(Find);

void Finder::operator()(const float* values, std::size_t count, std::int32_t* found) const {
    HWY_DYNAMIC_DISPATCH(Find)(low_, high_, scale_, count_, values, count, found);
}

} // namespace kasuri::scopes
#endif
