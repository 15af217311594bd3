#pragma once
#include "ir/external.hpp"
#include "ir/op.hpp"

#include <algorithm>
#include <array>
#include <cstdint>
#include <map>
#include <optional>
#include <span>
#include <string_view>
#include <unordered_map>
#include <utility>
#include <vector>

namespace kasuri::ir {

using NodeId = std::uint32_t;

/// How often a value can change.
enum class Rate : std::uint8_t { constant, uniform, pixel };

/// What a pixel brings. `pixel` counts from 0 at the top left; `pos` is the pixel's centre in 0..1.
enum class Input : std::uint8_t { r, g, b, a, pixel_x, pixel_y, pos_x, pos_y };
/// Slots of further pictures and of stages come after these.
inline constexpr std::uint32_t input_count = 8;

/// Uniforms 0 to 2 are the aspect (width / height), the width and the height of the picture; parameters follow in
/// their order.
inline constexpr std::uint32_t aspect_slot = 0;
inline constexpr std::uint32_t width_slot = 1;
inline constexpr std::uint32_t height_slot = 2;
inline constexpr std::uint32_t first_parameter_slot = 3;

/// What looks at other pixels than its own.
enum class Neighbour : std::uint8_t {
    blur,   ///< Gaussian; size is the standard deviation in pixels
    dilate, ///< largest value of a disc; size is its radius in pixels
    erode,  ///< smallest value of a disc
};
/// One row for each, in their order.
struct NeighbourRow {
    Neighbour kind;
    std::string_view name;
    bool averages; ///< a weighted sum: its slope is the same sum of slopes. Else it is one neighbour, with its slope.
};
const NeighbourRow& row(Neighbour kind);

struct Node {
    Op op = Op::constant;
    Rate rate = Rate::constant;
    std::array<NodeId, max_graph_operands> args{};
    double value = 0;       ///< of a constant; of an external: which result
    std::uint32_t slot = 0; ///< of a uniform or an input; of an external: which one
};

/// A value that is needed for the whole picture before it can be used: becomes a pass of its own.
struct Stage {
    Neighbour kind{};
    NodeId source = 0; ///< what is looked at, a value per pixel
    NodeId size = 0;   ///< in pixels, a uniform or a constant
    NodeId result = 0; ///< the input node by which it is read
};

/// Three values that are a matrix (by rows) times three others.
struct LinearMap {
    using Matrix = std::array<std::array<double, 3>, 3>;
    Matrix matrix{};
    std::array<NodeId, 3> of{};
};

/// Three values that a colour model gave for r, g, b of a space; who they are is for colour/ to know.
struct Conversion {
    const void* model = nullptr;
    const void* space = nullptr;
    std::array<NodeId, 3> result{};
    std::array<NodeId, 3> of{};
};

/// A value that stands for a whole number: `whole` / `top`, or NaN where one of `nan_of` is.
struct CodeValue {
    NodeId whole = 0, top = 0;
    bool inside = false;          ///< 0 <= whole <= top
    std::vector<NodeId> nan_of{}; ///< where these are not NaN, `whole` is a number
};

/// Directed acyclic graph of scalar operations. Equal nodes are one node; constants are folded and the
/// rewrites of simplify.hpp applied as nodes are made, so a node's operands always come before it.
class Graph {
public:
    explicit Graph(bool rewrite = true) : rewrite_(rewrite) {}

    NodeId constant(double value);
    NodeId uniform(std::uint32_t slot);
    /// From now on parameters are these numbers, not slots of a run: what depends on them alone is folded away.
    void fix_parameters(std::vector<double> values) { fixed_ = std::move(values); }
    NodeId input(Input which);
    /// A channel of a further picture: `slot` counts them from 0, all of them before the first stage.
    NodeId source_input(std::uint32_t slot);
    NodeId make(Op op, NodeId a, NodeId b = 0, NodeId c = 0);
    /// The three results of an external conversion.
    std::array<NodeId, 3> external(const External& conversion, const std::array<NodeId, 3>& args);
    std::span<const External* const> externals() const { return externals_; }
    /// The neighbourhood of `source`; equal ones are one. What is the same at every pixel is its own neighbourhood.
    NodeId neighbourhood(Neighbour kind, NodeId source, NodeId size);

