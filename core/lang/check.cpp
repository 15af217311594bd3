#include "lang/check.hpp"

#include "base/said.hpp"
#include "base/text.hpp"
#include "lang/check_body.hpp"
#include "lang/check_parameter.hpp"
#include "lang/parser.hpp"
#include "lang/statement.hpp"

#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <memory>
#include <set>

namespace kasuri::lang {

/// The files that a rule uses, by the names they are used by: what was read of each, and which are being read now.
struct UsedFiles {
    struct Read {
        std::vector<FunctionPtr> functions;
        std::string fault;
    };
    std::map<std::string, Read> read;
    std::vector<std::string> under_way;
    std::string circle; ///< what was said of the first one that was found
};
namespace {

Type type_named(const std::string& word, const Vocabulary& vocabulary) {
    for (const Type type : {float_type, bool_type, vec2_type, vec3_type, vec4_type, mat3_type})
        if (name(type) == word)
            return type;
    for (const ModelShape& model : vocabulary.models)
        if (model.name == word)
            return {Kind::model, &model};
    return {};
}

/// The comment lines that stand right above a statement.
std::string comment_above(std::string_view source, std::uint32_t at) {
    std::string text;
    std::size_t line = source.rfind('\n', at) == std::string_view::npos || at == 0 ? 0 : source.rfind('\n', at - 1) + 1;
    while (line > 1) {
        const std::size_t above =
            source.rfind('\n', line - 2) == std::string_view::npos ? 0 : source.rfind('\n', line - 2) + 1;
        const std::string_view content = trimmed(source.substr(above, line - 1 - above));
        if (!content.starts_with("//"))
            break;
        text = std::string(trimmed(content.substr(2))) + (text.empty() ? "" : " " + text);
        line = above;
    }
    return text;
}

/// fn: checks the body once; calls only look at its types.
FunctionPtr check_function(const Statement& s, FileContext& file, const std::string& name_of_file) {
    auto made = std::make_shared<Function>();
    made->name = s.name;
    made->file = name_of_file;
    made->name_span = s.name_span;
    made->text = text_of(file.source, s.span);
    made->doc = comment_above(file.source, s.span.begin);
    BodyChecker body(file, *made, nullptr);
    ExpressionChecker& e = body.expressions();
    constexpr std::size_t max_arguments = 32; // one bit each
    if (s.parameters.size() > max_arguments)
        e.fault(Code::argument_count, s.name_span,
                {s.name, said("at most {} arguments", max_arguments), fmt::format("{}", s.parameters.size()), ""});
    for (std::size_t i = 0; i < std::min(s.parameters.size(), max_arguments); ++i) {
        const FunctionParameter& p = s.parameters[i];
        const Type type = p.type.text.empty() ? float_type : type_named(p.type.text, file.vocabulary);
        if (type.kind == Kind::none)
            e.fault(Code::unknown_type, p.type.span, {p.type.text},
                    e.meant(p.type.text, {"float", "bool", "vec2", "vec3", "vec4", "mat3"}, p.type.span));
        if (e.names.contains(p.name.text))
            e.fault(Code::duplicate_name, p.name.span, {p.name.text});
        const std::uint32_t local = e.add_local(p.name.text, type, p.name.span);
        e.locals[local].depends = 1u << i;
        made->parameters.push_back(exactly(type));
    }
    bool finished = false;
    for (const Statement& inner : s.body) {
        if (finished)
            e.fault(Code::after_result, inner.span, {});
        switch (inner.kind) {
        case StatementKind::let: body.let(inner); break;
        case StatementKind::assign: body.assign(inner); break;
        case StatementKind::keep: body.keep(inner); break;
        case StatementKind::hold: body.hold(inner); break;
        case StatementKind::result:
            made->result = e.check(inner.value);
            made->type = e.type(made->result);
            finished = true;
            break;
        default: e.fault(Code::not_in_function, inner.span, {std::string(row(inner.kind).word)}); break;
        }
    }
    if (!finished) {
        e.fault(Code::no_result, s.name_span, {s.name});
        made->result = e.bad(s.name_span);
    }
    for (std::size_t i = 0; i < made->parameters.size(); ++i)
        if (e.per_picture & (1u << i))
            made->parameters[i].rate = Rate::picture;
    body.warn_unused_locals();
    return made;
}

/// Names of functions that are already taken.
bool function_taken(const std::string& name, const FileContext& file) {
    const auto named = [&](const FunctionPtr& f) { return f->name == name; };
    return type_named(name, file.vocabulary).kind != Kind::none ||
        std::any_of(file.vocabulary.functions.begin(), file.vocabulary.functions.end(),
                    [&](const Signature& s) { return s.name == name; }) ||
        std::any_of(file.vocabulary.prelude.begin(), file.vocabulary.prelude.end(), named) ||
        std::any_of(file.functions.begin(), file.functions.end(), named);
}

void add_function(const Statement& s, FileContext& file, const std::string& name_of_file) {
    file.later_functions.insert(s.name); // not known yet inside itself: no recursion
    const std::size_t said = file.diagnostics.size();
    FunctionPtr made = check_function(s, file, name_of_file);
    if (s.unclosed) // the rest of the text would only bring more of the same fault
        file.diagnostics.resize(said);
    file.later_functions.erase(s.name);
    if (function_taken(s.name, file))
        file.diagnostics.push_back({Code::duplicate_name, Severity::error, s.name_span, {s.name}, {}});
    else
        file.functions.push_back(std::move(made));
}

void use_file(const Statement& s, FileContext& file, const CheckOptions& options, int depth) {
    const auto fail = [&](const std::string& why) {
        file.diagnostics.push_back({Code::cannot_use, Severity::error, s.span, {s.text, why}, {}});
    };
    if (!options.open || !options.used)
        return fail("files cannot be used here");
    UsedFiles& all = *options.used;
    if (const auto round = std::find(all.under_way.begin(), all.under_way.end(), s.text);
        round != all.under_way.end()) {
        std::vector<std::string> circle(round, all.under_way.end());
        circle.push_back(s.text);
        all.circle = said("files use each other in a circle: {}", fmt::to_string(fmt::join(circle, " -> ")));
        return fail(all.circle);
    }
    if (depth >= deepest_use)
        return fail(said("files use files deeper than {} levels", deepest_use));
    auto known = all.read.find(s.text); // the name says the file: all are beside the first one
    if (known == all.read.end()) {
        all.under_way.push_back(s.text);
        UsedFiles::Read read;
        if (const Result<std::string> text = options.open(s.text); !text) {
            read.fault = text.error().text();
        } else {
            CheckedFunctions used = check_functions(text.value(), s.text, file.vocabulary, options, depth + 1);
            read.functions = std::move(used.functions);
            for (const Diagnostic& d : used.diagnostics)
                if (d.severity == Severity::error && read.fault.empty()) {
                    const LineColumn place = line_column(text.value(), d.span.begin);
                    // A circle is told once, not once for each file on it.
                    read.fault = d.code == Code::cannot_use && d.arguments.back() == all.circle
                        ? all.circle
                        : said("line {}, column {}: {}", place.line, place.column, message(d));
                }
        }
        all.under_way.pop_back();
        known = all.read.emplace(s.text, std::move(read)).first;
    }
    if (!known->second.fault.empty())
        return fail(known->second.fault);
    for (const FunctionPtr& function : known->second.functions) {
        // A file that comes by two ways brings the same functions.
        if (std::any_of(file.functions.begin(), file.functions.end(), [&](const FunctionPtr& known_one) {
                return known_one->file == function->file && known_one->name == function->name;
            }))
            continue;
        if (function_taken(function->name, file))
            return fail(said("its function {} is already the name of something", function->name));
        file.functions.push_back(function);
    }
}

class RuleChecker {
public:
    RuleChecker(FileContext& file, Rule& rule, const CheckOptions& options)
        : file_(file), rule_(rule), options_(options), body_(file, rule, &rule), e_(body_.expressions()) {
        for (const std::string& column : options.columns)
            add_source({column, float_type, "", {}, true});
        for (const Statement& s : file.tree.statements)
            if (s.kind == StatementKind::fn)
                file.later_functions.insert(s.name);
        rule.exprs.reserve(file.tree.exprs.size()); // a long rule is not moved while it grows
        rule.steps.reserve(file.tree.statements.size());
        rule.locals.reserve(file.tree.statements.size());
        e_.locals.reserve(file.tree.statements.size());
        e_.names.reserve(file.tree.statements.size());
    }

