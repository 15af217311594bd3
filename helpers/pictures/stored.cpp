#include "stored.hpp"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <limits>

namespace kasuri::helpers {

void BytesSum::add(const void* bytes, std::size_t count) {
    constexpr std::uint64_t prime = 1099511628211u; // as in FNV-1a (Fowler, Noll, Vo), a word at a time
    const auto* at = static_cast<const unsigned char*>(bytes);
    std::array<std::uint64_t, 4> words{};
    for (; count > 0; at += sizeof words, count -= std::min(count, sizeof words)) {
        if (count < sizeof words)
            words = {};
        std::memcpy(words.data(), at, std::min(count, sizeof words));
        for (std::size_t i = 0; i < words.size(); ++i)
            sums_[i] = (sums_[i] ^ words[i]) * prime + (sums_[i] >> 29);
    }
}

namespace {
OIIO::TypeDesc type_of(const OIIO::ImageSpec& spec, std::size_t channel) {
    return spec.channelformats.empty() ? spec.format : spec.channelformats[channel];
}
void convert(const void* from, const OIIO::TypeDesc& in, std::size_t in_step, void* to, const OIIO::TypeDesc& out,
             std::size_t out_step, std::size_t count) {
    OIIO::convert_image(1, static_cast<int>(count), 1, 1, from, in, static_cast<OIIO::stride_t>(in_step),
                        OIIO::AutoStride, OIIO::AutoStride, to, out, static_cast<OIIO::stride_t>(out_step),
                        OIIO::AutoStride, OIIO::AutoStride);
}
} // namespace

bool Stored::names(const OIIO::ImageSpec& spec) {
    for (int c = 0; c < spec.nchannels; ++c)
        if (type_of(spec, static_cast<std::size_t>(c)).basetype == OIIO::TypeDesc::UINT32)
            return true;
    return false;
}

const void* Stored::packed(const OIIO::ImageSpec& spec, const float* values, std::size_t pixels) {
    const auto channels = static_cast<std::size_t>(spec.nchannels);
    std::size_t pixel = 0;
    for (std::size_t c = 0; c < channels; ++c)
        pixel += type_of(spec, c).size();
    narrow_.resize(pixels * pixel);
    std::size_t at = 0;
    for (std::size_t c = 0; c < channels; ++c) {
        const OIIO::TypeDesc own = type_of(spec, c);
        if (own.basetype == OIIO::TypeDesc::UINT32)
            for (std::size_t p = 0; p < pixels; ++p)
                std::memcpy(narrow_.data() + p * pixel + at, values + p * channels + c, sizeof(float));
        else
            convert(values + c, OIIO::TypeDesc(OIIO::TypeDesc::FLOAT), channels * sizeof(float), narrow_.data() + at,
                    own, pixel, pixels);
        at += own.size();
    }
    return narrow_.data();
}

OIIO::TypeDesc Stored::type(const OIIO::ImageSpec& spec) {
    return spec.channelformats.empty() && !names(spec) ? spec.format : OIIO::TypeDesc(OIIO::TypeDesc::FLOAT);
}

std::size_t Stored::bytes(const OIIO::ImageSpec& spec, std::size_t pixels) {
    return pixels * static_cast<std::size_t>(spec.nchannels) * type(spec).size();
}

const void* Stored::of(const OIIO::ImageSpec& spec, const float* values, std::size_t pixels) {
    const auto channels = static_cast<std::size_t>(spec.nchannels);
    const OIIO::TypeDesc wide(OIIO::TypeDesc::FLOAT);
    if (spec.channelformats.empty() && !names(spec)) {
        if (spec.format == wide)
            return values;
        narrow_.resize(bytes(spec, pixels));
        convert(values, wide, sizeof(float), narrow_.data(), spec.format, spec.format.size(), pixels * channels);
        return narrow_.data();
    }
    again_.assign(values, values + pixels * channels);
    for (std::size_t c = 0; c < channels; ++c) {
        const OIIO::TypeDesc own = type_of(spec, c);
        if (own.basetype == OIIO::TypeDesc::UINT32)
            continue;
        if (own != wide) {
            narrow_.resize(pixels * own.size());
            convert(values + c, wide, channels * sizeof(float), narrow_.data(), own, own.size(), pixels);
            convert(narrow_.data(), own, own.size(), again_.data() + c, wide, channels * sizeof(float), pixels);
        }
        for (std::size_t p = 0; p < pixels; ++p) // whose bits may change on the way there and back
            if (float& value = again_[p * channels + c]; std::isnan(value))
                value = std::numeric_limits<float>::quiet_NaN();
    }
    return again_.data();
}

} // namespace kasuri::helpers
