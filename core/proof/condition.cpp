#include "engine/lower.hpp"
#include "proof/measure.hpp"
#include "targets/target.hpp"

#include <fmt/format.h>

namespace kasuri::proof {
namespace {

image::Picture picture_of(const std::string& target) {
    const targets::Target* found = targets::find(target);
    return found ? targets::sampled(*found, 1025) : targets::lattice(telling_levels);
}

/// The subject, and behind it what statements say of what goes in and comes out.
engine::ProgramPtr compiled_behind(const subject::Subject& subject, const lang::Rule& statements,
                                   const engine::CompileOptions& options) {
    ir::Graph graph;
    engine::CompileOptions spaces;
    spaces.source_spaces = options.source_spaces;
    const std::vector<ir::NodeId> made = subject.lower(graph, spaces);
    const engine::Feed feed{
        {graph.input(ir::Input::r), graph.input(ir::Input::g), graph.input(ir::Input::b), graph.input(ir::Input::a)},
        0,
        0,
        std::array{made[0], made[1], made[2], made[3]}};
    engine::CompileOptions further = options;
    further.source_spaces.clear();
    return std::make_shared<const engine::Program>(graph, engine::lower_behind(statements, graph, further, feed));
}

/// By how much a comparison is broken; negative where it holds with room to spare.
double broken_by(lang::Operator relation, double figure, double bound) {
    const double over = relation == lang::Operator::greater || relation == lang::Operator::greater_equal
        ? bound - figure
        : figure - bound;
    return std::isnan(over) ? std::numeric_limits<double>::infinity() : over;
}
bool holds(lang::Operator relation, double figure, double bound) {
    switch (relation) {
    case lang::Operator::less: return figure < bound;
    case lang::Operator::less_equal: return figure <= bound;
    case lang::Operator::greater: return figure > bound;
    default: return figure >= bound;
    }
}

} // namespace

std::optional<Outcome> check_condition(const subject::Subject& subject, const lang::ProofLine& line,
                                       std::span<const std::vector<double>> settings, const CancelToken& cancel,
                                       const lang::Rule* statements) {
    const bool compares = line.figure.has_value();
    engine::CompileOptions options;
    options.also = compares ? std::vector{*line.figure, *line.bound} : std::vector{*line.condition};
    options.source_spaces = subject::source_spaces(subject);
    const engine::ProgramPtr program =
        statements ? compiled_behind(subject, *statements, options) : engine::compile(*subject.rule(), options);
    const std::vector<std::vector<float>> sources = subject::source_settings(subject);
    const std::string target = line.colours.size() == 1 ? "this colour"
        : !line.colours.empty()                         ? "these colours"
        : line.target.empty()                           ? "lattice"
                                                        : line.target;
    const image::Picture picture = line.colours.empty() ? picture_of(target) : picture_of(line.colours);
    const std::size_t pixels = picture.pixels();
    std::vector<std::vector<float>> planes(4 + options.also.size(), std::vector<float>(pixels));
    std::vector<float*> outputs;
    for (std::vector<float>& plane : planes)
        outputs.push_back(plane.data());
    engine::Source source{picture.width, picture.height, {}};
    for (std::size_t c = 0; c < 4; ++c)
        source.planes[c] = engine::view_of(picture.planes[c]);

    Outcome outcome;
    outcome.title = line.title.empty() ? line.text : line.title;
    std::vector<std::string> listed;
    for (const auto& [r, g, b] : line.colours)
        listed.push_back(fmt::format("({}, {}, {})", r, g, b));
    outcome.doc = line.text + " on " + (listed.empty() ? target : fmt::format("{}", fmt::join(listed, ", ")));
    outcome.relation = compares ? std::string(lang::symbol(line.relation)) : "<=";
    outcome.passed = true;
    outcome.of_look = statements != nullptr;
    outcome.space = subject.in_space();
    outcome.varied = subject::unbound(subject);
    outcome.variations = static_cast<int>(sources.size());
    outcome.settings = static_cast<int>(settings.size());
    double worst = -std::numeric_limits<double>::infinity(), broken = 0;
    bool first = true;
    const std::vector<float>* worst_sources = nullptr;
    for (const std::vector<double>& values : settings)
        for (const std::vector<float>& further : sources) {
            source.more = subject::constant_planes(further);
            if (!engine::run(*program, source, values, std::span<float* const>(outputs), cancel))
                return std::nullopt;
            double false_here = 0;
            for (std::size_t i = 0; i < pixels; ++i) {
                const double figure = static_cast<double>(planes[4][i]);
                const double bound = compares ? static_cast<double>(planes[5][i]) : 0;
                const bool good = compares ? holds(line.relation, figure, bound) : figure != 0;
                const double over = compares ? broken_by(line.relation, figure, bound) : (good ? 0 : 1);
                outcome.passed = outcome.passed && good;
                false_here += good ? 0 : 1;
                if (first || over > worst) {
                    worst = over;
                    first = false;
                    outcome.figure = figure;
                    outcome.limit = bound;
                    outcome.values = values;
                    worst_sources = &further;
                    outcome.worst = {target,
                                     static_cast<int>(i),
                                     static_cast<int>(pixels),
                                     picture.at(i),
                                     {planes[0][i], planes[1][i], planes[2][i], planes[3][i]}};
                }
            }
            broken = std::max(broken, false_here);
            outcome.samples += pixels;
        }
    if (worst_sources)
        outcome.at = settings_text(subject, outcome.values, *worst_sources);
    if (!compares) {
        outcome.figure = broken;
        outcome.limit = 0;
    }
    return outcome;
}

} // namespace kasuri::proof