    void run() {
        for (const Statement& s : file_.tree.statements)
            switch (s.kind) {
            case StatementKind::filter: once(s, "filter", rule_.title, s.text); break;
            case StatementKind::note: once(s, "note", rule_.note, s.text); break;
            case StatementKind::tags: once(s, "tags", rule_.tags, s.text); break;
            case StatementKind::working: working(s); break;
            case StatementKind::use: use_file(s, file_, options_, 0); break;
            case StatementKind::source: source(s); break;
            case StatementKind::param: check_parameter(s, file_, body_, rule_); break;
            case StatementKind::preset: check_preset(s, file_, body_, rule_); break;
            case StatementKind::fn: add_function(s, file_, ""); break;
            case StatementKind::let: body_.let(s); break;
            case StatementKind::assign: body_.assign(s); break;
            case StatementKind::keep: keep(s); break;
            case StatementKind::hold: body_.hold(s); break;
            case StatementKind::proof:
                if (options_.proofs)
                    proof(s);
                break;
            case StatementKind::result: break; // only in functions
            }
        if (rule_.weight > max_operations)
            e_.fault(Code::rule_too_large, {0, 0},
                     {fmt::format("{}", rule_.weight), fmt::format("{}", max_operations)});
        if (rule_.stages > max_stages)
            e_.fault(Code::too_many_stages, {0, 0}, {fmt::format("{}", rule_.stages), fmt::format("{}", max_stages)});
        rule_.functions = file_.functions;
    }

