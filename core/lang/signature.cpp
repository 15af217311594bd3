#include "lang/signature.hpp"

#include <string>

namespace kasuri::lang {

std::string shown(const Signature& signature) {
    const auto slot = [](const Slot& s) { return s.gen ? std::string("gen") : name(s.type); };
    std::string text(signature.name);
    text += "(";
    for (std::size_t i = 0; i < signature.parameters.size(); ++i) {
        if (i > 0)
            text += ", ";
        text += std::string(signature.parameter_names[i]) + " " + slot(signature.parameters[i]);
    }
    return text + ") " + slot(signature.result);
}

} // namespace kasuri::lang
