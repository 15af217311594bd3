#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "document/look_file.hpp"
#include "subject/subject.hpp"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace kasuri::look {

/// A look as a subject, at its values; its chain has the steps that are on.
struct Made {
    subject::Subject subject;
    std::vector<std::string> notes{};   ///< of filters that have changed or are gone
    std::vector<std::size_t> numbers{}; ///< for each step of the chain, which step of the look it is, from 0
    std::vector<std::pair<std::size_t, Error>> faults{}; ///< of steps that were left out, where that was allowed
};

/// The mask of a step as a rule that prints it, for numbers of a working space. Its text may have statements in lines
/// before the expression (`source lamp`). `as_it_counts`: inverted if the step says so, which a chain does itself. The
/// error says what and where.
Result<lang::Rule> mask_rule(const document::LookStep& step, std::string_view working, const std::string& where,
                             bool as_it_counts = false);

/// Checks every step's rule, mask and blend mode; the error names the step, and where in its text. `folder`: of the
/// look, where filters and the files that they use are looked for. Values out of their ranges are brought inside.
Result<Made> make(const document::Look& look, const std::filesystem::path& folder);

/// The same while somebody works on it: a step with a fault is left out, and files are not asked whether they have
/// changed. Nothing if it is called off.
std::optional<Made> make_so_far(const document::Look& look, const std::filesystem::path& folder,
                                const CancelToken& cancel = {});

/// The values of the subject for the same look with other values and opacities (what was opaque still is, and only
/// that).
std::vector<double> values_of(const Made& made, const document::Look& look);

/// Whether the two differ in values alone, so that one chain serves both.
bool same_structure(const document::Look& a, const document::Look& b);

} // namespace kasuri::look
