#pragma once
#include "io/lut_file.hpp"
#include "subject/subject.hpp"

#include <optional>
#include <string>

namespace kasuri::handover {

/// What a subject is as a colour decision list (slope, offset, power, saturation; ASC CDL 1.2) in the numbers of a
/// space, without the clamps of the standard.
struct AsCdl {
    io::Cdl cdl;
    bool exact = false; ///< read off the matrix that it is; else found by trying, and `largest` is how far it is away
    double largest = 0; ///< on a ramp over 0 .. 1
};
/// Nothing if it is none: neither a matrix of gains, offsets and a saturation, nor three curves (x * slope + offset) ^
/// power within 1e-5.
std::optional<AsCdl> cdl_of(const subject::Subject& subject, std::string_view space = {});

/// A filter that does what the list says, with its numbers as parameters. `space`: in which they are meant.
std::string filter_of(const io::Cdl& cdl, const std::string& title, std::string_view space);

} // namespace kasuri::handover
