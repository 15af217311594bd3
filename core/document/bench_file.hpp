#pragma once
#include "base/result.hpp"

#include <filesystem>
#include <map>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace kasuri::document {

/// Stands beside the filter: "madder.kasuri" has "madder.kasuri-bench".
inline constexpr std::string_view bench_ending = "-bench";
inline constexpr int bench_version = 1;

/// A remembered state of rule and values.
struct KeptTake {
    std::string name;
    std::string text;
    std::map<std::string, double> values; ///< that were chosen, by parameter
    friend bool operator==(const KeptTake&, const KeptTake&) = default;
};

/// A kept place. `source`: "target:NAME", or "PICTURE#LAYER" with the picture's path relative to the filter's folder.
struct KeptPin {
    int number = 0;
    std::string source;
    int x = 0, y = 0;
    friend bool operator==(const KeptPin&, const KeptPin&) = default;
};

/// How values are set: groups of names that move together, and narrower ranges.
struct KeptTuning {
    std::vector<std::vector<std::string>> links;
    std::map<std::string, std::pair<double, double>> ranges;
    bool empty() const { return links.empty() && ranges.empty(); }
    friend bool operator==(const KeptTuning&, const KeptTuning&) = default;
};

/// What is kept with a filter and is not its text. JSON: {"kasuri-bench": 1, "takes": [...], "pins": [...], "links":
/// [[name, ...], ...], "ranges": {name: [low, high]}, "context": {variable: value}}.
struct BenchFile {
    std::vector<KeptTake> takes;
    std::vector<KeptPin> pins;
    KeptTuning tuning{};
    std::map<std::string, std::string> context{}; ///< of the colour config's variables
    std::string others{}; ///< fields that this version does not know, as a JSON object: they are written again
    bool empty() const { return takes.empty() && pins.empty() && tuning.empty() && context.empty() && others.empty(); }
    friend bool operator==(const BenchFile&, const BenchFile&) = default;
};

/// The file beside a filter that keeps its takes and pins: its name with "-bench".
std::filesystem::path bench_path(const std::filesystem::path& filter);

/// Of a filter; an empty one if there is none. A file of a newer version is an error, and so is what cannot be
/// understood; the error says where.
Result<BenchFile> load_bench(const std::filesystem::path& filter);

/// Writes it whole or not at all; removes it if there is nothing to keep.
Status save_bench(const std::filesystem::path& filter, const BenchFile& bench);

/// What two programs have made of `base` since both saw it, together: what either added, changed or took away. Where
/// both changed one thing mine stays, and theirs is there too under another name or number.
BenchFile merged(const BenchFile& base, const BenchFile& mine, const BenchFile& theirs);

// As text, for the recovery file.
std::string bench_text(const BenchFile& bench);
/// The content of a JSON text; `where` is what errors name as its place.
Result<BenchFile> bench_of(std::string_view text, const std::string& where);

} // namespace kasuri::document
