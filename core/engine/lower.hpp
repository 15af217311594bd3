#pragma once
#include "engine/program.hpp"
#include "lang/rule.hpp"

#include <string>
#include <string_view>
#include <vector>

namespace kasuri::engine {

struct CompileOptions {
    /// The spaces of what comes in and of what goes out; empty: the rule's own working space.
    std::string_view in_space;
    std::string_view out_space;
    bool rewrite = true; ///< apply the rewrites of ir/simplify
    bool colour_only = false; ///< three outputs, without alpha
    bool print = false;  ///< give the rule's print expression instead of out
};

/// The space in which the rule's numbers are meant.
std::string_view working_space(const lang::Rule& rule);

/// Lowers a checked rule to a graph; returns the four nodes of out, or the nodes of the print expression.
std::vector<ir::NodeId> lower(const lang::Rule& rule, ir::Graph& graph, const CompileOptions& options);

/// Graph and program in one step.
ProgramPtr compile(const lang::Rule& rule, const CompileOptions& options = {});

} // namespace kasuri::engine
