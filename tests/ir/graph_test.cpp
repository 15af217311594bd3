#include "engine/evaluate.hpp"
#include "ir/graph.hpp"
#include "ir/linear_map.hpp"
#include "ir/simplify.hpp"
#include "support/support.hpp"

#include <cstring>

using namespace kasuri;
using namespace kasuri::ir;

namespace {

/// Runs a graph of one output on given r, g, b.
float value_of(const Graph& graph, NodeId output, float r, float g, float b) {
    const NodeId outputs[] = {output};
    const engine::Program program(graph, outputs);
    float result = 0;
    float* const planes[] = {&result};
    const float one = 1;
    REQUIRE(engine::run(program, {1, 1, {&r, &g, &b, &one}}, {}, std::span<float* const>(planes)));
    return result;
}

std::string printed(const Graph& graph, NodeId output) {
    const NodeId outputs[] = {output};
    return engine::Program(graph, outputs).printed();
}

bool same(float a, float b) { return (std::isnan(a) && std::isnan(b)) || a == b; }

/// The left-hand side of each rewrite, built on two inputs.
struct Built {
    std::string_view equation;
    NodeId (*left)(Graph&, NodeId x, NodeId y);
};
const Built built[] = {
    {"x + 0 = x", [](Graph& g, NodeId x, NodeId) { return g.add(x, g.constant(0)); }},
    {"0 + x = x", [](Graph& g, NodeId x, NodeId) { return g.add(g.constant(0), x); }},
    {"x - 0 = x", [](Graph& g, NodeId x, NodeId) { return g.sub(x, g.constant(0)); }},
    {"0 - x = -x", [](Graph& g, NodeId x, NodeId) { return g.sub(g.constant(0), x); }},
    {"x * 1 = x", [](Graph& g, NodeId x, NodeId) { return g.mul(x, g.constant(1)); }},
    {"1 * x = x", [](Graph& g, NodeId x, NodeId) { return g.mul(g.constant(1), x); }},
    {"x * -1 = -x", [](Graph& g, NodeId x, NodeId) { return g.mul(x, g.constant(-1)); }},
    {"x * c * d = x * (c * d)",
     [](Graph& g, NodeId x, NodeId) { return g.mul(g.mul(x, g.constant(3)), g.constant(0.2)); }},
    {"d * (x * c) = x * (c * d)",
     [](Graph& g, NodeId x, NodeId) { return g.mul(g.constant(0.2), g.mul(x, g.constant(3))); }},
    {"d * (c * x) = x * (c * d)",
     [](Graph& g, NodeId x, NodeId) { return g.mul(g.constant(0.2), g.mul(g.constant(3), x)); }},
    {"c * x * d = x * (c * d)",
     [](Graph& g, NodeId x, NodeId) { return g.mul(g.mul(g.constant(3), x), g.constant(0.2)); }},
    {"x / 1 = x", [](Graph& g, NodeId x, NodeId) { return g.div(x, g.constant(1)); }},
    {"x / c = x * (1 / c)", [](Graph& g, NodeId x, NodeId) { return g.div(x, g.constant(3)); }},
    {"-(-x) = x", [](Graph& g, NodeId x, NodeId) { return g.neg(g.neg(x)); }},
    {"|(|x|)| = |x|", [](Graph& g, NodeId x, NodeId) { return g.make(Op::abs, g.make(Op::abs, x)); }},
    {"|-x| = |x|", [](Graph& g, NodeId x, NodeId) { return g.make(Op::abs, g.neg(x)); }},
    {"min(x, x) = x", [](Graph& g, NodeId x, NodeId) { return g.min(x, x); }},
    {"max(x, x) = x", [](Graph& g, NodeId x, NodeId) { return g.max(x, x); }},
    {"pow(x, 1) = x", [](Graph& g, NodeId x, NodeId) { return g.make(Op::pow, x, g.constant(1)); }},
    {"pow(x, 2) = x * x", [](Graph& g, NodeId x, NodeId) { return g.make(Op::pow, x, g.constant(2)); }},
    {"pow(x, 3) = x * x * x", [](Graph& g, NodeId x, NodeId) { return g.make(Op::pow, x, g.constant(3)); }},
    {"pow(x, -1) = 1 / x", [](Graph& g, NodeId x, NodeId) { return g.make(Op::pow, x, g.constant(-1)); }},
    {"true ? x : y = x", [](Graph& g, NodeId x, NodeId y) { return g.select(g.constant(1), x, y); }},
    {"false ? x : y = y", [](Graph& g, NodeId x, NodeId y) { return g.select(g.constant(0), x, y); }},
    {"c ? x : x = x", [](Graph& g, NodeId x, NodeId y) { return g.select(g.less(x, y), x, x); }},
    {"!c ? x : y = c ? y : x",
     [](Graph& g, NodeId x, NodeId y) { return g.select(g.make(Op::logical_not, g.less(x, y)), x, y); }},
};

} // namespace

