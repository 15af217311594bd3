#pragma once
#include "base/result.hpp"
#include "document/look_file.hpp"
#include "lang/check.hpp"
#include "subject/subject.hpp"

#include <filesystem>
#include <functional>
#include <string>
#include <vector>

namespace kasuri::opening {

/// How files are read that do not say it themselves: a LUT, a colour decision list.
struct Options {
    std::string space;      ///< of their numbers; empty: the usual one of their kind
    bool trilinear = false; ///< how a LUT is read between its points; else tetrahedrally
};

/// What came of a file or a text.
struct Opened {
    bool ok = false; ///< otherwise the text has faults, and there is no subject
    subject::Subject subject{};
    std::string text{};                          ///< of a filter
    std::vector<lang::Diagnostic> diagnostics{}; ///< of `text`
    document::Look look{};                       ///< of a look, and of a LUT as the one step of it
    bool is_filter = true;
    std::vector<std::string> notes{}; ///< of filters of a look that have changed or are gone
};

/// A rule at its defaults. `open`: the text of a used file by its name; null: nothing can be used.
Opened of_text(std::string text, std::function<Result<std::string>(const std::string&)> open = {});

/// A file by its ending; what has none that is known is a filter. The error: it cannot be read, or a look cannot be
/// made of it.
Result<Opened> of_file(const std::filesystem::path& file, const Options& options = {});

/// Parts of it: the text of a filter, or of the filter that a colour decision list of one correction is.
Result<std::string> filter_text_of(const std::filesystem::path& file, const Options& options = {});
/// A look, or a LUT as a look of one step.
Result<document::Look> look_of(const std::filesystem::path& file, const Options& options = {});
/// Whether `look_of` opens it, by its name.
bool is_look_or_lut(const std::filesystem::path& file);

} // namespace kasuri::opening
