#include "handover/look_sums.hpp"

#include "base/text.hpp"
#include "engine/chain.hpp"
#include "insight/affine.hpp"

#include <cmath>
#include <fmt/format.h>

namespace kasuri::handover {
namespace {

constexpr std::size_t longest = 40; ///< steps: every run of them is looked at
constexpr double tolerance = 1e-9;  ///< what rounding may leave of the identity

std::optional<insight::Affine> matrix_of(std::span<const engine::ChainStep> steps, std::span<const double> parameters) {
    ir::Graph graph;
    engine::CompileOptions options;
    const std::string_view space = engine::space_of(steps.front());
    options.in_space = options.out_space = space;
    const std::vector<ir::NodeId> outputs = engine::lower_chain(steps, graph, options);
    return insight::affine(graph, outputs, parameters);
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

std::string named(const RunnableLook& look, std::size_t first, std::size_t last) {
    return last == first + 1 ? fmt::format("steps {} and {}", look.numbers[first] + 1, look.numbers[last] + 1) : fmt::format("steps {} to {}", look.numbers[first] + 1, look.numbers[last] + 1);
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
    const auto of_run = [&](std::size_t first, std::size_t last) { return matrix_of(steps.subspan(first, last - first + 1), parameters.subspan(starts[first])); };
    std::string text;
    if (const auto whole = of_run(0, count - 1)) {
        if (is_nothing(*whole)) {
            text += count == 1 ? "changes nothing\n" : "all steps together change nothing\n";
        } else {
            const auto sums = whole->row_sums();
            text += count == 1 ? "an exact matrix\n" : fmt::format("all {} steps are one exact matrix\n", count);
            constexpr char letters[] = "rgb";
            for (std::size_t row = 0; row < 3; ++row)
                text += fmt::format("{} = {} r  {} g  {} b  + {}   sum {}\n", letters[row], number_text(whole->matrix[row][0], 4), number_text(whole->matrix[row][1], 4), number_text(whole->matrix[row][2], 4),
                                    number_text(whole->offset[row], 4), number_text(sums[row], 4));
            text += fmt::format("determinant {}, in {}\n", number_text(whole->determinant(), 4), engine::space_of(steps.front()));
        }
    }
    for (std::size_t first = 0; first < count; ++first)
        for (std::size_t last = first + 1; last < count; ++last) {
            if (first == 0 && last + 1 == count)
                continue; // said above
            if (const auto run = of_run(first, last); run && is_nothing(*run))
                text += fmt::format("{} together are the identity\n", named(look, first, last));
        }
    return text;
}

} // namespace kasuri::handover
