#pragma once
#include "lang/diagnostic.hpp"
#include "lang/rule.hpp"

#include <optional>
#include <string_view>
#include <vector>

namespace kasuri::lang {

/// The most faults that are listed for one rule.
inline constexpr std::size_t most_diagnostics = 100;

struct Checked {
    Rule rule;                           ///< only of use if `ok`
    std::vector<Diagnostic> diagnostics; ///< in the order of the text
    std::vector<Diagnostic> print_diagnostics; ///< of the `print` expression, whose spans refer to it
    bool ok = false;
};

/// Text -> tokens -> tree -> typed tree. All faults are found. `print` is an optional expression evaluated
/// after the last statement (it sees every let and out).
Checked check(std::string_view source, const Vocabulary& vocabulary, std::optional<std::string_view> print = {});

} // namespace kasuri::lang
