#pragma once
#include "document/edit.hpp"

#include <optional>

namespace kasuri::document {

/// The change that makes `before` into `after`, no larger than it must be.
TextEdit difference(std::string_view before, std::string_view after);

/// Turns the lines that `span` touches into comments; if all of them that hold anything are comments, back.
TextEdit with_comments_toggled(std::string_view text, Span span);

/// A plain number that stands in the text, with a sign if that is its own.
struct NumberPlace {
    Span span;
    double value = 0;
    int decimals = 0; ///< digits behind the point as it is written
    /// By how much it is worth changing it: a tenth of its size, rounded down to a power of ten; 0.01 for 0.
    double step() const;
};

/// The number at byte `at`, or the one that ends there.
std::optional<NumberPlace> number_at(std::string_view text, std::size_t at);

/// Gives it another value, written with as many decimals as it has, or as `step` needs.
TextEdit with_number(std::string_view text, const NumberPlace& place, double value, double step);

/// Three plain numbers in brackets at byte `at`: vec3(r, g, b), or (r, g, b) where a colour is expected.
struct ColourPlace {
    Span span; ///< with name and brackets
    std::array<Span, 3> numbers{};
    std::array<double, 3> values{};
};
std::optional<ColourPlace> colour_at(std::string_view text, std::size_t at);
/// All of a text, in order.
std::vector<ColourPlace> colours_in(std::string_view text);
TextEdit with_colour(std::string_view text, const ColourPlace& place, const std::array<double, 3>& values);

} // namespace kasuri::document
