#pragma once
#include "pairing/pairing.hpp"
#include "pairing/patches.hpp"

namespace kasuri::pairing {

/// A photographed chart, and what its patches should be.
struct ChartWish {
    std::string picture{};
    image::Corners corners{};
    std::string chart = "chart_1976"; ///< a target of patches: its published values, and how many there are
    /// Values of one's own instead: a table with a line for each patch, row by row, columns named r g b, X Y Z, x y Y
    /// or L a b (both of D50, adapted by Bradford), or a CGATS file with such.
    std::string values{};
    int columns = 0, rows = 0; ///< of one's own chart; 0: those of `chart`
    /// The same chart in another picture instead.
    std::string other{};
    image::Corners other_corners{};
};

/// Patches that were seen and what they should be.
struct PatchPair {
    Patch seen, wanted; ///< both in the numbers of `Paired::pairs`
};

struct ChartPaired {
    Paired paired; ///< of the patches that count
    std::vector<PatchPair> patches{};
};

/// The colours of a chart before (as seen) and after (as they should be), in the space of the picture. Errors name the
/// file; fewer than four patches count.
Result<ChartPaired> pairs_of_chart(const ChartWish& wish, const PairingOptions& options);

/// The values of a chart's patches: of `chart`, or of the file `values` (numbers of `own` where its columns are r, g,
/// b), in light of BT.709, with their names. Errors: there is no such chart, the file has no such columns or another
/// number of lines.
Result<std::vector<Patch>> chart_values(const ChartWish& wish, const std::string& own);

/// How many columns and rows a wish means.
std::pair<int, int> grid_of(const ChartWish& wish);

/// Names of the targets that are charts of patches with a published source, or of our own.
std::vector<std::string> chart_names();

} // namespace kasuri::pairing
