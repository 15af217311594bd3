#pragma once
#include "base/result.hpp"

#include <filesystem>
#include <map>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::document {

inline constexpr std::string_view look_ending = ".kasurilook";
inline constexpr int look_version = 1;

/// One filter of a look, and how it is laid over what came before.
struct LookStep {
    std::string label;
    std::string filter;                   ///< path of its file, relative to the look's folder; empty: it has none
    std::string text;                     ///< the rule as it was when the step was made or brought up to date: what is used
    std::map<std::string, double> values; ///< that were chosen, by parameter
    bool on = true;
    double opacity = 1;                   ///< 0 to 1
    std::string blend = "normal";         ///< a blend mode of the language, without blend_
    std::string mask{};                   ///< an expression of what comes into the step; empty: everywhere
    bool mask_inverted = false;
    std::string others{};                 ///< fields that this version does not know, as a JSON object
    friend bool operator==(const LookStep&, const LookStep&) = default;
};

/// Filters in order. JSON: {"kasuri-look": 1, "title": ..., "note": ..., "steps": [...]}.
struct Look {
    std::string title, note;
    std::vector<LookStep> steps;
    std::string others{}; ///< the same of the whole
    friend bool operator==(const Look&, const Look&) = default;
};

/// Of a text, for noticing that it is another one: FNV-1a, 64 bits, as 16 hexadecimal digits. Source: draft-eastlake-fnv-17 (from memory).
std::string content_hash(std::string_view text);

// Errors say what is wrong and where: no JSON, a newer version, a step that is none, a number out of its range.
std::string look_text(const Look& look);
Result<Look> look_of(std::string_view text, const std::string& where);
Result<Look> load_look(const std::filesystem::path& path);
/// Whole or not at all.
Status save_look(const std::filesystem::path& path, const Look& look);

/// What has become of a step's file since.
enum class FilterState {
    same,
    changed, ///< the file says something else now; the look goes on with its own copy
    gone,    ///< there is none, or it cannot be read
    none,    ///< the step has no file
};
FilterState state_of(const LookStep& step, const std::filesystem::path& folder);

/// The step with its file's text of now; its values stay. The error if that cannot be read.
Result<LookStep> brought_up_to_date(const LookStep& step, const std::filesystem::path& folder);

} // namespace kasuri::document
