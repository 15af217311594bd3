#pragma once
#include "common.hpp"
#include "handover/subject.hpp"

#include <memory>

namespace kasuri::cli {

/// A filter or a look as it is handed over, or the exit code after everything has been said on standard error.
struct LoadedSubject {
    int exit = 0;
    handover::Subject subject{};
    std::vector<std::string> notes{}; ///< of filters of a look that have changed or are gone
    Loaded filter{};                  ///< if it is one
    document::Look look{};            ///< otherwise; a LUT is the one step of it
};
/// FILTER may be a .kasurilook or a LUT (.cube, .clf ...); then --set and --preset are errors, for a look has its own
/// values.
LoadedSubject load_subject(const RuleOptions& options, const char* command);

} // namespace kasuri::cli
