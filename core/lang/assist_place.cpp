#include "lang/assist_place.hpp"

#include "base/text.hpp"
#include "lang/parser.hpp"
#include "lang/printed.hpp"
#include "lang/token_stream.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::lang {
namespace {

bool goes_on_after(TokenKind kind) {
    return binary_row(kind) || assignment(kind) || kind == TokenKind::comma || kind == TokenKind::question ||
        kind == TokenKind::colon || kind == TokenKind::logical_not;
}

/// How often a local changes: as often as anything that is written to it.
Rate rate_of(const Body& body, std::uint32_t local) {
    Rate rate = Rate::constant;
    bool written = false;
    for (const Step& step : body.steps)
        if (!step.to_output && step.local == local) {
            rate = std::max(rate, body.exprs[step.value].rate);
            written = true;
        }
    return written ? rate : Rate::pixel;
}

} // namespace

std::string described(Type type, Rate rate) {
    if (type.kind == Kind::none)
        return "not known yet";
    return fmt::format("{}, {}", name(type), word(rate));
}

AssistPlace::AssistPlace(std::string_view text_, std::size_t place, const Vocabulary& v, const CheckOptions& o)
    : source(text_), at(static_cast<std::uint32_t>(std::min(place, text_.size()))), vocabulary(v), options(o) {
    for (const Token& token : lex(source, nullptr)) {
        const bool inside = token.span.begin < at && at <= token.span.end;
        const bool open_text =
            token.kind == TokenKind::string && at == token.span.end && token.span.size() > 1 && source[at - 1] == '"';
        if (inside &&
            (token.kind == TokenKind::comment || token.kind == TokenKind::number ||
             (token.kind == TokenKind::string && !open_text)))
            in_text = true;
        if (token.kind != TokenKind::comment)
            tokens.push_back(token);
    }
    while (word < tokens.size() && tokens[word].span.end < at)
        ++word;
    while (word < tokens.size() && tokens[word].span.end == at && tokens[word].kind != TokenKind::name &&
           tokens[word].kind != TokenKind::keyword && tokens[word].kind != TokenKind::end)
        ++word;
    has_word = word < tokens.size() && tokens[word].span.begin <= at &&
        (tokens[word].kind == TokenKind::name || tokens[word].kind == TokenKind::keyword);
    int depth = 0;
    for (std::size_t i = 0; i < word; ++i)
        switch (tokens[i].kind) {
        case TokenKind::open: ++depth; break;
        case TokenKind::close: depth = std::max(0, depth - 1); break;
        case TokenKind::newline:
            if (depth == 0 && !(i > 0 && goes_on_after(tokens[i - 1].kind)))
                first = i + 1;
            break;
        case TokenKind::semicolon:
        case TokenKind::open_brace:
        case TokenKind::close_brace:
            depth = 0;
            first = i + 1;
            break;
        // A keyword that begins a statement does so even in brackets that nobody closed.
        case TokenKind::keyword:
            if (i > 0 && tokens[i - 1].kind == TokenKind::newline && text(i) != "true" && text(i) != "false" &&
                text(i) != "in") {
                depth = 0;
                first = i;
            }
            break;
        default: break;
        }
    checked_ = check(source, vocabulary, options);
    collect();
}

