#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "document/look_file.hpp"
#include "subject/subject.hpp"

#include <filesystem>
#include <string>
#include <vector>

namespace kasuri::report {

/// What a page is about.
struct Order {
    /// Text and values of each step are shown, and the proofs of each are checked at its values. A look that is no more
    /// than one filter (document::is_one_filter) is shown as that.
    document::Look look;
    std::filesystem::path folder{}; ///< of the look, or of the filter: where files are that it uses
    std::vector<std::filesystem::path> pictures{};
    subject::Bindings sources{}; ///< pictures of the look's sources
    std::string made_at{};       ///< date and time, as it shall stand there; empty: none
};

/// The page. Errors: a rule does not compile, a picture cannot be read.
Result<std::string> html(const Order& order, const CancelToken& cancel = {});

} // namespace kasuri::report
