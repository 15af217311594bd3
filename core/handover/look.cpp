#include "handover/look.hpp"

#include "base/text.hpp"
#include "builtins/builtin.hpp"
#include "document/filter_file.hpp"
#include "handover/render_work.hpp"
#include "lang/check.hpp"

#include <fmt/format.h>

namespace kasuri::handover {
namespace {

std::string first_fault(const std::vector<lang::Diagnostic>& diagnostics, std::string_view text) {
    for (const lang::Diagnostic& d : diagnostics)
        if (d.severity == lang::Severity::error) {
            const LineColumn place = line_column(text, d.span.begin);
            return fmt::format("line {}, column {}: {}", place.line, place.column, lang::message(d));
        }
    return {};
}

/// The mask as a rule of its own that prints it, in the step's working space.
Result<lang::Rule> mask_rule(const document::LookStep& step, const lang::Rule& rule, const std::string& where) {
    lang::CheckOptions with;
    with.print = step.mask;
    with.proofs = false;
    const std::string text = rule.working.empty() ? std::string() : "working " + rule.working;
    lang::Checked checked = lang::check(text, builtins::vocabulary(), with);
    if (!checked.ok)
        return Error{"its mask: " + first_fault(checked.print_diagnostics, step.mask), where, "A mask is an expression such as smoothstep(0.2, 0.6, luminance(rgb))."};
    if (checked.rule.exprs[*checked.rule.print].type != lang::float_type)
        return Error{"its mask is no single number", where, "A mask is an expression such as smoothstep(0.2, 0.6, luminance(rgb))."};
    return std::move(checked.rule);
}

} // namespace

Result<std::shared_ptr<const RunnableLook>> runnable(const document::Look& look, const std::filesystem::path& folder) {
    auto made = std::make_shared<RunnableLook>();
    for (std::size_t i = 0; i < look.steps.size(); ++i) {
        const document::LookStep& step = look.steps[i];
        const std::string name = step.label.empty() ? step.filter : step.label;
        const std::string where = fmt::format("step {}{}", i + 1, name.empty() ? "" : " (" + name + ")");
        if (!step.on)
            continue;
        switch (document::state_of(step, folder)) {
        case document::FilterState::changed: made->notes.push_back(fmt::format("{}: {} says something else now; the look has its own copy", where, step.filter)); break;
        case document::FilterState::gone: made->notes.push_back(fmt::format("{}: {} cannot be read; the look has its own copy", where, step.filter)); break;
        default: break;
        }
        lang::CheckOptions options;
        options.open = document::used_beside(folder / step.filter);
        options.proofs = false; // their vocabulary is not known here, and nothing is proved
        lang::Checked checked = lang::check(step.text, builtins::vocabulary(), options);
        if (!checked.ok)
            return Error{"its rule: " + first_fault(checked.diagnostics, step.text), where, ""};
        if (!engine::is_blend(step.blend))
            return Error{fmt::format("there is no blend mode {}", step.blend), where, "The modes are the language's blend functions, without blend_ before them."};
        made->rules.push_back(std::move(checked.rule));
        const lang::Rule& rule = made->rules.back();
        const lang::Rule* mask = nullptr;
        if (!step.mask.empty()) {
            Result<lang::Rule> masking = mask_rule(step, rule, where);
            if (!masking)
                return masking.error();
            made->rules.push_back(std::move(masking.value()));
            mask = &made->rules.back();
        }
        for (const lang::Parameter& p : rule.parameters) {
            const auto chosen = step.values.find(p.name);
            made->parameters.push_back(chosen == step.values.end() ? p.value : lang::allowed_value(p, chosen->second));
        }
        made->parameters.push_back(step.opacity);
        made->blends.push_back(step.blend);
        made->steps.push_back({rule, made->blends.back(), mask, step.mask_inverted});
    }
    return std::shared_ptr<const RunnableLook>(std::move(made));
}

Result<io::SaveReport> render(const RunnableLook& look, const RenderJob& job, const CancelToken& cancel, std::atomic<std::size_t>* done) {
    RenderWork work;
    for (const engine::ChainStep& step : look.steps)
        work.sources.insert(work.sources.end(), step.rule.sources.begin(), step.rule.sources.end());
    work.bind = [&](std::span<const std::shared_ptr<const image::Picture>> pictures) {
        engine::BoundSources all;
        std::size_t first = 0;
        for (const engine::ChainStep& step : look.steps) {
            engine::BoundSources bound = engine::bind_sources(step.rule, pictures.subspan(first, step.rule.sources.size()));
            first += step.rule.sources.size();
            all.spaces.insert(all.spaces.end(), bound.spaces.begin(), bound.spaces.end());
            all.planes.insert(all.planes.end(), bound.planes.begin(), bound.planes.end());
            all.kept.insert(all.kept.end(), bound.kept.begin(), bound.kept.end());
        }
        return all;
    };
    work.compile = [&](const engine::CompileOptions& options) { return engine::compile_chain(look.steps, options); };
    work.values = look.parameters;
    Result<io::SaveReport> report = render(work, job, cancel, done);
    if (report)
        report.value().notes.insert(report.value().notes.begin(), look.notes.begin(), look.notes.end());
    return report;
}

} // namespace kasuri::handover
