#pragma once
#include "document/look_file.hpp"
#include "fit/pairs.hpp"

#include <optional>
#include <string>
#include <vector>

namespace kasuri::pairing {

struct PairingOptions {
    std::string lut_space{};      ///< what the numbers of a LUT mean; empty: the usual one
    std::string in_space{};       ///< of pictures, before what they say; of a table. Empty: that, and the usual one
    std::string layer{};          ///< of pictures; empty: the usual one
    std::vector<double> domain{}; ///< lowest and highest value that come in; empty: a LUT's own, else 0 and 1
    bool as_they_lie = false;     ///< pictures: pixel by pixel, without bringing the second over the first
};

struct Paired {
    fit::Pairs pairs;
    std::string detail{};             ///< how they were taken, for people
    std::vector<std::string> notes{}; ///< of files
    bool moved = false;               ///< of pictures: the second was brought over the first
};

/// Whether a file is one that pairs come from by itself: a LUT, a look, a filter, a table (.csv, .tsv, .txt).
bool holds_pairs(const std::string& file);

/// Of one file that `holds_pairs`, or of two pictures, before and after (a target's name may stand for either). Where
/// the second is shifted, cropped or scaled it is brought over the first (`registered`), and `detail` says how far.
/// Errors name the file.
Result<Paired> pairs_from(const std::vector<std::string>& files, const PairingOptions& options,
                          const CancelToken& cancel = {});

/// Of one step by itself, laid over nothing, at its values: a LUT at its own points, in what its numbers mean.
Result<Paired> pairs_from(document::LookStep step, const std::string& title, const CancelToken& cancel = {});

} // namespace kasuri::pairing
