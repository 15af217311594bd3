#include "io/ocio_shader.hpp"

#include "base/text.hpp"

#include <exception>

namespace kasuri::io {
namespace {

/// Without its declarations of samplers: how they are bound is another's business.
std::string without_samplers(std::string_view text) {
    std::string made;
    for (const std::string_view line : split(text, '\n'))
        if (!line.starts_with("uniform sampler"))
            made += std::string(line) + "\n";
    return made;
}

std::vector<float> copied(const float* values, std::size_t count) { return {values, values + count}; }

} // namespace

std::optional<ShaderCode> shader_code_of(const OCIO::ConstProcessorRcPtr& processor, const std::string& name) {
    try {
        auto made = OCIO::GpuShaderDesc::CreateShaderDesc();
        made->setLanguage(
            OCIO::GPU_LANGUAGE_GLSL_ES_3_0); // whose textures others have too; of one direction it has none
        made->setFunctionName(name.c_str());
        made->setResourcePrefix((name + "_").c_str());
        processor->getOptimizedGPUProcessor(OCIO::OPTIMIZATION_LOSSLESS)->extractGpuShaderInfo(made);
        if (made->getNumUniforms() > 0) // of values that can still be set: there are none in a LUT
            return std::nullopt;
        ShaderCode code{without_samplers(made->getShaderText()), {}};
        for (unsigned i = 0; i < made->getNumTextures(); ++i) {
            const char *texture = nullptr, *sampler = nullptr;
            unsigned width = 0, height = 0;
            auto channels = OCIO::GpuShaderDesc::TEXTURE_RGB_CHANNEL;
            auto how = OCIO::INTERP_LINEAR;
            const float* values = nullptr;
            made->getTexture(i, texture, sampler, width, height, channels, how);
            made->getTextureValues(i, values);
            const int count = channels == OCIO::GpuShaderDesc::TEXTURE_RED_CHANNEL ? 1 : 3;
            code.tables.push_back({sampler,
                                   {static_cast<int>(width), static_cast<int>(height), 0},
                                   count,
                                   how != OCIO::INTERP_NEAREST,
                                   copied(values, std::size_t{width} * height * static_cast<std::size_t>(count))});
        }
        for (unsigned i = 0; i < made->getNum3DTextures(); ++i) {
            const char *texture = nullptr, *sampler = nullptr;
            unsigned edge = 0;
            auto how = OCIO::INTERP_LINEAR;
            const float* values = nullptr;
            made->get3DTexture(i, texture, sampler, edge, how);
            made->get3DTextureValues(i, values);
            const int side = static_cast<int>(edge);
            // Tetrahedra are read point by point, by the text itself.
            code.tables.push_back({sampler,
                                   {side, side, side},
                                   3,
                                   how == OCIO::INTERP_LINEAR,
                                   copied(values, std::size_t{3} * edge * edge * edge)});
        }
        return code;
    } catch (const std::exception&) {
        return std::nullopt;
    }
}

} // namespace kasuri::io
