#pragma once
#include "base/span.hpp"
#include "lang/signature.hpp"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::lang {

/// A name that the text itself gives: of a parameter, a let, a source, a function or a function's argument.
struct Symbol {
    std::string name;
    Span definition;          ///< where it is given
    std::vector<Span> places; ///< everywhere that it stands, in order, the definition too
};

/// The name at byte `at`, or just before it. Nothing if there is none, or if it is the language's, or a component's.
std::optional<Symbol> symbol_at(std::string_view source, std::size_t at);

struct Renamed {
    std::string text;  ///< the whole, with the new name; empty if there is a fault
    std::string fault; ///< why it cannot be
};

/// Gives the symbol another name everywhere. Refused if that is not a name, or is known already: what a text means must
/// not change.
Renamed renamed(std::string_view source, const Symbol& symbol, std::string_view name, const Vocabulary& vocabulary);

} // namespace kasuri::lang
