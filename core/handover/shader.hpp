#pragma once
#include "base/result.hpp"
#include "subject/subject.hpp"

#include <string>
#include <string_view>

namespace kasuri::handover {

struct ShaderOptions {
    std::string_view in_space{}, out_space{}; ///< of what comes in and goes out; empty: the rule's own working space
    std::string function = "kasuri";          ///< its name, and the beginning of all others
};

/// The subject as one function in the OpenGL Shading Language (3.30, core), with what it calls: `vec4 NAME(vec4 colour,
/// ...)`. Straight alpha. Parameters are uniforms NAME_meet (those of a colour NAME_tint_r and so on) with their
/// defaults; where the rule reads the place, it takes `vec2 pixel` (0 at the top left) and the uniforms NAME_width and
/// NAME_height; further pictures come as further arguments. Operations follow the graph that the engine runs, so the
/// results are the same but for rounding; what GLSL leaves undefined (pow of negative bases, minimum of NaN) is written
/// out. The uniforms of a look are NAME_step2_meet, NAME_step2_opacity. Refused: what looks at neighbours, or uses
/// spaces of a colour config. Source of the language: The OpenGL Shading Language 3.30, Khronos Group.
Result<std::string> shader(const subject::Subject& subject, const ShaderOptions& options = {});

} // namespace kasuri::handover
