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

Result<io::SaveReport> render(const RenderWork& work, const RenderJob& job, const CancelToken& cancel, std::atomic<std::size_t>* done);

} // namespace kasuri::handover
