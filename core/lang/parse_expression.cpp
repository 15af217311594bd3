#include "lang/parse_expression.hpp"

#include "lang/parser.hpp"

#include <algorithm>
#include <charconv>
#include <fmt/format.h>

namespace kasuri::lang {

ExprId ExpressionParser::single() {
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

ExprId ExpressionParser::add(Expr expr) {
    for (const ExprId arg : expr.args)
        expr.height = std::max(expr.height, tree_.exprs[arg].height + 1);
    if (expr.height > tallest_expression) {
        fault(Code::nested_too_deep, expr.name_span, {fmt::format("{}", tallest_expression)});
        throw GiveUp{};
    }
    tree_.exprs.push_back(std::move(expr));
    return static_cast<ExprId>(tree_.exprs.size() - 1);
}

// expression = binary [ "?" expression ":" expression ]
ExprId ExpressionParser::expression() {
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
ExprId ExpressionParser::binary_from(int lowest) {
    ExprId left = unary();
    while (true) {
        if (brackets_ > 0)
            skip_newlines();
        const BinaryRow* found = binary_row(look());
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
ExprId ExpressionParser::unary() {
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
ExprId ExpressionParser::postfix() {
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
ExprId ExpressionParser::primary() {
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

void ExpressionParser::enter() {
    if (++depth_ > deepest_nesting) {
        fault(Code::nested_too_deep, token().span, {fmt::format("{}", deepest_nesting)});
        throw GiveUp{};
    }
}

} // namespace kasuri::lang
