#pragma once
#include "base/result.hpp"

#include <filesystem>
#include <functional>
#include <map>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::document {

inline constexpr int look_version = 1;
/// How deep looks may stand within looks, and how many steps they may have together.
inline constexpr int deepest_look = 8;
inline constexpr std::size_t max_steps = 1000;
inline constexpr double max_mask_pixels = 200; ///< of growing and softening

/// The content of a file that may be large: copies share it, and are equal at a glance.
class SharedText {
public:
    SharedText() = default;
    explicit SharedText(std::string text);
    const std::string& text() const { return of_->text; }
    const std::string& hash() const { return of_->hash; } ///< content_hash of it
    friend bool operator==(const SharedText& a, const SharedText& b) {
        return a.of_ == b.of_ || a.of_->text == b.of_->text;
    }

private:
    struct Data {
        std::string text, hash;
    };
    static const std::shared_ptr<const Data>& nothing();
    std::shared_ptr<const Data> of_ = nothing();
};

/// One filter of a look, or a look within it, and how it is laid over what came before.
/// Where a step comes from. What came in a look's file speaks for itself alone: paths in it are words to show, and
/// only files below the look's own folder are opened, to say whether they are another version. What the user added has
/// been agreed to. Two steps that do the same are equal wherever they come from.
struct Origin {
    bool look_file = false;
    std::filesystem::path folder{}; ///< of the look's file; empty: it came from no file
    friend bool operator==(const Origin&, const Origin&) { return true; }
};

struct LookStep {
    std::string label;
    std::string filter; ///< path of its file, relative to the look's folder; empty: it has none
    std::string text;   ///< the rule as it was when the step was made or brought up to date: what is used
    std::map<std::string, double> values; ///< that were chosen, by parameter
    bool on = true;
    double opacity = 1;           ///< 0 to 1
    std::string blend = "normal"; ///< a blend mode of the language, without blend_
    std::string mask{};           ///< an expression of what comes into the step; empty: everywhere
    bool mask_inverted = false;
    double mask_grow = 0;                      ///< pixels: the mask's bright parts grow by so much, or shrink below 0
    double mask_soften = 0;                    ///< pixels: then it is blurred with this deviation
    std::map<std::string, std::string> uses{}; ///< copies of the files that the rule uses, by the names it uses
    std::vector<LookStep> within{};            ///< of a look that is one step: its steps. Then there is no rule
    bool is_look = false;                      ///< whether it is one
    std::string proofs{};                      ///< and what it promises, as in Look
    std::string lut{};                         ///< ending of a LUT file that the step is; empty: it is a rule
    SharedText lut_text{};                     ///< its content
    std::string space = "srgb";                ///< of a LUT: what its numbers mean
    bool trilinear = false; ///< of a LUT: how what lies between its points is found; else tetrahedrally
    std::string bench{};    ///< takes and the like of the rule, as the text of a bench file
    std::string others{};   ///< fields that this version does not know, as a JSON object
    Origin origin{};
    friend bool operator==(const LookStep&, const LookStep&) = default;
};

/// Filters in order. JSON: {"kasuri-look": 1, "title": ..., "note": ..., "steps": [...]}.
struct Look {
    std::string title, note;
    std::vector<LookStep> steps;
    std::string
        proofs{}; ///< what it promises as a whole: proof lines of the language, about what comes in and goes out
    std::string others{}; ///< the same of the whole
    friend bool operator==(const Look&, const Look&) = default;
};

/// Of a text, for noticing that it is another one: FNV-1a, 64 bits, as 16 hexadecimal digits. Source:
/// draft-eastlake-fnv-17 (from memory).
std::string content_hash(std::string_view text);

// Errors say what is wrong and where: no JSON, a newer version, a step that is none, a number out of its range.
std::string look_text(const Look& look);
/// The look of a JSON text; `where` is what errors name as its place.
Result<Look> look_of(std::string_view text, const std::string& where);
/// Reads a look file (at most 64 MiB); paths of steps stay as they are written.
Result<Look> load_look(const std::filesystem::path& path);
/// Whether it can be read again: not more than `max_steps` steps, nor looks within looks deeper than `deepest_look`.
/// The error says which.
Status fits_limits(const Look& look);
/// Whole or not at all. The error too if it could not be read again.
Status save_look(const std::filesystem::path& path, const Look& look);

/// What has become of a step's file since.
enum class FilterState {
    same,
    changed, ///< the file says something else now; the look goes on with its own copy
    gone,    ///< there is none, or it cannot be read
    none,    ///< the step has no file
};
/// Whether the step's file is one to be opened: it was added by the user, or lies below the folder of the look that the
/// step came in, links followed. `folder`: what its path is relative to.
bool may_open_file(const LookStep& step, const std::filesystem::path& folder);
FilterState state_of(const LookStep& step, const std::filesystem::path& folder);

/// What `use` opens in a step's rule: the look's copies, then files beside the filter.
std::function<Result<std::string>(const std::string&)> used_by(const LookStep& step,
                                                               const std::filesystem::path& folder);

/// Whether the step is a look or a LUT.
bool is_no_rule(const LookStep& step);

/// Whether the look says no more than a filter file can: one rule, laid over nothing, without title, note or proofs of
/// its own.
bool is_one_filter(const Look& look);

/// A step of a filter, a LUT or of another look: a copy of it, with its path as it is given.
Result<LookStep> step_from(const std::filesystem::path& file);

/// Paths of filters made relative to `folder`, or absolute from there.
void make_relative(Look& look, const std::filesystem::path& folder);
void make_absolute(Look& look, const std::filesystem::path& folder);

/// The step with its file's text of now; its values stay, and the copies of used files are forgotten. The error if that
/// cannot be read.
Result<LookStep> brought_up_to_date(const LookStep& step, const std::filesystem::path& folder);

} // namespace kasuri::document