    void warn_unused() {
        for (std::size_t i = 0; i < rule_.parameters.size(); ++i)
            // The parts of a colour are used together.
            if (!e_.parameter_used[i] && !rule_.parameters[i].name.ends_with(".g") &&
                !rule_.parameters[i].name.ends_with(".b"))
                e_.fault(Code::unused_name, rule_.parameters[i].name_span, {e_.text(rule_.parameters[i].name_span)});
        for (std::size_t i = 0; i < rule_.sources.size(); ++i)
            if (!e_.source_used[i] && !rule_.sources[i].column)
                e_.fault(Code::unused_name, rule_.sources[i].span, {rule_.sources[i].name});
        body_.warn_unused_locals();
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
        const auto spaces = file_.vocabulary.spaces;
        if (std::find(spaces.begin(), spaces.end(), s.name) != spaces.end() ||
            (file_.vocabulary.knows_space && file_.vocabulary.knows_space(s.name)))
            return;
        std::vector<std::string> known(spaces.begin(), spaces.end());
        if (file_.vocabulary.further_spaces)
            for (std::string& further : file_.vocabulary.further_spaces())
                known.push_back(std::move(further));
        std::vector<Fix> fixes = e_.meant(s.name, known, s.name_span);
        for (Fix& fix : fixes)
            if (std::find(spaces.begin(), spaces.end(), fix.text) == spaces.end())
                fix.text = "\"" + fix.text + "\""; // of a colour config: it may hold anything
        e_.fault(Code::unknown_space, s.name_span, {s.name, fmt::format("{}", fmt::join(known, ", "))},
                 std::move(fixes));
    }

    void add_source(SourceInput input) {
        e_.names[input.name] = {TypedKind::source, static_cast<std::uint32_t>(rule_.sources.size())};
        e_.source_used.push_back(false);
        rule_.sources.push_back(std::move(input));
    }

