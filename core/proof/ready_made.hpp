#pragma once
#include <span>
#include <string>

namespace kasuri::proof {

/// One row: a promise that can be added to a rule by a click. $ stands before what the user is likely to change.
struct ReadyMade {
    std::string title, doc;
    std::string line; ///< in the language: proof "greys stay grey" : neutral < 0.0001
};

/// The proof functions with their limits, then conditions about colours.
std::span<const ReadyMade> ready_made();

} // namespace kasuri::proof
