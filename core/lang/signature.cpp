#include "lang/rule.hpp"

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
    if (signature.variadic)
        text += ", ...";
    return text + ") " + slot(signature.result);
}

std::string shown(const Function& function) {
    std::string text = function.name + "(";
    for (std::size_t i = 0; i < function.parameters.size(); ++i)
        text += (i > 0 ? ", " : "") + function.locals[i].name + " " + name(function.parameters[i].type);
    return text + ") " + name(function.type);
}

} // namespace kasuri::lang
