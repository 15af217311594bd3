#include "insight/algebra.hpp"
#include "ir/graph.hpp"

namespace kasuri::insight {

using ir::Op;

namespace {

struct Reach {
    Dependence inputs{};
    bool elsewhere = false;   ///< the place, the size of the picture, neighbours or other pictures are read, too
    bool alpha_stays = false; ///< as it came, untouched
};

Reach reach_of(const Subject& subject) {
    ir::Graph graph;
    const std::vector<ir::NodeId> outputs = subject.lower(graph);
    Reach reach;
    reach.alpha_stays =
        graph[outputs[3]].op == Op::input && graph[outputs[3]].slot == static_cast<std::uint32_t>(ir::Input::a);
    for (std::size_t o = 0; o < 4; ++o) {
        std::vector<bool> seen(graph.size());
        std::vector<ir::NodeId> waiting = {outputs[o]};
        while (!waiting.empty()) {
            const ir::NodeId id = waiting.back();
            waiting.pop_back();
            if (seen[id])
                continue;
            seen[id] = true;
            const ir::Node& node = graph[id];
            if (node.op == Op::input && node.slot < 4)
                reach.inputs[o][node.slot] = true;
            else if (node.op == Op::input || (node.op == Op::uniform && node.slot < ir::first_parameter_slot))
                reach.elsewhere = true;
            if (node.op == Op::input && node.slot >= graph.first_stage_slot())
                waiting.push_back(graph.stages()[node.slot - graph.first_stage_slot()].source);
            for (int k = 0; k < ir::row(node.op).arity; ++k)
                waiting.push_back(node.args[static_cast<std::size_t>(k)]);
        }
    }
    return reach;
}

} // namespace

Dependence dependence(const Subject& subject) { return reach_of(subject).inputs; }

bool separable(const Subject& subject) {
    const Reach reach = reach_of(subject);
    if (reach.elsewhere || !reach.alpha_stays)
        return false;
    for (std::size_t o = 0; o < 3; ++o)
        for (std::size_t i = 0; i < 4; ++i)
            if (reach.inputs[o][i] && i != o)
                return false;
    return true;
}

} // namespace kasuri::insight
