#pragma once
#include "document/edit.hpp"
#include "lang/rule.hpp"

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::document {

/// A matrix in the rule's text, of nine that are numbers or parameters, with the three numbers that are added to its
/// product, if they are written there too.
struct MixPlace {
    std::array<Span, 9> numbers{};
    std::array<double, 9> values{};  ///< of parameters: their defaults
    std::array<int, 9> parameters{}; ///< which parameter of the rule stands there; -1: a number
    std::optional<std::array<Span, 3>> offsets{};
    std::array<double, 3> offset_values{};
    bool takes_offset = false; ///< a statement `... = mat3(...) * ...`, behind which offsets may be written
    Span statement{};
    std::string name{}; ///< of what the statement makes: out.rgb, or a let; with a number from its second matrix on
};

/// Every mat3 of nine numbers and parameters that stands in the rule's statements, in their order: one, or one for each
/// zone, as a let of its own or in the middle of an expression.
std::vector<MixPlace> mix_places(const lang::Rule& rule);
/// The first of them.
std::optional<MixPlace> mix_place(const lang::Rule& rule);

/// Writes a number of the matrix (0 to 8, by rows) or of the offset (9 to 11) where it stands. Nothing is changed where
/// a parameter stands, or by an offset that is not written.
TextEdit with_mix_number(std::string_view text, const MixPlace& place, int which, double value);

/// All nine and the offsets, as one edit; offsets that are not written are added behind the product if there are any
/// and it takes them. Parameters stay: their values are not in the text.
TextEdit with_mix_numbers(std::string_view text, const MixPlace& place, const std::array<double, 9>& values,
                          const std::array<double, 3>& offsets);

/// "out.rgb = mat3(1, 0, 0,  0, 1, 0,  0, 0, 1) * OF", and "+ vec3(...)" where there are offsets.
std::string mix_statement(const std::array<double, 9>& values, const std::array<double, 3>& offsets,
                          std::string_view of);

} // namespace kasuri::document
