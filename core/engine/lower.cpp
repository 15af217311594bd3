#include "engine/lower.hpp"

#include "builtins/builtin.hpp"
#include "colour/space.hpp"
#include "engine/hold_hue.hpp"

#include <algorithm>
#include <initializer_list>
#include <map>

namespace kasuri::engine {

using ir::Graph;
using ir::Input;
using ir::NodeId;
using ir::Op;
using lang::Operator;
using lang::Type;
using lang::Typed;
using lang::TypedId;
using lang::TypedKind;

std::string_view working_space(const lang::Rule& rule) {
    return rule.working.empty() ? colour::default_space : std::string_view(rule.working);
}

namespace {

/// The nodes of a value: at most the nine of a matrix. A rule makes one for each part of each expression, so they are
/// not worth a trip to the heap.
class Value {
public:
    Value() = default;
    explicit Value(std::size_t size, NodeId all = 0) : size_(size) { std::fill_n(nodes_.begin(), size, all); }
    Value(std::initializer_list<NodeId> nodes) : Value(nodes.begin(), nodes.end()) {}
    template <class Iterator>
    Value(Iterator first, Iterator last) {
        for (; first != last; ++first)
            push_back(*first);
    }
    void push_back(NodeId node) { nodes_.at(size_++) = node; }
    std::size_t size() const { return size_; }
    NodeId* data() { return nodes_.data(); }
    const NodeId* data() const { return nodes_.data(); }
    NodeId* begin() { return nodes_.data(); }
    const NodeId* begin() const { return nodes_.data(); }
    const NodeId* end() const { return nodes_.data() + size_; }
    NodeId* end() { return nodes_.data() + size_; }
    NodeId& operator[](std::size_t i) { return nodes_[i]; }
    const NodeId& operator[](std::size_t i) const { return nodes_[i]; }

private:
    std::array<NodeId, 9> nodes_{};
    std::size_t size_ = 0;
};

/// One body being lowered: the rule, or a function at one of its calls.
struct Frame {
    const lang::Body& body;
    std::vector<Value> locals;
};

class Lowering {
public:
    Lowering(const lang::Rule& rule, Graph& graph, const CompileOptions& options, const Feed& feed)
        : rule_(rule), g_(graph), feed_(feed), space_(*colour::find_space(working_space(rule))),
          from_(space(options.in_space)),
          to_(space(options.out_space)), frame_{rule, std::vector<Value>(rule.locals.size())} {
        const Colour in = converted({feed.rgba[0], feed.rgba[1], feed.rgba[2]}, from_, space_);
        input_ = {in[0], in[1], in[2], feed.rgba[3]};
        out_ = feed.out.value_or(input_);
        std::uint32_t slot = feed.first_source;
        std::size_t own = 0;
        for (std::size_t k = 0; k < rule.sources.size(); ++k) {
            if (!lang::is_external(rule.sources[k])) {
                sources_.push_back(given(rule.sources[k], k, feed));
                continue;
            }
            Value channels;
            for (int c = 0; c < width(rule.sources[k].type); ++c)
                channels.push_back(g_.source_input(slot++));
            std::string_view of; // not by ?: with "", which would be a view of a string that is gone
            if (own < options.source_spaces.size())
                of = options.source_spaces[own];
            ++own;
            // A single channel is a mask or a plate: numbers as they are. So is alpha.
            if (channels.size() >= 3) {
                const Colour made = converted({channels[0], channels[1], channels[2]}, space(of), space_);
                std::copy(made.begin(), made.end(), channels.begin());
            }
            sources_.push_back(std::move(channels));
        }
    }

