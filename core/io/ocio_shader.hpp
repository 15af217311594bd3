#pragma once
#include "io/ocio.hpp"
#include "io/shader_code.hpp"

namespace kasuri::io {

/// The processor as OpenColorIO itself writes it for a graphics card.
std::optional<ShaderCode> shader_code_of(const OCIO::ConstProcessorRcPtr& processor, const std::string& name);

} // namespace kasuri::io
