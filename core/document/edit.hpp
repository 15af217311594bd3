#pragma once
#include "base/span.hpp"
#include "lang/rule.hpp"

#include <span>
#include <string>
#include <string_view>

namespace kasuri::document {

/// A change of a text as data, with its inverse.
struct TextEdit {
    std::uint32_t at = 0;
    std::string removed;
    std::string inserted;

    std::string applied(std::string_view text) const;
    TextEdit inverse() const { return {at, inserted, removed}; }
    friend bool operator==(const TextEdit&, const TextEdit&) = default;
};

/// Makes the values the parameters' defaults: one edit over all the default numbers that change.
/// Nothing is removed or inserted if none does.
TextEdit with_defaults(std::string_view text, const lang::Rule& rule, std::span<const double> values);

/// Writes the values as a preset line: in place of the preset of that name, else below the last preset, else
/// below the last parameter.
TextEdit with_preset(std::string_view text, const lang::Rule& rule, std::string_view name,
                     std::span<const double> values);

/// The shortest decimal text that reads back as the float nearest to the value.
std::string number_for_text(double value);

} // namespace kasuri::document
