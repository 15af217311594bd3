#include "engine/reference.hpp"

#include "builtins/builtin.hpp"
#include "engine/hold_hue.hpp"
#include "engine/lower.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <random>

namespace kasuri::engine {

using lang::Kind;
using lang::Operator;
using lang::Type;
using lang::Typed;
using lang::TypedId;
using lang::TypedKind;

namespace {

/// All pixels of one component after the other: component c of pixel i is [c * pixels + i].
using Value = std::vector<double>;

struct Frame {
    const lang::Body& body;
    std::vector<Value> locals;
};

/// What the rule makes of the colours whose hue is held, by their step.
using Became = std::map<std::size_t, Value>;

class Walker {
public:
    Walker(const lang::Rule& rule, std::span<const double> parameters, int width,
           std::span<const ReferencePixel> pixels, const ReferenceNoise* noise = nullptr,
           std::size_t steps = std::numeric_limits<std::size_t>::max(), std::vector<TraceNode>* trace = nullptr,
           Became* became = nullptr)
        : trace_(trace), became_(became ? *became : own_became_), noise_(noise ? *noise : ReferenceNoise{}),
          random_(noise_.seed), rule_(rule), space_(*colour::find_space(working_space(rule))), parameters_(parameters),
          width_(width), pixels_(pixels), count_(pixels.size()), frame_{rule, std::vector<Value>(rule.locals.size())} {
        out_ = gather(4, [](const ReferencePixel& p, std::size_t c) { return p.out ? (*p.out)[c] : p.rgba[c]; });
        for (step_ = 0; step_ < std::min(steps, rule.steps.size()); ++step_)
            if (const std::size_t i = step_; rule.steps[i].hold_hue)
                hold_hue(i);
            else
                perform(rule.steps[step_], frame_);
    }

    const Value& out() const { return out_; }
    Value printed() { return value(*rule_.print, frame_); }

private:
    template <class Read>
    Value gather(std::size_t components, Read&& read) const {
        Value all;
        all.reserve(components * count_);
        for (std::size_t c = 0; c < components; ++c)
            for (const ReferencePixel& pixel : pixels_)
                all.push_back(read(pixel, c));
        return all;
    }
    Value same(double number) const { return Value(count_, number); }

    /// The colour goes alone through the steps before; the angle between its hues is how far all colours are turned.
    void hold_hue(std::size_t index) {
        const lang::Step& step = rule_.steps[index];
        const Value key = value(step.value, frame_);
        ReferencePixel pixel;
        pixel.rgba = {key[0], key[count_], key[2 * count_], 1};
        if (!pixels_.empty()) {
            pixel.aspect = pixels_[0].aspect;
            pixel.extent = pixels_[0].extent;
        }
        auto known = became_.find(index); // other pixels do not change what the rule makes of this colour
        if (known == became_.end())
            known =
                became_
                    .emplace(index, Walker(rule_, parameters_, 1, {&pixel, 1}, nullptr, index, nullptr, &became_).out())
                    .first;
        const Value& became = known->second;
        const colour::Triple wanted = {pixel.rgba[0], pixel.rgba[1], pixel.rgba[2]},
                             came = {became[0], became[1], became[2]};
        for (std::size_t i = 0; i < count_; ++i) {
            const colour::Triple turned =
                reference_held_hue(space_, step.model, wanted, came, {out_[i], out_[count_ + i], out_[2 * count_ + i]});
            for (std::size_t c = 0; c < 3; ++c)
                out_[c * count_ + i] = turned[c];
        }
    }

    void perform(const lang::Step& step, Frame& frame) {
        const Value result = value(step.value, frame);
        if (!step.to_output && step.whole) {
            frame.locals[step.local] = result;
            return;
        }
        Value& target = step.to_output ? out_ : frame.locals[step.local];
        for (std::size_t c = 0; c * count_ < result.size(); ++c)
            std::copy_n(result.begin() + static_cast<std::ptrdiff_t>(c * count_), count_,
                        target.begin() + static_cast<std::ptrdiff_t>((step.whole ? c : step.components[c]) * count_));
    }