void AssistPlace::collect() {
    const std::uint32_t line = first < tokens.size() ? tokens[first].span.begin : at;
    const auto add_locals = [&](const Body& body, std::size_t arguments) {
        for (std::size_t i = body.locals.size(); i-- > 0;) { // the nearest first
            const Local& local = body.locals[i];
            if (i >= arguments && local.name_span.begin >= line && !(has_word && local.name_span == word_span()))
                continue;
            const bool argument = i < arguments;
            const std::string detail =
                in_function ? name(local.type) : described(local.type, rate_of(body, static_cast<std::uint32_t>(i)));
            names_.push_back({CompletionKind::local, local.name, local.type, detail, argument ? "argument" : "", {}});
        }
    };
    const auto add_input = [&](const InputRow& input) {
        names_.push_back({CompletionKind::input,
                          std::string(input.name),
                          input.type,
                          described(input.type, input.rate),
                          std::string(input.doc),
                          {}});
    };
    std::vector<Diagnostic> ignored;
    const Tree tree = parse(source, ignored);
    for (const Statement& s : tree.statements) {
        if (s.kind != StatementKind::fn || at < s.span.begin || at > s.span.end)
            continue;
        in_function = true;
        for (const FunctionPtr& function : checked_.rule.functions)
            if (function->file.empty() && function->name_span == s.name_span)
                add_locals(*function, function->parameters.size());
    }
    if (!in_function) {
        add_locals(checked_.rule, 0);
        names_.push_back(
            {CompletionKind::local, "out", vec4_type, "vec4, per pixel", "what comes out; it begins as the input", {}});
        for (std::size_t i = 0; i < checked_.rule.parameters.size(); ++i) {
            const Parameter& p = checked_.rule.parameters[i];
            KnownName known{CompletionKind::parameter,
                            p.name,
                            float_type,
                            fmt::format("{} .. {}", number_text(p.low, 6), number_text(p.high, 6)),
                            p.description,
                            {}};
            if (p.kind == ParameterKind::colour) {
                known.name.resize(known.name.size() - 2); // without .r
                known.type = vec3_type;
                known.detail = "colour, " + known.detail;
                i += 2;
            } else if (p.kind == ParameterKind::toggle) {
                known.type = bool_type;
                known.detail = "true or false";
            } else if (p.kind == ParameterKind::choice) {
                known.options = p.options;
                known.detail = fmt::format("{}", fmt::join(p.options, ", "));
            }
            names_.push_back(std::move(known));
        }
        for (const SourceInput& s : checked_.rule.sources)
            names_.push_back({CompletionKind::source, s.name, s.type, name(s.type), s.description, {}});
    }
    for (const InputRow& input : input_table())
        if (!in_function || input.which == InputName::aspect || input.which == InputName::extent)
            add_input(input);
}

const KnownName* AssistPlace::find(std::string_view wanted) const {
    for (const KnownName& known : names_)
        if (known.name == wanted)
            return &known;
    return nullptr;
}

bool AssistPlace::after(TokenKind kind) const {
    int depth = 0;
    for (std::size_t i = first; i < word && i < tokens.size(); ++i) {
        if (depth == 0 && tokens[i].kind == kind)
            return true;
        depth += tokens[i].kind == TokenKind::open ? 1 : tokens[i].kind == TokenKind::close ? -1 : 0;
    }
    return false;
}

bool AssistPlace::after_word(std::string_view wanted) const {
    for (std::size_t i = first; i < word && i < tokens.size(); ++i)
        if (text(i) == wanted)
            return true;
    return false;
}

std::size_t AssistPlace::operand_of(std::size_t dot) const {
    std::size_t i = dot; // one behind the operand's last token
    while (i > first) {
        if (tokens[i - 1].kind == TokenKind::close) {
            int depth = 0;
            do {
                --i;
                depth += tokens[i].kind == TokenKind::close ? 1 : tokens[i].kind == TokenKind::open ? -1 : 0;
            } while (depth > 0 && i > first);
            if (i > first && tokens[i - 1].kind == TokenKind::name)
                --i;
        } else if (tokens[i - 1].kind == TokenKind::name) {
            --i;
        } else {
            break;
        }
        if (i <= first || tokens[i - 1].kind != TokenKind::dot)
            break;
        --i; // a chain: a.b.c
    }
    return i;
}

Type AssistPlace::type_of(std::size_t begin, std::size_t end) const {
    if (begin >= end)
        return {};
    if (end - begin == 1) {
        const KnownName* known = find(text(begin));
        return known ? known->type : Type{};
    }
    const Span span = cover(tokens[begin].span, tokens[end - 1].span);
    CheckOptions asked = options;
    asked.print = text_of(source, span);
    // The rule above this statement, and the expression after it.
    const Checked result = check(source.substr(0, tokens[first].span.begin), vocabulary, asked);
    return result.rule.print ? result.rule.exprs[*result.rule.print].type : Type{};
}

} // namespace kasuri::lang
