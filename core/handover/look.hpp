#pragma once
#include "document/look_file.hpp"
#include "engine/chain.hpp"
#include "engine/sources.hpp"
#include "handover/render.hpp"

#include <deque>

namespace kasuri::handover {

/// A look that can run: its checked rules, in order, without the steps that are off.
struct RunnableLook {
    std::deque<lang::Rule> rules; ///< steps point into it, and into the names of their blend modes
    std::deque<std::string> blends;
    std::vector<engine::ChainStep> steps;
    std::vector<double> parameters;
    std::vector<std::string> notes;                    ///< of filters that have changed or are gone
    std::vector<std::size_t> numbers;                  ///< for each of `steps`, which step of the look it is
    std::vector<std::pair<std::size_t, Error>> faults; ///< of steps that were left out, where that was allowed

    RunnableLook() = default;
    RunnableLook(const RunnableLook&) = delete; ///< the steps would go on pointing into the first
    RunnableLook& operator=(const RunnableLook&) = delete;
};

/// The mask of a step as a rule that prints it, for numbers of a working space. Its text may have statements in lines
/// before the expression
/// (`source lamp`). `as_it_counts`: inverted if the step says so, which a chain does itself. The error says what and
/// where.
Result<lang::Rule> mask_rule(const document::LookStep& step, std::string_view working, const std::string& where,
                             bool as_it_counts = false);

/// The sources of all rules and masks, in the order in which the chain reads them.
std::vector<lang::SourceInput> sources_of(std::span<const engine::ChainStep> steps);

/// Checks every step's rule, mask and blend mode; the error names the step, and where in its text. `folder`: of the
/// look, where filters and the files that they use are looked for. Values out of their ranges are brought inside.
Result<std::shared_ptr<const RunnableLook>> runnable(const document::Look& look, const std::filesystem::path& folder);

/// The same while somebody works on it: a step with a fault is left out, and files are not asked whether they have
/// changed.
std::shared_ptr<const RunnableLook> runnable_so_far(const document::Look& look, const std::filesystem::path& folder);

/// The parameters for the same look with other values and opacities (what was opaque still is, and only that).
std::vector<double> parameters_of(const RunnableLook& made, const document::Look& look);

/// The look without what its parameters are: looks for which it is equal share a RunnableLook but for the parameters.
document::Look structure_of(document::Look look);

Result<io::SaveReport> render(const RunnableLook& look, const RenderJob& job, const CancelToken& cancel = {},
                              std::atomic<std::size_t>* done = nullptr);

} // namespace kasuri::handover
