#pragma once
#include "baking/bake.hpp"
#include "base/cancel.hpp"

#include <filesystem>
#include <string>
#include <vector>

namespace kasuri::handover {

using baking::Baked;
using baking::LutError;
using subject::Subject;

/// What a LUT file does.
enum class LutHolds { matrix, curves, table };

/// Of an ICC device link.
inline constexpr std::string_view icc_ending = ".icc";

/// A LUT as a file's text, and what it is: measured on that text, read back by OpenColorIO.
struct LutFile {
    std::string text{};
    LutHolds holds = LutHolds::table;
    int points = 0; ///< of the table or of the curves
    double low = 0, high = 1;
    LutError tetrahedral{}, trilinear{}; ///< against the rule; of a file without a 3D table both are the same
    std::size_t samples = 0;             ///< colours on which they were measured
    /// Around the worst of them the largest error was looked for by so many further colours (how far CIEDE2000 goes at
    /// most is of the samples alone).
    std::size_t searched = 0;
    double clipped = 0; ///< share of the samples of which a channel is cut off at 0 or 1, where the rule goes on
    bool exact = false; ///< of a matrix: the file and the rule are the same, also far outside of 0 .. 1
};

/// The file for an ending: `.cube` (Cube LUT Specification 1.0; curves as a 1D table), `.clf` and `.ctf` with exact
/// matrix and curves where there are some, `.icc` (an ICC device link), and what else OpenColorIO bakes; another domain
/// than 0 to 1 where the format has a place for it. Space, domain, values and the measured errors stand in the file
/// where the format has a place for words. Errors: no such ending, numbers that a LUT cannot hold, a shaper or a domain
/// where there is no place for it, the text cannot be read back, called off.
Result<LutFile> lut_file(const std::string& ending, const Subject& subject, const Baked& baked, bool delta_e = false,
                         const CancelToken& cancel = {});

/// The file with the smallest table of which every error, as read back tetrahedrally, is within `wished`; if none is,
/// the largest one.
Result<LutFile> lut_file_for(const std::string& ending, const Subject& subject, baking::BakeOptions options,
                             const baking::Wished& wished, const CancelToken& cancel = {});
bool near_enough(const LutFile& file, const baking::Wished& wished);

/// Makes it, and writes it: whole or not at all.
Result<LutFile> write_lut(const std::filesystem::path& path, const Subject& subject, const Baked& baked,
                          bool delta_e = false);
/// Endings that can be written, with their dots.
std::vector<std::string> lut_endings();
bool is_lut_ending(const std::string& ending);

} // namespace kasuri::handover
