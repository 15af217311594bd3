#pragma once
#include "engine/lower.hpp"
#include "ir/graph.hpp"
#include "lang/rule.hpp"

#include <functional>
#include <string>
#include <vector>

namespace kasuri::insight {

/// What questions are asked about: a rule, or several in a row, as operations of a graph.
struct Formula {
    using Lower = std::function<std::vector<ir::NodeId>(ir::Graph&, const engine::CompileOptions&)>;

    Lower lower; ///< four nodes, or three with `colour_only`; in `space` where the options name no other
    std::string space;
    std::vector<std::string> parameters{}; ///< by slot; of several formulas, those of one name are the same number

    Formula(Lower made, std::string in, std::vector<std::string> names = {})
        : lower(std::move(made)), space(std::move(in)), parameters(std::move(names)) {}
    /// Every rule is one. It refers to the rule.
    Formula(const lang::Rule& rule);
};

} // namespace kasuri::insight
