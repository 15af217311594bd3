#include "io/icc_link.hpp"

#include "base/memory.hpp"
#include "base/said.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <fmt/format.h>
#include <functional>
#include <lcms2.h>

namespace kasuri::io {
namespace {

struct Close {
    void operator()(void* profile) const { cmsCloseProfile(profile); }
    void operator()(cmsPipeline* pipeline) const { cmsPipelineFree(pipeline); }
    void operator()(cmsMLU* text) const { cmsMLUfree(text); }
    void operator()(cmsSEQ* sequence) const { cmsFreeProfileSequenceDescription(sequence); }
};
using Profile = std::unique_ptr<void, Close>;

/// Numbers of 0 to 1 as lut16Type holds them.
std::uint16_t code(float x) {
    return x > 0 ? static_cast<std::uint16_t>(std::lround(65535 * std::min(x, 1.0F))) : std::uint16_t{0};
}

bool put_text(cmsHPROFILE profile, cmsTagSignature tag, const std::string& text) {
    const std::unique_ptr<cmsMLU, Close> made(cmsMLUalloc(nullptr, 1));
    return made && cmsMLUsetASCII(made.get(), "en", "US", text.c_str()) && cmsWriteTag(profile, tag, made.get());
}

/// What happened to make it, which a device link must say (ICC.1, 8.6).
bool put_sequence(cmsHPROFILE profile, const std::string& title) {
    const std::unique_ptr<cmsSEQ, Close> made(cmsAllocProfileSequenceDescription(nullptr, 1));
    if (!made)
        return false;
    cmsPSEQDESC& step = made->seq[0];
    for (cmsMLU** text : {&step.Manufacturer, &step.Model, &step.Description}) {
        if (!*text)
            *text = cmsMLUalloc(nullptr, 1);
        if (!*text || !cmsMLUsetASCII(*text, "en", "US", text == &step.Manufacturer ? "Kasuri" : title.c_str()))
            return false;
    }
    return cmsWriteTag(profile, cmsSigProfileSequenceDescTag, made.get()) != 0;
}

std::string ascii(std::string text) {
    std::replace_if(
        text.begin(), text.end(), [](unsigned char c) { return c < 0x20 || c > 0x7e; }, '?');
    return text;
}

class ByLcms final : public ir::External {
public:
    explicit ByLcms(const std::string& bytes)
        : hash_(std::hash<std::string>()(bytes)),
          profile_(cmsOpenProfileFromMem(bytes.data(), static_cast<cmsUInt32Number>(bytes.size()))) {
        if (!profile_ || cmsGetDeviceClass(profile_.get()) != cmsSigLinkClass)
            return;
        cmsHPROFILE all[] = {profile_.get()};
        transform_ = cmsCreateMultiprofileTransform(all, 1, TYPE_RGB_FLT, TYPE_RGB_FLT, INTENT_PERCEPTUAL,
                                                    cmsFLAGS_NOOPTIMIZE | cmsFLAGS_NOCACHE);
    }
    ~ByLcms() override {
        if (transform_)
            cmsDeleteTransform(transform_);
    }
    ByLcms(const ByLcms&) = delete;
    ByLcms& operator=(const ByLcms&) = delete;
    bool good() const { return transform_ != nullptr; }
    void apply(float* const planes[3], std::size_t count) const override {
        for (std::size_t i = 0; i < count; ++i) {
            float in[3] = {planes[0][i], planes[1][i], planes[2][i]}, out[3] = {};
            cmsDoTransform(transform_, in, out, 1);
            for (int c = 0; c < 3; ++c)
                planes[c][i] = out[c];
        }
    }
    std::string identity() const override { return fmt::format("icc-{:x}", hash_); }

private:
    std::size_t hash_;
    Profile profile_;
    cmsHTRANSFORM transform_ = nullptr;
};

/// The table of a lut16Type, read as it lies in the file (ICC.1:2022, 10.10): the first channel slowest.
class ByTable final : public ir::External {
public:
    explicit ByTable(const std::string& bytes) : hash_(std::hash<std::string>()(bytes)) {
        const auto at = [&](std::size_t i, int size) {
            std::uint32_t number = 0;
            for (int k = 0; k < size; ++k)
                number = number << 8 |
                    (i + static_cast<std::size_t>(k) < bytes.size()
                         ? static_cast<unsigned char>(bytes[i + static_cast<std::size_t>(k)])
                         : 0U);
            return number;
        };
        constexpr std::size_t first_tag = 132, tag = 12;
        for (std::size_t i = 0; i < std::min<std::size_t>(at(128, 4), 100); ++i) {
            const std::size_t entry = first_tag + tag * i, where = at(entry + 4, 4);
            if (at(entry, 4) != cmsSigAToB0Tag || at(where, 4) != cmsSigLut16Type)
                continue;
            if (at(where + 8, 1) != 3 || at(where + 9, 1) != 3)
                return;
            size_ = at(where + 10, 1);
            const std::size_t in = at(where + 48, 2), out = at(where + 50, 2), table = where + 52 + 2 * 3 * in;
            const std::size_t values = size_ * size_ * size_ * 3;
            // Curves of two points that go from 0 to 1 are none.
            if (in != 2 || out != 2 || size_ < 2 || table + 2 * values > bytes.size())
                return;
            for (std::size_t k = 0; k < values; ++k)
                table_.push_back(static_cast<float>(at(table + 2 * k, 2)) / 65535.0F);
        }
    }
    bool good() const { return !table_.empty(); }
    void apply(float* const planes[3], std::size_t count) const override {
        for (std::size_t i = 0; i < count; ++i) {
            std::array<std::size_t, 3> low{};
            std::array<float, 3> share{};
            for (std::size_t c = 0; c < 3; ++c) {
                const float x = planes[c][i] > 0 ? std::min(planes[c][i], 1.0F) * static_cast<float>(size_ - 1) : 0.0F;
                low[c] = std::min(static_cast<std::size_t>(x), size_ - 2);
                share[c] = x - static_cast<float>(low[c]);
            }
            std::array<float, 3> sum{};
            for (std::size_t corner = 0; corner < 8; ++corner) {
                float weight = 1;
                std::size_t place = 0;
                for (std::size_t c = 0; c < 3; ++c) {
                    const std::size_t up = corner >> c & 1;
                    weight *= up == 1 ? share[c] : 1 - share[c];
                    place = place * size_ + low[c] + up;
                }
                for (std::size_t c = 0; c < 3; ++c)
                    sum[c] += weight * table_[3 * place + c];
            }
            for (std::size_t c = 0; c < 3; ++c)
                planes[c][i] = sum[c];
        }
    }
    std::string identity() const override { return fmt::format("icc-trilinear-{:x}", hash_); }

private:
    std::size_t hash_;
    std::size_t size_ = 0;
    std::vector<float> table_;
};

} // namespace

Result<std::string> icc_link(int size, const std::vector<std::array<float, 3>>& table, const std::string& title,
                             const std::vector<std::string>& words) {
    const auto n = static_cast<std::size_t>(size);
    std::vector<std::uint16_t> codes;
    codes.reserve(3 * table.size());
    for (std::size_t r = 0; r < n; ++r) // red is slowest here, and fastest there
        for (std::size_t g = 0; g < n; ++g)
            for (std::size_t b = 0; b < n; ++b)
                for (const float x : table[(b * n + g) * n + r])
                    codes.push_back(code(x));
    const Profile profile(cmsCreateProfilePlaceholder(nullptr));
    const std::unique_ptr<cmsPipeline, Close> pipeline(cmsPipelineAlloc(nullptr, 3, 3));
    cmsStage* const stage = cmsStageAllocCLut16bit(nullptr, static_cast<cmsUInt32Number>(size), 3, 3, codes.data());
    if (!profile || !pipeline || !stage || !cmsPipelineInsertStage(pipeline.get(), cmsAT_BEGIN, stage))
        return no_memory("");
    cmsSetProfileVersion(profile.get(), 2.4);
    cmsSetDeviceClass(profile.get(), cmsSigLinkClass);
    cmsSetColorSpace(profile.get(), cmsSigRgbData);
    cmsSetPCS(profile.get(), cmsSigRgbData);
    cmsSetHeaderRenderingIntent(profile.get(), INTENT_PERCEPTUAL);
    const std::string name = ascii(title.empty() ? "Kasuri" : title);
    const std::string all = ascii(fmt::format("{}; {}", name, fmt::join(words, "; ")));
    cmsUInt32Number length = 0;
    const bool whole = put_text(profile.get(), cmsSigProfileDescriptionTag, all) &&
        put_text(profile.get(), cmsSigCopyrightTag, "Made by Kasuri; no rights are claimed in it") &&
        put_sequence(profile.get(), name) && cmsWriteTag(profile.get(), cmsSigAToB0Tag, pipeline.get()) &&
        cmsSaveProfileToMem(profile.get(), nullptr, &length);
    std::string bytes(length, '\0');
    if (!whole || length == 0 || !cmsSaveProfileToMem(profile.get(), bytes.data(), &length))
        return no_memory("");
    return bytes;
}

Result<std::unique_ptr<const ir::External>> read_icc_link(const std::string& bytes, bool trilinear) {
    if (trilinear) {
        if (auto made = std::make_unique<const ByTable>(bytes); made->good())
            return std::unique_ptr<const ir::External>(std::move(made));
    } else if (auto made = std::make_unique<const ByLcms>(bytes); made->good()) {
        return std::unique_ptr<const ir::External>(std::move(made));
    }
    return Error{said("is no ICC device link of red, green and blue"), "", ""};
}

} // namespace kasuri::io
