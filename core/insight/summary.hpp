#pragma once
#include "insight/affine.hpp"
#include "subject/subject.hpp"

#include <string>

namespace kasuri::insight {

/// What is certain about a subject at its values, without trying colours.
struct Known {
    std::optional<Affine> matrix;
    bool identity = false; ///< at these values
    bool curves = false;   ///< three independent ones
    bool identity_at_defaults = false;
    bool neutral = false;        ///< greys stay grey, for all values
    bool grey_kept = false;      ///< and keep their value
    bool luminance_kept = false; ///< for all values; only asked in linear spaces
};

/// What algebra shows of the subject at its values; takes no picture.
Known known(const subject::Subject& subject);

/// Lines for people, with numbers; empty if nothing is certain.
std::string described(const Known& known);
/// A few words: "an exact matrix", "three curves", or nothing.
std::string in_short(const Known& known);

} // namespace kasuri::insight
