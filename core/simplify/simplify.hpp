#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "document/look_file.hpp"

#include <functional>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::simplify {

struct Options {
    /// What the rule's own `use` reads.
    std::function<Result<std::string>(const std::string&)> open{};
};

/// A text that is proved to do the same.
struct Shorter {
    std::string text{};
    std::vector<std::string> done{}; ///< a sentence for each change, in order
    int before = 0, after = 0;       ///< words, numbers and signs, without comments
};

/// Every change is one of which insight::shown_equal says that it is the same for every finite colour and every value
/// of every parameter; a text that no such change makes shorter comes back as it is. Parameters, presets, proofs,
/// functions and comments stay; comments right above lines that go, go with them. Errors: the rule has a fault, or more
/// than 60 statements that do
/// work, or 4000 words; it was called off.
Result<Shorter> simplified(std::string_view text, const Options& options = {}, const CancelToken& cancel = {});

/// A look whose steps are each proved to do the same.
struct ShorterLook {
    document::Look look{};
    std::vector<std::string> done{};     ///< a sentence for each change, the step's number and name before it
    std::vector<std::string> not_read{}; ///< of steps that stay as they are because something is wrong with their text
    int before = 0, after = 0;           ///< of all steps that are rules
};

/// Every step that is a rule, also within looks within it, by itself.
Result<ShorterLook> simplified(const document::Look& look, const CancelToken& cancel = {});

} // namespace kasuri::simplify
