#include "lang/printed.hpp"

#include "base/text.hpp"

#include <fmt/format.h>

namespace kasuri::lang {
namespace {

std::string_view word(TokenKind kind) {
    switch (kind) {
    case TokenKind::end: return "end";
    case TokenKind::newline: return "newline";
    case TokenKind::comment: return "comment";
    case TokenKind::name: return "name";
    case TokenKind::keyword: return "keyword";
    case TokenKind::number: return "number";
    case TokenKind::string: return "string";
    case TokenKind::bad: return "bad";
    default: return "symbol";
    }
}

class Printer {
public:
    Printer(const Rule& rule, const Vocabulary& vocabulary) : rule_(rule), vocabulary_(vocabulary) {}

    std::string run() {
        for (const Parameter& p : rule_.parameters)
            line(0, "param {} = {} in {} .. {}", p.name, value_text(p, p.value), number_text(p.low, 9),
                 number_text(p.high, 9));
        for (const SourceInput& s : rule_.sources)
            line(0, "source {} : {}{}", s.name, name(s.type),
                 s.reads == SourceInput::Reads::picture    ? " = picture"
                     : s.reads == SourceInput::Reads::step ? " = step \"" + s.step + "\""
                                                           : std::string());
        for (const FunctionPtr& f : rule_.functions) {
            line(0, "fn {}", shown(*f));
            steps(*f, 1);
            line(1, "result");
            expression(*f, f->result, 2);
        }
        steps(rule_, 0);
        for (const ProofLine& proof : rule_.proofs) {
            line(0, "proof \"{}\"{}{}", proof.title, proof.function.empty() ? "" : " : ", proof.function);
            if (proof.condition)
                expression(rule_, *proof.condition, 1);
        }
        if (rule_.print) {
            line(0, "print");
            expression(rule_, *rule_.print, 1);
        }
        return std::move(text_);
    }

private:
    template <class... Args>
    void line(int depth, fmt::format_string<Args...> wording, Args&&... args) {
        text_.append(static_cast<std::size_t>(depth) * 4, ' ');
        text_ += fmt::format(wording, std::forward<Args>(args)...);
        text_ += "\n";
    }

    void steps(const Body& body, int depth) {
        for (const Step& step : body.steps) {
            std::string target = step.to_output ? "out" : body.locals[step.local].name;
            if (!step.whole) {
                target += "[";
                for (int i = 0; i < step.count; ++i)
                    target += fmt::format("{}{}", i > 0 ? "," : "", step.components[static_cast<std::size_t>(i)]);
                target += "]";
            }
            if (step.hold_hue)
                line(depth, "{} turned{} so that this keeps its hue", target,
                     step.model ? fmt::format(" in {}", step.model->name) : std::string());
            else
                line(depth, "{} =", target);
            expression(body, step.value, depth + 1);
        }
    }

    std::string head(const Body& body, const Typed& t) const {
        switch (t.kind) {
        case TypedKind::constant: return number_text(t.number, 9);
        case TypedKind::input: return std::string(input_table()[t.index].name);
        case TypedKind::source: return rule_.sources[t.index].name;
        case TypedKind::parameter: return rule_.parameters[t.index].name;
        case TypedKind::local: return body.locals[t.index].name;
        case TypedKind::output: return "out";
        case TypedKind::construct: return "side by side";
        case TypedKind::spread: return "to every component";
        case TypedKind::diagonal: return "on the diagonal";
        case TypedKind::swizzle: {
            std::string text = "components";
            for (int i = 0; i < width(t.type); ++i)
                text += fmt::format(" {}", t.swizzle[static_cast<std::size_t>(i)]);
            return text;
        }
        case TypedKind::unary:
        case TypedKind::binary: return std::string(symbol(t.op));
        case TypedKind::choice: return "? :";
        case TypedKind::call: return std::string(vocabulary_.functions[t.index].name) + "( )";
        case TypedKind::invoke: return body.callees[t.index]->name + "( )";
        }
        return {};
    }

    void expression(const Body& body, TypedId id, int depth) {
        const Typed& t = body.exprs[id];
        // In a function what is made of arguments changes as often as they do.
        const std::string rate = t.rate == Rate::pixel || t.depends != 0 ? "" : fmt::format(", {}", lang::word(t.rate));
        line(depth, "{} : {}{}", head(body, t), name(t.type), rate);
        for (const TypedId arg : t.args)
            expression(body, arg, depth + 1);
    }

    const Rule& rule_;
    const Vocabulary& vocabulary_;
    std::string text_;
};

} // namespace

std::string_view word(Rate rate) {
    switch (rate) {
    case Rate::constant: return "constant";
    case Rate::picture: return "per picture";
    case Rate::pixel: break;
    }
    return "per pixel";
}

std::string printed(std::span<const Token> tokens, std::string_view source) {
    std::string text;
    LineColumn place; // goes on from token to token: a text is read through once
    std::size_t at = 0;
    for (const Token& token : tokens) {
        const LineColumn further = line_column(source.substr(at), token.span.begin - at);
        place.column = further.line > 1 ? further.column : place.column + further.column - 1;
        place.line += further.line - 1;
        at = token.span.begin;
        text += fmt::format("{}:{} {}", place.line, place.column, word(token.kind));
        if (token.kind != TokenKind::newline && token.kind != TokenKind::end)
            text += fmt::format(" {}", text_of(source, token.span));
        text += "\n";
    }
    return text;
}

std::string printed(const Rule& rule, const Vocabulary& vocabulary) { return Printer(rule, vocabulary).run(); }

} // namespace kasuri::lang
