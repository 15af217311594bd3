#pragma once
#include <array>
#include <cstdint>
#include <string>
#include <string_view>

namespace kasuri::lang {

/// The names of a colour model as the type checker needs them (colour itself is not seen from here).
enum class HueWay {
    none,  ///< no hue to speak of
    angle, ///< a component is the hue
    plane, ///< the second and third component are the place in a plane, with neutrals at 0, 0
};

struct ModelShape {
    std::string_view name;
    std::array<std::string_view, 3> components;
    std::string_view doc{};
    std::array<std::string_view, 3> meanings{}; ///< of the components, with unit and range
    HueWay hue = HueWay::none;
    std::uint8_t angle = 0; ///< which component is the hue
};

enum class Kind { none, float_, bool_, vec2, vec3, vec4, mat3, model };

/// A type is a value: compare with ==. `none` marks an expression that already has an error.
struct Type {
    Kind kind = Kind::none;
    const ModelShape* model = nullptr; ///< of Kind::model

    friend bool operator==(const Type&, const Type&) = default;
};

inline constexpr Type float_type{Kind::float_};
inline constexpr Type bool_type{Kind::bool_};
inline constexpr Type vec2_type{Kind::vec2};
inline constexpr Type vec3_type{Kind::vec3};
inline constexpr Type vec4_type{Kind::vec4};
inline constexpr Type mat3_type{Kind::mat3};

/// How many floats make up a value.
constexpr int width(Type type) {
    switch (type.kind) {
    case Kind::none: return 0;
    case Kind::float_:
    case Kind::bool_: return 1;
    case Kind::vec2: return 2;
    case Kind::vec3:
    case Kind::model: return 3;
    case Kind::vec4: return 4;
    case Kind::mat3: return 9;
    }
    return 0;
}

/// vec2, vec3 or vec4.
constexpr bool is_vector(Type type) {
    return type.kind == Kind::vec2 || type.kind == Kind::vec3 || type.kind == Kind::vec4;
}
/// float or vec: what works component by component.
constexpr bool is_numeric(Type type) { return type.kind == Kind::float_ || is_vector(type); }

/// Of 1 (a float) to 4 components.
constexpr Type vector_of(int components) {
    switch (components) {
    case 1: return float_type;
    case 2: return vec2_type;
    case 3: return vec3_type;
    case 4: return vec4_type;
    default: return {};
    }
}

/// As it is written in the language.
std::string name(Type type);

} // namespace kasuri::lang
