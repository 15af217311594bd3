#pragma once
#include "base/result.hpp"
#include "subject/subject.hpp"

#include <string>
#include <string_view>

namespace kasuri::handover {

struct ShaderOptions {
    std::string_view in_space{}, out_space{}; ///< of what comes in and goes out; empty: the rule's own working space
    std::string function = "kasuri";          ///< its name, and the beginning of all others
    std::string_view dialect = "330";         ///< a name of handover/shader_dialect.hpp
};

/// The subject as one function in the OpenGL Shading Language (3.30, core), with what it calls: `vec4 NAME(vec4 colour,
/// ...)`. Straight alpha. Parameters are uniforms NAME_meet (a colour is a vec3) with their
/// defaults, or what else the dialect has for them; where the rule reads the place, it takes `vec2 pixel` (0 at the top
/// left) and the uniforms NAME_width and NAME_height; further pictures come as further arguments. Operations follow the
/// graph that the engine runs, so the results are the same but for rounding; what GLSL leaves undefined (pow of
/// negative bases, minimum of NaN) is written out. The uniforms of a look are NAME_step2_meet, NAME_step2_opacity.
/// Refused: what looks at neighbours, has LUTs in it or uses spaces of a colour config: that needs passes
/// and tables (shader_passes.hpp). Sources of the languages: The OpenGL Shading
/// Language 3.30 and 4.50, The OpenGL ES Shading Language 3.00, GL_KHR_vulkan_glsl (Khronos Group); ISO C99. In C:
/// `static void NAME(const float colour[4], ..., const struct NAME_values *values, float out[4])`, with the defaults in
/// NAME_usual.
Result<std::string> shader(const subject::Subject& subject, const ShaderOptions& options = {});

} // namespace kasuri::handover
