#include "lang/parser.hpp"

#include "base/text.hpp"
#include "lang/lexer.hpp"

#include <algorithm>
#include <charconv>
#include <fmt/format.h>
#include <limits>
#include <optional>

namespace kasuri::lang {
namespace {

struct BinaryRow {
    TokenKind token;
    Operator op;
    int precedence; ///< larger binds tighter; all are left-associative (GLSL 4.60, 5.1)
};
constexpr BinaryRow binary_table[] = {
    {TokenKind::logical_or, Operator::logical_or, 1},
    {TokenKind::logical_and, Operator::logical_and, 2},
    {TokenKind::equal, Operator::equal, 3},
    {TokenKind::not_equal, Operator::not_equal, 3},
    {TokenKind::less, Operator::less, 4},
    {TokenKind::less_equal, Operator::less_equal, 4},
    {TokenKind::greater, Operator::greater, 4},
    {TokenKind::greater_equal, Operator::greater_equal, 4},
    {TokenKind::plus, Operator::add, 5},
    {TokenKind::minus, Operator::sub, 5},
    {TokenKind::star, Operator::mul, 6},
    {TokenKind::slash, Operator::div, 6},
};

const BinaryRow* binary(TokenKind token) {
    for (const BinaryRow& candidate : binary_table)
        if (candidate.token == token)
            return &candidate;
    return nullptr;
}

std::optional<Operator> assignment(TokenKind token) {
    switch (token) {
    case TokenKind::assign: return Operator::none;
    case TokenKind::add_assign: return Operator::add;
    case TokenKind::sub_assign: return Operator::sub;
    case TokenKind::mul_assign: return Operator::mul;
    case TokenKind::div_assign: return Operator::div;
    default: return std::nullopt;
    }
}

/// Thrown to give up a statement; the fault is already reported.
struct GiveUp {};

class Parser {
public:
    Parser(std::string_view source, Tree& tree, std::vector<Diagnostic>& diagnostics)
        : source_(source), tree_(tree), diagnostics_(diagnostics) {
        for (const Token& token : lex(source, &diagnostics))
            if (token.kind != TokenKind::comment)
                tokens_.push_back(token);
    }

    // file = { [ statement ] ( newline | ";" ) }
    void file() {
        while (look() != TokenKind::end) {
            if (accept(TokenKind::newline) || accept(TokenKind::semicolon))
                continue;
            try {
                brackets_ = 0;
                depth_ = 0;
                statement();
                if (!at_line_end())
                    fault(Code::extra_text, token().span, {shown(token())});
            } catch (const GiveUp&) {
            }
            while (!at_line_end())
                ++at_;
        }
    }

    ExprId single() {
        try {
            const ExprId root = expression();
            while (accept(TokenKind::newline)) {
            }
            if (look() != TokenKind::end)
                fault(Code::extra_text, token().span, {shown(token())});
            return root;
        } catch (const GiveUp&) {
            return no_expr;
        }
    }

private:
    const Token& token() const { return tokens_[at_]; }
    TokenKind look(std::size_t ahead = 0) const { return tokens_[std::min(at_ + ahead, tokens_.size() - 1)].kind; }
    std::string text(const Token& t) const { return std::string(text_of(source_, t.span)); }
    bool at_line_end() const {
        return look() == TokenKind::newline || look() == TokenKind::semicolon || look() == TokenKind::end;
    }
    bool is_word(std::string_view word) const {
        return (look() == TokenKind::keyword || look() == TokenKind::name) && text_of(source_, token().span) == word;
    }

    std::string shown(const Token& t) const {
        if (t.kind == TokenKind::end)
            return "the end of the rule";
        if (t.kind == TokenKind::newline || t.kind == TokenKind::semicolon)
            return "the end of the line";
        return text(t);
    }