TEST_CASE("every rewrite is an equation that holds for every kind of float", "[ir]") {
    const float telling[] = {-2.5f,
                             -1,
                             -0.0f,
                             0,
                             1e-3f,
                             0.3f,
                             1,
                             7,
                             kasuri::test::infinity,
                             -kasuri::test::infinity,
                             kasuri::test::not_a_number};
    REQUIRE(std::size(built) == rewrites().size());
    for (const Rewrite& rewrite : rewrites()) {
        INFO(rewrite.equation);
        const auto found = std::find_if(std::begin(built), std::end(built),
                                        [&](const Built& b) { return b.equation == rewrite.equation; });
        REQUIRE(found != std::end(built));
        for (const float x : telling)
            for (const float y : telling) {
                Graph with(true), without(false);
                const NodeId a = found->left(with, with.input(Input::r), with.input(Input::g));
                const NodeId b = found->left(without, without.input(Input::r), without.input(Input::g));
                CHECK(printed(with, a) != printed(without, b)); // it did apply
                const float expected = value_of(without, b, x, y, 0), got = value_of(with, a, x, y, 0);
                INFO(x << " " << y << ": " << expected << " " << got);
                const bool close = std::fabs(expected - got) <= 4e-7f * std::fabs(expected);
                CHECK((same(expected, got) || close));
            }
    }
}

TEST_CASE("equal operations are one node and constants are folded", "[ir]") {
    Graph g;
    const NodeId x = g.input(Input::r);
    CHECK(g.add(x, g.constant(2)) == g.add(x, g.constant(2)));
    CHECK(g.constant(0.0) != g.constant(-0.0));
    const NodeId folded = g.mul(g.constant(3), g.add(g.constant(1), g.constant(1)));
    CHECK(g.is_constant(folded, 6));
    CHECK(g[g.mul(g.uniform(1), g.constant(2))].rate == Rate::uniform);
    CHECK(g[g.mul(g.uniform(1), x)].rate == Rate::pixel);
}

TEST_CASE("an infinity times 0 is not simplified away", "[ir]") {
    Graph g;
    const NodeId zero = g.mul(g.input(Input::r), g.constant(0));
    CHECK(std::isnan(value_of(g, zero, kasuri::test::infinity, 0, 0)));
    const NodeId difference = g.sub(g.input(Input::r), g.input(Input::r));
    CHECK(std::isnan(value_of(g, difference, kasuri::test::infinity, 0, 0)));
}

TEST_CASE("fixed parameters are folded away, and a map of constants is no map of itself", "[graph]") {
    ir::Graph graph;
    graph.fix_parameters({0.25, 2});
    const ir::NodeId k = graph.uniform(ir::first_parameter_slot), n = graph.uniform(ir::first_parameter_slot + 1);
    CHECK(graph.is_constant(graph.mul(k, n), 0.5));
    CHECK(graph[graph.uniform(ir::first_parameter_slot + 2)].op == ir::Op::uniform); // beyond those that are fixed
    CHECK(graph[graph.uniform(ir::width_slot)].op == ir::Op::uniform);
    const ir::NodeId zero = graph.constant(0);
    std::array<ir::NodeId, 3> black = {zero, zero, zero};
    const ir::LinearMap::Matrix matrix = {{{2, 0.5, 0}, {0, 1, 0}, {0.1, 0, 3}}};
    for (int i = 0; i < 3; ++i) // once more upon its own result
        black = ir::linear_map(graph, matrix, black);
    CHECK(black == std::array<ir::NodeId, 3>{zero, zero, zero});
}
