#pragma once
#include "fit/errors.hpp"
#include "fit/rest.hpp"
#include "inverse/look.hpp"
#include "subject/subject.hpp"

namespace kasuri::pairing {

/// A table that takes the effect of something off again.
struct LutBack {
    fit::Rest table;        ///< from what comes out to what went in
    fit::Errors errors;     ///< of colours from 0 to 1, there and back again
    std::size_t solved = 0; ///< points that are exact; at the others nothing ends, or several colours do
    std::string space{};    ///< of its numbers
};

/// `points` an axis, 2 to 65, over all that comes of colours from 0 to 1. First by least squares of what goes in on
/// what comes out (fit::rest_of), so that where several colours become one it gives what lies between, and where none
/// ends it goes on as around; then each point by Newton's method, as far as that gets there. Errors: of fit::pairs_of;
/// called off.
Result<LutBack> lut_back(const subject::Subject& subject, int points, const CancelToken& cancel = {});

/// A table as Cube LUT Specification 1.0 writes it; `words` are comments, a line each.
std::string cube_text(const fit::Rest& table, const std::vector<std::string>& words);

/// The words that stand in the file, and are told: what it takes off, and how near it comes.
std::vector<std::string> words_of(const LutBack& back, const std::string& title);

/// For inverse::invert of looks: tables of `points` an axis, whose words are `words_of` them, for LUTs and, with
/// `for_rules`, for rules that cannot be solved. `folder`: of the look's file.
inverse::LookOptions with_tables(const std::filesystem::path& folder, int points, bool for_rules);

} // namespace kasuri::pairing
