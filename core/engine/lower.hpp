#pragma once
#include "base/cancel.hpp"
#include "engine/program.hpp"
#include "lang/rule.hpp"

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::engine {

struct CompileOptions {
    /// The spaces of what comes in and of what goes out; empty: the rule's own working space.
    std::string_view in_space;
    std::string_view out_space;
    bool rewrite = true;      ///< apply the rewrites of ir/simplify
    bool colour_only = false; ///< three outputs, without alpha
    bool print = false;       ///< give the rule's print expression instead of out
    bool fuse = true;         ///< join operations into larger ones (engine/fuse)
    /// Further expressions of the rule whose components come behind the other outputs: a peek, a mask, a proof.
    std::vector<lang::TypedId> also{};
    /// The spaces of further pictures, in the order of the rule's own sources (lang::is_external); empty ones: the
    /// rule's own.
    std::vector<std::string> source_spaces{};
    /// By which the work is called off; null: it is not. What is called off gives no nodes and no program.
    const CancelToken* cancel = nullptr;
};

/// Whether the work was called off.
inline bool is_called_off(const CompileOptions& options) { return options.cancel && options.cancel->cancelled(); }

/// The space in which the rule's numbers are meant.
std::string_view working_space(const lang::Rule& rule);

/// How many channels the rule's own sources (lang::is_external) have together: the planes that engine::Source::more
/// brings, each source's one after the other.
std::size_t source_channels(const lang::Rule& rule);

/// Where a rule that is one of several in a graph finds what comes in.
struct Feed {
    std::array<ir::NodeId, 4> rgba{};
    std::uint32_t first_parameter = 0; ///< how many parameters stand before its own
    std::uint32_t first_source = 0;    ///< how many channels of further pictures
    std::optional<std::array<ir::NodeId, 4>>
        out{}; ///< what out is before the first statement, in the rule's space; nothing: what comes in
    /// A colour of a space that a source reads.
    struct Given {
        std::array<ir::NodeId, 4> rgba{};
        std::string_view space{};
    };
    std::optional<Given> picture{};            ///< as it came in; nothing: what comes in
    std::vector<std::optional<Given>> steps{}; ///< for each of the rule's sources what that step made; nothing: 0
};

/// Lowers a rule behind others: `graph` has reserved the sources of all of them. What it gives is as `lower`.
std::vector<ir::NodeId> lower_behind(const lang::Rule& rule, ir::Graph& graph, const CompileOptions& options,
                                     const Feed& feed);

/// Lowers a checked rule to a graph; returns the four nodes of out, or the nodes of the print expression; none if
/// called off.
std::vector<ir::NodeId> lower(const lang::Rule& rule, ir::Graph& graph, const CompileOptions& options);

/// Graph and program in one step; null if called off.
ProgramPtr compile(const lang::Rule& rule, const CompileOptions& options = {});

} // namespace kasuri::engine