    void fault(Code code, Span span, std::vector<std::string> arguments, std::vector<Fix> fixes = {}) {
        // A token that the lexer already complained about needs no second complaint.
        if (look() == TokenKind::bad && span == token().span)
            return;
        diagnostics_.push_back({code, row(code).severity, span, std::move(arguments), std::move(fixes)});
    }

    [[noreturn]] void give_up(const std::string& wanted) {
        Span span = token().span;
        if (look() == TokenKind::newline || look() == TokenKind::end)
            span.end = span.begin; // point at the end of the line, not at the next one
        fault(Code::expected, span, {wanted, shown(token())});
        throw GiveUp{};
    }

    bool accept(TokenKind kind) {
        if (look() != kind)
            return false;
        ++at_;
        return true;
    }

    Token expect(TokenKind kind, const std::string& wanted) {
        if (look() != kind)
            give_up(wanted);
        return tokens_[at_++];
    }

    bool statement_begins_here() const {
        if (look() == TokenKind::keyword)
            return !is_word("true") && !is_word("false") && !is_word("in");
        if (look() != TokenKind::name)
            return false;
        const std::size_t next = look(1) == TokenKind::dot ? 3 : 1;
        return assignment(look(next)).has_value();
    }

    /// Inside brackets and after an operator a statement may go on in the next line.
    void skip_newlines() {
        while (look() == TokenKind::newline) {
            const std::size_t back = at_;
            ++at_;
            if (look() != TokenKind::newline && (statement_begins_here() || look() == TokenKind::end)) {
                at_ = back;
                return;
            }
        }
    }

    ExprId add(Expr expr) {
        for (const ExprId arg : expr.args)
            expr.height = std::max(expr.height, tree_.exprs[arg].height + 1);
        if (expr.height > tallest_expression) {
            fault(Code::nested_too_deep, expr.name_span, {fmt::format("{}", tallest_expression)});
            throw GiveUp{};
        }
        tree_.exprs.push_back(std::move(expr));
        return static_cast<ExprId>(tree_.exprs.size() - 1);
    }
    Span span_of(ExprId id) const { return tree_.exprs[id].span; }

    std::string quoted() {
        const Token t = expect(TokenKind::string, "a text in quotation marks");
        std::string inside = text(t).substr(1);
        if (!inside.empty() && inside.back() == '"')
            inside.pop_back();
        return inside;
    }

    void statement() {
        Statement s;
        s.span = token().span;
        if (is_word("filter"))
            texted(s, StatementKind::filter);
        else if (is_word("note"))
            texted(s, StatementKind::note);
        else if (is_word("working"))
            working(s);
        else if (is_word("param"))
            param(s);
        else if (is_word("preset"))
            preset(s);
        else if (is_word("let"))
            let(s);
        else if (is_word("proof"))
            proof(s);
        else if (look() == TokenKind::name)
            assign(s);
        else {
            fault(Code::statement_expected, token().span, {shown(token())});
            throw GiveUp{};
        }
        s.span.end = tokens_[at_ - 1].span.end;
        tree_.statements.push_back(std::move(s));
    }

    void named(Statement& s, const std::string& wanted) {
        const Token t = expect(TokenKind::name, wanted);
        s.name = text(t);
        s.name_span = t.span;
    }

    // filter = "filter" STRING;  note = "note" STRING
    void texted(Statement& s, StatementKind kind) {
        s.kind = kind;
        s.name_span = token().span;
        ++at_;
        s.text = quoted();
    }

    // working = "working" SPACE;  a space's name may hold hyphens
    void working(Statement& s) {
        s.kind = StatementKind::working;
        ++at_;
        s.name_span = token().span;
        if (at_line_end())
            give_up("the name of a space");
        std::uint32_t end = token().span.begin;
        while (!at_line_end() && token().span.begin == end)
            end = tokens_[at_++].span.end;
        s.name_span.end = end;
        s.name = text_of(source_, s.name_span);
    }

