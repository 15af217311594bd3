#include "colour/model.hpp"

namespace kasuri::colour {

extern const Model hsv_model;

namespace {
const Model* const table[] = {
    &hsv_model,
};
} // namespace

std::span<const Model* const> models() { return table; }

} // namespace kasuri::colour
