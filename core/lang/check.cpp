#include "lang/check.hpp"

#include "base/text.hpp"
#include "lang/check_expression.hpp"
#include "lang/parser.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <limits>
#include <set>

namespace kasuri::lang {
namespace {

class RuleChecker {
public:
    RuleChecker(std::string_view source, const Tree& tree, const Vocabulary& vocabulary, Rule& rule,
                std::vector<Diagnostic>& diagnostics)
        : tree_(tree), vocabulary_(vocabulary), rule_(rule), e_(source, tree, vocabulary, rule, diagnostics) {}

    void run() {
        for (const Statement& s : tree_.statements)
            switch (s.kind) {
            case StatementKind::filter: once(s, "filter", rule_.title, s.text); break;
            case StatementKind::note: once(s, "note", rule_.note, s.text); break;
            case StatementKind::working: working(s); break;
            case StatementKind::param: param(s); break;
            case StatementKind::preset: preset(s); break;
            case StatementKind::let: let(s); break;
            case StatementKind::assign: assign(s); break;
            case StatementKind::proof: proof(s); break;
            }
    }

    void warn_unused() {
        for (std::size_t i = 0; i < rule_.parameters.size(); ++i)
            if (!e_.parameter_used[i])
                e_.fault(Code::unused_name, rule_.parameters[i].name_span, {rule_.parameters[i].name});
        for (std::size_t i = 0; i < rule_.locals.size(); ++i)
            if (!e_.local_used[i])
                e_.fault(Code::unused_name, rule_.locals[i].name_span, {rule_.locals[i].name});
    }

    ExpressionChecker& expressions() { return e_; }

private:
    void once(const Statement& s, const std::string& word, std::string& into, const std::string& text) {
        if (!said_.insert(word).second)
            e_.fault(Code::duplicate_statement, s.span, {word});
        else
            into = text;
    }

    void working(const Statement& s) {
        once(s, "working", rule_.working, s.name);
        if (std::find(vocabulary_.spaces.begin(), vocabulary_.spaces.end(), s.name) != vocabulary_.spaces.end())
            return;
        std::vector<std::string> known(vocabulary_.spaces.begin(), vocabulary_.spaces.end());
        std::vector<Fix> fixes;
        if (const auto meant = did_you_mean(s.name, known))
            fixes.push_back({fmt::format("did you mean {}?", *meant), s.name_span, *meant});
        e_.fault(Code::unknown_space, s.name_span, {s.name, fmt::format("{}", fmt::join(known, ", "))}, std::move(fixes));
    }

    bool free_name(const Statement& s) {
        const auto inputs = input_table();
        if (s.name == "out" || std::any_of(inputs.begin(), inputs.end(), [&](const InputRow& i) { return i.name == s.name; })) {
            std::vector<Fix> fixes;
            if (s.name == "out" && s.kind == StatementKind::let)
                fixes.push_back({"assign to out", {s.span.begin, s.name_span.end}, "out"});
            e_.fault(Code::reserved_name, s.name_span, {s.name}, std::move(fixes));
            return false;
        }
        if (e_.names.contains(s.name)) {
            std::vector<Fix> fixes;
            if (s.kind == StatementKind::let && e_.names[s.name].kind == TypedKind::local)
                fixes.push_back({"assign to it again, without let", {s.span.begin, s.name_span.end}, s.name});
            e_.fault(Code::duplicate_name, s.name_span, {s.name}, std::move(fixes));
            return false;
        }
        return true;
    }

    /// The value of a number with an optional sign; reports anything else.
    std::optional<double> constant(ExprId id) {
        const Expr& e = tree_.exprs[id];
        if (e.kind == ExprKind::number)
            return e.number;
        if (e.kind == ExprKind::unary && e.op == Operator::neg && tree_.exprs[e.args[0]].kind == ExprKind::number)
            return -tree_.exprs[e.args[0]].number;
        e_.fault(Code::not_constant, e.span, {});
        return std::nullopt;
    }

    void param(const Statement& s) {
        Parameter p;
        p.name = s.name;
        p.description = s.text;
        p.span = s.span;
        p.name_span = s.name_span;
        p.default_span = tree_.exprs[s.value].span;
        p.value = constant(s.value).value_or(0);
        if (s.low != no_expr) {
            p.low = constant(s.low).value_or(0);
            p.high = constant(s.high).value_or(1);
            const Span range = cover(tree_.exprs[s.low].span, tree_.exprs[s.high].span);
            if (!(p.low < p.high))
                e_.fault(Code::empty_range, range, {number_text(p.low, 9), number_text(p.high, 9)},
                         p.high < p.low ? std::vector<Fix>{{"swap the ends", range,
                                                            number_text(p.high, 9) + " .. " + number_text(p.low, 9)}}
                                        : std::vector<Fix>{});
            else if (p.value < p.low || p.value > p.high)
                e_.fault(Code::value_out_of_range, p.default_span,
                         {number_text(p.value, 9), number_text(p.low, 9), number_text(p.high, 9)},
                         {{"widen the range", range,
                           number_text(std::min(p.low, p.value), 9) + " .. " + number_text(std::max(p.high, p.value), 9)}});
        } else {
            p.low = std::min(0.0, p.value);
            p.high = std::max(1.0, p.value);
        }
        p.step = (p.high - p.low) / 100;
        if (s.step != no_expr) {
            p.step = constant(s.step).value_or(p.step);
            if (!(p.step > 0))
                e_.fault(Code::bad_step, tree_.exprs[s.step].span, {});
        }
        if (!free_name(s))
            return;
        e_.names[s.name] = {TypedKind::parameter, static_cast<std::uint32_t>(rule_.parameters.size())};
        e_.parameter_used.push_back(false);
        rule_.parameters.push_back(std::move(p));
    }