    // param = "param" NAME "=" number [ "in" number ".." number ] [ "step" number ] [ STRING ]
    void param(Statement& s) {
        s.kind = StatementKind::param;
        ++at_;
        named(s, "the name of the parameter");
        expect(TokenKind::assign, "= and its default");
        s.value = unary();
        if (is_word("in")) {
            ++at_;
            s.low = unary();
            expect(TokenKind::dots, "..");
            s.high = unary();
        }
        if (is_word("step")) {
            ++at_;
            s.step = unary();
        }
        if (look() == TokenKind::string)
            s.text = quoted();
    }

    // preset = "preset" STRING NAME "=" number { "," NAME "=" number }
    void preset(Statement& s) {
        s.kind = StatementKind::preset;
        ++at_;
        s.name_span = token().span;
        s.text = quoted();
        do {
            skip_newlines();
            const Token t = expect(TokenKind::name, "the name of a parameter");
            expect(TokenKind::assign, "=");
            s.values.push_back({text(t), t.span, unary()});
        } while (accept(TokenKind::comma));
    }

    // let = "let" NAME "=" expression
    void let(Statement& s) {
        s.kind = StatementKind::let;
        ++at_;
        named(s, "a name");
        expect(TokenKind::assign, "=");
        skip_newlines();
        s.value = expression();
    }

    // assign = NAME [ "." NAME ] ( "=" | "+=" | "-=" | "*=" | "/=" ) expression
    void assign(Statement& s) {
        s.kind = StatementKind::assign;
        named(s, "a name");
        if (accept(TokenKind::dot)) {
            const Token t = expect(TokenKind::name, "a component");
            s.component = text(t);
            s.component_span = t.span;
        }
        const std::optional<Operator> op = assignment(look());
        if (!op) {
            if (s.component.empty() && at_line_end()) {
                fault(Code::statement_expected, s.name_span, {s.name});
                throw GiveUp{};
            }
            give_up("= after " + s.name);
        }
        s.op = *op;
        ++at_;
        skip_newlines();
        s.value = expression();
    }

    // proof = "proof" STRING ":" NAME [ "<" number ]
    void proof(Statement& s) {
        s.kind = StatementKind::proof;
        ++at_;
        s.text = quoted();
        expect(TokenKind::colon, ": and a proof function");
        named(s, "the name of a proof function");
        if (accept(TokenKind::less))
            s.value = unary();
    }

    // expression = binary [ "?" expression ":" expression ]
    ExprId expression() {
        const ExprId condition = binary_from(1);
        if (look() != TokenKind::question)
            return condition;
        Expr e;
        e.kind = ExprKind::choice;
        e.name_span = token().span;
        ++at_;
        enter();
        skip_newlines();
        const ExprId yes = expression();
        if (brackets_ > 0)
            skip_newlines();
        expect(TokenKind::colon, ": and the other result");
        skip_newlines();
        const ExprId otherwise = expression();
        --depth_;
        e.args = {condition, yes, otherwise};
        e.span = cover(span_of(condition), span_of(otherwise));
        return add(std::move(e));
    }

    // binary = unary { OPERATOR unary }, by the precedences of binary_table
    ExprId binary_from(int lowest) {
        ExprId left = unary();
        while (true) {
            if (brackets_ > 0)
                skip_newlines();
            const BinaryRow* found = binary(look());
            if (!found || found->precedence < lowest)
                return left;
            Expr e;
            e.kind = ExprKind::binary;
            e.op = found->op;
            e.name_span = token().span;
            ++at_;
            skip_newlines();
            const ExprId right = binary_from(found->precedence + 1);
            e.args = {left, right};
            e.span = cover(span_of(left), span_of(right));
            left = add(std::move(e));
        }
    }

