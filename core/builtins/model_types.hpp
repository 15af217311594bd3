#pragma once
#include "colour/model.hpp"
#include "lang/type.hpp"

#include <span>

namespace kasuri::builtins {

/// The types of the language that the colour models are.
std::span<const lang::ModelShape> model_shapes();
lang::Type type_of(const colour::Model& model);

} // namespace kasuri::builtins
