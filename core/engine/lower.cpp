#include "engine/lower.hpp"

#include "builtins/builtin.hpp"
#include "colour/space.hpp"

#include <algorithm>

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

using Value = std::vector<NodeId>;

class Lowering {
public:
    /// Null transfers stand for the rule's own working space.
    Lowering(const lang::Rule& rule, Graph& graph, const colour::Transfer* from, const colour::Transfer* to)
        : rule_(rule), g_(graph), inside_(&transfer_of(*colour::find_space(working_space(rule)))),
          from_(from ? from : inside_), to_(to ? to : inside_), locals_(rule.locals.size()) {
        for (std::size_t i = 0; i < 4; ++i)
            input_[i] = out_[i] = i == 3 ? g_.input(Input::a) : into_working(g_.input(static_cast<Input>(i)));
    }

    std::vector<NodeId> run(bool print) {
        for (const lang::Step& step : rule_.steps)
            perform(step);
        if (print)
            return value(*rule_.print);
        std::vector<NodeId> result(out_.begin(), out_.end());
        for (std::size_t i = 0; i < 3; ++i)
            // What was not touched goes back as it came, to the bit.
            result[i] = out_[i] == input_[i] && from_ == to_ ? g_.input(static_cast<Input>(i)) : out_of_working(out_[i]);
        return result;
    }

private:
    NodeId into_working(NodeId x) {
        return from_ == inside_ ? x : inside_->lower_encode(g_, from_->lower_decode(g_, x));
    }
    NodeId out_of_working(NodeId x) {
        return to_ == inside_ ? x : to_->lower_encode(g_, inside_->lower_decode(g_, x));
    }

    void perform(const lang::Step& step) {
        const Value result = value(step.value);
        if (!step.to_output && step.whole) {
            locals_[step.local] = result;
            return;
        }
        NodeId* target = step.to_output ? out_.data() : locals_[step.local].data();
        for (std::size_t i = 0; i < result.size(); ++i)
            target[step.whole ? i : step.components[i]] = result[i];
    }

    Value value(TypedId id) {
        const Typed& t = rule_.exprs[id];
        switch (t.kind) {
        case TypedKind::constant: return {g_.constant(t.number)};
        case TypedKind::input: return input(static_cast<lang::InputName>(t.index));
        case TypedKind::parameter: return {g_.uniform(ir::first_parameter_slot + t.index)};
        case TypedKind::local: return locals_[t.index];
        case TypedKind::output: return Value(out_.begin(), out_.end());
        case TypedKind::construct: {
            Value all;
            for (const TypedId arg : t.args)
                for (const NodeId node : value(arg))
                    all.push_back(node);
            return all;
        }
        case TypedKind::spread: return Value(static_cast<std::size_t>(width(t.type)), value(t.args[0])[0]);
        case TypedKind::diagonal: {
            Value matrix(9, g_.constant(0));
            matrix[0] = matrix[4] = matrix[8] = value(t.args[0])[0];
            return matrix;
        }
        case TypedKind::swizzle: {
            const Value whole = value(t.args[0]);
            Value part;
            for (int i = 0; i < width(t.type); ++i)
                part.push_back(whole[t.swizzle[static_cast<std::size_t>(i)]]);
            return part;
        }
        case TypedKind::unary: {
            Value result = value(t.args[0]);
            for (NodeId& node : result)
                node = g_.make(t.op == Operator::neg ? Op::neg : Op::logical_not, node);
            return result;
        }
        case TypedKind::binary: return binary(t);
        case TypedKind::choice: {
            const NodeId condition = value(t.args[0])[0];
            Value yes = value(t.args[1]);
            const Value no = value(t.args[2]);
            for (std::size_t i = 0; i < yes.size(); ++i)
                yes[i] = g_.select(condition, yes[i], no[i]);
            return yes;
        }
        case TypedKind::call: return call(t);
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
        }
        return {};
    }

    NodeId weighted(const NodeId* row, const NodeId* x, std::size_t stride) {
        return g_.add(g_.add(g_.mul(row[0], x[0]), g_.mul(row[1], x[stride])), g_.mul(row[2], x[2 * stride]));
    }

    Value binary(const Typed& t) {
        const Value a = value(t.args[0]);
        const Value b = value(t.args[1]);
        const Type left = rule_.exprs[t.args[0]].type;
        const Type right = rule_.exprs[t.args[1]].type;
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

    Value call(const Typed& t) {
        const builtins::Builtin& row = builtins::all()[t.index];
        std::vector<Value> values;
        for (const TypedId arg : t.args)
            values.push_back(value(arg));
        std::array<const NodeId*, 4> arguments{};
        for (std::size_t i = 0; i < values.size(); ++i)
            arguments[i] = values[i].data();
        Value result(static_cast<std::size_t>(width(t.type)));
        builtins::lower(row, g_, static_cast<int>(values[0].size()), arguments.data(), result.data());
        return result;
    }

    const lang::Rule& rule_;
    Graph& g_;
    const colour::Transfer* inside_;
    const colour::Transfer* from_;
    const colour::Transfer* to_;
    std::array<NodeId, 4> input_{};
    std::array<NodeId, 4> out_{};
    std::vector<Value> locals_;
};

} // namespace

std::vector<NodeId> lower(const lang::Rule& rule, Graph& graph, const CompileOptions& options) {
    const auto transfer = [](std::string_view name) {
        const colour::Space* space = name.empty() ? nullptr : colour::find_space(name);
        return space ? &transfer_of(*space) : nullptr;
    };
    std::vector<NodeId> outputs =
        Lowering(rule, graph, transfer(options.in_space), transfer(options.out_space)).run(options.print);
    if (options.colour_only)
        outputs.resize(3);
    return outputs;
}

ProgramPtr compile(const lang::Rule& rule, const CompileOptions& options) {
    ir::Graph graph(options.rewrite);
    const std::vector<NodeId> outputs = lower(rule, graph, options);
    return std::make_shared<const Program>(graph, outputs);
}

} // namespace kasuri::engine
