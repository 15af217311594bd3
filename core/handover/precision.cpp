#include "handover/precision.hpp"

#include "engine/lower.hpp"
#include "ir/needed.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <random>
#include <vector>

namespace kasuri::handover {
namespace {

constexpr std::size_t colours = 128; ///< from 0 to 1, and as many from -1 to 4
constexpr int tries = 3;             ///< each colour with other roundings
constexpr double last_digit =
    1.0 / 16777216; ///< half of it, of a number between 1 and 2: of a number's own size, at most

/// By how many of those a result is moved.
double rounding(ir::Op op) {
    switch (op) {
    case ir::Op::add:
    case ir::Op::sub:
    case ir::Op::mul:
    case ir::Op::fma: return 1;
    case ir::Op::div:
    case ir::Op::sqrt:
    case ir::Op::hexcone_h:
    case ir::Op::hexcone_s:
    case ir::Op::hexcone_v:
    case ir::Op::hexcone_r:
    case ir::Op::hexcone_g:
    case ir::Op::hexcone_b: return 4;
    case ir::Op::exp2:
    case ir::Op::log2:
    case ir::Op::sin:
    case ir::Op::cos:
    case ir::Op::pow:
    case ir::Op::atan2: return 8;
    default: return 0; // what only chooses, or is exact
    }
}

/// A number between -1 and 1, the next one of a row that is always the same.
class Drawn {
public:
    double operator()() { return static_cast<double>(random_() >> 8) / 8388608.0 - 1; }

private:
    std::mt19937 random_{1};
};

/// A graph as it computes in double precision.
class InDouble {
public:
    InDouble(const ir::Graph& graph, std::span<const ir::NodeId> outputs, std::span<const double> parameters)
        : graph_(graph), outputs_(outputs), parameters_(parameters), values_(graph.size()) {
        const std::vector<bool> needed = ir::needed_by(graph, outputs);
        for (ir::NodeId id = 0; id < graph.size(); ++id)
            if (needed[id])
                order_.push_back(id);
    }

    /// What comes of a colour. `rounded`: every result moved by it.
    std::array<double, 4> at(const std::array<double, 4>& colour, Drawn* rounded) {
        for (const ir::NodeId id : order_) {
            const ir::Node& node = graph_[id];
            double operands[ir::max_graph_operands] = {};
            for (std::size_t k = 0; k < static_cast<std::size_t>(ir::row(node.op).arity); ++k)
                operands[k] = values_[node.args[k]];
            double& value = values_[id];
            if (node.op == ir::Op::constant)
                value = node.value;
            else if (node.op == ir::Op::uniform)
                value = node.slot >= ir::first_parameter_slot ? parameters_[node.slot - ir::first_parameter_slot] : 1;
            else if (node.op == ir::Op::input)
                value = node.slot < 4 ? colour[node.slot] : 0.5; // of a further picture
            else if (node.op == ir::Op::external)
                value = ir::applied(*graph_.externals()[node.slot], operands)[static_cast<std::size_t>(node.value)];
            else
                value = ir::folded(node.op, operands);
            if (const double by = rounded ? rounding(node.op) : 0; by > 0)
                value += value * by * last_digit * (*rounded)();
        }
        return {values_[outputs_[0]], values_[outputs_[1]], values_[outputs_[2]], values_[outputs_[3]]};
    }

private:
    const ir::Graph& graph_;
    std::span<const ir::NodeId> outputs_;
    std::span<const double> parameters_;
    std::vector<double> values_;
    std::vector<ir::NodeId> order_;
};

bool reads_place(const ir::Graph& graph, std::span<const ir::NodeId> outputs) {
    const std::vector<bool> needed = ir::needed_by(graph, outputs);
    for (ir::NodeId id = 0; id < graph.size(); ++id)
        if (needed[id] &&
            ((graph[id].op == ir::Op::input && graph[id].slot >= 4 && graph[id].slot < ir::input_count) ||
             (graph[id].op == ir::Op::uniform && graph[id].slot < ir::first_parameter_slot)))
            return true;
    return false;
}

} // namespace

std::optional<Precision> single_precision(const subject::Subject& subject, std::string_view in_space,
                                          std::string_view out_space) {
    ir::Graph lowered;
    engine::CompileOptions options;
    options.in_space = in_space;
    options.out_space = out_space;
    const std::vector<ir::NodeId> outputs = subject.lower(lowered, options);
    if (!lowered.stages().empty() || reads_place(lowered, outputs))
        return std::nullopt;
    InDouble graph(lowered, outputs, subject.values());
    Drawn drawn;
    Precision found;
    found.colours = colours;
    for (std::size_t i = 0; i < 2 * colours; ++i) {
        const double grey = drawn();
        std::array<double, 4> colour = {0, 0, 0, 1};
        for (std::size_t c = 0; c < 3; ++c) {
            const double x = i % 8 == 0 ? grey : i % 8 == 4 ? grey + 0.01 * drawn() : drawn();
            colour[c] = static_cast<double>(static_cast<float>(i < colours ? 0.5 + 0.5 * x : 1.5 + 2.5 * x));
        }
        const std::array<double, 4> wanted = graph.at(colour, nullptr);
        double large = 1;
        for (std::size_t c = 0; c < 4; ++c)
            large = std::max({large, std::fabs(colour[c]), std::isfinite(wanted[c]) ? std::fabs(wanted[c]) : 1});
        double& most = i < colours ? found.inside : found.wide;
        for (int t = 0; t < tries; ++t) {
            const std::array<double, 4> made = graph.at(colour, &drawn);
            for (std::size_t c = 0; c < 4; ++c)
                if (const double off = std::fabs(made[c] - wanted[c]) / large; std::isfinite(off))
                    most = std::max(most, off);
        }
    }
    return found;
}

} // namespace kasuri::handover
