#include "engine/reference.hpp"

#include "builtins/builtin.hpp"

#include <algorithm>

namespace kasuri::engine {

using lang::Kind;
using lang::Operator;
using lang::Type;
using lang::Typed;
using lang::TypedId;
using lang::TypedKind;

namespace {

using Value = std::vector<double>;

class Walker {
public:
    Walker(const lang::Rule& rule, std::span<const double> parameters, const ReferencePixel& pixel)
        : rule_(rule), parameters_(parameters), pixel_(pixel), out_(pixel.rgba), locals_(rule.locals.size()) {
        for (const lang::Step& step : rule.steps) {
            const Value result = value(step.value);
            if (!step.to_output && step.whole)
                locals_[step.local] = result;
            else
                for (std::size_t i = 0; i < result.size(); ++i)
                    (step.to_output ? out_.data() : locals_[step.local].data())[step.whole ? i : step.components[i]] =
                        result[i];
        }
    }

    const std::array<double, 4>& out() const { return out_; }

    Value value(TypedId id) const {
        const Typed& t = rule_.exprs[id];
        switch (t.kind) {
        case TypedKind::constant: return {t.number};
        case TypedKind::input: return input(static_cast<lang::InputName>(t.index));
        case TypedKind::parameter: return {parameters_[t.index]};
        case TypedKind::local: return locals_[t.index];
        case TypedKind::output: return Value(out_.begin(), out_.end());
        case TypedKind::construct: {
            Value all;
            for (const TypedId arg : t.args) {
                const Value part = value(arg);
                all.insert(all.end(), part.begin(), part.end());
            }
            return all;
        }
        case TypedKind::spread: return Value(static_cast<std::size_t>(width(t.type)), value(t.args[0])[0]);
        case TypedKind::diagonal: {
            const double d = value(t.args[0])[0];
            return {d, 0, 0, 0, d, 0, 0, 0, d};
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
            for (double& x : result)
                x = t.op == Operator::neg ? -x : (x == 0 ? 1.0 : 0.0);
            return result;
        }
        case TypedKind::binary: return binary(t);
        case TypedKind::choice: return value(t.args[0])[0] != 0 ? value(t.args[1]) : value(t.args[2]);
        case TypedKind::call: {
            std::vector<Value> values;
            std::array<const double*, 4> arguments{};
            for (const TypedId arg : t.args)
                values.push_back(value(arg));
            for (std::size_t i = 0; i < values.size(); ++i)
                arguments[i] = values[i].data();
            Value result(static_cast<std::size_t>(width(t.type)));
            builtins::evaluate(builtins::all()[t.index], static_cast<int>(values[0].size()), arguments.data(), result.data());
            return result;
        }
        }
        return {};
    }

private:
    Value input(lang::InputName which) const {
        const auto& [r, g, b, a] = pixel_.rgba;
        switch (which) {
        case lang::InputName::r: return {r};
        case lang::InputName::g: return {g};
        case lang::InputName::b: return {b};
        case lang::InputName::a: return {a};
        case lang::InputName::rgb: return {r, g, b};
        case lang::InputName::rgba: return {r, g, b, a};
        case lang::InputName::pos: return {pixel_.pos[0], pixel_.pos[1]};
        case lang::InputName::pixel: return {pixel_.pixel[0], pixel_.pixel[1]};
        case lang::InputName::aspect: return {pixel_.aspect};
        }
        return {};
    }

    Value binary(const Typed& t) const {
        const Value a = value(t.args[0]);
        const Value b = value(t.args[1]);
        const bool left_matrix = rule_.exprs[t.args[0]].type.kind == Kind::mat3;
        const Type right = rule_.exprs[t.args[1]].type;
        if (t.op == Operator::mul && left_matrix && (right.kind == Kind::mat3 || right == lang::vec3_type)) {
            const std::size_t columns = b.size() / 3;
            Value product(3 * columns, 0.0);
            for (std::size_t row = 0; row < 3; ++row)
                for (std::size_t column = 0; column < columns; ++column)
                    for (std::size_t k = 0; k < 3; ++k)
                        product[row * columns + column] += a[3 * row + k] * b[k * columns + column];
            return product;
        }
        if (t.op == Operator::equal)
            return {a == b ? 1.0 : 0.0};
        if (t.op == Operator::not_equal)
            return {a == b ? 0.0 : 1.0};
        Value result(std::max(a.size(), b.size()));
        for (std::size_t i = 0; i < result.size(); ++i)
            result[i] = scalar(t.op, a[a.size() == 1 ? 0 : i], b[b.size() == 1 ? 0 : i]);
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

    const lang::Rule& rule_;
    std::span<const double> parameters_;
    const ReferencePixel& pixel_;
    std::array<double, 4> out_;
    std::vector<Value> locals_;
};

} // namespace

std::array<double, 4> reference(const lang::Rule& rule, std::span<const double> parameters, const ReferencePixel& pixel) {
    return Walker(rule, parameters, pixel).out();
}

std::vector<double> reference_print(const lang::Rule& rule, std::span<const double> parameters, const ReferencePixel& pixel) {
    return Walker(rule, parameters, pixel).value(*rule.print);
}

} // namespace kasuri::engine