    void source(const Statement& s) {
        const Type type = s.type.text.empty() ? vec4_type : type_named(s.type.text, file_.vocabulary);
        if (type != float_type && type != vec3_type && type != vec4_type) {
            e_.fault(Code::unknown_type, s.type.span, {s.type.text},
                     e_.meant(s.type.text, {"float", "vec3", "vec4"}, s.type.span));
            return;
        }
        SourceInput input{s.name, type, s.text, s.name_span, false};
        if (!s.reads.text.empty()) {
            input.reads = s.reads.text == "step" ? SourceInput::Reads::step : SourceInput::Reads::picture;
            input.step = s.label;
            const std::size_t channel =
                s.component.size() == 1 ? std::string_view("rgba").find(s.component[0]) : std::string_view::npos;
            const bool has_channel = channel != std::string_view::npos;
            if (has_channel && s.type.text.empty())
                input.type = float_type;
            if (!s.component.empty() && !has_channel) {
                e_.fault(Code::unknown_component, s.component_span,
                         {"what a source reads", s.component, "r, g, b and a"});
            } else if ((input.type == float_type) != has_channel) {
                e_.fault(Code::source_channel, s.reads.span,
                         {s.name, has_channel ? "a colour" : "one number",
                          has_channel ? "a whole picture: leave the channel out"
                                      : "one channel: put .r, .g, .b or .a behind it"});
            }
            input.channel = has_channel ? static_cast<int>(channel) : -1;
        }
        if (body_.free_name(s))
            add_source(std::move(input));
    }

    /// Putting luminance back is light's business: it is right, but rarely what is wanted, in linear light.
    void keep(const Statement& s) {
        body_.keep(s);
        const auto linear = file_.vocabulary.linear_spaces;
        if (rule_.working.empty() || std::find(linear.begin(), linear.end(), rule_.working) != linear.end())
            e_.fault(Code::keep_in_linear, s.span, {});
        else
            for (const Typed& typed : rule_.exprs)
                if (typed.type.kind == Kind::model) {
                    e_.fault(Code::keep_after_model, s.span, {name(typed.type)});
                    break;
                }
    }

    /// Reads the other filter; its own proofs play no part.
    void compare_with(const Word& file, ProofLine& line) {
        const auto fail = [&](const std::string& why) { e_.fault(Code::cannot_use, file.span, {file.text, why}); };
        if (!options_.open)
            return fail("files cannot be used here");
        const Result<std::string> text = options_.open(file.text);
        if (!text)
            return fail(text.error().text());
        CheckOptions options;
        options.open = options_.open;
        options.proofs = false;
        Checked checked = lang::check(text.value(), file_.vocabulary, options);
        for (const Diagnostic& d : checked.diagnostics)
            if (d.severity == Severity::error) {
                const LineColumn place = line_column(text.value(), d.span.begin);
                return fail(said("line {}, column {}: {}", place.line, place.column, message(d)));
            }
        line.file = file.text;
        line.other = std::make_shared<const Rule>(std::move(checked.rule));
    }

    /// Three plain numbers; says what else was found.
    std::optional<std::array<double, 3>> plain_colour(ExprId id) {
        const TypedId checked = e_.check(id);
        if (e_.type(checked).kind == Kind::none)
            return std::nullopt;
        std::array<double, 3> colour{};
        const Typed typed = rule_.exprs[checked];
        for (std::size_t i = 0; i < typed.args.size(); ++i) {
            const std::optional<double> number = e_.constant_value(typed.args[i]);
            if (!number || i >= colour.size()) {
                e_.fault(Code::not_constant, rule_.exprs[typed.args[i]].span, {});
                return std::nullopt;
            }
            colour[i] = *number;
        }
        return colour;
    }

