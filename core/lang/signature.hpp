#pragma once
#include "lang/type.hpp"

#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::lang {

/// How often a value can change: never, once per picture, or at every pixel.
enum class Rate { constant, picture, pixel };

/// What a parameter takes or a function gives: a fixed type, or `gen` - float, vec2, vec3 or vec4, the same
/// for all gen parameters of one call, where a float also stands for a vector of equal components.
struct Slot {
    bool gen = false;
    Type type;
    Rate rate = Rate::pixel; ///< the most often that the argument may change
};
inline constexpr Slot gen{true, {}, Rate::pixel};
constexpr Slot exactly(Type type) { return {false, type, Rate::pixel}; }
constexpr Slot per_picture(Type type) { return {false, type, Rate::picture}; }

struct Signature {
    std::string_view name;
    std::vector<Slot> parameters;
    std::vector<std::string_view> parameter_names;
    Slot result;
    std::string_view doc;
    bool variadic = false;      ///< the last parameter may come again
    bool neighbourhood = false; ///< reads other pixels than its own: costs a pass over the picture
};

/// "mix(x, y, a)" with types: "mix(x gen, y gen, a gen) gen".
std::string shown(const Signature& signature);
/// "x gen"
std::string shown_parameter(const Signature& signature, std::size_t index);

struct Function;
using FunctionPtr = std::shared_ptr<const Function>;

/// Everything that the checker knows from elsewhere. All of it must outlive the checked rules.
struct Vocabulary {
    std::span<const Signature> functions; ///< several of one name are overloads
    std::span<const ModelShape> models;
    std::span<const std::string_view> spaces;
    std::span<const std::string_view> proofs;  ///< ready-made proof functions; empty: their names are not checked
    std::span<const std::string_view> targets; ///< for `on`
    std::span<const std::string_view> comparing_proofs{}; ///< those of `proofs` that compare with another filter
    std::span<const std::string_view> colour_proofs{};    ///< those of `proofs` that are of the colours after `on`
    std::span<const FunctionPtr> prelude;                 ///< functions written in the language itself
    std::span<const std::string_view> linear_spaces;      ///< those of `spaces` that are proportional to light
    bool (*knows_space)(std::string_view name) =
        nullptr; ///< also spaces that came while the program runs; null: only `spaces`
    std::vector<std::string> (*further_spaces)() = nullptr; ///< the names of those
};

} // namespace kasuri::lang
