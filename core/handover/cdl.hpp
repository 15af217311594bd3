#pragma once
#include "io/lut_file.hpp"
#include "subject/subject.hpp"

#include <array>
#include <optional>
#include <string>

namespace kasuri::handover {

/// The two forms of ASC CDL 1.2: what is kept in 0 .. 1, before the power and at the end, or nothing is and a base
/// below 0 stays as it is; and rules that are a list only where no base is below 0.
enum class CdlForm { open, clamped, above_0 };

/// What a subject is as a colour decision list (slope, offset, power, saturation; ASC CDL 1.2) in the numbers of a
/// space.
struct AsCdl {
    io::Cdl cdl;
    CdlForm form = CdlForm::open;
    bool exact = false; ///< within 1e-9, by the double-precision reference
    double largest = 0; ///< on 2000 colours from -0.25 to 1.25
};
/// Nothing if it is none within 1e-5. A saturation of 0 leaves no way to know the rest.
std::optional<AsCdl> cdl_of(const subject::Subject& subject, std::string_view space = {});

/// What a list makes of a colour, by the standard's formulas, in double precision.
std::array<double, 3> applied(const io::Cdl& cdl, CdlForm form, const std::array<double, 3>& colour);

/// A filter that does what the list says, with its numbers as parameters, and one that says whether it is clamped.
/// `space`: in which the numbers are meant.
std::string filter_of(const io::Cdl& cdl, const std::string& title, std::string_view space, bool clamped = false);

} // namespace kasuri::handover