    void proof(const Statement& s) {
        ProofLine line;
        line.title = s.text;
        line.span = s.span;
        line.target = s.type.text;
        const Expr& value = file_.tree.exprs[s.value];
        const auto targets = file_.vocabulary.targets;
        if (!line.target.empty() && !targets.empty() &&
            std::find(targets.begin(), targets.end(), line.target) == targets.end()) {
            std::vector<std::string> known(targets.begin(), targets.end());
            std::vector<Fix> fixes = e_.meant(line.target, known, s.type.span);
            e_.fault(Code::unknown_target, s.type.span, {line.target, fmt::format("{}", fmt::join(known, ", "))},
                     std::move(fixes));
        }
        for (const ExprId colour : s.colours)
            if (const auto plain = plain_colour(colour))
                line.colours.push_back(*plain);
        // NAME, or NAME and a comparison with a number: a ready-made function, unless it is a name of the rule.
        const bool is_below = value.op == Operator::less || value.op == Operator::less_equal,
                   is_above = value.op == Operator::greater || value.op == Operator::greater_equal;
        const bool compared = value.kind == ExprKind::binary && (is_below || is_above);
        const Expr& subject = compared ? file_.tree.exprs[value.args[0]] : value;
        const auto known = file_.vocabulary.proofs;
        if (subject.kind == ExprKind::name && !e_.names.contains(subject.name) && !is_input(subject.name) &&
            subject.name != "out") {
            line.function = subject.name;
            if (compared) {
                const TypedId limit = e_.check(value.args[1]);
                const Typed& number = rule_.exprs[limit];
                if (number.kind == TypedKind::constant)
                    line.limit = number.number;
                else if (number.type.kind != Kind::none)
                    e_.fault(Code::not_constant, number.span, {});
            }
            if (!known.empty() && std::find(known.begin(), known.end(), subject.name) == known.end()) {
                std::vector<std::string> names(known.begin(), known.end());
                std::vector<Fix> fixes = e_.meant(subject.name, names, subject.span);
                e_.fault(Code::unknown_proof, subject.span, {subject.name, fmt::format("{}", fmt::join(names, ", "))},
                         std::move(fixes));
                return;
            }
            const auto comparing = file_.vocabulary.comparing_proofs;
            const bool compares = std::find(comparing.begin(), comparing.end(), subject.name) != comparing.end();
            if (compares && s.file.text.empty())
                e_.fault(Code::proof_file, subject.span, {subject.name, "needs a filter to compare with"});
            else if (!compares && !s.file.text.empty() && !known.empty())
                e_.fault(Code::proof_file, s.file.span, {subject.name, "does not compare with another filter"});
            else if (compares)
                compare_with(s.file, line);
            const auto of_colours = file_.vocabulary.colour_proofs;
            const bool wants_colours =
                std::find(of_colours.begin(), of_colours.end(), subject.name) != of_colours.end();
            if (wants_colours && s.colours.size() < 2)
                e_.fault(Code::proof_colours, subject.span, {subject.name});
            else if (!line.target.empty() || (!wants_colours && !s.colours.empty()))
                e_.fault(Code::target_fixed, s.colours.empty() ? s.type.span : file_.tree.exprs[s.colours.front()].span,
                         {subject.name});
            if (compared && !known.empty() && wants_colours != is_above)
                e_.fault(Code::proof_way, value.span,
                         {subject.name, wants_colours ? "at least" : "at most", wants_colours ? ">" : "<"});
            rule_.proofs.push_back(std::move(line));
            return;
        }
        const TypedId condition = e_.check(s.value);
        const Type type = e_.type(condition);
        if (type.kind != Kind::none && type != bool_type)
            e_.fault(Code::condition_type, value.span, {name(type)});
        line.condition = condition;
        line.text = e_.text(value.span);
        const Typed& typed = rule_.exprs[condition];
        if (typed.kind == TypedKind::binary && rule_.exprs[typed.args[0]].type == float_type &&
            typed.op != Operator::equal && typed.op != Operator::not_equal) {
            line.figure = typed.args[0];
            line.bound = typed.args[1];
            line.relation = typed.op;
        }
        rule_.proofs.push_back(std::move(line));
    }