    Value value(TypedId id, Frame& frame) {
        const bool traced = trace_ && &frame == &frame_;
        const std::size_t at = traced ? trace_->size() : 0;
        if (traced)
            trace_->push_back({depth_ == 0 ? rule_.steps[step_].span : frame.body.exprs[id].span,
                               step_,
                               depth_++,
                               frame.body.exprs[id].type,
                               {},
                               false});
        Value made = compute(id, frame);
        if (traced) {
            --depth_;
            note(at, made);
        }
        const TypedKind kind = frame.body.exprs[id].kind;
        if (noise_.relative > 0 && frame.body.exprs[id].type != lang::bool_type && kind != TypedKind::constant)
            for (double& x : made)
                x += (random_() & 1 ? 1 : -1) * (noise_.relative * std::fabs(x) + noise_.absolute);
        return made;
    }

    void note(std::size_t at, const Value& made) {
        TraceNode& node = (*trace_)[at];
        node.value = made;
        const auto finite = [](const Value& value) {
            return std::all_of(value.begin(), value.end(), [](double x) { return std::isfinite(x); });
        };
        node.born = !finite(made) &&
            std::all_of(trace_->begin() + static_cast<std::ptrdiff_t>(at) + 1, trace_->end(),
                        [&](const TraceNode& part) { return finite(part.value); });
        // What a name holds was born where it was written.
        if (const std::size_t parts = trace_->size() - at - 1; node.born && parts == 0)
            node.born = false;
    }