    std::vector<NodeId> run(const CompileOptions& options) {
        cancel_ = options.cancel;
        perform_steps(rule_.steps.size());
        if (is_called_off(options))
            return {}; // of locals that were not reached there is nothing to be read
        std::vector<NodeId> result;
        if (options.print) {
            const Value printed = value(*rule_.print, frame_);
            result.assign(printed.begin(), printed.end());
        } else {
            result.assign(out_.begin(), out_.end());
            const Colour back = converted({out_[0], out_[1], out_[2]}, space_, to_);
            std::array<bool, 3> untouched{};
            for (std::size_t i = 0; i < 3; ++i)
                untouched[i] = out_[i] == input_[i] && &from_ == &to_;
            // What was not touched goes back as it came, to the bit; with other primaries every channel touches the
            // others.
            const bool apart = colour::same_primaries(space_, to_) && !space_.to_light && !to_.to_light,
                       none = untouched[0] && untouched[1] && untouched[2];
            for (std::size_t i = 0; i < 3; ++i)
                result[i] = (apart && untouched[i]) || none ? feed_.rgba[i] : back[i];
            if (options.colour_only)
                result.resize(3);
        }
        for (const TypedId id : options.also)
            for (const NodeId node : value(id, frame_))
                result.push_back(node);
        return result;
    }

private:
    using Colour = std::array<NodeId, 3>;

    /// Empty names stand for the rule's own working space.
    const colour::Space& space(std::string_view name) const {
        const colour::Space* found = name.empty() ? nullptr : colour::find_space(name);
        return found ? *found : space_;
    }

    /// What a source reads that looks back: nothing is read twice, for the nodes are those of the other steps.
    Value given(const lang::SourceInput& source, std::size_t index, const Feed& feed) {
        std::optional<Feed::Given> from = feed.picture;
        if (source.reads == lang::SourceInput::Reads::step)
            from = index < feed.steps.size() ? feed.steps[index] : std::nullopt;
        std::array<NodeId, 4> rgba = input_;
        if (from) {
            const Colour made = converted({from->rgba[0], from->rgba[1], from->rgba[2]}, space(from->space), space_);
            rgba = {made[0], made[1], made[2], from->rgba[3]};
        } else if (source.reads == lang::SourceInput::Reads::step) {
            rgba.fill(g_.constant(0));
        }
        if (source.channel >= 0)
            return {rgba[static_cast<std::size_t>(source.channel)]};
        return Value(rgba.begin(), rgba.begin() + width(source.type));
    }

    Colour converted(const Colour& x, const colour::Space& from, const colour::Space& to) {
        return colour::lower_converted(g_, x, from, to);
    }

    void perform_steps(std::size_t count) {
        for (std::size_t i = 0; i < count && !(cancel_ && cancel_->cancelled()); ++i)
            if (rule_.steps[i].hold_hue)
                hold_hue(i);
            else
                perform(rule_.steps[i], frame_);
    }

    /// The steps before this one once more, for the colour whose hue is held; then out is turned. What does not change
    /// from pixel to pixel is computed once per picture, so the turn costs one matrix, or one conversion.
    void hold_hue(std::size_t index) {
        const lang::Step& step = rule_.steps[index];
        const Value key = value(step.value, frame_);
        auto known = became_.find(index); // once: what comes into the picture has no part in it
        if (known == became_.end()) {
            const std::array<NodeId, 4> input = input_, out = out_;
            std::vector<Value> locals = frame_.locals;
            input_ = out_ = {key[0], key[1], key[2], g_.constant(1)};
            frame_.locals.assign(rule_.locals.size(), {});
            perform_steps(index);
            known = became_.emplace(index, Colour{out_[0], out_[1], out_[2]}).first;
            input_ = input;
            out_ = out;
            frame_.locals = std::move(locals);
        }
        const Colour& became = known->second;
        const Colour turned =
            held_hue(g_, space_, step.model, {key[0], key[1], key[2]}, became, {out_[0], out_[1], out_[2]});
        std::copy(turned.begin(), turned.end(), out_.begin());
    }

    void perform(const lang::Step& step, Frame& frame) {
        const Value result = value(step.value, frame);
        if (!step.to_output && step.whole) {
            frame.locals[step.local] = result;
            return;
        }
        NodeId* target = step.to_output ? out_.data() : frame.locals[step.local].data();
        for (std::size_t i = 0; i < result.size(); ++i)
            target[step.whole ? i : step.components[i]] = result[i];
    }

