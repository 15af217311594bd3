#include "handover/look_sums.hpp"

#include "base/text.hpp"
#include "engine/chain.hpp"
#include "insight/algebra.hpp"

#include <cmath>
#include <fmt/format.h>

namespace kasuri::handover {
namespace {

constexpr std::size_t longest = 40; ///< steps: every run of them is looked at
constexpr std::size_t longest_thought =
    4; ///< steps: what is thought about longer; a question may take some tens of milliseconds
constexpr double tolerance = 1e-9; ///< what rounding may leave of the identity

/// Steps in a row, at their parameters.
insight::Formula formula_of(std::span<const engine::ChainStep> steps, std::span<const double> parameters) {
    const std::string space(engine::space_of(steps.front()));
    return {[steps, parameters, space](ir::Graph& graph, const engine::CompileOptions& options) {
                engine::CompileOptions with = options;
                with.in_space = with.out_space = space;
                graph.fix_parameters({parameters.begin(), parameters.end()});
                return engine::lower_chain(steps, graph, with);
            },
            space};
}

bool is_nothing(const insight::Affine& map) {
    for (std::size_t row = 0; row < 3; ++row) {
        if (std::fabs(map.offset[row]) > tolerance)
            return false;
        for (std::size_t i = 0; i < 3; ++i)
            if (std::fabs(map.matrix[row][i] - (row == i ? 1 : 0)) > tolerance)
                return false;
    }
    return true;
}

/// `thorough`: colour models and the like are followed too, which takes longer.
bool changes_nothing(const insight::Formula& run, bool thorough) {
    ir::Graph graph;
    const std::vector<ir::NodeId> outputs = run.lower(graph, {});
    const auto matrix = insight::affine(graph, outputs, {});
    return matrix ? is_nothing(*matrix) : thorough && insight::shown_identity(run, {});
}

std::string named(const RunnableLook& look, std::size_t first, std::size_t last) {
    return last == first + 1 ? fmt::format("steps {} and {}", look.numbers[first] + 1, look.numbers[last] + 1)
                             : fmt::format("steps {} to {}", look.numbers[first] + 1, look.numbers[last] + 1);
}

} // namespace

std::string described_look(const RunnableLook& look, std::span<const double> parameters) {
    const std::span<const engine::ChainStep> steps = look.steps;
    const std::size_t count = steps.size();
    if (count == 0 || count > longest)
        return {};
    std::vector<std::size_t> starts;
    std::size_t at = 0;
    for (std::size_t i = 0; i < count; ++i) {
        starts.push_back(at);
        at += engine::chain_parameters(steps.subspan(i, 1));
    }
    const auto run = [&](std::size_t first, std::size_t last) {
        return formula_of(steps.subspan(first, last - first + 1), parameters.subspan(starts[first]));
    };
    std::string text;
    const auto whole = insight::shown_matrix(run(0, count - 1), {});
    if (whole) {
        if (is_nothing(*whole)) {
            text += count == 1 ? "changes nothing\n" : "all steps together change nothing\n";
        } else {
            const auto sums = whole->row_sums();
            text += count == 1 ? "an exact matrix\n" : fmt::format("all {} steps are one exact matrix\n", count);
            constexpr char letters[] = "rgb";
            for (std::size_t row = 0; row < 3; ++row)
                text += fmt::format("{} = {} r  {} g  {} b  + {}   sum {}\n", letters[row],
                                    number_text(whole->matrix[row][0], 4), number_text(whole->matrix[row][1], 4),
                                    number_text(whole->matrix[row][2], 4), number_text(whole->offset[row], 4),
                                    number_text(sums[row], 4));
            text += fmt::format("determinant {}, in {}\n", number_text(whole->determinant(), 4),
                                engine::space_of(steps.front()));
        }
    }
    for (std::size_t first = 0; first < count; ++first)
        for (std::size_t last = first + 1; last < count; ++last) {
            if (first == 0 && last + 1 == count)
                continue; // said above
            if (const bool thorough = last - first < longest_thought; changes_nothing(run(first, last), thorough))
                text += fmt::format("{} together are the identity\n", named(look, first, last));
        }
    return text;
}

} // namespace kasuri::handover
