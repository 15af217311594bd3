#pragma once
#include "document/look_file.hpp"
#include "engine/chain.hpp"
#include "handover/render.hpp"

#include <deque>

namespace kasuri::handover {

/// A look that can run: its checked rules, in order, without the steps that are off.
struct RunnableLook {
    std::deque<lang::Rule> rules; ///< steps point into it, and into the names of their blend modes
    std::deque<std::string> blends;
    std::vector<engine::ChainStep> steps;
    std::vector<double> parameters;
    std::vector<std::string> notes; ///< of filters that have changed or are gone

    RunnableLook() = default;
    RunnableLook(const RunnableLook&) = delete; ///< the steps would go on pointing into the first
    RunnableLook& operator=(const RunnableLook&) = delete;
};

/// Checks every step's rule, mask and blend mode; the error names the step, and where in its text. `folder`: of the look, where filters
/// and the files that they use are looked for. Values out of their ranges are brought inside.
Result<std::shared_ptr<const RunnableLook>> runnable(const document::Look& look, const std::filesystem::path& folder);

Result<io::SaveReport> render(const RunnableLook& look, const RenderJob& job, const CancelToken& cancel = {}, std::atomic<std::size_t>* done = nullptr);

} // namespace kasuri::handover