    void preset(const Statement& s) {
        Preset preset;
        preset.name = s.text;
        preset.span = s.span;
        for (const Preset& other : rule_.presets)
            if (other.name == preset.name)
                e_.fault(Code::duplicate_statement, s.name_span, {"preset \"" + s.text + "\""});
        for (const Parameter& p : rule_.parameters)
            preset.values.push_back(p.value);
        for (const NamedNumber& entry : s.values) {
            const std::optional<double> value = constant(entry.value);
            const auto found = e_.names.find(entry.name);
            if (found == e_.names.end() || found->second.kind != TypedKind::parameter) {
                std::vector<std::string> known;
                for (const Parameter& p : rule_.parameters)
                    known.push_back(p.name);
                std::vector<Fix> fixes;
                if (const auto meant = did_you_mean(entry.name, known))
                    fixes.push_back({fmt::format("did you mean {}?", *meant), entry.name_span, *meant});
                e_.fault(Code::not_parameter, entry.name_span, {entry.name}, std::move(fixes));
                continue;
            }
            const Parameter& p = rule_.parameters[found->second.index];
            if (value && (*value < p.low || *value > p.high))
                e_.fault(Code::value_out_of_range, tree_.exprs[entry.value].span,
                         {number_text(*value, 9), number_text(p.low, 9), number_text(p.high, 9)});
            preset.values[found->second.index] = value.value_or(p.value);
        }
        rule_.presets.push_back(std::move(preset));
    }

    void let(const Statement& s) {
        const TypedId value = e_.check(s.value);
        if (!free_name(s))
            return;
        // A let with a fault keeps its name (of type none), so that its uses are not faulted too.
        const auto index = static_cast<std::uint32_t>(rule_.locals.size());
        e_.names[s.name] = {TypedKind::local, index};
        rule_.locals.push_back({s.name, e_.type(value), s.name_span});
        e_.local_used.push_back(false);
        Step step;
        step.local = index;
        step.value = value;
        step.span = s.span;
        rule_.steps.push_back(step);
    }

    void assign(const Statement& s) {
        TypedId value = e_.check(s.value);
        Step step;
        step.span = s.span;
        Typed current; // the target as it stands, for += and for its type
        current.span = cover(s.name_span, s.component.empty() ? s.name_span : s.component_span);
        if (s.name == "out") {
            step.to_output = true;
            current.kind = TypedKind::output;
            current.type = vec4_type;
        } else if (const auto found = e_.names.find(s.name);
                   found != e_.names.end() && found->second.kind == TypedKind::local) {
            step.local = found->second.index;
            current.kind = TypedKind::local;
            current.index = step.local;
            current.type = rule_.locals[step.local].type;
        } else {
            unassignable(s);
            return;
        }
        if (current.type.kind == Kind::none)
            return;
        Type target = current.type;
        if (!s.component.empty()) {
            const auto places = e_.components(target, s.component, s.component_span);
            if (places.empty())
                return;
            if (std::set<std::uint8_t>(places.begin(), places.end()).size() != places.size()) {
                e_.fault(Code::swizzle_repeats, s.component_span, {s.component});
                return;
            }
            step.whole = false;
            step.count = static_cast<int>(places.size());
            std::copy(places.begin(), places.end(), step.components.begin());
            target = vector_of(step.count);
        }
        if (s.op != Operator::none) {
            TypedId before = e_.add(current);
            if (!step.whole) {
                Typed part;
                part.kind = TypedKind::swizzle;
                part.type = target;
                part.span = current.span;
                part.args = {before};
                part.swizzle = step.components;
                before = e_.add(std::move(part));
            }
            value = e_.binary(s.op, before, value, s.span, s.name_span);
        }
        const Type came = e_.type(value);
        if (came.kind == Kind::none)
            return;
        if (came != target) {
            mismatch(s, target, came, value);
            return;
        }
        step.value = value;
        rule_.steps.push_back(step);
    }

