#include "lang/type.hpp"

namespace kasuri::lang {

std::string name(Type type) {
    switch (type.kind) {
    case Kind::none: return "nothing";
    case Kind::float_: return "float";
    case Kind::bool_: return "bool";
    case Kind::vec2: return "vec2";
    case Kind::vec3: return "vec3";
    case Kind::vec4: return "vec4";
    case Kind::mat3: return "mat3";
    case Kind::model: return std::string(type.model->name);
    }
    return {};
}

} // namespace kasuri::lang
