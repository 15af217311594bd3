#pragma once
#include <array>
#include <optional>
#include <string>
#include <vector>

namespace kasuri::io {

/// A texture that a shader reads. `size`: points across, down and deep (0: no such direction); of a table with three
/// directions red goes across. `values`: red first, as many channels a point as there are.
struct ShaderTable {
    std::string sampler; ///< its name in the text, a sampler2D or a sampler3D
    std::array<int, 3> size{};
    int channels = 3;
    bool linear = false; ///< read between its points by the texture's own filter; else at its points
    std::vector<float> values;
};

/// Functions in the OpenGL ES Shading Language 3.00, as far as 3.30 and 4.50 have it too, without the samplers'
/// declarations.
struct ShaderCode {
    std::string text;
    std::vector<ShaderTable> tables;
};

/// What an ir::External also is where a shader can do the same.
class ShaderSource {
public:
    virtual ~ShaderSource() = default;
    /// With a function `vec4 NAME(vec4)`; every other name begins with NAME too. Nothing if there is no such shader.
    virtual std::optional<ShaderCode> shader_code(const std::string& name) const = 0;
};

} // namespace kasuri::io
