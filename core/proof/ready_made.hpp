#pragma once
#include "lang/rule.hpp"

#include <span>
#include <string>

namespace kasuri::proof {

/// One row: a promise that can be added to a rule by a click. $ stands before what the user is likely to change.
struct ReadyMade {
    std::string title, doc;
    std::string line; ///< in the language: proof "greys stay grey" : neutral < 0.0001
};

/// What is written when one is added to a rule: where the rule has no proofs of its own, those that stand in for them
/// are written too, so that they go on being measured.
std::string lines_to_add(const lang::Rule& rule, const ReadyMade& row);

/// The proof functions with their limits, then conditions about colours.
std::span<const ReadyMade> ready_made();

} // namespace kasuri::proof
