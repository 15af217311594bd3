#include "insight/derivative.hpp"

#include "engine/evaluate.hpp"
#include "ir/derive.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::insight {
namespace {

using ir::Graph;
using ir::NodeId;
using ir::Op;
using Nodes = std::array<std::array<NodeId, 3>, 3>;

NodeId product(Graph& g, NodeId a, NodeId b) {
    return g.is_constant(a, 0) || g.is_constant(b, 0) ? g.constant(0) : g.mul(a, b);
}

NodeId squared_length(Graph& g, const std::array<NodeId, 3>& row) {
    return g.add(g.add(product(g, row[0], row[0]), product(g, row[1], row[1])), product(g, row[2], row[2]));
}

NodeId lower_determinant(Graph& g, const Nodes& m) {
    const auto minor = [&](std::size_t a, std::size_t b) {
        return g.sub(product(g, m[1][a], m[2][b]), product(g, m[1][b], m[2][a]));
    };
    return g.add(g.sub(product(g, m[0][0], minor(1, 2)), product(g, m[0][1], minor(0, 2))),
                 product(g, m[0][2], minor(0, 1)));
}

NodeId lower_volume(Graph& g, const Nodes& m) {
    const auto length = [&](std::size_t row) { return g.make(Op::sqrt, squared_length(g, m[row])); };
    const NodeId room = g.mul(g.mul(length(0), length(1)), length(2)), zero = g.constant(0);
    return g.select(g.equal(room, zero), zero, g.div(lower_determinant(g, m), room));
}

NodeId lower_noise_gain(Graph& g, const Nodes& m) {
    return g.make(Op::sqrt, g.max(g.max(squared_length(g, m[0]), squared_length(g, m[1])), squared_length(g, m[2])));
}

double length(const std::array<double, 3>& row) {
    return std::sqrt(row[0] * row[0] + row[1] * row[1] + row[2] * row[2]);
}

constexpr Measure table[] = {
    {"noise_gain", "noise gain",
     "How much louder noise gets, in the channel that gets most of it: the longest row of the Jacobian. 1: as before.",
     0, 4, noise_gain, lower_noise_gain},
    {"volume", "volume of colours",
     "How much room the three channels leave each other, -1 to 1: 0 where a dimension of colour is lost, below 0 where "
     "the order of colours is flipped.",
     -1, 1, volume, lower_volume},
    {"determinant", "determinant", "By how much a small cube of colours grows; negative where it is turned inside out.",
     -1, 1, determinant, lower_determinant},
};

Nodes slopes_of(const subject::Subject& subject, Graph& graph, std::vector<std::string> source_spaces) {
    engine::CompileOptions options;
    options.colour_only = true;
    options.source_spaces = std::move(source_spaces);
    const std::vector<NodeId> outputs = subject.lower(graph, options);
    const std::vector<ir::Slopes> slopes = ir::derivatives(graph, outputs);
    return {slopes[0], slopes[1], slopes[2]};
}

} // namespace

double determinant(const Jacobian& m) {
    return m[0][0] * (m[1][1] * m[2][2] - m[1][2] * m[2][1]) - m[0][1] * (m[1][0] * m[2][2] - m[1][2] * m[2][0]) +
        m[0][2] * (m[1][0] * m[2][1] - m[1][1] * m[2][0]);
}

double volume(const Jacobian& m) {
    const double room = length(m[0]) * length(m[1]) * length(m[2]);
    return room == 0 ? 0 : determinant(m) / room;
}

double noise_gain(const Jacobian& m) {
    double most = 0;
    for (const auto& row : m) {
        const double size = length(row);
        if (std::isnan(size))
            return size;
        most = std::max(most, size);
    }
    return most;
}

std::span<const Measure> measures() { return table; }

const Measure* find_measure(std::string_view name) {
    const auto found =
        std::find_if(std::begin(table), std::end(table), [&](const Measure& m) { return m.name == name; });
    return found == std::end(table) ? nullptr : found;
}

engine::ProgramPtr derivative(const subject::Subject& subject, std::vector<std::string> source_spaces) {
    Graph graph;
    const Nodes slopes = slopes_of(subject, graph, std::move(source_spaces));
    std::vector<NodeId> outputs;
    for (const auto& row : slopes)
        outputs.insert(outputs.end(), row.begin(), row.end());
    return std::make_shared<const engine::Program>(graph, outputs);
}

engine::ProgramPtr measured(const subject::Subject& subject, const Measure& measure,
                            std::vector<std::string> source_spaces) {
    Graph graph;
    const Nodes slopes = slopes_of(subject, graph, std::move(source_spaces));
    const NodeId output[] = {measure.lower(graph, slopes)};
    return std::make_shared<const engine::Program>(graph, output);
}

std::vector<Jacobian> jacobians(const engine::Program& derivative, std::span<const double> values,
                                std::span<const std::array<float, 3>> colours, std::vector<engine::PlaneView> more) {
    std::array<std::vector<float>, 3> in;
    for (auto& plane : in)
        plane.reserve(colours.size());
    for (const auto& colour : colours)
        for (std::size_t c = 0; c < 3; ++c)
            in[c].push_back(colour[c]);
    std::vector<std::vector<float>> planes(9, std::vector<float>(colours.size()));
    std::vector<float*> sinks;
    for (auto& plane : planes)
        sinks.push_back(plane.data());
    engine::Source source{static_cast<int>(colours.size()), 1, {}};
    for (std::size_t c = 0; c < 3; ++c)
        source.planes[c] = in[c].data();
    source.more = std::move(more);
    engine::run(derivative, source, values, std::span<float* const>(sinks));
    std::vector<Jacobian> made(colours.size());
    for (std::size_t p = 0; p < colours.size(); ++p)
        for (std::size_t k = 0; k < 9; ++k)
            made[p][k / 3][k % 3] = static_cast<double>(planes[k][p]);
    return made;
}

} // namespace kasuri::insight