    Value value(TypedId id, Frame& frame) {
        const Typed& t = frame.body.exprs[id];
        switch (t.kind) {
        case TypedKind::constant: return {g_.constant(t.number)};
        case TypedKind::input: return input(static_cast<lang::InputName>(t.index));
        case TypedKind::source: return sources_[t.index];
        case TypedKind::parameter: return {g_.uniform(ir::first_parameter_slot + feed_.first_parameter + t.index)};
        case TypedKind::local: return frame.locals[t.index];
        case TypedKind::output: return Value(out_.begin(), out_.end());
        case TypedKind::construct: {
            Value all;
            for (const TypedId arg : t.args)
                for (const NodeId node : value(arg, frame))
                    all.push_back(node);
            return all;
        }
        case TypedKind::spread: return Value(static_cast<std::size_t>(width(t.type)), value(t.args[0], frame)[0]);
        case TypedKind::diagonal: {
            Value matrix(9, g_.constant(0));
            matrix[0] = matrix[4] = matrix[8] = value(t.args[0], frame)[0];
            return matrix;
        }
        case TypedKind::swizzle: {
            const Value whole = value(t.args[0], frame);
            Value part;
            for (int i = 0; i < width(t.type); ++i)
                part.push_back(whole[t.swizzle[static_cast<std::size_t>(i)]]);
            return part;
        }
        case TypedKind::unary: {
            Value result = value(t.args[0], frame);
            for (NodeId& node : result)
                node = g_.make(t.op == Operator::neg ? Op::neg : Op::logical_not, node);
            return result;
        }
        case TypedKind::binary: return binary(t, frame);
        case TypedKind::choice: {
            const NodeId condition = value(t.args[0], frame)[0];
            Value yes = value(t.args[1], frame);
            const Value no = value(t.args[2], frame);
            for (std::size_t i = 0; i < yes.size(); ++i)
                yes[i] = g_.select(condition, yes[i], no[i]);
            return yes;
        }
        case TypedKind::call: return call(t, frame);
        case TypedKind::invoke: {
            const lang::Function& callee = *frame.body.callees[t.index];
            Frame inner{callee, std::vector<Value>(callee.locals.size())};
            for (std::size_t i = 0; i < t.args.size(); ++i)
                inner.locals[i] = value(t.args[i], frame);
            for (const lang::Step& step : callee.steps)
                perform(step, inner);
            return value(callee.result, inner);
        }
        }
        return {};
    }

    Value input(lang::InputName which) {
        switch (which) {
        case lang::InputName::r: return {input_[0]};
        case lang::InputName::g: return {input_[1]};
        case lang::InputName::b: return {input_[2]};
        case lang::InputName::a: return {input_[3]};
        case lang::InputName::rgb: return {input_[0], input_[1], input_[2]};
        case lang::InputName::rgba: return Value(input_.begin(), input_.end());
        case lang::InputName::pos: return {g_.input(Input::pos_x), g_.input(Input::pos_y)};
        case lang::InputName::pixel: return {g_.input(Input::pixel_x), g_.input(Input::pixel_y)};
        case lang::InputName::aspect: return {g_.uniform(ir::aspect_slot)};
        case lang::InputName::extent: return {g_.uniform(ir::width_slot), g_.uniform(ir::height_slot)};
        }
        return {};
    }

    NodeId weighted(const NodeId* row, const NodeId* x, std::size_t stride) {
        return g_.add(g_.add(g_.mul(row[0], x[0]), g_.mul(row[1], x[stride])), g_.mul(row[2], x[2 * stride]));
    }

