#pragma once
#include "lang/type.hpp"

#include <array>
#include <span>
#include <string_view>
#include <vector>

namespace kasuri::lang {

/// What a parameter takes or a function gives: a fixed type, or `gen` - float, vec2, vec3 or vec4, the same
/// for all gen parameters of one call, where a float also stands for a vector of equal components.
struct Slot {
    bool gen = false;
    Type type;
};
inline constexpr Slot gen{true, {}};
constexpr Slot exactly(Type type) { return {false, type}; }

struct Signature {
    std::string_view name;
    std::vector<Slot> parameters;
    std::vector<std::string_view> parameter_names;
    Slot result;
    std::string_view doc;
};

/// "mix(x, y, a)" with types: "mix(x gen, y gen, a gen) gen".
std::string shown(const Signature& signature);

/// Everything that the checker knows from elsewhere. All of it must outlive the checked rules.
struct Vocabulary {
    std::span<const Signature> functions;      ///< several of one name are overloads
    std::span<const ModelShape> models;
    std::span<const std::string_view> spaces;
    std::span<const std::string_view> proofs;  ///< empty: proof names are not checked
};

} // namespace kasuri::lang