    // unary = ( "-" | "!" | "+" ) unary | postfix
    ExprId unary() {
        const Token t = token();
        if (accept(TokenKind::plus)) {
            enter();
            const ExprId same = unary();
            --depth_;
            return same;
        }
        if (t.kind != TokenKind::minus && t.kind != TokenKind::logical_not)
            return postfix();
        ++at_;
        enter();
        Expr e;
        e.kind = ExprKind::unary;
        e.op = t.kind == TokenKind::minus ? Operator::neg : Operator::logical_not;
        e.name_span = t.span;
        e.args = {unary()};
        --depth_;
        e.span = cover(t.span, span_of(e.args[0]));
        return add(std::move(e));
    }

    // postfix = primary { "." NAME }
    ExprId postfix() {
        ExprId inner = primary();
        while (accept(TokenKind::dot)) {
            const Token t = expect(TokenKind::name, "a component");
            Expr e;
            e.kind = ExprKind::component;
            e.name = text(t);
            e.name_span = t.span;
            e.args = {inner};
            e.span = cover(span_of(inner), t.span);
            inner = add(std::move(e));
        }
        return inner;
    }

    // primary = NUMBER | "true" | "false" | NAME | NAME "(" [ expression { "," expression } ] ")" | "(" expression ")"
    ExprId primary() {
        const Token t = token();
        Expr e;
        e.span = t.span;
        if (t.kind == TokenKind::number) {
            ++at_;
            e.kind = ExprKind::number;
            const std::string_view digits = text_of(source_, t.span);
            std::from_chars(digits.data(), digits.data() + digits.size(), e.number);
            return add(std::move(e));
        }
        if (is_word("true") || is_word("false")) {
            e.kind = ExprKind::boolean;
            e.number = is_word("true") ? 1 : 0;
            ++at_;
            return add(std::move(e));
        }
        if (t.kind == TokenKind::open) {
            ++at_;
            enter();
            ++brackets_;
            skip_newlines();
            const ExprId inside = expression();
            skip_newlines();
            const Token close = expect(TokenKind::close, ")");
            --brackets_;
            --depth_;
            tree_.exprs[inside].span = cover(t.span, close.span); // brackets belong to what they hold
            return inside;
        }
        if (t.kind != TokenKind::name)
            give_up("a value");
        ++at_;
        e.name = text(t);
        e.name_span = t.span;
        e.kind = ExprKind::name;
        if (look() != TokenKind::open)
            return add(std::move(e));
        ++at_;
        enter();
        ++brackets_;
        e.kind = ExprKind::call;
        skip_newlines();
        if (look() != TokenKind::close) {
            do {
                skip_newlines();
                e.args.push_back(expression());
                skip_newlines();
            } while (accept(TokenKind::comma));
        }
        e.span = cover(t.span, expect(TokenKind::close, ") or ,").span);
        --brackets_;
        --depth_;
        return add(std::move(e));
    }

    void enter() {
        if (++depth_ > deepest_nesting) {
            fault(Code::nested_too_deep, token().span, {fmt::format("{}", deepest_nesting)});
            throw GiveUp{};
        }
    }

    std::string_view source_;
    Tree& tree_;
    std::vector<Diagnostic>& diagnostics_;
    std::vector<Token> tokens_;
    std::size_t at_ = 0;
    int brackets_ = 0;
    int depth_ = 0;
};

bool too_long(std::string_view source, std::vector<Diagnostic>& diagnostics) {
    if (source.size() <= longest_text)
        return false;
    diagnostics.push_back({Code::text_too_long, Severity::error, {0, 0},
                           {fmt::format("{}", source.size()), fmt::format("{}", longest_text)}, {}});
    return true;
}

} // namespace

Tree parse(std::string_view source, std::vector<Diagnostic>& diagnostics) {
    Tree tree;
    if (!too_long(source, diagnostics))
        Parser(source, tree, diagnostics).file();
    return tree;
}

ExprId parse_expression(std::string_view source, Tree& tree, std::vector<Diagnostic>& diagnostics) {
    return too_long(source, diagnostics) ? no_expr : Parser(source, tree, diagnostics).single();
}

} // namespace kasuri::lang
