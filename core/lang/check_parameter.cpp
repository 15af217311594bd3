#include "lang/check_parameter.hpp"

#include "base/text.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <limits>

namespace kasuri::lang {
namespace {

/// The value of a number with an optional sign; nothing for anything else.
std::optional<double> plain_number(const Tree& tree, ExprId id) {
    const Expr& e = tree.exprs[id];
    if (e.kind == ExprKind::number)
        return e.number;
    if (e.kind == ExprKind::unary && e.op == Operator::neg && tree.exprs[e.args[0]].kind == ExprKind::number)
        return -tree.exprs[e.args[0]].number;
    return std::nullopt;
}

class ParameterChecker {
public:
    ParameterChecker(const Statement& s, const FileContext& file, BodyChecker& body, Rule& rule)
        : s_(s), tree_(file.tree), body_(body), e_(body.expressions()), rule_(rule) {}

    void run() {
        const Expr& value = tree_.exprs[s_.value];
        Parameter p;
        p.name = s_.name;
        p.description = s_.text;
        p.span = s_.span;
        p.name_span = s_.name_span;
        p.default_span = value.span;
        std::vector<Parameter> parts;
        if (value.kind == ExprKind::boolean) {
            p.kind = ParameterKind::toggle;
            p.value = value.number;
            p.step = 1;
            no_range();
            parts = {p};
        } else if (!s_.options.empty()) {
            parts = {choice(std::move(p), value)};
        } else if (value.kind == ExprKind::call && value.name == "vec3" && value.args.size() == 3) {
            parts = colour(p, value);
        } else {
            p.kind = s_.whole ? ParameterKind::whole : ParameterKind::number;
            p.value = number(s_.value);
            range(p, p.value, p.value);
            parts = {p};
        }
        if (!body_.free_name(s_))
            return;
        e_.names[s_.name] = {TypedKind::parameter, static_cast<std::uint32_t>(rule_.parameters.size())};
        for (Parameter& part : parts) {
            e_.parameter_used.push_back(false);
            rule_.parameters.push_back(std::move(part));
        }
    }

private:
    double number(ExprId id) {
        const std::optional<double> value = plain_number(tree_, id);
        if (!value)
            e_.fault(Code::not_constant, tree_.exprs[id].span, {});
        return value.value_or(0);
    }

    void no_range() {
        if (s_.low != no_expr)
            e_.fault(Code::no_range, cover(tree_.exprs[s_.low].span, tree_.exprs[s_.high].span), {s_.name});
        else if (s_.step != no_expr || s_.whole)
            e_.fault(Code::no_range, s_.span, {s_.name});
    }

    Parameter choice(Parameter p, const Expr& value) {
        p.kind = ParameterKind::choice;
        p.step = 1;
        no_range();
        for (const Word& option : s_.options) {
            if (std::find(p.options.begin(), p.options.end(), option.text) != p.options.end())
                e_.fault(Code::duplicate_statement, option.span, {option.text});
            p.options.push_back(option.text);
        }
        p.high = static_cast<double>(p.options.size() - 1);
        const auto found = std::find(p.options.begin(), p.options.end(), value.name);
        if (value.kind != ExprKind::name || found == p.options.end())
            e_.fault(Code::unknown_option, value.span,
                     {s_.name, e_.text(value.span), fmt::format("{}", fmt::join(p.options, ", "))},
                     e_.meant(value.name, p.options, value.span));
        else
            p.value = static_cast<double>(found - p.options.begin());
        return p;
    }

    std::vector<Parameter> colour(const Parameter& base, const Expr& value) {
        std::vector<Parameter> parts;
        double least = std::numeric_limits<double>::infinity(), most = -least;
        for (std::size_t i = 0; i < 3; ++i) {
            Parameter p = base;
            p.kind = ParameterKind::colour;
            p.name += std::string(".") + "rgb"[i];
            p.value = number(value.args[i]);
            p.default_span = tree_.exprs[value.args[i]].span;
            least = std::min(least, p.value);
            most = std::max(most, p.value);
            parts.push_back(std::move(p));
        }
        Parameter limits = base;
        limits.default_span = value.span;
        range(limits, least, most);
        for (Parameter& p : parts) {
            p.low = limits.low;
            p.high = limits.high;
            p.step = limits.step;
        }
        return parts;
    }

    void range(Parameter& p, double least, double most) {
        if (s_.low != no_expr) {
            p.low = number(s_.low);
            p.high = number(s_.high);
            const Span span = cover(tree_.exprs[s_.low].span, tree_.exprs[s_.high].span);
            if (!(p.low < p.high))
                e_.fault(Code::empty_range, span, {number_text(p.low, 9), number_text(p.high, 9)},
                         p.high < p.low ? std::vector<Fix>{{"swap the ends", span,
                                                            number_text(p.high, 9) + " .. " + number_text(p.low, 9)}}
                                        : std::vector<Fix>{});
            else if (least < p.low || most > p.high)
                e_.fault(Code::value_out_of_range, p.default_span,
                         {number_text(least < p.low ? least : most, 9), number_text(p.low, 9), number_text(p.high, 9)},
                         {{"widen the range", span,
                           number_text(std::min(p.low, least), 9) + " .. " + number_text(std::max(p.high, most), 9)}});
        } else {
            p.low = std::min(0.0, least);
            p.high = std::max(1.0, most);
        }
        if (s_.whole)
            for (const auto& [value, span] :
                 {std::pair{p.value, p.default_span}, std::pair{p.low, s_.span}, std::pair{p.high, s_.span}})
                if (value != std::floor(value)) {
                    e_.fault(Code::not_whole, span, {number_text(value, 9)});
                    break;
                }
        p.step = s_.whole ? 1 : (p.high - p.low) / 100;
        if (s_.step != no_expr) {
            p.step = number(s_.step);
            if (!(p.step > 0) || (s_.whole && p.step != std::floor(p.step)))
                e_.fault(Code::bad_step, tree_.exprs[s_.step].span, {s_.whole ? "a whole number above 0" : "above 0"});
        }
    }

