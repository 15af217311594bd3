#include "fit/model.hpp"

#include "builtins/builtin.hpp"
#include "colour/model.hpp"
#include "colour/space.hpp"
#include "ir/derive.hpp"
#include "lang/check.hpp"

#include <fmt/format.h>

namespace kasuri::fit {
namespace {

engine::Source source_of(const Planes& from) {
    return {static_cast<int>(from[0].size()), 1, {from[0].data(), from[1].data(), from[2].data(), {}}, {}};
}

} // namespace

Result<lang::Rule> rule_of(const std::string& text) {
    lang::CheckOptions options;
    options.proofs = false;
    lang::Checked checked = lang::check(text, builtins::vocabulary(), options);
    if (!checked.ok)
        return Error{checked.diagnostics.empty() ? "is no rule" : lang::message(checked.diagnostics.front()), "rule",
                     ""};
    return std::move(checked.rule);
}

bool run(const engine::Program& program, std::span<const double> values, const Planes& from, Planes& made,
         const CancelToken& cancel) {
    for (auto& plane : made)
        plane.resize(from[0].size());
    float* const sinks[] = {made[0].data(), made[1].data(), made[2].data()};
    return engine::run(program, source_of(from), values, std::span<float* const>(sinks), cancel);
}

Planes by_eye(const Planes& colours, const std::string& space) {
    const colour::Model& model = *colour::find_model("oklab");
    const colour::Space* known = colour::find_space(space);
    Planes made = colours;
    for (std::size_t i = 0; i < made[0].size(); ++i) {
        const colour::Triple seen =
            colour::from_rgb(model, known ? *known : *colour::find_space(colour::default_space),
                             {static_cast<double>(colours[0][i]), static_cast<double>(colours[1][i]),
                              static_cast<double>(colours[2][i])});
        for (std::size_t c = 0; c < 3; ++c)
            made[c][i] = static_cast<float>(seen[c]);
    }
    return made;
}

Result<Model> Model::make(const std::string& text, std::string_view working, std::string_view space, bool by_eye,
                          const CancelToken& cancel) {
    Result<lang::Rule> rule = rule_of(fmt::format("working {}\n{}", working, text));
    if (!rule)
        return rule.error();
    const Error called_off{"called off", "", ""};
    Model model;
    model.count_ = rule.value().parameters.size();
    const subject::Subject subject(std::move(rule.value()));
    engine::CompileOptions options;
    options.in_space = options.out_space = space;
    options.colour_only = true;
    options.cancel = &cancel;
    ir::Graph graph;
    std::vector<ir::NodeId> outputs = subject.lower(graph, options);
    if (outputs.empty())
        return called_off;
    if (const colour::Space* known = colour::find_space(space); by_eye && known) {
        const auto seen =
            colour::lower_from_rgb(graph, *colour::find_model("oklab"), *known, {outputs[0], outputs[1], outputs[2]});
        outputs.assign(seen.begin(), seen.end());
    }
    model.plain_ = std::make_shared<const engine::Program>(graph, outputs);
    std::vector<ir::NodeId> along;
    for (std::uint32_t i = 0; i < model.count_; ++i)
        along.push_back(graph.uniform(ir::first_parameter_slot + i));
    const auto slopes = ir::derivatives(graph, outputs, along);
    for (std::size_t v = 0; v < model.count_; ++v)
        for (std::size_t c = 0; c < 3; ++c)
            if (!graph.is_constant(slopes[c][v], 0)) {
                outputs.push_back(slopes[c][v]);
                model.places_.push_back(v * 3 + c);
            }
    if (cancel.cancelled())
        return called_off;
    model.sloped_ = std::make_shared<const engine::Program>(graph, outputs);
    return model;
}

bool Model::predict(std::span<const double> values, const Planes& from, Planes& made, const CancelToken& cancel) const {
    return run(*plain_, values, from, made, cancel);
}

bool Model::slopes(std::span<const double> values, const Planes& from, Slopes& made, const CancelToken& cancel) const {
    const std::size_t count = from[0].size();
    made.along.resize(3 * count_);
    std::vector<float*> sinks;
    for (auto& plane : made.made) {
        plane.resize(count);
        sinks.push_back(plane.data());
    }
    for (const std::size_t place : places_) {
        made.along[place].resize(count);
        sinks.push_back(made.along[place].data());
    }
    return engine::run(*sloped_, source_of(from), values, std::span<float* const>(sinks), cancel);
}

} // namespace kasuri::fit