    Value compute(TypedId id, Frame& frame) {
        const Typed& t = frame.body.exprs[id];
        switch (t.kind) {
        case TypedKind::constant: return same(t.number);
        case TypedKind::input: return input(static_cast<lang::InputName>(t.index));
        case TypedKind::source: {
            const lang::SourceInput& source = rule_.sources[t.index];
            if (!lang::is_external(source))
                return gather(static_cast<std::size_t>(width(t.type)), [&](const ReferencePixel& p, std::size_t c) {
                    const std::size_t channel = source.channel >= 0 ? static_cast<std::size_t>(source.channel) : c;
                    if (source.reads == lang::SourceInput::Reads::picture)
                        return p.original.value_or(p.rgba)[channel];
                    return t.index < p.read.size() ? p.read[t.index][channel] : 0.0;
                });
            std::size_t first = 0;
            for (std::size_t k = 0; k < t.index; ++k)
                first +=
                    lang::is_external(rule_.sources[k]) ? static_cast<std::size_t>(width(rule_.sources[k].type)) : 0;
            return gather(static_cast<std::size_t>(width(t.type)),
                          [first](const ReferencePixel& p, std::size_t c) { return p.sources[first + c]; });
        }
        case TypedKind::parameter: return same(parameters_[t.index]);
        case TypedKind::local: return frame.locals[t.index];
        case TypedKind::output: return out_;
        case TypedKind::construct: {
            Value all;
            for (const TypedId arg : t.args) {
                const Value part = value(arg, frame);
                all.insert(all.end(), part.begin(), part.end());
            }
            return all;
        }
        case TypedKind::spread: {
            const Value one = value(t.args[0], frame);
            Value all;
            for (int c = 0; c < width(t.type); ++c)
                all.insert(all.end(), one.begin(), one.end());
            return all;
        }
        case TypedKind::diagonal: {
            const Value d = value(t.args[0], frame);
            Value all(9 * count_, 0.0);
            for (const std::size_t c : {0u, 4u, 8u})
                std::copy(d.begin(), d.end(), all.begin() + static_cast<std::ptrdiff_t>(c * count_));
            return all;
        }
        case TypedKind::swizzle: {
            const Value whole = value(t.args[0], frame);
            Value part;
            for (int c = 0; c < width(t.type); ++c) {
                const auto from =
                    whole.begin() + static_cast<std::ptrdiff_t>(t.swizzle[static_cast<std::size_t>(c)] * count_);
                part.insert(part.end(), from, from + static_cast<std::ptrdiff_t>(count_));
            }
            return part;
        }
        case TypedKind::unary: {
            Value result = value(t.args[0], frame);
            for (double& x : result)
                x = t.op == Operator::neg ? -x : (x == 0 ? 1.0 : 0.0);
            return result;
        }
        case TypedKind::binary: return binary(t, frame);
        case TypedKind::choice: {
            const Value condition = value(t.args[0], frame);
            Value result = value(t.args[1], frame);
            const Value no = value(t.args[2], frame);
            for (std::size_t i = 0; i < result.size(); ++i)
                if (condition[i % count_] == 0)
                    result[i] = no[i];
            return result;
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

    Value input(lang::InputName which) const {
        switch (which) {
        case lang::InputName::r:
        case lang::InputName::g:
        case lang::InputName::b:
        case lang::InputName::a: {
            const auto channel = static_cast<std::size_t>(which);
            return gather(1, [channel](const ReferencePixel& p, std::size_t) { return p.rgba[channel]; });
        }
        case lang::InputName::rgb: return gather(3, [](const ReferencePixel& p, std::size_t c) { return p.rgba[c]; });
        case lang::InputName::rgba: return gather(4, [](const ReferencePixel& p, std::size_t c) { return p.rgba[c]; });
        case lang::InputName::pos: return gather(2, [](const ReferencePixel& p, std::size_t c) { return p.pos[c]; });
        case lang::InputName::pixel:
            return gather(2, [](const ReferencePixel& p, std::size_t c) { return p.pixel[c]; });
        case lang::InputName::aspect: return gather(1, [](const ReferencePixel& p, std::size_t) { return p.aspect; });
        case lang::InputName::extent:
            return gather(2, [](const ReferencePixel& p, std::size_t c) { return p.extent[c]; });
        }
        return {};
    }

    Value call(const Typed& t, Frame& frame) {
        const builtins::Builtin& row = builtins::all()[t.index];
        std::vector<Value> values;
        for (const TypedId arg : t.args)
            values.push_back(value(arg, frame));
        if (row.form == builtins::Form::neighbourhood)
            return filter_neighbourhood(row, values);
        std::vector<std::array<double, 9>> one(values.size());
        std::vector<const double*> arguments;
        for (const auto& argument : one)
            arguments.push_back(argument.data());
        const builtins::Shape shape{static_cast<int>(values[0].size() / count_), static_cast<int>(values.size())};
        const auto components = static_cast<std::size_t>(width(t.type));
        Value result(components * count_);
        double made[9];
        for (std::size_t i = 0; i < count_; ++i) {
            for (std::size_t k = 0; k < values.size(); ++k)
                for (std::size_t c = 0; c * count_ < values[k].size(); ++c)
                    one[k][c] = values[k][c * count_ + i];
            builtins::evaluate(row, space_, shape, arguments.data(), made);
            for (std::size_t c = 0; c < components; ++c)
                result[c * count_ + i] = made[c];
        }
        return result;
    }

    /// Straight from the definitions: every neighbour of every pixel.
    Value filter_neighbourhood(const builtins::Builtin& row, const std::vector<Value>& values) const {
        const double size = values[1][0];
        const int height = static_cast<int>(count_) / width_;
        Value result = values[0];
        const bool blur = row.neighbour == ir::Neighbour::blur;
        // Further than the picture is wide and high a disc finds only its repeated edge.
        const double widest = blur ? std::ceil(8 * size) : std::min(std::floor(size), 1.0 * std::max(width_, height));
        const int far = size > 0 ? static_cast<int>(widest) : 0;
        for (std::size_t c = 0; c * count_ < result.size(); ++c)
            for (int y = 0; y < height; ++y)
                for (int x = 0; x < width_; ++x) {
                    const auto at = [&](int px, int py) {
                        return values[0][c * count_ +
                                         static_cast<std::size_t>(std::clamp(py, 0, height - 1)) *
                                             static_cast<std::size_t>(width_) +
                                         static_cast<std::size_t>(std::clamp(px, 0, width_ - 1))];
                    };
                    double sum = 0, weights = 0, extreme = at(x, y);
                    for (int dy = -far; dy <= far; ++dy)
                        for (int dx = -far; dx <= far; ++dx) {
                            const double away = static_cast<double>(dx) * dx + static_cast<double>(dy) * dy;
                            const double neighbour = at(x + dx, y + dy);
                            if (blur) {
                                const double weight = size > 0 ? std::exp(-away / (2 * size * size)) : 1;
                                sum += weight * neighbour;
                                weights += weight;
                            } else if (away <= size * size) {
                                if (std::isnan(neighbour) || std::isnan(extreme))
                                    extreme = std::numeric_limits<double>::quiet_NaN();
                                else
                                    extreme = row.neighbour == ir::Neighbour::dilate ? std::max(extreme, neighbour)
                                                                                     : std::min(extreme, neighbour);
                            }
                        }
                    const std::size_t i = c * count_ + static_cast<std::size_t>(y) * static_cast<std::size_t>(width_) +
                        static_cast<std::size_t>(x);
                    const double seen = std::isnan(size) ? size : blur ? sum / weights : extreme;
                    const std::size_t pixel = i % count_;
                    result[i] = row.unsharp ? values[0][i] + values[2][pixel] * (values[0][i] - seen) : seen;
                }
        return result;
    }

    Value binary(const Typed& t, Frame& frame) {
        const Value a = value(t.args[0], frame);
        const Value b = value(t.args[1], frame);
        const bool left_matrix = frame.body.exprs[t.args[0]].type.kind == Kind::mat3;
        const Type right = frame.body.exprs[t.args[1]].type;
        if (t.op == Operator::mul && left_matrix && (right.kind == Kind::mat3 || right == lang::vec3_type)) {
            const std::size_t columns = b.size() / count_ / 3;
            Value product(3 * columns * count_, 0.0);
            for (std::size_t i = 0; i < count_; ++i)
                for (std::size_t row = 0; row < 3; ++row)
                    for (std::size_t column = 0; column < columns; ++column)
                        for (std::size_t k = 0; k < 3; ++k)
                            product[(row * columns + column) * count_ + i] +=
                                a[(3 * row + k) * count_ + i] * b[(k * columns + column) * count_ + i];
            return product;
        }
        if (t.op == Operator::equal || t.op == Operator::not_equal) {
            Value result(count_, t.op == Operator::equal ? 1.0 : 0.0);
            for (std::size_t i = 0; i < a.size(); ++i)
                if (!(a[i] == b[i]))
                    result[i % count_] = t.op == Operator::equal ? 0.0 : 1.0;
            return result;
        }
        Value result(std::max(a.size(), b.size()));
        for (std::size_t i = 0; i < result.size(); ++i)
            result[i] = scalar(t.op, a[i % a.size()], b[i % b.size()]);
        return result;
    }

    static double scalar(Operator op, double a, double b) {
        switch (op) {
        case Operator::add: return a + b;
        case Operator::sub: return a - b;
        case Operator::mul: return a * b;
        case Operator::div: return a / b;
        case Operator::less: return a < b;
        case Operator::less_equal: return a <= b;
        case Operator::greater: return a > b;
        case Operator::greater_equal: return a >= b;
        case Operator::logical_and: return a != 0 && b != 0;
        case Operator::logical_or: return a != 0 || b != 0;
        case Operator::none:
        case Operator::neg:
        case Operator::logical_not:
        case Operator::equal:
        case Operator::not_equal: break; // never come here
        }
        return 0;
    }

    std::vector<TraceNode>* trace_;
    Became own_became_;
    Became& became_; ///< its own, or that of the walk that it is a part of
    std::size_t step_ = 0;
    int depth_ = 0;
    ReferenceNoise noise_;
    std::mt19937 random_;
    const lang::Rule& rule_;
    const colour::Space& space_;
    std::span<const double> parameters_;
    int width_;
    std::span<const ReferencePixel> pixels_;
    std::size_t count_;
    Value out_;
    Frame frame_;
};

} // namespace

std::array<double, 4> reference(const lang::Rule& rule, std::span<const double> parameters,
                                const ReferencePixel& pixel) {
    const Value out = Walker(rule, parameters, 1, {&pixel, 1}).out();
    return {out[0], out[1], out[2], out[3]};
}

std::vector<TraceNode> reference_trace(const lang::Rule& rule, std::span<const double> parameters,
                                       const ReferencePixel& pixel) {
    std::vector<TraceNode> trace;
    Walker(rule, parameters, 1, {&pixel, 1}, nullptr, std::numeric_limits<std::size_t>::max(), &trace);
    return trace;
}

std::vector<double> reference_print(const lang::Rule& rule, std::span<const double> parameters,
                                    const ReferencePixel& pixel) {
    return Walker(rule, parameters, 1, {&pixel, 1}).printed();
}

std::vector<std::array<double, 4>> reference_picture(const lang::Rule& rule, std::span<const double> parameters,
                                                     int width, std::span<const ReferencePixel> pixels,
                                                     const ReferenceNoise* noise) {
    const Value out = Walker(rule, parameters, width, pixels, noise).out();
    std::vector<std::array<double, 4>> all;
    const std::size_t n = pixels.size();
    for (std::size_t i = 0; i < n; ++i)
        all.push_back({out[i], out[n + i], out[2 * n + i], out[3 * n + i]});
    return all;
}

} // namespace kasuri::engine
