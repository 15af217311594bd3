#pragma once
#include "lang/token_stream.hpp"

namespace kasuri::lang {

/// Reads expressions. The grammar stands, rule by rule, above the functions.
class ExpressionParser : public TokenStream {
public:
    ExpressionParser(std::string_view source, Tree& tree, std::vector<Diagnostic>& diagnostics)
        : TokenStream(source, diagnostics), tree_(tree) {}

    /// The whole text is one expression.
    ExprId single();

protected:
    ExprId expression();
    ExprId unary();
    Span span_of(ExprId id) const { return tree_.exprs[id].span; }
    void reset_nesting() { brackets_ = depth_ = 0; }

    Tree& tree_;

private:
    ExprId add(Expr expr);
    ExprId binary_from(int lowest);
    ExprId postfix();
    ExprId primary();
    void enter();

    int brackets_ = 0;
    int depth_ = 0;
};

} // namespace kasuri::lang
