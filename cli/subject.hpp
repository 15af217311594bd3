#pragma once
#include "common.hpp"
#include "document/look_file.hpp"
#include "subject/subject.hpp"

namespace kasuri::cli {

/// What FILTER, --rule, --preset, --set and --source name; or the exit code after everything has been said on standard
/// error.
struct LoadedSubject {
    int exit = 0;
    subject::Subject subject{};
    std::string text{};    ///< of a filter, as soon as it could be read
    document::Look look{}; ///< of a look or a LUT, which is the one step of it
    bool is_filter = true;
    std::vector<lang::Diagnostic> diagnostics{}; ///< of a filter
    std::vector<std::string> notes{};            ///< of filters of a look that have changed or are gone
};
/// FILTER may be a filter, a look (.kasurilook) or a LUT (.cube, .clf ...); of the latter two --set and --preset are
/// errors, for a look has its own values.
LoadedSubject load_subject(const RuleOptions& options);

/// Says which further pictures are missing and that nothing was measured, and returns the exit code for that.
int say_not_measured(const std::string& file, const std::vector<std::string>& sources);

} // namespace kasuri::cli
