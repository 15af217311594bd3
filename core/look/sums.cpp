#include "look/sums.hpp"

#include "base/said.hpp"
#include "base/text.hpp"
#include "engine/chain.hpp"
#include "insight/algebra.hpp"

#include <cmath>
#include <fmt/format.h>

namespace kasuri::look {
namespace {

constexpr std::size_t longest = 40; ///< steps: every run of them is looked at
constexpr std::size_t longest_thought =
    4; ///< steps: what is thought about longer; a question may take some tens of milliseconds
constexpr double tolerance = 1e-9; ///< what rounding may leave of the identity

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
bool changes_nothing(const subject::Subject& run, bool thorough) {
    ir::Graph graph;
    const std::vector<ir::NodeId> outputs = run.lower(graph);
    const auto matrix = insight::affine(graph, outputs, {});
    return matrix ? is_nothing(*matrix) : thorough && insight::shown_identity(run);
}

std::string named(const subject::Chain& chain, std::size_t first, std::size_t last) {
    const auto number = [&](std::size_t i) {
        return i < chain.numbers.size() ? chain.numbers[i] : std::to_string(i + 1);
    };
    return said("steps {} {} {}", number(first), last == first + 1 ? said("and") : said("to"), number(last));
}

} // namespace

std::string described(const subject::Subject& subject) {
    const std::span<const engine::ChainStep> steps = subject.steps();
    const std::size_t count = steps.size();
    if (count == 0)
        return said("no step is on: changes nothing\n");
    if (count > longest)
        return {};
    const subject::Subject fixed = subject.fixed();
    // A part ends in the space that it began in, so that it is a matrix of colours to themselves.
    const auto run = [&](std::size_t first, std::size_t last) { return fixed.part(first, last); };
    std::string text;
    const auto whole = insight::shown_matrix(run(0, count - 1));
    if (whole) {
        if (is_nothing(*whole)) {
            text += count == 1 ? said("changes nothing\n") : said("all steps together change nothing\n");
        } else {
            const auto sums = whole->row_sums();
            text += count == 1 ? said("an exact matrix\n") : said("all {} steps are one exact matrix\n", count);
            constexpr char letters[] = "rgb";
            for (std::size_t row = 0; row < 3; ++row)
                text +=
                    said("{} = {} r  {} g  {} b  + {}   sum {}\n", letters[row], number_text(whole->matrix[row][0], 4),
                         number_text(whole->matrix[row][1], 4), number_text(whole->matrix[row][2], 4),
                         number_text(whole->offset[row], 4), number_text(sums[row], 4));
            text +=
                said("determinant {}, in {}\n", number_text(whole->determinant(), 4), engine::space_of(steps.front()));
        }
    }
    for (std::size_t first = 0; first < count; ++first)
        for (std::size_t last = first + 1; last < count; ++last) {
            if (first == 0 && last + 1 == count)
                continue; // said above
            if (!subject.is_self_contained(first, last))
                continue; // what it does depends on what was before it
            if (const bool thorough = last - first < longest_thought; changes_nothing(run(first, last), thorough))
                text += said("{} together are the identity\n", named(subject.chain(), first, last));
        }
    return text;
}

} // namespace kasuri::look