    FileContext& file_;
    Rule& rule_;
    const CheckOptions& options_;
    BodyChecker body_;
    ExpressionChecker& e_;
    std::set<std::string> said_;
};

void put_in_order(std::vector<Diagnostic>& diagnostics) {
    // What a broken line would have used is not known: no talk of unused names until it is mended.
    if (has_error(diagnostics))
        std::erase_if(diagnostics, [](const Diagnostic& d) { return d.code == Code::unused_name; });
    std::stable_sort(diagnostics.begin(), diagnostics.end(),
                     [](const Diagnostic& x, const Diagnostic& y) { return x.span.begin < y.span.begin; });
    if (diagnostics.size() > max_diagnostics) {
        const Span where = diagnostics[max_diagnostics].span;
        // What is cut must not turn a broken rule into a good one.
        const bool broken = has_error(diagnostics);
        diagnostics.resize(max_diagnostics);
        if (broken)
            diagnostics.push_back(
                {Code::too_many_errors, Severity::error, where, {fmt::format("{}", max_diagnostics)}, {}});
    }
}

} // namespace

Checked check(std::string_view source, const Vocabulary& vocabulary, const CheckOptions& asked) {
    Checked result;
    CheckOptions options = asked;
    options.used = std::make_shared<UsedFiles>();
    const Tree tree = parse(source, result.diagnostics);
    // Beyond any rule that somebody writes or reads, and then every key would take seconds: not looked at any further.
    const auto parameters =
        static_cast<std::size_t>(std::count_if(tree.statements.begin(), tree.statements.end(),
                                               [](const Statement& s) { return s.kind == StatementKind::param; }));
    const auto refuse = [&](Code code, std::size_t count, std::size_t limit) {
        result.diagnostics.push_back(
            {code, Severity::error, {0, 0}, {fmt::format("{}", count), fmt::format("{}", limit)}, {}});
        put_in_order(result.diagnostics);
        return result;
    };
    if (tree.statements.size() > max_statements)
        return refuse(Code::too_many_statements, tree.statements.size(), max_statements);
    if (parameters > max_parameters)
        return refuse(Code::too_many_parameters, parameters, max_parameters);
    FileContext file{source, tree, vocabulary, result.diagnostics, {}, {}};
    RuleChecker checker(file, result.rule, options);
    checker.run();
    if (result.rule.parameters.size() > max_parameters)
        result.diagnostics.push_back(
            {Code::too_many_parameters,
             Severity::error,
             {0, 0},
             {fmt::format("{}", result.rule.parameters.size()), fmt::format("{}", max_parameters)},
             {}});
    if (options.print) {
        // A tree of its own, but the names and the typed nodes of the rule.
        Tree printed;
        const ExprId root = parse_expression(*options.print, printed, result.print_diagnostics);
        if (root != no_expr) {
            FileContext print_file{*options.print, printed, vocabulary, result.print_diagnostics, file.functions, {}};
            ExpressionChecker e(print_file, result.rule, &result.rule);
            ExpressionChecker& names = checker.expressions();
            e.names = names.names;
            e.parameter_used = names.parameter_used;
            e.source_used = names.source_used;
            e.locals = names.locals;
            const TypedId value = e.check(root);
            names.parameter_used = e.parameter_used;
            names.source_used = e.source_used;
            names.locals = e.locals;
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

Checked check(std::string_view source, const Vocabulary& vocabulary, std::optional<std::string_view> print) {
    CheckOptions options;
    options.print = print;
    return check(source, vocabulary, options);
}

CheckedFunctions check_functions(std::string_view source, const std::string& name_of_file, const Vocabulary& vocabulary,
                                 const CheckOptions& options, int depth) {
    CheckedFunctions result;
    const Tree tree = parse(source, result.diagnostics);
    FileContext file{source, tree, vocabulary, result.diagnostics, {}, {}};
    for (const Statement& s : tree.statements)
        if (s.kind == StatementKind::use)
            use_file(s, file, options, depth);
        else if (s.kind == StatementKind::fn)
            add_function(s, file, name_of_file);
    result.functions = file.functions;
    return result;
}

} // namespace kasuri::lang