    std::span<const Stage> stages() const { return stages_; }
    /// Input slots in use or reserved: the fixed ones, those of further pictures, those of stages.
    std::uint32_t input_slots() const { return first_stage_slot_ + static_cast<std::uint32_t>(stages_.size()); }
    std::uint32_t first_stage_slot() const { return first_stage_slot_; }
    /// How many channels further pictures have; to be said before the first stage is made.
    void reserve_sources(std::uint32_t channels) {
        first_stage_slot_ = std::max(first_stage_slot_, input_count + channels);
    }

    const Node& operator[](NodeId id) const { return nodes_[id]; }
    std::size_t size() const { return nodes_.size(); }
    bool is_constant(NodeId id, double value) const;

    /// Notes that `node` was computed from three others (a hue from r, g and b), so that a conversion back can
    /// use those instead of what rounding left of them.
    void remember_origin(NodeId node, const std::array<NodeId, 3>& origin) { origins_[node] = origin; }
    const std::array<NodeId, 3>* origin(NodeId node) const {
        const auto found = origins_.find(node);
        return found == origins_.end() ? nullptr : &found->second;
    }

    /// Notes of linear_map.hpp, so that maps of maps become one.
    void remember_linear_map(const std::array<NodeId, 3>& result, const LinearMap& map) { linear_maps_[result] = map; }
    const LinearMap* linear_map_of(const std::array<NodeId, 3>& result) const {
        const auto found = linear_maps_.find(result);
        return rewrite_ && found != linear_maps_.end() ? &found->second : nullptr;
    }
    /// Notes that `node` stands for a whole number, so that what works on whole numbers does not go there and back.
    void remember_code(NodeId node, CodeValue code) { codes_.insert_or_assign(node, std::move(code)); }
    const CodeValue* code_of(NodeId node) const {
        const auto found = codes_.find(node);
        return rewrite_ && found != codes_.end() ? &found->second : nullptr;
    }
    /// Notes that a colour was converted, so that what has not changed can come back exactly.
    void remember_conversion(const Conversion& conversion) { conversions_.push_back(conversion); }
    /// The conversion by this model and space that most of the three values come from; null if none does.
    const Conversion* conversion(const void* model, const void* space, const std::array<NodeId, 3>& values) const;

    // The usual operations by name, so that lowering reads like the formula it implements.
    NodeId neg(NodeId a) { return make(Op::neg, a); }
    NodeId add(NodeId a, NodeId b) { return make(Op::add, a, b); }
    NodeId sub(NodeId a, NodeId b) { return make(Op::sub, a, b); }
    NodeId mul(NodeId a, NodeId b) { return make(Op::mul, a, b); }
    NodeId div(NodeId a, NodeId b) { return make(Op::div, a, b); }
    NodeId min(NodeId a, NodeId b) { return make(Op::min, a, b); }
    NodeId max(NodeId a, NodeId b) { return make(Op::max, a, b); }
    NodeId less(NodeId a, NodeId b) { return make(Op::less, a, b); }
    NodeId less_equal(NodeId a, NodeId b) { return make(Op::less_equal, a, b); }
    NodeId equal(NodeId a, NodeId b) { return make(Op::equal, a, b); }
    NodeId select(NodeId condition, NodeId yes, NodeId no) { return make(Op::select, condition, yes, no); }
    /// min(max(x, low), high)
    NodeId clamp(NodeId x, NodeId low, NodeId high) { return min(max(x, low), high); }
    NodeId clamp01(NodeId x) { return clamp(x, constant(0), constant(1)); }

private:
    NodeId intern(const Node& node);

    void grow_table();

    bool rewrite_;
    std::optional<std::vector<double>> fixed_;
    std::uint32_t first_stage_slot_ = input_count;
    std::vector<Stage> stages_;
    std::vector<Node> nodes_;
    std::vector<NodeId> table_; ///< where each node stands by its hash, in a power of two of places; some are free
    std::unordered_map<NodeId, std::array<NodeId, 3>> origins_;
    std::unordered_map<NodeId, CodeValue> codes_;
    std::map<std::array<NodeId, 3>, LinearMap> linear_maps_;
    std::vector<Conversion> conversions_;
    std::vector<const External*> externals_;
};

} // namespace kasuri::ir
