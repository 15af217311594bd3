#pragma once
#include "lsp/state.hpp"

#include <span>

namespace kasuri::lsp {

/// A request: its name in the protocol, what the server says of it at the beginning ("capabilities"), and what answers
/// it. Answers may throw Refused, or what the JSON library throws of parameters that are none.
struct Method {
    std::string_view name;
    std::string_view capability; ///< key of ServerCapabilities; empty: it comes with another
    Json (*promises)();          ///< its value; null: true
    Json (*answer)(State& state, const Json& params);
};

// A row each in the file of its kind; `methods` has all of them.
std::span<const Method> writing_methods(); ///< completion, hover, signatures, fixes, formatting
std::span<const Method> name_methods();    ///< definition, references, highlights, rename
std::span<const Method> shape_methods();   ///< symbols, folds, tokens
std::span<const Method> value_methods();   ///< colours, values, proofs
std::vector<const Method*> methods();

} // namespace kasuri::lsp