    void unassignable(const Statement& s) {
        std::vector<Fix> fixes;
        const bool known = e_.names.contains(s.name);
        const auto inputs = input_table();
        const bool input = std::any_of(inputs.begin(), inputs.end(), [&](const InputRow& i) { return i.name == s.name; });
        if (input && s.component.empty() && (s.name == "rgb" || s.name.size() == 1))
            fixes.push_back({fmt::format("assign to out.{}", s.name), s.name_span, "out." + s.name});
        else if (!known && !input && s.component.empty() && s.op == Operator::none)
            fixes.push_back({"make it with let", s.name_span, "let " + s.name});
        std::vector<std::string> targets = {"out"};
        for (const Local& local : rule_.locals)
            targets.push_back(local.name);
        if (const auto meant = known || input ? std::nullopt : did_you_mean(s.name, targets))
            fixes.insert(fixes.begin(), {fmt::format("did you mean {}?", *meant), s.name_span, *meant});
        e_.fault(known || input ? Code::not_assignable : Code::unknown_name, s.name_span, {s.name}, std::move(fixes));
    }

    void mismatch(const Statement& s, Type target, Type came, TypedId value) {
        const Span where = e_.span(value);
        const std::string text = e_.text(where);
        const bool plain = s.op == Operator::none;
        const Span whole{s.name_span.begin, where.end};
        std::vector<Fix> fixes;
        if (came.kind == Kind::model) {
            if (plain && target == vec3_type)
                fixes.push_back({"turn it into r, g, b", where, "rgb(" + text + ")"});
            else if (plain && target == vec4_type)
                fixes.push_back({"write it to out.rgb as r, g, b", whole, s.name + ".rgb = rgb(" + text + ")"});
            e_.fault(Code::model_not_colour, where, {name(target), name(came)}, std::move(fixes));
        } else if (came == float_type && is_vector(target)) {
            if (plain && target == vec4_type)
                fixes.push_back({"write it to r, g and b", whole, s.name + ".rgb = vec3(" + text + ")"});
            else if (plain)
                fixes.push_back({"write it to every channel", where, name(target) + "(" + text + ")"});
            e_.fault(Code::needs_colour, where, {name(target)}, std::move(fixes));
        } else if (came == vec3_type && target == vec4_type) {
            if (plain)
                fixes.push_back({"write it to " + s.name + ".rgb", s.name_span, s.name + ".rgb"});
            e_.fault(Code::needs_rgb, where, {name(target)}, std::move(fixes));
        } else {
            if (plain && came == vec4_type && target == vec3_type)
                fixes.push_back({"leave alpha out", where, text + ".rgb"});
            e_.fault(Code::wrong_type, where, {name(target), name(came)}, std::move(fixes));
        }
    }

    void proof(const Statement& s) {
        ProofLine line{s.text, s.name, std::nullopt, s.span};
        if (s.value != no_expr)
            line.limit = constant(s.value);
        const auto known = vocabulary_.proofs;
        if (!known.empty() && std::find(known.begin(), known.end(), s.name) == known.end()) {
            const std::vector<std::string> names(known.begin(), known.end());
            std::vector<Fix> fixes;
            if (const auto meant = did_you_mean(s.name, names))
                fixes.push_back({fmt::format("did you mean {}?", *meant), s.name_span, *meant});
            e_.fault(Code::unknown_proof, s.name_span, {s.name, fmt::format("{}", fmt::join(names, ", "))},
                     std::move(fixes));
            return;
        }
        rule_.proofs.push_back(std::move(line));
    }

    const Tree& tree_;
    const Vocabulary& vocabulary_;
    Rule& rule_;
    ExpressionChecker e_;
    std::set<std::string> said_;
};

void put_in_order(std::vector<Diagnostic>& diagnostics) {
    std::stable_sort(diagnostics.begin(), diagnostics.end(), [](const Diagnostic& x, const Diagnostic& y) {
        return x.span.begin < y.span.begin;
    });
    if (diagnostics.size() > most_diagnostics) {
        const Span where = diagnostics[most_diagnostics].span;
        // What is cut must not turn a broken rule into a good one.
        const bool broken = has_error(diagnostics);
        diagnostics.resize(most_diagnostics);
        if (broken)
            diagnostics.push_back({Code::too_many_errors, Severity::error, where, {fmt::format("{}", most_diagnostics)}, {}});
    }
}

} // namespace

Checked check(std::string_view source, const Vocabulary& vocabulary, std::optional<std::string_view> print) {
    Checked result;
    const Tree tree = parse(source, result.diagnostics);
    RuleChecker checker(source, tree, vocabulary, result.rule, result.diagnostics);
    checker.run();
    if (print) {
        // A tree of its own, but the names and the typed nodes of the rule.
        Tree printed;
        const ExprId root = parse_expression(*print, printed, result.print_diagnostics);
        if (root != no_expr) {
            ExpressionChecker e(*print, printed, vocabulary, result.rule, result.print_diagnostics);
            e.names = checker.expressions().names;
            e.parameter_used = checker.expressions().parameter_used;
            e.local_used = checker.expressions().local_used;
            const TypedId value = e.check(root);
            checker.expressions().parameter_used = e.parameter_used;
            checker.expressions().local_used = e.local_used;
            if (e.type(value).kind != Kind::none)
                result.rule.print = value;
        }
    }
    checker.warn_unused();
    put_in_order(result.diagnostics);
    put_in_order(result.print_diagnostics);
    result.ok = !has_error(result.diagnostics) && !has_error(result.print_diagnostics);
    return result;
}

} // namespace kasuri::lang