    Value binary(const Typed& t, Frame& frame) {
        const Value a = value(t.args[0], frame);
        const Value b = value(t.args[1], frame);
        const Type left = frame.body.exprs[t.args[0]].type;
        const Type right = frame.body.exprs[t.args[1]].type;
        const bool matrix = left.kind == lang::Kind::mat3;
        if (t.op == Operator::mul && matrix && right == lang::vec3_type)
            return {weighted(&a[0], b.data(), 1), weighted(&a[3], b.data(), 1), weighted(&a[6], b.data(), 1)};
        if (t.op == Operator::mul && matrix && right.kind == lang::Kind::mat3) {
            Value product;
            for (std::size_t row = 0; row < 3; ++row)
                for (std::size_t column = 0; column < 3; ++column)
                    product.push_back(weighted(&a[3 * row], &b[column], 3));
            return product;
        }
        if (t.op == Operator::equal || t.op == Operator::not_equal) {
            NodeId same = g_.equal(a[0], b[0]);
            for (std::size_t i = 1; i < a.size(); ++i)
                same = g_.make(Op::logical_and, same, g_.equal(a[i], b[i]));
            return {t.op == Operator::equal ? same : g_.make(Op::logical_not, same)};
        }
        Value result;
        for (std::size_t i = 0; i < std::max(a.size(), b.size()); ++i)
            result.push_back(scalar(t.op, a.size() == 1 ? a[0] : a[i], b.size() == 1 ? b[0] : b[i]));
        return result;
    }

    NodeId scalar(Operator op, NodeId a, NodeId b) {
        switch (op) {
        case Operator::add: return g_.add(a, b);
        case Operator::sub: return g_.sub(a, b);
        case Operator::mul: return g_.mul(a, b);
        case Operator::div: return g_.div(a, b);
        case Operator::less: return g_.less(a, b);
        case Operator::less_equal: return g_.less_equal(a, b);
        case Operator::greater: return g_.less(b, a);
        case Operator::greater_equal: return g_.less_equal(b, a);
        case Operator::logical_and: return g_.make(Op::logical_and, a, b);
        case Operator::logical_or: return g_.make(Op::logical_or, a, b);
        case Operator::none:
        case Operator::neg:
        case Operator::logical_not:
        case Operator::equal:
        case Operator::not_equal: break; // never come here
        }
        return a;
    }

    Value call(const Typed& t, Frame& frame) {
        const builtins::Builtin& row = builtins::all()[t.index];
        std::vector<Value> values;
        std::vector<const NodeId*> arguments;
        values.reserve(t.args.size());
        for (const TypedId arg : t.args) {
            values.push_back(value(arg, frame));
            arguments.push_back(values.back().data());
        }
        Value result(static_cast<std::size_t>(width(t.type)));
        const builtins::Shape shape{static_cast<int>(values[0].size()), static_cast<int>(values.size())};
        builtins::lower(row, space_, g_, shape, arguments.data(), result.data());
        return result;
    }

    const lang::Rule& rule_;
    Graph& g_;
    const Feed feed_;
    const colour::Space& space_;
    const colour::Space& from_;
    const colour::Space& to_;
    std::array<NodeId, 4> input_{};
    std::array<NodeId, 4> out_{};
    std::vector<Value> sources_;
    Frame frame_;
    const CancelToken* cancel_ = nullptr;
    std::map<std::size_t, Colour> became_; ///< of the colours whose hue is held, by their step
};

} // namespace

std::size_t source_channels(const lang::Rule& rule) {
    std::size_t channels = 0;
    for (const lang::SourceInput& source : rule.sources)
        channels += lang::is_external(source) ? static_cast<std::size_t>(width(source.type)) : 0;
    return channels;
}

std::vector<NodeId> lower_behind(const lang::Rule& rule, Graph& graph, const CompileOptions& options,
                                 const Feed& feed) {
    return Lowering(rule, graph, options, feed).run(options);
}

std::vector<NodeId> lower(const lang::Rule& rule, Graph& graph, const CompileOptions& options) {
    graph.reserve_sources(static_cast<std::uint32_t>(source_channels(rule)));
    return lower_behind(
        rule, graph, options,
        {{graph.input(Input::r), graph.input(Input::g), graph.input(Input::b), graph.input(Input::a)}, 0, 0});
}

ProgramPtr compile(const lang::Rule& rule, const CompileOptions& options) {
    ir::Graph graph(options.rewrite);
    const std::vector<NodeId> outputs = lower(rule, graph, options);
    if (outputs.empty())
        return nullptr;
    return std::make_shared<const Program>(graph, outputs, options.fuse);
}

} // namespace kasuri::engine
