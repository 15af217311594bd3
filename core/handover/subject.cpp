#include "handover/subject.hpp"

#include "colour/space.hpp"
#include "engine/sources.hpp"
#include "handover/render_work.hpp"
#include "insight/algebra.hpp"

#include <fmt/format.h>

namespace kasuri::handover {
namespace {

engine::CompileOptions between(const Subject& subject, std::string_view in, std::string_view out) {
    engine::CompileOptions options;
    options.in_space = in.empty() ? std::string_view(subject.space) : in;
    options.out_space = out.empty() ? std::string_view(subject.space) : out;
    return options;
}

void add_parameters(const engine::ChainStep& chained, const std::string& name, const std::string& identifier,
                    std::vector<SubjectParameter>& to) {
    if (chained.rule)
        for (const lang::Parameter& p : chained.rule->parameters)
            to.push_back({name + ": " + p.name, identifier + "_" + p.name, p.description, 0, p.low, p.high});
    std::size_t number = 0;
    for (const engine::ChainStep& each : chained.within) {
        ++number;
        add_parameters(each, fmt::format("{}.{}", name, number), fmt::format("{}_{}", identifier, number), to);
    }
    to.push_back(
        {name + ": opacity", identifier + "_opacity", "How far the step is laid over what comes into it", 0, 0, 1});
}

} // namespace

std::vector<double> Subject::values() const {
    std::vector<double> all;
    for (const SubjectParameter& p : parameters)
        all.push_back(p.value);
    return all;
}

Subject subject_of(lang::Rule rule, std::span<const double> values) {
    const auto kept = std::make_shared<const lang::Rule>(std::move(rule));
    Subject subject{kept->title.empty() ? "A rule of Kasuri" : kept->title, kept->note, false,
                    std::string(engine::working_space(*kept))};
    for (std::size_t i = 0; i < kept->parameters.size(); ++i) {
        const lang::Parameter& p = kept->parameters[i];
        subject.parameters.push_back(
            {p.name, p.name, p.description, i < values.size() ? values[i] : p.value, p.low, p.high});
    }
    subject.sources = kept->sources;
    subject.lower = [kept](ir::Graph& graph, const engine::CompileOptions& options) {
        return engine::lower(*kept, graph, options);
    };
    return subject;
}

Subject subject_of(std::shared_ptr<const RunnableLook> made, const document::Look& look) {
    Subject subject{look.title.empty() ? "A look of Kasuri" : look.title, look.note, true,
                    std::string(made->steps.empty() ? colour::default_space : engine::space_of(made->steps.front()))};
    for (std::size_t i = 0; i < made->steps.size(); ++i)
        add_parameters(made->steps[i], fmt::format("step {}", made->numbers[i] + 1),
                       fmt::format("step{}", made->numbers[i] + 1), subject.parameters);
    for (std::size_t i = 0; i < subject.parameters.size(); ++i)
        subject.parameters[i].value = made->parameters[i];
    subject.sources = sources_of(made->steps);
    subject.lower = [made](ir::Graph& graph, const engine::CompileOptions& options) {
        return engine::lower_chain(made->steps, graph, options);
    };
    return subject;
}

RenderWork work_of(const Subject& subject) {
    RenderWork work;
    work.sources = subject.sources;
    work.bind = [sources = subject.sources](std::span<const std::shared_ptr<const image::Picture>> pictures) {
        return engine::bind_sources(sources, pictures);
    };
    work.compile = [lower = subject.lower](const engine::CompileOptions& options) {
        ir::Graph graph(options.rewrite);
        const std::vector<ir::NodeId> outputs = lower(graph, options);
        return std::make_shared<const engine::Program>(graph, outputs, options.fuse);
    };
    work.values = subject.values();
    return work;
}

engine::ProgramPtr compiled(const Subject& subject, std::string_view in, std::string_view out, bool colour_only) {
    engine::CompileOptions options = between(subject, in, out);
    options.colour_only = colour_only;
    ir::Graph graph;
    const std::vector<ir::NodeId> outputs = subject.lower(graph, options);
    return std::make_shared<const engine::Program>(graph, outputs, true);
}

insight::Formula formula_of(const Subject& subject, std::string_view in, std::string_view out) {
    const engine::CompileOptions spaces = between(subject, in, out);
    return {[&subject, in = std::string(spaces.in_space),
             out = std::string(spaces.out_space)](ir::Graph& graph, const engine::CompileOptions& options) {
                engine::CompileOptions with = options;
                if (with.in_space.empty())
                    with.in_space = in;
                if (with.out_space.empty())
                    with.out_space = out;
                graph.fix_parameters(subject.values()); // a choice that is made reads nothing
                std::vector<ir::NodeId> outputs = subject.lower(graph, with);
                if (with.colour_only)
                    outputs.resize(3);
                return outputs;
            },
            std::string(spaces.in_space)};
}

std::optional<insight::Affine> matrix_of(const Subject& subject, std::string_view in, std::string_view out) {
    return insight::shown_matrix(formula_of(subject, in, out), {});
}

bool is_curves(const Subject& subject, std::string_view in, std::string_view out) {
    return insight::separable(formula_of(subject, in, out));
}

} // namespace kasuri::handover