    const Statement& s_;
    const Tree& tree_;
    BodyChecker& body_;
    ExpressionChecker& e_;
    Rule& rule_;
};

} // namespace

void check_parameter(const Statement& s, const FileContext& file, BodyChecker& body, Rule& rule) {
    ParameterChecker(s, file, body, rule).run();
}

void check_preset(const Statement& s, const FileContext& file, BodyChecker& body, Rule& rule) {
    ExpressionChecker& e = body.expressions();
    Preset preset;
    preset.name = s.text;
    preset.span = s.span;
    for (const Preset& other : rule.presets)
        if (other.name == preset.name)
            e.fault(Code::duplicate_statement, s.name_span, {"preset \"" + s.text + "\""});
    for (const Parameter& p : rule.parameters)
        preset.values.push_back(p.value);
    const auto set = [&](std::size_t index, ExprId id) {
        const Parameter& p = rule.parameters[index];
        const Expr& value = file.tree.exprs[id];
        std::optional<double> given = plain_number(file.tree, id);
        if (p.kind == ParameterKind::toggle || p.kind == ParameterKind::choice)
            given = parse_value(p, e.text(value.span));
        if (!given) {
            if (p.kind == ParameterKind::choice)
                e.fault(Code::unknown_option, value.span,
                        {p.name, e.text(value.span), fmt::format("{}", fmt::join(p.options, ", "))},
                        e.meant(value.name, p.options, value.span));
            else if (p.kind == ParameterKind::toggle)
                e.fault(Code::expected, value.span, {"true or false", e.text(value.span)});
            else
                e.fault(Code::not_constant, value.span, {});
            return;
        }
        if (*given < p.low || *given > p.high)
            e.fault(Code::value_out_of_range, value.span,
                    {number_text(*given, 9), number_text(p.low, 9), number_text(p.high, 9)});
        if (p.kind == ParameterKind::whole && *given != std::floor(*given))
            e.fault(Code::not_whole, value.span, {number_text(*given, 9)});
        preset.values[index] = *given;
    };
    for (const NamedValue& entry : s.values) {
        const auto found = e.names.find(entry.name);
        if (found == e.names.end() || found->second.kind != TypedKind::parameter) {
            std::vector<std::string> known;
            for (const auto& [name, meaning] : e.names)
                if (meaning.kind == TypedKind::parameter)
                    known.push_back(name);
            e.fault(Code::not_parameter, entry.name_span, {entry.name},
                    e.meant(entry.name, std::move(known), entry.name_span));
            continue;
        }
        const std::size_t index = found->second.index;
        if (rule.parameters[index].kind != ParameterKind::colour) {
            set(index, entry.value);
            continue;
        }
        const Expr& value = file.tree.exprs[entry.value];
        if (value.kind == ExprKind::call && value.name == "vec3" && value.args.size() == 3)
            for (std::size_t part = 0; part < 3; ++part)
                set(index + part, value.args[part]);
        else
            e.fault(Code::expected, value.span, {"a colour, vec3(r, g, b)", e.text(value.span)});
    }
    rule.presets.push_back(std::move(preset));
}

std::string value_text(const Parameter& parameter, double value) {
    switch (parameter.kind) {
    case ParameterKind::toggle: return value != 0 ? "true" : "false";
    case ParameterKind::choice: return parameter.options[static_cast<std::size_t>(allowed_value(parameter, value))];
    case ParameterKind::number:
    case ParameterKind::whole:
    case ParameterKind::colour: break;
    }
    return fmt::format("{}", static_cast<float>(value)); // the shortest text that gives this float
}

std::optional<double> parse_value(const Parameter& parameter, std::string_view text) {
    const std::string_view word = trimmed(text);
    if (parameter.kind == ParameterKind::toggle) {
        if (word == "true" || word == "on" || word == "1")
            return 1;
        if (word == "false" || word == "off" || word == "0")
            return 0;
        return std::nullopt;
    }
    if (parameter.kind == ParameterKind::choice) {
        const auto found = std::find(parameter.options.begin(), parameter.options.end(), word);
        if (found != parameter.options.end())
            return static_cast<double>(found - parameter.options.begin());
        return std::nullopt;
    }
    return parse_number(word);
}

double allowed_value(const Parameter& parameter, double value) {
    const double inside = std::clamp(value, parameter.low, parameter.high);
    return parameter.kind == ParameterKind::number || parameter.kind == ParameterKind::colour ? inside
                                                                                              : std::round(inside);
}

} // namespace kasuri::lang
