#pragma once
#include "base/result.hpp"
#include "handover/shader.hpp"
#include "io/shader_code.hpp"

#include <filesystem>
#include <string>
#include <vector>

namespace kasuri::handover {

/// A picture that a pass reads, and the sampler2D by which it does.
struct PassInput {
    std::string sampler, picture;
};

/// A whole fragment shader: one walk over the picture.
struct ShaderPass {
    std::string file, text;
    std::string does; ///< pixels, blur, dilate or erode
    std::vector<PassInput> reads;
    std::vector<std::string> tables; ///< samplers of those that it reads
    std::string writes;              ///< a picture of four floats a pixel; of the last pass "result"
};

/// A value that can be set.
struct PassValue {
    std::string name;
    std::vector<double> usual; ///< one number, or the three of a colour
    double low = 0, high = 0;
    std::string doc;
};

/// A subject as shaders that are run one after the other: also one that looks at neighbours, or has LUTs or spaces of a
/// colour config in it. Row 0 of every picture is the top one; all have the size of the picture that comes in.
struct ShaderParts {
    std::string title, dialect, in_space, out_space;
    std::vector<std::string> inputs; ///< "picture", and further pictures by their names
    std::vector<PassValue> values;
    std::string width, height; ///< the uniforms of the picture's size; empty: none reads it, and it is in no block
    std::vector<io::ShaderTable> tables;
    std::vector<ShaderPass> passes;
};

/// `options.dialect`: 330, es300 or vulkan450. A blur is the sum over all pixels within 4.7 standard deviations, across
/// and then down: its time grows with its size; dilate and erode look at every pixel of their disc.
/// Refused: device links and profiles of presses, which no shader can read.
Result<ShaderParts> shader_parts(const subject::Subject& subject, const ShaderOptions& options);

/// Into a folder, which is made: the passes, the tables (single-precision floats, least byte first) and parts.json.
Status write_parts(const ShaderParts& parts, const std::filesystem::path& folder);

} // namespace kasuri::handover
