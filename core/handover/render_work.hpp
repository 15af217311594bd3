#pragma once
#include "engine/lower.hpp"
#include "engine/sources.hpp"
#include "handover/render.hpp"

#include <functional>
#include <memory>

namespace kasuri::handover {

/// What is applied to a picture, be it a rule or a look.
struct RenderWork {
    std::vector<lang::SourceInput> sources{};
    std::function<engine::BoundSources(std::span<const std::shared_ptr<const image::Picture>>)> bind{};
    std::function<engine::ProgramPtr(const engine::CompileOptions&)> compile{};
    std::vector<double> values{};
};

struct RunnableLook;
struct Subject;
RenderWork work_of(const Subject& subject); ///< keeps what it needs
/// Of a rule or a look, which must outlive it.
RenderWork work_of(const lang::Rule& rule, std::span<const double> values);
RenderWork work_of(const RunnableLook& look);

Result<io::SaveReport> render(const RenderWork& work, const RenderJob& job, const CancelToken& cancel = {},
                              std::atomic<std::size_t>* done = nullptr);

} // namespace kasuri::handover
