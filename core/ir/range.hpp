#pragma once
#include "ir/graph.hpp"

#include <limits>
#include <span>
#include <vector>

namespace kasuri::ir {

/// All that a number can be: between `low` and `high`, both included (infinite where it may be), and NaN if `nan`.
struct Range {
    double low = -std::numeric_limits<double>::infinity(), high = std::numeric_limits<double>::infinity();
    bool nan = true;

    static Range of(double x);
    static Range between(double low, double high) { return {low, high, false}; }
    bool holds(double x) const { return low <= x && x <= high; }
    bool is_finite() const;
    double largest() const; ///< of the absolute values
};

/// How wrong one operation can be, by which its range is widened.
struct Rounding {
    double relative; ///< of a sum, by its largest term; of a product, a quotient or a root, by itself
    double curve;    ///< of a power, a logarithm, a sine, by itself or by 1, whichever is larger
    double tiny;     ///< below this a number may have become 0
    double largest;  ///< above this it has become infinite
};
/// Exact arithmetic, computed here in double precision: what is widened is the double's own last digits.
extern const Rounding exact;
/// The tiles' single precision, several operations in one included (engine/fuse): 1e-6 of a sum's largest term, 3e-5 of
/// a power. Wider than any kernel is wrong; random rules are run against it (tests/ir/range_test).
extern const Rounding single;

/// What the leaves of a graph can be: one for each slot of inputs (those of neighbourhoods need not be there) and of
/// uniforms.
struct Box {
    std::vector<Range> inputs, uniforms;
};

/// Interval arithmetic over a graph: ranges that are never too narrow, and too wide where a value meets itself again
/// (x - x is not known to be 0). Where a choice may go either way, each branch is followed with what its condition
/// says of the numbers in it. Source: R. E. Moore, R. B. Kearfott, M. J. Cloud, Introduction to Interval Analysis
/// (2009), ch. 2 and 5 (from memory).
class Ranges {
public:
    /// `whole`: what neighbours can be, whatever part is asked about. An External can be anything.
    Ranges(const Graph& graph, std::span<const NodeId> of, const Rounding& rounding, const Box& whole);

    /// Those of `of`, where the leaves are in `part`. `smooth`, if it is asked for: no choice was open there, nothing
    /// was rounded to two whole numbers or taken from code that is not ours, so that slopes tell how values change.
    std::vector<Range> over(const Box& part, bool* smooth = nullptr) const;

private:
    struct Branch {                   ///< of a choice, where its condition is known
        std::vector<NodeId> compared; ///< by it
        std::vector<NodeId> nodes;    ///< to be worked out anew
    };
    using Known = std::vector<Range>;

    bool smooth(const Known& known) const;
    Range at(NodeId id, Known& known, const Box& part, int depth) const;
    Range kept(const Range& x) const;
    Range leaf(const Node& node, const Known& known, const Box& part) const;
    Range choice(NodeId id, Known& known, const Box& part, int depth) const;
    Range branch(NodeId id, bool way, Known& known, const Box& part, int depth, bool& possible) const;
    /// Narrows what `condition` compares, as it being `way` says. False: it cannot be so.
    bool narrow(NodeId condition, bool way, Known& known) const;
    void compared_in(NodeId condition, std::vector<NodeId>& into) const;
    std::vector<NodeId> between(const std::vector<NodeId>& compared, NodeId root) const;

    const Graph& graph_;
    std::vector<NodeId> of_;
    const Rounding& rounding_;
    std::vector<bool> needed_;
    std::vector<Range> stages_;                   ///< of the neighbourhoods, over the whole
    std::vector<std::array<Branch, 2>> branches_; ///< of choices, by `choice_`
    std::vector<std::uint32_t> choice_;           ///< of a node: which of `branches_`
    bool settled_ = false;                        ///< `stages_` are known
};

} // namespace kasuri::ir
