#include "lang/rule.hpp"

#include <string>

namespace kasuri::lang {

namespace {

std::string slot_name(const Slot& slot) { return slot.gen ? std::string("gen") : name(slot.type); }

template <class Callee>
std::string parameter_list(const Callee& callee) {
    std::string text = "(";
    for (std::size_t i = 0; i < callee.parameters.size(); ++i)
        text += (i > 0 ? ", " : "") + shown_parameter(callee, i);
    return text;
}

} // namespace

std::string shown_parameter(const Signature& signature, std::size_t index) {
    return std::string(signature.parameter_names[index]) + " " + slot_name(signature.parameters[index]);
}

std::string shown(const Signature& signature) {
    return std::string(signature.name) + parameter_list(signature) + (signature.variadic ? ", ...) " : ") ") +
        slot_name(signature.result);
}

std::string shown_parameter(const Function& function, std::size_t index) {
    return function.locals[index].name + " " + name(function.parameters[index].type);
}

std::string shown(const Function& function) {
    return function.name + parameter_list(function) + ") " + name(function.type);
}

} // namespace kasuri::lang
