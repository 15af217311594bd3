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
    /// Filters alone, or the steps of a look: text and values of each are shown, and the proofs of each are checked at
    /// its values.
    document::Look look;
    bool is_look = false;
    std::filesystem::path folder{}; ///< of the look, or of the filter: where files are that it uses
    std::vector<std::filesystem::path> pictures{};
    subject::Bindings sources{}; ///< pictures of the look's sources
    std::string made_at{};       ///< date and time, as it shall stand there; empty: none
};

/// The page. Errors: a rule does not compile, a picture cannot be read.
Result<std::string> html(const Order& order, const CancelToken& cancel = {});

} // namespace kasuri::report
